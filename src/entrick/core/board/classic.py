"""Classic constructions with compass and straight edge, as steps that kinds share and that a step opens up into.

All are common practice, no source; each is exact unless it says otherwise.
"""

from __future__ import annotations

import math

from ..drawing.strokes import Stroke, Tool
from ..geometry import Arc, Circle, Line, Point, polar
from ..tolerance import same
from .step import Step

OPEN = 0.6
"""Compass opening of a bisection, as a share of the distance: anything over a half will do."""

SWING = math.radians(24)
"""Length of a light swing across a line that it cuts."""


def _cut(at: Point, radius: float, towards: float) -> Stroke:
    return Stroke(Arc(at, radius, towards - SWING / 2, SWING))


def bisection(first: Point, second: Point, names: tuple[str, str], result: Stroke, does: str) -> tuple[Step, ...]:
    """Return the compass-and-straight-edge steps that bisect the distance of two points."""
    apart = abs(second - first)
    if apart <= same(apart):
        return ()
    radius = apart * OPEN
    half = math.acos(0.5 / OPEN) * 1.25
    swings = tuple(
        Step(
            Tool.COMPASS,
            f"Open to more than half, needle on {name}, swing above and below",
            radius,
            at,
            tuple(Stroke(Arc(at, radius, towards + side * half * 0.8 - half * 0.2, half * 0.4)) for side in (1, -1)),
        )
        for at, other, name in ((first, second, names[0]), (second, first, names[1]))
        for towards in ((other - at).angle,)
    )
    axis = Line((first + second) * 0.5, (second - first).unit.normal, -radius, radius)
    join = Step(Tool.STRAIGHTEDGE, f"Join the two crossings and {does}", strokes=(Stroke(axis), result))
    return (*swings, join)


def angle_bisection(corner: Point, arms: tuple[Point, Point], reach: float, names: tuple[str, str], result: Stroke,
                    ) -> tuple[Step, ...]:  # fmt: skip
    """Return the steps that bisect the angle between two directions of length 1 at a corner.

    Parameters
    ----------
    corner : Point
    arms : two Points
        Directions of length 1.
    reach : float
        Compass opening, plan units.
    names : two str
        What the corner is called, and what the bisector is.
    result : Stroke
    """
    angle = math.atan2(arms[0].cross(arms[1]), arms[0].dot(arms[1]))
    direction = (arms[0] + arms[1]).unit
    cuts = [corner + arm * reach for arm in arms]
    meeting = corner + direction * (reach * math.cos(angle / 2) * 2)
    both = tuple(_cut(corner, reach, arm.angle) for arm in arms)
    return (
        Step(Tool.COMPASS, f"Needle on {names[0]}, cut both arms", reach, corner, both),
        *(
            Step(Tool.COMPASS, "Same opening, needle on each cut, swing between the arms", reach, cut,
                 (_cut(cut, reach, (meeting - cut).angle),))
            for cut in cuts
        ),
        Step(Tool.STRAIGHTEDGE, f"Join {names[0]} and the crossing: {names[1]}", strokes=(result,)),
    )  # fmt: skip


def square_at(point: Point, direction: Point, reach: float, result: Stroke) -> tuple[Step, ...]:
    """Return the steps that raise a perpendicular at a point of a line that runs in a direction."""
    cuts = [point + direction * reach, point - direction * reach]
    top = point + direction.normal * (reach * math.sqrt(3))
    both = tuple(_cut(point, reach, (cut - point).angle) for cut in cuts)
    return (
        Step(Tool.COMPASS, "Needle on the point, cut the line on both sides", reach, point, both),
        *(
            Step(Tool.COMPASS, "Open to twice that, needle on each cut, swing beyond the line", 2 * reach, cut,
                 (_cut(cut, 2 * reach, (top - cut).angle),))
            for cut in cuts
        ),
        Step(Tool.STRAIGHTEDGE, "Join the crossing and the point: square to the line", strokes=(result,)),
    )  # fmt: skip


