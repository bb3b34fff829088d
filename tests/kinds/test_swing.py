"""``swing``."""

import math

import pytest

from desk import refused, solved, thing
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


def test_a_swing_opens_to_a_point() -> None:
    done = solved("A = point, 30 right of O, 40 above\ns = swing, from O, through A\n")
    assert thing(done, "s").radius == pytest.approx(50)
    assert "not both" in refused(
        "A = point, 30 right of O\ns = swing, from O, through A, radius 3\n"
    )
    assert "needle point itself" in refused("s = swing, from O, through O\n")
    assert "radius" in refused("s = swing, from O\n")
