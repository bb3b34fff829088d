"""A drafter measures from the side of a hole and the top of a boss: where the level and plumb lines through the centre
cross it (common practice, no source)."""

from __future__ import annotations

import math

import pytest
import shapely
from hypothesis import given
from hypothesis import strategies as st

from desk import HEAD, refused, solved, thing
from entrick.core.assist.complete import complete
from entrick.core.desk import work_out
from entrick.core.geometry import Point
from entrick.core.rehearsal.exactly import carried_exactly

SIDES = ("left", "right", "top", "bottom")
SIZES = st.integers(1, 60)


def outermost(coords: shapely.CoordinateSequence) -> dict[str, float]:
    xs, ys = zip(*coords, strict=True)
    return {"left": min(xs), "right": max(xs), "top": max(ys), "bottom": min(ys)}


@given(
    st.integers(-80, 80),
    st.integers(-60, 60),
    SIZES,
    st.sampled_from(SIDES),
    st.sampled_from(SIDES),
)
def test_they_are_as_far_out_as_the_circle_goes_and_can_be_drawn_to(
    x: int, y: int, r: int, one: str, two: str
) -> None:
    done = solved(
        f"A = point, {x + 81} right of O, {y + 61} above O\nc = circle, centre A, radius {r}\n"
        f"d = circle, centre O, diameter {r}\nl = line, from c.{one} to d.{two}\n"
        f"P = point, 7 left of c.{two}\nn = dimension, from c.left to d.right, level\n"
    )
    line, circle = thing(done, "l"), thing(done, "c")
    for name, spot in ((one, line.at(line.start)), (two, thing(done, "P") + Point(7.0, 0.0))):
        ring = outermost(
            shapely.Point(*circle.centre).buffer(circle.radius, quad_segs=64).exterior.coords
        )
        along = spot.x if name in ("left", "right") else spot.y
        assert along == pytest.approx(ring[name], abs=1e-9)
        assert abs(spot - circle.centre) == pytest.approx(circle.radius)
    carried = carried_exactly(done.solution, done.sheet)
    assert (carried.failure, carried.computed, carried.undrawn) == ("", (), ())
    assert carried.miss <= carried.allowed, carried.where


@given(st.integers(0, 359), st.integers(10, 350), st.sampled_from(SIDES))
def test_an_arc_has_those_it_reaches(start: int, sweep: int, side: str) -> None:
    row = f"s = swing, from O, radius 30, between {start} and {start + sweep}\nl = line, from O to s.{side}\n"
    quarter = {"right": 0, "top": 90, "left": 180, "bottom": 270}[side]
    if any(start <= quarter + turn <= start + sweep for turn in (0, 360)):
        line = thing(solved(row), "l")
        assert line.at(line.end) == pytest.approx(
            (30 * math.cos(math.radians(quarter)), 30 * math.sin(math.radians(quarter)))
        )
    else:
        assert f"has no part {side}" in refused(row)


def test_every_hole_of_a_ring_and_every_copy_has_its_own() -> None:
    rows = (
        "pitch = circle, centre O, radius 40\nring = spaced, 4 on pitch\nh = circle, centre ring, radius 5\n"
        "l = line, from h.1.right to h.2.top\nB = point, 60 left of O\nc = circle, centre B, radius 9\n"
        "m = mirror, of c, about O.plumb\nk = line, from c.bottom to m.bottom\n"
    )
    done = solved(rows)
    line, other = thing(done, "l"), thing(done, "k")
    assert line.at(line.start) == pytest.approx((45, 0))
    assert line.at(line.end) == pytest.approx((0, 45))
    assert other.at(other.start) == pytest.approx((-60, -9))
    assert other.at(other.end) == pytest.approx((60, -9))
    carried = carried_exactly(done.solution, done.sheet)
    assert (carried.failure, carried.computed) == ("", ())
    told = [step.text for step in done.steps if step.name == "k"]
    assert any("Edge through B" in text and "plumb" in text for text in told), told


def test_they_are_found_as_one_writes_and_a_slip_of_the_pen_is_mended() -> None:
    head = HEAD + "c = circle, centre O, radius 20\n"
    offered = {found.row for found in complete(work_out(head).solution, 4, "l = line, from c.")}
    assert {f"l = line, from c.{side}" for side in SIDES} <= {row.rstrip() for row in offered}
    error = work_out(head + "l = line, from O to c.topp\n").solution.errors[0]
    assert error.mend == "l = line, from O to c.top"
