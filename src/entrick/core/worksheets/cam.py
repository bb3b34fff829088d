"""The displacement diagram of a cam by the book, and the cam beside it, turning."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass
from functools import cached_property
from itertools import pairwise
from typing import Literal

from ..drawing.marks import wide
from ..drawing.notes import Hatching, Label, Note, RotationArrow
from ..drawing.strokes import Role, Stroke
from ..geometry import Arc, Circle, Line, Loop, Point, Shape, piece_of, polar, polyline, rotate
from ..geometry.fitted import fitted
from ..rules.cam import CLOSE, Cam, Event
from ..tolerance import ROUND, SPECK
from . import Column, Table, Worksheet

CAUTION = (
    "Layout geometry only: load, speed, lubrication and guarding are for a qualified person "
    "and local rules."
)

LEAN = math.radians(25)
"""How far the line of squares leans from the lift."""

GAP, ROW = 0.6, 4.0
"""Between letterings beside each other, and from row to row of them, mm."""

GRAPHED = 6
"""Places to a stretch at which velocity and acceleration are plotted."""

Drawn = tuple[Line | Arc, ...]


@dataclass(frozen=True)
class Diagram:
    """Where a displacement diagram stands and how large it is, plan units.

    Attributes
    ----------
    cam : Cam
    at : Point
        Where its axes meet.
    wide : float
        Length of a degree on the base.
    tall : float
        Scale of the lift.
    parts : int
        Stations round the cam.
    mm : float
        A millimetre in plan units.
    say : callable
        Writes a length.
    title : str
    in_degrees : bool
        Whether stations are lettered by their angles, as many as there is room for, and not by
        their numbers.
    scale : str
        What its base stands for, where it is stated exactly: ``30° = 1/2``.
    upright : str
        What is lettered at the upright axis, where it is no lift.
    """

    cam: Cam
    at: Point
    wide: float
    tall: float
    parts: int
    mm: float
    say: Callable[[float], str]
    title: str = "DISPLACEMENT DIAGRAM"
    in_degrees: bool = False
    scale: str = ""
    upright: str = ""

    @property
    def top(self) -> float:
        """Height of the diagram."""
        return max(self.cam.greatest * self.tall, 4 * self.mm)

    @property
    def stations(self) -> tuple[float, ...]:
        """Angles of the stations, degrees, from 0 to 360."""
        return tuple(360 * index / self.parts for index in range(self.parts + 1))

    def spot(self, degrees: float, lift: float) -> Point:
        """Return the place of a lift at an angle of the cam."""
        return self.at + Point(degrees * self.wide, lift * self.tall)

    def base(self) -> tuple[Stroke, ...]:
        """Draw both axes."""
        end = self.spot(360, 0)
        return (
            Stroke(Line.between(self.at, end)),
            Stroke(Line.between(self.at, self.at + Point(0.0, self.top))),
        )

    def ordinates(self) -> tuple[Stroke, ...]:
        """Draw the stations up to the top of the diagram."""
        return tuple(
            Stroke(
                Line.between(self.spot(angle, 0.0), self.spot(angle, 0.0) + Point(0.0, self.top))
            )
            for angle in self.stations
        )

    def curve(self, owner: str) -> Loop:
        """Return the curve of lifts as an open run."""
        pieces = [
            piece_of(curve, f"{owner}.{index}.{number}", f"{owner}.{index}")
            for index in range(1, len(self.cam.events) + 1)
            for number, curve in enumerate(self._event(index - 1), 1)
        ]
        return Loop(tuple(pieces), False)

    def _event(self, index: int) -> Drawn:
        event, begin = self.cam.events[index], math.degrees(self.cam.starts[index])
        degrees = math.degrees(event.angle)

        def place(share: float) -> Point:
            return self.spot(begin + degrees * share, event.at(share)[0])

        def heading(share: float) -> Point:
            return Point(degrees * self.wide, event.at(share)[1] * event.angle * self.tall).unit

        if event.stands or event.drops or (event.motion and event.motion.name == "uniform"):
            return (Line.between(place(0.0), place(1.0)),)
        return fitted(place, heading, event.breaks, CLOSE * (360 * self.wide + self.top))

    def constructions(self) -> tuple[Stroke, ...]:
        """Draw lightly how the board finds each motion."""
        return tuple(
            Stroke(shape)
            for index, event in enumerate(self.cam.events)
            for shape in self._construction(event, math.degrees(self.cam.starts[index]))
        )

    def _construction(self, event: Event, begin: float) -> Iterator[Shape]:
        if event.motion is None:
            return
        degrees = math.degrees(event.angle)
        count = max(2, min(self.parts, round(self.parts * degrees / 360)))
        foot, head = self.spot(begin, event.start), self.spot(begin, event.end)
        reach = abs(event.lift) * self.tall
        shares = [k / count for k in range(1, count)]
        stations = [self.spot(begin + degrees * share, event.at(share)[0]) for share in shares]
        end = self.spot(begin + degrees, event.end)
        match event.motion.name:
            case "harmonic":
                middle = (foot + head) * 0.5
                yield Arc(middle, reach / 2, math.pi / 2, math.pi)
                for share, station in zip(shares, stations, strict=True):
                    yield Line.between(
                        Point(middle.x - reach / 2 * math.sin(math.pi * share), station.y), station
                    )
            case "cycloidal":
                rolled = event.lift * self.tall / math.tau
                yield Circle(foot, abs(rolled))
                yield Line.between(foot, end)
                for share, station in zip(shares, stations, strict=True):
                    start = foot - Point(0.0, rolled * math.sin(math.tau * share))
                    if abs(start - station) > 0:
                        yield Line.between(start, station)
            case "parabolic":
                # Equal squares 1, 4, 9 … stepped along a slanted line, mirrored after half;
                # parallels carry them over.
                slant = (head - foot).unit * (reach * math.cos(LEAN)) - Point(
                    reach * math.sin(LEAN), 0.0
                )
                yield Line.between(foot, foot + slant)
                for station in (*stations, end):
                    share = (station.y - foot.y) / (head.y - foot.y)
                    yield Line.between(foot + slant * share, Point(foot.x, station.y))
                    if station is not end:
                        yield Line.between(Point(foot.x, station.y), station)
            case "rounded":
                low, high = (
                    self.spot(begin + degrees * x, event.at(x)[0]) for x in event.motion.breaks
                )
                run = (high - low) * (0.25)
                yield Line.between(low - run * 0.5, high + run * 0.5)
            case "uniform":
                return
            case _:
                for station in stations:
                    yield Line.between(Point(foot.x, station.y), station)

    @cached_property
    def _bounds(self) -> tuple[tuple[float, str, int], ...]:
        """Where events begin and end: degrees, what is lettered there, and on which row under the
        stations, from 0."""
        if self.in_degrees:
            return ()
        angles = sorted({round(math.degrees(angle), 6) for angle in self.cam.starts})
        texts = [f"{angle:.6g}°" for angle in angles]
        return tuple(zip(angles, texts, self._rows(angles, texts, 2.5), strict=True))

    @cached_property
    def _motions(self) -> tuple[tuple[float, str, int], ...]:
        """What is lettered over each event: its middle, degrees, and on which row, from 0."""
        events = [
            (event, (math.degrees(low) + math.degrees(high)) / 2)
            for event, (low, high) in zip(self.cam.events, pairwise(self.cam.starts), strict=True)
            if event.slopes is None
        ]
        texts = [
            event.motion.name if event.motion else "dwell" if event.stands else "drop"
            for event, _ in events
        ]
        middles = [middle for _, middle in events]
        return tuple(zip(middles, texts, self._rows(middles, texts, 2.0), strict=True))

    def _rows(self, angles: Sequence[float], texts: Sequence[str], height: float) -> list[int]:
        """Return the row on which each text about an angle stands clear of those before it."""
        ends: list[float] = []
        result = []
        for angle, text in zip(angles, texts, strict=True):
            at, half = angle * self.wide / self.mm, wide(text, height) / 2 + GAP
            row = next((row for row, end in enumerate(ends) if at - half >= end), len(ends))
            ends[row : row + 1] = [at + half]
            result.append(row)
        return result

    @property
    def depth(self) -> float:
        """How far the lettering reaches below the base."""
        rows = max((row for _, _, row in self._bounds), default=0)
        return (16 + ROW * rows) * self.mm

    @property
    def height(self) -> float:
        """How far the lettering reaches above it."""
        rows = max((row for _, _, row in self._motions), default=0)
        return self.top + (16 + ROW * rows) * self.mm

    def lettering(self) -> tuple[Note, ...]:
        """Letter stations, angles, both axes with their scales, the motions, the title."""
        mm, middle = self.mm, self.spot(180, 0.0)
        notes: list[Note] = [
            Label(text, self.spot(angle, 0.0) - Point(0.0, 3 * mm), 2.0)
            for angle, text in self._station_names()
        ]
        notes += [
            Label(text, self.spot(angle, 0.0) - Point(0.0, (7 + ROW * row) * mm), 2.5)
            for angle, text, row in self._bounds
        ]
        notes += [
            Label(text, self.spot(angle, 0.0) + Point(0.0, self.top + (3 + ROW * row) * mm), 2.0)
            for angle, text, row in self._motions
        ]
        ratio = f"{self.tall:g}:1" if self.tall >= 1 else f"1:{1 / self.tall:g}"
        base = f"CAM ANGLE, {self.scale or f'30° = {self.say(30 * self.wide)}'}"
        notes += [
            Label(base, middle - Point(0.0, self.depth - 4 * mm), 2.5),
            Label(
                self.upright or f"LIFT, {ratio}",
                self.at + Point(-2 * mm, self.height - 8 * mm),
                2.5,
            ),
            Label(self.title, middle + Point(0.0, self.height - 3 * mm), 3.5),
        ]
        return tuple(notes)

    def _station_names(self) -> Iterator[tuple[float, str]]:
        """Return what stands under every station, or under every so many, as there is room for."""
        texts = [
            f"{angle:.4g}°" if self.in_degrees else str(index % self.parts)
            for index, angle in enumerate(self.stations)
        ]
        room = self.wide * 360 / self.parts / self.mm
        every = max(1, math.ceil((max(wide(text, 2.0) for text in texts) + GAP) / room))
        yield from zip(self.stations[::every], texts[::every], strict=True)

    def under(self, order: int, below: float) -> tuple[tuple[Stroke, ...], tuple[Note, ...]]:
        """Draw velocity (order 1) or acceleration (2) under the diagram, to its own height."""
        tall = 8 * self.mm
        zero = self.at - Point(0.0, below + tall)
        spots = list(self.cam.places(GRAPHED))
        values = [self.cam.events[i].at(share)[order] for i, share in spots]
        most = max((abs(value) for value in values), default=0.0) or 1.0
        # Where a formula changes the graph may jump: the stroke from one value to the other is part
        # of it.
        corners = [
            zero + Point(self.cam.angle_of(i, share) * self.wide, value / most * tall)
            for (i, share), value in zip(spots, values, strict=True)
        ]
        kept = [corners[0], *(b for a, b in pairwise(corners) if abs(b - a) > SPECK * self.wide)]
        graph = polyline(kept, [str(number) for number in range(1, len(kept))])
        strokes = (
            Stroke(Line.between(zero, zero + Point(360 * self.wide, 0.0))),
            Stroke(graph, Role.OUTLINE),
        )
        word = ("VELOCITY", "ACCELERATION")[order - 1]
        per = math.radians(most) if order == 1 else math.radians(math.radians(most))
        unit = "a degree" if order == 1 else "a degree²"
        words = f"{word}, greatest {per:.3g} {unit}"
        jumps = [f"{turn:g}°" for turn, _, _ in self.cam.jumps()] if order == 2 else []
        words += f"; without limit at {', '.join(jumps)}" if jumps else ""
        label = Label(words, zero + Point(180 * self.wide, -tall - 3 * self.mm), 2.5)
        return strokes, (label,)


@dataclass(frozen=True)
class CamSheet:
    """The worksheet of a cam. What does not turn is drawn once.

    Attributes
    ----------
    cam : Cam
    rim : Loop
        Its profile as laid out.
    shaft : Circle or None
    wide, tall, mm : float
        Length of a degree on the base, scale of the lift, a millimetre in plan units.
    parts : int
    say : callable
        Writes a length.
    """

    cam: Cam
    rim: Loop
    shaft: Circle | None
    wide: float
    tall: float
    mm: float
    parts: int
    say: Callable[[float], str]

    @cached_property
    def room(self) -> float:
        """How far the turning cam and its follower reach."""
        return max(self.cam.least + self.cam.greatest + self.cam.roller * 2, 20 * self.mm)

    @cached_property
    def diagram(self) -> Diagram:
        """The displacement diagram, beside the cam."""
        at = self.cam.centre + Point(self.room + 34 * self.mm, 6 * self.mm)
        return Diagram(self.cam, at, self.wide, self.tall, self.parts, self.mm, self.say)

    @cached_property
    def still(self) -> tuple[tuple[Stroke, ...], tuple[Note, ...], float]:
        """What stands still: diagram and graphs with their lettering, and how far below the diagram
        they reach."""
        diagram, cam = self.diagram, self.cam
        strokes = [*diagram.base(), *diagram.ordinates(), *diagram.constructions()]
        strokes.append(Stroke(diagram.curve("curve"), Role.OUTLINE))
        notes: list[Note] = [
            *diagram.lettering(),
            RotationArrow(cam.centre, cam.least * 0.7, -cam.way),
        ]
        if self.shaft is not None:
            strokes.append(Stroke(self.shaft, Role.OUTLINE))
            notes.append(Hatching((Loop((piece_of(self.shaft, "shaft"),), True),)))
        below = diagram.depth
        for order in (1, 2):
            drawn, lettered = diagram.under(order, below)
            strokes += drawn
            notes += lettered
            below += 26 * self.mm
        return tuple(strokes), tuple(notes), below

    def at(self, turn: float) -> Worksheet:
        """Return the worksheet with the cam turned through an angle, degrees."""
        cam, diagram, mm = self.cam, self.diagram, self.mm
        strokes, notes, below = self.still
        lift, velocity, _ = cam.lift(math.radians(turn))
        by = -cam.way * math.radians(turn)
        foot = diagram.spot(turn % 360 or min(turn, 360.0), 0.0)
        moment = (
            Stroke(Line.between(foot, foot + Point(0.0, diagram.top)), Role.CENTRE),
            Stroke(foot + Point(0.0, lift * self.tall), Role.POINT),
        )
        room = self.room
        low = Point(
            cam.centre.x - room - 8 * mm, min(cam.centre.y - room - 8 * mm, diagram.at.y - below)
        )
        high = Point(
            diagram.spot(360, 0.0).x + 10 * mm,
            max(cam.centre.y + room + 12 * mm, diagram.at.y + diagram.height),
        )
        angle = cam.pressure(*cam.where(math.radians(turn)))
        pressed = "" if cam.follower == "flat" else f", pressure angle {abs(angle):.1f}°"
        return Worksheet(
            "Cam worksheet",
            _tables(cam, self.parts),
            (
                *strokes,
                *moment,
                *_turned(cam, self.rim, self.parts, by),
                *follower_strokes(cam, lift, mm),
            ),
            (*notes, *_numbers(cam, self.parts, by, mm)),
            (low, high),
            "Turn the cam",
            f"at {turn:g}° the lift is {self.say(lift)}, the follower {_going(velocity)}{pressed}",
            CAUTION,
        )


def _going(velocity: float) -> str:
    if abs(velocity) < ROUND:
        return "stands"
    return "rises" if velocity > 0 else "falls"


def _turned(cam: Cam, rim: Loop, parts: int, by: float) -> Iterator[Stroke]:
    yield Stroke(rotate(rim, cam.centre, by), Role.OUTLINE)
    yield Stroke(Circle(cam.centre, cam.least))
    if cam.aside:
        yield Stroke(Circle(cam.centre, abs(cam.aside)))
    for index in range(parts):
        yield Stroke(Line.between(*_line(cam, index / parts, by)))


def _line(cam: Cam, share: float, by: float) -> tuple[Point, Point]:
    """Return from where to where the follower's line runs at a share of the turn: from the centre,
    or from where it touches the circle of the offset."""
    far = cam.least + cam.greatest + 2 * cam.roller
    out = polar(1.0, cam.ahead.angle + cam.way * math.tau * share + by)
    foot = cam.centre - out.normal * cam.aside
    return foot, foot + out * far


def _numbers(cam: Cam, parts: int, by: float, mm: float) -> Iterator[Note]:
    for index in range(parts):
        foot, end = _line(cam, index / parts, by)
        yield Label(str(index), end + (end - foot).unit * (3 * mm), 2.5)


def follower_strokes(cam: Cam, lift: float, mm: float) -> Iterator[Stroke]:
    """Draw the follower where it is: an edge, a roller or a face, with its stem."""
    right = -cam.ahead.normal
    foot = cam.centre + right * cam.offset + cam.ahead * (cam.rest + lift)
    half, long = 3 * mm, 12 * mm
    if cam.follower == "roller":
        yield Stroke(Circle(foot, cam.roller), Role.OUTLINE)
        yield Stroke(foot, Role.POINT)
        start = math.sqrt(max(cam.roller**2 - half**2, 0.0))
    elif cam.follower == "flat":
        wide = cam.reach() + 2 * mm
        face = cam.centre + cam.ahead * (cam.least + lift)
        yield Stroke(Line.between(face - right * wide, face + right * wide), Role.OUTLINE)
        foot, start = face + right * cam.offset, 0.0
    else:
        start = half * 1.5
        for side in (-1, 1):
            yield Stroke(
                Line.between(foot, foot + right * (side * half) + cam.ahead * start), Role.OUTLINE
            )
    for side in (-1, 1):
        low = foot + right * (side * half) + cam.ahead * start
        yield Stroke(Line.between(low, low + cam.ahead * long), Role.OUTLINE)


def stations_of(cam: Cam, parts: int) -> list[tuple[float, str, float]]:
    """Return angle in degrees, name and lift of every station, and of every event that does not
    begin on one; where the follower drops, from where and to where."""
    result = [
        (360 * index / parts, str(index), cam.lift(math.tau * index / parts)[0])
        for index in range(parts)
    ]
    taken = {round(degrees, 6) for degrees, _, _ in result}
    for begin, event in zip(cam.starts, cam.events, strict=False):
        degrees = math.degrees(begin)
        if event.drops:
            result.append((degrees - SPECK, f"before {event.name}", event.start))
        elif round(degrees, 6) not in taken and degrees < 360 - SPECK:
            result.append((degrees, f"{event.name} begins", event.start))
    return sorted(result)


def events_table(cam: Cam, per: float = 1.0, kind: Literal["length", "angle"] = "length") -> Table:
    """Return the events of a cam with their greatest velocities and accelerations; lifts are told
    so many times as large."""
    events = []
    for index, event in enumerate(cam.events):
        begin, degrees = math.degrees(cam.starts[index]), math.degrees(event.angle)
        motion, lift = event.motion, event.lift * per
        events.append(
            (
                event.name,
                begin,
                begin + degrees,
                lift,
                motion.title
                if motion
                else "dwell"
                if event.stands
                else "sudden"
                if event.drops
                else "through measured stations",
                abs(lift) / degrees * motion.velocity if motion else "",
                (
                    "without limit"
                    if math.isinf(motion.acceleration)
                    else abs(lift) / degrees**2 * motion.acceleration
                )
                if motion
                else "",
            )
        )
    return Table(
        "Events",
        (
            Column("event"),
            Column("from", "angle"),
            Column("to", "angle"),
            Column("lift" if kind == "length" else "swing", kind),
            Column("motion"),
            Column("greatest velocity, a degree", "number"),
            Column("greatest acceleration, a degree²", "number"),
        ),
        tuple(events),
    )


def _tables(cam: Cam, parts: int) -> tuple[Table, ...]:
    stations = [
        (called, degrees, lift, cam.radius_at(lift), cam.radius_at(lift))
        for degrees, called, lift in stations_of(cam, parts)
    ]
    opening = (
        "to the roller's middle"
        if cam.roller
        else "to the face"
        if cam.follower == "flat"
        else "to the edge"
    )
    return (
        events_table(cam),
        Table(
            "Stations",
            (
                Column("station"),
                Column("angle", "angle"),
                Column("lift", "length"),
                Column(f"opening {opening}", "length"),
                Column("setting", "setting"),
            ),
            tuple(stations),
            f"numbered {'counter-clockwise' if cam.clockwise else 'clockwise'}, against the "
            "rotation",
        ),
    )
