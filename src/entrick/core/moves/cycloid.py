"""``cycloid``: the path of a point on a circle that rolls along a line, or round a circle outside or inside it."""

from __future__ import annotations

import math
from collections.abc import Callable

from ..geometry import Arc, Circle, Line, Point, polar
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
    size, turns = args.need("radius").length("size"), args.need("turns").length("turns")
    if not 0 < float(turns) <= 12:
        raise ClauseError("a circle rolls up to 12 turns", args.need("turns").clause)
    radius, whole = float(size), math.tau * float(turns)
    base, start = args.get("on"), args.get("from")
    strokes: tuple[Stroke, ...] = ()
    if (base is None) == (start is None):
        raise ClauseError("the circle rolls from a point along a level line, or on a circle: say one of them")
    if start is not None:
        place, heading, centre = _along(start.point("start"), radius)
        told, strokes = f"from {start.ref('start').text}", (_track(start.point("start"), radius * whole),)
    else:
        assert base is not None
        circle, name = base.shape("circle"), base.ref("circle").text
        assert isinstance(circle, Circle | Arc)
        inside = args.get("inside") is not None
        if inside and radius >= circle.radius:
            raise ClauseError(f"a circle that rolls inside {name} is smaller than it", args.need("radius").clause)
        turn = math.radians(args.number("at", usual=0.0))
        place, heading, centre = _round(circle, radius, inside, turn)
        told = f"{'inside' if inside else 'on'} {name}"
    count = max(1, round(PARTS * float(turns)))
    stations = [whole * index / count for index in range(count + 1)]
    curves: list[Line | Arc] = []
    for arch in range(math.ceil(float(turns) - ROUND)):
        # At a cusp the path turns back on itself: every arch is drawn for itself.
        knots = [turn for turn in stations if arch * math.tau - ROUND <= turn <= (arch + 1) * math.tau + ROUND]
        sign = -1.0 if arch % 2 else 1.0
        curves += fitted(place, _facing(heading, sign), knots, CLOSE * radius)
    shape = curve_run(args.name, curves, closed=False)
    spots = [place(turn) for turn in stations]
    rolled = tuple(Stroke(Circle(centre(turn), radius)) for turn in stations[:: max(1, count // PARTS)])
    return Made(
        shape,
        f"Cycloid {args.name} {told}, rolling radius {args.say(size.value)}, {turns.text} turns.",
        (
            f"a turn rolls 2π × {args.say(size.value)} = {args.say(math.tau * radius)}, "
            f"{args.say(math.tau * radius / PARTS)} for each {spell_angle(360 / PARTS)}",
            f"{args.say(shape.length)} long",
        ),
        (
            Step(Tool.DIVIDERS, f"Divide the rolling circle and the way it rolls in {PARTS} a turn",
                 math.tau * radius / PARTS, strokes=strokes),
            Step(Tool.COMPASS, "Draw the rolling circle at every part", radius, centre(0.0), rolled),
            Step(Tool.DIVIDERS, "On each set the point back by as many parts as it has rolled", radius,
                 strokes=tuple(Stroke(spot, Role.POINT, str(index)) for index, spot in enumerate(spots))),
            Step(Tool.PENCIL, f"Draw {args.name} fair through the points", strokes=(Stroke(shape),),
                 check="it stands square on its base at every cusp"),
        ),
        {
            "start": spots[0], "end": spots[-1],
            **{f"station.{index}": spot for index, spot in enumerate(spots)},
            **{str(index): piece.curve for index, piece in enumerate(shape.pieces, 1)},
        },
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
