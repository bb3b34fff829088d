"""What a sheet may be and why; which hole of the template, which opening of the compass."""

from fractions import Fraction as F

import pytest
from hypothesis import given
from hypothesis import strategies as st

from desk import edited, refused
from entrick.core.board.kit import default_kit
from entrick.core.desk import work_out
from entrick.core.drawing.marks import Lettering, wide
from entrick.core.measure import Unit
from entrick.core.plan import edit
from entrick.core.plan.document import Given
from entrick.core.plan.reader import read_line, read_plan
from entrick.core.plan.writer import write_content, write_plan
from entrick.core.sheet.choose import borders, papers, recommended, scales

PLATE = "units {unit}\nsheet {sheet}\nO = datum\nframe = box, {w} by {h}, centred on O\nrim = line in, frame.bottom > frame.right > frame.top > frame.left\n"


@given(st.integers(5, 4000), st.integers(5, 3000))
def test_the_recommended_scale_is_the_largest_that_fits(w: int, h: int) -> None:
    """The space on A3 with a 10 mm border and the title strip is 400 by 265 mm."""
    done = work_out(PLATE.format(unit="mm", sheet="A3 landscape, border 10", w=w, h=h))
    choices = scales(done.solution, done.sheet)
    best = recommended(choices)
    fitting = [
        c for c in choices if w * ratio(c.name) <= 400 + 1e-9 and h * ratio(c.name) <= 265 + 1e-9
    ]
    assert [c.name for c in choices if c.fits] == [c.name for c in fitting]
    assert best == (fitting[0] if fitting else None)


def ratio(name: str) -> float:
    drawn, actual = name.split(":")
    return float(F(int(drawn), int(actual)))


@pytest.mark.parametrize("unit", [Unit.MM, Unit.INCH])
def test_every_paper_and_border_offered_is_one_the_sheet_line_takes(unit: Unit) -> None:
    """A4 to A0 (ISO 216) and the five inch sizes, each both ways round."""
    offered = list(papers(unit))
    assert len(offered) == 20
    sizes = set()
    for paper in offered:
        done = work_out(PLATE.format(unit=unit.value, sheet=paper.said, w=2, h=1))
        assert not done.sheet.errors, paper
        sizes.add((round(done.sheet.width, 3), round(done.sheet.height, 3)))
    assert {(297, 210), (841, 1189), (279.4, 215.9), (1117.6, 863.6)} <= sizes
    for border in borders():
        assert not work_out(
            PLATE.format(unit=unit.value, sheet=f"A3, {border.said}", w=2, h=1)
        ).sheet.errors


@pytest.mark.parametrize(
    ("unit", "scale", "diameter", "tool", "reading"),
    [
        ("mm", "1:1", "12", "circle template", "Ø12 mm"),
        ("mm", "1:2", "12", "circle template", "Ø6 mm"),
        ("mm", "1:1", "12.5", "compass", "just under 6.5 mm"),
        ("mm", "2:1", "40", "compass", "40 mm"),
        ("in", "1:1", "9/16", "circle template", "Ø9/16 in"),
        ("in", "1:2", "1 1/8", "circle template", "Ø9/16 in"),
        ("in", "1:1", "2", "compass", "1 in"),
        ("mm", "1:1", "700", "beam compass", "350 mm"),
    ],
)
def test_a_circle_is_drawn_by_template_when_its_hole_is_in_the_kit(
    unit: str, scale: str, diameter: str, tool: str, reading: str
) -> None:
    text = f"units {unit}\nsheet A0, scale {scale}\nO = datum\nc = circle, centre O, diameter {diameter}\n"
    step = work_out(text).steps[-1]
    assert step.setting is not None
    assert step.tool == tool
    assert step.setting.reading.endswith(reading.removeprefix("just under "))


def test_a_locus_is_never_swung_with_a_template() -> None:
    rows = "units mm\nO = datum\nA = point, 20 right of O\na = circle, centre O, radius 8\nb = circle, centre A, radius 6\nx = arc, radius 9, beside a, beside b, above\n"
    swings = [s for s in work_out(rows).steps if ", swing for" in s.text]
    assert [s.tool for s in swings] == ["compass", "compass"]


