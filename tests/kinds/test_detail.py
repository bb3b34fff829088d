"""``detail``."""

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from desk import HEAD, refused, solved
from entrick.core.drawing.marks import Lettering
from entrick.core.geometry import Arc, Circle, Line, Point
from entrick.core.geometry.clipped import inside

PART = "b = box, 60 by 40, centred on O\nrim = line in, b\nP = point, 30 right of O, 20 above\nQ = point, 90 right of O\n"


@given(
    st.integers(-30, 30),
    st.integers(-30, 30),
    st.integers(1, 40),
    st.floats(0, 6),
    st.floats(0.1, 6.2),
)
def test_what_is_inside_and_what_is_not_make_up_the_whole(
    x: int, y: int, r: int, start: float, sweep: float
) -> None:
    """By sampling: a place of the curve lies on a part just where it lies within the circle."""
    ring = Circle(Point(3.0, -2.0), 17.0)
    for curve in (
        Arc(Point(x, y), float(r), start, sweep),
        Line.between(Point(x, y), Point(y + 0.5, r)),
    ):
        parts = list(inside(curve, ring))
        for k in range(1, 60):
            spot = (
                curve.at(start + sweep * k / 60)
                if isinstance(curve, Arc)
                else curve.at((curve.end or 0.0) * k / 60)
            )
            off = abs(spot - ring.centre) - ring.radius
            if abs(off) > 1e-6:
                on = any(_on(part, spot) for part in parts)
                assert on == (off < 0)


def _on(part: Line | Arc | Circle, spot: Point) -> bool:
    if isinstance(part, Line):
        return -1e-9 <= part.along(spot) <= (part.end or 0.0) + 1e-9
    if isinstance(part, Circle):
        return True
    turned = (math.copysign(1, part.sweep) * ((spot - part.centre).angle - part.start)) % math.tau
    return turned <= abs(part.sweep) + 1e-9 or turned > math.tau - 1e-9


@pytest.mark.parametrize(
    ("scale", "own"), [("1:1", "4:1"), ("1:2", "2:1"), ("1:10", "1:2.5"), ("2:1", "8:1")]
)
def test_a_detail_says_its_own_scale(scale: str, own: str) -> None:
    head = HEAD.replace("scale 1:1", f"scale {scale}").replace("A2", "A1")
    done = solved(
        PART + 'd = detail, of rim, about P, radius 10, 4 times, at Q, lettered "A"\n', head
    )
    letters = [mark.text for mark in done.display.marks if isinstance(mark, Lettering)]
    assert f"A  {own}" in letters
    assert "A" in letters


def test_a_detail_is_a_picture_that_bounds_nothing() -> None:
    done = solved(PART + "d = detail, of rim, about P, radius 10, 4 times, at Q\n")
    assert [outline.name for outline in done.checked.outlines] == ["rim"]
    drawn = [mark for mark in done.display.marks if mark.role == "edge"]
    assert [math.hypot(m.x2 - m.x1, m.y2 - m.y1) for m in drawn] == pytest.approx([40, 40])  # type: ignore[union-attr]
    corner = done.sheet.on_paper(Point(90.0, 0.0))
    assert all(
        min(abs(Point(m.x1, m.y1) - corner), abs(Point(m.x2, m.y2) - corner)) < 1e-9 for m in drawn
    )  # type: ignore[union-attr]


@pytest.mark.parametrize(
    ("clauses", "told"),
    [
        ("of rim, about O, radius 10, 4 times, at Q", "nothing of it lies within"),
        ("of rim, about P, radius 10, 1 times, at Q", "2 to 20 times"),
        ("of O.level, about O, radius 10, 2 times, at Q", "has no ends"),
    ],
)
def test_what_cannot_be_shown_is_said(clauses: str, told: str) -> None:
    assert told in refused(f"{PART}d = detail, {clauses}\n")
