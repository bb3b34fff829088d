"""``bisector``."""

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from desk import line_of, point_of, solved


@given(st.floats(0, 359), st.floats(5, 170))
def test_an_angle_is_halved(start: float, angle: float) -> None:
    done = solved(
        f"A = point, 50 from O, at {start:.3f}°\nB = point, 30 from O, at {start + angle:.3f}°\nq = bisector, of angle A O B\n"
    )
    q = line_of(done, "q").direction
    a, b = point_of(done, "A").unit, point_of(done, "B").unit
    assert math.acos(min(1, q.dot(a))) == pytest.approx(math.acos(min(1, q.dot(b))), abs=1e-6)
