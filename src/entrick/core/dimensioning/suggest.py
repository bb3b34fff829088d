"""Suggests dimensions: a set that fixes the outline, from the sizes the drafter was given, as
statements to edit."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from itertools import combinations
from typing import NamedTuple

import numpy as np
import numpy.typing as npt

from ..drawing.notes import AngleDimension, CentreLine, LinearDimension, Note, RoundDimension
from ..finish import View, finish
from ..finish.crossings import crossings
from ..geometry import Arc, Circle, Curve, Line, Loop, Point, meet
from ..geometry.place import SIDES
from ..kind.figure import Family, Item
from ..measure import Unit
from ..moves.dimension import arms_of, leaning
from ..plan.document import Given
from ..plan.terms import Name
from ..plan.writer import write_plan
from ..sheet import lay_out
from ..sheet.layout import view_box
from ..solve import Solution
from ..solve.named import drawn_curves, members
from ..tolerance import ALIKE, DIRECTION, NOISE, ROUND, SPECK, VARIED
from .sizes import RIGHT
from .threads import Thread, unlettered
from .variation import Dimensioned, Row, Rows, RowSpace, Variation, dimensions, lined_runs

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
    """A dimension that could be put on: what it says it measures from, what that is, which way a
    straight one runs."""

    said: tuple[str, ...]
    of: tuple[Point, Point] | Circle | Arc | AngleDimension
    way: str = ""

    @property
    def clauses(self) -> tuple[str, ...]:
        """Its statement without side or name."""
        if not isinstance(self.of, tuple):
            return self.said
        first, second = self.said
        if self.way == "square":
            return (f"between {first} and {second}",)
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


Column = npt.NDArray[np.float64]

_Measured = tuple[_Try, Row, float, tuple[float, ...]]
"""A try with its row, what it measures, and how plain it is."""


class _Tries(NamedTuple):
    """Dimensions that could be put on, in columns: there are thousands of them, and few are chosen.

    Attributes
    ----------
    rows : array
        How each moves with the sizes.
    shown : array
        The two sizes each may state: what it measures, and of a round one twice that.
    plain : array
        How plain each is, in three columns, the plainest least.
    one : callable
        Puts one together, by its place in the columns.
    """

    rows: Rows
    shown: Column
    plain: Column
    one: Callable[[int], _Try]

    @classmethod
    def of(cls, found: Sequence[_Measured], wide: int) -> _Tries:
        """Return columns of tries with the row, measure and plainness of each."""
        tries = [each for each, *_ in found]
        rows = np.array([row for _, row, _, _ in found]).reshape(len(found), wide)
        twice = [1 + isinstance(each.of, Circle | Arc) for each in tries]
        measures = np.array([measure for _, _, measure, _ in found])
        shown = np.column_stack((measures, measures * twice)).reshape(len(found), 2)
        return cls(
            rows,
            shown,
            np.array([plain for *_, plain in found]).reshape(len(found), 3),
            tries.__getitem__,
        )

    def where(self, suits: npt.NDArray[np.bool_]) -> _Tries:
        """Return those that suit."""
        (at,) = np.nonzero(suits)
        return _Tries(
            self.rows[at], self.shown[at], self.plain[at], lambda index: self.one(int(at[index]))
        )

    def then(self, more: _Tries) -> _Tries:
        """Return these and more after them."""
        count = len(self.rows)
        rows, shown, plain = (np.concatenate(pair) for pair in zip(self[:3], more[:3], strict=True))
        return _Tries(
            rows,
            shown,
            plain,
            lambda index: self.one(index) if index < count else more.one(index - count),
        )


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
    A dimension states a given where it measures that given and moves with it alone; what the givens
    so stated leave open is filled with the dimensions that depend on fewest sizes. Each straight
    one stands on the side where its extension lines cross least."""
    variation = Variation(solution)
    span = RowSpace()
    for _, row in variation.dimensions:
        span.add(row)
    chosen: list[_Try] = []
    if variation.sizes and len(variation.needed.rows):
        tries = _tries(variation)
        moves = np.abs(tries.rows).max(axis=1, initial=0.0) > NOISE
        tries = tries.where(moves & ~variation.idle.touches(tries.rows))
        chosen = [*_stating(variation, tries, span), *_filling(variation, tries, span)]
    statements = [*_written(solution, chosen)]
    statements += _of_threads(solution, statements)
    statements += _round_pitch(solution, chosen)
    text = write_plan(solution.plan)
    if statements:
        text = text.rstrip("\n") + "\n" + "".join(row + "\n" for row in statements)
    return Suggested(tuple(statements), text, tuple(size.name for size in variation.missing(span)))


