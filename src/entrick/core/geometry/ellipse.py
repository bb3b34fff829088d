"""Ellipses: true, and as arcs about four centres."""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import dataclass
from itertools import pairwise

from ..memo import remembered
from ..tolerance import CONVERGED, FITTED, ROUND, SPECK
from .fitted import fitted
from .loop import Loop, distance
from .shapes import Arc, Line, Point
from .true_curve import TrueCurve

FINE = FITTED["ellipse"]
"""Departure of the arcs a true ellipse is drawn with, as a share of its long axis: far below any
pencil."""


@dataclass(frozen=True, slots=True)
class Ellipse(TrueCurve):
    """An ellipse by its semi-axes: half the long axis as a displacement, half the short one as a
    length."""

    centre: Point
    major: Point
    minor: float

    @property
    def span(self) -> tuple[float, float]:
        """All round."""
        return 0.0, math.tau

    @property
    def frame(self) -> tuple[Point, Point, str]:
        """Whence its places are told."""
        return self.centre, self.major.unit, "the centre"

    @property
    def a(self) -> float:
        """Half the long axis."""
        return abs(self.major)

    @property
    def b(self) -> float:
        """Half the short axis."""
        return self.minor

    @property
    def across(self) -> Point:
        """Half the short axis, a quarter turn on from the long one."""
        return self.major.unit.normal * self.minor

    @property
    def foci(self) -> tuple[Point, Point]:
        """The two points whose distances to any place of it add up to the long axis."""
        out = self.major.unit * math.sqrt(self.a**2 - self.b**2)
        return self.centre + out, self.centre - out

    def at(self, turn: float) -> Point:
        """Return the place at an eccentric angle, radians: what the concentric circles give."""
        return self.centre + self.major * math.cos(turn) + self.across * math.sin(turn)

    def heading(self, turn: float) -> Point:
        """Return the direction there, counter-clockwise, of length 1."""
        return (self.across * math.cos(turn) - self.major * math.sin(turn)).unit

    def nearest_turn(self, point: Point) -> float:
        """Return the eccentric angle of the place nearest to a point."""
        ahead = point - self.centre
        x, y = ahead.dot(self.major) / self.a, ahead.dot(self.across) / self.b
        turn = _turn_within(self.a, self.b, abs(x), abs(y))
        if x < 0:
            turn = math.pi - turn
        return math.tau - turn if y < 0 else turn

    def distance(self, point: Point) -> float:
        """Return how far a point is from the curve."""
        return abs(self.at(self.nearest_turn(point)) - point)

    @property
    def perimeter(self) -> float:
        """Length all round: 4a·E(e), by the arithmetic-geometric mean (Gauss; published)."""
        x, y = self.a, self.b
        total, power = 0.0, 1.0
        while abs(x - y) > CONVERGED * x:
            total += power * (x - y) ** 2 / 4
            x, y, power = (x + y) / 2, math.sqrt(x * y), power * 2
        return (
            2 * math.pi * ((self.a**2 + self.b**2) / 2 - total) / x if total else math.tau * self.a
        )

    def touching_from(self, point: Point) -> tuple[float, ...]:
        """Return the eccentric angles where tangents from a point touch; none from inside.

        With the ellipse squeezed to a circle: cos(t − φ) = 1/ρ, φ and ρ the direction and distance
        of the point."""
        ahead = point - self.centre
        x, y = ahead.dot(self.major) / self.a**2, ahead.dot(self.across) / self.b**2
        reach = math.hypot(x, y)
        if reach <= 1:
            return ()
        half = math.acos(1 / reach)
        return math.atan2(y, x) - half, math.atan2(y, x) + half

    def touching_along(self, direction: Point) -> tuple[float, float]:
        """Return the eccentric angles where tangents in a direction touch."""
        along, up = direction.dot(self.major) / self.a**2, direction.dot(self.across) / self.b**2
        turn = math.atan2(-along, up)
        return turn, turn + math.pi

    def drawn(self, knots: tuple[float, ...] = ()) -> tuple[Line | Arc, ...]:
        """Return it as arcs that depart less than can be seen, with joints at the quarters and at
        other turns."""
        if not knots:
            return self._by_quarters()
        start = knots[0]
        inner = {start, *((turn - start) % math.tau + start for turn in knots)}
        inner |= {(k * math.pi / 2 - start) % math.tau + start for k in range(4)}
        turns = sorted(inner)
        # Joints so close that nothing fits between them are one.
        kept = [turns[0], *(b for a, b in pairwise(turns) if b - a > SPECK)]
        return fitted(self.at, self.heading, [*kept, start + math.tau], FINE * self.a)

    def _by_quarters(self) -> tuple[Line | Arc, ...]:
        """Return one quarter as arcs and its images: about the short axis, then half a turn on."""
        quarter = fitted(self.at, self.heading, [0.0, math.pi / 2], FINE * self.a)
        up = self.across.unit

        def over(point: Point) -> Point:
            ahead = point - self.centre
            return self.centre - ahead + up * (2 * ahead.dot(up))

        def about(point: Point) -> Point:
            return self.centre * 2 - point

        half = (*quarter, *(_image(curve, over, back=True) for curve in quarter[::-1]))
        return (*half, *(_image(curve, about, back=False) for curve in half))

    def chords(self, within: float) -> tuple[Point, ...]:
        """Return corners on the curve whose straight pieces keep within a distance of it.

        Notes
        -----
        A step of t in the eccentric angle leaves less than a·(1 − cos t/2) between chord and curve:
        the ellipse is its outer circle squeezed."""
        step = 2 * math.acos(max(1 - within / self.a, -1.0))
        count = max(4, math.ceil(math.tau / step))
        return tuple(self.at(math.tau * index / count) for index in range(count))

    def part(self, start: float, end: float) -> tuple[Line | Arc, ...]:
        """Return the part between two eccentric angles, counter-clockwise, as arcs."""
        steps = max(1, math.ceil((end - start) / (math.pi / 2) - ROUND))
        return fitted(
            self.at,
            self.heading,
            [start + (end - start) * k / steps for k in range(steps + 1)],
            FINE * self.a,
        )


