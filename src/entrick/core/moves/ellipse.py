"""``ellipse``: from its axes, or one axis and a point; by circles, trammel, rectangle, foci or four centres."""

from __future__ import annotations

import math
from collections.abc import Callable

from ..geometry import Arc, Circle, Line, Loop, Point, polar
from ..geometry.ellipse import Ellipse, departure, four_centres
from ..geometry.shapes import Curve, Shape
from ..kind import Args, Kind, Made, Role, Step, Stroke, Tool
from ..kind.parts import curve_run, run
from ..measure import spell_angle
from ..plan.errors import ClauseError
from ..plan.forms import Form
from ..tolerance import assembled, same

METHODS = ("circles", "trammel", "rectangle", "foci", "four centres")


def construct(args: Args) -> Made:
    """Construct an ellipse about a centre, its long axis level unless it is tilted.

    Parts: ``centre``, ``long`` and ``short`` (its axes), ``right top left bottom`` (their ends), ``focus.1``,
    ``focus.2``; ``true``, the true ellipse, beside one drawn about four centres.
    """
    centre, name = args.need("centred").point("centre"), args.need("centred").ref("centre").text
    ellipse = _ellipse(args, centre)
    method = _method(args)
    if method == "four centres":
        if ellipse.a - ellipse.b <= assembled(ellipse.a):
            raise ClauseError("both axes are alike: it is a circle, and the compass draws it")
        arcs = four_centres(ellipse)
        shape = run(args.name, list(zip(("right", "top", "left", "bottom"), arcs, strict=True)), True)
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
    off, place = departure(ellipse, four_centres(ellipse), math.pi / 2) if method == "four centres" else (None, centre)
    beside = (held_against(parts["true"], place),) if method == "four centres" else ()
    return Made(
        shape,
        f"Ellipse {args.name} about {name}, {args.say(2 * a)} by {args.say(2 * b)}{tilted}, by {method}.",
        working,
        (*_axes(args, ellipse), *_STEPS[method](args, ellipse, shape), *beside),
        parts,
        f"{args.name}.centre",
        departs=off,
    )


def held_against(true: Shape | Loop, place: Point) -> Step:
    """Return the step that shows the true curve beside one drawn by arcs, and where they are furthest apart."""
    return Step(
        Tool.PENCIL,
        "Beside it, lightly, the true ellipse through a few of its points",
        strokes=(Stroke(true), Stroke(place, Role.POINT)),
        check="the arcs are furthest from it at the point that is pricked",
    )


def _ellipse(args: Args, centre: Point) -> Ellipse:
    axes, axis, through = args.get("axes"), args.get("axis"), args.get("through")
    turn = math.radians(args.number("at", usual=0.0))
    if (axes is None) == (axis is None):
        raise ClauseError("an ellipse has both its axes, or one axis and a point it goes through")
    if axes:
        first, second = float(axes.length("first")), float(axes.length("second"))
        if min(first, second) <= 0:
            raise ClauseError("the axes of an ellipse are more than nought", axes.clause)
        if first >= second:
            return Ellipse(centre, polar(first / 2, turn), second / 2)
        return Ellipse(centre, polar(second / 2, turn + math.pi / 2), first / 2)
    assert axis is not None
    if through is None:
        raise ClauseError("beside one axis an ellipse needs a point: through P", axis.clause)
    half, spot = float(axis.length("first")) / 2, through.point("point") - centre
    x, y = spot.dot(polar(1.0, turn)), spot.dot(polar(1.0, turn + math.pi / 2))
    if half <= 0 or abs(x) >= half or abs(y) <= same(half):
        raise ClauseError(
            "the point lies beyond the ends of the axis, or on it: no ellipse goes through", through.clause
        )
    other = abs(y) / math.sqrt(1 - (x / half) ** 2)
    if half >= other:
        return Ellipse(centre, polar(half, turn), other)
    return Ellipse(centre, polar(other, turn + math.pi / 2), half)


