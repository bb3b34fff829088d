"""Where two curves cross or touch, and by how much they miss."""

from __future__ import annotations

import math
from typing import NamedTuple

from ..tolerance import same
from .shapes import Arc, Circle, Curve, Line, Point, point_of, support


class Meeting(NamedTuple):
    """A point two curves share; `touch` when they are tangent there."""

    point: Point
    touch: bool


def meet(first: Curve, second: Curve) -> tuple[Meeting, ...]:
    """Return where the whole curves behind two pieces cross or touch.

    Parameters
    ----------
    first, second : Line, Circle or Arc

    Returns
    -------
    tuple of Meeting
        None, one (a touch, or two straight lines) or two. Coincident curves meet nowhere in
        particular: none.

    Notes
    -----
    Closed forms: Cramer's rule; Pythagoras on the foot of the perpendicular; the radical line of
    two circles.

    Examples
    --------
    >>> meet(Circle(Point(0, 0), 5), Line(Point(3, 0), Point(0, 1)))[0].point
    Point(x=3.0, y=-4.0)
    """
    if isinstance(first, Circle | Arc) and isinstance(second, Circle | Arc):
        return _circles(first, second)
    match support(first), support(second):
        case Line() as a, Line() as b:
            return _lines(a, b)
        case Line() as a, Circle() as b:
            return _line_circle(a, b)
        case Circle() as a, Line() as b:
            return _line_circle(b, a)
    raise TypeError("only curves meet")


def _lines(a: Line, b: Line) -> tuple[Meeting, ...]:
    turn = a.direction.cross(b.direction)
    if abs(turn) < same(1):
        return ()
    along = (b.through - a.through).cross(b.direction) / turn
    return (Meeting(a.at(along), False),)


def _line_circle(line: Line, circle: Circle) -> tuple[Meeting, ...]:
    along = line.along(circle.centre)
    distance = abs(line.offset_of(circle.centre))
    if abs(distance - circle.radius) <= same(max(circle.radius, distance)):
        return (Meeting(line.at(along), True),)
    if distance > circle.radius:
        return ()
    half = math.sqrt((circle.radius - distance) * (circle.radius + distance))
    return (Meeting(line.at(along - half), False), Meeting(line.at(along + half), False))


def _circles(a: Circle | Arc, b: Circle | Arc) -> tuple[Meeting, ...]:
    found = crossings(a, b)
    return tuple([Meeting(spot, len(found) == 1) for spot in found])


def crossings(a: Circle | Arc, b: Circle | Arc) -> list[Point]:
    """Return where two whole circles cross, on the right of the line of centres first, or the one
    place where they touch."""
    # In plain floats: this is at the bottom of every blend and every walk.
    (x, y), (u, v), r, s = a.centre, b.centre, a.radius, b.radius
    dx, dy = u - x, v - y
    distance = math.hypot(dx, dy)
    tolerance = same(max(r, s, distance))
    if distance <= tolerance:
        return []
    dx, dy = dx / distance, dy / distance
    outside = abs(distance - (r + s)) <= tolerance
    if outside or abs(distance - abs(r - s)) <= tolerance:
        if not outside and r < s:
            return [Point(u - dx * s, v - dy * s)]
        return [Point(x + dx * r, y + dy * r)]
    if not abs(r - s) <= distance <= r + s:
        return []
    along = (distance + (r - s) * (r + s) / distance) / 2
    across = math.sqrt(max(0.0, (r - along) * (r + along)))
    x, y = x + dx * along, y + dy * along
    dx, dy = dx * across, dy * across
    return [point_of(Point, (x + dy, y - dx)), point_of(Point, (x - dy, y + dx))]


def gap(first: Curve, second: Curve) -> tuple[float, Point]:
    """Return by how much two curves miss each other, and where they come nearest.

    Returns
    -------
    distance : float
        Plan units; 0 when they meet.
    place : Point
        Half way across the gap.
    """
    match support(first), support(second):
        case Line() as a, Line() as b:
            if meet(a, b):
                return 0.0, meet(a, b)[0].point
            distance = a.offset_of(b.through)
            return abs(distance), a.foot(b.through) + a.direction.normal * (distance / 2)
        case (Line() as line, Circle() as circle) | (Circle() as circle, Line() as line):
            foot = line.foot(circle.centre)
            miss = abs(foot - circle.centre) - circle.radius
            if miss <= 0:
                return 0.0, foot
            return miss, foot + (circle.centre - foot).unit * (miss / 2)
        case Circle() as a, Circle() as b:
            distance = abs(b.centre - a.centre)
            axis = (b.centre - a.centre).unit if distance > 0 else Point(1, 0)
            if distance > a.radius + b.radius:
                miss = distance - a.radius - b.radius
                return miss, a.centre + axis * (a.radius + miss / 2)
            big, small, outward = (a, b, axis) if a.radius >= b.radius else (b, a, -axis)
            miss = max(0.0, big.radius - small.radius - distance)
            return miss, big.centre + outward * (big.radius - miss / 2)
    raise TypeError("only curves have a gap")
