"""What already stands on the paper, so that lettering finds a free place."""

from __future__ import annotations

import math
from collections.abc import Iterable, Iterator, Sequence
from dataclasses import replace
from itertools import pairwise

from ..drawing.marks import (
    Arrowhead,
    DrawnArc,
    DrawnCircle,
    DrawnLine,
    Lettering,
    Mark,
    reach,
)
from ..geometry import Arc, Circle, Curve, Line, Loop, Point
from ..geometry.box import Box, around
from ..memo import remembered
from ..tolerance import ROUND

Segment = tuple[float, float, float, float]

_CHORD = 0.35
"""Largest angle, radians, over which an arc is taken as straight here."""

_BULGE = 0.15
"""By how much such a stroke may miss its arc at most, mm."""


CELL = 12.0
"""Side of the squares by which strokes are looked up, mm: about the size of what is asked about."""


ALONG = 0.01
"""How far apart strokes lie that are drawn one along the other, times the length of one, mm²."""


class Occupied:
    """Strokes and boxes on the paper, mm from the datum."""

    def __init__(self, loops: Iterable[Loop], factor: float) -> None:
        self.cells: dict[tuple[int, int], list[Segment]] = {}
        self.boxes: list[Box] = []
        for loop in loops:
            for cell, found in _of_loop(loop, factor):
                self.cells.setdefault(cell, []).extend(found)

    def _near(self, box: Box) -> Iterable[Segment]:
        cells = self.cells
        found = [cells[cell] for cell in cells_of(box) if cell in cells]
        return found[0] if len(found) == 1 else set().union(*found)

    def strokes_in(self, box: Box) -> list[Segment]:
        """Return the strokes that may reach into a box."""
        x0, y0, x1, y1 = box
        return [
            (a, b, c, d)
            for a, b, c, d in self._near(box)
            if not (
                (a < x0 and c < x0)
                or (a > x1 and c > x1)
                or (b < y0 and d < y0)
                or (b > y1 and d > y1)
            )
        ]

    def boxes_in(self, box: Box) -> list[Box]:
        """Return the boxes that reach into another."""
        return [other for other in self.boxes if meets(other, box)]

    def is_free(self, box: Box) -> bool:
        """Tell whether a box would cover nothing."""
        return not self.hits(box, 1)

    def hits(self, box: Box, most: float = math.inf) -> int:
        """Count what a box would cover, other letters thrice: no further than so many."""
        count = 0
        x0, y0, x1, y1 = box
        for a, b, c, d in self.boxes:
            if count >= most:
                return count
            if a < x1 and c > x0 and b < y1 and d > y0:
                count += 3
        for segment in self._near(box):
            if count >= most:
                return count
            count += cuts(segment, box)
        return count

    def letters_hit(self, mark: Lettering) -> int:
        """Count what lettering would cover, as it lies: other letters thrice."""
        boxes = boxes_of(mark)
        count = 3 * sum(bool(self.boxes_in(box)) for box in boxes)
        turned = math.radians(mark.angle)
        cos, sin = math.cos(turned), math.sin(turned)
        own = box_of(replace(mark, x=0.0, y=0.0, angle=0.0))

        def along(x: float, y: float) -> tuple[float, float]:
            x, y = x - mark.x, y - mark.y
            return x * cos + y * sin, y * cos - x * sin

        for a, b, c, d in self.strokes_in(box_of(mark)):
            count += cuts((*along(a, b), *along(c, d)), own)
        return count

    def letters_crossed(self, first: Point, last: Point) -> int:
        """Count the letters a stroke would run through."""
        stroke = (first.x, first.y, last.x, last.y)
        return sum(cuts(stroke, box) for box in self.boxes)

    def take_letters(self, mark: Lettering) -> None:
        """Mark where lettering stands."""
        self.boxes += boxes_of(mark)

    def crossings(self, first: Point, last: Point, most: float = math.inf) -> int:
        """Count the strokes a leader would cross, or lie along: no further than so many."""
        x0, y0, x1, y1 = first.x, first.y, last.x, last.y
        dx, dy = x1 - x0, y1 - y0
        count = 0
        for a, b, c, d in self._near(Box(min(x0, x1), min(y0, y1), max(x0, x1), max(y0, y1))):
            one, two = dx * (b - y0) - dy * (a - x0), dx * (d - y0) - dy * (c - x0)
            # Most lie wholly to one side of it.
            if (one > ALONG and two > ALONG) or (one < -ALONG and two < -ALONG):
                continue
            if count >= most:
                break
            if max(abs(one), abs(two)) < ALONG:
                ahead = sorted(dx * (x - x0) + dy * (y - y0) for x, y in ((a, b), (c, d)))
                count += ahead[1] > 0 and ahead[0] < dx * dx + dy * dy
            elif one * two <= 0:
                ex, ey = c - a, d - b
                count += (ex * (y0 - b) - ey * (x0 - a)) * (ex * (y1 - b) - ey * (x1 - a)) < 0
        return count

    def cross(self, first: Point, last: Point) -> None:
        """Mark a stroke, so that lettering that comes later keeps off it."""
        _sort_in(self.cells, (first.x, first.y, last.x, last.y))

    def free_of_boxes(self, segment: Segment) -> Iterator[tuple[float, float]]:
        """Give the shares of a stroke, from and to, that no box covers."""
        at = 0.0
        for low, high in sorted(found for box in self.boxes if (found := stretch_in(segment, box))):
            if low > at:
                yield at, low
            at = max(at, high)
        if at < 1.0:
            yield at, 1.0

    @property
    def marked(self) -> tuple[dict[tuple[int, int], int], int]:
        """How much stands on the paper so far."""
        return {cell: len(found) for cell, found in self.cells.items()}, len(self.boxes)

    def back_to(self, marked: tuple[dict[tuple[int, int], int], int]) -> None:
        """Take off what came after that."""
        cells, boxes = marked
        self.cells = {cell: self.cells[cell][:count] for cell, count in cells.items()}
        del self.boxes[boxes:]

    def take(self, box: Box) -> None:
        """Mark a box as taken."""
        self.boxes.append(box)


