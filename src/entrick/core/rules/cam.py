"""A radial cam: events in order, the lift at every angle, the profile a follower needs, and what is
wrong with it."""

from __future__ import annotations

import math
from bisect import bisect_right
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, field
from functools import cached_property
from itertools import accumulate, pairwise
from typing import Literal

from ..geometry import Arc, Line, Point, polar
from ..geometry.fitted import fitted
from ..geometry.shapes import ends
from ..tolerance import CONVERGED, FITTED, NOUGHT, ROUND, assembled
from .motion import Motion

CLOSE = FITTED["cam"]
"""Departure of the arcs a profile is drawn with, as a share of the greatest radius: below any
pencil."""

STEEP = 30.0
"""Usual limit of the pressure angle of a follower that slides, degrees (common practice, no
source)."""

JOINS = "_to_"
"""Between the names of two events in the name of what joins them."""

SAMPLES = 24
"""Places looked at in each stretch between breaks when a greatest value is sought."""

MOST_EVENTS = 72
"""Events, or measured stations, of one cam."""

Follower = Literal["knife", "roller", "flat"]


@dataclass(frozen=True)
class Event:
    """What the follower does over an angle, radians: lifts in plan units at its start and end. Over
    no angle it drops.

    `motion` is None for a dwell. `slopes` are given instead of a motion for an event between two
    measured stations: lift per radian at its start and end."""

    name: str
    angle: float
    start: float
    end: float
    motion: Motion | None = None
    slopes: tuple[float, float] | None = None

    @property
    def lift(self) -> float:
        """How far the follower goes, downwards below nought."""
        return self.end - self.start

    @property
    def drops(self) -> bool:
        """Whether it comes down suddenly, over no angle at all."""
        return self.angle == 0

    @property
    def stands(self) -> bool:
        """Whether the follower dwells."""
        return self.motion is None and self.slopes is None and not self.drops

    @property
    def breaks(self) -> tuple[float, ...]:
        """Shares between which the motion is one formula: its ends, where it changes, and every
        eighth."""
        if self.stands or self.drops:
            return (0.0, 1.0)
        inner = self.motion.breaks if self.motion else ()
        return tuple(sorted({0.0, 1.0, *inner, *(k / 8 for k in range(1, 8))}))

    def at(self, share: float) -> tuple[float, float, float]:
        """Return lift, velocity per radian and acceleration per radian squared at a share of the
        angle."""
        if self.drops:
            return self.start + self.lift * share, 0.0, 0.0
        if self.slopes is not None:
            return self._cubic(share)
        if self.motion is None:
            return self.start, 0.0, 0.0
        s, v, a = self.motion.shape(share)
        return self.start + self.lift * s, self.lift * v / self.angle, self.lift * a / self.angle**2

    @property
    def extremes(self) -> tuple[float, ...]:
        """Lifts among which the greatest and the least are: at both ends, and where a measured
        curve turns."""
        if self.slopes is None:
            return self.start, self.end
        m, n = (slope * self.angle for slope in self.slopes)
        # The slope m + 2px + 3qx² is nought there.
        p, q = 3 * self.lift - 2 * m - n, m + n - 2 * self.lift
        inside = p * p - 3 * q * m
        turns = [-m / (2 * p)] if abs(q) < NOUGHT < abs(p) else []
        if abs(q) >= NOUGHT and inside > 0:
            turns = [(-p + way * math.sqrt(inside)) / (3 * q) for way in (1, -1)]
        return (self.start, self.end, *(self.at(x)[0] for x in turns if 0 < x < 1))

    def _cubic(self, x: float) -> tuple[float, float, float]:
        """Return the same on the cubic with the lifts and slopes at both ends (Hermite)."""
        assert self.slopes is not None
        m, n = (slope * self.angle for slope in self.slopes)
        h = self.lift
        s = self.start + m * x + (3 * h - 2 * m - n) * x * x + (m + n - 2 * h) * x**3
        v = m + 2 * (3 * h - 2 * m - n) * x + 3 * (m + n - 2 * h) * x * x
        a = 2 * (3 * h - 2 * m - n) + 6 * (m + n - 2 * h) * x
        return s, v / self.angle, a / self.angle**2


