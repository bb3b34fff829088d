"""The questions of a plan, ONE FILE FOR EACH SORT: made from its steps, working and figure, with
nothing to author. A module with ``ask`` is a sort."""

from __future__ import annotations

from collections import Counter
from functools import cache
from importlib import import_module
from pkgutil import iter_modules
from random import Random
from types import ModuleType

from ...desk import Work
from ..question import Question
from .context import Context
from .hints import says, with_hints

MOST_ALIKE = 3
"""Questions of one rule about one statement: a curve has many stations, and one learns by three of
them."""


@cache
def sorts() -> tuple[ModuleType, ...]:
    """Return every sort of question in its place: the modules of this package that have ``ask``."""
    modules = (import_module(f"{__name__}.{info.name}") for info in iter_modules(__path__))
    asking = (module for module in modules if hasattr(module, "ask"))
    return tuple(sorted(asking, key=lambda module: module.PLACE))


def _echoes(question: Question) -> bool:
    """Tell whether the answer stands in the question itself."""
    right = question.right
    return (
        isinstance(right, float | int)
        and question.rule_shown is None
        and says(question.asks, float(right))
    )


def questions(work: Work, seed: int = 1) -> tuple[Question, ...]:
    """Return every question worth asking about a plan.

    Parameters
    ----------
    work : Work
        Without mistakes.
    seed : int
        Decides what is drawn by lot: which steps are to be put in order, what is planted.

    Returns
    -------
    tuple of Question
        In the order of work. Where a slip gives the right number the slip is left out, and the
        question where that was its point.
    """
    at = Context(work)
    random = Random(seed)
    found = [with_hints(q) for each in sorts() for q in each.ask(at, random) if not _echoes(q)]
    seen: set[tuple[str, object]] = set()
    kept: list[Question] = []
    count: Counter[tuple[str, int]] = Counter()
    for question in sorted(found, key=lambda each: (each.line, each.step)):
        # The same size of the same statement is asked once, however many members of a family have
        # it.
        same = (question.asks, question.right)
        if same not in seen and count[question.rule, question.line] < MOST_ALIKE:
            seen.add(same)
            count[question.rule, question.line] += 1
            kept.append(question)
    return tuple(kept)
