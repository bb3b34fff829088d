"""Straight dimensions and the rows they stand in."""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, field, replace

from ..drawing.marks import DrawnLine, Lettering, Mark, wide
from ..drawing.notes import LinearDimension, Note
from ..geometry import Point
from ..geometry.place import SIDES
from ..tolerance import DIRECTION, ROUND
from .occupied import Occupied, stand
from .style import ARROW, FIRST, LETTERS, NEXT, OFF, PAST, View, arrow


@dataclass
class Rows:
    """The rows straight dimensions stand in: short ones inside, none over another."""

    filled: dict[tuple[str, str, int], list[tuple[float, float]]] = field(default_factory=dict)

    def free(self, note: LinearDimension, view: View, least: int = 1) -> int:
        """Return the first row from one on that has room for a dimension."""
        start, end = _room(note, view)
        row = least
        while any(
            a < end - ROUND and b > start + ROUND
            for a, b in self.filled.get((note.way, note.side, row), [])
        ):
            row += 1
        return row

    def fill(self, note: LinearDimension, row: int, view: View) -> None:
        """Take the room of a dimension in a row."""
        self.filled.setdefault((note.way, note.side, row), []).append(_room(note, view))


def _room(note: LinearDimension, view: View) -> tuple[float, float]:
    start, end = _span(note)
    return start, max(end, start + (wide(note.text, LETTERS) + 2 * ARROW + 1) / view.factor)


def straight(
    notes: Sequence[tuple[int, Note]], view: View, taken: Occupied
) -> Iterator[tuple[int, list[Mark]]]:
    """Draw every straight dimension: those that lie along their points first, then by rows, short
    ones inside; each where its figure is clear of all others and of every stroke, where there is
    such a place."""
    linear = [(line, note) for line, note in notes if isinstance(note, LinearDimension)]
    linear.sort(key=lambda entry: (entry[1].row == 0, _span(entry[1])[1] - _span(entry[1])[0]))
    level = [entry for entry in linear if entry[1].way != "aligned"]
    _expect(level, view, taken)
    rows = Rows()
    for _, note in level:
        if note.row:
            rows.fill(note, note.row, view)
    for line, note in [*(e for e in linear if e[1].way == "aligned"), *level]:
        marks = _placed(note, rows, view, taken)
        for mark in marks:
            if isinstance(mark, Lettering):
                taken.take_letters(mark)
            stand(mark, taken)
        yield line, marks


def _expect(level: Sequence[tuple[int, LinearDimension]], view: View, taken: Occupied) -> None:
    """Mark where extension lines will run, so that figures keep off them."""
    rows = Rows()
    for _, note in level:
        row = note.row or rows.free(note, view)
        rows.fill(note, row, view)
        for mark in _extensions(replace(note, row=row), view)[0]:
            taken.cross(Point(mark.x1, mark.y1), Point(mark.x2, mark.y2))


MOST_ROWS = 6
"""Rows a slanted dimension may move out to keep its lettering clear."""

MORE_ROWS = 4
"""Rows further out that are tried for one that stands off the view."""

INSIDE, OVER_LETTERS, OVER_OUTLINE, FURTHER = 4.0, 3.0, 1.5, 1.0
"""What it costs a slanted dimension to stand in the part, its figure over something, its line
across an outline, and a row further out (by eye, no source)."""

THROUGH_LETTERS = 9.0
"""What it costs a line to run through another's figure (by eye, no source)."""


def _placed(note: LinearDimension, rows: Rows, view: View, taken: Occupied) -> list[Mark]:
    """Draw a straight dimension in the row, and on the side where there is a choice, in which it
    stands best; one that lies along its points stands outside the part."""
    best: tuple[float, list[Mark], LinearDimension] | None = None
    aligned = note.way == "aligned"
    least = 1 if aligned else rows.free(note, view)
    for side in (note.side,) if note.side else _sides(note):
        tried = range(least, least + (MOST_ROWS - 1 if aligned else MORE_ROWS))
        for index, wanted in enumerate((note.row,) if note.row else tried):
            row = wanted if aligned or note.row else rows.free(note, view, wanted)
            one = replace(note, row=row, side=side)
            cost, marks = _best(one, view, taken)
            cost += FURTHER * index
            if best is None or cost < best[0]:
                best = (cost, marks, one)
            if cost <= FURTHER * index:
                break
    assert best is not None
    if not aligned and not note.row:
        rows.fill(note, best[2].row, view)
    return best[1]


