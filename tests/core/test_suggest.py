"""Suggested dimensions define the outline: nothing missing, nothing twice; each can be edited or struck out."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from desk import edited
from entrick.core.desk import Work, work_out
from entrick.core.dimensioning.suggest import suggest_dimensions
from entrick.core.finish.crossings import crossings
from entrick.core.plan import edit
from entrick.demo import sample_plans
from examples import some

# Cams and gears carry their sizes in a table; their curves have no dimensions of their own.
SAMPLES = sorted(
    text for text in sample_plans().values() if " = cam, " not in text and " = gear, " not in text
)


def bare(text: str) -> str:
    """Take the dimensions off a plan."""
    return "".join(f"{row}\n" for row in text.splitlines() if " = dimension, " not in row)


def verdict(done: Work) -> list[str]:
    return [f.message for f in done.findings if f.rule == "dimensions"]


@pytest.mark.parametrize("text", some(SAMPLES, 7), ids=lambda text: text.splitlines()[1])
def test_a_bare_part_gets_a_full_set_with_nothing_twice(text: str) -> None:
    found = suggest_dimensions(work_out(bare(text)).solution)
    assert found.statements
    assert found.left_open == ()
    done = work_out(found.text)
    assert not done.solution.errors
    assert verdict(done) == ["the dimensions define the outline: nothing missing, nothing twice"]
    again = suggest_dimensions(done.solution)
    assert again.statements == (), "a part that is dimensioned needs nothing more"


@pytest.mark.parametrize("number", ["OY-014", "OY-031", "OY-036", "OY-044"])
def test_each_suggested_dimension_is_needed(number: str) -> None:
    text = next(text for text in SAMPLES if number in text)
    found = suggest_dimensions(work_out(bare(text)).solution)
    first = len(found.text.splitlines()) - len(found.statements) + 1
    for line in range(first, first + len(found.statements)):
        less = work_out(edited(found.text, edit.delete_line, line))
        assert any("no dimension fixes" in message for message in verdict(less)), found.statements[
            line - first
        ]
    twice = work_out(found.text + found.statements[0].replace("d1 =", "again =") + "\n")
    assert any("again says again" in message for message in verdict(twice))


def test_dimensions_state_the_givens_with_their_marks_and_counts() -> None:
    text = bare(next(text for text in SAMPLES if "OY-044" in text))
    rows = suggest_dimensions(work_out(text).solution).statements
    letters = {
        m.text for m in work_out(text + "\n".join(rows) + "\n").display.marks if m.kind == "text"
    }
    assert {"8× Ø5/16", "4× R5/8", "2× R5/8", "4× R3/8", "2 1/8", "3 3/8", "4 1/4"} <= letters


def test_a_size_that_stands_only_in_a_statement_is_dimensioned_too() -> None:
    text = (
        "units mm\nO = datum\nframe = box, 70 by 40, centred on O\nP = point, 12 right of O\nc = circle, centre P, diameter 9\n"
        "rim = line in, frame.bottom > frame.right > frame.top > frame.left\nhole = line in, c\n"
    )
    rows = suggest_dimensions(work_out(text).solution).statements
    letters = {
        m.text for m in work_out(text + "\n".join(rows) + "\n").display.marks if m.kind == "text"
    }
    assert {"70", "40", "Ø9"} <= letters
    assert len(rows) == 4


def test_the_side_with_fewer_crossings_is_taken() -> None:
    text = next(text for text in SAMPLES if "OY-052" in text)
    done = work_out(text)
    assert crossings([mark for _, mark in done.sheet.finish]) < 8
    flipped = text.replace(", level, below", ", level, above").replace(
        ", plumb, left", ", plumb, right"
    )
    assert crossings([m for _, m in work_out(flipped).sheet.finish]) > crossings(
        [m for _, m in done.sheet.finish]
    )


@given(
    st.integers(30, 90),
    st.integers(20, 60),
    st.lists(
        st.tuples(st.integers(-12, 12), st.integers(-8, 8), st.integers(1, 3)),
        min_size=0,
        max_size=3,
        unique=True,
    ),
    st.integers(0, 6),
)
def test_any_plate_with_holes_is_fully_dimensioned(
    w: int, h: int, holes: list[tuple[int, int, int]], round_: int
) -> None:
    rows = f"units mm\ngiven w = {w}\ngiven h = {h}\nO = datum\nframe = box, w by h, centred on O\n"
    if round_:
        rows += f"one = fillet, between frame.bottom and frame.right, radius {round_}\n"
    corner = "one > " if round_ else ""
    rows += f"rim = line in, frame.bottom > {corner}frame.right > frame.top > frame.left\n"
    for index, (x, y, r) in enumerate(holes):
        rows += f"P{index} = point, {x} right of O, {y} above O\nc{index} = circle, centre P{index}, radius {r}\n"
        rows += f"x{index} = line in, c{index}\n"
    found = suggest_dimensions(work_out(rows).solution)
    assert found.left_open == ()
    assert "nothing missing, nothing twice" in verdict(work_out(found.text))[0]
