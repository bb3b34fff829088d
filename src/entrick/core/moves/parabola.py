"""``parabola``: from focus and directrix, in a rectangle, or between two tangents."""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import dataclass
from functools import partial

from ..acts import Edge, Mark, Way, Work
from ..acts.focal import axis_of
from ..acts.procedures import away, divide, middle, mirrored
from ..geometry import Line, Point, polar
from ..geometry.conic import Parabola
from ..kind import Args, Kind, Made
from ..kind.parts import true_run
from ..plan.errors import ClauseError, Wanting
from ..plan.forms import Form
from ..tolerance import FITTED, same

PARTS = 6
"""Into which each side, half or tangent is divided where nothing is said."""

WAYS = {"up": 90, "down": 270, "left": 180, "right": 0}


@dataclass(frozen=True)
class _Given:
    """What a parabola is constructed from, and how it is drawn from that."""

    curve: Parabola
    told: str
    draw: Callable[[Args, Parabola, Work], list[Mark] | list[Edge]]


def construct(args: Args) -> Made:
    """Construct a parabola.

    Parts: ``focus``, ``vertex``, ``axis``, ``directrix``, ``start``, ``end``, ``station.0`` ….

    Notes
    -----
    Every place is as far from the focus as from the directrix (definition): y² = 4f·x. Of two
    tangents divided alike the joins of the parts touch it (de Casteljau; from memory).
    """
    given = _given(args)
    curve = given.curve
    first, last = curve.span
    count = _parts(args)
    turns = [last * index / count for index in range(-count, count + 1)]
    if args.get("between"):
        turns = [first + (last - first) * index / count for index in range(count + 1)]
    shape = true_run(args.name, curve, turns, FITTED["conic"] * abs(last - first))
    deep = max(curve.at(turn).__sub__(curve.vertex).dot(curve.opens) for turn in curve.span)
    return Made(
        shape,
        f"Parabola {args.name}, {given.told}.",
        (
            f"focus {args.say(curve.focal)} from the vertex, as far as the directrix: latus rectum "
            f"4 × {args.say(curve.focal)} = {args.say(4 * curve.focal)}",
            f"at y from the axis it is y² ÷ {args.say(4 * curve.focal)} from the vertex, "
            f"{args.say(deep)} at its end",
            f"{args.say(curve.length)} long",
        ),
        parts={
            "focus": curve.focus,
            "vertex": curve.vertex,
            "axis": Line.between(curve.foot, curve.vertex + curve.opens * max(deep, curve.focal)),
            "directrix": curve.directrix,
            "start": shape.pieces[0].entry,
            "end": shape.pieces[-1].exit,
            **{f"station.{index}": curve.at(turn) for index, turn in enumerate(turns)},
            **{str(index): piece.curve for index, piece in enumerate(shape.pieces, 1)},
        },
        draw=partial(_draw, args, given, shape),
    )


def _parts(args: Args) -> int:
    clause = args.get("parts")
    count = clause.count("count") if clause else PARTS
    if count < 2:
        raise ClauseError("it is divided in at least two parts", clause.index if clause else None)
    return count


def _given(args: Args) -> _Given:
    between, focus, vertex = args.get("between"), args.get("focus"), args.get("vertex")
    if between:
        for other in args.all("focus", "directrix", "vertex", "width", "height", "opening", "at"):
            raise ClauseError("both tangents say the whole curve: leave this out", other.index)
        return _between(args)
    if focus and (args.get("directrix") or vertex):
        return _focal(args)
    if vertex and args.get("width") and args.get("height"):
        return _boxed(args)
    raise Wanting(
        "a parabola has a focus and a directrix or vertex and a width or height; or a vertex, "
        "a width and a height; or lies between two points whose tangents meet in a third"
    )


