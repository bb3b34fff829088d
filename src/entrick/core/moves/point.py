"""``point``: set off from others by offsets, or by a distance and an angle."""

from __future__ import annotations

import math

from ..geometry import Arc, Circle, Line, Point, polar
from ..geometry.place import SIDES
from ..kind import Args, Kind, Made, Role, Said, Step, Stroke, Tool
from ..measure import spell_angle
from ..plan.errors import ClauseError
from ..plan.forms import Form
from ..tolerance import worked


def construct(args: Args) -> Made:
    """Construct a point by one or two offsets, or by a distance from a point at an angle.

    Offsets are in plan units along the sheet's level and plumb directions; the angle in degrees, counter-clockwise
    from the right.
    """
    polar_clause, offsets = args.get("from"), args.all("offset")
    if args.get("on"):
        return _on_curve(args, args.need("on"))
    if polar_clause and offsets:
        raise ClauseError("a point is set off either by offsets or by a distance and an angle", offsets[0].clause)
    if polar_clause:
        return _at_angle(args, polar_clause)
    if not offsets:
        raise ClauseError("a point needs an offset, such as  20 right of O, or a distance and an angle")
    return _by_offsets(args, offsets)


def _on_curve(args: Args, clause: Said) -> Made:
    """On a circle or arc in a direction from its centre; on a line at a distance along it."""
    curve, name = clause.shape("curve"), clause.ref("curve").text
    if clause.has("angle"):
        if not isinstance(curve, Circle | Arc):
            raise ClauseError(f"{name} is a line: say how far along it, such as  on {name} 20 from A", clause.clause)
        degrees = clause.length("angle").value
        place = curve.at(math.radians(degrees))
        turned = spell_angle(degrees)
        ray = Stroke(Line.between(curve.centre, place))
        step = Step(
            Tool.ANGLE,
            f"From the centre of {name} draw to it at the angle, mark {args.name}",
            degrees,
            curve.centre,
            (ray, Stroke(place, Role.POINT, args.name)),
        )
        return Made(place, f"Point {args.name} on {name} at {turned} from the right.", (), (step,))
    if not isinstance(curve, Line):
        raise ClauseError(f"{name} is round: say an angle, such as  on {name} at 30°", clause.clause)
    distance, origin = clause.length("distance"), clause.point("origin")
    if abs(curve.offset_of(origin)) > worked(abs(origin)):
        raise ClauseError(f"{clause.ref('origin').text} does not lie on {name}", clause.clause)
    place = origin + curve.direction * float(distance)
    step = Step(
        Tool.RULE,
        f"From {clause.ref('origin').text} measure along {name} and mark {args.name}",
        distance.value,
        strokes=(Stroke(place, Role.POINT, args.name),),
    )
    told = f"Point {args.name} on {name}, {args.say(distance.value)} from {clause.ref('origin').text}."
    return Made(place, told, (), (step,))


def _at_angle(args: Args, clause: Said) -> Made:
    angle = clause if clause.has("angle") else args.get("at")
    if angle is None:
        raise ClauseError("a distance from a point also needs its angle, such as  at 30°", clause.clause)
    distance, origin, degrees = clause.length("distance"), clause.ref("origin"), angle.length("angle")
    start = origin.shape
    assert isinstance(start, Point)
    place = start + polar(float(distance), math.radians(degrees.value))
    turned = spell_angle(degrees.value)
    ray = Line.between(start, place) if abs(place - start) > 0 else None
    return Made(
        place,
        f"Point {args.name}, {args.say(distance.value)} from {origin.text} at {turned}.",
        (
            f"across: {args.say(distance.value)} × cos {turned} = {args.say(place.x - start.x)}",
            f"up: {args.say(distance.value)} × sin {turned} = {args.say(place.y - start.y)}",
        ),
        (
            Step(
                Tool.ANGLE,
                f"From {origin.text} draw a light line at the angle",
                degrees.value,
                start,
                (Stroke(ray),) if ray else (),
                "the angle is counted from the right, upwards",
            ),
            Step(
                Tool.RULE,
                f"From {origin.text} measure along the line and mark {args.name}",
                distance.value,
                strokes=(Stroke(place, Role.POINT, args.name),),
            ),
        ),
    )


def _by_offsets(args: Args, offsets: list[Said]) -> Made:
    named = next((clause for clause in offsets if clause.has("origin")), None)
    if named is None:
        raise ClauseError("say what the offset is measured from, such as  20 right of O", offsets[0].clause)
    place: Point | None = None
    told, steps, seen = [], [], set[str]()
    origin = named.ref("origin")
    for clause in offsets:
        way, amount = clause.word("way"), clause.length("amount")
        origin = clause.ref("origin") if clause.has("origin") else origin
        start = origin.shape
        assert isinstance(start, Point)
        axis = "level" if way in ("left", "right") else "plumb"
        if axis in seen:
            raise ClauseError(f"a second offset {way} says the same direction twice", clause.clause)
        seen.add(axis)
        moved = start + SIDES[way] * float(amount)
        before = place or start
        place = Point(moved.x, before.y) if axis == "level" else Point(before.x, moved.y)
        told.append(f"{args.say(amount.value)} {way}{' of' if axis == 'level' else ''} {origin.text}")
        last = clause is offsets[-1]
        line = (Stroke(Line.between(before, place)),) if abs(place - before) > 0 else ()
        steps.append(
            Step(
                Tool.RULE,
                f"From {origin.text} measure {_towards(way)}" + (f" and mark {args.name}" if last else ""),
                amount.value,
                strokes=(*line, Stroke(place, Role.POINT, args.name)) if last else line,
            )
        )
    assert place is not None
    worked = tuple(
        f"{clause.length('amount').text} = {args.say(clause.length('amount').value)}"
        for clause in offsets
        if clause.length("amount").text != args.say(clause.length("amount").value)
    )
    return Made(place, f"Point {args.name}, {', '.join(told)}.", worked, tuple(steps))


def _towards(way: str) -> str:
    return {"left": "to the left", "right": "to the right", "above": "upwards", "below": "downwards"}[way]


KIND = Kind(
    name="point",
    group="Points",
    summary="set off from another point by offsets, or by distance and angle",
    example="A = point, 48 left of O",
    mistake="A dimension between two centres is taken as the distance of each from the middle: halve it first.",
    forms=(
        Form("{amount:length} {way:left/right/above/below} [of] {origin:point}", "offset", most=2),
        Form("{amount:length} {way:left/right/above/below}", "offset", most=2),
        Form("{distance:length} from {origin:point}", "from"),
        Form("{distance:length} from {origin:point} at {angle:angle}", "from"),
        Form("at {angle:angle}"),
        Form("on {curve:curve} at {angle:angle}", "on"),
        Form("on {curve:curve} {distance:length} from {origin:point}", "on"),
    ),
    construct=construct,
)
