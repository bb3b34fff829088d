"""``equiangular``: the logarithmic spiral, larger by the same ratio for every equal angle."""

from __future__ import annotations

import math
from dataclasses import dataclass
from functools import partial

from ..acts import Edge, Mark, Way, Work
from ..acts.normals import Normals
from ..acts.procedures import away
from ..geometry import Line, Loop, Point, polar
from ..geometry.ellipse import FINE
from ..kind import Args, Kind, Made
from ..kind.parts import true_run
from ..measure import Number, spell_angle
from ..plan.errors import ClauseError, Wanting
from ..plan.forms import Form
from .spiral import by_subnormal

PARTS = 12


@dataclass(frozen=True)
class _Growing(Normals):
    """A spiral: r = first·e^(growth·θ) about a pole, θ up to `whole` radians, turned the way it
    goes."""

    pole: Point
    first: float
    growth: float
    begin: float
    way: int
    whole: float

    @property
    def span(self) -> tuple[float, float]:
        return 0.0, self.whole

    @property
    def parts(self) -> int:
        return max(36, round(36 * self.whole / math.tau))

    def radius(self, turn: float) -> float:
        """How far it is from the pole."""
        return self.first * math.exp(self.growth * turn)

    def at(self, turn: float) -> Point:
        return self.pole + polar(self.radius(turn), self.begin + self.way * turn)

    def heading(self, turn: float) -> Point:
        out = polar(1.0, self.begin + self.way * turn)
        return (out * self.growth + out.normal * self.way).unit

    def normal(self, work: Work, at: Mark, turn: float, called: str, shown: Line | None) -> Edge:
        """It goes through the end of the subnormal: square to the radius, growth × radius."""
        subnormal = self.growth * self.radius(turn) * self.way
        angle = self.begin + self.way * turn
        return by_subnormal(work, at, (self.pole, subnormal), angle, called, shown)


def construct(args: Args) -> Made:
    """Construct an equiangular spiral about a pole.

    Parts: ``start``, ``end``, ``pole``, ``station.0`` … at every part of a turn.

    Notes
    -----
    r = r₀·e^(θ·cot α), α the angle of every radius with the curve (definition). Length
    (r₁ − r₀)/cos α.
    """
    spiral = _read(args)
    steps = max(1, round(PARTS * spiral.whole / math.tau))
    stations = [spiral.whole * index / steps for index in range(steps + 1)]
    reach = max(spiral.radius(0.0), spiral.radius(spiral.whole))
    shape = true_run(args.name, spiral, stations, FINE * reach)
    spots = [spiral.at(turn) for turn in stations]
    first, last = spiral.first, spiral.radius(spiral.whole)
    angle = math.degrees(math.atan2(1.0, spiral.growth))
    each = math.exp(spiral.growth * spiral.whole / steps)
    return Made(
        shape,
        f"Equiangular spiral {args.name} about {args.need('about').ref('pole').text}, "
        f"R{args.say(first)} to R{args.say(last)}, {args.need('turns').length('turns').text} "
        "turns.",
        (
            f"every {spell_angle(math.degrees(spiral.whole) / steps)} the radius becomes "
            f"{each:.5g} times as long",
            f"it makes {spell_angle(angle)} with every radius",
            f"{args.say((last - first) * math.hypot(1, spiral.growth) / spiral.growth)} long",
        ),
        parts={
            "start": spots[0],
            "end": spots[-1],
            "pole": spiral.pole,
            **{f"station.{index}": spot for index, spot in enumerate(spots)},
            **{str(index): piece.curve for index, piece in enumerate(shape.pieces, 1)},
        },
        draw=partial(_draw, args, spiral, stations, shape),
    )


