"""``slot``: straight with round ends; or curved between two radii, its ends given by angles or by other circles."""

from __future__ import annotations

import math

from ..geometry import Arc, Circle, Curve, Line, Point, meet, polar
from ..kind import Args, Kind, Made, Role, Said, Step, Stroke, Tool
from ..kind.parts import parts_of, run
from ..measure import Number, spell_angle
from ..plan.errors import ClauseError
from ..plan.forms import Form
from ..tolerance import same


def construct(args: Args) -> Made:
    """Construct a closed slot.

    Straight: between two end centres, or centred on a point with a length over all. Curved: about a centre, on a
    middle radius with a width or between two radii, from one angle to another or from one circle to another,
    counter-clockwise.
    """
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
    ends = tuple(
        Step(Tool.COMPASS, f"Needle on the {which} end centre, draw the round end", half, centre, (Stroke(curve),))
        for which, centre, curve in (("first", first, curves[3][1]), ("second", second, curves[1][1]))
    )
    sides = Step(
        Tool.STRAIGHTEDGE,
        "Join the rounds by their two tangents",
        strokes=(Stroke(curves[0][1]), Stroke(curves[2][1])),
        check=f"across the sides it measures {args.say(width.value)} at full size",
    )
    return Made(
        shape,
        f"Slot {args.name}, {told}, {args.say(width.value)} wide.",
        (f"{args.say(width.value)} ÷ 2 = {args.say(half)}: radius of the ends", *working),
        (*ends, sides),
        {
            **_sides(curves[0][1], curves[2][1], ahead.normal),
            **parts_of(shape),
            "first": first,
            "second": second,
            "centre": (first + second) * 0.5,
        },
    )


def _sides(right_hand: Curve, left_hand: Curve, across: Point) -> dict[str, Curve]:
    """Return both sides by every word that fits them, so that a name holds whatever the slot's angle is."""
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
        raise ClauseError("a straight slot runs from one end centre to another, or is centred on a point")
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
        worked = (f"{args.say(size.value)} − {args.say(2 * half)} = {args.say(apart)} between the end centres",)
        if apart <= 0:
            raise ClauseError("a slot is longer over all than it is wide", length.clause)
    direction = _direction(args)
    reach = direction * (float(apart) / 2)
    return middle - reach, middle + reach, f"centred on {name}, {args.say(size.value)} long", worked


def _direction(args: Args) -> Point:
    said = args.get("level", "plumb", "at", "along")
    if said is None or said.key == "level":
        return Point(1.0, 0.0)
    if said.key == "plumb":
        return Point(0.0, 1.0)
    if said.key == "along":
        return said.line("line").direction
    return polar(1.0, math.radians(float(said.length("angle"))))


def _curved(args: Args) -> Made:
    about = args.need("about")
    centre, name = about.point("centre"), about.ref("centre").text
    inner, outer, worked = _radii(args)
    middle = (inner + outer) / 2
    start, end, bounds, told = _bounds(args, centre, {"inner": inner, "middle": middle, "outer": outer})
    marks = _marked(args, centre, name, (start, end), {"inner": inner, "middle": middle, "outer": outer})
    sweep = (end - start) % math.tau or math.tau
    ends = args.get("ends")
    how = ends.word("how") if ends else ("aiming" if bounds else "round")
    if how == "following" and not bounds:
        raise ClauseError(
            "ends follow circles only where the slot is bounded by circles", ends.clause if ends else None
        )
    half = (outer - inner) / 2
    out, back = (Arc(centre, float(r), start, sweep, r) for r in (outer, inner))
    returning = Arc(centre, float(inner), start + sweep, -sweep, inner)
    if how == "aiming":
        closing: tuple[Curve, Curve] = (Line.between(out.last, back.last), Line.between(back.first, out.first))
    elif how == "round":
        spots = [centre + polar(float(middle), angle) for angle in (start, start + sweep)]
        closing = (
            Arc(spots[1], float(half), start + sweep, math.pi, half),
            Arc(spots[0], float(half), start + math.pi, math.pi, half),
        )
    else:
        out, returning, closing = _following(centre, inner, outer, bounds, args)
    curves = [("outer", out), ("second_end", closing[0]), ("inner", returning), ("first_end", closing[1])]
    shape = run(args.name, curves, True)
    arcs = tuple(
        Step(Tool.COMPASS, f"Needle on {name}, draw the {which} side", curve.size, centre, (Stroke(curve),))
        for which, curve in (("outer", out), ("inner", returning))
    )
    return Made(
        shape,
        f"Curved slot {args.name} about {name}, radii {args.say(inner)} and {args.say(outer)}, {told}.",
        (*worked, *_where_cut(args, how), f"it spans {spell_angle(math.degrees(sweep))}"),
        (*marks, *arcs, *(_end_step(name, curve, how) for curve in closing)),
        {
            **parts_of(shape),
            "middle": Arc(centre, float(middle), start, sweep, middle),
            "first": centre + polar(float(middle), start),
            "second": centre + polar(float(middle), start + sweep),
        },
        name,
    )


