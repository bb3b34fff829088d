"""Reading the rule of a kit, one size after another, against the clock: no plan is wanted."""

from __future__ import annotations

from fractions import Fraction
from random import Random

from ..board.kit import Kit
from ..measure import RulePiece
from .ask.reading import reading, setting
from .question import Question

FARTHEST_MM = 200
"""Sizes are taken from the first so many millimetres of a rule, on the paper."""


def drill_question(kit: Kit, seed: int) -> Question:
    """Return one size to be read off, or set, by lot: on any face the rule of a kit has.

    Parameters
    ----------
    kit : Kit
    seed : int
        The same seed gives the same question.
    """
    random = Random(seed)
    ratio = random.choice([Fraction(1), *sorted(kit.faces)])
    step = kit.graduation / ratio
    farthest = min(kit.length, FARTHEST_MM / kit.unit.mm)
    piece = RulePiece(kit.unit, step, ratio, 0, 0)
    marks = range(1, int(farthest / kit.graduation) + 1)
    worth = [number for number in marks if piece.rank(number * step) > 0] or list(marks)
    make = random.choice((reading, setting))
    return make(f"drill:{seed}", kit, random.choice(worth), ratio, 0)
