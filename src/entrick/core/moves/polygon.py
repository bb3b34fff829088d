"""``polygon``: regular, by its side, across its corners or across its flats; in or around a circle;
on a side or a diagonal."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from fractions import Fraction
from functools import partial

from ..acts import Mark, Round, Way, Work
from ..acts.procedures import middle, ray_to
from ..geometry import Arc, Circle, Point, polar, polyline
from ..kind import Args, Kind, Made
from ..kind.args import ClauseValues
from ..measure import Number, spell_angle
from ..plan.errors import ClauseError
from ..plan.forms import Form
from ..tolerance import same
from .polygon_board import (
    SQUARES,
    Find,
    around,
    by_chords,
    by_compass,
    by_semicircle,
    by_squares,
    centre_on_side,
    is_on_squares,
    on_side,
    semicircle_error,
)

MOST_SIDES = 60

SIZES = ("side", "corners", "flats", "radius", "in", "around", "on", "diagonal")
"""Keys of the clauses that say how large a polygon is."""


@dataclass(frozen=True)
class _Place:
    """Where a polygon lies: its centre, how far the corners are from it, and the direction of the
    first."""

    centre: Point
    radius: float
    start: float


def construct(args: Args) -> Made:
    """Construct a regular polygon.

    Parts: ``side.1`` …, ``corner.1`` … counter-clockwise, ``centre``.

    Notes
    -----
    side = 2R·sin(180°/n), across flats = 2R·cos(180°/n), R to the corners (plane geometry).
    """
    sides = args.need("sides")
    count = sides.count("count")
    if not 3 <= count <= MOST_SIDES:
        raise ClauseError(f"a polygon has 3 to {MOST_SIDES} sides", sides.index)
    half = math.pi / count
    clause = args.need(*SIZES)
    place = _place(args, clause, count)
    centre, radius = place.centre, place.radius
    # By the semicircle the polygon is what the method leaves: its sides alike but for the last,
    # which closes it.
    each = 2 * half + (math.radians(semicircle_error(count)) if args.get("by") else 0.0)
    corners = [centre + polar(radius, place.start + each * index) for index in range(count)]
    shape = polyline(
        corners, [f"{args.name}.side.{index}" for index in range(1, count + 1)], closed=True
    )
    side, flats = 2 * radius * math.sin(half), 2 * radius * math.cos(half)
    method = _method(args, count, place)
    return Made(
        shape,
        f"Polygon {args.name}, {count} sides, {_words(args, clause)}.",
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
        draw=partial(_draw, args, place, corners, method[1]),
    )


def _words(args: Args, clause: ClauseValues) -> str:
    if clause.key in ("on", "diagonal"):
        first, second = (clause.ref(slot).text for slot in ("first", "second"))
        return (
            f"{clause.key} {first} to {second}"
            if clause.key == "diagonal"
            else f"on the side {first} to {second}"
        )
    if clause.key in ("in", "around"):
        return f"{clause.key} {clause.ref('circle').text}"
    told = {
        "side": "of side",
        "corners": "across corners",
        "flats": "across flats",
        "radius": "of radius",
    }[clause.key]
    about = args.need("centred").ref("centre").text
    return f"{args.say(clause.length('size').value)} {told}, about {about}"


def _place(args: Args, clause: ClauseValues, count: int) -> _Place:
    half = math.pi / count
    if args.get("centred") and clause.key in ("in", "around", "on", "diagonal"):
        raise ClauseError("its centre follows from what it lies on: do not say both", clause.index)
    if clause.key in ("on", "diagonal"):
        return _on_points(args, clause, count)
    if clause.key in ("in", "around"):
        circle = clause.shape("circle")
        assert isinstance(circle, Circle | Arc)
        radius = circle.radius / (math.cos(half) if clause.key == "around" else 1.0)
        return _Place(circle.centre, radius, _start(args, circle.centre, half))
    centre = args.need("centred").point("centre")
    size = float(clause.length("size"))
    if size <= 0:
        raise ClauseError("the size of a polygon is more than nought", clause.index)
    if count % 2 and clause.key == "flats":
        message = (
            f"of {count} sides no two face each other: there is no size across flats; give a "
            "side, or the radius, or the circle it goes around"
        )
        raise ClauseError(message, clause.index)
    radius = {
        "side": size / (2 * math.sin(half)),
        "corners": size / 2,
        "flats": size / 2 / math.cos(half),
        "radius": size,
    }[clause.key]
    return _Place(centre, radius, _start(args, centre, half))


def _on_points(args: Args, clause: ClauseValues, count: int) -> _Place:
    """Return where a polygon lies that has two points as ends of a side, or as corners across."""
    if args.all("flat", "point", "at", "through"):
        raise ClauseError("how it is turned follows from the two points", clause.index)
    first, second = clause.point("first"), clause.point("second")
    apart = second - first
    if abs(apart) <= same(abs(first)):
        raise ClauseError("the two points are one place", clause.index)
    if clause.key == "diagonal":
        if count % 2:
            message = f"of {count} sides no two corners lie across from each other"
            raise ClauseError(message, clause.index)
        return _Place((first + second) * 0.5, abs(apart) / 2, (-apart).angle)
    if args.get("right"):
        first, second, apart = second, first, -apart
    half = math.pi / count
    centre = (first + second) * 0.5 + apart.normal * (0.5 / math.tan(half))
    return _Place(centre, abs(first - centre), (first - centre).angle)


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
            raise ClauseError("the corner cannot lie at the centre", through.index)
        return ahead.angle
    return (ways[flat.word("way")] if flat else -math.pi / 2) + half


def _method(args: Args, count: int, place: _Place) -> tuple[str, Find]:
    radius = place.radius
    by = args.get("by")
    if by is not None:
        each = 360 / count + semicircle_error(count)
        last = 360 - (count - 1) * each
        if abs(last / each - 1) > WORST_LAST:
            raise ClauseError(
                f"by the semicircle the last of {count} sides would come out "
                f"{abs(100 * (last / each - 1)):.0f} % {'short' if last < each else 'long'} of the "
                "others: step the chord off instead",
                by.index,
            )
        first, closing = (
            args.say(2 * radius * math.sin(math.radians(angle) / 2)) for angle in (each, last)
        )
        return (
            f"by the semicircle: {count - 1} sides of {first}, and the last, which takes up "
            f"{count - 1} times the error of one, {closing}",
            by_semicircle,
        )
    if count in (5, 10):
        return (
            "exact by compass: the decagon's side is the golden section of the radius (Euclid "
            "IV.11)",
            by_compass,
        )
    if count in SQUARES:
        words = (
            "the corners lie at multiples of 15°: set squares"
            if is_on_squares(math.degrees(place.start))
            else f"the corners lie {spell_angle(360 / count)} apart, off the set squares: by the "
            "protractor"
        )
        return words, by_squares
    return (
        "the chord is stepped off round the circle; any error adds up, so check the last step",
        by_chords,
    )


def _draw(args: Args, place: _Place, corners: Sequence[Point], find: Find, work: Work) -> None:
    """Draw the circle through the corners and find them on it, or the circle of the flats and its
    tangents; join what is not joined."""
    clause = args.need(*SIZES)
    if clause.key in ("flats", "around") and args.get("by") is None:
        _draw_around(args, clause, place, corners, find, work)
        return
    count, name = len(corners), args.name
    middle_, first = _centre_and_first(args, clause, place, corners, work)
    half = clause.length("size").value if clause.has("size") else 0
    size: Number = {"corners": half / 2, "radius": half}.get(clause.key, place.radius)
    names = [f"{name}.corner.{index}" for index in range(1, count + 1)]
    if clause.key == "in":
        circle = clause.shape("circle")
        assert isinstance(circle, Circle | Arc)
        ring_ = work.round(circle, clause.ref("circle").text)
    else:
        opening = size if first is None else work.between(middle_, first)
        ring_ = work.swing(middle_, opening, f"the circle through the corners of {name}")
    if first is None:
        first = _first(args, middle_, ring_, corners[0], names[0], work)
    if clause.key == "on" and args.get("by") is None:
        marks = on_side(work, ring_, first, corners, names)
    else:
        marks = [first, *find(work, middle_, ring_, first, corners, names)]
    for index, (one, other) in enumerate(zip(marks, [*marks[1:], marks[0]], strict=True), 1):
        alike = "all sides are alike" if args.get("by") is None else "all but this side are alike"
        check = alike if index == count else ""
        work.through(one, other, f"{name}.side.{index}", check=check)


def _centre_and_first(
    args: Args, clause: ClauseValues, place: _Place, corners: Sequence[Point], work: Work
) -> tuple[Mark, Mark | None]:
    """Mark the centre; of a polygon on two points the first corner is one of them."""
    if clause.key not in ("on", "diagonal"):
        centred = args.get("centred")
        called = centred.ref("centre").text if centred else clause.ref("circle").centre_name
        return work.mark(place.centre, called), None
    ends = [work.mark(clause.point(slot), clause.ref(slot).text) for slot in ("first", "second")]
    if args.get("right"):
        ends.reverse()
    if clause.key == "diagonal":
        return middle(work, ends[0], ends[1], f"{args.name}.centre"), ends[0]
    return centre_on_side(work, ends[0], ends[1], len(corners), place.centre), ends[0]


def _first(args: Args, centre: Mark, ring_: Round, spot: Point, called: str, work: Work) -> Mark:
    """Mark the first corner, or where the first side touches."""
    through = args.get("through")
    if through:
        ray = work.through(
            centre, work.mark(through.point("point"), through.ref("point").text), reach=spot
        )
        return work.prick(ray, ring_, spot, called, label="1", anew=True)
    return ray_to(
        work, centre, ring_, _degrees(args, args.need("sides").count("count")), spot, called, "1"
    )


def _draw_around(
    args: Args,
    clause: ClauseValues,
    place: _Place,
    corners: Sequence[Point],
    find: Find,
    work: Work,
) -> None:
    """Draw the circle of the flats, and its tangents."""
    count, name = len(corners), args.name
    if clause.key == "around":
        circle = clause.shape("circle")
        assert isinstance(circle, Circle | Arc)
        centre = work.mark(place.centre, clause.ref("circle").centre_name)
        ring_ = work.round(circle, clause.ref("circle").text)
    else:
        centre = work.mark(place.centre, args.need("centred").ref("centre").text)
        flats = clause.length("size").value / 2
        ring_ = work.swing(centre, flats, f"the circle of the flats of {name}")
    first_side = math.degrees((corners[1] - corners[0]).angle)
    if count in SQUARES and is_on_squares(first_side):
        around(work, centre, ring_, None, corners, name)
        return
    spots = [
        (one + other) * 0.5 for one, other in zip(corners, [*corners[1:], corners[0]], strict=True)
    ]
    names = [f"touch {index} of {name}" for index in range(1, count + 1)]
    through = args.get("through")
    if through:
        corner = _first(
            args,
            centre,
            ring_,
            centre.at + (corners[0] - centre.at).unit * ring_.circle.radius,
            f"the way to corner 1 of {name}",
            work,
        )
        ray = work.through(centre, corner)
        turned = Fraction(180, count) + (
            0 if ray.line.direction.dot(corner.at - centre.at) > 0 else 180
        )
        line = work.draw(centre, Way(turned, ray.key, ray.called), spots[0])
        first = work.prick(line, ring_, spots[0], names[0])
    else:
        degrees = _degrees(args, count) + Fraction(180, count)
        first = ray_to(work, centre, ring_, degrees, spots[0], names[0])
    touches = [first, *find(work, centre, ring_, first, spots, names)]
    around(work, centre, ring_, touches, corners, name)


def _degrees(args: Args, count: int) -> Number:
    """Return the direction of the first corner, degrees."""
    flat, point, angle = args.get("flat"), args.get("point"), args.get("at")
    ways = {"up": 90, "down": 270, "left": 180, "right": 0}
    if angle:
        return angle.length("angle").value
    if point:
        return ways[point.word("way")]
    return (ways[flat.word("way")] if flat else 270) + Fraction(180, count)


ABOUT = """\
Regular: so many `sides`, `centred on` a point, by `side`, `across corners`, `across flats` or
`radius`; or `in c`, its corners on a circle, or `around c`, its sides touching it; `flat up`,
`point up`, `first corner at 20°` or `corner towards P`. Or `on A to B`, which is a side, to the
left of it or to the `right`; or `diagonal A to B`, from corner to corner across. Set squares, exact
compass or chords, by the number; across flats from the circle of the flats and its tangents; `by
semicircle` is the old approximation, with its error. Parts `side.1`, `corner.1` and so on,
`centre`.
"""

SHOWN = """\
units mm
O = datum
nut = polygon, 6 sides, centred on O, 36 across flats, flat up
star = polygon, 5 sides, centred on O, radius 40, point up
seven = polygon, 7 sides, centred on O, side 30, by semicircle
A = point, 60 right of O, 30 below
B = point, 25 right of A
five = polygon, 5 sides, on A to B
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
    also=("square", "pentagon", "hexagon", "octagon", "nut", "flats"),
    forms=(
        Form("{count:count} sides", "sides", needed=True),
        Form("centred on {centre:point}", "centred"),
        Form("side {size:length}", "side"),
        Form("{size:length} across corners", "corners"),
        Form("{size:length} across flats", "flats"),
        Form("radius {size:radius}", "radius"),
        Form("in {circle:circle}", "in"),
        Form("around {circle:circle}", "around"),
        Form("on {first:point} to {second:point}", "on"),
        Form("right"),
        Form("diagonal {first:point} to {second:point}", "diagonal"),
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
