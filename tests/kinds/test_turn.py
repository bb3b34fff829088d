"""``turn``."""

import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from entrick.core.geometry import Line, Point
from entrick.core.geometry.transform import rotate, shift

coordinates = st.floats(-80, 80).map(lambda v: round(v, 3))


@given(coordinates, coordinates, st.floats(-7, 7), coordinates, coordinates)
def test_turned_and_shifted_shapes_are_congruent(
    x: float, y: float, angle: float, u: float, v: float
) -> None:
    a, b, about = Point(x, y), Point(u, v), Point(3, -4)
    assume(abs(a - b) > 1e-3)
    for copy in (lambda s: rotate(s, about, angle), lambda s: shift(s, Point(7, -2))):
        assert abs(copy(a) - copy(b)) == pytest.approx(abs(a - b))
        moved = copy(Line.between(a, b))
        assert abs(moved.at(moved.start) - copy(a)) < 1e-9
        assert abs(moved.at(moved.end) - copy(b)) < 1e-9
    assert abs(rotate(rotate(a, about, angle), about, -angle) - a) < 1e-9
