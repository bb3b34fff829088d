"""``divide``: a line into equal parts, by a slanted line and parallels."""

from __future__ import annotations

import math

from ..figure import Family
from ..geometry import Line
from ..geometry.transform import rotate
from ..kind import Args, Kind, Made, Role, Step, Stroke, Tool
from ..plan.errors import ClauseError
from ..plan.forms import Form


def construct(args: Args) -> Made:
    """Construct the n − 1 points that part a line with ends into n equal lengths.

    Notes
    -----
    At the board by the slanted-line method: equal steps of any convenient length on a slanted line, the last joined to
    the end, parallels through the others (intercept theorem).
    """
    line, name = args.need("of").line("line"), args.need("of").ref("line").text
    clause = args.need("in")
    count = clause.count("count")
    if line.start is None or line.end is None:
        raise ClauseError(f"{name} has no ends to divide between", args.need("of").clause)
    if count < 2:
        raise ClauseError("a line is divided in at least two parts", clause.clause)
    first, last = line.at(line.start), line.at(line.end)
    length = abs(last - first)
    spots = tuple(first + (last - first) * (index / count) for index in range(1, count))
    slant = rotate(Line.between(first, last), first, math.radians(30))
    ticks = [slant.at(length * 0.9 * index / count) for index in range(1, count + 1)]
    steps = (
        Step(
            Tool.STRAIGHTEDGE,
            f"From one end of {name} draw a slanted line at any angle",
            strokes=(Stroke(Line.between(first, ticks[-1])),),
        ),
        Step(
            Tool.DIVIDERS,
            f"Step off {count} equal lengths on it, any convenient one",
            length * 0.9 / count,
            first,
            tuple(Stroke(tick) for tick in ticks),
        ),
        Step(
            Tool.STRAIGHTEDGE, "Join the last step to the other end", strokes=(Stroke(Line.between(ticks[-1], last)),)
        ),
        Step(
            Tool.STRAIGHTEDGE,
            f"Slide two set squares: parallels through the others mark {args.name}",
            strokes=tuple(
                stroke
                for index, (tick, spot) in enumerate(zip(ticks, spots, strict=False), 1)
                for stroke in (Stroke(Line.between(tick, spot)), Stroke(spot, Role.POINT, str(index)))
            ),
            check=f"each part is {args.say(length / count)} at full size",
        ),
    )
    return Made(
        Family(spots),
        f"Points {args.name}, dividing {name} in {count} equal parts.",
        (f"{args.say(length)} ÷ {count} = {args.say(length / count)}",),
        steps,
        {str(index): spot for index, spot in enumerate(spots, 1)},
    )


KIND = Kind(
    name="divide",
    group="Points",
    summary="a line in n equal parts",
    example="part = divide, of line A B, in 5",
    mistake="An awkward decimal is stepped off n times and its error with it; the slanted line needs no decimals.",
    forms=(
        Form("of {line:line}", needed=True),
        Form("in {count:count}", needed=True),
    ),
    construct=construct,
)
