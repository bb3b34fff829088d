"""Where a profile is alike on both sides, and how often a run comes again round a centre."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

from ..geometry import Line, Point
from ..geometry.loop import boxed
from ..geometry.shapes import ends as ends_of
from .match import Move, Places, images, loosely, mirrored, turned_by
from .profile import Piece, Run, is_whole, loop_of, pieces_of
from .tangent import runs_into

MOST_TIMES = 400
"""How often a run may come again round its centre."""


SHUT = 1 / 1000
"""Of its size, how far the ends of a run may be apart that goes all round."""


@dataclass(frozen=True, slots=True)
class Axes:
    """The lines a profile's rim is alike about: plumb, level, both or none.

    Attributes
    ----------
    centre : Point
        Where they lie.
    plumb, level : bool
    """

    centre: Point
    plumb: bool
    level: bool

    def line(self, way: str) -> Line:
        """Return one of them."""
        return Line(self.centre, Point(0.0, 1.0) if way == "plumb" else Point(1.0, 0.0))

    @property
    def ways(self) -> tuple[str, ...]:
        """The names of those there are."""
        return ("plumb",) * self.plumb + ("level",) * self.level


def rim_of(runs: Sequence[Run]) -> int:
    """Return the run round everything: that of the largest box, of those that close."""

    def extent(n: int) -> tuple[bool, float]:
        loop = loop_of(runs[n])
        low, high = loop.box
        shut = abs(loop.pieces[-1].exit - loop.pieces[0].entry) <= SHUT * abs(high - low)
        return shut, abs(high - low)

    return max(range(len(runs)), key=extent)


MOST_RUNS = 120
"""Outlines of which it is looked at how they lie within each other."""


def rims_of(runs: Sequence[Run]) -> set[int]:
    """Return the runs that bound material outside: those that lie in no other, or in a hole of
    one."""
    if len(runs) > MOST_RUNS:
        return {rim_of(runs)}
    rings = [boxed(loop_of(run)) for run in runs]
    spots = [ring.loop.pieces[0].entry for ring in rings]
    return {
        n
        for n, spot in enumerate(spots)
        if sum(ring.encloses(spot) for k, ring in enumerate(rings) if k != n) % 2 == 0
    }


def axes_of(runs: Sequence[Run], within: float) -> Axes:
    """Return the axes of the rim; of a round rim those about which most of what is within is
    alike."""
    rim = runs[rim_of(runs)]
    centre = (
        rim[0].centre if is_whole(rim) and not isinstance(rim[0], Line) else loop_of(rim).centroid
    )
    places = Places(rim, loosely(within))
    found = Axes(centre, True, True)
    alike = {
        way: images(rim, places, mirrored(found.line(way))) is not None
        for way in ("plumb", "level")
    }
    if len(rim) == 1 and len(runs) > 1:
        alike = {
            way: alike[way] and _is_shared(runs, rim, mirrored(found.line(way)), within)
            for way in alike
        }
    return Axes(centre, alike["plumb"], alike["level"])


def _is_shared(runs: Sequence[Run], rim: Run, move: Move, within: float) -> bool:
    others = [run for run in runs if run is not rim]
    known = [Places(run, loosely(within)) for run in others]
    kept = sum(
        any(images(run, places, move) is not None for places in known) for run in others[:40]
    )
    return 2 * kept >= len(others[:40])


def times_round(run: Run, within: float) -> tuple[int, Point]:
    """Return how often a run comes again round its middle, and the middle; once where it does
    not."""
    pieces = pieces_of(run)
    count = len(pieces)
    centre = loop_of(run).centroid
    places = Places(run, loosely(within))
    for each in range(1, count // 2 + 1):
        if count % each or count // each > MOST_TIMES:
            continue
        times = count // each
        for way in (1, -1):
            move = turned_by(centre, way * math.tau / times)
            first = places.of(move(pieces[0]))
            if first == each % count and images(run, places, move) is not None:
                return times, centre
    return 1, centre


def sector(run: Run, times: int) -> list[Piece]:
    """Return the pieces that come again, beginning at a corner where there is one: a round is not
    parted from what it touches."""
    pieces = pieces_of(run)
    each = len(pieces) // times

    def smooth(k: int) -> tuple[bool, float]:
        spot = ends_of(pieces[k])[0]
        return runs_into(pieces[k - 1], pieces[k], spot), -spot.y

    start = min(range(len(pieces)), key=smooth)
    return [pieces[(start + k) % len(pieces)] for k in range(each)]
