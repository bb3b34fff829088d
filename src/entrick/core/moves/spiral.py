"""``spiral``: Archimedes' spiral, so much further out for every turn."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from functools import partial

from ..acts import Way, Work
from ..geometry import Loop, Point, polar
from ..geometry.ellipse import FINE
from ..geometry.fitted import fitted
from ..kind import Args, Kind, Made
from ..kind.parts import curve_run
from ..measure import spell_angle
from ..plan.errors import ClauseError
from ..plan.forms import Form
from ..tolerance import same

PARTS = 12


@dataclass(frozen=True)
class _Spiral:
    """A spiral: r = first + rise·θ about a centre, θ up to `whole` radians, turned the way it
    goes."""

    centre: Point
    first: float
    rise: float
    begin: float
    way: int
    whole: float

    def place(self, turn: float) -> Point:
        return self.centre + polar(self.first + self.rise * turn, self.begin + self.way * turn)

    def heading(self, turn: float) -> Point:
        out = polar(1.0, self.begin + self.way * turn)
        return (out * self.rise + out.normal * (self.way * (self.first + self.rise * turn))).unit

    @property
    def reach(self) -> float:
        """Greatest radius."""
        return max(self.first, self.first + self.rise * self.whole)

    @property
    def lead(self) -> float:
        """How much further out or in it is for every turn."""
        return abs(self.rise) * math.tau


def construct(args: Args) -> Made:
    """Construct a spiral about a point from a radius to a radius in so many turns.

    Parts: ``start``, ``end``, ``centre``, ``station.1`` … at every part of a turn.

    Notes
    -----
    r = r₀ + (lead/2π)·θ (definition); the tangent makes atan(r·2π/lead) with the radius.
    """
    spiral, count = _read(args), _parts(args)
    steps = max(1, round(count * spiral.whole / math.tau))
    stations = [spiral.whole * index / steps for index in range(steps + 1)]
    quarters = [spiral.whole * index / 4 for index in range(5)]
    knots = stations if len(stations) > len(quarters) - 1 else sorted({*stations, *quarters})
    shape = curve_run(
        args.name, fitted(spiral.place, spiral.heading, knots, FINE * spiral.reach), closed=False
    )
    spots = [spiral.place(turn) for turn in stations]
    radii, lead = args.need("radii"), spiral.lead
    return Made(
        shape,
        f"Spiral {args.name} about {args.need('about').ref('centre').text}, "
        f"R{args.say(radii.length('first').value)} "
        f"to R{args.say(radii.length('last').value)}, {args.need('turns').length('turns').text} "
        "turns.",
        (
            f"{args.say(lead)} further {'out' if spiral.rise > 0 else 'in'} for every turn, "
            f"{args.say(lead / count)} "
            f"for every {spell_angle(360 / count)}",
            f"{args.say(shape.length)} long",
        ),
        parts={
            "start": spots[0],
            "end": spots[-1],
            "centre": spiral.centre,
            **{f"station.{index}": spot for index, spot in enumerate(spots)},
            **{str(index): piece.curve for index, piece in enumerate(shape.pieces, 1)},
        },
        draw=partial(_draw, args, spiral, stations, shape),
    )


def _parts(args: Args) -> int:
    parts = args.get("parts")
    return parts.count("count") if parts else PARTS


def _read(args: Args) -> _Spiral:
    radii, turns = args.need("radii"), float(args.need("turns").length("turns"))
    first, last = radii.length("first"), radii.length("last")
    if not 0 < turns <= 40 or min(float(first), float(last)) < 0 or first.value == last.value:
        raise ClauseError(
            "a spiral has up to 40 turns, and two different radii none below nought", radii.clause
        )
    whole = math.tau * turns
    rise = (float(last) - float(first)) / whole
    begin, way = math.radians(args.number("at", usual=0.0)), -1 if args.get("cw") else 1
    return _Spiral(args.need("about").point("centre"), float(first), rise, begin, way, whole)


def _draw(args: Args, spiral: _Spiral, stations: Sequence[float], shape: Loop, work: Work) -> None:
    """On each of the radii swing as far as it has come: so much more every time."""
    centre = work.mark(spiral.centre, args.need("about").ref("centre").text)
    begin = args.need("at").length("angle").value if args.get("at") else 0
    marks = []
    for index, turn in enumerate(stations):
        spot, radius = spiral.place(turn), spiral.first + spiral.rise * turn
        called = f"{args.name}.station.{index}"
        if radius <= same(spiral.reach):
            marks.append(centre)
            continue
        ray = work.draw(centre, Way(float(begin) + spiral.way * math.degrees(turn)), spot)
        swing = work.swing(centre, radius, near=[spot], told=f"to radius {index}")
        marks.append(work.prick(ray, swing, spot, called, label=str(index)))
    work.trace(marks, shape, args.name)


ABOUT = """\
Archimedes' spiral: so much further out for every turn. Parts `start`, `end`, `centre`,
`station.0` and so on.
"""

SHOWN = """\
units mm
O = datum
scroll = spiral, about O, radius 10 to 40, 2 turns, at 90°, cw
"""

KIND = Kind(
    name="spiral",
    group="Curves",
    summary="Archimedes' spiral, from its radii and turns",
    example="scroll = spiral, about O, radius 10 to 40, 2 turns",
    mistake="The radius is made larger by the same part of itself instead of by the same length.",
    also=("scroll", "volute"),
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
    about=ABOUT,
    shown=SHOWN,
)
