"""``point``."""

import math

import pytest

from desk import HEAD, refused, thing
from entrick.core.desk import work_out
from entrick.core.geometry import Point


def test_points_by_offsets_and_by_angle() -> None:
    done = work_out(
        HEAD + "A = point, 30 right of O\nB = point, 10 left of A, 5 above O\nC = point, 20 from O, at 30°\n"
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
