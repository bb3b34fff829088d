"""The arrangement of a construction: which region a spot lies in, and the boundary of several regions together.

Only what bounds the regions asked for is worked out: the faces are traced from the spots outwards, so that a click in a
construction of a thousand pieces costs as much as its own boundary.
"""

from __future__ import annotations

import math
from bisect import bisect_right
from collections.abc import Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass, field
from itertools import product

from ..tolerance import DIRECTION, ROUND, same
from .loop import Boxed, Loop, Piece
from .meet import meet
from .shapes import Arc, Circle, Curve, Line, Point, extremes, is_drawn_at, polar, support

Box = tuple[float, float, float, float]
Half = tuple[int, int, int]
"""A side of an elementary edge: carrier, edge along it, and 1 or -1 for the direction it is walked in."""

_ASKEW = polar(1.0, 0.123456)
"""A ray in this direction seldom passes exactly through a corner."""
MOST_CURVES = 6000
"""Pieces among which regions are told apart."""
_MOST_CELLS = 64
_FEW = 8
"""Pieces on one carrier that are gone through one by one."""
_ALIKE = DIRECTION * 10
"""Directions closer than this are tangent: how the curves bend tells them apart."""


class RegionError(ValueError):
    """A spot that lies in no region."""


TOO_CLOSE = "pieces lie too close together here to tell the regions apart"


@dataclass(frozen=True, slots=True)
class Named:
    """A drawn curve and what the drafter calls it."""

    curve: Curve
    name: str


@dataclass(slots=True)
class _Span:
    """One drawn piece on a carrier."""

    curve: Curve
    name: str
    box: Box


@dataclass(slots=True)
class _Vertex:
    along: float
    point: Point
    others: set[int] = field(default_factory=set)


