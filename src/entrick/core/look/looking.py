"""A straightened picture of a finished sheet, looked at.

Nothing is called off that lies within what the measuring itself may be off."""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, replace

import numpy as np

from ..acts.act import GoOver
from ..desk import Work
from ..rehearsal.many import Places
from .finding import TOLERANCE, Finding
from .finish import EXTRA, extra_lines, fine_lines, of_the_finish, on_any
from .joins import joins
from .lined import LinedPiece
from .measure import FOUND, Measured, measured
from .rows import is_elsewhere, lining, rows_of, with_steps
from .seen import SomeOf, pairs, tree_of
from .shift import ELSEWHERE, FAR, fine_shift, shift_of
from .straight import Straight
from .strokes import SeenStrokes
from .telling import TOO_FAINT, notes, sentence, told_slip
from .traces import SOUND
from .which import AS_WELL, Hypotheses, Named, as_planned, hypotheses, hypotheses_after, named

OTHER_SHEET = 0.34
"""Share of the pieces that have to be where any slip would have them: else it is another sheet."""

BEGUN = 0.1
"""Share of its outline that has to be lined in for a sheet to be looked at."""

MOST_OF_IT = 0.6
"""Share of a piece that is drawn where it is, on a sheet that is not finished."""


MUCH, MOSTLY = 0.7, 0.4
"""How unlikely what is seen has to be yet, once slips are named, for none of them to be told: twice
the logarithm for each place along the outlines (of what slips explain a fifth to a half is left),
and as a share of what it was before."""


class NotThisSheet(Exception):
    """The sheet that is looked at is not one of this plan."""


def look_at(work: Work, straight: Straight, tolerance: float = TOLERANCE) -> Finding:
    """Look at a straightened picture of a finished sheet.

    Parameters
    ----------
    work : Work
        The plan that was to be drawn.
    straight : Straight
    tolerance : float
        Mm on paper.

    Raises
    ------
    NotThisSheet
        Where next to nothing of the plan is anywhere near its place, whatever slipped.
    NotDrawn
        Where the acts of the plan cannot be carried out.
    """
    every = hypotheses(work)
    if not every.pieces:
        raise NotThisSheet("nothing is lined in on this plan: there is no outline to look for")
    view = _view(work, every, straight)
    seen, figure, explained = view.seen, view.figure, view.explained
    if _is_unfinished(every, figure, SOUND) and _is_unfinished(every, figure, explained.hand):
        explained = as_planned(every, figure)
    unfinished = _is_unfinished(every, figure, explained.hand)
    hand, pieces, second = explained.hand or SOUND, every.pieces, Named(())
    beside = fine_shift(pieces, explained)
    at = seen.origin + beside
    found = measured(straight, pieces, hand, at, seen.lightest, _lain(explained, beside))
    if explained.leaves_anything and not unfinished and any(map(is_elsewhere, found)):
        after = hypotheses_after(work, (explained.slips[0].slip,))
        second = named(after, figure)
        if second.slips:
            hand, pieces = second.slips[0].hand, _from_sound(after.pieces, every.pieces)
            found = measured(straight, pieces, hand, at, seen.lightest, _lain(second, beside))
    places = sum(len(piece.places) for piece in every.pieces)
    if not unfinished and _leave_most(explained, second, places):
        explained, second = as_planned(every, figure), Named(())
        hand, pieces = SOUND, every.pieces
        found = measured(straight, pieces, hand, at, seen.lightest, _lain(explained, beside))
    if unfinished:
        found = tuple(_lined_in(found))
    else:
        _refuse_another(work, found, len(pieces))
    rows = tuple(with_steps(rows_of(work, pieces, found, tolerance), pieces, every))
    unfinished = unfinished and any(row.judged == "missing" for row in rows)
    met = tuple(joins(work, found))
    extra = extra_lines(figure.places, pieces, hand)
    shift = view.shift + beside
    slips = tuple(map(told_slip(every), explained.slips))
    more = tuple(map(told_slip(every), second.slips))
    return Finding(
        rows,
        slips,
        more,
        sentence(rows, slips, more, unfinished),
        tuple(notes(rows, found, met, straight, shift, extra)),
        met,
        (shift.real, shift.imag),
        tolerance,
        unfinished,
        extra,
    )


@dataclass(frozen=True)
class _View:
    """The view of a sheet.

    Attributes
    ----------
    seen : SeenStrokes
    figure : SomeOf
        What has to be explained of it.
    shift : complex
        How far it stands from where it belongs, mm.
    explained : Named
    """

    seen: SeenStrokes
    figure: SomeOf
    shift: complex
    explained: Named


