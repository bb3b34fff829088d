"""Curves cut where they cross: carriers, vertices along them, and the elementary edges between.

A carrier is a whole line or circle with all the pieces drawn on it; a vertex is where something
begins, ends or crosses. Everything is worked out when it is first asked for."""

from __future__ import annotations

import math
from bisect import bisect_right
from collections.abc import Sequence
from dataclasses import dataclass, field
from itertools import product

from ..tolerance import DIRECTION, ROUND, assembled
from .box import Box, box_of, together
from .loop import Loop, Piece
from .meet import meet
from .shapes import Arc, Circle, Curve, Line, Point, extremes, is_drawn_at, support

Half = tuple[int, int, int]
"""A side of an elementary edge: carrier, edge along it, and 1 or -1 for the direction it is walked
in."""

MOST_CURVES = 6000
"""Pieces among which regions are told apart."""
_MOST_CELLS = 64
_FEW = 8
"""Pieces on one carrier that are gone through one by one."""


class RegionError(ValueError):
    """A spot that lies in no region."""


@dataclass(frozen=True, slots=True)
class Named:
    """A drawn curve and what the drafter calls it."""

    curve: Curve
    name: str


@dataclass(slots=True)
class Span:
    """One drawn piece on a carrier."""

    curve: Curve
    name: str
    box: Box


@dataclass(slots=True)
class Vertex:
    """A place along a carrier where an elementary edge begins or ends, and the other carriers that
    pass it."""

    along: float
    point: Point
    others: set[int] = field(default_factory=set)


