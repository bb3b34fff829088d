"""What a plan says, as it is given: half of nothing is taken, and no sum is done."""

from __future__ import annotations

from collections.abc import Collection, Iterator
from dataclasses import replace

from ..desk import Work
from ..plan.document import Chain, Given, Statement
from ..plan.terms import names
from ..plan.writer import write_content, write_line
from ..solve import Entry


def givens_of(work: Work) -> Iterator[str]:
    """Yield what a plan is given."""
    for entry in work.solution.givens:
        yield write_content(entry.given).removeprefix("given ")


def rows_drawn(work: Work) -> Iterator[str]:
    """Yield the statements of a plan that draw something, as they are written: with the givens they
    are all that the figure follows from."""
    for entry in work.solution.entries:
        if entry.made is not None and entry.made.shapes:
            yield row_of(work, entry)


def row_of(work: Work, entry: Entry) -> str:
    """Return a statement as it is written, without remarks."""
    line = work.plan.lines[entry.line - 1]
    return write_line(replace(line, comment=""))


def as_given(work: Work, line: int) -> str:
    """Return a statement as it is written, the things it goes by, and what their sizes are given
    as.

    Examples
    --------
    ``eye = circle, centre A, diameter e; e = Ø132.``
    """
    entry = work.solution.entry(line)
    if entry is None:
        return ""
    own = _named(entry.statement)
    others = [
        each
        for each in work.solution.entries
        if each.statement.name in own and each.line < line and _is_sized(each)
    ]
    known = own.union(*(_named(each.statement) for each in others))
    rows = [row_of(work, entry), *(row_of(work, each) for each in others)]
    return f"{'; '.join([*rows, *_sizes(work, known)])}."


def _sizes(work: Work, known: Collection[str]) -> Iterator[str]:
    """Yield the givens of some names, and those they are worked out from."""
    wanted = set(known)
    found: list[str] = []
    for entry in reversed(work.solution.givens):
        given = entry.given
        if isinstance(given, Given) and given.name in wanted:
            wanted |= names(given.value)
            found.append(write_content(replace(given, note="")).removeprefix("given "))
        elif isinstance(given, Chain) and given.name in wanted:
            found.append(write_content(replace(given, note="")))
    yield from reversed(found)


def _named(statement: Statement) -> frozenset[str]:
    """Return the names that stand in a statement, those of parts by what they are parts of."""
    found = {name for clause in statement.clauses for item in clause.items for name in names(item)}
    return frozenset(each.partition(".")[0] for each in found)


def _is_sized(entry: Entry) -> bool:
    """Tell whether a statement says a size, and not only a place."""
    made = entry.made
    return made is not None and entry.statement.kind not in ("point", "datum", "line in")
