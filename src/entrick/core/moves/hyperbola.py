"""``hyperbola``: one branch, from both foci, or from its asymptotes and a point."""

from __future__ import annotations

import math
from dataclasses import dataclass
from functools import partial

from ..acts import Edge, Mark, Work
from ..acts.procedures import away, foot, halve, middle, offer_middle
from ..geometry import Line, Loop, Point
from ..geometry.conic import Hyperbola
from ..kind import Args, Kind, Made
from ..kind.parts import true_run
from ..measure import spell_angle
from ..plan.errors import ClauseError, Wanting
from ..plan.forms import Form
from ..tolerance import FITTED, assembled, same

PARTS = 6
"""Places constructed to either side of the vertex where nothing is said."""


def construct(args: Args) -> Made:
    """Construct one branch of a hyperbola.

    Parts: ``centre``, ``vertex``, ``focus.1``, ``focus.2``, ``asymptote.1``, ``asymptote.2``,
    ``axis``, ``directrix``, ``start``, ``end``, ``station.0`` ….

    Notes
    -----
    Distances to the foci differ by the transverse axis (definition); parallels to the asymptotes
    make with them parallelograms of one size (Apollonius, from memory).
    """
    curve = _curve(args)
    turns = _turns(args, curve)
    first, last = curve.span
    wide = abs(curve.at(last) - curve.at(first))
    shape = true_run(args.name, curve, turns, FITTED["conic"] * wide)
    c = math.hypot(curve.a, curve.b)
    lines = curve.asymptotes
    out = curve.major.unit
    across = curve.across.unit * (wide / 2)
    at = curve.centre + out * (curve.a**2 / c)
    half = math.degrees(math.atan2(curve.b, curve.a))
    return Made(
        shape,
        f"Hyperbola {args.name}, {_words(args)}.",
        (
            f"half axes {args.say(curve.a)} and {args.say(curve.b)}; foci "
            f"√({args.say(curve.a)}² + {args.say(curve.b)}²) = {args.say(c)} from the centre",
            f"eccentricity {args.say(c)} ÷ {args.say(curve.a)} = {c / curve.a:.4g}; asymptotes "
            f"{spell_angle(half)} to either side of the axis",
            f"distances to the foci differ by {args.say(2 * curve.a)}",
        ),
        parts={
            "centre": curve.centre,
            "vertex": curve.vertex,
            "focus.1": curve.foci[0],
            "focus.2": curve.foci[1],
            "asymptote.1": lines[0],
            "asymptote.2": lines[1],
            "axis": Line.between(curve.centre - curve.major, curve.foci[0]),
            "directrix": Line.between(at - across, at + across),
            "start": shape.pieces[0].entry,
            "end": shape.pieces[-1].exit,
            **{f"station.{index}": curve.at(turn) for index, turn in enumerate(turns)},
            **{str(index): piece.curve for index, piece in enumerate(shape.pieces, 1)},
        },
        centre_name=f"{args.name}.centre",
        draw=partial(_draw, args, curve, turns, shape),
    )


def reach_of(args: Args, a: float, b: float) -> float:
    """Return the hyperbolic angle up to which a branch is drawn, from its width or its height."""
    clause = args.need("width", "height")
    for other in args.all("width", "height")[1:]:
        raise ClauseError("it reaches as far as a width or a height: say one", other.index)
    size = float(clause.length("size"))
    if size <= 0:
        raise ClauseError("it reaches further than nought", clause.index)
    return math.asinh(size / 2 / b) if clause.key == "width" else math.acosh(1 + size / a)


def _curve(args: Args) -> Hyperbola:
    foci, asymptotes = args.get("foci"), args.get("asymptotes")
    if foci:
        return _of_foci(args)
    if asymptotes:
        return _of_asymptotes(args).curve
    raise Wanting(
        "a hyperbola has its foci and its axis, or a point it goes through; or its asymptotes and "
        "a point"
    )


def _words(args: Args) -> str:
    clause = args.get("foci") or args.need("asymptotes")
    names = f"{clause.ref('first').text} and {clause.ref('second').text}"
    axis, vertices = args.get("axis"), args.get("vertices")
    if vertices:
        rest = f"vertices {vertices.ref('first').text} and {vertices.ref('second').text}"
    elif axis:
        rest = f"axis {args.say(axis.length('size').value)}"
    else:
        rest = _through(args)
    return f"{clause.key} {names}, {rest}"


def _through(args: Args) -> str:
    return f"through {args.need('through').ref('point').text}"


