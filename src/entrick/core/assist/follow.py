"""Giving a cam the events of a brief: the statement on a line with them instead of those it has."""

from __future__ import annotations

from ..desk import Work
from ..moves import kinds
from ..plan.edit import EditError
from ..plan.forms import match_clause
from ..plan.writer import write_clauses
from ..rules.brief import Brief, read_brief

EVENTS = frozenset({"rise", "fall", "dwell", "lift"})
"""Clauses of a cam that say what the follower does."""


def follow(work: Work, line: int, text: str) -> tuple[str, Brief]:
    """Return the whole statement with the events of a brief, and how the brief was read.

    Raises
    ------
    EditError
        When there is no cam on the line.
    """
    entry = work.solution.entry(line)
    if entry is None or entry.statement.kind != "cam":
        raise EditError(f"line {line} is no cam")
    forms = kinds()["cam"].forms
    kept = []
    for clause in entry.statement.clauses:
        match = match_clause(clause, forms)
        if match is None or match.form.key not in EVENTS:
            kept.append(str(clause))
    brief = read_brief(text)
    row = write_clauses([entry.statement.kind, *kept, *brief.clauses], entry.statement)
    return f"{entry.statement.name} = {row}", brief
