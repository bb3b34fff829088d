"""How often the lines of dimensions cross one another."""

from __future__ import annotations

import math
from collections.abc import Sequence
from itertools import combinations

from ..drawing.marks import DrawnLine, Mark
from ..tolerance import ROUND

Segment = tuple[float, float, float, float]


def crossings(marks: Sequence[Mark]) -> float:
    """Return the number of crossings among dimension and extension lines, a long line counting a
    little.

    Parameters
    ----------
    marks : sequence of Mark
        In mm.

    Returns
    -------
    float
        A crossing counts 1; 100 mm of line counts 0.1, so that of two ways without a crossing the
        shorter one wins.
    """
    lines = [
        (m.x1, m.y1, m.x2, m.y2)
        for m in marks
        if isinstance(m, DrawnLine) and m.role == "dimension"
    ]
    length = sum(math.hypot(x2 - x1, y2 - y1) for x1, y1, x2, y2 in lines)
    return sum(_cross(a, b) for a, b in combinations(lines, 2)) + length / 1000


def _cross(a: Segment, b: Segment) -> bool:
    """Tell whether two segments cross away from their ends."""
    return _apart(a, b[:2], b[2:]) and _apart(b, a[:2], a[2:])


def _apart(line: Segment, first: tuple[float, ...], second: tuple[float, ...]) -> bool:
    x1, y1, x2, y2 = line
    sides = [(x2 - x1) * (y - y1) - (y2 - y1) * (x - x1) for x, y in (first, second)]
    return sides[0] * sides[1] < -ROUND
