"""``isometric circle``: on the top, left or right plane, by the four-centre rhombus, true, or by
template."""

from __future__ import annotations

import math
from functools import partial

from ..acts import Work
from ..geometry import Line, Loop, Point
from ..geometry.ellipse import departure
from ..geometry.isometric import FORESHORTENED, FourCentres, lean, rhombus, true_ellipse
from ..geometry.shapes import Curve, Shape
from ..kind import Args, Kind, Made
from ..kind.parts import curve_run, run
from ..measure import Number, spell_angle
from ..plan.errors import ClauseError
from ..plan.forms import Form
from .ellipse import held_against
from .round_end import draw_round, draw_touches

MADE_BY = {"rhombus": "by four centres", "points": "true"}
"""What a sentence says of the way it is made; all others go by a template."""


def construct(args: Args) -> Made:
    """Construct the isometric drawing of a circle about a centre.

    Parts: ``centre``, ``touch.1`` … ``touch.4`` (where it touches the middles of its rhombus),
    ``long`` and ``short``; by four centres ``arc.1`` … and ``true``."""
    centre, name = args.need("centred").point("centre"), args.need("centred").ref("centre").text
    across_it, half = args.get("diameter"), args.get("radius")
    if across_it and half:
        raise ClauseError("a circle takes a radius or a diameter, not both", half.index)
    said = (
        2 * half.length("half").value
        if half
        else args.need("diameter", "radius").length("size").value
    )
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
    return Made(
        shape,
        f"Isometric circle {args.name} about {name} on the {plane} plane, Ø{args.say(said)}, "
        f"{MADE_BY.get(how, 'by template')}.",
        (
            f"its long axis lies at {spell_angle(turned)}, square to the axis the {plane} plane "
            "does not contain",
            f"true axes √1.5 × {args.say(diameter)} = {args.say(2 * true.a)} and √0.5 × "
            f"{args.say(diameter)} = "
            f"{args.say(2 * true.b)}",
            *_described(args, four, diameter, off, place, true.centre, how),
        ),
        parts=parts,
        centre_name=f"{args.name}.centre",
        draw=partial(_draw, args, said, plane, how, shape, (parts.get("true"), place)),
        departs=off if how == "rhombus" else None,
    )


def _described(
    args: Args,
    four: FourCentres,
    diameter: float,
    off: float,
    place: Point,
    centre: Point,
    how: str,
) -> list[str]:
    if how == "template":
        return [
            f"take the isometric template's Ø{args.say(diameter)} hole: the template goes by the "
            "circle"
        ]
    if how == "points":
        return ["the curve is the true ellipse"]
    # On the long axis the small arc reaches from its centre on; on the short one the large arc from
    # the far corner.
    long = abs(four.arcs[0].centre - centre) + four.arcs[0].radius
    across = four.arcs[1].radius - abs(four.corners[0] - centre)
    true = true_ellipse(centre, diameter, "top")
    short, wide = 100 * (1 - long / true.a), 100 * (across / true.b - 1)
    return [
        f"large radius √3/2 × {args.say(diameter)} = {args.say(four.arcs[1].radius)}",
        f"small radius {args.say(diameter)} ÷ 2√3 = {args.say(four.arcs[0].radius)}",
        f"it comes out {short:.1f} % short along the long axis and {wide:.1f} % wide across: "
        f"{args.say(off)} at most, "
        f"{args.say(abs(place - centre))} from the centre",
    ]


def _draw(
    args: Args,
    said: Number,
    plane: str,
    how: str,
    shape: Loop,
    beside: tuple[Shape | Loop | None, Point],
    work: Work,
) -> None:
    centre = work.mark(
        args.need("centred").point("centre"), args.need("centred").ref("centre").text
    )
    size: Number = float(said) * FORESHORTENED if args.foreshortened else said
    if how == "template":
        _, touches = draw_touches(work, centre, size, plane, args.name)
        work.trace(
            touches,
            shape,
            args.name,
            tool="isometric template",
            check="it does not lean the other way",
        )
        return
    draw_round(work, centre, size, plane, args.name, how == "points")
    true, place = beside
    if true is not None:
        held_against(work, true, place)


ABOUT = """\
By `diameter` or `radius`, on the `top`, `left` or `right` plane, `by rhombus` (four centres,
the usual), `by points` (the true ellipse) or `by template`. `projection` shortens by √(2/3).
Parts `centre`, `touch.1` to `touch.4`, `long`, `short`; by four centres `true`.

Circles on the three planes about the corner of a box give a quarter each; together they close:

```entrick
units mm
O = datum
a = isometric circle, centred on O, diameter 60, on top
b = isometric circle, centred on O, diameter 60, on left
c = isometric circle, centred on O, diameter 60, on right
rim = line in, a.arc4 > b.arc4 > c.arc4
```
"""

SHOWN = """\
units mm
O = datum
block = isometric box, from O, 60 by 40 by 30
lid = isometric circle, centred on block.top_middle, diameter 30, on top
eye = isometric circle, centred on block.right_middle, diameter 20, on right, by points
rim = line in, lid
"""

KIND = Kind(
    name="isometric circle",
    group="Isometric",
    summary="on the top, left or right plane, by four centres, true or by template",
    example="eye = isometric circle, centred on P, diameter 40, on top",
    mistake="It leans the wrong way: the short axis lies along the axis the plane does not "
    "contain.",
    also=("isometric ellipse",),
    forms=(
        Form("centred on {centre:point}", "centred", needed=True),
        Form("diameter {size:diameter}"),
        Form("radius {half:radius}"),
        Form("on {plane:top/left/right} [plane]", "plane", needed=True),
        Form("by {how:rhombus/points/template}", "by"),
        Form("projection"),
    ),
    construct=construct,
    about=ABOUT,
    shown=SHOWN,
)