def _method(args: Args) -> str:
    said = args.get("by")
    return {"centres": "four centres"}.get(said.word("how"), said.word("how")) if said else "circles"


def _compared(args: Args, ellipse: Ellipse, method: str) -> tuple[str, ...]:
    if method != "four centres":
        return ("the curve is the true ellipse; its points are computed",)
    off, place = departure(ellipse, four_centres(ellipse), math.pi / 2)
    ahead = place - ellipse.centre
    where = (
        f"{args.say(abs(ahead.dot(ellipse.major.unit)))} along and {args.say(abs(ahead.dot(ellipse.across.unit)))} up"
    )
    c = math.hypot(ellipse.a, ellipse.b)
    less = ellipse.a - ellipse.b
    arcs = four_centres(ellipse)
    return (
        f"join the ends of the axes: √({args.say(ellipse.a)}² + {args.say(ellipse.b)}²) = {args.say(c)}",
        f"({args.say(c)} − {args.say(less)}) × {args.say(c)} ÷ {args.say(2 * ellipse.a)} = R{args.say(arcs[0].radius)}",
        f"({args.say(c)} + {args.say(less)}) × {args.say(c)} ÷ {args.say(2 * ellipse.b)} = R{args.say(arcs[1].radius)}",
        f"it departs {args.say(off)} at most from the true ellipse, {where} from the centre",
    )


def _axes(args: Args, ellipse: Ellipse) -> tuple[Step, ...]:
    ends = [ellipse.centre + ellipse.major, ellipse.centre - ellipse.major]
    short = [ellipse.centre + ellipse.across, ellipse.centre - ellipse.across]
    tilt = math.degrees(ellipse.major.angle) % 180
    return (
        Step(
            Tool.ANGLE,
            f"Draw the long axis of {args.name} through its centre, set off half of it each way",
            tilt,
            strokes=(Stroke(Line.between(ends[1], ends[0])), Stroke(ends[0]), Stroke(ends[1])),
        ),
        Step(
            Tool.ANGLE,
            "Draw the short axis square to it, set off half of it each way",
            (tilt + 90) % 180,
            strokes=(Stroke(Line.between(short[1], short[0])), Stroke(short[0]), Stroke(short[1])),
        ),
    )


def _finish(args: Args, shape: Loop) -> Step:
    return Step(
        Tool.PENCIL,
        f"Draw {args.name} fair through the points with the French curve",
        strokes=(Stroke(shape),),
        check="it is square to the axes at their ends: no point there",
    )


PARTS = 12


def _by_circles(args: Args, ellipse: Ellipse, shape: Loop) -> tuple[Step, ...]:
    """Radii cut both circles; plumb from the outer and level from the inner cut meet on the ellipse."""
    outer, inner = Circle(ellipse.centre, ellipse.a), Circle(ellipse.centre, ellipse.b)
    base = ellipse.major.angle
    turns = [math.tau * index / PARTS for index in range(PARTS)]
    rays = tuple(Stroke(Line.between(ellipse.centre, outer.at(base + turn))) for turn in turns)
    drops: list[Stroke] = []
    for turn in turns:
        spot = ellipse.at(turn)
        for circle in (outer, inner):
            if abs(circle.at(base + turn) - spot) > same(ellipse.a):
                drops.append(Stroke(Line.between(circle.at(base + turn), spot)))
        drops.append(Stroke(spot, Role.POINT))
    return (
        Step(Tool.COMPASS, "Draw the circle on the long axis", ellipse.a, ellipse.centre, (Stroke(outer),)),
        Step(Tool.COMPASS, "Draw the circle on the short axis", ellipse.b, ellipse.centre, (Stroke(inner),)),
        Step(Tool.ANGLE, f"Divide both in {PARTS} by radii", 30, strokes=rays),
        Step(
            Tool.STRAIGHTEDGE,
            "Draw from every outer cut parallel to the short axis, from every inner one to the long: "
            "they meet on the ellipse",
            strokes=tuple(drops),
        ),
        _finish(args, shape),
    )


