"""``rounded``: the corners of a run rounded with one radius, all of them or those that are
named."""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from functools import partial

from ..acts import Work
from ..acts.procedures import locus, touch_on
from ..acts.shapes import draw
from ..geometry import Arc, Circle, Line, Loop, Piece, Point, Shape, support
from ..geometry.locus import Locus, Tangency, around, beside, inside, tangencies, touching_line
from ..geometry.shapes import is_drawn_at
from ..kind import Args, Kind, Made
from ..kind.parts import parts_of
from ..measure import Number
from ..plan.errors import ClauseError
from ..plan.forms import Form
from ..tolerance import assembled


def construct(args: Args) -> Made:
    """Construct a run along another, with an arc of the radius in the place of its corners.

    Pieces keep their names; the arcs are ``round.1`` and so on, in the order of the corners;
    ``centre.1`` and so on."""
    clause = args.need("all", "some")
    run, name = clause.run("run"), clause.ref("run").text
    size = args.need("radius").length("radius").value
    near = assembled(run.length)
    corners = [junction.point for junction in run.junctions if not junction.is_tangent]
    if clause.key == "some":
        corners = [
            _corner(spot, label, corners, clause.index, near)
            for label, spot in clause.things("corners")
        ]
    if not corners:
        raise ClauseError(f"{name} has no corner to round", clause.index)
    rounds: dict[int, tuple[Tangency, Arc]] = {}
    for index, piece in enumerate(run.pieces):
        after = run.pieces[(index + 1) % len(run.pieces)]
        if any(abs(piece.exit - corner) <= near for corner in corners) and (
            run.closed or index + 1 < len(run.pieces)
        ):
            rounds[index] = _round(args, piece, after, size)
    pieces = _trimmed(args, run, rounds, size)
    shape = Loop(tuple(pieces), run.closed)
    centres = {f"centre.{i}": tangency.centre for i, (tangency, _) in enumerate(rounds.values(), 1)}
    return Made(
        shape,
        f"Run {args.name}, {name} with {len(rounds)} corner{'s' if len(rounds) > 1 else ''} of "
        "radius "
        f"{args.say(size)}.",
        (f"the centre of each lies {args.say(size)} from both sides of its corner",),
        parts={
            **parts_of(shape),
            **{f"round.{i}": arc for i, (_, arc) in enumerate(rounds.values(), 1)},
            **centres,
        },
        draw=partial(_draw, args, run, shape, rounds),
    )


def _corner(
    spot: Shape | Loop, label: str, corners: Sequence[Point], clause: int, near: float
) -> Point:
    found = [corner for corner in corners if isinstance(spot, Point) and abs(corner - spot) <= near]
    if not found:
        raise ClauseError(f"{label} is no corner of it", clause)
    return found[0]


def _loci(piece: Piece, size: Number) -> list[Locus]:
    match support(piece.curve):
        case Line() as line:
            return list(touching_line(line, size))
        case Circle() as circle:
            grown = around if size > circle.size else inside
            return [beside(circle, size), *([] if size == circle.size else [grown(circle, size)])]
    raise TypeError(piece)


def _round(args: Args, piece: Piece, after: Piece, size: Number) -> tuple[Tangency, Arc]:
    """Return the arc that leads from one piece into the next where they make a corner: the one
    nearest to it."""
    found = []
    for tangency in tangencies(_loci(piece, size), _loci(after, size), size):
        first, second = tangency.touches
        if first is None or second is None:
            continue
        if is_drawn_at(piece.curve, first) and is_drawn_at(after.curve, second):
            arc = Arc.between(Circle(tangency.centre, float(size), size), first, second)
            ahead = Piece(arc, "", first, second)
            leads = (
                piece.direction(first).dot(ahead.direction(first)),
                ahead.direction(second).dot(after.direction(second)),
            )
            if min(leads) > 0:
                found.append((abs(first - piece.exit) + abs(second - piece.exit), tangency, arc))
    if not found:
        called = f"{piece.name} and {after.name}"
        raise ClauseError(
            f"a radius of {args.say(size)} does not fit between {called}",
            args.need("radius").index,
        )
    _, tangency, arc = min(found, key=lambda each: each[0])
    return tangency, arc


