"""``turn``: n copies of a thing about a point, equally spaced or at a stated angle; or one copy by an angle."""

from __future__ import annotations

import math

from ..allowance import check_copies
from ..geometry import Arc, Circle, Line, Loop, Point, Shape, rotate
from ..kind import Args, Kind, Made, Role, Said, Step, Stroke, Tool
from ..kind.parts import as_original, copied, draw
from ..measure import spell_angle
from ..plan.errors import ClauseError
from ..plan.forms import Form


def construct(args: Args) -> Made:
    """Construct n places of a thing about a point, the original being the first, counter-clockwise.

    Without an angle they share the whole turn equally; with one, each follows the one before it at that angle. A single
    turned copy is made by ``by 30° about O``.
    """
    original, name = args.need("of").thing("original"), args.need("of").ref("original").text
    clause = args.need("about", "by")
    if clause.key == "by":
        return _once(args, clause, original, name)
    lined = as_original([args.need("of").ref("original")])
    centre, count = clause.point("centre"), clause.count("count")
    if count < 2:
        raise ClauseError("a thing is turned into at least two places", clause.clause)
    check_copies([original], count)
    apart = args.get("apart")
    by = float(apart.length("angle")) if apart else 360 / count
    places = [rotate(original, centre, math.radians(by * index)) for index in range(count)]
    shape, parts = copied(args.name, [(str(index), original) for index in range(1, count + 1)], places, lined)
    return Made(
        shape,
        f"{args.name}, {name} in {count} places about {clause.ref('centre').text}"
        + (f", {spell_angle(by)} apart." if apart else "."),
        () if apart else (f"360 ÷ {count} = {spell_angle(by)}",),
        tuple(
            step
            for i, place in enumerate(places[1:], 2)
            for step in _copy(f"{args.name}.{i}", place, centre, by * (i - 1), lined)
        ),
        parts,
        lined=lined,
        standing=frozenset({0}) if lined else frozenset(),
    )


def _once(args: Args, clause: Said, original: Shape | Loop, name: str) -> Made:
    centre, angle = clause.point("centre"), clause.length("angle")
    place, lined = rotate(original, centre, math.radians(float(angle))), as_original([args.need("of").ref("original")])
    shape, parts = copied(args.name, [(name, original)], [place], lined)
    return Made(
        shape,
        f"{args.name}, {name} turned {spell_angle(angle.value)} about {clause.ref('centre').text}.",
        (),
        _copy(args.name, place, centre, float(angle), lined),
        parts,
        lined=lined,
    )


def _copy(name: str, place: Shape | Loop, centre: Point, turned: float, lined: Role | None) -> tuple[Step, ...]:
    text = f"Draw {name}, {spell_angle(turned % 360)} round from the first"
    match place:
        case Circle() | Arc():
            marks = (Stroke(Line.between(centre, place.centre)),) if place.centre != centre else ()
            return (Step(Tool.COMPASS, text, place.size, place.centre, (*marks, Stroke(place))),)
        case Point():
            label = name.rpartition(".")[2]
            return (Step(Tool.DIVIDERS, text, abs(place - centre), centre, (Stroke(place, Role.POINT, label),)),)
        case Line():
            return (Step(Tool.ANGLE, text, math.degrees(place.direction.angle) % 180, strokes=(Stroke(place),)),)
        case Loop():
            return draw(place, name, lined or Role.CONSTRUCTION)


KIND = Kind(
    name="turn",
    group="Copies",
    summary="n places of a thing about a point, or one copy by an angle",
    example="lobes = turn, of boss, 3 about O",
    mistake="The original is not counted: three places mean two copies beside it.",
    forms=(
        Form("of {original:shape}", needed=True),
        Form("{count:count} about {centre:point}", "about"),
        Form("{angle:angle} apart", "apart"),
        Form("by {angle:angle} about {centre:point}", "by"),
    ),
    construct=construct,
)
