"""``slot``: straight with round ends; or curved between two radii, its ends given by angles or by
other circles."""

from __future__ import annotations

import math
from collections.abc import Mapping
from functools import partial

from ..acts import Edge, Mark, Way, Work
from ..geometry import Arc, Circle, Curve, Line, Point, meet, polar
from ..kind import Args, ClauseValues, Kind, Made
from ..kind.parts import parts_of, run
from ..measure import Number, spell_angle
from ..plan.errors import ClauseError, Wanting
from ..plan.forms import Form
from ..tolerance import same


def construct(args: Args) -> Made:
    """Construct a closed slot.

    Straight: between two end centres, or centred on a point with a length over all. Curved: about a
    centre, on a middle radius with a width or between two radii, from one angle to another or from
    one circle to another, counter-clockwise."""
    straight = args.get("length", "between centres")
    return _curved(args) if args.get("about") and not straight else _straight(args)


def _straight(args: Args) -> Made:
    width = args.need("width").length("width")
    half: Number = width.value / 2
    first, second, told, working = _end_centres(args, half)
    if abs(second - first) <= same(abs(first)):
        raise ClauseError("the two end centres are the same place: that is a round hole")
    ahead = (second - first).unit
    across = ahead.normal * float(half)
    level = abs(ahead.x) >= abs(ahead.y)
    names = ("lower", "upper") if level else ("right", "left")
    if (ahead.x if level else ahead.y) < 0:
        names = names[::-1]
    turn = ahead.angle
    curves: list[tuple[str, Curve]] = [
        (names[0], Line.between(first - across, second - across)),
        ("second_end", Arc(second, float(half), turn - math.pi / 2, math.pi, half)),
        (names[1], Line.between(second + across, first + across)),
        ("first_end", Arc(first, float(half), turn + math.pi / 2, math.pi, half)),
    ]
    shape = run(args.name, curves, True)
    return Made(
        shape,
        f"Slot {args.name}, {told}, {args.say(width.value)} wide.",
        (f"{args.say(width.value)} ÷ 2 = {args.say(half)}: radius of the ends", *working),
        parts={
            **_sides(curves[0][1], curves[2][1], ahead.normal),
            **parts_of(shape),
            "first": first,
            "second": second,
            "centre": (first + second) * 0.5,
        },
        draw=partial(_draw_straight, args, (first, second), half, dict(curves)),
    )


def _sides(right_hand: Curve, left_hand: Curve, across: Point) -> dict[str, Curve]:
    """Return both sides by every word that fits them, so that a name holds whatever the slot's
    angle is."""
    high, low = (left_hand, right_hand) if across.y > 0 else (right_hand, left_hand)
    near, far = (left_hand, right_hand) if across.x < 0 else (right_hand, left_hand)
    if across.y == 0:
        high, low = near, far
    if across.x == 0:
        near, far = high, low
    return {"upper": high, "lower": low, "left": near, "right": far}


def _end_centres(args: Args, half: Number) -> tuple[Point, Point, str, tuple[str, ...]]:
    between, centred = args.get("from"), args.get("centred", "about")
    if (between is None) == (centred is None):
        raise Wanting(
            "a straight slot runs from one end centre to another, or is centred on a point"
        )
    if between:
        names = (between.ref("first").text, between.ref("second").text)
        return between.point("first"), between.point("second"), f"from {names[0]} to {names[1]}", ()
    assert centred is not None
    middle, name = centred.point("centre"), centred.ref("centre").text
    length = args.need("length", "between centres")
    size = length.length("length")
    apart: Number = size.value
    worked: tuple[str, ...] = ()
    if length.key == "length":
        apart = size.value - 2 * half
        worked = (
            f"{args.say(size.value)} − {args.say(2 * half)} = {args.say(apart)} between the end "
            "centres",
        )
        if apart <= 0:
            raise ClauseError("a slot is longer over all than it is wide", length.index)
    direction = _direction(args)
    reach = direction * (float(apart) / 2)
    return middle - reach, middle + reach, f"centred on {name}, {args.say(size.value)} long", worked


def _direction(args: Args) -> Point:
    clause = args.get("level", "plumb", "at", "along")
    if clause is None or clause.key == "level":
        return Point(1.0, 0.0)
    if clause.key == "plumb":
        return Point(0.0, 1.0)
    if clause.key == "along":
        return clause.line("line").direction
    return polar(1.0, math.radians(float(clause.length("angle"))))


