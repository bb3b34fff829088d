"""``polygon``: regular, by its side, across its corners or across its flats."""

from __future__ import annotations

import math

from ..geometry import Arc, Circle, Line, Loop, Point, polar, polyline
from ..kind import Args, Kind, Made, Role, Step, Stroke, Tool
from ..kind.classic import bisection
from ..measure import spell_angle
from ..plan.errors import ClauseError
from ..plan.forms import Form

SQUARES = frozenset({3, 4, 6, 8, 12, 24})
"""Numbers of sides whose directions are multiples of 15°: T-square and set squares draw them."""

MOST_SIDES = 60


def construct(args: Args) -> Made:
    """Construct a regular polygon about a centre.

    Parts: ``side.1`` …, ``corner.1`` … counter-clockwise, ``centre``.

    Notes
    -----
    side = 2R·sin(180°/n), across flats = 2R·cos(180°/n), R to the corners (plane geometry).
    """
    sides = args.need("sides")
    count = sides.count("count")
    if not 3 <= count <= MOST_SIDES:
        raise ClauseError(f"a polygon has 3 to {MOST_SIDES} sides", sides.clause)
    centre, name = args.need("centred").point("centre"), args.need("centred").ref("centre").text
    half = math.pi / count
    said = args.need("side", "corners", "flats", "radius")
    size = said.length("size")
    if float(size) <= 0:
        raise ClauseError("the size of a polygon is more than nought", said.clause)
    if count % 2 and said.key == "flats":
        told = f"of {count} sides no two face each other: there is no size across flats; give a side, or the radius"
        raise ClauseError(told, said.clause)
    radius = {
        "side": float(size) / (2 * math.sin(half)),
        "corners": float(size) / 2,
        "flats": float(size) / 2 / math.cos(half),
        "radius": float(size),
    }[said.key]
    start = _start(args, centre, half)
    corners = [centre + polar(radius, start + 2 * half * index) for index in range(count)]
    shape = polyline(corners, [f"{args.name}.side.{index}" for index in range(1, count + 1)], closed=True)
    side, flats = 2 * radius * math.sin(half), 2 * radius * math.cos(half)
    method = _method(args, count)
    steps = method[1](args, centre, radius, start, count, shape)
    told = {"side": "of side", "corners": "across corners", "flats": "across flats", "radius": "of radius"}[said.key]
    return Made(
        shape,
        f"Polygon {args.name}, {count} sides, {args.say(size.value)} {told}, about {name}.",
        (
            f"360 ÷ {count} = {spell_angle(360 / count)}",
            f"side 2 × {args.say(radius)} × sin {spell_angle(180 / count)} = {args.say(side)}",
            f"across flats {args.say(flats)}, across corners {args.say(2 * radius)}"
            if count % 2 == 0
            else f"from a side to the corner across {args.say(radius + flats / 2)}",
            method[0],
        ),
        steps,
        {
            **{f"side.{i}": piece.curve for i, piece in enumerate(shape.pieces, 1)},
            **{f"corner.{i}": corner for i, corner in enumerate(corners, 1)},
            "centre": centre,
        },
    )


def _start(args: Args, centre: Point, half: float) -> float:
    """Return the direction of the first corner: right of a flat foot unless something else is said."""
    flat, point, angle, through = args.get("flat"), args.get("point"), args.get("at"), args.get("through")
    if sum(said is not None for said in (flat, point, angle, through)) > 1:
        raise ClauseError("say one of flat, point, at an angle, or a corner towards a point")
    ways = {"up": math.pi / 2, "down": -math.pi / 2, "left": math.pi, "right": 0.0}
    if point:
        return ways[point.word("way")]
    if angle:
        return math.radians(float(angle.length("angle")))
    if through:
        ahead = through.point("point") - centre
        if abs(ahead) == 0:
            raise ClauseError("the corner cannot lie at the centre", through.clause)
        return ahead.angle
    return (ways[flat.word("way")] if flat else -math.pi / 2) + half


def _method(args: Args, count: int):  # type: ignore[no-untyped-def]
    if args.get("by") is not None:
        off = _semicircle_error(count)
        return (
            f"by the semicircle: the first side comes out {abs(off):.2f}° {'wide' if off > 0 else 'narrow'} of "
            f"{spell_angle(360 / count)}",
            _by_semicircle,
        )
    if count in (5, 10):
        return (
            "exact by compass: the decagon's side is the golden section of the radius (Euclid IV.11)",
            _by_compass,
        )
    if count in SQUARES:
        return f"every side lies at a multiple of 15° or {spell_angle(360 / count)} apart: set squares", _by_squares
    return "the chord is stepped off round the circle; any error adds up, so check the last step", _by_chords


def _around(args: Args, centre: Point, radius: float) -> Step:
    circle = Circle(centre, radius)
    return Step(Tool.COMPASS, f"Draw the circle through the corners of {args.name}", radius, centre, (Stroke(circle),))


def _sides(args: Args, shape: Loop) -> Step:
    strokes = tuple(Stroke(piece.curve) for piece in shape.pieces)
    return Step(Tool.STRAIGHTEDGE, f"Join the corners of {args.name}", strokes=strokes, check="all sides are alike")


def _by_squares(args: Args, centre: Point, radius: float, start: float, count: int, shape: Loop) -> tuple[Step, ...]:
    rays = tuple(
        Step(Tool.ANGLE, f"Through the centre draw the direction of corner {index}", math.degrees(ray.angle) % 180,
             strokes=(Stroke(Line.between(centre, piece.entry)), Stroke(piece.entry, Role.POINT, str(index))))
        for index, piece in enumerate(shape.pieces, 1)
        for ray in (piece.entry - centre,)
    )  # fmt: skip
    return (_around(args, centre, radius), *rays, _sides(args, shape))