def measured(stations: Sequence[tuple[float, float]]) -> tuple[Event, ...]:
    """Return events through measured lifts, all round, with velocity and acceleration that run
    through.

    Parameters
    ----------
    stations : sequence of (angle, lift)
        Radians from 0 on, rising, less than a turn; plan units.

    Notes
    -----
    The periodic cubic spline: slopes m from (m₋ + 2m)/h₋ + (2m + m₊)/h = 3(Δ₋/h₋² + Δ/h²) at every
    station, solved by repeated sweeps, which settle because each equation leans on its own slope
    (published method, Gauss-Seidel)."""
    count = len(stations)
    angles = [angle for angle, _ in stations]
    lifts = [lift for _, lift in stations]
    steps = [(angles[(i + 1) % count] - angles[i]) % math.tau or math.tau for i in range(count)]
    rises = [lifts[(i + 1) % count] - lifts[i] for i in range(count)]
    slopes = [0.0] * count
    for _ in range(200):
        moved = 0.0
        for i in range(count):
            before, after = steps[i - 1], steps[i]
            wanted = 3 * (rises[i - 1] / before**2 + rises[i] / after**2)
            new = (wanted - slopes[i - 1] / before - slopes[(i + 1) % count] / after) / (
                2 / before + 2 / after
            )
            moved, slopes[i] = max(moved, abs(new - slopes[i])), new
        if moved < CONVERGED:
            break
    return tuple(
        Event(
            f"stretch{i + 1}",
            steps[i],
            lifts[i],
            lifts[(i + 1) % count],
            None,
            (slopes[i], slopes[(i + 1) % count]),
        )
        for i in range(count)
    )


