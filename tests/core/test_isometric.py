"""Isometric solids: lengths along the axes are true, parallels stay parallel, what is seen is told from what is not."""

import math
from functools import partial

import pytest
from hypothesis import given
from hypothesis import strategies as st

from desk import line_of, solved
from entrick.core.desk import work_out
from entrick.core.geometry import Point
from entrick.core.geometry.isometric import (
    PLANES,
    rhombus,
    tangents_to_arcs,
    true_ellipse,
)

HEAD = "units mm\nsheet A1 landscape, scale 1:1, border 10\nO = datum\n"
sizes = st.integers(5, 90)


@given(sizes, st.sampled_from(list(PLANES)), st.floats(0, 6.28), st.floats(1.05, 4))
def test_tangents_to_a_ring_of_arcs_touch_and_leave_it_on_one_side(
    d: int, plane: str, turn: float, out: float
) -> None:
    four = rhombus(Point(0, 0), d, plane)
    point = true_ellipse(Point(0, 0), d * out, plane).at(turn)
    found = tangents_to_arcs(point, four.arcs)
    spots = [arc.at(arc.start + arc.sweep * k / 40) for arc in four.arcs for k in range(41)]
    for line, touch in found:
        offs = [line.offset_of(spot) for spot in spots]
        assert min(offs) > -1e-7 * d or max(offs) < 1e-7 * d
        assert abs(line.offset_of(touch)) < 1e-9 * d
    if out > 1.3:
        assert len(found) == 2


def test_steps_of_a_solid_draw_both_ends_and_touch_them() -> None:
    done = solved(
        "c = cylinder, from O, diameter 40, length 60\nrim = line in, c\nback = hidden, c.hidden, open\n"
    )
    told = " ".join(f"{s.text} {s.check}" for s in done.steps)
    assert "the first small centre of c.end" in told
    assert "Repeat what is drawn, by the same distance and direction" in told
    assert "the other end of c" in told
    assert {m.role for m in done.display.marks} >= {"construction", "outline", "hidden"}


@pytest.mark.parametrize(
    ("row", "told"),
    [
        ("b = isometric block, centred on O, 60 by 40, on top, thick 0\n", "more than nought"),
        (
            "b = isometric block, centred on O, 60 by 40, on top, thick 9, rounded 21\n",
            "at most half its shorter edge",
        ),
        ("c = cylinder, from O, diameter 9, length 0\n", "more than nought long"),
    ],
)
def test_solids_that_cannot_be_are_refused(row: str, told: str) -> None:
    assert told in work_out(HEAD + row).solution.errors[0].message


def test_on_ruled_paper_settings_are_counted_in_squares() -> None:
    """A radius of 1 in on quarter-inch squares is four squares out each way (common practice, no source)."""
    text = "units in\nsheet A3, border 10 mm, ground isometric 1/4\nO = datum\nc = circle, centre O, radius 1\n"
    done = work_out(text)
    assert not done.sheet.errors
    assert done.steps[-1].setting is not None
    assert done.steps[-1].setting.told.endswith("4 squares of the ground")
    ruled = [
        m
        for m in done.display.marks
        if m.role == "guide" and m.kind == "line" and math.hypot(m.x2 - m.x1, m.y2 - m.y1) > 20
    ]
    turns = {round(math.degrees(math.atan2(m.y2 - m.y1, m.x2 - m.x1)) % 180) for m in ruled}  # type: ignore[union-attr]
    assert {30, 90, 150} <= turns
    plumb = sorted(m.x1 for m in ruled if m.kind == "line" and abs(m.x1 - m.x2) < 1e-9)
    assert plumb[1] - plumb[0] == pytest.approx(6.35 * math.sqrt(3) / 2)
    low, high = done.sheet.space
    assert all(
        low.x - 1e-6 <= x <= high.x + 1e-6 for m in ruled if m.kind == "line" for x in (m.x1, m.x2)
    )
    squares = work_out(text.replace("ground isometric 1/4", "ground squares 1/2"))
    assert squares.steps[-1].setting is not None
    assert squares.steps[-1].setting.told.endswith("2 squares of the ground")
    assert "2 to 100 mm" in work_out(text.replace("1/4", "1/64")).sheet.errors[0].message


def test_isometric_dimensions_run_along_the_axes_with_their_extension_lines() -> None:
    rows = (
        "b = isometric box, from O, 60 by 40 by 30\nrim = line in, b\nd1 = dimension, from b.near to b.right_low, isometric up, below\n"
        "d2 = dimension, from b.near to b.left_low, isometric up, below\nd3 = dimension, from b.right_low to b.top_right, isometric right, right\n"
    )
    done = solved(rows)
    texts = {
        m.text: m.angle for m in done.display.marks if m.kind == "text" and m.role == "dimension"
    }
    assert {text: round(angle) % 180 for text, angle in texts.items()} == {
        "60": 30,
        "40": 150,
        "30": 90,
    }
    lines = [m for m in done.display.marks if m.kind == "line" and m.role == "dimension"]
    turns = {round(math.degrees(math.atan2(m.y2 - m.y1, m.x2 - m.x1))) % 180 for m in lines}
    assert turns == {30, 90, 150}
    refused = work_out(
        HEAD + rows + "d4 = dimension, from b.near to b.top_near, isometric up\n"
    ).solution.errors
    assert "along another axis" in refused[0].message


def test_the_school_is_chosen_for_the_plan_and_stated_on_the_sheet() -> None:
    rows = "O = datum\nb = isometric box, from O, 60 by 40 by 30\nrim = line in, b\nd = dimension, from b.near to b.right_low, isometric up, below\n"
    sizes, told = [], []
    for school in ("drawing", "projection"):
        done = work_out(f"units mm\nsheet A3, isometric {school}\n{rows}")
        assert not done.sheet.errors
        sizes.append(line_of(done, "b.edge.1").end)
        told.append([m.text for m in done.display.marks if m.kind == "text"])
        assert f"1:1 isometric {school}" in told[-1]
        assert "60" in told[-1], "the part is lettered at its own size in either school"
    assert sizes[1] / sizes[0] == pytest.approx(math.sqrt(2 / 3))  # type: ignore[operator]


solved = partial(solved, head=HEAD)