def _of_threads(solution: Solution, before: Sequence[str]) -> Iterator[str]:
    """Write what letters the threads that the sheet does not say, those of one size once."""
    names = [row.partition(" ")[0] for row in before]
    sizes: dict[str, list[Thread]] = {}
    for thread in unlettered(solution):
        sizes.setdefault(thread.size, []).append(thread)
    for size, found in sizes.items():
        names.append(solution.free_name("d", names, first="1"))
        count = sum(thread.count for thread in found)
        times = f", {count} times" if count > 1 else ""
        yield f'{names[-1]} = dimension, {found[0].across}{times}, saying "{size}"'


def _round_pitch(solution: Solution, chosen: Sequence[_Try]) -> Iterator[str]:
    """Write the centre lines of what a dimension points at that is no outline: a pitch circle."""
    inked = [p.curve for run in lined_runs(solution) for p in run.pieces]
    chains = [
        note.along
        for entry in solution.entries
        for note in (entry.made.notes if entry.made else ())
        if isinstance(note, CentreLine) and isinstance(note.along, Circle)
    ]
    bare = [
        one.said[0].partition(" ")[2]
        for one in chosen
        if isinstance(one.of, Circle)
        and not any(_is_on(one.of, c) for c in (*inked, *chains) if isinstance(c, Circle | Arc))
    ]
    if bare:
        name = solution.free_name("axes")
        yield f"{name} = centre lines, {', '.join(f'round {each}' for each in bare)}"


def _stating(variation: Variation, tries: _Tries, span: RowSpace) -> Iterator[_Try]:
    """Choose dimensions that say a size of the brief again, in its order."""
    for index, size in enumerate(variation.sizes):
        close = abs(size.value) * DIRECTION
        stating = np.flatnonzero((np.abs(tries.shown - abs(size.value)) <= close).any(axis=1))
        for at in _plainest(tries, stating[_move_with(tries.rows[stating], index)]):
            if span.add(tries.rows[at]):
                yield tries.one(at)
                break


def _move_with(rows: Rows, index: int) -> npt.NDArray[np.bool_]:
    """Tell which measures move with one size alone."""
    moves = np.abs(rows)
    at, rest = moves[:, index], np.delete(moves, index, axis=1).max(axis=1, initial=0.0)
    result: npt.NDArray[np.bool_] = (at > 0) & (rest <= ALIKE * at)
    return result


def _plainest(
    tries: _Tries, among: npt.NDArray[np.intp], *before: npt.NDArray[np.int_]
) -> list[int]:
    """Return some of the tries, the plainest first; where something comes before that, by it."""
    first, second, third = tries.plain[among].T
    order: list[int] = among[np.lexsort((third, second, first, *before))].tolist()
    return order


def _filling(variation: Variation, tries: _Tries, span: RowSpace) -> Iterator[_Try]:
    """Choose dimensions for what is still open, the ones that depend on fewest sizes first."""
    left = variation.open(span)
    if not len(left.rows):
        return
    moves = np.abs(tries.rows)
    depends = (moves > ALIKE * moves.max(axis=1, keepdims=True, initial=0.0)).sum(axis=1)
    new = left.touches(tries.rows)
    odd = ~_is_round(tries.shown, variation.solution.unit)
    for at in _plainest(tries, np.arange(len(depends)), depends, odd.astype(int)):
        # What has a part in what is open says something new.
        if new[at] and span.add(tries.rows[at]):
            yield tries.one(at)
            left = variation.open(span)
            if not len(left.rows):
                return
            new = left.touches(tries.rows)


def _is_round(shown: Column, unit: Unit) -> npt.NDArray[np.bool_]:
    """Tell which sizes read as a drafter would set them: whole tenths of a millimetre, 64ths of an
    inch, halves of a degree."""
    parts = shown * (64 if unit is Unit.INCH else 10)
    off = np.abs(parts - np.round(parts)).min(axis=1, initial=math.inf)
    result: npt.NDArray[np.bool_] = off <= ROUND
    return result


def _tries(variation: Variation) -> _Tries:
    wide = len(variation.sizes)
    rounds, across, angles = (
        _Tries.of(list(found), wide)
        for found in (_rounds(variation), _across(variation), _angles(variation))
    )
    return rounds.then(_straights(variation)).then(across).then(angles)