@dataclass(frozen=True)
class Cam:
    """A cam with its follower, in plan units, about a centre.

    Attributes
    ----------
    centre : Point
    least : float
        From the centre to the nearest place of the profile.
    clockwise : bool
        Which way the cam turns. Stations are numbered the other way.
    events : tuple of Event
    follower : str
        "knife", "roller" or "flat".
    roller : float
        Radius of the roller, 0 for the others.
    offset : float
        Of the follower's line from the centre, positive to the right when looking outward along it.
    ahead : Point
        Direction in which the follower moves away from the centre.
    outer : bool
        Whether the profile is the outer flank of a groove in which the roller runs.
    """

    centre: Point
    least: float
    clockwise: bool
    events: tuple[Event, ...]
    follower: Follower = "knife"
    roller: float = 0.0
    offset: float = 0.0
    ahead: Point = field(default_factory=lambda: Point(0.0, 1.0))
    outer: bool = False

    @property
    def inward(self) -> int:
        """1 where the profile lies on the cam's side of the roller, −1 on the outer flank of a
        groove."""
        return -1 if self.outer else 1

    @cached_property
    def starts(self) -> tuple[float, ...]:
        """Angle at which each event begins, and the end of the last."""
        return (0.0, *accumulate(event.angle for event in self.events))

    @property
    def way(self) -> int:
        """Which way stations are numbered: 1 counter-clockwise, against a clockwise cam."""
        return 1 if self.clockwise else -1

    @property
    def aside(self) -> float:
        """How far the place that is followed lies off the line through the centre: nought under a
        flat face."""
        return 0.0 if self.follower == "flat" else self.offset

    @property
    def rest(self) -> float:
        """Height of the follower's middle, or of its face, above the centre, along its line, at no
        lift."""
        return math.sqrt((self.least + self.roller) ** 2 - self.aside**2)

    @cached_property
    def greatest(self) -> float:
        """Greatest lift."""
        return max(lift for event in self.events for lift in event.extremes)

    @property
    def far(self) -> float:
        """Greatest distance of the profile from the centre."""
        return self.least + self.greatest + (2 * self.roller if self.outer else 0.0)

    @cached_property
    def lowest(self) -> float:
        """Least lift: below nought where a curve through measured lifts swings under the least
        distance."""
        return min(lift for event in self.events for lift in event.extremes)

    @cached_property
    def overshoots(self) -> float:
        """By how much a curve through measured lifts rises above the greatest of them."""
        ends = (event.start + share * event.lift for event in self.events for share in (0, 1))
        return self.greatest - max(ends)

    def where(self, angle: float) -> tuple[int, float]:
        """Return the event that an angle of the cam, radians, falls in, and the share of it that is
        past."""
        turned = angle % math.tau
        index = min(bisect_right(self.starts, turned + NOUGHT), len(self.events)) - 1
        if self.events[index].drops:
            return index, 1.0
        return index, min(max((turned - self.starts[index]) / self.events[index].angle, 0.0), 1.0)

    def lift(self, angle: float) -> tuple[float, float, float]:
        """Return lift, velocity per radian and acceleration per radian squared at an angle of the
        cam, radians."""
        index, share = self.where(angle)
        return self.events[index].at(share)

    def radius(self, angle: float) -> float:
        """Return how far the follower's middle is from the cam's centre at an angle of the cam,
        radians: what the compass is opened to."""
        return self.radius_at(self.lift(angle)[0])

    def radius_at(self, lift: float) -> float:
        """Return the same at a lift."""
        return math.hypot(self.aside, self.rest + lift)

    def frame(self, angle: float) -> tuple[Point, Point]:
        """Return the follower's outward direction, and its right, when the cam stands still and it
        goes round."""
        turned = self.ahead.angle + self.way * angle
        out = polar(1.0, turned)
        return out, -out.normal

    def going(self, event: int, share: float) -> Point:
        """Return the direction in which the follower moves outward at a share of an event."""
        return self.frame(self.starts[event] + self.events[event].angle * share)[0]

    def height(self, event: int, share: float) -> float:
        """Return how far a flat face is from the centre, along the way it moves."""
        return self.least + self.events[event].at(share)[0]

    def pitch(self, event: int, share: float) -> tuple[Point, Point]:
        """Return where the follower's middle is on the standing cam at a share of an event, and the
        curve's direction.

        Notes
        -----
        The place is e·right + (h + s)·out, turned back by the angle; its derivative by the angle is
        s′·out + way·(e·out − (h + s)·right), turned likewise, since right turns into −way·… of out
        (chain rule)."""
        angle = self.starts[event] + self.events[event].angle * share
        s, v, _ = self.events[event].at(share)
        out, right = self.frame(angle)
        high = self.rest + s
        place = self.centre + right * self.aside + out * high
        if self.events[event].drops:
            return place, -out
        along = out * v + (out * self.aside - right * high) * self.way
        return place, along

    def bend(self, event: int, share: float) -> float:
        """Return the curvature of the pitch curve, positive where it bulges outward (formula of the
        plane curve)."""
        s, v, a = self.events[event].at(share)
        if self.events[event].drops:
            return 0.0
        high, e = self.rest + s, self.aside * self.way
        # In the follower's frame, turning with it: first derivative (v + e, high), second (a −
        # high, 2v + e) by out and along.
        x1, y1 = v + e, high
        x2, y2 = a - high, 2 * v + e
        return (x1 * y2 - y1 * x2) / math.hypot(x1, y1) ** 3

    def profile(self, event: int, share: float) -> tuple[Point, Point]:
        """Return a place of the profile and its direction, of length 1, the way stations are
        numbered."""
        if self.follower == "flat":
            return self._under_face(event, share)
        place, along = self.pitch(event, share)
        ahead = along.unit
        if not self.roller:
            return place, ahead
        inward = ahead.normal * (self.way * self.inward)
        # Where the roller is larger than the curve's own radius its parallel runs backwards: it is
        # undercut.
        turn = 1.0 if self.bend(event, share) * self.inward * self.roller < 1 else -1.0
        return place + inward * self.roller, ahead * turn

    def _under_face(self, event: int, share: float) -> tuple[Point, Point]:
        """Return where the cam touches a flat face: the envelope of its lines, s′ off the
        follower's line.

        Notes
        -----
        The line at height p(ψ) over the centre touches its envelope at p·out + p′·along (published,
        support function); the radius of curvature is p + p″."""
        angle = self.starts[event] + self.events[event].angle * share
        s, v, a = self.events[event].at(share)
        out, right = self.frame(angle)
        along = -right * self.way
        high = self.least + s
        place = self.centre + out * high + along * v
        return place, along * (1.0 if high + a >= 0 else -1.0)

    def stretches(self) -> Iterator[tuple[str, tuple[Line | Arc, ...]]]:
        """Yield the profile event by event, and what joins events whose velocities differ, end to
        end and closed."""
        within = CLOSE * self.far
        found = [
            (event.name, self._stretch(index, within)) for index, event in enumerate(self.events)
        ]
        for index, (name, curves) in enumerate(found):
            yield name, curves
            after = (index + 1) % len(found)
            last, first = ends(curves[-1])[1], ends(found[after][1][0])[0]
            if abs(last - first) > assembled(self.least):
                yield f"{name}{JOINS}{found[after][0]}", (self._join(index, last, first),)

    def _stretch(self, index: int, within: float) -> tuple[Line | Arc, ...]:
        """Return the profile of one event; a dwell is an exact arc about the cam's centre."""
        event = self.events[index]
        if event.drops:
            return (self._wall(index),)
        if event.stands:
            ahead = self.profile(index, 0.0)[0] - self.centre
            return (Arc(self.centre, abs(ahead), ahead.angle, self.way * event.angle),)
        return fitted(
            lambda share: self.profile(index, share)[0],
            lambda share: self.profile(index, share)[1],
            event.breaks,
            within,
        )

    def _wall(self, index: int) -> Line:
        """Return what a sudden drop leaves: a wall along the follower's way; under a flat face the
        face where it comes to rest, back to whatever stands higher."""
        foot = self.profile(index, 1.0)[0]
        if self.follower != "flat":
            return Line.between(self.profile(index, 0.0)[0], foot)
        out, right = self.frame(self.starts[index])
        back = math.hypot(self.far, self.reach()) * self.way
        return Line.between(self.centre + out * (foot - self.centre).dot(out) + right * back, foot)

    def _join(self, before: int, last: Point, first: Point) -> Line | Arc:
        """Return what joins two stretches where the velocity jumps: a roller turns about its
        middle, a face slides."""
        if not self.roller:
            return Line.between(last, first)
        after = (before + 1) % len(self.events)
        middle = self.pitch(before, 1.0)[0]
        if abs(self.pitch(after, 0.0)[0] - middle) > assembled(self.least):
            return Line.between(last, first)
        start = (last - middle).angle
        return Arc(
            middle, self.roller, start, math.remainder((first - middle).angle - start, math.tau)
        )

    def places(self, each: int = SAMPLES) -> Iterator[tuple[int, float]]:
        """Yield events and shares, so many to a stretch: by default close enough to find greatest
        values by."""
        for index, event in enumerate(self.events):
            for low, high in pairwise(event.breaks):
                for k in range(each + 1):
                    # Just inside: where a formula changes the next stretch has its own value.
                    yield index, low + (high - low) * min(max(k / each, ROUND), 1 - ROUND)

    def angle_of(self, event: int, share: float) -> float:
        """Return the angle of the cam, degrees."""
        return math.degrees(self.starts[event] + self.events[event].angle * share)

    def pressure(self, event: int, share: float) -> float:
        """Return the pressure angle, degrees: between the follower's way and the square to the
        curve it follows.

        Notes
        -----
        tan α = (s′ − e)/(h + s) with the offset counted towards the rise (handbook formula); nought
        for a flat face."""
        if self.follower == "flat" or self.events[event].drops:
            return 0.0
        s, v, _ = self.events[event].at(share)
        return math.degrees(math.atan2(v + self.offset * self.way, self.rest + s))

    @cached_property
    def steepest(self) -> tuple[float, float]:
        """The greatest pressure angle and the angle of the cam where it is, degrees."""
        return max(self.steepest_going.values(), default=(0.0, 0.0))

    @cached_property
    def steepest_going(self) -> dict[str, tuple[float, float]]:
        """The same apart for "rise" and "fall", as far as it does either."""
        result: dict[str, tuple[float, float]] = {}
        for index, share in self.places():
            event = self.events[index]
            if event.stands or event.drops:
                way = ""
            else:
                way = "rise" if event.at(share)[1] >= 0 else "fall"
            angle = abs(self.pressure(index, share))
            if angle > result.get(way, (-1.0, 0.0))[0]:
                result[way] = angle, self.angle_of(index, share)
        return result

    def tightest(self) -> tuple[float, float]:
        """Return the least radius with which the profile bulges and the angle of the cam where it
        is, degrees; below nought where it would be undercut, infinite where it nowhere bulges."""
        if self.follower == "flat":
            return self.flattest()
        radius, where = self.sharpest()
        return radius - self.roller, where

    def sharpest(self) -> tuple[float, float]:
        """Return the least radius of the pitch curve where it bulges towards the profile, and the
        angle of the cam where it is, degrees."""
        index, share = max(self.places(), key=lambda spot: self.bend(*spot) * self.inward)
        bend = self.bend(index, share) * self.inward
        return (1 / bend if bend > 0 else math.inf), self.angle_of(index, share)

    def flattest(self) -> tuple[float, float]:
        """Return the least radius of curvature under a flat face and where, degrees; below nought
        it loses contact."""

        def radius(spot: tuple[int, float]) -> float:
            s, _, a = self.events[spot[0]].at(spot[1])
            return self.least + s + a

        worst = min(self.places(), key=radius)
        return radius(worst), self.angle_of(*worst)

    @property
    def travel(self) -> float:
        """How far the follower goes in all."""
        return self.greatest - self.lowest

    @property
    def least_that_does(self) -> float | None:
        """The least distance at which a flat face would not lose contact."""
        return self.least - self.flattest()[0]

    def reach(self) -> float:
        """Return how far from the follower's line a flat face is touched: half of what it must
        measure."""
        return max(abs(self.events[index].at(share)[1]) for index, share in self.places())

    def jumps(self) -> Iterator[tuple[float, float, float]]:
        """Yield where the velocity jumps: angle in degrees, velocity before and after per
        degree."""
        for index, event in enumerate(self.events):
            after = (index + 1) % len(self.events)
            if event.drops or self.events[after].drops:
                continue
            before, then = event.at(1.0)[1], self.events[after].at(0.0)[1]
            if abs(then - before) > ROUND * max(self.least, 1.0):
                turn = math.degrees(self.starts[index + 1]) % 360
                yield turn, math.radians(before), math.radians(then)
