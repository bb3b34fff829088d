"""The words that choose, wherever several solutions fit, the one that is in the profile; how far a
plan is from it."""

from __future__ import annotations

import math
from collections.abc import Collection, Iterator, Sequence

from ..geometry import Arc, Circle, Line, Loop, Point
from ..geometry.ellipse import Ellipse
from ..geometry.loop import distance
from ..geometry.shapes import ends as ends_of
from ..kind.choosing import Candidate
from ..moves import kinds
from ..plan.document import Plan
from ..plan.edit import choose_candidate, choose_in_walk
from ..plan.errors import ClauseError
from ..plan.reader import read_plan
from ..solve import Entry, Solution, solve
from ..tolerance import FITTED
from .clean import joined
from .match import Places, departures
from .profile import Curve, Run, box_of, length_of, loop_of, middle_of

MOST_ROUNDS = 60
"""Times a plan is solved until everything in it is decided."""

Target = Curve | Sequence[Curve]


def settled(text: str, targets: dict[str, Target]) -> tuple[Solution, str]:
    """Choose, wherever several solutions fit.

    Parameters
    ----------
    text : str
        A plan.
    targets : dict of str to curve or curves
        What statements must come to.

    Returns
    -------
    solution : Solution
    broken : str
        The first statement that cannot be had; empty where there is none.
    """
    plan = read_plan(text)
    for _ in range(MOST_ROUNDS):
        solution = solve(plan)
        waiting = [entry for entry in solution.entries if entry.error]
        before = plan
        # Everything that can be decided at once is: a plan of a thousand rows is solved a few
        # times, not a thousand.
        for entry in waiting:
            found = _choice(entry, targets.get(entry.statement.name))
            plan = _chosen(plan, entry, found) if found else plan
        if plan == before:
            break
    return solution, next((entry.statement.name for entry in waiting), "")


def _chosen(plan: Plan, entry: Entry, chosen: Candidate) -> Plan:
    try:
        if chosen.of_walk:
            return choose_in_walk(plan, entry.line, *chosen.of_walk)
        words = kinds()[entry.statement.kind].choosing_words
        return choose_candidate(plan, entry.line, chosen.words, words)
    except (ClauseError, ValueError):
        return plan


def _choice(entry: Entry, target: Target | None) -> Candidate | None:
    if target is None or not entry.candidates:
        return None
    curves = [target] if isinstance(target, Line | Arc | Circle | Ellipse) else list(target)

    def off(candidate: Candidate) -> float:
        shape = candidate.shape
        first = curves[0]
        match shape:
            case Point() if candidate.of_walk:
                # Where a stop is left, or come to.
                piece = curves[candidate.of_walk.stop % len(curves)]
                return (
                    min(abs(end - shape) for end in ends_of(piece))
                    if isinstance(piece, Line | Arc)
                    else math.inf
                )
            case Point():
                return min(
                    distance(curve, shape) for curve in curves if not isinstance(curve, Ellipse)
                )
            case Arc() | Circle() if isinstance(first, Arc | Circle):
                apart = abs(shape.centre - first.centre) + abs(shape.radius - first.radius)
                if isinstance(shape, Arc) and isinstance(first, Arc):
                    apart += abs(shape.middle - first.middle)
                return apart
            case Line() if isinstance(first, Line):
                return sum(abs(shape.offset_of(spot)) for spot in ends_of(first))
        return math.inf

    best = min(entry.candidates, key=off)
    return best if off(best) < math.inf else None


def outlines(solution: Solution) -> list[tuple[str, Loop]]:
    """Return every outline a plan lines in, with the statement it belongs to; each once."""
    return [
        (entry.statement.name, loop)
        for entry in solution.entries
        if entry.made
        for loop in entry.made.loops
    ]


def apart(loop: Loop, run: Run, within: float) -> float:
    """Return how far an outline of a plan is from a run, both ways, at the ends and the middles of
    all pieces."""
    first = run[0]
    if isinstance(first, Ellipse):
        # A true ellipse is drawn by arcs that keep to it so closely; how far it is beyond that is
        # told.
        ends = (
            _from_ellipse(first, spot)
            for piece in loop.pieces
            for spot in (piece.entry, piece.exit)
        )
        return max(0.0, max(ends) - FITTED["ellipse"] * first.a)
    quick = _piece_by_piece(loop, run, within)
    if quick <= within:
        return quick
    mine = loop_of(run)
    return max((*_off(loop, mine, within), *_off(mine, loop, within)), default=math.inf)


def _piece_by_piece(loop: Loop, run: Run, within: float) -> float:
    """Return how far pieces are from those they lie on, one by one; infinite where there is not one
    for each."""
    mine = joined(
        [piece.curve for piece in loop.pieces if isinstance(piece.curve, Line | Arc)], loop.closed
    )
    mine = mine or tuple(piece.curve for piece in loop.pieces)
    if len(mine) != len(run):
        return math.inf
    places, most = Places(run, within), 0.0
    for curve in mine:
        at = places.of(curve)
        if at is None:
            return math.inf
        there = run[at]
        spots, own = (
            [*ends_of(c)] if isinstance(c, Line | Arc) else [c.centre] for c in (there, curve)
        )
        most = max(
            most,
            *(min(abs(a - b) for b in own) for a in spots),
            abs(middle_of(there) - middle_of(curve)),
        )
        if isinstance(there, Circle) and isinstance(curve, Circle):
            most = max(most, abs(there.radius - curve.radius))
    return most


def _from_ellipse(whole: Ellipse, spot: Point) -> float:
    return abs(whole.at(whole.nearest_turn(spot)) - spot)


def _off(one: Loop, other: Loop, within: float) -> Iterator[float]:
    """Yield how far the ends and middles of one outline are from another; infinite where more than
    may be."""
    middles = (
        p.curve.at(math.pi) if isinstance(p.curve, Circle) else middle_of(p.curve)
        for p in one.pieces
    )
    spots = [
        spot
        for piece, middle in zip(one.pieces, middles, strict=True)
        for spot in (piece.entry, middle)
    ]
    return departures(spots, other, within)


class Wanted:
    """The runs of a profile by where they lie and how long they are, to hold the outlines of a plan
    against."""

    def __init__(self, runs: Sequence[Run], within: float) -> None:
        self.runs, self.within = runs, within
        self._boxes = [box_of((run,)) for run in runs]
        self._lengths = [sum(map(length_of, run)) for run in runs]
        self._columns: dict[int, list[int]] = {}
        self._size = max((abs(high - low) for low, high in self._boxes), default=1.0) / 20 or 1.0
        for n, (low, _) in enumerate(self._boxes):
            self._columns.setdefault(round(low.x / self._size), []).append(n)

    def nearest(self, loop: Loop, left: Collection[int]) -> tuple[float, int]:
        """Return how far an outline is from the run it comes to, and which; of those that are
        left."""
        best = math.inf, -1
        low, high = loop.box
        column = round(low.x / self._size)
        for n in (n for k in (column - 1, column, column + 1) for n in self._columns.get(k, ())):
            a, b = self._boxes[n]
            # An outline elsewhere or of another size is not held against it place by place.
            alike = abs(loop.length - self._lengths[n]) < self.within * 100 + loop.length / 100
            if (
                n in left
                and alike
                and abs(a - low) + abs(b - high) < self.within * 100 + abs(high - low) / 100
            ):
                best = min(best, (apart(loop, self.runs[n], self.within), n))
                if best[0] <= self.within:
                    return best
        return best
