"""``box``: a rectangle of given size, centred or from a corner; its sides and corners are named."""

from __future__ import annotations

from ..geometry import Line, Point
from ..kind import Args, Kind, Made, Step, Stroke, Tool
from ..kind.parts import run
from ..plan.errors import ClauseError
from ..plan.forms import Form


def construct(args: Args) -> Made:
    """Construct a rectangle along the level and plumb directions.

    Parts: sides ``bottom right top left``, corners ``lower_left lower_right upper_right upper_left``, ``centre``.
    """
    size = args.need("size")
    width, height = size.length("width"), size.length("height")
    if float(width) <= 0 or float(height) <= 0:
        raise ClauseError("a box is more than nought each way", size.clause)
    across, up = Point(float(width), 0.0), Point(0.0, float(height))
    centred, corner = args.get("centred"), args.get("corner")
    if (centred is None) == (corner is None):
        raise ClauseError("a box is either centred on a point or starts from a lower left corner")
    if centred:
        start = centred.point("centre") - (across + up) * 0.5
        where, name = "centred on", centred.ref("centre").text
    else:
        assert corner is not None
        start, where, name = corner.point("corner"), "from the lower left corner", corner.ref("corner").text
    corners = (start, start + across, start + across + up, start + up)
    sides = tuple(Line.between(a, b) for a, b in zip(corners, (*corners[1:], corners[0]), strict=True))
    named = dict(zip(("bottom", "right", "top", "left"), sides, strict=True))
    spots = zip(("lower_left", "lower_right", "upper_right", "upper_left"), corners, strict=True)
    told = f"{args.say(width.value)} by {args.say(height.value)}"
    halves = tuple(f"{args.say(v.value)} ÷ 2 = {args.say(v.value / 2)}" for v in (width, height))
    level = tuple(Stroke(side) for side in (sides[0], sides[2]))
    plumb = tuple(Stroke(side) for side in (sides[1], sides[3]))
    return Made(
        run(args.name, list(named.items()), closed=True),
        f"Box {args.name}, {told}, {where} {name}.",
        halves if centred else (),
        (
            Step(
                Tool.RULE,
                f"From {name} mark off the height, draw the two level sides lightly",
                height.value,
                strokes=level,
            ),
            Step(
                Tool.RULE,
                "Mark off the width, draw the two plumb sides lightly",
                width.value,
                strokes=plumb,
                check="the diagonals are equal",
            ),
        ),
        {**named, **dict(spots), "centre": start + (across + up) * 0.5},
    )


KIND = Kind(
    name="box",
    group="Lines",
    summary="a rectangle, centred or from a corner, its sides and corners named",
    example="frame = box, 60 by 40, centred on O",
    mistake="The whole size is set off from the centre instead of half of it each way.",
    forms=(
        Form("{width:length} by {height:length}", "size", needed=True),
        Form("centred on {centre:point}", "centred"),
        Form("from {corner:point}", "corner"),
    ),
    construct=construct,
)
