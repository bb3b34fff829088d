"""Where pieces run into each other without a corner."""

from __future__ import annotations

import math

from ..geometry import Arc, Line, Point
from ..tolerance import RUNS_INTO
from .profile import Piece, length_of

WIDEST = math.radians(8)
"""A corner wider than this is one, however far places may be off."""


def direction(curve: Piece, spot: Point) -> Point:
    """Return which way a piece goes at a place."""
    if isinstance(curve, Line):
        return curve.direction
    out = (spot - curve.centre).unit
    return out.normal if curve.sweep > 0 else -out.normal


def runs_into(one: Piece, other: Piece, spot: Point, within: float = 0.0) -> bool:
    """Tell whether the second piece goes on where the first comes to, without a corner.

    Parameters
    ----------
    one, other : Line or Arc
    spot : Point
        Where they meet.
    within : float
        How far pieces may be off: two that touch and are moved apart by it cross at an angle of
        about √(2·within/size).
    """
    a, b = direction(one, spot), direction(other, spot)
    sizes = [
        min(length_of(each), each.radius) if isinstance(each, Arc) else length_of(each)
        for each in (one, other)
    ]
    slack = max(
        RUNS_INTO, min(WIDEST, math.sqrt(2 * within / max(min(sizes), within))) if within else 0.0
    )
    return abs(a.cross(b)) < slack and a.dot(b) > 0