def square_from(point: Point, foot: Point, result: Stroke) -> tuple[Step, ...]:
    """Return the steps that drop a perpendicular from a point to a line; `foot` is where it comes to."""
    down = foot - point
    height = abs(down)
    opening, half = height * 1.25, height * 0.75
    along = down.unit.normal
    cuts = [foot + along * half, foot - along * half]
    below = foot + down
    both = tuple(_cut(point, opening, (cut - point).angle) for cut in cuts)
    return (
        Step(Tool.COMPASS, "Needle on the point, opened past the line: cut the line twice", opening, point, both),
        *(
            Step(Tool.COMPASS, "Same opening, needle on each cut, swing on the far side", opening, cut,
                 (_cut(cut, opening, (below - cut).angle),))
            for cut in cuts
        ),
        Step(Tool.STRAIGHTEDGE, "Lay the edge through the point and the crossing: square to the line",
             strokes=(result,)),
    )  # fmt: skip


def parallel_by_sliding(line: Line, point: Point, result: Stroke) -> tuple[Step, ...]:
    """Return the steps that draw the parallel of a line through a point with two set squares."""
    guide = Stroke(Line.between(line.foot(point), point))
    return (
        Step(Tool.STRAIGHTEDGE, "Lay the long edge of a set square along the line", strokes=(Stroke(line),)),
        Step(Tool.STRAIGHTEDGE, "Hold the other set square against its short edge, and do not let go of it",
             strokes=(guide,)),
        Step(Tool.STRAIGHTEDGE, "Slide the first along it until the long edge is at the place, and draw",
             strokes=(result,), check="the first square has not tilted: slide it back, it still lies on the line"),
    )  # fmt: skip


def sixty(point: Point, base: Point, turn: int, reach: float, result: Stroke) -> tuple[Step, ...]:
    """Return the steps of an equilateral triangle on a base: 60° from the direction `base`, ccw for turn 1."""
    end = point + base * reach
    top = point + polar(reach, base.angle + turn * math.pi / 3)
    return (
        Step(Tool.COMPASS, "Needle on the point, any opening, swing from the base line upwards", reach, point,
             (Stroke(Arc(point, reach, base.angle, turn * math.radians(75))),)),
        Step(Tool.COMPASS, "Same opening, needle where it cut the base line: cut the swing", reach, end,
             (_cut(end, reach, (top - end).angle),)),
        Step(Tool.STRAIGHTEDGE, "Join the point and the cut: two sides of an equilateral triangle, 60°",
             strokes=(result,)),
    )  # fmt: skip


def angle_by_chord(point: Point, degrees: float, reach: float, result: Stroke) -> tuple[Step, ...]:
    """Return the steps that set off any angle by its chord: 2·R·sin(θ/2) stepped off on a swing of R.

    As exact as the rule is read, and finer than a protractor.
    """
    turn = math.radians(degrees)
    end = point + Point(reach, 0.0)
    chord = 2 * reach * abs(math.sin(turn / 2))
    spot = point + polar(reach, turn)
    return (
        Step(Tool.COMPASS, "Needle on the point, swing from the level line", reach, point,
             (Stroke(Arc(point, reach, 0.0, turn)),)),
        Step(Tool.COMPASS, f"Open to the chord of the angle, 2·R·sin({degrees:g}° ÷ 2), cut the swing", chord, end,
             (_cut(end, chord, (spot - end).angle),)),
        Step(Tool.STRAIGHTEDGE, "Join the point and the cut", strokes=(result,)),
    )  # fmt: skip


def angle_from_level(point: Point, degrees: float, reach: float, result: Stroke) -> tuple[Step, ...]:
    """Return the steps that draw a direction, counted from the right, without set squares or protractor."""
    turned = degrees % 180
    level, plumb = Point(1.0, 0.0), Point(0.0, 1.0)
    base, turn = (level, 1) if turned <= 90 else (-level, -1)
    steep = turned if turned <= 90 else 180 - turned
    arm = base * math.cos(math.radians(60)) + plumb * math.sin(math.radians(60))
    light = Stroke(Line.between(point, point + arm * (reach * 1.6)))
    raised = Stroke(Line.between(point, point + plumb * (reach * 1.6)))
    match round(steep, 7):
        case 0:
            return ()
        case 90:
            return square_at(point, level, reach / 2, result)
        case 60:
            return sixty(point, base, turn, reach, result)
        case 30:
            return (*sixty(point, base, turn, reach, light),
                    *angle_bisection(point, (base, arm), reach, ("the point", "30°"), result))  # fmt: skip
        case 45:
            return (*square_at(point, level, reach / 2, raised),
                    *angle_bisection(point, (base, plumb), reach, ("the point", "45°"), result))  # fmt: skip
        case 75:
            return (*square_at(point, level, reach / 2, raised), *sixty(point, base, turn, reach, light),
                    *angle_bisection(point, (arm, plumb), reach, ("the point", "75°"), result))  # fmt: skip
        case 15:
            half = base * math.cos(math.radians(30)) + plumb * math.sin(math.radians(30))
            thirty = Stroke(Line.between(point, point + half * (reach * 1.6)))
            return (*sixty(point, base, turn, reach, light),
                    *angle_bisection(point, (base, arm), reach, ("the point", "30°"), thirty),
                    *angle_bisection(point, (base, half), reach, ("the point", "15°"), result))  # fmt: skip
    return angle_by_chord(point, turned, reach, result)


