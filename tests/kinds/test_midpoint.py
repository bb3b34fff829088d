"""``midpoint``."""

import math

import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from desk import line_of, point_of, solved

coordinates = st.floats(-80, 80).map(lambda v: round(v, 3))


def points(x: float, y: float, u: float, v: float) -> str:
    return f"A = point, {x} right of O, {y} above O\nB = point, {u} right of O, {v} above O\n"


@given(coordinates, coordinates, coordinates, coordinates)
def test_a_midpoint_is_as_far_from_both_and_on_the_line(
    x: float, y: float, u: float, v: float
) -> None:
    assume(math.hypot(x - u, y - v) > 0.1)
    done = solved(points(x, y, u, v) + "M = midpoint, between A and B\np = bisector, of line A B\n")
    a, b, m = (point_of(done, n) for n in "ABM")
    assert abs(m - a) == pytest.approx(abs(m - b))
    assert abs((m - a).cross(b - a)) < 1e-6
    axis = line_of(done, "p")
    far = axis.at(37)
    assert abs(far - a) == pytest.approx(abs(far - b))
