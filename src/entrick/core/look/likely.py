"""How likely what is seen is of an outline, once a hand has drawn it with its usual errors.

The errors are chosen so that the outline comes as near to the strokes as they let it: what is off
as hands are off costs little, what no error explains costs as much as it is off. Least squares with
the errors' own weights (a normal prior), places far from every stroke counting less and less
(iteratively reweighted)."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from itertools import pairwise

import numpy as np
import numpy.typing as npt

from ..rehearsal.many import Places, Reals
from .lined import EVERY, LinedPiece, between
from .seen import Seen, from_arcs, pairs, to_the_left, tree_of

SHIFTED, TURNED = 0.5, 0.002
"""How far the view stands beside its place and how far askew as a rule, mm and radians: the border
is measured too."""

STROKE = 0.25
"""What a stroke is off what was drawn, mm, one standard deviation."""

TOGETHER = 4
"""Over how many places along it that hangs together."""

SQUARE = STROKE**2 * TOGETHER
"""Square of what is off that is as likely as one standard deviation, mm²."""

NARROWING = (3.0, 3.0, 2.0, 1.5, 1.5)
"""Distance beyond which a place is no more than far from a stroke, mm: wide at first, until the
outline is about where it belongs."""

FAR = NARROWING[-1]

AWAY, STRAYS = 1.0, 12
"""How far half of a piece has to be from every stroke for errors to leave it to something else, mm;
and how many places that are seen, far from every piece, are left to it too."""

USUALLY = 0.6
"""Square of what a hand errs, in standard deviations, at most, for each error: those of which
nothing is seen are laid as none."""

MOST_SEEN = 2500
"""Places that are seen whose distance from an outline is taken."""


@dataclass(frozen=True)
class Outline:
    """An outline as one hand draws it, piece after piece.

    Attributes
    ----------
    places : array of complex, (places,)
        Mm on paper from the datum.
    moves : array of complex, (places, errors)
        What each error moves, one standard deviation.
    counts : array of float, (places,)
        For how many each counts: of pieces that came out long and lie over each other, each is no
        more than its share.
    pieces : dict of int to slice
        Which places are whose, by the numbers of the pieces.
    bowed : tuple of bool
        Which of them are arcs that straights between their places run beside.
    """

    places: Places
    moves: Places
    counts: Reals
    pieces: Mapping[int, slice]
    bowed: tuple[bool, ...]

    @property
    def left(self) -> Places:
        """The direction square to it at each place, to the left."""
        own = (to_the_left(self.places[own]) for own in self.pieces.values())
        return np.concatenate([np.zeros(0, complex), *own])


def outline_of(pieces: Sequence[LinedPiece], errors: Sequence[Places], hand: int) -> Outline:
    """Return the outline of one of many hands.

    Parameters
    ----------
    pieces : sequence of LinedPiece
    errors : sequence of array of complex, (places, errors)
        What errors move of each piece.
    hand : int
    """
    there = [n for n, piece in enumerate(pieces) if piece.there[hand]]
    runs = [pieces[n].every(hand) for n in there]
    ends = np.cumsum([0, *map(len, runs)])
    places = np.concatenate([np.zeros(0, complex), *runs])
    view = (np.full(len(places), SHIFTED), np.full(len(places), 1j * SHIFTED))
    turn = 1j * TURNED * np.nan_to_num(places)
    own = [between(errors[n], len(run)) for n, run in zip(there, runs, strict=True)]
    moves = np.concatenate([np.zeros((0, errors[0].shape[1])), *own])
    whose = (slice(a, b) for a, b in pairwise(ends))
    is_long = [len(r) > len(errors[n]) for n, r in zip(there, runs, strict=True)]
    # Where a slip leaves nothing of an outline, there is nothing long either.
    long = np.repeat(np.array(is_long, bool), np.diff(ends))
    return Outline(
        places,
        np.column_stack((moves, *view, turn)),
        _shares(places, long),
        dict(zip(there, whose, strict=True)),
        tuple(bool(pieces[n].bowed[hand]) for n in there),
    )


def _shares(places: Places, long: npt.NDArray[np.bool_]) -> Reals:
    """Return for how many places count, of which some are on pieces that came out long."""
    result = np.ones(len(places))
    _, own, many = np.unique(
        np.round(np.nan_to_num(places[long]) / EVERY), return_inverse=True, return_counts=True
    )
    result[long] = 1 / many[own]
    return result


@dataclass(frozen=True)
class Laid:
    """An outline laid over what is seen.

    Attributes
    ----------
    drawn : dict of int to array of complex, (places,)
        Where the places of its pieces come to lie with the errors of the hand that bring it
        nearest.
    squares, counts : array of float, (places,)
        How far each is from the nearest stroke then, squared, mm², and for how many it counts.
    others : float
        How unlikely what is seen beside them and these errors are: minus twice the logarithm.
    strays : int
        How many of the places that are seen are far from all of them.
    usually : bool
        Whether these errors are no more than a hand makes, all in all.
    """

    drawn: Mapping[int, Places]
    squares: Reals
    counts: Reals
    others: float
    strays: int
    usually: bool

    @property
    def leaves_anything(self) -> bool:
        """Whether a piece is not where usual errors have it, or much is seen where none is."""
        ends = np.cumsum([0, *map(len, self.drawn.values())])
        off = (np.median(self.squares[a:b]) for a, b in pairwise(ends))
        return not self.usually or self.strays >= STRAYS or any(each > AWAY**2 for each in off)

    @property
    def usual(self) -> float:
        """What the places of a piece that was drawn are off, squared, mm²: half of them are off
        less."""
        return float(np.median(self.squares)) if len(self.squares) else FAR**2

    def unlikely(self, usual: float) -> float:
        """Return how unlikely what is seen is: minus twice the logarithm, but for what is the same
        of all outlines. A piece that lies as usual speaks neither for it nor against.

        Parameters
        ----------
        usual : float
            What places on a stroke are off, squared, mm².
        """
        return float(self.counts @ (self.squares - usual)) / SQUARE + self.others


def laid_over(outline: Outline, seen: Seen, near: Mapping[int, Places] | None = None) -> Laid:
    """Lay an outline over what is seen, as a hand may have drawn it.

    Parameters
    ----------
    outline : Outline
    seen : Seen
    near : dict of int to array of complex, (places,), optional
        Where its pieces may have come to lie, to begin with.
    """
    errors = _errors(outline, seen, None if near is None else _as_many(outline, near))
    drawn: Places = outline.places + outline.moves @ errors
    # What lies where nothing is seen speaks neither for an outline nor against.
    shown = seen.shows(drawn) | ~np.isfinite(drawn)
    forth = np.where(shown, np.minimum(np.abs(_to_stroke(drawn, seen)), FAR) ** 2, 0.0)
    beside = _from(drawn, outline, seen)
    back = np.minimum(beside, FAR) ** 2
    # Places of an outline are two millimetres apart, those that are seen one.
    unlikely = float(np.mean(back)) * len(seen.places) / 2 / SQUARE if len(back) else 0.0
    by_piece = {n: drawn[own] for n, own in outline.pieces.items()}
    made = float(errors @ errors)
    strays = int(np.count_nonzero(beside > FAR))
    usually = made <= USUALLY * len(errors)
    counts = np.where(shown, outline.counts, 0.0)
    return Laid(by_piece, forth, counts, unlikely + made, strays, usually)


def _as_many(outline: Outline, near: Mapping[int, Places]) -> Places:
    """Return where each place of an outline may have come to lie; none for what is not there."""
    places = np.full(len(outline.places), np.nan + 0j)
    for n, own in outline.pieces.items():
        if n in near:
            places[own] = between(near[n], own.stop - own.start)
    return places


def _errors(outline: Outline, seen: Seen, near: Places | None) -> Reals:
    """Return the errors with which an outline comes nearest, in standard deviations."""
    back = np.conj(outline.left)
    own = back[:, None] * outline.moves
    across, along = np.ascontiguousarray(own.real), own.imag
    there = np.isfinite(outline.places)
    errors: Reals = np.zeros(own.shape[1])
    weights = outline.counts / SQUARE
    if near is not None:
        there &= np.isfinite(near)
        errors = _least(across, weights * there, (back * (near - outline.places)).real)
    beyond = np.zeros(len(there), bool)
    for far in NARROWING if near is None else NARROWING[-2:]:
        away = back * _to_stroke(outline.places + outline.moves @ errors, seen)
        counts = np.where(there, weights / (1 + (np.abs(away) / (far / 2)) ** 4), 0.0)
        # What runs on beyond the end of a stroke is brought back along itself, and held there.
        beyond |= np.abs(away.imag) > np.maximum(np.abs(away.real), STROKE)
        rows = np.concatenate((across, along[beyond]))
        wanted = np.concatenate((away.real, away.imag[beyond])) + rows @ errors
        errors = _least(rows, np.concatenate((counts, counts[beyond])), wanted)
    return errors


def _least(across: Reals, weights: Reals, wanted: Reals) -> Reals:
    """Return the errors, each as likely as it is small, that move places as far as is wanted."""
    share = np.sqrt(weights)
    weighed = across * share[:, None]
    square = weighed.T @ weighed + np.identity(across.shape[1])
    return np.asarray(np.linalg.solve(square, weighed.T @ (share * np.nan_to_num(wanted))), float)


def _to_stroke(places: Places, seen: Seen) -> Places:
    """Return the way from places to the nearest stroke; far for what is not there."""
    there = np.isfinite(places)
    result: Places = np.where(there, seen.nearest(places) - np.nan_to_num(places), FAR + 0j)
    return result


def _from(drawn: Places, outline: Outline, seen: Seen) -> Reals:
    """Return how far places that are seen are from an outline as it is drawn, some of them."""
    some = seen.places[:: 1 + len(seen.places) // MOST_SEEN]
    found = np.full(len(some), FAR)
    runs = [drawn[own][np.isfinite(drawn[own])] for own in outline.pieces.values()]
    each = list(zip(runs, outline.bowed, strict=True))
    if straights := [run for run, is_bowed in each if len(run) and not is_bowed]:
        found = tree_of(straights).query(pairs(some))[0]
    if arcs := [run for run, is_bowed in each if len(run) and is_bowed]:
        found = np.minimum(found, from_arcs(some, arcs))
    return np.asarray(found, float)
