"""``midpoint``: half way between two points, or along a line with ends."""

from __future__ import annotations

from functools import partial

from ..acts import Work
from ..acts.procedures import middle
from ..geometry import Point
from ..kind import Args, Kind, Made
from ..plan.errors import ClauseError, Wanting
from ..plan.forms import Form


def construct(args: Args) -> Made:
    """Construct the point half way, found by bisection."""
    between, of = args.get("between"), args.get("of")
    if between:
        first, second = between.point("first"), between.point("second")
        names = (between.ref("first").text, between.ref("second").text)
    elif of:
        line = of.line("line")
        if line.start is None or line.end is None:
            raise ClauseError(f"{of.ref('line').text} has no ends, so it has no middle", of.index)
        first, second = line.at(line.start), line.at(line.end)
        names = (f"one end of {of.ref('line').text}", "the other")
    else:
        raise Wanting("a midpoint lies between two points, or is that of a line")
    return Made(
        (first + second) * 0.5,
        f"Point {args.name}, half way between {names[0]} and {names[1]}.",
        (f"{args.say(abs(second - first))} ÷ 2 = {args.say(abs(second - first) / 2)}",),
        draw=partial(_draw, args, first, second, names),
    )


def _draw(args: Args, first: Point, second: Point, names: tuple[str, str], work: Work) -> None:
    middle(work, work.mark(first, names[0]), work.mark(second, names[1]), args.name, args.name)


ABOUT = """\
Half way between two points, or of a line with ends, by bisection.
"""

SHOWN = """\
units mm
O = datum
A = point, 40 right of O, 10 above
M = midpoint, between O and A
l = line, from O to A
N = midpoint, of l
"""

KIND = Kind(
    name="midpoint",
    group="Points",
    summary="half way between two points, by bisection",
    example="M = midpoint, between A and B",
    mistake="The half is measured off as an awkward decimal; two swings from each end find it "
    "without measuring.",
    also=("middle", "centre point"),
    forms=(
        Form("between {first:point} [and] {second:point}"),
        Form("of {line:line}"),
    ),
    construct=construct,
    about=ABOUT,
    shown=SHOWN,
)
