"""How a cam is drawn at the board: its displacement diagram, and its profile station by station; no
kind of its own."""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, field, replace

from ..acts import LEVEL, PLUMB, Edge, Mark, Round, Way, Work
from ..acts.act import Gone, Thing
from ..acts.procedures import away, divide, tangent_to_both
from ..drawing.strokes import Role, Stroke
from ..geometry import Circle, Line, Loop, Point, rotate
from ..kind import Args
from ..measure import Number
from ..rules.cam import CLOSE, Cam, Event
from ..tolerance import MISSED, ROUND, assembled
from ..worksheets.cam import Diagram

STEEPEST, FLATTEST = 30, 4
"""Between which angles with the base the line lies that divides it, degrees: inside the diagram,
clear of what is lettered and plotted under it."""


def _slanted(diagram: Diagram) -> float:
    """Return the angle of the line that divides the base, so that it stays inside the diagram."""
    inside = math.degrees(math.atan2(diagram.top, 360 * diagram.wide))
    return float(min(STEEPEST, max(FLATTEST, math.floor(inside))))


def draw_diagram(
    work: Work, diagram: Diagram, curve: Loop, name: str, corner: str
) -> dict[float, tuple[Mark, Mark]]:
    """Draw a displacement diagram: base and stations, each motion constructed over its parts, the
    curve of lifts.

    Returns
    -------
    dict
        By the angle of every station, degrees: the mark on the base under it, and its mark on the
        curve.
    """
    at = work.mark(diagram.at, corner)
    base = work.draw(at, LEVEL, diagram.spot(360, 0.0), f"the base of the diagram of {name}")
    upright = work.draw(
        at, PLUMB, diagram.at + Point(0.0, diagram.top), "the upright axis of the diagram"
    )
    feet = _feet(work, diagram, base, at)
    ordinates = {
        angle: work.draw(
            foot, PLUMB, foot.at + Point(0.0, diagram.top), f"the station at {angle:g}°"
        )
        for angle, foot in feet.items()
    }
    bounds = [math.degrees(angle) for angle in diagram.cam.starts]
    result: dict[float, tuple[Mark, Mark]] = {}
    for index, event in enumerate(diagram.cam.events):
        low, high = bounds[index], bounds[index + 1]
        inner = sorted(angle for angle in feet if low + ROUND < angle < high - ROUND)
        board = _Motion(work, diagram, event, (low, high), upright, at, ordinates, feet)
        marks = [
            board.at_level(low, event.start),
            *board.places(inner),
            board.at_level(high, event.end),
        ]
        for angle, mark in zip([round(low, 9), *inner, round(high, 9)], marks, strict=True):
            result[angle] = (feet[angle], mark)
        called = f"{name}.diagram.{index + 1}"
        pieces = tuple(piece for piece in curve.pieces if piece.curve_of == called)
        check = "at 360° it is where it was at 0°" if index == len(diagram.cam.events) - 1 else ""
        _draw_event(board, marks, Loop(pieces, False), called, check)
    return result


def _feet(work: Work, diagram: Diagram, base: Edge, at: Mark) -> dict[float, Mark]:
    """Mark every station on the base, and where events begin; return the marks by their angles,
    degrees."""
    whole = diagram.spot(360, 0.0)
    end = work.measure(at, away(base, at, whole), 360 * diagram.wide, "360° on the base", whole)
    stations = divide(
        work,
        at,
        end,
        diagram.parts,
        [f"station {index} of the base" for index in range(1, diagram.parts)],
        (),
        "the stations are all the same distance apart",
        _slanted(diagram),
        by_rule=True,
    )
    feet = {0.0: at, 360.0: end}
    for angle, mark in zip(diagram.stations[1:-1], stations, strict=True):
        feet[round(angle, 9)] = mark
    for start in diagram.cam.starts:
        angle = math.degrees(start)
        if round(angle, 9) not in feet:
            spot = diagram.spot(angle, 0.0)
            feet[round(angle, 9)] = work.measure(
                at, away(base, at, spot), angle * diagram.wide, f"{angle:g}° on the base", spot
            )
    return feet


