"""Mirror images."""

from __future__ import annotations

from typing import TypeVar, cast

from .shapes import Arc, Circle, Line, Point, Shape

S = TypeVar("S", bound=Shape)


def reflect(shape: S, axis: Line) -> S:
    """Return the mirror image of a shape about a line: congruent, turned over.

    Parameters
    ----------
    shape : Point, Line, Circle or Arc
    axis : Line

    Examples
    --------
    >>> reflect(Point(3.0, 2.0), Line(Point(0.0, 0.0), Point(1.0, 0.0)))
    Point(x=3.0, y=-2.0)
    """
    mirrored: Shape
    match shape:
        case Point():
            mirrored = axis.foot(shape) * 2 - shape
        case Line():
            start, ahead = reflect(shape.through, axis), reflect(shape.through + shape.direction, axis)
            mirrored = Line(start, ahead - start, shape.start, shape.end)
        case Circle():
            mirrored = Circle(reflect(shape.centre, axis), shape.radius, shape.exact)
        case Arc():
            angle = 2 * axis.direction.angle - shape.start
            mirrored = Arc(reflect(shape.centre, axis), shape.radius, angle, -shape.sweep, shape.exact)
    return cast(S, mirrored)
