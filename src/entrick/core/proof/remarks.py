"""What constructions say of themselves: motions that jump, teeth that are undercut, threads that
disagree."""

from __future__ import annotations

from collections.abc import Iterator

from .finding import Checked, Finding


def inspect(checked: Checked) -> Iterator[Finding]:
    """Report the remarks of every statement at its line."""
    for entry in checked.solution.entries:
        for remark in entry.made.remarks() if entry.made else ():
            place = checked.sheet.on_paper(remark.place) if remark.place else None
            yield Finding(remark.weight, entry.statement.kind, remark.message, entry.line, place)