def test_kits_know_their_holes_in_either_unit() -> None:
    assert default_kit(Unit.MM).has_template(F(12), Unit.MM)
    assert not default_kit(Unit.MM).has_template(12.0, Unit.MM), (
        "what was worked out in floats is not a named size"
    )
    assert default_kit(Unit.INCH).has_template(F(127, 10), Unit.MM), "12.7 mm is the half-inch hole"


@given(
    st.integers(1, 40),
    st.sampled_from(["", "Ø", "R"]),
    st.fractions(F(1, 64), 90, max_denominator=64),
    st.booleans(),
)
def test_a_given_with_a_count_round_trips_and_changes(
    count: int, mark: str, size: F, assumed: bool
) -> None:
    whole, rest = divmod(size.numerator, size.denominator)
    told = " ".join(
        part
        for part in (
            str(whole) if whole or not rest else "",
            f"{rest}/{size.denominator}" if rest else "",
        )
        if part
    )
    row = f"given d = {count}× {mark}{told}" + (", assumed" if assumed else "") + ' "holes"'
    content = read_line(row).content
    assert isinstance(content, Given)
    assert (content.count, content.mark, content.assumed) == (count, mark, assumed)
    assert write_content(content) == row
    solved = work_out(f"units in\n{row}\nO = datum\n").solution.quantities["d"]
    assert solved.value == size
    changed = edited(f"{row}\n", edit.set_given, 1, "7/8")
    assert changed == "given d = 7/8" + (", assumed" if assumed else "") + ' "holes"\n'
    assert edited(f"{row}\n", edit.set_given, 1, f"{count + 1}x Ø3").startswith(
        f"given d = {count + 1}× Ø3"
    )


def test_a_product_is_not_taken_for_a_count() -> None:
    text = "units mm\ngiven a = 9\ngiven b = 4*a\ngiven c = 4 × a\nO = datum\n"
    values = work_out(text).solution.quantities
    assert (values["b"].value, values["c"].value) == (36, 36)
    assert write_plan(read_plan(write_plan(read_plan(text)))) == write_plan(read_plan(text))


@pytest.mark.parametrize(
    ("said", "place"),
    [
        ("60 from left, 45 from bottom", (70, 55)),
        ("60 from right, 45 from top", (227, 155)),
        ("60 from left edge, 45 from top edge", (60, 165)),
        ("60 from right edge, 45 from bottom edge", (237, 45)),
    ],
)
def test_the_datum_is_measured_in_from_any_side(said: str, place: tuple[int, int]) -> None:
    done = work_out(
        f"units mm\nsheet A4 landscape, border 10\nO = datum, {said}\nc = circle, centre O, radius 20\n"
    )
    assert tuple(done.sheet.origin) == place
    told = [(step.text, step.setting.told) for step in done.steps[:2] if step.setting]
    for each, (text, setting) in zip(said.split(", "), told, strict=True):
        assert each.split()[2].replace("top", "upper").replace("bottom", "lower") in text
        assert setting.split()[0] == each.split()[0]
    assert "from one side" in refused("", "units mm\nO = datum, 60 from left, 45 from right\n")


def test_a_strip_on_top_leaves_the_space_below_it() -> None:
    done = work_out(
        'plan "T"\nunits mm\nsheet A4 landscape, strip top\nO = datum\nc = circle, centre O, radius 20\n'
    )
    low, high = done.sheet.space
    assert (low.y, high.y) == (10, 200 - done.sheet.strip)
    title = next(
        mark for mark in done.display.marks if isinstance(mark, Lettering) and mark.text == "T"
    )
    assert title.y > high.y


@pytest.mark.parametrize("words", [4, 12, 40])
def test_a_long_title_stays_in_its_field(words: int) -> None:
    title = " ".join(["wheel"] * words)
    done = work_out(f'plan "{title}"\ndrawing OY-900\nunits mm\nsheet A4 landscape\nO = datum\n')
    rows = [
        mark for mark in done.display.marks if isinstance(mark, Lettering) and "wheel" in mark.text
    ]
    assert " ".join(row.text for row in rows) == title
    field = done.sheet.left + (done.sheet.width - done.sheet.left - done.sheet.border) * 0.5
    assert all(row.x + wide(row.text, row.height) <= field for row in rows)
