"""What a picture of an instrument shows can be read off it, as off the instrument itself."""

from __future__ import annotations

import math
from fractions import Fraction
from itertools import pairwise

import pytest
from hypothesis import given
from hypothesis import strategies as st

from entrick.core.display.instruments import instrument_picture
from entrick.core.display.picture import (
    LEGS,
    angle_picture,
    compass_over_rule,
    height_of,
    template_picture,
)
from entrick.core.drawing.marks import (
    DisplayList,
    DrawnArc,
    DrawnCircle,
    DrawnLine,
    DrawnRun,
    Lettering,
    reach,
)
from entrick.core.measure import Unit

Corner = tuple[float, float]

ITEMS = (
    "graduation",
    "faces",
    "compass",
    "beam",
    "dividers",
    "template_holes",
    "ellipse_holes",
    "set_squares",
    "adjustable_square",
    "protractor",
    "french_curves",
    "pencils",
    "papers",
    "guide",
)


def closed(picture: DisplayList, role: str) -> list[list[Corner]]:
    """Return the corners of every closed figure of straight strokes that is drawn in one go."""
    found: list[list[Corner]] = []
    run: list[DrawnLine] = []
    for mark in picture.marks:
        if not (isinstance(mark, DrawnLine) and mark.role == role):
            run = []
            continue
        if run and (run[-1].x2, run[-1].y2) != (mark.x1, mark.y1):
            run = []
        run.append(mark)
        if (mark.x2, mark.y2) == (run[0].x1, run[0].y1):
            found.append([(each.x1, each.y1) for each in run])
            run = []
    return found


def angles(corners: list[Corner]) -> list[int]:
    """Return the angles at the corners of a figure, whole degrees, the smallest first."""
    found = []
    for (a, b), (c, d), (e, f) in zip(
        [corners[-1], *corners], corners, [*corners[1:], corners[0]], strict=False
    ):
        turn = math.degrees(math.atan2(b - d, a - c) - math.atan2(f - d, e - c)) % 360
        found.append(min(turn, 360 - turn))
    assert all(abs(each - round(each)) < 1e-9 for each in found), found
    return sorted(map(round, found))


@given(
    st.sampled_from(
        [
            (Unit.MM, Fraction(1)),
            (Unit.MM, Fraction(1, 2)),
            (Unit.INCH, Fraction(1, 16)),
            (Unit.INCH, Fraction(1, 32)),
        ]
    ),
    st.floats(0.05, 0.999),
    st.sampled_from(["compass", "beam compass", "dividers", "rule"]),
)
def test_an_opening_is_read_off_the_rule_under_it(
    rule: tuple[Unit, Fraction], share: float, tool: str
) -> None:
    unit, graduation = rule
    mm = float(unit.mm)
    opening = share * (1200.0 if unit is Unit.MM else 48.0)
    picture = compass_over_rule(opening, unit, graduation, tool)
    legs = [
        m
        for m in picture.marks
        if isinstance(m, DrawnLine) and m.role == "outline" and m.y2 > m.y1 and m.y1 == 13.0
    ]
    left, right = min(leg.x1 for leg in legs), max(leg.x1 for leg in legs)
    numbers = [(float(m.text), m.x) for m in picture.marks if isinstance(m, Lettering)]
    broken = opening * mm > 77
    near = [n for n in numbers if not broken or n[1] < left + 41]
    assert near, "the rule begins with a number"
    for value, x in near:
        assert x - left == pytest.approx(value * mm, abs=1e-9)
    for value, x in numbers[len(near) :]:
        assert right - x == pytest.approx((opening - value) * mm, abs=1e-6), (
            "beyond the break it is counted from the end"
        )
    if not broken:
        assert right - left == pytest.approx(opening * mm)
    assert picture.width <= 110


@given(
    st.sampled_from([(Unit.MM, Fraction(1, 2)), (Unit.INCH, Fraction(1, 16))]), st.floats(0.2, 0.9)
)
def test_graduations_stand_in_step_and_the_rounder_ones_are_longer(
    rule: tuple[Unit, Fraction], share: float
) -> None:
    unit, graduation = rule
    step = float(graduation * unit.mm)
    picture = compass_over_rule(share * 75 / float(unit.mm), unit, graduation, "rule")
    ticks = sorted(
        {
            (m.x1, m.y1 - m.y2)
            for m in picture.marks
            if isinstance(m, DrawnLine) and m.x1 == m.x2 and m.y2 < m.y1
        }
    )
    assert len(ticks) > 5
    for (one, _), (other, _) in pairwise(ticks):
        assert other - one == pytest.approx(step)
    whole = [long for x, long in ticks if (round((x - 8) / step) * graduation).denominator == 1]
    parts = [long for x, long in ticks if (round((x - 8) / step) * graduation).denominator != 1]
    assert min(whole) > max(parts)


