"""``cylinder``: isometric, along one of the three axes; its hidden half is left as construction."""

from __future__ import annotations

import math

from ..geometry import Line, Loop, Point
from ..geometry.isometric import AXES, FORESHORTENED
from ..geometry.shapes import Curve
from ..geometry.silhouette import swept
from ..kind import Args, Kind, Made, Step, Stroke, Tool
from ..kind.parts import curve_run
from ..plan.errors import ClauseError
from ..plan.forms import Form
from .round_end import PLANE_OF, counter_clockwise, end_on


def construct(args: Args) -> Made:
    """Construct a cylinder from the middle of one end along an axis.

    Parts: ``end`` (the end that is seen whole), ``near`` (its half inside the outline), ``far`` (the seen half of the
    other), ``hidden`` (its other half),
    ``edge.1``, ``edge.2`` (touching both ends exactly), ``outline``, ``axis``, ``middle`` (of the end that is seen).

    Notes
    -----
    The straight edges run along the axis and touch the ends where the drawn curve reaches furthest across it: the ends
    of its long axis.
    """
    foot, name = args.need("from").point("foot"), args.need("from").ref("foot").text
    diameter, length = args.need("diameter").length("size"), args.need("length").length("length")
    word = args.need("along").word("axis") if args.get("along") else "up"
    scale = FORESHORTENED if args.foreshortened else 1.0
    if float(length) <= 0:
        raise ClauseError("a cylinder is more than nought long", args.need("length").clause)
    plane, axis = PLANE_OF[word], AXES[word]
    move = axis * (float(length) * scale)
    size = float(diameter) * scale
    # An upright one shows its upper end; one along a slanted axis the end that is nearer, which is lower on the paper.
    seen, other = (foot + move, foot) if word == "up" else (foot, foot + move)
    true = args.get("true") is not None
    end = end_on(f"{args.name}.end", seen, size, plane, true)
    view = swept(counter_clockwise(end), other - seen)
    touches, ends = view.touches, [spot + (other - seen) for spot in view.touches]
    parts: dict[str, Point | Curve | Loop] = {
        "end": end,
        "far": curve_run(f"{args.name}.far", view.far, closed=False),
        "near": curve_run(f"{args.name}.near", view.near, closed=False),
        "hidden": curve_run(f"{args.name}.hidden", view.hidden, closed=False),
        "edge.1": view.edges[0], "edge.2": view.edges[1], "touch.1": touches[0], "touch.2": touches[1],
        "touch.3": ends[0], "touch.4": ends[1], "middle": seen, "foot": foot,
        "axis": Line.between(foot, foot + move),
    }  # fmt: skip
    outline = curve_run(f"{args.name}.outline", view.outline)
    parts["outline"] = outline
    return Made(
        outline,
        f"Cylinder {args.name} from {name}, Ø{args.say(diameter.value)}, {args.say(length.value)} {word}, "
        f"its ends {'true' if true else 'by four centres'}.",
        (f"the edges touch {args.say(abs(touches[0] - touches[1]))} apart, at the ends of the long axis",),
        (
            Step(Tool.ANGLE, f"Draw the axis from {name} and set off the length", math.degrees(axis.angle) % 180,
                 strokes=(Stroke(parts["axis"]),)),
            Step(Tool.COMPASS, "Construct the end that is seen whole", strokes=(Stroke(end),)),
            Step(Tool.COMPASS, "Carry its centres along the axis and draw the seen half of the other end",
                 abs(move), strokes=(Stroke(parts["far"]), Stroke(parts["hidden"])),
                 check="the hidden half stays light"),
            Step(Tool.STRAIGHTEDGE, "Draw the edges along the axis, touching both ends",
                 strokes=tuple(Stroke(edge) for edge in view.edges), check="they run on without a corner"),
        ),
        parts,
    )  # fmt: skip


KIND = Kind(
    name="cylinder",
    group="Isometric",
    summary="isometric, along one of the three axes",
    example="post = cylinder, from P, diameter 40, length 60, along up",
    mistake="The straight edge starts from the end of the rhombus instead of where it touches the curve.",
    forms=(
        Form("from {foot:point}", needed=True),
        Form("diameter {size:diameter}", needed=True),
        Form("length {length:length}", needed=True),
        Form("along {axis:up/right/left}"),
        Form("true"),
        Form("projection"),
    ),
    construct=construct,
)
