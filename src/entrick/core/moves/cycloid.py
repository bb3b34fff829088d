"""``cycloid``: the path of a point on a circle that rolls along a line, or round a circle outside
or inside it."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass
from functools import partial

from ..acts import LEVEL, PLUMB, Mark, Way, Work
from ..acts.procedures import ray_to
from ..geometry import Arc, Circle, Line, Loop, Point, polar
from ..geometry.fitted import fitted
from ..kind import Args, Kind, Made
from ..kind.parts import curve_run
from ..measure import spell_angle
from ..plan.errors import ClauseError, Wanting
from ..plan.forms import Form
from ..tolerance import FITTED, ROUND

PARTS = 12
CLOSE = FITTED["cycloid"]
"""Departure of the arcs it is drawn with, as a share of the rolling radius."""

Path = Callable[[float], Point]


def construct(args: Args) -> Made:
    """Construct a cycloid, epicycloid (outside) or hypocycloid (inside), starting where the point
    touches the base.

    Parts: ``start``, ``end``, ``station.0`` ….

    Notes
    -----
    Along a line: r(θ − sin θ), r(1 − cos θ). Round a circle of radius R the centre goes round by
    r/R of what the circle turns against the line of centres (rolling without slip)."""
    rolled = _read(args)
    whole, count = rolled.whole, max(1, round(PARTS * rolled.whole / math.tau))
    stations = [whole * index / count for index in range(count + 1)]
    shape = curve_run(args.name, _arches(rolled, stations), closed=False)
    spots = [rolled.place(turn) for turn in stations]
    size, turns = args.need("radius").length("size").value, args.need("turns").length("turns")
    part = math.tau * rolled.radius / PARTS
    return Made(
        shape,
        f"Cycloid {args.name} {_told(args)}, rolling radius {args.say(size)}, {turns.text} turns.",
        (
            f"a turn rolls 2π × {args.say(size)} = {args.say(math.tau * rolled.radius)}, "
            f"{args.say(part)} for each {spell_angle(360 / PARTS)}",
            f"{args.say(rolled.length)} long",
        ),
        parts={
            "start": spots[0],
            "end": spots[-1],
            **{f"station.{index}": spot for index, spot in enumerate(spots)},
            **{str(index): piece.curve for index, piece in enumerate(shape.pieces, 1)},
        },
        draw=partial(_draw, args, rolled, stations, spots, shape),
    )


@dataclass(frozen=True)
class _Rolled:
    """A circle that rolls: the path of its point, which way it heads, and where its centre is, by
    the angle rolled."""

    radius: float
    whole: float
    place: Path
    heading: Path
    centre: Path
    stretch: float = 1.0

    @property
    def length(self) -> float:
        """How long its path is: 8r for each whole turn along a line, 4r(1 − cos θ/2) for a part of
        one; round a circle of radius R (R ± r)/R times as much (textbook formulas)."""
        turns, rest = divmod(self.whole, math.tau)
        return self.stretch * self.radius * (8 * turns + 4 * (1 - math.cos(rest / 2)))


def _read(args: Args) -> _Rolled:
    radius, turns = (
        float(args.need("radius").length("size")),
        float(args.need("turns").length("turns")),
    )
    if not 0 < turns <= 12:
        raise ClauseError("a circle rolls up to 12 turns", args.need("turns").clause)
    base, start = args.get("on"), args.get("from")
    if (base is None) == (start is None):
        raise Wanting(
            "the circle rolls from a point along a level line, or on a circle: say one of them"
        )
    if start is not None:
        return _Rolled(radius, math.tau * turns, *_along(start.point("start"), radius))
    assert base is not None
    circle, inside = base.shape("circle"), args.get("inside") is not None
    assert isinstance(circle, Circle | Arc)
    if inside and radius >= circle.radius:
        told = f"a circle that rolls inside {base.ref('circle').text} is smaller than it"
        raise ClauseError(told, args.need("radius").clause)
    begin = math.radians(args.number("at", usual=0.0))
    stretch = 1 + radius / circle.radius * (-1 if inside else 1)
    return _Rolled(
        radius, math.tau * turns, *_round(circle, radius, inside, begin), stretch=stretch
    )


def _told(args: Args) -> str:
    start = args.get("from")
    if start is not None:
        return f"from {start.ref('start').text}"
    return f"{'inside' if args.get('inside') else 'on'} {args.need('on').ref('circle').text}"


def _arches(rolled: _Rolled, stations: Sequence[float]) -> list[Line | Arc]:
    curves: list[Line | Arc] = []
    for arch in range(math.ceil(rolled.whole / math.tau - ROUND)):
        # At a cusp the path turns back on itself: every arch is drawn for itself.
        knots = [
            turn
            for turn in stations
            if arch * math.tau - ROUND <= turn <= (arch + 1) * math.tau + ROUND
        ]
        heading = _facing(rolled.heading, -1.0 if arch % 2 else 1.0)
        curves += fitted(rolled.place, heading, knots, CLOSE * rolled.radius)
    return curves


def _draw(
    args: Args,
    rolled: _Rolled,
    stations: Sequence[float],
    spots: Sequence[Point],
    shape: Loop,
    work: Work,
) -> None:
    """Draw the rolling circle at every part of its way, and on it the point, turned as far as it
    has rolled."""
    size, base = args.need("radius").length("size").value, args.get("on")
    centres = (
        _centres_along(args, rolled, stations, work)
        if base is None
        else _centres_round(args, rolled, stations, work)
    )
    marks = []
    for index, (centre, spot) in enumerate(zip(centres, spots, strict=True)):
        called = f"{args.name}.station.{index}"
        circle = work.swing(centre, size, f"the rolling circle at part {index}")
        degrees = math.degrees((spot - centre.at).angle)
        marks.append(ray_to(work, centre, circle, degrees, spot, called, str(index)))
    work.trace(marks, shape, args.name, check="it stands square on its base at every cusp")


def _centres_along(
    args: Args, rolled: _Rolled, stations: Sequence[float], work: Work
) -> Iterator[Mark]:
    said = args.need("from")
    start = work.mark(said.point("start"), said.ref("start").text)
    track = work.draw(
        start, LEVEL, start.at + Point(rolled.radius * rolled.whole, 0.0), "the line it rolls on"
    )
    for index, turn in enumerate(stations):
        centre = rolled.centre(turn)
        under = (
            work.measure(
                start,
                Way(0, track.key, track.called),
                rolled.radius * turn,
                f"part {index} of the way",
            )
            if turn
            else start
        )
        yield work.measure(
            under,
            PLUMB,
            args.need("radius").length("size").value,
            f"the centre at part {index}",
            centre,
        )


def _centres_round(
    args: Args, rolled: _Rolled, stations: Sequence[float], work: Work
) -> Iterator[Mark]:
    said = args.need("on")
    base = said.shape("circle")
    assert isinstance(base, Circle | Arc)
    size = args.need("radius").length("size").value
    middle, name = work.mark(base.centre, said.ref("circle").centre_name), said.ref("circle").text
    work.round(base, name)
    ring = work.swing(
        middle,
        base.size - size if args.get("inside") else base.size + size,
        "the way of the centres",
    )
    for index, turn in enumerate(stations):
        spot = rolled.centre(turn)
        degrees = args.number("at", usual=0.0) + math.degrees(turn) * rolled.radius / base.radius
        yield ray_to(work, middle, ring, degrees, spot, f"the centre at part {index}")


def _facing(heading: Path, sign: float) -> Path:
    return lambda turn: heading(turn) * sign


def _along(start: Point, radius: float) -> tuple[Path, Path, Path]:
    def place(turn: float) -> Point:
        return start + Point(radius * (turn - math.sin(turn)), radius * (1 - math.cos(turn)))

    def heading(turn: float) -> Point:
        # Half-angle form of (1 − cos θ, sin θ): at the cusps as well it has a direction, square to
        # the base.
        return Point(math.sin(turn / 2), math.cos(turn / 2))

    return place, heading, lambda turn: start + Point(radius * turn, radius)


def _round(
    base: Circle | Arc, radius: float, inside: bool, begin: float
) -> tuple[Path, Path, Path]:
    side = -1 if inside else 1
    share = radius / base.radius

    def centre(turn: float) -> Point:
        return base.centre + polar(base.radius + side * radius, begin + share * turn)

    def place(turn: float) -> Point:
        return centre(turn) - polar(radius, begin + share * turn + side * turn) * side

    def heading(turn: float) -> Point:
        return polar(1.0, begin + share * turn + side * turn / 2) * side

    return place, heading, centre


ABOUT = """\
The path of a point on a circle that rolls `from` a point along a level line, or `on` a circle,
outside or `inside`. Parts `start`, `end`, `station.0` and so on.
"""

SHOWN = """\
units mm
O = datum
base = circle, centre O, radius 40
path = cycloid, from O, radius 12, 2 turns
outer = cycloid, on base, radius 10, 4 turns
inner = cycloid, on base, inside, radius 10, 4 turns, at 90°
"""

KIND = Kind(
    name="cycloid",
    group="Curves",
    summary="a point of a circle that rolls along a line or round a circle",
    example="path = cycloid, from P, radius 12, 1 turns",
    mistake="The chord of a part is set off along the base instead of the arc it rolls.",
    also=("epicycloid", "hypocycloid", "rolling circle"),
    forms=(
        Form("from {start:point}", "from"),
        Form("on {circle:circle}", "on"),
        Form("inside"),
        Form("radius {size:radius}", needed=True),
        Form("{turns:length} turns", "turns", needed=True),
        Form("at {angle:angle}"),
    ),
    construct=construct,
    about=ABOUT,
    shown=SHOWN,
)
