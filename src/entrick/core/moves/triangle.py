"""``triangle``: by its three sides, the first of them between two points."""

from __future__ import annotations

import math
from functools import partial

from ..acts import Work
from ..geometry import Circle, Line, Loop, Point, meet, polyline
from ..kind import CHOICES, Args, Kind, Made, Option, choose
from ..measure import spell_angle
from ..plan.errors import ClauseError
from ..plan.forms import Form
from ..tolerance import same


def construct(args: Args) -> Made:
    """Construct a triangle on a side, by the lengths of the two others.

    Parts: ``corner.1`` to ``corner.3``, ``side.1`` to ``side.3``, ``centroid``.
    """
    on, clause = args.need("on"), args.need("sides")
    first, second = on.point("first"), on.point("second")
    one, other = float(clause.length("one")), float(clause.length("other"))
    base = abs(second - first)
    if min(one, other) <= 0 or base <= same(abs(first)):
        raise ClauseError("the sides of a triangle are more than nought", clause.index)
    tops = [meeting.point for meeting in meet(Circle(first, one), Circle(second, other))]
    if len(tops) < 2:
        longest = max((one, other, base))
        message = (
            f"no triangle has these sides: {args.say(longest)} is not shorter than the two others "
            "together"
        )
        raise ClauseError(message, clause.index)
    options = [Option(top, top, "corner") for top in tops]
    index, candidates = choose(options, args, "triangle")
    corners = (first, second, tops[index])
    names = [f"{args.name}.side.{side}" for side in (1, 2, 3)]
    shape = polyline(corners, names, closed=True)
    half = (one + other + base) / 2
    area = math.sqrt(max(half * (half - one) * (half - other) * (half - base), 0.0))
    angle = math.degrees(math.acos((one**2 + base**2 - other**2) / (2 * one * base)))
    called = [on.ref(slot).text for slot in ("first", "second")]
    return Made(
        shape,
        f"Triangle {args.name} on {called[0]} to {called[1]}, sides "
        f"{args.say(clause.length('one').value)} and {args.say(clause.length('other').value)}.",
        (
            f"{spell_angle(angle)} at {called[0]}, by the cosine rule",
            f"area {area:.6g}, by its three sides",
        ),
        parts={
            **{f"corner.{i}": corner for i, corner in enumerate(corners, 1)},
            **{f"side.{i}": piece.curve for i, piece in enumerate(shape.pieces, 1)},
            "centroid": (corners[0] + corners[1] + corners[2]) * (1 / 3),
        },
        candidates=candidates,
        draw=partial(_draw, args, corners, shape),
    )


def _draw(args: Args, corners: tuple[Point, Point, Point], shape: Loop, work: Work) -> None:
    """Swing both sides from the ends of the first; join."""
    on, clause, name = args.need("on"), args.need("sides"), args.name
    ends = [
        work.mark(at, on.ref(slot).text)
        for at, slot in zip(corners, ("first", "second"), strict=False)
    ]
    swings = [
        work.swing(end, clause.length(slot).value, near=[corners[2]])
        for end, slot in zip(ends, ("one", "other"), strict=True)
    ]
    top = work.prick(swings[0], swings[1], corners[2], f"{name}.corner.3")
    marks = [*ends, top]
    for index, piece in enumerate(shape.pieces):
        assert isinstance(piece.curve, Line)
        work.through(marks[index], marks[(index + 1) % 3], f"{name}.side.{index + 1}")


ABOUT = """\
On a side from one point to another, with the lengths of the two others: first the one from the
first point. Words of place choose on which side it lies. Parts `corner.1` to `corner.3`, `side.1`
to `side.3`, `centroid`.
"""

SHOWN = """\
units mm
O = datum
A = point, 70 right of O
wedge = triangle, on O to A, sides 60 and 45, above
rim = line in, wedge
"""

KIND = Kind(
    name="triangle",
    group="Ready shapes",
    summary="by its three sides",
    example="wedge = triangle, on O to A, sides 60 and 45, above",
    mistake="Both swings are made with one opening.",
    also=("three sides",),
    forms=(
        Form("on {first:point} to {second:point}", "on", needed=True),
        Form("sides {one:length} and {other:length}", "sides", needed=True),
        *CHOICES,
    ),
    construct=construct,
    about=ABOUT,
    shown=SHOWN,
)
