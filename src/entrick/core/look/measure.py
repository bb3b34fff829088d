"""Every piece of a plan measured on a straightened picture."""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from functools import cached_property, partial

import numpy as np
import numpy.typing as npt
from scipy.ndimage import gaussian_filter1d  # type: ignore[import-untyped]
from scipy.spatial import KDTree  # type: ignore[import-untyped]

from ..geometry import Arc, Circle, Line
from ..rehearsal.many import Places, Reals
from .fit import FittedCircle, FittedLine, fit_circles, fit_line
from .lined import LinedPiece
from .seen import pairs
from .straight import LEAST, Straight

STEP = 1.0
"""Distance of the places along a piece, mm."""

ACROSS, FINE = 3.0, 0.05
"""How far to each side a stroke is looked for, and how finely, mm."""

SOFT = 0.35
"""By how much what is seen across a stroke is softened, mm."""

WIDE = 0.6
"""How far from its darkest place a stroke reaches at most, mm."""

NEARER = 0.08
"""How much darker a stroke has to be for each mm it lies further from where one is expected."""

FAINT = 0.45
"""Share of how dark an outline is under which no stroke is seen."""

HEAVY = 0.85
"""Share of it from which a stroke is an outline, and not a finer line."""

HANG_TOGETHER = 4.0
"""Over how many places of a piece the error of a stroke hangs together."""

BEYOND = 4.0
"""How far beyond an end it is looked whether a stroke goes on, mm."""


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
    off : array of float
        How far each of them is from where the plan has the piece, to the left of its sense.
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
    off: Reals
    seen: float
    gap: float
    dark: float
    width: float
    beyond: tuple[float, float]
    fitted: FittedCircle | FittedLine | None


FOUND = 0.4
"""Share of a piece along which a stroke has to be seen for it to be there."""


@dataclass(frozen=True)
class _Profiles:
    """What is seen across a run: for each place of it how far to the left the stroke's middle is,
    how dark and how wide it is."""

    middle: Reals
    dark: Reals
    width: Reals


