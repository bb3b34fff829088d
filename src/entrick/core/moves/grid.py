"""``grid``: level and plumb lines from chains of spacings across and up."""

from __future__ import annotations

from functools import partial
from itertools import accumulate, pairwise

from ..acts import LEVEL, PLUMB, Work
from ..geometry import Line, Loop, Point, Shape
from ..kind import Args, ClauseValues, Kind, Length, Made
from ..kind.figure import Family
from ..measure import Number
from ..plan.errors import ClauseError, Wanting
from ..plan.forms import Form


def construct(args: Args) -> Made:
    """Construct lines at running sums of two chains of spacings, from a lower left corner or
    centred on a point.

    Parts: ``across.0`` … the plumb lines, ``up.0`` … the level ones, ``at.2.1`` the point on plumb
    line 2 and level line 1, all counted from the corner."""
    across, up = (_sums(args, args.get(key)) for key in ("across", "up"))
    if len(across) == len(up) == 1:
        raise Wanting("a grid needs spacings, such as  across 20 10 30")
    corner, centred = args.get("corner"), args.get("centred")
    if (corner is None) == (centred is None):
        raise (Wanting if centred is None else ClauseError)(
            "a grid either starts from a lower left corner or is centred on a point"
        )
    width, height = float(across[-1]), float(up[-1])
    if corner:
        start, where = corner.point("point"), f"from {corner.ref('point').text}"
    else:
        assert centred is not None
        start = centred.point("point") - Point(width / 2, height / 2)
        where = f"centred on {centred.ref('point').text}"
    plumb = [
        _line(start + Point(float(x), 0.0), Point(0.0, height), Point(0.0, 1.0)) for x in across
    ]
    level = [_line(start + Point(0.0, float(y)), Point(width, 0.0), Point(1.0, 0.0)) for y in up]
    parts: dict[str, Shape | Loop] = {f"across.{i}": line for i, line in enumerate(plumb)}
    parts |= {f"up.{i}": line for i, line in enumerate(level)}
    for i, x in enumerate(across):
        for j, y in enumerate(up):
            parts[f"at.{i}.{j}"] = start + Point(float(x), float(y))
    return Made(
        Family((*plumb, *level)),
        f"Grid {args.name} {where}, {args.say(across[-1])} by {args.say(up[-1])}.",
        tuple(
            f"{way}: {' + '.join(args.say(b - a) for a, b in pairwise(sums))} = "
            f"{args.say(sums[-1])}"
            for way, sums in (("across", across), ("up", up))
            if len(sums) > 2
        ),
        parts=parts,
        draw=partial(_draw, args, start, (across, up), (plumb, level)),
    )


def _sums(args: Args, clause: ClauseValues | None) -> list[Number]:
    spacings: tuple[Length, ...] = clause.lengths("spacings") if clause else ()
    if clause and any(float(spacing) <= 0 for spacing in spacings):
        raise ClauseError("spacings are more than nought", clause.index)
    return list(
        accumulate(
            (s.value for s in spacings), initial=type(spacings[0].value)(0) if spacings else 0
        )
    )


def _line(start: Point, along: Point, direction: Point) -> Line:
    return Line.between(start, start + along) if abs(along) > 0 else Line(start, direction)


def _draw(
    args: Args,
    start: Point,
    sums: tuple[list[Number], list[Number]],
    lines: tuple[list[Line], list[Line]],
    work: Work,
) -> None:
    """Measure every line from the first, so that errors do not add up; the corner half of it from
    the middle."""
    corner, centred = args.get("corner"), args.get("centred")
    if corner:
        first = work.mark(corner.point("point"), corner.ref("point").text)
    else:
        assert centred is not None
        first = work.mark(centred.point("point"), centred.ref("point").text)
        if sums[0][-1]:
            first = work.measure(
                first,
                LEVEL,
                -sums[0][-1] / 2,
                f"the place below or above the corner of {args.name}",
            )
        if sums[1][-1]:
            first = work.measure(
                first, PLUMB, -sums[1][-1] / 2, f"the corner of {args.name}", start
            )
    for word, way, totals, family in (
        ("across", PLUMB, sums[0], lines[0]),
        ("up", LEVEL, sums[1], lines[1]),
    ):
        along = LEVEL if way is PLUMB else PLUMB
        if len(totals) == 1:
            continue
        for index, (total, line) in enumerate(zip(totals, family, strict=True)):
            name = f"{args.name}.{word}.{index}"
            at = first if index == 0 else work.measure(first, along, total, f"the place of {name}")
            work.draw(at, way, called=name, shown=line)


ABOUT = """\
Level and plumb lines from chains of spacings, from a corner or centred. Parts `across.0`,
`up.0` for the lines, `at.1.2` for where the second plumb line and the third level line cross.
"""

SHOWN = """\
units mm
O = datum
g = grid, from O, across 20 10 30, up 15 25
c = circle, centre g.at.1.1, radius 4
"""

KIND = Kind(
    name="grid",
    group="Lines",
    summary="level and plumb lines from chains of spacings",
    example="frame = grid, from P, across 20 10 30 20, up 15 25",
    mistake="Each spacing is measured from the line before it, and the errors add up: measure "
    "each sum from the first.",
    also=("lattice", "ground"),
    forms=(
        Form("across {spacings:lengths}"),
        Form("up {spacings:lengths}"),
        Form("from {point:point}", "corner"),
        Form("centred on {point:point}", "centred"),
    ),
    construct=construct,
    about=ABOUT,
    shown=SHOWN,
)