def _between(args: Args) -> _Given:
    clause, meeting = args.need("between"), args.need("meeting")
    first, last, corner = clause.point("first"), clause.point("second"), meeting.point("corner")
    to_axis = (first + last) * 0.5 - corner
    legs = first - corner, last - corner
    if abs(legs[0].cross(legs[1])) <= same(abs(legs[0])) * abs(legs[1]):
        raise ClauseError("the tangents meet in a corner, not in a line", meeting.index)
    # P + 2t(C − P) + t²(P − 2C + Q): its bend is twice the way from the corner to the middle.
    opens, bend = to_axis.unit, 2 * abs(to_axis)
    speed = 2 * (corner - first).dot(opens.normal)
    vertex_at = -(corner - first).dot(opens) / bend
    vertex = first + (corner - first) * (2 * vertex_at) + to_axis * (2 * vertex_at**2)
    span = -speed * vertex_at, speed * (1 - vertex_at)
    if speed < 0:
        opens_left = Parabola(vertex, opens, speed**2 / bend / 4, (min(span), max(span)))
        return _Given(opens_left, _told_between(args), _by_tangents)
    return _Given(
        Parabola(vertex, opens, speed**2 / bend / 4, span), _told_between(args), _by_tangents
    )


def _told_between(args: Args) -> str:
    clause, meeting = args.need("between"), args.need("meeting")
    names = [clause.ref(slot).text for slot in ("first", "second")]
    return f"between {names[0]} and {names[1]}, whose tangents meet in {meeting.ref('corner').text}"


def _focal(args: Args) -> _Given:
    focus, line, vertex = args.need("focus"), args.get("directrix"), args.get("vertex")
    spot = focus.point("focus")
    at = line.line("directrix").foot(spot) if line else vertex.point("vertex")  # type: ignore[union-attr]
    away_ = spot - at
    if abs(away_) <= same(abs(spot)):
        what = "directrix" if line else "vertex"
        raise ClauseError(f"the focus does not lie on the {what}", focus.index)
    focal = abs(away_) / 2 if line else abs(away_)
    half = _half_width(args, focal)
    words = f"focus {focus.ref('focus').text}, " + (
        f"directrix {line.ref('directrix').text}" if line else f"vertex {vertex.ref('vertex').text}"  # type: ignore[union-attr]
    )
    curve = Parabola(spot - away_.unit * focal, away_.unit, focal, (-half, half))
    return _Given(curve, words, _by_distances)


def _half_width(args: Args, focal: float) -> float:
    """Return how far it reaches to either side of its axis: y² = 4f·x."""
    clause = args.need("width", "height")
    for other in args.all("width", "height")[1:]:
        raise ClauseError("it reaches as far as a width or a height: say one", other.index)
    size = float(clause.length("size"))
    if size <= 0:
        raise ClauseError("it reaches further than nought", clause.index)
    return size / 2 if clause.key == "width" else math.sqrt(4 * focal * size)


def _boxed(args: Args) -> _Given:
    clause = args.need("vertex")
    wide, high = args.need("width"), args.need("height")
    half, height = float(wide.length("size")) / 2, float(high.length("size"))
    if min(half, height) <= 0:
        raise ClauseError("the sides of its rectangle are more than nought", wide.index)
    opens = polar(1.0, math.radians(float(_opening(args))))
    curve = Parabola(clause.point("vertex"), opens, half**2 / (4 * height), (-half, half))
    words = (
        f"vertex {clause.ref('vertex').text}, {args.say(wide.length('size').value)} wide and "
        f"{args.say(high.length('size').value)} high"
    )
    by = args.get("by")
    by_tangents = by is not None and by.word("how") == "tangents"
    return _Given(curve, words, _by_apex if by_tangents else _by_rectangle)


def _opening(args: Args) -> float:
    at, way = args.get("at"), args.get("opening")
    if at:
        return float(at.length("angle"))
    return WAYS[way.word("way")] if way else 90


def _draw(args: Args, given: _Given, shape: object, work: Work) -> None:
    stations = given.draw(args, given.curve, work)
    touching = isinstance(stations[0], Edge)
    work.trace(
        stations,
        shape,  # type: ignore[arg-type]
        args.name,
        touching=touching,
        check="its tangent at the vertex is square to the axis",
    )


