"""What is seen in a bare profile, each both ways: told when it is so, and not told when it is not quite so."""

import io
import math
import random

import ezdxf
import pytest
from hypothesis import given
from hypothesis import strategies as st

from desk import solved
from entrick.core.desk import work_out
from entrick.core.formats import write_cutter_dxf
from entrick.core.geometry import Arc, Circle, Line, Point, polar
from entrick.core.geometry.inset import inset
from entrick.core.measure import Unit
from entrick.core.readback import ReadBack, read_back, read_profile
from entrick.core.readback.copies import Grid, Mirrored, Ring, Row, Scattered, Single, copies_of
from entrick.core.readback.profile import Run, loop_of
from entrick.core.readback.rows import Rows
from entrick.core.readback.symmetry import Axes, axes_of, times_round
from entrick.core.readback.tangent import runs_into
from entrick.core.readback.walls import wall_between

FINE = 1e-6
NONE = Axes(Point(0.0, 0.0), False, False)
BOTH = Axes(Point(0.0, 0.0), True, True)


def polygon(spots: list[Point]) -> Run:
    return tuple(Line.between(a, b) for a, b in zip(spots, [*spots[1:], spots[0]], strict=True))


def star(times: int, deep: float, start: float = 0.1) -> list[Point]:
    return [
        polar(40 - deep * (k % 2), start + math.tau * k / (2 * times)) for k in range(2 * times)
    ]


def holes(spots: list[Point], radius: float = 4.0) -> list[Run]:
    return [(Circle(spot, radius),) for spot in spots]


def again(rows: str) -> ReadBack:
    done = solved(rows)
    return read_back(
        read_profile(write_cutter_dxf(done.outlines, Unit.MM).encode(), "x.dxf", FINE), None, FINE
    )


def drawn(
    corners: list[tuple[float, float, float]], *circles: tuple[float, float, float]
) -> ReadBack:
    """Read back an outline by its corners with bulges, and circles."""
    document = ezdxf.new()
    document.header["$INSUNITS"] = 4
    document.modelspace().add_lwpolyline(corners, format="xyb", close=True)
    for x, y, r in circles:
        document.modelspace().add_circle((x, y), r)
    stream = io.StringIO()
    document.write(stream)
    return read_back(read_profile(stream.getvalue().encode(), "x.dxf", FINE), None, FINE)


@given(
    st.lists(st.tuples(st.floats(3, 40), st.floats(-30, 30)), min_size=2, max_size=8, unique=True),
    st.floats(-50, 50),
    st.booleans(),
)
def test_an_outline_is_alike_about_its_axis_and_about_no_other(
    half: list[tuple[float, float]], across: float, spoiled: bool
) -> None:
    right = [Point(across + x, y) for x, y in sorted(half, key=lambda p: p[1])]
    left = [Point(2 * across - p.x, p.y) for p in reversed(right)]
    spots = [*right, *left]
    if min(abs(a - b) for a, b in zip(spots, [*spots[1:], spots[0]], strict=True)) < 0.1:
        return
    if spoiled:
        spots[0] += Point(0.05, 0.03)
    run = polygon(spots)
    if abs(loop_of(run).area) < 1:
        return
    assert axes_of([run], FINE).plumb is not spoiled


@given(st.integers(3, 40), st.floats(2, 20), st.booleans())
def test_how_often_an_outline_comes_again_round_its_middle(
    times: int, deep: float, spoiled: bool
) -> None:
    spots = star(times, deep)
    if spoiled:
        spots[1] = spots[1] * 1.001
    found, centre = times_round(polygon(spots), FINE)
    assert found == (1 if spoiled else times)
    assert spoiled or abs(centre) < 1e-6


@given(st.integers(3, 16), st.floats(0, 6.2), st.floats(20, 90), st.booleans())
def test_holes_share_a_pitch_circle_equally_or_are_no_ring(
    count: int, start: float, arm: float, spoiled: bool
) -> None:
    spots = [polar(arm, start + math.tau * k / count) for k in range(count)]
    if spoiled:
        spots[-1] = polar(arm, start + math.tau * (count - 1) / count + 0.002)
    found = copies_of(
        [((Circle(Point(0.0, 0.0), 200.0)),), *holes(spots)], NONE, Rows(Unit.MM, FINE)
    )
    rings = [group for group in found if isinstance(group, Ring)]
    assert len(rings) == (0 if spoiled else 1)
    assert sorted(
        n for group in found for n in group.members if not isinstance(group, Mirrored)
    ) == list(range(count + 1))


