"""``turn``: n copies of a thing, equally spaced about a point."""

from __future__ import annotations

import math

from ..figure import Family
from ..geometry import Arc, Circle, Line, Point, Shape
from ..geometry.transform import rotate
from ..kind import Args, Kind, Made, Role, Step, Stroke, Tool
from ..measure import spell_angle
from ..plan.errors import ClauseError
from ..plan.forms import Form


def construct(args: Args) -> Made:
    """Construct n places of a thing about a point, the original being the first, counter-clockwise."""
    original, name = args.need("of").shape("original"), args.need("of").ref("original").text
    clause = args.need("about")
    centre, count = clause.point("centre"), clause.count("count")
    if count < 2:
        raise ClauseError("a thing is turned into at least two places", clause.clause)
    by = 360 / count
    places = tuple(rotate(original, centre, math.radians(by * index)) for index in range(count))
    parts: dict[str, Shape] = {}
    for index, place in enumerate(places, 1):
        parts[str(index)] = place
        if isinstance(place, Circle | Arc):
            parts[f"{index}.centre"] = place.centre
    return Made(
        Family(places),
        f"{args.name}, {name} in {count} places about {clause.ref('centre').text}.",
        (f"360 ÷ {count} = {spell_angle(by)}",),
        tuple(_copy(args, index, place, centre, by) for index, place in enumerate(places[1:], 2)),
        parts,
    )


def _copy(args: Args, index: int, place: Shape, centre: Point, by: float) -> Step:
    text = f"Draw {args.name}.{index}, {spell_angle(by * (index - 1) % 360)} round from the first"
    match place:
        case Circle() | Arc():
            marks = (Stroke(Line.between(centre, place.centre)),) if place.centre != centre else ()
            return Step(Tool.COMPASS, text, place.size, place.centre, (*marks, Stroke(place)))
        case Point():
            return Step(Tool.DIVIDERS, text, abs(place - centre), centre, (Stroke(place, Role.POINT, str(index)),))
        case Line():
            return Step(Tool.ANGLE, text, math.degrees(place.direction.angle) % 180, strokes=(Stroke(place),))
    raise TypeError(place)


KIND = Kind(
    name="turn",
    group="Copies",
    summary="n places of a thing, equally spaced about a point",
    example="lobes = turn, of boss, 3 about O",
    mistake="The original is not counted: three places mean two copies beside it.",
    forms=(
        Form("of {original:shape}", needed=True),
        Form("{count:count} about {centre:point}", "about", needed=True),
    ),
    construct=construct,
)
