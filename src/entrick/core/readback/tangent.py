"""Where pieces run into each other without a corner."""

from __future__ import annotations

from ..geometry import Line, Point
from ..tolerance import RUNS_INTO
from .profile import Piece


def direction(curve: Piece, spot: Point) -> Point:
    """Return which way a piece goes at a place."""
    if isinstance(curve, Line):
        return curve.direction
    out = (spot - curve.centre).unit
    return out.normal if curve.sweep > 0 else -out.normal


def runs_into(one: Piece, other: Piece, spot: Point) -> bool:
    """Tell whether the second piece goes on where the first comes to, without a corner."""
    a, b = direction(one, spot), direction(other, spot)
    return abs(a.cross(b)) < RUNS_INTO and a.dot(b) > 0
