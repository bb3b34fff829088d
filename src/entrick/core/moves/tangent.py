"""``tangent``: a line that touches a curve, from a point, in a direction, or at a place of it; and
its normal."""

from __future__ import annotations

import math
from functools import partial

from ..acts import Mark, Way, Work
from ..acts.focal import Asked, along, at_place, from_point
from ..acts.normals import Normals
from ..acts.procedures import away
from ..geometry import Line, Point, polar
from ..geometry.conic import Hyperbola, Parabola
from ..geometry.ellipse import Ellipse
from ..geometry.true_curve import TrueCurve
from ..kind import CHOICES, Args, Kind, Made, Option, choose
from ..kind.args import ClauseValues
from ..measure import spell_angle
from ..plan.errors import ClauseError, Wanting
from ..plan.forms import Form
from ..tolerance import same


def construct(args: Args) -> Made:
    """Construct a tangent or, with ``normal``, the line square to the curve at a place.

    Parts: ``touch``, the place on the curve; ``start``, ``end``.

    Notes
    -----
    Of a conic by its foci (`acts.focal`); of any other curve by what its normal goes through: the
    touch of the rolling circle, the end of the thread, the end of the subnormal."""
    clause = args.need("to")
    curve, name = clause.run("curve").stands_for, clause.ref("curve").text
    if curve is None:
        raise ClauseError(
            f"{name} is no curve whose tangents are known: an ellipse, parabola, hyperbola, conic, "
            "cycloid, involute or spiral is, as it was constructed; a tangent to a circle is a "
            f"line, and one drawn by four centres has the true one as {name}.true",
            clause.index,
        )
    turns, how = _turns(args, curve)
    options = [Option(_line(curve, turn, args), curve.at(turn), "tangent") for turn in turns]
    index, candidates = choose(options, args, "tangent")
    turn = turns[index]
    line, touch = options[index].shape, curve.at(turn)
    assert isinstance(line, Line)
    normal = args.get("normal") is not None
    kind = "normal" if normal else "tangent"
    origin, ahead, called = curve.frame
    return Made(
        line,
        f"Line {args.name}, {kind} to {name} {how}.",
        (
            f"it touches {args.say((touch - origin).dot(ahead))} along and "
            f"{args.say((touch - origin).dot(ahead.normal))} up from {called}",
            f"direction {spell_angle(math.degrees(line.direction.angle) % 180)}",
        ),
        parts={"touch": touch},
        candidates=candidates,
        draw=partial(_draw, args, curve, turn, line),
    )


def _draw(args: Args, curve: TrueCurve, turn: float, line: Line, work: Work) -> None:
    name, touch = args.need("to").ref("curve").text, curve.at(turn)
    asked = Asked(name, touch, args.name, args.get("normal") is not None, line)
    if args.get("place") or not isinstance(curve, Ellipse | Parabola | Hyperbola):
        _draw_at(work, curve, turn, asked, args)
    elif args.get("from"):
        source = args.need("from")
        from_point(work, curve, work.mark(source.point("point"), source.ref("point").text), asked)
    else:
        along(work, curve, _way(args, work, 90), asked)


def _draw_at(work: Work, curve: TrueCurve, turn: float, asked: Asked, args: Args) -> None:
    """Draw it where it touches; a touch that nothing leads to is set off as the working says."""
    called = f"{asked.called}.touch"
    at = (
        _set_off(work, curve, asked, called)
        if isinstance(curve, Ellipse) and not work.has_mark(asked.touch)
        else work.mark(asked.touch, called)
    )
    if isinstance(curve, Ellipse | Parabola | Hyperbola):
        at_place(work, curve, at, asked)
        return
    assert isinstance(curve, Normals)
    source = args.get("from")
    if asked.normal:
        curve.normal(work, at, turn, asked.called, asked.shown)
    elif source:
        point = work.mark(source.point("point"), source.ref("point").text)
        work.through(point, at, asked.called, shown=asked.shown)
    elif args.get("place"):
        normal = curve.normal(work, at, turn, f"the normal to {asked.name}", None)
        work.square(normal, at, called=asked.called)
    else:
        work.draw(at, _way(args, work, 0), called=asked.called)


