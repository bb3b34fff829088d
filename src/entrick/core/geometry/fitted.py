"""Curves that are neither straight nor round, drawn as arcs that run into each other and keep to them closely."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from itertools import pairwise

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
    """Return arcs that keep within a distance of a curve and have its place and direction at every knot.

    Parameters
    ----------
    place : callable
        Where the curve is at a parameter.
    heading : callable
        Its direction there, of length 1, the way the parameter grows.
    knots : sequence of float
        Parameters, rising, between which arcs are put; more are put between where the arcs depart too far.
    within : float
        Greatest departure, plan units.

    Returns
    -------
    tuple of Line or Arc
        Tangent to each other, two for each stretch (closed form, the biarc of engineering practice).
    """
    # Finer than this against its own length nothing is drawn, whatever was asked.
    spots = [place(knot) for knot in knots]
    within = max(within, FINEST * max(abs(spot - spots[0]) for spot in spots))
    found: list[Line | Arc] = []
    for start, end in pairwise(knots):
        found += _stretch(place, heading, start, end, within, 0)
    return tuple(found)


def _off(pair: Sequence[Line | Arc], spot: Point) -> float:
    """Return how far a place is from the nearer of two arcs, each taken for its whole circle: they are short."""
    return min(
        abs(abs(spot - curve.centre) - curve.radius) if isinstance(curve, Arc) else abs(curve.offset_of(spot))
        for curve in pair
    )


def _stretch(
    place: Callable[[float], Point],
    heading: Callable[[float], Point],
    start: float,
    end: float,
    within: float,
    deep: int,
) -> list[Line | Arc]:
    pair = arc_pair(place(start), heading(start), place(end), heading(end))
    if not pair:
        return []
    off = max(_off(pair, place(start + (end - start) * share)) for share in CHECKED)
    if off <= within or deep >= DEEPEST:
        return list(pair)
    middle = (start + end) / 2
    return [
        *_stretch(place, heading, start, middle, within, deep + 1),
        *_stretch(place, heading, middle, end, within, deep + 1),
    ]
