"""Pieces of a file gathered into runs: doubles dropped, loose ends joined, what is one line or arc
made one; what was mended is told."""

from __future__ import annotations

import math
from collections.abc import Sequence

from ..geometry import Arc, Circle, Line, Point
from ..geometry.shapes import ends as ends_of
from ..tolerance import OF_ONE, READ_WITHIN
from .profile import Curve, Piece, Run, is_whole, length_of, middle_of, turned

SHORT = 4
"""Pieces no longer than so many tolerances stand for noisy places close together: that two of them
end near each other says nothing."""


def clean(curves: Sequence[Curve], within: float, notes: list[str]) -> list[Run]:
    """Gather curves into runs.

    Parameters
    ----------
    curves : sequence of Line, Arc, Circle or Ellipse
    within : float
        Ends that lie closer are one place.
    notes : list of str
        What was mended is added to it.

    Returns
    -------
    list of Run
        Closed ones first.
    """
    return gathered(once(curves, within, notes), within, notes)


def once(curves: Sequence[Curve], within: float, notes: list[str]) -> list[Curve]:
    """Leave out what lies over another piece, end for end."""
    seen: set[tuple[int, ...]] = set()
    kept: list[Curve] = []
    double = 0
    for curve in curves:
        spots = [middle_of(curve)]
        if isinstance(curve, Line | Arc):
            spots += sorted(
                ends_of(curve), key=lambda p: (round(p.x / within), round(p.y / within))
            )
        else:
            spots.append(
                Point(curve.radius, 0.0) if isinstance(curve, Circle) else Point(curve.a, curve.b)
            )
        size = within if length_of(curve) > SHORT * within else min(within, READ_WITHIN)
        key = (len(spots), *(round(value / size) for spot in spots for value in (spot.x, spot.y)))
        if key in seen:
            double += 1
            continue
        seen.add(key)
        kept.append(curve)
    if double:
        notes.append(f"{double} pieces lay over others, and were left out")
    return kept


def gathered(curves: Sequence[Curve], within: float, notes: list[str]) -> list[Run]:
    """Gather pieces end to end into runs; those that do not close stay open, and are told."""
    whole: list[Run] = [(curve,) for curve in curves if not isinstance(curve, Line | Arc)]
    chains = _Chains([curve for curve in curves if isinstance(curve, Line | Arc)], within)
    closed: list[Run] = []
    opened: list[Run] = []
    while chains.left:
        run = chains.next()
        first, last = ends_of(run[0])[0], ends_of(run[-1])[1]
        shut = abs(last - first) <= within and (len(run) > 1 or isinstance(run[0], Arc))
        (closed if shut else opened).append(joined(run, shut))
    if chains.gap > within / 100:
        notes.append(f"ends up to {chains.gap:.2g} apart were taken for one")
    return [
        *(run for run in closed if not is_whole(run)),
        *whole,
        *(run for run in closed if is_whole(run)),
        *opened,
    ]


class _Chains:
    """Pieces by where they end, so that the next is found among thousands."""

    def __init__(self, curves: Sequence[Piece], within: float) -> None:
        self.within = within
        self.left: dict[int, Piece] = dict(enumerate(curves))
        self.gap = 0.0
        self._cells: dict[tuple[int, int], list[int]] = {}
        for n, curve in self.left.items():
            for end in ends_of(curve):
                self._cells.setdefault(self._cell(end), []).append(n)

    def _cell(self, spot: Point) -> tuple[int, int]:
        return math.floor(spot.x / self.within / 4), math.floor(spot.y / self.within / 4)

    def _is_short(self, curve: Piece) -> bool:
        return length_of(curve) <= SHORT * self.within

    def next(self) -> list[Piece]:
        """Take out one run: on from a piece as far as it goes, then back from it."""
        first = self.left.pop(next(iter(self.left)))
        run = self._on([first])
        if abs(ends_of(run[-1])[1] - ends_of(run[0])[0]) > self.within:
            run = self._on([turned(curve) for curve in reversed(run)])
        return run

    def _on(self, run: list[Piece]) -> list[Piece]:
        start = ends_of(run[0])[0]
        while True:
            here = ends_of(run[-1])[1]
            back = abs(here - start)
            shut = back <= self.within and (len(run) > 1 or isinstance(run[0], Arc))
            column, row = self._cell(here)
            around = [(column + i, row + j) for i in (-1, 0, 1) for j in (-1, 0, 1)]
            near = {n for place in around for n in self._cells.get(place, ()) if n in self.left}
            ends = [
                (abs(end - here), n, k) for n in near for k, end in enumerate(ends_of(self.left[n]))
            ]
            apart, n, k = min(ends, default=(math.inf, 0, 0))
            # Of noisy places close together the next lies nearer than the end of the outline does.
            goes_on = apart < back and n in self.left and self._is_short(self.left[n])
            if apart > self.within or (shut and not goes_on):
                return run
            found = self.left.pop(n)
            run.append(turned(found) if k else found)
            self.gap = max(self.gap, apart)


def joined(run: Sequence[Piece], shut: bool) -> Run:
    """Join what is one line, or one arc, in several pieces; a closed run of arcs about one centre
    is a circle."""
    result: list[Piece] = []
    for curve in run:
        if result and (whole := _one(result[-1], curve)) is not None:
            result[-1] = whole
        else:
            result.append(curve)
    while shut and len(result) > 1 and (whole := _one(result[-1], result[0])) is not None:
        result = [whole, *result[1:-1]]
    if shut and len(result) == 1 and isinstance(result[0], Arc):
        return (Circle(result[0].centre, result[0].radius),)
    return tuple(result)


def _one(first: Piece, second: Piece) -> Piece | None:
    if isinstance(first, Line) and isinstance(second, Line):
        same = (
            abs(first.direction.cross(second.direction)) < OF_ONE
            and first.direction.dot(second.direction) > 0
        )
        return Line.between(ends_of(first)[0], ends_of(second)[1]) if same else None
    if isinstance(first, Arc) and isinstance(second, Arc):
        size = first.radius * OF_ONE * 10
        alike = (
            abs(first.centre - second.centre) < size and abs(first.radius - second.radius) < size
        )
        if (
            alike
            and first.sweep * second.sweep > 0
            and abs(first.sweep + second.sweep) <= math.tau + OF_ONE
        ):
            return Arc(first.centre, first.radius, first.start, first.sweep + second.sweep)
    return None
