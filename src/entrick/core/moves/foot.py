"""``foot``: where the perpendicular from a point meets a line."""

from __future__ import annotations

import math
from functools import partial

from ..geometry import Line
from ..kind import Args, Kind, Made, Role, Step, Stroke, Tool
from ..kind.classic import square_from
from ..plan.errors import ClauseError
from ..plan.forms import Form
from ..tolerance import same


def construct(args: Args) -> Made:
    """Construct the foot of the perpendicular from a point on a line."""
    clause = args.need("of")
    point, line = clause.point("point"), clause.line("line")
    names = clause.ref("point").text, clause.ref("line").text
    place = line.foot(point)
    if abs(place - point) <= same(abs(point)):
        raise ClauseError(f"{names[0]} lies on {names[1]} already", clause.clause)
    return Made(
        place,
        f"Point {args.name}, the foot of the perpendicular from {names[0]} on {names[1]}.",
        (f"{names[0]} is {args.say(abs(place - point))} from {names[1]}",),
        (
            Step(
                Tool.ANGLE,
                f"From {names[0]} draw square to {names[1]}, mark {args.name}",
                math.degrees(line.direction.normal.angle) % 180,
                strokes=(Stroke(Line.between(point, place)), Stroke(place, Role.POINT, args.name)),
                opened=partial(square_from, point, place, Stroke(Line.between(point, place))),
            ),
        ),
    )


KIND = Kind(
    name="foot",
    group="Points",
    summary="of the perpendicular from a point on a line",
    example="F = foot, of P on edge",
    mistake="The nearest point is judged by eye: slide a set square along the line to the point.",
    forms=(Form("of {point:point} on {line:line}", "of", needed=True),),
    construct=construct,
)
