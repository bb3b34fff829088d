"""``spiral``: Archimedes' spiral, so much further out for every turn."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from functools import partial

from ..acts import Edge, Mark, Way, Work
from ..acts.normals import Normals
from ..acts.procedures import away
from ..geometry import Line, Loop, Point, polar
from ..geometry.ellipse import FINE
from ..kind import Args, Kind, Made
from ..kind.parts import true_run
from ..measure import spell_angle
from ..plan.errors import ClauseError, Wanting
from ..plan.forms import Form
from ..tolerance import same

PARTS = 12


@dataclass(frozen=True)
class _Spiral(Normals):
    """A spiral: r = first + rise·θ about a centre, θ up to `whole` radians, turned the way it
    goes."""

    centre: Point
    first: float
    rise: float
    begin: float
    way: int
    whole: float

    @property
    def span(self) -> tuple[float, float]:
        return 0.0, self.whole

    @property
    def parts(self) -> int:
        return max(36, round(36 * self.whole / math.tau))

    def at(self, turn: float) -> Point:
        return self.centre + polar(self.first + self.rise * turn, self.begin + self.way * turn)

    def heading(self, turn: float) -> Point:
        out = polar(1.0, self.begin + self.way * turn)
        return (out * self.rise + out.normal * (self.way * (self.first + self.rise * turn))).unit

    def normal(self, work: Work, at: Mark, turn: float, called: str, shown: Line | None) -> Edge:
        """It goes through the end of the subnormal: square to the radius, and the same everywhere
        (lead ÷ 2π)."""
        return by_subnormal(
            work,
            at,
            (self.centre, self.rise * self.way),
            self.begin + self.way * turn,
            called,
            shown,
        )

    @property
    def reach(self) -> float:
        """Greatest radius."""
        return max(self.first, self.first + self.rise * self.whole)

    @property
    def lead(self) -> float:
        """How much further out or in it is for every turn."""
        return abs(self.rise) * math.tau


def by_subnormal(
    work: Work,
    at: Mark,
    pole: tuple[Point, float],
    angle: float,
    called: str,
    shown: Line | None,
) -> Edge:
    """Draw the normal of a spiral from the end of its subnormal, so far to the left of the radius
    from the pole."""
    centre, subnormal = work.mark(pole[0]), pole[1]
    out = polar(1.0, angle)
    end = centre.at + out.normal * subnormal
    if abs(at.at - centre.at) <= work.paper.nothing:
        return work.draw(at, Way(math.degrees(angle) + 90), end, called)
    radius = work.through(centre, at)
    square = work.square(radius, centre, end)
    mark = work.measure(
        centre,
        away(square, centre, end),
        abs(subnormal),
        f"the end of the subnormal of {called}",
        end,
    )
    return work.through(at, mark, called, shown=shown)


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
    shape = true_run(args.name, spiral, knots, FINE * spiral.reach)
    spots = [spiral.at(turn) for turn in stations]
    lead = spiral.lead
    return Made(
        shape,
        f"Spiral {args.name} about {args.need('about').ref('centre').text}, "
        f"R{args.say(args.need('radii').length('first').value)} to "
        f"R{args.say(abs(spots[-1] - spiral.centre))}, "
        f"{args.need('turns').length('turns').text} turns.",
        (
            f"{args.say(lead)} further {'out' if spiral.rise > 0 else 'in'} for every turn, "
            f"{args.say(lead / count)} "
            f"for every {spell_angle(360 / count)}",
            f"subnormal {args.say(lead)} ÷ 2π = {args.say(abs(spiral.rise))} everywhere",
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
    first, lead = float(radii.length("first")), args.get("lead")
    if (radii.has("last") or radii.has("last_across")) == (lead is not None):
        raise Wanting("a spiral has two radii, or one and a lead: say either", radii.index)
    last = (
        float(radii.length("last")) if lead is None else first + turns * float(lead.length("lead"))
    )
    if not 0 < turns <= 40 or min(first, last) < 0 or first == last:
        raise ClauseError(
            "a spiral has up to 40 turns, and two different radii none below nought", radii.index
        )
    whole = math.tau * turns
    rise = (last - first) / whole
    begin, way = math.radians(args.number("at", usual=0.0)), -1 if args.get("cw") else 1
    return _Spiral(args.need("about").point("centre"), first, rise, begin, way, whole)


def _draw(args: Args, spiral: _Spiral, stations: Sequence[float], shape: Loop, work: Work) -> None:
    """On each of the radii swing as far as it has come: so much more every time."""
    centre = work.mark(spiral.centre, args.need("about").ref("centre").text)
    begin = args.need("at").length("angle").value if args.get("at") else 0
    marks = []
    for index, turn in enumerate(stations):
        spot, radius = spiral.at(turn), spiral.first + spiral.rise * turn
        called = f"{args.name}.station.{index}"
        if radius <= same(spiral.reach):
            marks.append(centre)
            continue
        ray = work.draw(centre, Way(float(begin) + spiral.way * math.degrees(turn)), spot)
        swing = work.swing(centre, radius, near=[spot], told=f"to radius {index}")
        marks.append(work.prick(ray, swing, spot, called, label=str(index)))
    work.trace(marks, shape, args.name)


ABOUT = """\
Archimedes' spiral: so much further out for every turn, from one radius `to` another, or from a
radius by a `lead`. Parts `start`, `end`, `centre`, `station.0` and so on.
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
        Form("radius {first:length}", "radii", needed=True),
        Form("diameter {first_across:diameter} to {last_across:diameter}", "radii", needed=True),
        Form("diameter {first_across:diameter}", "radii", needed=True),
        Form("lead {lead:length}", "lead"),
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
