"""``equiangular``, ``unwound``, ``triangle``, trochoids, spirals of a lead, arcs divided, polygons on a side, around and in
a circle; tangents and normals of curves that are no conics."""

import itertools
import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from desk import led_to, line_of, point_of, refused, run_of, solved
from entrick.core.geometry import Arc, Point


@given(st.integers(5, 60), st.integers(5, 60), st.integers(1, 3), st.sampled_from(["", ", cw"]))
def test_an_equiangular_spiral_makes_one_angle_with_every_radius(
    first: int, last: int, turns: int, way: str
) -> None:
    if first == last:
        return
    done = solved(
        f"s = equiangular, about O, radius {first} to {last}, {turns} turns{way}, at 20°\n"
        "t = tangent, to s, at place s.station.5\nu = tangent, to s, at place s.station.9\n"
    )
    stations = [abs(point_of(done, f"s.station.{index}")) for index in range(12 * turns + 1)]
    ratios = [after / before for before, after in itertools.pairwise(stations)]
    assert min(ratios) == pytest.approx(max(ratios)), "the radius grows by one ratio"
    angles = [
        abs(line_of(done, name).direction.cross(point_of(done, f"{name}.touch").unit))
        for name in ("t", "u")
    ]
    # cot α = ln(r₁/r₀)/θ (definition).
    alpha = math.atan2(math.tau * turns, math.log(last / first))
    assert angles == pytest.approx([math.sin(alpha)] * 2)
    led_to(done)


def test_a_ratio_for_an_angle_is_what_it_grows_by() -> None:
    done = solved("s = equiangular, about O, radius 63, ratio 10/9 every 30°, 1 turns\n")
    assert abs(point_of(done, "s.station.1")) == pytest.approx(70)
    assert abs(point_of(done, "s.end")) == pytest.approx(63 * (10 / 9) ** 12)


@given(st.integers(3, 9), st.integers(5, 30), st.integers(1, 2), st.sampled_from(["", ", cw"]))
def test_a_thread_unwound_from_a_polygon_grows_by_a_side(
    sides: int, side: int, turns: int, way: str
) -> None:
    done = solved(
        f"n = polygon, {sides} sides, centred on O, side {side}\n"
        f"u = unwound, of n, from n.corner.2{way}, {turns} turns\n"
    )
    loop = run_of(done, "u")
    for index, piece in enumerate(loop.pieces, 1):
        assert isinstance(piece.curve, Arc)
        assert piece.curve.radius == pytest.approx(side * index)
        assert abs(piece.curve.sweep) == pytest.approx(math.tau / sides)
        assert (piece.curve.sweep < 0) == (way != "")
    assert all(junction.is_tangent for junction in loop.junctions)
    led_to(done)


@given(st.integers(20, 60), st.integers(20, 60), st.integers(20, 60))
def test_a_triangle_has_its_sides(base: int, one: int, other: int) -> None:
    row = f"A = point, {base} right of O\nt = triangle, on O to A, sides {one} and {other}, above\n"
    if 2 * max(base, one, other) >= base + one + other:
        assert "no triangle has these sides" in refused(row)
        return
    done = solved(row)
    assert sorted(piece.length for piece in run_of(done, "t").pieces) == pytest.approx(
        sorted((base, one, other))
    )
    led_to(done)


@given(
    st.integers(8, 30),
    st.integers(4, 45),
    st.sampled_from(["from A", "on b", "on b, inside"]),
    st.sampled_from(["1", "1.3", "2"]),
    st.integers(0, 11),
)
def test_the_normal_of_every_rolled_curve_goes_through_where_it_rolls(
    size: int, trace: int, how: str, turns: str, station: int
) -> None:
    done = solved(
        "A = point, 30 right of O\nb = circle, centre O, radius 40\n"
        f"c = cycloid, {how}, radius {size}, tracing {trace}, {turns} turns\n"
        f"n = tangent, to c, at place c.station.{station}, normal\n"
    )
    touch, line = point_of(done, "n.touch"), line_of(done, "n")
    rolled = math.tau * station / 12
    along = Point(30 + size * rolled, 0.0)
    around = Point(math.cos(rolled * size / 40), math.sin(rolled * size / 40)) * 40
    instant = along if how == "from A" else around
    assert abs(line.offset_of(instant)) < 1e-6, "the instant centre (kinematics; from memory)"
    assert abs(touch - instant) <= size + trace + 1e-9
    led_to(done)


def test_levels_and_the_generating_circle_lead_to_a_cycloid() -> None:
    """Common practice: twelve divisions, each carried level to the circle about its own centre."""
    done = solved("c = cycloid, from O, radius 12, 1 turns\n")
    told = " ".join(step.text for step in done.steps)
    assert "the rolling circle" in told
    assert "protractor" not in told