def _rounds(variation: Variation) -> Iterator[_Measured]:
    """Try every radius of the outline once, with its count, and pitch circles through several of
    its centres."""
    solution = variation.solution
    pieces = [(p.name, p.curve) for run in lined_runs(solution) for p in run.pieces]
    others = [[p.curve for run in lined_runs(v) for p in run.pieces] for v in variation.varied]
    rounds = [
        (_called(solution, name, curve), curve, [_radius(other[at]) for other in others])
        for at, (name, curve) in enumerate(pieces)
        if isinstance(curve, Circle | Arc)
    ]
    spots = [curve.centre for _, curve, _ in rounds]
    columns = [_circles(other) for other in variation.varied]
    pitch = [
        (name, curve, [_radius(column.get(name)) for column in columns])
        for name, curve in _circles(solution).items()
        if sum(abs(abs(s - curve.centre) - curve.radius) < SPECK for s in spots) > 1
    ]
    groups: dict[tuple[float, ...], list[tuple[str, Circle | Arc, Row]]] = {}
    for name, curve, radii in (*rounds, *pitch):
        if None in radii:
            continue
        row = (np.array(radii, dtype=float) - curve.radius) / VARIED
        key = (round(curve.radius, 9), *np.round(row, 4).tolist())
        groups.setdefault(key, []).append((name, curve, row))
    marks = {
        entry.given.name: entry.given.mark
        for entry in solution.givens
        if isinstance(entry.given, Given)
    }
    for group in groups.values():
        first = next((each for each in group if each[0]), None)
        if first is None:
            continue
        name, curve, row = first
        mark = marks.get(variation.sizes[int(np.abs(row).argmax())].name, "")
        word = "radius" if mark == "R" or (mark != "Ø" and isinstance(curve, Arc)) else "diameter"
        count = _count([c.centre for n, c, _ in group])
        times = (f"{count} times",) if count > 1 else ()
        yield _Try((f"{word} {name}", *times), curve), row, curve.radius, (0, len(name), 0.0)


def _circles(solution: Solution) -> dict[str, Circle]:
    """Return every circle of the construction by name, pitch circles of holes among them."""
    result = {name: curve for name, curve in drawn_curves(solution) if isinstance(curve, Circle)}
    for item in solution.figure.items.values():
        part = item.parts.get("pitch")
        if isinstance(part, Circle):
            result[f"{item.name}.pitch"] = part
    return result


def _can_be_named(solution: Solution, name: str) -> bool:
    """Tell whether a plan may refer to a piece."""
    owner, _, key = name.partition(".")
    item = solution.figure.items.get(owner)
    return item is not None and (not key or item.part(key) is not None)


def _called(solution: Solution, name: str, curve: Circle | Arc) -> str:
    """Return by which name a plan may refer to a round piece: its own, or that of a circle it lies
    on; empty where there is none."""
    owner, _, key = name.partition(".")
    item = solution.figure.items.get(owner)
    if item is None:
        return ""
    own = item.part(key) if key else item.shape
    if isinstance(own, Circle | Arc) and _is_on(curve, own):
        return name
    for part, shape in item.parts.items():
        if isinstance(shape, Circle | Arc) and _is_on(curve, shape):
            return f"{owner}.{part}"
    return ""


def _is_on(curve: Circle | Arc, other: Circle | Arc) -> bool:
    return abs(other.centre - curve.centre) < SPECK and abs(other.radius - curve.radius) < SPECK


def _radius(curve: Curve | None) -> float | None:
    return curve.radius if isinstance(curve, Circle | Arc) else None


def _count(centres: Sequence[Point]) -> int:
    found: list[Point] = []
    for centre in centres:
        if all(abs(centre - other) > SPECK for other in found):
            found.append(centre)
    return len(found)


WAYS = ("level", "plumb", "aligned")

FINE = 0.02
"""Share of the view in which extension lines are told shorter or longer (by eye, no source)."""


def _way_out(solution: Solution, spots: Column) -> Column:
    """Return how far each place lies inside the view, as a share of it: from below and above, from
    left and right."""
    low, high = view_box(solution)
    size = max(high.x - low.x, high.y - low.y, 1.0)
    x, y = spots.T
    return np.column_stack((y - low.y, high.y - y, x - low.x, high.x - x)) / size


