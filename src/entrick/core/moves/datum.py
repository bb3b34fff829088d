"""``datum``: the point everything is measured from, and where it stands on the sheet."""

from __future__ import annotations

from ..geometry import Line, Point
from ..kind import Args, Kind, Made, Placing, Role, Step, Stroke, Tool
from ..plan.forms import Form


def construct(args: Args) -> Made:
    """Construct the datum with its level and plumb line.

    The view is centred on the sheet, (space − overall)/2 each way, unless the datum is measured from the border.
    """
    origin = Point(0.0, 0.0)
    left, bottom = args.get("left"), args.get("bottom")
    placing = Placing(
        left.length("left").value if left else None,
        bottom.length("bottom").value if bottom else None,
    )
    axes = (Stroke(Line(origin, Point(1.0, 0.0))), Stroke(Line(origin, Point(0.0, 1.0))))
    where = "view in the middle of the sheet" if not (left or bottom) else "measured from the border"
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
    ),
    construct=construct,
)
