"""How thin one outline gets: where two places of it face each other across the material."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass
from heapq import heappop, heappush

from ..memo import remembered
from ..tolerance import DIRECTION, FLAT, surely_two
from .box import Box, around, nearest_first
from .loop import Loop, Piece, boxed
from .meet import meet
from .nearest import Distance, facing
from .shapes import Arc, Circle, Line, Point, extremes, is_drawn_at

FIRST_LOOK = 1 / 32
"""How far apart pieces may be that are looked at first, as a share of the size of the outline."""

MOST_COMPARED = 120
"""Pieces beyond which only those are compared that come as near to each other as is asked for."""


ALONG = (0.5, 0.25, 0.75, 0.1, 0.9, 0.4, 0.6)
"""Where along two parallel sides the span between them is looked at: a hole may lie across some of
it."""


ROUND_END = math.radians(120)
"""An arc that turns further than this is the end of an arm, and not a corner that is rounded (by
eye, no source)."""


@remembered(20)
def thinnest(loop: Loop, others: Sequence[Loop], limit: float = math.inf) -> Distance | None:
    """Return the least thickness of one closed outline, and the two places between which it is.

    Parameters
    ----------
    loop : Loop
    others : sequence of Loop
        Further outlines: what lies across one of them is a wall between two, and no thickness of
        this one; and there is material where a place lies inside one of all, or three.
    limit : float
        Of an outline of very many pieces only what is thinner than this is looked for.

    Returns
    -------
    distance, and two Points, or None
        None where nothing faces anything, as in a lone sharp triangle.

    Notes
    -----
    A thickness is a span that is square to the outline at both ends, or ends in a corner that
    points into the material, so that either end moved either way makes it longer or leaves it
    (plane geometry). An arm that tapers into a round end is nowhere square at both ends; it is as
    thin as the disc of that end, where the disc lies in the material."""
    bounds = [boxed(each) for each in (loop, *others)]

    def is_material(spot: Point) -> bool:
        return sum(bound.encloses(spot) for bound in bounds) % 2 == 1

    across = _thinnest_span(loop, others, is_material, limit)
    found = [*filter(None, (across, *_round_ends(loop, others, is_material)))]
    return min(found, key=lambda one: one[0], default=None)


def _round_ends(
    loop: Loop, others: Sequence[Loop], is_material: Callable[[Point], bool]
) -> Iterator[Distance]:
    """Yield the disc of every arc that ends an arm, as a distance across it, square to the way it
    points."""
    near = surely_two(loop.length)
    for piece in loop.pieces:
        arc = piece.curve
        if (
            not isinstance(arc, Arc)
            or not ROUND_END < abs(arc.sweep) < math.pi
            or not is_material(arc.centre)
        ):
            continue
        if all(each.distance(arc.centre) >= arc.radius - near for each in (loop, *others)):
            side = (arc.middle - arc.centre).normal
            yield 2 * arc.radius, arc.centre + side, arc.centre - side


def _thinnest_span(
    loop: Loop, others: Sequence[Loop], is_material: Callable[[Point], bool], limit: float
) -> Distance | None:
    """Go through the spans from the shortest on: first those of pieces whose boxes lie near each
    other, since none is shorter than their boxes are apart."""
    apart = surely_two(loop.length)
    bounds = boxed(loop)
    most = (
        bounds.box.low - bounds.box.high if len(loop.pieces) <= MOST_COMPARED else Point(limit, 0.0)
    )
    looks = _looks(loop, bounds.boxes)
    pairs = nearest_first(bounds.boxes, abs(most))
    waiting: list[tuple[float, int, int, int, Distance]] = []

    def look(order: int, i: int, j: int) -> None:
        for index, span in enumerate(_spans(loop.pieces[i], loop.pieces[j])):
            if span[0] > apart:
                heappush(waiting, (span[0], order, i * len(loop.pieces) + j, index, span))

    for index, piece in enumerate(loop.pieces):
        if isinstance(piece.curve, Arc | Circle):
            look(0, index, index)
    close, looked_at, last = FIRST_LOOK * abs(bounds.box.high - bounds.box.low), 0, False
    while not last:
        last = close >= abs(most)
        while looked_at < len(pairs) and (last or pairs[looked_at][0] <= close):
            _, i, j = pairs[looked_at]
            looked_at += 1
            if looks[i].may_face(looks[j]):
                look(1, i, j)
        while waiting and (last or waiting[0][0] <= close):
            _, _, both, _, (thick, first, second) = heappop(waiting)
            i, j = divmod(both, len(loop.pieces))
            ahead = (second - first).unit
            if (
                _is_square(loop, i, first, ahead)
                and _is_square(loop, j, second, -ahead)
                and is_material((first + second) * 0.5)
                and not any(_is_crossed(each, first, second, apart) for each in (loop, *others))
            ):
                return thick, first, second
        close *= 2
    return None


@dataclass(frozen=True, slots=True)
class _Look:
    """Whither a piece looks: the middle of its box and how far it reaches from there, the direction
    square to the piece half way along, and the angle by which that turns up to either end, a corner
    there with it."""

    middle: Point
    reach: float
    square: Point
    turn: float

    def may_face(self, other: _Look) -> bool:
        """Tell whether a span between two pieces may be square to both, or set out from a
        corner."""
        between = other.middle - self.middle
        apart, reach = abs(between), self.reach + other.reach
        if apart <= reach:
            return True
        spread = math.asin(reach / apart) + FLAT
        return all(
            math.acos(min(1.0, abs(between.dot(each.square)) / apart)) <= each.turn + spread
            for each in (self, other)
        )


def _looks(loop: Loop, boxes: Sequence[Box]) -> list[_Look]:
    result = []
    for index, (piece, box) in enumerate(zip(loop.pieces, boxes, strict=True)):
        before, after = loop.pieces[index - 1], loop.pieces[(index + 1) % len(loop.pieces)]
        corners = (
            _turn(before.direction(piece.entry), piece.direction(piece.entry)),
            _turn(piece.direction(piece.exit), after.direction(piece.exit)),
        )
        match piece.curve:
            case Arc(sweep=sweep, middle=middle, centre=centre):
                square, turn = (middle - centre).unit, abs(sweep) / 2
            case Circle():
                square, turn = Point(1.0, 0.0), math.pi
            case Line(direction=ahead):
                square, turn = ahead.normal, 0.0
        result.append(
            _Look(
                (box.low + box.high) * 0.5, abs(box.high - box.low) / 2, square, turn + max(corners)
            )
        )
    return result


def _turn(before: Point, after: Point) -> float:
    return abs(math.atan2(before.cross(after), before.dot(after)))


def _spans(first: Piece, second: Piece) -> Iterator[Distance]:
    a, b = first.curve, second.curve
    if first is second and isinstance(a, Arc | Circle):
        across = a.at(a.start) if isinstance(a, Arc) else a.at(0.0)
        opposite = a.centre * 2 - across
        if is_drawn_at(a, opposite):
            yield 2 * a.radius, across, opposite
        return
    if (
        isinstance(a, Line)
        and isinstance(b, Line)
        and abs(a.direction.cross(b.direction)) <= DIRECTION
    ):
        ends = sorted(a.along(end) for end in extremes(b))
        low, high = max(ends[0], a.start or 0.0), min(ends[1], a.end or 0.0)
        if high > low:
            for share in ALONG:
                place = a.at(low + (high - low) * share)
                yield abs(b.foot(place) - place), place, b.foot(place)
    yield from facing(a, b)


def _is_square(loop: Loop, index: int, place: Point, ahead: Point) -> bool:
    """Tell whether a span that sets out from a place of a piece is shortened by moving the place
    either way."""
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


def _is_crossed(loop: Loop, first: Point, second: Point, apart: float) -> bool:
    """Tell whether an outline runs across a span between its ends."""
    box, span = around((first, second)), Line.between(first, second)
    bounds = boxed(loop)
    return bounds.box.meets(box, apart) and any(
        _crosses(piece, span, first, second, apart)
        for piece, other in zip(loop.pieces, bounds.boxes, strict=True)
        if other.meets(box, apart)
    )


def _crosses(piece: Piece, span: Line, first: Point, second: Point, apart: float) -> bool:
    return any(
        is_drawn_at(span, meeting.point)
        and is_drawn_at(piece.curve, meeting.point)
        and min(abs(meeting.point - first), abs(meeting.point - second)) > apart
        for meeting in meet(span, piece.curve)
    )
