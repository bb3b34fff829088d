"""Part of a closed run: what lies between two of its places, either way round."""

from __future__ import annotations

import math
from collections.abc import Iterable, Iterator, Sequence
from itertools import pairwise

from ..tolerance import assembled, worked
from .ellipse import oval_of
from .loop import Loop, Piece, boxed, piece_of
from .meet import meet
from .shapes import Arc, Circle, Curve, Line, Point, is_drawn_at

Place = tuple[int, Point]
"""A place on a run: the number of its piece, and where on it."""


def jointed(ring: Loop, ends: Iterable[Point]) -> Loop:
    """Return the run with joints where others end on the curve it stands for: there it has its
    exact direction."""
    oval = oval_of(ring)
    if oval is None:
        return ring
    close = assembled(oval.a)
    turns = [oval.nearest_turn(end) for end in ends if oval.distance(end) <= close]
    if not turns:
        return ring
    owner = ring.pieces[0].name.rpartition(".")[0]
    arcs = oval.drawn(tuple(turns))
    return Loop(
        tuple(piece_of(arc, f"{owner}.{index}", owner) for index, arc in enumerate(arcs, 1)),
        True,
        oval,
    )


def places_on(ring: Loop, curves: Iterable[Curve], whole: bool = False) -> list[Place]:
    """Return where a run is met by drawn curves, or by the whole circles and lines behind them,
    each place once."""
    places: list[Place] = []
    for curve in curves:
        for index, piece in enumerate(ring.pieces):
            for meeting in meet(piece.curve, curve):
                spot = meeting.point
                close = assembled(abs(spot))
                if not is_drawn_at(piece.curve, spot) or not (whole or is_drawn_at(curve, spot)):
                    continue
                if all(abs(spot - other) > close for _, other in places):
                    places.append((index, spot))
    return places


def between(ring: Loop, first: Place, last: Place) -> Loop:
    """Return the open run from one place of a closed run to another, the way the run is walked."""
    (i, start), (j, end) = first, last
    if i == j and _along(ring.pieces[i], start) < _along(ring.pieces[i], end):
        return Loop((_cut(ring.pieces[i], start, end),), False)
    count = len(ring.pieces)
    inner = [ring.pieces[(i + step) % count] for step in range(1, (j - i - 1) % count + 1)]
    pieces = [_cut(ring.pieces[i], start, None), *inner, _cut(ring.pieces[j], None, end)]
    return Loop(
        tuple(piece for piece in pieces if piece.length > worked(piece.length + abs(start))), False
    )


def outside(run: Loop, covers: Sequence[Loop]) -> Iterator[Loop]:
    """Yield, stretch by stretch, what of an open run lies outside closed outlines that cover it."""
    stretch: list[Piece] = []
    near = [cover for cover in map(boxed, covers) if cover.box.meets(boxed(run).box)]
    for piece, box in zip(run.pieces, boxed(run).boxes, strict=True):
        beside = [cover for cover in near if cover.box.meets(box)]
        crossing = [
            each.curve
            for cover in beside
            for each, other in zip(cover.loop.pieces, cover.boxes, strict=True)
            if other.meets(box)
        ]
        spots = [spot for _, spot in places_on(Loop((piece,), False), crossing)]
        for start, end in pairwise(
            (piece.entry, *sorted(spots, key=lambda spot: _along(piece, spot)), piece.exit)
        ):
            if abs(end - start) <= assembled(abs(start)):
                continue
            part = _cut(piece, start, end)
            middle = part.curve.middle if isinstance(part.curve, Arc) else (start + end) * 0.5
            if not any(cover.encloses(middle) for cover in beside):
                stretch.append(part)
                continue
            if stretch:
                yield Loop(tuple(stretch), False)
            stretch = []
    if stretch:
        yield Loop(tuple(stretch), False)


def _along(piece: Piece, spot: Point) -> float:
    """Return how far along a piece a place lies, in length or turn."""
    match piece.curve:
        case Arc(centre=c, start=start, sweep=sweep):
            turned = ((spot - c).angle - start) * math.copysign(1, sweep) % math.tau
            return 0.0 if turned > abs(sweep) and turned > math.pi + abs(sweep) / 2 else turned
        case Circle(centre=c):
            return (spot - c).angle % math.tau
        case Line():
            return abs(spot - piece.entry)


def _cut(piece: Piece, start: Point | None, end: Point | None) -> Piece:
    entry, exit_ = start or piece.entry, end or piece.exit
    match piece.curve:
        case Arc(centre=c, radius=r, start=begin, sweep=sweep, exact=exact):
            way = math.copysign(1, sweep)
            low = _along(piece, start) if start else 0.0
            high = min(_along(piece, end), abs(sweep)) if end else abs(sweep)
            return Piece(
                Arc(c, r, begin + way * low, way * (high - low), exact),
                piece.name,
                entry,
                exit_,
                piece.curve_of,
            )
        case Circle(centre=c, radius=r, exact=exact):
            low = (entry - c).angle
            turn = ((exit_ - c).angle - low) % math.tau
            return Piece(Arc(c, r, low, turn, exact), piece.name, entry, exit_, piece.curve_of)
        case Line():
            line = Line.between(entry, exit_) if abs(exit_ - entry) > 0 else piece.curve
            return Piece(line, piece.name, entry, exit_, piece.curve_of)
