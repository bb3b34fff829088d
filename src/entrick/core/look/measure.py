"""Every piece of a plan measured on a straightened picture."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from functools import partial

import numpy as np
import numpy.typing as npt

from ..geometry import Arc, Circle, Line
from ..rehearsal.many import Places, Reals
from .among import Among
from .fit import FittedCircle, FittedLine, fit_circles, fit_line
from .follow import ACROSS, OWN, STEP, Stroke, darkest_near, evenly, strokes_along
from .lined import LinedPiece
from .straight import Straight

HEAVY = 0.85
"""Share of how dark an outline is from which a stroke is one, and not a finer line."""

HANG_TOGETHER = 8.0
"""Over how many places of a piece the error of a stroke hangs together."""

FROM, BEYOND = 1.0, 4.0
"""From where beyond an end and how far it is looked whether a stroke goes on, mm."""


@dataclass(frozen=True)
class Measured:
    """A piece as it is on the sheet; lengths in mm on paper.

    Attributes
    ----------
    piece : LinedPiece
    hand : int
        Whose outline was followed.
    places : array of complex
        Middles of the stroke, from the datum.
    aside : array of float
        How far they are to the left of where the stroke was looked for.
    off : array of float
        How far they are from where the plan has the piece, to the left of its sense: those that no
        other stroke runs into, or where these are too few the one in the middle.
    unsure : float
        What that may be off, one standard deviation.
    seen : float
        Share of the piece along which a stroke is seen.
    gap : float
        Longest stretch along which none is.
    dark : float
        How dark the stroke is, 1 black.
    width : float
        How wide it is.
    beyond : tuple of two float
        How far it was drawn on past its start and its end.
    fitted : FittedCircle, FittedLine or None
        None for a curve, and where too little is seen.
    """

    piece: LinedPiece
    hand: int
    places: Places
    aside: Reals
    off: Reals
    unsure: float
    seen: float
    gap: float
    dark: float
    width: float
    beyond: tuple[float, float]
    fitted: FittedCircle | FittedLine | None


FOUND = 0.4
"""Share of a piece along which a stroke has to be seen for it to be there."""


def measured(
    straight: Straight,
    pieces: Sequence[LinedPiece],
    hand: int,
    at: complex,
    lightest: float,
    lain: Mapping[int, Places] | None = None,
) -> tuple[Measured, ...]:
    """Measure every piece near where a hand would have drawn it.

    Parameters
    ----------
    straight : Straight
    pieces : sequence of LinedPiece
    hand : int
        Whose outline is followed.
    at : complex
        Where the datum of the view stands, mm from the lower left corner.
    lightest : float
        How dark something that is lined in is at least, as a share of the border.
    lain : dict of int to array of complex, (places,), optional
        Where pieces lie by the errors of whoever drew them, by number; a hand errs in nothing where
        it is not said.
    """
    known = lain or {}
    runs = [evenly(known.get(n, piece.run(hand))) for n, piece in enumerate(pieces)]
    among = Among(runs, ACROSS)
    strokes = strokes_along(straight, runs, among, at, lightest)
    fitted = _fitted(pieces, hand, strokes)
    return tuple(
        Measured(
            piece,
            hand,
            stroke.places,
            stroke.middle[stroke.there],
            *_off(piece, stroke),
            float(np.mean(stroke.there)),
            _longest(~stroke.there) * STEP,
            stroke.usual(stroke.dark),
            stroke.usual(stroke.width),
            _beyond(straight, piece, (fitted[own], stroke), partial(among.clear, own), at),
            fitted[own],
        )
        for own, (piece, stroke) in enumerate(zip(pieces, strokes, strict=True))
        if piece.there[hand]
    )


Clear = Callable[[Places], npt.NDArray[np.bool_]]
"""Tells which places are clear of every other piece."""


def _fitted(
    pieces: Sequence[LinedPiece], hand: int, strokes: Sequence[Stroke]
) -> Sequence[FittedCircle | FittedLine | None]:
    """Return what is drawn of lines, arcs and circles; none for curves, and where too little is
    seen."""
    result: list[FittedCircle | FittedLine | None] = [None] * len(pieces)
    enough = [
        n
        for n, stroke in enumerate(strokes)
        if pieces[n].there[hand] and len(stroke.places) >= ENOUGH
    ]
    begun = {
        n: (complex(piece.centre[hand]), float(piece.radius[hand]))
        for n, piece in enumerate(pieces)
        if piece.centre is not None and piece.radius is not None
    }
    rounds = [n for n in enough if n in begun and len(strokes[n].inner) >= ENOUGH]
    circles = fit_circles(
        [strokes[n].inner for n in rounds], [begun[n] for n in rounds], HANG_TOGETHER
    )
    for n, circle in zip(rounds, circles, strict=True):
        expected = begun[n][1]
        # So flat, or so scattered, that no circle could be told from it.
        likely = expected / UNLIKELY < circle.radius < expected * UNLIKELY
        sure = circle.radius_off < min(circle.radius, expected) / 3
        result[n] = circle if likely and sure else None
    for n in enough:
        if n not in begun and isinstance(pieces[n].planned, Line):
            result[n] = fit_line(strokes[n].places, HANG_TOGETHER)
    return result


UNLIKELY = 5.0
"""How many times as large as expected a circle is not."""

ENOUGH = 4
"""Places a line or circle is fitted to."""


def _off(piece: LinedPiece, stroke: Stroke) -> tuple[Reals, float]:
    """Return how far places are from where the plan has a piece, and what that may be off: where
    others run into it nearly everywhere, what is seen may be theirs."""
    off = _off_plan(piece, stroke.places)
    clear = off[stroke.clear[stroke.there]]
    if len(clear) >= ENOUGH or not len(off):
        return clear, float(np.median(np.abs(clear))) / 4 if len(clear) else 0.0
    return np.median(off, keepdims=True), OWN


def _off_plan(piece: LinedPiece, places: Places) -> Reals:
    """Return how far places are from where the plan has a piece, to the left of its sense."""
    run = piece.places[:, 0]
    if isinstance(piece.planned, Circle | Arc) and piece.centre is not None:
        assert piece.radius is not None
        out: Reals = np.abs(places - piece.centre[0]) - piece.radius[0]
        return out
    start, along = run[:-1], np.diff(run)
    size = np.maximum(np.abs(along) ** 2, np.finfo(float).tiny)
    offset = places[:, None] - start
    share = np.clip((np.conj(along) * offset).real / size, 0.0, 1.0)
    away = offset - share * along
    nearest = np.argmin(np.abs(away), axis=1)
    rows = np.arange(len(places))
    side = np.sign((np.conj(along)[nearest] * away[rows, nearest]).imag)
    result: Reals = np.abs(away[rows, nearest]) * side
    return result


def _longest(missing: npt.NDArray[np.bool_]) -> int:
    longest = run = 0
    for each in missing:
        run = run + 1 if each else 0
        longest = max(longest, run)
    return longest


def _beyond(
    straight: Straight,
    piece: LinedPiece,
    along: tuple[FittedCircle | FittedLine | None, Stroke],
    is_clear: Clear,
    at: complex,
) -> tuple[float, float]:
    """Return how far a stroke was drawn on past each end, where no other piece is."""
    fitted, stroke = along
    run = stroke.run
    if fitted is None or isinstance(piece.planned, Circle):
        return (0.0, 0.0)
    steps = np.arange(FROM, BEYOND + STEP / 2, STEP)
    found = []
    for end, inner in ((run[0], run[1]), (run[-1], run[-2])):
        out = (end - inner) / max(abs(end - inner), np.finfo(float).tiny)
        if isinstance(fitted, FittedCircle):
            radial = end - fitted.centre
            sense = 1.0 if (np.conj(radial) * out).imag > 0 else -1.0
            turned = np.exp(1j * sense * steps / max(fitted.radius, FROM))
            places = fitted.centre + radial / abs(radial) * fitted.radius * turned
        else:
            places = end + out * steps
        clear = is_clear(places)
        dark = darkest_near(straight, places + at, 1j * out) > HEAVY * stroke.outline
        drawn = dark | ~clear
        until = int(np.argmin(drawn)) if not drawn.all() else len(drawn)
        on = [at for at in range(until) if clear[at]]
        found.append(float(steps[on[-1]]) if on else 0.0)
    return found[0], found[1]
