"""Which statement of a drawing was drawn wrong."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from random import Random

from ...desk import work_out
from ...geometry import Arc, Circle
from ...plan.document import Plan
from ...plan.edit import set_line
from ...plan.errors import ClauseError
from ...plan.writer import write_line, write_plan
from ...solve import Entry
from ..question import Question
from .context import Context

PLACE = 15
"""Where it stands among the others; those drawn by lot come last."""

CHOICES = 5
"""Statements among which one that stands wrong is sought."""


PLANTED: tuple[tuple[str, str, str], ...] = (
    ("diameter ", "radius ", "diameter for radius"),
    ("radius ", "diameter ", "radius for diameter"),
    ("around ", "beside ", "sum for difference"),
    ("beside ", "around ", "difference for sum"),
    ("above", "below", "the other crossing"),
    ("below", "above", "the other crossing"),
    ("left", "right", "the other crossing"),
    ("right", "left", "the other crossing"),
)
"""What is said instead in a statement to plant a slip in a drawing."""


MOVED = 2.0
"""A planted slip moves something by at least so much, mm on paper."""


TRIED = 10
"""Slips that are tried in a plan until one shows."""


def ask(at: Context, random: Random) -> Iterator[Question]:
    """Show the drawing with one mistake in it, and ask which statement was drawn wrong."""
    plan, solution = at.work.plan, at.work.solution
    drawn = [
        e
        for e in solution.entries
        if e.made and any(isinstance(s, Circle | Arc) for s in e.made.shapes)
    ]
    if len(drawn) < 3:
        return
    tries = list(_swaps(plan, drawn, [entry.given.name for entry in solution.givens]))
    random.shuffle(tries)
    for entry, row, key in tries[:TRIED]:
        wrong = _solved_otherwise(plan, entry.line, row)
        if wrong is None or not _shows(at, wrong, entry):
            continue
        names = [e.statement.name for e in drawn if e is not entry]
        choices = [entry.statement.name, *random.sample(names, k=min(CHOICES - 1, len(names)))]
        random.shuffle(choices)
        words = f"{entry.statement.name} was drawn wrong: {key}"
        yield Question(
            f"planted:{entry.line}",
            "planted",
            "One thing in this drawing stands wrong. Which?",
            "choice",
            entry.line,
            entry.statement.name,
            0,
            choices=tuple(choices),
            shows=wrong,
            working=(words, *(entry.made.working if entry.made else ())),
            hints=("Hold every size of the brief against the drawing",),
        )
        return


def _swaps(
    plan: Plan, drawn: Sequence[Entry], givens: Sequence[str]
) -> Iterator[tuple[Entry, str, str]]:
    """Yield statements with one word, or one given, said for another: what the row says then, and
    which slip it is."""
    for entry in drawn:
        row = write_line(plan.lines[entry.line - 1])
        head, eq, clauses = row.partition(" = ")
        if not eq:
            continue
        for said, instead, key in PLANTED:
            if said in clauses:
                yield entry, head + eq + clauses.replace(said, instead, 1), key
        words = clauses.replace(",", " ,").split(" ")
        for n, word in enumerate(words):
            if word in givens:
                for other in givens:
                    if other != word:
                        changed = " ".join([*words[:n], other, *words[n + 1 :]]).replace(" ,", ",")
                        yield entry, head + eq + changed, "a neighbour's size"


def _solved_otherwise(plan: Plan, line: int, row: str) -> str | None:
    """Return a plan with another statement where it solves all the same."""
    try:
        text = write_plan(set_line(plan, line, row))
    except (ClauseError, ValueError):
        return None
    return text if not work_out(text).solution.errors else None


def _shows(at: Context, wrong: str, entry: Entry) -> bool:
    """Tell whether a planted slip is to be seen on the sheet, and the sheet still holds it."""
    other = work_out(wrong)
    found = other.solution.entry(entry.line)
    if found is None or found.made is None or entry.made is None or other.sheet.errors:
        return False
    before, after = (
        next(s for s in e.made.shapes if isinstance(s, Circle | Arc))
        for e in (entry, found)
        if e.made
    )
    moved = abs(before.centre - after.centre) + abs(before.radius - after.radius)
    return moved * at.work.sheet.factor >= MOVED
