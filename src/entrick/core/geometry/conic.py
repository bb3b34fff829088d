"""Parabolas and hyperbolas: places, directions, foci, and where lines touch them, all in closed
form."""

from __future__ import annotations

import math
from dataclasses import dataclass

from ..tolerance import NOUGHT
from .shapes import Line, Point
from .true_curve import TrueCurve


@dataclass(frozen=True, slots=True)
class Parabola(TrueCurve):
    """A parabola by its vertex, the direction in which it opens, and its focal distance.

    Attributes
    ----------
    vertex : Point
    opens : Point
        Along the axis, of length 1.
    focal : float
        From the vertex to the focus, and to the directrix: half the least radius of curvature.
    reach : tuple of float
        How far to the left of the axis it begins and ends, plan units: negative on the right.
    """

    vertex: Point
    opens: Point
    focal: float
    reach: tuple[float, float]

    @property
    def span(self) -> tuple[float, float]:
        """The parameters between which it is drawn."""
        return self.reach

    def at(self, turn: float) -> Point:
        """Return its place so far to the left of the axis: x = y²/4f (definition)."""
        deep = turn * turn / (4 * self.focal)
        return self.vertex + self.opens * deep + self.opens.normal * turn

    def heading(self, turn: float) -> Point:
        """Return its direction there."""
        return (self.opens * (turn / (2 * self.focal)) + self.opens.normal).unit

    @property
    def frame(self) -> tuple[Point, Point, str]:
        """Whence its places are told."""
        return self.vertex, self.opens, "the vertex"

    @property
    def focus(self) -> Point:
        """As far from every place of it as the directrix is."""
        return self.vertex + self.opens * self.focal

    @property
    def foot(self) -> Point:
        """Where the axis meets the directrix."""
        return self.vertex - self.opens * self.focal

    @property
    def directrix(self) -> Line:
        """Drawn as far as the curve reaches to either side."""
        first, last = self.span
        across = self.opens.normal
        return Line.between(self.foot + across * first, self.foot + across * last)

    @property
    def length(self) -> float:
        """Length of the part that is drawn: ∫√(1 + (y/2f)²) dy."""

        def upto(turn: float) -> float:
            slope = turn / (2 * self.focal)
            return self.focal * (slope * math.hypot(1, slope) + math.asinh(slope))

        first, last = self.span
        return upto(last) - upto(first)

    def nearest_turn(self, point: Point) -> float:
        """Return the parameter of the place nearest to a point: a root of u³/8f² + u(1 − p/2f) = q,
        p and q along and beside the axis."""
        off = point - self.vertex
        p, q, f = off.dot(self.opens), off.dot(self.opens.normal), self.focal
        roots = _cubic((1 - p / (2 * f)) * 8 * f * f, -q * 8 * f * f)
        first, last = self.span
        inside = [min(max(root, first), last) for root in roots]
        return min(inside, key=lambda turn: abs(self.at(turn) - point))

    def touching_from(self, point: Point) -> tuple[float, ...]:
        """Return the parameters where tangents from a point touch: u² − 2qu + 4fp = 0."""
        off = point - self.vertex
        p, q = off.dot(self.opens), off.dot(self.opens.normal)
        left = q * q - 4 * self.focal * p
        if left <= 0:
            return (q,) if left == 0 else ()
        return tuple(
            turn for turn in (q - math.sqrt(left), q + math.sqrt(left)) if self.drawn_at(turn)
        )

    def touching_along(self, direction: Point) -> tuple[float, ...]:
        """Return the parameter where the tangent in a direction touches; none along the axis."""
        along, across = direction.dot(self.opens), direction.dot(self.opens.normal)
        if abs(across) <= NOUGHT:
            return ()
        turn = 2 * self.focal * along / across
        return (turn,) if self.drawn_at(turn) else ()