def _of_foci(args: Args) -> Hyperbola:
    clause, axis, through = args.need("foci"), args.get("axis"), args.get("through")
    vertices = args.get("vertices")
    first, second = clause.point("first"), clause.point("second")
    c = abs(first - second) / 2
    if c <= same(abs(first)):
        raise ClauseError("the foci are two places", clause.index)
    if sum(each is not None for each in (axis, through, vertices)) != 1:
        raise Wanting("beside its foci a hyperbola has its axis, its vertices, or a point on it")
    if vertices:
        ends = [vertices.point(slot) for slot in ("first", "second")]
        a = abs(ends[0] - ends[1]) / 2
        off = [min(abs(end - at) for end in ends) for at in _both((first + second) * 0.5, first, a)]
        if max(off) > assembled(c):
            message = (
                "the vertices lie on the line of the foci, as far from its middle on both sides"
            )
            raise ClauseError(message, vertices.index)
        where = vertices.index
    elif axis:
        a = float(axis.length("size")) / 2
        where = axis.index
    else:
        assert through is not None
        spot = through.point("point")
        a = (abs(spot - second) - abs(spot - first)) / 2
        where = through.index
    if not same(c) < a < c - same(c):
        message = (
            "the axis is more than nought and less than the distance of the foci"
            if through is None
            else "the point is nearer to the first focus than to the second, and off their line"
        )
        raise ClauseError(message, where)
    b = math.sqrt(c * c - a * a)
    reach = reach_of(args, a, b)
    out = (first - second).unit
    return Hyperbola((first + second) * 0.5, out * a, b, (-reach, reach))


def _both(centre: Point, focus: Point, a: float) -> tuple[Point, Point]:
    """Return where the vertices lie."""
    out = (focus - centre).unit * a
    return centre + out, centre - out


@dataclass(frozen=True)
class _Angle:
    """A hyperbola in the angle of its asymptotes: their directions into it, and how far along each
    the point lies that it goes through."""

    curve: Hyperbola
    ways: tuple[Point, Point]
    sizes: tuple[float, float]
    through: float


def _of_asymptotes(args: Args) -> _Angle:
    clause, through = args.need("asymptotes"), args.need("through")
    one, other = clause.line("first"), clause.line("second")
    turn = one.direction.cross(other.direction)
    if abs(turn) <= assembled(1):
        raise ClauseError("the asymptotes cross", clause.index)
    centre = one.at((other.through - one.through).cross(other.direction) / turn)
    off = through.point("point") - centre
    along = off.cross(other.direction) / turn, one.direction.cross(off) / turn
    if min(map(abs, along)) <= same(abs(off)):
        raise ClauseError("the point lies off both asymptotes", through.index)
    ways = tuple(
        line.direction * math.copysign(1.0, size)
        for line, size in zip((one, other), along, strict=True)
    )
    first, second = ways
    mean = math.sqrt(abs(along[0] * along[1]))
    out = (first + second) * mean
    minor = abs(first - second) * mean
    reach = reach_of(args, abs(out), minor)
    at = math.asinh(off.dot(out.unit.normal) / minor)
    curve = Hyperbola(centre, out, minor, (min(-reach, at), max(reach, at)))
    return _Angle(curve, (first, second), (abs(along[0]), abs(along[1])), at)


def _parts(args: Args) -> int:
    clause = args.get("parts")
    count = clause.count("count") if clause else PARTS
    if count < 2:
        raise ClauseError(
            "at least two places lie to either side", clause.index if clause else None
        )
    return count


def _turns(args: Args, curve: Hyperbola) -> list[float]:
    """Return the hyperbolic angles of the places constructed; the point it goes through is one."""
    count = _parts(args)
    first, last = curve.span
    turns = [first * index / count for index in range(count, 0, -1)]
    turns += [last * index / count for index in range(count + 1)]
    through = args.get("through")
    if through is None:
        return turns
    at = curve.turn_of(through.point("point"))
    close = (last - first) / (8 * count)
    return sorted([*(turn for turn in turns if abs(turn - at) > close), at])


def _draw(args: Args, curve: Hyperbola, turns: list[float], shape: Loop, work: Work) -> None:
    find = _by_foci if args.get("foci") else _by_asymptotes
    marks = find(args, curve, turns, work)
    work.trace(marks, shape, args.name, check="it is square to the axis at the vertex")


