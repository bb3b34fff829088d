"""Finishing: dimensions, centre lines, hatching and labels stand at paper size, in their place, and are true."""

import io
import math

import pytest
import shapely
from hypothesis import given
from hypothesis import strategies as st
from pypdf import PdfReader
from reportlab.pdfbase.ttfonts import TTFont

from desk import refused
from entrick.core.desk import Work, work_out
from entrick.core.drawing.marks import (
    Arrowhead,
    DrawnArc,
    DrawnCircle,
    DrawnLine,
    Lettering,
    Mark,
    reach,
    wide,
)
from entrick.core.finish.chain import centre_dashes, hidden_dashes
from entrick.core.formats import write_pdf, write_svg
from entrick.core.geometry import Point
from entrick.demo import sample_plans

CAPITALS = 736 / 1024
"""Height of capitals of the lettering face, from its own table."""
HEAD = "units mm\nsheet A2 landscape, scale 1:1, border 10\n"
FRAME = "O = datum\nframe = box, 80 by 50, centred on O\nrim = line in, frame.bottom > frame.right > frame.top > frame.left\n"


def solved(rows: str, head: str = HEAD) -> Work:
    done = work_out(head + rows)
    assert not done.solution.errors, done.solution.errors
    assert not done.sheet.errors
    return done


def marks(done: Work, role: str, kind: type[Mark] = DrawnLine) -> list[Mark]:
    return [mark for mark in done.display.marks if mark.role == role and isinstance(mark, kind)]


@pytest.mark.parametrize(("more", "begins"), [("axes = centre lines, of eye\n", 8.0), ("", 1.0)])
def test_an_extension_line_begins_where_the_centre_line_it_runs_along_ends(
    more: str, begins: float
) -> None:
    """Centre lines run 3 past a circle, extension lines begin 1 off what they stand on (common practice, no source)."""
    eye = "A = point, 20 right of O, 5 above\neye = circle, centre A, radius 4\n"
    done = solved(FRAME + eye + more + "d = dimension, from frame.lower_left to A, level, below\n")
    lines = [m for m in marks(done, "dimension") if isinstance(m, DrawnLine) and m.x1 == m.x2]
    own = max(lines, key=lambda m: m.x1)
    place = done.sheet.on_paper(Point(20.0, 5.0))
    assert own.x1 == pytest.approx(place.x)
    assert place.y - max(own.y1, own.y2) == pytest.approx(begins)


def test_a_dimension_keeps_gap_offset_and_arrows_at_any_scale() -> None:
    """1 mm off the outline, first line 10 mm out, arrowhead 3 long to 1 wide (common practice, no source)."""
    for scale, drawn in (("1:1", 80.0), ("1:2", 40.0), ("2:1", 160.0)):
        head = f"units mm\nsheet A2 landscape, scale {scale}, border 10\n"
        done = solved(
            FRAME + "d = dimension, from frame.lower_left to frame.lower_right, level, below\n",
            head,
        )
        lines = [m for m in marks(done, "dimension") if isinstance(m, DrawnLine)]
        low = done.sheet.view[0].y
        extension = [m for m in lines if m.x1 == m.x2]
        assert len(extension) == 2
        assert {round(low - max(m.y1, m.y2), 9) for m in extension} == {1.0}
        (level,) = [m for m in lines if m.y1 == m.y2]
        assert low - level.y1 == pytest.approx(10)
        assert abs(level.x2 - level.x1) == pytest.approx(drawn)
        arrows = marks(done, "dimension", Arrowhead)
        assert [(a.length, a.wide) for a in arrows if isinstance(a, Arrowhead)] == [(3.0, 1.0)] * 2
        assert {round(a.x, 6) for a in arrows if isinstance(a, Arrowhead)} == {
            round(level.x1, 6),
            round(level.x2, 6),
        }
        assert [
            m.text for m in marks(done, "dimension", Lettering) if isinstance(m, Lettering)
        ] == ["80"]


