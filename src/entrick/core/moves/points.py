"""``points``: a list of places measured from one origin, as a family."""

from __future__ import annotations

import re
from fractions import Fraction
from functools import partial

from ..acts import LEVEL, PLUMB, Work
from ..geometry import Point
from ..kind import Args, ClauseValues, Kind, Made
from ..kind.figure import Family
from ..measure import Number
from ..plan.errors import ClauseError, Wanting
from ..plan.forms import Form

MOST_POINTS = 200

ROW = re.compile(r"(-?\d{1,7}(?:\.\d{1,9})?),(-?\d{1,7}(?:\.\d{1,9})?)")
"""A row of a table: two decimal numbers."""


def construct(args: Args) -> Made:
    """Construct a point for every pair of lengths: so far right of the origin, so far above it;
    below nought the other way."""
    origin, name = args.need("from").point("origin"), args.need("from").ref("origin").text
    pairs = [
        pair
        for clause in args.all("places", "csv")
        for pair in (_listed(clause) if clause.key == "csv" else [_pair(clause)])
    ]
    if len(pairs) > MOST_POINTS:
        raise ClauseError(f"a list has at most {MOST_POINTS} places; this has {len(pairs)}")
    if not pairs:
        raise Wanting("say at least one place, right and above, such as  10 20, 35 20")
    spots = tuple(origin + Point(float(x), float(y)) for x, y in pairs)
    return Made(
        Family(spots),
        f"Points {args.name}, {len(spots)} from {name}.",
        tuple(
            f"{args.name}.{i}: {args.say(x)} right, {args.say(y)} above"
            for i, (x, y) in enumerate(pairs, 1)
        ),
        parts={str(index): spot for index, spot in enumerate(spots, 1)},
        draw=partial(_draw, args, origin, name, pairs),
    )


def _pair(clause: ClauseValues) -> tuple[Number, Number]:
    lengths = [length.value for length in clause.lengths("lengths")]
    if len(lengths) != 2:
        raise ClauseError(
            f"a place is two lengths, right and above; here are {len(lengths)}", clause.index
        )
    return lengths[0], lengths[1]


def _listed(clause: ClauseValues) -> list[tuple[Number, Number]]:
    """Return the places of rows as a table gives them: two numbers with a comma, rows apart by
    blanks or semicolons."""
    rows = [row for row in re.split(r"[;\s]+", clause.word("rows").strip()) if row]
    result: list[tuple[Number, Number]] = []
    for number, row in enumerate(rows, 1):
        place = ROW.fullmatch(row)
        if place is None:
            message = (
                f"row {number} of the list, {row[:20]}, is not two numbers with a comma "
                "between, such as  10.5,20"
            )
            raise ClauseError(message, clause.index)
        result.append((Fraction(place[1]), Fraction(place[2])))
    return result


def _draw(
    args: Args, origin: Point, name: str, pairs: list[tuple[Number, Number]], work: Work
) -> None:
    """Measure along, then square to it, always from the origin: errors do not add up."""
    start = work.mark(origin, name)
    for index, (x, y) in enumerate(pairs, 1):
        called = f"{args.name}.{index}"
        across = (
            work.measure(start, LEVEL, x, f"the place below or above {called}", line=True)
            if x
            else start
        )
        work.measure(across, PLUMB, y, called, line=True, label=str(index))


ABOUT = """\
A list of places from one origin, as a family: right and above, below nought the other way. Rows
of a table stand in quotes behind `csv`, apart by blanks or semicolons.
"""

SHOWN = """\
units mm
O = datum, 60 from left edge, 150 from top edge
at = points, from O, 10 20, 35 20, 35 (-15), 60 40
hole = circle, centre at, diameter 8
more = points, from O, csv "-20,15; -42.5,15; -42.5,40"
"""

KIND = Kind(
    name="points",
    group="Points",
    summary="a list of places measured from one origin",
    example="holes = points, from O, 10 20, 35 20, 35 60",
    mistake="Each is measured from the one before, and the errors add up: measure every one from "
    "the origin.",
    also=("coordinates", "ordinates"),
    forms=(
        Form("from {origin:point}", needed=True),
        Form("csv {rows:text}"),
        Form("{lengths:lengths}", "places", most=MOST_POINTS),
    ),
    construct=construct,
    about=ABOUT,
    shown=SHOWN,
)
