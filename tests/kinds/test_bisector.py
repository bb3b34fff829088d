"""``bisector``."""

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from desk import solved
from entrick.core.desk import Work
from entrick.core.geometry import Line, Point


def point(done: Work, name: str) -> Point:
    found = dict(done.solution.figure.things()).get(name)
    assert isinstance(found, Point), name
    return found


def line(done: Work, name: str) -> Line:
    found = dict(done.solution.figure.things())[name]
    assert isinstance(found, Line)
    return found


@given(st.floats(0, 359), st.floats(5, 170))
def test_an_angle_is_halved(start: float, angle: float) -> None:
    done = solved(
        f"A = point, 50 from O, at {start:.3f}°\nB = point, 30 from O, at {start + angle:.3f}°\nq = bisector, of angle A O B\n"
    )
    q = line(done, "q").direction
    a, b = point(done, "A").unit, point(done, "B").unit
    assert math.acos(min(1, q.dot(a))) == pytest.approx(math.acos(min(1, q.dot(b))), abs=1e-6)
