"""``point``."""

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from desk import HEAD, led_to, point_of, refused, solved, thing
from entrick.core.desk import work_out
from entrick.core.geometry import Point


def test_points_by_offsets_and_by_angle() -> None:
    done = work_out(
        HEAD
        + "A = point, 30 right of O\nB = point, 10 left of A, 5 above O\nC = point, 20 from O, at 30°\n"
        "D = point, 12 above A, 3 right\n"
    )
    assert thing(done, "A") == Point(30, 0)
    assert thing(done, "B") == Point(20, 5)
    assert thing(done, "D") == Point(33, 12)
    c = thing(done, "C")
    assert isinstance(c, Point)
    assert (c.x, c.y) == pytest.approx((10 * math.sqrt(3), 10))
    more = work_out(HEAD + "A = point, 20 from O at 30°\nB = point, 20 right, 10 above of O\n")
    assert thing(more, "A") == c
    assert thing(more, "B") == Point(20, 10)
    assert "same direction twice" in refused("A = point, 3 right of O, 4 left of O")
    assert "measured from" in refused("A = point, 3 right")
    assert "also needs its angle" in refused("A = point, 3 from O")


@given(st.integers(0, 359), st.integers(-90, 90))
def test_a_point_on_a_curve_lies_where_it_is_said(degrees: int, along: int) -> None:
    done = solved(
        f"ring = circle, centre O, radius 20\nslope = line, through O, at 30°\n"
        f"p = point, on ring at {degrees}°\nq = point, on slope {along} from O\n"
    )
    turn = math.radians(degrees)
    assert abs(point_of(done, "p") - Point(20 * math.cos(turn), 20 * math.sin(turn))) < 1e-12
    assert abs(point_of(done, "q") - Point(along * math.cos(math.pi / 6), along / 2)) < 1e-12
    led_to(done)


def test_a_point_that_is_said_wrongly_says_why() -> None:
    ring = "A = point, 60 left of O\nring = circle, centre O, radius 20\n"
    for said, told in (
        ("on ring 30 from O", "ring is round: say an angle"),
        ("on O.level at 30°", "is a line: say how far along it"),
        ("on O.plumb 30 from A", "A does not lie on O.plumb"),
        ("20 from O, at 30°, 5 right of O", "either by offsets or by a distance and an angle"),
    ):
        assert told in refused(f"{ring}p = point, {said}\n")
