"""``divide``."""

import math
from itertools import pairwise

import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from desk import point_of, solved

coordinates = st.floats(-80, 80).map(lambda v: round(v, 3))


def points(x: float, y: float, u: float, v: float) -> str:
    return f"A = point, {x} right of O, {y} above O\nB = point, {u} right of O, {v} above O\n"


@given(coordinates, coordinates, coordinates, coordinates, st.integers(2, 12))
def test_a_line_is_divided_equally(x: float, y: float, u: float, v: float, count: int) -> None:
    assume(math.hypot(x - u, y - v) > 0.5)
    done = solved(points(x, y, u, v) + f"d = divide, of line A B, in {count}\n")
    spots = [
        point_of(done, "A"),
        *(point_of(done, f"d.{i}") for i in range(1, count)),
        point_of(done, "B"),
    ]
    part = abs(spots[-1] - spots[0]) / count
    assert all(abs(b - a) == pytest.approx(part) for a, b in pairwise(spots))