def _by_chords(args: Args, centre: Point, radius: float, start: float, count: int, shape: Loop) -> tuple[Step, ...]:
    chord = shape.pieces[0].length
    first = shape.pieces[0].entry
    steps = [
        _around(args, centre, radius),
        Step(Tool.ANGLE, "Mark the first corner", math.degrees(start) % 360, centre,
             (Stroke(Line.between(centre, first)), Stroke(first, Role.POINT, "1"))),
    ]  # fmt: skip
    for index, piece in enumerate(shape.pieces[:-1], 2):
        swing = Arc(piece.entry, chord, (piece.exit - piece.entry).angle - 0.1, 0.2)
        last = "the step after the last comes back to corner 1" if index == count else ""
        steps.append(Step(Tool.DIVIDERS, f"Step off the chord to corner {index}", chord, piece.entry,
                          (Stroke(swing), Stroke(piece.exit, Role.POINT, str(index))), last))  # fmt: skip
    return (*steps, _sides(args, shape))


def _by_compass(args: Args, centre: Point, radius: float, start: float, count: int, shape: Loop) -> tuple[Step, ...]:
    """Bisect a radius; from its middle to the corner gives, beyond the centre, the decagon's side; the hypotenuse the
    pentagon's (Euclid XIII.10)."""
    up = polar(1.0, start)
    side = up.normal
    middle = centre + side * (radius / 2)
    top = centre + up * radius
    reach = abs(top - middle)
    cut = middle - side * reach
    told = (
        "from that cut to the corner is the side of the pentagon"
        if count == 5
        else ("from that cut to the centre is the side of the decagon")
    )
    foot = centre + side * radius
    halving = bisection(centre, foot, ("the centre", "its end"), Stroke(middle), "mark the half of the radius")
    return (
        _around(args, centre, radius),
        Step(Tool.STRAIGHTEDGE, "Draw the radius square to the first corner",
             strokes=(Stroke(Line.between(centre, foot)),)),
        *halving,
        Step(Tool.COMPASS, "Needle on the half, opened to the corner, swing down to the diameter", reach, middle,
             (Stroke(Arc.between(Circle(middle, reach), top, cut)), Stroke(cut)), told),
        *_by_chords(args, centre, radius, start, count, shape)[1:-1],
        _sides(args, shape),
    )  # fmt: skip


def _semicircle_error(count: int) -> float:
    """Return how many degrees the angle of one side comes out too wide by the semicircle method.

    The diameter is divided in n; a line from the apex of an equilateral triangle on it through the second division
    meets the far half circle in the second corner (a classic approximation, common practice).
    """
    apex, second = Point(0.0, -math.sqrt(3)), Point(-1.0 + 4.0 / count, 0.0)
    ahead = (second - apex).unit
    b = apex.dot(ahead)
    place = apex + ahead * (-b + math.sqrt(b * b - apex.dot(apex) + 1))
    return math.degrees(math.pi - place.angle) - 360 / count


def _by_semicircle(args: Args, centre: Point, radius: float, start: float, count: int, shape: Loop) -> tuple[Step, ...]:
    ahead = polar(1.0, start)
    ends = centre + ahead * radius, centre - ahead * radius
    apex = centre + ahead.normal * (-radius * math.sqrt(3))
    second = ends[0] - ahead * (4 * radius / count)
    through = (second - apex).unit
    far = apex + through * (abs(second - apex) + radius)
    return (
        _around(args, centre, radius),
        Step(Tool.STRAIGHTEDGE, f"Draw the diameter through corner 1 and divide it in {count}",
             strokes=(Stroke(Line.between(*ends)), Stroke(second))),
        Step(Tool.COMPASS, "From both its ends swing its whole length: the two cross in the apex", 2 * radius, ends[0],
             (Stroke(Arc(ends[0], 2 * radius, (apex - ends[0]).angle - 0.1, 0.2)),
              Stroke(Arc(ends[1], 2 * radius, (apex - ends[1]).angle - 0.1, 0.2)), Stroke(apex))),
        Step(Tool.STRAIGHTEDGE, "From the apex through the second division, on to the far half circle: corner 2",
             strokes=(Stroke(Line.between(apex, far)),), check="near enough for wood, not for a gauge"),
        *_by_chords(args, centre, radius, start, count, shape)[2:],
    )  # fmt: skip


KIND = Kind(
    name="polygon",
    group="Ready shapes",
    summary="regular, by its side, across corners or across flats",
    example="nut = polygon, 6 sides, centred on O, 36 across flats, flat up",
    mistake="The size across flats is taken for the size across corners: a spanner goes on the flats.",
    forms=(
        Form("{count:count} sides", "sides", needed=True),
        Form("centred on {centre:point}", "centred", needed=True),
        Form("side {size:length}", "side"),
        Form("{size:length} across corners", "corners"),
        Form("{size:length} across flats", "flats"),
        Form("radius {size:radius}", "radius"),
        Form("flat {way:up/down/left/right}", "flat"),
        Form("point {way:up/down/left/right}", "point"),
        Form("first corner at {angle:angle}", "at"),
        Form("corner towards {point:point}", "through"),
        Form("by semicircle", "by"),
    ),
    construct=construct,
)