@given(st.integers(3, 12), st.floats(10, 30), st.floats(-9, 9), st.booleans())
def test_holes_stand_in_a_row_or_do_not(
    count: int, pitch: float, rise: float, spoiled: bool
) -> None:
    spots = [Point(-70.0 + pitch * k, -20.0 + rise * k) for k in range(count)]
    if spoiled:
        spots[1] += Point(0.01, 0.0)
    found = copies_of(holes(spots), NONE, Rows(Unit.MM, FINE))
    rows = [group for group in found if isinstance(group, Row)]
    assert (
        max((len(row.members) for row in rows), default=0) == count
        if not spoiled
        else all(len(row.members) < count for row in rows)
    )


@given(st.integers(2, 7), st.integers(3, 7), st.floats(10, 20), st.floats(10, 20), st.booleans())
def test_holes_stand_in_rows_above_each_other_or_one_is_missing(
    across: int, up: int, wide: float, high: float, missing: bool
) -> None:
    spots = [Point(wide * i, high * j) for j in range(up) for i in range(across)]
    found = copies_of(holes(spots[: len(spots) - missing]), NONE, Rows(Unit.MM, FINE))
    assert any(isinstance(group, Grid) for group in found) is not missing


@given(
    st.lists(
        st.tuples(st.integers(5, 90), st.integers(5, 60)), min_size=1, max_size=6, unique=True
    ),
    st.booleans(),
)
def test_what_stands_on_both_sides_is_said_once(
    places: list[tuple[int, int]], spoiled: bool
) -> None:
    quarter = [Point(float(x), float(y)) for x, y in places]
    spots = [Point(p.x * i, p.y * j) for p in quarter for i in (1, -1) for j in (1, -1)]
    if spoiled:
        spots[3] += Point(0.02, 0.0)
    found = copies_of(holes(spots), BOTH, Rows(Unit.MM, FINE))
    images = [n for group in found if isinstance(group, Mirrored) for n in group.images]
    alone = [
        n
        for group in found
        if isinstance(group, Single | Ring | Row | Grid | Scattered)
        for n in group.members
    ]
    assert sorted([*images, *alone]) == list(range(len(spots)))
    if not any(isinstance(group, Ring | Grid | Row) for group in found):
        # The one that was moved has no image, nor has the one whose image it was.
        assert len(alone) == len(quarter) + (1 if spoiled else 0)


@given(
    st.integers(60, 140), st.integers(40, 90), st.integers(6, 14), st.integers(3, 12), st.booleans()
)
def test_a_wall_is_as_thick_all_along_or_is_none(
    wide: int, high: int, rounded: int, wall: int, spoiled: bool
) -> None:
    (outer,) = solved(
        f"b = box, {wide} by {high}, centred on O\nx = rounded, all corners of b, radius {rounded}\nrim = line in, x\n"
    ).outlines
    (inner,) = inset(outer, wall)
    run = tuple(piece.curve for piece in inner.pieces)
    if spoiled:
        run = tuple(
            Line.between(
                curve.at(curve.start or 0.0) + Point(0.01, 0.0),
                curve.at(curve.end or 0.0) + Point(0.01, 0.0),
            )
            if isinstance(curve, Line)
            else Arc(curve.centre + Point(0.01, 0.0), curve.radius, curve.start, curve.sweep)
            for curve in run
            if not isinstance(curve, Circle)
        )
    found = wall_between(tuple(piece.curve for piece in outer.pieces), run, FINE)
    assert found is None if spoiled else found == pytest.approx(wall)


