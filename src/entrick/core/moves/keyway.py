"""``keyway``: a rectangular recess in a circle, outwards into the hub or inwards into the shaft."""

from __future__ import annotations

import math

from ..geometry import Arc, Circle
from ..geometry.place import SIDES
from ..kind import Args, Kind, Made, Said, Step, Stroke, Tool
from ..kind.parts import parts_of, run
from ..measure import Number, spell_angle
from ..plan.errors import ClauseError
from ..plan.forms import Form
from ..rules.recess import recess


def construct(args: Args) -> Made:
    """Construct the two sides and the floor of a keyway as an open run: ``left``, ``floor``, ``right``.

    The depth is measured on the middle line from the circle, or given as the size over all from the far side of it.
    """
    on = args.need("on")
    circle, name = on.shape("circle"), on.ref("circle").text
    assert isinstance(circle, Circle | Arc)
    width = args.need("width").length("width").value
    if width <= 0 or float(width) >= 2 * circle.radius:
        raise ClauseError(f"a keyway is narrower than {name} is wide", args.need("width").clause)
    inward = args.get("inward") is not None
    floor, worked = _floor(args, circle.size, inward)
    edge = math.sqrt(circle.radius**2 - float(width) ** 2 / 4)
    if (float(floor) >= edge) if inward else (float(floor) <= edge):
        told = "the floor lies on the wrong side of the circle: the depth is too small"
        raise ClauseError(told, args.need("depth", "over").clause)
    if float(floor) <= 0:
        raise ClauseError("the keyway goes past the middle of the shaft", args.need("depth", "over").clause)
    angle, told = _towards(args)
    curves = recess(circle, float(width), float(floor), angle)
    base_left, base_right = (curves[1][1].at(along or 0.0) for along in (curves[1][1].start, curves[1][1].end))
    shape = run(args.name, curves, False)
    sides = (Stroke(curves[0][1]), Stroke(curves[2][1]))
    return Made(
        shape,
        f"Keyway {args.name} on {name}, {args.say(width)} wide, {told}.",
        (f"{args.say(width)} ÷ 2 = {args.say(width / 2)} each side of the middle line", *worked),
        (
            Step(Tool.RULE, f"Half the width each side of the middle line, draw both sides of {args.name}", width / 2,
                 strokes=sides, check="the sides are parallel to the middle line, not aimed at the centre"),
            Step(Tool.RULE, f"From the centre of {name} measure to the floor and draw it", floor,
                 circle.centre, (Stroke(curves[1][1]),)),
        ),
        parts_of(shape)
        | {"corner_left": base_left, "corner_right": base_right, "middle": (base_left + base_right) * 0.5},
    )  # fmt: skip


def _floor(args: Args, radius: Number, inward: bool) -> tuple[Number, tuple[str, ...]]:
    """Return how far the floor is from the centre."""
    said = args.need("depth", "over")
    size = said.length("size").value
    if said.key == "depth":
        floor = radius - size if inward else radius + size
        return floor, (
            f"{args.say(radius)} {'−' if inward else '+'} {args.say(size)} = {args.say(floor)} to the floor",
        )
    floor = size - radius
    return floor, (f"{args.say(size)} − {args.say(radius)} = {args.say(floor)} to the floor",)


def _towards(args: Args) -> tuple[float, str]:
    said: Said = args.need("at", "side")
    if said.key == "side":
        return SIDES[said.word("side")].angle, said.word("side")
    degrees = said.length("angle").value
    return math.radians(degrees), f"at {spell_angle(degrees)}"


KIND = Kind(
    name="keyway",
    group="Ready shapes",
    summary="a rectangular recess in a circle: sides and floor",
    example="key = keyway, on bore, width 8, depth 3.3, above",
    mistake="The depth is measured from the corner of the sides instead of from the circle on the middle line.",
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
)