class Arrangement:
    """Curves that cross and touch, and the regions between them.

    Parameters
    ----------
    curves : sequence of Named
        Pieces of the same line or circle are taken together. Endless lines run a little past everything else.
    """

    def __init__(self, curves: Sequence[Named]) -> None:
        if len(curves) > MOST_CURVES:
            raise RegionError(f"this construction has {len(curves)} pieces; regions are told among {MOST_CURVES}")
        spots = [spot for named in curves for spot in extremes(named.curve)]
        spots += [named.curve.through for named in curves if isinstance(named.curve, Line)]
        reach = 1.0 + max((max(abs(spot.x), abs(spot.y)) for spot in spots), default=1.0)
        self.close = same(reach) * 100
        self.supports: list[Line | Circle] = []
        self.spans: list[list[_Span]] = []
        known: dict[tuple[int, ...], int] = {}
        for named in curves:
            curve = _ended(named.curve, 4 * reach)
            whole = support(curve)
            key = self._key(whole)
            index = known.setdefault(key, len(self.supports))
            if index == len(self.supports):
                self.supports.append(whole)
                self.spans.append([])
            self.spans[index].append(_Span(curve, named.name, _box(curve)))
        self.boxes = [_around([span.box for span in spans]) for spans in self.spans]
        self._cells(reach)
        self._vertices: dict[int, list[_Vertex]] = {}
        self._names: dict[tuple[int, int], str] = {}
        self._sorted: dict[int, dict[tuple[int, int], list[int]]] = {}
        self._met: dict[int, dict[int, list[_Vertex]]] = {}

    def _key(self, whole: Line | Circle) -> tuple[int, ...]:
        """Alike for the same line or circle however it was come by."""
        unit = self.close * 10
        if isinstance(whole, Circle):
            return (round(whole.centre.x / unit), round(whole.centre.y / unit), round(whole.radius / unit))
        direction = whole.direction
        if (direction.x, direction.y) < (-ROUND, 0) or (abs(direction.x) <= ROUND and direction.y < 0):
            direction = -direction
        foot = direction.normal.dot(whole.through)
        return (round(direction.x / DIRECTION), round(direction.y / DIRECTION), round(foot / unit), 0)

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
        found = set(self._big)
        for cell in product(columns, rows):
            found.update(self._grid.get(cell, ()))
        return found

    def vertices(self, carrier: int) -> list[_Vertex]:
        """Return every place along a carrier where an elementary edge begins or ends, in order."""
        if carrier not in self._vertices:
            self._vertices[carrier] = self._find_vertices(carrier)
        return self._vertices[carrier]

    def _find_vertices(self, carrier: int) -> list[_Vertex]:
        whole, spans, (x0, y0, x1, y1) = self.supports[carrier], self.spans[carrier], self.boxes[carrier]
        found = [
            _Vertex(_along(whole, end), end)
            for span in spans
            if isinstance(span.curve, Arc | Line)
            for end in extremes(span.curve)[:2]
        ]
        close, boxes = self.close, self.boxes
        for other in self._near(self.boxes[carrier]):
            box = boxes[other]
            if (
                other == carrier
                or box[0] > x1 + close
                or box[2] < x0 - close
                or box[1] > y1 + close
                or box[3] < y0 - close
            ):
                continue
            for meeting in meet(whole, self.supports[other]):
                spot = meeting.point
                if self._is_drawn(carrier, spot) and self._is_drawn(other, spot):
                    found.append(_Vertex(_along(whole, spot), spot, {other}))
        found.sort(key=lambda vertex: vertex.along)
        merged: list[_Vertex] = []
        for vertex in found:
            if merged and abs(merged[-1].point - vertex.point) <= close:
                merged[-1].others |= vertex.others
            else:
                merged.append(vertex)
        if len(merged) > 1 and isinstance(whole, Circle) and abs(merged[0].point - merged[-1].point) <= close:
            merged[0].others |= merged.pop().others
        return merged or [_Vertex(0.0, whole.at(0.0))]

    def _near_spans(self, carrier: int, spot: Point) -> Sequence[int]:
        """Return the pieces of a carrier, by index, whose box is about a spot: of many, by the cells of the grid."""
        spans = self.spans[carrier]
        if len(spans) <= _FEW:
            return range(len(spans))
        sorted_in = self._sorted.get(carrier)
        if sorted_in is None:
            sorted_in = self._sorted[carrier] = {}
            for index, span in enumerate(spans):
                left, lower, right, upper = span.box
                grown = (left - self.close, lower - self.close, right + self.close, upper + self.close)
                for cell in product(*self._covered(grown)):
                    sorted_in.setdefault(cell, []).append(index)
        return sorted_in.get((math.floor(spot.x / self._size), math.floor(spot.y / self._size)), ())

    def _is_drawn(self, carrier: int, spot: Point) -> bool:
        """Tell whether a spot of the carrier lies on a drawn piece, ends included."""
        for index in self._near_spans(carrier, spot):
            span = self.spans[carrier][index]
            if self._boxes_in(span, spot):
                if isinstance(span.curve, Circle) or is_drawn_at(span.curve, spot):
                    return True
                if any(abs(end - spot) <= self.close for end in extremes(span.curve)[:2]):
                    return True
        return False

    def _edges(self, carrier: int) -> int:
        count = len(self.vertices(carrier))
        return count if isinstance(self.supports[carrier], Circle) else count - 1

    def _middle(self, carrier: int, edge: int) -> Point:
        whole, vertices = self.supports[carrier], self.vertices(carrier)
        first, last = vertices[edge], vertices[(edge + 1) % len(vertices)]
        if isinstance(whole, Line):
            return (first.point + last.point) * 0.5
        return whole.at(first.along + _turn(first.along, last.along) / 2)

    def _name(self, carrier: int, edge: int) -> str:
        """Return the name of the piece drawn along an edge, or "" where nothing is drawn."""
        known = self._names.get((carrier, edge))
        if known is None:
            spot = self._middle(carrier, edge)
            spans = (self.spans[carrier][index] for index in self._near_spans(carrier, spot))
            found = (span.name for span in spans if self._covers(span, spot))
            known = self._names[carrier, edge] = next(found, "")
        return known

    def _from(self, half: Half) -> _Vertex:
        carrier, edge, way = half
        vertices = self.vertices(carrier)
        return vertices[edge if way > 0 else (edge + 1) % len(vertices)]

    def _to(self, half: Half) -> _Vertex:
        return self._from((half[0], half[1], -half[2]))

    def _leaving(self, carrier: int, spot: Point) -> Iterator[Half]:
        """Return the sides of edges that leave a vertex along one carrier."""
        vertices = self.vertices(carrier)
        at = _nearest(self.supports[carrier], vertices, spot)
        count = self._edges(carrier)
        whole = isinstance(self.supports[carrier], Circle)
        for edge, way in ((at, 1), (at - 1, -1)):
            edge = edge % count if whole and count else edge
            if 0 <= edge < count and self._name(carrier, edge):
                yield carrier, edge, way

    def _heading(self, half: Half) -> tuple[float, float]:
        """Return the direction in which a side leaves its vertex, and how much it curves to the left."""
        carrier, _, way = half
        whole, spot = self.supports[carrier], self._from(half).point
        if isinstance(whole, Line):
            return (whole.direction * way).angle, 0.0
        return ((spot - whole.centre).normal * way).angle, way / whole.radius

    def _next(self, half: Half) -> Half:
        """Return the side that follows, turning as far to the left as it goes."""
        vertex = self._to(half)
        twin = (half[0], half[1], -half[2])
        if not vertex.others:
            return next((side for side in self._leaving(half[0], vertex.point) if side != twin), twin)
        return self._clockwise({half[0], *vertex.others}, vertex.point, *self._heading(twin), twin) or twin

    def _clockwise(
        self, carriers: Iterable[int], spot: Point, facing: float, curve: float, twin: Half | None
    ) -> Half | None:
        """Return the first side that leaves a vertex clockwise from a direction; tangent ones by how they curve."""
        ranked: list[tuple[float, float, Half]] = []
        for carrier in carriers:
            for side in self._leaving(carrier, spot):
                angle, bend = self._heading(side)
                turned = (facing - angle) % math.tau
                if side == twin or min(turned, math.tau - turned) < _ALIKE:
                    turned = 0.0 if bend < curve else math.tau
                ranked.append((turned, -bend, side))
        least = min((entry[0] for entry in ranked), default=0.0)
        first = min((entry for entry in ranked if entry[0] < least + _ALIKE), key=lambda entry: entry[1], default=None)
        return first[2] if first else None

    def _trace(self, start: Half) -> list[Half]:
        cycle, half = {start: None}, self._next(start)
        while half != start:
            if half in cycle:
                # Pieces that all but lie on each other: the way round does not come back to where it began.
                raise RegionError(TOO_CLOSE)
            cycle[half] = None
            half = self._next(half)
        return list(cycle)

    def _side_at(self, carrier: int, spot: Point, seen_from: Point) -> Half:
        """Return the side of the edge at a spot that has another spot on its left."""
        whole, vertices = self.supports[carrier], self.vertices(carrier)
        ahead = whole.direction if isinstance(whole, Line) else (spot - whole.centre).normal
        edge = bisect_right([vertex.along for vertex in vertices], _along(whole, spot)) - 1
        if isinstance(whole, Circle):
            edge %= len(vertices)
        return carrier, min(max(edge, 0), self._edges(carrier) - 1), 1 if ahead.cross(seen_from - spot) > 0 else -1

    def _hits(self, spot: Point) -> list[tuple[float, int, Point]]:
        """Return where a ray from a spot meets drawn pieces, nearest first."""
        ray = Line(spot, _ASKEW)
        found = []
        for carrier, (x0, y0, x1, y1) in enumerate(self.boxes):
            middle = Point((x0 + x1) / 2 - spot.x, (y0 + y1) / 2 - spot.y)
            half = math.hypot(x1 - x0, y1 - y0) / 2 + self.close
            if abs(_ASKEW.cross(middle)) > half or _ASKEW.dot(middle) < -half:
                continue
            for meeting in meet(ray, self.supports[carrier]):
                along = ray.along(meeting.point)
                if along > self.close and not meeting.touch and self._is_drawn(carrier, meeting.point):
                    found.append((along, carrier, meeting.point))
        return sorted(found, key=lambda hit: hit[0])

    def face(self, spot: Point) -> list[list[Half]]:
        """Return the boundary of the region a spot lies in: the outer cycle first, then its islands.

        Raises
        ------
        RegionError
            When nothing closes around the spot.
        """
        cycles: list[list[Half]] = []
        hits = self._hits(spot)
        outer: list[Half] = []
        seen = spot
        while hits and not outer:
            _, carrier, place = hits[0]
            cycle = self._trace(self._side_at(carrier, place, seen))
            if self.loop(cycle).area > self.close**2:
                outer = cycle
                break
            cycles.append(cycle)
            edges = {(side[0], side[1]) for side in cycle}
            last = max(i for i, hit in enumerate(hits) if i == 0 or self._side_at(hit[1], hit[2], seen)[:2] in edges)
            seen = hits[last][2] + _ASKEW * self.close
            hits = hits[last + 1 :]
        if not outer:
            raise RegionError("nothing closes around this spot: it lies outside the construction")
        return [outer, *cycles, *self._islands(outer, cycles)]

    def _islands(self, outer: list[Half], known: list[list[Half]]) -> Iterator[list[Half]]:
        """Find what lies inside a region without joining its boundary: components, the largest first."""
        bound, closed = Boxed(self.loop(outer)), [Boxed(self.loop(cycle)) for cycle in known]
        traced = {side[:2] for cycle in (outer, *known) for side in cycle}
        for component in self._components(bound):
            carrier, index = component[0]
            edges = self._edges_of(carrier, index)
            if not edges:
                continue  # shorter than what can be told apart: it bounds nothing
            sample = self._middle(carrier, edges[0])
            if any((c, edge) in traced for c, i in component for edge in self._edges_of(c, i)):
                continue
            if any(loop.encloses(sample) for loop in closed) or not bound.encloses(sample):
                continue
            cycle = self._trace(self._leftmost(component))
            closed.append(Boxed(self.loop(cycle)))
            yield cycle

    def _vertices_of(self, carrier: int, index: int) -> Sequence[_Vertex]:
        """Return the places of a piece where others meet it."""
        if carrier not in self._met:
            met: dict[int, list[_Vertex]] = {}
            for vertex in self.vertices(carrier):
                for near in self._near_spans(carrier, vertex.point) if vertex.others else ():
                    if self._covers(self.spans[carrier][near], vertex.point):
                        met.setdefault(near, []).append(vertex)
            self._met[carrier] = met
        return self._met[carrier].get(index, ())

    def _edges_of(self, carrier: int, index: int) -> list[int]:
        span = self.spans[carrier][index]
        return [edge for edge in range(self._edges(carrier)) if self._covers(span, self._middle(carrier, edge))]

    def _components(self, bound: Boxed) -> list[list[tuple[int, int]]]:
        """Return the drawn pieces inside a box that hang together, those with the largest box first."""
        free = {
            (carrier, index): None
            for carrier, spans in enumerate(self.spans)
            for index, span in enumerate(spans)
            if bound.holds(span.box, self.close)
        }
        found = []
        while free:
            start, _ = free.popitem()
            component, waiting = [start], [start]
            while waiting:
                carrier, index = waiting.pop()
                for vertex in self._vertices_of(carrier, index):
                    for other in [(o, i) for o in vertex.others for i in self._near_spans(o, vertex.point)]:
                        if other in free and self._is_on(other, vertex.point):
                            del free[other]
                            component.append(other)
                            waiting.append(other)
            found.append(component)
        return sorted(found, key=lambda c: -_area(_around([self.spans[carrier][index].box for carrier, index in c])))

    def _is_on(self, piece: tuple[int, int], spot: Point) -> bool:
        span = self.spans[piece[0]][piece[1]]
        if not self._boxes_in(span, spot):
            return False
        return is_drawn_at(span.curve, spot) or any(abs(end - spot) <= self.close for end in extremes(span.curve)[:2])

    def _boxes_in(self, span: _Span, spot: Point) -> bool:
        left, lower, right, upper = span.box
        close = self.close
        return left - close <= spot.x <= right + close and lower - close <= spot.y <= upper + close

    def _covers(self, span: _Span, spot: Point) -> bool:
        """Tell whether a piece is drawn at a spot of its carrier; most pieces of a long one are nowhere near."""
        return self._boxes_in(span, spot) and is_drawn_at(span.curve, spot)

    def _leftmost(self, component: Sequence[tuple[int, int]]) -> Half:
        """Return the side of a component that looks out to the left of everything else of it."""
        spots = []
        for carrier, index in component:
            curve = self.spans[carrier][index].curve
            ends = (curve.centre - Point(curve.radius, 0.0),) if isinstance(curve, Circle) else extremes(curve)
            spots += [(spot.x, carrier, spot) for spot in ends]
        _, carrier, spot = min(spots, key=lambda entry: entry[0])
        vertices = self.vertices(carrier)
        vertex = vertices[_nearest(self.supports[carrier], vertices, spot)]
        if abs(vertex.point - spot) <= self.close and vertex.others:
            found = self._clockwise({carrier, *vertex.others}, vertex.point, math.pi, 0.0, None)
            if found is not None:
                return found
        return self._side_at(carrier, spot, spot - Point(1.0, 0.0))

    def loop(self, cycle: Sequence[Half]) -> Loop:
        """Return a cycle as a run of pieces; edges that follow each other along one carrier are one piece."""
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
        whole, name = self.supports[carrier], self._name(carrier, edge)
        entry, last = self._from(run[0]).point, self._to(run[-1]).point
        if isinstance(whole, Line):
            return Piece(Line.between(entry, last), name, entry, last)
        start = (entry - whole.centre).angle
        if alone and entry == last:
            curve: Curve = whole if way > 0 else Arc(whole.centre, whole.radius, start, -math.tau, whole.exact)
            return Piece(curve, name, entry, last)
        sweep = _turn(start, (last - whole.centre).angle)
        sweep = sweep if way > 0 else sweep - math.tau
        return Piece(Arc(whole.centre, whole.radius, start, sweep, whole.exact), name, entry, last)