@pytest.mark.parametrize(
    ("rows", "said"),
    [
        ("s = slot, from A to B, width 12\nrim = line in, s\n", "slot, "),
        (
            "s = slot, about O, radii 30 and 44, from 20° to 130°\nrim = line in, s\n",
            "radii 30 and 44, from 20° to 130°, ends round",
        ),
        (
            "s = slot, about O, radii 30 and 44, from 20° to 130°, ends aiming\nrim = line in, s\n",
            "ends aiming",
        ),
        (
            "n = polygon, 7 sides, centred on A, radius 31, first corner at 20°\nrim = line in, n\n",
            "polygon, 7 sides",
        ),
        (
            "n = polygon, 6 sides, centred on A, 36 across flats, flat up\nrim = line in, n\n",
            "36 across flats",
        ),
        (
            "c = circle, centre O, radius 20\nk = keyway, on c, width 6, depth 3, at 40°\nrim = line in, c long > k\n",
            "keyway, on c1, width 6, depth 3, at 40°",
        ),
        (
            "c = circle, centre O, radius 20\nk = keyway, on c, width 6, depth 3, inward, left\nrim = line in, c long > k\n",
            "left, inward",
        ),
        (
            "e = ellipse, centred on A, axes 90 and 50, at 25°\nrim = line in, e\n",
            "axes 90 and 50, at 25°",
        ),
        ("e = ellipse, centred on A, axes 50 and 90\nrim = line in, e\n", "axes 50 and 90"),
        (
            "e = ellipse, centred on A, axes 90 and 50, at 30°, by four centres\nrim = line in, e\n",
            "at 30°, by four centres",
        ),
        (
            "g = gear, about O, 20 teeth, module 3, turned 4°\nrim = line in, g\n",
            "gear, about O, 20 teeth, module 3, turned 4°",
        ),
        (
            "g = gear, about O, 17 teeth, module 2.5, pressure 14.5°, by arcs\nrim = line in, g\n",
            "17 teeth, module 2.5, pressure 14.5°, by arcs",
        ),
        (
            "g = internal gear, about O, 30 teeth, module 2\nrim = line in, g\n",
            "internal gear, about O, 30 teeth, module 2",
        ),
        (
            "e = run, from O, right 60, up 35, at 150° for 30, close\nrim = line in, e\n",
            "up 35, at 150° for 30",
        ),
    ],
)
def test_a_ready_shape_comes_back_as_it_was_given(rows: str, said: str) -> None:
    found = again(f"A = point, 30 right of O, 12 above\nB = point, 70 right of O, 30 above\n{rows}")
    assert said in found.text, found.text
    assert found.told == ()


@pytest.mark.parametrize(
    ("corners", "never"),
    [
        ([(0, 0, 0), (40, 0, 1), (40, 12.02, 0), (0, 12, 1)], "slot"),
        (
            [
                (40 * math.cos(k), 40 * math.sin(k), 0)
                for k in (0, 1.0472, 2.0944, 3.1416, 4.1888, 5.24)
            ],
            "polygon",
        ),
        ([(0, 0, 0), (60, 0, 0), (60, 40, 0), (0.01, 40, 0)], "box"),
        ([(20, 0, 0), (20, 5, 0), (25, 5, 0), (25, 0.02, 0.5)], "keyway"),
    ],
)
def test_what_is_not_quite_a_ready_shape_is_none(
    corners: list[tuple[float, float, float]], never: str
) -> None:
    found = drawn(corners)
    assert f"= {never}" not in found.text, found.text
    assert found.off <= FINE


def test_rounds_eyes_and_holes_of_one_size_share_no_given() -> None:
    """Three holes are one size, and so are four corners; that both are 5 is chance."""
    found = again(
        "b = box, 90 by 60, centred on O\nx = rounded, corners b.lower_left b.upper_right of b, radius 5\nrim = line in, x\n"
        "P = points, from O, 20 7, (-30) 4, 11 (-13)\nc = circle, centre P, radius 5\nh = line in, c\n"
    )
    assert found.text.count("r1") == 4, "a given, and the three holes it is of"
    assert "b1, radius 5" in found.text


@given(st.floats(5, 60), st.floats(5, 60), st.floats(0.2, 2.5))
def test_pieces_run_into_each_other_where_they_touch_and_not_where_they_cross(
    a: float, b: float, turn: float
) -> None:
    first = Arc(Point(0.0, 0.0), a, 0.0, turn)
    way = polar(1.0, turn)
    on = Arc(way * (a + b), b, turn + math.pi, -turn)
    line = Line.between(first.last, first.last + way.normal * 20)
    assert runs_into(first, on, first.last)
    assert runs_into(first, line, first.last)
    bent = Line.between(first.last, first.last + polar(20.0, (way.normal).angle + 0.01))
    assert not runs_into(first, bent, first.last)
    assert not runs_into(first, Line.between(first.last, first.last - way.normal * 20), first.last)


@pytest.mark.parametrize("seed", range(6))
def test_a_hole_about_the_centre_of_a_round_is_told_by_it(seed: int) -> None:
    r = random.Random(seed)
    wide, high, rounded = r.randrange(80, 140), r.randrange(50, 80), r.randrange(8, 15)
    found = again(
        f"b = box, {wide} by {high}, centred on O\nx = rounded, all corners of b, radius {rounded}\nrim = line in, x\n"
        "c = circle, centre x.centre.1, diameter 7\nh = line in, c\n"
    )
    assert "circle, centre f1.centre." in found.text, found.text
    wider = found.text.replace(f"box, {wide} by", f"box, {wide + 10} by")
    before, after = work_out(found.text), work_out(wider)
    apart = [
        min(abs(junction.point - hole.centroid) for junction in rim.junctions)
        for rim, hole in ((done.outlines[0], done.outlines[1]) for done in (before, after))
    ]
    assert apart[0] == pytest.approx(apart[1]), "the hole goes with its round"
