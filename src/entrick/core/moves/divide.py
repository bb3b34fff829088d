"""``divide``: a line into equal parts, by a slanted line and parallels."""

from __future__ import annotations

from functools import partial

from ..acts import Work
from ..acts.procedures import divide
from ..geometry import Point
from ..kind import Args, Kind, Made
from ..kind.figure import Family
from ..plan.errors import ClauseError
from ..plan.forms import Form


def construct(args: Args) -> Made:
    """Construct the n − 1 points that part a line with ends into n equal lengths.

    Notes
    -----
    At the board by the slanted-line method: equal steps of any convenient length on a slanted line,
    the last joined to the end, parallels through the others (intercept theorem)."""
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
    each = args.say(length / count)
    return Made(
        Family(spots),
        f"Points {args.name}, dividing {name} in {count} equal parts.",
        (f"{args.say(length)} ÷ {count} = {each}",),
        parts={str(index): spot for index, spot in enumerate(spots, 1)},
        draw=partial(_draw, args, (first, last), f"each part is {each} at full size"),
    )


def _draw(args: Args, ends: tuple[Point, Point], check: str, work: Work) -> None:
    name, count = args.need("of").ref("line").text, args.need("in").count("count")
    first, last = (
        work.mark(end, told)
        for end, told in zip(ends, (f"one end of {name}", "the other"), strict=True)
    )
    labels = [str(index) for index in range(1, count)]
    divide(work, first, last, count, [f"{args.name}.{label}" for label in labels], labels, check)


ABOUT = """\
A family: the points that part a line in n, by the slanted-line method.
"""

SHOWN = """\
units mm
O = datum
A = point, 77 right of O
p = divide, of line O A, in 5
"""

KIND = Kind(
    name="divide",
    group="Points",
    summary="a line in n equal parts",
    example="part = divide, of line A B, in 5",
    mistake="An awkward decimal is stepped off n times and its error with it; the slanted line "
    "needs no decimals.",
    also=("equal parts", "division"),
    forms=(
        Form("of {line:line}", needed=True),
        Form("in {count:count}", needed=True),
    ),
    construct=construct,
    about=ABOUT,
    shown=SHOWN,
)
