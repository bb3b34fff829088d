"""``chamfer``: the straight cut across the corner of two lines."""

from __future__ import annotations

import math
from collections.abc import Sequence
from functools import partial
from itertools import product

from ..acts import Work
from ..acts.act import Way
from ..acts.procedures import away
from ..geometry import Line, Point, meet, support
from ..geometry.shapes import extremes
from ..kind import CHOICES, Args, Kind, Made, Option, choose
from ..measure import Number, spell_angle
from ..plan.errors import ClauseError, Wanting
from ..plan.forms import Form
from ..tolerance import NOUGHT, same

SIDES = ("first", "second")

Legs = tuple[Number, Number]
"""How far along each line the corner is cut off."""


def construct(args: Args) -> Made:
    """Construct the line that cuts a corner off.

    Parameters
    ----------
    args : Args
        Two lines or the corner they meet in, and how far along each from there; or how far along
        the first, and at what angle to it.

    Returns
    -------
    Made
        Parts ``start`` and ``end``, on the first line and on the second, ``middle``, and
        ``corner``.

    Raises
    ------
    ClauseError
        Where the lines are parallel, or the cut never comes to the second one; `Undecided` where
        both lines run on past the corner and no word says which of the corners is meant.

    Notes
    -----
    By the law of sines the second leg is a · sin α / sin(α + γ), where a is the first leg, α the
    angle of the cut to it and γ that of the corner."""
    between = args.between()
    for slot in SIDES:
        if not isinstance(between.ref(slot).shape, Line):
            raise ClauseError(
                f"{between.ref(slot).text} is round: a chamfer cuts off the corner of two lines",
                between.index,
            )
    lines = [between.line(slot) for slot in SIDES]
    names = [between.ref(slot).text for slot in SIDES]
    meetings = meet(*map(support, lines))
    if not meetings:
        raise ClauseError(
            f"{names[0]} and {names[1]} are parallel: they have no corner to cut off",
            between.index,
        )
    corner = meetings[0].point
    corners = list(product(*([line.direction, -line.direction] for line in lines)))
    # The corner that is there, where the lines do not run on past it.
    there = [ways for ways in corners if all(map(_runs, lines, (corner, corner), ways))] or corners
    found: list[tuple[Line, Legs]] = []
    for ways in there:
        legs = _legs(args, ways)
        if legs is not None:
            ends = [corner + way * float(leg) for way, leg in zip(ways, legs, strict=True)]
            found.append((Line.between(*ends), legs))
    if not found:
        raise ClauseError(f"at this angle it never comes to {names[1]}", args.need("leg").index)
    about = f"off {names[0]} and {names[1]}"
    options = [
        Option(cut, (start + end) * 0.5, about)
        for cut, _ in found
        for start, end in [extremes(cut)]
    ]
    index, candidates = choose(options, args, "chamfer")
    cut, legs = found[index]
    start, end = extremes(cut)
    lean = [
        spell_angle(_between(corner - at, other - at)) for at, other in ((start, end), (end, start))
    ]
    return Made(
        cut,
        f"Chamfer {args.name} between {names[0]} and {names[1]}, {_words(args, names, legs)}.",
        (
            f"the cut is {args.say(abs(end - start))} long, at {lean[0]} to {names[0]} and "
            f"{lean[1]} to {names[1]}",
        ),
        parts={"start": start, "end": end, "middle": (start + end) * 0.5, "corner": corner},
        candidates=candidates,
        draw=partial(_draw, args, corner, cut, legs),
    )


def _runs(line: Line, corner: Point, way: Point) -> bool:
    """Tell whether anything of a line is drawn from a corner on in a direction along it."""
    end = line.end if line.direction.dot(way) > 0 else line.start
    return end is None or (line.at(end) - corner).dot(way) > same(abs(corner))


