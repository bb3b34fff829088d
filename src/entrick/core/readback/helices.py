"""Helices as they are seen: an open run that goes from side to side of a cylinder in even waves."""

from __future__ import annotations

import math
from dataclasses import dataclass
from itertools import pairwise

from ..geometry import Arc, Line, Loop, Point
from ..geometry.loop import boxed
from ..geometry.shapes import ends as ends_of
from ..measure import Unit
from ..plan.reader import read_plan
from ..solve import solve
from .profile import Curve, Run, as_drawn, pieces_of
from .simplest import simplest

FEWEST_PLACES = 8
"""Places by which a wave is followed: what has fewer is lines or arcs that somebody meant."""

MOST_HALVES = 80

OFF = 0.004
"""How far a run may be off the helix it is taken for, as a share of its radius (by eye)."""


@dataclass(frozen=True, slots=True)
class Wound:
    """A helix found in a run.

    Attributes
    ----------
    said : str
        As a statement has it, from ``FOOT``.
    foot : Point
        On the axis, where it begins.
    halves : int
        Half turns, in turn before the axis and behind it.
    off : float
        How far the run is from it.
    curves : tuple
        Its pieces from the foot on.
    """

    said: str
    foot: Point
    halves: int
    off: float
    curves: tuple[Curve, ...]

    def walk(self, name: str) -> str:
        """Return the walk along it, once it has a name."""
        return " > ".join(
            f"{name}.{'back' if half % 2 else 'front'}.{half // 2 + 1}"
            for half in range(self.halves)
        )


def as_helix(run: Run, within: float, unit: Unit) -> tuple[Run, str]:
    """Return the helix an open run follows, and what is to be told of it; the run and nothing where
    it follows none, or is one already."""
    found = helix_in(run, within, unit)
    if found is None or found.off <= within:
        return run, ""
    what = found.said.partition(", from FOOT, ")[2]
    words = f"an open run follows a helix within {found.off:.2g}, and was taken for it: {what}"
    return found.curves, words


def helix_in(run: Run, within: float, unit: Unit) -> Wound | None:
    """Return the helix an open run is; None where it is none that stands level or plumb and begins
    and ends at a side of its cylinder.

    Seen from the side, a place of a helix lies r·cos(2πh/lead) beside its axis at height h."""
    pieces = pieces_of(run)
    spots = [*(ends_of(piece)[0] for piece in pieces), ends_of(pieces[-1])[1]] if pieces else []
    if len(spots) < FEWEST_PLACES:
        return None
    return next(
        (
            found
            for level in (False, True)
            if (found := _wound(run, spots, level, within, unit)) is not None
        ),
        None,
    )


def _wound(run: Run, spots: list[Point], level: bool, within: float, unit: Unit) -> Wound | None:
    # Along the axis, and to the right of it looking along.
    rows = [(spot.x, -spot.y) if level else (spot.y, spot.x) for spot in spots]
    if rows[0][0] > rows[-1][0]:
        rows.reverse()
    low, high = min(side for _, side in rows), max(side for _, side in rows)
    radius, axis = (high - low) / 2, (high + low) / 2
    (begun, first), (ended, _) = rows[0], rows[-1]
    close = max(within, OFF * radius)
    sides = [side > axis for _, side in rows if abs(side - axis) > close]
    halves = sum(a != b for a, b in pairwise(sides))
    if not 1 <= halves <= MOST_HALVES or abs(abs(first - axis) - radius) > close:
        return None
    lead = 2 * (ended - begun) / halves
    if lead <= 4 * close:
        return None
    left = first > axis
    sign = 1 if left else -1
    far = max(
        abs(side - axis - sign * radius * math.cos(math.tau * (at - begun) / lead))
        for at, side in rows
    )
    if far > close:
        return None
    foot = Point(begun, -axis) if level else Point(axis, begun)
    turns = " ".join(part for part in (str(halves // 2 or ""), "1/2" if halves % 2 else "") if part)
    near = close / 4
    words = (
        f"helix, from FOOT, diameter {simplest(2 * radius, unit, near)}, "
        f"lead {simplest(lead, unit, near)}, {turns} turns"
        f"{', left hand' if left else ''}{', level' if level else ''}"
    )
    return _held(words, foot, halves, run, close, unit)


def _held(said: str, foot: Point, halves: int, run: Run, close: float, unit: Unit) -> Wound | None:
    """Return a helix as it is drawn, and how far the run is from it."""
    found = Wound(said, foot, halves, 0.0, ())
    text = (
        f"units {unit.value}\nsheet A0\nO = datum, middle of sheet\n"
        f"P = point, {foot.x:.12f} right of O, {foot.y:.12f} above\n"
        f"h = {said.replace('FOOT', 'P')}\nseen = line in, {found.walk('h')}, open\n"
    )
    made = solve(read_plan(text)).entries[-1].made
    if not made or not made.loops:
        return None
    loop: Loop = made.loops[0]
    mine, theirs = boxed(as_drawn(run, close)), boxed(loop)
    places = [spot for piece in pieces_of(run) for spot in ends_of(piece)]
    off = max(
        *(abs(theirs.nearest(spot) - spot) for spot in places),
        *(abs(mine.nearest(piece.entry) - piece.entry) for piece in loop.pieces),
    )
    curves = tuple(p.curve for p in loop.pieces if isinstance(p.curve, Line | Arc))
    return Wound(said, foot, halves, off, curves) if off <= close else None
