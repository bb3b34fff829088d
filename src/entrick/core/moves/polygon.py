"""``polygon``: regular, by its side, across its corners or across its flats."""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence
from fractions import Fraction
from functools import partial

from ..acts import Mark, Round, Way, Work
from ..acts.procedures import divide, middle, ray_to, ring
from ..geometry import Point, polar, polyline
from ..kind import Args, Kind, Made
from ..measure import Number, spell_angle
from ..plan.errors import ClauseError
from ..plan.forms import Form
from ..tolerance import ROUND

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
        told = (
            f"of {count} sides no two face each other: there is no size across flats; give a "
            "side, or the radius"
        )
        raise ClauseError(told, said.clause)
    radius = {
        "side": float(size) / (2 * math.sin(half)),
        "corners": float(size) / 2,
        "flats": float(size) / 2 / math.cos(half),
        "radius": float(size),
    }[said.key]
    start = _start(args, centre, half)
    # By the semicircle the polygon is what the method leaves: its sides alike but for the last,
    # which closes it.
    each = 2 * half + (math.radians(_semicircle_error(count)) if args.get("by") else 0.0)
    corners = [centre + polar(radius, start + each * index) for index in range(count)]
    shape = polyline(
        corners, [f"{args.name}.side.{index}" for index in range(1, count + 1)], closed=True
    )
    side, flats = 2 * radius * math.sin(half), 2 * radius * math.cos(half)
    method = _method(args, count, radius)
    told = {
        "side": "of side",
        "corners": "across corners",
        "flats": "across flats",
        "radius": "of radius",
    }[said.key]
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
        parts={
            **{f"side.{i}": piece.curve for i, piece in enumerate(shape.pieces, 1)},
            **{f"corner.{i}": corner for i, corner in enumerate(corners, 1)},
            "centre": centre,
        },
        draw=partial(_draw, args, centre, radius, corners, method[1]),
    )


def _is_on_squares(degrees: float) -> bool:
    """Tell whether a direction is one of those that T-square and set squares make."""
    return abs(degrees / 15 - round(degrees / 15)) < ROUND


WORST_LAST = 0.2
"""By what share of the others the last side may be off where a polygon is drawn by the semicircle:
beyond, the method is of no use."""


def _start(args: Args, centre: Point, half: float) -> float:
    """Return the direction of the first corner: right of a flat foot unless something else is
    said."""
    flat, point, angle, through = (
        args.get("flat"),
        args.get("point"),
        args.get("at"),
        args.get("through"),
    )
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


def _method(args: Args, count: int, radius: float) -> tuple[str, Find]:
    by = args.get("by")
    if by is not None:
        each = 360 / count + _semicircle_error(count)
        last = 360 - (count - 1) * each
        if abs(last / each - 1) > WORST_LAST:
            raise ClauseError(
                f"by the semicircle the last of {count} sides would come out "
                f"{abs(100 * (last / each - 1)):.0f} % {'short' if last < each else 'long'} of the "
                "others: step the chord off instead",
                by.clause,
            )
        first, closing = (
            args.say(2 * radius * math.sin(math.radians(angle) / 2)) for angle in (each, last)
        )
        return (
            f"by the semicircle: {count - 1} sides of {first}, and the last, which takes up "
            f"{count - 1} times the error of one, {closing}",
            _by_semicircle,
        )
    if count in (5, 10):
        return (
            "exact by compass: the decagon's side is the golden section of the radius (Euclid "
            "IV.11)",
            _by_compass,
        )
    if count in SQUARES:
        told = (
            "the corners lie at multiples of 15°: set squares"
            if args.get("through") is None and _is_on_squares(float(_degrees(args, count)))
            else f"the corners lie {spell_angle(360 / count)} apart, off the set squares: by the "
            "protractor"
        )
        return told, _by_squares
    return (
        "the chord is stepped off round the circle; any error adds up, so check the last step",
        _by_chords,
    )


def _draw(
    args: Args, centre: Point, radius: float, corners: Sequence[Point], find: Find, work: Work
) -> None:
    """Draw the circle through the corners, find them on it, and join them."""
    count, name = len(corners), args.name
    middle_ = work.mark(centre, args.need("centred").ref("centre").text)
    said = args.need("side", "corners", "flats", "radius")
    half = said.length("size").value
    size: Number = {"corners": half / 2, "radius": half}.get(said.key, radius)
    ring_ = work.swing(middle_, size, f"the circle through the corners of {name}")
    names = [f"{name}.corner.{index}" for index in range(1, count + 1)]
    through = args.get("through")
    if through:
        ray = work.through(
            middle_, work.mark(through.point("point"), through.ref("point").text), reach=corners[0]
        )
        first = work.prick(ray, ring_, corners[0], names[0], label="1", anew=True)
    else:
        first = ray_to(work, middle_, ring_, _degrees(args, count), corners[0], names[0], "1")
    marks = [first, *find(work, middle_, ring_, first, corners, names)]
    for index, (one, other) in enumerate(zip(marks, [*marks[1:], marks[0]], strict=True), 1):
        alike = "all sides are alike" if args.get("by") is None else "all but this side are alike"
        check = alike if index == count else ""
        work.through(one, other, f"{name}.side.{index}", check=check)


def _degrees(args: Args, count: int) -> Number:
    """Return the direction of the first corner, degrees."""
    flat, point, angle = args.get("flat"), args.get("point"), args.get("at")
    ways = {"up": 90, "down": 270, "left": 180, "right": 0}
    if angle:
        return angle.length("angle").value
    if point:
        return ways[point.word("way")]
    return (ways[flat.word("way")] if flat else 270) + Fraction(180, count)


