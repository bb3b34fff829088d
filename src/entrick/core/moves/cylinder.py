"""``cylinder``: isometric, along one of the three axes; its hidden half is left as construction."""

from __future__ import annotations

from functools import partial

from ..acts import Work
from ..acts.copies import laid_off
from ..geometry import Line, Loop, Point, shift
from ..geometry.isometric import AXES, FORESHORTENED
from ..geometry.shapes import Curve
from ..geometry.silhouette import Swept, swept
from ..kind import Args, Kind, Made
from ..kind.parts import curve_run
from ..plan.errors import ClauseError
from ..plan.forms import Form
from .round_end import PLANE_OF, counter_clockwise, draw_axis, draw_edges, draw_round, end_on


def construct(args: Args) -> Made:
    """Construct a cylinder from the middle of one end along an axis.

    Parts: ``end`` (the end that is seen whole), ``near`` (its half inside the outline), ``far``
    (the seen half of the other), ``hidden`` (its other half), ``edge.1``, ``edge.2`` (touching both
    ends exactly), ``outline``, ``axis``, ``middle`` (of the end that is seen).

    Notes
    -----
    The straight edges run along the axis and touch the ends where the drawn curve reaches furthest
    across it: the ends of its long axis."""
    foot, name = args.need("from").point("foot"), args.need("from").ref("foot").text
    diameter, length = args.need("diameter").length("size"), args.need("length").length("length")
    word = _word(args)
    scale = FORESHORTENED if args.foreshortened else 1.0
    if float(length) <= 0:
        raise ClauseError("a cylinder is more than nought long", args.need("length").index)
    plane, axis = PLANE_OF[word], AXES[word]
    move = axis * (float(length) * scale)
    size = float(diameter) * scale
    # An upright one shows its upper end; one along a slanted axis the end that is nearer, which is
    # lower on the paper.
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
        "edge.1": view.edges[0],
        "edge.2": view.edges[1],
        "touch.1": touches[0],
        "touch.2": touches[1],
        "touch.3": ends[0],
        "touch.4": ends[1],
        "middle": seen,
        "foot": foot,
        "axis": Line.between(foot, foot + move),
    }
    outline = curve_run(f"{args.name}.outline", view.outline)
    parts["outline"] = outline
    return Made(
        outline,
        f"Cylinder {args.name} from {name}, Ø{args.say(diameter.value)}, {args.say(length.value)} "
        f"{word}, "
        f"its ends {'true' if true else 'by four centres'}.",
        (
            f"the edges touch {args.say(abs(touches[0] - touches[1]))} apart, at the ends of the "
            "long axis",
        ),
        parts=parts,
        draw=partial(_draw, args, (seen, other), plane, end, view),
    )


def _draw(
    args: Args, middles: tuple[Point, Point], plane: str, end: Loop, view: Swept, work: Work
) -> None:
    """Draw the axis, the end that is seen whole, and carry it along the axis; the edges touch both
    ends."""
    foot, word = (
        work.mark(args.need("from").point("foot"), args.need("from").ref("foot").text),
        _word(args),
    )
    length, diameter = (
        args.need("length").length("length").value,
        args.need("diameter").length("size").value,
    )
    scale = FORESHORTENED if args.foreshortened else 1
    seen, other = middles
    far = seen if abs(foot.at - other) < abs(foot.at - seen) else other
    top = draw_axis(
        work,
        foot,
        word,
        length * scale,
        far,
        args.name,
        f"the middle of the other end of {args.name}",
    )
    ends = {far: top, foot.at: foot}
    middle, back = (ends[min(ends, key=lambda at, spot=spot: abs(at - spot))] for spot in middles)  # type: ignore[misc]
    true = args.get("true") is not None
    draw_round(work, middle, diameter * scale, plane, f"{args.name}.end", true)
    laid_off(
        work,
        end,
        shift(end, other - seen),
        "shift",
        middle,
        back,
        called=f"the other end of {args.name}",
    )
    axis = work.through(foot, top)
    draw_edges(
        work,
        middle,
        diameter * scale,
        plane,
        f"{args.name}.end",
        true,
        view.touches,
        axis,
        (view.touches[0] + (other - seen), view.touches[1] + (other - seen)),
    )


def _word(args: Args) -> str:
    return args.need("along").word("axis") if args.get("along") else "up"


ABOUT = """\
Isometric, `along` up, right or left; its ends by four centres or `true`. The edges touch both
ends exactly. Parts `end`, `near`, `far`, `hidden`, `edge.1`, `edge.2`, `outline`, `axis`,
`middle`.
"""

SHOWN = """\
units mm
O = datum
post = cylinder, from O, diameter 40, length 60
A = point, 120 right of O
bar = cylinder, from A, diameter 30, length 50, along right, true
rim = line in, post
near = line in, post.near, open
"""

KIND = Kind(
    name="cylinder",
    group="Isometric",
    summary="isometric, along one of the three axes",
    example="post = cylinder, from P, diameter 40, length 60, along up",
    mistake="The straight edge starts from the end of the rhombus instead of where it touches the "
    "curve.",
    also=("rod", "shaft", "bar", "pin"),
    forms=(
        Form("from {foot:point}", needed=True),
        Form("diameter {size:diameter}", needed=True),
        Form("length {length:length}", needed=True),
        Form("along {axis:up/right/left}"),
        Form("true"),
        Form("projection"),
    ),
    construct=construct,
    about=ABOUT,
    shown=SHOWN,
)
