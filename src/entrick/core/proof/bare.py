"""Does a statement repeat a number that is a given?"""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import replace

from ..measure import Dimension, Quantity
from ..moves import kinds
from ..plan.clauses import match_clauses
from ..plan.document import Given, Statement
from ..plan.errors import ClauseError
from ..plan.evaluate import evaluate
from ..plan.slots import NUMBERS
from ..plan.terms import Expression, Name, Num, rewrite, terms, write
from ..plan.writer import write_content
from ..solve import Entry, GivenEntry, Solution, spoken
from .finding import Checked, Finding, Mend


def inspect(checked: Checked) -> Iterator[Finding]:
    """Report bare numbers that are a given which is wanted there, and offer to link them: one that
    nothing uses, or that the brief counts more often than it is used, for the same kind of thing.

    That two numbers are equal may be chance, and is no reason by itself."""
    solution = checked.solution
    said = {entry.line: entry.statement for entry in solution.entries}
    for entry in solution.entries:
        if entry.made is None:
            continue
        for number, slot in _numbers(entry.statement):
            quantity = _quantity(number, solution)
            for given in solution.givens:
                if given.line < entry.line and _is_meant(given, quantity, slot, entry, said):
                    yield _offer(entry, number, given, said)
                    break


def _is_meant(
    given: GivenEntry,
    quantity: Quantity | None,
    slot: str,
    entry: Entry,
    said: Mapping[int, Statement],
) -> bool:
    """Tell whether a number stands where a given was meant."""
    brief = given.given
    if not isinstance(brief, Given) or given.quantity is None or quantity is None:
        return False
    if not _same(quantity, given.quantity, slot, brief.mark):
        return False
    users = [said[line] for line in given.used_by if line in said]
    if not given.used_by:
        return slot in MARKED.get(brief.mark, PLAIN)
    return brief.count > len(users) and any(u.kind == entry.statement.kind for u in users)


MARKED = {"R": frozenset({"radius"}), "Ø": frozenset({"diameter"})}
"""What a given with a mark is for."""

PLAIN = frozenset({"length", "angle", "pitch", "lengths"})
"""What one without a mark is for."""


def _offer(entry: Entry, number: Num, given: GivenEntry, said: Mapping[int, Statement]) -> Finding:
    name = given.given.name
    users = ", ".join(said[line].name for line in given.used_by if line in said)
    message = f"{entry.statement.name} says {write(number)}, which is the given {name}"
    message += (
        f": linked, it follows when the given changes, as {users} does"
        if users
        else (", which nothing uses")
    )
    text = _linked(entry.statement, number, name)
    mend = Mend("line", entry.line, text, f"Link to {name}")
    return Finding("note", "givens", message, entry.line, None, mend)


def _numbers(statement: Statement) -> Iterator[tuple[Num, str]]:
    try:
        matches = match_clauses(spoken(statement), kinds()[statement.kind].forms, statement.kind)
    except ClauseError:
        return
    for match in matches:
        for slot in match.form.slots:
            if slot.type in NUMBERS and slot.type != "count":
                for item in match.slots.get(slot.name, ()):
                    yield from ((number, slot.type) for number in terms(item))


def _quantity(number: Num, solution: Solution) -> Quantity | None:
    try:
        return evaluate(number, {}, solution.unit)
    except ClauseError:
        return None


def _same(quantity: Quantity, given: Quantity, slot: str, mark: str) -> bool:
    if (
        (slot, mark) in (("radius", "Ø"), ("diameter", "R"))
        or quantity.value != given.value
        or quantity.value == 0
    ):
        return False
    return (slot == "angle") == (given.dimension is Dimension.ANGLE)


def _linked(statement: Statement, number: Num, name: str) -> str:
    def link(part: Expression) -> Expression | None:
        return Name(name) if part is number else None

    clauses = tuple(
        c._replace(items=tuple(rewrite(item, link) for item in c.items)) for c in statement.clauses
    )
    return write_content(replace(statement, clauses=clauses))
