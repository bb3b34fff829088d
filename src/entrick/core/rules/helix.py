"""A helix seen square to its axis, on a cylinder or a cone.

Seen from the front a place at angle θ is r·cos θ from the axis and lead·θ/2π up it (definition).
"""

from __future__ import annotations

import math
from dataclasses import dataclass

from ..geometry import Point
from ..tolerance import ROUND

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

    @property
    def is_tapered(self) -> bool:
        """Whether it goes round a cone."""
        return self.top != self.radius

    def along(self, start: float, end: float) -> float:
        """Return how long it is from a turn to another, radians: ∫√((dr/dθ)² + r² + (lead/2π)²)dθ,
        in closed form since r changes evenly."""
        slim = (self.top - self.radius) / self.whole
        a = math.hypot(slim, self.lead / math.tau)
        if slim == 0:
            return math.hypot(self.radius, a) * (end - start)

        def until(turn: float) -> float:
            out = self.out(turn)
            return (out * math.hypot(out, a) + a * a * math.asinh(out / a)) / (2 * slim)

        return until(end) - until(start)

    def unrolled(self, turn: float) -> Point:
        """Return where a place lies once its cone is unrolled: from the apex of the sector, along
        and square to where it begins.

        Notes
        -----
        A cone whose side makes α with its axis unrolls to a sector: r becomes r/sin α, an angle θ
        becomes θ·sin α. With even rise that is a spiral of Archimedes."""
        slope = abs(self.radius - self.top)
        share = slope / math.hypot(slope, self.length)
        out, angle = self.out(turn) / share, turn * share
        return Point(out * math.cos(angle), out * math.sin(angle))

    def is_near(self, turn: float) -> bool:
        """Tell whether it is on the half that is seen there."""
        return math.sin(turn + self.begin) < 0

    def halves(self) -> list[float]:
        """Return where it begins, passes from one side to the other, and ends, radians."""
        sides = (k * math.pi - self.begin % math.pi for k in range(-1, 2 * MOST_TURNS + 4))
        return [0.0, *(turn for turn in sides if ROUND < turn < self.whole - ROUND), self.whole]

    def edge(self, turn: float, off: float) -> Point:
        """Return the place so far to the left of it, as it goes, after a turn in radians."""
        return self.place(turn) + self.heading(turn).normal * off

    def emerges(self, start: float, end: float, half: float, off: float) -> float:
        """Return after which turn the inner edge of a round wire comes out of its end at `start`,
        on the way to `end`.

        Notes
        -----
        Where the curve bends more tightly than the wire is thick, its inner edge lies inside the
        round end first. It comes out where it is half the wire from the middle of that end (by
        halving)."""
        middle, whole = self.place(start), (end - start) / 2
        for share in (0.5**k for k in range(24)):
            if abs(self.edge(start + whole * share, off) - middle) < half:
                low, high = start + whole * share, start + whole * min(2 * share, 1.0)
                break
        else:
            return start
        for _ in range(60):
            turn = (low + high) / 2
            low, high = (turn, high) if abs(self.edge(turn, off) - middle) < half else (low, turn)
        return high
