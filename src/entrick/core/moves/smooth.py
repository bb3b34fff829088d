"""``smooth``: a curve without corners through points, of arcs that run into each other."""

from __future__ import annotations

import math
from functools import partial

from ..acts import Work
from ..geometry import Arc, Line, Loop, Piece, Point, Shape, piece_of, polar
from ..geometry.biarc import smooth
from ..kind import Args, ClauseValues, Kind, Made
from ..plan.errors import ClauseError
from ..plan.forms import Form
from ..tolerance import DIRECTION, same

MOST_POINTS = 60


def construct(args: Args) -> Made:
    """Construct a curve through points, two arcs between each and the next, tangent where they
    join.

    At each inner point it has the direction of the circle through that point and its neighbours; at
    the ends as well, unless a direction is given. Parts: the arcs by number, ``start``, ``end``.
    """
    clause = args.need("through")
    named = clause.things("points")
    spots: list[Point] = []
    for name, spot in named:
        if not isinstance(spot, Point):
            raise ClauseError(
                f"{name} is no point; a smooth curve goes through points", clause.index
            )
        if spots and abs(spot - spots[-1]) <= same(abs(spot)):
            raise ClauseError(f"{name} is the same place as the point before it", clause.index)
        spots.append(spot)
    closed = args.get("closed") is not None
    if len(spots) < (3 if closed else 2) or len(spots) > MOST_POINTS:
        raise ClauseError(
            f"a smooth curve goes through 2 to {MOST_POINTS} points; a closed one through 3",
            clause.index,
        )
    leaving, arriving = (_direction(args.get(key)) for key in ("leaving", "arriving"))
    _refuse_straight_back(args, named, spots, leaving, arriving)
    curves = smooth(spots, closed, leaving, arriving)
    pieces: tuple[Piece, ...] = tuple(
        piece_of(curve, f"{args.name}.{i}", args.name) for i, curve in enumerate(curves, 1)
    )
    run = Loop(pieces, closed)
    tightest = min((c.radius for c in curves if isinstance(c, Arc)), default=math.inf)
    by_eye = args.get("by eye") is not None
    parts: dict[str, Shape | Loop] = {str(i): piece.curve for i, piece in enumerate(pieces, 1)}
    return Made(
        run,
        f"Smooth curve {args.name} through {', '.join(name for name, _ in named)}"
        + (": drawn by eye." if by_eye else ": its points are computed."),
        (
            "no curve is given: points between these are a fair line, not a dimension"
            if by_eye
            else "between the points two arcs of the same direction where they meet",
            *((f"tightest radius {args.say(tightest)}",) if tightest < math.inf else ()),
        ),
        parts={**parts, "start": pieces[0].entry, "end": pieces[-1].exit},
        draw=partial(_draw, args, named, run),
    )


def _draw(args: Args, named: list[tuple[str, Shape | Loop]], run: Loop, work: Work) -> None:
    marks = [work.mark(spot, name) for name, spot in named if isinstance(spot, Point)]
    work.trace(marks, run, args.name, check="it looks fair from a low angle: no flat and no hump")


def _refuse_straight_back(
    args: Args,
    named: list[tuple[str, Shape | Loop]],
    spots: list[Point],
    leaving: Point | None,
    arriving: Point | None,
) -> None:
    """Two arcs do not turn a curve round that sets out straight away from where it goes."""
    for key, way, there, here in (("leaving", leaving, 1, 0), ("arriving", arriving, -1, -2)):
        ahead = (spots[there] - spots[here]).unit
        if way is not None and way.dot(ahead) < 0 and abs(way.cross(ahead)) < DIRECTION:
            verb = (
                f"leaves {named[0][0]} straight away from {named[1][0]}"
                if key == "leaving"
                else (f"arrives at {named[-1][0]} straight back towards {named[-2][0]}")
            )
            raise ClauseError(
                f"the curve {verb}: give a point between, or another direction",
                args.need(key).index,
            )


def _direction(clause: ClauseValues | None) -> Point | None:
    if clause is None:
        return None
    if clause.has("angle"):
        return polar(1.0, math.radians(float(clause.length("angle"))))
    line = clause.line("line")
    return line.direction if isinstance(line, Line) else None


ABOUT = """\
A curve without corners through points, made of arcs; it may leave and arrive at an angle or
along a line. `by eye` says that the points were not computed. Parts `1`, `2` and so on.
"""

SHOWN = """\
units mm
O = datum
A = point, 20 right of O, 8 above
B = point, 45 right of O, 5 above
C = point, 60 right of O, 20 above
brow = smooth, through O A B C, leaving at 40°
"""

KIND = Kind(
    name="smooth",
    group="Ready shapes",
    summary="a curve without corners through points",
    example="brow = smooth, through A B C D, leaving at 30°",
    mistake="The French curve is laid through two points at a time and the joins show: let the "
    "stretches overlap.",
    also=("curve", "freehand curve", "curve through points"),
    forms=(
        Form("through {points:several}", needed=True),
        Form("leaving at {angle:angle}", "leaving"),
        Form("leaving along {line:line}", "leaving"),
        Form("arriving at {angle:angle}", "arriving"),
        Form("arriving along {line:line}", "arriving"),
        Form("closed"),
        Form("by eye", "by eye"),
    ),
    construct=construct,
    about=ABOUT,
    shown=SHOWN,
)
