"""The strokes along expected runs, followed on a straightened picture: where their middle is, how
dark and how wide they are."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from functools import cached_property

import numpy as np
import numpy.typing as npt
from scipy.ndimage import gaussian_filter1d  # type: ignore[import-untyped]

from ..rehearsal.many import Places, Reals
from .among import Among
from .seen import to_the_left
from .straight import LEAST, Straight

STEP = 0.5
"""Distance of the places along a run, mm."""

FEWEST = 5
"""How many there are at least."""

ACROSS, FINE = 3.0, 0.05
"""How far to each side a stroke is looked for, and how finely, mm."""

SOFT = 0.35
"""By how much what is seen across a stroke is softened, mm."""

WIDE = 0.6
"""How far from its darkest place a stroke reaches at most, mm."""

NEARER = 0.08
"""How much darker a stroke has to be for each mm it lies further from where one is expected."""

OWN = 0.5
"""How far from where it is expected a stroke is not taken for another's, mm; and half the distance
in which others run into it."""

ANOTHERS = 0.5
"""How much darker one has to be beyond half the way to where another is expected."""

ANYWHERE = np.full((2, 1), ACROSS)
"""Half the way to the next where there is none."""

FAINT = 0.45
"""Share of how dark an outline is under which no stroke is seen."""

LONG, ENDS = 15, 2
"""Places of an arc that is fitted without its ends, and those of each end."""


@dataclass(frozen=True)
class Stroke:
    """What is seen along a run.

    Attributes
    ----------
    run : array of complex
        Mm on paper from the datum.
    middle : array of float
        How far to the left of each place of it the stroke's middle is.
    dark, width : array of float
        How dark and how wide it is there.
    clear : array of bool
        Whether no other stroke runs into it there.
    outline : float
        How dark an outline is.
    """

    run: Places
    middle: Reals
    dark: Reals
    width: Reals
    clear: npt.NDArray[np.bool_]
    outline: float

    @cached_property
    def there(self) -> npt.NDArray[np.bool_]:
        """At which places it is dark enough."""
        result: npt.NDArray[np.bool_] = self.dark > FAINT * self.outline
        return result

    @cached_property
    def places(self) -> Places:
        """Its middle, where it is."""
        places: Places = (self.run + to_the_left(self.run) * self.middle)[self.there]
        return places

    @property
    def inner(self) -> Places:
        """Its middle but at the ends of an arc, where another stroke begins that is as dark: of a
        short one they are too much to do without."""
        if len(self.run) < LONG:
            return self.places
        first, last = (np.count_nonzero(end) for end in (self.there[:ENDS], self.there[-ENDS:]))
        return self.places[first : len(self.places) - last]

    def usual(self, values: Reals) -> float:
        """Return the median of what is seen where it is; nought where it is nowhere."""
        return float(np.median(values[self.there])) if self.there.any() else 0.0


@dataclass(frozen=True)
class _Across:
    """What is seen across a run, at each of its places: how far to its left a stroke's middle and
    its left and right edge are, how dark and how wide it is."""

    middle: Reals
    edges: Reals
    dark: Reals
    width: Reals


def strokes_along(
    straight: Straight, runs: Sequence[Places], among: Among, at: complex, lightest: float
) -> list[Stroke]:
    """Follow the stroke along each run.

    Parameters
    ----------
    straight : Straight
    runs : sequence of array of complex
        Where strokes are expected, mm on paper from the datum; places `STEP` apart.
    among : Among
        The same runs.
    at : complex
        Where the datum stands, mm from the lower left corner.
    lightest : float
        How dark something that is lined in is at least, as a share of the border.
    """
    half_ways = [among.half_way(own) for own in range(len(runs))]
    seen = [_across(straight, run + at, way) for run, way in zip(runs, half_ways, strict=True)]
    outline = _outline(straight, seen, lightest)
    merging = [way <= OWN for way in half_ways]
    half = _half_as_wide(seen, merging, outline)
    return [
        Stroke(
            run,
            _middle(each, beside, half),
            each.dark,
            each.width,
            np.logical_not(beside.any(axis=0)),
            outline,
        )
        for run, each, beside in zip(runs, seen, merging, strict=True)
    ]


def evenly(run: Places) -> Places:
    """Return places along a run, `STEP` apart."""
    sizes = np.concatenate(([0.0], np.cumsum(np.abs(np.diff(run)))))
    at = np.linspace(0.0, sizes[-1], max(FEWEST, math.ceil(sizes[-1] / STEP) + 1))
    places: Places = np.interp(at, sizes, run)
    return places


def darkest_near(straight: Straight, places: Places, left: complex) -> Reals:
    """Return how dark what is darkest is within a stroke's width of places, square to a way."""
    steps = np.arange(-0.4, 0.41, FINE)
    ink = straight.at(places[:, None] + left * steps)
    result: Reals = gaussian_filter1d(ink, SOFT / 2 / FINE, axis=1).max(axis=1)
    return result


