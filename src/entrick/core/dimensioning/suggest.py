"""Suggests dimensions: a set that fixes the outline, from the sizes the drafter was given, as statements to edit."""

from __future__ import annotations

import math
from bisect import bisect_left
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from itertools import combinations
from operator import sub
from typing import NamedTuple

from ..drawing.notes import AngleDimension, LinearDimension, Note, RoundDimension
from ..finish import View, finish
from ..finish.crossings import crossings
from ..geometry import Arc, Circle, Curve, Line, Loop, Point, meet
from ..kind.figure import Family
from ..moves.dimension import arms_of
from ..plan.document import Given
from ..plan.writer import write_plan
from ..sheet import lay_out
from ..sheet.layout import view_box
from ..solve import Solution
from ..solve.named import drawn_curves
from ..tolerance import ALIKE, DIRECTION, NOISE, ROUND, SPECK, VARIED
from .variation import Dimensioned, Row, RowSpace, Variation, dimensions, largest, lined_runs

MOST_PLACES = 80
"""Places between which straight dimensions are tried."""

MOST_LINES = 16
"""Lines between which angles are tried."""


@dataclass(frozen=True)
class Suggested:
    """Statements that dimension a part.

    Attributes
    ----------
    statements : tuple of str
    text : str
        The plan with them at its end.
    left_open : tuple of str
        Sizes that no dimension could be found for, as the drafter calls them.
    """

    statements: tuple[str, ...]
    text: str
    left_open: tuple[str, ...]


class _Try(NamedTuple):
    """A dimension that could be put on: what it says it measures from, what that is and how it moves, and how plain it
    is. A tuple, and the rest put together when it is chosen, since there are thousands of them and few are."""

    said: tuple[str, ...]
    of: tuple[Point, Point] | Circle | Arc | AngleDimension
    way: str
    measure: float
    row: Row
    plain: tuple[int, int, float]

    @property
    def clauses(self) -> tuple[str, ...]:
        """Its statement without side or name."""
        if not isinstance(self.of, tuple):
            return self.said
        first, second = self.said
        return (f"from {first} to {second}", *([self.way] if self.way != "aligned" else []))

    @property
    def note(self) -> Dimensioned:
        """What it puts on the sheet."""
        match self.of:
            case AngleDimension() as angle:
                return angle
            case Circle() | Arc() as round_:
                return RoundDimension(round_, "")
            case (first, second):
                return LinearDimension(first, second, self.way, "below", 0, "")


def suggest_dimensions(solution: Solution) -> Suggested:
    """Return dimensions that fix the outline, none of them twice, beside those that are there.

    Parameters
    ----------
    solution : Solution

    Returns
    -------
    Suggested

    Notes
    -----
    A dimension states a given where it measures that given and moves with it alone; what the givens so stated leave
    open is filled with the dimensions that depend on fewest sizes. Each straight one stands on the side where its
    extension lines cross least.
    """
    variation = Variation(solution)
    span = RowSpace()
    for _, row in variation.dimensions:
        span.add(row)
    chosen: list[_Try] = []
    if variation.sizes and variation.needed.rows:
        tries = [one for one in _tries(variation) if any(abs(part) > NOISE for part in one.row)]
        chosen = [*_stating(variation, tries, span), *_filling(variation, tries, span)]
    statements = _written(solution, chosen)
    text = write_plan(solution.plan)
    if statements:
        text = text.rstrip("\n") + "\n" + "".join(row + "\n" for row in statements)
    return Suggested(tuple(statements), text, tuple(size.name for size in variation.missing(span)))


def _stating(variation: Variation, tries: Sequence[_Try], span: RowSpace) -> Iterator[_Try]:
    """Choose dimensions that say a size of the brief again, in its order."""
    shown: list[tuple[float, int]] = []
    for index, one in enumerate(tries):
        value = one.measure
        shown += [(each, index) for each in ((value, value * 2) if isinstance(one.of, Circle | Arc) else (value,))]
    shown.sort()
    for index, size in enumerate(variation.sizes):
        close = abs(size.value) * DIRECTION
        first, last = bisect_left(shown, (abs(size.value) - close, 0)), bisect_left(shown, (abs(size.value) + close, 0))
        fitting = [tries[at] for _, at in shown[first:last] if _moves_with(tries[at], index)]
        for one in sorted(fitting, key=lambda one: one.plain):
            if not variation.idle.touches(one.row) and span.add(one.row):
                yield one
                break


def _moves_with(one: _Try, index: int) -> bool:
    """Tell whether a measure moves with one size alone."""
    at = abs(one.row[index])
    rest = max((abs(part) for other, part in enumerate(one.row) if other != index), default=0.0)
    return at > 0 and rest <= ALIKE * at


