"""``box``: a rectangle of given size, centred or from a corner; its sides and corners are named."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from functools import partial

from ..acts import LEVEL, PLUMB, Mark, Work
from ..acts.procedures import offer_crossing
from ..geometry import Line, Point
from ..geometry.shapes import ends
from ..kind import Args, Kind, Made
from ..kind.parts import run
from ..plan.errors import ClauseError, Wanting
from ..plan.forms import Form


def construct(args: Args) -> Made:
    """Construct a rectangle along the level and plumb directions.

    Parts: sides ``bottom right top left``, corners ``lower_left lower_right upper_right
    upper_left``, ``centre``."""
    size = args.need("size")
    width, height = size.length("width"), size.length("height")
    if float(width) <= 0 or float(height) <= 0:
        raise ClauseError("a box is more than nought each way", size.index)
    across, up = Point(float(width), 0.0), Point(0.0, float(height))
    centred, corner = args.get("centred"), args.get("corner")
    if (centred is None) == (corner is None):
        raise (Wanting if centred is None else ClauseError)(
            "a box is either centred on a point or starts from a lower left corner"
        )
    if centred:
        start = centred.point("centre") - (across + up) * 0.5
        where, name = "centred on", centred.ref("centre").text
    else:
        assert corner is not None
        start, where, name = (
            corner.point("corner"),
            "from the lower left corner",
            corner.ref("corner").text,
        )
    corners = (start, start + across, start + across + up, start + up)
    sides = tuple(
        Line.between(a, b) for a, b in zip(corners, (*corners[1:], corners[0]), strict=True)
    )
    named = dict(zip(("bottom", "right", "top", "left"), sides, strict=True))
    spots = zip(("lower_left", "lower_right", "upper_right", "upper_left"), corners, strict=True)
    words = f"{args.say(width.value)} by {args.say(height.value)}"
    halves = tuple(f"{args.say(v.value)} ÷ 2 = {args.say(v.value / 2)}" for v in (width, height))
    return Made(
        run(args.name, list(named.items()), closed=True),
        f"Box {args.name}, {words}, {where} {name}.",
        halves if centred else (),
        parts={**named, **dict(spots), "centre": start + (across + up) * 0.5},
        draw=partial(_draw, args, named, corners),
    )


def _draw(args: Args, sides: Mapping[str, Line], corners: Sequence[Point], work: Work) -> None:
    """Measure to the sides, from the centre half of it each way, and draw them level and plumb;
    prick the corners."""
    size, centred, corner = args.need("size"), args.get("centred"), args.get("corner")
    width, height = size.length("width").value, size.length("height").value
    found: dict[str, Mark] = {}
    if centred:
        middle = work.mark(centred.point("centre"), centred.ref("centre").text)
        for side, way, reach in (
            ("left", LEVEL, -width / 2),
            ("right", LEVEL, width / 2),
            ("bottom", PLUMB, -height / 2),
            ("top", PLUMB, height / 2),
        ):
            found[side] = work.measure(middle, way, reach, f"the place of {args.name}.{side}")
    else:
        assert corner is not None
        start = work.mark(corner.point("corner"), corner.ref("corner").text)
        found = {
            "left": start,
            "bottom": start,
            "right": work.measure(start, LEVEL, width, f"{args.name}.lower_right"),
            "top": work.measure(start, PLUMB, height, f"{args.name}.upper_left"),
        }
    ways = {"bottom": LEVEL, "top": LEVEL, "left": PLUMB, "right": PLUMB}
    edges = {
        side: work.draw(found[side], way, called=f"{args.name}.{side}", shown=_ahead(sides[side]))
        for side, way in ways.items()
    }
    names = (("bottom", "left"), ("bottom", "right"), ("top", "right"), ("top", "left"))
    words = ("lower_left", "lower_right", "upper_right", "upper_left")
    for (one, other), word, spot in zip(names, words, corners, strict=True):
        check = "the diagonals are equal" if word == "upper_left" else ""
        work.prick(edges[one], edges[other], spot, f"{args.name}.{word}", check=check)
    offer_crossing(
        work,
        ((corners[0], corners[2]), (corners[1], corners[3])),
        (corners[0] + corners[2]) * 0.5,
        f"{args.name}.centre",
    )


def _ahead(side: Line) -> Line:
    """Return a side as it is drawn: to the right, or upwards."""
    start, end = ends(side)
    return Line.between(*sorted((start, end), key=lambda spot: (spot.x, spot.y)))


ABOUT = """\
A rectangle, `centred on` a point or `from` its lower left corner, to be walked whole. Parts
`bottom right top left`, `lower_left lower_right upper_right upper_left`, `centre`.
"""

SHOWN = """\
units mm
O = datum
frame = box, 60 by 40, centred on O
hole = circle, centre frame.lower_left, radius 5
rim = line in, frame.bottom > frame.right > frame.top > frame.left
"""

KIND = Kind(
    name="box",
    group="Lines",
    summary="a rectangle, centred or from a corner, its sides and corners named",
    example="frame = box, 60 by 40, centred on O",
    mistake="The whole size is set off from the centre instead of half of it each way.",
    also=("rectangle", "square", "plate"),
    forms=(
        Form("{width:length} by {height:length}", "size", needed=True),
        Form("centred on {centre:point}", "centred"),
        Form("from {corner:point}", "corner"),
    ),
    construct=construct,
    about=ABOUT,
    shown=SHOWN,
)
