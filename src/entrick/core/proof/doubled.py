"""Does any piece of an outline lie over another?"""

from __future__ import annotations

import math
from collections.abc import Iterator

import numpy as np

from ..geometry import Arc, Circle, Line, Piece, Point
from ..geometry.box import neighbours
from ..geometry.loop import boxed
from ..measure import spell
from ..tolerance import NEARLY_AGAIN
from .finding import Checked, Finding


def inspect(checked: Checked) -> Iterator[Finding]:
    """Report pieces that run along one another: a cutter would go over them twice."""
    again: set[int] = set()
    long = np.array([loop.length for _, _, loop in checked.runs])
    for after, index in np.argwhere(
        np.tril(np.abs(long[:, None] - long) <= long * NEARLY_AGAIN, -1)
    ).tolist():
        (whole, _, earlier), (name, line, loop) = checked.runs[index], checked.runs[after]
        if loop.serial not in again and checked.is_again(loop, earlier):
            again.add(loop.serial)
            message = f"{name} is {whole} again, all round: it would be drawn and cut twice"
            yield Finding(
                "wrong", "doubled", message, line, checked.sheet.on_paper(loop.pieces[0].entry)
            )
        elif loop.serial not in again and checked.is_nearly_again(loop, earlier):
            again.add(loop.serial)
            spots = [piece.entry for piece in loop.pieces]
            off = max(abs(boxed(earlier).nearest(spot) - spot) for spot in spots)
            message = (
                f"{name} is {whole} again, {spell(off, checked.solution.unit)} off: drawn twice "
                "from two places that were meant to be one"
            )
            yield Finding("wrong", "doubled", message, line, checked.sheet.on_paper(spots[0]))
    runs = [run for run in checked.runs if run[2].serial not in again]
    pieces = [(name, line, piece) for name, line, loop in runs for piece in loop.pieces]
    boxes = [box for _, _, loop in runs for box in boxed(loop).boxes]
    for index, after in neighbours(boxes, checked.close):
        (name, _, piece), (other, line, second) = pieces[index], pieces[after]
        place = _overlap(piece, second, checked.close)
        if place is not None:
            where = f"{piece.name} in {name}" if name != other else piece.name
            message = f"{second.name} in {other} lies over {where}: it would be drawn and cut twice"
            yield Finding("wrong", "doubled", message, line, checked.sheet.on_paper(place))


def _overlap(first: Piece, second: Piece, close: float) -> Point | None:
    """Return the middle of the stretch two pieces share, if they share more than places."""
    if isinstance(first.curve, Line) != isinstance(second.curve, Line) or not _same_carrier(
        first, second, close
    ):
        return None
    if isinstance(first.curve, Line):
        line = first.curve
        ends = [
            sorted((line.along(piece.entry), line.along(piece.exit))) for piece in (first, second)
        ]
        low, high = max(ends[0][0], ends[1][0]), min(ends[0][1], ends[1][1])
        return line.at((low + high) / 2) if high - low > close * 10 else None
    radius = first.curve.radius
    shared = max(_shared(_turns(first), _turns(second)), key=lambda stretch: stretch[1])
    return first.curve.at(shared[0] + shared[1] / 2) if shared[1] * radius > close * 10 else None


def _same_carrier(first: Piece, second: Piece, close: float) -> bool:
    return (
        _lies_on(first, second.entry, close)
        and _lies_on(first, second.exit, close)
        and (isinstance(first.curve, Line) or _lies_on(first, _middle(second), close))
    )


def _turns(piece: Piece) -> tuple[float, float]:
    """Return where a round piece begins, and how far it runs counter-clockwise, radians."""
    if not isinstance(piece.curve, Arc):
        return 0.0, math.tau
    arc = piece.curve
    return (arc.start, arc.sweep) if arc.sweep > 0 else (arc.start + arc.sweep, -arc.sweep)


def _shared(first: tuple[float, float], second: tuple[float, float]) -> list[tuple[float, float]]:
    """Return the stretches two turns share; of no length where they only meet end to end."""
    (start, sweep), result = first, []
    for turn in (-1, 0, 1):
        begin = (second[0] - start) % math.tau + turn * math.tau
        low, high = max(0.0, begin), min(sweep, begin + second[1])
        result.append((start + low, max(0.0, high - low)))
    return result


def _middle(piece: Piece) -> Point:
    return piece.curve.middle if isinstance(piece.curve, Arc) else (piece.entry + piece.exit) * 0.5


def _lies_on(piece: Piece, spot: Point, close: float) -> bool:
    match piece.curve:
        case Line() as line:
            return abs(line.offset_of(spot)) <= close
        case Circle(centre=c, radius=r) | Arc(centre=c, radius=r):
            return abs(abs(spot - c) - r) <= close