def _straights(variation: Variation) -> _Tries:
    """Try the distances between all pairs of places, each way."""
    places = _places(variation)
    count, wide = len(places), len(variation.sizes)
    spots = np.array([spot for _, spot, _, _ in places]).reshape(count, 2)
    moved = np.array([moved for _, _, moved, _ in places]).reshape(count, wide, 2)
    moves = (moved - spots[:, None]) / VARIED
    first, second = np.triu_indices(count, 1)
    gap, apart = spots[second] - spots[first], moves[second] - moves[first]
    long = np.hypot(*gap.T)
    # A straight measure moves with the part of its ends' moving that lies along it.
    along = np.stack((np.sign(gap), gap / np.where(long > 0, long, 1.0)[:, None]))
    level, plumb = apart[..., 0] * along[0, :, :1], apart[..., 1] * along[0, :, 1:]
    rows = np.stack((level, plumb, (apart * along[1, :, None]).sum(axis=-1)), axis=1)
    measures = np.column_stack((np.abs(gap), long))
    is_off = np.abs(gap) > ROUND
    pair, way = np.nonzero(np.column_stack((is_off, is_off.all(axis=1))))
    far = np.array([name.count(".") + far for name, _, _, far in places], dtype=float)
    letters = np.array([len(name) for name, *_ in places], dtype=float)
    rank, said = (column[first] + column[second] for column in (far, letters))
    said_so = _as_said(variation.solution, places)
    ends = zip(first[pair].tolist(), second[pair].tolist(), way.tolist(), strict=True)
    brief = np.array([(a, b, WAYS[w]) in said_so for a, b, w in ends], dtype=bool)
    out = _way_out(variation.solution, spots)
    # What has the shortest extension lines is dimensioned, each to its own side of the view.
    reach = np.stack((out[first, :2] + out[second, :2], out[first, 2:] + out[second, 2:]))
    by_way = (*reach.min(axis=-1), np.zeros(len(long)))
    plain = np.column_stack(
        (
            (1 + rank[pair]) * ~brief + (way == WAYS.index("aligned")),
            np.choose(way, [np.round(each[pair] / FINE) for each in by_way]),
            said[pair],
        )
    )

    def one(index: int) -> _Try:
        ends = places[first[pair[index]]], places[second[pair[index]]]
        return _Try((ends[0][0], ends[1][0]), (ends[0][1], ends[1][1]), WAYS[way[index]])

    return _Tries(rows[pair, way], measures[pair, way][:, None].repeat(2, axis=1), plain, one)


def _as_said(
    solution: Solution, places: Sequence[tuple[str, Point, list[Point], int]]
) -> set[tuple[int, int, str]]:
    """Return which of the places the brief sets off from one another, and which way."""
    at = {_key(spot): index for index, (_, spot, _, _) in enumerate(places)}
    named = _named_places(solution)
    result: set[tuple[int, int, str]] = set()
    for name, origin, way in _offsets(solution):
        if name in named and origin in named:
            ends = [at.get(_key(named[each][0])) for each in (name, origin)]
            if None not in ends:
                one, other = sorted(end for end in ends if end is not None)
                result.add((one, other, way))
    return result


def _offsets(solution: Solution) -> Iterator[tuple[str, str, str]]:
    """Yield the places that are set off so much right, left, above or below another."""
    for entry in solution.entries:
        origin = ""
        said = entry.statement
        for clause in said.clauses if said.kind == "point" else ():
            words = [item.text for item in clause.items[1:] if isinstance(item, Name)]
            if not words or words[0] not in SIDES:
                continue
            named = [word for word in words[1:] if word != "of"]
            origin = named[0] if named else origin
            yield said.name, origin, "level" if SIDES[words[0]].y == 0 else "plumb"


def _places(variation: Variation) -> list[tuple[str, Point, list[Point], int]]:
    """Return named places on the outline or in the middle of its arcs, and how unwillingly one
    measures there.

    Touch points are found, not measured; where a corner is rounded off, the sharp one the sides
    would make is."""
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
        is_point = isinstance(variation.solution.figure.items.get(name), Item) and "." not in name
        far = spots.get(_key(spot), 3 if is_own else 5 if is_point else 9)
        if is_own:
            far = min(far, 3)
        if (
            far == 9
            or (far == 2 and "." in name and not is_own)
            or not all(name in column for column in columns)
        ):
            continue
        told = found.get(_key(spot))
        best = min(far, told[3]) if told else far
        if told is None or (name.count("."), far, len(name)) < (
            told[0].count("."),
            told[3],
            len(told[0]),
        ):
            told = (name, spot, [column[name][0] for column in columns], far)
        found[_key(spot)] = (*told[:3], best)
    return sorted(found.values(), key=lambda place: place[3])[:MOST_PLACES]


