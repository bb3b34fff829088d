"""``line in``: go over the outline, piece by piece; arcs first, then the straight lines that join them."""

from __future__ import annotations

import math

from ..geometry import Arc, Circle, Loop, Piece, WalkError, walk
from ..kind import Args, Kind, Made, Role, Step, Stroke, Tool
from ..plan.errors import ClauseError
from ..plan.forms import Form


def construct(args: Args) -> Made:
    """Walk the outline along the named pieces; see `entrick.core.geometry.walk`."""
    clause = args.need("walk")
    try:
        loop = walk(clause.stops("walk"), closed=args.get("open") is None)
    except WalkError as error:
        raise ClauseError(error.message, clause.clause) from error
    names = " > ".join(dict.fromkeys(piece.name for piece in loop.pieces))
    closing = "closed" if loop.closed else "an open run"
    return Made(
        loop,
        f"Line in {args.name} along {names}: {closing}.",
        (
            f"{len(loop.pieces)} piece{'s' if len(loop.pieces) > 1 else ''}, length {args.say(loop.length)}"
            + (f", area {args.say(abs(loop.area))} square" if loop.closed else ""),
        ),
        _steps(loop),
        lined=Role.OUTLINE,
    )


def _steps(loop: Loop) -> tuple[Step, ...]:
    arcs = [piece for piece in loop.pieces if isinstance(piece.curve, Arc | Circle)]
    lines = [piece for piece in loop.pieces if not isinstance(piece.curve, Arc | Circle)]
    return tuple(_line_in(piece) for piece in [*arcs, *lines])


def _line_in(piece: Piece) -> Step:
    stroke = (Stroke(piece.curve, Role.OUTLINE),)
    match piece.curve:
        case Circle(centre=centre):
            return Step(Tool.COMPASS, f"Line in {piece.name}, all round", piece.curve.size, centre, stroke)
        case Arc(centre=centre, sweep=sweep):
            turned = f"{abs(math.degrees(sweep)):.1f}°"
            return Step(
                Tool.COMPASS,
                f"Line in {piece.name} from touch point to touch point, {turned}",
                piece.curve.size,
                centre,
                stroke,
                "stop exactly at the touch points or crossings",
            )
    return Step(
        Tool.STRAIGHTEDGE, f"Line in {piece.name} between the arcs", strokes=stroke, check="the join does not show"
    )


KIND = Kind(
    name="line in",
    group="Outline",
    summary="go over the outline along the pieces, in order",
    example="rim = line in, eyeA > top > eyeB > low",
    mistake="The arc is trimmed to a line it only nearly touches. Stop at the computed touch point, arcs first.",
    forms=(
        Form("open"),
        Form("{walk:walk}", "walk", needed=True),
    ),
    construct=construct,
)