def _draw_event(board: _Motion, marks: Sequence[Mark], own: Loop, called: str, check: str) -> None:
    """Draw the curve of an event through its marks, and go over it."""
    work, diagram, event = board.work, board.diagram, board.event
    words = f"the curve of {event.name}"
    straight = event.stands or event.drops or (event.motion and event.motion.name == "uniform")
    thing: Thing
    if straight:
        thing = work.through(marks[0], marks[-1], words)
    else:
        within = 2 * CLOSE * (360 * diagram.wide + diagram.top)
        thing = work.trace(marks, own, called, within=within)
    is_line = isinstance(thing, Edge)
    planned = own.pieces[0].curve if is_line and len(own.pieces) == 1 else own
    gone = Gone(thing.key, marks[0].key, marks[-1].key, planned, words)
    strokes = [Stroke(own, Role.OUTLINE)]
    told = "line" if is_line else "curve"
    work.go_over([gone], Role.OUTLINE, words, strokes, check, told=told)


@dataclass(frozen=True)
class _Motion:
    """One event on its diagram, constructed over the stations that fall in it."""

    work: Work
    diagram: Diagram
    event: Event
    span: tuple[float, float]
    upright: Edge
    corner: Mark
    ordinates: dict[float, Edge]
    feet: dict[float, Mark]

    def at_level(self, angle: float, lift: float) -> Mark:
        """Mark a lift on the ordinate of an angle."""
        key = round(angle, 9)
        foot, spot = self.feet[key], self.diagram.spot(angle, lift)
        if abs(spot - foot.at) <= self.work.paper.nothing:
            return foot
        if self.work.has_mark(spot):
            return self.work.mark(spot)
        ordinate = self.ordinates[key]
        return self.work.measure(
            foot,
            away(ordinate, foot, spot),
            lift * self.diagram.tall,
            f"the lift at {angle:g}°",
            spot,
        )

    def spot(self, angle: float) -> Point:
        """Return where the curve is at an angle."""
        low, high = self.span
        return self.diagram.spot(angle, self.event.at((angle - low) / (high - low))[0])

    def places(self, angles: Sequence[float]) -> Iterator[Mark]:
        """Mark the lifts at stations inside the event, by the construction of its motion."""
        motion = self.event.motion.name if self.event.motion else ""
        find = {
            "harmonic": self._harmonic,
            "parabolic": self._parabolic,
            "cycloidal": self._cycloidal,
        }.get(motion)
        if self.event.motion and self.event.motion.radius:
            find = self._rounded
        if find is not None and angles:
            yield from find(angles)
            return
        low, high = self.span
        if self.event.stands or motion == "uniform":
            for angle in angles:
                lift = self.event.at((angle - low) / (high - low))[0]
                line = self.work.through(
                    self.at_level(low, self.event.start), self.at_level(high, self.event.end)
                )
                if abs(lift) * self.diagram.tall <= self.work.paper.nothing and self.event.stands:
                    yield self.feet[angle]
                else:
                    yield self.work.prick(
                        line, self.ordinates[angle], self.spot(angle), f"the lift at {angle:g}°"
                    )
            return
        for angle in angles:
            yield self.at_level(angle, self.event.at((angle - low) / (high - low))[0])

    @property
    def _height(self) -> float:
        return self.event.lift * self.diagram.tall

    def _on_upright(self, lift: float, called: str) -> Mark:
        spot = self.diagram.spot(0.0, lift)
        if self.work.has_mark(spot):
            return self.work.mark(spot)
        return self.work.measure(
            self.corner,
            away(self.upright, self.corner, spot),
            lift * self.diagram.tall,
            called,
            spot,
        )

    def _harmonic(self, angles: Sequence[float]) -> Iterator[Mark]:
        """A half circle on the lift, divided by the angle; its parts carried level to their
        stations."""
        work, (low, high) = self.work, self.span
        middle = self._on_upright(
            (self.event.start + self.event.end) / 2, "half the lift on the upright axis"
        )
        ring = work.swing(middle, abs(self._height) / 2, "the half circle on the lift")
        for angle in angles:
            share = (angle - low) / (high - low)
            degrees = 180 - 180 * share if self._height > 0 else 180 * share
            spot = middle.at + rotate(
                Point(0.0, abs(self._height) / 2), Point(0.0, 0.0), math.radians(degrees)
            )
            ray = work.draw(middle, Way(degrees, self.upright.key, self.upright.called), spot)
            part = work.prick(ray, ring, spot, "a part of the half circle")
            yield self._carried(part, angle)

    def _carried(self, part: Mark, angle: float) -> Mark:
        level = self.work.draw(part, LEVEL, self.spot(angle))
        return self.work.prick(
            level, self.ordinates[angle], self.spot(angle), f"the lift at {angle:g}°"
        )

    def _parabolic(self, angles: Sequence[float]) -> Iterator[Mark]:
        """Rays from both ends to equal parts of the middle ordinate cross the stations on the two
        parabolas."""
        work, (low, high) = self.work, self.span
        start, end = self.at_level(low, self.event.start), self.at_level(high, self.event.end)
        middle = (low + high) / 2
        foot = self.feet.get(round(middle, 9)) or work.measure(
            self.corner,
            Way(0),
            middle * self.diagram.wide,
            f"{middle:g}° on the base",
            self.diagram.spot(middle, 0.0),
        )
        upright = work.draw(
            foot, PLUMB, self.diagram.spot(middle, self.event.end), "the middle of the event"
        )
        for angle in angles:
            share = (angle - low) / (high - low)
            first = share <= 0.5 + ROUND
            lift = self.event.start + self.event.lift * share
            spot = self.diagram.spot(middle, lift)
            part = (
                work.mark(spot)
                if work.has_mark(spot)
                else work.measure(
                    foot,
                    away(upright, foot, spot),
                    lift * self.diagram.tall,
                    "a part of the lift",
                    spot,
                )
            )
            ray = work.through(start if first else end, part)
            yield work.prick(
                ray, self.ordinates[angle], self.spot(angle), f"the lift at {angle:g}°"
            )

    def _cycloidal(self, angles: Sequence[float]) -> Iterator[Mark]:
        """A circle that rolls once along the lift; parallels to the straight line of the event
        carry its heights."""
        work, (low, high) = self.work, self.span
        start, end = self.at_level(low, self.event.start), self.at_level(high, self.event.end)
        line = work.through(start, end, f"the straight line of {self.event.name}")
        radius = abs(self._height) / math.tau
        ring = work.swing(start, radius, "the circle that rolls along the lift")
        upright = self.ordinates[round(low, 9)]
        for angle in angles:
            share = (angle - low) / (high - low)
            degrees = -360 * share if self._height > 0 else 360 * share
            spot = start.at + Point(
                radius * math.cos(math.radians(degrees)), radius * math.sin(math.radians(degrees))
            )
            part = work.prick(
                work.draw(start, Way(degrees), spot), ring, spot, "a part of the rolling circle"
            )
            side = Point(start.at.x, spot.y)
            cut = (
                start
                if abs(side - start.at) <= work.paper.nothing
                else work.prick(
                    work.draw(part, LEVEL, side), upright, side, "its height beside the event"
                )
            )
            carried = work.parallel(line, cut, self.spot(angle))
            yield work.prick(
                carried, self.ordinates[angle], self.spot(angle), f"the lift at {angle:g}°"
            )

    def _rounded(self, angles: Sequence[float]) -> Iterator[Mark]:
        """An arc square above the start, one below the end, and the straight line that touches
        both."""
        work, (low, high), motion = self.work, self.span, self.event.motion
        assert motion is not None
        up = math.copysign(motion.radius, self._height)
        rounds, touches = [], []
        ends = (
            (low, self.event.start, up, motion.breaks[0]),
            (high, self.event.end, -up, motion.breaks[1]),
        )
        for angle, lift, side, share in ends:
            end = self.at_level(angle, lift)
            spot = end.at + Point(0.0, side)
            called = f"the centre of the arc at {angle:g}°"
            needle = (
                work.mark(spot)
                if work.has_mark(spot)
                else work.measure(
                    end,
                    away(self.ordinates[round(angle, 9)], end, spot),
                    motion.radius,
                    called,
                    spot,
                )
            )
            touches.append(self.spot(low + (high - low) * share))
            rounds.append(
                work.swing(
                    needle, motion.radius, f"the arc at {angle:g}°", near=[end.at, touches[-1]]
                )
            )
        line, _ = tangent_to_both(
            work,
            [each.circle for each in rounds],
            [each.called for each in rounds],
            touches,
            f"the straight part of {self.event.name}",
            Line.between(*touches),
        )
        for angle in angles:
            share = (angle - low) / (high - low)
            on = (
                rounds[0]
                if share < motion.breaks[0]
                else rounds[1]
                if share > motion.breaks[1]
                else line
            )
            yield work.prick(on, self.ordinates[angle], self.spot(angle), f"the lift at {angle:g}°")