def _key(spot: Point) -> tuple[float, float]:
    return round(spot.x, 7), round(spot.y, 7)


def _named_places(solution: Solution) -> dict[str, tuple[Point, bool]]:
    """Return every place a dimension can name, and whether it is a corner or outermost place of a
    run or box."""
    result: dict[str, tuple[Point, bool]] = {}
    for item in solution.figure.items.values():
        bounds = isinstance(item.shape, Loop | Family)
        if isinstance(item.shape, Point):
            result[item.name] = item.shape, False
        elif isinstance(item.shape, Circle | Arc):
            result[item.name] = item.shape.centre, False
        for name, shape in members(item):
            if isinstance(shape, Loop) and len(shape.pieces) == 1:
                only = shape.pieces[0].curve
                if isinstance(only, Circle):
                    result[name] = only.centre, False
        for key, part in item.parts.items():
            name = f"{item.name}.{key}"
            if isinstance(part, Point):
                result[name] = part, bounds and (key.count(".") == 0 or key.startswith("corner."))
            elif isinstance(part, Circle | Arc) and "." not in key:
                result[name] = part.centre, False
    return result


def _angles(variation: Variation) -> Iterator[_Measured]:
    solution = variation.solution
    names = {
        piece.name
        for run in lined_runs(solution)
        for piece in run.pieces
        if isinstance(piece.curve, Line)
    }
    lines = [
        (name, curve)
        for name, curve in drawn_curves(solution)
        if name in names and isinstance(curve, Line) and _can_be_named(solution, name)
    ]
    columns = [dict(drawn_curves(other)) for other in variation.varied]
    corners = {_key(junction.point) for run in lined_runs(solution) for junction in run.junctions}
    low, high = view_box(solution)
    for (first, a), (second, b) in combinations(lines[:MOST_LINES], 2):
        if not all(
            isinstance(column.get(name), Line) for column in columns for name in (first, second)
        ):
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
        yield _Try((said,), note), np.array(row), abs(turn), (rank, len(first) + len(second), 0.0)
    yield from _leaning(lines, columns, 1)
    yield from _leaning(list(_at_angles(solution)), columns, 2)
    yield from _polar(variation)


def _leaning(
    lines: Sequence[tuple[str, Line]], columns: Sequence[Mapping[str, Curve]], rank: int
) -> Iterator[_Measured]:
    """Try the angle of every straight piece against the level line."""
    for name, line in lines[:MOST_LINES]:
        others = [column.get(name) for column in columns]
        if not all(isinstance(other, Line) for other in others):
            continue
        turn = leaning(line)[1]
        if abs(turn) <= ROUND or abs(abs(turn) - RIGHT) <= ROUND:
            continue
        row = np.array([leaning(other)[1] - turn for other in others]) / VARIED  # type: ignore[arg-type]
        note = AngleDimension(line.through, 0.0, turn, "")
        yield (
            _Try((f"angle of {name}",), note),
            row * np.sign(turn),
            abs(turn),
            (rank, len(name), 0.0),
        )


def _at_angles(solution: Solution) -> Iterator[tuple[str, Line]]:
    """Yield the lines that the brief gives by an angle."""
    for name, curve in drawn_curves(solution):
        item = solution.figure.items.get(name)
        entry = solution.entry(item.line) if item is not None else None
        said = entry.statement.clauses if entry is not None else ()
        if isinstance(curve, Line) and any(clause.items[0] == Name("at") for clause in said):
            yield name, curve


def _across(variation: Variation) -> Iterator[_Measured]:
    """Try the distances of places from the straight pieces that lean, square to them."""
    solution = variation.solution
    names = {
        piece.name
        for run in lined_runs(solution)
        for piece in run.pieces
        if isinstance(piece.curve, Line) and _leans(piece.curve)
    }
    lines = [
        (name, curve)
        for name, curve in drawn_curves(solution)
        if name in names and _can_be_named(solution, name)
    ][:MOST_LINES]
    if not lines:
        return
    columns = [dict(drawn_curves(other)) for other in variation.varied]
    lines = [(n, c) for n, c in lines if all(isinstance(column.get(n), Line) for column in columns)]
    yield from _widths(lines, columns)
    for place, spot, moved, far in _places(variation):
        for name, line in lines:
            assert isinstance(line, Line)
            off = abs(line.offset_of(spot))
            if off <= ROUND:
                continue
            others = [
                abs(column[name].offset_of(other))  # type: ignore[union-attr]
                for column, other in zip(columns, moved, strict=True)
            ]
            row = (np.array(others) - off) / VARIED
            foot = line.foot(spot)
            said = (name, place)
            yield (
                _Try(said, (foot, spot), "square"),
                row,
                off,
                (5 + far, len(name) + len(place), off),
            )


