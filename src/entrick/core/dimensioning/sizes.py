"""The sizes of a plan: every number of the brief that says how large something is, in a given, in
a link of a chain, or in a statement itself."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from dataclasses import dataclass, replace

from ..measure import Dimension
from ..memo import remembered
from ..moves import kinds
from ..plan.clauses import match_clauses
from ..plan.document import Chain, Content, Given, Statement
from ..plan.errors import ClauseError
from ..plan.evaluate import evaluate
from ..plan.forms import match_clause
from ..plan.slots import NUMBERS
from ..plan.terms import Expression, Num, names, rewrite, terms, write
from ..solve import Solution, spoken

RIGHT = 90
"""Angles that are whole multiples of a right angle are drawn, not dimensioned (common practice)."""


@dataclass(frozen=True)
class Size:
    """A number of the brief that the figure depends on: where it stands, what the drafter calls it,
    its value; and of one in a statement which clause it is in."""

    line: int
    number: Num
    name: str
    value: float
    dimension: Dimension
    clause: str = ""


def sizes(solution: Solution) -> Iterator[Size]:
    """Yield the sizes of a solved plan: not what says how many, and not right angles."""
    for entry in solution.givens:
        if entry.error is None:
            given = entry.given
            items = (given.value,) if isinstance(given, Given) else given.links
            for index, item in enumerate(items, 1):
                for number in terms(item) if item is not None else ():
                    name = given.name if isinstance(given, Given) else f"{given.name}.{index}"
                    yield from _size(entry.line, number, name, solution)
    for statement in solution.entries:
        if statement.made is not None and not statement.made.nothing:
            yield from _bare(statement.line, statement.statement, solution)


def _bare(line: int, statement: Statement, solution: Solution) -> Iterator[Size]:
    """Return the sizes that stand in a statement itself, not in a given."""
    try:
        matches = match_clauses(spoken(statement), kinds()[statement.kind].forms, statement.kind)
    except ClauseError:
        return
    for match in matches:
        for slot in match.form.slots:
            if slot.type not in NUMBERS or slot.type == "count":
                continue
            for item in match.slots.get(slot.name, ()):
                for number in terms(item):
                    plain = number.text.rstrip("°")
                    if slot.type == "angle" and plain.isdigit() and int(plain) % RIGHT == 0:
                        continue
                    name = f"{write(number)} in {statement.name}"
                    yield from _size(line, number, name, solution, match.form.key)


def counts(solution: Solution) -> frozenset[str]:
    """Return the givens that say how many, and not how large."""
    result: set[str] = set()
    for entry in solution.entries:
        kind = kinds().get(entry.statement.kind)
        for clause in entry.statement.clauses if kind else ():
            match = match_clause(clause, kind.forms)  # type: ignore[union-attr]
            if match is None:
                continue
            for slot in match.form.slots:
                if slot.type == "count":
                    items = match.slots.get(slot.name, ())
                    result.update(name for item in items for name in names(item))
    return frozenset(result)


def _size(
    line: int, number: Num, name: str, solution: Solution, clause: str = ""
) -> Iterator[Size]:
    try:
        quantity = evaluate(number, {}, solution.unit)
    except ClauseError:
        return
    if quantity.value != 0 and quantity.dimension not in (Dimension.AREA, Dimension.PER_LENGTH):
        yield Size(line, number, name, float(quantity.value), quantity.dimension, clause)


def changed(content: Content, change: Callable[[Expression], Expression | None]) -> Content:
    """Return a line of a plan with its numbers changed: `change` gives the new one, or None."""
    match content:
        case Given():
            return replace(content, value=rewrite(content.value, change))  # type: ignore[arg-type]
        case Chain():
            links = tuple(None if link is None else rewrite(link, change) for link in content.links)
            return loosened(replace(content, links=links))  # type: ignore[arg-type]
        case Statement():
            clauses = tuple(
                clause._replace(items=tuple(rewrite(item, change) for item in clause.items))
                for clause in content.clauses
            )
            return replace(content, clauses=clauses)
    return content


@remembered()
def loosened(content: Content) -> Content:
    """Let a chain with all its links be as long as they make it: its overall size follows from
    them."""
    if not (isinstance(content, Chain) and all(link is not None for link in content.links)):
        return content
    return replace(content, overall=None)
