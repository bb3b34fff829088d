"""What is seen on a sheet, before anything is known of what it is: places on dark strokes."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Protocol

import numpy as np
import numpy.typing as npt
from scipy.spatial import KDTree  # type: ignore[import-untyped]

from ..rehearsal.many import Places, Reals


class Seen(Protocol):
    """What is seen on a sheet.

    Attributes
    ----------
    places : array of complex
        On the strokes of an outline, mm on paper from the datum.
    """

    @property
    def places(self) -> Places:
        """Places on strokes."""

    def away(self, places: Places) -> Reals:
        """Return how far places are from the nearest stroke, mm."""

    def nearest(self, places: Places) -> Places:
        """Return the nearest place on a stroke for each."""

    def shows(self, places: Places) -> npt.NDArray[np.bool_]:
        """Tell where a stroke would be seen: not beyond the border, nor in the title strip."""


@dataclass(frozen=True)
class SomeOf:
    """What is seen, of which not all has to be explained: `places` are those that do."""

    seen: Seen
    places: Places

    def away(self, places: Places) -> Reals:
        """Return how far places are from the nearest stroke of all, mm."""
        return self.seen.away(places)

    def nearest(self, places: Places) -> Places:
        """Return the nearest place on a stroke of all for each."""
        return self.seen.nearest(places)

    def shows(self, places: Places) -> npt.NDArray[np.bool_]:
        """Tell where a stroke would be seen."""
        return self.seen.shows(places)


CLOSE = 0.25
"""Distance of places along a run by which it is told how far it is, mm."""


def tree_of(runs: Sequence[Places], close: float = CLOSE) -> KDTree:
    """Return what tells how far places are from runs of straights.

    Parameters
    ----------
    runs : sequence of array of complex
        One at least; mm.
    close : float, optional
        It is looked at places no further apart than that, mm.
    """
    every = np.concatenate(runs)
    ahead = np.diff(every, append=every[-1])
    parts = np.maximum(np.ceil(np.abs(ahead) / close), 1).astype(int)
    parts[np.cumsum([len(run) for run in runs]) - 1] = 1
    first = np.repeat(np.cumsum(parts) - parts, parts)
    share = (np.arange(len(first)) - first) / np.repeat(parts, parts)
    return KDTree(pairs(np.repeat(every, parts) + np.repeat(ahead, parts) * share))


def pairs(places: Places) -> Reals:
    """Return places as rows of x and y."""
    return np.column_stack((places.real, places.imag))


def to_the_left(run: Places) -> Places:
    """Return the direction square to a run at each of its places, to the left."""
    ahead = np.gradient(run)
    places: Places = 1j * ahead / np.maximum(np.abs(ahead), np.finfo(float).tiny)
    return places


def from_run(places: Places, run: Places) -> Reals:
    """Return how far places are from a run of straights, mm."""
    start, along = run[:-1], np.diff(run)
    size = np.maximum(np.abs(along) ** 2, np.finfo(float).tiny)
    offset = places[:, None] - start
    share = np.clip((np.conj(along) * offset).real / size, 0.0, 1.0)
    result: Reals = np.min(np.abs(offset - share * along), axis=1)
    return result


CLOSED = 0.01
"""Between its ends a circle turns by no more than that, radians, and no arc so little."""


def from_arcs(places: Places, runs: Sequence[Places]) -> Reals:
    """Return how far places are from the nearest of some arcs, mm.

    Parameters
    ----------
    places : array of complex
    runs : sequence of array of complex
        One at least: four places or more along each arc, from its start to its end, and no two
        further apart than a third of a turn.
    """
    ends = np.array([[run[0], run[-1]] for run in runs]).T[:, :, None]
    a, b, c = np.array([run[[0, len(run) // 3, 2 * len(run) // 3]] for run in runs]).T[:, :, None]
    # The circle through three of its places, seen from the first (perpendicular bisectors).
    p, q = b - a, c - a
    twice = 2 * (np.conj(p) * q).imag
    middle = a + 1j * (p * np.abs(q) ** 2 - q * np.abs(p) ** 2) / twice
    sense, radius = np.sign(twice), np.abs(a - middle)
    start, end = np.angle(ends - middle)
    spokes = places - middle
    turned = np.mod(sense * (np.angle(spokes) - start), math.tau)
    swept = np.mod(sense * (end - start), math.tau)
    on = turned <= np.where(swept < CLOSED, math.tau, swept)
    beyond = np.min(np.abs(places - ends), axis=0)
    result: Reals = np.min(np.where(on, np.abs(np.abs(spokes) - radius), beyond), axis=0)
    return result