def stand(mark: Mark, taken: Occupied) -> None:
    """Mark a stroke that stands on the paper."""
    match mark:
        case DrawnLine(x1, y1, x2, y2):
            taken.cross(Point(x1, y1), Point(x2, y2))
        case DrawnArc(cx, cy, r, start, sweep):
            arc = Arc(Point(cx, cy), r, math.radians(start), math.radians(sweep))
            for a, b, c, d in segments(arc, 1.0):
                taken.cross(Point(a, b), Point(c, d))
        case DrawnCircle(cx, cy, r):
            for a, b, c, d in segments(Circle(Point(cx, cy), r), 1.0):
                taken.cross(Point(a, b), Point(c, d))
        case Arrowhead():
            tip, *rest = mark.corners
            for corner in rest:
                taken.cross(Point(*tip), Point(*corner))


def boxes_of(mark: Lettering) -> list[Box]:
    """Return small boxes that lettering fills: one, or where it is slanted one for every few
    letters."""
    if abs(math.sin(2 * math.radians(mark.angle))) < ROUND:
        return [box_of(mark)]
    corners = reach(mark)
    (ax, ay), (bx, by) = corners[0], corners[2]
    count = max(1, round(math.hypot(bx - ax, by - ay) / mark.height))
    step = ((bx - ax) / count, (by - ay) / count)
    return [
        around(
            Point(x + step[0] * (index + more), y + step[1] * (index + more))
            for x, y in corners[:2]
            for more in (0, 1)
        )
        for index in range(count)
    ]


def box_of(mark: Lettering) -> Box:
    """Return the box lettering takes on paper."""
    return around(Point(x, y) for x, y in reach(mark))


@remembered(len)
def _of_loop(loop: Loop, factor: float) -> list[tuple[tuple[int, int], list[Segment]]]:
    """Return the strokes of an outline by squares; one that was asked about before is not gone
    along again."""
    cells: dict[tuple[int, int], list[Segment]] = {}
    for piece in loop.pieces:
        for segment in segments(piece.curve, factor):
            _sort_in(cells, segment)
    return list(cells.items())


