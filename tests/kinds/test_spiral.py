"""``spiral``."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from desk import run_of, solved, thing
from entrick.core.geometry import Point


@given(st.integers(0, 30), st.integers(31, 80), st.integers(1, 5), st.booleans())
def test_a_spiral_gains_the_same_for_every_turn(
    first: int, last: int, turns: int, clockwise: bool
) -> None:
    done = solved(
        f"s = spiral, about O, radius {first} to {last}, {turns} turns{', cw' if clockwise else ''}\n"
    )
    count = 12 * turns
    for index in range(count + 1):
        spot = thing(done, f"s.station.{index}")
        assert isinstance(spot, Point)
        assert abs(spot) == pytest.approx(first + (last - first) * index / count, abs=1e-9)
        assert run_of(done, "s").distance(spot) < 1e-6
