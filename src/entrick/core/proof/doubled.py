"""Does any piece of an outline lie over another?"""

from __future__ import annotations

import math
from collections.abc import Iterator

from ..geometry import Arc, Circle, Line, Piece, Point
from ..tolerance import SPECK
from .finding import Checked, Finding


def inspect(checked: Checked) -> Iterator[Finding]:
    """Report pieces that run along one another: a cutter would go over them twice."""
    again = set()
    for index, (name, line, loop) in enumerate(checked.runs):
        whole = next((first for first, _, other in checked.runs[:index] if checked.is_again(loop, other)), None)
        if whole is not None:
            again.add(id(loop))
            message = f"{name} is {whole} again, all round: it would be drawn and cut twice"
            yield Finding("wrong", "doubled", message, line, checked.sheet.on_paper(loop.pieces[0].entry))
    runs = [run for run in checked.runs if id(run[2]) not in again]
    pieces = [(name, line, piece) for name, line, loop in runs for piece in loop.pieces]
    groups: dict[tuple[object, ...], list[tuple[str, int, Piece]]] = {}
    for name, line, piece in pieces:
        for key in _keys(piece, checked.close):
            groups.setdefault(key, []).append((name, line, piece))
    told: set[tuple[int, int]] = set()
    reach = {id(piece): (_middle(piece), piece.length / 2 + checked.close) for _, _, piece in pieces}
    for group in groups.values():
        for index, (name, _, piece) in enumerate(group):
            middle, half = reach[id(piece)]
            for other, line, second in group[index + 1 :]:
                away, rest = reach[id(second)]
                if not isinstance(piece.curve, Circle) and abs(middle.x - away.x) + abs(middle.y - away.y) > 2 * (
                    half + rest
                ):
                    continue  # no stretch of one reaches the other: teeth share their circles by the hundred
                pair = (id(piece), id(second))
                place = _overlap(piece, second, checked.close) if pair not in told else None
                if place is not None:
                    told.add(pair)
                    where = f"{piece.name} in {name}" if name != other else piece.name
                    message = f"{second.name} in {other} lies over {where}: it would be drawn and cut twice"
                    yield Finding("wrong", "doubled", message, line, checked.sheet.on_paper(place))


def _keys(piece: Piece, close: float) -> Iterator[tuple[object, ...]]:
    """Sort pieces by what they lie on, coarsely, so that only likely pairs are compared."""
    step = max(close * 1000, SPECK)
    match piece.curve:
        case Circle(centre=c, radius=r) | Arc(centre=c, radius=r):
            base = (c.x, c.y, r)
        case Line() as line:
            ahead = line.direction if (line.direction.x, line.direction.y) > (0.0, 0.0) else -line.direction
            base = (ahead.x, ahead.y, ahead.cross(line.through))
    for shift in (0.0, 0.5):
        yield (type(piece.curve) is Line, shift, *(math.floor(value / step + shift) for value in base))


def _overlap(first: Piece, second: Piece, close: float) -> Point | None:
    """Return the middle of the stretch two pieces share, if they share more than places."""
    if not _same_carrier(first, second, close):
        return None
    if isinstance(first.curve, Line):
        line = first.curve
        ends = [sorted((line.along(piece.entry), line.along(piece.exit))) for piece in (first, second)]
        low, high = max(ends[0][0], ends[1][0]), min(ends[0][1], ends[1][1])
        return line.at((low + high) / 2) if high - low > close * 10 else None
    radius = first.curve.radius
    shared = max(_shared(_turns(first), _turns(second)), key=lambda stretch: stretch[1])
    return first.curve.at(shared[0] + shared[1] / 2) if shared[1] * radius > close * 10 else None


def _same_carrier(first: Piece, second: Piece, close: float) -> bool:
    return _lies_on(first, second.entry, close) and _lies_on(first, second.exit, close) and (
        isinstance(first.curve, Line) or _lies_on(first, _middle(second), close)
    )  # fmt: skip


def _turns(piece: Piece) -> tuple[float, float]:
    """Return where a round piece begins, and how far it runs counter-clockwise, radians."""
    if not isinstance(piece.curve, Arc):
        return 0.0, math.tau
    arc = piece.curve
    return (arc.start, arc.sweep) if arc.sweep > 0 else (arc.start + arc.sweep, -arc.sweep)


def _shared(first: tuple[float, float], second: tuple[float, float]) -> list[tuple[float, float]]:
    """Return the stretches two turns share; of no length where they only meet end to end."""
    (start, sweep), found = first, []
    for turn in (-1, 0, 1):
        begin = (second[0] - start) % math.tau + turn * math.tau
        low, high = max(0.0, begin), min(sweep, begin + second[1])
        found.append((start + low, max(0.0, high - low)))
    return found


def _middle(piece: Piece) -> Point:
    return piece.curve.middle if isinstance(piece.curve, Arc) else (piece.entry + piece.exit) * 0.5


def _lies_on(piece: Piece, spot: Point, close: float) -> bool:
    match piece.curve:
        case Line() as line:
            return abs(line.offset_of(spot)) <= close
        case Circle(centre=c, radius=r) | Arc(centre=c, radius=r):
            return abs(abs(spot - c) - r) <= close
