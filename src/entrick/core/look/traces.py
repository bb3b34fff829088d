"""Which slips leave a trace: something drawn where none belongs, or missing where it does, by more
than the errors of a hand account for."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from functools import cache

import numpy as np
import numpy.typing as npt
from scipy.spatial import KDTree  # type: ignore[import-untyped]

from ..rehearsal.many import Places
from .likely import FAR, SQUARE
from .lined import LinedPiece
from .seen import pairs, tree_of

SOUND = 0
"""The hand that suffers no slip."""

TOLD = 20.0
"""How much likelier what is seen has to be of a slip than of errors for it to be told, or what it
leaves for it to be tried: twice the logarithm."""

HARDLY = 0.035
"""What a slip moves by no more stays where it was, mm."""

TRACE = 0.4
"""How far a slip has to move something to leave a trace, mm."""


def traced(
    pieces: Sequence[LinedPiece], errors: Sequence[Places], hands: Sequence[int]
) -> Iterator[int]:
    """Yield the hands that drew anything where none belongs, or left out what does, so that it can
    be told from what a hand is off: what is moved along itself, or lies under another piece, cannot
    be seen, and what errors move as easily is not told from them.

    Parameters
    ----------
    pieces : sequence of LinedPiece
    errors : sequence of array of complex, (places, errors)
        What errors move of each piece, mm on paper, one standard deviation.
    hands : sequence of int
    """
    if not pieces:
        return
    sound = [piece.places[:, SOUND] for piece in pieces]
    every, by_errors = tree_of(sound), _Errors(errors)
    kept = cache(lambda own: _tree([run for n, run in enumerate(sound) if n not in own]))
    changes = elsewhere(pieces)
    for hand in hands:
        changed = tuple(np.flatnonzero(changes[:, hand]).tolist())
        drawn = [n for n in changed if pieces[n].there[hand]]
        places = [pieces[n].places[:, hand] for n in drawn]
        if by_errors.leave(_way(places, every), drawn):
            yield hand
            continue
        gone = [sound[n] for n in changed]
        runs = _tree([pieces[n].run(hand) for n in drawn])
        if by_errors.leave(_way(gone, kept(changed), runs), changed):
            yield hand


def elsewhere(pieces: Sequence[LinedPiece]) -> npt.NDArray[np.bool_]:
    """Tell of each piece which hands have it elsewhere than it belongs, or not at all."""
    moved = [np.max(np.abs(p.places - p.places[:, :1]), axis=0) > HARDLY for p in pieces]
    result: npt.NDArray[np.bool_] = np.array(moved) | ~np.array([piece.there for piece in pieces])
    return result


def _tree(runs: Sequence[Places]) -> KDTree | None:
    return tree_of(runs) if runs else None


def _way(runs: Sequence[Places], *trees: KDTree | None) -> Places:
    """Return the way to the places of runs from what was drawn nearest to them; none where they lie
    on it."""
    places = np.concatenate([np.zeros(0, complex), *runs])
    found = np.full(len(places), FAR + 0j)
    for tree in trees:
        if tree is None:
            continue
        away, at = tree.query(pairs(places), distance_upper_bound=FAR)
        near = np.flatnonzero(away < np.abs(found))
        x, y = tree.data[at[near]].T
        found[near] = places[near] - (x + 1j * y)
    way: Places = np.where(np.abs(found) > TRACE, found, 0j)
    return way


class _Errors:
    """What the errors of a hand account for."""

    def __init__(self, errors: Sequence[Places]) -> None:
        self._moves = errors
        every = np.concatenate(errors)
        square = (every.conj().T @ every).real / SQUARE
        self._shares = np.linalg.inv(square + np.identity(every.shape[1]))

    def leave(self, way: Places, pieces: Sequence[int]) -> bool:
        """Tell whether they leave it to a slip, as far likelier, that the places of some pieces are
        so far off."""
        whole = float(np.sum(np.abs(way) ** 2)) / SQUARE
        if whole <= TOLD:
            return False
        ends = np.cumsum([len(self._moves[n]) for n in pieces])
        moved = np.zeros(len(self._shares))
        for n, own in zip(pieces, np.split(way, ends[:-1]), strict=True):
            if own.any():
                moved += (own.conj() @ self._moves[n]).real / SQUARE
        return whole - float(moved @ self._shares @ moved) > TOLD
