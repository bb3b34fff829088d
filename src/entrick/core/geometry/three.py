"""Circles that touch any three of points, lines and circles, solved directly."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from itertools import product

from ..tolerance import NOUGHT, same, surely_two
from .shapes import Circle, Line, Point

Target = Point | Line | Circle


@dataclass(frozen=True, slots=True)
class Touching:
    """A circle with its contact (through, touching, beside, around, inside) and touch point for
    each target."""

    circle: Circle
    contacts: tuple[str, str, str]
    touches: tuple[Point, Point, Point]


def circles_touching(targets: Sequence[Target]) -> tuple[Touching, ...]:
    """Return every circle that touches three things.

    Parameters
    ----------
    targets : sequence of three Point, Line or Circle

    Returns
    -------
    tuple of Touching
        Up to eight, smallest first.

    Notes
    -----
    A circle (x, y, R) touches a circle (a, b, r) when (x − a)² + (y − b)² = (R ± r)², a line n·p =
    d when n·p − d = ±R. Subtracting the first quadratic from the others leaves two linear
    equations, whose common line is put back into it."""
    found: list[Touching] = []
    for signs in product(*((1,) if isinstance(target, Point) else (1, -1) for target in targets)):
        for centre, radius in _solve(targets, signs):
            made = _describe(targets, centre, radius)
            if made is not None and not any(_alike(made.circle, other.circle) for other in found):
                found.append(made)
    return tuple(sorted(found, key=lambda touching: touching.circle.radius))


def _alike(one: Circle, other: Circle) -> bool:
    close = surely_two(abs(one.centre) + one.radius)
    return abs(one.centre - other.centre) < close and abs(one.radius - other.radius) < close


Row = tuple[float, float, float, float]
"""Coefficients of x, y, R and the right-hand side."""


def _solve(targets: Sequence[Target], signs: Sequence[int]) -> list[tuple[Point, float]]:
    linear: list[Row] = []
    quadratic: list[tuple[Point, float]] = []
    for target, sign in zip(targets, signs, strict=True):
        match target:
            case Line():
                normal = target.direction.normal
                linear.append((normal.x, normal.y, -float(sign), normal.dot(target.through)))
            case Circle():
                quadratic.append((target.centre, sign * target.radius))
            case Point():
                quadratic.append((target, 0.0))
    for centre, r in quadratic[1:]:
        first, r0 = quadratic[0]
        linear.append(
            (
                2 * (centre.x - first.x),
                2 * (centre.y - first.y),
                2 * (r - r0),
                centre.dot(centre) - r * r - first.dot(first) + r0 * r0,
            )
        )
    roots = _three_planes(linear) if not quadratic else _line_and_cone(linear, *quadratic[0])
    return [(Point(x, y), radius) for x, y, radius in roots if radius > same(1.0)]


Triple = tuple[float, float, float]


def _cross(a: Row, b: Row) -> Triple:
    return (a[1] * b[2] - a[2] * b[1], a[2] * b[0] - a[0] * b[2], a[0] * b[1] - a[1] * b[0])


def _three_planes(rows: Sequence[Row]) -> list[Triple]:
    a, b, c = rows
    across = _cross(b, c)
    volume = sum(a[i] * across[i] for i in range(3))
    if abs(volume) < same(1.0):
        return []
    parts = (across, _cross(c, a), _cross(a, b))
    x, y, r = (
        sum(row[3] * part[i] for row, part in zip(rows, parts, strict=True)) / volume
        for i in range(3)
    )
    return [(x, y, r)]


def _line_and_cone(rows: Sequence[Row], apex: Point, r0: float) -> list[Triple]:
    """Cross the line of two planes with (x − a)² + (y − b)² = (R + r0)²."""
    one, two = rows
    along = _cross(one, two)
    size = math.sqrt(sum(v * v for v in along))
    if size <= same(math.hypot(*one[:3]) * math.hypot(*two[:3])):
        return []
    direction = tuple(v / size for v in along)
    base = _point_on_both(one, two, along, size * size)
    p, q, s = base[0] - apex.x, base[1] - apex.y, base[2] + r0
    u, v, w = direction
    a, b, c = u * u + v * v - w * w, p * u + q * v - s * w, p * p + q * q - s * s
    steps: list[float]
    if abs(a) < NOUGHT:
        steps = [] if abs(b) < NOUGHT else [-c / (2 * b)]
    else:
        inside = b * b - a * c
        if inside < -same(b * b + abs(a * c)):
            return []
        root = math.sqrt(max(0.0, inside))
        # The larger root first, the other from the product of both: no cancellation. Two roots next
        # to nought have none to fear, and their product is all rounding.
        big = -b - math.copysign(root, b)
        steps = [big / a, c / big] if abs(big) > same(1.0) else [(-b - root) / a, (root - b) / a]
    return [(base[0] + t * u, base[1] + t * v, base[2] + t * w) for t in steps]


def _point_on_both(one: Row, two: Row, along: Triple, squared: float) -> Triple:
    """Return the point of the common line nearest the origin."""
    mixed = tuple(one[3] * two[i] - two[3] * one[i] for i in range(3))
    row: Row = (mixed[0], mixed[1], mixed[2], 0.0)
    x, y, r = _cross(row, (*along, 0.0))
    return (x / squared, y / squared, r / squared)


def _describe(targets: Sequence[Target], centre: Point, radius: float) -> Touching | None:
    contacts, touches = [], []
    for target in targets:
        match target:
            case Point():
                contacts.append("through")
                touches.append(target)
            case Line():
                contacts.append("touching")
                touches.append(target.foot(centre))
            case Circle():
                away = target.centre - centre
                if abs(away) <= same(radius):
                    return None
                within = abs(abs(away) - abs(radius - target.radius)) < abs(
                    abs(away) - (radius + target.radius)
                )
                contact = (
                    "beside" if not within else "around" if radius > target.radius else "inside"
                )
                contacts.append(contact)
                touches.append(centre + away.unit * (radius if contact != "inside" else -radius))
    return Touching(Circle(centre, radius), tuple(contacts), tuple(touches))  # type: ignore[arg-type]
