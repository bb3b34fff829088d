"""``polygon``."""

import math

import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from desk import refused, run_of, solved, thing
from entrick.core.geometry import Point


@given(
    st.integers(3, 40),
    st.integers(5, 80),
    st.sampled_from(["side {}", "{} across corners", "{} across flats", "radius {}"]),
)
def test_polygons_against_exact_trigonometry(count: int, size: int, how: str) -> None:
    assume(count % 2 == 0 or "flats" not in how)
    loop = run_of(solved(f"p = polygon, {count} sides, centred on O, {how.format(size)}\n"), "p")
    half = math.pi / count
    radius = {
        "side {}": size / 2 / math.sin(half),
        "{} across corners": size / 2,
        "{} across flats": size / 2 / math.cos(half),
        "radius {}": size,
    }[how]
    assert loop.closed
    assert all(abs(piece.entry) == pytest.approx(radius) for piece in loop.pieces)
    assert loop.length == pytest.approx(count * 2 * radius * math.sin(half))
    assert loop.area == pytest.approx(count / 2 * radius**2 * math.sin(2 * half))
    assert loop.box[0].y == pytest.approx(-radius * math.cos(half)), (
        "flat below unless something else is said"
    )


@pytest.mark.parametrize(
    ("said", "where"),
    [("point up", 90), ("flat right", 36), ("first corner at 20°", 20), ("corner towards P", 0)],
)
def test_a_polygon_is_turned_as_said(said: str, where: float) -> None:
    done = solved(
        f"P = point, 30 right of O\np = polygon, 5 sides, centred on O, radius 20, {said}\n"
    )
    corner = thing(done, "p.corner.1")
    assert isinstance(corner, Point)
    assert math.degrees(corner.angle) == pytest.approx(where)


@pytest.mark.parametrize(
    ("count", "words"),
    [
        (3, "set squares"),
        (5, "golden section"),
        (6, "set squares"),
        (7, "stepped off"),
        (10, "Euclid"),
        (12, "set squares"),
        (17, "stepped off"),
    ],
)
def test_the_board_method_goes_by_the_number_of_sides(count: int, words: str) -> None:
    done = solved(f"p = polygon, {count} sides, centred on O, radius 20\n")
    assert words in " ".join(done.solution.entries[-1].made.working)  # type: ignore[union-attr]
    if "set squares" in words and count != 24:
        angles = [s.tool for s in done.steps if s.setting and s.setting.is_angle]
        assert "protractor" not in angles


@pytest.mark.parametrize("count", [5, 10])
def test_the_exact_compass_construction_cuts_off_the_side(count: int) -> None:
    """Euclid XIII.10: the swing from half the radius cuts the decagon's side off the centre, the pentagon's off the corner."""
    done = solved(f"p = polygon, {count} sides, centred on O, radius 20, point up\n")
    (cut,) = [s.strokes[0].shape for s in done.steps if "is the cut on the diameter" in s.check]
    assert isinstance(cut, Point)
    side = run_of(done, "p").pieces[0].length
    assert (abs(cut - Point(0, 20)) if count == 5 else abs(cut)) == pytest.approx(side)


@given(st.integers(3, 40), st.integers(10, 60))
def test_sizes_across_are_told_where_there_are_two_sides_to_measure_across(
    count: int, radius: int
) -> None:
    done = solved(f"p = polygon, {count} sides, centred on O, radius {radius}\n")
    working = " ".join(done.solution.entries[-1].made.working)  # type: ignore[union-attr]
    assert ("across flats" in working) == (count % 2 == 0)
    assert ("from a side to the corner across" in working) == (count % 2 == 1)
    if count % 2:
        assert "no two face each other" in refused(
            f"p = polygon, {count} sides, centred on O, {radius} across flats\n"
        )
