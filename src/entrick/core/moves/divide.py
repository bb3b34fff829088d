"""``divide``: a line into equal parts by a slanted line and parallels; an arc by chords."""

from __future__ import annotations

import math
from functools import partial

from ..acts import Work
from ..acts.procedures import divide, ray_to
from ..geometry import Arc, Circle, Point
from ..kind import Args, Kind, Made
from ..kind.figure import Family
from ..measure import spell_angle
from ..plan.errors import ClauseError
from ..plan.forms import Form


def construct(args: Args) -> Made:
    """Construct the n − 1 points that part a line with ends, or an arc, into n equal lengths; of a
    circle n points.

    Notes
    -----
    At the board by the slanted-line method: equal steps of any convenient length on a slanted line,
    the last joined to the end, parallels through the others (intercept theorem); round an arc by
    its chord, 2R·sin(θ/2n)."""
    if args.get("arc"):
        return _of_arc(args)
    line, name = args.need("of").line("line"), args.need("of").ref("line").text
    count = _count(args)
    if line.start is None or line.end is None:
        raise ClauseError(f"{name} has no ends to divide between", args.need("of").index)
    first, last = line.at(line.start), line.at(line.end)
    length = abs(last - first)
    spots = tuple(first + (last - first) * (index / count) for index in range(1, count))
    each = args.say(length / count)
    return Made(
        Family(spots),
        f"Points {args.name}, dividing {name} in {count} equal parts.",
        (f"{args.say(length)} ÷ {count} = {each}",),
        parts={str(index): spot for index, spot in enumerate(spots, 1)},
        draw=partial(_draw, args, (first, last), f"each part is {each} at full size"),
    )


def _count(args: Args) -> int:
    clause = args.need("in")
    count = clause.count("count")
    if count < 2:
        raise ClauseError("it is divided in at least two parts", clause.index)
    return count


def _of_arc(args: Args) -> Made:
    clause, count = args.need("arc"), _count(args)
    curve, name = clause.shape("circle"), clause.ref("circle").text
    assert isinstance(curve, Arc | Circle)
    at = args.get("at")
    if isinstance(curve, Arc):
        if at:
            raise ClauseError("an arc is divided from its end", at.index)
        begin, whole, members = curve.start, curve.sweep, range(1, count)
    else:
        begin = math.radians(args.number("at", usual=0.0))
        whole, members = math.tau, range(count)
    spots = tuple(curve.at(begin + whole * index / count) for index in members)
    chord = 2 * curve.radius * math.sin(abs(whole) / count / 2)
    angle = math.degrees(abs(whole))
    return Made(
        Family(spots),
        f"Points {args.name}, dividing {name} in {count} equal parts.",
        (
            f"{spell_angle(angle)} ÷ {count} = {spell_angle(angle / count)}",
            f"chord 2 × {args.say(curve.size)} × sin {spell_angle(angle / count / 2)} = "
            f"{args.say(chord)}",
        ),
        parts={str(index): spot for index, spot in enumerate(spots, 1)},
        draw=partial(_draw_arc, args, curve, spots, chord),
    )


def _draw_arc(
    args: Args, curve: Arc | Circle, spots: tuple[Point, ...], chord: float, work: Work
) -> None:
    """Step the chord off round it."""
    said = args.need("arc").ref("circle")
    ring = work.round(curve, said.text)
    labels = [str(index) for index in range(1, len(spots) + 1)]
    names = [f"{args.name}.{label}" for label in labels]
    check = "one step more comes to the end of the arc"
    if isinstance(curve, Arc) and work.has_mark(curve.first):
        start = work.mark(curve.first, f"the start of {said.text}")
    elif isinstance(curve, Arc):
        centre = work.mark(curve.centre, said.centre_name)
        turn = math.degrees(curve.start)
        start = ray_to(work, centre, ring, turn, curve.first, f"the start of {said.text}")
    else:
        centre = work.mark(curve.centre, said.centre_name)
        degrees = args.get("at").length("angle").value if args.get("at") else 0  # type: ignore[union-attr]
        start = ray_to(work, centre, ring, degrees, spots[0], names[0], labels[0])
        spots, names, labels = spots[1:], names[1:], labels[1:]
        check = "one step more comes back to the first"
    work.step_off(start, chord, ring, spots, names, labels=labels, check=check)


def _draw(args: Args, ends: tuple[Point, Point], check: str, work: Work) -> None:
    name, count = args.need("of").ref("line").text, args.need("in").count("count")
    first, last = (
        work.mark(end, told)
        for end, told in zip(ends, (f"one end of {name}", "the other"), strict=True)
    )
    labels = [str(index) for index in range(1, count)]
    divide(work, first, last, count, [f"{args.name}.{label}" for label in labels], labels, check)


ABOUT = """\
A family: the points that part a line in n, by the slanted-line method; or an `arc`, by its chord.
A whole circle has n of them, from the right or `at` an angle.
"""

SHOWN = """\
units mm
O = datum
A = point, 77 right of O
p = divide, of line O A, in 5
c = circle, centre A, radius 30
q = divide, arc c, in 7, at 90°
"""

KIND = Kind(
    name="divide",
    group="Points",
    summary="a line, arc or circle in n equal parts",
    example="part = divide, of line A B, in 5",
    mistake="An awkward decimal is stepped off n times and its error with it; the slanted line "
    "needs no decimals.",
    also=("equal parts", "division", "divided circle"),
    forms=(
        Form("of {line:line}"),
        Form("arc {circle:circle}"),
        Form("in {count:count}", needed=True),
        Form("at {angle:angle}"),
    ),
    construct=construct,
    about=ABOUT,
    shown=SHOWN,
)
