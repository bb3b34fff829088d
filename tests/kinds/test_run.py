"""``run``."""

import math
from itertools import pairwise

import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from desk import refused, run_of, solved
from entrick.core.geometry import Point

lengths = st.integers(2, 60)


legs = st.lists(
    st.tuples(st.sampled_from(["right", "left", "up", "down"]), lengths), min_size=1, max_size=8
)


WAYS = {"right": Point(1, 0), "left": Point(-1, 0), "up": Point(0, 1), "down": Point(0, -1)}


angles = st.integers(0, 359)


@given(legs)
def test_a_run_of_legs_ends_where_they_add_up(steps: list[tuple[str, int]]) -> None:
    assume(all(abs(WAYS[a[0]] + WAYS[b[0]]) > 0 for a, b in pairwise(steps)))
    run = run_of(
        solved("r = run, from O, " + ", ".join(f"{way} {size}" for way, size in steps) + "\n"), "r"
    )
    end = Point(0, 0)
    for way, size in steps:
        end = end + WAYS[way] * size
    assert abs(run.pieces[-1].exit - end) < 1e-9
    assert run.length == pytest.approx(sum(size for _, size in steps))


@given(angles, lengths)
def test_a_leg_at_an_angle_counts_it_from_the_right(angle: int, size: int) -> None:
    run = (
        run_of(solved(f"r = run, from O, right 10, at {angle} for {size}\n"), "r")
        if angle != 180
        else None
    )
    if run is not None:
        leg = run.pieces[1]
        turned = math.degrees((leg.exit - leg.entry).angle) % 360
        assert math.isclose(turned, angle, abs_tol=1e-7) or math.isclose(
            turned, angle + 360, abs_tol=1e-7
        )


def test_legs_are_repeated_without_being_said_again() -> None:
    once = solved("r = run, from O, right 10, up 5, 3 times, left 30, close\n")
    long = solved(
        "r = run, from O, right 10, up 5, right 10, up 5, right 10, up 5, left 30, close\n"
    )
    assert run_of(once, "r") == run_of(long, "r")
    assert "stand before it" in refused("r = run, from O, 3 times, right 10\n")
    assert "at most 400 legs" in refused("r = run, from O, right 10, up 5, 300 times\n")
