"""Steps at the board, the sheet's arithmetic, the findings, completion."""

import math
from fractions import Fraction as F

import pytest

from entrick.core.assist.complete import complete
from entrick.core.board.kit import default_kit
from entrick.core.board.steps import length_setting
from entrick.core.desk import Work, work_out
from entrick.core.display import DrawnArc, DrawnCircle, DrawnDot, DrawnLine, Lettering
from entrick.core.display.picture import angle_picture, compass_over_rule
from entrick.core.measure import Scale, Unit
from entrick.core.moves import kinds
from entrick.core.plan.forms import Word
from entrick.core.sheet import margin

LINK = (
    'plan "Link"\nunits mm\nsheet A4 landscape, scale 1:2, border 10\ngiven R = 100\nO = datum, middle of sheet\n'
    "A = point, 55 left of O\nB = point, 55 right of O\na = circle, centre A, radius 30\nb = circle, centre B, radius 20\n"
    "top = arc, radius R, around a, around b, above\nlow = arc, radius R, beside a, beside b, below\n"
)
RIM = "rim = line in, a > top > b > low\n"


def told(done: Work, weight: str | None = None) -> str:
    return "\n".join(f.message for f in done.findings if weight in (None, f.weight))


def test_an_arc_of_100_around_30_and_20_is_found_by_swings_of_70_and_80() -> None:
    """Common practice, no source."""
    done = work_out(LINK)
    top = next(e for e in done.solution.entries if e.statement.name == "top").made
    assert top is not None
    assert top.working == ("100 − 30 = 70: swing from A", "100 − 20 = 80: swing from B")
    swings = [s for s in done.steps if s.name == "top" and ", swing for the centre" in s.text]
    assert [
        (s.setting.actual, s.setting.drawn, s.setting.reading) for s in swings if s.setting
    ] == [
        (70, 35, "35 mm"),
        (80, 40, "40 mm"),
    ]
    assert [s.needle for s in swings] == [done.solution.figure.items[n].shape for n in "AB"]


def test_an_arc_of_three_and_a_half_beside_one_and_a_half_is_a_swing_of_five() -> None:
    """Common practice, no source."""
    done = work_out(
        "units in\nO = datum\nc = circle, centre O, radius 1 1/2\nP = point, 5 right of O, 3 above\n"
        "x = arc, radius 3.5, beside c, through P, above\n"
    )
    made = done.solution.entries[-1].made
    assert made is not None
    assert made.working[0] == "3 1/2 + 1 1/2 = 5: swing from O"


def test_a_sheet_400_wide_holding_260_leaves_70_each_side() -> None:
    """Common practice, no source."""
    assert margin(F(400), F(260)) == 70


@pytest.mark.parametrize(
    ("paper", "width", "height"),
    [("A4 portrait", 210, 297), ("A3 landscape", 420, 297), ("A0 portrait", 841, 1189)],
)
def test_papers(paper: str, width: int, height: int) -> None:
    """ISO 216:2007, A series trimmed sizes (from memory)."""
    sheet = work_out(f"units mm\nsheet {paper}\nO = datum\n").sheet
    assert (sheet.width, sheet.height) == (width, height)


def test_the_view_stands_in_the_middle_of_the_space() -> None:
    done = work_out(LINK + RIM)
    low, high = done.sheet.space
    left, right = done.sheet.view[0].x - low.x, high.x - done.sheet.view[1].x
    below, above = done.sheet.view[0].y - low.y, high.y - done.sheet.view[1].y
    assert left == pytest.approx(right)
    assert below == pytest.approx(above)
    outline = [m for m in done.display.marks if m.role == "outline"]
    assert (
        min(m.cx - m.r for m in outline if isinstance(m, DrawnArc)) <= done.sheet.view[0].x + 1e-9
    )


def test_the_datum_can_be_measured_from_the_border() -> None:
    done = work_out(
        "units in\nsheet 11 by 8 1/2, border 1/2\nO = datum, 2 from left, 1 1/2 from bottom\nc = circle, centre O, radius 1\n"
    )
    assert (done.sheet.origin.x, done.sheet.origin.y) == pytest.approx((2.5 * 25.4, 2 * 25.4))
    assert [s.setting.reading for s in done.steps[:2] if s.setting] == ["2 in", "1 1/2 in"]


@pytest.mark.parametrize(
    ("row", "says"),
    [
        ("sheet A4 landscape, scale 1:2, scale 1:5", "twice"),
        ("sheet A9", "A4/A3/A2"),
        ("sheet A4, scale 0:1", "no scale"),
        ("sheet A4, border 120", "no room"),
        ("sheet 3 by 2", "between 50 mm"),
        ("units yards", "units are mm or in"),
    ],
)
def test_faults_of_the_sheet_line_are_said_and_a_usual_sheet_is_used(row: str, says: str) -> None:
    done = work_out(f"{row}\nO = datum\nc = circle, centre O, radius 9\n")
    assert says in told(done, "wrong")
    assert (done.sheet.width, done.sheet.height) == (297, 210)


