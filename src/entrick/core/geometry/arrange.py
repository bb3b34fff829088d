"""The arrangement of a construction: which region a spot lies in, and the boundary of several
regions together.

Only what bounds the regions asked for is worked out: the faces are traced from the spots outwards,
so that a click in a construction of a thousand pieces costs as much as its own boundary."""

from __future__ import annotations

import math
from bisect import bisect_right
from collections.abc import Iterable, Iterator, Mapping, Sequence

from ..tolerance import DIRECTION
from .box import together
from .edges import Edges, Half, Named, RegionError, Vertex, along, nearest_vertex
from .loop import Boxed, Loop
from .meet import meet
from .shapes import Circle, Line, Point, extremes, polar

_ASKEW = polar(1.0, 0.123456)
"""A ray in this direction seldom passes exactly through a corner."""
_ALIKE = DIRECTION * 10
"""Directions closer than this are tangent: how the curves bend tells them apart."""
TOO_CLOSE = "pieces lie too close together here to tell the regions apart"


class Arrangement:
    """The regions between curves that cross and touch.

    Parameters
    ----------
    curves : sequence of Named
    """

    def __init__(self, curves: Sequence[Named]) -> None:
        self.edges = Edges(curves)
        self._met: dict[int, dict[int, list[Vertex]]] = {}

    def _leaving(self, carrier: int, spot: Point) -> Iterator[Half]:
        """Return the sides of edges that leave a vertex along one carrier."""
        vertices = self.edges.vertices(carrier)
        at = nearest_vertex(self.edges.supports[carrier], vertices, spot)
        count = self.edges.count(carrier)
        whole = isinstance(self.edges.supports[carrier], Circle)
        for edge, way in ((at, 1), (at - 1, -1)):
            edge = edge % count if whole and count else edge
            if 0 <= edge < count and self.edges.name(carrier, edge):
                yield carrier, edge, way

    def _heading(self, half: Half) -> tuple[float, float]:
        """Return the direction in which a side leaves its vertex, and how much it curves to the
        left."""
        carrier, _, way = half
        whole, spot = self.edges.supports[carrier], self.edges.start(half).point
        if isinstance(whole, Line):
            return (whole.direction * way).angle, 0.0
        return ((spot - whole.centre).normal * way).angle, way / whole.radius

    def following(self, half: Half) -> Half:
        """Return the side that follows, turning as far to the left as it goes."""
        vertex = self.edges.end(half)
        twin = (half[0], half[1], -half[2])
        if not vertex.others:
            return next(
                (side for side in self._leaving(half[0], vertex.point) if side != twin), twin
            )
        return (
            self._clockwise({half[0], *vertex.others}, vertex.point, *self._heading(twin), twin)
            or twin
        )

    def _clockwise(
        self, carriers: Iterable[int], spot: Point, facing: float, curve: float, twin: Half | None
    ) -> Half | None:
        """Return the first side that leaves a vertex clockwise from a direction; tangent ones by
        how they curve."""
        ranked: list[tuple[float, float, Half]] = []
        for carrier in carriers:
            for side in self._leaving(carrier, spot):
                angle, bend = self._heading(side)
                turned = (facing - angle) % math.tau
                if side == twin or min(turned, math.tau - turned) < _ALIKE:
                    turned = 0.0 if bend < curve else math.tau
                ranked.append((turned, -bend, side))
        least = min((entry[0] for entry in ranked), default=0.0)
        first = min(
            (entry for entry in ranked if entry[0] < least + _ALIKE),
            key=lambda entry: entry[1],
            default=None,
        )
        return first[2] if first else None

    def _trace(self, start: Half) -> list[Half]:
        cycle, half = {start: None}, self.following(start)
        while half != start:
            if half in cycle:
                # Pieces that all but lie on each other: the way round does not come back to where
                # it began.
                raise RegionError(TOO_CLOSE)
            cycle[half] = None
            half = self.following(half)
        return list(cycle)

    def _side_at(self, carrier: int, spot: Point, seen_from: Point) -> Half:
        """Return the side of the edge at a spot that has another spot on its left."""
        whole, vertices = self.edges.supports[carrier], self.edges.vertices(carrier)
        ahead = whole.direction if isinstance(whole, Line) else (spot - whole.centre).normal
        edge = bisect_right([vertex.along for vertex in vertices], along(whole, spot)) - 1
        if isinstance(whole, Circle):
            edge %= len(vertices)
        return (
            carrier,
            min(max(edge, 0), self.edges.count(carrier) - 1),
            1 if ahead.cross(seen_from - spot) > 0 else -1,
        )

    def _hits(self, spot: Point) -> list[tuple[float, int, Point]]:
        """Return where a ray from a spot meets drawn pieces, nearest first."""
        ray = Line(spot, _ASKEW)
        result = []
        for carrier, box in enumerate(self.edges.boxes):
            middle = (box.low + box.high) * 0.5 - spot
            half = abs(box.high - box.low) / 2 + self.edges.close
            if abs(_ASKEW.cross(middle)) > half or _ASKEW.dot(middle) < -half:
                continue
            for meeting in meet(ray, self.edges.supports[carrier]):
                along = ray.along(meeting.point)
                if (
                    along > self.edges.close
                    and not meeting.touch
                    and self.edges.is_drawn(carrier, meeting.point)
                ):
                    result.append((along, carrier, meeting.point))
        return sorted(result, key=lambda hit: hit[0])

    def face(self, spot: Point) -> list[list[Half]]:
        """Return the boundary of the region a spot lies in: the outer cycle first, then its
        islands.

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
            if self.edges.loop(cycle).area > self.edges.close**2:
                outer = cycle
                break
            cycles.append(cycle)
            edges = {(side[0], side[1]) for side in cycle}
            last = max(
                i
                for i, hit in enumerate(hits)
                if i == 0 or self._side_at(hit[1], hit[2], seen)[:2] in edges
            )
            seen = hits[last][2] + _ASKEW * self.edges.close
            hits = hits[last + 1 :]
        if not outer:
            raise RegionError("nothing closes around this spot: it lies outside the construction")
        return [outer, *cycles, *self._islands(outer, cycles)]

    def _islands(self, outer: list[Half], known: list[list[Half]]) -> Iterator[list[Half]]:
        """Find what lies inside a region without joining its boundary: components, the largest
        first."""
        bound, closed = (
            Boxed(self.edges.loop(outer)),
            [Boxed(self.edges.loop(cycle)) for cycle in known],
        )
        traced = {side[:2] for cycle in (outer, *known) for side in cycle}
        for component in self._components(bound):
            carrier, index = component[0]
            edges = self._edges_of(carrier, index)
            if not edges:
                continue  # shorter than what can be told apart: it bounds nothing
            sample = self.edges.middle(carrier, edges[0])
            if any((c, edge) in traced for c, i in component for edge in self._edges_of(c, i)):
                continue
            if any(loop.encloses(sample) for loop in closed) or not bound.encloses(sample):
                continue
            cycle = self._trace(self._leftmost(component))
            closed.append(Boxed(self.edges.loop(cycle)))
            yield cycle

    def _vertices_of(self, carrier: int, index: int) -> Sequence[Vertex]:
        """Return the places of a piece where others meet it."""
        if carrier not in self._met:
            met: dict[int, list[Vertex]] = {}
            for vertex in self.edges.vertices(carrier):
                for near in self.edges.near_spans(carrier, vertex.point) if vertex.others else ():
                    if self.edges.covers(self.edges.spans[carrier][near], vertex.point):
                        met.setdefault(near, []).append(vertex)
            self._met[carrier] = met
        return self._met[carrier].get(index, ())

    def _edges_of(self, carrier: int, index: int) -> list[int]:
        span = self.edges.spans[carrier][index]
        return [
            edge
            for edge in range(self.edges.count(carrier))
            if self.edges.covers(span, self.edges.middle(carrier, edge))
        ]

    def _components(self, bound: Boxed) -> list[list[tuple[int, int]]]:
        """Return the drawn pieces inside a box that hang together, those with the largest box
        first."""
        free = {
            (carrier, index): None
            for carrier, spans in enumerate(self.edges.spans)
            for index, span in enumerate(spans)
            if bound.box.contains(span.box, self.edges.close)
        }
        result = []
        while free:
            start, _ = free.popitem()
            component, waiting = [start], [start]
            while waiting:
                carrier, index = waiting.pop()
                for vertex in self._vertices_of(carrier, index):
                    for other in [
                        (o, i)
                        for o in vertex.others
                        for i in self.edges.near_spans(o, vertex.point)
                    ]:
                        if other in free and self.edges.is_on(other, vertex.point):
                            del free[other]
                            component.append(other)
                            waiting.append(other)
            result.append(component)
        return sorted(
            result,
            key=lambda c: (
                -together([self.edges.spans[carrier][index].box for carrier, index in c]).area
            ),
        )

    def _leftmost(self, component: Sequence[tuple[int, int]]) -> Half:
        """Return the side of a component that looks out to the left of everything else of it."""
        spots = []
        for carrier, index in component:
            curve = self.edges.spans[carrier][index].curve
            ends = (
                (curve.centre - Point(curve.radius, 0.0),)
                if isinstance(curve, Circle)
                else extremes(curve)
            )
            spots += [(spot.x, carrier, spot) for spot in ends]
        _, carrier, spot = min(spots, key=lambda entry: entry[0])
        vertices = self.edges.vertices(carrier)
        vertex = vertices[nearest_vertex(self.edges.supports[carrier], vertices, spot)]
        if abs(vertex.point - spot) <= self.edges.close and vertex.others:
            half = self._clockwise({carrier, *vertex.others}, vertex.point, math.pi, 0.0, None)
            if half is not None:
                return half
        return self._side_at(carrier, spot, spot - Point(1.0, 0.0))


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
        Outer loops counter-clockwise, largest first; then holes clockwise. Pieces that reach into a
        region without bounding it are left out.

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
        loops.append(arrangement.edges.loop(cycle))
    return tuple(sorted(loops, key=lambda loop: -loop.area))


def _onward(arrangement: Arrangement, half: Half, kept: Mapping[Half, None]) -> Half:
    """Return the kept side that follows: round the vertex until one is kept, or round to where it
    began."""
    following = first = arrangement.following(half)
    seen = {first}
    while following not in kept:
        following = arrangement.following((following[0], following[1], -following[2]))
        if following == first:
            break
        if following in seen:
            raise RegionError(TOO_CLOSE)
        seen.add(following)
    return following
