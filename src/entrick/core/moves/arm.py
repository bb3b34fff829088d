"""``arm``: both sides of an arm, a web or a strip, by its centre line and its width."""

from __future__ import annotations

from functools import partial

from ..acts import Work
from ..acts.procedures import off
from ..geometry import Line, Point
from ..kind import Args, Kind, Made
from ..kind.figure import Family
from ..plan.errors import ClauseError, Wanting
from ..plan.forms import Form
from ..tolerance import DIRECTION


def construct(args: Args) -> Made:
    """Construct the two parallels of a centre line at half of the width.

    Parts: ``above`` and ``below``, ``left`` and ``right``, by where each side lies; a level arm has
    no left one, a plumb one none above."""
    axis, name = _axis(args)
    width = args.need("width").length("width").value
    if width <= 0:
        raise ClauseError("an arm is wider than nought", args.need("width").index)
    normal = axis.direction.normal
    sides = tuple(
        Line(
            axis.through + normal * (side * float(width) / 2), axis.direction, axis.start, axis.end
        )
        for side in (1, -1)
    )
    parts = _named(normal, sides)
    return Made(
        Family(sides),
        f"Arm {args.name}, {args.say(width)} wide, about {name}.",
        (f"{args.say(width)} ÷ 2 = {args.say(width / 2)} to each side",),
        parts={**parts, "1": sides[0], "2": sides[1]},
        draw=partial(_draw, args, axis, name, parts),
    )


def _axis(args: Args) -> tuple[Line, str]:
    """Return the centre line, and what it is called."""
    clause = args.get("along", "from")
    if clause is None:
        raise Wanting("an arm needs its centre line: from (point) to (point), or along (line)")
    if clause.key == "along":
        return clause.line("line"), clause.ref("line").text
    first, second = clause.point("first"), clause.point("second")
    names = f"{clause.ref('first').text} to {clause.ref('second').text}"
    if first == second:
        raise ClauseError(f"{names} is one place: an arm leads from one to another", clause.index)
    return Line.between(first, second), f"the line {names}"


def _named(normal: Point, sides: tuple[Line, ...]) -> dict[str, Line]:
    """Return the sides by where they lie: the first is that to which the normal leads."""
    result: dict[str, Line] = {}
    for size, more, less in (
        (normal.y, "above", "below"),
        (normal.x, "right", "left"),
    ):
        if abs(size) > DIRECTION:
            first, second = sides if size > 0 else sides[::-1]
            result |= {more: first, less: second}
    return result


def _draw(args: Args, axis: Line, name: str, parts: dict[str, Line], work: Work) -> None:
    edge = work.edge(axis, name)
    at = work.place_on(edge, axis)
    half = args.need("width").length("width").value / 2
    drawn: list[Line] = []
    for word, side in parts.items():
        if side not in drawn:
            drawn.append(side)
            off(work, edge, at, half, f"{args.name}.{word}", side, side.through)


ABOUT = """\
Both sides of an arm, a web or a strip: `from A to B` or `along l`, and its `width`. Parts
`above`, `below`, `left`, `right`, by where each side lies.
"""

SHOWN = """\
units mm
O = datum
A = point, 90 right of O
big = circle, centre O, radius 30
small = circle, centre A, radius 18
web = arm, from O to A, width 16
rim = line in, big long > web.above > small long > web.below
"""

KIND = Kind(
    name="arm",
    group="Ready shapes",
    summary="both sides of an arm or a strip, by its centre line and width",
    example="arm1 = arm, from A to B, width 12",
    mistake="The whole width is set off to one side instead of half of it to each.",
    also=("strip", "web", "bar", "link", "spoke", "rib"),
    forms=(
        Form("from {first:point} to {second:point}", "from"),
        Form("along {line:line}"),
        Form("width {width:length}", needed=True),
    ),
    construct=construct,
    about=ABOUT,
    shown=SHOWN,
)
