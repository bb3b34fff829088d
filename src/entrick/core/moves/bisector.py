"""``bisector``: of the distance of two points, or of an angle."""

from __future__ import annotations

import math
from functools import partial

from ..acts import Work
from ..acts.procedures import bisect, halve
from ..geometry import Line, Point
from ..kind import Args, Kind, Made
from ..measure import spell_angle
from ..plan.errors import ClauseError
from ..plan.forms import Form
from ..tolerance import NOUGHT, same


def construct(args: Args) -> Made:
    """Construct the line square through the middle of a line with ends, or the one that halves an
    angle."""
    if args.get("angle"):
        return _of_angle(args)
    clause = args.need("of")
    line, name = clause.line("line"), clause.ref("line").text
    if line.start is None or line.end is None:
        raise ClauseError(f"{name} has no ends to bisect between", clause.index)
    first, second = line.at(line.start), line.at(line.end)
    middle = (first + second) * 0.5
    axis = Line(middle, line.direction.normal)
    return Made(
        axis,
        f"Line {args.name}, bisecting {name} squarely.",
        (
            "it is as far from one end as from the other: half is "
            f"{args.say(abs(second - first) / 2)}",
        ),
        parts={"middle": middle},
        draw=partial(_draw, args, (first, second), axis),
    )


def _of_angle(args: Args) -> Made:
    clause = args.need("angle")
    corner, arms = clause.point("corner"), (clause.point("first"), clause.point("second"))
    names = [clause.ref(slot).text for slot in ("first", "corner", "second")]
    if any(abs(arm - corner) <= same(abs(corner)) for arm in arms):
        raise ClauseError(f"the arms of the angle must lead away from {names[1]}", clause.index)
    first, second = ((arm - corner).unit for arm in arms)
    angle = math.atan2(first.cross(second), first.dot(second))
    if abs(abs(angle) - math.pi) < NOUGHT or abs(angle) < NOUGHT:
        raise ClauseError(
            f"{' '.join(names)} is a straight line: there is no one bisector", clause.index
        )
    direction = (first + second).unit
    told = spell_angle(abs(math.degrees(angle)))
    return Made(
        Line(corner, direction),
        f"Line {args.name}, bisecting the angle {' '.join(names)}.",
        (f"{told} ÷ 2 = {spell_angle(abs(math.degrees(angle)) / 2)}",),
        draw=partial(_draw_angle, args, corner, arms, Line(corner, direction)),
    )


def _draw(args: Args, ends: tuple[Point, Point], axis: Line, work: Work) -> None:
    name = args.need("of").ref("line").text
    first, second = (
        work.mark(end, told)
        for end, told in zip(ends, (f"one end of {name}", "the other"), strict=True)
    )
    bisect(work, first, second, args.name, axis)


def _draw_angle(
    args: Args, corner: Point, arms: tuple[Point, Point], axis: Line, work: Work
) -> None:
    clause = args.need("angle")
    at = work.mark(corner, clause.ref("corner").text)
    ends = [
        work.mark(arm, clause.ref(slot).text)
        for arm, slot in zip(arms, ("first", "second"), strict=True)
    ]
    edges = work.through(at, ends[0]), work.through(at, ends[1])
    halve(work, at, edges, arms, args.name, axis)


ABOUT = """\
Of a line with ends, squarely; or of the angle at a corner.
"""

SHOWN = """\
units mm
O = datum
A = point, 60 right of O
B = point, 40 from O, at 50°
p = bisector, of line O A
q = bisector, of angle A O B
"""

KIND = Kind(
    name="bisector",
    group="Lines",
    summary="of a line with ends, or of an angle at a corner",
    example="axis = bisector, of line A B",
    mistake="The opening is changed between the two swings, and the crossing slides to one side.",
    also=("halve", "half"),
    forms=(
        Form("of {line:line}"),
        Form("of angle {first:point} {corner:point} {second:point}", "angle"),
    ),
    construct=construct,
    about=ABOUT,
    shown=SHOWN,
)
