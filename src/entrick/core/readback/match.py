"""Which pieces come to lie on which when a run is mirrored, turned or moved: symmetries and copies
are found by it."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterable, Iterator, Sequence

from ..geometry import Arc, Circle, Line, Loop, Point, reflect, rotate, shift
from ..geometry.box import Sides, box_of
from ..geometry.ellipse import Ellipse
from ..geometry.loop import distance
from ..geometry.shapes import ends as ends_of
from ..tolerance import READ_WITHIN
from .profile import Curve, Run, length_of, middle_of


def loosely(within: float) -> float:
    """Return how far pieces may be apart and be images of each other.

    Of a noisy file it is hardly known where along them pieces touch; the plan is held against the
    file in the end."""
    return within * (6 if within > READ_WITHIN else 2)


Move = Callable[[Curve], Curve]


def mirrored(axis: Line) -> Move:
    """Return the mirror image of any piece about a line."""

    def move(curve: Curve) -> Curve:
        if isinstance(curve, Ellipse):
            centre = reflect(curve.centre, axis)
            return Ellipse(centre, reflect(curve.centre + curve.major, axis) - centre, curve.minor)
        return reflect(curve, axis)

    return move


def turned_by(about: Point, angle: float) -> Move:
    """Return any piece turned about a point (radians, counter-clockwise)."""

    def move(curve: Curve) -> Curve:
        if isinstance(curve, Ellipse):
            centre = rotate(curve.centre, about, angle)
            return Ellipse(
                centre, rotate(curve.centre + curve.major, about, angle) - centre, curve.minor
            )
        return rotate(curve, about, angle)

    return move


def moved_by(by: Point) -> Move:
    """Return any piece moved by a displacement."""

    def move(curve: Curve) -> Curve:
        return (
            Ellipse(curve.centre + by, curve.major, curve.minor)
            if isinstance(curve, Ellipse)
            else shift(curve, by)
        )

    return move


def is_same(one: Curve, other: Curve, within: float) -> bool:
    """Tell whether two pieces lie on each other, whichever way they run."""
    if isinstance(one, Circle) and isinstance(other, Circle):
        return abs(one.centre - other.centre) <= within and abs(one.radius - other.radius) <= within
    if isinstance(one, Ellipse) and isinstance(other, Ellipse):
        apart = min(abs(one.major - other.major), abs(one.major + other.major))
        return (
            abs(one.centre - other.centre) <= within
            and apart <= within
            and abs(one.minor - other.minor) <= within
        )
    if not (isinstance(one, Line | Arc) and isinstance(other, Line | Arc)) or type(one) is not type(
        other
    ):
        return False
    if abs(middle_of(one) - middle_of(other)) > within:
        return False
    a, b = ends_of(one)
    c, d = ends_of(other)
    return (abs(a - c) <= within and abs(b - d) <= within) or (
        abs(a - d) <= within and abs(b - c) <= within
    )


class Places:
    """Pieces by where their middles lie."""

    def __init__(self, run: Run, within: float) -> None:
        self.run, self.within = run, within
        self._cells: dict[tuple[int, int], list[int]] = {}
        for k, curve in enumerate(run):
            self._cells.setdefault(self._cell(middle_of(curve)), []).append(k)

    def _cell(self, spot: Point) -> tuple[int, int]:
        size = self.within * 4
        return math.floor(spot.x / size), math.floor(spot.y / size)

    def of(self, curve: Curve) -> int | None:
        """Return the piece that lies where a curve does."""
        column, row = self._cell(middle_of(curve))
        for i in (0, -1, 1):
            for j in (0, -1, 1):
                for k in self._cells.get((column + i, row + j), ()):
                    if is_same(self.run[k], curve, self.within):
                        return k
        return None


def images(run: Run, places: Places, move: Move) -> list[int] | None:
    """Return for each piece of a run which piece it comes to lie on; None where one comes to lie on
    none."""
    if len(run) != len(places.run):
        return None
    result: list[int] = []
    for curve in run:
        at = places.of(move(curve))
        if at is None:
            return None
        result.append(at)
    return result


def alike(runs: Sequence[Run], within: float) -> list[list[int]]:
    """Return the runs that may be copies of each other, in groups: as many pieces, as long, of the
    same kinds."""
    groups: list[list[int]] = []
    sizes = [
        (len(run), sorted(type(c).__name__ for c in run), sum(map(length_of, run))) for run in runs
    ]
    for n, (count, kinds, length) in enumerate(sizes):
        for group in groups:
            first = sizes[group[0]]
            if (
                first[0] == count
                and first[1] == kinds
                and abs(first[2] - length) <= within * 2 * (count + 3)
            ):
                group.append(n)
                break
        else:
            groups.append([n])
    return groups


def departures(spots: Iterable[Point], outline: Loop, within: float) -> Iterator[float]:
    """Yield how far places are from an outline; infinite for one that is further than may be."""
    sides = Sides([box_of(piece.curve) for piece in outline.pieces])
    for spot in spots:
        near = (
            distance(outline.pieces[n].curve, spot) for n in sides.within(spot.x, spot.y, within)
        )
        yield min(near, default=math.inf)
