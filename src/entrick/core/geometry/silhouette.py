"""What is seen of a flat shape moved straight along: its outline, with edges that touch it
exactly."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

from ..tolerance import ROUND, assembled, surely_two
from .shapes import Arc, Line, Point, ends
from .transform import shift

Drawn = Line | Arc


@dataclass(frozen=True, slots=True)
class Swept:
    """A shape moved along.

    Attributes
    ----------
    touches : two Points
        Where the edges touch the shape.
    edges : two Lines
        From the shape to where it has moved.
    near : tuple of Line or Arc
        The part of the shape that lies inside the outline.
    far, hidden : tuple of Line or Arc
        Of the moved shape, what is seen and what the shape hides.
    outline : tuple of Line or Arc
        All round, end to end.
    """

    touches: tuple[Point, Point]
    edges: tuple[Line, Line]
    near: tuple[Drawn, ...]
    far: tuple[Drawn, ...]
    hidden: tuple[Drawn, ...]
    outline: tuple[Drawn, ...]


def swept(ring: Sequence[Drawn], by: Point) -> Swept:
    """Return what is seen of a convex shape moved by a displacement, the shape itself nearest.

    Parameters
    ----------
    ring : sequence of Line or Arc
        Closed, counter-clockwise, convex.
    by : Point
        Not nought.

    Notes
    -----
    The edges run along the displacement and touch where the shape reaches furthest across it.
    """
    across = by.unit.normal
    touches = (_furthest(ring, across), _furthest(ring, -across))
    turned = _from(_cut(ring, touches), touches[0])
    close = surely_two(max(abs(spot) for spot in touches) + abs(by))
    middle = (
        next(i for i, curve in enumerate(turned) if abs(ends(curve)[1] - touches[1]) < close) + 1
    )
    # Counter-clockwise from the left-hand touch point the walk goes behind first, then ahead.
    behind, ahead = turned[:middle], turned[middle:]
    far = tuple(shift(curve, by) for curve in ahead)
    edges = (Line.between(touches[0], touches[0] + by), Line.between(touches[1], touches[1] + by))
    outline = (*behind, edges[1], *far, Line.between(touches[0] + by, touches[0]))
    return Swept(
        touches, edges, tuple(ahead), far, tuple(shift(curve, by) for curve in behind), outline
    )


def _furthest(ring: Sequence[Drawn], way: Point) -> Point:
    spots = []
    for curve in ring:
        spots.append(ends(curve)[0])
        if isinstance(curve, Arc):
            turn = (way.angle - curve.start) * math.copysign(1, curve.sweep) % math.tau
            if turn <= abs(curve.sweep):
                spots.append(curve.centre + way * curve.radius)
    return max(spots, key=lambda spot: spot.dot(way))


def _cut(ring: Sequence[Drawn], touches: Sequence[Point]) -> list[Drawn]:
    """Part arcs at touch points that lie inside them."""
    result: list[Drawn] = []
    for curve in ring:
        at = [spot for spot in touches if isinstance(curve, Arc) and _inside(curve, spot)]
        if at and isinstance(curve, Arc):
            turn = ((at[0] - curve.centre).angle - curve.start) % math.tau
            result.append(Arc(curve.centre, curve.radius, curve.start, turn, curve.exact))
            result.append(
                Arc(curve.centre, curve.radius, curve.start + turn, curve.sweep - turn, curve.exact)
            )
        else:
            result.append(curve)
    return result


def _inside(arc: Arc, spot: Point) -> bool:
    if abs(abs(spot - arc.centre) - arc.radius) > assembled(arc.radius):
        return False
    turn = ((spot - arc.centre).angle - arc.start) % math.tau
    return ROUND < turn < arc.sweep - ROUND


def _from(ring: list[Drawn], spot: Point) -> list[Drawn]:
    first = min(range(len(ring)), key=lambda index: abs(ends(ring[index])[0] - spot))
    return ring[first:] + ring[:first]
