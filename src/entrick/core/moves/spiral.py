"""``spiral``: Archimedes' spiral, so much further out for every turn."""

from __future__ import annotations

import math

from ..geometry import Line, Point, polar
from ..geometry.ellipse import FINE
from ..geometry.fitted import fitted
from ..kind import Args, Kind, Made, Role, Step, Stroke, Tool
from ..kind.parts import curve_run
from ..measure import spell_angle
from ..plan.errors import ClauseError
from ..plan.forms import Form

PARTS = 12


def construct(args: Args) -> Made:
    """Construct a spiral about a point from a radius to a radius in so many turns.

    Parts: ``start``, ``end``, ``centre``, ``station.1`` … at every part of a turn.

    Notes
    -----
    r = r₀ + (lead/2π)·θ (definition); the tangent makes atan(r·2π/lead) with the radius.
    """
    centre, name = args.need("about").point("centre"), args.need("about").ref("centre").text
    radii = args.need("radii")
    first, last = radii.length("first"), radii.length("last")
    turns, parts = args.need("turns").length("turns"), args.get("parts")
    count = parts.count("count") if parts else PARTS
    if float(turns) <= 0 or float(turns) > 40 or min(float(first), float(last)) < 0 or first.value == last.value:
        raise ClauseError("a spiral has up to 40 turns, and two different radii none below nought", radii.clause)
    way = -1 if args.get("cw") else 1
    begin = math.radians(args.number("at", usual=0.0))
    whole = math.tau * float(turns)
    rise = (float(last) - float(first)) / whole

    def place(turn: float) -> Point:
        return centre + polar(float(first) + rise * turn, begin + way * turn)

    def heading(turn: float) -> Point:
        out = polar(1.0, begin + way * turn)
        return (out * rise + out.normal * (way * (float(first) + rise * turn))).unit

    steps = max(1, round(count * float(turns)))
    stations = [whole * index / steps for index in range(steps + 1)]
    knots = stations if len(stations) > 4 else [whole * index / 4 for index in range(5)]
    curves = fitted(place, heading, knots, FINE * max(float(first), float(last)))
    shape = curve_run(args.name, curves, closed=False)
    lead = abs(rise) * math.tau
    reach = max(float(first), float(last))
    ends = [centre + polar(reach, begin + math.tau * i / count) for i in range(count)]
    rays = tuple(Stroke(Line.between(centre, end)) for end in ends)
    spots = [place(turn) for turn in stations]
    swings = tuple(Stroke(spot, Role.POINT, str(index)) for index, spot in enumerate(spots))
    return Made(
        shape,
        f"Spiral {args.name} about {name}, R{args.say(first.value)} to R{args.say(last.value)}, {turns.text} turns.",
        (
            f"{args.say(lead)} further {'out' if rise > 0 else 'in'} for every turn, {args.say(lead / count)} for "
            f"every {spell_angle(360 / count)}",
            f"{args.say(shape.length)} long",
        ),
        (
            Step(Tool.ANGLE, f"Draw {count} radii, {spell_angle(360 / count)} apart", 360 / count, centre, rays),
            Step(Tool.RULE, f"Divide the lead in {count}: each part is so much more radius", lead / count),
            Step(Tool.COMPASS, "Swing each radius to its line, one part more every time", first.value, centre, swings),
            Step(Tool.PENCIL, f"Draw {args.name} fair through the points", strokes=(Stroke(shape),)),
        ),
        {
            "start": spots[0], "end": spots[-1], "centre": centre,
            **{f"station.{index}": spot for index, spot in enumerate(spots)},
            **{str(index): piece.curve for index, piece in enumerate(shape.pieces, 1)},
        },
    )  # fmt: skip


KIND = Kind(
    name="spiral",
    group="Curves",
    summary="Archimedes' spiral, from its radii and turns",
    example="scroll = spiral, about O, radius 10 to 40, 2 turns",
    mistake="The radius is made larger by the same part of itself instead of by the same length.",
    forms=(
        Form("about {centre:point}", "about", needed=True),
        Form("radius {first:length} to {last:length}", "radii", needed=True),
        Form("{turns:length} turns", "turns", needed=True),
        Form("{count:count} parts", "parts"),
        Form("at {angle:angle}"),
        Form("cw"),
        Form("ccw"),
    ),
    construct=construct,
)