@pytest.mark.parametrize(
    ("row", "text"),
    [
        ("d = dimension, diameter c, 4 times", "4× Ø18"),
        ("d = dimension, radius c", "R9"),
        ("d = dimension, angle between frame.left and frame.bottom", "90°"),
        ("d = dimension, angle A O B", "45°"),
        ('d = dimension, from A to B, saying "about 40"', "about 40"),
        ("d = dimension, from A to B, 3 times", "3× 20"),
        ("d = dimension, from O to frame.upper_right, plumb, right", "25"),
    ],
)
def test_what_is_lettered_is_what_was_measured(row: str, text: str) -> None:
    rows = (
        FRAME
        + "c = circle, centre O, radius 9\nA = point, 20 right of O\nB = point, 20 above A\n"
        + row
        + "\n"
    )
    assert text in [m.text for m in solved(rows).display.marks if isinstance(m, Lettering)]


def test_inches_are_lettered_as_fractions_where_they_are_some() -> None:
    rows = "O = datum\nc = circle, centre O, diameter 9/16\nA = point, 1 1/4 right of O\nd = dimension, diameter c\ne = dimension, from O to A, level\n"
    texts = [m.text for m in solved(rows, "units in\n").display.marks if isinstance(m, Lettering)]
    assert {"Ø9/16", "1 1/4"} <= set(texts)


def test_a_chain_stands_in_one_row_and_a_common_edge_in_several() -> None:
    points = (
        FRAME + "A = point, 20 right of frame.lower_left\nB = point, 50 right of frame.lower_left\n"
    )
    chain = solved(
        points + "d = dimension, chain frame.lower_left A B frame.lower_right, level, below\n"
    )
    levels = {
        round(m.y1, 6)
        for m in marks(chain, "dimension")
        if isinstance(m, DrawnLine) and m.y1 == m.y2
    }
    assert len(levels) == 1
    edge = solved(
        points + "d = dimension, edge frame.lower_left A B frame.lower_right, level, below\n"
    )
    levels = {
        round(m.y1, 6)
        for m in marks(edge, "dimension")
        if isinstance(m, DrawnLine) and m.y1 == m.y2
    }
    assert len(levels) == 3
    texts = [m.text for m in marks(edge, "dimension", Lettering) if isinstance(m, Lettering)]
    assert sorted(texts) == ["20", "50", "80"]


def test_dimensions_are_lettered_along_their_line_or_all_level() -> None:
    row = FRAME + "d = dimension, from frame.lower_left to frame.upper_left, plumb, left\n"
    (aligned,) = marks(solved(row), "dimension", Lettering)
    head = "units mm\nsheet A2 landscape, scale 1:1, border 10, dimensions unidirectional\n"
    (level,) = marks(solved(row, head), "dimension", Lettering)
    assert isinstance(aligned, Lettering)
    assert isinstance(level, Lettering)
    assert (aligned.angle, level.angle) == (90, 0)


@given(st.floats(4, 600), st.booleans())
def test_chain_dashes_fill_the_line_and_begin_and_end_on_a_long_dash(
    length: float, closed: bool
) -> None:
    """After ISO 128: long dash, gap, dot, gap; fitted so that the last dash is whole."""
    dashes = centre_dashes(length, closed)
    long, gap, dot, _ = dashes
    count = (length - (0 if closed else long)) / sum(dashes)
    assert count == pytest.approx(round(count), abs=1e-6)
    assert round(count) >= 1, "at least one dot"
    assert long > dot
    assert gap > 0
    dash, space = hidden_dashes(length, closed)
    count = (length - (0 if closed else dash)) / (dash + space)
    assert count == pytest.approx(round(count), abs=1e-6)


def test_centre_lines_run_past_what_they_centre_and_turn_with_the_pitch_circle() -> None:
    rows = (
        "O = datum\np = circle, centre O, radius 40\nat = spaced, 3 on p, from above\nh = circle, centre at, radius 6\n"
        "cl = centre lines, of h, round p, towards O\naxis = centre lines, along O.plumb\n"
    )
    done = solved(rows)
    lines = [m for m in marks(done, "centre") if isinstance(m, DrawnLine)]
    crosses = [
        m for m in lines if math.isclose(math.hypot(m.x2 - m.x1, m.y2 - m.y1), 18, abs_tol=1e-6)
    ]
    assert len(crosses) == 6
    assert len(marks(done, "centre", DrawnCircle)) == 1
    centre = done.sheet.origin
    aiming = [
        m
        for m in crosses
        if abs((m.x2 - m.x1) * (centre.y - m.y1) - (m.y2 - m.y1) * (centre.x - m.x1)) < 1e-6
    ]
    assert len(aiming) == 3
    assert all(m.dash for m in lines)