def _turn_within(a: float, b: float, x: float, y: float) -> float:
    """Return the eccentric angle of the place of an ellipse nearest to a point between its axes.

    There the slope of the square of the distance, over cos and sin of the angle, only rises: it
    passes nought once (Newton's method, held between the axes; D. Eberly, from memory). On an axis
    it may pass nought beside it.

    Parameters
    ----------
    a, b : float
        Half the axes.
    x, y : float
        Of the point, neither under nought, along them.
    """
    apart = a * a - b * b
    if not y and a * x < apart:
        return math.acos(a * x / apart)
    if not x and b * y < -apart:
        return math.asin(b * y / -apart)
    low, high = 0.0, math.pi / 2
    turn = math.atan2(a * y, b * x)
    while high - low > CONVERGED:
        cos, sin = math.cos(turn), math.sin(turn)
        slope = a * x * sin - b * y * cos - apart * cos * sin
        bend = a * x * cos + b * y * sin - apart * (cos * cos - sin * sin)
        low, high = (turn, high) if slope < 0 else (low, turn)
        step = slope / bend if bend else math.inf
        # Outside of what is left, Newton's method leads to another nought.
        last, turn = turn, turn - step if low < turn - step < high else (low + high) / 2
        if abs(turn - last) <= CONVERGED:
            break
    return turn


def _image(curve: Line | Arc, place: Callable[[Point], Point], back: bool) -> Line | Arc:
    """Return a curve where a mirror (walked back, so that it turns the same way) or half a turn
    puts it."""
    if isinstance(curve, Line):
        ends = [place(curve.at(along or 0.0)) for along in (curve.start, curve.end)]
        return Line.between(*(ends[::-1] if back else ends))
    centre = place(curve.centre)
    return Arc(
        centre,
        curve.radius,
        (place(curve.last if back else curve.first) - centre).angle,
        curve.sweep,
    )


def of_diameters(centre: Point, first: Point, second: Point) -> Ellipse:
    """Return the ellipse with two conjugate half diameters, given as displacements.

    Its places are first·cos t + second·sin t; the one furthest out lies at
    tan 2t = 2·first·second ÷ (first² − second²)."""
    turn = math.atan2(2 * first.dot(second), first.dot(first) - second.dot(second)) / 2
    major = first * math.cos(turn) + second * math.sin(turn)
    minor = second * math.cos(turn) - first * math.sin(turn)
    return Ellipse(centre, major, abs(minor))


def oval_of(loop: Loop) -> Ellipse | None:
    """Return the true ellipse that a run stands for, where it does."""
    return loop.stands_for if isinstance(loop.stands_for, Ellipse) else None


def four_centres(ellipse: Ellipse) -> tuple[Arc, ...]:
    """Return the approximation by four arcs: right, top, left, bottom of the long axis.

    Notes
    -----
    Join the ends of the axes, c = √(a² + b²); take a − b off it from the end of the short one; the
    square bisector of what is left meets the axes in the centres: radii c' = (c − (a − b))·c/(2a)
    and (c + (a − b))·c/(2b), from similar triangles. The arcs meet on the lines of centres, without
    a corner."""
    a, b = ellipse.a, ellipse.b
    c = math.hypot(a, b)
    small, large = (c - (a - b)) * c / (2 * a), (c + (a - b)) * c / (2 * b)
    right, up = ellipse.major.unit, ellipse.across.unit
    ends = [ellipse.centre + right * (a - small), ellipse.centre - right * (a - small)]
    sides = [ellipse.centre - up * (large - b), ellipse.centre + up * (large - b)]
    joint = [(ends[0] - sides[0]).unit, (ends[1] - sides[0]).unit]
    half = math.atan2(joint[0].dot(up), joint[0].dot(right))
    base = right.angle
    return (
        Arc(ends[0], small, base - half, 2 * half),
        Arc(sides[0], large, base + half, math.pi - 2 * half),
        Arc(ends[1], small, base + math.pi - half, 2 * half),
        Arc(sides[1], large, base + math.pi + half, math.pi - 2 * half),
    )


@remembered()
def departure(
    ellipse: Ellipse, curves: tuple[Line | Arc, ...], whole: float = math.tau
) -> tuple[float, Point]:
    """Return by how much drawn curves depart most from an ellipse, and where on it.

    Sampled three degrees apart and refined by thirds about the worst place; over a part of the
    turn, a quarter for curves as symmetric as the ellipse."""
    parts = math.ceil(whole / math.radians(3))

    def off(turn: float) -> float:
        spot = ellipse.at(turn)
        return min(distance(curve, spot) for curve in curves)

    worst = max((whole * index / parts for index in range(parts + 1)), key=off)
    low, high = worst - whole / parts, worst + whole / parts
    for _ in range(24):
        first, second = low + (high - low) / 3, high - (high - low) / 3
        if off(first) < off(second):
            low = first
        else:
            high = second
    best = (low + high) / 2
    return off(best), ellipse.at(best)
