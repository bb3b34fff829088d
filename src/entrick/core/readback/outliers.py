"""Points of an outline that lie off what all around them follow: a slip of whoever measured, and no
corner."""

from __future__ import annotations

from collections.abc import Sequence
from statistics import median

from ..geometry import Line, Point
from ..geometry.shapes import ends as ends_of
from .profile import Run, pieces_of

MANY = 60
"""Points of an outline from which on somebody measured them, and did not give them."""

FAR, NEAR = 20.0, 4.0
"""How far off a point is left out, and how near those beside it then are: in what points are off
their neighbours in the middle (by eye)."""

MOST = 0.03
"""Of the points, how many may be left out."""


def without_outliers(run: Run, within: float) -> tuple[Run, list[Point]]:
    """Return an outline of many points without those that lie off it alone, and where they lay.

    Parameters
    ----------
    run : tuple
        Closed.
    within : float
        How far points may be off.
    """
    pieces = pieces_of(run)
    if len(pieces) < MANY or not all(isinstance(piece, Line) for piece in pieces):
        return run, []
    spots = [ends_of(piece)[0] for piece in pieces]
    usual = max(median(_off(spots, k) for k in range(len(spots))), within)
    dropped: list[Point] = []
    for spot in sorted(spots, key=lambda spot: -_off(spots, spots.index(spot)))[: len(spots) // 8]:
        k = spots.index(spot)
        if _off(spots, k) <= FAR * usual:
            continue
        without = [*spots[:k], *spots[k + 1 :]]
        if max(_off(without, k - 1), _off(without, k % len(without))) <= NEAR * usual:
            spots = without
            dropped.append(spot)
    if not dropped or len(dropped) > MOST * len(pieces):
        return run, []
    sides = zip(spots, [*spots[1:], spots[0]], strict=True)
    return tuple(Line.between(a, b) for a, b in sides), dropped


def _off(spots: Sequence[Point], k: int) -> float:
    """Return how far a point lies from the line through those beside it."""
    a, b = spots[k - 1], spots[(k + 1) % len(spots)]
    if a == b:
        return abs(spots[k] - a)
    return abs(Line.between(a, b).offset_of(spots[k]))


def told_of(dropped: Sequence[Point]) -> str:
    """Return what is told of points that were left out."""
    places = "; ".join(f"{spot.x:.6g}, {spot.y:.6g}" for spot in dropped[:6])
    more = f" and {len(dropped) - 6} more" if len(dropped) > 6 else ""
    one = len(dropped) == 1
    return (
        f"{len(dropped)} point{'' if one else 's'} left out that {'lies' if one else 'lie'} off "
        f"what all around follow: {places}{more}"
    )
