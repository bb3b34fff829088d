"""``line``."""

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from desk import HEAD, led_to, line_of, point_of, refused, solved, thing
from entrick.core.desk import work_out
from entrick.core.geometry import Point

TWO = "A = point, 70 left of O\nB = point, 70 right of O\na = circle, centre A, radius 30\nb = circle, centre B, radius 20\n"


def test_lines_level_plumb_at_an_angle_parallel_and_square() -> None:
    done = work_out(
        HEAD + "A = point, 30 right of O\nl = line, through A, level\np = line, through A, plumb\n"
        "s = line, through O, at 30°\nq = line, through A, parallel to s\nr = line, through A, square to s\n"
        "t = line, from O to A\nu = line, through O, through A\nX = crossing, of s and p\n"
    )
    directions = {n: thing(done, n).direction for n in "lpsqrtu"}  # type: ignore[union-attr]
    assert directions["l"] == Point(1, 0)
    assert directions["p"] == Point(0, 1)
    assert directions["q"] == directions["s"]
    assert abs(directions["r"].dot(directions["s"])) < 1e-12
    assert directions["t"] == directions["u"]
    x = thing(done, "X")
    assert isinstance(x, Point)
    assert (x.x, x.y) == pytest.approx((30, 30 * math.tan(math.radians(30))))


def test_a_line_may_be_said_in_several_ways() -> None:
    rows = "A = point, 30 right of O, 4 above\n" + "".join(
        f"l{i} = line, {said}\n"
        for i, said in enumerate(
            (
                "from O to A",
                "O A",
                "O to A",
                "through O and A",
                "through O A",
                "through O, through A",
            )
        )
    )
    done = work_out(HEAD + rows + "m = line, from O, level\nn = line, through O, level\n")
    assert not done.solution.errors
    assert len({thing(done, f"l{i}") for i in range(6)}) == 1
    assert thing(done, "m") == thing(done, "n")
    pair = (
        HEAD
        + TWO
        + "s = line, touching a, touching b, outer, above\nt = line, touching a and b, outer, above\n"
    )
    assert thing(work_out(pair), "s") == thing(work_out(pair), "t")
    assert "nothing more" in refused(TWO + "t = line, touching a and b, level")


RING = "A = point, 60 left of O\nring = circle, centre O, radius 20\n"


@given(st.floats(-18, 18), st.sampled_from(["left", "right"]))
def test_a_line_runs_as_far_as_the_curve_it_is_drawn_to(degrees: float, side: str) -> None:
    """The near or the far crossing by the law of cosines: 20² = d² + 60² − 2·60·d·cos a."""
    done = solved(f"{RING}l = line, through A, at {degrees:.3f}°, to ring, {side}\n")
    middle, half = (
        60 * math.cos(math.radians(round(degrees, 3))),
        60 * math.sin(math.radians(round(degrees, 3))),
    )
    want = middle + (-1 if side == "left" else 1) * math.sqrt(400 - half**2)
    line = line_of(done, "l")
    assert abs(line.at(line.end or 0.0) - line.at(line.start or 0.0)) == pytest.approx(want)
    assert line.at(line.start or 0.0) == point_of(done, "A")
    led_to(done)


@given(st.integers(0, 359), st.integers(1, 90))
def test_a_line_of_a_length_ends_there(degrees: int, length: int) -> None:
    done = solved(f"l = line, through O, at {degrees}°, for {length}\n")
    end = line_of(done, "l").at(line_of(done, "l").end or 0.0)
    assert abs(end) == pytest.approx(length)
    assert math.remainder(end.angle - math.radians(degrees), math.tau) == pytest.approx(0, abs=1e-9)
    led_to(done)


def test_from_within_a_ring_the_end_ahead_is_meant() -> None:
    done = solved(
        f"{RING}l = line, through O, at 30°, to ring\nw = line, through O, plumb\nm = line, through A, at 10°, to w\n"
    )
    line = line_of(done, "l")
    assert line.at(line.end or 0.0) == pytest.approx(Point(20 * math.cos(math.pi / 6), 10))
    up = line_of(done, "m")
    assert up.at(up.end or 0.0) == pytest.approx(
        Point(0, 60 * math.tan(math.radians(10))), abs=1e-9
    )
    led_to(done)


def test_a_line_that_ends_nowhere_says_why() -> None:
    for said, told in (
        ("through A, at 60°, to ring", "the line never comes to ring"),
        ("through A, level, to ring", "2 ends fit"),
        ("through A, plumb, for 0", "has no length"),
        ("through A, for 40", "starts from one point in one direction"),
        ("from O to A, level", "needs nothing more"),
    ):
        assert told in refused(f"{RING}l = line, {said}\n")
