"""``keyway``: a rectangular recess in a circle, outwards into the hub or inwards into the shaft."""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from functools import partial

from ..acts import Edge, Mark, Round, Way, Work
from ..acts.procedures import away
from ..geometry import Arc, Circle, Curve, Line, polar
from ..geometry.place import SIDES
from ..kind import Args, ClauseValues, Kind, Made
from ..kind.parts import parts_of, run
from ..measure import Number, spell_angle
from ..plan.errors import ClauseError
from ..plan.forms import Form
from ..rules.recess import recess


def construct(args: Args) -> Made:
    """Construct the two sides and the floor of a keyway as an open run: ``left``, ``floor``,
    ``right``.

    The depth is measured on the middle line from the circle, or given as the size over all from the
    far side of it."""
    on = args.need("on")
    circle, name = on.shape("circle"), on.ref("circle").text
    assert isinstance(circle, Circle | Arc)
    width = args.need("width").length("width").value
    if width <= 0 or float(width) >= 2 * circle.radius:
        raise ClauseError(f"a keyway is narrower than {name} is wide", args.need("width").index)
    inward = args.get("inward") is not None
    floor, worked = _floor(args, circle.size, inward)
    edge = math.sqrt(circle.radius**2 - float(width) ** 2 / 4)
    if (float(floor) >= edge) if inward else (float(floor) <= edge):
        told = "the floor lies on the wrong side of the circle: the depth is too small"
        raise ClauseError(told, args.need("depth", "over").index)
    if float(floor) <= 0:
        raise ClauseError(
            "the keyway goes past the middle of the shaft", args.need("depth", "over").index
        )
    angle, told = _towards(args)
    curves = recess(circle, float(width), float(floor), angle)
    base_left, base_right = (
        curves[1][1].at(along or 0.0) for along in (curves[1][1].start, curves[1][1].end)
    )
    shape = run(args.name, curves, False)
    return Made(
        shape,
        f"Keyway {args.name} on {name}, {args.say(width)} wide, {told}.",
        (f"{args.say(width)} ÷ 2 = {args.say(width / 2)} each side of the middle line", *worked),
        parts=parts_of(shape)
        | {
            "corner_left": base_left,
            "corner_right": base_right,
            "middle": (base_left + base_right) * 0.5,
        },
        draw=partial(_draw, args, circle, curves, angle),
    )


def _draw(
    args: Args, circle: Circle | Arc, curves: Sequence[tuple[str, Line]], angle: float, work: Work
) -> None:
    """Draw the middle line, measure the depth on it from the circle, and half the width each side
    of it."""
    name, inward = args.need("on").ref("circle").text, args.get("inward") is not None
    clause, width = args.need("depth", "over"), args.need("width").length("width").value
    centre, ring = (
        work.mark(circle.centre, args.need("on").ref("circle").centre_name),
        work.round(circle, name),
    )
    towards = args.need("at", "side")
    sides = {"right": 0, "above": 90, "left": 180, "below": 270}
    way = Way(
        sides[towards.word("side")] if towards.key == "side" else towards.length("angle").value
    )
    ahead = polar(1.0, angle)
    floor = dict(curves)["floor"]
    far, near = floor.foot(circle.centre), circle.centre + ahead * circle.radius
    middle = work.draw(centre, way, far, f"the middle line of {args.name}")
    along = middle.line.direction.dot(ahead) > 0
    size = clause.length("size").value
    if clause.key == "depth":
        start = work.prick(middle, ring, near, f"the middle of {args.name} on {name}")
    else:
        start = work.prick(
            middle, ring, circle.centre - ahead * circle.radius, f"the far side of {name}"
        )
    forwards = along != (inward and clause.key == "depth")
    way = Way(0 if forwards else 180, middle.key, middle.called)
    depth = work.measure(start, way, size, f"{args.name}.middle", far)
    _draw_sides(work, ring, middle, depth, width, dict(curves), args.name)


def draw_recess(
    work: Work,
    ring: Round,
    middle: Edge,
    near: Mark,
    sizes: tuple[Number, Number],
    curves: Mapping[str, Curve],
    name: str,
) -> None:
    """Draw a recess of a width and depth, measured outwards from the circle on its middle line."""
    floor = curves["floor"]
    assert isinstance(floor, Line)
    far = floor.foot(near.at)
    depth = work.measure(
        near, away(middle, near, far), sizes[1], f"the middle of the floor of {name}", far
    )
    _draw_sides(work, ring, middle, depth, sizes[0], curves, name)


def _draw_sides(
    work: Work,
    ring: Round,
    middle: Edge,
    depth: Mark,
    width: Number,
    curves: Mapping[str, Curve],
    name: str,
) -> None:
    floor = curves["floor"]
    assert isinstance(floor, Line)
    base = work.square(middle, depth, floor.at(0.0), f"{name}.floor")
    for word, spot in (("left", floor.at(0.0)), ("right", floor.at(floor.end or 0.0))):
        side = curves[word]
        assert isinstance(side, Line)
        corner = work.measure(
            depth, away(base, depth, spot), width / 2, f"{name}.corner_{word}", spot
        )
        mouth = side.at(0.0) if word == "left" else side.at(side.end or 0.0)
        edge = work.parallel(
            middle,
            corner,
            mouth,
            f"{name}.{word}",
            check="it is parallel to the middle line, not aimed at the centre",
        )
        work.prick(edge, ring, mouth, f"the {word} edge of {name}")


def _floor(args: Args, radius: Number, inward: bool) -> tuple[Number, tuple[str, ...]]:
    """Return how far the floor is from the centre."""
    clause = args.need("depth", "over")
    size = clause.length("size").value
    if clause.key == "depth":
        floor = radius - size if inward else radius + size
        return floor, (
            f"{args.say(radius)} {'−' if inward else '+'} {args.say(size)} = {args.say(floor)} to "
            "the floor",
        )
    floor = size - radius
    return floor, (f"{args.say(size)} − {args.say(radius)} = {args.say(floor)} to the floor",)


def _towards(args: Args) -> tuple[float, str]:
    clause: ClauseValues = args.need("at", "side")
    if clause.key == "side":
        return SIDES[clause.word("side")].angle, clause.word("side")
    degrees = clause.length("angle").value
    return math.radians(degrees), f"at {spell_angle(degrees)}"


ABOUT = """\
A rectangular recess in a circle: `width`, and its `depth` beyond the circle or the size `over
all`; `inward` for a tongue. Parts `left`, `floor`, `right`, `start`, `end`.
"""

SHOWN = """\
units mm
O = datum
bore = circle, centre O, diameter 40
key = keyway, on bore, width 8, depth 3.3, above
eye = line in, bore long > key
"""

KIND = Kind(
    name="keyway",
    group="Ready shapes",
    summary="a rectangular recess in a circle: sides and floor",
    example="key = keyway, on bore, width 8, depth 3.3, above",
    mistake="The depth is measured from the corner of the sides instead of from the circle on the "
    "middle line.",
    also=("keyseat", "key", "key slot"),
    forms=(
        Form("on {circle:circle}", needed=True),
        Form("width {width:length}", needed=True),
        Form("depth {size:length}"),
        Form("{size:length} over all", "over"),
        Form("at {angle:angle}"),
        Form("{side:above/below/left/right}", "side"),
        Form("inward"),
    ),
    construct=construct,
    about=ABOUT,
    shown=SHOWN,
)