def _curved(args: Args) -> Made:
    about = args.need("about")
    centre, name = about.point("centre"), about.ref("centre").text
    inner, outer, worked = _radii(args)
    middle = (inner + outer) / 2
    start, end, bounds, told = _bounds(
        args, centre, {"inner": inner, "middle": middle, "outer": outer}
    )
    sweep = (end - start) % math.tau or math.tau
    ends = args.get("ends")
    how = ends.word("how") if ends else ("aiming" if bounds else "round")
    if how == "following" and not bounds:
        raise ClauseError(
            "ends follow circles only where the slot is bounded by circles",
            ends.index if ends else None,
        )
    half = (outer - inner) / 2
    out, back = (Arc(centre, float(r), start, sweep, r) for r in (outer, inner))
    returning = Arc(centre, float(inner), start + sweep, -sweep, inner)
    if how == "aiming":
        closing: tuple[Curve, Curve] = (
            Line.between(out.last, back.last),
            Line.between(back.first, out.first),
        )
    elif how == "round":
        spots = [centre + polar(float(middle), angle) for angle in (start, start + sweep)]
        closing = (
            Arc(spots[1], float(half), start + sweep, math.pi, half),
            Arc(spots[0], float(half), start + math.pi, math.pi, half),
        )
    else:
        out, returning, closing = _following(centre, inner, outer, bounds, args)
    curves = [
        ("outer", out),
        ("second_end", closing[0]),
        ("inner", returning),
        ("first_end", closing[1]),
    ]
    shape = run(args.name, curves, True)
    return Made(
        shape,
        f"Curved slot {args.name} about {name}, radii {args.say(inner)} and {args.say(outer)}, "
        f"{told}.",
        (*worked, *_where_cut(args, how), f"it spans {spell_angle(math.degrees(sweep))}"),
        parts={
            **parts_of(shape),
            "middle": Arc(centre, float(middle), start, sweep, middle),
            "first": centre + polar(float(middle), start),
            "second": centre + polar(float(middle), start + sweep),
        },
        centre_name=name,
        draw=partial(
            _draw_curved,
            args,
            centre,
            (inner, middle, outer),
            (start, start + sweep),
            dict(curves),
            how,
        ),
    )


WORDED = {"inner": "the inner side", "middle": "the middle line", "outer": "the outer side"}
"""Where circles that bound a curved slot may cut it; washers of the trade are cut at the inner
side."""


def _cut_on(args: Args) -> str:
    where = args.get("on")
    return where.word("which") if where else "middle"


def _where_cut(args: Args, how: str) -> tuple[str, ...]:
    """Say which place of a bounding circle ends the slot: it is a choice, and offices differ."""
    if args.get("between") is None or how == "following":
        return ()
    others = " or ".join(f"on {which}" for which in WORDED if which != _cut_on(args))
    words = (
        "" if args.get("on") else f", as nothing is said; {others} takes another (washers: inner)"
    )
    return (f"it ends where the circles cross {WORDED[_cut_on(args)]}{words}",)


def _draw_straight(
    args: Args, ends: tuple[Point, Point], half: Number, curves: Mapping[str, Curve], work: Work
) -> None:
    """Find the end centres, swing the round ends, and join them square to the middle line."""
    between = args.get("from")
    if between:
        marks = [
            work.mark(end, between.ref(slot).text)
            for end, slot in zip(ends, ("first", "second"), strict=True)
        ]
        middle = work.through(marks[0], marks[1], f"the middle line of {args.name}")
    else:
        marks, middle = _end_marks(args, ends, work)
    for word, mark in zip(("first_end", "second_end"), marks, strict=True):
        arc = curves[word]
        assert isinstance(arc, Arc)
        work.swing(mark, half, f"{args.name}.{word}", shape=arc)
    pieces = [(word, curve) for word, curve in curves.items() if isinstance(curve, Line)]
    for mark, word in zip(marks, ("first_end", "second_end"), strict=True):
        arc = curves[word]
        assert isinstance(arc, Arc)
        square = work.square(middle, mark, arc.first)
        for spot in (arc.first, arc.last):
            work.prick(
                square, work.round(arc), spot, f"where {args.name}.{word} runs into its side"
            )
    for word, side in pieces:
        start, end = (work.mark(spot) for spot in (side.at(0.0), side.at(side.end or 0.0)))
        check = f"across the sides it measures {args.say(2 * half)} at full size"
        work.through(start, end, f"{args.name}.{word}", shown=side, check=check)


def _end_marks(args: Args, ends: tuple[Point, Point], work: Work) -> tuple[list[Mark], Edge]:
    centred, clause = args.need("centred", "about"), args.get("level", "plumb", "at", "along")
    centre = work.mark(centred.point("centre"), centred.ref("centre").text)
    if clause is not None and clause.key == "along":
        model = work.edge(clause.line("line"), clause.ref("line").text)
        way = Way(0, model.key, model.called)
    else:
        degrees = {"level": 0, "plumb": 90}.get(clause.key if clause else "level")
        way = Way(clause.length("angle").value if degrees is None and clause else degrees or 0)
    shown = Line.between(*ends)
    middle = work.draw(centre, way, called=f"the middle line of {args.name}", shown=shown)
    length, width = args.need("length", "between centres"), args.need("width").length("width").value
    size = length.length("length").value
    apart = size - width if length.key == "length" else size
    found = []
    for word, end in zip(("first", "second"), ends, strict=True):
        ahead = middle.line.direction.dot(end - centre.at) > 0
        way = Way(0 if ahead else 180, middle.key, middle.called)
        found.append(work.measure(centre, way, apart / 2, f"{args.name}.{word}", end))
    return found, middle