def regions(arrangement: Arrangement, spots: Sequence[Point]) -> tuple[Loop, ...]:
    """Return the boundary of the regions several spots lie in, taken together.

    Parameters
    ----------
    arrangement : Arrangement
    spots : sequence of Point
        One inside each region that is material.

    Returns
    -------
    tuple of Loop
        Outer loops counter-clockwise, largest first; then holes clockwise. Pieces that reach into a region without
        bounding it are left out.

    Raises
    ------
    RegionError
        For a spot around which nothing closes.
    """
    sides: dict[Half, None] = {}
    for spot in spots:
        for cycle in arrangement.face(spot):
            sides.update(dict.fromkeys(cycle))
    kept = {half: None for half in sides if (half[0], half[1], -half[2]) not in sides}
    loops = []
    while kept:
        start = next(iter(kept))
        cycle, half = [], start
        while half in kept:
            del kept[half]
            cycle.append(half)
            half = _onward(arrangement, half, kept)
        loops.append(arrangement.loop(cycle))
    return tuple(sorted(loops, key=lambda loop: -loop.area))


def _onward(arrangement: Arrangement, half: Half, kept: Mapping[Half, None]) -> Half:
    """Return the kept side that follows: round the vertex until one is kept, or round to where it began."""
    following = first = arrangement._next(half)
    seen = {first}
    while following not in kept:
        following = arrangement._next((following[0], following[1], -following[2]))
        if following == first:
            break
        if following in seen:
            raise RegionError(TOO_CLOSE)
        seen.add(following)
    return following