def _sort_in(cells: dict[tuple[int, int], list[Segment]], segment: Segment) -> None:
    """Put a stroke into every square its halves, quarters and so on reach: long slanted ones do not
    fill a box."""
    a, b, c, d = segment
    first, last = (
        (math.floor(a / CELL), math.floor(b / CELL)),
        (math.floor(c / CELL), math.floor(d / CELL)),
    )
    if first == last:
        cells.setdefault(first, []).append(segment)
        return
    if first[0] == last[0] or first[1] == last[1]:
        columns, rows = (sorted(pair) for pair in zip(first, last, strict=True))
        reached = {
            (i, j) for i in range(columns[0], columns[1] + 1) for j in range(rows[0], rows[1] + 1)
        }
    else:
        reached = set[tuple[int, int]]()
        parts = math.ceil(max(abs(c - a), abs(d - b)) / CELL)
        for index in range(parts):
            x0, y0 = a + (c - a) * index / parts, b + (d - b) * index / parts
            x1, y1 = a + (c - a) * (index + 1) / parts, b + (d - b) * (index + 1) / parts
            reached.update(cells_of(Box(min(x0, x1), min(y0, y1), max(x0, x1), max(y0, y1))))
    for cell in reached:
        cells.setdefault(cell, []).append(segment)


def cells_of(box: Box) -> list[tuple[int, int]]:
    """Return the squares a box reaches into."""
    left, lower, right, upper = box
    rows = range(math.floor(lower / CELL), math.floor(upper / CELL) + 1)
    columns = range(math.floor(left / CELL), math.floor(right / CELL) + 1)
    return [(column, row) for column in columns for row in rows]


def meets(one: Box, other: Box) -> bool:
    """Tell whether two boxes reach into each other."""
    a, b, c, d = one
    x0, y0, x1, y1 = other
    return a < x1 and c > x0 and b < y1 and d > y0


def cuts(segment: Segment, box: Box) -> bool:
    """Tell whether a segment passes through a box: it does where neither the sides of the box nor
    the line of the segment part them (published, separating axes)."""
    (a, b, c, d), (x0, y0, x1, y1) = segment, box
    # Most lie wholly to one side of it.
    if (a < x0 and c < x0) or (a > x1 and c > x1) or (b < y0 and d < y0) or (b > y1 and d > y1):
        return False
    across, up = c - a, d - b
    apart = across * (y0 + y1 - 2 * b) - up * (x0 + x1 - 2 * a)
    return abs(apart) <= abs(up) * (x1 - x0) + abs(across) * (y1 - y0)


def stretch_in(segment: Segment, box: Box) -> tuple[float, float] | None:
    """Return from which to which share of a segment it lies in a box (clipping against its four
    sides)."""
    (a, b, c, d), (x0, y0, x1, y1) = segment, box
    low, high = 0.0, 1.0
    for start, run, least, most in ((a, c - a, x0, x1), (b, d - b, y0, y1)):
        if run == 0:
            if not least <= start <= most:
                return None
            continue
        one, other = sorted(((least - start) / run, (most - start) / run))
        low, high = max(low, one), min(high, other)
        if low > high:
            return None
    return low, high


def segments(curve: Curve, factor: float) -> Sequence[Segment]:
    """Return a curve as short straight strokes, mm."""
    match curve:
        case Line(start=float() as start, end=float() as end):
            a, b = curve.at(start) * factor, curve.at(end) * factor
            return [(a.x, a.y, b.x, b.y)]
        case Circle():
            return segments(Arc(curve.centre, curve.radius, 0.0, math.tau), factor)
        case Arc(start=start, sweep=sweep):
            x, y, r = curve.centre.x * factor, curve.centre.y * factor, curve.radius * factor
            flat = math.sqrt(8 * _BULGE / r) if r > 0 else _CHORD
            count = max(1, math.ceil(abs(sweep) / min(_CHORD, flat)))
            turns = [start + sweep * index / count for index in range(count + 1)]
            spots = [(x + r * math.cos(turn), y + r * math.sin(turn)) for turn in turns]
            return [(*a, *b) for a, b in pairwise(spots)]
    return []