@given(st.integers(0, 20), st.integers(3, 15), st.integers(1, 3), st.integers(1, 12))
def test_a_spiral_of_a_lead_has_one_subnormal(
    first: int, lead: int, turns: int, station: int
) -> None:
    done = solved(
        f"s = spiral, about O, radius {first}, lead {lead}, {turns} turns\n"
        f"n = tangent, to s, at place s.station.{station}, normal\n"
    )
    assert abs(point_of(done, "s.end")) == pytest.approx(first + lead * turns)
    touch, line = point_of(done, "n.touch"), line_of(done, "n")
    across = touch.unit.normal
    # Where the normal meets the square to the radius at the pole.
    along = -line.through.dot(touch.unit) / line.direction.dot(touch.unit)
    assert line.at(along).dot(across) == pytest.approx(lead / math.tau), "lead ÷ 2π everywhere"
    led_to(done)


@given(st.integers(30, 700), st.integers(2, 8))
def test_the_normal_of_an_involute_is_its_thread(degrees: int, station: int) -> None:
    done = solved(
        "b = circle, centre O, radius 20\n"
        f"i = involute, of b, through {max(degrees, 60)}°, at 15°\n"
        f"n = tangent, to i, at place i.station.{min(station, 2)}, normal\n"
    )
    assert abs(line_of(done, "n").offset_of(Point(0, 0))) == pytest.approx(20)
    led_to(done)


@pytest.mark.parametrize("count", [3, 4, 5, 6, 7, 8, 9, 10, 12, 17])
@pytest.mark.parametrize(
    "how", ["on A to B", "on A to B, right", "in b", "around b", "around b, point up"]
)
def test_polygons_lie_where_they_are_said_to(count: int, how: str) -> None:
    done = solved(
        "A = point, 30 right of O, 10 above\nB = point, 20 right of A\nb = circle, centre O, radius 25\n"
        f"p = polygon, {count} sides, {how}\n"
    )
    corners = [point_of(done, f"p.corner.{index}") for index in range(1, count + 1)]
    sides = [piece.length for piece in run_of(done, "p").pieces]
    assert min(sides) == pytest.approx(max(sides))
    if how.startswith("on"):
        a, b = point_of(done, "A"), point_of(done, "B")
        assert min(abs(corner - a) for corner in corners) < 1e-9
        assert min(abs(corner - b) for corner in corners) < 1e-9
        assert sides[0] == pytest.approx(20)
        assert (point_of(done, "p.centre").y < 10) == how.endswith("right")
    elif how.startswith("in"):
        assert [abs(corner) for corner in corners] == pytest.approx([25] * count)
    else:
        middles = [(one + other) * 0.5 for one, other in itertools.pairwise(corners)]
        assert [abs(middle) for middle in middles] == pytest.approx([25] * (count - 1))
    led_to(done)


def test_across_flats_goes_by_the_circle_of_the_flats() -> None:
    """The issue's hexagon of 36 across flats: R18 and tangents by the set squares, no 20.785."""
    done = solved("n = polygon, 6 sides, centred on O, 36 across flats, flat up\n")
    told = " ".join(step.text for step in done.steps)
    assert told.count("touching") >= 3
    assert "protractor" not in told
    led_to(done)


@given(st.integers(2, 12), st.integers(30, 300), st.integers(0, 90))
def test_an_arc_is_divided_into_equal_parts(count: int, sweep: int, at: int) -> None:
    done = solved(
        f"a = swing, from O, radius 40, between {at}° and {at + sweep}°\nc = circle, centre O, radius 20\n"
        f"d = divide, arc a, in {count}\ne = divide, arc c, in {count}, at {at}°\n"
    )
    for index in range(1, count):
        spot = point_of(done, f"d.{index}")
        assert math.degrees(spot.angle) % 360 == pytest.approx((at + sweep * index / count) % 360)
    assert math.degrees(point_of(done, f"e.{count}").angle) % 360 == pytest.approx(
        (at + 360 * (count - 1) / count) % 360
    )
    led_to(done)


@pytest.mark.parametrize(
    ("rows", "told"),
    [
        ("s = spiral, about O, radius 9, 2 turns", "two radii, or one and a lead"),
        ("s = spiral, about O, radius 9 to 20, lead 3, 2 turns", "two radii, or one and a lead"),
        ("s = equiangular, about O, radius 9 to 9, 1 turns", "not alike"),
        ("b = box, 20 by 10, centred on O\nr = line in, b\nu = unwound, of c", "nothing above"),
        ("p = polygon, 5 sides, radius 9", "polygon needs centred on"),
        ("A = point, 9 right of O\np = polygon, 5 sides, diagonal O to A", "no two corners"),
        (
            "A = point, 9 right of O\np = polygon, 6 sides, on O to A, flat up",
            "follows from the two",
        ),
        ("c = circle, centre O, radius 9\nt = tangent, to c, level", "outline"),
        (
            "p = polygon, 6 sides, centred on O, side 9\nt = tangent, to p, level",
            "is no curve whose tangents",
        ),
    ],
)
def test_what_cannot_be_is_said(rows: str, told: str) -> None:
    assert told in refused(rows + "\n")
