"""On which side of its point a name stands, so that it covers as little as can be."""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from functools import cached_property
from typing import Literal, cast

from ..drawing.marks import Lettering, wide
from ..finish.occupied import CELL, Occupied, Segment, cells_of, cuts, meets
from ..geometry import Point
from ..geometry.box import Box
from ..memo import MEMO, Distinct, Memo

LETTER = 2.5
"""Height of letters beside points, mm (ISO 3098)."""

CROWDED = 150
"""Dots and letters about one place beyond which no letter can be read there, wherever it is put."""

BESIDE = -1.1
"""Foot of letters that stand level beside their point, mm from it."""

DOT = 0.7
"""How far from its middle a dot is kept clear, mm."""

ILLEGIBLE = 4
"""How much worse it is to stand on other letters than on a dot or a stroke (by eye)."""

_AROUND: tuple[tuple[float, float, Literal["start", "end"]], ...] = tuple(
    (
        side * (1.4 + out),
        rise + (0.0 if rise == BESIDE else math.copysign(out, rise)),
        "start" if side > 0 else "end",
    )
    for out in (0.0, 2.5, 5.0, 7.5)
    for side, rise in ((1, 1.2), (1, -3.4), (-1, 1.2), (-1, -3.4), (1, BESIDE), (-1, BESIDE))
)
"""The sides of a point on which its name may stand: from the point to the foot of the letters,
mm."""

_FURTHEST = 1.4 + 7.5
"""How far from its point a name may begin, mm."""

Letter = tuple[str, Point, int, int]
"""A name, the place it stands beside in mm, line and step."""

Cell = tuple[int, int]

Taken = tuple[Point, float]
"""The middle of what stands somewhere, and half its width: a name's, nought for a dot."""


def _cell(at: Point) -> Cell:
    return math.floor(at.x / CELL), math.floor(at.y / CELL)


def _room(letter: Letter) -> Box:
    """Return the box in which a name lies, and a dot or name as far from its middle, whichever side
    it takes."""
    text, at, _, _ = letter
    across, tall = 2 * _half(text) + _FURTHEST + LETTER, LETTER + _FURTHEST
    return Box(at.x - across, at.y - tall, at.x + across, at.y + tall)


def _half(text: str) -> float:
    return wide(text, LETTER) / 2


@dataclass(frozen=True, eq=False)
class Lettered(Distinct):
    """The names of one statement, and its dots, mm from the datum."""

    letters: Sequence[Letter]
    dots: Sequence[Point]

    @cached_property
    def placed_dots(self) -> list[tuple[Cell, Point]]:
        """The dots, each with its cell."""
        return [(_cell(dot), dot) for dot in self.dots]

    @cached_property
    def rooms(self) -> list[tuple[Box, list[Cell]]]:
        """For each letter the box that decides where it stands, and its cells."""
        return [(room, cells_of(room)) for room in map(_room, self.letters)]


Chosen = tuple[Lettered, tuple[int, ...]]
"""The names of one statement, and the sides they stand on."""


@dataclass(frozen=True)
class Before:
    """How a sheet was lettered: what stood where, and the sides that were chosen, by statement."""

    chosen: Mapping[int, Chosen]
    standing: Sequence[Occupied]


LAST = cast(Memo[Before], MEMO)


def sides_again(
    all_lettered: Sequence[Lettered], standing: Sequence[Occupied]
) -> list[tuple[int, ...]]:
    """Choose as `sides` does: a name near which nothing has changed since the last time keeps its
    side."""
    result = sides(all_lettered, standing, LAST.get(sides_again))
    pairs = zip(all_lettered, result, strict=True)
    LAST.put(sides_again, Before({each.serial: (each, own) for each, own in pairs}, standing))
    return result


def sides(
    all_lettered: Sequence[Lettered],
    standing: Sequence[Occupied],
    before: Before | None = None,
) -> list[tuple[int, ...]]:
    """Choose for each name the side of its point where it covers the fewest other names, dots,
    outlines and dimensions.

    Parameters
    ----------
    all_lettered : sequence of Lettered
        Statement by statement: a name makes room for those before it.
    standing : sequence of Occupied
        Outlines and dimensions.
    before : Before
        How the sheet was lettered before it changed: the answer is the same, and sooner there.

    Returns
    -------
    list of tuple of int
    """
    changed = None if before is None else _changed(before.standing, standing)
    chosen: Mapping[int, Chosen] = {}
    if before is None or changed is None:
        changed = set()
    else:
        chosen = before.chosen
    for serial in chosen.keys() - {each.serial for each in all_lettered}:
        gone, own = chosen[serial]
        changed.update(cell for cell, _ in gone.placed_dots)
        changed.update(map(_middle_cell, gone.letters, own))
    taken: dict[Cell, list[Taken]] = {}
    for each in all_lettered:
        for cell, dot in each.placed_dots:
            taken.setdefault(cell, []).append((dot, 0.0))
        if each.serial not in chosen:
            changed.update(cell for cell, _ in each.placed_dots)
    return [
        _of_one(each, chosen.get(each.serial), changed, taken, standing) if each.letters else ()
        for each in all_lettered
    ]