def _cubic(p: float, q: float) -> tuple[float, ...]:
    """Return the real roots of x³ + px + q = 0 (Cardano; Viète where there are three)."""
    inside = q * q / 4 + p**3 / 27
    if inside >= 0:
        root = math.sqrt(inside)
        # The larger of both cube roots, and the other from their product: nothing cancels.
        large = math.cbrt(-q / 2 - math.copysign(root, q))
        return (large - p / (3 * large) if large else 0.0,)
    far = 2 * math.sqrt(-p / 3)
    turn = math.acos(max(-1.0, min(1.0, 3 * q / (p * far)))) / 3
    return tuple(far * math.cos(turn - math.tau * index / 3) for index in range(3))


@dataclass(frozen=True, slots=True)
class Hyperbola(TrueCurve):
    """One branch of a hyperbola: half its transverse axis as the displacement from the centre to
    its vertex, half the conjugate axis as a length.

    Attributes
    ----------
    centre, major : Point
    minor : float
    reach : tuple of float
        Hyperbolic angles between which it is drawn.
    """

    centre: Point
    major: Point
    minor: float
    reach: tuple[float, float]

    @property
    def span(self) -> tuple[float, float]:
        """The parameters between which it is drawn."""
        return self.reach

    @property
    def frame(self) -> tuple[Point, Point, str]:
        """Whence its places are told."""
        return self.centre, self.major.unit, "the centre"

    @property
    def a(self) -> float:
        """Half the transverse axis, from vertex to vertex."""
        return abs(self.major)

    @property
    def b(self) -> float:
        """Half the conjugate axis."""
        return self.minor

    @property
    def across(self) -> Point:
        """Half the conjugate axis, a quarter turn on."""
        return self.major.unit.normal * self.minor

    @property
    def vertex(self) -> Point:
        """Where it is nearest to the centre."""
        return self.centre + self.major

    @property
    def foci(self) -> tuple[Point, Point]:
        """The two points whose distances to any place of it differ by the transverse axis; first
        the one that it goes round."""
        out = self.major.unit * math.hypot(self.a, self.b)
        return self.centre + out, self.centre - out

    @property
    def asymptotes(self) -> tuple[Line, Line]:
        """The lines through the centre that it comes ever nearer to, up to its ends."""
        ends = [self.at(turn) for turn in self.span]
        found = []
        for side in (1, -1):
            ahead = (self.major + self.across * side).unit
            reach = max(abs((end - self.centre).dot(ahead)) for end in ends)
            found.append(Line(self.centre, ahead, -min(reach, 2 * self.a), reach))
        return found[0], found[1]

    def at(self, turn: float) -> Point:
        """Return its place at a hyperbolic angle: a·cosh t along, b·sinh t across."""
        return self.centre + self.major * math.cosh(turn) + self.across * math.sinh(turn)

    def heading(self, turn: float) -> Point:
        """Return its direction there."""
        return (self.major * math.sinh(turn) + self.across * math.cosh(turn)).unit

    def _axial(self, point: Point) -> tuple[float, float]:
        off = point - self.centre
        return off.dot(self.major) / self.a**2, off.dot(self.major.unit.normal) / self.b

    def turn_of(self, point: Point) -> float:
        """Return the hyperbolic angle of a place on it."""
        return math.asinh(self._axial(point)[1])

    def touching_from(self, point: Point) -> tuple[float, ...]:
        """Return the parameters where tangents from a point touch.

        The polar x·cosh t − y·sinh t = 1, a quadratic in eᵗ; x and y in halves of the axes."""
        x, y = self._axial(point)
        left = 1 - (x - y) * (x + y)
        if left < 0 or abs(x - y) <= NOUGHT:
            return ()
        roots = {(1 + sign * math.sqrt(left)) / (x - y) for sign in (1, -1)}
        turns = (math.log(root) for root in sorted(roots) if root > 0)
        return tuple(turn for turn in turns if self.drawn_at(turn))

    def touching_along(self, direction: Point) -> tuple[float, ...]:
        """Return the parameter where the tangent in a direction touches; none flatter than the
        asymptotes."""
        along, across = direction.dot(self.major.unit), direction.dot(self.major.unit.normal)
        if abs(across) <= NOUGHT or abs(self.b * along / (self.a * across)) >= 1:
            return ()
        turn = math.atanh(self.b * along / (self.a * across))
        return (turn,) if self.drawn_at(turn) else ()
