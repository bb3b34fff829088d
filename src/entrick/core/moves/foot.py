"""``foot``: where the perpendicular from a point meets a line."""

from __future__ import annotations

from functools import partial

from ..acts import Work
from ..acts.procedures import foot
from ..geometry import Line, Point
from ..kind import Args, Kind, Made
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
        raise ClauseError(f"{names[0]} lies on {names[1]} already", clause.index)
    return Made(
        place,
        f"Point {args.name}, the foot of the perpendicular from {names[0]} on {names[1]}.",
        (f"{names[0]} is {args.say(abs(place - point))} from {names[1]}",),
        draw=partial(_draw, args, point, line, names),
    )


def _draw(args: Args, point: Point, line: Line, names: tuple[str, str], work: Work) -> None:
    foot(work, work.mark(point, names[0]), work.edge(line, names[1]), args.name, args.name)


ABOUT = """\
Of the perpendicular from a point on a line.
"""

SHOWN = """\
units mm
O = datum
P = point, 20 right of O, 30 above
l = line, through O, at 15°
F = foot, of P on l
"""

KIND = Kind(
    name="foot",
    group="Points",
    summary="of the perpendicular from a point on a line",
    example="F = foot, of P on edge",
    mistake="The nearest point is judged by eye: slide a set square along the line to the point.",
    also=("perpendicular", "drop"),
    forms=(Form("of {point:point} on {line:line}", "of", needed=True),),
    construct=construct,
    about=ABOUT,
    shown=SHOWN,
)
