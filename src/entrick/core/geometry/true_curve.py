"""Curves that are neither straight nor round, as they truly are: where they are, which way they
head, and where lines touch them."""

from __future__ import annotations

from abc import ABC, abstractmethod
from collections.abc import Callable
from itertools import pairwise

from .shapes import Point

HALVINGS = 60
"""Of a stretch in which something changes its sign: as fine as double precision."""


class TrueCurve(ABC):
    """A curve by a parameter, for many an angle: its places and directions are closed forms.

    Where lines touch it is found from those, by halving, for a curve that has no closed form for
    it."""

    __slots__ = ()

    @property
    @abstractmethod
    def span(self) -> tuple[float, float]:
        """The parameters between which it is drawn."""

    @abstractmethod
    def at(self, turn: float) -> Point:
        """Return its place at a parameter."""

    @abstractmethod
    def heading(self, turn: float) -> Point:
        """Return its direction there, of length 1, the way the parameter grows."""

    @property
    def frame(self) -> tuple[Point, Point, str]:
        """Whence its places are told: a point, which way is along, and what the point is called."""
        return self.at(self.span[0]), Point(1.0, 0.0), "its start"

    @property
    def parts(self) -> int:
        """How many parts of it are looked at one by one where something is sought."""
        return 180

    def drawn_at(self, turn: float) -> bool:
        """Tell whether a parameter lies on the part that is drawn."""
        first, last = self.span
        slack = (last - first) / HALVINGS**4
        return first - slack <= turn <= last + slack

    def nearest_turn(self, point: Point) -> float:
        """Return the parameter of the place nearest to a point, on the part that is drawn."""
        stations = self._stations()
        best = min(range(len(stations)), key=lambda i: abs(self.at(stations[i]) - point))
        low, high = stations[max(best - 1, 0)], stations[min(best + 1, len(stations) - 1)]

        def ahead(turn: float) -> float:
            return (self.at(turn) - point).dot(self.heading(turn))

        found = _changes(ahead, [low, stations[best], high])
        return min((stations[best], *found), key=lambda turn: abs(self.at(turn) - point))

    def touching_from(self, point: Point) -> tuple[float, ...]:
        """Return the parameters where tangents from a point touch."""

        def beside(turn: float) -> float:
            return self.heading(turn).cross(point - self.at(turn))

        return tuple(_changes(beside, self._stations()))

    def touching_along(self, direction: Point) -> tuple[float, ...]:
        """Return the parameters where tangents in a direction touch."""
        return tuple(_changes(lambda turn: self.heading(turn).cross(direction), self._stations()))

    def _stations(self) -> list[float]:
        first, last = self.span
        return [first + (last - first) * index / self.parts for index in range(self.parts + 1)]


def _changes(value: Callable[[float], float], stations: list[float]) -> list[float]:
    """Return where a value passes nought, by halving the stretches in which it changes its sign."""
    result: list[float] = []
    for low, high in pairwise(stations):
        below, above = value(low), value(high)
        if below == 0:
            result.append(low)
        elif below * above < 0:
            result.append(_halved(value, low, high, below))
    if stations and value(stations[-1]) == 0:
        result.append(stations[-1])
    return result


def _halved(value: Callable[[float], float], low: float, high: float, below: float) -> float:
    for _ in range(HALVINGS):
        middle = (low + high) / 2
        if value(middle) * below > 0:
            low = middle
        else:
            high = middle
    return (low + high) / 2
