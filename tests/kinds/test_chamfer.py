"""``chamfer``."""

from __future__ import annotations

import math

import pytest
import shapely
import sympy
from hypothesis import given
from hypothesis import strategies as st

from desk import HEAD, refused, solved, thing
from entrick.core.desk import work_out
from entrick.core.dimensioning.suggest import suggest_dimensions
from entrick.core.rehearsal.exactly import carried_exactly

FRAME = "frame = box, 60 by 40, centred on O\n"
RIM = "rim = line in, frame.bottom > x > frame.right > frame.top > frame.left\n"


def corner(degrees: int, reach: int = 200) -> str:
    return f"A = point, {reach} right of O\nB = point, {reach} from O, at {degrees}°\na = line, from O to A\nb = line, from O to B\n"


@given(st.integers(20, 160), st.integers(1, 90), st.integers(1, 90))
def test_each_leg_lies_along_its_line_and_the_cut_is_drawn_as_it_was_worked_out(
    turn: int, one: int, two: int
) -> None:
    done = solved(corner(turn) + f"x = chamfer, between a and b, {one} by {two}\n")
    cut = thing(done, "x")
    assert cut.at(cut.start) == pytest.approx((one, 0), abs=1e-9)
    assert cut.at(cut.end) == pytest.approx(
        (two * math.cos(math.radians(turn)), two * math.sin(math.radians(turn)))
    )
    # The law of cosines (plane trigonometry) for the side across from the corner.
    assert (cut.end - cut.start) ** 2 == pytest.approx(
        one**2 + two**2 - 2 * one * two * math.cos(math.radians(turn))
    )
    carried = carried_exactly(done.solution, done.sheet)
    assert (carried.failure, carried.computed, carried.undrawn) == ("", (), ())
    assert carried.miss <= carried.allowed, carried.where


@given(st.integers(20, 140), st.integers(1, 30), st.integers(5, 150))
def test_at_an_angle_it_comes_to_the_second_line_where_a_triangle_closes(
    turn: int, leg: int, lean: int
) -> None:
    row = f"x = chamfer, between a and b, {leg} at {lean}°\n"
    if turn + lean >= 180:
        assert "never comes to b" in refused(corner(turn) + row)
        return
    done = solved(corner(turn, 20_000) + row, "units mm\nsheet A2, scale 1:200\nO = datum\n")
    cut = thing(done, "x")
    third = sympy.rad(180 - turn - lean)
    across = (
        leg * sympy.sin(sympy.rad(lean)) / sympy.sin(third)
    )  # law of sines, by a symbolic library
    assert abs(cut.at(cut.end)) == pytest.approx(float(across))
    ahead = math.degrees(cut.direction.angle)
    assert ahead == pytest.approx(180 - lean), (
        "the angle is that between the cut and the first line"
    )
    carried = carried_exactly(done.solution, done.sheet)
    assert (carried.failure, carried.computed) == ("", ())


def test_four_corners_cut_off_a_plate_leave_its_area_less_four_triangles() -> None:
    rows = (
        FRAME
        + "x = chamfer, between frame.right and frame.bottom, 5 each way\ny = mirror, of x, about O.plumb\n"
    )
    rows += "u = mirror, of x, about O.level\nv = mirror, of y, about O.level\n"
    done = solved(
        rows
        + "rim = line in, frame.bottom > x > frame.right > u > frame.top > v > frame.left > y\n"
    )
    (loop,) = done.outlines
    ring = shapely.Polygon([piece.entry for piece in loop.pieces])
    assert ring.is_valid
    assert abs(loop.area) == pytest.approx(ring.area) == pytest.approx(60 * 40 - 4 * 12.5)
    assert loop.length == pytest.approx(2 * (50 + 30) + 4 * 5 * math.sqrt(2))
    assert {f.weight for f in done.findings if f.rule == "junction"} == {"note"}, (
        "eight corners of 135°, none tangent"
    )


def test_its_sentence_and_working_say_what_is_cut_and_how_it_leans() -> None:
    for size, sentence, working in (
        ("5 each way", "5 along each", "7.071 long, at 45° to frame.right and 45° to frame.bottom"),
        (
            "3 by 4",
            "3 along frame.right and 4 along frame.bottom",
            "5 long, at 53.13° to frame.right and 36.87°",
        ),
        ("5 at 30°", "5 along frame.right at 30°", "5.774 long, at 30° to frame.right and 60°"),
    ):
        made = (
            solved(FRAME + f"x = chamfer, between frame.right and frame.bottom, {size}\n")
            .solution.entries[-1]
            .made
        )
        assert made is not None
        assert sentence in made.sentence
        assert working in made.working[0]


def test_lines_that_run_on_past_the_corner_have_four_and_a_word_says_which() -> None:
    row = "x = chamfer, between O.level and O.plumb, 5 each way"
    undecided = work_out(f"{HEAD}{row}\n").solution.entries[-1]
    assert len(undecided.candidates) == 4
    for candidate in undecided.candidates:
        chosen = thing(solved(f"{row}, {', '.join(candidate.words)}\n"), "x")
        assert chosen == candidate.shape
    cut = thing(solved(f"{row}, above, left\n"), "x")
    assert (cut.at(cut.start), cut.at(cut.end)) == ((-5, 0), (0, 5))


@pytest.mark.parametrize(
    ("row", "told"),
    [
        ("x = chamfer, between frame.right and frame.left, 5 each way", "are parallel"),
        (
            "x = chamfer, between frame.right and frame.bottom",
            "needs its size: 5 each way, 3 by 6, or 5 at 45°",
        ),
        (
            "x = chamfer, between frame.right and frame.bottom, 5 each way, 3 by 6",
            "says how large it is once",
        ),
        ("x = chamfer, between frame.right and frame.bottom, 5 at 0°", "between 0° and 180°"),
        ("x = chamfer, between frame.right and frame.bottom, 0 each way", "more than nought"),
        (
            "x = chamfer, between frame.right and frame.bottom, 5 at 95°",
            "never comes to frame.bottom",
        ),
    ],
)
def test_what_cannot_be_cut_is_told(row: str, told: str) -> None:
    assert told in refused(FRAME + row + "\n")


@pytest.mark.parametrize("written", ["5 x 45°", "5 by 45°", "5×45°"])
def test_a_cut_as_it_stands_on_a_drawing_is_a_press_away(written: str) -> None:
    row = "x = chamfer, between frame.right and frame.bottom, "
    assert work_out(f"{HEAD}{FRAME}{row}{written}\n").solution.errors[0].mend == f"{row}5 at 45°"


def test_its_sizes_can_be_given_and_dimensions_fix_them_all() -> None:
    rows = (
        "frame = box, 60 by 40, centred on O\nx = chamfer, between frame.right and frame.bottom, c at t\n"
        "y = chamfer, between frame.left and frame.bottom, c by 2*c\nz = chamfer, between frame.left and frame.top, 8 each way\n"
        "rim = line in, frame.bottom > x > frame.right > frame.top > z > frame.left > y\n"
    )
    done = solved(rows, "units mm\ngiven c = 6\ngiven t = 30°\n" + HEAD.removeprefix("units mm\n"))
    found = suggest_dimensions(done.solution)
    assert found.left_open == ()
    said = [f.message for f in work_out(found.text).findings if f.rule == "dimensions"]
    assert said == ["the dimensions define the outline: nothing missing, nothing twice"]
