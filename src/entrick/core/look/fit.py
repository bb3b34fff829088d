"""Lines and circles through measured places, with how far they may be relied on.

Places that lie far from what most of them say count for little: iteratively reweighted least
squares with Cauchy's weights for circles, Huber's for lines (P. J. Huber, Robust Statistics, 1981,
chapter 7; weights from memory)."""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass

import numpy as np
import numpy.typing as npt

from ..rehearsal.many import Places, Reals
from ..tolerance import NOUGHT

ROUNDS = 30
CAUCHY = 2.385
"""Scale of Cauchy's weights, standard deviations."""
HUBER = 1.345
"""Where Huber's weights begin to fall, standard deviations."""
MAD = 1.4826
"""From the median of the distances to a standard deviation (normal distribution)."""
FLOOR = 0.01
"""Scatter of measured places is no less than this, mm."""
SIZES = 3
"""A circle has: where its centre is, across and up, and its radius."""


@dataclass(frozen=True, slots=True)
class FittedCircle:
    """A circle through measured places; lengths in mm, each with one standard deviation.

    Attributes
    ----------
    centre : complex
    radius : float
    centre_off, radius_off : float
    scatter : float
        Of the places about it.
    """

    centre: complex
    radius: float
    centre_off: float
    radius_off: float
    scatter: float


@dataclass(frozen=True, slots=True)
class FittedLine:
    """A line through measured places.

    Attributes
    ----------
    at : complex
        Its middle, mm.
    ahead : complex
        Its direction, of length 1.
    at_off : float
        How far off it may be square to itself, mm, one standard deviation.
    turn_off : float
        By how much it may be turned, radians.
    scatter : float
    """

    at: complex
    ahead: complex
    at_off: float
    turn_off: float
    scatter: float


Begun = tuple[complex, float]
"""Centre and radius a circle is looked for from."""


def fit_circle(places: Places, begun: Begun, spacing: float) -> FittedCircle:
    """Fit a circle to four places or more; see `fit_circles`."""
    return fit_circles([places], [begun], spacing)[0]


def fit_circles(
    runs: Sequence[Places], begun: Sequence[Begun], spacing: float
) -> tuple[FittedCircle, ...]:
    """Fit a circle to each of many runs of places.

    Parameters
    ----------
    runs : sequence of array of complex
        Four places or more each.
    begun : sequence of complex and float
        For each, centre and radius to begin with.
    spacing : float
        Within how many places errors hang together: a stroke that leans leans over a stretch.
    """
    found: dict[int, FittedCircle] = {}
    # Those about as long are fitted side by side.
    for size in sorted({len(run).bit_length() for run in runs}):
        own = [n for n, run in enumerate(runs) if len(run).bit_length() == size]
        fitted = _fit_together([runs[n] for n in own], [begun[n] for n in own], spacing)
        found.update(zip(own, fitted, strict=True))
    return tuple(found[n] for n in range(len(runs)))


def _fit_together(
    runs: Sequence[Places], begun: Sequence[Begun], spacing: float
) -> Iterator[FittedCircle]:
    counts = np.array([len(run) for run in runs])
    there = np.arange(counts.max()) < counts[:, None]
    places = np.zeros(there.shape, complex)
    places[there] = np.concatenate(runs)
    centre = np.array([middle for middle, _ in begun], complex)
    radius = np.array([size for _, size in begun], float)
    going = np.ones(len(runs), bool)
    for _ in range(ROUNDS):
        off, matrix, weights, _ = _about(places, there, centre, radius)
        weighed = np.swapaxes(matrix * weights[:, :, None], 1, 2)
        normal = weighed @ matrix + NOUGHT * np.identity(3)
        step = np.linalg.solve(normal, weighed @ off[:, :, None])[:, :, 0]
        step[~going] = 0.0
        centre, radius = centre + step[:, 0] + 1j * step[:, 1], radius + step[:, 2]
        going &= np.max(np.abs(step), axis=1) >= FLOOR / 10
        if not going.any():
            break
    _, matrix, weights, scatter = _about(places, there, centre, radius)
    for n in range(len(runs)):
        spread = _spread(matrix[n], weights[n], float(scatter[n]), spacing)
        yield FittedCircle(
            complex(centre[n]),
            abs(float(radius[n])),
            math.sqrt(spread[0, 0] + spread[1, 1]),
            math.sqrt(spread[2, 2]),
            float(scatter[n]),
        )


def _about(
    places: Places, there: npt.NDArray[np.bool_], centre: Places, radius: Reals
) -> tuple[Reals, Reals, Reals, Reals]:
    """Return how far places are outside of their circles, how that changes as a circle is moved and
    grows, for how much they count, and the scatter of those of each circle."""
    out = places - centre[:, None]
    away = np.abs(out)
    off = away - radius[:, None]
    scatter = np.maximum(MAD * _usually(np.abs(off), there), FLOOR)
    weights = there / (1 + (off / (CAUCHY * scatter[:, None])) ** 2)
    unit = out / np.maximum(away, np.finfo(float).tiny)
    return off, np.stack((unit.real, unit.imag, np.ones(off.shape)), axis=2), weights, scatter


def _usually(rows: Reals, there: npt.NDArray[np.bool_]) -> Reals:
    """Return the median of what is there of each row, but for the two smallest: through as many
    places as it has sizes a circle goes however they scatter, and of five three are no scatter."""
    ordered = np.sort(np.where(there, rows, np.inf), axis=1)
    middle, own = there.sum(axis=1) + SIZES, np.arange(len(rows))
    result: Reals = (ordered[own, (middle - 2) // 2] + ordered[own, (middle - 1) // 2]) / 2
    return result


def fit_line(places: Places, spacing: float) -> FittedLine:
    """Fit a line to three places or more; see `fit_circle`."""
    weights: npt.NDArray[np.floating] = np.ones(len(places))
    at, ahead, scatter = complex(np.mean(places)), 1 + 0j, 1.0
    along = off = np.zeros(len(places))
    for _ in range(ROUNDS):
        at = complex(np.average(places, weights=weights))
        away = places - at
        # The direction in which the weighted squares along it are greatest.
        turn = np.sum(weights * away**2)
        ahead = complex(np.exp(0.5j * np.angle(turn)))
        rotated = away * np.conj(ahead)
        along, off = rotated.real, rotated.imag
        before = scatter
        scatter = max(MAD * float(np.median(np.abs(off))), FLOOR)
        weights = np.minimum(1.0, HUBER * scatter / np.maximum(np.abs(off), FLOOR / 100))
        if abs(before - scatter) < FLOOR / 100:
            break
    turns: npt.NDArray[np.floating] = np.column_stack((np.ones(len(places)), along))
    spread = _spread(turns, weights, scatter, spacing)
    return FittedLine(at, ahead, math.sqrt(spread[0, 0]), math.sqrt(spread[1, 1]), scatter)


def _spread(
    matrix: npt.NDArray[np.floating],
    weights: npt.NDArray[np.floating],
    scatter: float,
    spacing: float,
) -> Reals:
    """Return the covariance of what was fitted: (JᵀWJ)⁻¹σ², so much larger as errors hang
    together."""
    normal = matrix.T @ (matrix * weights[:, None])
    found: Reals = np.linalg.pinv(normal) * scatter**2 * max(1.0, spacing)
    return np.abs(found)
