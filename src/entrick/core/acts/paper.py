"""What stands on the sheet, as the figure has it: so that what an act stands on is found as the eye
finds it."""

from __future__ import annotations

from collections.abc import Callable, Hashable, Iterable, Iterator
from dataclasses import dataclass, field
from itertools import islice
from typing import Any, TypeVar

from ..geometry import Circle, Line, Point
from ..geometry.loop import Boxed, boxed
from ..tolerance import DIRECTION, NOUGHT, SAME_PLACE
from .act import Edge, Mark, Round, Thing, Traced

T = TypeVar("T")

HANDY = 20.0
"""Compass opening where a construction leaves it free, mm on paper."""

CELLS = 1 / SAME_PLACE
"""Places closer than the size of the sheet by this are one place to look at."""

_EDGE = 0.499
"""A place so near to the side of its cell is looked for in the next one too, as a share of the
cell."""


def _cells(*values: float) -> Iterator[tuple[int, ...]]:
    """Return the cells in which something at these values may have been put, the likeliest
    first."""
    found: list[tuple[int, ...]] = [()]
    for value in values:
        whole = round(value)
        off = value - whole
        near = (whole,) if abs(off) < _EDGE else (whole, whole + (1 if off > 0 else -1))
        found = [(*cell, each) for each in near for cell in found]
    return iter(found)


Place = tuple[str, Hashable]
"""Among what a thing stands (marks, edges, rounds, curves, offers), and in which cell."""


@dataclass
class Paper:
    """Everything drawn so far, found by where it stands. `size` is that of the sheet, and `handy`
    an opening of the compass where any will do, plan units."""

    size: float
    handy: float
    marks: dict[Hashable, Mark] = field(default_factory=dict)
    edges: dict[Hashable, Edge] = field(default_factory=dict)
    rounds: dict[Hashable, Round] = field(default_factory=dict)
    curves: dict[str, Traced] = field(default_factory=dict)
    offers: dict[Hashable, Callable[[object], Mark]] = field(default_factory=dict)

    def __post_init__(self) -> None:
        self._among: dict[str, dict[Any, Any]] = {
            "marks": self.marks,
            "edges": self.edges,
            "rounds": self.rounds,
            "curves": self.curves,
            "offers": self.offers,
        }
        self.lines: dict[str, Edge] = {}
        self._bounds: list[tuple[float, float, float, float, Boxed, Traced]] = []

    def place_of(self, thing: Thing) -> Place:
        """Return where a thing is put."""
        cell = self.size / CELLS
        match thing:
            case Mark(at=at):
                return "marks", (round(at.x / cell), round(at.y / cell))
            case Edge(line=line):
                return "edges", tuple(map(round, _of_line(line, self.size)))
            case Round(circle=circle):
                place = (circle.centre.x / cell, circle.centre.y / cell, circle.radius / cell)
                return "rounds", tuple(map(round, place))
        return "curves", thing.key

    def place_of_offer(self, at: Point) -> Place:
        """Return where it is put how a place would be marked."""
        cell = self.size / CELLS
        return "offers", (round(at.x / cell), round(at.y / cell))

    def put(self, things: Iterable[Thing]) -> None:
        """Put what an act has left on the sheet."""
        self.put_in((self.place_of(thing), thing) for thing in things)

    def put_in(self, placed: Iterable[tuple[Place, object]]) -> None:
        """Put what acts have left, and ways to mark a place, on the sheet. What stands in the same
        place already keeps its own."""
        among = self._among
        for (kind, cell), thing in placed:
            among[kind].setdefault(cell, thing)
            if kind == "edges":
                self.lines[thing.key] = thing  # type: ignore[attr-defined, assignment]

    # The cell of a place is asked first; its neighbours where the place lies close to the side of
    # it, which is seldom.

    def mark(self, at: Point) -> Mark | None:
        """Return the mark at a place."""
        x, y = at.x / (self.size / CELLS), at.y / (self.size / CELLS)
        i, j = round(x), round(y)
        mark = self.marks.get((i, j))
        if mark is not None or (abs(x - i) < _EDGE and abs(y - j) < _EDGE):
            return mark
        return next((self.marks[c] for c in _cells(x, y) if c in self.marks), None)

    def mark_on(self, line: Line) -> Mark | None:
        """Return the first mark that was put on a line."""
        near = self.nothing
        return next(
            (mark for mark in self.marks.values() if abs(line.offset_of(mark.at)) < near), None
        )

    def first_mark(self, _: object = None) -> Mark | None:
        """Return the mark that was put down first."""
        return next(iter(self.marks.values()), None)

    def all_marks(self, _: object = None) -> list[Mark]:
        """Return every mark."""
        return list(self.marks.values())

    def offer(self, at: Point, how: Callable[[object], Mark]) -> None:
        """Note how a place that nobody has wanted yet would be marked."""
        self.put_in(((self.place_of_offer(at), how),))

    def offered(self, at: Point) -> Callable[[object], Mark] | None:
        """Return how a place would be marked."""
        cell = self.size / CELLS
        return next(
            (self.offers[c] for c in _cells(at.x / cell, at.y / cell) if c in self.offers), None
        )

    def edge(self, line: Line) -> Edge | None:
        """Return what is drawn along a line, however far."""
        return self._found(self.edges, _of_line(line, self.size))

    def round(self, circle: Circle) -> Round | None:
        """Return the circle, or the swing, that has been drawn with a centre and radius."""
        cell = self.size / CELLS
        return self._found(
            self.rounds, (circle.centre.x / cell, circle.centre.y / cell, circle.radius / cell)
        )

    def _found(self, drawn: dict[Hashable, T], place: tuple[float, float, float]) -> T | None:
        x, y, z = place
        i, j, k = round(x), round(y), round(z)
        result = drawn.get((i, j, k))
        if result is not None or (abs(x - i) < _EDGE and abs(y - j) < _EDGE and abs(z - k) < _EDGE):
            return result
        return next((drawn[c] for c in _cells(x, y, z) if c in drawn), None)

    @property
    def nothing(self) -> float:
        """Two places that lie closer are one."""
        return self.size / CELLS

    def curve(self, sought: tuple[str, Point]) -> Traced | None:
        """Return the curve of a name that goes through a place."""
        name, at = sought
        own = (c for c in self.curves.values() if c.called == name)
        near = self.nothing * 10
        return next((c for c in own if boxed(c.loop).is_nearer(at, near)), None)

    def through(self, at: Point) -> list[Edge | Round]:
        """Return everything straight or round that goes through a place."""
        near = self.size / CELLS
        result: list[Edge | Round] = [
            e for e in self.edges.values() if abs(e.line.offset_of(at)) < near
        ]
        result += [
            r
            for r in self.rounds.values()
            if abs(abs(at - r.circle.centre) - r.circle.radius) < near
        ]
        return result

    def curves_at(self, at: Point) -> list[Traced]:
        """Return every traced curve that goes through a place."""
        near = self.nothing * 10
        for curve in islice(self.curves.values(), len(self._bounds), None):
            bounds = boxed(curve.loop)
            self._bounds.append((*bounds.box.grown(near), bounds, curve))
        x, y = at
        return [
            curve
            for left, lower, right, upper, bounds, curve in self._bounds
            if left <= x <= right and lower <= y <= upper and bounds.is_nearer(at, near)
        ]


