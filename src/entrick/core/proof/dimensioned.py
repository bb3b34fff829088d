"""Do the dimensions define the outline: nothing missing, nothing twice?"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import replace
from itertools import groupby

import numpy as np

from ..dimensioning.sizes import Size
from ..dimensioning.threads import unlettered
from ..dimensioning.variation import Row, RowSpace, Variation, dimensions
from ..plan.document import Clause, Statement
from ..plan.terms import Name
from ..plan.writer import write_content
from ..tolerance import ALIKE
from .finding import Checked, Finding, Mend


def inspect(checked: Checked) -> Iterator[Finding]:
    """Report sizes no dimension fixes, threads the sheet does not say, and dimensions that say what
    the others say already."""
    if not checked.runs:
        return
    if not dimensions(checked.solution):
        yield Finding(
            "note", "dimensions", "no dimensions yet: Suggest dimensions puts a full set on"
        )
        return
    if checked.solution.errors:
        return
    variation, span = Variation(checked.solution), RowSpace()
    found = [*_twice(checked, variation, span), *_missing(checked, variation, span)]
    yield from found
    if not found:
        yield Finding(
            "good",
            "dimensions",
            "the dimensions define the outline: nothing missing, nothing twice",
        )


def _twice(checked: Checked, variation: Variation, span: RowSpace) -> Iterator[Finding]:
    """Report dimensions that say what others say, or close a chain; take all into the span."""
    held = {
        line
        for line, note in dimensions(checked.solution)
        if any(variation.states(note, size) for size in variation.held)
    }
    names = {entry.line: entry.statement.name for entry in checked.solution.entries}
    for line, rows in _by_statement(variation):
        # Running dimensions are one saying: of equal treads each is a multiple of the first, and
        # none is said again.
        own, again = RowSpace(), 0
        for row in rows:
            if _most(own.rest(row)) > ALIKE * _most(row):
                own.add(row)
                again += not span.add(row)
        if again == len(own.rows) and line not in held:
            message = (
                f"{names[line]} says again what other dimensions say, or what no size of the plan "
                "changes"
            )
            yield Finding("look", "dimensions", message, line, mend=_in_brackets(checked, line))
        elif again:
            message = (
                f"{names[line]} closes a chain: one of its links follows from the others and the "
                "size over all; leave one out, or letter it in brackets"
            )
            yield Finding("look", "dimensions", message, line)


def _missing(checked: Checked, variation: Variation, span: RowSpace) -> Iterator[Finding]:
    for size in variation.missing(span):
        yield Finding("look", "dimensions", f"no dimension fixes {size.name}", size.line)
    shown = dimensions(checked.solution)
    unsaid: list[Size] = [
        size
        for size in variation.held
        if not any(variation.states(note, size) for _, note in shown)
    ]
    for size in unsaid:
        message = (
            f"no dimension fixes {size.name}, and the outline closes only while it agrees with "
            "the others"
        )
        yield Finding("look", "dimensions", message, size.line)
    for thread in unlettered(checked.solution):
        message = f"{thread.name}: the sheet does not say its thread, {thread.size}"
        yield Finding("look", "dimensions", message, thread.line)


def _by_statement(variation: Variation) -> Iterator[tuple[int, list[Row]]]:
    for line, found in groupby(variation.dimensions, lambda each: each[0]):
        yield line, [row for _, row in found]


def _in_brackets(checked: Checked, line: int) -> Mend:
    """Return the mend that makes a dimension auxiliary."""
    statement = checked.solution.plan.lines[line - 1].content
    assert isinstance(statement, Statement)
    said = replace(statement, clauses=(*statement.clauses, Clause((Name("in"), Name("brackets")))))
    return Mend("line", line, write_content(said), "Letter it in brackets")


def _most(row: Row) -> float:
    return float(np.abs(row).max(initial=0.0))
