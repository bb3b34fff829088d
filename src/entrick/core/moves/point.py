"""``point``: set off from others by offsets, or by a distance and an angle."""

from __future__ import annotations

import math
from functools import partial

from ..acts import LEVEL, PLUMB, Way, Work
from ..geometry import Arc, Circle, Line, Point, polar
from ..geometry.place import SIDES
from ..kind import Args, ClauseValues, Kind, Length, Made, Value
from ..kind.figure import Ref
from ..measure import Number, spell_angle
from ..plan.errors import ClauseError, Wanting
from ..plan.forms import Form
from ..tolerance import worked


def construct(args: Args) -> Made:
    """Construct a point by one or two offsets, or by a distance from a point at an angle.

    Offsets are in plan units along the sheet's level and plumb directions; the angle in degrees,
    counter-clockwise from the right."""
    polar_clause, offsets = args.get("from"), args.all("offset")
    if args.get("on"):
        return _on_curve(args, args.need("on"))
    if polar_clause and offsets:
        raise ClauseError(
            "a point is set off either by offsets or by a distance and an angle", offsets[0].index
        )
    if polar_clause:
        return _at_angle(args, polar_clause)
    pair = args.get("pair")
    if pair and offsets:
        raise ClauseError("a point is set off by two numbers, or by offsets", offsets[0].index)
    if pair:
        return _by_coordinates(args, pair)
    if not offsets:
        raise Wanting("a point needs an offset, such as  20 right of O, or a distance and an angle")
    return _by_offsets(args, offsets)


def _on_curve(args: Args, clause: ClauseValues) -> Made:
    """On a circle or arc in a direction from its centre; on a line at a distance along it."""
    curve, name = clause.shape("curve"), clause.ref("curve").text
    if clause.has("angle"):
        if not isinstance(curve, Circle | Arc):
            raise ClauseError(
                f"{name} is a line: say how far along it, such as  on {name} 20 from A",
                clause.index,
            )
        degrees = clause.length("angle").value
        place = curve.at(math.radians(degrees))
        turned = spell_angle(degrees)
        return Made(
            place,
            f"Point {args.name} on {name} at {turned} from the right.",
            draw=partial(_draw_on_round, args, clause, curve, place),
        )
    if not isinstance(curve, Line):
        raise ClauseError(f"{name} is round: say an angle, such as  on {name} at 30°", clause.index)
    distance, origin = clause.length("distance"), clause.point("origin")
    if abs(curve.offset_of(origin)) > worked(abs(origin)):
        raise ClauseError(f"{clause.ref('origin').text} does not lie on {name}", clause.index)
    place = origin + curve.direction * float(distance)
    words = (
        f"Point {args.name} on {name}, {args.say(distance.value)} from {clause.ref('origin').text}."
    )
    return Made(place, words, draw=partial(_draw_on_line, args, clause, curve, place))


def _by_coordinates(args: Args, pair: ClauseValues) -> Made:
    """Construct a point from what a table has: so much to the right, so much up; left and down
    below nought."""
    offsets = []
    for slot, ways in (("across", ("right", "left")), ("up", ("above", "below"))):
        length = pair.length(slot)
        way = ways[0] if length.value >= 0 else ways[1]
        size = length.value if length.value >= 0 else -length.value
        amount = Length(size, args.say(size))
        values: tuple[tuple[str, Value], ...]
        values = (("amount", amount), ("way", way), ("origin", pair.ref("origin")))
        offsets.append(ClauseValues("amount", pair.index, values))
    return _by_offsets(args, offsets)


def _at_angle(args: Args, clause: ClauseValues) -> Made:
    angle = clause if clause.has("angle") else args.get("at")
    if angle is None:
        raise Wanting("a distance from a point also needs its angle, such as  at 30°", clause.index)
    distance, origin, degrees = (
        clause.length("distance"),
        clause.ref("origin"),
        angle.length("angle"),
    )
    start = origin.shape
    assert isinstance(start, Point)
    place = start + polar(float(distance), math.radians(degrees.value))
    turned = spell_angle(degrees.value)
    return Made(
        place,
        f"Point {args.name}, {args.say(distance.value)} from {origin.text} at {turned}.",
        (
            f"across: {args.say(distance.value)} × cos {turned} = {args.say(place.x - start.x)}",
            f"up: {args.say(distance.value)} × sin {turned} = {args.say(place.y - start.y)}",
        ),
        draw=partial(_draw_at_angle, args, origin, degrees.value, distance.value, place),
    )