def _sides(note: LinearDimension) -> tuple[str, str]:
    """Return the two sides on which a dimension along its points may stand."""
    square = note.off if note.off is not None else (note.second - note.first).normal
    return ("below", "above") if abs(square.y) >= abs(square.x) else ("left", "right")


def _best(note: LinearDimension, view: View, taken: Occupied) -> tuple[float, list[Mark]]:
    """Return a dimension in its row with its figure where it stands best, and what is wrong with
    that."""
    lines, ends = _extensions(note, view)
    kept: list[Mark] = list(lines)
    cost = sum(
        THROUGH_LETTERS * taken.letters_crossed(Point(m.x1, m.y1), Point(m.x2, m.y2)) for m in lines
    )
    best: tuple[float, list[Mark]] | None = None
    for index, place in enumerate(_figure_places(*ends, note, view)):
        marks = list(_dimension_line(*ends, note, view, place))
        more = _cost(marks, note, view, taken) + index * ASIDE
        if best is None or more < best[0]:
            best = (more, marks)
        if more <= index * ASIDE:
            break
    assert best is not None
    return cost + best[0], kept + best[1]


ASIDE = 0.05
"""What it costs a figure to stand a place further from the middle (by eye, no source)."""


def _cost(marks: Sequence[Mark], note: LinearDimension, view: View, taken: Occupied) -> float:
    """Return what is wrong with where a dimension line and its figure stand."""
    cost = 0.0
    for mark in marks:
        if isinstance(mark, Lettering):
            cost += OVER_LETTERS * taken.letters_hit(mark)
            if note.way == "aligned":
                spot = Point(mark.x, mark.y) * (1 / view.factor)
                inside = sum(loop.encloses(spot) for loop in view.outlines if loop.closed) % 2
                cost += INSIDE * inside
        elif isinstance(mark, DrawnLine):
            first, last = Point(mark.x1, mark.y1), Point(mark.x2, mark.y2)
            cost += THROUGH_LETTERS * taken.letters_crossed(first, last)
            if note.way == "aligned":
                cost += OVER_OUTLINE * taken.crossings(first, last)
    return cost


def _span(note: LinearDimension) -> tuple[float, float]:
    along = Point(0.0, 1.0) if note.way == "plumb" else Point(1.0, 0.0)
    if note.way == "aligned":
        return 0.0, abs(note.second - note.first)
    start, end = sorted((note.first.dot(along), note.second.dot(along)))
    return start, end


def _extensions(note: LinearDimension, view: View) -> tuple[list[DrawnLine], tuple[Point, Point]]:
    """Return the extension lines of a dimension in its row, and the ends of its own line."""
    first, second = note.first * view.factor, note.second * view.factor
    out = FIRST + (note.row - 1) * NEXT
    if note.way == "aligned":
        ahead = (second - first).unit
        square = note.off if note.off is not None else ahead.normal
        away = square if square.dot(SIDES[note.side]) >= 0 else -square
        ends = (first + away * out, second + away * out)
    else:
        level = note.way == "level"
        ahead = Point(1.0, 0.0) if level else Point(0.0, 1.0)
        away = SIDES[note.side]
        edge = max(view.low.dot(away), view.high.dot(away)) + out
        ends = tuple(ahead * spot.dot(ahead) + away * edge for spot in (first, second))  # type: ignore[assignment]
        if ends[0].dot(ahead) > ends[1].dot(ahead):
            ends, first, second = (ends[1], ends[0]), second, first
    lines = []
    for spot, end in ((first, ends[0]), (second, ends[1])):
        start, stop = _clear(spot, away, view.chains) + away * OFF, end + away * PAST
        lines.append(DrawnLine(start.x, start.y, stop.x, stop.y, "dimension"))
    return lines, ends


def _clear(spot: Point, away: Point, chains: Sequence[tuple[Point, Point]]) -> Point:
    """Return where an extension line may begin: where it would run along a centre line, at the end
    of that."""
    for start, end in chains:
        along = end - start
        if abs(away.cross(along.unit)) < DIRECTION and abs(away.cross(spot - start)) < OFF / 100:
            ends = sorted((start.dot(away), end.dot(away)))
            if ends[0] <= spot.dot(away) < ends[1]:
                return spot + away * (ends[1] - spot.dot(away))
    return spot