def _outline(straight: Straight, seen: Sequence[_Across], lightest: float) -> float:
    """Return how dark an outline is: of what is lined in. Neither paper nor construction is one,
    however little else there is."""
    border = np.concatenate([_across(straight, side).dark for side in straight.frame.border])
    least = max(lightest * float(np.median(border)), LEAST / FAINT)
    darks = np.concatenate([np.zeros(0), *(each.dark for each in seen)])
    lined = darks[darks > least]
    return float(np.percentile(lined, 70)) if len(lined) else least


def _across(straight: Straight, run: Places, half_way: Reals = ANYWHERE) -> _Across:
    # Near a short piece its neighbours are nearer than it is long.
    reach = min(ACROSS, max(1.0, float(np.abs(run[-1] - run[0])) / 2 or ACROSS))
    steps = np.arange(-reach, reach + FINE / 2, FINE)
    ink = straight.at(run[:, None] + to_the_left(run)[:, None] * steps)
    soft = gaussian_filter1d(ink, SOFT / 2 / FINE, axis=1)
    left, right = np.maximum(half_way, OWN)[:, :, None]
    less = NEARER * np.abs(steps) + ANOTHERS * ((steps > left) | (steps < -right))
    peak = np.argmax(soft - less * soft.max(axis=1, keepdims=True), axis=1)
    dark = soft[np.arange(len(run)), peak]
    left_edge = steps[peak] + _fades(soft, peak) * FINE
    right_edge = steps[peak] - _fades(soft[:, ::-1], len(steps) - 1 - peak) * FINE
    near = np.abs(steps - steps[peak][:, None]) <= WIDE
    # Beyond its edges another stroke may begin.
    inside = near & ~(steps > left_edge[:, None]) & ~(steps < right_edge[:, None])
    weight = np.where(inside, np.maximum(soft - dark[:, None] / 2, 0.0), 0.0)
    total = np.maximum(weight.sum(axis=1), np.finfo(float).tiny)
    middle = (weight * steps).sum(axis=1) / total
    sharp = np.where(near, ink, 0.0)
    top = np.maximum(sharp.max(axis=1), np.finfo(float).tiny)
    edges = np.array((left_edge, right_edge))
    return _Across(middle, edges, dark, sharp.sum(axis=1) * FINE / top)


def _fades(soft: Reals, peak: npt.NDArray[np.integer]) -> Reals:
    """Return how many steps after its darkest a stroke is half as dark; no number where it is so
    nowhere."""
    rows, last = np.arange(len(soft)), soft.shape[1] - 1
    half = soft[rows, peak] / 2
    fades = (soft < half[:, None]) & (np.arange(last + 1) > peak[:, None])
    first = np.where(fades.any(axis=1), np.argmax(fades, axis=1), last)
    before, after = soft[rows, first - 1], soft[rows, first]
    share = (before - half) / np.maximum(before - after, np.finfo(float).tiny)
    return np.where(fades.any(axis=1), first - 1 + share - peak, np.nan)


def _half_as_wide(
    seen: Sequence[_Across], merging: Sequence[npt.NDArray[np.bool_]], outline: float
) -> float:
    """Return how far the edges of a stroke that runs by itself are from its middle."""
    wide = [
        (each.edges[0] - each.edges[1])[(each.dark > FAINT * outline) & ~beside.any(axis=0)]
        for each, beside in zip(seen, merging, strict=True)
    ]
    told = np.concatenate([np.zeros(0), *wide])
    told = told[np.isfinite(told)]
    return float(np.median(told)) / 2 if len(told) else math.nan


def _middle(seen: _Across, beside: npt.NDArray[np.bool_], half: float) -> Reals:
    """Return where the middle of a stroke is: where another runs into it on one side, its free edge
    tells."""
    left, right = seen.edges
    result = seen.middle
    for edge, merges in (
        (right + half, beside[0] & ~beside[1]),
        (left - half, beside[1] & ~beside[0]),
    ):
        result = np.where(merges & np.isfinite(edge), edge, result)
    return result
