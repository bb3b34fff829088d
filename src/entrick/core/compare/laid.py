"""Outlines laid over others as well as they go: moved and turned, never stretched nor mirrored."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray
from scipy.spatial import KDTree  # type: ignore[import-untyped]

from ..geometry import Loop, Point, rotate, shift
from ..geometry.loop import boxed
from .along import places

Places = NDArray[np.float64]

ORIGIN = Point(0.0, 0.0)

ROUGHLY, FINELY = 200, 4000
"""Places by which outlines are laid over each other, first from several sides, then in the end."""

TRIED, LIKELY = 24, 6
"""Turns from which it is begun, and those of them that are gone on with."""

CLOSELY = 400
"""Places whose true distances are taken in the end."""

STEPS_DOWN, FEWEST = 6, 6
"""Steps of that, and fewest places it needs."""

FIRST_STEPS, STEPS = 6, 60
"""Times everything is moved to where it lies nearest, before it is seen which turns are likely, and
in the end."""


@dataclass(frozen=True, slots=True)
class Laid:
    """How outlines were moved: turned about the origin, then shifted.

    Attributes
    ----------
    turn : float
        Radians, counter-clockwise.
    by : Point
    """

    turn: float = 0.0
    by: Point = ORIGIN

    def moved(self, loop: Loop) -> Loop:
        """Return an outline where it was laid."""
        turned = rotate(loop, ORIGIN, self.turn)
        return shift(turned, self.by)


def laid_over(made: Sequence[Loop], meant: Sequence[Loop]) -> Laid:
    """Lay outlines over others so that the squares of their distances are least.

    Each place goes with the nearest of the other outlines, and all are moved at once (Kabsch's
    closed form in the plane), again and again until nothing moves; begun from several turns, since
    a part may lie any way round.

    Parameters
    ----------
    made, meant : sequence of Loop
        In one unit.
    """
    target = _places(meant, FINELY)
    tree = KDTree(target)
    rough = _places(made, ROUGHLY)
    middle, there = rough.mean(axis=0), target.mean(axis=0)
    begun = [_from(math.tau * k / TRIED, middle, there) for k in range(TRIED)]
    begun = _best_of(LIKELY, [_nearest(rough, tree, target, each, FIRST_STEPS) for each in begun])
    best = _best_of(1, [_nearest(rough, tree, target, each) for each in begun])[0]
    turn, by = _nearest(_places(made, FINELY), tree, target, best)[0]
    return _exactly(Laid(turn, Point(float(by[0]), float(by[1]))), made, meant, tree)


def _exactly(laid: Laid, made: Sequence[Loop], meant: Sequence[Loop], tree: KDTree) -> Laid:
    """Lay outlines down by their true distances, square to the outline (Gauss and Newton's least
    squares)."""
    spots = _places(made, CLOSELY)
    rings = [boxed(loop) for loop in meant]
    # Each place of the tree belongs to one outline.
    owners = [n for n, loop in enumerate(meant) for _ in places(loop, _share(meant, loop, FINELY))]
    for _ in range(STEPS_DOWN):
        there = _turned(spots, laid.turn) + np.array([laid.by.x, laid.by.y])
        _, which = tree.query(there)
        rows, off = [], []
        for (x, y), at in zip(there, which, strict=True):
            spot = Point(float(x), float(y))
            away = spot - rings[owners[at]].nearest(spot)
            if abs(away) > 0:
                out = away.unit
                rows.append((out.x, out.y, Point(x - laid.by.x, y - laid.by.y).cross(out)))
                off.append(-abs(away))
        if len(rows) < FEWEST:
            break
        (dx, dy, turn), *_ = np.linalg.lstsq(np.array(rows), np.array(off), rcond=None)
        laid = Laid(laid.turn + float(turn), laid.by + Point(float(dx), float(dy)))
    return laid


Motion = tuple[float, Places]


def _from(turn: float, middle: Places, there: Places) -> Motion:
    return turn, there - _turned(middle, turn)


def _turned(spots: Places, turn: float) -> Places:
    cos, sin = math.cos(turn), math.sin(turn)
    return np.array(spots @ np.array([[cos, sin], [-sin, cos]]))


def _best_of(count: int, found: Sequence[tuple[Motion, float]]) -> list[Motion]:
    """Return the motions that bring places nearest."""
    return [motion for motion, _ in sorted(found, key=lambda each: each[1])[:count]]


def _nearest(
    spots: Places, tree: KDTree, target: Places, start: Motion, steps: int = STEPS
) -> tuple[Motion, float]:
    """Return the motion that brings places nearest to their targets, and how far they are in the
    mean of squares."""
    turn, by = start
    off = math.inf
    for _ in range(steps):
        moved = _turned(spots, turn) + by
        far, which = tree.query(moved)
        now = float(np.mean(far**2))
        if now >= off * (1 - STILL):
            break
        off = now
        turn, by = _best(spots, target[which])
    return (turn, by), off


STILL = 1 / 1_000_000
"""Of what is left, what it gets nearer by when nothing moves any more."""


def _best(spots: Places, there: Places) -> Motion:
    """Return the motion of places that brings each nearest to its own (Kabsch, in the plane)."""
    a, b = spots.mean(axis=0), there.mean(axis=0)
    p, q = spots - a, there - b
    turn = math.atan2(float((p[:, 0] * q[:, 1] - p[:, 1] * q[:, 0]).sum()), float((p * q).sum()))
    return turn, b - _turned(a, turn)


def _places(loops: Sequence[Loop], count: int) -> Places:
    return np.array(
        [[spot.x, spot.y] for loop in loops for spot, _ in places(loop, _share(loops, loop, count))]
    )


def _share(loops: Sequence[Loop], loop: Loop, count: int) -> int:
    """Return how many of so many places fall to an outline."""
    return max(12, round(count * loop.length / math.fsum(each.length for each in loops)))