def _filling(variation: Variation, tries: Sequence[_Try], span: RowSpace) -> Iterator[_Try]:
    """Choose dimensions for what is still open, the ones that depend on fewest sizes first."""

    def depends(one: _Try) -> int:
        most = max(map(abs, one.row))
        return sum(abs(part) > ALIKE * most for part in one.row)

    left = variation.open(span)
    if not left.rows:
        return
    for one in sorted(tries, key=lambda one: (depends(one), one.plain)):
        # A measure of the outline says something new where it has a part in what is open.
        if left.touches(one.row) and not variation.idle.touches(one.row) and span.add(one.row):
            yield one
            left = variation.open(span)
            if not left.rows:
                return


def _tries(variation: Variation) -> Iterator[_Try]:
    yield from _rounds(variation)
    yield from _straights(variation)
    yield from _angles(variation)


def _rounds(variation: Variation) -> Iterator[_Try]:
    """Try every radius of the outline once, with its count, and pitch circles through several of its centres."""
    solution = variation.solution
    pieces = [(p.name, p.curve) for run in lined_runs(solution) for p in run.pieces]
    rounds = [(name, curve) for name, curve in pieces if isinstance(curve, Circle | Arc)]
    spots = [curve.centre for _, curve in rounds]
    named = dict(drawn_curves(solution))
    pitch = [
        (name, curve)
        for name, curve in named.items()
        if isinstance(curve, Circle) and sum(abs(abs(s - curve.centre) - curve.radius) < SPECK for s in spots) > 1
    ]
    columns = [dict(drawn_curves(other)) for other in variation.varied]
    groups: dict[tuple[float, ...], list[tuple[str, Circle | Arc, Row]]] = {}
    for name, curve in (*rounds, *pitch):
        radii = [_radius(column.get(name)) for column in columns]
        if _radius(named.get(name)) is None or None in radii:
            continue
        row = tuple((radius - curve.radius) / VARIED for radius in radii if radius is not None)
        key = (round(curve.radius, 9), *(round(part, 4) for part in row))
        groups.setdefault(key, []).append((name, curve, row))
    marks = {entry.given.name: entry.given.mark for entry in solution.givens if isinstance(entry.given, Given)}
    for group in groups.values():
        name, curve, row = group[0]
        mark = marks.get(variation.sizes[largest(row)].name, "")
        word = "radius" if mark == "R" or (mark != "Ø" and isinstance(curve, Arc)) else "diameter"
        count = _count([c.centre for n, c, _ in group])
        times = (f"{count} times",) if count > 1 else ()
        yield _Try((f"{word} {name}", *times), curve, "", curve.radius, row, (0, len(name), 0.0))


def _radius(curve: Curve | None) -> float | None:
    return curve.radius if isinstance(curve, Circle | Arc) else None


def _count(centres: Sequence[Point]) -> int:
    found: list[Point] = []
    for centre in centres:
        if all(abs(centre - other) > SPECK for other in found):
            found.append(centre)
    return len(found)


def _straights(variation: Variation) -> Iterator[_Try]:
    places = []
    for name, spot, moved, far in _places(variation):
        across = tuple((at.x - spot.x) / VARIED for at in moved)
        up = tuple((at.y - spot.y) / VARIED for at in moved)
        places.append((name, spot, across, up, far))
    for (first, a, ax, ay, far_a), (second, b, bx, by, far_b) in combinations(places, 2):
        gap = b - a
        ways = [way for way, size in (("level", gap.x), ("plumb", gap.y)) if abs(size) > ROUND]
        if len(ways) == 2:
            ways.append("aligned")
        apart = abs(gap)
        along = gap * (1 / (apart or 1.0))
        measures = {"level": abs(gap.x), "plumb": abs(gap.y), "aligned": apart}
        for way in ways:
            # A straight measure moves with the part of its ends' moving that lies along it.
            if way == "level":
                row = tuple(map(sub, bx, ax) if gap.x > 0 else map(sub, ax, bx))
            elif way == "plumb":
                row = tuple(map(sub, by, ay) if gap.y > 0 else map(sub, ay, by))
            else:
                row = tuple((q - p) * along.x + (s - r) * along.y for p, q, r, s in zip(ax, bx, ay, by, strict=True))
            rank = (way == "aligned") + first.count(".") + second.count(".") + far_a + far_b
            plain = (1 + rank, len(first) + len(second), apart)
            yield _Try((first, second), (a, b), way, measures[way], row, plain)