def centre_of_arc(arc: Circle | Arc) -> tuple[Step, ...]:
    """Return the steps that find the centre of an arc again: two chords, each bisected."""
    start, sweep = (arc.start, arc.sweep) if isinstance(arc, Arc) else (0.3, 2.4)
    a, b, c = (arc.at(start + sweep * share) for share in (0.0, 0.5, 1.0))
    first = Stroke(Line.between((a + b) * 0.5, arc.centre))
    second = Stroke(Line.between((b + c) * 0.5, arc.centre))
    return (
        Step(Tool.PENCIL, "Mark three places on the arc, well apart", strokes=(Stroke(a), Stroke(b), Stroke(c))),
        *bisection(a, b, ("the first", "the second"), first, "run it on"),
        *bisection(b, c, ("the second", "the third"), second, "the two meet in the centre"),
    )


def transferred(start: Point, end: Point) -> tuple[Step, ...]:
    """Return the steps that carry a length over with dividers instead of laying the rule on the drawing."""
    length = abs(end - start)
    return (
        Step(Tool.DIVIDERS, "Set the dividers on the rule, from a long graduation and not from its end", length),
        Step(Tool.DIVIDERS, "Step it off and prick the place lightly", length, start, (Stroke(end),),
             "lay the dividers back on the rule"),
    )  # fmt: skip


def opened(step: Step, reach: float) -> tuple[Step, ...]:
    """Open a step up into the classic construction behind it.

    Parameters
    ----------
    step : Step
    reach : float
        A handy compass opening, plan units, where the construction leaves it free.

    Returns
    -------
    tuple of Step
        Empty for what is compass and straight edge already, such as joining two points.
    """
    if step.opened is not None:
        return step.opened()
    lines = [stroke for stroke in step.strokes if isinstance(stroke.shape, Line)]
    rounds = [stroke.shape for stroke in step.strokes if isinstance(stroke.shape, Circle | Arc)]
    match step.tool:
        case Tool.ANGLE if lines and step.setting is not None:
            line = lines[0].shape
            assert isinstance(line, Line)
            start = line.through if line.start is None else line.at(line.start)
            return angle_from_level(start, float(step.setting), reach, lines[0])
        case Tool.RULE if lines:
            line = lines[0].shape
            if isinstance(line, Line) and line.start is not None and line.end is not None and step.setting is not None:
                start, end = line.at(line.start), line.at(line.end)
                if abs(end - start) > 0:
                    return transferred(start, start + (end - start).unit * abs(float(step.setting)))
        case Tool.DIVIDERS if lines:
            line = lines[0].shape
            if isinstance(line, Line) and line.start is not None and line.end is not None:
                first, last = line.at(line.start), line.at(line.end)
                middle = (first + last) * 0.5
                return (*square_from(first, middle, lines[0]), *transferred(middle, last))
        case Tool.COMPASS if rounds:
            return centre_of_arc(rounds[0])
    return ()


def opens(step: Step) -> bool:
    """Tell whether a step opens up, without constructing anything."""
    if step.opened is not None:
        return True
    straight = any(isinstance(s.shape, Line) for s in step.strokes)
    match step.tool:
        case Tool.ANGLE:
            return straight and step.setting is not None and float(step.setting) % 180 != 0
        case Tool.COMPASS:
            return any(isinstance(s.shape, Circle | Arc) for s in step.strokes)
        case Tool.RULE if step.setting is None:
            return False
        case Tool.RULE | Tool.DIVIDERS:
            return any(isinstance(s.shape, Line) and s.shape.start is not None for s in step.strokes[:1])
    return False