def _read(args: Args) -> _Growing:
    radii, turns = args.need("radii"), float(args.need("turns").length("turns"))
    first, clause = float(radii.length("first")), args.get("ratio")
    if radii.has("last") == (clause is not None):
        raise Wanting("it has two radii, or one and a ratio for an angle: say either", radii.index)
    if not 0 < turns <= 12:
        raise ClauseError("it goes through up to 12 turns", args.need("turns").index)
    whole = math.tau * turns
    if clause:
        ratio, angle = float(clause.length("ratio")), math.radians(float(clause.length("angle")))
        if ratio <= 0 or ratio == 1 or angle <= 0:
            message = "the ratio is more than nought and not 1, for an angle more than nought"
            raise ClauseError(message, clause.index)
        growth = math.log(ratio) / angle
        if abs(growth * whole) > math.log(1e6):
            raise ClauseError("it would grow more than a million times", clause.index)
    else:
        last = float(radii.length("last"))
        if min(first, last) <= 0 or first == last:
            raise ClauseError("both radii are more than nought, and not alike", radii.index)
        growth = math.log(last / first) / whole
    if first <= 0:
        raise ClauseError("its radius is more than nought", radii.index)
    begin, way = math.radians(args.number("at", usual=0.0)), -1 if args.get("cw") else 1
    return _Growing(args.need("about").point("pole"), first, growth, begin, way, whole)


def _draw(args: Args, spiral: _Growing, stations: list[float], shape: Loop, work: Work) -> None:
    """Two radii a part apart have the first two places; a radius carried back to the first ray and
    a parallel to their join give the next: all the triangles are similar."""
    pole = work.mark(spiral.pole, args.need("about").ref("pole").text)
    begin: Number = args.get("at").length("angle").value if args.get("at") else 0  # type: ignore[union-attr]
    part = math.degrees(stations[1])
    rays = [
        work.draw(
            pole,
            Way(float(begin) + spiral.way * part * index if index else begin),
            spiral.at(stations[index]),
            f"ray {index}",
        )
        for index in range(len(stations))
    ]
    marks: list[Mark] = []
    for index, size in enumerate((spiral.first, spiral.radius(stations[1]))):
        marks.append(
            _set_off(args, rays[index], pole, spiral.at(stations[index]), size, index, work)
        )
    join = work.through(marks[0], marks[1], "the join of the first two")
    for index in range(2, len(stations)):
        radius = spiral.radius(stations[index])
        before = (marks[0].at - pole.at).unit * spiral.radius(stations[index - 1])
        back_at, over_at = pole.at + before, pole.at + (marks[1].at - pole.at).unit * radius
        back = marks[index - 1]
        carried = work.swing(pole, work.between(pole, back), near=[back_at])
        on_first = work.prick(carried, rays[0], back_at, f"radius {index - 1} on the first ray")
        line = work.parallel(join, on_first, over_at, f"the parallel for radius {index}")
        over = work.prick(line, rays[1], over_at, f"radius {index} on the second ray")
        spot = spiral.at(stations[index])
        swing = work.swing(pole, work.between(pole, over), near=[spot])
        marks.append(
            work.prick(swing, rays[index], spot, f"{args.name}.station.{index}", label=str(index))
        )
    work.trace(marks, shape, args.name, check="it makes one angle with every radius")


def _set_off(
    args: Args, ray: Edge, pole: Mark, spot: Point, size: float, index: int, work: Work
) -> Mark:
    called = f"{args.name}.station.{index}"
    return work.measure(pole, away(ray, pole, spot), size, called, spot, label=str(index))


ABOUT = """\
The logarithmic spiral: for every equal angle larger by the same ratio, from one radius `to`
another in so many turns, or from a radius by a `ratio` every so many degrees; `at` where it
begins, `cw` or `ccw`. Parts `start`, `end`, `pole`, `station.0` and so on.
"""

SHOWN = """\
units mm
O = datum
shell = equiangular, about O, radius 12, ratio 10/9 every 30°, 1.5 turns
"""

KIND = Kind(
    name="equiangular",
    group="Curves",
    summary="the logarithmic spiral, larger by the same ratio for every angle",
    example="shell = equiangular, about O, radius 12, ratio 10/9 every 30°, 1.5 turns",
    mistake="The same length is added for every angle instead of the same part of the radius.",
    also=("logarithmic spiral", "equiangular spiral", "shell"),
    forms=(
        Form("about {pole:point}", "about", needed=True),
        Form("radius {first:length} to {last:length}", "radii", needed=True),
        Form("radius {first:length}", "radii", needed=True),
        Form("ratio {ratio:length} every {angle:angle}", "ratio"),
        Form("{turns:length} turns", "turns", needed=True),
        Form("at {angle:angle}"),
        Form("cw"),
        Form("ccw"),
    ),
    construct=construct,
    about=ABOUT,
    shown=SHOWN,
)
