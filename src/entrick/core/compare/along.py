"""Places along an outline, evenly spaced, and at every joint."""

from __future__ import annotations

import math
from collections.abc import Iterator

from ..geometry import Arc, Circle, Line, Loop, Point
from ..geometry.loop import Piece


def places(loop: Loop, count: int) -> Iterator[tuple[Point, float]]:
    """Yield places along an outline and how far along it they lie, plan units.

    Parameters
    ----------
    loop : Loop
    count : int
        About how many.
    """
    step = loop.length / max(count, 1) or 1.0
    gone = 0.0
    for piece in loop.pieces:
        parts = max(1, math.ceil(piece.length / step))
        for k in range(parts):
            yield _at(piece, k / parts), gone + piece.length * k / parts
        gone += piece.length


def _at(piece: Piece, share: float) -> Point:
    match piece.curve:
        case Line():
            return piece.entry + (piece.exit - piece.entry) * share
        case Arc() as arc:
            return arc.at(arc.start + arc.sweep * share)
        case Circle() as circle:
            return circle.at((piece.entry - circle.centre).angle + math.tau * share)
