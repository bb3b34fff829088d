"""A cutter's program, read and cut by a stand-in that knows nothing of who wrote it, and the part held to the plan.

ISO 6983 words from memory: G0 to G3, G17, G20, G21, G90, G91, G94, M3, M5, M30, I and J from the beginning of an arc.
"""

import json
import math
from pathlib import Path

import pytest
from click.testing import CliRunner
from hypothesis import given
from hypothesis import strategies as st

from desk import HEAD, solved
from entrick.cli import main
from entrick.core.cutting import Machine, tool_paths, write_program
from entrick.core.desk import Work, work_out
from entrick.core.geometry import Point
from entrick.core.measure import Unit
from entrick.core.plan.errors import ClauseError
from entrick.core.proof import why_not_cut
from entrick.demo import sample_plans
from entrick.devices.cutter import LOST, Cutter, CutterError, Fault, run, tool_of
from entrick.devices.judge import Judged, judged
from entrick.devices.written import written
from examples import some

FLAT = [
    (name, text)
    for name, text in sorted(sample_plans().items())
    if any(
        number in name
        for number in ("014", "027", "031", "033", "036", "041", "044", "055", "061", "063", "073")
    )
]
PLAIN = Machine()
PLATE = "frame = box, 80 by 50, centred on O\nrim = line in, frame.bottom > frame.right > frame.top > frame.left\n"
EYE = "A = point, 20 right of O\neye = circle, centre A, diameter {}\nbore = line in, eye\n"


def program_of(done: Work, tool: float) -> str:
    cuts = tool_paths(done.named_outlines, tool)
    return write_program(cuts, done.solution.unit, tool, PLAIN, Point(0, 0), "Part")


def cut(done: Work, tool: float, machine: Cutter | None = None) -> Judged:
    mm = float(done.solution.unit.mm)
    return judged(run(program_of(done, tool), machine).moves, done.outlines, mm, tool * mm)


@pytest.mark.parametrize(("name", "text"), some(FLAT, 3), ids=[name for name, _ in some(FLAT, 3)])
def test_every_flat_sample_is_cut_to_its_plan(name: str, text: str) -> None:
    done = work_out(text)
    assert why_not_cut(done.findings) == ""
    found = cut(done, 0.02 if done.solution.unit is Unit.INCH else 0.5)
    assert found.told == ()
    assert found.gouged < 0.01
    assert found.left < 0.01
    assert found.parts == 1
    perimeter = sum(loop.length for loop in done.outlines) * float(done.solution.unit.mm)
    assert found.length == pytest.approx(perimeter, rel=0.06)


@given(st.floats(0.2, 6), st.integers(8, 24), st.integers(0, 9))
def test_any_tool_that_gets_in_leaves_the_part_whole(tool: float, wide: int, rounded: int) -> None:
    rows = "frame = box, 80 by 50, centred on O\nr = rounded, all corners of frame, radius {}\nrim = line in, r\n"
    plate = rows.format(rounded) if rounded else PLATE
    found = cut(solved(plate + EYE.format(wide)), tool)
    assert found.told == ()
    assert found.parts == 1


@pytest.mark.parametrize(
    ("rows", "tool", "words"),
    [
        (PLATE + EYE.format(5), 6, "bore is narrower than the tool: take one of 5 at most"),
        (PLATE + EYE.format(5), 0, "more than nought"),
        ("c = circle, centre O, radius 4\n", 1, "nothing is lined in"),
        (
            "s = box, 30 by 4, centred on O\nway = line in, s.bottom > s.right > s.top > s.left\n"
            + PLATE,
            5,
            "narrower than the tool",
        ),
    ],
)
def test_what_the_tool_does_not_get_into_is_refused_with_the_reason(
    rows: str, tool: float, words: str
) -> None:
    with pytest.raises(ClauseError, match=words):
        tool_paths(work_out(HEAD + rows).named_outlines, tool)


@pytest.mark.parametrize(
    ("rows", "tool"),
    [
        (PLATE + EYE.format(6), 6),
        (
            PLATE + "A = point, 20 right of O\nB = point, 20 left of O\n"
            "s = slot, from A to B, width 5\nway = line in, s\n",
            5,
        ),
        (
            PLATE + "i = box, 40 by 20, centred on O\nq = rounded, all corners of i, radius 3\n"
            "hole = line in, q\n",
            6,
        ),
        (
            "P = point, 40 left of O\nn = run, from P, right 80, up 30, left 37.5, down 10, left 5, up 10, "
            "left 37.5, close\nrim = line in, n\n",
            5,
        ),
    ],
    ids=["hole", "slot", "fillet", "notch"],
)
def test_a_tool_just_as_wide_gets_in_and_one_wider_is_told_the_width(
    rows: str, tool: float
) -> None:
    done = solved(rows)
    found = written(done, tool, PLAIN).verdict
    assert found.fits
    assert found.gouged < 0.01
    with pytest.raises(ClauseError, match=f"take one of {tool} at most"):
        written(done, tool * 1.1, PLAIN)


