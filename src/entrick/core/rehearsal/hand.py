"""The errors of a drafter's hand, in mm on paper and degrees: one standard deviation each."""

from __future__ import annotations

import math
from dataclasses import dataclass, fields, replace

import numpy as np
import numpy.typing as npt

Reals = npt.NDArray[np.float64]
Places = npt.NDArray[np.complex128]


@dataclass(frozen=True, slots=True)
class Hand:
    """How far off a hand is, one standard deviation (common practice, no source).

    Attributes
    ----------
    needle : float
        Needle on a mark, across and up, each time it is set down.
    opening, carried : float
        Compass opened by the rule, or from mark to mark; once a setting.
    dividers : float
        Dividers opened by the rule, once a setting.
    measuring : float
        Marked off along the rule, both ends together.
    pricking : float
        Off each of the two lines of a crossing, square to it.
    edge : float
        Edge off each mark it is laid to, square to the line.
    line : float
        Line gone over, off what it follows, once a piece.
    set_square, t_square : float
        Tilt of a square that is slid, degrees.
    protractor, base : float
        A protractor read, and its base laid, degrees.
    """

    needle: float = 0.10
    opening: float = 0.15
    carried: float = 0.10
    dividers: float = 0.10
    measuring: float = 0.20
    pricking: float = 0.10
    edge: float = 0.10
    line: float = 0.10
    set_square: float = 0.05
    t_square: float = 0.03
    protractor: float = 0.25
    base: float = 0.10

    def times(self, factor: float) -> Hand:
        """Return a hand whose every error is so many times as large."""
        return replace(self, **{f.name: getattr(self, f.name) * factor for f in fields(self)})


NONE = Hand().times(0.0)
"""The hand that makes no error."""


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

    def place(self, size: float) -> Places:
        """Return an error across and up, plan units."""
        if size == 0:
            return np.zeros(self.count, complex)
        both = self._random.standard_normal((2, self.count)) * (size / self.factor)
        found: Places = both[0] + 1j * both[1]
        return found

    def angle(self, *sizes: float) -> Reals:
        """Return an error of direction of several causes, in degrees; the result in radians."""
        size = float(np.hypot.reduce(sizes))
        return np.radians(self._random.standard_normal(self.count) * size) if size else np.zeros(self.count)


class OneByOne(Hands):
    """As many hands as there are errors: each makes one of them, by one standard deviation, and no other.

    `drawn` counts how many errors have been asked for; of a single hand none is made, they are only counted.
    """

    def __init__(self, hand: Hand, count: int, factor: float) -> None:
        super().__init__(hand, count, 0, factor)
        self.drawn = 0

    def _next(self, size: float) -> Reals:
        found = np.zeros(self.count)
        if self.count > 1:
            found[self.drawn] = size
        self.drawn += 1
        return found

    def length(self, size: float) -> Reals:
        """Return an error of length, plan units, for the one hand that makes it."""
        return self._next(size / self.factor) if size else np.zeros(self.count)

    def place(self, size: float) -> Places:
        """Return an error across, for one hand, and up, for the next."""
        if size == 0:
            return np.zeros(self.count, complex)
        found: Places = self._next(size / self.factor) + 1j * self._next(size / self.factor)
        return found

    def angle(self, *sizes: float) -> Reals:
        """Return an error of direction, radians, for the one hand that makes it."""
        size = math.hypot(*sizes)
        return self._next(math.radians(size)) if size else np.zeros(self.count)
