"""What is remembered from one edit to the next changes nothing: the answer is that of the plan solved anew."""

import re
import sys
from pathlib import Path
from random import Random

from hypothesis import assume, given
from hypothesis import strategies as st

from desk import asked
from desk import edited as edited_text
from entrick.core.desk import work_out
from entrick.core.formats import settings_csv, write_svg
from entrick.core.memo import MEMO
from entrick.core.plan.document import Chain, Given, Statement
from entrick.core.plan.edit import delete_line, insert_line, move_line, set_line
from entrick.core.plan.reader import read_plan
from entrick.core.plan.writer import write_plan
from entrick.core.solve import solve, solve_changed
from entrick.demo import sample_plans

sys.path.insert(0, str(Path(__file__).parents[1] / "fuzz"))
SAMPLES = sorted(sample_plans().values())


def forget() -> None:
    """Let the next plan be solved as the first."""
    MEMO.clear()


def answer(text: str) -> tuple[str, ...]:
    """Everything a person sees of a plan, letter for letter."""
    done = work_out(text)
    shown = (asked(address, text=text).content.decode() for address in ("work", "proof"))
    return (*shown, write_svg(done.display), settings_csv(done.steps, done.kit))


def edited(text: str, pick: Random) -> str:
    rows = write_plan(read_plan(text)).splitlines()
    if not rows:
        return text
    line = pick.randint(1, len(rows))
    row = rows[line - 1]
    how = pick.random()
    if how < 0.55:
        numbers = list(re.finditer(r"(?<![\w.])\d+(?![\w.:/])", row))
        if numbers:
            found = pick.choice(numbers)
            other = pick.choice(
                [
                    str(int(found[0]) + 1),
                    f"{found[0]}.0",
                    f"{found[0]}.5",
                    f"({found[0]}*2)",
                    f"{2 * int(found[0])}/2",
                ]
            )
            return edited_text(
                text, set_line, line, row[: found.start()] + other + row[found.end() :]
            )
    if how < 0.7:
        return edited_text(text, move_line, line, pick.randint(1, len(rows)))
    if how < 0.85:
        return edited_text(text, delete_line, line)
    return edited_text(
        text,
        insert_line,
        line,
        pick.choice(
            ["q = point, 3 right of O", "given q = 7", "# a remark", row.replace("=", "2 =", 1)]
        ),
    )


@given(st.sampled_from(SAMPLES), st.integers(0, 2**32))
def test_a_run_of_edits_ends_in_the_same_answer_as_the_plan_solved_anew(
    text: str, seed: int
) -> None:
    pick = Random(seed)
    for _ in range(5):
        text = edited(text, pick)
        work_out(text)
    step_by_step = answer(text + "# looked at step by step\n")
    forget()
    assert answer(text + "# looked at step by step \n") == step_by_step


@given(st.sampled_from(SAMPLES), st.integers(0, 2**32))
def test_a_plan_with_one_line_changed_comes_to_what_it_does_when_solved_whole(
    text: str, seed: int
) -> None:
    """What findings and suggestions vary: every number of a given or statement, each made a little larger."""
    pick, base = Random(seed), work_out(text).solution
    places = [
        (line, m)
        for line, row in enumerate(text.splitlines(), 1)
        if " = " in row and row[0] not in "#ps"
        for m in re.finditer(r"(?<![\w.])\d+(?![\w.:/×])", row)
    ]
    line, found = pick.choice(places)
    row = text.splitlines()[line - 1]
    changed = read_plan(
        edited_text(
            text, set_line, line, row[: found.start()] + f"({found[0]}*1.001)" + row[found.end() :]
        )
    )
    content = changed.lines[line - 1].content
    assume(isinstance(content, Given | Chain | Statement))
    one, soon = solve_changed(base, line, content), solve(changed)
    forget()
    whole = solve(changed)
    assert list(one.quantities.items()) == list(whole.quantities.items())
    for each in (
        (soon,) if one.errors else (soon, one)
    ):  # a mistake is looked at with the whole plan
        assert list(each.figure.items) == list(whole.figure.items)
        assert each.asked == whole.asked
        assert [(g.quantity, g.used_by) for g in each.givens] == [
            (g.quantity, g.used_by) for g in whole.givens
        ]
    assert soon.plan is changed
    assert [error.message for error in one.errors] == [error.message for error in whole.errors]
    for mine, theirs in zip(one.entries, whole.entries, strict=True):
        assert (mine.line, mine.statement, mine.made is None) == (
            theirs.line,
            theirs.statement,
            theirs.made is None,
        )
        if mine.made and theirs.made:
            assert (mine.made.sentence, mine.made.working) == (
                theirs.made.sentence,
                theirs.made.working,
            )
            assert mine.made.shape == theirs.made.shape


def test_an_edit_makes_anew_only_what_depends_on_it() -> None:
    text = "O = datum\ngiven r = 9\n" + "".join(
        f"p{i} = point, {10 * i} right of O\nc{i} = circle, centre p{i}, radius {'r' if i % 2 else 4}\n"
        f"l{i} = line, from c{i}.centre to O\nt{i} = spaced, 4 on c{i}\n"
        for i in range(1, 40)
    )
    forget()  # so that nothing has to make room in between
    before = solve(work_out(text).plan).entries
    after = solve(work_out(text.replace("given r = 9", "given r = 9.5")).plan).entries
    anew = {new.statement.name for old, new in zip(before, after, strict=True) if old is not new}
    odd = [i for i in range(1, 40) if i % 2]
    assert anew == {f"c{i}" for i in odd} | {f"t{i}" for i in odd}, (
        "a line from its centre is what it was"
    )


def test_a_size_that_is_the_same_but_written_otherwise_is_told_as_written() -> None:
    """7/2 and 3.5 are one number and two spellings."""
    for value, told in (("7/2", "3 1/2"), ("3.5*cos(0°)", "3.5"), ("7/2", "3 1/2")):
        done = work_out(f"units in\ngiven r = {value}\nO = datum\nc = circle, centre O, radius r\n")
        assert told in done.solution.entries[1].made.sentence  # type: ignore[union-attr]


def test_a_name_that_is_freed_or_taken_is_noticed() -> None:
    """A word of a clause that becomes a name, a link of a chain that moves, a family that loses a member."""
    pairs = [
        (
            "given level = 5\nO = datum\nA = point, 3 right of O\nz = line, through A, level\n",
            "O = datum\nA = point, 3 right of O\nz = line, through A, level\n",
        ),
        (
            "chain t = 10 20, overall 30\nO = datum\ng = grid, from O, across t\n",
            "chain t = 20 10, overall 30\nO = datum\ng = grid, from O, across t\n",
        ),
        (
            "O = datum\nk = circle, centre O, radius 9\nf = spaced, 5 on k\nh = circle, centre f, radius 1\n",
            "O = datum\nk = circle, centre O, radius 9\nf = spaced, 4 on k\nh = circle, centre f, radius 1\n",
        ),
    ]
    for one, other in pairs:
        for text in (one, other, one):
            seen = answer(text)
            forget()
            assert answer(text + "\n") == seen
