"""``box``."""

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from desk import solved
from entrick.core.desk import work_out
from entrick.core.geometry import Line, Loop, Point


@given(st.integers(1, 300), st.integers(1, 200))
def test_a_box_has_named_sides_and_corners_and_closes(width: int, height: int) -> None:
    done = solved(
        f"f = box, {width} by {height}, centred on O\ng = box, {width} by {height}, from f.upper_right\n"
        "rim = line in, f.bottom > f.right > f.top > f.left\nd = line, from f.lower_left to f.upper_right\n"
    )
    items = done.solution.figure.items
    rim = items["rim"].shape
    assert isinstance(rim, Loop)
    assert abs(rim.area) == pytest.approx(width * height)
    assert items["f"].parts["centre"] == Point(0, 0)
    assert items["g"].parts["lower_left"] == items["f"].parts["upper_right"]
    diagonal = items["d"].shape
    assert isinstance(diagonal, Line)
    assert diagonal.end == pytest.approx(math.hypot(width, height))


def test_a_box_in_inches_halves_exactly() -> None:
    done = work_out("units in\nO = datum\nf = box, 4 1/4 by 2 9/16, centred on O\n")
    made = done.solution.entries[-1].made
    assert made is not None
    assert made.working == ("4 1/4 ÷ 2 = 2 1/8", "2 9/16 ÷ 2 = 1 9/32")


@given(st.integers(20, 300), st.integers(20, 200), st.integers(1, 9))
def test_fillets_of_a_box_need_no_choosing_and_make_it_smooth(
    width: int, height: int, radius: int
) -> None:
    """Where two sides end in a corner only one fillet lies on both; area is that of the box less (4 − π)r² (plane geometry)."""
    sides = ["bottom", "right", "top", "left"]
    rows = [f"f = box, {width} by {height}, centred on O"]
    rows += [
        f"c{i} = fillet, between f.{a} and f.{b}, radius {radius}"
        for i, (a, b) in enumerate(zip(sides, sides[1:] + sides[:1], strict=True))
    ]
    rows.append("rim = line in, " + " > ".join(f"f.{side} > c{i}" for i, side in enumerate(sides)))
    done = solved("\n".join(rows) + "\n")
    rim = done.solution.figure.items["rim"].shape
    assert isinstance(rim, Loop)
    assert all(j.is_tangent for j in rim.junctions)
    assert abs(rim.area) == pytest.approx(width * height - (4 - math.pi) * radius**2)
