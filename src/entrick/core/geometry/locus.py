"""Tangency by crossing two loci of an arc's centre, and the limits outside which they do not cross.

Source of the loci: rules of plane geometry. A circle of radius R lies beside a circle of radius r
when its centre is R + r away, goes around it at R − r, lies inside it at r − R; it touches a line
at the parallel distance R."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from fractions import Fraction
from typing import NamedTuple

from ..measure import Number
from ..tolerance import same, worked
from .meet import crossings, meet
from .shapes import Circle, Line, Point, point_of


class Locus(NamedTuple):
    """Where the centre of an arc of radius R may lie to meet one condition. A tuple, as a blend
    makes several.

    Attributes
    ----------
    curve : Circle or Line
        The locus at the radius asked for, in floats; `swing` is what is said of it.
    contact : str
        "beside", "around", "inside", "touching", "through" or "centred on".
    slope : int
        How the swing (or the parallel distance) grows with R: 1, 0 or -1.
    target : Circle, Line or Point
        What the arc touches or passes.
    radius : Number
        R, of the arc.
    """

    curve: Circle | Line
    contact: str
    slope: int
    target: Circle | Line | Point
    radius: Number

    @property
    def rest(self) -> Number:
        """The part of the swing that does not depend on R: swing = slope·R + rest."""
        if not isinstance(self.target, Circle):
            return Fraction(0)
        return -self.target.size if self.contact == "around" else self.target.size

    @property
    def swing(self) -> Number:
        """The swing as it is said: exact where what it comes from is."""
        return self.slope * self.radius + self.rest if self.slope else self.rest

    def touch(self, centre: Point, radius: float) -> Point | None:
        """Return where an arc about `centre` meets the target; None when only its centre is
        bound."""
        target = self.target
        if self.contact == "centred on":
            return None
        if isinstance(target, Circle):
            # Written out: this is at the bottom of every blend.
            (x, y), (u, v) = centre, target.centre
            share = radius / math.hypot(u - x, v - y)
            if self.contact == "inside":
                share = -share
            return point_of(Point, (x + (u - x) * share, y + (v - y) * share))
        return target if isinstance(target, Point) else target.foot(centre)


def beside(target: Circle, radius: Number) -> Locus:
    """Centres of arcs outside a circle and touching it: R + r."""
    return _about(target, "beside", 1, float(radius) + target.radius, radius)


def around(target: Circle, radius: Number) -> Locus:
    """Centres of arcs that enclose a circle and touch it: R − r."""
    return _about(target, "around", 1, float(radius) - target.radius, radius)


def inside(target: Circle, radius: Number) -> Locus:
    """Centres of arcs inside a circle and touching it: r − R."""
    return _about(target, "inside", -1, target.radius - float(radius), radius)


def _about(target: Circle, contact: str, slope: int, swing: float, radius: Number) -> Locus:
    return Locus(Circle(target.centre, swing), contact, slope, target, radius)


def touching_line(target: Line, radius: Number) -> tuple[Locus, Locus]:
    """Centres of arcs touching a line: the parallels at R on its left and right."""
    left, right = (
        Locus(
            Line(
                target.through + target.direction.normal * (side * float(radius)), target.direction
            ),
            "touching",
            side,
            target,
            radius,
        )
        for side in (1, -1)
    )
    return left, right


def through(target: Point, radius: Number) -> Locus:
    """Centres of arcs through a point: a swing of R about it."""
    return Locus(Circle(target, float(radius)), "through", 1, target, radius)


def centred_on(target: Circle | Line) -> Locus:
    """Centres bound to a given line or circle."""
    return Locus(target, "centred on", 0, target, Fraction(0))


class Tangency(NamedTuple):
    """One arc that meets two conditions: its centre and the locus and touch point of each."""

    centre: Point
    loci: tuple[Locus, Locus]
    touches: tuple[Point | None, Point | None]


def tangencies(
    first: Sequence[Locus], second: Sequence[Locus], radius: Number
) -> tuple[Tangency, ...]:
    """Return every arc of a radius that meets one locus of each of two conditions.

    Parameters
    ----------
    first, second : sequence of Locus
        The loci each condition allows.
    radius : Fraction or float
        Of the arc, plan units.

    Returns
    -------
    tuple of Tangency
        Up to eight, each centre once.
    """
    size = float(radius)
    result: list[Tangency] = []
    for one in first:
        for other in second:
            # Two crossings of the same loci are two; those of others may be the same again.
            before = result[:] if result else ()
            for centre in _crossings(one.curve, other.curve):
                if before and any(
                    abs(centre - known.centre) <= worked(abs(centre) + size) for known in before
                ):
                    continue
                result.append(
                    Tangency(
                        centre, (one, other), (one.touch(centre, size), other.touch(centre, size))
                    )
                )
    return tuple(result)


NO_RADIUS = same(1.0)
"""A locus of this radius is a point, plan units."""


def _crossings(one: Circle | Line, other: Circle | Line) -> list[Point]:
    """Cross two loci; one of no radius is a single point, which must lie on the other."""
    if (
        isinstance(one, Circle)
        and isinstance(other, Circle)
        and one.radius > NO_RADIUS < other.radius
    ):
        return crossings(one, other)
    for point, curve in ((one, other), (other, one)):
        if isinstance(point, Circle) and point.radius <= NO_RADIUS:
            return [point.centre] if _lies_on(point.centre, curve) else []
    return [meeting.point for meeting in meet(one, other)]


def _lies_on(point: Point, curve: Circle | Line) -> bool:
    if isinstance(curve, Line):
        return abs(curve.offset_of(point)) <= same(abs(point))
    return abs(abs(point - curve.centre) - curve.radius) <= same(curve.radius)


@dataclass(frozen=True, slots=True)
class Limit:
    """The radii for which two loci cross. None where there is no bound on that side; `never` when
    none helps."""

    least: float | None = None
    greatest: float | None = None
    never: bool = False


def limit(one: Locus, other: Locus) -> Limit:
    """Return for which radii R two loci cross.

    Notes
    -----
    Two circles d apart with swings ρ1(R), ρ2(R) cross when ρ1 + ρ2 ≥ d and |ρ1 − ρ2| ≤ d; a
    parallel at distance k(R) from a line h away from a circle's centre crosses it when |h − k| ≤ ρ.
    All are linear in R."""
    c1, c2 = one.curve, other.curve
    if isinstance(c1, Circle) and isinstance(c2, Circle):
        d = abs(c2.centre - c1.centre)
        a1, b1, a2, b2 = one.slope, float(one.rest), other.slope, float(other.rest)
        return _solve([(a1 + a2, b1 + b2 - d), (a2 - a1, d + b2 - b1), (a1 - a2, d + b1 - b2)])
    if isinstance(c1, Line) and isinstance(c2, Line):
        return Limit(never=True)
    line, circle = (one, other) if isinstance(c1, Line) else (other, one)
    assert isinstance(circle.curve, Circle)
    assert isinstance(line.target, Line)
    h = line.target.offset_of(circle.curve.centre)
    s, a, b = line.slope, circle.slope, float(circle.rest)
    return _solve([(a + s, b - h), (a - s, b + h)])


def _solve(conditions: Sequence[tuple[float, float]]) -> Limit:
    """Intersect conditions slope·R + rest ≥ 0."""
    least, greatest = 0.0, float("inf")
    for slope, rest in conditions:
        if slope == 0:
            if rest < -same(abs(rest)):
                return Limit(never=True)
        elif slope > 0:
            least = max(least, -rest / slope)
        else:
            greatest = min(greatest, -rest / slope)
    if least > greatest:
        return Limit(never=True)
    return Limit(least or None, None if greatest == float("inf") else greatest)
