"""``isometric circle``: on the top, left or right plane, by the four-centre rhombus, true, or by template."""

from __future__ import annotations

import math

from ..geometry import Line, Loop, Point
from ..geometry.ellipse import departure
from ..geometry.isometric import FORESHORTENED, PLANES, FourCentres, lean, rhombus, true_ellipse
from ..geometry.shapes import Curve
from ..kind import Args, Kind, Made, Role, Step, Stroke, Tool
from ..kind.parts import curve_run, run
from ..measure import spell_angle
from ..plan.errors import ClauseError
from ..plan.forms import Form
from .ellipse import held_against


def construct(args: Args) -> Made:
    """Construct the isometric drawing of a circle about a centre.

    Parts: ``centre``, ``touch.1`` … ``touch.4`` (where it touches the middles of its rhombus), ``long`` and ``short``;
    by four centres ``arc.1`` … and ``true``.
    """
    centre, name = args.need("centred").point("centre"), args.need("centred").ref("centre").text
    across_it, half = args.get("diameter"), args.get("radius")
    if across_it and half:
        raise ClauseError("a circle takes a radius or a diameter, not both", half.clause)
    said = 2 * half.length("half").value if half else args.need("diameter", "radius").length("size").value
    plane = args.need("plane").word("plane")
    diameter = float(said) * (FORESHORTENED if args.foreshortened else 1.0)
    four, true = rhombus(centre, diameter, plane), true_ellipse(centre, diameter, plane)
    method = args.get("by")
    how = method.word("how") if method else "rhombus"
    if how == "rhombus":
        named = [(f"arc{index}", arc) for index, arc in enumerate(four.arcs, 1)]
        shape = run(args.name, named, True)
    else:
        shape = curve_run(args.name, true.drawn(), true)
    off, place = departure(true, four.arcs, math.pi / 2) if how == "rhombus" else (0.0, centre)
    turned = math.degrees(lean(plane)) % 180
    parts: dict[str, Point | Curve | Loop] = {
        "centre": centre,
        "long": Line.between(centre - true.major, centre + true.major),
        "short": Line.between(centre - true.across, centre + true.across),
        **{f"touch.{index}": touch for index, touch in enumerate(four.touches, 1)},
        **{piece.name.rpartition(".")[2]: piece.curve for piece in shape.pieces},
    }
    if how == "rhombus":
        parts["true"] = curve_run(f"{args.name}.true", true.drawn(), true)
    across = PLANES[plane]
    return Made(
        shape,
        f"Isometric circle {args.name} about {name} on the {plane} plane, Ø{args.say(said)}, "
        f"{'by four centres' if how == 'rhombus' else 'true' if how == 'points' else 'by template'}.",
        (
            f"its long axis lies at {spell_angle(turned)}, square to the axis the {plane} plane does not contain",
            f"true axes √1.5 × {args.say(diameter)} = {args.say(2 * true.a)} and √0.5 × {args.say(diameter)} = "
            f"{args.say(2 * true.b)}",
            *_told(args, four, diameter, off, place, true.centre, how),
        ),
        (
            *_steps(args, four, shape, diameter, across, how, centre),
            *((held_against(parts["true"], place),) if how == "rhombus" else ()),
        ),
        parts,
        f"{args.name}.centre",
        departs=off if how == "rhombus" else None,
    )


def _told(
    args: Args, four: FourCentres, diameter: float, off: float, place: Point, centre: Point, how: str
) -> list[str]:
    if how == "template":
        return [f"take the isometric template's Ø{args.say(diameter)} hole: the template goes by the circle"]
    if how == "points":
        return ["the curve is the true ellipse"]
    # On the long axis the small arc reaches from its centre on; on the short one the large arc from the far corner.
    long = abs(four.arcs[0].centre - centre) + four.arcs[0].radius
    across = four.arcs[1].radius - abs(four.corners[0] - centre)
    true = true_ellipse(centre, diameter, "top")
    short, wide = 100 * (1 - long / true.a), 100 * (across / true.b - 1)
    return [
        f"large radius √3/2 × {args.say(diameter)} = {args.say(four.arcs[1].radius)}",
        f"small radius {args.say(diameter)} ÷ 2√3 = {args.say(four.arcs[0].radius)}",
        f"it comes out {short:.1f} % short along the long axis and {wide:.1f} % wide across: {args.say(off)} at most, "
        f"{args.say(abs(place - centre))} from the centre",
    ]


def _steps(
    args: Args, four: FourCentres, shape: Loop, diameter: float, across: tuple[Point, Point], how: str, centre: Point
) -> tuple[Step, ...]:
    axes = tuple(
        Step(Tool.ANGLE, f"Through the centre draw the axis at {spell_angle(math.degrees(axis.angle))}",
             math.degrees(axis.angle) % 180,
             strokes=(Stroke(Line.between(centre - axis * (diameter * 0.6), centre + axis * (diameter * 0.6))),))
        for axis in across
    )  # fmt: skip
    corners = four.corners
    box = tuple(Stroke(Line.between(a, b)) for a, b in zip(corners, (*corners[1:], corners[0]), strict=True))
    touches = tuple(Stroke(touch, Role.POINT) for touch in four.touches)
    rhomb = Step(Tool.RULE, "Set off half the diameter each way on both axes and draw the rhombus", diameter / 2,
                 strokes=(*box, *touches), check="its sides are the diameter")  # fmt: skip
    if how == "template":
        check = "its marks lie on the axes; it does not lean the other way"
        return (*axes, Step(Tool.PENCIL, "Lay the template's marks on the axes and draw round the hole",
                            strokes=(Stroke(shape),), check=check))  # fmt: skip
    if how == "points":
        fair = Step(Tool.PENCIL, f"Draw {args.name} fair, touching the rhombus in the middle of every side",
                    strokes=(Stroke(shape),))  # fmt: skip
        return (*axes, rhomb, fair)
    lines = tuple(Stroke(Line.between(corners[k], four.touches[j])) for k, j in ((0, 1), (0, 2), (2, 3), (2, 0)))
    swings = tuple(
        Step(Tool.COMPASS, f"Swing the {'large' if index % 2 else 'small'} arc, touch to touch", arc.radius,
             arc.centre, (Stroke(arc),), "it runs into the next without a corner")
        for index, arc in sorted(enumerate(four.arcs), key=lambda pair: -pair[1].radius)
    )  # fmt: skip
    join = Step(Tool.STRAIGHTEDGE, "Draw from both blunt corners to the middles of the far sides: they cross in the "
                "small centres",
                strokes=(*lines, Stroke(four.arcs[0].centre), Stroke(four.arcs[2].centre)))  # fmt: skip
    return (*axes, rhomb, join, *swings)


KIND = Kind(
    name="isometric circle",
    group="Isometric",
    summary="on the top, left or right plane, by four centres, true or by template",
    example="eye = isometric circle, centred on P, diameter 40, on top",
    mistake="It leans the wrong way: the short axis lies along the axis the plane does not contain.",
    forms=(
        Form("centred on {centre:point}", "centred", needed=True),
        Form("diameter {size:diameter}"),
        Form("radius {half:radius}"),
        Form("on {plane:top/left/right} [plane]", "plane", needed=True),
        Form("by {how:rhombus/points/template}", "by"),
        Form("projection"),
    ),
    construct=construct,
)