def _places(variation: Variation) -> list[tuple[str, Point, list[Point], int]]:
    """Return named places on the outline or in the middle of its arcs, and how unwillingly one measures there.

    Touch points are found, not measured; where a corner is rounded off, the sharp one the sides would make is.
    """
    spots: dict[tuple[float, float], int] = {}
    for run in lined_runs(variation.solution):
        for junction in run.junctions:
            spots.setdefault(_key(junction.point), 2 if junction.is_tangent else 0)
        if not run.closed:
            spots |= {_key(run.pieces[0].entry): 0, _key(run.pieces[-1].exit): 0}
        for piece in run.pieces:
            if isinstance(piece.curve, Circle | Arc):
                spots[_key(piece.curve.centre)] = 0
    columns = [_named_places(other) for other in variation.varied]
    found: dict[tuple[float, float], tuple[str, Point, list[Point], int]] = {}
    for name, (spot, is_own) in _named_places(variation.solution).items():
        far = spots.get(_key(spot), 4)
        if is_own:
            far = min(far, 3)
        if far == 4 or (far == 2 and "." in name and not is_own) or not all(name in column for column in columns):
            continue
        told = found.get(_key(spot))
        if told is None or (far, name.count("."), len(name)) < (told[3], told[0].count("."), len(told[0])):
            found[_key(spot)] = (name, spot, [column[name][0] for column in columns], far)
    return sorted(found.values(), key=lambda place: place[3])[:MOST_PLACES]


def _key(spot: Point) -> tuple[float, float]:
    return round(spot.x, 7), round(spot.y, 7)


def _named_places(solution: Solution) -> dict[str, tuple[Point, bool]]:
    """Return every place a dimension can name, and whether it is a corner or outermost place of a run or box."""
    found: dict[str, tuple[Point, bool]] = {}
    for item in solution.figure.items.values():
        bounds = isinstance(item.shape, Loop | Family)
        if isinstance(item.shape, Point):
            found[item.name] = item.shape, False
        elif isinstance(item.shape, Circle | Arc):
            found[item.name] = item.shape.centre, False
        for key, part in item.parts.items():
            name = f"{item.name}.{key}"
            if isinstance(part, Point):
                found[name] = part, bounds and (key.count(".") == 0 or key.startswith("corner."))
            elif isinstance(part, Circle | Arc) and "." not in key:
                found[name] = part.centre, False
    return found


def _angles(variation: Variation) -> Iterator[_Try]:
    solution = variation.solution
    names = {piece.name for run in lined_runs(solution) for piece in run.pieces if isinstance(piece.curve, Line)}
    lines = [(name, curve) for name, curve in drawn_curves(solution) if name in names and isinstance(curve, Line)]
    columns = [dict(drawn_curves(other)) for other in variation.varied]
    corners = {_key(junction.point) for run in lined_runs(solution) for junction in run.junctions}
    low, high = view_box(solution)
    for (first, a), (second, b) in combinations(lines[:MOST_LINES], 2):
        if not all(isinstance(column.get(name), Line) for column in columns for name in (first, second)):
            continue
        turn = _between(a, b)
        if turn is None or not meet(a, b):
            continue
        row = []
        for column in columns:
            other = _between(column[first], column[second])
            row.append(0.0 if other is None else (other - turn) / VARIED)
        corner = meet(a, b)[0].point
        if not (low.x <= corner.x <= high.x and low.y <= corner.y <= high.y):
            continue
        rank = 1 if _key(corner) in corners else 3
        note, said = AngleDimension(corner, 0.0, turn, ""), f"angle between {first} and {second}"
        yield _Try((said,), note, "", abs(turn), tuple(row), (rank, len(first) + len(second), 0.0))


def _between(first: Curve, second: Curve) -> float | None:
    """Return the angle a dimension between two lines shows, degrees: between the arms that lead from the corner."""
    assert isinstance(first, Line)
    assert isinstance(second, Line)
    arms = arms_of(first, second)
    if arms is None:
        return None
    return abs(math.degrees(math.atan2(arms[1].cross(arms[2]), arms[1].dot(arms[2]))))


def _written(solution: Solution, chosen: Sequence[_Try]) -> list[str]:
    """Write the dimensions as statements, each straight one on the side where it crosses least."""
    names: list[str] = []
    sheet = lay_out(solution)
    low, high = (corner - sheet.origin for corner in sheet.view)
    view = View(sheet.factor, low, high, (), sheet.aligned)
    notes: list[tuple[int, Note]] = [(line, note) for line, note in dimensions(solution)]
    rows: list[str] = []
    for one in chosen:
        names.append(solution.free_name("d", names, first="1"))
        row = f"{names[-1]} = dimension, " + ", ".join(one.clauses)
        note = one.note
        if isinstance(note, LinearDimension):
            sides = {"level": ("below", "above"), "plumb": ("left", "right")}.get(note.way, ("above", "below"))
            tried = {side: replace(note, side=side, text=" " * 5) for side in sides}
            side = min(tried, key=lambda side: _crossed([*notes, (0, tried[side])], view))
            notes.append((0, tried[side]))
            row += f", {side}"
        rows.append(row)
    return rows


def _crossed(notes: Sequence[tuple[int, Note]], view: View) -> float:
    straight = [(line, note) for line, note in notes if isinstance(note, LinearDimension)]
    return crossings([mark for _, mark in finish(straight, view)])
