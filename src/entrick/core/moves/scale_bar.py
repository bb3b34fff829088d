"""``scale bar``: lengths of the part drawn to scale beside it, to be read with dividers."""

from __future__ import annotations

from ..drawing.notes import ScaleBar
from ..geometry import Point
from ..geometry.isometric import AXES
from ..kind import Args, Kind, Made
from ..plan.errors import ClauseError
from ..plan.forms import Form

MOST_PARTS = 20


def construct(args: Args) -> Made:
    """Draw so many parts of a length end to end, level or along an isometric axis, with what each
    comes to."""
    parts, at = args.need("parts"), args.need("at")
    count, each = parts.count("count"), parts.length("each")
    if float(each) <= 0 or count > MOST_PARTS:
        raise ClauseError(
            f"a scale bar has up to {MOST_PARTS} parts of more than nought", parts.index
        )
    along = args.get("along")
    ahead = AXES[along.word("axis")] if along else Point(1.0, 0.0)
    figures = tuple(args.say(each.value * index) for index in range(count + 1))
    return Made(
        Point(0.0, 0.0),
        f"Scale bar at {at.ref('point').text}, {count} parts of {args.say(each.value)} "
        f"{args.unit}.",
        notes=(ScaleBar(at.point("point"), ahead, float(each), figures),),
        nothing=True,
        draw=lambda work: work.finish(
            f"Step off {count} parts of the scale bar",
            "scale bar",
            check="the last stroke is the whole length from the first, not part after part",
            size=each.value,
        ),
    )


ABOUT = """\
Parts of a length end to end, to be read with dividers; `along right` for one on an isometric
axis.
"""

SHOWN = """\
units mm
sheet A3, scale 1:5
O = datum
c = circle, centre O, radius 400
P = point, 400 left of O, 500 below
bar = scale bar, at P, 8 parts of 100
"""

KIND = Kind(
    name="scale bar",
    group="Finish",
    summary="lengths to scale, to be read with dividers",
    example="bar = scale bar, at P, 5 parts of 10",
    mistake="The bar is drawn at full size beside a view at half of it.",
    also=("diagonal scale", "drawn scale"),
    forms=(
        Form("at {point:point}", needed=True),
        Form("{count:count} parts of {each:length}", "parts", needed=True),
        Form("along {axis:right/left/up}"),
    ),
    construct=construct,
    about=ABOUT,
    shown=SHOWN,
)
