"""``cone``: isometric, from the middle of its base along an axis to its apex."""

from __future__ import annotations

from functools import partial

from ..acts import Work
from ..geometry import Line, Loop, Point
from ..geometry.isometric import AXES, FORESHORTENED, rhombus, tangents_to_arcs, true_ellipse
from ..geometry.loop import distance
from ..geometry.partial import Place, between
from ..geometry.shapes import Curve
from ..kind import Args, Kind, Made
from ..kind.parts import curve_run, run
from ..plan.errors import ClauseError
from ..plan.forms import Form
from .round_end import PLANE_OF, draw_axis, draw_round, draw_tangents


def construct(args: Args) -> Made:
    """Construct a cone: its base, and the two edges from the apex that touch the base as it is
    drawn.

    It is its outline. Parts: ``base`` (the whole curve), ``near`` and ``hidden`` (what is seen of
    it and what not), ``edge.1``, ``edge.2``, ``touch.1``, ``touch.2``, ``apex``, ``axis``."""
    foot, name = args.need("from").point("foot"), args.need("from").ref("foot").text
    diameter, height = args.need("diameter").length("size"), args.need("height").length("height")
    word = args.need("along").word("axis") if args.get("along") else "up"
    scale = FORESHORTENED if args.foreshortened else 1.0
    axis, plane, size = AXES[word], PLANE_OF[word], float(diameter) * scale
    apex = foot + axis * (float(height) * scale)
    true = args.get("true") is not None
    if true:
        ellipse = true_ellipse(foot, size, plane)
        turns = ellipse.touching_from(apex)
        base = curve_run(f"{args.name}.base", ellipse.drawn(turns), ellipse)
        found = [(Line.between(apex, ellipse.at(turn)), ellipse.at(turn)) for turn in turns]
    else:
        four = rhombus(foot, size, plane)
        base = run(
            f"{args.name}.base", [(f"arc{i}", arc) for i, arc in enumerate(four.arcs, 1)], True
        )
        found = list(tangents_to_arcs(apex, four.arcs))
    if len(found) != 2:
        raise ClauseError(
            "the apex lies over the base: the cone is too low for its edges to be seen",
            args.need("height").index,
        )
    (one, first), (other, second) = found
    near, hidden = _parted(base, first, second, apex)
    outline = curve_run(f"{args.name}.outline", (one, *near, Line.between(second, apex)))
    parts: dict[str, Point | Curve | Loop] = {
        "outline": outline,
        "near": curve_run(f"{args.name}.near", near, closed=False),
        "hidden": curve_run(f"{args.name}.hidden", hidden, closed=False),
        "base": base,
        "edge.1": one,
        "edge.2": other,
        "touch.1": first,
        "touch.2": second,
        "apex": apex,
        "axis": Line.between(foot, apex),
        "foot": foot,
        **{f"base.{piece.name.rpartition('.')[2]}": piece.curve for piece in base.pieces},
    }
    return Made(
        outline,
        f"Cone {args.name} from {name}, Ø{args.say(diameter.value)}, {args.say(height.value)} "
        f"{word}, its base "
        f"{'true' if true else 'by four centres'}.",
        (
            f"its edges touch {args.say(abs(first - foot))} from the middle, not at the ends of "
            "the long axis",
        ),
        parts=parts,
        draw=partial(_draw, args, apex, plane, [first, second]),
    )


def _draw(args: Args, apex: Point, plane: str, touches: list[Point], work: Work) -> None:
    """Draw the axis, the base, and from the apex the two edges that touch it."""
    foot, name = (
        work.mark(args.need("from").point("foot"), args.need("from").ref("foot").text),
        f"{args.name}.base",
    )
    height, diameter = (
        args.need("height").length("height").value,
        args.need("diameter").length("size").value,
    )
    scale, word = (
        FORESHORTENED if args.foreshortened else 1,
        (args.need("along").word("axis") if args.get("along") else "up"),
    )
    top = draw_axis(work, foot, word, height * scale, apex, args.name, f"{args.name}.apex")
    true = args.get("true") is not None
    draw_round(work, foot, diameter * scale, plane, name, true)
    draw_tangents(
        work,
        top,
        foot,
        diameter * scale,
        plane,
        name,
        true,
        touches,
        [f"{args.name}.edge.{number}" for number in (1, 2)],
    )


def _parted(
    base: Loop, first: Point, second: Point, apex: Point
) -> tuple[list[Curve], list[Curve]]:
    """Return the base from the one edge to the other as far as it is seen, and what the cone hides
    of it: its half towards the apex."""
    ends: list[Place] = [
        min(
            ((i, spot) for i in range(len(base.pieces))),
            key=lambda at: distance(base.pieces[at[0]].curve, at[1]),
        )
        for spot in (first, second)
    ]
    ways = [between(base, *ends), between(base, ends[1], ends[0]).reversed]
    if not all(way.pieces for way in ways):
        raise ClauseError("the cone is too small for its base to be parted at its edges")
    middle = (first + second) * 0.5
    ways.sort(key=lambda way: (way.pieces[len(way.pieces) // 2].entry - middle).dot(apex - middle))
    seen, hidden = ([piece.curve for piece in way.pieces] for way in ways)
    return seen, hidden


ABOUT = """\
Isometric, from its base to its apex; the edges touch the base as it is drawn. It is walked as
its `outline`. Parts `base`, `near` and `hidden` (what is seen of it and what not), `edge.1`,
`edge.2`, `touch.1`, `touch.2`, `apex`, `axis`.
"""

SHOWN = """\
units mm
O = datum
cap = cone, from O, diameter 50, height 60
rim = line in, cap
back = hidden, cap.hidden
"""

KIND = Kind(
    name="cone",
    group="Isometric",
    summary="isometric, from its base along an axis to its apex",
    example="cap = cone, from P, diameter 50, height 60",
    mistake="The edges are drawn to the ends of the long axis: they touch nearer the apex.",
    also=("taper", "point of a cone"),
    forms=(
        Form("from {foot:point}", needed=True),
        Form("diameter {size:diameter}", needed=True),
        Form("height {height:length}", needed=True),
        Form("along {axis:up/right/left}"),
        Form("true"),
        Form("projection"),
    ),
    construct=construct,
    about=ABOUT,
    shown=SHOWN,
)
