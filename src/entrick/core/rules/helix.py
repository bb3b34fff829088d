"""A helix seen square to its axis, on a cylinder or a cone.

Seen from the front a place at angle θ is r·cos θ from the axis and lead·θ/2π up it (definition).
"""

from __future__ import annotations

import math
from dataclasses import dataclass

from ..geometry import Point
from ..tolerance import NOUGHT, ROUND

MOST_TURNS = 30


@dataclass(frozen=True, slots=True)
class Helix:
    """A helix about an axis.

    Attributes
    ----------
    foot : Point
        Where its axis begins.
    up : Point
        Along the axis, of length 1.
    radius, top : float
        At its foot and at its end, plan units.
    lead : float
        Rise for a turn, plan units.
    whole : float
        Angle it goes through, radians.
    hand : int
        1 where it rises from left to right in front (right hand), -1 for a left hand.
    begin : float
        Angle at its foot, radians.
    """

    foot: Point
    up: Point
    radius: float
    top: float
    lead: float
    whole: float
    hand: int
    begin: float = math.pi

    @property
    def across(self) -> Point:
        """Square to the axis, of length 1."""
        return -self.up.normal

    @property
    def length(self) -> float:
        """Rise in all, plan units."""
        return self.lead * self.whole / math.tau

    def out(self, turn: float) -> float:
        """Return the radius so far along, plan units."""
        return self.radius + (self.top - self.radius) * turn / self.whole

    def place(self, turn: float) -> Point:
        """Return where it is after a turn in radians."""
        out = self.out(turn) * math.cos(turn + self.begin) * self.hand
        return self.foot + self.across * out + self.up * (self.lead * turn / math.tau)

    def heading(self, turn: float) -> Point:
        """Return which way it goes there, of length 1."""
        slim = (self.top - self.radius) / self.whole
        angle = turn + self.begin
        out = (slim * math.cos(angle) - self.out(turn) * math.sin(angle)) * self.hand
        return (self.across * out + self.up * (self.lead / math.tau)).unit

    def is_near(self, turn: float) -> bool:
        """Tell whether it is on the half that is seen there."""
        return math.sin(turn + self.begin) < 0

    def halves(self) -> list[float]:
        """Return where it begins, passes from one side to the other, and ends, radians."""
        sides = (k * math.pi - self.begin % math.pi for k in range(-1, 2 * MOST_TURNS + 4))
        return [0.0, *(turn for turn in sides if ROUND < turn < self.whole - ROUND), self.whole]

    def tight(self, start: float, end: float, half: float) -> float:
        """Return how far from its ends a half turn bends more tightly than a radius, radians (by halving)."""
        rise = self.lead / math.tau

        def bend(away: float) -> float:
            r, turn = self.out(start + away), start + away + self.begin
            ahead = math.hypot(r * math.sin(turn), rise)
            return ahead**3 / max(abs(r * math.cos(turn) * rise), NOUGHT)

        low, high = 0.0, (end - start) / 2
        if bend(low) >= half:
            return 0.0
        for _ in range(50):
            middle = (low + high) / 2
            low, high = (middle, high) if bend(middle) < half else (low, middle)
        return high
