"""How thin one outline gets: where two places of it face each other across the material."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterator, Sequence
from itertools import combinations

from ..tolerance import DIRECTION, FLAT, surely_two
from .box import around
from .loop import Loop, Piece
from .meet import meet
from .nearest import Distance, facing
from .shapes import Arc, Circle, Line, Point, extremes, is_drawn_at

MOST_COMPARED = 120
"""Pieces beyond which only those are compared that come as near to each other as is asked for."""


ALONG = (0.5, 0.25, 0.75, 0.1, 0.9, 0.4, 0.6)
"""Where along two parallel sides the span between them is looked at: a hole may lie across some of it."""


ROUND_END = math.radians(120)
"""An arc that turns further than this is the end of an arm, and not a corner that is rounded (by eye, no source)."""


def thinnest(
    loop: Loop, others: Sequence[Loop], is_material: Callable[[Point], bool], limit: float = math.inf
) -> Distance | None:
    """Return the least thickness of one closed outline, and the two places between which it is.

    Parameters
    ----------
    loop : Loop
    others : sequence of Loop
        Further outlines: what lies across one of them is a wall between two, and no thickness of this one.
    is_material : callable
        Whether there is material at a place.
    limit : float
        Of an outline of very many pieces only what is thinner than this is looked for.

    Returns
    -------
    distance, and two Points, or None
        None where nothing faces anything, as in a lone sharp triangle.

    Notes
    -----
    A thickness is a span that is square to the outline at both ends, or ends in a corner that points into the
    material, so that either end moved either way makes it longer or leaves it (plane geometry). An arm that tapers
    into a round end is nowhere square at both ends; it is as thin as the disc of that end, where the disc lies in the
    material.
    """
    ends = _round_ends(loop, others, is_material)
    across = _thinnest_span(loop, others, is_material, limit)
    return min((found for found in (across, *ends) if found is not None), key=lambda found: found[0], default=None)


def _round_ends(loop: Loop, others: Sequence[Loop], is_material: Callable[[Point], bool]) -> Iterator[Distance]:
    """Yield the disc of every arc that ends an arm, as a distance across it, square to the way it points."""
    near = surely_two(loop.length)
    for piece in loop.pieces:
        arc = piece.curve
        if not isinstance(arc, Arc) or not ROUND_END < abs(arc.sweep) < math.pi or not is_material(arc.centre):
            continue
        if all(each.distance(arc.centre) >= arc.radius - near for each in (loop, *others)):
            side = (arc.middle - arc.centre).normal
            yield 2 * arc.radius, arc.centre + side, arc.centre - side


def _thinnest_span(
    loop: Loop, others: Sequence[Loop], is_material: Callable[[Point], bool], limit: float
) -> Distance | None:
    apart = surely_two(loop.length)
    pairs = _pairs(loop, math.inf if len(loop.pieces) <= MOST_COMPARED else limit)
    spans = [(span, i, j) for i, j in pairs for span in _spans(loop.pieces[i], loop.pieces[j]) if span[0] > apart]
    for span, i, j in sorted(spans, key=lambda found: found[0][0]):
        _, first, second = span
        ahead = (second - first).unit
        if (
            _is_square(loop, i, first, ahead)
            and _is_square(loop, j, second, -ahead)
            and is_material((first + second) * 0.5)
            and not any(_crosses(piece, first, second, apart) for each in (loop, *others) for piece in each.pieces)
        ):
            return span
    return None


def _pairs(loop: Loop, limit: float) -> Iterator[tuple[int, int]]:
    boxes = [around(piece.outermost) for piece in loop.pieces]
    yield from ((i, i) for i, piece in enumerate(loop.pieces) if isinstance(piece.curve, Arc | Circle))
    for i, j in combinations(range(len(boxes)), 2):
        a, b = boxes[i], boxes[j]
        gap = math.hypot(max(a.left - b.right, b.left - a.right, 0.0), max(a.lower - b.upper, b.lower - a.upper, 0.0))
        if gap <= limit:
            yield i, j


def _spans(first: Piece, second: Piece) -> Iterator[Distance]:
    a, b = first.curve, second.curve
    if first is second and isinstance(a, Arc | Circle):
        across = a.at(a.start) if isinstance(a, Arc) else a.at(0.0)
        opposite = a.centre * 2 - across
        if is_drawn_at(a, opposite):
            yield 2 * a.radius, across, opposite
        return
    if isinstance(a, Line) and isinstance(b, Line) and abs(a.direction.cross(b.direction)) <= DIRECTION:
        ends = sorted(a.along(end) for end in extremes(b))
        low, high = max(ends[0], a.start or 0.0), min(ends[1], a.end or 0.0)
        if high > low:
            for share in ALONG:
                place = a.at(low + (high - low) * share)
                yield abs(b.foot(place) - place), place, b.foot(place)
    yield from facing(a, b)


def _is_square(loop: Loop, index: int, place: Point, ahead: Point) -> bool:
    """Tell whether a span that sets out from a place of a piece is shortened by moving the place either way."""
    piece = loop.pieces[index]
    near = surely_two(loop.length)
    arriving = departing = piece.direction(place)
    if abs(place - piece.entry) <= near:
        before = loop.pieces[index - 1]
        arriving = before.direction(before.exit)
    elif abs(place - piece.exit) <= near:
        after = loop.pieces[(index + 1) % len(loop.pieces)]
        departing = after.direction(after.entry)
    return ahead.dot(departing) <= FLAT and ahead.dot(arriving) >= -FLAT


def _crosses(piece: Piece, first: Point, second: Point, apart: float) -> bool:
    span = Line.between(first, second)
    return any(
        is_drawn_at(span, meeting.point)
        and is_drawn_at(piece.curve, meeting.point)
        and min(abs(meeting.point - first), abs(meeting.point - second)) > apart
        for meeting in meet(span, piece.curve)
    )
