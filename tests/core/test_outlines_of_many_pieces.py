"""What is looked for among very many pieces at once is what a general geometry library finds, or a look at every pair."""

from __future__ import annotations

import math
from itertools import combinations

import pytest
import shapely
from hypothesis import assume, given
from hypothesis import strategies as st

from desk import HEAD
from entrick.core.desk import work_out
from entrick.core.geometry import Point
from entrick.core.geometry.box import Box, nearest_first, neighbours
from entrick.core.geometry.loop import polyline
from entrick.core.proof.itself import crosses_itself, crossings

PLACES = st.integers(-40, 40).map(float)
BOXES = st.tuples(PLACES, PLACES, st.integers(0, 12), st.integers(0, 12)).map(
    lambda b: Box(b[0], b[1], b[0] + b[2], b[1] + b[3])
)


@given(st.lists(BOXES, max_size=40), st.sampled_from([0.0, 0.5, 3.0]))
def test_neighbours_are_the_pairs_of_boxes_that_meet(boxes: list[Box], close: float) -> None:
    pairs = [
        (i, j) for i, j in combinations(range(len(boxes)), 2) if boxes[i].meets(boxes[j], close)
    ]
    assert neighbours(boxes, close) == pairs
    near = [(boxes[i].apart(boxes[j]), i, j) for i, j in combinations(range(len(boxes)), 2)]
    assert nearest_first(boxes, close) == sorted(each for each in near if each[0] <= close)


@given(st.lists(st.tuples(PLACES, PLACES), min_size=3, max_size=14, unique=True))
def test_an_outline_crosses_itself_where_a_geometry_library_says_so(
    corners: list[tuple[float, float]],
) -> None:
    ring = shapely.LinearRing(corners)
    segments = [
        shapely.LineString(pair) for pair in zip(corners, [*corners[1:], corners[0]], strict=True)
    ]
    # Sides that touch, or run along each other, are other rules' business.
    for i, j in combinations(range(len(segments)), 2):
        one, other = segments[i], segments[j]
        beside = j - i in (1, len(segments) - 1)
        assume(not beside or one.intersection(other).length == 0)
        assume(beside or one.crosses(other) or one.distance(other) > 1e-6)
    loop = polyline(
        [Point(*corner) for corner in corners],
        [f"side.{n}" for n in range(len(corners))],
        closed=True,
    )
    assert crosses_itself(loop) == (not ring.is_simple)
    crossed = sum(one.crosses(other) for one, other in combinations(segments, 2))
    assert len(crossings(loop)) == crossed


@pytest.mark.parametrize("teeth", [20, 61, 250])
def test_a_long_outline_is_looked_through_as_well_as_a_short_one(teeth: int) -> None:
    corners = [(float(x), 0.0 if x % 2 else 10.0) for x in range(2 * teeth)]
    corners += [(2.0 * teeth, -30.0), (teeth + 0.5, 20.0), (0.0, -30.0)]
    loop = polyline(
        [Point(*corner) for corner in corners],
        [f"side.{n}" for n in range(len(corners))],
        closed=True,
    )
    rim = shapely.LinearRing(corners).segmentize(1e9)
    sides = [shapely.LineString(pair) for pair in zip(rim.coords[:-1], rim.coords[1:], strict=True)]
    crossed = sum(one.crosses(other) for one, other in combinations(sides, 2))
    assert crossed > 2
    assert len(crossings(loop)) == crossed


@given(st.integers(3, 40), st.integers(0, 39), st.sampled_from([0, 1, 5]))
def test_a_ring_of_holes_is_symmetric_until_one_is_moved(
    count: int, which: int, moved: int
) -> None:
    rows = "frame = box, 200 by 200, centred on O\nrim = line in, frame.bottom > frame.right > frame.top > frame.left\n"
    for index in range(count):
        at = math.radians(90 + 360 * index / count)
        off = moved / 10 if index == which % count else 0.0
        x, y = 80 * math.cos(at) + off, 80 * math.sin(at)
        rows += f"P{index} = point, {x:.9f} right of O, {y:.9f} above O\n".replace(" -", " 0-")
        rows += f"h{index} = circle, centre P{index}, radius 3\ni{index} = line in, h{index}\n"
    done = work_out(HEAD + rows + "must = check, symmetric about O.plumb\n")
    assert not done.solution.errors, done.solution.errors[0]
    found = [f for f in done.findings if f.rule == "symmetry" and "O.plumb" in f.message]
    assert [f.weight for f in found] == ["wrong" if moved else "good"], [f.message for f in found]
    if moved:
        assert found[0].message.endswith("has no image on the other side")
