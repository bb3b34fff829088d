"""Does a statement repeat a number that is a given?"""

from __future__ import annotations

from collections.abc import Iterator
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
from ..solve import Solution, spoken
from .finding import Checked, Finding, Mend


def inspect(checked: Checked) -> Iterator[Finding]:
    """Report bare numbers that equal a given, and offer to link them."""
    solution = checked.solution
    givens = [
        (entry.given.name, entry.given.mark, entry.line, entry.quantity)
        for entry in solution.givens
        if isinstance(entry.given, Given) and entry.quantity is not None
    ]
    for entry in solution.entries:
        if entry.made is None:
            continue
        for number, slot in _numbers(entry.statement):
            quantity = _quantity(number, solution)
            for name, mark, line, worth in givens:
                if (
                    line < entry.line
                    and quantity is not None
                    and _same(quantity, worth, slot, mark)
                ):
                    statement = _linked(entry.statement, number, name)
                    told = f"{entry.statement.name} says {write(number)}, which is the given {name}"
                    told += ": linked, it would follow when the given changes"
                    yield Finding(
                        "note",
                        "givens",
                        told,
                        entry.line,
                        None,
                        Mend("line", entry.line, statement, f"Link to {name}"),
                    )
                    break


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
