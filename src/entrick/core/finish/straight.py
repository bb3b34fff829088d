"""Straight dimensions and the rows they stand in."""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from dataclasses import replace

from ..drawing.marks import DrawnLine, Lettering, Mark, wide
from ..drawing.notes import LinearDimension, Note
from ..geometry import Point
from ..geometry.place import SIDES
from ..tolerance import DIRECTION, ROUND
from .occupied import Occupied
from .style import ARROW, FIRST, LETTERS, NEXT, OFF, PAST, View, arrow, box_of


def rows(
    notes: Sequence[tuple[int, Note]], view: View
) -> Iterator[tuple[int, LinearDimension, int]]:
    """Give every straight dimension its row: short ones inside, none over another."""
    linear = [(line, note) for line, note in notes if isinstance(note, LinearDimension)]
    linear.sort(key=lambda entry: (entry[1].row == 0, _span(entry[1])[1] - _span(entry[1])[0]))
    filled: dict[tuple[str, str, int], list[tuple[float, float]]] = {}
    for line, note in linear:
        if note.way == "aligned":
            yield line, note, note.row or 1
            continue
        start, end = _span(note)
        room = (wide(note.text, LETTERS) + 2 * ARROW + 1) / view.factor
        if end - start < room:
            end += room
        row = note.row
        if row == 0:
            row = 1
            while any(
                a < end - ROUND and b > start + ROUND
                for a, b in filled.get((note.way, note.side, row), [])
            ):
                row += 1
        filled.setdefault((note.way, note.side, row), []).append((start, end))
        yield line, note, row


MOST_ROWS = 6
"""Rows a slanted dimension may move out to keep its lettering clear."""

INSIDE, OVER_LETTERS, OVER_OUTLINE, FURTHER = 4.0, 3.0, 1.5, 1.0
"""What it costs a slanted dimension to stand in the part, its figure over something, its line
across an outline, and a row further out (by eye, no source)."""


def placed(note: LinearDimension, row: int, view: View, taken: Occupied) -> list[Mark]:
    """Draw a straight dimension; one that lies along its points stands outside the part, and moves
    out until its lettering is clear."""
    if note.way != "aligned":
        return list(_linear(replace(note, row=row), view))
    best: tuple[float, list[Mark]] | None = None
    for side in (note.side,) if note.side else _sides(note):
        for each in (note.row,) if note.row else range(1, MOST_ROWS):
            marks = list(_linear(replace(note, row=each, side=side), view))
            cost = FURTHER * (each - 1) + _cost(marks, view, taken)
            if best is None or cost < best[0]:
                best = (cost, marks)
            if cost <= FURTHER * (each - 1):
                break
    assert best is not None
    return best[1]


def _sides(note: LinearDimension) -> tuple[str, str]:
    """Return the two sides on which a dimension along its points may stand."""
    square = note.off if note.off is not None else (note.second - note.first).normal
    return ("below", "above") if abs(square.y) >= abs(square.x) else ("left", "right")


def _cost(marks: Sequence[Mark], view: View, taken: Occupied) -> float:
    """Return what is wrong with where a dimension stands."""
    cost = 0.0
    for mark in marks:
        if isinstance(mark, Lettering):
            cost += OVER_LETTERS * taken.hits(box_of(mark))
            spot = Point(mark.x, mark.y) * (1 / view.factor)
            cost += INSIDE * (sum(loop.encloses(spot) for loop in view.outlines if loop.closed) % 2)
    # The dimension line itself comes after its two extension lines.
    for line in [mark for mark in marks if isinstance(mark, DrawnLine)][2:]:
        cost += OVER_OUTLINE * taken.crossings(Point(line.x1, line.y1), Point(line.x2, line.y2))
    return cost


def _span(note: LinearDimension) -> tuple[float, float]:
    along = Point(0.0, 1.0) if note.way == "plumb" else Point(1.0, 0.0)
    if note.way == "aligned":
        return 0.0, abs(note.second - note.first)
    start, end = sorted((note.first.dot(along), note.second.dot(along)))
    return start, end


def _linear(note: LinearDimension, view: View) -> Iterator[Mark]:
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
    for spot, end in ((first, ends[0]), (second, ends[1])):
        start, stop = _clear(spot, away, view.chains) + away * OFF, end + away * PAST
        yield DrawnLine(start.x, start.y, stop.x, stop.y, "dimension")
    yield from _dimension_line(ends[0], ends[1], note, view)


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


def _dimension_line(start: Point, end: Point, note: LinearDimension, view: View) -> Iterator[Mark]:
    text, aligned = note.text, view.aligned or note.off is not None
    length = abs(end - start)
    ahead = (end - start).unit if length > 0 else Point(1.0, 0.0)
    angle = math.degrees(ahead.angle)
    upright = -90 < angle <= 90
    turned = angle if upright else angle + 180
    over = ahead.normal if upright else -ahead.normal
    room = wide(text, LETTERS)
    inside = length >= 2 * ARROW + 1
    along = LETTERS if not aligned and abs(ahead.y) > 0.5 else room
    fits = length >= along + (2 * ARROW if inside else 0) + 1
    if fits:
        at = _beside_lines(start, end, along, ARROW if inside else 0.0, view)
    else:
        at = end + ahead * (ARROW * (1 if inside else 2) + room / 2 + 0.5)
    if inside:
        broken = room + 2 if abs(ahead.y) < 0.5 else LETTERS + 2
        yield from _stroke(start, end, at, None if aligned or not fits else broken)
        yield from (arrow(start, -ahead), arrow(end, ahead))
    else:
        yield from _stroke(start - ahead * (2 * ARROW), end + ahead * (2 * ARROW), at, None)
        yield from (arrow(start, ahead), arrow(end, -ahead))
    if not fits:
        yield from _stroke(end, end + ahead * (ARROW * (1 if inside else 2) + room), at, None)
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
