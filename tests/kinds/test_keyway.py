"""``keyway``."""

import math

import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from desk import run_of, solved, thing
from entrick.core.geometry import Line, Point


@given(st.integers(10, 60), st.integers(2, 12), st.integers(1, 6), st.sampled_from(["above", "below", "left", "right"]))
def test_a_keyway_is_as_deep_as_said_beyond_the_circle(radius: int, width: int, depth: int, side: str) -> None:
    assume(width < radius)
    done = solved(
        f"b = circle, centre O, radius {radius}\nk = keyway, on b, width {width}, depth {depth}, {side}\neye = line in, b long > k\n"
    )
    floor = thing(done, "k.floor")
    assert isinstance(floor, Line)
    assert abs(floor.offset_of(Point(0, 0))) == pytest.approx(radius + depth)
    assert floor.end == pytest.approx(width)
    eye = run_of(done, "eye")
    half = math.asin(width / 2 / radius)
    segment = radius**2 * (half - math.sin(2 * half) / 2)
    rise = radius + depth - radius * math.cos(half)
    assert abs(eye.area) == pytest.approx(math.pi * radius**2 - segment + width * rise)