def _draw_curved(
    args: Args,
    centre: Point,
    radii: tuple[Number, Number, Number],
    angles: tuple[float, float],
    curves: Mapping[str, Curve],
    how: str,
    work: Work,
) -> None:
    """Mark where it ends, by angles or where the circles that bound it cross it; swing its sides,
    and close it."""
    clause, name = args.get("between"), args.name
    mark = work.mark(centre, args.need("about").ref("centre").text)
    inner, middle, outer = radii
    out, back = curves["outer"], curves["inner"]
    assert isinstance(out, Arc)
    assert isinstance(back, Arc)
    sides = {
        "outer": work.swing(mark, outer, f"{name}.outer", shape=out),
        "inner": work.swing(mark, inner, f"{name}.inner", shape=back),
    }
    wanted = how == "round" or (
        clause is not None and _cut_on(args) == "middle" and how == "aiming"
    )
    if wanted:
        light = Arc(centre, float(middle), angles[0], angles[1] - angles[0], middle)
        sides["middle"] = work.swing(mark, middle, "the middle line", shape=light)
    if how == "following":
        assert clause is not None
        for slot, word, spots in (
            ("first", "first_end", (out.first, back.last)),
            ("second", "second_end", (out.last, back.first)),
        ):
            bound = clause.shape(slot)
            assert isinstance(bound, Circle | Arc)
            ring = work.round(bound, clause.ref(slot).text)
            for side, spot in zip(("outer", "inner"), spots, strict=True):
                work.prick(ring, sides[side], spot, f"where {ring.called} cuts {name}.{side}")
            assert word in curves
        return
    given = args.get("angles")
    for which, angle, slot in zip(("first", "second"), angles, ("first", "last"), strict=True):
        if clause is not None:
            bound = clause.shape(which)
            assert isinstance(bound, Circle | Arc)
            cut = _cut_on(args)
            spot = centre + polar(
                float({"inner": inner, "middle": middle, "outer": outer}[cut]), angle
            )
            end = work.prick(
                work.round(bound, clause.ref(which).text),
                sides[cut],
                spot,
                f"the {which} end of {name}",
            )
            ray = work.through(
                mark, end, f"the line on which the {which} end lies", reach=out.at(angle)
            )
        else:
            assert given is not None
            ray = work.draw(
                mark, Way(given.length(slot).value), out.at(angle), f"the line of the {which} end"
            )
        if how == "round":
            arc = curves[f"{which}_end"]
            assert isinstance(arc, Arc)
            needle = work.prick(ray, sides["middle"], arc.centre, f"{name}.{which}")
            work.swing(needle, (outer - inner) / 2, f"{name}.{which}_end", shape=arc)
        for side, arc in (("outer", out), ("inner", back)):
            work.prick(ray, sides[side], arc.at(angle), f"the {which} end of {name}.{side}")


def _radii(args: Args) -> tuple[Number, Number, tuple[str, ...]]:
    between, radius = args.get("radii"), args.get("radius")
    if between:
        inner, outer = sorted((between.length("inner").value, between.length("outer").value))
        if inner == outer:
            raise ClauseError("the two radii of a slot differ", between.index)
        half, middle = (outer - inner) / 2, (inner + outer) / 2
        return (
            inner,
            outer,
            (
                f"middle ({args.say(inner)} + {args.say(outer)}) ÷ 2 = {args.say(middle)}, "
                f"half the width {args.say(half)}",
            ),
        )
    if radius is None:
        raise Wanting("a curved slot needs its middle radius and a width, or two radii")
    middle, width = radius.length("radius").value, args.need("width").length("width").value
    inner, outer = middle - width / 2, middle + width / 2
    if inner <= 0:
        raise ClauseError(
            "the slot is wider than its middle radius allows", args.need("width").index
        )
    sums = (
        f"{args.say(middle)} {sign} {args.say(width / 2)} = {args.say(side)}"
        for sign, side in (("−", inner), ("+", outer))
    )
    return inner, outer, tuple(sums)