@given(
    st.integers(1, 179),
    st.sampled_from(
        ["45° set square", "30/60 set square", "both set squares together", "protractor"]
    ),
)
def test_a_direction_is_drawn_at_its_angle_and_an_edge_lies_along_it(
    degrees: int, tool: str
) -> None:
    if tool != "protractor":
        degrees = min(max(round(degrees / 15) * 15, 15), 165)
    picture = angle_picture(degrees, tool)
    line = next(m for m in picture.marks if isinstance(m, DrawnLine) and m.role == "outline")
    assert math.degrees(math.atan2(line.y2 - line.y1, line.x2 - line.x1)) == pytest.approx(
        degrees % 180
    )
    (arc,) = [m for m in picture.marks if isinstance(m, DrawnArc) and m.r == 10]
    assert (arc.start, arc.sweep) == (0, pytest.approx(degrees % 180))
    squares = [corners for corners in closed(picture, "construction") if len(corners) == 3]
    assert bool(squares) == (tool != "protractor")
    along = [
        math.degrees(math.atan2(y - 6, x - 45))
        for corners in squares
        for x, y in corners
        if (x, y) != (45, 6)
    ]
    assert not squares or min(abs(each - degrees) for each in along) < 1e-9, (
        "the pencil runs along an edge"
    )
    assert all(90 in angles(corners) for corners in squares)


@given(st.floats(2, 49), st.sampled_from(list(Unit)))
def test_a_hole_of_the_template_is_life_size_with_its_marks_on_the_centre_lines(
    diameter: float, unit: Unit
) -> None:
    size = diameter / float(unit.mm)
    picture = template_picture(size, unit)
    (hole,) = [m for m in picture.marks if isinstance(m, DrawnCircle)]
    assert 2 * hole.r == pytest.approx(diameter)
    marks = [m for m in picture.marks if isinstance(m, DrawnLine) and m.role == "outline"]
    assert len(marks) == 4
    for mark in marks:
        assert math.hypot(mark.x1 - hole.cx, mark.y1 - hole.cy) == pytest.approx(hole.r)
        assert min(abs(mark.x2 - hole.cx), abs(mark.y2 - hole.cy)) < 1e-9


@pytest.mark.parametrize("item", ITEMS)
def test_every_item_of_a_kit_has_a_picture_that_holds_all_of_it(item: str) -> None:
    picture = instrument_picture(item)
    assert picture.marks
    for mark in picture.marks:
        turns = (
            [math.radians(mark.start + mark.sweep * k / 24) for k in range(25)]
            if isinstance(mark, DrawnArc)
            else []
        )
        drawn = [(mark.cx + mark.r * math.cos(t), mark.cy + mark.r * math.sin(t)) for t in turns]  # type: ignore[union-attr]
        for x, y in drawn or reach(mark):
            assert -1 <= x <= picture.width + 1, mark
            assert -1 <= y <= picture.height + 1, mark


def test_what_no_kit_holds_has_no_picture() -> None:
    with pytest.raises(KeyError):
        instrument_picture("nothing_like_it")


def test_set_squares_have_their_angles_and_papers_halve() -> None:
    squares = closed(instrument_picture("set_squares"), "outline")
    assert sorted(angles(corners) for corners in squares) == [[30, 60, 90], [45, 45, 90]]
    sheets = [max(corners) for corners in closed(instrument_picture("papers"), "construction")]
    sizes = [sorted((x - 2, y - 2)) for x, y in sheets]
    for larger, smaller in pairwise(sizes):
        assert smaller[1] == pytest.approx(larger[0])
        assert smaller[0] == pytest.approx(larger[1] / 2), (
            "the next of the series is half of it (ISO 216)"
        )
    ovals = [m for m in instrument_picture("ellipse_holes").marks if isinstance(m, DrawnRun)]
    for oval, circle in zip(ovals, (6, 9, 12, 15), strict=True):
        xs, ys = [x for x, _, _ in oval.corners], [y for _, y, _ in oval.corners]
        # Isometric ellipses of a circle drawn full: 1.22 long and 0.71 wide (drawing handbooks, from memory).
        assert max(xs) - min(xs) == pytest.approx(1.2247 * circle, rel=1e-4)
        assert max(ys) - min(ys) == pytest.approx(0.7071 * circle, rel=1e-4)


@given(
    st.sampled_from([*LEGS, "rule", "pencil", "circle template", "protractor"]),
    st.floats(0, 300),
    st.sampled_from(Unit),
)
def test_the_room_that_is_kept_for_a_picture_is_what_it_takes(
    tool: str, size: float, unit: Unit
) -> None:
    if tool == "protractor":
        assert height_of(tool, size, None) == angle_picture(size, tool).height
    elif tool == "circle template":
        assert height_of(tool, size, unit) == template_picture(size, unit).height
    else:
        shown = compass_over_rule(size, unit, Fraction(1, 2), tool)
        assert height_of(tool, size, unit) == shown.height