def _figure_places(
    start: Point, end: Point, note: LinearDimension, view: View
) -> Iterator[tuple[Point, bool]]:
    """Yield where the figure of a dimension may stand, the usual place first, and whether that is
    within its line: in the middle, a little to either side; else beyond an end."""
    length = abs(end - start)
    ahead = _ahead(start, end)
    room, along = wide(note.text, LETTERS), _along(note, ahead, view)
    kept = ARROW if length >= 2 * ARROW + 1 else 0.0
    if length >= along + 2 * kept + 1:
        first = _beside_lines(start, end, along, kept, view)
        yield first, True
        most = length / 2 - kept - along / 2
        middle = (start + end) * 0.5
        for index in range(1, min(MOST_STEPS, int(most / STEP)) + 1):
            for way in (1, -1):
                yield middle + ahead * (way * index * STEP), True
        return
    off = ARROW * (1 if kept else 2) + room / 2 + 0.5
    for more in (0.0, room, 2 * room):
        yield end + ahead * (off + more), False
        yield start - ahead * (off + more), False


STEP = 1.5
"""By how much a figure moves along its line to keep clear, mm."""

MOST_STEPS = 24
"""How many times it moves, either way."""


def _ahead(start: Point, end: Point) -> Point:
    return (end - start).unit if abs(end - start) > 0 else Point(1.0, 0.0)


def _along(note: LinearDimension, ahead: Point, view: View) -> float:
    """Return how much of its line a figure takes."""
    aligned = view.aligned or note.off is not None
    return LETTERS if not aligned and abs(ahead.y) > 0.5 else wide(note.text, LETTERS)


def _dimension_line(
    start: Point, end: Point, note: LinearDimension, view: View, place: tuple[Point, bool]
) -> Iterator[Mark]:
    """Draw the line of a dimension with its arrows, and its figure at a place."""
    text, aligned = note.text, view.aligned or note.off is not None
    at, fits = place
    ahead = _ahead(start, end)
    angle = math.degrees(ahead.angle)
    upright = -90 < angle <= 90
    turned = angle if upright else angle + 180
    over = ahead.normal if upright else -ahead.normal
    room = wide(text, LETTERS)
    inside = abs(end - start) >= 2 * ARROW + 1
    if inside:
        broken = room + 2 if abs(ahead.y) < 0.5 else LETTERS + 2
        yield from _stroke(start, end, at, None if aligned or not fits else broken)
        yield from (arrow(start, -ahead), arrow(end, ahead))
    else:
        yield from _stroke(start - ahead * (2 * ARROW), end + ahead * (2 * ARROW), at, None)
        yield from (arrow(start, ahead), arrow(end, -ahead))
    if not fits:
        beyond = (at - end).dot(ahead) > 0
        yield from (
            _stroke(end, at + ahead * (room / 2), at, None)
            if beyond
            else _stroke(at - ahead * (room / 2), start, at, None)
        )
    if aligned:
        # On an isometric plane the letters stand along the extension lines.
        off = note.off
        up = over if off is None else off if off.dot(over) >= 0 else -off
        slant = math.degrees(math.atan2(up.cross(over), up.dot(over)))
        at = at + up * 1.0
        yield Lettering(text, at.x, at.y, LETTERS, "middle", "dimension", angle=turned, slant=slant)
    else:
        lift = 1.0 if not fits and abs(ahead.y) < 0.5 else -LETTERS / 2
        yield Lettering(text, at.x, at.y + lift, LETTERS, "middle", "dimension")


def _beside_lines(start: Point, end: Point, room: float, kept: float, view: View) -> Point:
    """Return where along a dimension line its figure stands: in the middle, or beside a centre line
    or axis that runs through there, if there is room on either side of it."""
    middle, ahead, half = (start + end) * 0.5, (end - start).unit, room / 2 + OFF
    most = abs(end - start) / 2 - kept - room / 2
    crossed = []
    for one, other in (*view.chains, *view.axes):
        before, after = (one - middle).dot(ahead), (other - middle).dot(ahead)
        # A line that ends just above the dimension line still runs through figures that stand on
        # it.
        sides = sorted(((one - middle).cross(ahead), (other - middle).cross(ahead)))
        if (
            abs(before - after) < OFF
            and abs(before) < half
            and sides[0] <= 2 * LETTERS
            and sides[1] >= -2 * LETTERS
        ):
            crossed.append((before + after) / 2)
    for at in crossed:
        for shift in (at + half, at - half):
            if abs(shift) <= most:
                return middle + ahead * shift
    return middle


def _stroke(start: Point, end: Point, at: Point, broken: float | None) -> Iterator[Mark]:
    if broken is None or abs(end - start) < broken:
        yield DrawnLine(start.x, start.y, end.x, end.y, "dimension")
        return
    ahead = (end - start).unit
    for a, b in ((start, at - ahead * (broken / 2)), (at + ahead * (broken / 2), end)):
        yield DrawnLine(a.x, a.y, b.x, b.y, "dimension")