def _of_line(line: Line, size: float) -> tuple[float, float, float]:
    ahead = line.direction
    if ahead.x < -DIRECTION or (abs(ahead.x) <= DIRECTION and ahead.y < 0):
        ahead = -ahead
    away = ahead.x * line.through.y - ahead.y * line.through.x
    return ahead.x / DIRECTION, ahead.y / DIRECTION, away / size * CELLS


def looked_in(where: object, what: object, size: float) -> list[Place] | None:
    """Return the cells in which `mark`, `edge`, `round` or `offered` of a `Paper` of that size
    looks; None for what looks everywhere."""
    cell = size / CELLS
    place: tuple[float, ...]
    if where is Paper.mark or where is Paper.offered:
        assert isinstance(what, Point)
        kind, place = "marks" if where is Paper.mark else "offers", (what.x / cell, what.y / cell)
    elif where is Paper.edge:
        assert isinstance(what, Line)
        kind, place = "edges", _of_line(what, size)
    elif where is Paper.round:
        assert isinstance(what, Circle)
        centre = what.centre
        kind, place = "rounds", (centre.x / cell, centre.y / cell, what.radius / cell)
    else:
        return None
    return [(kind, found) for found in _cells(*place)]


def crossing(first: Edge | Round, second: Edge | Round, at: Point) -> float:
    """Return the sine of the angle at which two things cross at a place."""
    one, other = (_direction(thing, at) for thing in (first, second))
    return abs(one.cross(other))


def _direction(thing: Edge | Round, at: Point) -> Point:
    if isinstance(thing, Edge):
        return thing.line.direction
    out = at - thing.circle.centre
    return out.normal * (1 / max(abs(out), NOUGHT))