def _by_foci(args: Args, curve: Hyperbola, turns: list[float], work: Work) -> list[Mark]:
    """Distances to the foci differ by the axis: swings of r and r + axis cross on it."""
    name, clause = args.name, args.need("foci")
    near, far = (
        work.mark(clause.point(slot), clause.ref(slot).text) for slot in ("first", "second")
    )
    axis = work.through(far, near, f"the axis of {name}")
    vertex, back = _vertices(args, curve, (near, far), axis, work)
    c, found = abs(curve.foci[0] - curve.centre), {}
    for turn in sorted({round(abs(each), 12) for each in turns if abs(each) > 0}):
        reach = c * math.cosh(turn)
        spots = [
            curve.at(sign * turn)
            for sign in (-1, 1)
            if any(abs(sign * turn - each) < assembled(1) for each in turns)
        ]
        part = work.anywhere(axis, curve.centre + curve.major.unit * reach, "any part of the axis")
        swings = [
            work.swing(near, work.between(vertex, part), near=spots),
            work.swing(far, work.between(back, part), near=spots),
        ]
        for spot in spots:
            number = min(range(len(turns)), key=lambda i: abs(curve.at(turns[i]) - spot))
            found[number] = work.prick(
                swings[0], swings[1], spot, f"{name}.station.{number}", label=str(number)
            )
    found[min(range(len(turns)), key=lambda i: abs(turns[i]))] = vertex
    return [found[number] for number in sorted(found)]


def _vertices(
    args: Args, curve: Hyperbola, foci: tuple[Mark, Mark], axis: Edge, work: Work
) -> tuple[Mark, Mark]:
    """Mark both vertices: half the axis to either side, or from the difference of
    the distances of a point from the foci."""
    near, far = foci
    name, clause = args.name, args.get("axis")
    if args.get("vertices"):
        at = args.need("vertices")
        given = [work.mark(at.point(slot), at.ref(slot).text) for slot in ("first", "second")]
        given.sort(key=lambda mark: abs(mark.at - near.at))
        offer_middle(work, far.at, near.at, f"{name}.centre")
        return given[0], given[1]
    centre = middle(work, far, near, f"{name}.centre")
    ends = {side: curve.centre + curve.major * side for side in (1, -1)}
    names = {1: f"{name}.vertex", -1: f"the other vertex of {name}"}
    if clause:
        half = clause.length("size").value / 2
        marks = {
            side: work.measure(centre, away(axis, centre, spot), half, names[side], spot)
            for side, spot in ends.items()
        }
        return marks[1], marks[-1]
    through = args.need("through")
    point = work.mark(through.point("point"), through.ref("point").text)
    ray = work.through(far, point)
    short_at = point.at + (far.at - point.at).unit * abs(near.at - point.at)
    swing = work.swing(point, work.between(point, near), near=[short_at])
    short = work.prick(ray, swing, short_at, "what the distances have alike")
    back_at = far.at + curve.major.unit * (2 * curve.a)
    carried = work.swing(far, work.between(far, short), near=[back_at])
    back = work.prick(carried, axis, back_at, "their difference on the axis")
    vertex = middle(work, back, near, names[1])
    other = work.swing(far, work.between(near, vertex), near=[ends[-1]])
    return vertex, work.prick(other, axis, ends[-1], names[-1])


def _by_asymptotes(args: Args, curve: Hyperbola, turns: list[float], work: Work) -> list[Mark]:
    """A line through the centre cuts both parallels through the point; parallels through the cuts
    cross on the curve."""
    angle, name, clause = _of_asymptotes(args), args.name, args.need("asymptotes")
    edges = [work.edge(clause.line(slot), clause.ref(slot).text) for slot in ("first", "second")]
    centre = work.prick(edges[0], edges[1], curve.centre, f"{name}.centre")
    through = args.need("through")
    point = work.mark(through.point("point"), through.ref("point").text)
    (first, second), (along, beside) = angle.ways, angle.sizes
    up = work.parallel(edges[1], point, called=f"the parallel to {edges[1].called}")
    level = work.parallel(edges[0], point, called=f"the parallel to {edges[0].called}")
    _offer_foci(work, angle, name, (centre, point), (edges[0], edges[1]))
    marks = []
    for index, turn in enumerate(turns):
        if abs(turn - angle.through) < assembled(1):
            marks.append(point)
            continue
        grown = math.exp((turn - angle.through) * (1 if first.cross(second) < 0 else -1))
        spot = curve.at(turn)
        cut = work.anywhere(
            up, curve.centre + first * along + second * (beside / grown), f"any place {index}"
        )
        over_at = curve.centre + first * (along * grown) + second * beside
        ray = work.through(centre, cut, reach=over_at)
        over = work.prick(ray, level, over_at, f"the other cut of ray {index}")
        rise, across = work.parallel(edges[1], over, spot), work.parallel(edges[0], cut, spot)
        marks.append(work.prick(rise, across, spot, f"{name}.station.{index}", label=str(index)))
    return marks


