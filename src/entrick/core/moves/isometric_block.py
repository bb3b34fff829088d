"""``isometric block``: a plate on the top, left or right plane, its corners rounded, so thick behind its face."""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from ..geometry import Arc, Line, Loop, Point
from ..geometry.isometric import FORESHORTENED, PLANES, SQUARE, rhombus
from ..geometry.shapes import Curve
from ..geometry.silhouette import Swept, swept
from ..kind import Args, Kind, Made, Role, Step, Stroke, Tool
from ..kind.parts import curve_run, run
from ..measure import spell_angle
from ..plan.errors import ClauseError
from ..plan.forms import Form
from ..tolerance import ROUND
from .round_end import counter_clockwise


@dataclass(frozen=True)
class _Block:
    """A block as it is drawn: its face from the lower left corner on, how far it goes back, what is seen of it."""

    middle: Point
    plane: str
    axes: tuple[Point, Point]
    corners: tuple[Point, ...]
    sides: tuple[tuple[str, Curve], ...]
    back: Point

    @property
    def rounds(self) -> tuple[Arc, ...]:
        return tuple(curve for _, curve in self.sides if isinstance(curve, Arc))


def construct(args: Args) -> Made:
    """Construct a block from the middle of the face that is seen.

    Parts: ``face`` (closed), ``outline``, ``near``, ``far``, ``hidden``, ``edge.1``, ``edge.2``, ``middle``, the square
    ``corner.1`` … and where the rounds begin, ``touch.1`` ….

    Notes
    -----
    A rounded corner is a quarter of an isometric circle whose centre is set in by the radius along both edges: by the
    rhombus its quarter at a sharp corner is the small arc, at a blunt one the large arc.
    """
    block = _read(args)
    face = run(f"{args.name}.face", block.sides, True)
    view = swept(counter_clockwise(face), block.back)
    outline = curve_run(f"{args.name}.outline", view.outline)
    size, thick = args.need("size"), args.need("thick").length("thick")
    return Made(
        outline,
        f"Isometric block {args.name} about {args.need('centred').ref('centre').text} on the {block.plane} plane, "
        f"{args.say(size.length('width').value)} by {args.say(size.length('height').value)}, "
        f"{args.say(thick.value)} thick.",
        _working(args, block.rounds),
        _steps(args, block, view),
        _parts(args, block, face, view, outline),
    )


def _read(args: Args) -> _Block:
    middle, plane = args.need("centred").point("centre"), args.need("plane").word("plane")
    size, thick, rounded = args.need("size"), args.need("thick").length("thick"), args.get("rounded")
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
    corners = tuple(
        middle + u * (width / 2 * i) + v * (height / 2 * j) for i, j in ((-1, -1), (1, -1), (1, 1), (-1, 1))
    )
    back = SQUARE[plane] * ((-1.0 if plane == "top" else 1.0) * float(thick) * scale)
    sides = tuple(_sides(corners, (u, v), radius, plane, ROUND * (width + height)))
    return _Block(middle, plane, (u, v), corners, sides, back)


def _sides(
    corners: Sequence[Point], axes: tuple[Point, Point], radius: float, plane: str, least: float
) -> Iterator[tuple[str, Curve]]:
    """Return the rounds and edges of the face in order; edges that the rounds leave nothing of are left out."""
    u, v = axes
    inward = [(u, v), (v, -u), (-u, -v), (-v, u)]
    for index, (corner, (along, back)) in enumerate(zip(corners, inward, strict=True)):
        if radius:
            yield f"round{index + 1}", _round(corner, along, back, radius, plane)
        start, end = corner + along * radius, corners[(index + 1) % 4] - along * radius
        if abs(end - start) > least:
            yield f"side{index + 1}", Line.between(start, end)


def _parts(args: Args, block: _Block, face: Loop, view: Swept, outline: Loop) -> dict[str, Point | Curve | Loop]:
    touches = [end for arc in block.rounds for end in (arc.first, arc.last)]
    stretches = {"near": view.near, "far": view.far, "hidden": view.hidden}
    return {
        "face": face,
        "outline": outline,
        **{word: curve_run(f"{args.name}.{word}", curves, closed=False) for word, curves in stretches.items()},
        "edge.1": view.edges[0],
        "edge.2": view.edges[1],
        "middle": block.middle,
        **{f"corner.{index}": corner for index, corner in enumerate(block.corners, 1)},
        **{f"touch.{index}": touch for index, touch in enumerate(touches, 1)},
    }


def _working(args: Args, rounds: Sequence[Arc]) -> tuple[str, ...]:
    if not rounds:
        return ()
    large, small = max(arc.radius for arc in rounds), min(arc.radius for arc in rounds)
    return (f"rounds: large R{args.say(large)} at blunt corners, small R{args.say(small)} at sharp ones",)


def _steps(args: Args, block: _Block, view: Swept) -> tuple[Step, ...]:
    corners, (first, second) = block.corners, (math.degrees(axis.angle) % 180 for axis in block.axes)
    box = tuple(Stroke(Line.between(a, b)) for a, b in zip(corners, (*corners[1:], corners[0]), strict=True))
    rounded = args.get("rounded")
    rounds = tuple(
        Step(Tool.COMPASS, f"Set in the round {args.say(rounded.length('radius').value)} along both edges, swing it",
             arc.radius, arc.centre, (Stroke(arc), Stroke(arc.first), Stroke(arc.last)))
        for arc in block.rounds if rounded
    )  # fmt: skip
    behind = tuple(Stroke(curve) for curve in (*view.edges, *view.far, *view.hidden))
    return (
        Step(Tool.ANGLE, f"Draw the face along the axes at {spell_angle(first)} and {spell_angle(second)}", first,
             strokes=(*box, Stroke(block.middle, Role.POINT))),
        *rounds,
        Step(Tool.DIVIDERS, "Carry corners and centres back by the thickness and repeat what is seen",
             abs(block.back), strokes=behind,
             check="the edges touch the rounds, they do not start from the square corners"),
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