WORDED = {"inner": "the inner side", "middle": "the middle line", "outer": "the outer side"}
"""Where circles that bound a curved slot may cut it; washers of the trade are cut at the inner side."""


def _cut_on(args: Args) -> str:
    where = args.get("on")
    return where.word("which") if where else "middle"


def _where_cut(args: Args, how: str) -> tuple[str, ...]:
    """Say which place of a bounding circle ends the slot: it is a choice, and offices differ."""
    if args.get("between") is None or how == "following":
        return ()
    others = " or ".join(f"on {which}" for which in WORDED if which != _cut_on(args))
    said = "" if args.get("on") else f", as nothing is said; {others} takes another (washers: inner)"
    return (f"it ends where the circles cross {WORDED[_cut_on(args)]}{said}",)


def _marked(
    args: Args, centre: Point, name: str, angles: tuple[float, float], radii: dict[str, Number]
) -> tuple[Step, ...]:
    """Mark where the slot ends: at the crossings of the circles that bound it, or at the angles."""
    between, radius = args.get("between"), radii[_cut_on(args)]
    spots = [centre + polar(float(radius), angle) for angle in angles]
    if between is None:
        return tuple(
            Step(
                Tool.ANGLE,
                f"From {name} draw the line on which the {which} end lies",
                math.degrees(angle) % 360,
                strokes=(Stroke(Line.between(centre, spot)), Stroke(spot, Role.POINT)),
            )
            for which, angle, spot in zip(("first", "second"), angles, spots, strict=True)
        )
    light = Stroke(Arc(centre, float(radius), angles[0], (angles[1] - angles[0]) % math.tau or math.tau, radius))
    names = [between.ref(slot).text for slot in ("first", "second")]
    return (
        Step(Tool.COMPASS, f"Needle on {name}, draw {WORDED[_cut_on(args)]} lightly", radius, centre, (light,)),
        Step(
            Tool.PENCIL,
            f"Mark where {names[0]} and {names[1]} cross it: there the slot ends",
            strokes=tuple(Stroke(spot, Role.POINT) for spot in spots),
        ),
    )


def _radii(args: Args) -> tuple[Number, Number, tuple[str, ...]]:
    between, radius = args.get("radii"), args.get("radius")
    if between:
        inner, outer = sorted((between.length("inner").value, between.length("outer").value))
        if inner == outer:
            raise ClauseError("the two radii of a slot differ", between.clause)
        half, middle = (outer - inner) / 2, (inner + outer) / 2
        return inner, outer, (f"middle ({args.say(inner)} + {args.say(outer)}) ÷ 2 = {args.say(middle)}, "
                              f"half the width {args.say(half)}",)  # fmt: skip
    if radius is None:
        raise ClauseError("a curved slot needs its middle radius and a width, or two radii")
    middle, width = radius.length("radius").value, args.need("width").length("width").value
    inner, outer = middle - width / 2, middle + width / 2
    if inner <= 0:
        raise ClauseError("the slot is wider than its middle radius allows", args.need("width").clause)
    sums = (f"{args.say(middle)} {sign} {args.say(width / 2)} = {args.say(side)}" for sign, side in
            (("−", inner), ("+", outer)))  # fmt: skip
    return inner, outer, tuple(sums)


