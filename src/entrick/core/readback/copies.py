"""Runs that are copies of each other: on a pitch circle, turned about a centre, beyond an axis, in a row."""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from ..geometry import Circle, Point
from .match import Places, alike, images, mirrored, moved_by, turned_by
from .profile import Run, loop_of
from .rows import Rows
from .simplest import cost
from .symmetry import Axes

MOST_COMPARED = 150
"""Copies of one run that are looked through for rows."""

FEWEST_IN_ROW = 3


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
class Mirrored:
    """Runs and their images about an axis, in the same order."""

    members: tuple[int, ...]
    images: tuple[int, ...]
    way: str


@dataclass(frozen=True, slots=True)
class Single:
    """A run by itself."""

    members: tuple[int]


Group = Ring | Row | Mirrored | Single


def copies_of(runs: Sequence[Run], axes: Axes, rows: Rows) -> list[Group]:
    """Return how the runs of a profile are said, each once: what a copy is made of stands before it.

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
    found: list[Group] = []
    for group in alike(runs, rows.within):
        left = list(group)
        for ring in _rings(runs, left, middles, axes, rows):
            found.append(ring)
            left = [n for n in left if n not in ring.members]
        first, mirrors = _mirrored(runs, left, middles, axes, rows.within)
        for row in _rows(runs, first, middles, rows.within):
            found.append(row)
            first = [n for n in first if n not in row.members]
        found += [Single((n,)) for n in first]
        found += mirrors
    return found


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
            if circles and abs(abs(middles[n] - centre) - abs(middles[circles[-1][0]] - centre)) <= near:
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
    """Tell whether four places are rather the corners of a square: half its side is a simpler number than the arm."""
    return cost(rows.simple(abs(arm.x))) < cost(rows.simple(abs(arm))) and abs(abs(arm.x) - abs(arm.y)) <= rows.within


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
            if images(first, Places(runs[n], near), turned_by(centre, k * step)) is None:
                return None
    return Ring(tuple(order), centre)


UPRIGHT = {90: 0, 0: 1, 180: 2, 270: 3}
"""Where the first of a ring stands, if one stands there: above, to the right, to the left, below."""


def _standing(angle: float) -> tuple[float, float]:
    degrees = round(math.degrees(angle), 4) % 360
    return UPRIGHT.get(round(degrees) if degrees == round(degrees) else -1, 4), degrees


def _mirrored(
    runs: Sequence[Run], group: Sequence[int], middles: Sequence[Point], axes: Axes, within: float
) -> tuple[list[int], list[Mirrored]]:
    """Return the copies that are said by themselves, and those that are images of others."""
    left = list(group)
    found: list[Mirrored] = []
    if len(left) > MOST_COMPARED:
        return left, found
    # About the last axis first: what is left then has its images about the others.
    for way in reversed(axes.ways):
        move = mirrored(axes.line(way))
        pairs: list[tuple[int, int]] = []
        used: set[int] = set()
        for n in sorted(left, key=lambda n: (-middles[n].x - 2 * middles[n].y, n)):
            if n in used:
                continue
            for other in left:
                if other in used or other == n:
                    continue
                if images(runs[n], Places(runs[other], within * 2), move) is not None:
                    pairs.append((n, other))
                    used |= {n, other}
                    break
        if pairs:
            found.insert(0, Mirrored(tuple(a for a, _ in pairs), tuple(b for _, b in pairs), way))
            images_ = {b for _, b in pairs}
            left = [n for n in left if n not in images_]
    return left, found


def _rows(runs: Sequence[Run], group: Sequence[int], middles: Sequence[Point], within: float) -> Iterator[Row]:
    """Yield rows, the longest first: copies that stand equally far one from the next."""
    left = sorted(group, key=lambda n: (round(middles[n].x / within), middles[n].y))
    while len(left) >= FEWEST_IN_ROW and len(left) <= MOST_COMPARED:
        at = {(round(middles[n].x / within / 4), round(middles[n].y / within / 4)): n for n in left}
        best: tuple[int, ...] = ()
        for a in left:
            for b in left:
                step = middles[b] - middles[a]
                if a == b or (step.x, step.y) < (0, 0):
                    continue
                members = [a, b]
                while (n := _at(at, middles[members[-1]] + step, middles, within)) is not None:
                    members.append(n)
                if len(members) > max(len(best), FEWEST_IN_ROW - 1):
                    best = tuple(members)
        if len(best) < FEWEST_IN_ROW:
            return
        step = (middles[best[-1]] - middles[best[0]]) * (1 / (len(best) - 1))
        first = runs[best[0]]
        if not all(
            images(first, Places(runs[n], within * 4), moved_by(step * k)) is not None for k, n in enumerate(best)
        ):
            return
        yield Row(best, step)
        left = [n for n in left if n not in best]


def _at(at: dict[tuple[int, int], int], spot: Point, middles: Sequence[Point], within: float) -> int | None:
    column, row = round(spot.x / within / 4), round(spot.y / within / 4)
    for i in (0, -1, 1):
        for j in (0, -1, 1):
            n = at.get((column + i, row + j))
            if n is not None and abs(middles[n] - spot) <= within * 2:
                return n
    return None
