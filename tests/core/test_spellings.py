"""How drafters write a line: taken as it stands, offered as it is written here, or told in words that lead on."""

import json
import re
from collections import Counter
from itertools import combinations
from pathlib import Path

import pytest
from click.testing import CliRunner
from hypothesis import given
from hypothesis import strategies as st

from desk import edited
from entrick.cli import main as shell
from entrick.core.desk import work_out
from entrick.core.plan import edit
from entrick.core.plan.document import Statement
from entrick.core.plan.reader import read_line, read_plan
from entrick.core.solve.run import _Solver
from examples import some

HEAD = """units mm
sheet A3
given w = 12
given h1 = Ø8
O = datum, middle of sheet
A = point, 70 right of O
B = point, 30 right of O, 60 above
C = point, 40 left of O
c = circle, centre O, radius 30
d = circle, centre A, radius 12
l = line, through B, level
m = line, through C, plumb
AB = line, from A to B
frame = box, 160 by 100, centred on O
ring = spaced, 4 on c
"""
LINE = HEAD.count("\n") + 1
TABLE = Path(__file__).with_name("spellings.txt").read_text("utf-8").split("# --- ")[1:]
DOCS = re.findall(
    r"```entrick\n(.*?)```", Path("docs/plan-language.md").read_text("utf-8"), re.DOTALL
)


def offered(row: str) -> tuple[str | None, list[str]]:
    """Return what is told of a row under the head, None where it is understood, and what is offered."""
    errors = [e for e in work_out(f"{HEAD}{row}\n").solution.errors if e.line == LINE]
    if not errors:
        return None, []
    (error,) = errors
    return error.message, [error.mend] if error.mend else [way.line for way in error.meant]


@pytest.mark.parametrize("section", TABLE, ids=[s.partition("\n")[0] for s in TABLE])
def test_a_line_as_drafters_write_it_is_taken_mended_or_told(section: str) -> None:
    for row in filter(None, section.split("\n")[1:]):
        written, wanted = row.split(" => ")
        message, lines = offered(written)
        if wanted == "taken":
            assert message is None, written
        elif wanted.startswith('"'):
            assert message is not None, written
            assert wanted.strip('"') in message, written
            assert not lines, written
        else:
            assert lines == wanted.split(" || "), (written, message)


SIGNED = [
    (plan, number, row)
    for plan in DOCS
    for number, row in enumerate(plan.split("\n"))
    if re.search(r" = .*, [a-z ]*(?:diameter|radius|pins|wire) \d+(?:\.\d+)?(?:,|$)", row)
]


@pytest.mark.parametrize("sign", ["Ø", "⌀", "R"])
def test_a_size_said_by_its_word_and_its_sign_is_offered_by_its_word(sign: str) -> None:
    """Of whatever kind, in every example of the guide: and a radius is no diameter, whichever sign stands there."""
    words = "radius" if sign == "R" else "diameter|pins|wire"
    tried = 0
    for plan, number, row in some(SIGNED, 24):
        signed = re.sub(rf"(, [a-z ]*(?:{words})) (\d+(?:\.\d+)?)(?=,|$)", rf"\1 {sign}\2", row)
        if signed == row or work_out(plan).solution.errors:
            continue
        tried += 1
        rows = plan.split("\n")
        rows[number] = signed
        error = next(e for e in work_out("\n".join(rows)).solution.errors if e.line == number + 1)
        assert (error.mend or error.meant[0].line) == row, error.message
    assert tried > 2


ROWS = [row.partition(" => ")[0] for each in TABLE for row in each.split("\n")[1:] if row]


def test_what_is_noted_of_a_line_stays_and_is_never_what_is_told_of_it() -> None:
    note = ' "R5, radius 5, 60 by 40, PCD 80"'
    bare = [
        *(row for row in ROWS if row.startswith("x = ") and row[-1].isalnum() and '"' not in row),
        "x = box, 60 by 40, from Q",
        "x = box, 60 by 40, from A, tilted 5",
        "x = rounded, all corners of frme, radius 5",
    ]
    for row in [*some(bare, 24), *bare[-3:]]:
        told, lines = offered(row)
        if told is None or any('"' in line for line in lines):
            continue  # what is offered goes into the note
        with_note, others = offered(row + note)
        assert len(others) == len(lines), (row, with_note)
        assert all(line.endswith(note) for line in others), (row, others)
        assert lines or (with_note is not None and with_note.replace(note, "") == told), row


CENTRED = re.compile(r"(?<=, )(?:centre|centred on|about) ([A-Z])(?=,|$)")
PLACED = [
    (plan, number, row)
    for plan in DOCS
    for number, row in enumerate(plan.split("\n"))
    if len(CENTRED.findall(row)) == 1
]


@pytest.mark.parametrize("middle", ["middle", "the mid-point of"])
def test_a_centre_said_by_another_word_is_offered_as_a_centre_of_whatever_kind(middle: str) -> None:
    tried = 0
    for plan, number, row in some(PLACED, 24):
        if work_out(plan).solution.errors:
            continue
        tried += 1
        rows = plan.split("\n")
        rows[number] = CENTRED.sub(rf"{middle} \1", row)
        error = next(e for e in work_out("\n".join(rows)).solution.errors if e.line == number + 1)
        assert error.mend in {CENTRED.sub(rf"{w} \1", row) for w in ("centred on", "about")}, error
        rows[number] = error.mend
        assert not work_out("\n".join(rows)).solution.errors
    assert tried > 2