@pytest.mark.parametrize(
    ("rows", "words"),
    [
        (
            "a = box, 30 by 20, from O\nP = point, 32 right of O\nb = box, 30 by 20, from P\n"
            "one = line in, a.bottom > a.right > a.top > a.left\ntwo = line in, b.bottom > b.right > b.top > b.left\n",
            r"cut into the part by (1\.00|0\.99)",
        ),
        (
            "c = circle, centre O, radius 40\nd = circle, centre O, radius 20\ne = circle, centre O, radius 18\n"
            "rim = line in, c\nring = line in, d\ndisc = line in, e\n",
            r"cut into the part by (1\.00|0\.99)",
        ),
    ],
    ids=["beside each other", "loose in a ring"],
)
def test_a_tool_that_would_cut_into_a_neighbour_gets_no_program(rows: str, words: str) -> None:
    """Two parts 2 mm apart: a tool of 3 runs 1 mm into the one beside it, a tool of 2 just clears both."""
    done = solved(rows)
    with pytest.raises(ClauseError, match=words):
        written(done, 3, PLAIN)
    assert written(done, 1.9, PLAIN).verdict.parts == 2


@given(st.integers(24, 150), st.floats(0.5, 4))
def test_what_a_round_tool_leaves_in_a_corner_is_told_and_no_fault(angle: int, tool: float) -> None:
    """Against r (1 / sin(θ/2) - 1): the distance of a corner from the circle that touches its sides, less its radius."""
    deep = 10.0
    half = deep * math.tan(math.radians(angle / 2))
    left, right = 40 - half, 40 + half
    rows = (
        f"P = point, 40 right of O, {deep:.0f} above\nQ = point, {right:.9f} right of O\n"
        f"n = run, from O, right {left:.9f}, to P, to Q, right 40, up 30, left {right + 40:.9f}, close\n"
        "rim = line in, n\n"
    )
    try:
        found = written(solved(rows), tool, PLAIN)
    except ClauseError:
        assert tool / 2 * math.tan(math.radians(90 - angle / 2)) > deep / 2, (
            "only where it hardly gets in"
        )
        return
    height = tool / 2 * (1 / math.sin(math.radians(angle / 2)) - 1)
    assert found.verdict.rounded == pytest.approx(height, abs=0.02)
    assert found.verdict.corners == (found.verdict.rounded > 0)
    assert ("inner corner" in "".join(found.verdict.remarks)) == (found.verdict.corners > 0)
    assert "1 PART" in found.program


def test_a_hole_that_was_not_cut_at_all_is_left_standing() -> None:
    done = solved(PLATE + EYE.format(16))
    rim_alone = write_program(
        tool_paths(done.named_outlines[:1], 2), Unit.MM, 2, PLAIN, Point(0, 0)
    )
    found = judged(run(rim_alone).moves, done.outlines, 1.0, 2)
    assert found.left == pytest.approx(8, abs=0.1)
    assert not found.fits


def test_a_sharp_point_is_not_taken_for_cut_into() -> None:
    rows = "T = point, 10 above O\nw = run, from O, right 100, to T, close\nrim = line in, w\n"
    assert cut(solved(rows), 3).gouged < 0.005


def test_a_notch_narrower_than_the_tool_is_refused_by_name() -> None:
    rows = "a = run, from O, right 40, up 20, left 18, down 8, left 4, up 8, left 18, close\nrim = line in, a\n"
    done = solved(rows)
    tool_paths(done.named_outlines, 3)
    with pytest.raises(ClauseError, match="does not get to a"):
        tool_paths(done.named_outlines, 5)


def test_holes_come_before_the_rim_and_leads_lie_in_the_waste() -> None:
    done = solved(
        PLATE
        + EYE.format(16)
        + "B = point, 20 left of O\nlug = circle, centre B, diameter 10\npin = line in, lug\n"
    )
    cuts = tool_paths(done.named_outlines, 2)
    assert [each.hole for each in cuts] == [True, True, False]
    for each in cuts:
        assert each.lead is not None
        loop = next(loop for name, loop in done.named_outlines if name == each.name)
        assert loop.encloses(each.start) == each.hole
        assert abs(each.path.pieces[0].entry - each.lead.into.last) < 1e-9
        ahead = each.path.pieces[0].direction(each.lead.into.last)
        out = each.lead.into.last - each.lead.into.centre
        assert abs(out.dot(ahead)) < 1e-9, "a lead runs into the path"


@pytest.mark.parametrize(
    ("fault", "fits"), [("late answer", True), ("cut connection", True), ("lost step", False)]
)
def test_faults_are_survived_told_and_never_taken_for_a_good_part(fault: Fault, fits: bool) -> None:
    """Whatever happens the program comes to its end; a part that a lost step has spoilt is told as spoilt."""
    done = solved(PLATE + EYE.format(16))
    whole, spoilt = len(run(program_of(done, 2)).moves), 0
    for block in range(11, 30):
        machine = Cutter(fault, block)
        found = cut(done, 2, machine)
        assert machine.ended
        assert len(machine.told) == 1
        assert len(machine.moves) >= whole
        assert found.fits or (not fits and found.gouged <= LOST + 0.01)
        spoilt += not found.fits
    assert fits or spoilt > 3