@dataclass(frozen=True)
class _Standing:
    """What a flank is drawn along: where events begin and end, degrees, the angles of the stations,
    their marks, what is followed there, and the upper marks where the follower drops."""

    bounds: Sequence[float]
    angles: Sequence[float]
    stations: dict[float, Mark]
    followed: dict[float, Thing]
    tops: dict[float, Mark]


@dataclass
class CamBoard:
    """A cam at the board: its stations, and what its profile goes through or touches there."""

    args: Args
    cam: Cam
    outline: tuple[Loop, tuple[Point, ...]]
    centre: Mark
    work: Work
    parts: int
    lifts: dict[float, tuple[Mark, Mark]]
    circle: Round = field(init=False)
    offset: Round | None = field(init=False, default=None)
    outer: tuple[Loop, Sequence[Point]] | None = None

    def begin(self) -> None:
        """Draw the circles that every station stands on."""
        work, cam = self.work, self.cam
        rest = cam.least + cam.roller
        self.circle = work.swing(
            self.centre, self._exact(rest), "the circle of the follower's least distance"
        )
        self.offset = (
            work.swing(self.centre, abs(cam.aside), "the circle of the offset")
            if cam.aside
            else None
        )

    def draw(self) -> None:
        """Draw the ray at every station, set lifts off on it, and draw the profile
        event by event."""
        cam, name = self.cam, self.args.name
        rim, corners = self.outline
        self.begin()
        bounds = [math.degrees(angle) for angle in cam.starts]
        angles = sorted(
            {
                *(round(360 * k / self.parts, 9) for k in range(self.parts + 1)),
                *(round(angle, 9) for angle in bounds),
            }
        )
        stations = {angle: self._station(angle) for angle in angles if angle < 360 - ROUND}
        if abs(cam.events[-1].end - cam.events[0].start) <= ROUND:
            stations[360.0] = stations[0.0]
        else:
            stations[360.0] = self._station(360.0, cam.events[-1].end)
        followed = {angle: self._followed(mark, angle) for angle, mark in stations.items()}
        tops = {
            round(bounds[index], 9): self._station(bounds[index], event.start)
            for index, event in enumerate(cam.events)
            if event.drops
        }
        self.flank(name, cam, rim, corners, _Standing(bounds, angles, stations, followed, tops))
        if self.outer is not None:
            outer_name = f"{name}.outer"
            flank, cut = self.outer
            standing = _Standing(bounds, angles, stations, followed, tops)
            self.flank(outer_name, replace(cam, outer=True), flank, cut, standing)

    def flank(
        self, name: str, cam: Cam, rim: Loop, corners: Sequence[Point], at: _Standing
    ) -> None:
        """Draw one flank of the profile event by event, touching what is followed."""
        work = self.work
        bounds, angles, stations, followed = at.bounds, at.angles, at.stations, at.followed
        tops = at.tops
        for index, event in enumerate(cam.events):
            low, high = round(bounds[index], 9), round(bounds[index + 1], 9)
            own = [angle for angle in angles if low <= angle <= high]
            loop = Loop(
                tuple(p for p in rim.pieces if (p.curve_of or p.name) == f"{name}.{event.name}"),
                False,
            )
            if not loop.pieces:
                continue
            if event.drops:
                self._drop(f"{name}.{event.name}", loop, (tops[low], stations[high]), high)
                continue
            ends_at = tops.get(high, stations[high])
            if event.stands:
                self._dwell(f"{name}.{event.name}", cam, loop, [stations[low], ends_at])
                continue
            last = self._followed(ends_at, high) if high in tops else followed[high]
            things = {**{angle: followed[angle] for angle in own}, high: last}
            spots = {**{angle: stations[angle] for angle in own}, high: ends_at}
            touching = [
                things[angle] for angle in own if self._touches(cam, corners, loop, spots[angle])
            ]
            work.trace(
                touching or [work.mark(loop.pieces[0].entry)],
                loop,
                f"{name}.{event.name}",
                touching=cam.follower != "knife",
                within=4 * CLOSE * cam.far,
                check="it runs into the dwells without a corner where the motion does",
            )
        for piece in rim.pieces:
            for spot in (piece.entry, piece.exit):
                if not piece.curve_of and piece.name.partition("_to_")[1]:
                    work.mark(spot)
        for corner in corners:
            work.mark(corner, f"a corner of {name}")

    def _touches(self, cam: Cam, corners: Sequence[Point], loop: Loop, station: Mark) -> bool:
        """Tell whether the follower still touches its event's profile at a station: not where it
        has been cut off."""
        if not corners or cam.follower == "knife":
            return True
        close = 4 * CLOSE * cam.far
        if cam.follower == "roller":
            return abs(loop.distance(station.at) - cam.roller) <= close
        out = (station.at - cam.centre).unit
        high = abs(station.at - cam.centre)
        spots = (spot for piece in loop.pieces for spot in (piece.entry, piece.exit))
        return max((spot - cam.centre).dot(out) for spot in spots) >= high - MISSED * cam.least

    def _exact(self, rest: float) -> Number:
        least, roller = self.args.need("least").length("radius").value, self.args.get("roller")
        return least + roller.length("size").value if roller else least

    def _station(self, angle: float, lift: float | None = None) -> Mark:
        """Mark where the follower's middle stands at an angle of the cam: its lift on its line,
        from the circle."""
        work, cam = self.work, self.cam
        turn = math.radians(angle)
        lift = cam.lift(turn)[0] if lift is None else lift
        line = self._line(angle)
        out, right = cam.frame(turn)
        spot = cam.centre + right * cam.aside + out * (cam.rest + lift)
        begin = cam.centre + right * cam.aside + out * cam.rest
        index = round(angle * self.parts / 360)
        even = abs(index - angle * self.parts / 360) < ROUND
        label = (
            (f"{angle:.4g}°" if self.args.get("degrees") else str(index))
            if even and angle < 360
            else ""
        )
        called = (
            f"station {index} of {self.args.name}" if even else f"{angle:g}° of {self.args.name}"
        )
        at = work.prick(line, self.circle, begin, f"the least distance at {called}")
        if abs(lift) <= work.paper.nothing:
            work.relabel(at, label)
            return at
        known = self.lifts.get(round(angle, 9))
        if known is None or abs(abs(known[1].at - known[0].at) - lift) > assembled(cam.least):
            return work.measure(
                at,
                away(line, at, spot),
                lift,
                called,
                spot,
                label=label,
                told="the lift, from the table of the worksheet",
            )
        labels = [label] if label else []
        return work.step_off(at, work.between(*known), line, [spot], [called], labels=labels)[0]

    def _line(self, angle: float) -> Edge:
        """Draw the line along which the follower moves at an angle, the cam standing still: against
        its rotation."""
        work, cam = self.work, self.cam
        turn = math.radians(angle)
        out, right = cam.frame(turn)
        degrees = math.degrees(cam.ahead.angle) + cam.way * angle
        far = cam.centre + right * cam.aside + out * (cam.rest + cam.greatest)
        if self.offset is None:
            return work.draw(self.centre, Way(degrees), far, f"the ray at {angle:g}°")
        foot = cam.centre + right * cam.aside
        called = f"the ray at {angle:g}°"
        return work.draw_touching(self.offset, Way(degrees), foot, far, called)

    def _followed(self, station: Mark, angle: float) -> Thing:
        """Draw what the profile touches at a station: the roller, or the line of the flat face."""
        work, cam = self.work, self.cam
        if cam.follower == "roller":
            size = self.args.need("roller").length("size").value
            return work.swing(station, size, f"the roller at {angle:g}°")
        if cam.follower == "flat":
            line = self._line(angle)
            across = line.line.direction.normal * max(cam.reach() * 1.1, cam.least / 5)
            return work.draw(
                station,
                Way(90, line.key, line.called),
                called=f"the face at {angle:g}°",
                shown=Line.between(station.at - across, station.at + across),
            )
        return station

    def _drop(self, called: str, loop: Loop, ends: tuple[Mark, Mark], angle: float) -> None:
        """Draw the wall of a drop: from one station to the other, or what a roller touches in
        both."""
        work = self.work
        wall = loop.pieces[0].curve
        if self.cam.follower == "flat":
            self._followed(ends[1], angle)
            return
        if not self.cam.roller:
            work.through(ends[0], ends[1], called)
            return
        assert isinstance(wall, Line)
        touched = self._followed(ends[1], angle)
        assert isinstance(touched, Round)
        line = self._line(angle)
        way = Way(0, line.key, line.called)
        touch = wall.foot(ends[1].at)
        work.draw_touching(touched, way, touch, wall.at(wall.start or 0.0), called)

    def _dwell(self, called: str, cam: Cam, loop: Loop, ends: Sequence[Mark]) -> None:
        """Swing the arc of a dwell about the cam's centre, from its first place to its last."""
        work = self.work
        arc = loop.pieces[0].curve
        marks = []
        for station in ends:
            if cam.roller:
                away_ = station.at - self.centre.at
                spot = station.at - away_.unit * (cam.roller * cam.inward)
                line = work.through(self.centre, station)
                roller = work.round(Circle(station.at, cam.roller))
                marks.append(work.prick(line, roller, spot, f"an end of {called}"))
            else:
                marks.append(station)
        assert not isinstance(arc, Line)
        work.swing(
            self.centre,
            work.between(self.centre, marks[0]),
            called,
            shape=arc,
        )
