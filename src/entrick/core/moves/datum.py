"""``datum``: the point everything is measured from, and where it stands on the sheet."""

from __future__ import annotations

from ..geometry import Line, Point
from ..kind import Args, Kind, Made, Placing, Role, Step, Stroke, Tool
from ..plan.errors import ClauseError
from ..plan.forms import Form


def construct(args: Args) -> Made:
    """Construct the datum with its level and plumb line.

    The view is centred on the sheet, (space − overall)/2 each way, unless the datum is measured from the border.
    """
    origin = Point(0.0, 0.0)
    left, bottom, corner = args.get("left"), args.get("bottom"), args.get("corner")
    placing = Placing(
        left.length("left").value if left else None,
        bottom.length("bottom").value if bottom else None,
        (corner.length("left").value, corner.length("bottom").value) if corner else None,
    )
    if corner and (left or bottom):
        raise ClauseError("say either where the datum stands or where the corner of the view does", corner.clause)
    axes = (Stroke(Line(origin, Point(1.0, 0.0))), Stroke(Line(origin, Point(0.0, 1.0))))
    where = "measured from the border" if left or bottom else "view in the middle of the sheet"
    where = "lower left corner of the view measured from the border" if corner else where
    return Made(
        origin,
        f"Datum {args.name}, {where}.",
        steps=(
            Step(
                Tool.ANGLE,
                f"Draw a level and a plumb line through {args.name}",
                0,
                strokes=(*axes, Stroke(origin, Role.POINT, args.name)),
                check="the two lines are square to each other",
            ),
        ),
        parts={"level": axes[0].shape, "plumb": axes[1].shape},
        placing=placing,
    )


KIND = Kind(
    name="datum",
    group="Points",
    summary="the point everything is measured from",
    example="O = datum, middle of sheet",
    mistake="The view is started from a corner of the paper and ends up off the middle: "
    "take the overall size from the space first, and halve what is left.",
    forms=(
        Form("middle of sheet"),
        Form("{left:length} from left", "left"),
        Form("{bottom:length} from bottom", "bottom"),
        Form("view {left:length} from left and {bottom:length} from bottom", "corner"),
    ),
    construct=construct,
)
