"""Lines and circles through measured places, with how far they may be relied on.

Places that lie far from what most of them say count for little: iteratively reweighted least
squares with Cauchy's weights for circles, Huber's for lines (P. J. Huber, Robust Statistics, 1981,
chapter 7; weights from memory)."""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np
import numpy.typing as npt

from ..rehearsal.many import Places, Reals

ROUNDS = 30
CAUCHY = 2.385
"""Scale of Cauchy's weights, standard deviations."""
HUBER = 1.345
"""Where Huber's weights begin to fall, standard deviations."""
MAD = 1.4826
"""From the median of the distances to a standard deviation (normal distribution)."""
FLOOR = 0.01
"""Scatter of measured places is no less than this, mm."""


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


def fit_circle(places: Places, begun: tuple[complex, float], spacing: float) -> FittedCircle:
    """Fit a circle.

    Parameters
    ----------
    places : array of complex
        Four or more.
    begun : complex and float
        Centre and radius to begin with.
    spacing : float
        Within how many places errors hang together: a stroke that leans leans over a stretch.
    """
    centre, radius = begun
    weights = np.ones(len(places))
    scatter = 1.0
    matrix = np.empty((len(places), 3))
    for _ in range(ROUNDS):
        out = places - centre
        away = np.abs(out)
        off = away - radius
        scatter = max(MAD * float(np.median(np.abs(off - np.median(off)))), FLOOR)
        weights = 1 / (1 + (off / (CAUCHY * scatter)) ** 2)
        unit = out / np.maximum(away, np.finfo(float).tiny)
        matrix = np.column_stack((unit.real, unit.imag, np.ones(len(places))))
        step = np.linalg.lstsq(
            matrix * np.sqrt(weights)[:, None], off * np.sqrt(weights), rcond=None
        )[0]
        centre, radius = centre + complex(step[0], step[1]), radius + float(step[2])
        if float(np.max(np.abs(step))) < FLOOR / 10:
            break
    spread = _spread(matrix, weights, scatter, spacing)
    return FittedCircle(
        complex(centre),
        abs(float(radius)),
        math.sqrt(spread[0, 0] + spread[1, 1]),
        math.sqrt(spread[2, 2]),
        scatter,
    )


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
