"""Plans that come to nothing, touch themselves or ask for too much: each is told at its place, and the rest is worked out."""

import cmath
import json
import math
from contextlib import suppress
from itertools import pairwise
from xml.etree import ElementTree

import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from desk import asked
from entrick.core import desk, fault, formats
from entrick.core.allowance import MOST_PIECES
from entrick.core.desk import work_out
from entrick.core.dimensioning.suggest import suggest_dimensions
from entrick.core.display import DisplayList
from entrick.core.display.picture import compass_over_rule
from entrick.core.geometry import Arc, Line, Loop, Point
from entrick.core.geometry.loop import Boxed, Piece, polyline
from entrick.core.geometry.nearest import least_wall
from entrick.core.measure import Unit
from entrick.core.memo import MEMO
from entrick.core.plan.document import LONGEST_LINE
from entrick.core.plan.edit import tidy
from entrick.core.plan.reader import read_plan
from entrick.core.rules.brief import read_brief
from entrick.core.solve import Solution, solve
from entrick.core.summarize import summarize
from entrick.core.summary import heading
from examples import examples, some

POINTS = "O = datum\nA = point, 40 right of O\nB = point, 20 right of O\nC = point, 20 right of O, 30 above\n"
ODD = [
    # A statement with the words it is refused in, or None where it is constructed after all.
    ("z = run, from O", "at least one leg"),
    ("c = circle, through O, through A, through B", "no circle touches"),
    ("c = circle, through O, through A, through C", None),
    ("D = point, 20 right of O, 20 above\nc = circle, through D, through A, through B", None),
    (
        "k = circle, centre O, radius 20\nF = spaced, 3 on k, from below\nz = bisector, of line F A",
        "family",
    ),
    (
        "k = circle, centre O, radius 20\nF = spaced, 3 on k, from below\nz = line in, k via F > k",
        "family",
    ),
    ("z = spiral, about O, radius 5 to 20, 0.000001 turns", None),
    ("z = spiral, about O, radius 0 to 0.0000000001, 2 turns", "too small"),
    ("z = ellipse, centred on O, axes 20 and 20, by four centres", "it is a circle"),
    ("z = cycloid, from O, radius 12, 0.0000000001 turns", "too small"),
    ("k = circle, centre O, radius 0.0000000001\nz = cycloid, on k, radius 12, 1 turns", None),
    ("z = helix, from O, diameter 0.0000000001, lead 20, 10 turns, wire 5", None),
    (
        "z = isometric block, centred on O, 1000000 by 1000000, on top, thick 1/2, rounded 0.0000000001",
        None,
    ),
    ("l = line, from O to A\nz = line in, open, cut, l", None),
    ("e = run, from O, right 20, up 10\nz = hidden, e.leg.1 > e > e.leg.1, open", None),
    ("w = gear, about O, by arc, 20 teeth, pitch diameter 0.0000000001", "too small to draw"),
    ("w = cone, from O, diameter 0.0000000001, height 0.5", "too small for its base"),
    ("w = rack, from O, 3 teeth, module 0.0000000001", "too small to draw"),
    ("w = gear, about O, 24 teeth, module 4\nz = turn, of w, 360 about O", "60\u202f000"),
    (
        "k = circle, centre O, radius 20\n"
        + "".join(f"z{i} = turn, of k, 360 about A\n" for i in range(99)),
        "60\u202f000",
    ),
    (
        "b = box, 40 by 20, from O\nl = line, through b.upper_right, at 30°\nz = line in, b.bottom > b.right > l > b.top > b.left",
        None,
    ),
    ('z = label, saying "a\x07b", at O', "cannot be printed"),
]