def _bounds(args: Args, centre: Point, radii: dict[str, Number]) -> tuple[float, float, tuple[Circle, ...], str]:
    """Return the angles at which a curved slot begins and ends, counter-clockwise, and the circles that give them."""
    angles, circles = args.get("angles"), args.get("between")
    if (angles is None) == (circles is None):
        raise ClauseError("a curved slot runs from one angle to another, or between two circles")
    if angles:
        first, last = angles.length("first").value, angles.length("last").value
        told = f"from {spell_angle(first)} to {spell_angle(last)}"
        return math.radians(first), math.radians(last), (), told
    assert circles is not None
    on = _cut_on(args)
    found, bounds = [], []
    for slot, side in (("first", 1), ("second", -1)):
        bound = circles.shape(slot)
        assert isinstance(bound, Circle | Arc)
        bounds.append(Circle(bound.centre, bound.radius, bound.exact))
        found.append(_crossing(args, circles, slot, centre, radii[on], bounds[-1], side))
    told = f"between {circles.ref('first').text} and {circles.ref('second').text}, cut at {WORDED[on]}"
    return found[0], found[1], tuple(bounds), told


def _crossing(args: Args, said: Said, slot: str, centre: Point, radius: Number, bound: Circle, side: int) -> float:
    """Return the direction of the crossing of a bounding circle that lies towards the slot."""
    spots = meet(Circle(centre, float(radius)), bound)
    if not spots:
        raise ClauseError(
            f"{said.ref(slot).text} does not reach the slot: it never crosses the radius {args.say(radius)}",
            said.clause,
        )
    towards = (bound.centre - centre).angle
    turned = [math.remainder((spot.point - centre).angle - towards, math.tau) for spot in spots]
    return towards + max(turned, key=lambda turn: turn * side)


def _following(
    centre: Point, inner: Number, outer: Number, bounds: tuple[Circle, ...], args: Args
) -> tuple[Arc, Arc, tuple[Curve, Curve]]:
    said = args.need("between")
    angles = {
        (which, slot): _crossing(args, said, slot, centre, radius, bounds[index], side)
        for which, radius in (("inner", inner), ("outer", outer))
        for index, (slot, side) in enumerate((("first", 1), ("second", -1)))
    }

    def arc(which: str, radius: Number) -> Arc:
        start = angles[which, "first"]
        return Arc(centre, float(radius), start, (angles[which, "second"] - start) % math.tau, radius)

    out, back = arc("outer", outer), arc("inner", inner)
    closing = (Arc.between(bounds[1], out.last, back.last), Arc.between(bounds[0], back.first, out.first))
    return out, Arc(centre, back.radius, back.start + back.sweep, -back.sweep, inner), closing


def _end_step(name: str, curve: Curve, how: str) -> Step:
    if isinstance(curve, Line):
        return Step(Tool.STRAIGHTEDGE, f"Close the end by a line that aims at {name}", strokes=(Stroke(curve),))
    assert isinstance(curve, Arc)
    text = "Draw the round end" if how == "round" else "Close the end along the bounding circle"
    spot = Stroke(curve.centre, Role.POINT)
    return Step(Tool.COMPASS, text, curve.size, curve.centre, (spot, Stroke(curve)))


KIND = Kind(
    name="slot",
    group="Ready shapes",
    summary="straight with round ends, or curved between two radii",
    example="track = slot, from A to B, width 12",
    mistake="The length over all is taken for the distance of the end centres: take the width off it first.",
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
)
