"""What each size of a plan moves: every size is made a trifle larger in turn and the plan solved
again.

The derivatives so found tell whether a set of dimensions fixes an outline, and whether one says
what others say."""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from functools import cached_property
from itertools import chain

import numpy as np
import numpy.typing as npt

from ..drawing.notes import AngleDimension, LinearDimension, Note, RoundDimension
from ..geometry import Arc, Circle, Loop, Point
from ..memo import remembered
from ..plan.document import Content, Line, Plan
from ..plan.terms import Binary, Expression, Num
from ..solve import Solution, solve, solve_changed
from ..tolerance import ALIKE, DIRECTION, NOISE, VARIED
from .sizes import Size, changed, counts, loosened, sizes
from .threads import TIMES, threads

Row = npt.NDArray[np.float64]
"""How much a measure moves with each size of a plan, times that size: lengths in plan units, angles
in degrees."""

Rows = npt.NDArray[np.float64]
"""Rows of several measures, one below another."""


Dimensioned = LinearDimension | RoundDimension | AngleDimension


class Variation:
    """A solved plan with the same plan solved again for every size: of each, only what depends on
    that size."""

    def __init__(self, solution: Solution) -> None:
        self.solution = solution
        self.sizes: list[Size] = []
        self.varied: list[Solution] = []
        self.held: list[Size] = []
        how_many = counts(solution)
        loose = _perturbed(solution)
        shape = _shape(solution)
        for size in sizes(solution):
            content = _enlarged(solution.plan.lines[size.line - 1].content, size.number)
            other = solve_changed(loose, size.line, content)
            if len(other.errors) == len(solution.errors) and _shape(other) == shape:
                self.sizes.append(size)
                self.varied.append(other)
            elif size.name not in how_many:
                # It cannot be a trifle larger alone: what it makes meets the rest only because the
                # numbers agree.
                self.held.append(size)

    @cached_property
    def needed(self) -> RowSpace:
        """What the outline depends on: all that a full set of dimensions must fix."""
        runs = lined_runs(self.solution)
        varied = [lined_runs(other) for other in self.varied]
        # From the first corner on, so that where the outline stands does not count.
        start = [_start(found) for found in varied]
        base = _start(runs)
        still = [_places(run, base) for run in runs]
        columns = []
        for found, at in zip(varied, start, strict=True):
            column: list[float] = []
            for run, other, places in zip(runs, found, still, strict=True):
                column += places if other is run and at == base else _places(other, at)
            columns.append(column)
        base_places = np.array([*chain.from_iterable(still)])
        moved = np.array(columns).reshape(len(columns), len(base_places))
        return RowSpace.of((moved - base_places).T / VARIED)

    @cached_property
    def dimensions(self) -> list[tuple[int, Row]]:
        """Every dimension on the drawing, with the line that asked for it."""
        base = dimensions(self.solution)
        still = [measured(note) for _, note in base]
        moved = [[measured(note) for _, note in dimensions(other)] for other in self.varied]
        rows = (np.array(moved).reshape(len(moved), len(base)) - still).T / VARIED
        return [(line, row) for (line, _), row in zip(base, rows, strict=True)]

    @cached_property
    def idle(self) -> RowSpace:
        """What does not move the outline: a measure that has a part in it is one of construction
        beside it."""
        return self.needed.null_space(len(self.sizes))

    def open(self, said: RowSpace) -> RowSpace:
        """Return what of the outline a set of dimensions leaves open."""
        row_space = RowSpace()
        for row in self.needed.rows:
            row_space.add(said.rest(row))
        return row_space

    def states(self, note: Dimensioned, size: Size) -> bool:
        """Tell whether a dimension shows a size: its value, or twice a radius."""
        value = measured(note)
        shown = (value, 2 * value) if isinstance(note, RoundDimension) else (value,)
        return any(math.isclose(each, abs(size.value), rel_tol=DIRECTION) for each in shown)

    def missing(self, said: RowSpace) -> list[Size]:
        """Return the sizes that a set of dimensions leaves open."""
        found: dict[int, Size] = {}
        for row in self.needed.rows:
            rest = np.abs(said.rest(row))
            most = rest.max(initial=0.0)
            if most > ALIKE:
                found |= {
                    int(index): self.sizes[index] for index in np.flatnonzero(rest > most / 2)
                }
        return list(found.values())


