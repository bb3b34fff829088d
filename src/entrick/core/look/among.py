"""Runs of places among each other: what else runs beside them, and what is clear of everything."""

from __future__ import annotations

from collections.abc import Sequence
from functools import cached_property

import numpy as np
import numpy.typing as npt
from scipy.spatial import KDTree  # type: ignore[import-untyped]

from ..rehearsal.many import Places, Reals
from .seen import pairs, to_the_left

CLEAR = 1.2
"""How far from every other piece a stroke has to be to be one of its own, mm."""


class Among:
    """Runs of places among each other.

    Parameters
    ----------
    runs : sequence of array of complex
        Mm on paper, as close to each other along each as it is to be told.
    reach : float
        How far it is looked for what runs beside, mm.
    """

    def __init__(self, runs: Sequence[Places], reach: float) -> None:
        self._runs, self._reach = runs, reach
        self._owner = np.repeat(np.arange(len(runs)), [len(run) for run in runs])
        self._places = np.concatenate([np.zeros(0, complex), *runs])
        self._tree = KDTree(pairs(self._places))

    def half_way(self, own: int) -> Reals:
        """Return how far it is half the way from each place of a run to what else runs to the left
        of it, and to the right; `reach` where nothing does."""
        result: Reals = self._half_way[:, self._owner == own]
        return result

    def clear(self, own: int, places: Places) -> npt.NDArray[np.bool_]:
        """Tell which places are clear of every run but one."""
        near = self._tree.query_ball_point(pairs(places), CLEAR)
        return np.array([bool(np.all(self._owner[spots] == own)) for spots in near])

    @cached_property
    def _half_way(self) -> Reals:
        close = self._tree.query_pairs(2 * self._reach, output_type="ndarray")
        others = close[self._owner[close[:, 0]] != self._owner[close[:, 1]]]
        here, there = np.concatenate((others, others[:, ::-1])).T
        left = np.concatenate([np.zeros(0, complex), *map(to_the_left, self._runs)])
        away = (self._places[there] - self._places[here]) * np.conj(left[here])
        result: Reals = np.full((2, len(self._places)), self._reach)
        for side, across in zip(result, (away.real, -away.real), strict=True):
            # What lies ahead rather than across is the next piece, or crosses.
            beside = across >= np.abs(away.imag)
            np.minimum.at(side, here[beside], across[beside] / 2)
        return result