def _by_offsets(args: Args, offsets: list[ClauseValues]) -> Made:
    named = next((clause for clause in offsets if clause.has("origin")), None)
    if named is None:
        raise Wanting(
            "say what the offset is measured from, such as  20 right of O", offsets[0].index
        )
    place: Point | None = None
    told, axes = [], dict[str, tuple[Ref, Number]]()
    origin = named.ref("origin")
    for clause in offsets:
        way, amount = clause.word("way"), clause.length("amount")
        origin = clause.ref("origin") if clause.has("origin") else origin
        start = origin.shape
        assert isinstance(start, Point)
        axis = "level" if way in ("left", "right") else "plumb"
        if axis in axes:
            raise ClauseError(f"a second offset {way} says the same direction twice", clause.index)
        moved = start + SIDES[way] * float(amount)
        before = place or start
        place = Point(moved.x, before.y) if axis == "level" else Point(before.x, moved.y)
        told.append(
            f"{args.say(amount.value)} {way}{' of' if axis == 'level' else ''} {origin.text}"
        )
        axes[axis] = (origin, amount.value if way in ("right", "above") else -amount.value)
    assert place is not None
    worked = tuple(
        f"{clause.length('amount').text} = {args.say(clause.length('amount').value)}"
        for clause in offsets
        if clause.length("amount").text != args.say(clause.length("amount").value)
    )
    return Made(
        place,
        f"Point {args.name}, {', '.join(told)}.",
        worked,
        draw=partial(_draw_offsets, args, axes, place),
    )


def _draw_on_round(
    args: Args, clause: ClauseValues, curve: Circle | Arc, place: Point, work: Work
) -> None:
    round_ = work.round(curve, clause.ref("curve").text)
    centre = work.mark(curve.centre, clause.ref("curve").centre_name)
    ray = work.draw(centre, Way(clause.length("angle").value), place)
    work.prick(ray, round_, place, args.name, label=args.name, anew=True)


def _draw_on_line(args: Args, clause: ClauseValues, curve: Line, place: Point, work: Work) -> None:
    edge = work.edge(curve, clause.ref("curve").text)
    origin = work.mark(clause.point("origin"), clause.ref("origin").text)
    size = clause.length("distance").value
    forwards = (place - origin.at).dot(edge.line.direction) * float(size) >= 0
    way = Way(0 if forwards else 180, edge.key, edge.called)
    work.measure(origin, way, size, args.name, place, label=args.name)


def _draw_at_angle(
    args: Args, origin: Ref, degrees: Number, distance: Number, place: Point, work: Work
) -> None:
    start = work.mark(origin.shape, origin.text)  # type: ignore[arg-type]
    if distance == 0:
        work.measure(start, Way(degrees), distance, args.name, place, label=args.name)
        return
    ray = work.draw(
        start, Way(degrees), place, check="the angle is counted from the right, upwards"
    )
    along = ray.line.direction.dot(place - start.at) * float(distance) > 0
    work.measure(
        start,
        Way(0 if along else 180, ray.key, ray.called),
        distance,
        args.name,
        place,
        label=args.name,
    )


def _draw_offsets(
    args: Args, axes: dict[str, tuple[Ref, Number]], place: Point, work: Work
) -> None:
    """Measure along and then square to it from there; from two origins, where a plumb and a level
    line cross."""
    named = {axis: (work.mark(ref.shape, ref.text), size) for axis, (ref, size) in axes.items()}  # type: ignore[arg-type]
    ways = {"level": LEVEL, "plumb": PLUMB}
    if len(named) == 1:
        ((axis, (start, size)),) = named.items()
        work.measure(start, ways[axis], size, args.name, place, line=True, label=args.name)
        return
    (one, size), (other, rise) = named["level"], named["plumb"]
    across = (
        work.measure(one, LEVEL, size, f"the place below or above {args.name}", line=True)
        if size
        else one
    )
    if one is other:
        work.measure(across, PLUMB, rise, args.name, place, line=True, label=args.name)
        return
    beside = (
        work.measure(other, PLUMB, rise, f"the place beside {args.name}", line=True)
        if rise
        else other
    )
    plumb, level = work.draw(across, PLUMB, place), work.draw(beside, LEVEL, place)
    work.prick(plumb, level, place, args.name, label=args.name, anew=True)


ABOUT = """\
One or two offsets, or a distance and an angle counted from the right, upwards; or two numbers
as a table has them, right and above, below nought the other way.
"""

SHOWN = """\
units mm
O = datum, middle of sheet
A = point, 30 right of O
B = point, 10 left of A, 25 above O
C = point, 8 below B, 3 right
D = point, 40 from O, at 75°
E = point, 20 from D at -10°
F = point, 60 (-15) from O
"""

KIND = Kind(
    name="point",
    group="Points",
    summary="set off from another point by offsets, or by distance and angle",
    example="A = point, 48 left of O",
    mistake="A dimension between two centres is taken as the distance of each from the middle: "
    "halve it first.",
    also=("place", "mark", "centre"),
    forms=(
        Form("{amount:length} {way:left/right/above/below} [of] {origin:point}", "offset", most=2),
        Form("{amount:length} {way:left/right/above/below}", "offset", most=2),
        Form("{across:length} {up:length} from {origin:point}", "pair"),
        Form("{distance:length} from {origin:point}", "from"),
        Form("{distance:length} from {origin:point} at {angle:angle}", "from"),
        Form("at {angle:angle}"),
        Form("on {curve:curve} at {angle:angle}", "on"),
        Form("on {curve:curve} {distance:length} from {origin:point}", "on"),
    ),
    construct=construct,
    about=ABOUT,
    shown=SHOWN,
)
