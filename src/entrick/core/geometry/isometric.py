"""Isometric drawing: three axes 120° apart, circles on the planes between them as ellipses or by
four centres."""

from __future__ import annotations

import math
from dataclasses import dataclass

from ..tolerance import NOUGHT, ROUND
from .ellipse import Ellipse
from .shapes import Arc, Circle, Line, Point, polar

RIGHT, LEFT, UP = polar(1.0, math.pi / 6), polar(1.0, math.pi * 5 / 6), Point(0.0, 1.0)
"""Directions of the axes on paper."""

AXES = {"right": RIGHT, "left": LEFT, "up": UP}

PLANES = {"top": (RIGHT, LEFT), "right": (RIGHT, UP), "left": (LEFT, UP)}
"""The two axes each plane contains."""

SQUARE = {"top": UP, "right": LEFT, "left": RIGHT}
"""The axis each plane is square to: isometric circles are short along it."""

FORESHORTENED = math.sqrt(2 / 3)
"""Length of an axis in projection; the drawing school keeps it full (common practice)."""


@dataclass(frozen=True, slots=True)
class FourCentres:
    """An isometric circle by the rhombus: its arcs, their centres, the rhombus and the touch points
    on its sides."""

    arcs: tuple[Arc, ...]
    corners: tuple[Point, ...]
    touches: tuple[Point, ...]


def lean(plane: str) -> float:
    """Return the direction of the long axis of circles on a plane, radians: square to the axis it
    does not contain."""
    return SQUARE[plane].angle - math.pi / 2


def true_ellipse(centre: Point, diameter: float, plane: str) -> Ellipse:
    """Return a circle of a diameter measured along the axes: long axis √(3/2)·d, short one
    √(1/2)·d.

    Notes
    -----
    Along an isometric axis the ellipse measures the diameter itself; the axes follow from the 120°
    between them."""
    return Ellipse(
        centre, polar(diameter * math.sqrt(1.5) / 2, lean(plane)), diameter * math.sqrt(0.5) / 2
    )


def rhombus(centre: Point, diameter: float, plane: str) -> FourCentres:
    """Return the four-centre approximation: large arcs (√3/2)·d about the obtuse corners, small
    ones d/(2√3).

    The small centres lie where the lines from an obtuse corner to the middles of the far sides
    cross the long diagonal."""
    u, v = (axis * (diameter / 2) for axis in PLANES[plane])
    if u.dot(v) > 0:
        v = -v
    obtuse = centre + u + v
    corners = (obtuse, centre + u - v, centre - u - v, centre - u + v)
    touches = (centre + u, centre - v, centre - u, centre + v)
    large, small = diameter * math.sqrt(3) / 2, diameter / (2 * math.sqrt(3))
    along = (corners[1] - corners[3]).unit
    out = along * (diameter / math.sqrt(3) / 2)
    near = [centre + out, centre - out]
    arcs = (
        Arc.between(Circle(near[0], small), touches[0], touches[1]),
        Arc.between(Circle(corners[0], large), touches[1], touches[2]),
        Arc.between(Circle(near[1], small), touches[2], touches[3]),
        Arc.between(Circle(corners[2], large), touches[3], touches[0]),
    )
    return FourCentres(arcs, corners, touches)


def tangents_to_arcs(point: Point, arcs: tuple[Arc, ...]) -> tuple[tuple[Line, Point], ...]:
    """Return the lines from a point that touch drawn arcs, with their touch points on them."""
    result: list[tuple[Line, Point]] = []
    for arc in arcs:
        ahead = point - arc.centre
        if abs(ahead) <= arc.radius:
            continue
        half = math.acos(arc.radius / abs(ahead))
        for side in (1, -1):
            angle = ahead.angle + side * half
            turned = (angle - arc.start) * math.copysign(1, arc.sweep) % math.tau
            if turned <= abs(arc.sweep) + NOUGHT or turned >= math.tau - NOUGHT:
                touch = arc.at(angle)
                if all(abs(touch - other) > ROUND * arc.radius for _, other in result):
                    result.append((Line.between(point, touch), touch))
    return tuple(result)