def measured(
    straight: Straight,
    pieces: Sequence[LinedPiece],
    hand: int,
    at: complex,
    lightest: float,
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
    """
    runs = [_evenly(piece.run(hand)) for piece in pieces]
    profiles = [_profiles(straight, run + at) for run in runs]
    outline = _outline(straight, profiles, lightest)
    among = _Among(runs)
    strokes = [_Stroke(run, seen, outline) for run, seen in zip(runs, profiles, strict=True)]
    fitted = _fitted(pieces, hand, strokes)
    return tuple(
        Measured(
            piece,
            hand,
            stroke.places,
            _off_plan(piece, stroke.places),
            float(np.mean(stroke.there)),
            _longest(~stroke.there) * STEP,
            stroke.usual(stroke.seen.dark),
            stroke.usual(stroke.seen.width),
            _beyond(straight, piece, (fitted[own], stroke), partial(among.clear, own), at),
            fitted[own],
        )
        for own, (piece, stroke) in enumerate(zip(pieces, strokes, strict=True))
        if piece.there[hand]
    )


@dataclass(frozen=True)
class _Stroke:
    """What is seen along a run.

    Attributes
    ----------
    run : array of complex
    seen : _Profiles
        Across it.
    outline : float
        How dark an outline is.
    """

    run: Places
    seen: _Profiles
    outline: float

    @cached_property
    def there(self) -> npt.NDArray[np.bool_]:
        """At which places it is dark enough."""
        found: npt.NDArray[np.bool_] = self.seen.dark > FAINT * self.outline
        return found

    @cached_property
    def places(self) -> Places:
        """Its middle, where it is."""
        found: Places = (self.run + _left(self.run) * self.seen.middle)[self.there]
        return found

    @property
    def inner(self) -> Places:
        """Its middle but at the ends of an arc, where another stroke begins that is as dark: of a
        short one they are too much to do without."""
        if len(self.run) < LONG:
            return self.places
        ends = self.there[[0, -1]].astype(int)
        return self.places[ends[0] : len(self.places) - ends[1]]

    def usual(self, values: Reals) -> float:
        """Return the median of what is seen where it is; nought where it is nowhere."""
        return float(np.median(values[self.there])) if self.there.any() else 0.0


Clear = Callable[[Places], npt.NDArray[np.bool_]]
"""Tells which places are clear of every other piece."""


class _Among:
    """Pieces among each other."""

    def __init__(self, runs: Sequence[Places]) -> None:
        self._owner = np.repeat(np.arange(len(runs)), [len(run) for run in runs])
        self._tree = KDTree(pairs(np.concatenate([np.zeros(0, complex), *runs])))

    def clear(self, own: int, places: Places) -> npt.NDArray[np.bool_]:
        """Tell which places are clear of every piece but one."""
        near = self._tree.query_ball_point(pairs(places), CLEAR)
        return np.array([bool(np.all(self._owner[spots] == own)) for spots in near])


def _outline(straight: Straight, profiles: Sequence[_Profiles], lightest: float) -> float:
    """Return how dark an outline is: of what is lined in. Neither paper nor construction is one,
    however little else there is."""
    border = np.concatenate([_profiles(straight, side).dark for side in straight.frame.border])
    least = max(lightest * float(np.median(border)), LEAST / FAINT)
    darks = np.concatenate([np.zeros(0), *(each.dark for each in profiles)])
    lined = darks[darks > least]
    return float(np.percentile(lined, 70)) if len(lined) else least


def _evenly(run: Places) -> Places:
    """Return places along a run, `STEP` apart."""
    sizes = np.concatenate(([0.0], np.cumsum(np.abs(np.diff(run)))))
    at = np.linspace(0.0, sizes[-1], max(5, math.ceil(sizes[-1] / STEP) + 1))
    found: Places = np.interp(at, sizes, run)
    return found


def _left(run: Places) -> Places:
    """Return the direction square to a run at each of its places, to the left."""
    ahead = np.gradient(run)
    found: Places = 1j * ahead / np.maximum(np.abs(ahead), np.finfo(float).tiny)
    return found


def _profiles(straight: Straight, run: Places) -> _Profiles:
    # Near a short piece its neighbours are nearer than it is long.
    reach = min(ACROSS, max(1.0, float(np.abs(run[-1] - run[0])) / 2 or ACROSS))
    steps = np.arange(-reach, reach + FINE / 2, FINE)
    ink = straight.at(run[:, None] + _left(run)[:, None] * steps)
    soft = gaussian_filter1d(ink, SOFT / 2 / FINE, axis=1)
    peak = np.argmax(soft - NEARER * np.abs(steps) * soft.max(axis=1, keepdims=True), axis=1)
    rows = np.arange(len(run))
    dark = soft[rows, peak]
    near = np.abs(np.arange(len(steps)) - peak[:, None]) * FINE <= WIDE
    weight = np.where(near, np.maximum(soft - dark[:, None] / 2, 0.0), 0.0)
    total = np.maximum(weight.sum(axis=1), np.finfo(float).tiny)
    middle = (weight * steps).sum(axis=1) / total
    sharp = np.where(near, ink, 0.0)
    top = np.maximum(sharp.max(axis=1), np.finfo(float).tiny)
    return _Profiles(middle, dark, sharp.sum(axis=1) * FINE / top)


def _fitted(
    pieces: Sequence[LinedPiece], hand: int, strokes: Sequence[_Stroke]
) -> Sequence[FittedCircle | FittedLine | None]:
    """Return what is drawn of lines, arcs and circles; none for curves, and where too little is
    seen."""
    found: list[FittedCircle | FittedLine | None] = [None] * len(pieces)
    enough = [
        n
        for n, stroke in enumerate(strokes)
        if pieces[n].there[hand] and len(stroke.places) >= FEWEST
    ]
    begun = {
        n: (complex(piece.centre[hand]), float(piece.radius[hand]))
        for n, piece in enumerate(pieces)
        if piece.centre is not None and piece.radius is not None
    }
    rounds = [n for n in enough if n in begun and len(strokes[n].inner) >= FEWEST]
    circles = fit_circles(
        [strokes[n].inner for n in rounds], [begun[n] for n in rounds], HANG_TOGETHER
    )
    for n, circle in zip(rounds, circles, strict=True):
        expected = begun[n][1]
        # So flat, or so scattered, that no circle could be told from it.
        likely = expected / UNLIKELY < circle.radius < expected * UNLIKELY
        found[n] = circle if likely and circle.radius_off < circle.radius / 3 else None
    for n in enough:
        if n not in begun and isinstance(pieces[n].planned, Line):
            found[n] = fit_line(strokes[n].places, HANG_TOGETHER)
    return found


UNLIKELY = 5.0
"""How many times as large as expected a circle is not."""

FEWEST, LONG = 4, 8
"""Places a line or circle is fitted to, and those along an arc that is fitted without its ends."""


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
    found: Reals = np.abs(away[rows, nearest]) * side
    return found


def _longest(missing: npt.NDArray[np.bool_]) -> int:
    longest = run = 0
    for each in missing:
        run = run + 1 if each else 0
        longest = max(longest, run)
    return longest


def _beyond(
    straight: Straight,
    piece: LinedPiece,
    along: tuple[FittedCircle | FittedLine | None, _Stroke],
    is_clear: Clear,
    at: complex,
) -> tuple[float, float]:
    """Return how far a stroke was drawn on past each end, where no other piece is."""
    fitted, stroke = along
    run = stroke.run
    if fitted is None or isinstance(piece.planned, Circle):
        return (0.0, 0.0)
    steps = np.arange(STEP, BEYOND + STEP / 2, STEP / 2)
    found = []
    for end, inner in ((run[0], run[1]), (run[-1], run[-2])):
        out = (end - inner) / max(abs(end - inner), np.finfo(float).tiny)
        if isinstance(fitted, FittedCircle):
            radial = end - fitted.centre
            sense = 1.0 if (np.conj(radial) * out).imag > 0 else -1.0
            turned = np.exp(1j * sense * steps / max(fitted.radius, STEP))
            places = fitted.centre + radial / abs(radial) * fitted.radius * turned
        else:
            places = end + out * steps
        clear = is_clear(places)
        dark = _profiles_near(straight, places + at, 1j * out) > HEAVY * stroke.outline
        drawn = dark | ~clear
        until = int(np.argmin(drawn)) if not drawn.all() else len(drawn)
        on = [at for at in range(until) if clear[at]]
        found.append(float(steps[on[-1]]) if on else 0.0)
    return found[0], found[1]


CLEAR = 1.2
"""How far from every other piece a stroke has to be to be one of its own, mm."""


def _profiles_near(straight: Straight, places: Places, left: complex) -> Reals:
    steps = np.arange(-0.4, 0.41, FINE)
    ink = straight.at(places[:, None] + left * steps)
    found: Reals = gaussian_filter1d(ink, SOFT / 2 / FINE, axis=1).max(axis=1)
    return found
