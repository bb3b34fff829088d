"""How near two drawn curves come to each other, and where."""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence

from ..memo import remembered
from .loop import Boxed, Loop, boxed, nearest_place
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
    The nearest places are a shared point, or an end and its nearest place on the other curve, or
    lie square to both: on the perpendicular from a centre, or on the line of centres."""
    for meeting in meet(first, second):
        if is_drawn_at(first, meeting.point) and is_drawn_at(second, meeting.point):
            return 0.0, meeting.point, meeting.point
    return min(facing(first, second), key=lambda span: span[0])


def facing(first: Curve, second: Curve) -> Iterator[Distance]:
    """Return the spans among which the least is: from an end to its nearest place, or square to
    both."""
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
                    spots = (
                        a.centre + ahead * (one * a.radius),
                        b.centre + ahead * (other * b.radius),
                    )
                    if is_drawn_at(first, spots[0]) and is_drawn_at(second, spots[1]):
                        yield abs(spots[1] - spots[0]), *spots


def _square(
    first: Curve, second: Curve, foot: Point, circle: Circle, round_first: bool
) -> Iterator[Distance]:
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


@remembered()
def least_wall(first: Loop, second: Loop) -> Distance:
    """Return the least distance of two outlines, and where it is; known for two that were measured
    before."""
    return _least_wall(boxed(first), boxed(second))


def _least_wall(first: Boxed, second: Boxed) -> Distance:
    best: Distance = (math.inf, Point(0.0, 0.0), Point(0.0, 0.0))
    # The pieces that may be nearest come first, so that the rest need only be told to lie further
    # off.
    near = sorted((box.apart(second.box), index) for index, box in enumerate(first.boxes))
    for away, index in near:
        if away >= best[0]:
            break
        box, curve = first.boxes[index], first.loop.pieces[index].curve
        others = sorted((box.apart(around), other) for other, around in enumerate(second.boxes))
        for apart, other in others:
            if apart >= best[0]:
                break
            best = min(
                best, nearest(curve, second.loop.pieces[other].curve), key=lambda span: span[0]
            )
    return best