def test_settings_scale_but_angles_do_not() -> None:
    kit = default_kit(Unit.MM)
    half = length_setting(F(141, 2), kit, Scale(1, 2), Unit.MM)
    assert (half.reading, half.error) == ("just under 35.5 mm", 0.25)
    assert half.drawn == 35.25
    assert half.rounding == "setting to the graduation is 0.25 mm over"
    done = work_out(
        "units mm\nsheet A4, scale 1:2\nO = datum\nl = line, through O, at 22.5°\nP = point, 400 from O, at 20.2°\n"
    )
    angles = [s.setting for s in done.steps if s.setting and s.setting.is_angle]
    assert [a.actual for a in angles] == [22.5, 20.2], "nothing stands on the datum's own lines"
    assert [s.tool for s in done.steps if s.setting and s.setting.is_angle] == [
        "protractor",
        "protractor",
    ]
    assert angles[1].reading == "just over 20°"
    assert [a.rounding for a in angles] == [
        "stands on the graduation",
        "setting to the graduation is 0.2° under",
    ]


def test_beyond_its_reach_the_compass_gives_way_to_the_beam() -> None:
    done = work_out(
        "units mm\nsheet A0\nO = datum\na = circle, centre O, radius 150\nb = circle, centre O, radius 151\n"
    )
    assert [s.tool for s in done.steps][-2:] == ["compass", "beam compass"]


def test_lining_in_takes_arcs_before_lines() -> None:
    rows = (
        "units mm\nO = datum\nA = point, 30 right of O\na = circle, centre O, radius 10\nb = circle, centre A, radius 10\n"
        "u = line, touching a, touching b, outer, above\nv = line, touching a, touching b, outer, below\nrim = line in, a > u > b > v\n"
    )
    done = work_out(rows)
    tools = [s.tool for s in done.steps if s.name == "rim"]
    assert tools == ["circle template", "straightedge"], "alike ones in one go"
    loop = done.solution.figure.items["rim"].shape
    assert abs(loop.area) == pytest.approx(math.pi * 100 + 600)  # type: ignore[union-attr]


def test_findings_of_a_good_outline() -> None:
    done = work_out(LINK + RIM)
    assert not [f for f in done.findings if f.weight in ("wrong", "look")]
    assert told(done, "good").count("tangent") == 4
    assert "rim is closed" in told(done, "good")


@pytest.mark.parametrize(
    ("rows", "weight", "says"),
    [
        (LINK, "look", "nothing is lined in"),
        (LINK + "given q = 4\n" + RIM, "look", "q is given but never used"),
        (LINK.replace("R = 100", "R = 100, assumed") + RIM, "note", "R is assumed"),
        (LINK.replace("1:2", "2:1") + RIM, "wrong", "does not fit the sheet: over by"),
        (LINK.replace("1:2", "1:3") + RIM, "note", "not one of the recommended scales"),
        (LINK.replace("R = 100", "R = 600") + RIM, "note", "off the paper"),
        (LINK + "rim = line in, a > top > b, open\n", "wrong", "has no ends"),
        (
            LINK + "P = point, 40 above A\nl = line, from A to P\nrun = line in, top > l, open\n",
            "note",
            "open run",
        ),
        (
            "O = datum\nA = point, 50 right of O\nB = point, 50 right of O, 50 above O\nC = point, 50 above O\n"
            "a = line, from O to A\nb = line, from A to B\nc = line, from B to C\nd = line, from C to O\n"
            "rim = line in, a > b > c > d\n",
            "note",
            "4 corners of 90°",
        ),
        (
            "O = datum\nA = point, 50 right of O, 50 above O\nB = point, 50 right of O\nC = point, 50 above O\n"
            "a = line, from O to A\nb = line, from A to B\nc = line, from B to C\nd = line, from C to O\n"
            "rim = line in, a > b > c > d\n",
            "wrong",
            "crosses itself, a with c",
        ),
        (
            "O = datum\nA = point, 50 right of O\nB = point, 100 right of O, 1 above O\nC = point, 50 above O\n"
            "a = line, from O to A\nb = line, from A to B\nc = line, from B to C\nd = line, from C to O\n"
            "rim = line in, a > b > c > d\n",
            "look",
            "was a smooth blend meant",
        ),
    ],
)
def test_findings_say_what_is_wrong(rows: str, weight: str, says: str) -> None:
    done = work_out(rows)
    assert says in told(done, weight)
    for finding in done.findings:
        if finding.rule == "junction":
            assert finding.place is not None


def test_the_display_knows_what_made_each_mark_and_when() -> None:
    done = work_out(LINK + RIM)
    rim = [m for m in done.display.marks if m.role == "outline"]
    assert len(rim) == 4
    assert {m.line for m in rim} == {12}
    steps = {m.step for m in done.display.marks if m.line}
    assert steps <= set(range(1, len(done.steps) + 1))
    picks = {m.name for m in done.display.marks if not isinstance(m, Lettering) and m.name}
    assert {"A", "B", "O", "a", "b", "top", "top.centre", "top.touch.a"} <= picks
    named = {n for n in picks if "." not in n}
    assert named <= set(done.solution.figure.items), (
        "a pick is always a reference that the plan understands"
    )


