"""Do the dimensions define the outline: nothing missing, nothing twice?"""

from __future__ import annotations

from collections.abc import Iterator
from itertools import groupby

import numpy as np

from ..dimensioning.variation import Row, RowSpace, Variation, dimensions
from ..tolerance import ALIKE
from .finding import Checked, Finding


def inspect(checked: Checked) -> Iterator[Finding]:
    """Report sizes no dimension fixes, and dimensions that say what the others say already."""
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
    shown = dimensions(checked.solution)
    held = {
        line for line, note in shown if any(variation.states(note, size) for size in variation.held)
    }
    twice = []
    for line, rows in _by_statement(variation):
        # Running dimensions are one saying: of equal treads each is a multiple of the first, and
        # none is said again.
        new = [row for row in rows if _most(span.rest(row)) > ALIKE * _most(row)]
        for row in rows:
            span.add(row)
        if not new and line not in held:
            twice.append(line)
    names = {entry.line: entry.statement.name for entry in checked.solution.entries}
    for line in twice:
        told = (
            f"{names[line]} says again what other dimensions say, or what no size of the plan "
            "changes"
        )
        yield Finding("look", "dimensions", told, line)
    missing = variation.missing(span)
    for size in missing:
        yield Finding("look", "dimensions", f"no dimension fixes {size.name}", size.line)
    unsaid = [
        size
        for size in variation.held
        if not any(variation.states(note, size) for _, note in shown)
    ]
    for size in unsaid:
        told = (
            f"no dimension fixes {size.name}, and the outline closes only while it agrees with "
            "the others"
        )
        yield Finding("look", "dimensions", told, size.line)
    if not missing and not twice and not unsaid:
        yield Finding(
            "good",
            "dimensions",
            "the dimensions define the outline: nothing missing, nothing twice",
        )


def _by_statement(variation: Variation) -> Iterator[tuple[int, list[Row]]]:
    for line, found in groupby(variation.dimensions, lambda each: each[0]):
        yield line, [row for _, row in found]


def _most(row: Row) -> float:
    return float(np.abs(row).max(initial=0.0))