def _view(work: Work, every: Hypotheses, straight: Straight) -> _View:
    """Return the view of a sheet where it stands.

    Raises
    ------
    NotThisSheet
        Where nothing is lined in.
    """
    origin = complex(work.sheet.origin.x, work.sheet.origin.y)
    expected = np.concatenate([piece.places[:, SOUND] for piece in every.pieces])
    fine = fine_lines(work, every.pieces)

    def standing(seen: SeenStrokes) -> _View:
        _refuse_unlined(work, every.pieces, seen)
        figure = SomeOf(seen, seen.places[~of_the_finish(work, every.pieces, seen)])
        return _View(seen, figure, seen.origin - origin, named(every, figure))

    here = SeenStrokes(straight, origin, expected, fine)
    shift = shift_of(expected, here)
    if abs(shift) <= ELSEWHERE:
        return standing(here)
    moved = standing(SeenStrokes(straight, origin + shift, expected, fine))
    planned = standing(here)
    # Nobody begins elsewhere by just as much as a slip puts everything.
    slipped = planned.explained.slips and not moved.explained.slips
    if slipped and planned.explained.unlikely <= moved.explained.unlikely + AS_WELL:
        return planned
    return moved


def _refuse_unlined(work: Work, pieces: Sequence[LinedPiece], seen: SeenStrokes) -> None:
    """Refuse a sheet on which nothing is as dark as an outline."""
    # Hatching is everywhere, and lighter than what it crosses.
    crossing = [mark for _, mark in work.sheet.finish if mark.role != "hatch"]
    lined = np.count_nonzero(~on_any(crossing, seen.lined_in))
    long = sum(float(np.sum(np.abs(np.diff(piece.places[:, SOUND])))) for piece in pieces)
    if lined < BEGUN * long:
        raise NotThisSheet(
            "next to nothing is lined in on this sheet yet: beside its border all lines are light. "
            "Line its outlines in, then look again"
        )


def _lain(explained: Named, beside: complex) -> Mapping[int, Places]:
    """Return where pieces lie in a view that stands so far beside its place."""
    return {n: places - beside for n, places in explained.drawn.items()}


def _leave_most(first: Named, second: Named, places: int) -> bool:
    """Tell whether slips that are named leave much of what is seen as unlikely as it was: something
    else went wrong."""
    if not first.slips:
        return False
    before = first.unlikely + first.slips[0].gain
    left = second.unlikely if second.slips else first.unlikely
    return left > max(MUCH * places, MOSTLY * before)


def _is_unfinished(every: Hypotheses, seen: SomeOf, hand: int | None) -> bool:
    """Tell whether several pieces are not lined in where a hand has them, and nothing is drawn
    where it has none."""
    own = hand or SOUND
    drawn = [piece.run(own) for piece in every.pieces if piece.there[own]]
    if not drawn or len(_undone(every, own, seen)) <= 1:
        return False
    beside = tree_of(drawn).query(pairs(seen.places), distance_upper_bound=FAR)[0]
    return bool(np.count_nonzero(np.isinf(beside)) < EXTRA)


def _undone(every: Hypotheses, hand: int, seen: SomeOf) -> set[GoOver | None]:
    """Return what would line in the pieces of which nothing is seen where a hand has them."""
    done_by = lining(every)
    return {
        done_by.get(piece.planned)
        for piece in every.pieces
        if np.mean(seen.away(piece.places[:, hand]) > FAR) > 1 - FOUND
    }


def _lined_in(found: Sequence[Measured]) -> Iterator[Measured]:
    """Yield what is lined in for sure, where not everything is: light lines cross it or lie there
    as well."""
    dark = max((each.dark for each in found), default=0.0)
    for each in found:
        if each.seen > MOST_OF_IT and each.dark > TOO_FAINT * dark:
            yield each


def _refuse_another(work: Work, found: Sequence[Measured], count: int) -> None:
    there = sum(not is_elsewhere(each) for each in found)
    if there < OTHER_SHEET * count:
        name = work.solution.drawing or work.solution.title or "the sheet of this plan"
        raise NotThisSheet(
            f"this is not {name}: only {there} of {count} pieces of its outlines are anywhere near"
        )


def _from_sound(
    pieces: Sequence[LinedPiece], sound: Sequence[LinedPiece]
) -> tuple[LinedPiece, ...]:
    """Return pieces with what the plan has as the first hand."""
    return tuple(
        replace(
            piece,
            places=_first(piece.places, true.places),
            centre=None
            if piece.centre is None or true.centre is None
            else np.concatenate((true.centre[:1], piece.centre[1:])),
            radius=None
            if piece.radius is None or true.radius is None
            else np.concatenate((true.radius[:1], piece.radius[1:])),
        )
        for piece, true in zip(pieces, sound, strict=True)
    )


def _first(places: Places, true: Places) -> Places:
    share = np.linspace(0.0, 1.0, len(places))
    run = np.interp(share, np.linspace(0.0, 1.0, len(true)), true[:, 0])
    result: Places = np.column_stack((run, places[:, 1:]))
    return result
