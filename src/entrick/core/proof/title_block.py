"""Is every field of the title block filled?"""

from __future__ import annotations

from collections.abc import Iterator

from ..display.build import title_fields
from ..moves.title import FIELDS
from .finding import Checked, Finding


def inspect(checked: Checked) -> Iterator[Finding]:
    """Report what the sheet is identified by and does not say."""
    solution = checked.solution
    if not solution.entries:
        return
    empty = [
        name
        for name, said in (("title", solution.title), ("drawing number", solution.drawing))
        if not said
    ]
    said = title_fields(solution)
    if said:
        # Not every office approves what it has checked.
        wanted = [field for field in (*FIELDS, "projection") if field != "approved"]
        empty += [field for field in wanted if field not in said]
    if empty:
        weight = "look" if said else "note"
        line = next((e.line for e in solution.entries if e.statement.kind == "title"), 0)
        yield Finding(weight, "title", f"empty in the title block: {', '.join(empty)}", line)  # type: ignore[arg-type]
    elif said:
        yield Finding("good", "title", "every field of the title block is filled")