class Edges:
    """Curves that cross and touch, cut into elementary edges.

    Parameters
    ----------
    curves : sequence of Named
        Pieces of the same line or circle are taken together. Endless lines run a little past
        everything else.

    Attributes
    ----------
    supports : list of Line or Circle
        The carriers.
    spans : list of list of Span
        What is drawn on each.
    boxes : list of Box
        About what is drawn on each.
    close : float
        Distance below which two places are one.

    Raises
    ------
    RegionError
        For more curves than are told apart.
    """

    def __init__(self, curves: Sequence[Named]) -> None:
        if len(curves) > MOST_CURVES:
            raise RegionError(
                f"this construction has {len(curves)} pieces; regions are told among {MOST_CURVES}"
            )
        spots = [spot for named in curves for spot in extremes(named.curve)]
        spots += [named.curve.through for named in curves if isinstance(named.curve, Line)]
        reach = 1.0 + max((max(abs(spot.x), abs(spot.y)) for spot in spots), default=1.0)
        self.close = assembled(reach)
        self.supports: list[Line | Circle] = []
        self.spans: list[list[Span]] = []
        known: dict[tuple[int, ...], int] = {}
        for named in curves:
            curve = _ended(named.curve, 4 * reach)
            whole = support(curve)
            key = self._key(whole)
            index = known.setdefault(key, len(self.supports))
            if index == len(self.supports):
                self.supports.append(whole)
                self.spans.append([])
            self.spans[index].append(Span(curve, named.name, box_of(curve)))
        self.boxes = [together([span.box for span in spans]) for spans in self.spans]
        self._cells(reach)
        self._vertices: dict[int, list[Vertex]] = {}
        self._names: dict[tuple[int, int], str] = {}
        self._sorted: dict[int, dict[tuple[int, int], list[int]]] = {}

    def _key(self, whole: Line | Circle) -> tuple[int, ...]:
        """Alike for the same line or circle however it was come by."""
        unit = self.close * 10
        if isinstance(whole, Circle):
            return (
                round(whole.centre.x / unit),
                round(whole.centre.y / unit),
                round(whole.radius / unit),
            )
        direction = whole.direction
        if (direction.x, direction.y) < (-ROUND, 0) or (
            abs(direction.x) <= ROUND and direction.y < 0
        ):
            direction = -direction
        foot = direction.normal.dot(whole.through)
        return (
            round(direction.x / DIRECTION),
            round(direction.y / DIRECTION),
            round(foot / unit),
            0,
        )

    def _cells(self, reach: float) -> None:
        side = max(1, math.isqrt(len(self.supports)))
        self._size = 2 * reach / side
        self._grid: dict[tuple[int, int], list[int]] = {}
        self._big: list[int] = []
        for index, box in enumerate(self.boxes):
            columns, rows = self._covered(box)
            if len(columns) * len(rows) > _MOST_CELLS:
                self._big.append(index)
                continue
            for cell in product(columns, rows):
                self._grid.setdefault(cell, []).append(index)

    def _covered(self, box: Box) -> tuple[range, range]:
        x0, y0, x1, y1 = (math.floor(side / self._size) for side in box)
        return range(x0, x1 + 1), range(y0, y1 + 1)

    def _near(self, box: Box) -> set[int]:
        """Return the carriers that share a cell of the grid with a box."""
        columns, rows = self._covered(box)
        if len(columns) * len(rows) > _MOST_CELLS:
            return set(range(len(self.supports)))
        result = set(self._big)
        for cell in product(columns, rows):
            result.update(self._grid.get(cell, ()))
        return result

    def vertices(self, carrier: int) -> list[Vertex]:
        """Return every place along a carrier where an elementary edge begins or ends, in order."""
        if carrier not in self._vertices:
            self._vertices[carrier] = self._find_vertices(carrier)
        return self._vertices[carrier]

    def _find_vertices(self, carrier: int) -> list[Vertex]:
        whole, spans, box = self.supports[carrier], self.spans[carrier], self.boxes[carrier]
        found = [
            Vertex(along(whole, end), end)
            for span in spans
            if isinstance(span.curve, Arc | Line)
            for end in extremes(span.curve)[:2]
        ]
        close = self.close
        for other in self._near(box):
            if other == carrier or not box.meets(self.boxes[other], close):
                continue
            for meeting in meet(whole, self.supports[other]):
                spot = meeting.point
                if self.is_drawn(carrier, spot) and self.is_drawn(other, spot):
                    found.append(Vertex(along(whole, spot), spot, {other}))
        found.sort(key=lambda vertex: vertex.along)
        merged: list[Vertex] = []
        for vertex in found:
            if merged and abs(merged[-1].point - vertex.point) <= close:
                merged[-1].others |= vertex.others
            else:
                merged.append(vertex)
        if (
            len(merged) > 1
            and isinstance(whole, Circle)
            and abs(merged[0].point - merged[-1].point) <= close
        ):
            merged[0].others |= merged.pop().others
        return merged or [Vertex(0.0, whole.at(0.0))]

    def near_spans(self, carrier: int, spot: Point) -> Sequence[int]:
        """Return the pieces of a carrier, by index, whose box is about a spot: of many, by the
        cells of the grid."""
        spans = self.spans[carrier]
        if len(spans) <= _FEW:
            return range(len(spans))
        sorted_in = self._sorted.get(carrier)
        if sorted_in is None:
            sorted_in = self._sorted[carrier] = {}
            for index, span in enumerate(spans):
                for cell in product(*self._covered(span.box.grown(self.close))):
                    sorted_in.setdefault(cell, []).append(index)
        return sorted_in.get((math.floor(spot.x / self._size), math.floor(spot.y / self._size)), ())

    def is_drawn(self, carrier: int, spot: Point) -> bool:
        """Tell whether a spot of the carrier lies on a drawn piece, ends included."""
        for index in self.near_spans(carrier, spot):
            span = self.spans[carrier][index]
            if span.box.holds(spot, self.close):
                if isinstance(span.curve, Circle) or is_drawn_at(span.curve, spot):
                    return True
                if any(abs(end - spot) <= self.close for end in extremes(span.curve)[:2]):
                    return True
        return False

    def count(self, carrier: int) -> int:
        """Return how many elementary edges a carrier has."""
        count = len(self.vertices(carrier))
        return count if isinstance(self.supports[carrier], Circle) else count - 1

    def middle(self, carrier: int, edge: int) -> Point:
        """Return the middle of an edge."""
        whole, vertices = self.supports[carrier], self.vertices(carrier)
        first, last = vertices[edge], vertices[(edge + 1) % len(vertices)]
        if isinstance(whole, Line):
            return (first.point + last.point) * 0.5
        return whole.at(first.along + turn(first.along, last.along) / 2)

    def name(self, carrier: int, edge: int) -> str:
        """Return the name of the piece drawn along an edge, or "" where nothing is drawn."""
        known = self._names.get((carrier, edge))
        if known is None:
            spot = self.middle(carrier, edge)
            spans = (self.spans[carrier][index] for index in self.near_spans(carrier, spot))
            found = (span.name for span in spans if self.covers(span, spot))
            known = self._names[carrier, edge] = next(found, "")
        return known

    def start(self, half: Half) -> Vertex:
        """Return where a side begins."""
        carrier, edge, way = half
        vertices = self.vertices(carrier)
        return vertices[edge if way > 0 else (edge + 1) % len(vertices)]

    def end(self, half: Half) -> Vertex:
        """Return where a side ends."""
        return self.start((half[0], half[1], -half[2]))

    def is_on(self, piece: tuple[int, int], spot: Point) -> bool:
        """Tell whether a spot of a carrier lies on one of its pieces, ends included."""
        span = self.spans[piece[0]][piece[1]]
        if not span.box.holds(spot, self.close):
            return False
        return is_drawn_at(span.curve, spot) or any(
            abs(end - spot) <= self.close for end in extremes(span.curve)[:2]
        )

    def covers(self, span: Span, spot: Point) -> bool:
        """Tell whether a piece is drawn at a spot of its carrier; most pieces of a long one are
        nowhere near."""
        return span.box.holds(spot, self.close) and is_drawn_at(span.curve, spot)

    def loop(self, cycle: Sequence[Half]) -> Loop:
        """Return a cycle as a run of pieces; edges that follow each other along one carrier are one
        piece."""
        runs: list[list[Half]] = []
        for half in cycle:
            last = runs[-1][-1] if runs else None
            if last and last[0] == half[0] and last[2] == half[2] and self._follows(last, half):
                runs[-1].append(half)
            else:
                runs.append([half])
        if len(runs) > 1 and runs[0][0][0] == runs[-1][0][0] and runs[0][0][2] == runs[-1][0][2]:
            runs[0] = runs.pop() + runs[0]
        return Loop(tuple(self._piece(run, len(runs) == 1) for run in runs), True)

    def _follows(self, one: Half, other: Half) -> bool:
        count = len(self.vertices(one[0]))
        return (one[1] + one[2]) % count == other[1] % count

    def _piece(self, run: list[Half], alone: bool) -> Piece:
        carrier, edge, way = run[0]
        whole, name = self.supports[carrier], self.name(carrier, edge)
        entry, last = self.start(run[0]).point, self.end(run[-1]).point
        if isinstance(whole, Line):
            return Piece(Line.between(entry, last), name, entry, last)
        start = (entry - whole.centre).angle
        if alone and entry == last:
            curve: Curve = (
                whole if way > 0 else Arc(whole.centre, whole.radius, start, -math.tau, whole.exact)
            )
            return Piece(curve, name, entry, last)
        sweep = turn(start, (last - whole.centre).angle)
        sweep = sweep if way > 0 else sweep - math.tau
        return Piece(Arc(whole.centre, whole.radius, start, sweep, whole.exact), name, entry, last)


def _ended(curve: Curve, reach: float) -> Curve:
    if isinstance(curve, Line) and (curve.start is None or curve.end is None):
        middle = curve.along(Point(0.0, 0.0))
        return Line(curve.through, curve.direction, middle - reach, middle + reach)
    return curve


def along(whole: Line | Circle, spot: Point) -> float:
    """Return how far along a carrier a spot lies: plan units on a line, radians on a circle."""
    if isinstance(whole, Line):
        return whole.along(spot)
    return (spot - whole.centre).angle % math.tau


def turn(start: float, end: float) -> float:
    """Return the counter-clockwise turn from one direction to another; a whole one when they are
    the same."""
    return (end - start) % math.tau or math.tau


def nearest_vertex(whole: Line | Circle, vertices: Sequence[Vertex], spot: Point) -> int:
    """Return which vertex along a carrier a spot is."""
    at = bisect_right([vertex.along for vertex in vertices], along(whole, spot))
    around = {(at - 1) % len(vertices), at % len(vertices)}
    return min(around, key=lambda index: abs(vertices[index].point - spot))