@pytest.mark.parametrize(
    ("row", "mend"),
    [
        ("units inches", "units in"),
        ("unit mm", "units mm"),
        ("units millimetres", "units mm"),
        ("units cm", None),
        ("sheet B", "sheet 17 in by 11 in"),
        ("sheet ANSI D, scale 1:2", "sheet 34 in by 22 in, scale 1:2"),
        ("sheet letter", "sheet 11 in by 8 1/2 in"),
        ("sheet A3, half scale", "sheet A3, scale 1:2"),
        ("sheet A9", None),
        ("scale 1:2", None),
    ],
)
def test_what_stands_at_the_head_of_a_plan_is_mended_too(row: str, mend: str | None) -> None:
    done = work_out(f"{row}\nO = datum\n")
    (error,) = (e for e in (*done.solution.errors, *done.sheet.errors) if e.line == 1)
    assert error.mend == mend, error.message


def stated(block: str) -> list[tuple[str, Statement]]:
    """Return the statements of a plan of the docs, each with what stands above it."""
    rows = block.splitlines()
    found = [("\n".join(rows[:at]), read_line(row).content) for at, row in enumerate(rows)]
    return [(above, content) for above, content in found if isinstance(content, Statement)]


def solver_after(above: str) -> _Solver:
    """Return a solver that has read all that stands above a line."""
    solver = _Solver(read_plan(above))
    for number, line in enumerate(solver.head.plan.lines, 1):
        solver.read(number, line.content)
    return solver


def test_a_statement_not_said_to_its_end_is_told_to_want_more_and_never_refused() -> None:
    for block in DOCS:
        for above, said in stated(block):
            if said.kind in ("line in", "hidden", "seen edge"):
                continue
            solver = solver_after(above)
            every = range(len(said.clauses))
            fewer = (
                {*combinations(every, len(every) - 1), *combinations(every, 1)} if every else set()
            )
            for kept in {*fewer, *(tuple(every[:count]) for count in every)} - {tuple(every)}:
                clauses = "".join(f", {said.clauses[at]}" for at in kept)
                outcome = solver._tried(999, f"{said.name} = {said.kind}{clauses}")
                odd = "lettered" in clauses or "a leg ends" in str(outcome.error)
                assert outcome.leads_on or odd, f"{said.kind}{clauses}: {outcome.error}"


def slipped(row: str, at: int, way: int) -> str:
    """Return a row with one slip of the pen at a word: left out, said twice, misspelt, its comma gone."""
    words = row.split(" ")
    at = 2 + at % (len(words) - 2)
    word = words[at]
    put = ([], [word, word], [word[:-1] + "x" if len(word) > 2 else word], [word.rstrip(",")])[way]
    return " ".join((*words[:at], *put, *words[at + 1 :]))


@given(
    st.sampled_from([(b, i) for b in DOCS for i in range(len(stated(b)))]),
    st.integers(0, 30),
    st.integers(0, 3),
)
def test_what_is_offered_for_a_slip_mends_it_and_loses_no_figure(
    which: tuple[str, int], at: int, way: int
) -> None:
    above, said = stated(which[0])[which[1]]
    row = slipped(f"{said.name} = {', '.join((said.kind, *map(str, said.clauses)))}", at, way)
    line = above.count("\n") + 2
    errors = [e for e in work_out(f"{above}\n{row}\n").solution.errors if e.line == line]
    for error in errors:
        for mend in filter(None, (error.mend, *(meant.line for meant in error.meant))):
            outcome = solver_after(above)._tried(999, mend)
            assert outcome.leads_on, (row, mend, outcome.error)
            after = work_out(f"{above}\n{mend}\n").solution.errors
            told = [e.message for e in after if e.line == line]
            assert told == ([outcome.error.message] if outcome.error else []), (row, mend)
            lost = Counter(re.findall(r"\d", row)) - Counter(re.findall(r"\d", mend))
            assert not lost or set(lost) == {"0"}, (row, mend)


def test_what_is_defined_lower_down_is_moved_by_a_press_and_what_follows_is_told_apart() -> None:
    text = "units mm\nO = datum\nc = circle, centre A, radius 12\nl = line, from c.top to O\nA = point, 40 right of O\n"
    done = work_out(text)
    error, after = done.solution.errors
    assert "A stands lower down" in error.message
    assert error.moved is not None
    assert after.cause == "c"
    assert [f.rule for f in done.findings if f.line == 4] == ["follows"]
    assert not work_out(edited(text, edit.move_line, *error.moved)).solution.errors


def test_the_shell_tells_what_is_meant_with_its_place(tmp_path: Path) -> None:
    plan = tmp_path / "part.entrick"
    plan.write_text(f"{HEAD}x = circle, Ø20 at O\n", "utf-8")
    told = CliRunner().invoke(shell, ["check", str(plan)]).output
    assert "→ x = circle, centre O, diameter 20" in told
    data = json.loads(CliRunner().invoke(shell, ["solve", str(plan), "--json"]).output)
    (mistake,) = data["mistakes"]
    assert (mistake["line"], mistake["clause"]) == (LINE, 0)
    assert mistake["suggestion"] == "x = circle, centre O, diameter 20"


def test_nothing_is_offered_that_is_the_line_itself() -> None:
    message, lines = offered('z0 = bisector "a note"')
    assert message is not None
    assert lines == []
