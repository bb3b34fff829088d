"""``involute``."""

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from desk import run_of, solved, thing
from entrick.core.geometry import Circle, Point


@given(st.integers(5, 60), st.integers(40, 400))
def test_an_involute_is_square_to_its_thread_and_as_long_as_the_formula_says(
    radius: int, degrees: int
) -> None:
    """Length r·θ²/2 (definition, integrated)."""
    done = solved(
        f"c = circle, centre O, radius {radius}\ni = involute, of c, through {degrees}°\n"
    )
    loop = run_of(done, "i")
    turn = math.radians(degrees)
    assert loop.length == pytest.approx(radius * turn**2 / 2, rel=1e-3)
    end = thing(done, "i.end")
    assert isinstance(end, Point)
    assert abs(end) == pytest.approx(radius * math.hypot(1, turn))
    last = loop.pieces[-1]
    thread = end - Circle(Point(0, 0), radius).at(turn)
    assert abs(thread) == pytest.approx(radius * turn)
    assert abs(thread.unit.dot(last.direction(last.exit))) < 1e-6
