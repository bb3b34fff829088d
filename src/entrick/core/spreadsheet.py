"""Tables for spreadsheets: CSV with RFC 4180 line ends, in which no cell does anything."""

from __future__ import annotations

import csv
import io
import re
from collections.abc import Iterable, Sequence

_ACTS = ("=", "+", "-", "@", "\t", "\r")
"""A spreadsheet takes a cell that begins so for a formula."""

_NUMBER = re.compile(r"[+-]?\d+(?:\.\d+)?(?:e[+-]?\d+)?", re.ASCII)


def write_table(rows: Iterable[Sequence[object]]) -> str:
    """Write rows as CSV.

    Examples
    --------
    >>> write_table([("a", 1.5, "-2.5", "=1+1")])
    "a,1.5,-2.5,'=1+1\\r\\n"
    """
    stream = io.StringIO()
    csv.writer(stream).writerows([[_harmless(cell) for cell in row] for row in rows])
    return stream.getvalue()


def _harmless(cell: object) -> object:
    if not isinstance(cell, str) or not cell.startswith(_ACTS) or _NUMBER.fullmatch(cell):
        return cell
    return f"'{cell}"