def _legs(args: Args, ways: Sequence[Point]) -> Legs | None:
    """Return how far along each line the corner is cut off; None where the cut never comes to the
    second."""
    each, both, leg = args.get("each way"), args.get("legs"), args.get("leg")
    said = [clause for clause in (each, both, leg) if clause]
    if len(said) != 1:
        message = (
            "says how large it is once"
            if said
            else "needs its size: 5 each way, 3 by 6, or 5 at 45°"
        )
        raise (
            ClauseError(f"a chamfer {message}", said[1].index)
            if said
            else Wanting(f"a chamfer {message}")
        )
    if each:
        size = each.length("size").value
        legs = (size, size)
    elif both:
        legs = (both.length("first_leg").value, both.length("second_leg").value)
    else:
        assert leg is not None
        size, lean = leg.length("size").value, math.radians(float(leg.length("angle")))
        if not 0 < lean < math.pi:
            raise ClauseError("a chamfer leans between 0° and 180° to the first line", leg.index)
        third = lean + math.radians(_between(*ways))
        if third > math.pi - NOUGHT:
            return None
        legs = (size, float(size) * math.sin(lean) / math.sin(third))
    if min(map(float, legs)) <= 0:
        raise ClauseError("a chamfer is more than nought along both lines", said[0].index)
    return legs


def _between(one: Point, other: Point) -> float:
    """Return the angle between two directions, degrees."""
    return abs(math.degrees(math.atan2(one.cross(other), one.dot(other))))


def _words(args: Args, names: Sequence[str], legs: Legs) -> str:
    leg = args.get("leg")
    if leg:
        return f"{args.say(legs[0])} along {names[0]} at {spell_angle(leg.length('angle').value)}"
    if legs[0] == legs[1]:
        return f"{args.say(legs[0])} along each"
    return f"{args.say(legs[0])} along {names[0]} and {args.say(legs[1])} along {names[1]}"


def _draw(args: Args, corner: Point, cut: Line, legs: Legs, work: Work) -> None:
    """Measure the legs from the corner and join them; where an angle is given, draw at it from the
    first."""
    between, ends = args.between(), extremes(cut)
    one, other = (work.edge(between.line(slot), between.ref(slot).text) for slot in SIDES)
    at = work.prick(one, other, corner, f"the corner of {args.name}")
    start = work.measure(at, away(one, at, ends[0]), legs[0], f"{args.name}.start", ends[0])
    if args.get("leg"):
        base = one.line.direction
        turn = math.degrees(math.atan2(base.cross(cut.direction), base.dot(cut.direction)))
        slope = work.draw(start, Way(turn, one.key, one.called), ends[1], args.name, shown=cut)
        work.prick(slope, other, ends[1], f"{args.name}.end")
    else:
        end = work.measure(at, away(other, at, ends[1]), legs[1], f"{args.name}.end", ends[1])
        work.through(start, end, args.name, shown=cut)


ABOUT = """\
Cuts the corner of two lines off: so much `each way`, so much along the first `by` so much along
the second, or so much `at` an angle to the first (`5 x 45°` is known for that). Sizes go along
the lines, from where they meet. It lies `between` two lines, or at a `corner` by its name.
Parts `start end middle corner`.
"""

SHOWN = """\
units mm
O = datum
frame = box, 60 by 40, centred on O
x = chamfer, between frame.right and frame.bottom, 5 at 45°
y = chamfer, between frame.left and frame.bottom, 8 by 5
z = chamfer, corner frame.upper_left, 6 each way
rim = line in, frame.bottom > x > frame.right > frame.top > z > frame.left > y
"""

KIND = Kind(
    name="chamfer",
    group="Lines",
    summary="cuts the corner of two lines off",
    example="cut = chamfer, between side and edge, 5 each way",
    mistake="The size is measured along the sloping cut: it goes along either side, from the "
    "corner.",
    also=("bevel", "corner cut off", "cut corner", "splay"),
    forms=(
        Form("between {first:line} [and] {second:line}"),
        Form("corner {corner:corner}"),
        Form("{size:length} each way", "each way"),
        Form("{first_leg:length} by {second_leg:length}", "legs"),
        Form("{size:length} at {angle:angle}", "leg"),
        *CHOICES,
    ),
    construct=construct,
    about=ABOUT,
    shown=SHOWN,
)
