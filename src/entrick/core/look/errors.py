"""What the errors of a usual hand may move of an outline: each error by itself, one for each hand,
all carried out at once."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass

import numpy as np
from scipy.linalg import eigh  # type: ignore[import-untyped]
from scipy.sparse import csr_array  # type: ignore[import-untyped]

from ..rehearsal.carry_out import NotDrawn
from ..rehearsal.hand import Hand
from ..rehearsal.many import OneByOne, Places, Reals
from ..tolerance import SPECK
from .in_order import InOrder
from .lined import LinedPiece, lined_in
from .slipped import Slip, SlippedBoard, carry_out_slipped

NEXT_TO_NOTHING = 0.02
"""Sum of the squares of what an error moves, mm², under which it is left out: five places by no
more than a line is off."""

TORN = 8.0
"""An error that moves a place by more, mm, takes another way than the hand meant: it tells nothing
of how far hands are off."""

MOST = 100
"""Errors of which account is taken, those that move most."""


@dataclass(frozen=True)
class Errors:
    """What errors of a hand move, one standard deviation of each.

    Errors that move the same are taken together: each is a mixture of errors, no two of which have
    anything in common (principal components), so that a hand's share of each is a standard normal
    number.

    Attributes
    ----------
    moves : tuple of array of complex, (places, mixtures)
        For each piece, mm on paper; those that move most first.
    mixed : array of float, (errors, mixtures)
    """

    moves: tuple[Places, ...]
    mixed: Reals


def errors_of(
    order: InOrder,
    factor: float,
    pieces: Sequence[LinedPiece],
    known: Sequence[Slip] = (),
    mixed: Reals | None = None,
) -> Errors:
    """Return what errors of a hand move.

    Parameters
    ----------
    order : InOrder
    factor : float
        Millimetres on paper for a unit of the plan.
    pieces : sequence of LinedPiece
        The outline that is moved.
    known : sequence of Slip, optional
        Which every hand suffers.
    mixed : array of float, (errors, mixtures), optional
        Mixtures of errors that have been found already: a slip makes no others.

    Raises
    ------
    NotDrawn
        Where an act of the plan stands on something that is not there.
    """
    if not pieces:
        return Errors((), np.zeros((0, 0)))
    try:
        board = _one_by_one(order, factor, known)
    except NotDrawn:
        if not known:
            raise
        # Without any error a slip may leave what should cross parallel: errors are as they were.
        board = _one_by_one(order, factor, ())
    drawn = (piece for piece in lined_in(board, factor) if piece.is_heavy)
    whole = _moved(drawn, [len(piece.places) for piece in pieces])
    whole = whole.multiply(abs(whole).max(axis=0).toarray() <= TORN).tocsr()
    if mixed is None:
        mixed = _mixed(whole)
    ends = np.cumsum([2 * len(piece.places) for piece in pieces])
    both = (np.split(own, 2) for own in np.split(whole @ mixed, ends[:-1]))
    return Errors(tuple(across + 1j * up for across, up in both), mixed)


def _moved(drawn: Iterable[LinedPiece], counts: Sequence[int]) -> csr_array:
    """Return how far each error moves so many places of each piece, across and then up: few move
    any."""
    values, rows, columns = [], [], []
    first = errors = 0
    for piece, count in zip(drawn, counts, strict=True):
        places = alongside(piece.places, count)
        away = np.nan_to_num(places[:, 1:] - places[:, :1])
        row, column = np.nonzero(np.abs(away) >= SPECK)
        moved = away[row, column]
        values += [moved.real, moved.imag]
        rows += [first + row, first + count + row]
        columns += [column, column]
        first, errors = first + 2 * count, away.shape[1]
    every = (np.concatenate(rows), np.concatenate(columns))
    return csr_array((np.concatenate(values), every), (first, errors))


def _one_by_one(order: InOrder, factor: float, known: Sequence[Slip]) -> SlippedBoard:
    """Carry the acts out, every error by a hand of its own; the first makes none: by it the others
    know which way is meant."""
    counting = OneByOne(Hand(), 1, factor)
    carry_out_slipped(order.acts, counting, [known])
    count = counting.drawn + 1
    each = OneByOne(Hand(), count, factor, steady=1)
    return carry_out_slipped(order.acts, each, [known] * count)


def alongside(moved: Places, count: int) -> Places:
    """Return what is moved at so many places along a piece."""
    if len(moved) == count:
        return moved
    nearest = np.round(np.linspace(0, len(moved) - 1, count)).astype(int)
    places: Places = moved[nearest]
    return places


def _mixed(moves: csr_array) -> Reals:
    """Return the few mixtures of errors by which all of them move what they move, but for next to
    nothing."""
    count = moves.shape[1]
    if not count:
        return np.zeros((0, 0))
    square = (moves.T @ moves).toarray()
    squares, mixed = eigh(square, subset_by_index=(max(0, count - MOST), count - 1))
    result: Reals = mixed[:, squares > NEXT_TO_NOTHING][:, ::-1]
    return result
