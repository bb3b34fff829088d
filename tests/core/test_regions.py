"""Lining in by pointing inside the material: what is walked is the boundary of what was pointed at."""

import math
from functools import partial

import pytest
import shapely
from hypothesis import assume, given
from hypothesis import strategies as st
from shapely.ops import polygonize, unary_union

from desk import solved
from entrick.core.assist.regions import region_at
from entrick.core.desk import Work, work_out
from entrick.core.geometry import Arc, Circle, Loop, Point
from entrick.core.geometry.edges import RegionError
from entrick.core.plan.writer import write_plan
from entrick.core.solve import Solution

HEAD = "units mm\nsheet A1 landscape, scale 1:1, border 10\nO = datum\n"


def written(done: Work, statements: tuple[str, ...]) -> Solution:
    """Put the statements at the end of the plan and solve it."""
    again = work_out(write_plan(done.plan) + "\n".join(statements) + "\n")
    assert not again.solution.errors, again.solution.errors
    return again.solution


def area(loops: tuple[Loop, ...]) -> float:
    return sum(loop.area for loop in loops)


def test_an_outer_loop_and_the_holes_in_it_are_written_as_statements() -> None:
    done = solved("frame = box, 80 by 50, centred on O\nc = circle, centre O, radius 10\n")
    region = region_at(done.solution, [Point(30, 20)])
    assert [row.partition(" = ")[0] for row in region.statements] == ["rim", "hole"]
    assert area(region.loops) == pytest.approx(80 * 50 - math.pi * 100)
    again = written(done, region.statements)
    rim, hole = (again.figure.items[name].shape for name in ("rim", "hole"))
    assert isinstance(rim, Loop)
    assert isinstance(hole, Loop)
    assert abs(rim.area) - abs(hole.area) == pytest.approx(80 * 50 - math.pi * 100)


def test_names_already_taken_are_left_alone_and_hidden_runs_can_be_written() -> None:
    done = solved(
        "frame = box, 80 by 50, centred on O\nrim = line in, frame.bottom > frame.right > frame.top > frame.left\n"
    )
    region = region_at(done.solution, [Point(0, 0)], "hidden")
    (row,) = region.statements
    name, walk = row.split(" = hidden, ")
    assert name == "rim2"
    assert set(walk.split(" > ")) == {"frame.bottom", "frame.right", "frame.top", "frame.left"}


def test_a_spot_around_which_nothing_closes_is_refused_in_words() -> None:
    done = solved("c = circle, centre O, radius 10\n")
    with pytest.raises(RegionError, match="nothing closes around this spot"):
        region_at(done.solution, [Point(50, 0)])


numbers = st.integers(-40, 40)
circles = st.tuples(numbers, numbers, st.integers(6, 30))


@given(
    st.lists(circles, min_size=2, max_size=5, unique=True),
    st.lists(st.tuples(numbers, numbers), min_size=1, max_size=4),
)
def test_regions_among_circles_against_shapely(
    rings: list[tuple[int, int, int]], spots: list[tuple[int, int]]
) -> None:
    """The union of the faces the spots lie in, of circles sampled finely: the same area; and the statements walk it."""
    drawn = [shapely.Point(x, y).buffer(r, quad_segs=400) for x, y, r in rings]
    for index, (x, y, r) in enumerate(rings):
        for u, v, s in rings[:index]:
            gap = math.hypot(x - u, y - v)
            assume(
                min(abs(gap - r - s), abs(gap - abs(r - s))) > 0.5
            )  # near tangency the sampled faces differ
    faces = list(polygonize(unary_union([ring.exterior for ring in drawn])))
    inside = [face for face in faces if any(face.contains(shapely.Point(spot)) for spot in spots)]
    assume(inside)
    assume(
        all(ring.exterior.distance(shapely.Point(spot)) > 0.3 for ring in drawn for spot in spots)
    )
    assume(all(any(face.contains(shapely.Point(spot)) for face in faces) for spot in spots))
    rows = "".join(
        f"P{i} = point, {x} right of O, {y} above O\nc{i} = circle, centre P{i}, radius {r}\n"
        for i, (x, y, r) in enumerate(rings)
    )
    done = solved(rows)
    region = region_at(done.solution, [Point(float(x), float(y)) for x, y in spots])
    assert area(region.loops) == pytest.approx(unary_union(inside).area, rel=2e-3, abs=0.5)
    again = written(done, region.statements)
    names = [row.partition(" = ")[0] for row in region.statements]
    walked = [again.figure.items[name].shape for name in names]
    assert [abs(loop.area) for loop in walked if isinstance(loop, Loop)] == pytest.approx(
        [abs(loop.area) for loop in region.loops]
    )


@given(
    st.lists(st.integers(3, 20), min_size=2, max_size=5),
    st.lists(st.integers(3, 20), min_size=2, max_size=5),
    st.data(),
)
def test_cells_of_a_grid_join_into_one_outline(
    across: list[int], up: list[int], data: st.DataObject
) -> None:
    """Any set of cells: the area is theirs, every corner is square, and inner lines are left out."""
    cells = [(i, j) for i in range(len(across)) for j in range(len(up))]
    chosen = data.draw(st.lists(st.sampled_from(cells), min_size=1, unique=True))
    done = solved(
        f"g = grid, from O, across {' '.join(map(str, across))}, up {' '.join(map(str, up))}\n"
    )
    spots = [Point(sum(across[:i]) + across[i] / 2, sum(up[:j]) + up[j] / 2) for i, j in chosen]
    region = region_at(done.solution, spots)
    assert area(region.loops) == pytest.approx(sum(across[i] * up[j] for i, j in chosen))
    joined = unary_union(
        [
            shapely.box(s.x - across[i] / 2, s.y - up[j] / 2, s.x + across[i] / 2, s.y + up[j] / 2)
            for s, (i, j) in zip(spots, chosen, strict=True)
        ]
    )
    assert sum(loop.length for loop in region.loops) == pytest.approx(joined.length)
    for loop in region.loops:
        assert all(abs(abs(j.turn) - math.pi / 2) < 1e-9 for j in loop.junctions)


def test_a_region_among_a_thousand_pieces() -> None:
    ones = " ".join(["2"] * 21)
    done = solved(
        f"g = grid, from O, across {ones}, up {ones}\nc = circle, centre g.at.10.10, radius 15.3\n"
    )
    region = region_at(done.solution, [Point(20.4, 20.9), Point(21.1, 21.3)])
    assert area(region.loops) == pytest.approx(4.0)
    edge = region_at(done.solution, [Point(20 + 15.2, 20.1)])
    assert any(
        isinstance(piece.curve, Arc | Circle) for loop in edge.loops for piece in loop.pieces
    )


solved = partial(solved, head=HEAD)
