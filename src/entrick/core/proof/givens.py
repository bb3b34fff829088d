"""Is every given used, and is anything assumed?"""

from __future__ import annotations

from collections.abc import Iterator

from .finding import Checked, Finding


def inspect(checked: Checked) -> Iterator[Finding]:
    """Report givens nothing uses, and what was assumed rather than given."""
    for given in checked.solution.givens:
        name = given.given.name
        if not given.used_by and given.error is None:
            yield Finding(
                "look",
                "givens",
                f"{name} is given but never used: is a piece of the part missing?",
                given.line,
            )
        if given.given.assumed:
            yield Finding("note", "givens", f"{name} is assumed, not given", given.line)
    for entry in checked.solution.entries:
        if entry.statement.assumed:
            yield Finding(
                "note", "givens", f"{entry.statement.name} is assumed, not given", entry.line
            )
