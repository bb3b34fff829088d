"""Which act slipped: the slip whose outline lies nearest to what is seen, both ways.

The cost of an outline is the mean square of its distance from the strokes that are seen, and of
theirs from it, each cut off where it is no more than far. A slip is told where it explains the
sheet better than no slip by more than the errors of a hand do; all that explain it as well are told
too."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
import numpy.typing as npt

from ..desk import Work
from ..rehearsal.hand import Hand
from ..rehearsal.many import Hands, Places, Reals
from .in_order import InOrder, in_order
from .lined import LinedPiece, lined_in
from .seen import Seen
from .slipped import Slip, carry_out_slipped
from .slips import slips_of

FAR = 3.0
"""Distance beyond which a place is no more than far from a stroke, mm."""

HAND = 0.35
"""What a usual hand is off, mm, one standard deviation."""

TOLD = 9.0
"""By how many squares of `HAND` a slip has to explain more than no slip does."""

AS_WELL = 3.0
"""Squares of `HAND` within which one slip explains a sheet as well as another."""

ALIKE = 0.5
"""Distance within which two outlines are one figure, mm."""

TRACE = 0.4
"""How far a slip has to move something to leave a trace, mm."""

MOST_PLACES = 500
"""Places that are seen whose distance from every outline is taken."""

SOUND = 0
"""The hand that suffers no slip."""

STEADY = 1 / 1_000_000
"""Share of its errors by which the hand errs that carries slips out: it takes the branches a hand
takes, not those of a figure that closes to the last digit."""


@dataclass(frozen=True)
class Hypotheses:
    """Everything that may have gone wrong, carried out.

    Attributes
    ----------
    order : InOrder
    slips : tuple of Slip
        Those that leave a trace in what is lined in.
    pieces : tuple of LinedPiece
        By a hand that suffers none but what is known already, and one for each slip.
    usual : tuple of float
        How far each piece of a usual hand that suffers none is off at most, mm on paper: nine in
        ten hands.
    known : tuple of Slip
        Slips that every hand suffers.
    """

    order: InOrder
    slips: tuple[Slip, ...]
    pieces: tuple[LinedPiece, ...]
    usual: tuple[float, ...]
    known: tuple[Slip, ...] = ()


def hypotheses(work: Work, known: tuple[Slip, ...] = ()) -> Hypotheses:
    """Carry the acts of a plan out with every slip they may suffer, one for each hand.

    Parameters
    ----------
    work : Work
    known : tuple of Slip, optional
        Slips that have been made already, whatever else was.

    Raises
    ------
    NotDrawn
        Where an act stands on something that is not there.
    """
    order = in_order(work)
    slips = slips_of(work, order)
    suffered = [known, *((*known, slip) for slip in slips)]
    hands = Hands(Hand().times(STEADY), len(suffered), 0, work.sheet.factor)
    board = carry_out_slipped(order.acts, hands, suffered)
    pieces = [piece for piece in lined_in(board, work.sheet.factor) if piece.is_heavy]
    sheet = work.sheet
    low = complex(sheet.left, sheet.border) - complex(sheet.origin.x, sheet.origin.y)
    room = complex(sheet.width - sheet.border - sheet.left, sheet.height - 2 * sheet.border)
    traces = [
        hand
        for hand in range(1, len(suffered))
        if _can_be_drawn(pieces, hand, low, low + room) and _leaves_a_trace(pieces, hand)
    ]
    return Hypotheses(
        order,
        tuple(slips[hand - 1] for hand in traces),
        tuple(_of_hands(piece, [SOUND, *traces]) for piece in pieces),
        _usual(order, work.sheet.factor, known, pieces),
        known,
    )


def _usual(
    order: InOrder, factor: float, known: tuple[Slip, ...], pieces: Sequence[LinedPiece]
) -> tuple[float, ...]:
    """Return how far each piece of a usual hand is off, mm: nine in ten of them."""
    hands = Hands(Hand(), USUAL + 1, 1, factor)
    board = carry_out_slipped(order.acts, hands, [known] * (USUAL + 1))
    drawn = [piece for piece in lined_in(board, factor) if piece.is_heavy]
    found = []
    for own, true in zip(drawn, pieces, strict=True):
        run = true.places[:, SOUND]
        away = from_run(own.places[:, 1:].ravel(), run).reshape(-1, USUAL)
        found.append(float(np.percentile(np.mean(np.minimum(away, FAR), axis=0), 90)))
    return tuple(found)


USUAL = 40
"""Usual hands that draw a plan, to see how far they come out off."""


OVER = 3.0
"""How far over the border a line goes at most, mm: nobody draws on beyond it."""


def _can_be_drawn(pieces: Sequence[LinedPiece], hand: int, low: complex, high: complex) -> bool:
    """Tell whether all that a hand drew lies within the border."""
    for piece in pieces:
        x, y = piece.places[:, hand].real, piece.places[:, hand].imag
        inside = (x > low.real - OVER) & (x < high.real + OVER)
        inside &= (y > low.imag - OVER) & (y < high.imag + OVER)
        if piece.there[hand] and not inside.all():
            return False
    return True


def _leaves_a_trace(pieces: Sequence[LinedPiece], hand: int) -> bool:
    for piece in pieces:
        if not piece.there[hand]:
            return True
        if np.max(np.abs(piece.places[:, hand] - piece.places[:, SOUND])) > TRACE:
            return True
    return False


def _of_hands(piece: LinedPiece, hands: Sequence[int]) -> LinedPiece:
    return LinedPiece(
        piece.drawn,
        piece.called,
        piece.places[:, hands],
        piece.there[hands],
        None if piece.centre is None else piece.centre[hands],
        None if piece.radius is None else piece.radius[hands],
    )


@dataclass(frozen=True)
class Explained:
    """A slip that explains what is seen.

    Attributes
    ----------
    slip : Slip
    step : int
        Of the order of work; 0 where none tells it.
    gain : float
        By how many squares of what a hand is off it explains the sheet better than no slip.
    hand : int
        Whose outline it is.
    """

    slip: Slip
    step: int
    gain: float
    hand: int


@dataclass(frozen=True)
class Named:
    """What explains a sheet.

    Attributes
    ----------
    slips : tuple of Explained
        The best, and all that explain it as well; empty where no slip does better than none.
    cost : float
        What is left unexplained, in squares of what a hand is off, for each piece.
    sound : float
        What no slip leaves unexplained.
    """

    slips: tuple[Explained, ...]
    cost: float
    sound: float

    @property
    def hand(self) -> int | None:
        """Whose outline is the nearest; None where it is that of no slip."""
        return self.slips[0].hand if self.slips else None


def named(hypotheses: Hypotheses, seen: Seen) -> Named:
    """Name the act whose slip explains what is seen.

    Parameters
    ----------
    hypotheses : Hypotheses
    seen : Seen
        In mm on paper from the datum.
    """
    squares, bears = _costs(hypotheses.pieces, hypotheses.usual, seen)
    costs = squares * len(hypotheses.pieces) / HAND**2
    sound = float(costs[SOUND])
    costs[~bears] = max(sound, float(np.max(costs)))
    if not hypotheses.slips or sound - float(np.min(costs)) <= TOLD:
        return Named((), sound, sound)
    likely = costs - 2 * np.log([1, *(slip.weight for slip in hypotheses.slips)])
    likely[SOUND] = np.inf
    best = int(np.argmin(likely))
    as_well = [
        hand
        for hand in map(int, np.argsort(likely)[:-1])
        if costs[hand] <= costs[best] + AS_WELL or _alike(hypotheses.pieces, hand, best)
    ]
    found = [explained(hypotheses, hand, sound - float(costs[hand])) for hand in as_well]
    return Named(each_once(found), float(costs[best]), sound)


def explained(hypotheses: Hypotheses, hand: int, gain: float) -> Explained:
    slip = hypotheses.slips[hand - 1]
    step = hypotheses.order.steps.get(slip.act)
    return Explained(slip, step.number if step else 0, gain, hand)


def each_once(found: Sequence[Explained]) -> tuple[Explained, ...]:
    once: dict[tuple[int, str], Explained] = {}
    for each in found:
        once.setdefault((each.step, each.slip.key), each)
    return tuple(once.values())


def _alike(pieces: Sequence[LinedPiece], one: int, other: int) -> bool:
    """Tell whether two slips draw the same."""
    return all(
        piece.there[one] == piece.there[other]
        and (
            not piece.there[one]
            or bool(np.max(np.abs(piece.places[:, one] - piece.places[:, other])) <= ALIKE)
        )
        for piece in pieces
    )


def _costs(
    pieces: Sequence[LinedPiece], usual: Sequence[float], seen: Seen
) -> tuple[Reals, npt.NDArray[np.bool_]]:
    """Return the cost of every hand's outline, mm², and whether the sheet bears it out: what its
    slip moves lies on strokes, and without it would lie further off than a usual hand draws; what
    it leaves out is not there."""
    count = pieces[0].places.shape[1] if pieces else 1
    squares, numbers = np.zeros(count), np.zeros(count)
    moved, without, moves, off = (np.zeros(count) for _ in range(4))
    for piece, own in zip(pieces, usual, strict=True):
        away = np.minimum(seen.away(piece.places), FAR)
        squares += np.where(piece.there, np.sum(away**2, axis=0), 0.0)
        numbers += np.where(piece.there, len(piece.places), 0)
        apart = np.max(np.abs(piece.places - piece.places[:, :1]), axis=0) > TRACE
        changed = (apart | ~piece.there) * len(piece.places)
        moves += changed
        moved += changed * np.where(piece.there, np.mean(away, axis=0), 0.0)
        without += changed * np.mean(away[:, SOUND])
        off += changed * max(own, OFF)
    forth = squares / np.maximum(numbers, 1)
    bears = (moved < ON * moves) & (without > TWICE * moved) & (without > off)
    back = _back(pieces, seen.places[:: 1 + len(seen.places) // MOST_PLACES])
    return forth + back, bears


ON, OFF = 1.0, 0.4
"""Mean distance from a stroke, mm, under which a piece lies on it, and over which it may not."""

TWICE = 1.6
"""How many times as far off what a slip moves would lie without it."""


def _back(pieces: Sequence[LinedPiece], places: Places) -> Reals:
    """Return the mean square of the distance of what is seen from every hand's outline, mm²: worked
    out once for what a slip leaves where it was."""
    count = pieces[0].places.shape[1]
    sound = np.array([from_run(places, piece.places[:, SOUND]) for piece in pieces])
    found = np.zeros(count)
    for hand in range(count):
        away = sound
        changed = [at for at, piece in enumerate(pieces) if _is_elsewhere(piece, hand)]
        if changed:
            away = sound.copy()
            for at in changed:
                piece = pieces[at]
                there = piece.there[hand]
                away[at] = from_run(places, piece.places[:, hand]) if there else FAR
        found[hand] = np.mean(np.minimum(np.min(away, axis=0), FAR) ** 2)
    return found


def _is_elsewhere(piece: LinedPiece, hand: int) -> bool:
    if not piece.there[hand]:
        return True
    moved = np.abs(piece.places[:, hand] - piece.places[:, SOUND])
    return bool(np.max(moved) > HAND / 10)


def from_run(places: Places, run: Places) -> Reals:
    """Return how far places are from a run of straights, mm."""
    start, along = run[:-1], np.diff(run)
    size = np.maximum(np.abs(along) ** 2, np.finfo(float).tiny)
    offset = places[:, None] - start
    share = np.clip((np.conj(along) * offset).real / size, 0.0, 1.0)
    found: Reals = np.min(np.abs(offset - share * along), axis=1)
    return found
