"""What already stands on the paper, so that lettering finds a free place."""

from __future__ import annotations

import math
from collections.abc import Iterable, Sequence
from itertools import pairwise

from ..geometry import Arc, Circle, Curve, Line, Loop, Point

Segment = tuple[float, float, float, float]
Box = tuple[float, float, float, float]

_CHORD = 0.35
"""Largest angle, radians, over which an arc is taken as straight here."""


class Occupied:
    """Strokes and boxes on the paper, mm from the datum."""

    def __init__(self, loops: Iterable[Loop], factor: float) -> None:
        self.segments: list[Segment] = [s for loop in loops for p in loop.pieces for s in segments(p.curve, factor)]
        self.boxes: list[Box] = []

    def hits(self, box: Box) -> int:
        """Count what a box would cover."""
        x0, y0, x1, y1 = box
        count = sum(3 for a, b, c, d in self.boxes if a < x1 and c > x0 and b < y1 and d > y0)
        for a, b, c, d in self.segments:
            if (a < x0 and c < x0) or (a > x1 and c > x1) or (b < y0 and d < y0) or (b > y1 and d > y1):
                continue
            count += _cuts((a, b, c, d), box)
        return count

    def crossings(self, first: Point, last: Point) -> int:
        """Count the strokes a leader would cross."""
        x0, x1 = sorted((first.x, last.x))
        y0, y1 = sorted((first.y, last.y))
        count = 0
        for a, b, c, d in self.segments:
            if (a < x0 and c < x0) or (a > x1 and c > x1) or (b < y0 and d < y0) or (b > y1 and d > y1):
                continue
            start, end = Point(a, b), Point(c, d)
            count += (last - first).cross(start - first) * (last - first).cross(end - first) < 0 and (
                end - start
            ).cross(first - start) * (end - start).cross(last - start) < 0
        return count

    def take(self, box: Box) -> None:
        """Mark a box as taken."""
        self.boxes.append(box)


def _cuts(segment: Segment, box: Box) -> bool:
    """Tell whether a segment passes through a box (clipping against its four sides)."""
    (a, b, c, d), (x0, y0, x1, y1) = segment, box
    low, high = 0.0, 1.0
    for start, run, least, most in ((a, c - a, x0, x1), (b, d - b, y0, y1)):
        if run == 0:
            if not least <= start <= most:
                return False
            continue
        one, other = sorted(((least - start) / run, (most - start) / run))
        low, high = max(low, one), min(high, other)
        if low > high:
            return False
    return True


def segments(curve: Curve, factor: float) -> Sequence[Segment]:
    """Return a curve as short straight strokes, mm."""
    match curve:
        case Line(start=float() as start, end=float() as end):
            a, b = curve.at(start) * factor, curve.at(end) * factor
            return [(a.x, a.y, b.x, b.y)]
        case Circle():
            return segments(Arc(curve.centre, curve.radius, 0.0, math.tau), factor)
        case Arc(start=start, sweep=sweep):
            count = max(1, math.ceil(abs(sweep) / _CHORD))
            spots = [curve.at(start + sweep * index / count) * factor for index in range(count + 1)]
            return [(a.x, a.y, b.x, b.y) for a, b in pairwise(spots)]
    return []