def test_hidden_pieces_are_dashed_to_their_ends_and_stay_out_of_the_outline() -> None:
    rows = (
        FRAME
        + "A = point, 30 left of frame.lower_right\nslot = run, from A, up 15, right 12, down 15\nbehind = hidden, slot\n"
    )
    done = solved(rows)
    hidden = [m for m in marks(done, "hidden") if isinstance(m, DrawnLine)]
    assert len(hidden) == 3
    for mark in hidden:
        length = math.hypot(mark.x2 - mark.x1, mark.y2 - mark.y1)
        dash, gap = mark.dash
        assert (length - dash) / (dash + gap) == pytest.approx(
            round((length - dash) / (dash + gap))
        )
    assert not done.solution.entries[-1].made.loops  # type: ignore[union-attr]


@pytest.mark.parametrize(
    ("label", "role"), [("at A, 8 above", "label"), ("pointing to A, 20 right, 12 above", "label")]
)
def test_labels_stand_where_they_are_put(label: str, role: str) -> None:
    done = solved(
        FRAME + f'A = point, 20 right of O\nn = label, saying "SHAFT", {label}, height 5\n'
    )
    (text,) = marks(done, role, Lettering)
    assert isinstance(text, Lettering)
    assert (text.text, text.height) == ("SHAFT", 5.0)
    place = done.sheet.on_paper(done.solution.figure.items["A"].shape)  # type: ignore[arg-type]
    assert text.y + 2.5 == pytest.approx(place.y + (8 if "at" in label[:2] else 12))
    assert len(marks(done, "dimension", Arrowhead)) == ("pointing" in label)


def test_the_title_block_takes_a_second_row_with_guide_lines_and_the_projection() -> None:
    title = 't = title, drawn "A", checked "B", date "25 Nov 2026", sheet "1 of 2", material "brass", projection {}\n'
    plain, first, third = (
        solved(FRAME + row) for row in ("", title.format("first"), title.format("third"))
    )
    assert first.sheet.space[0].y == plain.sheet.space[0].y + 10
    texts = {m.text for m in first.display.marks if isinstance(m, Lettering)}
    assert {"A", "B", "25 Nov 2026", "1 of 2", "brass", "DRAWN", "CHECKED"} <= texts
    heights = {
        m.height for m in first.display.marks if isinstance(m, Lettering) and m.role == "lettering"
    }
    assert {2.5, 3.5} <= heights, "lettering heights of ISO 3098"
    assert len(marks(first, "guide")) == 2 * 9
    circles = [marks(done, "strip", DrawnCircle)[0] for done in (first, third)]
    assert circles[0].cx > circles[1].cx  # type: ignore[union-attr]


@pytest.mark.parametrize(
    ("border", "left", "right"),
    [("border filing", 20, 10), ("border 10", 10, 10), ("border 1/2 in", 12.7, 12.7)],
)
def test_borders_of_both_schools(border: str, left: float, right: float) -> None:
    """ISO 5457: 20 mm on the filing side, 10 mm elsewhere (from memory)."""
    done = solved(FRAME, f"units mm\nsheet A3 landscape, {border}\n")
    low, high = done.sheet.space
    assert (low.x, done.sheet.width - high.x) == pytest.approx((left, right))


def test_the_room_dimensions_take_is_counted_in_when_the_view_is_placed() -> None:
    plain = solved(FRAME)
    done = solved(
        FRAME + "d = dimension, from frame.lower_left to frame.lower_right, level, below\n"
    )
    assert done.sheet.origin.y > plain.sheet.origin.y
    low, high = done.sheet.space
    assert done.sheet.room[0].y - low.y == pytest.approx(high.y - done.sheet.room[1].y)
    assert "for dimensions" in done.sheet.working[1]


