"""``tangent``: a line that touches an ellipse, from a point, in a direction, or at a place of it;
and its normal."""

from __future__ import annotations

import math
from functools import partial

from ..acts import Mark, Way, Work
from ..acts.procedures import away, bisect, foci_of, halve
from ..geometry import Line, Point, polar
from ..geometry.ellipse import Ellipse
from ..kind import CHOICES, Args, Kind, Made, Option, choose
from ..measure import spell_angle
from ..plan.errors import ClauseError, Wanting
from ..plan.forms import Form


def construct(args: Args) -> Made:
    """Construct a tangent or, with ``normal``, the line square to the curve at a place.

    Parts: ``touch``, the place on the curve; ``start``, ``end``.

    Notes
    -----
    The normal halves the angle between the lines to the foci; the tangent is square to it (property
    of the foci)."""
    clause = args.need("to")
    ellipse, name = clause.run("curve").stands_for, clause.ref("curve").text
    if ellipse is None:
        raise ClauseError(
            f"{name} is no true ellipse; one drawn by four centres has it as {name}.true",
            clause.clause,
        )
    turns, how = _turns(args, ellipse)
    options = [Option(_line(ellipse, turn, args), ellipse.at(turn), "tangent") for turn in turns]
    index, candidates = choose(options, args, "tangent")
    turn = turns[index]
    line, touch = options[index].shape, ellipse.at(turn)
    assert isinstance(line, Line)
    normal = args.get("normal") is not None
    kind = "normal" if normal else "tangent"
    return Made(
        line,
        f"Line {args.name}, {kind} to {name} {how}.",
        (
            f"it touches {args.say((touch - ellipse.centre).dot(ellipse.major.unit))} along and "
            f"{args.say((touch - ellipse.centre).dot(ellipse.across.unit))} up from the centre",
            f"direction {spell_angle(math.degrees(line.direction.angle) % 180)}",
        ),
        parts={"touch": touch},
        candidates=candidates,
        draw=partial(_draw, args, ellipse, touch, line),
    )


def _draw(args: Args, ellipse: Ellipse, touch: Point, line: Line, work: Work) -> None:
    """Construct the tangent from the foci: one focus mirrored on it lies the long axis away from
    the other."""
    name, called, place = args.need("to").ref("curve").text, f"{args.name}.touch", args.get("place")
    second, first = foci_of(work, ellipse, name)
    if place:
        at = (
            work.mark(touch, called)
            if work.has_mark(touch)
            else _set_off(work, ellipse, touch, name, called)
        )
        arms = work.through(at, second), work.through(at, first)
        shown = line if args.get("normal") else None
        normal = halve(
            work,
            at,
            arms,
            (second.at, first.at),
            "the normal" if shown is None else args.name,
            shown,
        )
        if shown is None:
            work.square(normal, at, called=args.name)
        return
    whole = work.between(*(work.mark(ellipse.centre + ellipse.major * side) for side in (1, -1)))
    mirror = first.at + (touch - first.at).unit * (2 * ellipse.a)
    ring = work.swing(first, whole, near=[mirror], told="the whole long axis from one focus")
    tangent = args.name if not args.get("normal") else "the tangent"
    source = args.get("from")
    if source:
        point = work.mark(source.point("point"), source.ref("point").text)
        swing = work.swing(point, work.between(point, second), near=[mirror])
        image = work.prick(ring, swing, mirror, "the image of the focus")
    else:
        said = args.need("at", "level", "plumb", "parallel")
        if said.key == "parallel":
            model = work.edge(said.line("line"), said.ref("line").text)
            way = Way(90, model.key, model.called)
        else:
            degrees = {"level": 0, "plumb": 90}.get(said.key)
            way = Way((said.length("angle").value if degrees is None else degrees) + 90)
        square = work.draw(second, way, mirror, "the square to the tangent")
        image = work.prick(square, ring, mirror, "the image of the focus")
    drawn = bisect(work, second, image, tangent, None if args.get("normal") else line)
    ray = work.through(first, image, "the line to the image")
    at = work.prick(ray, drawn, touch, called)
    if args.get("normal"):
        work.square(drawn, at, called=args.name)


def _set_off(work: Work, ellipse: Ellipse, touch: Point, name: str, called: str) -> Mark:
    """Mark a place of the curve so far along and so far up from its centre, as the working says."""
    centre = work.mark(ellipse.centre)
    axis = work.edge(
        Line.between(ellipse.centre, ellipse.centre + ellipse.major), f"the long axis of {name}"
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


def _line(ellipse: Ellipse, turn: float, args: Args) -> Line:
    touch, heading = ellipse.at(turn), ellipse.heading(turn)
    if args.get("normal") is not None:
        return Line(touch, heading.normal)
    source = args.get("from")
    return Line.between(source.point("point"), touch) if source else Line(touch, heading)


def _turns(args: Args, ellipse: Ellipse) -> tuple[tuple[float, ...], str]:
    source, place = args.get("from"), args.get("place")
    directions = args.all("at", "level", "plumb", "parallel")
    if (source is not None) + (place is not None) + len(directions) != 1:
        raise Wanting(
            "a tangent is drawn from a point, at a place, or in a direction: say one of them"
        )
    if source:
        turns = ellipse.touching_from(source.point("point"))
        if not turns:
            raise ClauseError(
                f"{source.ref('point').text} lies inside: no tangent comes from there",
                source.clause,
            )
        return turns, f"from {source.ref('point').text}"
    if place:
        return (
            ellipse.nearest_turn(place.point("point")),
        ), f"at the place nearest to {place.ref('point').text}"
    said = directions[0]
    if said.key == "parallel":
        return ellipse.touching_along(
            said.line("line").direction
        ), f"parallel to {said.ref('line').text}"
    degrees = {"level": 0.0, "plumb": 90.0}.get(said.key)
    degrees = float(said.length("angle")) if degrees is None else degrees
    direction = {0.0: Point(1.0, 0.0), 90.0: Point(0.0, 1.0)}.get(degrees) or polar(
        1.0, math.radians(degrees)
    )
    return ellipse.touching_along(direction), f"at {spell_angle(degrees)}"


ABOUT = """\
A line that touches an ellipse: `from P`, in a direction (`level`, `plumb`, `at 30°`, `parallel
to l`), or `at place P`; with `normal`, the line square to it there. Part `touch`.
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
    summary="a line that touches an ellipse; or its normal",
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
