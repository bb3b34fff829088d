"""``isometric box``: width to the right, depth to the left, height up, from its near lower corner."""

from __future__ import annotations

import math

from ..geometry import Line, Loop, Point, polyline
from ..geometry.isometric import FORESHORTENED, LEFT, RIGHT, UP
from ..geometry.shapes import Curve
from ..kind import Args, Kind, Made, Role, Step, Stroke, Tool
from ..plan.errors import ClauseError
from ..plan.forms import Form


def construct(args: Args) -> Made:
    """Construct a box from its near lower corner.

    Parts: faces ``top``, ``left``, ``right`` (closed runs), their middles ``top_middle`` …, corners
    ``near``, ``top_near`` and so on, edges ``edge.1`` … ``edge.9`` seen and ``behind.1`` … ``behind.3``.
    """
    corner, name = args.need("from").point("corner"), args.need("from").ref("corner").text
    size = args.need("size")
    lengths = [size.length(slot) for slot in ("width", "depth", "height")]
    if min(map(float, lengths)) <= 0:
        raise ClauseError("a box is more than nought each way", size.clause)
    scale = FORESHORTENED if args.foreshortened else 1.0
    w, d, h = (axis * (float(length) * scale) for axis, length in zip((RIGHT, LEFT, UP), lengths, strict=True))
    spots = {
        "near": corner, "right_low": corner + w, "left_low": corner + d, "far_low": corner + w + d,
        "top_near": corner + h, "top_right": corner + w + h, "top_left": corner + d + h, "top_far": corner + w + d + h,
    }  # fmt: skip
    faces = {
        "top": ("top_near", "top_right", "top_far", "top_left"),
        "right": ("near", "right_low", "top_right", "top_near"),
        "left": ("near", "top_near", "top_left", "left_low"),
    }
    outline = ("near", "right_low", "top_right", "top_far", "top_left", "left_low")
    parts: dict[str, Point | Curve | Loop] = dict(spots)
    for face, names in faces.items():
        corners = [spots[one] for one in names]
        parts[face] = polyline(corners, [f"{args.name}.{face}.{i}" for i in range(1, 5)], closed=True)
        parts[f"{face}_middle"] = (corners[0] + corners[2]) * 0.5
    ends = [
        *zip(outline, (*outline[1:], outline[0]), strict=True),
        *((spot, "top_near") for spot in ("near", "top_right", "top_left")),
    ]
    seen = [Line.between(spots[a], spots[b]) for a, b in ends]
    behind = [Line.between(spots[a], spots["far_low"]) for a in ("right_low", "left_low", "top_far")]
    parts |= {f"edge.{i}": edge for i, edge in enumerate(seen, 1)}
    parts |= {f"behind.{i}": edge for i, edge in enumerate(behind, 1)}
    shape = polyline([spots[one] for one in outline], [f"{args.name}.edge.{i}" for i in range(1, 7)], closed=True)
    told = " by ".join(args.say(length.value) for length in lengths)
    strokes = tuple(Stroke(edge) for edge in seen)
    directions = tuple(
        Step(Tool.ANGLE, f"From {name} draw the {word} axis and set off the {what}", math.degrees(axis.angle) % 180,
             strokes=(Stroke(Line.between(corner, corner + axis * reach)),))
        for word, what, axis, reach in (("right", "width", RIGHT, abs(w)), ("left", "depth", LEFT, abs(d)),
                                        ("upright", "height", UP, abs(h)))
    )  # fmt: skip
    return Made(
        shape,
        f"Isometric box {args.name} from {name}, {told}.",
        ("axes at 30°, 150° and upright"
         + (", lengths × √(2/3) = 0.8165" if scale != 1 else "; lengths in full, as isometric drawing does"),),
        (
            *directions,
            Step(Tool.STRAIGHTEDGE, "Complete the faces by parallels", strokes=(*strokes, Stroke(corner, Role.POINT)),
                 check="opposite edges are parallel and equal"),
        ),
        parts,
    )  # fmt: skip


KIND = Kind(
    name="isometric box",
    group="Isometric",
    summary="width, depth and height from its near lower corner",
    example="block = isometric box, from P, 60 by 40 by 30",
    mistake="A slanted edge is measured like the axes: only lengths along the three axes are true.",
    forms=(
        Form("from {corner:point}", needed=True),
        Form("{width:length} by {depth:length} by {height:length}", "size", needed=True),
        Form("projection"),
    ),
    construct=construct,
)
