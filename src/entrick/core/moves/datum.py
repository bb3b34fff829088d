"""``datum``: the point everything is measured from, and where it stands on the sheet."""

from __future__ import annotations

from functools import partial
from typing import Literal

from ..acts import LEVEL, PLUMB, Work
from ..geometry import Line, Point
from ..kind import Args, Kind, Made, Placing
from ..kind.made import Measured
from ..plan.errors import ClauseError
from ..plan.forms import Form


def construct(args: Args) -> Made:
    """Construct the datum with its level and plumb line.

    The view is centred on the sheet, (space − overall)/2 each way, unless the datum is measured
    from the border."""
    origin = Point(0.0, 0.0)
    across, up = _measured(args, "left", "right"), _measured(args, "bottom", "top")
    corner = args.get("corner")
    if corner and (across or up):
        raise ClauseError(
            "say either where the datum stands or where the corner of the view does", corner.index
        )
    begins = (corner.length("left").value, corner.length("bottom").value) if corner else None
    placing = Placing(across, up, begins)
    edges = {"edge of the paper" if side.edge else "border" for side in (across, up) if side}
    where = (
        f"measured from the {' and the '.join(sorted(edges))}"
        if edges
        else "view in the middle of the sheet"
    )
    where = "lower left corner of the view measured from the border" if corner else where
    return Made(
        origin,
        f"Datum {args.name}, {where}.",
        draw=partial(_draw, args, origin),
        parts={"level": Line(origin, Point(1.0, 0.0)), "plumb": Line(origin, Point(0.0, 1.0))},
        placing=placing,
    )


def _draw(args: Args, origin: Point, work: Work) -> None:
    """Draw its level and plumb line; its mark stands where it was measured to."""
    mark = work.mark(origin, args.name)
    for word, way in (("level", LEVEL), ("plumb", PLUMB)):
        work.draw(mark, way, called=f"{args.name}'s {word} line")


def _measured(args: Args, *sides: Literal["left", "right", "top", "bottom"]) -> Measured | None:
    """Return what is measured in from one of two sides that face each other."""
    said = [
        (side, edge, clause)
        for side in sides
        for edge in (False, True)
        for clause in args.all(f"{side} edge" if edge else side)
    ]
    if len(said) > 1:
        message = f"the datum is measured in from one side, {sides[0]} or {sides[1]}, once"
        raise ClauseError(message, said[1][2].index)
    return next(
        (Measured(clause.length("in").value, side, edge) for side, edge, clause in said), None
    )


ABOUT = """\
The point everything is measured from. The view is set in the middle of the space, (space −
overall)/2 each way, unless the datum is measured in from the border, `left` or `right`,
`bottom` or `top`, or from the `edge` of the paper (`60 from left edge`). Parts `level`,
`plumb`.
"""

SHOWN = """\
units mm
O = datum, 60 from left, 45 from bottom
c = circle, centre O, radius 20
"""

KIND = Kind(
    name="datum",
    group="Points",
    summary="the point everything is measured from",
    example="O = datum, middle of sheet",
    mistake="The view is started from a corner of the paper and ends up off the middle: "
    "take the overall size from the space first, and halve what is left.",
    also=("origin", "zero point"),
    forms=(
        Form("middle of sheet"),
        *(Form(f"{{in:length}} from {side}", side) for side in ("left", "right", "bottom", "top")),
        *(
            Form(f"{{in:length}} from {side} edge", f"{side} edge")
            for side in ("left", "right", "bottom", "top")
        ),
        Form("view {left:length} from left and {bottom:length} from bottom", "corner"),
    ),
    construct=construct,
    about=ABOUT,
    shown=SHOWN,
)
