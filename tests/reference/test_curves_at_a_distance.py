"""Constant walls and hatching against shapely, a general-purpose geometry library."""

import math

import pytest
import shapely
from hypothesis import assume, given
from hypothesis import strategies as st

from entrick.core.desk import work_out
from entrick.core.geometry import Arc, Circle, Line, Loop, Point, polyline
from entrick.core.geometry.hatch import hatch_lines
from entrick.core.geometry.inset import inset
from examples import some


def sampled(loop: Loop, parts: int = 300) -> shapely.Polygon:
    spots: list[tuple[float, float]] = []
    for piece in loop.pieces:
        match piece.curve:
            case Arc() as arc:
                spots += [
                    (p.x, p.y)
                    for i in range(parts)
                    for p in [arc.at(arc.start + arc.sweep * i / parts)]
                ]
            case Circle() as circle:
                spots += [
                    (p.x, p.y) for i in range(parts) for p in [circle.at(math.tau * i / parts)]
                ]
            case Line():
                spots.append((piece.entry.x, piece.entry.y))
    return shapely.Polygon(spots)


rays = st.lists(st.tuples(st.integers(15, 60), st.floats(0.4, 1.0)), min_size=3, max_size=9)


def star(rays: list[tuple[int, float]]) -> Loop:
    """A polygon seen whole from the middle."""
    total = sum(share for _, share in rays)
    angle, corners = 0.0, []
    for reach, share in rays:
        corners.append(Point(reach * math.cos(angle), reach * math.sin(angle)))
        angle += math.tau * share / total
    return polyline(corners, [str(i) for i in range(len(corners))], closed=True)


@given(rays, st.floats(0.5, 14))
def test_a_wall_inside_against_shapely(rays: list[tuple[int, float]], wall: float) -> None:
    """An eroded polygon: mitred joins inward are exact in both."""
    loop = star(rays)
    outline = sampled(loop)
    assume(outline.is_valid)
    theirs = outline.buffer(-wall, quad_segs=300)
    assume(
        abs(outline.buffer(-wall - 0.02, quad_segs=60).area - theirs.area) < 0.05 * outline.length
    )
    ours = inset(loop, wall)
    assert sum(abs(found.area) for found in ours) == pytest.approx(theirs.area, rel=2e-4, abs=0.05)
    for found in ours:
        assert found.closed
        assert all(
            abs(p.entry - q.exit) < 1e-6
            for p, q in zip(found.pieces, (found.pieces[-1], *found.pieces), strict=False)
        )


@given(rays, st.floats(0.5, 14))
def test_a_wall_outside_is_rounded_as_shapelys(rays: list[tuple[int, float]], wall: float) -> None:
    loop = star(rays)
    outline = sampled(loop)
    assume(outline.is_valid)
    theirs = shapely.Polygon(outline.buffer(wall, quad_segs=300).exterior)
    ours = inset(loop, wall, inward=False)
    assert abs(ours[0].area) == pytest.approx(theirs.area, rel=2e-4)


@given(rays, st.floats(0.5, 14))
def test_a_sharp_wall_outside_is_mitred_as_shapelys(
    rays: list[tuple[int, float]], wall: float
) -> None:
    """Corners run out to a point, save where that would lie more than four walls away."""
    loop = star(rays)
    outline = sampled(loop)
    assume(outline.is_valid)
    outward = [j.turn for j in loop.junctions if j.turn > 0]
    assume(all(1 / math.cos(turn / 2) < 3.9 for turn in outward))
    theirs = shapely.Polygon(outline.buffer(wall, join_style="mitre", mitre_limit=4).exterior)
    (ours, *_) = inset(loop, wall, inward=False, sharp=True)
    assert all(isinstance(piece.curve, Line) for piece in ours.pieces)
    assert abs(ours.area) == pytest.approx(theirs.area, rel=1e-9)


@pytest.mark.parametrize("wall", some([0.5, 2, 5, 8, 12, 20, 25], 3))
def test_walls_of_the_samples_keep_arcs_and_shrink_to_nothing(
    samples: dict[str, str], wall: float
) -> None:
    """Every closed outline of the samples: area against a finely sampled one, arcs about their own centres."""
    for text in samples.values():
        done = work_out(text)
        for entry in done.solution.entries:
            for loop in entry.made.loops if entry.made else ():
                if not loop.closed or len(loop.pieces) > 12:
                    continue
                factor = float(done.solution.unit.mm)
                ours = inset(loop, wall / factor)
                theirs = sampled(loop).buffer(-wall / factor, quad_segs=200)
                assert sum(abs(found.area) for found in ours) == pytest.approx(
                    theirs.area, rel=5e-3, abs=0.02 * loop.length
                )
                centres = [p.curve.centre for p in loop.pieces if isinstance(p.curve, Arc | Circle)]
                corners = [p.entry for p in loop.pieces]
                for piece in (p for found in ours for p in found.pieces):
                    if isinstance(piece.curve, Arc | Circle):
                        assert any(abs(piece.curve.centre - c) < 1e-6 for c in (*centres, *corners))


@given(rays, st.floats(0, 180), st.floats(0.5, 6), st.floats(1, 9))
def test_hatching_fills_the_region_and_stops_at_its_edge(
    rays: list[tuple[int, float]], degrees: float, spacing: float, bore: float
) -> None:
    """Every line lies in the region; lengths times spacing come to the area (the strips of an integral)."""
    loop = star(rays)
    outline = sampled(loop)
    hole = Loop(
        (loop.pieces[0].__class__(Circle(Point(0, 0), bore), "c", Point(bore, 0), Point(bore, 0)),),
        True,
    )
    ring = shapely.Point(0, 0).buffer(bore, quad_segs=300)
    assume(outline.is_valid and outline.contains(ring.buffer(0.5)))
    lines = hatch_lines((loop, hole), degrees, spacing)
    region = outline.difference(ring)
    for line in lines:
        assert line.end is not None
        a, b = line.at(0.0), line.at(line.end)
        drawn = shapely.LineString([(a.x, a.y), (b.x, b.y)])
        assert drawn.difference(region.buffer(2e-3)).length < 1e-6
        assert region.boundary.distance(shapely.Point(a.x, a.y)) < 2e-3
        assert region.boundary.distance(shapely.Point(b.x, b.y)) < 2e-3
    fine = hatch_lines((loop, hole), degrees, 0.05)
    assert sum(line.end or 0.0 for line in fine) * 0.05 == pytest.approx(region.area, rel=5e-3)
