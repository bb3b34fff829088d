"""A radial cam whose follower swings about a pivot: a roller or a point at the end of an arm, or
the arm's own straight face."""

from __future__ import annotations

import math
from dataclasses import dataclass, field
from functools import cached_property

from ..geometry import Point, polar, rotate
from .cam import Cam

ORIGIN = Point(0.0, 0.0)


@dataclass(frozen=True)
class Rocker(Cam):
    """A cam with a swinging follower. Lifts of its events are angles, radians, outward from where
    the arm rests.

    Attributes
    ----------
    pivot : Point
        Where the arm turns, the cam standing as at 0°.
    arm : float
        From the pivot to the roller's middle, or to the point.
    side : int
        On which side of the line from the pivot to the cam's centre the arm lies: 1 to the left,
        −1 to the right.

    Notes
    -----
    The cam standing, the pivot goes round it against its rotation (inversion; common practice).
    """

    pivot: Point = field(default_factory=lambda: Point(1.0, 0.0))
    arm: float = 1.0
    side: int = 1

    @property
    def apart(self) -> float:
        """From the cam's centre to the pivot."""
        return abs(self.pivot - self.centre)

    @cached_property
    def rests(self) -> float:
        """The angle between the arm at rest and the line from the pivot to the centre: by the
        cosine rule, or from where the face touches the least circle."""
        if self.follower == "flat":
            return math.asin(min(1.0, self.least / self.apart))
        out = self.least + self.roller
        cosine = (self.apart**2 + self.arm**2 - out**2) / (2 * self.apart * self.arm)
        return math.acos(max(-1.0, min(1.0, cosine)))

    def leans(self, swing: float) -> float:
        """Return the angle between the arm and the line to the centre at a swing, radians."""
        return self.rests + swing

    def radius_at(self, lift: float) -> float:
        """Return how far the roller's middle, or what the face touches at rest, is from the cam's
        centre at a swing."""
        lean = self.leans(lift)
        if self.follower == "flat":
            return self.apart * math.sin(lean)
        square = self.apart**2 + self.arm**2 - 2 * self.apart * self.arm * math.cos(lean)
        return math.sqrt(max(square, 0.0))

    @cached_property
    def far(self) -> float:
        """Greatest distance of the profile from the centre."""
        return max(self.radius_at(self.greatest) - self.roller, self.least)

    def pivot_at(self, angle: float) -> Point:
        """Return where the pivot is at an angle of the cam, radians, the cam standing."""
        return rotate(self.pivot, self.centre, self.way * angle)

    def _moved(self, event: int, share: float) -> tuple[Point, Point, Point]:
        """Return place, first and second derivative by the angle of the roller's middle from the
        centre, turned back to where the pivot is at 0°."""
        s, v, a = self.events[event].at(share)
        base = self.pivot - self.centre
        lean = self.side * self.leans(s)
        end = rotate(-base.unit, ORIGIN, lean) * self.arm
        place = base + end
        first = end.normal * (self.side * v)
        second = end.normal * (self.side * a) - end * (v * v)
        turned = first + place.normal * self.way
        bent = second + first.normal * (2 * self.way) - place
        return place, turned, bent

    def pitch(self, event: int, share: float) -> tuple[Point, Point]:
        """Return where the roller's middle is on the standing cam at a share of an event, and the
        curve's direction (chain rule on the turning pivot and the swinging arm)."""
        by = self.way * (self.starts[event] + self.events[event].angle * share)
        place, turned, _ = self._moved(event, share)
        return self.centre + rotate(place, ORIGIN, by), rotate(turned, ORIGIN, by)

    def bend(self, event: int, share: float) -> float:
        """Return the curvature of the path of the roller's middle, positive where it bulges outward
        (formula of the plane curve)."""
        _, first, second = self._moved(event, share)
        return self.way * first.cross(second) / abs(first) ** 3

    def going(self, event: int, share: float) -> Point:
        """Return the direction in which the roller's middle, or the face, moves outward."""
        turn = self.starts[event] + self.events[event].angle * share
        lean = self.side * self.leans(self.events[event].at(share)[0])
        along = rotate(self.centre - self.pivot_at(turn), ORIGIN, lean).unit
        return along.normal * self.side

    def pressure(self, event: int, share: float) -> float:
        """Return the pressure angle, degrees: between the way of the arm's end and the square to
        the curve it follows; nought for a face."""
        if self.follower == "flat":
            return 0.0
        _, along = self.pitch(event, share)
        square = along.unit.normal
        return math.degrees(math.acos(min(1.0, abs(square.dot(self.going(event, share))))))

    def height(self, event: int, share: float) -> float:
        """Return how far the face is from the centre."""
        return self.apart * math.sin(self.leans(self.events[event].at(share)[0]))

    def _face(self, event: int, share: float) -> tuple[float, float, float, float, float]:
        """Return the direction of the square to the face, its distance from the centre, and their
        derivatives by the angle of the cam."""
        s, v, a = self.events[event].at(share)
        lean = self.leans(s)
        out = self.going(event, share).angle
        high = self.height(event, share)
        up = self.apart * math.cos(lean) * v
        bent = self.apart * (math.cos(lean) * a - math.sin(lean) * v * v)
        return out, self.way + self.side * v, high, up, bent

    def _under_face(self, event: int, share: float) -> tuple[Point, Point]:
        """Return where the cam touches the arm's face: the envelope of its lines, by the support
        function (published): p·out + dp/dθ·along, θ the direction of the square to the face."""
        angle, rate, high, up, _ = self._face(event, share)
        out = polar(1.0, angle)
        along = out.normal
        place = self.centre + out * high + along * (up / rate)
        return place, along * (self.way if self._round(event, share) >= 0 else -self.way)

    def _round(self, event: int, share: float) -> float:
        """Return the radius of curvature under the face, p + d²p/dθ²; below nought it loses
        contact."""
        _, rate, high, up, bent = self._face(event, share)
        _, _, acceleration = self.events[event].at(share)
        second = (bent * rate - up * self.side * acceleration) / rate**3
        return (high + second) * (1.0 if rate * self.way > 0 else -1.0)

    def flattest(self) -> tuple[float, float]:
        """Return the least radius of curvature under the face and where, degrees."""
        worst = min(self.places(), key=lambda spot: self._round(*spot))
        return self._round(*worst), self.angle_of(*worst)

    @property
    def travel(self) -> float:
        """How far the arm's end goes."""
        return self.arm * (self.greatest - self.lowest)

    @property
    def least_that_does(self) -> float | None:
        """Under an arm no least distance is told that would do: the pivot decides as well."""
        return None

    def reach(self) -> float:
        """Return how far from the pivot the face is touched at most."""
        return max(
            abs(self.profile(index, share)[0] - self.pivot_at(self._turn(index, share)))
            for index, share in self.places()
        )

    def _turn(self, event: int, share: float) -> float:
        return self.starts[event] + self.events[event].angle * share
