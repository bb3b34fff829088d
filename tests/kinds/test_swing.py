"""``swing``."""

import math

import pytest

from desk import solved
from entrick.core.geometry import Arc, Circle


def test_a_swing_is_drawn_only_as_far_as_it_is_wanted() -> None:
    done = solved(
        "A = point, 60 right of O\ns = swing, from O, radius 40\nt = swing, from O, radius 40, between 20° and 80°\nu = swing, from O, radius 40, towards A\n"
    )
    items = done.solution.figure.items
    assert isinstance(items["s"].shape, Circle | Arc)
    arc, short = items["t"].shape, items["u"].shape
    assert isinstance(arc, Arc)
    assert (math.degrees(arc.start), math.degrees(arc.sweep)) == pytest.approx((20, 60))
    assert isinstance(short, Arc)
    assert abs(short.middle.angle) < 1e-9
