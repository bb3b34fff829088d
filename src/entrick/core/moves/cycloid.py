"""``cycloid``: the path of a point on a circle that rolls along a line, or round a circle outside or inside it."""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence
from dataclasses import dataclass

from ..geometry import Arc, Circle, Line, Loop, Point, polar
from ..geometry.fitted import fitted
from ..kind import Args, Kind, Made, Role, Step, Stroke, Tool
from ..kind.parts import curve_run
from ..measure import spell_angle
from ..plan.errors import ClauseError
from ..plan.forms import Form
from ..tolerance import FITTED, ROUND

PARTS = 12
CLOSE = FITTED["cycloid"]
"""Departure of the arcs it is drawn with, as a share of the rolling radius."""

Path = Callable[[float], Point]


def construct(args: Args) -> Made:
    """Construct a cycloid, epicycloid (outside) or hypocycloid (inside), starting where the point touches the base.

    Parts: ``start``, ``end``, ``station.0`` ….

    Notes
    -----
    Along a line: r(θ − sin θ), r(1 − cos θ). Round a circle of radius R the centre goes round by r/R of what the circle
    turns against the line of centres (rolling without slip).
    """
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
            f"{args.say(shape.length)} long",
        ),
        _steps(args, rolled, stations, spots, shape),
        {
            "start": spots[0], "end": spots[-1],
            **{f"station.{index}": spot for index, spot in enumerate(spots)},
            **{str(index): piece.curve for index, piece in enumerate(shape.pieces, 1)},
        },
    )  # fmt: skip


@dataclass(frozen=True)
class _Rolled:
    """A circle that rolls: the path of its point, which way it heads, and where its centre is, by the angle rolled."""

    radius: float
    whole: float
    place: Path
    heading: Path
    centre: Path


def _read(args: Args) -> _Rolled:
    radius, turns = float(args.need("radius").length("size")), float(args.need("turns").length("turns"))
    if not 0 < turns <= 12:
        raise ClauseError("a circle rolls up to 12 turns", args.need("turns").clause)
    base, start = args.get("on"), args.get("from")
    if (base is None) == (start is None):
        raise ClauseError("the circle rolls from a point along a level line, or on a circle: say one of them")
    if start is not None:
        return _Rolled(radius, math.tau * turns, *_along(start.point("start"), radius))
    assert base is not None
    circle, inside = base.shape("circle"), args.get("inside") is not None
    assert isinstance(circle, Circle | Arc)
    if inside and radius >= circle.radius:
        told = f"a circle that rolls inside {base.ref('circle').text} is smaller than it"
        raise ClauseError(told, args.need("radius").clause)
    begin = math.radians(args.number("at", usual=0.0))
    return _Rolled(radius, math.tau * turns, *_round(circle, radius, inside, begin))


def _told(args: Args) -> str:
    start = args.get("from")
    if start is not None:
        return f"from {start.ref('start').text}"
    return f"{'inside' if args.get('inside') else 'on'} {args.need('on').ref('circle').text}"


def _arches(rolled: _Rolled, stations: Sequence[float]) -> list[Line | Arc]:
    curves: list[Line | Arc] = []
    for arch in range(math.ceil(rolled.whole / math.tau - ROUND)):
        # At a cusp the path turns back on itself: every arch is drawn for itself.
        knots = [turn for turn in stations if arch * math.tau - ROUND <= turn <= (arch + 1) * math.tau + ROUND]
        heading = _facing(rolled.heading, -1.0 if arch % 2 else 1.0)
        curves += fitted(rolled.place, heading, knots, CLOSE * rolled.radius)
    return curves


def _steps(
    args: Args, rolled: _Rolled, stations: Sequence[float], spots: Sequence[Point], shape: Loop
) -> tuple[Step, ...]:
    start, radius = args.get("from"), rolled.radius
    track = (_track(start.point("start"), radius * rolled.whole),) if start is not None else ()
    every = max(1, (len(stations) - 1) // PARTS)
    circles = tuple(Stroke(Circle(rolled.centre(turn), radius)) for turn in stations[::every])
    return (
        Step(Tool.DIVIDERS, f"Divide the rolling circle and the way it rolls in {PARTS} a turn",
             math.tau * radius / PARTS, strokes=track),
        Step(Tool.COMPASS, "Draw the rolling circle at every part", radius, rolled.centre(0.0), circles),
        Step(Tool.DIVIDERS, "On each set the point back by as many parts as it has rolled", radius,
             strokes=tuple(Stroke(spot, Role.POINT, str(index)) for index, spot in enumerate(spots))),
        Step(Tool.PENCIL, f"Draw {args.name} fair through the points", strokes=(Stroke(shape),),
             check="it stands square on its base at every cusp"),
    )  # fmt: skip


def _facing(heading: Path, sign: float) -> Path:
    return lambda turn: heading(turn) * sign


def _track(start: Point, length: float) -> Stroke:
    return Stroke(Line.between(start, start + Point(length, 0.0)))


def _along(start: Point, radius: float) -> tuple[Path, Path, Path]:
    def place(turn: float) -> Point:
        return start + Point(radius * (turn - math.sin(turn)), radius * (1 - math.cos(turn)))

    def heading(turn: float) -> Point:
        # Half-angle form of (1 − cos θ, sin θ): at the cusps as well it has a direction, square to the base.
        return Point(math.sin(turn / 2), math.cos(turn / 2))

    return place, heading, lambda turn: start + Point(radius * turn, radius)


def _round(base: Circle | Arc, radius: float, inside: bool, begin: float) -> tuple[Path, Path, Path]:
    side = -1 if inside else 1
    share = radius / base.radius

    def centre(turn: float) -> Point:
        return base.centre + polar(base.radius + side * radius, begin + share * turn)

    def place(turn: float) -> Point:
        return centre(turn) - polar(radius, begin + share * turn + side * turn) * side

    def heading(turn: float) -> Point:
        return polar(1.0, begin + share * turn + side * turn / 2) * side

    return place, heading, centre


KIND = Kind(
    name="cycloid",
    group="Curves",
    summary="a point of a circle that rolls along a line or round a circle",
    example="path = cycloid, from P, radius 12, 1 turns",
    mistake="The chord of a part is set off along the base instead of the arc it rolls.",
    forms=(
        Form("from {start:point}", "from"),
        Form("on {circle:circle}", "on"),
        Form("inside"),
        Form("radius {size:radius}", needed=True),
        Form("{turns:length} turns", "turns", needed=True),
        Form("at {angle:angle}"),
    ),
    construct=construct,
)
