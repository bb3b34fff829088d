"""A smooth curve through points, of arcs that run into each other without a corner."""

from __future__ import annotations

import math
from collections.abc import Sequence

from ..tolerance import NOUGHT, ROUND, same
from .shapes import Arc, Line, Point
from .three import circles_touching


def smooth(
    spots: Sequence[Point],
    closed: bool = False,
    leaving: Point | None = None,
    arriving: Point | None = None,
) -> tuple[Line | Arc, ...]:
    """Return arcs through points, two between each and the next, tangent wherever they join.

    Parameters
    ----------
    spots : sequence of Point
        At least two, neighbours apart.
    closed : bool
        Whether the curve comes back to its first point.
    leaving, arriving : Point or None
        Directions at the two ends; those of the circle through the three outermost points when not
        given.

    Returns
    -------
    tuple of Line or Arc

    Notes
    -----
    At each inner point the curve has the direction of the circle through it and its two neighbours;
    where it comes straight back it turns round to the left. Between two points with directions lies
    a pair of arcs whose distances along the end tangents are equal (closed form, the biarc of
    engineering practice)."""
    count = len(spots)
    headings = [_heading(spots, index, closed) for index in range(count)]
    if leaving is not None and not closed:
        headings[0] = leaving.unit
    if arriving is not None and not closed:
        headings[-1] = arriving.unit
    pairs = range(count if closed else count - 1)
    return tuple(
        curve
        for index in pairs
        for curve in arc_pair(
            spots[index], headings[index], spots[(index + 1) % count], headings[(index + 1) % count]
        )
    )


def _heading(spots: Sequence[Point], index: int, closed: bool) -> Point:
    count = len(spots)
    if count == 2:
        return (spots[1] - spots[0]).unit
    middle = index if closed else min(max(index, 1), count - 2)
    before, at, after = (spots[(middle + step) % count] for step in (-1, 0, 1))
    ahead = after - before if abs(after - before) > 0 else at - before
    circle = next(iter(circles_touching((before, at, after))), None)
    if circle is None and (at - before).dot(after - at) < 0:
        # It turns straight back: round the place where it turns, and along the path before and
        # after.
        along = ((at - before).unit, (at - before).unit.normal, (after - at).unit)
        return along[1 if closed else index - middle + 1]
    if circle is None:
        return ahead.unit
    tangent = (spots[index] - circle.circle.centre).unit.normal
    turn = (at - before).cross(after - at)
    return tangent if turn > 0 else -tangent


def arc_pair(first: Point, leaving: Point, last: Point, arriving: Point) -> tuple[Line | Arc, ...]:
    """Return two arcs from a point and direction to another, tangent where they meet."""
    across, both = last - first, leaving + arriving
    spread = 2 * (1 - leaving.dot(arriving))
    if spread < NOUGHT:
        joint = (first + last) * 0.5
    else:
        step = (
            -across.dot(both) + math.sqrt(across.dot(both) ** 2 + spread * across.dot(across))
        ) / spread
        joint = (first + last + (leaving - arriving) * step) * 0.5
    return (
        *_tangent_arc(first, leaving, joint),
        *(_reversed(c) for c in _tangent_arc(last, -arriving, joint)),
    )


def _tangent_arc(start: Point, heading: Point, end: Point) -> tuple[Line | Arc, ...]:
    """Return the arc (or line) that leaves a point in a direction and ends at another."""
    across = end - start
    length = abs(across)
    if length <= same(abs(start)):
        return ()
    bend = 2 * heading.normal.dot(across) / (length * length)
    if abs(bend) * length < ROUND:
        return (Line.between(start, end),)
    centre = start + heading.normal * (1 / bend)
    begin = (start - centre).angle
    turn = ((end - centre).angle - begin) % math.tau
    return (Arc(centre, abs(1 / bend), begin, turn if bend > 0 else turn - math.tau),)


def _reversed(curve: Line | Arc) -> Line | Arc:
    if isinstance(curve, Arc):
        return Arc(curve.centre, curve.radius, curve.start + curve.sweep, -curve.sweep)
    assert curve.end is not None
    return Line.between(curve.at(curve.end), curve.through)
