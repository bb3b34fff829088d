"""How far a view stands from where it belongs on the sheet."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np

from ..rehearsal.many import Places, Reals
from .lined import LinedPiece, between
from .strokes import SeenStrokes
from .traces import SOUND
from .which import Named

SPREAD = 40
"""How far a view is looked for from where it belongs, mm."""

STEP = 2.0
"""Steps in which it is looked for, mm."""

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
    result: Reals = np.mean(np.minimum(seen.away(places + shifts[:, None]), FAR), axis=1)
    return result


def fine_shift(pieces: Sequence[LinedPiece], explained: Named) -> complex:
    """Return by how much a view stands beside its place where that is no more than a hand is off,
    mm: the middle of what its pieces lie beside where a hand without errors has them."""
    hand = explained.hand or SOUND
    away = [
        places - between(pieces[n].places[:, hand], len(places))
        for n, places in explained.drawn.items()
    ]
    every = np.concatenate([np.zeros(1, complex), *away])
    middle = complex(np.nanmedian(every.real), np.nanmedian(every.imag))
    return middle if abs(middle) < ELSEWHERE else 0j
