"""Runs that are copies of each other: on a pitch circle, turned about a centre, beyond an axis, in
a row."""

from __future__ import annotations

import math
from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass

from ..geometry import Circle, Point, reflect
from .match import Places, alike, images, loosely, mirrored, moved_by, turned_by
from .profile import Run, loop_of
from .rows import Rows
from .simplest import cost
from .symmetry import Axes

MOST_COMPARED = 150
"""Copies of one run that are looked through for rows."""

FEWEST_IN_ROW = 3
FEWEST_IN_GRID = 6
FEWEST_SCATTERED, MOST_SCATTERED = 24, 40
"""Circles of one size that are said by a list of places, and as many as a row of a plan has room
for."""

NEXT = 8
"""Neighbours of one that are tried as the next in a row."""


@dataclass(frozen=True, slots=True)
class Ring:
    """Runs equally spaced round a centre, counter-clockwise from the first.

    Attributes
    ----------
    members : tuple of int
    centre : Point
    """

    members: tuple[int, ...]
    centre: Point


@dataclass(frozen=True, slots=True)
class Row:
    """Runs one after another, each as far from the last."""

    members: tuple[int, ...]
    step: Point


@dataclass(frozen=True, slots=True)
class Grid:
    """Runs in rows above each other, from the lower left one on.

    Attributes
    ----------
    members : tuple of int
        Row by row.
    across : int
        How many there are in a row.
    step : Point
        From one to the next, across and up.
    """

    members: tuple[int, ...]
    across: int
    step: Point


@dataclass(frozen=True, slots=True)
class Mirrored:
    """Runs and their images about an axis, in the same order."""

    members: tuple[int, ...]
    images: tuple[int, ...]
    way: str


@dataclass(frozen=True, slots=True)
class Single:
    """A run by itself."""

    members: tuple[int]


@dataclass(frozen=True, slots=True)
class Scattered:
    """Circles of one size in no order."""

    members: tuple[int, ...]


Group = Ring | Row | Grid | Scattered | Mirrored | Single


def copies_of(runs: Sequence[Run], axes: Axes, rows: Rows) -> list[Group]:
    """Return how the runs of a profile are said, each once: what a copy is made of stands before
    it.

    Parameters
    ----------
    runs : sequence of Run
        Measured from the datum.
    axes : Axes
        Of the rim.
    rows : Rows
        Says how simple a number is.
    """
    middles = [loop_of(run).centroid for run in runs]
    groups: list[Group] = []
    for group in alike(runs, rows.within):
        left = list(group)
        grid = _grid(runs, left, middles, axes, rows.within)
        if grid:
            groups.append(grid)
            continue
        for ring in _rings(runs, left, middles, axes, rows):
            groups.append(ring)
            left = [n for n in left if n not in ring.members]
        first, mirrors = _mirrored(runs, left, middles, axes, rows.within)
        for row in _rows(runs, first, middles, rows.within):
            groups.append(row)
            first = [n for n in first if n not in row.members]
        if len(first) >= FEWEST_SCATTERED and isinstance(runs[first[0]][0], Circle):
            groups += [
                Scattered(tuple(first[k : k + MOST_SCATTERED]))
                for k in range(0, len(first), MOST_SCATTERED)
            ]
        else:
            groups += [Single((n,)) for n in first]
        groups += mirrors
    return groups


def _rings(
    runs: Sequence[Run], group: Sequence[int], middles: Sequence[Point], axes: Axes, rows: Rows
) -> Iterator[Ring]:
    """Yield rings: all copies that are as far from a centre, where they share the turn equally."""
    if len(group) < 3 or len(group) > MOST_COMPARED:
        return
    near = rows.within * 4
    inside = [run[0].centre for run in runs if isinstance(run[0], Circle)][:20]
    mean = Point(*(sum(v) / len(group) for v in zip(*(middles[n] for n in group), strict=True)))
    left = set(group)
    for centre in [Point(0.0, 0.0), axes.centre, mean, *inside]:
        circles: list[list[int]] = []
        for n in sorted(left, key=lambda n: abs(middles[n] - centre)):
            if (
                circles
                and abs(abs(middles[n] - centre) - abs(middles[circles[-1][0]] - centre)) <= near
            ):
                circles[-1].append(n)
            else:
                circles.append([n])
        for members in circles:
            if len(members) < 3 or abs(middles[members[0]] - centre) <= near:
                continue
            ring = _ring(runs, members, middles, centre, rows)
            arm = middles[members[0]] - centre
            squared = len(members) == 4 and axes.ways and _is_square(arm, rows)
            if ring and not squared:
                left -= set(members)
                yield ring


def _is_square(arm: Point, rows: Rows) -> bool:
    """Tell whether four places are rather the corners of a square: half its side is a simpler
    number than the arm."""
    return (
        cost(rows.simple(abs(arm.x))) < cost(rows.simple(abs(arm)))
        and abs(abs(arm.x) - abs(arm.y)) <= rows.within
    )


def _ring(
    runs: Sequence[Run], members: Sequence[int], middles: Sequence[Point], centre: Point, rows: Rows
) -> Ring | None:
    near = rows.within * 4
    radius = abs(middles[members[0]] - centre)
    angles = sorted(((middles[n] - centre).angle % math.tau, n) for n in members)
    # The first stands upright, to the right, or wherever the angle is least.
    step = math.tau / len(members)
    if any(
        abs(math.remainder(angle - angles[0][0] - k * step, math.tau)) * radius > near
        for k, (angle, _) in enumerate(angles)
    ):
        return None
    start = min(range(len(angles)), key=lambda k: _standing(angles[k][0]))
    order = [n for _, n in [*angles[start:], *angles[:start]]]
    first = runs[order[0]]
    if not isinstance(first[0], Circle):
        for k, n in enumerate(order[1:], 1):
            if (
                images(first, Places(runs[n], loosely(rows.within)), turned_by(centre, k * step))
                is None
            ):
                return None
    return Ring(tuple(order), centre)


