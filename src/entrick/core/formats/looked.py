"""A finished sheet looked at, as plain data and as rows of a table."""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import asdict
from typing import Any

from ..look.finding import Finding
from ..look.scheme import Marked
from ..spreadsheet import write_table


def looked_data(finding: Finding) -> dict[str, Any]:
    """Return a finding as plain data; places in the unit of the plan, misses in mm on paper."""
    result = asdict(finding)
    result["within"] = finding.is_within
    for row in result["rows"]:
        del row["path"], row["planned"]
    return result


PARTS = ("accuracy", "tangency", "weight", "completeness", "centring")


def marks_table(rows: Iterable[tuple[str, Marked | None, str]]) -> str:
    """Return the marks of a class as a table: one row a student, with what is to be said.

    Parameters
    ----------
    rows : iterable of (student, Marked or None, sentence)
        None where a sheet could not be looked at.
    """
    table: list[Sequence[object]] = [("student", *PARTS, "marks", "said")]
    for student, marks, said in rows:
        parts = [f"{getattr(marks, part):.1f}" if marks else "" for part in PARTS]
        table.append((student, *parts, f"{marks.whole:g}" if marks else "", said))
    return write_table(table)


def commonest(keys: Iterable[str]) -> Mapping[str, int]:
    """Return how often each slip was made, the commonest first."""
    found: dict[str, int] = {}
    for key in keys:
        found[key] = found.get(key, 0) + 1
    return dict(sorted(found.items(), key=lambda each: (-each[1], each[0])))
