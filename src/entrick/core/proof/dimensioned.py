"""Do the dimensions define the outline: nothing missing, nothing twice?"""

from __future__ import annotations

from collections.abc import Iterator

from ..dimensioning.variation import RowSpace, Variation, dimensions
from .finding import Checked, Finding


def inspect(checked: Checked) -> Iterator[Finding]:
    """Report sizes no dimension fixes, and dimensions that say what the others say already."""
    if not checked.runs:
        return
    if not dimensions(checked.solution):
        yield Finding("note", "dimensions", "no dimensions yet: Suggest dimensions puts a full set on")
        return
    if checked.solution.errors:
        return
    variation, span = Variation(checked.solution), RowSpace()
    twice = []
    for line, row in variation.dimensions:
        if not span.add(row):
            twice.append(line)
    names = {entry.line: entry.statement.name for entry in checked.solution.entries}
    for line in dict.fromkeys(twice):
        told = f"{names[line]} says again what other dimensions say, or what no size of the plan changes"
        yield Finding("look", "dimensions", told, line)
    missing = variation.missing(span)
    for size in missing:
        yield Finding("look", "dimensions", f"no dimension fixes {size.name}", size.line)
    if not missing and not twice:
        yield Finding("good", "dimensions", "the dimensions define the outline: nothing missing, nothing twice")
