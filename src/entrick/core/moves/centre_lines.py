"""``centre lines``: chain lines through circles, round pitch circles and along lines of
symmetry."""

from __future__ import annotations

import math

from ..drawing.notes import CentreLine, Note
from ..geometry import Arc, Circle, Line, Loop, Point, Shape
from ..kind import Args, Kind, Made
from ..plan.errors import ClauseError, Wanting
from ..plan.forms import Form
from ..tolerance import DIRECTION, worked


def construct(args: Args) -> Made:
    """Draw a centre cross on each circle, a chain circle, or a chain line along an axis.

    A slot has one along its middle and one across each end. A cross is level and plumb, or turned
    so that one line aims at a point: for holes on a pitch circle."""
    notes: list[Note] = []
    told: list[str] = []
    towards = args.get("towards")
    for clause in args.all("of"):
        for name, thing in clause.things("things"):
            slot = _slot(thing) if isinstance(thing, Loop) and towards is None else []
            notes += slot
            for circle in () if slot else _circles(name, thing, clause.index):
                notes += _cross(circle, towards.point("point") if towards else None)
        told.append(f"of {' '.join(ref.text for ref in clause.refs('things'))}")
    for clause in args.all("round"):
        pitch = clause.shape("circle")
        assert isinstance(pitch, Circle | Arc)
        notes.append(CentreLine(pitch))
        told.append(f"round {clause.ref('circle').text}")
    for clause in args.all("along"):
        notes.append(CentreLine(clause.line("line")))
        told.append(f"along {clause.ref('line').text}")
    if not notes:
        raise Wanting(
            "say what the centre lines belong to: of circles, round a pitch circle, or along an "
            "axis"
        )
    return Made(
        Point(0.0, 0.0),
        f"Centre lines {' and '.join(told)}.",
        notes=tuple(notes),
        nothing=True,
        draw=lambda work: work.finish(
            "Draw the centre lines as thin chain lines",
            "centre lines",
            check=f"{' and '.join(told)}; each begins and ends on a long dash, a little past what "
            "it centres",
        ),
    )


def _slot(run: Loop) -> list[Note]:
    """Return the centre lines of a slot: along its middle, and across each round end; none for any
    other run."""
    if len(run.pieces) != 4 or not run.closed:
        return []
    one, end, other, start = (piece.curve for piece in run.pieces)
    ends = [
        each
        for each in (start, end)
        if isinstance(each, Arc) and abs(abs(each.sweep) - math.pi) < DIRECTION
    ]
    if isinstance(one, Line) and isinstance(other, Line) and len(ends) == 2:
        middle: Line | Arc = Line.between(ends[0].middle, ends[1].middle)
        return [
            CentreLine(curve)
            for curve in (middle, *(Line.between(each.first, each.last) for each in ends))
        ]
    if (
        isinstance(one, Arc)
        and isinstance(other, Arc)
        and abs(one.centre - other.centre) <= worked(one.radius)
    ):
        radius = (one.radius + other.radius) / 2
        reach = [each.radius / radius for each in ends] or [0.0]
        way = math.copysign(1, one.sweep)
        middle = Arc(one.centre, radius, one.start - way * reach[0], one.sweep + 2 * way * reach[0])
        return [
            CentreLine(middle),
            *(CentreLine(Line.between(each.first, each.last)) for each in ends),
        ]
    return []


def _circles(name: str, thing: Shape | Loop, clause: int) -> list[Circle | Arc]:
    if isinstance(thing, Circle | Arc):
        return [thing]
    if isinstance(thing, Loop):
        found = {}
        for piece in thing.pieces:
            if isinstance(piece.curve, Circle | Arc):
                found[piece.curve.centre] = piece.curve
        return list(found.values())
    raise ClauseError(
        f"{name} is no circle: centre lines along a straight line are said  along {name}", clause
    )


def _cross(circle: Circle | Arc, towards: Point | None) -> list[Note]:
    centre, radius = circle.centre, circle.radius
    ahead = (
        (towards - centre).unit if towards is not None and towards != centre else Point(1.0, 0.0)
    )
    return [
        CentreLine(Line.between(centre - way * radius, centre + way * radius))
        for way in (ahead, ahead.normal)
    ]


ABOUT = """\
Chain lines: crosses `of` circles, arcs or runs, `round` a pitch circle, `along` an axis;
`towards` a point turns the crosses. Dashes are fitted, so that even a short one reads as what
it is.
"""

SHOWN = """\
units mm
O = datum
pitch = circle, centre O, radius 40
at = spaced, 4 on pitch, from above
hole = circle, centre at, radius 5
cl = centre lines, of hole, round pitch, along O.plumb
"""

KIND = Kind(
    name="centre lines",
    group="Finish",
    summary="chain lines through circles, round pitch circles, along axes",
    example="cl = centre lines, of boss hole, along O.plumb",
    mistake="Two short dashes meet in the middle: let long dashes cross at a centre.",
    also=("centre line", "axis", "axes", "chain line"),
    forms=(
        Form("of {things:several}", most=12),
        Form("round {circle:circle}", most=12),
        Form("along {line:line}", most=12),
        Form("towards {point:point}"),
    ),
    construct=construct,
    about=ABOUT,
    shown=SHOWN,
)
