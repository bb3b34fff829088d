"""``circle``: a centre and a radius or a diameter."""

from __future__ import annotations

from ..geometry import Circle, Point
from ..kind import Args, Kind, Made, Step, Stroke, Tool
from ..plan.errors import ClauseError
from ..plan.forms import Form


def construct(args: Args) -> Made:
    """Construct a circle about a point; a diameter is halved exactly."""
    centre = args.need("centre").ref("centre")
    radius, diameter = args.get("radius"), args.get("diameter")
    if radius and diameter:
        raise ClauseError("a circle takes a radius or a diameter, not both", diameter.clause)
    working: tuple[str, ...] = ()
    if diameter:
        across = diameter.length("diameter")
        size = across.value / 2
        working = (f"Ø {args.say(across.value)} ÷ 2 = {args.say(size)}: the compass goes by radius",)
        given = f"diameter {args.say(across.value)}"
    elif radius:
        size = radius.length("radius").value
        given = f"radius {args.say(size)}"
    else:
        raise ClauseError("a circle needs a radius or a diameter")
    assert isinstance(centre.shape, Point)
    circle = Circle(centre.shape, float(size), size)
    return Made(
        circle,
        f"Circle {args.name} about {centre.text}, {given}.",
        working,
        (
            Step(
                Tool.COMPASS,
                f"Needle on {centre.text}, draw circle {args.name} lightly",
                size,
                centre.shape,
                (Stroke(circle),),
                "measure across the finished circle: it is twice the setting",
            ),
        ),
        {"centre": centre.shape},
        centre.text,
    )


KIND = Kind(
    name="circle",
    group="Circles and arcs",
    summary="about a centre, by radius or diameter",
    example="eye = circle, centre A, diameter 60",
    mistake="The diameter is set on the compass instead of the radius. "
    "Templates go by diameter, compasses by radius, briefs by either.",
    forms=(
        Form("centre {centre:point}", needed=True),
        Form("radius {radius:radius}"),
        Form("diameter {diameter:diameter}"),
    ),
    construct=construct,
)
