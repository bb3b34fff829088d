"""Which act slipped: the slip whose outline, drawn with the usual errors of a hand, comes nearest
to what is seen.

Those whose outlines lie nearest as they are, both ways, are held against the sheet with the errors
of a hand (`likely`). A slip is told where what is seen is much likelier of it than of none; all of
which it is about as likely are told too."""

from __future__ import annotations

import math
from bisect import insort
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field, replace

import numpy as np
import numpy.typing as npt

from ..desk import Work
from ..memo import remembered
from ..rehearsal.hand import Hand
from ..rehearsal.many import Hands, Places, Reals
from .errors import alongside, errors_of
from .in_order import InOrder, in_order
from .likely import Laid, laid_over, outline_of
from .lined import FEWEST, LinedPiece, lined_in
from .seen import Seen, from_arcs, from_run, pairs, tree_of
from .slipped import Slip, carry_out_slipped
from .slips import slips_of
from .traces import SOUND, TOLD, elsewhere, traced

FAR = 3.0
"""Distance beyond which a place is no more than far from a stroke, mm."""

AS_WELL = 10.0
"""Within which one slip explains a sheet as well as another: twice the logarithm of how much
likelier it is of the one."""

AT_ONE_ACT, UNEXPLAINED = 25.0, 0.25
"""Within which another slip of the same act is told as well, or within which share of what the
likeliest leaves unexplained: what lies between the two is what a hand errs in setting one size, and
the step to look at is the same (tried: where a wrong one of two was told, the right one was less
than 22 behind; 68 where 297 were left)."""

CANDIDATES, FEW, LAST = 16, 8, 3
"""Slips that are held against a sheet with the errors of a hand, those that are so once more from
where the best has come to, and those with the errors that a hand has after them."""

CLOSE = 0.25
"""Within which one slip may yet turn out likelier than another: twice the logarithm of how much
likelier it is of the other so far, for each place along the outlines."""

SHORT = 0.5
"""By how much arcs may fall short of each other for a mark to be pricked between them, mm: who
finds them further apart looks for the slip, and finishes no sheet with it."""

ALIKE = 0.5
"""Distance within which two outlines are one figure, mm."""

SET = 0.8
"""Within what a hand sets or measures a size, mm: a thirty-second of an inch."""

MOST_PLACES = 500
"""Places that are seen whose distance from every outline is taken."""

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
        Those with which a sheet can be finished, and that leave a trace in what is lined in by
        which they can be told.
    pieces : tuple of LinedPiece
        By a hand that suffers none but what is known already, and one for each slip.
    errors : tuple of array of complex, (places, errors)
        What errors of a hand move of each piece, mm on paper, one standard deviation.
    mixed : array of float
        What each of these errors is a mixture of.
    factor : float
        Millimetres on paper for a unit of the plan.
    known : tuple of Slip
        Slips that every hand suffers.
    """

    order: InOrder
    slips: tuple[Slip, ...]
    pieces: tuple[LinedPiece, ...]
    errors: tuple[Places, ...]
    mixed: Reals
    factor: float
    known: tuple[Slip, ...] = ()

    def errors_after(self, slip: Slip) -> tuple[Places, ...]:
        """Return what errors of a hand move of each piece after a slip."""
        known = (*self.known, slip)
        return errors_of(self.order, self.factor, self.pieces, known, self.mixed).moves


BULK = 250
"""Bytes that are held against what is remembered of a plan as one piece of it."""


def _weigh(found: Hypotheses) -> int:
    own = sum(piece.places.nbytes for piece in found.pieces)
    return (own + sum(moves.nbytes for moves in found.errors)) // BULK


@remembered(_weigh)
def hypotheses(work: Work) -> Hypotheses:
    """Carry the acts of a plan out with every slip they may suffer, one for each hand: once for all
    its sheets.

    Raises
    ------
    NotDrawn
        Where an act stands on something that is not there.
    """
    return hypotheses_after(work, ())


def hypotheses_after(work: Work, known: tuple[Slip, ...]) -> Hypotheses:
    """Carry the acts of a plan out with every slip they may suffer besides those that have been
    made already.

    Parameters
    ----------
    work : Work
    known : tuple of Slip

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
    pieces = _thinned([p for p in lined_in(board, work.sheet.factor) if p.is_heavy])
    sheet = work.sheet
    low = complex(sheet.left, sheet.border) - complex(sheet.origin.x, sheet.origin.y)
    room = complex(sheet.width - sheet.border - sheet.left, sheet.height - 2 * sheet.border)
    finished = board.short * work.sheet.factor <= SHORT
    finished &= _can_be_drawn(pieces, low, low + room)
    errors = errors_of(order, work.sheet.factor, pieces, known)
    slipped = [hand for hand in np.flatnonzero(finished).tolist() if hand != SOUND]
    traces = list(traced(pieces, errors.moves, slipped))
    return Hypotheses(
        order,
        tuple(slips[hand - 1] for hand in traces),
        tuple(_of_hands(piece, [SOUND, *traces]) for piece in pieces),
        errors.moves,
        errors.mixed,
        work.sheet.factor,
        known,
    )


