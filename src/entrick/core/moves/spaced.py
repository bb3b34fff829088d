"""``spaced``: points equally spaced on a circle, stepped off as chords."""

from __future__ import annotations

import math

from ..geometry import Arc, Circle, Line, Point
from ..geometry.place import SIDES
from ..kind import Args, Kind, Made, Role, Step, Stroke, Tool
from ..kind.figure import Family
from ..measure import spell_angle
from ..plan.errors import ClauseError
from ..plan.forms import Form


def construct(args: Args) -> Made:
    """Construct n points at 360/n on a circle, numbered counter-clockwise from a start.

    Notes
    -----
    Chord to step off: 2R·sin(180°/n) (plane geometry).
    """
    clause = args.need("on")
    circle, name = clause.shape("circle"), clause.ref("circle").text
    assert isinstance(circle, Circle | Arc)
    count = clause.count("count")
    if count < 2:
        raise ClauseError("points are spaced when there are at least two of them", clause.clause)
    start = _start(args)
    spots = tuple(circle.at(start + math.tau * index / count) for index in range(count))
    chord = 2 * circle.radius * math.sin(math.pi / count)
    turned = spell_angle(360 / count)
    first = Step(
        Tool.ANGLE,
        f"Mark the first of {args.name} on {name}",
        math.degrees(start) % 360,
        circle.centre,
        (Stroke(Line.between(circle.centre, spots[0])), Stroke(spots[0], Role.POINT, "1")),
    )
    tick = math.radians(6)
    steps = tuple(
        Step(
            Tool.DIVIDERS,
            f"Step off the chord from {args.name}.{index} to {args.name}.{index + 1}",
            chord,
            spots[index - 1],
            (
                Stroke(Arc(spots[index - 1], chord, (spots[index] - spots[index - 1]).angle - tick, 2 * tick)),
                Stroke(spots[index], Role.POINT, str(index + 1)),
            ),
            f"the last step ends at {args.name}.1" if index == count - 1 else "",
        )
        for index in range(1, count)
    )
    return Made(
        Family(spots),
        f"Points {args.name}, {count} equally spaced on {name}.",
        (
            f"360 ÷ {count} = {turned}",
            f"chord 2 × {args.say(circle.size)} × sin {spell_angle(180 / count)} = {args.say(chord)}",
        ),
        (first, *steps),
        {str(index): spot for index, spot in enumerate(spots, 1)},
    )


def _start(args: Args) -> float:
    """Return the direction of the first point, radians; to the right when nothing is said."""
    side, angle, point = args.get("from"), args.get("start"), args.get("through")
    if side:
        return SIDES[side.word("side")].angle
    if angle:
        return math.radians(angle.length("angle").value)
    if point:
        target, circle = point.point("point"), args.need("on").shape("circle")
        assert isinstance(circle, Circle | Arc)
        if target == circle.centre:
            raise ClauseError("the first point cannot be towards the centre itself", point.clause)
        return (target - circle.centre).angle
    return Point(1.0, 0.0).angle


KIND = Kind(
    name="spaced",
    group="Points",
    summary="n points equally spaced on a circle",
    example="ring = spaced, 3 on pitch, from below",
    mistake="The angle between neighbours is taken as 360/(n − 1), or the step is measured along the arc.",
    forms=(
        Form("{count:count} on {circle:circle}", "on", needed=True),
        Form("from {side:above/below/left/right}"),
        Form("from {angle:angle}", "start"),
        Form("first towards {point:point}", "through"),
    ),
    construct=construct,
)