def _trimmed(
    args: Args, run: Loop, rounds: dict[int, tuple[Tangency, Arc]], size: Number
) -> list[Piece]:
    pieces: list[Piece] = []
    order = {index: number for number, index in enumerate(rounds, 1)}
    for index, piece in enumerate(run.pieces):
        before = rounds.get((index - 1) % len(run.pieces)) if run.closed or index else None
        here = rounds.get(index)
        start = before[1].last if before else piece.entry
        end = here[1].first if here else piece.exit
        kept = _between(piece, start, end)
        if kept is None:
            message = (
                f"the rounds at both ends of {piece.name} run into each other: "
                f"{args.say(size)} is too large for it"
            )
            raise ClauseError(message, args.need("radius").index)
        name = f"{args.name}.{piece.name.rpartition('.')[2]}"
        if abs(end - start) > assembled(run.length):
            pieces.append(Piece(kept, name, start, end))
        if here:
            pieces.append(
                Piece(here[1], f"{args.name}.round{order[index]}", here[1].first, here[1].last)
            )
    return pieces


def _between(piece: Piece, start: Point, end: Point) -> Line | Arc | None:
    """Return what is left of a piece between two of its places; None where they have changed
    places."""
    if isinstance(piece.curve, Line):
        left = piece.direction(piece.entry).dot(end - start)
        return Line.between(start, end) if left >= -assembled(piece.length) else None
    assert isinstance(piece.curve, Arc)
    arc = piece.curve
    begin, finish = (
        (math.copysign(1.0, arc.sweep) * ((spot - arc.centre).angle - arc.start)) % math.tau
        for spot in (start, end)
    )
    if finish < begin:
        return None
    return Arc(
        arc.centre,
        arc.radius,
        (start - arc.centre).angle,
        math.copysign(finish - begin, arc.sweep),
        arc.exact,
    )


def _draw(
    args: Args, run: Loop, shape: Loop, rounds: Mapping[int, tuple[Tangency, Arc]], work: Work
) -> None:
    """Cross the two loci at the radius in the centre of each round, mark the touches, swing from
    one to the other."""
    for number, (index, (tangency, arc)) in enumerate(rounds.items(), 1):
        names = [
            (
                run.pieces[i % len(run.pieces)].name,
                f"the centre of {run.pieces[i % len(run.pieces)].name}",
            )
            for i in (index, index + 1)
        ]
        called = f"{args.name}.centre.{number}"
        things = [
            locus(work, each, told, arc.centre)
            for each, told in zip(tangency.loci, names, strict=True)
        ]
        first, second = things
        centre = (
            work.mark(arc.centre, called)
            if first is None or second is None
            else work.prick(first, second, arc.centre, called)
        )
        for where, told, spot in zip(tangency.loci, names, tangency.touches, strict=True):
            assert isinstance(where.target, Line | Circle)
            if spot is not None:
                touch_on(work, centre, where.target, spot, told[0], f"the touch on {told[0]}")
        work.swing(
            centre,
            arc.size,
            f"{args.name}.round.{number}",
            shape=arc,
            check="it runs into both sides without a corner",
        )
    draw(work, shape, args.name)


ABOUT = """\
The corners of a run rounded with one radius: `all corners of frame`, or `corners A B of frame`.
Pieces keep their names; parts `round.1` and so on, `centre.1` and so on, in the order of the
corners.
"""

SHOWN = """\
units mm
O = datum
frame = box, 60 by 40, centred on O
one = rounded, all corners of frame, radius 6
rim = line in, one
inner = box, 40 by 20, centred on O
two = rounded, corners inner.lower_left inner.upper_right of inner, radius 8
hole = line in, two
"""

KIND = Kind(
    name="rounded",
    group="Circles and arcs",
    summary="the corners of a run rounded with one radius",
    example="plate = rounded, all corners of frame, radius 6",
    mistake="The radius is measured from the corner itself: its centre lies the radius in from "
    "both sides.",
    also=("round corners", "radiused"),
    forms=(
        Form("all corners of {run:run}", "all"),
        Form("corners {corners:several} of {run:run}", "some"),
        Form("radius {radius:radius}", needed=True),
    ),
    construct=construct,
    about=ABOUT,
    shown=SHOWN,
)