def _by_distances(args: Args, curve: Parabola, work: Work) -> list[Mark]:
    """On squares to the axis swing from the focus as far as they are from the directrix."""
    name, clause = args.name, args.need("focus")
    focus = work.mark(curve.focus, clause.ref("focus").text)
    line = args.get("directrix")
    if line:
        directrix = work.edge(line.line("directrix"), line.ref("directrix").text)
        axis = work.square(directrix, focus, curve.foot, f"the axis of {name}")
        foot = work.prick(axis, directrix, curve.foot, f"the foot of the axis of {name}")
        vertex = middle(work, foot, focus, f"{name}.vertex")
    else:
        vertex = work.mark(curve.vertex, args.need("vertex").ref("vertex").text)
        axis = work.through(vertex, focus, f"the axis of {name}", reach=curve.foot)
        swing = work.swing(vertex, work.between(vertex, focus), near=[curve.foot])
        foot = work.prick(axis, swing, curve.foot, f"the foot of the axis of {name}")
        directrix = work.square(axis, foot, called=f"the directrix of {name}")
    marks: dict[int, Mark] = {0: vertex}
    count = _parts(args)
    for index in range(1, count + 1):
        deep = (curve.span[1] * index / count) ** 2 / (4 * curve.focal)
        at = curve.vertex + curve.opens * deep
        if index < count:
            station = work.anywhere(axis, at, f"part {index} of the axis")
        else:
            station = _end_on_axis(args, curve, vertex, axis, deep, work)
        spots = {side: curve.at(side * curve.span[1] * index / count) for side in (-1, 1)}
        square = work.square(axis, station, spots[1])
        swing = work.swing(focus, work.between(foot, station), near=list(spots.values()))
        for side, spot in spots.items():
            number = count + side * index
            marks[side * index] = work.prick(
                swing, square, spot, f"{name}.station.{number}", label=str(number)
            )
    return [marks[index] for index in sorted(marks)]


def _end_on_axis(
    args: Args, curve: Parabola, vertex: Mark, axis: Edge, deep: float, work: Work
) -> Mark:
    """Mark on the axis how far the curve reaches along it."""
    height = args.get("height")
    size = height.length("size").value if height else deep
    at = curve.vertex + curve.opens * deep
    return work.measure(vertex, away(axis, vertex, at), size, f"the height of {args.name}", at)


def _box(
    args: Args, curve: Parabola, work: Work
) -> tuple[Mark, Edge, Mark, dict[int, Mark], dict[int, Mark]]:
    """Draw axis, base and the square at the vertex; mark the ends of the base, and the corners."""
    name = args.name
    vertex = work.mark(curve.vertex, args.need("vertex").ref("vertex").text)
    half, high = args.need("width").length("size").value / 2, args.need("height").length("size")
    middle_at = curve.vertex + curve.opens * float(high)
    axis = work.draw(vertex, Way(_opening(args)), middle_at, f"the axis of {name}")
    base = work.measure(
        vertex,
        away(axis, vertex, middle_at),
        high.value,
        f"the middle of the base of {name}",
        middle_at,
    )
    rung = work.square(axis, base, curve.at(curve.span[1]), f"the base of {name}")
    top = work.square(axis, vertex, called=f"the tangent at the vertex of {name}")
    ends: dict[int, Mark] = {}
    corners: dict[int, Mark] = {}
    for side in (-1, 1):
        spot = curve.at(side * curve.span[1])
        number = 0 if side < 0 else 2 * _parts(args)
        ends[side] = work.measure(
            base, away(rung, base, spot), half, f"{name}.station.{number}", spot, label=str(number)
        )
        corner = curve.vertex + curve.opens.normal * (side * float(half))
        upright = work.parallel(axis, ends[side], corner, f"the side {side} of {name}")
        corners[side] = work.prick(upright, top, corner, f"a corner of the box about {name}")
    _offer_focus(work, curve, name, vertex, base, ends[1])
    return vertex, axis, base, ends, corners


