"""``involute``: of a circle, the path of the end of a thread unwound from it."""

from __future__ import annotations

import math

from ..geometry import Arc, Circle, Line, Point, polar
from ..geometry.ellipse import FINE
from ..geometry.fitted import fitted
from ..kind import Args, Kind, Made, Role, Step, Stroke, Tool
from ..kind.parts import curve_run
from ..measure import spell_angle
from ..plan.errors import ClauseError
from ..plan.forms import Form

PARTS = 12


def construct(args: Args) -> Made:
    """Construct the involute of a base circle through so many degrees of unwinding.

    Parts: ``start``, ``end``, ``station.1`` ….

    Notes
    -----
    At an unwinding of θ the thread is r·θ long and touches the circle (definition): the place is
    r·(cos θ + θ·sin θ), r·(sin θ − θ·cos θ). Length r·θ²/2.
    """
    base, name = args.need("of").shape("circle"), args.need("of").ref("circle").text
    assert isinstance(base, Circle | Arc)
    said = args.need("through")
    degrees = float(said.length("angle"))
    if not 0 < degrees <= 1440:
        raise ClauseError("a thread is unwound through more than 0° and at most 1440°", said.clause)
    begin = math.radians(args.number("at", usual=0.0))
    way, whole = -1 if args.get("cw") else 1, math.radians(degrees)

    def place(turn: float) -> Point:
        out = polar(1.0, begin + way * turn)
        return base.centre + out * base.radius - out.normal * (way * base.radius * turn)

    def heading(turn: float) -> Point:
        return polar(1.0, begin + way * turn)

    count = max(2, round(PARTS * degrees / 360))
    stations = [whole * index / count for index in range(count + 1)]
    # The curve is infinitely tight at its start: stations there are closer.
    knots = [0.0, *(stations[1] * 0.5**k for k in range(9, 0, -1)), *stations[1:]]
    shape = curve_run(args.name, fitted(place, heading, knots, FINE * base.radius), closed=False)
    pricked = tuple(Stroke(place(turn), Role.POINT, str(index)) for index, turn in enumerate(stations))
    threads = tuple(Stroke(Line.between(base.at(begin + way * turn), place(turn))) for turn in stations[1:])
    spots = [place(turn) for turn in stations]
    return Made(
        shape,
        f"Involute {args.name} of {name}, through {spell_angle(degrees)}.",
        (
            f"each {spell_angle(degrees / count)} unwinds π × {args.say(base.size)} × {degrees / count:.4g} ÷ 180 = "
            f"{args.say(base.radius * whole / count)} of thread",
            f"{args.say(base.radius * whole**2 / 2)} long",
        ),
        (
            Step(Tool.DIVIDERS, f"Divide {name} into parts of {spell_angle(degrees / count)}",
                 2 * base.radius * math.sin(whole / count / 2), base.centre),
            Step(Tool.STRAIGHTEDGE, "Draw the tangent at each part", strokes=threads),
            Step(Tool.DIVIDERS, "Set off one part of the circumference on the first, two on the second, and so on",
                 base.radius * whole / count, strokes=pricked),
            Step(Tool.PENCIL, f"Draw {args.name} fair through the points", strokes=(Stroke(shape),),
                 check="it is square to every tangent"),
        ),
        {
            "start": spots[0], "end": spots[-1],
            **{f"station.{index}": spot for index, spot in enumerate(spots)},
            **{str(index): piece.curve for index, piece in enumerate(shape.pieces, 1)},
        },
    )  # fmt: skip


KIND = Kind(
    name="involute",
    group="Curves",
    summary="of a circle: the path of a thread unwound from it",
    example="flank = involute, of base, through 60°",
    mistake="The chord is set off on the tangent instead of the arc: the thread is as long as what was unwound.",
    forms=(
        Form("of {circle:circle}", needed=True),
        Form("through {angle:angle}", needed=True),
        Form("at {angle:angle}"),
        Form("cw"),
        Form("ccw"),
    ),
    construct=construct,
)
