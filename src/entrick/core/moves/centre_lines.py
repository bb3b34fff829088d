"""``centre lines``: chain lines through circles, round pitch circles and along lines of symmetry."""

from __future__ import annotations

from ..drawing.notes import CentreLine, Note
from ..geometry import Arc, Circle, Line, Loop, Point, Shape
from ..kind import Args, Kind, Made, Step, Tool
from ..plan.errors import ClauseError
from ..plan.forms import Form


def construct(args: Args) -> Made:
    """Draw a centre cross on each circle, a chain circle, or a chain line along an axis.

    A cross is level and plumb, or turned so that one line aims at a point: for holes on a pitch circle.
    """
    notes: list[Note] = []
    told: list[str] = []
    towards = args.get("towards")
    for clause in args.all("of"):
        for name, thing in clause.things("things"):
            for circle in _circles(name, thing, clause.clause):
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
        raise ClauseError("say what the centre lines belong to: of circles, round a pitch circle, or along an axis")
    return Made(
        Point(0.0, 0.0),
        f"Centre lines {' and '.join(told)}.",
        (),
        (Step(Tool.PENCIL, f"Draw the centre lines {' and '.join(told)} as thin chain lines",
              check="each begins and ends on a long dash, a little past what it centres"),),
        notes=tuple(notes),
        nothing=True,
    )  # fmt: skip


def _circles(name: str, thing: Shape | Loop, clause: int) -> list[Circle | Arc]:
    if isinstance(thing, Circle | Arc):
        return [thing]
    if isinstance(thing, Loop):
        found = {}
        for piece in thing.pieces:
            if isinstance(piece.curve, Circle | Arc):
                found[piece.curve.centre] = piece.curve
        return list(found.values())
    raise ClauseError(f"{name} is no circle: centre lines along a straight line are said  along {name}", clause)


def _cross(circle: Circle | Arc, towards: Point | None) -> list[Note]:
    centre, radius = circle.centre, circle.radius
    ahead = (towards - centre).unit if towards is not None and towards != centre else Point(1.0, 0.0)
    return [CentreLine(Line.between(centre - way * radius, centre + way * radius)) for way in (ahead, ahead.normal)]


KIND = Kind(
    name="centre lines",
    group="Finish",
    summary="chain lines through circles, round pitch circles, along axes",
    example="cl = centre lines, of boss hole, along O.plumb",
    mistake="Two short dashes meet in the middle: let long dashes cross at a centre.",
    forms=(
        Form("of {things:several}", most=12),
        Form("round {circle:circle}", most=12),
        Form("along {line:line}", most=12),
        Form("towards {point:point}"),
    ),
    construct=construct,
)