@pytest.mark.parametrize(("rows", "told"), some(ODD, 8))
def test_an_odd_statement_is_told_in_words_and_all_ways_out_stay_open(
    rows: str, told: str | None
) -> None:
    done = work_out(f"{POINTS}{rows}\nlast = circle, centre A, radius 5\n")
    messages = [error.message for error in done.solution.errors]
    assert any(told in message for message in messages) if told else not messages, messages
    assert "last" in done.solution.figure.items or any(
        "any more" in message for message in messages
    )
    assert done.findings is not None
    ElementTree.fromstring(formats.write_svg(done.display))
    formats.write_pdf(done.display, "odd")
    formats.write_dxf(done.display, Unit.MM)
    json.dumps(formats.solution_data(done), allow_nan=False)
    suggest_dimensions(done.solution)
    assert summarize(write := tidy(done.plan and POINTS + rows)).mistakes == len(
        work_out(write).solution.errors
    )


def test_what_a_plan_asks_for_is_told_at_the_statement_that_takes_most() -> None:
    rows = "w = gear, about O, 60 teeth, module 1\n" + "".join(
        f"r{i} = shift, of w, {i} right\n" for i in range(1, 60)
    )
    text = (
        f"O = datum\nk = circle, centre O, radius 3\n{rows}big = shift, of w, 9 right, 12 times\n"
    )
    done = solve(read_plan(text))
    assert done.errors
    most = max(done.errors, key=lambda error: "of the" in error.message)
    assert f"of the {MOST_PIECES}" in most.message
    assert done.entries[most.line - 1].made is not None


@given(st.text(max_size=40))
def test_whatever_is_typed_tidies_to_what_tidies_to_itself(text: str) -> None:
    once = tidy(text)
    assert tidy(once) == once
    assert len(read_plan(once).lines) <= len(read_plan(text).lines)


def test_a_vulgar_fraction_keeps_its_distance_and_its_meaning() -> None:
    for row in (
        "z = box, 6 by 4, centred ½on O",
        "z = point, ½ right of O",
        "z = point, 4½ right of O",
        "z = point, 4 ½ right of O",
    ):
        assert tidy(tidy(row)) == tidy(row)
    assert tidy("z = point,  ½ right of O") == "z = point, ½ right of O\n"


