"""A run that keeps the same distance from another all along: a constant wall."""

from __future__ import annotations

from ..geometry.inset import inset
from ..geometry.shapes import ends as ends_of
from ..tolerance import SPECK
from .profile import Run, loop_of, middle_of, pieces_of

MOST_PIECES = 120
"""Pieces of a run whose walls are looked at."""


def wall_between(outer: Run, inner: Run, within: float) -> float | None:
    """Return how far a closed run lies inside another all along; None where that changes.

    Parameters
    ----------
    outer, inner : tuple of Line or Arc
    within : float
        How far it may differ.
    """
    pieces = pieces_of(inner)
    if not 3 <= len(pieces) <= MOST_PIECES or not 3 <= len(pieces_of(outer)) <= MOST_PIECES:
        return None
    round_it = loop_of(outer)
    spots = [spot for piece in pieces for spot in (ends_of(piece)[0], middle_of(piece))]
    wall = round_it.distance(spots[1])
    if wall <= SPECK or not round_it.encloses(spots[1]):
        return None
    if any(abs(round_it.distance(spot) - wall) > within for spot in spots):
        return None
    insides = inset(round_it, wall)
    same = len(insides) == 1 and abs(insides[0].length - loop_of(inner).length) <= within * (
        len(pieces) + 3
    )
    return wall if same else None
