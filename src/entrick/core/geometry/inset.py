"""Constant wall: the outline that runs at one distance from another, inside it or outside."""

from __future__ import annotations

import math
from collections.abc import Iterator

from ..measure import Number
from ..tolerance import same, surely_two, worked
from .edges import Edges, Half, Named
from .loop import Boxed, Loop
from .meet import meet
from .shapes import Arc, Circle, Curve, Line, Point, is_drawn_at, support

SHARPEST = 4.0
"""A sharp corner runs out at most this many walls before it is rounded after all (common practice,
no source)."""


def inset(loop: Loop, wall: Number, inward: bool = True, sharp: bool = False) -> tuple[Loop, ...]:
    """Return what runs at a constant distance from a closed outline.

    Parameters
    ----------
    loop : Loop
        Closed.
    wall : Fraction or float
        Distance, plan units, more than nought.
    inward : bool
        To the inside of the outline, or to its outside.
    sharp : bool
        Run straight on to a corner where the wall goes round the outside of one; rounded otherwise.

    Returns
    -------
    tuple of Loop
        The largest first; several where the inside parts, none where nothing is left. Arcs stay
        arcs: their radius grows or shrinks by the wall, and a piece that would shrink to nothing is
        left out.

    Notes
    -----
    The parallels of all pieces and the rounds at the corners are cut where they cross each other;
    what comes nearer to the outline than the wall is dropped (definition of the parallel curve).
    """
    ccw = loop if loop.area > 0 else loop.reversed
    left = float(wall) if inward else -float(wall)
    raw = [Named(curve, name) for curve, name in _parallels(ccw, left, wall, sharp)]
    if not raw:
        return ()
    edges = Edges(raw)
    close = surely_two(max(abs(spot) for spot in ccw.box) + float(wall))
    outline = Boxed(ccw)
    kept: dict[Half, None] = {}
    for carrier, spans in enumerate(edges.spans):
        for edge in range(edges.count(carrier)):
            middle = edges.middle(carrier, edge)
            span = next((span for span in spans if _covers(span.curve, middle)), None)
            # What is no nearer to the outline than the wall lies on the side it was moved to.
            if span is None or outline.is_nearer(middle, float(wall) - close):
                continue
            kept[(carrier, edge, _way(edges.supports[carrier], span.curve, middle))] = None
    _prune(edges, kept)
    return tuple(sorted(_chains(edges, kept), key=lambda found: -abs(found.area)))


def _prune(edges: Edges, kept: dict[Half, None]) -> None:
    """Drop stretches that lead nowhere: past a corner that is nearly straight a parallel stays
    almost far enough."""
    # Much finer than what is taken for one place elsewhere: what is dropped here may be very short.
    reach = max((abs(edges.start(half).point) for half in kept), default=0.0)
    close = worked(reach)

    def cell(spot: Point) -> tuple[int, int]:
        return round(spot.x / close / 4), round(spot.y / close / 4)

    def near(spot: Point, spots: set[tuple[int, int]]) -> bool:
        column, row = cell(spot)
        return any((column + i, row + j) in spots for i in (-1, 0, 1) for j in (-1, 0, 1))

    while True:
        starts = {cell(edges.start(half).point) for half in kept}
        ends = {cell(edges.end(half).point) for half in kept}
        dead = [
            half
            for half in kept
            if not near(edges.end(half).point, starts) or not near(edges.start(half).point, ends)
        ]
        if not dead:
            return
        for half in dead:
            del kept[half]


def _covers(curve: Curve, spot: Point) -> bool:
    return isinstance(curve, Circle) or is_drawn_at(curve, spot)


def _way(whole: Line | Circle, curve: Curve, spot: Point) -> int:
    if isinstance(curve, Line) and isinstance(whole, Line):
        return 1 if curve.direction.dot(whole.direction) > 0 else -1
    return -1 if isinstance(curve, Arc) and curve.sweep < 0 else 1


def _parallels(loop: Loop, left: float, wall: Number, sharp: bool) -> Iterator[tuple[Curve, str]]:
    """Return the parallel of every piece, `left` of the walk, and what fills the gaps at the
    corners."""
    moved = [(_parallel(piece.curve, left, wall), piece.name) for piece in loop.pieces]
    for curve, name in moved:
        if curve is not None:
            yield curve, name
    for index, junction in enumerate(loop.junctions):
        if junction.is_tangent or (junction.turn < 0) != (left > 0):
            continue
        corner = junction.point
        first, second = loop.pieces[index], loop.pieces[(index + 1) % len(loop.pieces)]
        ends = [corner + piece.direction(corner).normal * left for piece in (first, second)]
        curves = [moved[index][0], moved[(index + 1) % len(moved)][0]]
        tip = _tip(curves[0], curves[1], corner, abs(left)) if sharp else None
        if tip is not None:
            assert curves[0] is not None
            assert curves[1] is not None
            yield _stretch(curves[0], ends[0], tip), first.name
            yield _stretch(curves[1], tip, ends[1]), second.name
        else:
            whole = Circle(corner, abs(left), wall)
            start = (ends[0] - corner).angle
            sweep = math.remainder((ends[1] - corner).angle - start, math.tau)
            yield Arc(corner, whole.radius, start, sweep, wall), f"{first.name}-{second.name}"


def _parallel(curve: Curve, left: float, wall: Number) -> Curve | None:
    match curve:
        case Line():
            return Line(
                curve.through + curve.direction.normal * left,
                curve.direction,
                curve.start,
                curve.end,
            )
        case Circle():
            grown = curve.size - wall if left > 0 else curve.size + wall
            return (
                Circle(curve.centre, float(grown), grown)
                if float(grown) > same(curve.radius)
                else None
            )
        case Arc():
            grown = curve.size - wall if (left > 0) == (curve.sweep > 0) else curve.size + wall
            if float(grown) <= same(curve.radius):
                return None
            return Arc(curve.centre, float(grown), curve.start, curve.sweep, grown)


def _tip(first: Curve | None, second: Curve | None, corner: Point, wall: float) -> Point | None:
    if first is None or second is None:
        return None
    spots = [meeting.point for meeting in meet(first, second)]
    near = min(spots, key=lambda spot: abs(spot - corner), default=None)
    return near if near is not None and abs(near - corner) <= SHARPEST * wall else None


def _stretch(curve: Curve, start: Point, end: Point) -> Curve:
    whole = support(curve)
    return Line.between(start, end) if isinstance(whole, Line) else Arc.between(whole, start, end)


def _chains(edges: Edges, kept: dict[Half, None]) -> Iterator[Loop]:
    while kept:
        start = next(iter(kept))
        chain, half = [], start
        while half in kept:
            del kept[half]
            chain.append(half)
            spot = edges.end(half).point
            half = min(kept, key=lambda other: abs(edges.start(other).point - spot), default=start)
            if abs(edges.start(half).point - spot) > edges.close * 10:
                break
        closed = abs(edges.start(start).point - edges.end(chain[-1]).point) <= edges.close * 10
        if closed:
            yield edges.loop(chain)