def _by_rectangle(args: Args, curve: Parabola, work: Work) -> list[Mark]:
    """Half the base and the side divided alike: from the vertex to the parts of the side, along the
    axis from the parts of the base."""
    vertex, axis, base, ends, corners = _box(args, curve, work)
    count, name = _parts(args), args.name
    marks: dict[int, Mark] = {0: vertex, **{side * count: end for side, end in ends.items()}}
    for side in (-1, 1):
        on_base = divide(
            work, base, ends[side], count, [f"part {k} of the base" for k in range(1, count)]
        )
        on_side = divide(
            work,
            corners[side],
            ends[side],
            count,
            [f"part {k} of the side" for k in range(1, count)],
        )
        for index in range(1, count):
            spot = curve.at(side * curve.span[1] * index / count)
            up = work.parallel(axis, on_base[index - 1], spot)
            ray = work.through(vertex, on_side[index - 1])
            number = count + side * index
            marks[side * index] = work.prick(
                up, ray, spot, f"{name}.station.{number}", label=str(number)
            )
    return [marks[index] for index in sorted(marks)]


def _by_apex(args: Args, curve: Parabola, work: Work) -> list[Edge]:
    """The tangents at both ends of the base meet on the axis, twice as high: then as between two
    tangents."""
    vertex, axis, base, ends, _ = _box(args, curve, work)
    apex_at = curve.vertex * 2 - base.at
    swing = work.swing(vertex, work.between(vertex, base), near=[apex_at])
    apex = work.prick(axis, swing, apex_at, "where the tangents meet")
    return _joins(args, curve, (ends[-1], apex, ends[1]), work)


def _by_tangents(args: Args, curve: Parabola, work: Work) -> list[Edge]:
    """Both tangents divided alike, one from its end, the other from the corner: every join
    touches."""
    clause, meeting = args.need("between"), args.need("meeting")
    first, last = (
        work.mark(clause.point(slot), clause.ref(slot).text) for slot in ("first", "second")
    )
    corner = work.mark(meeting.point("corner"), meeting.ref("corner").text)
    _offer_by_tangents(work, curve, args.name, (first, corner, last))
    if (corner.at - first.at).cross(last.at - corner.at) > 0 != (curve.span[0] < 0):
        first, last = last, first
    return _joins(args, curve, (first, corner, last), work)


def _joins(args: Args, curve: Parabola, legs: tuple[Mark, Mark, Mark], work: Work) -> list[Edge]:
    first, corner, last = legs
    count = _parts(args) * (1 if args.get("between") else 2)
    sides = ((first, corner), (corner, last))
    parts = [
        divide(work, one, other, count, [f"part {k} of tangent {n}" for k in range(1, count)])
        for n, (one, other) in enumerate(sides, 1)
    ]
    tangents = [work.through(one, other, f"tangent {n}") for n, (one, other) in enumerate(sides, 1)]
    joins = [
        work.through(one, other, f"join {index}")
        for index, (one, other) in enumerate(zip(*parts, strict=True), 1)
    ]
    return [tangents[0], *joins, tangents[1]]


def _offer_focus(
    work: Work, curve: Parabola, name: str, vertex: Mark, base: Mark, end: Mark
) -> None:
    """Say how focus and directrix are found, should they be wanted: the square to the line from the
    vertex to the half of half the base meets the axis as far beyond it as the focus is deep."""

    def found(later: Work, spot: Point, called: str) -> Mark:
        half = middle(later, base, end, "the half of half the base")
        line = later.through(vertex, half)
        axis = axis_of(later, curve, name)
        beyond_at = base.at + curve.opens * curve.focal
        square = later.square(line, half, beyond_at)
        beyond = later.prick(square, axis, beyond_at, "the cut on the axis")
        swing = later.swing(vertex, later.between(base, beyond), near=[curve.focus, curve.foot])
        return later.prick(axis, swing, spot, called)

    work.offer(curve.focus, lambda later: found(later, curve.focus, f"{name}.focus"))
    work.offer(curve.foot, lambda later: found(later, curve.foot, f"the foot of {name}"))


