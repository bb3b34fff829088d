"""Does any piece of an outline lie over another?"""

from __future__ import annotations

import math
from collections.abc import Iterator

from ..geometry import Arc, Circle, Line, Piece, Point
from ..geometry.shapes import is_drawn_at, outer_places
from ..tolerance import SPECK
from .finding import Checked, Finding


def inspect(checked: Checked) -> Iterator[Finding]:
    """Report pieces that run along one another: a cutter would go over them twice."""
    pieces = [(name, line, piece) for name, line, loop in checked.runs for piece in loop.pieces]
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
    """Return the middle of the stretch two pieces share, if they share more than a place."""
    spots = [
        spot
        for piece, other in ((first, second), (second, first))
        for spot in (*outer_places(piece.curve), _middle(piece))
        if is_drawn_at(other.curve, spot) and _lies_on(other, spot, close)
    ]
    if not spots:
        return None
    low, high = min(spots, key=lambda p: (p.x, p.y)), max(spots, key=lambda p: (p.x, p.y))
    return (low + high) * 0.5 if abs(high - low) > close * 10 else None


def _middle(piece: Piece) -> Point:
    return piece.curve.middle if isinstance(piece.curve, Arc) else (piece.entry + piece.exit) * 0.5


def _lies_on(piece: Piece, spot: Point, close: float) -> bool:
    match piece.curve:
        case Line() as line:
            return abs(line.offset_of(spot)) <= close
        case Circle(centre=c, radius=r) | Arc(centre=c, radius=r):
            return abs(abs(spot - c) - r) <= close
