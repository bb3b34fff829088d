"""``keyway``."""

import math

import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from desk import led_to, refused, run_of, solved, thing
from entrick.core.geometry import Line, Point


@given(
    st.integers(10, 60),
    st.integers(2, 12),
    st.integers(1, 6),
    st.sampled_from(["above", "below", "left", "right"]),
)
def test_a_keyway_is_as_deep_as_said_beyond_the_circle(
    radius: int, width: int, depth: int, side: str
) -> None:
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


def test_a_keyway_that_cannot_be_cut_says_why() -> None:
    ring = "ring = circle, centre O, radius 20\n"
    for said, told in (
        ("width 60, depth 3, above", "narrower than ring is wide"),
        ("width 6, 42 over all, inward, above", "on the wrong side of the circle"),
        ("width 6, 37 over all, above", "on the wrong side of the circle"),
        ("width 6, depth 30, inward, above", "past the middle of the shaft"),
    ):
        assert told in refused(f"{ring}k = keyway, on ring, {said}\n")


@given(st.integers(10, 60), st.integers(2, 12), st.integers(1, 6), st.booleans())
def test_a_keyway_counted_over_all_is_the_one_of_that_depth(
    radius: int, width: int, depth: int, inward: bool
) -> None:
    """Over all, from the far side: 2r − d in a shaft, 2r + d in a bore."""
    way = "inward, " if inward else ""
    assume(width < 2 * radius - 1)
    assume(radius - depth < math.sqrt(radius**2 - width**2 / 4))
    rows = f"ring = circle, centre O, radius {radius}\n"
    over = 2 * radius - depth if inward else 2 * radius + depth
    done = solved(f"{rows}k = keyway, on ring, width {width}, {over} over all, {way}above\n")
    same = solved(f"{rows}k = keyway, on ring, width {width}, depth {depth}, {way}above\n")
    assert run_of(done, "k") == run_of(same, "k")
    led_to(done)