def test_a_long_walk_without_spaces_is_kept_as_typed() -> None:
    row = "rim = line in, " + ">".join(["a"] * ((LONGEST_LINE - 20) // 2))
    assert len(row) <= LONGEST_LINE
    assert tidy(row) == row + "\n", "spaces round > would take it past what a line may hold"
    assert tidy("r = line in, a>b") == "r = line in, a > b\n"
    rows = "\n".join("x = line in, " + ">".join(["a"] * 700) for _ in range(69)) + "\n"
    assert tidy(rows) == rows, "a plan at its limit is not made longer than may be saved"


def test_a_line_with_a_character_nobody_sees_offers_the_line_without_it() -> None:
    error = work_out('plan "a\x01b"\n').solution.errors[0]
    assert error.mend == 'plan "ab"'
    assert tidy('plan "a\x01b"') == 'plan "a\x01b"\n', "what was typed is not lost"


def test_quoted_stations_are_read_and_a_bad_first_one_is_told() -> None:
    assert read_brief('"angle","lift"\n"0","0"\n"90","12.5"\n').clauses == (
        "lift 0 at 0°",
        "lift 12.5 at 90°",
    )
    for first in ("-10,5", "x0,5", "0,1,2", "1e3,4"):
        misread = read_brief(f"{first}\n90,3\n180,2\n").misread
        assert [row.row for row in misread] == [1], first


def test_a_region_between_bisectors_and_an_involute_is_found_or_refused_in_words() -> None:
    from entrick.core.assist.regions import region_at
    from entrick.core.geometry.edges import RegionError

    done = work_out(
        POINTS
        + "k = circle, centre O, radius 10\ni = involute, of k, through 90°\nb = bisector, of line O A\nd = bisector, of angle A O C\n"
    )
    for x in range(-20, 50, 7):
        for y in range(-20, 40, 7):
            with suppress(RegionError):
                assert region_at(done.solution, [Point(x, y)]).loops


def test_degenerate_runs_have_a_distance_and_a_middle() -> None:
    there_and_back = polyline([Point(0, 0), Point(10, 0)], ["a", "b"], closed=True)
    dot = Loop(polyline([Point(3, 4), Point(3, 4.000001)], ["c", "d"], closed=True).pieces, True)
    assert least_wall(there_and_back, dot)[0] == pytest.approx(4)
    assert there_and_back.centroid == Point(5, 0)
    assert not Boxed(there_and_back).encloses(Point(5, 1))


@given(
    st.lists(
        st.tuples(
            st.integers(-9, 9),
            st.integers(-9, 9),
            st.sampled_from([0.0, 0.3, -0.3, 1.0, -1.0, 2.5, -2.5]),
        ),
        min_size=3,
        max_size=9,
        unique_by=lambda corner: corner[:2],
    ),
    st.integers(-60, 60),
    st.integers(-60, 60),
)
def test_a_run_goes_round_a_place_as_often_as_one_turns_there_looking_along_it(
    corners: list[tuple[int, int, float]], x: int, y: int
) -> None:
    """Any walk of chords and arcs, also one that crosses itself, against the angles added up in small steps."""
    spot = Point(x / 4 + 0.0131, y / 4 + 0.0173)
    pieces, turned = [], 0.0
    for (a, b, bulge), (c, d, _) in zip(corners, [*corners[1:], corners[0]], strict=True):
        first, last = complex(a, b), complex(c, d)
        walked = [first, last]
        if bulge:
            # The centre of an arc by its bulge, the tangent of a quarter of its sweep (published, DXF reference).
            centre = (first + last) / 2 + 1j * (last - first) * (1 - bulge**2) / (4 * bulge)
            sweep = 4 * math.atan(bulge)
            start = cmath.phase(first - centre)
            walked = [
                centre + cmath.rect(abs(first - centre), start + sweep * k / 720)
                for k in range(721)
            ]
            arc = Arc(Point(centre.real, centre.imag), abs(first - centre), start, sweep)
            pieces.append(Piece(arc, "arc", Point(a, b), Point(c, d)))
        else:
            pieces.append(
                Piece(Line.between(Point(a, b), Point(c, d)), "line", Point(a, b), Point(c, d))
            )
        assume(all(abs(abs(spot.x + 1j * spot.y - one)) > 0.05 for one in walked))
        turned += sum(
            cmath.phase((two - complex(*spot)) / (one - complex(*spot)))
            for one, two in pairwise(walked)
        )
    loop = Loop(tuple(pieces), True)
    assert loop.encloses(spot) == (abs(turned) > math.pi)
    for limit in (0.5, 2.0, 9.0):
        assert Boxed(loop).is_nearer(spot, limit) == (loop.distance(spot) < limit)
    place = Boxed(loop).nearest(spot)
    assert abs(place - spot) == pytest.approx(loop.distance(spot))
    assert loop.distance(place) < 1e-9


def test_a_picture_of_a_setting_stays_small_however_fine_the_rule() -> None:
    from fractions import Fraction

    for opening in (0.0, 1.0, 40.0, 1200.0, 1e5):
        for unit, graduation in (
            (Unit.MM, Fraction(1, 999)),
            (Unit.INCH, Fraction(1, 999)),
            (Unit.MM, Fraction(1)),
        ):
            assert len(compass_over_rule(opening, unit, graduation).marks) < 3000


def test_a_view_of_a_kilometre_is_not_finished_and_says_so() -> None:
    text = "units mm\nsheet A4, scale 1000:1\nO = datum\nb = box, 900000 by 900000, centred on O\nrim = line in, b.bottom > b.right > b.top > b.left\nd = dimension, from b.lower_left to b.lower_right, level\n"
    done = work_out(text)
    assert any("on paper" in error.message for error in done.sheet.errors)


def test_a_heading_is_told_without_working_the_plan_out() -> None:
    told = heading('# first\nplan "Pawl"\ndrawing OY-001\nunits in\nO = datum\n')
    assert (told.title, told.drawing, told.unit) == ("Pawl", "OY-001", "in")
    assert heading("plan = point, 3 right of O\nunits furlongs\n").title == ""


@pytest.fixture
def net(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(fault, "NET", True)


PLAN = POINTS + "k = circle, centre A, radius 5\nm = circle, centre O, radius 7\nrim = line in, m\n"


def test_a_fault_in_constructing_is_told_at_its_statement(
    net: None, monkeypatch: pytest.MonkeyPatch
) -> None:
    from entrick.core.moves import kinds

    def fall(_: object) -> None:
        raise KeyError("insides")

    MEMO.clear()
    monkeypatch.setitem(kinds(), "circle", desk.replace(kinds()["circle"], construct=fall))
    done = work_out(
        PLAN
        + "# a fault in constructing\nn = circle, centre A, radius 6.125\nlast = point, 9 right of O\n"
    )
    entry = next(e for e in done.solution.entries if e.statement.name == "n")
    assert entry.error is not None
    assert "a fault of the desk, not of the plan (reference " in entry.error.message
    assert "insides" not in entry.error.message
    assert "last" in done.solution.figure.items


def test_a_fault_in_drawing_leaves_the_rest_drawn(
    net: None, monkeypatch: pytest.MonkeyPatch
) -> None:
    whole = desk.build_display

    def fall(solution: Solution, *rest: object) -> object:
        if any(e.made and e.statement.name == "k" for e in solution.entries):
            raise ValueError("cannot draw k")
        return whole(solution, *rest)  # type: ignore[arg-type]

    monkeypatch.setattr(desk, "build_display", fall)
    done = work_out(PLAN + "# a fault in drawing\n")
    assert [e.statement.name for e in done.solution.entries if e.error] == ["k"]
    assert {mark.line for mark in done.display.marks if mark.role == "outline"} == {7}
    assert {error.line for error in done.solution.errors} == {5}


def test_a_fault_in_inspecting_is_a_finding_and_keeps_the_outline_from_the_cutter(
    net: None, monkeypatch: pytest.MonkeyPatch
) -> None:
    from entrick.core.proof import why_not_cut

    def inspect(checked: object) -> object:
        raise KeyError("rule")

    monkeypatch.setattr(desk, "findings", lambda _: inspect(None))
    monkeypatch.setattr(desk, "rules", lambda: (inspect,))
    done = work_out(PLAN + "# a fault in inspecting\n")
    assert {finding.rule for finding in done.findings} == {"fault"}
    assert why_not_cut(done.findings)


def test_the_same_fault_has_the_same_reference_and_memory_is_no_fault(net: None) -> None:
    def fall() -> None:
        raise IndexError("x")

    def told() -> str:
        try:
            fall()
        except IndexError as error:
            return fault.report(error, "here")
        return ""

    assert told() == told()
    with pytest.raises(MemoryError):
        fault.report(MemoryError(), "here")
    assert "more work" in fault.report(fault.OutOfTime(), "here")


@given(st.integers(0, 2**32))
@examples(4)
def test_every_way_out_of_a_random_plan_is_open(seed: int) -> None:
    """The fuzzer's own plans and promises, a few of them each time; `make fuzz` tries many."""
    import sys
    from pathlib import Path
    from random import Random

    sys.path.insert(0, str(Path(__file__).parents[1] / "fuzz"))
    from grammar import Writer
    from ways import tried

    pick = Random(seed)
    for way, error, _ in tried(Writer(pick).plan(), pick):
        assert error is None, way


def test_a_fault_in_writing_a_file_names_the_statement_and_writes_nothing(
    net: None, monkeypatch: pytest.MonkeyPatch
) -> None:
    from entrick.core.formats.issue import svg
    from entrick.web.answer import Refused

    whole = svg.write_svg

    def fall(display: DisplayList, construction: bool = True, unit: Unit | None = None) -> str:
        if any(mark.line == 5 for mark in display.marks):
            raise OverflowError("k")
        return whole(display, construction, unit)

    monkeypatch.setattr(svg, "write_svg", fall)
    with pytest.raises(Refused) as caught:
        asked("export/svg", text=PLAN)
    assert caught.value.detail.startswith(
        "line 5 (k) cannot be written: a fault of the desk, not of the plan"
    )
    assert asked("export/csv", text=PLAN).content
