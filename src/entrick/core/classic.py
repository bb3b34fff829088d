"""Classic constructions with compass and straight edge, as steps that several kinds share."""

from __future__ import annotations

import math

from .geometry import Arc, Line, Point
from .kind import Step, Stroke, Tool
from .tolerance import same

OPEN = 0.6
"""Compass opening of a bisection, as a share of the distance: anything over a half will do."""


def bisection(first: Point, second: Point, names: tuple[str, str], result: Stroke, does: str) -> tuple[Step, ...]:
    """Return the compass-and-straight-edge steps that bisect the distance of two points."""
    apart = abs(second - first)
    if apart <= same(apart):
        return ()
    radius = apart * OPEN
    half = math.acos(0.5 / OPEN) * 1.25
    swings = tuple(
        Step(
            Tool.COMPASS,
            f"Open to more than half, needle on {name}, swing above and below",
            radius,
            at,
            tuple(Stroke(Arc(at, radius, towards + side * half * 0.8 - half * 0.2, half * 0.4)) for side in (1, -1)),
        )
        for at, other, name in ((first, second, names[0]), (second, first, names[1]))
        for towards in ((other - at).angle,)
    )
    axis = Line((first + second) * 0.5, (second - first).unit.normal, -radius, radius)
    join = Step(Tool.STRAIGHTEDGE, f"Join the two crossings and {does}", strokes=(Stroke(axis), result))
    return (*swings, join)
