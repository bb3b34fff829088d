"""``isometric box``: width to the right, depth to the left, height up, from its near lower
corner."""

from __future__ import annotations

from collections.abc import Sequence
from functools import partial
from itertools import pairwise

from ..acts import Way, Work
from ..acts.procedures import away, offer_crossing
from ..geometry import Line, Loop, Point, polyline
from ..geometry.isometric import FORESHORTENED, LEFT, RIGHT, UP
from ..geometry.shapes import Curve
from ..kind import Args, Kind, Made
from ..measure import Number
from ..plan.errors import ClauseError
from ..plan.forms import Form

FACES = {
    "top": ("top_near", "top_right", "top_far", "top_left"),
    "right": ("near", "right_low", "top_right", "top_near"),
    "left": ("near", "top_near", "top_left", "left_low"),
}
OUTLINE = ("near", "right_low", "top_right", "top_far", "top_left", "left_low")
INNER = tuple((spot, "top_near") for spot in ("near", "top_right", "top_left"))
BEHIND = tuple((spot, "far_low") for spot in ("right_low", "left_low", "top_far"))
"""Corners of what is seen and of what lies behind."""


def construct(args: Args) -> Made:
    """Construct a box from its near lower corner.

    Parts: faces ``top``, ``left``, ``right`` (closed runs), their middles ``top_middle`` …, corners
    ``near``, ``top_near`` and so on, edges ``edge.1`` … ``edge.9`` seen and ``behind.1`` …
    ``behind.3``."""
    sizes = _sizes(args)
    spots = _corners(args.need("from").point("corner"), sizes)
    seen = [
        Line.between(spots[a], spots[b]) for a, b in (*pairwise((*OUTLINE, OUTLINE[0])), *INNER)
    ]
    words = " by ".join(
        args.say(args.need("size").length(slot).value) for slot in ("width", "depth", "height")
    )
    axes = "axes at 30°, 150° and upright"
    lengths = (
        ", lengths × √(2/3) = 0.8165"
        if args.foreshortened
        else "; lengths in full, as isometric drawing does"
    )
    return Made(
        polyline(
            [spots[one] for one in OUTLINE],
            [f"{args.name}.edge.{i}" for i in range(1, 7)],
            closed=True,
        ),
        f"Isometric box {args.name} from {args.need('from').ref('corner').text}, {words}.",
        (axes + lengths,),
        parts=_parts(args, spots, seen),
        draw=partial(_draw, args, spots),
    )


def _sizes(args: Args) -> tuple[Point, Point, Point]:
    """Return width, depth and height as they go from the near lower corner on the sheet."""
    size = args.need("size")
    lengths = [float(size.length(slot)) for slot in ("width", "depth", "height")]
    if min(lengths) <= 0:
        raise ClauseError("a box is more than nought each way", size.index)
    scale = FORESHORTENED if args.foreshortened else 1.0
    wide, deep, high = (
        axis * (length * scale) for axis, length in zip((RIGHT, LEFT, UP), lengths, strict=True)
    )
    return wide, deep, high


def _corners(corner: Point, sizes: tuple[Point, Point, Point]) -> dict[str, Point]:
    w, d, h = sizes
    return {
        "near": corner,
        "right_low": corner + w,
        "left_low": corner + d,
        "far_low": corner + w + d,
        "top_near": corner + h,
        "top_right": corner + w + h,
        "top_left": corner + d + h,
        "top_far": corner + w + d + h,
    }


def _parts(
    args: Args, spots: dict[str, Point], seen: Sequence[Line]
) -> dict[str, Point | Curve | Loop]:
    parts: dict[str, Point | Curve | Loop] = dict(spots)
    for face, names in FACES.items():
        corners = [spots[one] for one in names]
        parts[face] = polyline(
            corners, [f"{args.name}.{face}.{i}" for i in range(1, 5)], closed=True
        )
        parts[f"{face}_middle"] = (corners[0] + corners[2]) * 0.5
    parts |= {f"edge.{i}": edge for i, edge in enumerate(seen, 1)}
    return parts | {
        f"behind.{i}": Line.between(spots[a], spots[b]) for i, (a, b) in enumerate(BEHIND, 1)
    }


def _draw(args: Args, spots: dict[str, Point], work: Work) -> None:
    """Draw the three axes from the near corner, set the sizes off, and complete the faces by
    parallels."""
    clause, size, name = args.need("from"), args.need("size"), args.name
    scale: Number = FORESHORTENED if args.foreshortened else 1
    marks = {"near": work.mark(clause.point("corner"), clause.ref("corner").text)}
    axes = {}
    for slot, degrees, word in (
        ("width", 30, "right_low"),
        ("depth", 150, "left_low"),
        ("height", 90, "top_near"),
    ):
        axis = work.draw(
            marks["near"], Way(degrees), spots[word], f"the axis of the {slot} of {name}"
        )
        axes[slot] = axis
        marks[word] = work.measure(
            marks["near"],
            away(axis, marks["near"], spots[word]),
            size.length(slot).value * scale,
            f"{name}.{word}",
            spots[word],
        )
    for word, first, along, second, beside in _COMPLETED:
        one = work.parallel(axes[along], marks[first], spots[word])
        other = work.parallel(axes[beside], marks[second], spots[word])
        check = "opposite edges are parallel and equal" if word == "top_far" else ""
        marks[word] = work.prick(one, other, spots[word], f"{name}.{word}", check=check)
    _offer_middles(args, spots, work)


def _offer_middles(args: Args, spots: dict[str, Point], work: Work) -> None:
    for face, names in FACES.items():
        a, b, c, d = (spots[one] for one in names)
        offer_crossing(work, ((a, c), (b, d)), (a + c) * 0.5, f"{args.name}.{face}_middle")


_COMPLETED = (
    ("top_right", "right_low", "height", "top_near", "width"),
    ("top_left", "left_low", "height", "top_near", "depth"),
    ("top_far", "top_right", "depth", "top_left", "width"),
    ("far_low", "right_low", "depth", "left_low", "width"),
)
"""Corners completed by parallels: from which corner along which size, and from which other along
which other."""


ABOUT = """\
Width to the right, depth to the left, height up. Parts: faces `top left right`, their
`top_middle` and so on, corners `near top_near …`, edges `edge.1` to `edge.9` seen and
`behind.1` to `behind.3`.
"""

SHOWN = """\
units mm
O = datum
block = isometric box, from O, 60 by 40 by 30
outside = line in, block
front = line in, block.edge.7, open
back = hidden, block.behind.1, open
"""

KIND = Kind(
    name="isometric box",
    group="Isometric",
    summary="width, depth and height from its near lower corner",
    example="block = isometric box, from P, 60 by 40 by 30",
    mistake="A slanted edge is measured like the axes: only lengths along the three axes are true.",
    also=("block", "cuboid", "cube"),
    forms=(
        Form("from {corner:point}", needed=True),
        Form("{width:length} by {depth:length} by {height:length}", "size", needed=True),
        Form("projection"),
    ),
    construct=construct,
    about=ABOUT,
    shown=SHOWN,
)
