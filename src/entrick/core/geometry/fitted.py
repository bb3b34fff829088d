"""Curves that are neither straight nor round, drawn as arcs that run into each other and keep to
them closely."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from itertools import pairwise
from typing import NamedTuple

from ..tolerance import FINEST
from .biarc import arc_pair
from .shapes import Arc, Line, Point

DEEPEST = 8
"""Halvings of one stretch; 256 pairs of arcs are more than any sheet can show."""


CHECKED = (0.25, 0.5, 0.75)
"""Shares of a stretch at which its arcs are held against the curve."""


def fitted(
    place: Callable[[float], Point],
    heading: Callable[[float], Point],
    knots: Sequence[float],
    within: float,
) -> tuple[Line | Arc, ...]:
    """Return arcs that keep within a distance of a curve and have its place and direction at every
    knot.

    Parameters
    ----------
    place : callable
        Where the curve is at a parameter.
    heading : callable
        Its direction there, of length 1, the way the parameter grows.
    knots : sequence of float
        Parameters, rising, between which arcs are put; more are put between where the arcs depart
        too far.
    within : float
        Greatest departure, plan units.

    Returns
    -------
    tuple of Line or Arc
        Tangent to each other, two for each stretch (closed form, the biarc of engineering
        practice).
    """
    ends = [End(knot, place(knot), heading(knot)) for knot in knots]
    # Finer than this against its own length nothing is drawn, whatever was asked.
    within = max(within, FINEST * max(abs(end.spot - ends[0].spot) for end in ends))
    result: list[Line | Arc] = []
    for start, end in pairwise(ends):
        result += _stretch(place, heading, start, end, within, 0)
    return tuple(result)


class End(NamedTuple):
    """Where a stretch begins or ends: its parameter, place and direction."""

    at: float
    spot: Point
    heading: Point


def _off(pair: Sequence[Line | Arc], spot: Point) -> float:
    """Return how far a place is from the nearer of two arcs, each taken for its whole circle: they
    are short."""
    return min(
        abs(abs(spot - curve.centre) - curve.radius)
        if isinstance(curve, Arc)
        else abs(curve.offset_of(spot))
        for curve in pair
    )


def _stretch(
    place: Callable[[float], Point],
    heading: Callable[[float], Point],
    start: End,
    end: End,
    within: float,
    deep: int,
) -> list[Line | Arc]:
    pair = arc_pair(start.spot, start.heading, end.spot, end.heading)
    if not pair:
        return []
    long = end.at - start.at
    if deep >= DEEPEST or all(
        _off(pair, place(start.at + long * share)) <= within for share in CHECKED
    ):
        return list(pair)
    at = (start.at + end.at) / 2
    middle = End(at, place(at), heading(at))
    return [
        *_stretch(place, heading, start, middle, within, deep + 1),
        *_stretch(place, heading, middle, end, within, deep + 1),
    ]