class RowSpace:
    """What several rows fix together: orthonormal rows that span the same space (Gram-Schmidt)."""

    def __init__(self) -> None:
        self.rows: Rows = np.empty((0, 0))

    @classmethod
    def of(cls, rows: Rows) -> RowSpace:
        """Return the space of very many rows: as `add` would, one after another, but all at once
        for each that is new."""
        row_space = cls()
        sizes = np.linalg.norm(rows, axis=1)
        rows, sizes = rows[sizes > NOISE], sizes[sizes > NOISE]
        left = rows / sizes[:, None]
        while len(left):
            new = np.flatnonzero(np.linalg.norm(left, axis=1) > ALIKE)
            if not len(new):
                break
            first, rows, left = rows[new[0]], rows[new[0] + 1 :], left[new[0] + 1 :]
            if row_space.add(first):
                one = row_space.rows[-1]
                left = left - np.outer(left @ one, one)
        return row_space

    def rest(self, row: Row) -> Row:
        """Return what of a row the span does not reach."""
        if len(self.rows):
            for _ in range(2):  # a second pass takes out what rounding left in the first
                row = row - (self.rows @ row) @ self.rows
        return row

    def null_space(self, width: int) -> RowSpace:
        """Return what the span leaves open: all rows of a width that stand square to it."""
        rest, all_ = RowSpace(), RowSpace()
        all_.rows = self.rows
        for row in np.eye(width):
            if all_.add(row):
                rest.add(all_.rows[-1])
        return rest

    def touches(self, rows: Rows) -> npt.NDArray[np.bool_]:
        """Tell of each of several rows whether it has any part in the span."""
        if not (self.rows.size and rows.size):
            return np.zeros(len(rows), dtype=bool)
        parts = np.abs(rows @ self.rows.T).max(axis=1)
        result: npt.NDArray[np.bool_] = parts > ALIKE * np.linalg.norm(rows, axis=1)
        return result

    def add(self, row: Row) -> bool:
        """Take a row in; tell whether it fixes anything that was open."""
        size = float(np.linalg.norm(row))
        if size <= NOISE:
            return False
        left = self.rest(row / size)
        length = float(np.linalg.norm(left))
        if length <= ALIKE:
            return False
        self.rows = (
            np.vstack((self.rows, left / length)) if len(self.rows) else (left / length)[None]
        )
        return True


def dimensions(solution: Solution) -> list[tuple[int, Dimensioned]]:
    """Return every dimension of a solved plan with the line that asked for it; not those in
    brackets, which say again what others say (auxiliary dimensions, ISO 129-1), and none that
    letters a thread: no size moves that."""
    said = {thread.size for thread in threads(solution)}
    notes: Iterator[tuple[int, Note]] = (
        (entry.line, note) for entry in solution.entries if entry.made for note in entry.made.notes
    )
    return [
        (line, note)
        for line, note in notes
        if isinstance(note, Dimensioned)
        and not note.text.startswith("(")
        and TIMES.sub("", note.text) not in said
    ]


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
        if entry.made
        for shape in entry.made.gone_over
        if isinstance(shape, Loop)
    ]


def _shape(solution: Solution) -> list[int]:
    """Return how many pieces of each kind every run has: a variation that changes that is another
    outline."""
    return [
        3 * len(run.pieces) + sum(isinstance(piece.curve, Arc | Circle) for piece in run.pieces)
        for run in lined_runs(solution)
    ]


def _start(runs: Sequence[Loop]) -> Point:
    if not runs:
        return Point(0.0, 0.0)
    first = runs[0].pieces[0]
    return first.curve.centre if isinstance(first.curve, Circle) else first.entry


def _places(run: Loop, start: Point) -> list[float]:
    """Return numbers that fix a run wherever it stands: corners and centres from a start, radii."""
    result: list[float] = []
    for piece in run.pieces:
        spots, radius = [piece.entry, piece.exit], []
        match piece.curve:
            case Circle(centre=c, radius=r):
                spots, radius = [c], [r]
            case Arc(centre=c, radius=r):
                spots, radius = [piece.entry, piece.exit, c], [r]
        for spot in spots:
            result += (spot.x - start.x, spot.y - start.y)
        result += radius
    return result


def _perturbed(solution: Solution) -> Solution:
    """Return the solution of the plan with every chain as long as its links make it."""
    lines = [Line(loosened(line.content), line.comment) for line in solution.plan.lines]
    if all(
        line.content is was.content for line, was in zip(lines, solution.plan.lines, strict=True)
    ):
        return solution
    return solve(Plan(tuple(lines)))


@remembered()
def _enlarged(content: Content, number: Num) -> Content:
    """Return a line of the plan with one of its sizes a trifle larger; the same one each time, so
    that what does not depend on an edit is not solved again."""

    def larger(part: Expression) -> Expression | None:
        return Binary(part, "*", Num(f"{1 + VARIED:.6f}")) if part is number else None

    return changed(content, larger)