MOST_ALONG = 3000
"""Places along the outlines of a plan at which it is looked: a slip that is known may have made
them five times as long."""


def _thinned(pieces: Sequence[LinedPiece]) -> Sequence[LinedPiece]:
    step = math.ceil(sum(len(piece.places) for piece in pieces) / MOST_ALONG)
    if step <= 1:
        return pieces
    return [
        replace(piece, places=alongside(piece.places, max(FEWEST, len(piece.places) // step)))
        for piece in pieces
    ]


OVER = 3.0
"""How far over the border a line goes at most, mm: nobody draws on beyond it."""


def _can_be_drawn(
    pieces: Sequence[LinedPiece], low: complex, high: complex
) -> npt.NDArray[np.bool_]:
    """Tell of which hands all that they drew lies within the border."""
    result = np.ones(pieces[0].places.shape[1] if pieces else 1, bool)
    for piece in pieces:
        x, y = piece.places.real, piece.places.imag
        inside = (x > low.real - OVER) & (x < high.real + OVER)
        inside &= (y > low.imag - OVER) & (y < high.imag + OVER)
        result &= inside.all(axis=0) | ~piece.there
    return result


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
        How much likelier what is seen is of it than of no slip: twice the logarithm.
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
    unlikely : float
        How unlikely what is seen is of the best of them, or of no slip: minus twice the logarithm.
    leaves_anything : bool
        Whether the best of them leaves a piece to something else, or something that is drawn.
    drawn : dict of int to array of complex, (places,)
        Where the pieces of the best of them, or of no slip, come to lie by the errors of the hand.
    """

    slips: tuple[Explained, ...]
    unlikely: float = math.inf
    leaves_anything: bool = False
    drawn: Mapping[int, Places] = field(default_factory=dict)

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
    if not hypotheses.slips:
        return as_planned(hypotheses, seen)
    held = _Held(hypotheses, seen, _nearest(hypotheses.pieces, seen))
    held.lay_after()
    # Errors alone, or those of another slip, may have brought it there as well.
    best, *others = held.nearest
    for hand in (SOUND, *others[: FEW - 1]):
        held.lay(hand, hypotheses.errors, held.laid[best].drawn)
    for hand in held.nearest[:FEW]:
        if held.gain > TOLD:
            held.lay(SOUND, hypotheses.errors, held.laid[hand].drawn)
    if held.gain <= TOLD:
        return Named((), held.unlikely[SOUND], drawn=held.laid[SOUND].drawn)
    best, *_ = held.nearest
    gain = {hand: held.unlikely[SOUND] - held.unlikely[hand] for hand in held.nearest}

    of_one_act = max(AT_ONE_ACT, UNEXPLAINED * held.unlikely[best])

    def is_as_likely(hand: int) -> bool:
        reach = of_one_act if _is_of_one_act(hypotheses, hand, best) else AS_WELL
        return (
            gain[hand] >= gain[best] - reach
            or _alike(hypotheses.pieces, hand, best)
            or _set_alike(hypotheses, hand, best)
        )

    as_well = filter(is_as_likely, held.nearest)
    slips = each_once([explained(hypotheses, hand, gain[hand]) for hand in as_well])
    laid = held.laid[best]
    return Named(slips, held.unlikely[best], laid.leaves_anything, laid.drawn)


def as_planned(hypotheses: Hypotheses, seen: Seen) -> Named:
    """Return where the pieces lie of which no slip is told."""
    outline = outline_of(hypotheses.pieces, hypotheses.errors, SOUND)
    return Named((), drawn=laid_over(outline, seen).drawn)


class _Held:
    """Slips held against what is seen, with the errors of a hand.

    Attributes
    ----------
    laid : dict of int to Laid
        The outlines of hands as they were laid over it best.
    unlikely : dict of int to float
        How unlikely what is seen is of each: minus twice the logarithm.
    """

    def __init__(self, hypotheses: Hypotheses, seen: Seen, hands: Sequence[int]) -> None:
        self._hypotheses, self._seen = hypotheses, seen
        self.laid = {
            hand: laid_over(outline_of(hypotheses.pieces, hypotheses.errors, hand), seen)
            for hand in (SOUND, *hands)
        }
        self._usual = min(each.usual for each in self.laid.values())
        self.unlikely = {hand: self._of(hand, each) for hand, each in self.laid.items()}

    @property
    def nearest(self) -> Sequence[int]:
        """The hands that suffer a slip, the likeliest first."""
        hands = [hand for hand in self.laid if hand != SOUND]
        return sorted(hands, key=lambda hand: self.unlikely[hand])

    @property
    def gain(self) -> float:
        """How much likelier what is seen is of the likeliest slip than of none."""
        return self.unlikely[SOUND] - self.unlikely[self.nearest[0]]

    @property
    def close(self) -> Sequence[int]:
        """The few that are about as likely as the likeliest; none where that stands alone, or where
        another slip is known: what its errors move has been worked out after that already."""
        if self._hypotheses.known:
            return []
        reach = CLOSE * sum(len(piece.places) for piece in self._hypotheses.pieces)
        most = min(self.unlikely.values()) + reach
        close = [h for h in (SOUND, *self.nearest[:LAST]) if self.unlikely[h] <= most]
        return [hand for hand in close if hand != SOUND] if len(close) > 1 else []

    def lay_after(self) -> None:
        """Lay those that are about as likely once more: what an error moves may be otherwise after
        a slip, and is alike after those that draw the same."""
        pieces, after = self._hypotheses.pieces, dict[int, Sequence[Places]]()
        for hand in self.close:
            slip = self._hypotheses.slips[hand - 1]
            if slip.sort == "left out":
                continue
            same = (moves for other, moves in after.items() if _alike(pieces, other, hand))
            after[hand] = next(same, ()) or self._hypotheses.errors_after(slip)
            self.lay(hand, after[hand])

    def lay(
        self, hand: int, errors: Sequence[Places], near: Mapping[int, Places] | None = None
    ) -> None:
        """Lay the outline of a hand over it once more, with what errors move and, where it is said,
        from where its places may have come to lie: what is likelier counts."""
        outline = outline_of(self._hypotheses.pieces, errors, hand)
        again = laid_over(outline, self._seen, near)
        if self._of(hand, again) < self.unlikely[hand]:
            self.laid[hand], self.unlikely[hand] = again, self._of(hand, again)

    def _of(self, hand: int, laid: Laid) -> float:
        weight = self._hypotheses.slips[hand - 1].weight if hand != SOUND else 1
        return laid.unlikely(self._usual) - 2 * math.log(weight)


def _is_of_one_act(hypotheses: Hypotheses, hand: int, other: int) -> bool:
    """Tell whether two hands slip in the same act."""
    return hypotheses.slips[hand - 1].act is hypotheses.slips[other - 1].act


def explained(hypotheses: Hypotheses, hand: int, gain: float) -> Explained:
    slip = hypotheses.slips[hand - 1]
    step = hypotheses.order.steps.get(slip.act)
    return Explained(slip, step.number if step else 0, gain, hand)


def each_once(found: Sequence[Explained]) -> tuple[Explained, ...]:
    once: dict[tuple[int, str], Explained] = {}
    for each in found:
        once.setdefault((each.step, each.slip.key), each)
    return tuple(once.values())


def _set_alike(hypotheses: Hypotheses, one: int, other: int) -> bool:
    """Tell whether two slips set the same to nearly the same size: no hand sets it so closely."""
    a, b = hypotheses.slips[one - 1], hypotheses.slips[other - 1]
    near = abs(a.wrong - b.wrong) * hypotheses.factor <= SET
    return a.act is b.act and a.sort == b.sort == "size" and a.right == b.right and near


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


def _nearest(pieces: Sequence[LinedPiece], seen: Seen) -> Sequence[int]:
    """Return the hands whose outlines are nearest to what is seen as they are, and that to them, by
    the mean squares of both: no others are held against it with errors."""
    forth, back = _forth(pieces, seen), _Back(pieces, seen)
    found: list[tuple[float, int]] = []
    for hand in np.argsort(forth, kind="stable").tolist():
        if len(found) >= CANDIDATES and forth[hand] > found[-1][0]:
            break
        if hand != SOUND:
            insort(found, (forth[hand] + back.of(hand), hand))
            del found[CANDIDATES:]
    return [hand for _, hand in found]


def _forth(pieces: Sequence[LinedPiece], seen: Seen) -> Reals:
    """Return the mean square of how far every hand's outline is from what is seen, mm²."""
    count = pieces[0].places.shape[1]
    squares, numbers = np.zeros(count), np.zeros(count)
    for piece in pieces:
        shown = seen.shows(piece.places) & piece.there
        away = np.minimum(seen.away(piece.places), FAR)
        squares += np.sum(np.where(shown, away**2, 0.0), axis=0)
        numbers += np.count_nonzero(shown, axis=0)
    result: Reals = squares / np.maximum(numbers, 1)
    return result


class _Back:
    """How far what is seen is from outlines: worked out once for what a slip leaves where it
    was."""

    def __init__(self, pieces: Sequence[LinedPiece], seen: Seen) -> None:
        self._pieces = pieces
        self._places = seen.places[:: 1 + len(seen.places) // MOST_PLACES]
        self._changed = elsewhere(pieces)
        sound = [from_run(self._places, piece.places[:, SOUND]) for piece in pieces]
        self._sound = np.array(sound)

    def of(self, hand: int) -> float:
        """Return the mean square of the distance from a hand's outline, mm²."""
        if not len(self._places):
            return 0.0
        changed = self._changed[:, hand]
        away = np.minimum(np.min(self._sound[~changed], axis=0, initial=FAR), FAR)
        pieces = [self._pieces[n] for n in np.flatnonzero(changed).tolist()]
        there = [piece for piece in pieces if piece.there[hand]]
        if straights := [piece.places[:, hand] for piece in there if not piece.bowed[hand]]:
            tree = tree_of(straights, ROUGHLY)
            near = tree.query(pairs(self._places), distance_upper_bound=FAR)[0]
            away = np.minimum(away, near)
        if arcs := [piece.places[:, hand] for piece in there if piece.bowed[hand]]:
            away = np.minimum(away, from_arcs(self._places, arcs))
        return float(np.mean(away**2))


ROUGHLY = 1.0
"""Distance of places along an outline by which it is held against what is seen before its errors
are, mm."""
