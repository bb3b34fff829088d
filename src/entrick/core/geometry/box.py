"""Boxes with level and plumb sides: what tells quickly that two things are nowhere near each
other."""

from __future__ import annotations

import math
from collections.abc import Iterable, Sequence
from typing import NamedTuple

import numpy as np
import numpy.typing as npt

from .shapes import Curve, Point, extremes


class Box(NamedTuple):
    """A box from `left`, `lower` to `right`, `upper`, in any unit of length."""

    left: float
    lower: float
    right: float
    upper: float

    @property
    def low(self) -> Point:
        """Lower left corner."""
        return Point(self.left, self.lower)

    @property
    def high(self) -> Point:
        """Upper right corner."""
        return Point(self.right, self.upper)

    @property
    def area(self) -> float:
        """Width times height."""
        return (self.right - self.left) * (self.upper - self.lower)

    def grown(self, by: float) -> Box:
        """Return the box with every side moved outwards."""
        return Box(self.left - by, self.lower - by, self.right + by, self.upper + by)

    def holds(self, spot: Point, close: float = 0.0) -> bool:
        """Tell whether a place lies in the box, or no further than so much outside it."""
        return (
            self.left - close <= spot.x <= self.right + close
            and self.lower - close <= spot.y <= self.upper + close
        )

    def contains(self, other: Box, close: float = 0.0) -> bool:
        """Tell whether another box lies within this one, or no further than so much outside it."""
        return (
            other.left >= self.left - close
            and other.lower >= self.lower - close
            and other.right <= self.right + close
            and other.upper <= self.upper + close
        )

    def meets(self, other: Box, close: float = 0.0) -> bool:
        """Tell whether two boxes have a place in common, or come as near as that."""
        return not (
            other.left > self.right + close
            or other.right < self.left - close
            or other.lower > self.upper + close
            or other.upper < self.lower - close
        )

    def apart(self, other: Box) -> float:
        """Return the distance of two boxes: no two places in them are nearer."""
        across = max(0.0, other.left - self.right, self.left - other.right)
        up = max(0.0, other.lower - self.upper, self.lower - other.upper)
        return math.hypot(across, up)


def around(spots: Iterable[Point]) -> Box:
    """Return the box about places, one at least."""
    xs, ys = zip(*((spot.x, spot.y) for spot in spots), strict=True)
    return Box(min(xs), min(ys), max(xs), max(ys))


def box_of(curve: Curve) -> Box:
    """Return the box about a curve with ends, or a circle."""
    return around(extremes(curve))


def together(boxes: Sequence[Box]) -> Box:
    """Return the box about several."""
    lefts, lowers, rights, uppers = zip(*boxes, strict=True)
    return Box(min(lefts), min(lowers), max(rights), max(uppers))


def neighbours(boxes: Sequence[Box], close: float) -> list[tuple[int, int]]:
    """Return every pair of boxes that meet or come as near as so much, in order, the lower index
    first."""
    if len(boxes) < 2:
        return []
    low, high = _pairs(np.array(boxes), close)
    order = np.lexsort((high, low))
    return list(zip(low[order].tolist(), high[order].tolist(), strict=True))


def nearest_first(boxes: Sequence[Box], most: float) -> list[tuple[float, int, int]]:
    """Return every pair of boxes that are no further apart than so much, with how far, the nearest
    first."""
    if len(boxes) < 2:
        return []
    sides = np.array(boxes)
    low, high = _pairs(sides, most)
    one, other = sides[low], sides[high]
    gaps = np.maximum(other[:, :2] - one[:, 2:], one[:, :2] - other[:, 2:]).clip(min=0.0)
    apart = np.hypot(*gaps.T)
    order = np.lexsort((high, low, apart))
    order = order[apart[order] <= most]
    return list(zip(apart[order].tolist(), low[order].tolist(), high[order].tolist(), strict=True))


class Sides:
    """The sides of many boxes, asked at once which are near a point."""

    def __init__(self, boxes: Sequence[Box]) -> None:
        self._left, self._lower, self._right, self._upper = np.array(boxes).reshape(-1, 4).T

    def nearest_first(self, x: float, y: float) -> list[tuple[float, int]]:
        """Return how far each box is from a point, with its number, the nearest first."""
        apart = self._apart(x, y)
        order = np.argsort(apart, kind="stable")
        return list(zip(apart[order].tolist(), order.tolist(), strict=True))

    def within(self, x: float, y: float, close: float) -> list[int]:
        """Return the numbers of the boxes that are no further from a point than so much."""
        result: list[int] = np.flatnonzero(self._apart(x, y) <= close).tolist()
        return result

    def _apart(self, x: float, y: float) -> npt.NDArray[np.float64]:
        across = np.maximum(np.maximum(self._left - x, x - self._right), 0.0)
        up = np.maximum(np.maximum(self._lower - y, y - self._upper), 0.0)
        result: npt.NDArray[np.float64] = np.hypot(across, up)
        return result


def _pairs(sides: npt.NDArray[np.float64], close: float) -> npt.NDArray[np.intp]:
    """Return the pairs of boxes that meet when grown by so much, the lower indices above the
    higher.

    Sorted from left to right, so that each is compared with those alone that begin before it ends.
    """
    order = np.argsort(sides[:, 0], kind="stable")
    left, lower, right, upper = sides[order].T
    begun = np.searchsorted(left, right + close, side="right") - np.arange(len(order)) - 1
    one = np.repeat(np.arange(len(order)), begun)
    other = one + 1 + np.arange(len(one)) - np.repeat(np.cumsum(begun) - begun, begun)
    meets = (lower[other] <= upper[one] + close) & (upper[other] >= lower[one] - close)
    pairs: npt.NDArray[np.intp] = np.sort((order[one[meets]], order[other[meets]]), axis=0)
    return pairs