def _offer_foci(
    work: Work, angle: _Angle, name: str, marks: tuple[Mark, Mark], edges: tuple[Edge, Edge]
) -> None:
    """Say how foci and vertices are found, should they be wanted: from the mean proportional of the
    sides of the parallelogram; twice that is how far the foci are."""
    curve, (centre, point) = angle.curve, marks
    mean = math.sqrt(angle.sizes[0] * angle.sizes[1])
    first, second = angle.ways
    sides = curve.centre + first * angle.sizes[0], curve.centre + second * angle.sizes[1]

    def axis_of(later: Work) -> Edge:
        shown = Line.between(curve.centre - curve.major, curve.foci[0])
        spots = curve.centre + first, curve.centre + second
        return halve(later, centre, edges, spots, f"the axis of {name}", shown)

    def twice(later: Work) -> Mark:
        """Mark, on the first asymptote, twice the mean proportional."""
        sections = [
            later.prick(
                later.parallel(edges[1 - index], point, sides[index]), edges[index], sides[index]
            )
            for index in (0, 1)
        ]
        back_at = curve.centre - first * angle.sizes[1]
        carried = later.swing(centre, later.between(centre, sections[1]), near=[back_at])
        back = later.prick(carried, edges[0], back_at, "the second side, turned over")
        half = middle(later, back, sections[0], "the middle of both sides")
        up = first.normal * (1 if first.cross(second) > 0 else -1)
        top_at = curve.centre + up * mean
        ring = later.swing(half, later.between(half, back), near=[top_at])
        square = later.square(edges[0], centre, top_at)
        top = later.prick(ring, square, top_at, "the mean proportional")
        once_at = curve.centre + first * mean
        swing = later.swing(centre, later.between(centre, top), near=[once_at])
        once = later.prick(swing, edges[0], once_at, "the mean proportional on the asymptote")
        again_at = curve.centre + first * (2 * mean)
        again = later.swing(once, later.between(centre, top), near=[again_at])
        return later.prick(again, edges[0], again_at, "twice the mean proportional")

    def focus(later: Work, spot: Point, called: str) -> Mark:
        axis, far = axis_of(later), twice(later)
        swing = later.swing(centre, later.between(centre, far), near=list(curve.foci))
        return later.prick(swing, axis, spot, called)

    def vertex(later: Work, spot: Point, called: str) -> Mark:
        axis, far = axis_of(later), twice(later)
        own = foot(later, far, axis, f"{name}.vertex")
        if abs(own.at - spot) <= later.paper.nothing:
            return own
        swing = later.swing(centre, later.between(centre, own), near=[spot])
        return later.prick(swing, axis, spot, called)

    for index, spot in enumerate(curve.foci, 1):
        work.offer(spot, partial(focus, spot=spot, called=f"focus {index} of {name}"))
    for side, called in ((1, f"{name}.vertex"), (-1, f"the other vertex of {name}")):
        at = curve.centre + curve.major * side
        work.offer(at, partial(vertex, spot=at, called=called))


ABOUT = """\
One branch, about the first of its `foci`: with its `axis` (from vertex to vertex), both `vertices`,
or a point it goes `through`. Or between its `asymptotes`, on the side of the point it goes
`through`. As far as a `width`, or a `height` from the vertex along the axis. Parts `centre`,
`vertex`, `focus.1`, `focus.2`, `asymptote.1`, `asymptote.2`, `axis`, `directrix`, `start`, `end`,
`station.0` and so on. The other branch is one about the other focus.
"""

SHOWN = """\
units mm
O = datum
F = point, 45 right of O
G = point, 45 left of O
horn = hyperbola, foci F and G, axis 60, height 40
A = point, 140 right of O, 40 below
l = line, through A, level
m = line, through A, plumb
P = point, 40 right of A, 20 above
curve = hyperbola, asymptotes l and m, through P, height 40
"""

KIND = Kind(
    name="hyperbola",
    group="Curves",
    summary="one branch, from its foci or from its asymptotes and a point",
    example="horn = hyperbola, foci F and G, axis 60, height 40",
    mistake="The sum of the distances to the foci is kept instead of their difference.",
    also=("hyperbolic curve", "asymptotes"),
    forms=(
        Form("foci {first:point} and {second:point}", "foci"),
        Form("axis {size:length}", "axis"),
        Form("vertices {first:point} and {second:point}", "vertices"),
        Form("through {point:point}", "through"),
        Form("asymptotes {first:line} and {second:line}", "asymptotes"),
        Form("width {size:length}", "width"),
        Form("height {size:length}", "height"),
        Form("{count:count} parts", "parts"),
    ),
    construct=construct,
    about=ABOUT,
    shown=SHOWN,
)