def _way(args: Args, work: Work, more: int) -> Way:
    """Return the direction that is asked for, turned by so many degrees."""
    clause = args.need("at", "level", "plumb", "parallel")
    if clause.key == "parallel":
        model = work.edge(clause.line("line"), clause.ref("line").text)
        return Way(more, model.key, model.called)
    degrees = {"level": 0, "plumb": 90}.get(clause.key)
    return Way((clause.length("angle").value if degrees is None else degrees) + more)


def _set_off(work: Work, ellipse: Ellipse, asked: Asked, called: str) -> Mark:
    """Mark a place of the curve so far along and so far up from its centre, as the working says."""
    touch, centre = asked.touch, work.mark(ellipse.centre)
    axis = work.edge(
        Line.between(ellipse.centre, ellipse.centre + ellipse.major),
        f"the long axis of {asked.name}",
    )
    foot = axis.line.foot(touch)
    at = work.measure(
        centre,
        away(axis, centre, foot),
        abs(foot - ellipse.centre),
        f"the place under {called}",
        foot,
    )
    square = work.square(axis, at, touch)
    return work.measure(at, away(square, at, touch), abs(touch - foot), called, touch)


def _line(curve: TrueCurve, turn: float, args: Args) -> Line:
    touch, heading = curve.at(turn), curve.heading(turn)
    if args.get("normal") is not None:
        return Line(touch, heading.normal)
    source = args.get("from")
    if source and abs(source.point("point") - touch) > same(abs(touch)):
        return Line.between(source.point("point"), touch)
    return Line(touch, heading)


def _turns(args: Args, curve: TrueCurve) -> tuple[tuple[float, ...], str]:
    source, place = args.get("from"), args.get("place")
    directions = args.all("at", "level", "plumb", "parallel")
    if (source is not None) + (place is not None) + len(directions) != 1:
        raise Wanting(
            "a tangent is drawn from a point, at a place, or in a direction: say one of them"
        )
    if source:
        turns = curve.touching_from(source.point("point"))
        if not turns:
            raise ClauseError(
                f"{source.ref('point').text} lies inside: no tangent comes from there"
                if isinstance(curve, Ellipse)
                else f"no tangent from {source.ref('point').text} touches what is drawn of it",
                source.index,
            )
        return turns, f"from {source.ref('point').text}"
    if place:
        return (
            curve.nearest_turn(place.point("point")),
        ), f"at the place nearest to {place.ref('point').text}"
    said = directions[0]
    direction, how = _direction(said)
    turns = curve.touching_along(direction)
    if not turns:
        raise ClauseError("no tangent in that direction touches what is drawn", said.index)
    return turns, how


def _direction(clause: ClauseValues) -> tuple[Point, str]:
    if clause.key == "parallel":
        return clause.line("line").direction, f"parallel to {clause.ref('line').text}"
    degrees = {"level": 0.0, "plumb": 90.0}.get(clause.key)
    degrees = float(clause.length("angle")) if degrees is None else degrees
    straight = {0.0: Point(1.0, 0.0), 90.0: Point(0.0, 1.0)}.get(degrees)
    return straight or polar(1.0, math.radians(degrees)), f"at {spell_angle(degrees)}"


ABOUT = """\
A line that touches an ellipse, parabola, hyperbola, conic, cycloid, involute or spiral: `from P`,
in a direction (`level`, `plumb`, `at 30°`, `parallel to l`), or `at place P`; with `normal`, the
line square to it there. A place may be a station of the curve. Conics by their foci; a cycloid's
normal goes through the touch of the rolling circle, an involute's is its thread, a spiral's goes
to the end of the subnormal. Part `touch`.
"""

SHOWN = """\
units mm
O = datum
e = ellipse, centred on O, axes 90 and 56
P = point, 80 right of O, 40 above
t = tangent, to e, from P, above
u = tangent, to e, level, below
n = tangent, to e, at place P, normal
"""

KIND = Kind(
    name="tangent",
    group="Curves",
    summary="a line that touches a curve; or its normal",
    example="edge = tangent, to hatch1, from P, above",
    mistake="The edge is laid against the curve by eye: the touch point is where the tangent is "
    "square to the normal.",
    also=("normal", "touching line"),
    forms=(
        Form("to {curve:run}", "to", needed=True),
        Form("from {point:point}", "from"),
        Form("at place {point:point}", "place"),
        Form("at {angle:angle}"),
        Form("level"),
        Form("plumb"),
        Form("parallel to {line:line}", "parallel"),
        Form("normal"),
        *CHOICES,
    ),
    construct=construct,
    about=ABOUT,
    shown=SHOWN,
)