def _offer_by_tangents(
    work: Work, curve: Parabola, name: str, legs: tuple[Mark, Mark, Mark]
) -> None:
    """Say how focus, directrix and vertex are found, should they be wanted: lines along the axis,
    mirrored on a tangent where it touches, go through the focus; the focus mirrored on any tangent
    lies on the directrix."""
    first, corner, last = legs
    directrix = curve.directrix

    def focus(later: Work) -> Mark:
        half = middle(later, first, last, "the middle of both ends")
        along = later.through(corner, half, "the line along the axis")
        rays = []
        for end in (first, last):
            spot = end.at - curve.opens * abs(corner.at - end.at)
            ray = later.parallel(along, end, spot)
            place = later.anywhere(ray, spot, "any place along the axis")
            image = mirrored(later, place, later.through(end, corner), "its image")
            rays.append(later.through(end, image, reach=curve.focus))
        return later.prick(rays[0], rays[1], curve.focus, f"{name}.focus")

    def foot(later: Work) -> Mark:
        at = later.mark(curve.focus, f"{name}.focus")
        images = [
            mirrored(later, at, later.through(end, corner), "an image of the focus")
            for end in (first, last)
        ]
        line = later.through(images[0], images[1], f"the directrix of {name}")
        square = later.square(line, at, curve.foot, f"the axis of {name}")
        return later.prick(square, line, curve.foot, f"the foot of {name}")

    work.offer(curve.focus, focus)
    work.offer(directrix.foot(curve.focus), foot)
    work.offer(
        curve.vertex,
        lambda later: middle(
            later, later.mark(curve.foot), later.mark(curve.focus), f"{name}.vertex"
        ),
    )


ABOUT = """\
From its `focus` and `directrix` (or `vertex`), as far as a `width` or a `height`: every place is
as far from one as from the other. Or in a rectangle: `vertex`, `width` and `height`, `opening up`
(usual), `down`, `left`, `right` or `at` an angle, `by rectangle` or `by tangents`. Or `between P
and Q` with their tangents `meeting at C`, by joins of both tangents divided alike. `8 parts` for
more places. Parts `focus`, `vertex`, `axis`, `directrix`, `start`, `end`, `station.0` and so on.
"""

SHOWN = """\
units mm
O = datum
F = point, 50 right of O
d = line, through O, plumb
throw = parabola, focus F, directrix d, height 60
V = point, 200 right of O, 60 above
arch = parabola, vertex V, width 120, height 70, opening down
P = point, 300 right of O
Q = point, 120 right of P, 40 above
C = point, 40 right of P, 80 above
sweep = parabola, between P and Q, meeting at C
"""

KIND = Kind(
    name="parabola",
    group="Curves",
    summary="from focus and directrix, in a rectangle, or between two tangents",
    example="arch = parabola, vertex V, width 120, height 70, opening down",
    mistake="The side is divided from the wrong end, so that the curve leaves the vertex with a "
    "corner.",
    also=("parabolic arch", "parabolic arc"),
    forms=(
        Form("focus {focus:point}", "focus"),
        Form("directrix {directrix:line}", "directrix"),
        Form("vertex {vertex:point}", "vertex"),
        Form("width {size:length}", "width"),
        Form("height {size:length}", "height"),
        Form("opening {way:up/down/left/right}", "opening"),
        Form("at {angle:angle}"),
        Form("between {first:point} and {second:point}", "between"),
        Form("meeting at {corner:point}", "meeting"),
        Form("{count:count} parts", "parts"),
        Form("by {how:rectangle/tangents}", "by"),
    ),
    construct=construct,
    about=ABOUT,
    shown=SHOWN,
)
