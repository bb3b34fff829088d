"""Statements that could not be constructed."""

from __future__ import annotations

from collections.abc import Iterator

from .finding import Checked, Finding, Mend


def inspect(checked: Checked) -> Iterator[Finding]:
    """Report every mistake in the plan, where it stands."""
    for error in (*checked.solution.errors, *checked.sheet.errors):
        mend = Mend("line", error.line, error.mend, "Mend it") if error.mend else None
        yield Finding("wrong", "mistake", error.message, error.line, mend=mend)
