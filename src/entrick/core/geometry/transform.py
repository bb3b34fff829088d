"""Copies: mirror images, turned and shifted ones."""

from __future__ import annotations

import math
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


def rotate(shape: S, about: Point, angle: float) -> S:
    """Return a shape turned about a point, counter-clockwise in radians.

    Parameters
    ----------
    shape : Point, Line, Circle or Arc
    about : Point
    angle : float
    """
    cos, sin = math.cos(angle), math.sin(angle)

    def turned(vector: Point) -> Point:
        return Point(vector.x * cos - vector.y * sin, vector.x * sin + vector.y * cos)

    made: Shape
    match shape:
        case Point():
            made = about + turned(shape - about)
        case Line():
            made = Line(about + turned(shape.through - about), turned(shape.direction), shape.start, shape.end)
        case Circle():
            made = Circle(about + turned(shape.centre - about), shape.radius, shape.exact)
        case Arc():
            centre = about + turned(shape.centre - about)
            made = Arc(centre, shape.radius, shape.start + angle, shape.sweep, shape.exact)
    return cast(S, made)


def shift(shape: S, by: Point) -> S:
    """Return a shape moved by a displacement."""
    made: Shape
    match shape:
        case Point():
            made = shape + by
        case Line():
            made = Line(shape.through + by, shape.direction, shape.start, shape.end)
        case Circle():
            made = Circle(shape.centre + by, shape.radius, shape.exact)
        case Arc():
            made = Arc(shape.centre + by, shape.radius, shape.start, shape.sweep, shape.exact)
    return cast(S, made)
