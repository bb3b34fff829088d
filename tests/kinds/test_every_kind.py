"""Each kind of construction, through the plan, as a drafter writes it."""

import re
from collections.abc import Iterator
from pathlib import Path

import pytest

from desk import HEAD, refused, thing
from entrick.core.desk import work_out
from entrick.core.geometry import Point
from entrick.core.moves import kinds
from entrick.core.plan.clauses import match_clauses
from entrick.core.plan.document import Clause, Statement
from entrick.core.plan.errors import ClauseError
from entrick.core.plan.reader import read_line, read_plan
from entrick.core.plan.slots import NUMBERS
from entrick.core.plan.terms import Name, Num, Term
from entrick.core.solve import spoken
from entrick.core.solve.families import construct_all
from entrick.core.solve.run import _Solver

DOCS = re.findall(
    r"```entrick\n(.*?)```", Path("docs/plan-language.md").read_text("utf-8"), re.DOTALL
)


@pytest.mark.parametrize("kind", list(kinds().values()), ids=lambda kind: kind.name)
def test_every_kind_declares_an_example_that_reads(kind) -> None:  # type: ignore[no-untyped-def]
    """The example of each kind fits its own forms: it fails at most for names that are not there."""
    done = work_out(HEAD + kind.example + "\n")
    for found in done.solution.errors:
        assert "nothing above is called" in found.message or "already the name" in found.message
    assert kind.mistake
    assert kind.summary
    assert not kind.choosing_words & {form.head for form in kind.forms if form.needed}


def test_a_given_as_radius_or_diameter_is_not_taken_for_the_other() -> None:
    done = work_out(
        "given e = Ø40\ngiven f = R15\nO = datum\na = circle, centre O, diameter e\nb = circle, centre O, radius f\nc = circle, centre O, radius e/2\n"
    )
    assert not done.solution.errors
    assert [thing(done, n).radius for n in "abc"] == [20, 15, 20]  # type: ignore[union-attr]


def test_millimetres_and_inches_mix_exactly() -> None:
    done = work_out(
        "units in\ngiven w = 25.4 mm\ngiven v = 1 1/2\nO = datum\nA = point, w + v right of O\n"
    )
    assert thing(done, "A") == Point(2.5, 0)


def test_coincident_points_and_equal_circles_are_refused_clearly() -> None:
    twin = "A = point, 5 right of O\nB = point, 5 right of O\na = circle, centre A, radius 3\nb = circle, centre B, radius 3\n"
    assert "same place" in refused(twin + "l = line, from A to B")
    assert "same line or circle" in refused(twin + "rim = line in, a > b")
    assert "same line or circle" in refused(twin + "P = crossing, of a and b")
    assert "same centre" in refused(twin + "t = line, touching a, touching b")
    assert "all the way round" in refused(twin + "x = arc, radius 9, through A, through B")


def _said_otherwise(said: Statement) -> Iterator[tuple[str, tuple[Clause, ...]]]:
    """Yield a statement with one clause left out, one number a little larger, one word of choice another."""
    clauses, kind = spoken(said), kinds()[said.kind]
    for index, clause in enumerate(clauses):
        yield f"without {clause}", (*clauses[:index], *clauses[index + 1 :])
    for match in match_clauses(clauses, kind.forms, said.kind):
        at = match.clause
        for slot in match.form.slots:
            for item in match.slots.get(slot.name, ()):
                others: list[Term] = []
                if isinstance(item, Num) and slot.type in NUMBERS:
                    number = item.text.rstrip("°")
                    others = (
                        [Num(f"{int(number) + 1}{item.text[len(number) :]}")]
                        if number.isdigit()
                        else []
                    )
                elif isinstance(item, Name):
                    others = [Name(word) for word in slot.choices if word != item.text]
                for other in others:
                    items = tuple(other if each is item else each for each in clauses[at].items)
                    yield (
                        f"{clauses[at]} → {other}",
                        (*clauses[:at], Clause(items), *clauses[at + 1 :]),
                    )


USUALLY = (
    "beside",
    "drilled 32",
    "open",
    "square",
    "pressure 20°",
    "along up",
    "at 45°",
    "middle of sheet",
)
"""Clauses of the docs that say what is so without them."""


@pytest.mark.parametrize("block", DOCS, ids=[b.splitlines()[-1][:40] for b in DOCS])
def test_plans_that_differ_in_a_clause_differ_in_their_sentence(block: str) -> None:
    plan = read_plan(block)
    solver = _Solver(plan)
    for number, line in enumerate(plan.lines, 1):
        said = line.content
        if isinstance(said, Statement):
            told = _told(solver, said, spoken(said))
            for what, clauses in _said_otherwise(said):
                other = _told(solver, said, clauses)
                usual = what.startswith("without ") and what.endswith(USUALLY)
                assert other != told or usual, what
        solver.read(number, said)


def _told(solver: _Solver, said: Statement, clauses: tuple[Clause, ...]) -> str | None:
    """Return the sentence of a statement with other clauses; a mistake where it does not solve."""
    text = ", ".join((f"{said.name} = {said.kind}", *map(str, clauses)))
    content = read_line(text).content
    assert isinstance(content, Statement)
    try:
        return construct_all(said.kind, solver._said(content, None))[0].sentence
    except ClauseError as error:
        return f"refused: {error}"
