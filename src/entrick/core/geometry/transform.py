"""Copies: mirror images, turned and shifted ones, of anything drawn and of whole runs."""

from __future__ import annotations

import math
from collections.abc import Callable
from typing import TypeVar, cast

from .ellipse import Ellipse, oval_of
from .loop import Loop, Piece
from .shapes import Arc, Circle, Line, Point, Shape

S = TypeVar("S", bound=Shape | Loop)


def reflect(shape: S, axis: Line) -> S:
    """Return the mirror image of a shape about a line: congruent, turned over.

    Parameters
    ----------
    shape : Point, Line, Circle, Arc or Loop
    axis : Line

    Examples
    --------
    >>> reflect(Point(3.0, 2.0), Line(Point(0.0, 0.0), Point(1.0, 0.0)))
    Point(x=3.0, y=-2.0)
    """

    def place(point: Point) -> Point:
        return axis.foot(point) * 2 - point

    def turn(vector: Point) -> Point:
        return axis.direction * (2 * vector.dot(axis.direction)) - vector

    double = 2 * axis.direction.angle
    return cast(S, _moved(shape, place, turn, lambda start, sweep: (double - start, -sweep)))


def rotate(shape: S, about: Point, angle: float) -> S:
    """Return a shape turned about a point, counter-clockwise in radians.

    Parameters
    ----------
    shape : Point, Line, Circle, Arc or Loop
    about : Point
    angle : float
    """
    cos, sin = math.cos(angle), math.sin(angle)

    def turn(vector: Point) -> Point:
        return Point(vector.x * cos - vector.y * sin, vector.x * sin + vector.y * cos)

    return cast(
        S,
        _moved(
            shape,
            lambda p: about + turn(p - about),
            turn,
            lambda start, sweep: (start + angle, sweep),
        ),
    )


def shift(shape: S, by: Point) -> S:
    """Return a shape moved by a displacement."""
    return cast(
        S,
        _moved(
            shape,
            lambda point: point + by,
            lambda vector: vector,
            lambda start, sweep: (start, sweep),
        ),
    )


def from_start(shape: S, start: Point) -> S:
    """Return a shape as it is seen from a point, alike to the last digit wherever both stand.

    Parameters
    ----------
    shape : Point, Line, Circle, Arc or Loop
    start : Point
    """

    def place(point: Point) -> Point:
        return Point(round(point.x - start.x, ALIKE), round(point.y - start.y, ALIKE))

    return cast(S, _moved(shape, place, lambda vector: vector, lambda begun, sweep: (begun, sweep)))


ALIKE = 10
"""Decimals to which a place is the same, seen from another, wherever both stand."""


def _moved(
    shape: Shape | Loop,
    place: Callable[[Point], Point],
    turn: Callable[[Point], Point],
    swept: Callable[[float, float], tuple[float, float]],
) -> Shape | Loop:
    match shape:
        case Point():
            return place(shape)
        case Line():
            return Line(place(shape.through), turn(shape.direction), shape.start, shape.end)
        case Circle():
            return Circle(place(shape.centre), shape.radius, shape.exact)
        case Arc():
            return Arc(
                place(shape.centre), shape.radius, *swept(shape.start, shape.sweep), shape.exact
            )
        case Loop():
            pieces = tuple(
                Piece(
                    cast(Line | Circle | Arc, _moved(piece.curve, place, turn, swept)),
                    piece.name,
                    place(piece.entry),
                    place(piece.exit),
                    piece.curve_of,
                )
                for piece in shape.pieces
            )
            oval = oval_of(shape)
            if oval is not None:
                oval = Ellipse(place(oval.centre), turn(oval.major), oval.minor)
            return Loop(pieces, shape.closed, oval)
