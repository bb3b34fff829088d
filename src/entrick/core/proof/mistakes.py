"""Statements that could not be constructed."""

from __future__ import annotations

from collections.abc import Iterator

from .finding import Checked, Finding, Mend


def inspect(checked: Checked) -> Iterator[Finding]:
    """Report every mistake in the plan, where it stands; note what only follows from another."""
    for error in (*checked.solution.errors, *checked.sheet.errors):
        if error.cause:
            yield Finding("note", "follows", error.message, error.line)
            continue
        mend = Mend("line", error.line, error.mend, "Mend it") if error.mend else None
        if error.moved:
            mend = Mend("move", error.moved[0], "", "Move it", error.moved[1])
        yield Finding("wrong", "mistake", error.message, error.line, mend=mend)
