"""The questions of a plan, a file for each sort: made from its steps, working and figure, with
nothing to author."""

from __future__ import annotations

from collections import Counter
from random import Random

from ...desk import Work
from ..question import Question
from . import (
    candidate,
    chain,
    crossing,
    equal_parts,
    flats,
    keyways,
    next_piece,
    openings,
    order,
    planted,
    reading,
    sizes,
    stations,
    threads,
    wheels,
)
from .context import Context

PLAIN = (sizes, equal_parts, crossing, stations, wheels, threads, keyways, flats, chain, candidate)
"""Sorts of which all there is to ask is asked."""

BY_LOT = (reading, openings, next_piece, order, planted)
"""Sorts of which some are drawn by lot."""

MOST_ALIKE = 3
"""Questions of one rule about one statement: a curve has many stations, and one learns by three of
them."""


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
    found = [question for each in (*PLAIN, *BY_LOT) for question in each.ask(at, random)]
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
