"""What the errors of a usual hand may move of an outline: each error by itself, one for each hand,
all carried out at once."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np
from scipy.linalg import eigh  # type: ignore[import-untyped]

from ..rehearsal.carry_out import NotDrawn
from ..rehearsal.hand import Hand
from ..rehearsal.many import OneByOne, Places, Reals
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


def errors_of(
    order: InOrder,
    factor: float,
    pieces: Sequence[LinedPiece],
    known: Sequence[Slip] = (),
) -> tuple[Places, ...]:
    """Return what errors of a hand move, one standard deviation of each.

    Errors that move the same are taken together: each column is a mixture of errors, no two of
    which have anything in common (principal components), so that a hand's share of each is a
    standard normal number.

    Parameters
    ----------
    order : InOrder
    factor : float
        Millimetres on paper for a unit of the plan.
    pieces : sequence of LinedPiece
        The outline that is moved.
    known : sequence of Slip, optional
        Which every hand suffers.

    Returns
    -------
    tuple of array of complex, (places, errors)
        For each piece, mm on paper; those that move most first.

    Raises
    ------
    NotDrawn
        Where an act of the plan stands on something that is not there.
    """
    if not pieces:
        return ()
    try:
        board = _one_by_one(order, factor, known)
    except NotDrawn:
        if not known:
            raise
        # Without any error a slip may leave what should cross parallel: errors are as they were.
        board = _one_by_one(order, factor, ())
    drawn = [piece for piece in lined_in(board, factor) if piece.is_heavy]
    moves = [
        alongside(own.places[:, 1:] - own.places[:, :1], len(piece.places))
        for own, piece in zip(drawn, pieces, strict=True)
    ]
    every = np.nan_to_num(np.concatenate(moves))
    most = np.abs(every).max(axis=0, initial=0.0)
    every = _main(every[:, most <= TORN])
    ends = np.cumsum([len(each) for each in moves])
    return tuple(np.split(every, ends[:-1]))


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
    found: Places = moved[nearest]
    return found


def _main(every: Places) -> Places:
    """Return the few mixtures of errors by which all of them move what they move, but for next to
    nothing."""
    rows: Reals = np.concatenate((every.real, every.imag))
    count = rows.shape[1]
    if not count:
        return every
    main = (max(0, count - MOST), count - 1)
    squares, mixed = eigh(rows.T @ rows, subset_by_index=main)
    found: Places = every @ mixed[:, squares > NEXT_TO_NOTHING][:, ::-1]
    return found
