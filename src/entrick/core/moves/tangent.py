"""``tangent``: a line that touches an ellipse, from a point, in a direction, or at a place of it; and its normal."""

from __future__ import annotations

import math

from ..geometry import Line, Point, polar
from ..geometry.ellipse import Ellipse
from ..kind import CHOICES, Args, Kind, Made, Option, Role, Step, Stroke, Tool, choose
from ..measure import spell_angle
from ..plan.errors import ClauseError
from ..plan.forms import Form


def construct(args: Args) -> Made:
    """Construct a tangent or, with ``normal``, the line square to the curve at a place.

    Parts: ``touch``, the place on the curve; ``start``, ``end``.

    Notes
    -----
    The normal halves the angle between the lines to the foci; the tangent is square to it (property of the foci).
    """
    clause = args.need("to")
    ellipse, name = clause.run("curve").stands_for, clause.ref("curve").text
    if ellipse is None:
        raise ClauseError(f"{name} is no true ellipse; one drawn by four centres has it as {name}.true", clause.clause)
    turns, how = _turns(args, ellipse)
    options = [Option(_line(ellipse, turn, args), ellipse.at(turn), "tangent") for turn in turns]
    index, candidates = choose(options, args, "tangent")
    turn = turns[index]
    line, touch = options[index].shape, ellipse.at(turn)
    assert isinstance(line, Line)
    foci = ellipse.foci
    normal = args.get("normal") is not None
    kind = "normal" if normal else "tangent"
    rays = tuple(Stroke(Line.between(focus, touch)) for focus in foci if abs(focus - touch) > 0)
    return Made(
        line,
        f"Line {args.name}, {kind} to {name} {how}.",
        (
            f"it touches {args.say((touch - ellipse.centre).dot(ellipse.major.unit))} along and "
            f"{args.say((touch - ellipse.centre).dot(ellipse.across.unit))} up from the centre",
            f"direction {spell_angle(math.degrees(line.direction.angle) % 180)}",
        ),
        (
            Step(Tool.STRAIGHTEDGE, "Join the place to both foci", strokes=(*rays, Stroke(touch, Role.POINT))),
            Step(
                Tool.STRAIGHTEDGE,
                f"Halve the angle between them: that is the normal{'' if normal else '; the tangent is square to it'}",
                strokes=(Stroke(line),),
                check="it touches the curve and does not cut it" if not normal else "it is square to the curve",
            ),
        ),
        {"touch": touch},
        candidates=candidates,
    )


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
        raise ClauseError("a tangent is drawn from a point, at a place, or in a direction: say one of them")
    if source:
        turns = ellipse.touching_from(source.point("point"))
        if not turns:
            raise ClauseError(f"{source.ref('point').text} lies inside: no tangent comes from there", source.clause)
        return turns, f"from {source.ref('point').text}"
    if place:
        return (ellipse.nearest_turn(place.point("point")),), f"at the place nearest to {place.ref('point').text}"
    said = directions[0]
    if said.key == "parallel":
        return ellipse.touching_along(said.line("line").direction), f"parallel to {said.ref('line').text}"
    degrees = {"level": 0.0, "plumb": 90.0}.get(said.key)
    degrees = float(said.length("angle")) if degrees is None else degrees
    direction = {0.0: Point(1.0, 0.0), 90.0: Point(0.0, 1.0)}.get(degrees) or polar(1.0, math.radians(degrees))
    return ellipse.touching_along(direction), f"at {spell_angle(degrees)}"


KIND = Kind(
    name="tangent",
    group="Curves",
    summary="a line that touches an ellipse; or its normal",
    example="edge = tangent, to hatch1, from P, above",
    mistake="The edge is laid against the curve by eye: the touch point is where the tangent is square to the normal.",
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
)
