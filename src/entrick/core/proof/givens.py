"""Is every given used, and is anything assumed?"""

from __future__ import annotations

import re
from collections.abc import Iterator

from ..measure import Unit, spell
from ..plan.document import Given
from ..plan.writer import write_content
from ..solve import GivenEntry
from .finding import Checked, Finding, Mend

MIXED = re.compile(r"(\d+)\.(\d+)/(2|4|8|16|32|64)\b")
"""A whole number and a fraction parted by a point, as some write 1.1/2 (common practice, no
source); or a decimal over a number."""

OFF_BY = re.compile(r"(given \w+ = [ØR]?[\d./ ]*?) ?([+-] (?:0?\.\d+))$")
"""A size and so little more that it may be what the size may be off by."""


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
        yield from _read_otherwise(given, checked.solution.unit)
        if given.given.assumed:
            yield Finding("note", "givens", f"{name} is assumed, not given", given.line)
    for entry in checked.solution.entries:
        if entry.statement.assumed:
            yield Finding(
                "note", "givens", f"{entry.statement.name} is assumed, not given", entry.line
            )


def _read_otherwise(entry: GivenEntry, unit: Unit) -> Iterator[Finding]:
    """Report a size that others may read as another one."""
    if not isinstance(entry.given, Given) or entry.quantity is None:
        return
    row = write_content(entry.given)
    message = f"{entry.given.name} is {spell(entry.quantity.value, unit)} as it stands"
    mixed, off = MIXED.search(row), OFF_BY.match(row)
    if mixed and int(mixed[2]) < int(mixed[3]):
        meant = f"{mixed[1]} {mixed[2]}/{mixed[3]}"
        mend = Mend("line", entry.line, row.replace(mixed[0], meant), f"Make it {meant}")
        yield Finding("look", "givens", f"{message}; is {meant} meant?", entry.line, mend=mend)
    elif off:
        by = off[2].replace(" ", "")
        mend = Mend("line", entry.line, f'{off[1].strip()} "{by}"', "Put it into the note")
        asked = f"{message}, a sum; what a size may be off by, {by}, goes into its note"
        yield Finding("look", "givens", asked, entry.line, mend=mend)
