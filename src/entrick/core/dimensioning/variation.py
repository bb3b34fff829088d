"""What each size of a plan moves: every size is made a trifle larger in turn and the plan solved again.

The derivatives so found tell whether a set of dimensions fixes an outline, and whether one says what others say.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass, replace
from functools import cached_property

from ..drawing.notes import AngleDimension, LinearDimension, Note, RoundDimension
from ..geometry import Arc, Circle, Loop, Point
from ..kind import Role
from ..measure import Dimension
from ..moves import kinds
from ..plan.document import Chain, Content, Given, Line, Plan, Statement
from ..plan.errors import ClauseError
from ..plan.evaluate import evaluate
from ..plan.forms import match_clauses
from ..plan.slots import NUMBERS
from ..plan.terms import Binary, Expression, Num, rewrite, terms, write
from ..solve import Solution, solve, spoken
from ..tolerance import ALIKE, NOISE, VARIED

RIGHT = 90
"""Angles that are whole multiples of a right angle are drawn, not dimensioned (common practice)."""

Row = tuple[float, ...]
"""How much a measure moves with each size of a plan, times that size: lengths in plan units, angles in degrees."""


@dataclass(frozen=True)
class Size:
    """A number of the brief that the figure depends on: where it stands, what the drafter calls it, its value."""

    line: int
    number: Num
    name: str
    value: float


Dimensioned = LinearDimension | RoundDimension | AngleDimension


class Variation:
    """A solved plan with the same plan solved again for every size."""

    def __init__(self, solution: Solution) -> None:
        self.solution = solution
        self.sizes: list[Size] = []
        self.varied: list[Solution] = []
        places = _places(solution)
        for size in _sizes(solution):
            other = solve(_enlarged(solution.plan, size))
            # A number that cannot be a trifle larger is a count, or holds a choice in place: it is no size.
            if len(other.errors) == len(solution.errors) and len(_places(other)) == len(places):
                self.sizes.append(size)
                self.varied.append(other)

    def row(self, measure: Callable[[Solution], float]) -> Row:
        """Return how a measure moves with each size."""
        base = measure(self.solution)
        return tuple((measure(other) - base) / VARIED for other in self.varied)

    @cached_property
    def needed(self) -> RowSpace:
        """What the outline depends on: all that a full set of dimensions must fix."""
        base = _places(self.solution)
        columns = [_places(other) for other in self.varied]
        span = RowSpace()
        for index, value in enumerate(base):
            span.add(tuple((column[index] - value) / VARIED for column in columns))
        return span

    @cached_property
    def dimensions(self) -> list[tuple[int, Row]]:
        """Every dimension on the drawing, with the line that asked for it."""
        base = dimensions(self.solution)
        columns = [dimensions(other) for other in self.varied]
        return [
            (line, tuple((measured(column[index][1]) - measured(note)) / VARIED for column in columns))
            for index, (line, note) in enumerate(base)
        ]

    def missing(self, said: RowSpace) -> list[Size]:
        """Return the sizes that a set of dimensions leaves open."""
        found: dict[int, Size] = {}
        for row in self.needed.rows:
            rest = said.rest(row)
            largest = max(map(abs, rest), default=0.0)
            if largest > ALIKE:
                for index, part in enumerate(rest):
                    if abs(part) > largest / 2:
                        found[index] = self.sizes[index]
        return list(found.values())


class RowSpace:
    """What several rows fix together: orthonormal rows that span the same space (Gram-Schmidt)."""

    def __init__(self) -> None:
        self.rows: list[Row] = []

    def rest(self, row: Row) -> Row:
        """Return what of a row the span does not reach."""
        left = list(row)
        for _ in range(2):  # a second pass takes out what rounding left in the first
            for one in self.rows:
                share = math.fsum(a * b for a, b in zip(left, one, strict=True))
                left = [a - share * b for a, b in zip(left, one, strict=True)]
        return tuple(left)

    def add(self, row: Row) -> bool:
        """Take a row in; tell whether it fixes anything that was open."""
        size = math.sqrt(math.fsum(part * part for part in row))
        if size <= NOISE:
            return False
        left = self.rest(tuple(part / size for part in row))
        length = math.sqrt(math.fsum(part * part for part in left))
        if length <= ALIKE:
            return False
        self.rows.append(tuple(part / length for part in left))
        return True


def dimensions(solution: Solution) -> list[tuple[int, Dimensioned]]:
    """Return every dimension of a solved plan with the line that asked for it."""
    notes: Iterator[tuple[int, Note]] = (
        (entry.line, note) for entry in solution.entries if entry.made for note in entry.made.notes
    )
    return [(line, note) for line, note in notes if isinstance(note, Dimensioned)]


def measured(note: Dimensioned) -> float:
    """Return what a dimension measures: plan units, or degrees."""
    match note:
        case LinearDimension(first=a, second=b, way="level"):
            return abs(b.x - a.x)
        case LinearDimension(first=a, second=b, way="plumb"):
            return abs(b.y - a.y)
        case LinearDimension(first=a, second=b):
            return abs(b - a)
        case RoundDimension(circle=circle):
            return circle.radius
        case AngleDimension(turn=turn):
            return abs(turn)


def lined_runs(solution: Solution) -> list[Loop]:
    """Return what is lined in, seen and hidden."""
    return [
        shape
        for entry in solution.entries
        if entry.made and entry.made.lined in (Role.OUTLINE, Role.HIDDEN)
        for shape in entry.made.shapes
        if isinstance(shape, Loop)
    ]


def _places(solution: Solution) -> list[float]:
    """Return numbers that fix the outline wherever it stands: corners and centres from the first corner, radii."""
    runs = lined_runs(solution)
    if not runs:
        return []
    start = runs[0].pieces[0].entry
    if isinstance(runs[0].pieces[0].curve, Circle):
        start = runs[0].pieces[0].curve.centre
    found: list[float] = []
    for run in runs:
        for piece in run.pieces:
            spots: list[Point] = []
            match piece.curve:
                case Circle(centre=c, radius=r):
                    spots, radius = [c], [r]
                case Arc(centre=c, radius=r):
                    spots, radius = [piece.entry, piece.exit, c], [r]
                case _:
                    spots, radius = [piece.entry, piece.exit], []
            for spot in spots:
                found += [spot.x - start.x, spot.y - start.y]
            found += radius
    return found


def _sizes(solution: Solution) -> Iterator[Size]:
    for entry in solution.givens:
        if entry.error is None:
            given = entry.given
            items = (given.value,) if isinstance(given, Given) else given.links
            for index, item in enumerate(items, 1):
                for number in terms(item) if item is not None else ():
                    name = given.name if isinstance(given, Given) else f"{given.name}.{index}"
                    yield from _size(entry.line, number, name, solution)
    for statement in solution.entries:
        if statement.made is not None and not statement.made.nothing:
            yield from _bare(statement.line, statement.statement, solution)


def _bare(line: int, statement: Statement, solution: Solution) -> Iterator[Size]:
    """Return the sizes that stand in a statement itself, not in a given."""
    try:
        matches = match_clauses(spoken(statement), kinds()[statement.kind].forms, statement.kind)
    except ClauseError:
        return
    for match in matches:
        for slot in match.form.slots:
            if slot.type not in NUMBERS or slot.type == "count":
                continue
            for item in match.slots.get(slot.name, ()):
                for number in terms(item):
                    plain = number.text.rstrip("°")
                    if slot.type == "angle" and plain.isdigit() and int(plain) % RIGHT == 0:
                        continue
                    yield from _size(line, number, f"{write(number)} in {statement.name}", solution)


def _size(line: int, number: Num, name: str, solution: Solution) -> Iterator[Size]:
    try:
        quantity = evaluate(number, {}, solution.unit)
    except ClauseError:
        return
    if quantity.value != 0 and quantity.dimension is not Dimension.AREA:
        yield Size(line, number, name, float(quantity.value))


def _enlarged(plan: Plan, size: Size) -> Plan:
    """Return the plan with one size a trifle larger."""

    def larger(part: Expression) -> Expression | None:
        return Binary(part, "*", Num(f"{1 + VARIED:.6f}")) if part is size.number else None

    lines = [
        Line(_changed(line.content, larger) if number == size.line else _loose(line.content), line.comment)
        for number, line in enumerate(plan.lines, 1)
    ]
    return Plan(tuple(lines))


def _changed(content: Content, change: Callable[[Expression], Expression | None]) -> Content:
    match content:
        case Given():
            return replace(content, value=rewrite(content.value, change))  # type: ignore[arg-type]
        case Chain():
            links = tuple(None if link is None else rewrite(link, change) for link in content.links)
            return _loose(replace(content, links=links))  # type: ignore[arg-type]
        case Statement():
            clauses = tuple(
                clause._replace(items=tuple(rewrite(item, change) for item in clause.items))
                for clause in content.clauses
            )
            return replace(content, clauses=clauses)
    return content


def _loose(content: Content) -> Content:
    """Let a chain with all its links be as long as they make it: its overall size follows from them."""
    if isinstance(content, Chain) and all(link is not None for link in content.links):
        return replace(content, overall=None)
    return content


def largest(row: Sequence[float]) -> int:
    """Return the index of the entry of greatest size."""
    return max(range(len(row)), key=lambda index: abs(row[index]))