def _changed(stood: Sequence[Occupied], standing: Sequence[Occupied]) -> set[Cell] | None:
    """Return the cells in which strokes or boxes have come or gone; None where it is another sort
    of sheet."""
    if len(stood) != len(standing):
        return None
    cells = set[Cell]()
    for one, other in zip(stood, standing, strict=True):
        if one is other:
            continue
        was, now = one.cells, other.cells
        cells.update(cell for cell in was.keys() | now.keys() if was.get(cell) != now.get(cell))
        for box in set(one.boxes) ^ set(other.boxes):
            cells.update(cells_of(Box(*box)))
    return cells


def _of_one(
    each: Lettered,
    known: Chosen | None,
    changed: set[Cell],
    taken: dict[Cell, list[Taken]],
    standing: Sequence[Occupied],
) -> tuple[int, ...]:
    chosen = []
    for index, (letter, (room, cells)) in enumerate(zip(each.letters, each.rooms, strict=True)):
        before = None if known is None else known[1][index]
        if before is not None and changed.isdisjoint(cells):
            side = before
        else:
            near = [spot for cell in cells for spot in taken.get(cell, ()) if room.holds(spot[0])]
            side = _chosen(letter, room, near, standing)
            if side != before:
                changed.add(_middle_cell(letter, side))
                if before is not None:
                    changed.add(_middle_cell(letter, before))
        chosen.append(side)
        middle = _middle(letter[1], _half(letter[0]), side)
        taken.setdefault(_cell(middle), []).append((middle, _half(letter[0])))
    return tuple(chosen)


def _chosen(letter: Letter, room: Box, near: Sequence[Taken], standing: Sequence[Occupied]) -> int:
    """Return the side of a point where its name covers least, the nearest of those that cover as
    little."""
    # Where it is so crowded no side is better than another.
    if len(near) > CROWDED:
        return 0
    strokes = [stroke for each in standing for stroke in each.strokes_in(room)]
    boxes = [box for each in standing for box in each.boxes_in(room)]
    return _freest(letter[1], _half(letter[0]), near, strokes, boxes)


def _middle(at: Point, half: float, side: int) -> Point:
    dx, dy, anchor = _AROUND[side]
    return Point(at.x + dx + (half if anchor == "start" else -half), at.y + dy + LETTER / 2)


def _middle_cell(letter: Letter, side: int) -> Cell:
    return _cell(_middle(letter[1], _half(letter[0]), side))


def _freest(
    at: Point, half: float, near: Sequence[Taken], strokes: Sequence[Segment], boxes: Sequence[Box]
) -> int:
    best, least = 0, math.inf
    for side in range(len(_AROUND)):
        covered = _covered(_middle(at, half, side), half, near, strokes, boxes, least)
        if covered < least:
            best, least = side, covered
        if not covered:
            break
    return best


def _covered(
    middle: Point,
    half: float,
    near: Sequence[Taken],
    strokes: Sequence[Segment],
    boxes: Sequence[Box],
    most: float,
) -> int:
    """Count what a name covers about its middle, no further than so much: where another side covers
    less already, it does not matter how much less."""
    x, y = middle
    count, tall = 0, LETTER / 2
    for (other_x, other_y), other in near:
        close, high = (other, LETTER) if other else (DOT, tall + DOT)
        if abs(other_x - x) < half + close and abs(other_y - y) < high:
            count += ILLEGIBLE if other else 1
            if count >= most:
                return count
    box = Box(x - half, y - tall, x + half, y + tall)
    for each in boxes:
        count += ILLEGIBLE * meets(each, box)
    for stroke in strokes:
        if count >= most:
            break
        count += cuts(stroke, box)
    return count


def lettered(letter: Letter, side: int) -> Lettering:
    """Set a name on one side of its point."""
    text, at, line, step = letter
    dx, dy, anchor = _AROUND[side]
    return Lettering(text, at.x + dx, at.y + dy, LETTER, anchor, "letter", line, step)