def _bounds(
    args: Args, centre: Point, radii: dict[str, Number]
) -> tuple[float, float, tuple[Circle, ...], str]:
    """Return the angles at which a curved slot begins and ends, counter-clockwise, and the circles
    that give them."""
    angles, circles = args.get("angles"), args.get("between")
    if (angles is None) == (circles is None):
        raise Wanting("a curved slot runs from one angle to another, or between two circles")
    if angles:
        first, last = angles.length("first").value, angles.length("last").value
        words = f"from {spell_angle(first)} to {spell_angle(last)}"
        return math.radians(first), math.radians(last), (), words
    assert circles is not None
    on = _cut_on(args)
    found, bounds = [], []
    for slot, side in (("first", 1), ("second", -1)):
        bound = circles.shape(slot)
        assert isinstance(bound, Circle | Arc)
        bounds.append(Circle(bound.centre, bound.radius, bound.exact))
        found.append(_crossing(args, circles, slot, centre, radii[on], bounds[-1], side))
    words = (
        f"between {circles.ref('first').text} and {circles.ref('second').text}, cut at {WORDED[on]}"
    )
    return found[0], found[1], tuple(bounds), words


def _crossing(
    args: Args,
    clause: ClauseValues,
    slot: str,
    centre: Point,
    radius: Number,
    bound: Circle,
    side: int,
) -> float:
    """Return the direction of the crossing of a bounding circle that lies towards the slot."""
    spots = meet(Circle(centre, float(radius)), bound)
    if not spots:
        raise ClauseError(
            f"{clause.ref(slot).text} does not reach the slot: it never crosses the radius "
            f"{args.say(radius)}",
            clause.index,
        )
    towards = (bound.centre - centre).angle
    turned = [math.remainder((spot.point - centre).angle - towards, math.tau) for spot in spots]
    return towards + max(turned, key=lambda turn: turn * side)


def _following(
    centre: Point, inner: Number, outer: Number, bounds: tuple[Circle, ...], args: Args
) -> tuple[Arc, Arc, tuple[Curve, Curve]]:
    clause = args.need("between")
    angles = {
        (which, slot): _crossing(args, clause, slot, centre, radius, bounds[index], side)
        for which, radius in (("inner", inner), ("outer", outer))
        for index, (slot, side) in enumerate((("first", 1), ("second", -1)))
    }

    def arc(which: str, radius: Number) -> Arc:
        start = angles[which, "first"]
        return Arc(
            centre, float(radius), start, (angles[which, "second"] - start) % math.tau, radius
        )

    out, back = arc("outer", outer), arc("inner", inner)
    closing = (
        Arc.between(bounds[1], out.last, back.last),
        Arc.between(bounds[0], back.first, out.first),
    )
    return out, Arc(centre, back.radius, back.start + back.sweep, -back.sweep, inner), closing


ABOUT = """\
Straight with round ends: `from A to B`, or `centred on` a point with a `length` over all or `40
between centres`, `level`, `plumb`, `at` or `along`. Curved: `about` a point, `radius` and
`width` or two `radii`, and what bounds it: two angles, or two circles, with `ends` that are
`round`, `aiming` at the centre, or `following` the circles. Where circles bound it, it ends
where they cross its middle line, or `on inner` or `on outer` its sides: washers of the trade
are cut on the inner. Parts `upper lower` and `left right`, whichever way it lies, or `inner
outer`; `first_end`, `second_end`, and `first`, `second`, the middles of its ends.
"""

SHOWN = """\
units mm
O = datum
A = point, 30 right of O
B = point, 60 right of O, 10 above
track = slot, from A to B, width 12
way = slot, about O, radii 40 and 50, from 100° to 160°
pitch = circle, centre O, radius 75
at = spaced, 2 on pitch, from above
clear = circle, centre at, radius 20
long = slot, about O, radii 70 and 80, between clear.1 and clear.2
hole = line in, track
"""

KIND = Kind(
    name="slot",
    group="Ready shapes",
    summary="straight with round ends, or curved between two radii",
    example="track = slot, from A to B, width 12",
    mistake="The length over all is taken for the distance of the end centres: take the width off "
    "it first.",
    also=("oblong", "obround", "slotted hole", "long hole", "elongated hole"),
    forms=(
        Form("from {first:point} to {second:point}"),
        Form("from [angle] {first:angle} to {last:angle}", "angles"),
        Form("centred on {centre:point}", "centred"),
        Form("length {length:length}"),
        Form("{length:length} between centres", "between centres"),
        Form("width {width:length}"),
        Form("level"),
        Form("plumb"),
        Form("at {angle:angle}"),
        Form("along {line:line}"),
        Form("about {centre:point}"),
        Form("radius {radius:radius}"),
        Form("radii {inner:radius} [and] {outer:radius}"),
        Form("between {first:circle} [and] {second:circle}"),
        Form("on {which:middle/inner/outer} [radius]"),
        Form("ends {how:round/aiming/following}"),
    ),
    construct=construct,
    about=ABOUT,
    shown=SHOWN,
)
