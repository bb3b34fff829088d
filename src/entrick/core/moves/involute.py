"""``involute``: of a circle, the path of the end of a thread unwound from it."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from functools import partial

from ..acts import Edge, Mark, Way, Work
from ..acts.normals import Normals
from ..acts.procedures import away, ray_to, tangent_from
from ..geometry import Arc, Circle, Line, Loop, Point, polar
from ..geometry.ellipse import FINE
from ..kind import Args, Kind, Made
from ..kind.parts import true_run
from ..measure import spell_angle
from ..plan.errors import ClauseError
from ..plan.forms import Form

PARTS = 12


@dataclass(frozen=True)
class _Involute(Normals):
    """The involute of a base circle by the angle unwound."""

    base: Circle | Arc
    name: str
    begin: float
    way: int
    whole: float

    @property
    def span(self) -> tuple[float, float]:
        return 0.0, self.whole

    def at(self, turn: float) -> Point:
        out = polar(1.0, self.begin + self.way * turn)
        size = self.base.radius
        return self.base.centre + out * size - out.normal * (self.way * size * turn)

    def heading(self, turn: float) -> Point:
        return polar(1.0, self.begin + self.way * turn)

    def normal(self, work: Work, at: Mark, turn: float, called: str, shown: Line | None) -> Edge:
        """It is the thread: the tangent to the base circle."""
        ring, touch = work.round(self.base, self.name), self.base.at(self.begin + self.way * turn)
        if abs(touch - at.at) <= work.paper.nothing:
            radius = work.through(work.mark(self.base.centre), at)
            return work.draw(at, Way(90, radius.key, radius.called), None, called)
        return tangent_from(work, at, ring, touch, called, shown=shown)[0]


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
    clause = args.need("through")
    degrees = float(clause.length("angle"))
    if not 0 < degrees <= 1440:
        raise ClauseError(
            "a thread is unwound through more than 0° and at most 1440°", clause.index
        )
    begin = math.radians(args.number("at", usual=0.0))
    way, whole = -1 if args.get("cw") else 1, math.radians(degrees)

    curve = _Involute(base, name, begin, way, whole)
    count = max(2, round(PARTS * degrees / 360))
    stations = [whole * index / count for index in range(count + 1)]
    # The curve is infinitely tight at its start: stations there are closer.
    knots = [0.0, *(stations[1] * 0.5**k for k in range(9, 0, -1)), *stations[1:]]
    shape = true_run(args.name, curve, knots, FINE * base.radius)
    spots = [curve.at(turn) for turn in stations]
    return Made(
        shape,
        f"Involute {args.name} of {name}, through {spell_angle(degrees)}.",
        (
            f"each {spell_angle(degrees / count)} unwinds π × {args.say(base.size)} × "
            f"{degrees / count:.4g} ÷ 180 = "
            f"{args.say(base.radius * whole / count)} of thread",
            f"{args.say(base.radius * whole**2 / 2)} long",
        ),
        parts={
            "start": spots[0],
            "end": spots[-1],
            **{f"station.{index}": spot for index, spot in enumerate(spots)},
            **{str(index): piece.curve for index, piece in enumerate(shape.pieces, 1)},
        },
        draw=partial(_draw, args, base, (whole / count, count), spots, shape),
    )


def _draw(
    args: Args,
    base: Circle | Arc,
    parts: tuple[float, int],
    spots: Sequence[Point],
    shape: Loop,
    work: Work,
) -> None:
    """Step parts round the base circle; on the tangent at each set off as much thread as has been
    unwound."""
    name, (each, count) = args.need("of").ref("circle").text, parts
    ring, centre = (
        work.round(base, name),
        work.mark(base.centre, args.need("of").ref("circle").centre_name),
    )
    begin = args.need("at").length("angle").value if args.get("at") else 0
    way = -1 if args.get("cw") else 1
    first = ray_to(work, centre, ring, begin, spots[0], f"{args.name}.station.0", "0")
    touches = [
        base.at(math.radians(float(begin)) + way * each * index) for index in range(1, count + 1)
    ]
    names = [f"part {index} of {name}" for index in range(1, count + 1)]
    marks = [first]
    for index, touch in enumerate(
        work.step_off(first, 2 * base.radius * math.sin(each / 2), ring, touches, names), 1
    ):
        radius = work.through(centre, touch)
        thread = work.square(radius, touch, spots[index], f"the thread from part {index}")
        marks.append(
            work.measure(
                touch,
                away(thread, touch, spots[index]),
                base.radius * each * index,
                f"{args.name}.station.{index}",
                spots[index],
                label=str(index),
            )
        )
    work.trace(marks, shape, args.name, check="it is square to every thread")


ABOUT = """\
The path of the end of a thread unwound from a circle. Parts `start`, `end`, `station.0` and so
on.
"""

SHOWN = """\
units mm
O = datum
base = circle, centre O, radius 20
flank = involute, of base, through 200°, at 15°
"""

KIND = Kind(
    name="involute",
    group="Curves",
    summary="of a circle: the path of a thread unwound from it",
    example="flank = involute, of base, through 60°",
    mistake="The chord is set off on the tangent instead of the arc: the thread is as long as "
    "what was unwound.",
    also=("unwound thread",),
    forms=(
        Form("of {circle:circle}", needed=True),
        Form("through {angle:angle}", needed=True),
        Form("at {angle:angle}"),
        Form("cw"),
        Form("ccw"),
    ),
    construct=construct,
    about=ABOUT,
    shown=SHOWN,
)
