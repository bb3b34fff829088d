"""The ellipse that lies nearest to many places."""

from __future__ import annotations

import math
from collections.abc import Sequence

import numpy as np

from ..geometry import Point
from ..geometry.ellipse import Ellipse
from ..tolerance import NOUGHT


def ellipse_through(spots: Sequence[Point]) -> Ellipse | None:
    """Return the ellipse through places, by least squares; None where they lie on none.

    The conic ax² + bxy + cy² + dx + ey = 1 about the middle of the places, by its normal equations;
    its centre is where both slopes are nought, its axes are those of the form (closed form).
    """
    places = np.array([[spot.x, spot.y] for spot in spots])
    middle = places.mean(axis=0)
    size = float(np.abs(places - middle).max())
    if size <= NOUGHT:
        return None
    x, y = ((places - middle) / size).T
    rows = np.column_stack((x * x, x * y, y * y, x, y))
    (a, b, c, d, e), *_ = np.linalg.lstsq(rows, np.ones(len(places)), rcond=None)
    if 4 * a * c - b * b <= NOUGHT:
        return None
    form = np.array([[a, b / 2], [b / 2, c]])
    centre = np.linalg.solve(2 * form, np.array([-d, -e]))
    held = 1 - float(centre @ np.array([d, e])) - float(centre @ form @ centre)
    values, axes = np.linalg.eigh(form / held)
    if values[0] <= NOUGHT or values[1] <= NOUGHT:
        return None
    long, short = (size / math.sqrt(value) for value in values)
    at = middle + centre * size
    way = Point(float(axes[0, 0]), float(axes[1, 0]))
    return Ellipse(Point(float(at[0]), float(at[1])), way * long, short)