def _by_trammel(args: Args, ellipse: Ellipse, shape: Loop) -> tuple[Step, ...]:
    """A strip with half the long axis and half the short one marked from its end: the marks run on the axes."""
    strips: list[Stroke] = []
    for index in range(1, PARTS):
        turn = math.tau * index / PARTS
        spot = ellipse.at(turn)
        on_long = ellipse.centre + ellipse.major.unit * (math.cos(turn) * (ellipse.a - ellipse.b))
        on_short = ellipse.centre - ellipse.across.unit * (math.sin(turn) * (ellipse.a - ellipse.b))
        if abs(on_short - spot) > same(ellipse.a):
            strips += [Stroke(Line.between(on_short, spot)), Stroke(on_long), Stroke(spot, Role.POINT)]
    return (
        Step(Tool.RULE, "On the edge of a paper strip mark half the long axis from its end", ellipse.a),
        Step(Tool.RULE, "and half the short axis from the same end", ellipse.b),
        Step(
            Tool.PENCIL,
            "Keep the outer mark on the short axis, the inner on the long one; prick at the end of the "
            "strip as it turns",
            strokes=tuple(strips),
            check="both marks lie on their axes each time",
        ),
        _finish(args, shape),
    )


def _by_rectangle(args: Args, ellipse: Ellipse, shape: Loop) -> tuple[Step, ...]:
    """Intersecting lines: half the long axis and the side of the box divided alike, joined from both short ends."""
    parts = 4
    out, up = ellipse.major, ellipse.across
    box = [ellipse.centre + out * i + up * j for i, j in ((-1, -1), (1, -1), (1, 1), (-1, 1))]
    strokes: list[Stroke] = []
    for i in (1, -1):
        for j in (1, -1):
            for index in range(1, parts):
                share = index / parts
                side = ellipse.centre + out * i + up * (j * share)
                axis = ellipse.centre + out * (i * (1 - share))
                far, near = ellipse.centre - up * j, ellipse.centre + up * j
                spot = _cross(far, axis, near, side)
                strokes += [Stroke(Line.between(near, side)), Stroke(Line.between(far, spot)), Stroke(spot, Role.POINT)]
    edges = tuple(Stroke(Line.between(a, b)) for a, b in zip(box, [*box[1:], box[0]], strict=True))
    return (
        Step(Tool.STRAIGHTEDGE, "Draw the rectangle on the axes", strokes=edges),
        Step(
            Tool.DIVIDERS,
            f"Divide half the long axis and half the end of the box in {parts} alike",
            ellipse.a / parts,
            ellipse.centre,
        ),
        Step(
            Tool.STRAIGHTEDGE,
            "Join the divisions of the box to the near end of the short axis, those of the axis "
            "to the far one and on: they meet on the ellipse",
            strokes=tuple(strokes),
        ),
        _finish(args, shape),
    )


def _cross(a: Point, b: Point, c: Point, d: Point) -> Point:
    first, second = b - a, d - c
    return a + first * ((c - a).cross(second) / first.cross(second))


def _by_foci(args: Args, ellipse: Ellipse, shape: Loop) -> tuple[Step, ...]:
    """Distances to the foci add up to the long axis: swings of r and 2a − r cross on it."""
    f1, f2 = ellipse.foci
    steps = [
        Step(
            Tool.COMPASS,
            "Half the long axis in the compass, needle on the end of the short one: cut the foci",
            ellipse.a,
            ellipse.centre + ellipse.across,
            (Stroke(f1, Role.POINT, "F"), Stroke(f2, Role.POINT, "F")),
        ),
    ]
    for index in range(1, 6):
        turn = math.pi / 2 * index / 6
        spots = [ellipse.at(t) for t in (turn, -turn, math.pi - turn, math.pi + turn)]
        near = abs(spots[0] - f1)
        arcs = [
            (f1, near, spots[:2]),
            (f2, 2 * ellipse.a - near, spots[:2]),
            (f2, near, spots[2:]),
            (f1, 2 * ellipse.a - near, spots[2:]),
        ]
        strokes = [Stroke(Arc(at, r, (spot - at).angle - 0.06, 0.12)) for at, r, both in arcs if r > 0 for spot in both]
        strokes += [Stroke(spot, Role.POINT) for spot in spots]
        steps.append(
            Step(
                Tool.COMPASS,
                f"Take any part of the long axis, swing from each focus, and what is left of it "
                f"from the other: crossing {index}",
                near,
                f1,
                tuple(strokes),
            )
        )
    return (*steps, _finish(args, shape))