def _by_squares(
    work: Work,
    centre: Mark,
    ring_: Round,
    first: Mark,
    corners: Sequence[Point],
    names: Sequence[str],
) -> list[Mark]:
    base = work.through(centre, first)
    sense = 0 if base.line.direction.dot(first.at - centre.at) > 0 else 180
    found = []
    for index, (spot, called) in enumerate(zip(corners[1:], names[1:], strict=True), 1):
        ray = work.draw(
            centre, Way(Fraction(360 * index, len(corners)) + sense, base.key, base.called), spot
        )
        found.append(work.prick(ray, ring_, spot, called, label=str(index + 1)))
    return found


def _by_chords(
    work: Work,
    centre: Mark,
    ring_: Round,
    first: Mark,
    corners: Sequence[Point],
    names: Sequence[str],
) -> list[Mark]:
    labels = [str(index) for index in range(2, len(corners) + 1)]
    return ring(
        work, first, ring_, len(corners), names[1:], labels, "one step more comes back to corner 1"
    )


def _by_compass(
    work: Work,
    centre: Mark,
    ring_: Round,
    first: Mark,
    corners: Sequence[Point],
    names: Sequence[str],
) -> list[Mark]:
    """Bisect a radius; from its middle to the corner gives, beyond the centre, the decagon's side;
    the hypotenuse the pentagon's (Euclid XIII.10)."""
    up = first.at - centre.at
    side = up.normal
    base = work.through(centre, first)
    square = work.square(base, centre, centre.at + side)
    end = work.prick(square, ring_, centre.at + side, "the end of the square radius")
    half = middle(work, centre, end, "the half of the radius")
    reach = work.between(half, first)
    cut = half.at - side.unit * float(reach.size)
    swing = work.swing(half, reach, near=[cut], told="down to the diameter")
    spot = work.prick(swing, square, cut, "the cut on the diameter")
    chord = work.between(first if len(corners) == 5 else centre, spot)
    labels = [str(index) for index in range(2, len(corners) + 1)]
    return work.step_off(
        first,
        chord,
        ring_,
        corners[1:],
        names[1:],
        labels=labels,
        check="one step more comes back to corner 1",
    )


def _semicircle_error(count: int) -> float:
    """Return how many degrees the angle of one side comes out too wide by the semicircle method.

    The diameter is divided in n; a line from the apex of an equilateral triangle on it through the
    second division meets the far half circle in the second corner (a classic approximation, common
    practice)."""
    apex, second = Point(0.0, -math.sqrt(3)), Point(-1.0 + 4.0 / count, 0.0)
    ahead = (second - apex).unit
    b = apex.dot(ahead)
    place = apex + ahead * (-b + math.sqrt(b * b - apex.dot(apex) + 1))
    return math.degrees(math.pi - place.angle) - 360 / count


def _by_semicircle(
    work: Work,
    centre: Mark,
    ring_: Round,
    first: Mark,
    corners: Sequence[Point],
    names: Sequence[str],
) -> list[Mark]:
    """Divide the diameter, join the apex over it to the second division, and on to the circle:
    corner 2."""
    count = len(corners)
    far = centre.at - (first.at - centre.at)
    diameter = work.through(first, centre, "the diameter", reach=far)
    end = work.prick(diameter, ring_, far, "the end of the diameter")
    spots = [f"part {index} of the diameter" for index in range(1, count)]
    parts = divide(work, first, end, count, spots)
    ahead = (first.at - centre.at).unit
    apex = centre.at - ahead.normal * (ring_.circle.radius * math.sqrt(3))
    whole = work.between(first, end)
    swings = [work.swing(mark, whole, near=[apex]) for mark in (first, end)]
    top = work.prick(swings[0], swings[1], apex, "the apex")
    line = work.through(top, parts[1], "the line from the apex through part 2", reach=corners[1])
    second = work.prick(
        line, ring_, corners[1], names[1], label="2", check="near enough for wood, not for a gauge"
    )
    labels = [str(index) for index in range(3, count + 1)]
    more = work.step_off(
        second, work.between(first, second), ring_, corners[2:], names[2:], labels=labels
    )
    return [second, *more]


Find = Callable[[Work, Mark, Round, Mark, Sequence[Point], Sequence[str]], list[Mark]]
"""Finds the other corners on the circle, from the first."""


ABOUT = """\
Regular: so many `sides`, by `side`, `across corners`, `across flats` or `radius`; `flat up`,
`point up`, `first corner at 20°` or `corner towards P`. Set squares, exact compass or chords,
by the number; `by semicircle` is the old approximation, with its error. Parts `side.1`,
`corner.1` and so on, `centre`.
"""

SHOWN = """\
units mm
O = datum
nut = polygon, 6 sides, centred on O, 36 across flats, flat up
star = polygon, 5 sides, centred on O, radius 40, point up
seven = polygon, 7 sides, centred on O, side 30, by semicircle
rim = line in, star
hole = line in, nut
"""

KIND = Kind(
    name="polygon",
    group="Ready shapes",
    summary="regular, by its side, across corners or across flats",
    example="nut = polygon, 6 sides, centred on O, 36 across flats, flat up",
    mistake="The size across flats is taken for the size across corners: a spanner goes on the "
    "flats.",
    also=("triangle", "square", "pentagon", "hexagon", "octagon", "nut", "flats"),
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
    about=ABOUT,
    shown=SHOWN,
)
