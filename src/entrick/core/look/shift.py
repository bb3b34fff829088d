"""How far a view stands from where it belongs on the sheet."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np

from ..rehearsal.many import Places, Reals
from .fit import FittedCircle
from .lined import LinedPiece
from .measure import measured
from .strokes import SeenStrokes

SPREAD = 40
"""How far a view is looked for from where it belongs, mm."""

STEP = 2.0
"""Steps in which it is looked for, mm."""

MOST_ROUNDS = 40
"""Rounds by which it is told how far a view stands beside its place, the longest ones."""

ELSEWHERE = 1.0
"""How far a view has to stand from its place to be said to stand elsewhere, mm."""

FAR = 3.0

NEARLY = 0.6
"""Mean distance under which an outline is where it is looked for, mm."""


def shift_of(expected: Places, seen: SeenStrokes) -> complex:
    """Return how far a view stands from its place, mm: where nearly all of it is found elsewhere,
    and not here."""
    here = float(np.mean(np.minimum(seen.away(expected), FAR)))
    if here < NEARLY:
        return 0j
    steps = np.arange(-SPREAD, SPREAD + 1.0, STEP)
    grid = (steps[:, None] + 1j * steps).ravel()
    sparse = expected[:: max(1, len(expected) // 150)]
    costs = _cost_at(grid, sparse, seen)
    if float(np.min(costs)) > NEARLY + STEP:
        return 0j
    best = complex(grid[int(np.argmin(costs))])
    for reach in (1.0, 0.25):
        fine = np.arange(-reach, reach + reach / 4, reach / 4)
        near = (best + fine[:, None] + 1j * fine).ravel()
        best = complex(near[int(np.argmin(_cost_at(near, expected, seen)))])
    there = float(np.mean(np.minimum(seen.away(expected + best), FAR)))
    return best if there < NEARLY and there < here / 3 else 0j


def _cost_at(shifts: Places, places: Places, seen: SeenStrokes) -> Reals:
    found: Reals = np.mean(np.minimum(seen.away(places + shifts[:, None]), FAR), axis=1)
    return found


def fine_shift(seen: SeenStrokes, pieces: Sequence[LinedPiece], hand: int) -> complex:
    """Return by how much a view stands beside its place where that is no more than a hand is off,
    mm: the middle of what its pieces say."""
    rounds = sorted(
        (piece for piece in pieces if piece.centre is not None),
        key=lambda piece: -float(np.sum(np.abs(np.diff(piece.places[:, hand])))),
    )[:MOST_ROUNDS]
    found = measured(seen.straight, rounds, hand, seen.origin, seen.lightest)
    away = [
        each.fitted.centre - complex(each.piece.centre[hand])
        for each in found
        if isinstance(each.fitted, FittedCircle) and each.piece.centre is not None
        if each.fitted.centre_off < ELSEWHERE / 4
    ]
    if len(away) < 2:
        return 0j
    middle = complex(np.median(np.real(away)), np.median(np.imag(away)))
    return middle if abs(middle) < ELSEWHERE else 0j