UPRIGHT = {90: 0, 0: 1, 180: 2, 270: 3}
"""Where the first of a ring stands, if one stands there: above, to the right, to the left,
below."""


def _standing(angle: float) -> tuple[float, float]:
    degrees = round(math.degrees(angle), 4) % 360
    return UPRIGHT.get(round(degrees) if degrees == round(degrees) else -1, 4), degrees


def _mirrored(
    runs: Sequence[Run], group: Sequence[int], middles: Sequence[Point], axes: Axes, within: float
) -> tuple[list[int], list[Mirrored]]:
    """Return the copies that are said by themselves, and those that are images of others."""
    left = list(group)
    found: list[Mirrored] = []
    # About the last axis first: what is left then has its images about the others.
    for way in reversed(axes.ways):
        axis = axes.line(way)
        move = mirrored(axis)
        near = _Near([(n, middles[n]) for n in left], within * 4)
        pairs: list[tuple[int, int]] = []
        used: set[int] = set()
        for n in sorted(left, key=lambda n: (-middles[n].x - 2 * middles[n].y, n)):
            for other in near.of(reflect(middles[n], axis)) if n not in used else ():
                if (
                    other not in used
                    and other != n
                    and images(runs[n], Places(runs[other], loosely(within)), move) is not None
                ):
                    pairs.append((n, other))
                    used |= {n, other}
                    break
        if pairs:
            found.insert(0, Mirrored(tuple(a for a, _ in pairs), tuple(b for _, b in pairs), way))
            images_ = {b for _, b in pairs}
            left = [n for n in left if n not in images_]
    return left, found


class _Near:
    """What lies near a place, among thousands."""

    def __init__(self, spots: Iterable[tuple[int, Point]], within: float) -> None:
        self.within = within
        self._cells: dict[tuple[int, int], list[tuple[int, Point]]] = {}
        for n, spot in spots:
            self._cells.setdefault(self._cell(spot), []).append((n, spot))

    def _cell(self, spot: Point) -> tuple[int, int]:
        return math.floor(spot.x / self.within), math.floor(spot.y / self.within)

    def of(self, spot: Point) -> list[int]:
        """Return what lies within."""
        column, row = self._cell(spot)
        around = [(column + i, row + j) for i in (0, -1, 1) for j in (0, -1, 1)]
        return [
            n
            for cell in around
            for n, there in self._cells.get(cell, ())
            if abs(there - spot) <= self.within
        ]


def _rows(
    runs: Sequence[Run], group: Sequence[int], middles: Sequence[Point], within: float
) -> Iterator[Row]:
    """Yield rows, the longest first: copies that stand equally far one from the next."""
    left = sorted(group, key=lambda n: (round(middles[n].x / within), middles[n].y))
    if len(left) > MOST_COMPARED:
        return
    while len(left) >= FEWEST_IN_ROW:
        near = _Near([(n, middles[n]) for n in left], within * 2)
        best: tuple[int, ...] = ()
        for a in left:
            # The next in a row is hardly ever further than a few others.
            for b in sorted(left, key=lambda n: abs(middles[n] - middles[a]))[1 : NEXT + 1]:
                step = middles[b] - middles[a]
                if (step.x, step.y) < (0, 0):
                    continue
                members = [a, b]
                while found := near.of(middles[members[-1]] + step):
                    members.append(found[0])
                if len(members) > max(len(best), FEWEST_IN_ROW - 1):
                    best = tuple(members)
        if len(best) < FEWEST_IN_ROW:
            return
        step = (middles[best[-1]] - middles[best[0]]) * (1 / (len(best) - 1))
        first = runs[best[0]]
        if not all(
            images(first, Places(runs[n], loosely(within)), moved_by(step * k)) is not None
            for k, n in enumerate(best)
        ):
            return
        yield Row(best, step)
        left = [n for n in left if n not in best]


def _grid(
    runs: Sequence[Run], group: Sequence[int], middles: Sequence[Point], axes: Axes, within: float
) -> Grid | None:
    """Return the group as rows above each other, where it is all of them; few are rather said by
    their axes."""
    if len(group) < FEWEST_IN_GRID or (axes.ways and len(group) < FEWEST_IN_GRID * 2):
        return None
    xs, ys = (
        _levels([middles[n].x for n in group], within),
        _levels([middles[n].y for n in group], within),
    )
    across, up = len(xs), len(ys)
    if min(across, up) < 2 or across * up != len(group):
        return None
    step = Point((xs[-1] - xs[0]) / (across - 1), (ys[-1] - ys[0]) / (up - 1))
    if any(abs(x - xs[0] - k * step.x) > within * 2 for k, x in enumerate(xs)):
        return None
    if any(abs(y - ys[0] - k * step.y) > within * 2 for k, y in enumerate(ys)):
        return None
    near = _Near([(n, middles[n]) for n in group], within * 4)
    corner = Point(xs[0], ys[0])
    members: list[int] = []
    for k in range(across * up):
        by = Point(step.x * (k % across), step.y * (k // across))
        found = near.of(corner + by)
        if len(found) != 1:
            return None
        members += found
        first = runs[members[0]]
        if images(first, Places(runs[found[0]], loosely(within)), moved_by(by)) is None:
            return None
    return Grid(tuple(members), across, step)


def _levels(values: Sequence[float], within: float) -> list[float]:
    """Return the different ones of some numbers, rising."""
    result: list[float] = []
    for value in sorted(values):
        if not result or value - result[-1] > within * 4:
            result.append(value)
    return result
