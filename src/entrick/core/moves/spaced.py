"""``spaced``: points equally spaced on a circle, stepped off as chords."""

from __future__ import annotations

import math
from functools import partial

from ..acts import Way, Work
from ..acts.procedures import ring
from ..geometry import Arc, Circle, Point
from ..geometry.place import SIDES
from ..kind import Args, Kind, Made
from ..kind.figure import Family
from ..measure import Number, spell_angle
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
        raise ClauseError("points are spaced when there are at least two of them", clause.index)
    start = _start(args)
    spots = tuple(circle.at(start + math.tau * index / count) for index in range(count))
    chord = 2 * circle.radius * math.sin(math.pi / count)
    turned = spell_angle(360 / count)
    return Made(
        Family(spots),
        f"Points {args.name}, {count} equally spaced on {name}.",
        (
            f"360 ÷ {count} = {turned}",
            f"chord 2 × {args.say(circle.size)} × sin {spell_angle(180 / count)} = "
            f"{args.say(chord)}",
        ),
        parts={str(index): spot for index, spot in enumerate(spots, 1)},
        draw=partial(_draw, args, circle, spots),
    )


def _draw(args: Args, circle: Circle | Arc, spots: tuple[Point, ...], work: Work) -> None:
    """Draw towards the first place, and step the others off from it round the circle."""
    clause, point = args.need("on"), args.get("through")
    ring_ = work.round(circle, clause.ref("circle").text)
    centre = work.mark(circle.centre, clause.ref("circle").centre_name)
    names = [f"{args.name}.{index}" for index in range(1, len(spots) + 1)]
    if point and not args.get("from", "start"):
        ray = work.through(
            centre, work.mark(point.point("point"), point.ref("point").text), reach=spots[0]
        )
    else:
        ray = work.draw(centre, Way(_degrees(args)), spots[0])
    first = work.prick(ray, ring_, spots[0], names[0], label="1", anew=True)
    labels = [str(index) for index in range(2, len(spots) + 1)]
    ring(
        work, first, ring_, len(spots), names[1:], labels, f"one step more comes back to {names[0]}"
    )


def _degrees(args: Args) -> Number:
    """Return the direction in which the first place lies from the centre, degrees."""
    side, angle = args.get("from"), args.get("start")
    if side:
        return {"right": 0, "above": 90, "left": 180, "below": 270}[side.word("side")]
    return angle.length("angle").value if angle else 0


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
            raise ClauseError("the first point cannot be towards the centre itself", point.index)
        return (target - circle.centre).angle
    return Point(1.0, 0.0).angle


ABOUT = """\
A family: n points on a circle, 360/n apart, counter-clockwise from a start (`from below`, `from
30°`, `first towards P`; else from the right). See *Families*.
"""

SHOWN = """\
units mm
O = datum
pitch = circle, centre O, radius 50
ring = spaced, 3 on pitch, from below
"""

KIND = Kind(
    name="spaced",
    group="Points",
    summary="n points equally spaced on a circle",
    example="ring = spaced, 3 on pitch, from below",
    mistake="The angle between neighbours is taken as 360/(n − 1), or the step is measured along "
    "the arc.",
    also=("equally spaced", "pitch circle", "hole circle", "steps round"),
    forms=(
        Form("{count:count} on {circle:circle}", "on", needed=True),
        Form("from {side:above/below/left/right}"),
        Form("from {angle:angle}", "start"),
        Form("first towards {point:point}", "through"),
    ),
    construct=construct,
    about=ABOUT,
    shown=SHOWN,
)
