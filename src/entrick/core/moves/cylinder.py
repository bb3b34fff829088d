"""``cylinder``: isometric, along one of the three axes; its hidden half is left as construction."""

from __future__ import annotations

import math

from ..geometry import Arc, Line, Loop, Point, shift
from ..geometry.isometric import AXES, FORESHORTENED, lean, rhombus, true_ellipse
from ..geometry.shapes import Curve
from ..kind import Args, Kind, Made, Step, Stroke, Tool
from ..parts import curve_run, run
from ..plan.errors import ClauseError
from ..plan.forms import Form
from ..tolerance import same

PLANE_OF = {"up": "top", "right": "left", "left": "right"}
"""The plane a cylinder along an axis has its ends on."""


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
    scale = FORESHORTENED if args.get("projection") else 1.0
    if float(length) <= 0:
        raise ClauseError("a cylinder is more than nought long", args.need("length").clause)
    plane, axis = PLANE_OF[word], AXES[word]
    move = axis * (float(length) * scale)
    size = float(diameter) * scale
    # An upright one shows its upper end; one along a slanted axis the end that is nearer, which is lower on the paper.
    seen, other = (foot + move, foot) if word == "up" else (foot, foot + move)
    true = args.get("true") is not None
    across = Point(math.cos(lean(plane)), math.sin(lean(plane)))
    out = (other - seen).unit
    if true:
        ellipse = true_ellipse(seen, size, plane)
        end = curve_run(f"{args.name}.end", ellipse.drawn(), ellipse)
        touches = [seen + ellipse.major, seen - ellipse.major]
        begin = 0.0 if ellipse.across.dot(out) > 0 else math.pi
        half: list[Curve] = list(ellipse.part(begin, begin + math.pi))
        rest: list[Curve] = list(ellipse.part(begin + math.pi, begin + math.tau))
        if begin:
            touches = touches[::-1]
    else:
        four = rhombus(seen, size, plane)
        end = run(f"{args.name}.end", [(f"arc{i}", arc) for i, arc in enumerate(four.arcs, 1)], True)
        small = [arc for arc in four.arcs if arc.radius == min(a.radius for a in four.arcs)]
        touches = [_furthest(small, across), _furthest(small, -across)]
        half, rest = _halves(four.arcs, touches, out)
    far = [shift(curve, other - seen) for curve in half]
    hidden = [shift(curve, other - seen) for curve in rest]
    ends = [spot + (other - seen) for spot in touches]
    edges = [Line.between(a, b) for a, b in zip(touches, ends, strict=True)]
    parts: dict[str, Point | Curve | Loop] = {
        "end": end,
        "far": curve_run(f"{args.name}.far", far, closed=False),
        "near": curve_run(f"{args.name}.near", half, closed=False),
        "hidden": curve_run(f"{args.name}.hidden", hidden, closed=False),
        "edge.1": edges[0], "edge.2": edges[1], "touch.1": touches[0], "touch.2": touches[1],
        "touch.3": ends[0], "touch.4": ends[1], "middle": seen, "foot": foot,
        "axis": Line.between(foot, foot + move),
    }  # fmt: skip
    outline = _outline(args.name, rest, far, edges)
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
                 strokes=tuple(Stroke(edge) for edge in edges), check="they run on from the curves without a corner"),
        ),
        parts,
    )  # fmt: skip


def _furthest(arcs: list[Arc], way: Point) -> Point:
    return max((arc.centre + way * arc.radius for arc in arcs), key=lambda spot: spot.dot(way))


def _halves(arcs: tuple[Arc, ...], touches: list[Point], out: Point) -> tuple[list[Curve], list[Curve]]:
    """Part a ring of arcs at two touch points: the half on the side of a direction first."""
    ring = (
        list(arcs) if arcs[0].sweep > 0 else [Arc(a.centre, a.radius, a.start + a.sweep, -a.sweep) for a in arcs[::-1]]
    )
    cut: list[Arc] = []
    for arc in ring:
        at = [spot for spot in touches if abs(abs(spot - arc.centre) - arc.radius) < same(arc.radius) * 100
              and 1e-9 < ((spot - arc.centre).angle - arc.start) % math.tau < arc.sweep - 1e-9]  # fmt: skip
        if at:
            turn = ((at[0] - arc.centre).angle - arc.start) % math.tau
            cut += [
                Arc(arc.centre, arc.radius, arc.start, turn),
                Arc(arc.centre, arc.radius, arc.start + turn, arc.sweep - turn),
            ]
        else:
            cut.append(arc)
    first = next(i for i, arc in enumerate(cut) if abs(arc.first - touches[0]) < same(arc.radius) * 1000)
    turned = cut[first:] + cut[:first]
    middle = next(i for i, arc in enumerate(turned) if abs(arc.last - touches[1]) < same(arc.radius) * 1000) + 1
    one, other = turned[:middle], turned[middle:]
    lies = sum(((arc.middle - touches[0]).dot(out) for arc in one), 0.0)
    swap = lies < sum(((arc.middle - touches[0]).dot(out) for arc in other), 0.0)
    return (list(other), list(one)) if swap else (list(one), list(other))


def _outline(name: str, near: list[Curve], far: list[Curve], edges: list[Line]) -> Loop:
    """Return the closed outline: the near half of the seen end, both edges, the far half of the other."""
    chains: list[list[Curve]] = [list(near), [edges[0]], list(far), [edges[1]]]
    spot = _last(near[-1])
    ordered: list[Curve] = list(near)
    left: list[list[Curve]] = chains[1:]
    while left:
        index, flip = next(
            (i, end)
            for i, chain in enumerate(left)
            for end in (False, True)
            if abs((_last(chain[-1]) if end else _first(chain[0])) - spot) < 1e-6 * (1 + abs(spot))
        )
        chain = left.pop(index)
        turned = [_turned(curve) for curve in chain[::-1]] if flip else chain
        ordered += turned
        spot = _last(turned[-1])
    return curve_run(f"{name}.outline", ordered)


def _first(curve: Curve) -> Point:
    return curve.first if isinstance(curve, Arc) else curve.at(curve.start or 0.0)  # type: ignore[union-attr]


def _last(curve: Curve) -> Point:
    return curve.last if isinstance(curve, Arc) else curve.at(curve.end or 0.0)  # type: ignore[union-attr]


def _turned(curve: Curve) -> Curve:
    if isinstance(curve, Arc):
        return Arc(curve.centre, curve.radius, curve.start + curve.sweep, -curve.sweep)
    return Line.between(_last(curve), _first(curve))


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
