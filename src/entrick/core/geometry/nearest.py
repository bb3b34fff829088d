"""How near two drawn curves come to each other, and where."""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence

from .loop import Loop, nearest_place
from .meet import meet
from .shapes import Arc, Circle, Curve, Line, Point, extremes, is_drawn_at, support

Distance = tuple[float, Point, Point]
"""A distance with the place at either end of it."""


def nearest(first: Curve, second: Curve) -> Distance:
    """Return the least distance of two drawn curves, and where it is.

    Parameters
    ----------
    first, second : Line with ends, Circle or Arc

    Returns
    -------
    distance : float
        Plan units; 0 where they meet.
    places : two Points
        On the first and on the second curve.

    Notes
    -----
    The nearest places are a shared point, or an end and its nearest place on the other curve, or lie square to both:
    on the perpendicular from a centre, or on the line of centres.
    """
    for meeting in meet(first, second):
        if is_drawn_at(first, meeting.point) and is_drawn_at(second, meeting.point):
            return 0.0, meeting.point, meeting.point
    return min(_candidates(first, second), key=lambda span: span[0])


def _candidates(first: Curve, second: Curve) -> Iterator[Distance]:
    for end in ends_of(first):
        place = nearest_place(second, end)
        yield abs(place - end), end, place
    for end in ends_of(second):
        place = nearest_place(first, end)
        yield abs(place - end), place, end
    match support(first), support(second):
        case (Line() as line, Circle() as circle):
            yield from _square(first, second, line.foot(circle.centre), circle, False)
        case (Circle() as circle, Line() as line):
            yield from _square(first, second, line.foot(circle.centre), circle, True)
        case Circle() as a, Circle() as b:
            apart = b.centre - a.centre
            ahead = apart.unit if abs(apart) > 0 else Point(1.0, 0.0)
            for one in (1, -1):
                for other in (1, -1):
                    spots = a.centre + ahead * (one * a.radius), b.centre + ahead * (other * b.radius)
                    if is_drawn_at(first, spots[0]) and is_drawn_at(second, spots[1]):
                        yield abs(spots[1] - spots[0]), *spots


def _square(first: Curve, second: Curve, foot: Point, circle: Circle, round_first: bool) -> Iterator[Distance]:
    ahead = foot - circle.centre
    if abs(ahead) == 0:
        return
    spot = circle.centre + ahead.unit * circle.radius
    pair = (spot, foot) if round_first else (foot, spot)
    if is_drawn_at(first, pair[0]) and is_drawn_at(second, pair[1]):
        yield abs(foot - spot), *pair


def ends_of(curve: Curve) -> Sequence[Point]:
    """Return the drawn ends of a curve; none for a circle."""
    match curve:
        case Arc():
            return (curve.first, curve.last)
        case Line(start=float(), end=float()):
            return extremes(curve)
    return ()


def least_wall(first: Loop, second: Loop) -> Distance:
    """Return the least distance of two outlines, and where it is."""
    best: Distance = (math.inf, Point(0.0, 0.0), Point(0.0, 0.0))
    boxes = [_box(piece.curve) for piece in second.pieces]
    for piece in first.pieces:
        box = _box(piece.curve)
        for other, around in zip(second.pieces, boxes, strict=True):
            if _apart(box, around) < best[0]:
                best = min(best, nearest(piece.curve, other.curve), key=lambda span: span[0])
    return best


Box = tuple[float, float, float, float]


def _box(curve: Curve) -> Box:
    spots = extremes(curve)
    xs, ys = [spot.x for spot in spots], [spot.y for spot in spots]
    return min(xs), min(ys), max(xs), max(ys)


def _apart(one: Box, other: Box) -> float:
    """Return the distance of two boxes: no two places in them are nearer."""
    across = max(0.0, other[0] - one[2], one[0] - other[2])
    up = max(0.0, other[1] - one[3], one[1] - other[3])
    return math.hypot(across, up)