def _ended(curve: Curve, reach: float) -> Curve:
    if isinstance(curve, Line) and (curve.start is None or curve.end is None):
        middle = curve.along(Point(0.0, 0.0))
        return Line(curve.through, curve.direction, middle - reach, middle + reach)
    return curve


def _box(curve: Curve) -> Box:
    spots = extremes(curve)
    xs, ys = [spot.x for spot in spots], [spot.y for spot in spots]
    return min(xs), min(ys), max(xs), max(ys)


def _around(boxes: Sequence[Box]) -> Box:
    return (
        min(box[0] for box in boxes),
        min(box[1] for box in boxes),
        max(box[2] for box in boxes),
        max(box[3] for box in boxes),
    )


def _area(box: Box) -> float:
    return (box[2] - box[0]) * (box[3] - box[1])


def _along(whole: Line | Circle, spot: Point) -> float:
    if isinstance(whole, Line):
        return whole.along(spot)
    return (spot - whole.centre).angle % math.tau


def _turn(start: float, end: float) -> float:
    """Return the counter-clockwise turn from one direction to another; a whole one when they are the same."""
    return (end - start) % math.tau or math.tau


def _nearest(whole: Line | Circle, vertices: Sequence[_Vertex], spot: Point) -> int:
    at = bisect_right([vertex.along for vertex in vertices], _along(whole, spot))
    around = {(at - 1) % len(vertices), at % len(vertices)}
    return min(around, key=lambda index: abs(vertices[index].point - spot))