@pytest.mark.parametrize(
    "text", sorted(sample_plans().values()), ids=lambda text: text.splitlines()[1]
)
def test_lettering_of_the_samples_covers_no_other_lettering(text: str) -> None:
    """Boxes of level and upright lettering of dimensions, a little smaller than the letters, are apart."""
    done = work_out(text)
    boxes = []
    for mark in done.display.marks:
        if isinstance(mark, Lettering) and mark.role == "dimension" and mark.angle in (0, 90):
            wide, tall = 0.5 * mark.height * len(mark.text), mark.height * 0.8
            start = {"start": 0.0, "middle": -wide / 2, "end": -wide}[mark.anchor]
            box = (mark.x + start, mark.y, mark.x + start + wide, mark.y + tall)
            if mark.angle == 90:
                box = (mark.x - tall, mark.y + start, mark.x, mark.y + start + wide)
            boxes.append((mark.text, box))
    for index, (first, (a, b, c, d)) in enumerate(boxes):
        for second, (e, f, g, h) in boxes[index + 1 :]:
            assert not (a < g and e < c and b < h and f < d), (first, second)


def test_an_arc_of_a_view_is_dimensioned_where_it_is_seen() -> None:
    done = work_out(sample_plans()["OY-041-bearing-bracket.entrick"])
    low, high = done.sheet.view
    tips = [m for m in marks(done, "dimension", Arrowhead) if isinstance(m, Arrowhead)]
    assert all(low.x - 40 < m.x < high.x + 40 and low.y - 40 < m.y < high.y + 40 for m in tips)
    assert marks(done, "dimension", DrawnArc) == []


@pytest.mark.parametrize(("along", "degrees"), [("", 0), (", along right", 30), (", along up", 90)])
def test_a_scale_bar_is_to_scale_and_figured(along: str, degrees: int) -> None:
    rows = (
        FRAME + f"P = point, 30 left of O, 60 below\nbar = scale bar, at P, 4 parts of 10{along}\n"
    )
    done = solved(rows, "units mm\nsheet A2 landscape, scale 1:2, border 10\n")
    lines = [m for m in marks(done, "dimension") if isinstance(m, DrawnLine)]
    whole = max(lines, key=lambda m: math.hypot(m.x2 - m.x1, m.y2 - m.y1))
    assert math.hypot(whole.x2 - whole.x1, whole.y2 - whole.y1) == pytest.approx(20)
    assert math.degrees(math.atan2(whole.y2 - whole.y1, whole.x2 - whole.x1)) == pytest.approx(
        degrees
    )
    assert len(lines) == 6
    texts = [m.text for m in marks(done, "dimension", Lettering) if isinstance(m, Lettering)]
    assert texts == ["0", "10", "20", "30", "40"]


def test_a_distance_between_is_square_to_parallel_lines() -> None:
    rows = "l = line, from O to A\nm = parallel, to l, at 7, above\nd = dimension, between l and m\ne = dimension, between B and l\n"
    done = solved("O = datum\nA = point, 40 from O, at 25°\nB = point, 12 from O, at 115°\n" + rows)
    letters = [mark.text for mark in done.display.marks if isinstance(mark, Lettering)]
    assert letters.count("7") == 1
    assert letters.count("12") == 1
    assert "not parallel" in refused(
        "l = line, through O, at 20°\nd = dimension, between l and O.level\n"
    )
    assert "two parallel lines" in refused(
        "A = point, 40 right of O\nd = dimension, between O and A\n"
    )


@pytest.mark.parametrize(
    ("lines", "read"),
    [
        # both are drawn on either side of the corner: the smaller angle
        ("l = line, through O, at 165°\n", "15°"),
        (
            "P = point, 40 from O, at 165°\nQ = point, 40 from O, at -15°\nl = line, from P to Q\n",
            "15°",
        ),
        # drawn on one side only: the angle that is there, whichever
        (
            "P = point, 40 from O, at 165°\nl = line, from O to P\nA = point, 40 right of O\n",
            "165°",
        ),
    ],
)
def test_an_angle_is_dimensioned_as_one_reads_it(lines: str, read: str) -> None:
    other = "line O A" if "A = " in lines else "O.level"
    done = solved(f"O = datum\n{lines}d = dimension, angle between {other} and l\n")
    assert read in [mark.text for mark in done.display.marks if isinstance(mark, Lettering)]


