"""``inset``: a constant wall inside or outside an outline."""

from __future__ import annotations

import math
from collections.abc import Sequence
from functools import partial

from ..acts import Work
from ..acts.procedures import off
from ..geometry import Arc, Circle, Line, Loop, Piece, Shape
from ..geometry.inset import inset
from ..geometry.loop import boxed
from ..kind import Args, Kind, Made
from ..kind.figure import Family
from ..kind.parts import parts_of, renamed
from ..measure import Number
from ..plan.errors import ClauseError
from ..plan.forms import Form
from ..tolerance import FITTED, worked


def construct(args: Args) -> Made:
    """Construct what runs at one distance from a closed outline, on its inside unless ``outside``
    is said.

    Arcs stay arcs with the same centre; a piece that would shrink to nothing is left out, and where
    the inside parts there are several outlines. Pieces keep the names of those they run along."""
    clause = args.need("of")
    outline, name = clause.run("outline"), clause.ref("outline").text
    if not outline.closed:
        raise ClauseError(
            f"{name} is an open run: a wall goes round a closed outline", clause.index
        )
    wall = args.need("wall").length("wall")
    if float(wall) <= 0:
        raise ClauseError("a wall is more than nought", args.need("wall").index)
    inward, sharp = args.get("outside") is None, args.get("sharp") is not None
    found = inset(outline, wall.value, inward, sharp)
    if not found:
        raise ClauseError(
            f"nothing is left inside {name} with a wall of {args.say(wall.value)}: take a thinner "
            "one",
            args.need("wall").index,
        )
    where = "inside" if inward else "outside"
    several = len(found) > 1
    runs = [
        renamed(loop, f"{args.name}.{i}" if several else args.name)
        for i, loop in enumerate(found, 1)
    ]
    shape: Shape | Loop | Family = Family(tuple(runs)) if several else runs[0]
    parts: dict[str, Shape | Loop] = {}
    for index, run in enumerate(runs, 1):
        prefix = f"{index}." if several else ""
        parts |= {str(index): run} if several else {}
        parts |= {f"{prefix}{key}": part for key, part in parts_of(run).items()}
    return Made(
        shape,
        f"{args.name}, {args.say(wall.value)} {where} {name} all round"
        + (f", in {len(found)} parts." if several else "."),
        _working(args, outline, float(wall) if inward else -float(wall)),
        parts=parts,
        draw=partial(_draw, outline, runs, wall.value),
    )


def _working(args: Args, outline: Loop, wall: float) -> tuple[str, ...]:
    """Say once for every radius what the wall makes of it."""
    ccw = outline if outline.area > 0 else outline.reversed
    told: dict[str, None] = {}
    for piece in ccw.pieces:
        if isinstance(piece.curve, Arc | Circle):
            hollow = isinstance(piece.curve, Arc) and piece.curve.sweep < 0
            after = piece.curve.radius + (wall if hollow else -wall)
            sign = "+" if (wall > 0) == hollow else "−"
            sum_ = f"{args.say(piece.curve.size)} {sign} {args.say(abs(wall))}"
            told[f"{sum_} = {args.say(after)}" if after > 0 else f"{sum_}: the round is gone"] = (
                None
            )
    return tuple(told)


def _draw(outline: Loop, runs: Sequence[Shape | Loop], wall: Number, work: Work) -> None:
    """Draw parallels at the wall along straights, and arcs about the same centres, smaller or
    larger by the wall.

    Along a curve whose centres are not known the wall is swung about places of it, and the inset
    touches the swings."""
    for run in runs:
        assert isinstance(run, Loop)
        curved: list[Piece] = []
        for piece in run.pieces:
            if isinstance(piece.curve, Arc | Circle):
                if work.has_mark(piece.curve.centre) or work.has_drawn(piece.curve):
                    work.round(piece.curve, piece.name)
                else:
                    curved.append(piece)
                continue
            line = Line.between(piece.entry, piece.exit)
            model = _along(outline, line, float(wall))
            if model is None:
                work.edge(line, piece.name)
            else:
                edge = work.edge(model)
                off(work, edge, work.place_on(edge, model), wall, piece.name, line, line.at(0.0))
        if curved:
            _touching(outline, curved, wall, work)


def _touching(outline: Loop, curved: list[Piece], wall: Number, work: Work) -> None:
    within = max(FITTED.values()) * outline.length / math.tau
    run, swings = Loop(tuple(curved), False), []
    for mark in work.marks():
        if not boxed(outline).is_nearer(mark.at, within):
            continue
        spot = boxed(run).nearest(mark.at)
        if abs(abs(spot - mark.at) - float(wall)) <= within:
            swings.append(work.swing(mark, wall, near=[spot], told="the wall"))
    if len(swings) > 1:
        name = curved[0].name.rpartition(".")[0]
        work.trace(swings, run, f"the curved wall of {name}", touching=True, within=2 * within)


def _along(outline: Loop, line: Line, wall: float) -> Line | None:
    """Return the straight of the outline along which one of the inset runs."""
    near = worked(outline.length)
    for piece in outline.pieces:
        if isinstance(piece.curve, Line):
            model = Line.between(piece.entry, piece.exit)
            if all(
                abs(abs(model.offset_of(end)) - wall) <= near
                for end in (line.at(0.0), line.at(line.end or 0.0))
            ):
                return model
    return None


ABOUT = """\
A constant wall inside a closed outline, or `outside` it. Arcs stay arcs about the same centre;
what shrinks away is left out, and where the inside parts there are several, `.1` and so on.
`sharp` keeps corners outside instead of rounding them.
"""

SHOWN = """\
units mm
O = datum
frame = box, 60 by 40, centred on O
one = fillet, between frame.bottom and frame.right, radius 12
rim = line in, frame.bottom > one > frame.right > frame.top > frame.left
window = inset, of rim, wall 8
hole = line in, window
"""

KIND = Kind(
    name="inset",
    group="Copies",
    summary="a constant wall inside or outside an outline",
    example="window = inset, of rim, wall 8",
    mistake="The same radius is used for the inner round: it is the outer one less the wall, "
    "about the same centre.",
    also=("offset", "wall", "shell"),
    forms=(
        Form("of {outline:run}", needed=True),
        Form("wall {wall:length}", needed=True),
        Form("inside"),
        Form("outside"),
        Form("sharp"),
    ),
    construct=construct,
    about=ABOUT,
    shown=SHOWN,
)