def _by_four_centres(args: Args, ellipse: Ellipse, shape: Loop) -> tuple[Step, ...]:
    arcs = four_centres(ellipse)
    right, top = ellipse.centre + ellipse.major, ellipse.centre + ellipse.across
    less = ellipse.a - ellipse.b
    cut = top + (right - top).unit * less
    middle = (right + cut) * 0.5
    names = ("right", "top", "left", "bottom")
    swings = tuple(
        Step(
            Tool.COMPASS,
            f"Needle on the centre, swing the {name} arc from line to line",
            arc.radius,
            arc.centre,
            (Stroke(arc),),
            "it runs into the next without a corner",
        )
        for name, arc in zip(names, arcs, strict=True)
    )
    return (
        Step(
            Tool.STRAIGHTEDGE,
            "Join the ends of the long and the short axis",
            strokes=(Stroke(Line.between(right, top)),),
        ),
        Step(
            Tool.COMPASS,
            "Needle on the end of the short axis, take the difference of the halves off the join",
            less,
            top,
            (Stroke(Arc(top, less, (cut - top).angle - 0.15, 0.3)), Stroke(cut)),
        )
        if less > same(ellipse.a)
        else Step(Tool.PENCIL, "The axes are equal: it is a circle"),
        Step(
            Tool.STRAIGHTEDGE,
            "Bisect what is left squarely, and run the bisector to both axes: two centres",
            strokes=(Stroke(Line.between(middle, arcs[1].centre)), Stroke(arcs[0].centre), Stroke(arcs[1].centre)),
        ),
        Step(
            Tool.DIVIDERS,
            "Carry both centres to the other side",
            abs(arcs[0].centre - ellipse.centre),
            ellipse.centre,
            (Stroke(arcs[2].centre), Stroke(arcs[3].centre)),
        ),
        Step(
            Tool.STRAIGHTEDGE,
            "Draw the lines of centres through: the arcs meet on them",
            strokes=tuple(
                Stroke(Line.between(arcs[i].centre, arcs[j].last if j % 2 == 0 else arcs[j].first))
                for i, j in ((1, 0), (1, 2), (3, 2), (3, 0))
            ),
        ),
        *swings,
    )


_STEPS: dict[str, Callable[[Args, Ellipse, Loop], tuple[Step, ...]]] = {
    "circles": _by_circles,
    "trammel": _by_trammel,
    "rectangle": _by_rectangle,
    "foci": _by_foci,
    "four centres": _by_four_centres,
}


KIND = Kind(
    name="ellipse",
    group="Curves",
    summary="from its axes or one axis and a point, by any of five methods",
    example="hatch1 = ellipse, centred on O, axes 90 and 56, by four centres",
    mistake="The whole axis is set off from the centre instead of half; arcs are joined off their line of centres.",
    forms=(
        Form("centred on {centre:point}", "centred", needed=True),
        Form("axes {first:length} and {second:length}", "axes"),
        Form("axis {first:length}", "axis"),
        Form("through {point:point}", "through"),
        Form("at {angle:angle}"),
        Form("by {how:circles/trammel/rectangle/foci}", "by"),
        Form("by four {how:centres}", "by"),
    ),
    construct=construct,
)
