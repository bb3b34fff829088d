"""``ellipse``: from its axes, or one axis and a point; by circles, trammel, rectangle, foci or four
centres."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterator
from dataclasses import dataclass
from fractions import Fraction
from functools import partial

from ..acts import Edge, Mark, Way, Work
from ..acts.focal import foci_of
from ..acts.procedures import away, bisect, divide, middle
from ..geometry import Line, Loop, Point, polar, rotate
from ..geometry.ellipse import Ellipse, departure, four_centres, of_diameters
from ..geometry.shapes import Curve, Shape
from ..kind import Args, Kind, Made, Role, Stroke
from ..kind.parts import curve_run, run
from ..measure import Number, spell_angle
from ..plan.errors import ClauseError, Wanting
from ..plan.forms import Form
from ..tolerance import ROUND, assembled, same

METHODS = ("circles", "trammel", "rectangle", "foci", "four centres")


def construct(args: Args) -> Made:
    """Construct an ellipse about a centre, its long axis level unless it is tilted.

    Parts: ``centre``, ``long`` and ``short`` (its axes), ``right top left bottom`` (their ends),
    ``focus.1``, ``focus.2``; ``true``, the true ellipse, beside one drawn about four centres."""
    centre, name = args.need("centred").point("centre"), args.need("centred").ref("centre").text
    ellipse = _conjugate(args, centre) if args.get("diameters") else _ellipse(args, centre)
    method = _method(args)
    if method == "four centres":
        if ellipse.a - ellipse.b <= assembled(ellipse.a):
            raise ClauseError("both axes are alike: it is a circle, and the compass draws it")
        arcs = four_centres(ellipse)
        shape = run(
            args.name, list(zip(("right", "top", "left", "bottom"), arcs, strict=True)), True
        )
    else:
        shape = curve_run(args.name, ellipse.drawn(), ellipse)
    a, b = ellipse.a, ellipse.b
    tilt = math.degrees(ellipse.major.angle) % 180
    tilted = "" if tilt in (0, 180) else f", tilted {spell_angle(tilt)}"
    out, up = ellipse.major, ellipse.across
    ends = (centre + out, centre + up, centre - out, centre - up)
    parts: dict[str, Curve | Point | Loop] = {
        "centre": centre,
        "long": Line.between(ends[2], ends[0]),
        "short": Line.between(ends[3], ends[1]),
        **dict(zip(("right_end", "top_end", "left_end", "bottom_end"), ends, strict=True)),
        "focus.1": ellipse.foci[0],
        "focus.2": ellipse.foci[1],
    }
    if method == "four centres":
        parts |= {piece.name.rpartition(".")[2]: piece.curve for piece in shape.pieces}
        parts["true"] = curve_run(f"{args.name}.true", ellipse.drawn(), ellipse)
    else:
        parts |= {piece.name.rpartition(".")[2]: piece.curve for piece in shape.pieces}
    working = (
        f"half axes {args.say(a)} and {args.say(b)}; foci √({args.say(a)}² − {args.say(b)}²) = "
        f"{args.say(math.sqrt(a * a - b * b))} from the centre",
        f"{args.say(ellipse.perimeter)} all round",
        *_compared(args, ellipse, method),
    )
    off, place = (
        departure(ellipse, four_centres(ellipse), math.pi / 2)
        if method == "four centres"
        else (None, centre)
    )
    beside = (parts["true"], place) if method == "four centres" else None
    return Made(
        shape,
        f"Ellipse {args.name} about {name}, {args.say(2 * a)} by {args.say(2 * b)}{tilted}, by "
        f"{method}.",
        working,
        parts=parts,
        centre_name=f"{args.name}.centre",
        departs=off,
        draw=partial(_draw, args, ellipse, shape, method, beside),
    )


def held_against(work: Work, true: Shape | Loop, place: Point) -> None:
    """Hold the true curve beside one drawn by arcs, and show where they are furthest apart."""
    work.finish(
        "Hold the true ellipse beside it: the arcs are furthest from it at the point",
        "compare",
        [Stroke(true), Stroke(place, Role.POINT)],
    )


def _ellipse(args: Args, centre: Point) -> Ellipse:
    axes, axis, through = args.get("axes"), args.get("axis"), args.get("through")
    turn = math.radians(args.number("at", usual=0.0))
    if (axes is None) == (axis is None):
        raise Wanting("an ellipse has both its axes, or one axis and a point it goes through")
    if axes:
        first, second = float(axes.length("first")), float(axes.length("second"))
        if min(first, second) <= 0:
            raise ClauseError("the axes of an ellipse are more than nought", axes.index)
        if first >= second:
            return Ellipse(centre, polar(first / 2, turn), second / 2)
        return Ellipse(centre, polar(second / 2, turn + math.pi / 2), first / 2)
    assert axis is not None
    if through is None:
        raise Wanting("beside one axis an ellipse needs a point: through P", axis.index)
    half, spot = float(axis.length("first")) / 2, through.point("point") - centre
    x, y = spot.dot(polar(1.0, turn)), spot.dot(polar(1.0, turn + math.pi / 2))
    if half <= 0 or abs(x) >= half or abs(y) <= same(half):
        raise ClauseError(
            "the point lies beyond the ends of the axis, or on it: no ellipse goes through",
            through.index,
        )
    other = abs(y) / math.sqrt(1 - (x / half) ** 2)
    if half >= other:
        return Ellipse(centre, polar(half, turn), other)
    return Ellipse(centre, polar(other, turn + math.pi / 2), half)


def _conjugate(args: Args, centre: Point) -> Ellipse:
    """Return the ellipse that has two half diameters, each parallel to the tangents at the ends of
    the other."""
    clause = args.need("diameters")
    if args.all("axes", "axis", "through", "at"):
        raise ClauseError("two diameters say the whole ellipse: leave out the rest", clause.index)
    first, second = (clause.point(slot) - centre for slot in ("first", "second"))
    if abs(first.cross(second)) <= same(abs(first)) * max(abs(first), abs(second)):
        raise ClauseError("the two diameters are not in one line", clause.index)
    if args.get("by") and _method(args) != "rectangle":
        message = "from two diameters it is drawn in the parallelogram on them: by rectangle"
        raise ClauseError(message, args.need("by").index)
    return of_diameters(centre, first, second)


def _method(args: Args) -> str:
    clause = args.get("by")
    if clause is None and args.get("diameters"):
        return "rectangle"
    return (
        {"centres": "four centres"}.get(clause.word("how"), clause.word("how"))
        if clause
        else "circles"
    )


def _compared(args: Args, ellipse: Ellipse, method: str) -> tuple[str, ...]:
    if method != "four centres":
        return ("the curve is the true ellipse; its points are constructed",)
    off, place = departure(ellipse, four_centres(ellipse), math.pi / 2)
    ahead = place - ellipse.centre
    where = (
        f"{args.say(abs(ahead.dot(ellipse.major.unit)))} along and "
        f"{args.say(abs(ahead.dot(ellipse.across.unit)))} up"
    )
    c = math.hypot(ellipse.a, ellipse.b)
    less = ellipse.a - ellipse.b
    arcs = four_centres(ellipse)
    return (
        f"join the ends of the axes: √({args.say(ellipse.a)}² + {args.say(ellipse.b)}²) = "
        f"{args.say(c)}",
        f"({args.say(c)} − {args.say(less)}) × {args.say(c)} ÷ {args.say(2 * ellipse.a)} = "
        f"R{args.say(arcs[0].radius)}",
        f"({args.say(c)} + {args.say(less)}) × {args.say(c)} ÷ {args.say(2 * ellipse.b)} = "
        f"R{args.say(arcs[1].radius)}",
        f"it departs {args.say(off)} at most from the true ellipse, {where} from the centre",
    )


@dataclass(frozen=True)
class Axes:
    """The axes of an ellipse as they stand on the sheet: its centre, both lines, and the four ends.

    `ends` are right, top, left and bottom of the long axis; `half` and `other` half the long and
    the short one, exact where they are given."""

    centre: Mark
    long: Edge
    short: Edge
    ends: tuple[Mark, Mark, Mark, Mark]
    half: Number
    other: Number


PARTS = 12
"""Places of a true ellipse that are constructed, its ends among them."""


def _draw(
    args: Args,
    ellipse: Ellipse,
    shape: Loop,
    method: str,
    beside: tuple[Shape | Loop, Point] | None,
    work: Work,
) -> None:
    axes = _diameters(args, ellipse, work) if args.get("diameters") else _axes(args, ellipse, work)
    if method == "four centres":
        _by_four_centres(args, ellipse, axes, work)
    else:
        even = ellipse.a - ellipse.b <= assembled(ellipse.a) and not args.get("diameters")
        find = _by_circles if even else _METHODS[method]
        found = {round(turn, 9): mark for turn, mark in find(args, ellipse, axes, work)}
        found |= {round(_turn(ellipse, mark.at), 9): mark for mark in axes.ends}
        marks = [found[turn] for turn in sorted(found)]
        work.trace(
            marks, shape, args.name, check="it is square to the axes at their ends: no point there"
        )
    if beside is not None:
        held_against(work, *beside)


def _axes(args: Args, ellipse: Ellipse, work: Work) -> Axes:
    """Draw both axes through the centre and set off half of each, each way; a half that is not
    given is found from the point the ellipse goes through, by the circle on the other one."""
    name, centre = args.name, work.mark(ellipse.centre, args.need("centred").ref("centre").text)
    turn: Number = args.need("at").length("angle").value if args.get("at") else 0
    both, one = args.get("axes"), args.get("axis")
    given = (both or args.need("axis")).length("first").value / 2
    first_long = abs(ellipse.major.unit.cross(polar(1.0, math.radians(float(turn))))) < ROUND
    out, up = (ellipse.major, ellipse.across) if first_long else (ellipse.across, ellipse.major)
    first = work.draw(
        centre,
        Way(turn),
        called=f"the first axis of {name}",
        shown=Line.between(ellipse.centre - out, ellipse.centre + out),
    )
    second = work.square(first, centre)
    marks = {}
    for sign in (1, -1):
        spot = ellipse.centre + out * sign
        marks[sign] = work.measure(
            centre, away(first, centre, spot), given, f"an end of the axis of {name}", spot
        )
    if both:
        rest: Number = both.length("second").value / 2
        ends = [
            work.measure(
                centre,
                away(second, centre, ellipse.centre + up * sign),
                rest,
                f"an end of the other axis of {name}",
                ellipse.centre + up * sign,
            )
            for sign in (1, -1)
        ]
    else:
        assert one is not None
        rest = abs(up)
        ends = _other_ends(args, ellipse, (out, up), (centre, first, second), given, work)
    if first_long:
        return Axes(centre, first, second, (marks[1], ends[0], marks[-1], ends[1]), given, rest)
    return Axes(
        centre,
        second,
        first,
        (ends[0], marks[-1], ends[1], marks[1])
        if up.cross(out) < 0
        else (ends[0], marks[1], ends[1], marks[-1]),
        rest,
        given,
    )


def _diameters(args: Args, ellipse: Ellipse, work: Work) -> Axes:
    """Draw both diameters through the centre, as far beyond it as their given ends are."""
    name, clause = args.name, args.need("diameters")
    centre = work.mark(ellipse.centre, args.need("centred").ref("centre").text)
    edges, ends = [], []
    for slot in ("first", "second"):
        end = work.mark(clause.point(slot), clause.ref(slot).text)
        far = ellipse.centre * 2 - end.at
        line = work.through(centre, end, f"the {slot} diameter of {name}", reach=far)
        swing = work.swing(centre, work.between(centre, end), near=[far])
        other = work.prick(line, swing, far, f"the other end of the {slot} diameter of {name}")
        edges.append(line)
        ends.append((end, other))
    (right, left), (top, bottom) = ends
    halves = [abs(end.at - ellipse.centre) for end in (right, top)]
    _offer_axes(work, ellipse, name, (centre, right, top), edges[1])
    return Axes(centre, edges[0], edges[1], (right, top, left, bottom), halves[0], halves[1])


def _offer_axes(
    work: Work, ellipse: Ellipse, name: str, marks: tuple[Mark, Mark, Mark], second: Edge
) -> None:
    """Say how the ends of the axes are found, should they be wanted: one half diameter turned a
    quarter, joined to the other; the circle about the middle of the join through the centre cuts
    it where the axes go through, and what lies beyond are their halves (Rytz; from memory)."""
    centre, first, end = marks
    turned_at = centre.at + (end.at - centre.at).normal
    half_at = (first.at + turned_at) * 0.5
    reach = abs(half_at - centre.at)
    if reach <= same(ellipse.a):
        return
    along = (first.at - turned_at).unit
    cuts = [half_at + along * (side * reach) for side in (1, -1)]

    def found(later: Work, spot: Point, called: str) -> Mark:
        square = later.square(second, centre, turned_at)
        swing = later.swing(centre, later.between(centre, end), near=[turned_at])
        turned = later.prick(swing, square, turned_at, "the half diameter turned a quarter")
        join = later.through(turned, first, reach=cuts[0])
        half = middle(later, turned, first, "the middle of the join")
        ring = later.swing(half, later.between(half, centre), near=cuts)
        crossings = [later.prick(ring, join, cut, "where an axis goes through") for cut in cuts]
        off = (spot - centre.at).unit
        own = min(crossings, key=lambda mark: abs((mark.at - centre.at).unit.cross(off)))
        axis = later.through(centre, own, reach=spot)
        long = abs(spot - centre.at)
        ends_ = [
            (abs(abs(cut.at - far.at) - long), cut, far)
            for cut in crossings
            for far in (turned, first)
        ]
        _, one, other = min(ends_, key=lambda each: each[0])
        opened = later.swing(centre, later.between(one, other), near=[spot])
        return later.prick(opened, axis, spot, called)

    for at, word in ((ellipse.major, "long"), (ellipse.across, "short")):
        for side in (1, -1):
            place = ellipse.centre + at * side
            called = f"an end of the {word} axis of {name}"
            work.offer(place, partial(found, spot=place, called=called))


def _other_ends(
    args: Args,
    ellipse: Ellipse,
    halves: tuple[Point, Point],
    drawn: tuple[Mark, Edge, Edge],
    half: Number,
    work: Work,
) -> list[Mark]:
    through, (out, up), (centre, first, second) = args.need("through"), halves, drawn
    place = work.mark(through.point("point"), through.ref("point").text)
    away_ = place.at - ellipse.centre
    along, high = away_.dot(out.unit), away_.dot(up.unit)
    on_circle = (
        ellipse.centre
        + out.unit * along
        + up.unit * math.copysign(math.sqrt(abs(out) ** 2 - along**2), high)
    )
    end = ellipse.centre + up * math.copysign(1.0, high)
    if abs(along) <= same(abs(out)):
        top = place
    else:
        ring = work.swing(centre, half, "the circle on the axis", near=[on_circle])
        plumb = work.parallel(second, place, on_circle)
        cut = work.prick(plumb, ring, on_circle, f"the cut beside {place.called}")
        ray = work.through(centre, cut)
        level_at = ellipse.centre + (on_circle - ellipse.centre) * (abs(up) / abs(out))
        level = work.parallel(first, place, level_at)
        spot = work.prick(level, ray, level_at, "the half axis on the radius")
        swing = work.swing(centre, work.between(centre, spot), near=[end, ellipse.centre * 2 - end])
        top = work.prick(swing, second, end, f"an end of the other axis of {args.name}")
    swing = work.swing(centre, work.between(centre, top), near=[end, ellipse.centre * 2 - end])
    low = work.prick(
        swing, second, ellipse.centre * 2 - end, f"the other end of the axis of {args.name}"
    )
    return [top, low] if high > 0 else [low, top]


Found = Iterator[tuple[float, Mark]]
"""Places of the ellipse with their eccentric angles, 0 to 2π."""


def _turn(ellipse: Ellipse, spot: Point) -> float:
    off = spot - ellipse.centre
    return (
        math.atan2(
            off.dot(ellipse.across.unit) / ellipse.b, off.dot(ellipse.major.unit) / ellipse.a
        )
        % math.tau
    )


def _by_circles(args: Args, ellipse: Ellipse, axes: Axes, work: Work) -> Found:
    """Radii cut both circles; plumb from the outer and level from the inner cut meet on the
    ellipse."""
    outer = work.swing(axes.centre, axes.half, "the circle on the long axis")
    inner = work.swing(axes.centre, axes.other, "the circle on the short axis")
    forth = axes.long.line.direction.dot(ellipse.major) > 0
    for index in range(PARTS):
        if index % 3 == 0:
            continue
        turn = math.tau * index / PARTS
        out = outer.circle.centre + rotate(ellipse.major, Point(0.0, 0.0), turn)
        spot, near = (
            ellipse.at(turn),
            ellipse.centre + (out - ellipse.centre) * (ellipse.b / ellipse.a),
        )
        degrees = Fraction(360 * index, PARTS) + (0 if forth else 180)
        ray = work.draw(axes.centre, Way(degrees, axes.long.key, axes.long.called), out)
        cut = work.prick(ray, outer, out, f"the outer cut of radius {index}")
        if abs(out - near) <= same(ellipse.a):
            yield turn, cut
            continue
        inside = work.prick(ray, inner, near, f"the inner cut of radius {index}")
        down, across = work.parallel(axes.short, cut, spot), work.parallel(axes.long, inside, spot)
        yield turn, work.prick(down, across, spot, f"place {index} of {args.name}")


def _by_trammel(args: Args, ellipse: Ellipse, axes: Axes, work: Work) -> Found:
    """A strip with half the long axis and half the short one marked from its end: the marks run on
    the axes."""
    less, each = axes.half - axes.other, PARTS // 4
    number = 0
    for side in (1, -1):
        for index in range(1, each + 1):
            size = less * Fraction(index, each + 1)
            place = ellipse.centre - ellipse.across.unit * (side * float(size))
            tick = work.measure(
                axes.centre,
                away(axes.short, axes.centre, place),
                size,
                "the place of the outer tick",
                place,
            )
            turn = math.asin(min(1.0, float(size) / float(less)))
            for each_turn in (turn, math.pi - turn):
                spot = ellipse.at(side * each_turn)
                number += 1
                mark = work.strip(
                    tick,
                    axes.long,
                    axes.half,
                    axes.other,
                    spot,
                    f"place {number} of {args.name}",
                    (axes.centre.called, axes.ends[0].called, axes.ends[1].called),
                )
                yield (side * each_turn) % math.tau, mark


def _by_rectangle(args: Args, ellipse: Ellipse, axes: Axes, work: Work) -> Found:
    """Intersecting lines: half the long axis and the side of the box divided alike, joined from
    both short ends."""
    parts = 4
    right, top, left, bottom = axes.ends
    number = 0
    for end in (right, left):
        upright = work.parallel(axes.short, end)
        on_axis = divide(
            work, end, axes.centre, parts, [f"part {k} of the half axis" for k in range(1, parts)]
        )
        for near, far in ((top, bottom), (bottom, top)):
            level = work.parallel(axes.long, near)
            corner = work.prick(
                upright,
                level,
                end.at + near.at - axes.centre.at,
                f"a corner of the box about {args.name}",
            )
            on_side = divide(
                work, end, corner, parts, [f"part {k} of the side" for k in range(1, parts)]
            )
            for k in range(parts - 1):
                spot = _cross(far.at, on_axis[k].at, near.at, on_side[k].at)
                one = work.through(far, on_axis[k], reach=spot)
                other = work.through(near, on_side[k], reach=spot)
                number += 1
                yield (
                    _turn(ellipse, spot),
                    work.prick(one, other, spot, f"place {number} of {args.name}"),
                )


def _cross(a: Point, b: Point, c: Point, d: Point) -> Point:
    first, second = b - a, d - c
    return a + first * ((c - a).cross(second) / first.cross(second))


def _by_foci(args: Args, ellipse: Ellipse, axes: Axes, work: Work) -> Found:
    """Distances to the foci add up to the long axis: swings of r and 2a − r cross on it."""
    first, second = foci_of(work, ellipse, args.name)
    right, _, left, _ = axes.ends
    out = first.at - ellipse.centre
    number = 0
    for share in (0.3, 0.6, 0.88):
        part = work.anywhere(axes.long, ellipse.centre + out * share, "any part of the long axis")
        near, far = work.between(right, part), work.between(left, part)
        x = (float(far.size) ** 2 - float(near.size) ** 2) / (4 * abs(out))
        y = ellipse.b * math.sqrt(max(1 - (x / ellipse.a) ** 2, 0.0))
        for one, other, side in ((first, second, 1), (second, first, -1)):
            spots = [
                ellipse.centre + ellipse.major.unit * (side * x) + ellipse.across.unit * (s * y)
                for s in (1, -1)
            ]
            swings = [work.swing(one, near, near=spots), work.swing(other, far, near=spots)]
            for spot in spots:
                number += 1
                yield (
                    _turn(ellipse, spot),
                    work.prick(swings[0], swings[1], spot, f"place {number} of {args.name}"),
                )


def _by_four_centres(args: Args, ellipse: Ellipse, axes: Axes, work: Work) -> None:
    """Take the difference of the halves off the join of two ends, bisect the rest: its bisector
    holds both centres."""
    arcs = four_centres(ellipse)
    right, top, _, _ = axes.ends
    less = axes.half - axes.other
    join = work.through(top, right, "the join of the ends of both axes")
    cut_at = top.at + (right.at - top.at).unit * float(less)
    swing = work.swing(top, less, near=[cut_at], told="what the halves differ by")
    cut = work.prick(swing, join, cut_at, "the cut on the join")
    middle_ = (cut_at + right.at) * 0.5
    axis = bisect(
        work, right, cut, "the bisector of what is left", Line.between(middle_, arcs[1].centre)
    )
    names = [f"the {word} centre of {args.name}" for word in ("right", "top", "left", "bottom")]
    near = work.prick(axis, axes.long, arcs[0].centre, names[0])
    far = work.prick(axis, axes.short, arcs[1].centre, names[1])
    marks = [near, far]
    for own, arc, along, word in (
        (near, arcs[2], axes.long, names[2]),
        (far, arcs[3], axes.short, names[3]),
    ):
        carried = work.swing(axes.centre, work.between(axes.centre, own), near=[arc.centre])
        marks.append(work.prick(carried, along, arc.centre, word))
    rounds = [(right, 0), (top, 1), (axes.ends[2], 2), (axes.ends[3], 3)]
    swung = {}
    for end, index in rounds:
        swung[index] = work.swing(
            marks[index],
            work.between(marks[index], end),
            f"{args.name}.{('right', 'top', 'left', 'bottom')[index]}",
            shape=arcs[index],
            check="it runs into the next without a corner",
        )
    for one, other in ((0, 1), (1, 2), (2, 3), (3, 0)):
        spot = arcs[one].last
        line = work.through(marks[one], marks[other], "the line of centres", reach=spot)
        work.prick(line, swung[one], spot, f"where the arcs of {args.name} meet")


_METHODS: dict[str, Callable[[Args, Ellipse, Axes, Work], Found]] = {
    "circles": _by_circles,
    "trammel": _by_trammel,
    "rectangle": _by_rectangle,
    "foci": _by_foci,
}


ABOUT = """\
`axes 90 and 56`, or one `axis` and a point it goes `through`; `at` a tilt; or conjugate `diameters
to A and B`, in the parallelogram on them. `by circles`, `by
trammel`, `by rectangle`, `by foci` (the true curve, by other steps), or `by four centres` (true
arcs, with their greatest departure). Parts `centre`, `long`, `short`, `right_end top_end
left_end bottom_end`, `focus.1`, `focus.2`; by four centres `right top left bottom` and `true`.
A true ellipse goes to DXF as an ellipse.
"""

SHOWN = """\
units mm
O = datum
P = point, 30 right of O, 15 above
e = ellipse, centred on O, axes 90 and 56, at 20°, by trammel
f = ellipse, centred on O, axes 110 and 70, by four centres
g = ellipse, centred on O, axis 80, through P
A = point, 100 right of O, 20 below
B = point, 30 left of O, 45 above
h = ellipse, centred on O, diameters to A and B
rim = line in, f
hole = line in, g
"""

KIND = Kind(
    name="ellipse",
    group="Curves",
    summary="from its axes, an axis and a point, or two diameters, by any of five methods",
    example="hatch1 = ellipse, centred on O, axes 90 and 56, by four centres",
    mistake="The whole axis is set off from the centre instead of half; arcs are joined off their "
    "line of centres.",
    also=("oval", "conjugate diameters"),
    forms=(
        Form("centred on {centre:point}", "centred", needed=True),
        Form("axes {first:length} and {second:length}", "axes"),
        Form("axis {first:length}", "axis"),
        Form("through {point:point}", "through"),
        Form("diameters to {first:point} and {second:point}", "diameters"),
        Form("at {angle:angle}"),
        Form("by {how:circles/trammel/rectangle/foci}", "by"),
        Form("by four {how:centres}", "by"),
    ),
    construct=construct,
    about=ABOUT,
    shown=SHOWN,
)