@pytest.mark.parametrize(
    ("program", "words"),
    [
        ("G90\nG0 X1\n", "no units"),
        ("G21\nG0 X1\n", "neither G90"),
        ("G21 G90\nG1 X1\n", "no feed"),
        ("G21 G90\nM3\nG0 X5\n", "rapid move with the tool on"),
        ("G21 G90 F9\nG2 X1 Y0\n", "without I, J or R"),
        ("G21 G90 F9\nG2 X1 Y0 I5 J0\n", "not as far from its centre"),
        ("G21 G90 F9\nG2 X9 R2\n", "too far apart"),
        ("G21 G90 T4\n", "nothing this machine does"),
        ("hello\n", "cannot be read"),
        ("G21 M30\nG90\n", "ended already"),
        ("G21 G90 F9\nG1 X1..5\n", "cannot be read"),
        ("X" * 300, "longer than"),
    ],
)
def test_the_machine_refuses_what_it_does_not_do_and_says_at_which_block(
    program: str, words: str
) -> None:
    with pytest.raises(CutterError, match=words):
        run(program)


@given(st.text(max_size=200))
def test_whatever_is_sent_is_cut_or_refused(text: str) -> None:
    try:
        machine = run(text)
    except CutterError:
        return
    assert all(math.isfinite(move.length) for move in machine.moves)


def test_arcs_are_read_by_hand_worked_examples() -> None:
    """A quarter from (10, 0) about O to (0, 10) is 5π long; by R the same; incremental the same; an inch is 25.4."""
    for block in (
        "G90\nG0 X10\nM3\nG3 X0 Y10 I-10 J0",
        "G90\nG0 X10\nM3\nG3 X0 Y10 R10",
        "G91\nG0 X10\nM3\nG3 X-10 Y10 I-10",
    ):
        move = run(f"G21 F100\n{block}\n").moves[-1]
        assert move.length == pytest.approx(5 * math.pi)
        assert move.at(0.5) == pytest.approx((10 / math.sqrt(2), 10 / math.sqrt(2)))
        assert move.minutes == pytest.approx(5 * math.pi / 100)
    assert run("G20 G90 F10\nG1 X1\n").moves[0].end == (25.4, 0.0)
    assert run("G21 G90 F10\nG0 X10\nM3\nG2 X10 I-10\n").moves[-1].length == pytest.approx(
        20 * math.pi
    )


def test_from_the_shell_a_part_is_written_cut_and_held_to_its_plan(tmp_path: Path) -> None:
    plan, program = tmp_path / "p.entrick", tmp_path / "p.nc"
    plan.write_text(dict(FLAT)[FLAT[0][0]], "utf-8")
    run_ = CliRunner().invoke
    assert run_(main, ["draw", str(plan), "-o", str(program)]).exit_code == 2
    done = run_(main, ["draw", str(plan), "-o", str(program), "--tool", "3", "--feed", "400"])
    assert done.exit_code == 0
    assert "guard, eye protection" in done.output
    text = program.read_bytes().decode("ascii")
    assert text.startswith("%\r\nO1\r\n(OY-014 PADDLE PAWL LINK)")
    assert tool_of(text) == 3
    found = run_(main, ["cut", str(program), "--against", str(plan), "--json"])
    assert found.exit_code == 0, found.output
    assert json.loads(found.output)["fits"]
    own = tmp_path / "own.json"
    own.write_text('{"process": "router", "zero": "corner", "pass": 3}', "utf-8")
    for machine in ("torch", str(own)):
        asked = ["draw", str(plan), "-o", str(program), "--tool", "3", "--machine", machine]
        assert run_(main, asked).exit_code == 0
        assert run_(main, ["cut", str(program), "--against", str(plan)]).exit_code == 0
    own.write_text('{"speed": 4}', "utf-8")
    for machine, words in (("kiln", "is one of"), (str(own), "speed is nothing that is set")):
        asked = ["draw", str(plan), "-o", str(program), "--tool", "3", "--machine", machine]
        assert words in run_(main, asked).output
    wrong = run_(main, ["cut", str(program), "--against", str(plan), "--tool", "5"])
    assert wrong.exit_code == 1
    assert "cut into the part" in wrong.output
    program.write_text("G90\nG1 X4\n", "ascii")
    assert run_(main, ["cut", str(program), "--against", str(plan), "--tool", "3"]).exit_code == 2
    plan.write_text(
        "units mm\nO = datum\nc = run, from O, 20 right, 20 up\nrim = line in, c, open\n", "utf-8"
    )
    refused = run_(main, ["draw", str(plan), "-o", str(program), "--tool", "3", "--feed", "400"])
    assert refused.exit_code == 1
    assert "not to be cut as it is" in refused.output
