"""``smooth``."""

import math
from itertools import pairwise

import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from desk import refused, run_of, solved
from entrick.core.geometry import Point

angles = st.integers(0, 359)


coordinates = st.integers(-60, 60)


@given(st.lists(st.tuples(coordinates, coordinates), min_size=3, max_size=6, unique=True), angles)
def test_a_smooth_curve_goes_through_every_point_without_a_corner(
    spots: list[tuple[int, int]], leaving: int
) -> None:
    gaps = [math.hypot(b[0] - a[0], b[1] - a[1]) for a, b in pairwise(spots)]
    assume(min(gaps) > 5)
    for a, b, c in zip(spots, spots[1:], spots[2:], strict=False):
        turn = (b[0] - a[0]) * (c[0] - b[0]) + (b[1] - a[1]) * (c[1] - b[1])
        # Open: points that come back at under 18° may get a cusp, such as (-23, -46), (-29, -54), (-17, -30), leaving at 0.
        assume(
            turn
            > -0.95 * math.hypot(b[0] - a[0], b[1] - a[1]) * math.hypot(c[0] - b[0], c[1] - b[1])
        )
    (x0, y0), (x1, y1) = spots[:2]
    back = math.atan2(y1 - y0, x1 - x0) - math.radians(leaving)
    assume(math.cos(back) > -1 + 1e-9)  # straight away from the next point is refused
    rows = "".join(f"P{i} = point, {x} right of O, {y} above O\n" for i, (x, y) in enumerate(spots))
    names = " ".join(f"P{i}" for i in range(len(spots)))
    curve = run_of(solved(rows + f"s = smooth, through {names}, leaving at {leaving}\n"), "s")
    assert all(junction.is_tangent for junction in curve.junctions)
    for x, y in spots:
        assert curve.distance(Point(float(x), float(y))) < 1e-6
    first = curve.pieces[0]
    way = first.direction(first.entry)
    assert math.cos(way.angle - math.radians(leaving)) == pytest.approx(1, abs=1e-9)


def test_a_smooth_curve_says_whether_its_points_were_computed() -> None:
    rows = "A = point, 20 right of O, 8 above\nB = point, 45 right of O, 5 above\n"
    told = [
        e.made.sentence
        for e in solved(
            rows + "s = smooth, through O A B\nt = smooth, through O A B, by eye\n"
        ).solution.entries
        if e.made
    ]
    assert told[-1] != told[-2].replace(" s", " t")
    assert "eye" in told[-1]


def test_a_smooth_curve_that_sets_out_straight_away_is_refused() -> None:
    rows = (
        "A = point, 20 right of O\nB = point, 45 right of O, 5 above\ns = smooth, through O A B, "
    )
    assert "leaves O straight away from A" in refused(rows + "leaving at 180°\n")
    assert "arrives at B straight back towards A" in refused(rows + "arriving along line B A\n")


def test_a_smooth_curve_that_comes_straight_back_turns_round() -> None:
    curve = run_of(
        solved("A = point, 40 right of O\nB = point, 15 right of O\ns = smooth, through O A B\n"),
        "s",
    )
    assert all(junction.is_tangent for junction in curve.junctions)
    assert curve.distance(Point(40.0, 0.0)) < 1e-9
