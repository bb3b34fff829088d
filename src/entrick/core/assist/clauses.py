"""A clause by its places: what stands in each, and another value put into one."""

from __future__ import annotations

from collections.abc import Iterator

from ..moves import kinds
from ..plan.document import Clause, Plan
from ..plan.edit import EditError, set_clause, statement_on
from ..plan.forms import Match, Slot, Word, match_clause
from ..plan.terms import Name, write


def matched(kind: str, clause: Clause) -> Match | None:
    """Return the form a clause of a kind has, with what stands in its places; None where it has
    none."""
    known = kinds().get(kind)
    return match_clause(clause, known.forms) if known else None


def said_in_place(match: Match) -> Iterator[tuple[Slot, str]]:
    """Return the places of a clause with what is said in each."""
    for slot in match.form.slots:
        if slot.name in match.slots:
            yield slot, " ".join(write(item) for item in match.slots[slot.name])


def set_place(plan: Plan, line: int, clause: int, place: str, said: str) -> Plan:
    """Say something else in one place of a clause.

    Raises
    ------
    EditError
        Where there is no such statement, clause or place.
    """
    statement = statement_on(plan, line)
    found = (
        matched(statement.kind, statement.clauses[clause])
        if 0 <= clause < len(statement.clauses)
        else None
    )
    if found is None or place not in found.slots:
        raise EditError(f"{statement.name} has no place for {place} in its clause {clause + 1}")
    words, at = [], 0
    items = statement.clauses[clause].items
    for part in found.form.parts:
        if isinstance(part, Word):
            if not part.optional or (at < len(items) and items[at] == Name(part.text)):
                words.append(part.text)
                at += 1
        elif part.name in found.slots:
            words.append(
                said if part.name == place else " ".join(map(write, found.slots[part.name]))
            )
            at += len(found.slots[part.name])
    return set_clause(plan, line, clause, " ".join(words))
