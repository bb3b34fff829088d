"""``rounded``."""

import math

import pytest
import shapely
from hypothesis import given
from hypothesis import strategies as st

from desk import outline, refused, run_of, solved

FRAME = "b = box, 60 by 40, centred on O\n"


@given(st.floats(0.5, 19.5))
def test_a_rounded_frame_has_the_handbooks_area_and_girth(radius: float) -> None:
    """Area l·w − (4 − π)r², girth 2(l + w) − (8 − 2π)r (common practice, no source)."""
    r = round(radius, 6)
    run = run_of(solved(f"{FRAME}x = rounded, all corners of b, radius {r:.6f}\n"), "x")
    assert all(junction.is_tangent for junction in run.junctions)
    assert run.area == pytest.approx(2400 - (4 - math.pi) * r * r)
    assert run.length == pytest.approx(200 - (8 - 2 * math.pi) * r)


@given(
    st.lists(st.tuples(st.integers(8, 30), st.integers(8, 30)), min_size=3, max_size=6),
    st.floats(0.5, 3.5),
)
def test_rounds_of_a_stair_are_what_growing_and_shrinking_leaves(
    steps: list[tuple[int, int]], radius: float
) -> None:
    """Against shapely: opened and closed by a disc of the radius, a polygon has just these rounds, in and out."""
    r = round(radius, 4)
    legs = ", ".join(f"right {x}, up {y}" for x, y in steps)
    done = solved(
        f"p = run, from O, {legs}, left {sum(x for x, _ in steps)}, close\nx = rounded, all corners of p, radius {r:.4f}\n"
    )
    plain = outline(run_of(done, "p"))
    smooth = plain.buffer(-r, quad_segs=200).buffer(2 * r, quad_segs=200).buffer(-r, quad_segs=200)
    ours = outline(run_of(done, "x"), 400)
    assert shapely.symmetric_difference(ours, smooth).area < 2e-3 * r * r * len(steps) * 4


def test_named_corners_alone_are_rounded() -> None:
    run = run_of(
        solved(f"{FRAME}x = rounded, corners b.lower_left b.upper_right of b, radius 8\n"), "x"
    )
    assert [abs(junction.turn) > 1 for junction in run.junctions].count(True) == 2
    assert run.area == pytest.approx(2400 - 2 * (1 - math.pi / 4) * 64)


def test_a_corner_between_arc_and_line_is_rounded_too() -> None:
    rows = "c = circle, centre O, radius 30\nl = line, through O, level\ncap = run, from O, right 5, up 5, close\n"
    rows += "half = line in, c cw > l\nx = rounded, all corners of half, radius 5\n"
    run = run_of(solved(rows), "x")
    assert all(junction.is_tangent for junction in run.junctions)
    assert [round(abs(p.curve.radius), 9) for p in run.pieces if "round" in p.name] == [5, 5]  # type: ignore[union-attr]


@pytest.mark.parametrize(
    ("clauses", "told"),
    [
        ("all corners of b, radius 21", "run into each other"),
        ("all corners of b, radius 50", "does not fit"),
        ("corners O of b, radius 5", "O is no corner"),
        ("all corners of x0, radius 5", "no corner to round"),
    ],
)
def test_what_does_not_fit_is_said(clauses: str, told: str) -> None:
    rows = FRAME + "c = circle, centre O, radius 9\nx0 = line in, c\n"
    assert told in refused(f"{rows}x = rounded, {clauses}\n")
