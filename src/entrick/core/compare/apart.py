"""How far outlines as made are from outlines as meant."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

from ..geometry import Loop, Point
from ..geometry.loop import Boxed, boxed
from .along import places

LOOKED_AT = 720
"""Places of an outline at which it is looked at, beside its joints."""

SHARE = 0.25
"""Of its size, how far an outline may be from one as meant and still be that one."""


LEFT_OUT = 1.2
"""Times as far off as what was made something as meant is, and was left out (by eye)."""


@dataclass(frozen=True, slots=True)
class Spot:
    """A place of an outline as made.

    Attributes
    ----------
    at : Point
    along : float
        How far along the outline.
    off : float
        How far it is from where it is meant: more than nought where there is too much material.
    """

    at: Point
    along: float
    off: float


@dataclass(frozen=True, slots=True)
class Apart:
    """One outline as made against the one it is meant to be.

    Attributes
    ----------
    name : str
        As the plan calls it.
    spots : tuple of Spot
    missing : float
        How far a place of the outline as meant is from the outline as made, at most: what was left
        out shows there.
    missed_at : Point
    """

    name: str
    spots: tuple[Spot, ...]
    missing: float
    missed_at: Point

    @property
    def most(self) -> Spot:
        """Where it is furthest off."""
        return max(self.spots, key=lambda spot: abs(spot.off))

    @property
    def is_left_out(self) -> bool:
        """Whether something of the outline as meant is not there: from its side it is further off
        than any place as made."""
        return self.missing > LEFT_OUT * abs(self.most.off)

    @property
    def greatest(self) -> float:
        """How far it is off at most."""
        return self.missing if self.is_left_out else abs(self.most.off)

    @property
    def where(self) -> Point:
        """Where it is furthest off."""
        return self.missed_at if self.is_left_out else self.most.at

    @property
    def mean(self) -> float:
        """How far it is off in the mean."""
        return math.fsum(abs(spot.off) for spot in self.spots) / len(self.spots)


@dataclass(frozen=True, slots=True)
class Compared:
    """Everything as made against everything as meant.

    Attributes
    ----------
    outlines : tuple of Apart
        Those that are there both times.
    lacking : tuple of str
        Outlines as meant that were not made.
    extra : int
        Outlines as made that were not meant.
    """

    outlines: tuple[Apart, ...]
    lacking: tuple[str, ...]
    extra: int

    @property
    def greatest(self) -> float:
        """How far anything is off at most; infinite where an outline lacks."""
        if self.lacking or self.extra:
            return math.inf
        return max((each.greatest for each in self.outlines), default=0.0)

    def told(self, within: float, say: str) -> tuple[str, ...]:
        """Return what is not as it is meant, in words.

        Parameters
        ----------
        within : float
            How far off it may be.
        say : str
            How a length is written, as a format.
        """
        result = [f"{name} is not there" for name in self.lacking]
        if self.extra:
            more = "outline that was" if self.extra == 1 else "outlines that were"
            result.append(f"{self.extra} {more} not meant")
        for each in self.outlines:
            how = "too much material" if each.most.off > 0 else "too little material"
            if each.is_left_out:
                how = "something of it is left out"
            if each.greatest > within:
                at = f"{format(each.where.x, say)}, {format(each.where.y, say)}"
                result.append(f"{each.name}: off by {format(each.greatest, say)} at {at}, {how}")
        return tuple(result)


def compared(meant: Sequence[tuple[str, Loop]], made: Sequence[Loop]) -> Compared:
    """Hold outlines as made against outlines as meant, each against the one it lies nearest to.

    Parameters
    ----------
    meant : sequence of (str, Loop)
        Outlines of a plan with their names.
    made : sequence of Loop
        Where they lie over those.

    Returns
    -------
    Compared
        Every place is as far off as the nearest of the outline as meant: exactly, by lines and
        arcs.
    """
    rings = [boxed(loop) for _, loop in meant]
    left = list(range(len(made)))
    found: list[Apart] = []
    lacking: list[str] = []
    for n, (name, loop) in enumerate(meant):
        best = min(left, key=lambda k: _unlike(loop, made[k]), default=None)
        if best is None or _unlike(loop, made[best]) > SHARE * _size(loop):
            lacking.append(name)
            continue
        left.remove(best)
        spot = loop.pieces[0].entry
        depth = sum(ring.encloses(spot) for k, ring in enumerate(rings) if k != n)
        found.append(_apart(name, loop, rings[n], made[best], hole=depth % 2 == 1))
    return Compared(tuple(found), tuple(lacking), len(left))


def _size(loop: Loop) -> float:
    low, high = loop.box
    return abs(high - low)


def _unlike(one: Loop, other: Loop) -> float:
    """Return how far the boxes of two outlines are apart, corner from corner."""
    (a, b), (c, d) = one.box, other.box
    return max(abs(a - c), abs(b - d))


def _apart(name: str, meant: Loop, ring: Boxed, made: Loop, hole: bool) -> Apart:
    spots = []
    for spot, along in places(made, LOOKED_AT):
        off = abs(ring.nearest(spot) - spot)
        # Outside a rim, and inside a hole, there is too much.
        too_much = meant.closed and ring.encloses(spot) == hole
        spots.append(Spot(spot, along, off if too_much or not meant.closed else -off))
    there = boxed(made)
    far = [(abs(there.nearest(spot) - spot), spot) for spot, _ in places(meant, LOOKED_AT)]
    missing, missed_at = max(far, key=lambda each: each[0])
    return Apart(name, tuple(spots), missing, missed_at)