def _widths(
    lines: Sequence[tuple[str, Curve]], columns: Sequence[Mapping[str, Curve]]
) -> Iterator[_Measured]:
    """Try how far parallel pieces that lean lie apart: the width of an arm."""
    for (first, a), (second, b) in combinations(lines, 2):
        assert isinstance(a, Line)
        assert isinstance(b, Line)
        apart = abs(a.offset_of(b.through))
        if abs(a.direction.cross(b.direction)) > DIRECTION or apart <= ROUND:
            continue
        others = [
            abs(column[first].offset_of(column[second].through))  # type: ignore[union-attr]
            for column in columns
        ]
        row = (np.array(others) - apart) / VARIED
        ends = (a.foot(b.through), b.through)
        plain = (2, len(first) + len(second), apart)
        yield _Try((first, second), ends, "square"), row, apart, plain


def _leans(line: Line) -> bool:
    turn = leaning(line)[1]
    return abs(turn) > ROUND and abs(abs(turn) - RIGHT) > ROUND


def _polar(variation: Variation) -> Iterator[_Measured]:
    """Try the angle of every place that the brief gives by a distance and an angle, about what it
    is measured from."""
    solution = variation.solution
    places = _named_places(solution)
    columns = [_named_places(other) for other in variation.varied]
    for name, about in _set_off(solution):
        if not all(each in column for column in (places, *columns) for each in (name, about)):
            continue
        turn = _turn(places, name, about)
        if abs(turn) <= ROUND:
            continue
        row = np.array([_turn(column, name, about) - turn for column in columns]) / VARIED
        note = AngleDimension(places[about][0], 0.0, turn, "")
        words = f"angle of {name} about {about}"
        yield _Try((words,), note), row * np.sign(turn), abs(turn), (1, len(words), 0.0)


def _turn(places: Mapping[str, tuple[Point, bool]], name: str, about: str) -> float:
    return math.degrees((places[name][0] - places[about][0]).angle)


def _set_off(solution: Solution) -> Iterator[tuple[str, str]]:
    """Yield places that are set off by an angle, each with what it is counted about."""
    for entry in solution.entries:
        said = entry.statement
        for clause in said.clauses if said.kind == "point" else ():
            match clause.items:
                case (_, Name(text="from"), Name(text=origin), *_):
                    yield said.name, origin
        if said.kind == "spaced" and entry.made is not None:
            on = next((c.items[2] for c in said.clauses if len(c.items) == 3), None)
            item = solution.figure.items.get(on.text) if isinstance(on, Name) else None
            if item is not None:
                yield f"{said.name}.1", item.centre_name or f"{item.name}.centre"
        if said.kind == "holes" and entry.made is not None:
            about = next((c.items[1] for c in said.clauses if c.items[0] == Name("about")), None)
            if isinstance(about, Name):
                yield f"{said.name}.1.centre", about.text
        if said.kind == "slot" and entry.made is not None:
            about = next((c.items[1] for c in said.clauses if c.items[0] == Name("about")), None)
            if isinstance(about, Name):
                yield from ((f"{said.name}.{key}", about.text) for key in ("first", "second"))


def _between(first: Curve, second: Curve) -> float | None:
    """Return the angle a dimension between two lines shows, degrees: between the arms that lead
    from the corner."""
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
            sides = {"level": ("below", "above"), "plumb": ("left", "right")}.get(
                note.way, ("above", "below")
            )
            tried = {side: replace(note, side=side, text=" " * 5) for side in sides}
            side = min(tried, key=lambda side: _crossed([*notes, (0, tried[side])], view))
            notes.append((0, tried[side]))
            row += f", {side}"
        rows.append(row)
    return rows


def _crossed(notes: Sequence[tuple[int, Note]], view: View) -> float:
    straight = [(line, note) for line, note in notes if isinstance(note, LinearDimension)]
    return crossings([mark for _, mark in finish(straight, view)])
