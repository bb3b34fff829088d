"""How exactly a file is written: the last decimal all of its numbers are whole in."""

from __future__ import annotations

import math
from collections.abc import Iterable

from ..geometry import Arc, Circle, Line
from ..geometry.shapes import ends as ends_of
from ..tolerance import OF_ONE
from .profile import Curve

FEWEST, MOST = 2, 5
"""Decimals by which it can be told: with fewer, numbers are round because they were given so; with
more, they are as exact as any."""


OF_LAST = 2.0
"""Of the last decimal, how far places of a file may be off: those that are worked out of others
that are rounded."""

Ways = tuple[tuple[float, ...], ...]
"""The numbers a piece may have been written by: those of one way or of the other."""


def last_decimal(pieces: Iterable[Ways]) -> float:
    """Return what one in the last decimal of a file's numbers is, in the file's own unit; nought
    where its numbers have more than are told by.

    Parameters
    ----------
    pieces : iterable of tuple of tuple of float
        The numbers of each as the file has them.
    """
    kept = list(pieces)
    for decimals in range(MOST + 1):
        if all(_is_written(ways, decimals) for ways in kept):
            told = decimals >= FEWEST and (decimals > FEWEST or _is_rounded(kept, decimals))
            return 10.0**-decimals if told else 0.0
    return 0.0


def _is_rounded(pieces: Iterable[Ways], decimals: int) -> bool:
    """Tell whether most numbers have all the decimals: few are given so."""
    values = {round(abs(value), decimals) for ways in pieces for value in ways[0]}
    full = sum(not _is_whole(value * 10 ** (decimals - 1)) for value in values)
    return 2 * full > len(values)


def _is_written(ways: Ways, decimals: int) -> bool:
    return any(all(_is_whole(value * 10**decimals) for value in way) for way in ways)


def _is_whole(value: float) -> bool:
    return math.isfinite(value) and abs(value - round(value)) <= 10 * OF_ONE


def numbers_of(curve: Curve) -> Ways:
    """Return the numbers of a piece: of an arc either its ends were written, or its centre and
    radius."""
    match curve:
        case Line():
            a, b = ends_of(curve)
            return ((*a, *b),)
        case Circle():
            return ((*curve.centre, curve.radius),)
        case Arc():
            return ((*curve.first, *curve.last), (*curve.centre, curve.radius))
    return ((*curve.centre, *curve.major),)
