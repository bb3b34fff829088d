"""New parts to set out, ONE FILE FOR EACH TOPIC: sizes drawn by lot within what makes a part. A
module with ``draw`` is a topic."""

from __future__ import annotations

from functools import cache
from importlib import import_module
from pkgutil import iter_modules
from random import Random
from types import ModuleType

from ...desk import Work, work_out
from ...plan.errors import ClauseError
from ..grades import ANY, at_grade

TRIES = 60
"""Parts that are drawn until one is sound."""

GRADED = 4
"""Parts that are tried at another scale before one stays at its own: some have no room there."""

LOUD = frozenset({"wrong", "look"})
"""Findings a new part has none of."""


@cache
def topics() -> dict[str, ModuleType]:
    """Return every topic by its name: the modules of this package that have ``draw``."""
    modules = {
        info.name: import_module(f"{__name__}.{info.name}") for info in iter_modules(__path__)
    }
    return {name: module for name, module in modules.items() if hasattr(module, "draw")}


def new_part(topic: str, seed: int, grade: int = ANY) -> Work:
    """Return a part of a topic that nobody has had before.

    Parameters
    ----------
    topic : str
        Of `topics`.
    seed : int
        The same seed gives the same part.
    grade : int
        Of `GRADES`.

    Returns
    -------
    Work
        Without mistakes and silent at the inspection, on a sheet that holds it.

    Raises
    ------
    ClauseError
        Where there is no such topic.
    """
    found = topics().get(topic)
    if found is None:
        raise ClauseError(f"there is no topic {topic}; there are {', '.join(topics())}")
    random = Random(f"{topic} {seed}")
    as_drawn = None
    for turn in range(TRIES):
        text = _whole(found, random, seed)
        work = work_out(text)
        if not is_sound(work):
            continue
        as_drawn = as_drawn or work
        graded = work_out(at_grade(text, grade))
        if is_sound(graded):
            return graded
        if turn >= GRADED:
            break
    if as_drawn is not None:
        return as_drawn
    raise ClauseError(f"no sound part of {topic} was found with this number: take another")


def _whole(topic: ModuleType, random: Random, seed: int) -> str:
    rows = "".join(f"{row.strip()}\n" for row in topic.draw(random).strip().splitlines())
    return f'plan "{topic.TITLE} {seed}"\nunits mm\n{topic.SHEET}\n{rows}'


def is_sound(work: Work) -> bool:
    """Tell whether a part has no mistake, nothing to look at, and a sheet that holds it."""
    if work.solution.errors or work.sheet.errors:
        return False
    (low, high), (a, b) = work.sheet.space, work.sheet.room
    fits = a.x >= low.x and a.y >= low.y and b.x <= high.x and b.y <= high.y
    return fits and not any(finding.weight in LOUD for finding in work.findings)