def test_points_too_near_for_one_place_are_lettered_apart() -> None:
    done = work_out("units mm\nO = datum\nA = point, 1 right of O\nB = point, 1 above O\n")
    letters = [m for m in done.display.marks if isinstance(m, Lettering) and m.role == "letter"]
    assert {m.text for m in letters} == {"O", "A", "B"}
    assert len({(m.anchor, round(m.y, 1)) for m in letters}) == 3


@pytest.mark.parametrize(
    ("opening", "unit", "graduation"),
    [
        (35.0, Unit.MM, F(1, 2)),
        (4.25, Unit.INCH, F(1, 32)),
        (300.0, Unit.MM, F(1, 2)),
        (0.0, Unit.MM, F(1)),
    ],
)
def test_a_picture_of_a_setting_is_life_size_or_openly_broken(
    opening: float, unit: Unit, graduation: F
) -> None:
    drawn = compass_over_rule(opening, unit, graduation)
    wide = opening * float(unit.mm)
    dots = [m for m in drawn.marks if isinstance(m, DrawnDot)]
    legs = [
        m for m in drawn.marks if isinstance(m, DrawnLine) and m.role == "outline" and m.y1 != m.y2
    ]
    assert drawn.width <= 100
    if wide < 75:
        assert max(leg.x1 for leg in legs) - dots[0].x == pytest.approx(wide)
    elif opening == 300:
        figures = {m.text for m in drawn.marks if isinstance(m, Lettering)}
        assert "0" in figures
        assert "300" in figures
        assert "150" not in figures
    assert any(isinstance(m, DrawnCircle) for m in drawn.marks)


def test_a_picture_of_an_angle_shows_it() -> None:
    ray = next(
        m
        for m in angle_picture(30, "30/60 set square").marks
        if isinstance(m, DrawnLine) and m.y2 > 6 and m.role == "outline"
    )
    assert math.degrees(math.atan2(ray.y2 - ray.y1, ray.x2 - ray.x1)) == pytest.approx(30)
    assert len(angle_picture(22.5, "protractor").marks) > 20


@pytest.mark.parametrize(
    ("row", "offers"),
    [
        ("", {"given", "circle", "line in"}),
        ("x = ci", {"circle"}),
        ("x = circle, ", {"centre", "radius", "diameter"}),
        ("x = circle, centre ", {"A", "B", "O"}),
        ("x = circle, centre A, ra", {"radius"}),
        ("x = circle, centre A, radius ", {"R"}),
        ("x = arc, radius R, beside ", {"a", "b", "top", "low"}),
        ("x = arc, radius R, beside a, ", {"around", "beside", "above"}),
        ("x = line in, ", {"a", "top"}),
        ("x = line in, a ", {">"}),
        ("x = line in, a > t", {"top"}),
        ("x = point, R ", {"left", "above"}),
        ("x = point, R left of ", {"O", "A"}),
        ("x = nothing, ", set()),
    ],
)
def test_completion_offers_what_may_follow(row: str, offers: set[str]) -> None:
    solution = work_out(LINK).solution
    found = complete(solution, 11, row)
    assert offers <= {c.adds for c in found}
    assert all(c.row.startswith(row.rstrip()[:3]) for c in found if row)
    assert all(len(c.row) > len(row.rstrip()) or "," in row for c in found)


def test_completion_offers_only_what_stands_above() -> None:
    solution = work_out(LINK).solution
    assert {c.adds for c in complete(solution, 6, "x = circle, centre ")} == {"O", "A"}


@pytest.mark.parametrize("kind", sorted(kinds()))
def test_every_clause_of_every_kind_is_completed_word_by_word(kind: str) -> None:
    """Whatever is typed of a kind's clauses, completion answers, and what it offers begins with what is typed."""
    done = work_out(
        "units mm\ngiven r = 9\nO = datum\nA = point, 40 right of O\nc = circle, centre A, radius r\n"
        "f = box, 60 by 40, centred on O\nrim = line in, f.bottom > f.right > f.top > f.left\n"
    )
    fillers = {
        "point": "A",
        "line": "O.plumb",
        "circle": "c",
        "curve": "c",
        "shape": "c",
        "run": "rim",
        "several": "c",
        "walk": "c",
        "text": '"x"',
    }
    offered = 0
    for form in kinds()[kind].forms:
        typed = f"x = {kind}, "
        for part in form.parts:
            found = complete(done.solution, 8, typed)
            assert all(each.row.startswith(typed.rsplit(", ", 1)[0]) for each in found)
            offered += len(found)
            typed += (
                part.text
                if isinstance(part, Word)
                else part.choices[0]
                if part.choices
                else fillers.get(part.type, "9")
            ) + " "
    assert offered > 0
