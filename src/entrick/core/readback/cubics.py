"""Circles, arcs and ellipses that other programs write as cubic curves: each quarter by its
tangents and the number 4/3 (√2 − 1), which stays within 3 parts in 10,000 of the circle (common
practice, no source)."""

from __future__ import annotations

import math
from collections.abc import Sequence
from itertools import pairwise

import numpy as np

from ..geometry import Arc, Circle, Point
from ..geometry.ellipse import Ellipse
from ..tolerance import AS_ROUND, OF_ONE

Cubic = tuple[Point, Point, Point, Point]
"""Beginning, two controls, end."""

QUARTER = 4 / 3 * (math.sqrt(2) - 1)
"""How far the controls of a quarter lie from its ends, in radii."""

LOOKED_AT = 8


def place(cubic: Cubic, at: float) -> Point:
    """Return the place of a cubic curve at a parameter from 0 to 1 (Bernstein's form)."""
    a, b, c, d = cubic
    u = 1 - at
    return a * u**3 + b * (3 * u * u * at) + c * (3 * u * at * at) + d * at**3


def as_arc(cubic: Cubic, within: float) -> Arc | None:
    """Return the arc a cubic curve stands for; None where it is none.

    Parameters
    ----------
    cubic : Cubic
    within : float
        How far it may be off, beside what the usual writing costs.
    """
    first, last = cubic[0], cubic[3]
    middle = place(cubic, 1 / 2)
    # Files round their controls; where the tangents are level or plumb the normals are exact.
    centre = _square_to(first, cubic[1] - first, last, last - cubic[2])
    if centre is None:
        return None
    radius = (abs(first - centre) + abs(last - centre)) / 2
    near = max(within, AS_ROUND * radius)
    for k in range(LOOKED_AT + 1):
        if abs(abs(place(cubic, k / LOOKED_AT) - centre) - radius) > near:
            return None
    begin = (first - centre).angle
    sweep = ((middle - centre).angle - begin + math.pi) % math.tau - math.pi
    # It bends one way: half of its turn lies on either side of its middle.
    return Arc(centre, radius, begin, 2 * sweep) if abs(sweep) < math.pi / 2 + OF_ONE else None


def _square_to(a: Point, u: Point, b: Point, v: Point) -> Point | None:
    """Return the place that lies square to two directions at two places; None where they are
    parallel."""
    turn = u.x * v.y - u.y * v.x
    if abs(turn) <= OF_ONE * abs(u) * abs(v):
        return None
    along_u, along_v = a.dot(u), b.dot(v)
    return Point(along_u * v.y - along_v * u.y, along_v * u.x - along_u * v.x) * (1 / turn)


def as_oval(cubics: Sequence[Cubic]) -> Circle | Ellipse | None:
    """Return the circle or ellipse that four quarters stand for; None where they are none."""
    (a, _, _, b), (_, _, _, c), (_, _, _, d), (_, _, _, e) = cubics
    centre = (a + c) * 0.5
    size = abs(a - centre) + abs(b - centre)
    near = AS_ROUND * size
    if abs(e - a) > near or abs((b + d) * 0.5 - centre) > near or size == 0:
        return None
    corners = [a, b, c, d, a]
    for (start, one, two, end), (p, q) in zip(cubics, pairwise(corners), strict=True):
        ahead, back = q - centre, p - centre
        off = (start - p, one - (p + ahead * QUARTER), two - (q + back * QUARTER), end - q)
        if max(map(abs, off)) > near:
            return None
    return _of_diameters(centre, a - centre, b - centre)


def _of_diameters(centre: Point, u: Point, v: Point) -> Circle | Ellipse:
    """Return the ellipse on two conjugate half diameters: its axes are the singular vectors of the
    matrix they make."""
    turned, (long, short), _ = np.linalg.svd(np.array([[u.x, v.x], [u.y, v.y]]))
    if long - short <= AS_ROUND * long:
        return Circle(centre, float(long + short) / 2)
    axis = Point(float(turned[0, 0]), float(turned[1, 0]))
    return Ellipse(centre, axis * float(long), float(short))
