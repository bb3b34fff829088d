"""Many hands at once, each with errors of its own, in arrays."""

from __future__ import annotations

import math

import numpy as np
import numpy.typing as npt

from .hand import Hand

Reals = npt.NDArray[np.float64]
Places = npt.NDArray[np.complex128]


class Hands:
    """Many hands at once: every error is drawn anew for each of them.

    Parameters
    ----------
    hand : Hand
    count : int
    seed : int
    factor : float
        Millimetres on paper for each unit of the plan.
    """

    def __init__(self, hand: Hand, count: int, seed: int, factor: float) -> None:
        self.hand, self.count, self.factor = hand, count, factor
        self._random = np.random.default_rng(seed)

    def length(self, size: float) -> Reals:
        """Return an error of length, plan units."""
        if size == 0:
            return np.zeros(self.count)
        return self._random.standard_normal(self.count) * (size / self.factor)

    def fixed(self, size: float) -> float:
        """Return what every hand is off alike, plan units."""
        return size / self.factor

    def place(self, size: float) -> Places:
        """Return an error across and up, plan units."""
        if size == 0:
            return np.zeros(self.count, complex)
        both = self._random.standard_normal((2, self.count)) * (size / self.factor)
        places: Places = both[0] + 1j * both[1]
        return places

    def angle(self, *sizes: float) -> Reals:
        """Return an error of direction of several causes, in degrees; the result in radians."""
        size = float(np.hypot.reduce(sizes))
        return (
            np.radians(self._random.standard_normal(self.count) * size)
            if size
            else np.zeros(self.count)
        )


class OneByOne(Hands):
    """As many hands as there are errors: each makes one of them, by one standard deviation, and no
    other.

    `drawn` counts how many errors have been asked for; of a single hand none is made, they are only
    counted. The first `steady` hands make none."""

    def __init__(self, hand: Hand, count: int, factor: float, steady: int = 0) -> None:
        super().__init__(hand, count, 0, factor)
        self.drawn, self.steady = 0, steady

    def fixed(self, size: float) -> float:
        """Return nothing: what all are off alike has no share in the spread."""
        return 0.0

    def _next(self, size: float) -> Reals:
        result = np.zeros(self.count)
        if self.count > 1:
            result[self.steady + self.drawn] = size
        self.drawn += 1
        return result

    def length(self, size: float) -> Reals:
        """Return an error of length, plan units, for the one hand that makes it."""
        return self._next(size / self.factor) if size else np.zeros(self.count)

    def place(self, size: float) -> Places:
        """Return an error across, for one hand, and up, for the next."""
        if size == 0:
            return np.zeros(self.count, complex)
        places: Places = self._next(size / self.factor) + 1j * self._next(size / self.factor)
        return places

    def angle(self, *sizes: float) -> Reals:
        """Return an error of direction, radians, for the one hand that makes it."""
        size = math.hypot(*sizes)
        return self._next(math.radians(size)) if size else np.zeros(self.count)
