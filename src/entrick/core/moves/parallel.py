"""``parallel``: a line at a distance from another, on a named side."""

from __future__ import annotations

from functools import partial

from ..acts import Work
from ..acts.procedures import off
from ..geometry import Line
from ..kind import CHOICES, Args, Kind, Made, Option, choose
from ..plan.errors import ClauseError
from ..plan.forms import Form


def construct(args: Args) -> Made:
    """Construct the parallel at a distance; the side is chosen by a word of place."""
    line, name = args.need("to").line("line"), args.need("to").ref("line").text
    distance = args.need("at").length("distance")
    if distance.value <= 0:
        raise ClauseError(
            "the distance of a parallel is more than nought; say the side by a word",
            args.need("at").index,
        )
    normal = line.direction.normal
    moved = [
        Line(line.through + normal * (side * float(distance)), line.direction, line.start, line.end)
        for side in (1, -1)
    ]
    index, candidates = choose([Option(m, m.through, "parallel") for m in moved], args, "parallel")
    chosen = moved[index]
    return Made(
        chosen,
        f"Line {args.name}, parallel to {name} at {args.say(distance.value)}.",
        candidates=candidates,
        draw=partial(_draw, args, line, chosen),
    )


def _draw(args: Args, line: Line, chosen: Line, work: Work) -> None:
    edge = work.edge(line, args.need("to").ref("line").text)
    at = work.place_on(edge, line)
    off(work, edge, at, args.need("at").length("distance").value, args.name, chosen, chosen.through)


ABOUT = """\
At a distance from a line, on the side a word names.
"""

SHOWN = """\
units mm
O = datum
l = line, through O, at 20°
m = parallel, to l, at 12, above
"""

KIND = Kind(
    name="parallel",
    group="Lines",
    summary="a line at a distance from another, on a side",
    example="upper = parallel, to edge, at 12, above",
    mistake="The distance is measured along a slanted edge instead of square to the line.",
    also=("offset", "distance line"),
    forms=(
        Form("to {line:line}", needed=True),
        Form("at {distance:length}", needed=True),
        *CHOICES,
    ),
    construct=construct,
    about=ABOUT,
    shown=SHOWN,
)
