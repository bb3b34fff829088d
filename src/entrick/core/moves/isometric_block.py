"""``isometric block``: a plate on the top, left or right plane, its corners rounded, so thick behind its face."""

from __future__ import annotations

import math

from ..geometry import Arc, Line, Loop, Point
from ..geometry.isometric import FORESHORTENED, PLANES, SQUARE, rhombus
from ..geometry.shapes import Curve
from ..geometry.silhouette import swept
from ..kind import Args, Kind, Made, Role, Step, Stroke, Tool
from ..kind.parts import curve_run, run
from ..measure import spell_angle
from ..plan.errors import ClauseError
from ..plan.forms import Form
from ..tolerance import ROUND
from .cylinder import counter_clockwise


def construct(args: Args) -> Made:
    """Construct a block from the middle of the face that is seen.

    Parts: ``face`` (closed), ``outline``, ``near``, ``far``, ``hidden``, ``edge.1``, ``edge.2``, ``middle``, the square
    ``corner.1`` … and where the rounds begin, ``touch.1`` ….

    Notes
    -----
    A rounded corner is a quarter of an isometric circle whose centre is set in by the radius along both edges: by the
    rhombus its quarter at a sharp corner is the small arc, at a blunt one the large arc.
    """
    middle, name = args.need("centred").point("centre"), args.need("centred").ref("centre").text
    size, plane = args.need("size"), args.need("plane").word("plane")
    thick, rounded = args.need("thick").length("thick"), args.get("rounded")
    scale = FORESHORTENED if args.foreshortened else 1.0
    width, height = float(size.length("width")) * scale, float(size.length("height")) * scale
    radius = float(rounded.length("radius")) * scale if rounded else 0.0
    if min(width, height, float(thick)) <= 0:
        raise ClauseError("a block is more than nought each way", size.clause)
    if rounded and not 0 < 2 * radius <= min(width, height):
        raise ClauseError("the rounds of a block are at most half its shorter edge", rounded.clause)
    u, v = PLANES[plane]
    if u.cross(v) < 0:
        u, v = v, u
        width, height = height, width
    corners = [middle + u * (width / 2 * i) + v * (height / 2 * j) for i, j in ((-1, -1), (1, -1), (1, 1), (-1, 1))]
    inward = [(u, v), (v, -u), (-u, -v), (-v, u)]
    pieces: list[tuple[str, Curve]] = []
    touches: list[Point] = []
    for index, (corner, (along, back)) in enumerate(zip(corners, inward, strict=True)):
        following = corners[(index + 1) % 4]
        if radius:
            arc = _round(corner, along, back, radius, plane)
            touches += [arc.first, arc.last]
            pieces.append((f"round{index + 1}", arc))
        start, end = corner + along * radius, following - along * radius
        if abs(end - start) > ROUND * (width + height):
            pieces.append((f"side{index + 1}", Line.between(start, end)))
    face = run(f"{args.name}.face", pieces, True)
    away = SQUARE[plane] * ((-1.0 if plane == "top" else 1.0) * float(thick) * scale)
    view = swept(counter_clockwise(face), away)
    parts: dict[str, Point | Curve | Loop] = {
        "face": face,
        "outline": curve_run(f"{args.name}.outline", view.outline),
        "near": curve_run(f"{args.name}.near", view.near, closed=False),
        "far": curve_run(f"{args.name}.far", view.far, closed=False),
        "hidden": curve_run(f"{args.name}.hidden", view.hidden, closed=False),
        "edge.1": view.edges[0], "edge.2": view.edges[1], "middle": middle,
        **{f"corner.{index}": corner for index, corner in enumerate(corners, 1)},
        **{f"touch.{index}": touch for index, touch in enumerate(touches, 1)},
    }  # fmt: skip
    outline = parts["outline"]
    assert isinstance(outline, Loop)
    box = tuple(Stroke(Line.between(a, b)) for a, b in zip(corners, (*corners[1:], corners[0]), strict=True))
    arcs = [curve for _, curve in pieces if isinstance(curve, Arc)]
    rounds = tuple(
        Step(Tool.COMPASS, f"Set in the round {args.say(rounded.length('radius').value)} along both edges, swing it",
             arc.radius, arc.centre, (Stroke(arc), Stroke(arc.first), Stroke(arc.last)))
        for arc in arcs if rounded
    )  # fmt: skip
    back_strokes = (*(Stroke(edge) for edge in view.edges), *(Stroke(curve) for curve in (*view.far, *view.hidden)))
    return Made(
        outline,
        f"Isometric block {args.name} about {name} on the {plane} plane, {args.say(size.length('width').value)} by "
        f"{args.say(size.length('height').value)}, {args.say(thick.value)} thick.",
        (f"rounds: large R{args.say(max(a.radius for a in arcs))} at blunt corners, small R"
         f"{args.say(min(a.radius for a in arcs))} at sharp ones",) if arcs else (),
        (
            Step(Tool.ANGLE, f"Draw the face along the axes at {spell_angle(math.degrees(u.angle) % 180)} and "
                 f"{spell_angle(math.degrees(v.angle) % 180)}", math.degrees(u.angle) % 180,
                 strokes=(*box, Stroke(middle, Role.POINT))),
            *rounds,
            Step(Tool.DIVIDERS, "Carry corners and centres back by the thickness and repeat what is seen", abs(away),
                 strokes=back_strokes, check="the edges touch the rounds, they do not start from the square corners"),
        ),
        parts,
    )  # fmt: skip


def _round(corner: Point, along: Point, back: Point, radius: float, plane: str) -> Arc:
    """Return the quarter of an isometric circle in a corner, counter-clockwise from the edge that comes in."""
    centre = corner + (along + back) * radius
    wanted = (corner + back * radius, corner + along * radius)
    quarters = [
        arc if arc.sweep > 0 else Arc(arc.centre, arc.radius, arc.start + arc.sweep, -arc.sweep)
        for arc in rhombus(centre, 2 * radius, plane).arcs
    ]
    return min(quarters, key=lambda arc: abs(arc.first - wanted[0]) + abs(arc.last - wanted[1]))


KIND = Kind(
    name="isometric block",
    group="Isometric",
    summary="a plate on any plane, its corners rounded, so thick",
    example="lock = isometric block, centred on P, 60 by 40, on right, thick 22, rounded 8",
    mistake="The round is set in along one edge only, or drawn with the circle's own radius.",
    forms=(
        Form("centred on {centre:point}", "centred", needed=True),
        Form("{width:length} by {height:length}", "size", needed=True),
        Form("on {plane:top/left/right} [plane]", "plane", needed=True),
        Form("thick {thick:length}", needed=True),
        Form("rounded {radius:length}", "rounded"),
        Form("projection"),
    ),
    construct=construct,
)