def test_a_slot_has_its_centre_lines_along_and_across() -> None:
    straight = solved(
        "O = datum\ns = slot, centred on O, length 60, width 12, at 20°\ncl = centre lines, of s\n"
    )
    lines = [
        mark
        for mark in straight.display.marks
        if isinstance(mark, DrawnLine) and mark.role == "centre"
    ]
    lengths = sorted(math.hypot(m.x2 - m.x1, m.y2 - m.y1) for m in lines)
    assert lengths == pytest.approx([12 + 6, 12 + 6, 60 + 6])
    curved = solved(
        "O = datum\ns = slot, about O, radii 40 and 50, from 20° to 80°\ncl = centre lines, of s\n"
    )
    (arc,) = [
        mark
        for mark in curved.display.marks
        if isinstance(mark, DrawnArc) and mark.role == "centre"
    ]
    assert arc.r == pytest.approx(45)
    assert arc.sweep == pytest.approx(60 + 2 * math.degrees((5 + 3) / 45))
    assert (
        len([m for m in curved.display.marks if isinstance(m, DrawnLine) and m.role == "centre"])
        == 2
    )


def test_the_name_of_a_point_stands_off_the_outline() -> None:
    """A hole so small that a name beside its centre stands on its edge: it goes further out."""
    rows = "O = datum\nA = point, 30 right of O\nc = circle, centre A, radius 3\n"
    plain, lined = solved(rows), solved(rows + "bore = line in, c\n")
    crossed = []
    for done in (plain, lined):
        name = next(
            mark for mark in done.display.marks if isinstance(mark, Lettering) and mark.text == "A"
        )
        at = done.sheet.on_paper(done.solution.figure.items["A"].shape)  # type: ignore[arg-type]
        corners = [math.hypot(x - at.x, y - at.y) for x, y in reach(name)]
        crossed.append(min(corners) < 3 < max(corners))
    assert crossed == [True, False]


def test_light_work_stops_at_the_border_in_every_file() -> None:
    done = solved(
        "O = datum\nc = circle, centre O, radius 400\nd = circle, centre O, radius 20\nrim = line in, d\n"
    )
    svg = write_svg(done.display)
    assert svg.count('<g clip-path="url(#space)">') >= 1
    before, _, after = svg.partition('<g clip-path="url(#space)">')
    assert 'r="400.0' in after.partition("</g>")[0]
    assert 'r="400.0' not in before
    page = PdfReader(io.BytesIO(write_pdf(done.display))).pages[0].get_contents()
    assert page is not None
    assert b" re W" in page.get_data().replace(b"\n", b" ")


@given(st.text("0123456789/.×ØR°-MTEHabcdefghijklmnopqrstuvwxyz WQ", max_size=20))
def test_lettering_is_given_at_least_the_room_its_face_takes(text: str) -> None:
    """ReportLab reads the widths from the font file itself."""
    face = TTFont("face", "src/entrick/fonts/routed-gothic.ttf")
    assert wide(text, 2.5) >= face.stringWidth(text, 2.5 / CAPITALS) - 1e-9


@pytest.mark.parametrize("side", ["below", "above"])
def test_a_figure_stands_beside_the_line_that_runs_through_the_middle(side: str) -> None:
    done = solved(
        FRAME + f"d = dimension, from frame.lower_left to frame.lower_right, level, {side}\n"
    )
    (figure,) = marks(done, "dimension", Lettering)
    assert isinstance(figure, Lettering)
    middle = done.sheet.on_paper(Point(0.0, 0.0)).x
    assert abs(figure.x - middle) > wide(figure.text, figure.height) / 2
    off = solved(
        FRAME.replace("O\n", "A\n", 1).replace("O = datum", "O = datum\nA = point, 30 right of O")
        + f"d = dimension, from frame.lower_left to frame.lower_right, level, {side}\n"
    )
    (figure,) = marks(off, "dimension", Lettering)
    assert isinstance(figure, Lettering)
    assert figure.x == pytest.approx(off.sheet.on_paper(Point(30.0, 0.0)).x)


def test_hatching_is_broken_round_figures() -> None:
    rows = (
        FRAME + "h = hatch, of rim\neye = circle, centre O, radius 4\nd = dimension, radius eye\n"
    )
    done = solved(rows)
    (figure,) = marks(done, "dimension", Lettering)
    box = shapely.MultiPoint(reach(figure)).envelope.buffer(-0.01)
    strokes = [m for m in marks(done, "hatch") if isinstance(m, DrawnLine)]
    assert len(strokes) > 10
    assert not any(
        shapely.LineString([(m.x1, m.y1), (m.x2, m.y2)]).intersects(box) for m in strokes
    )
