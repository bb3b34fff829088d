"""Is every outline closed, and what does it measure?"""

from __future__ import annotations

from collections.abc import Iterator

from ..measure import spell
from .finding import Checked, Finding
from .itself import crosses_itself


def inspect(checked: Checked) -> Iterator[Finding]:
    """Report each outline as closed, with perimeter, area and centroid, or open, and by how
    much."""
    unit = checked.solution.unit
    # A run that was asked for as an open one is no slip; it is not to be cut all the same.
    meant = {
        entry.line
        for entry in checked.solution.entries
        if any(str(c) == "open" for c in entry.statement.clauses)
    }
    if not checked.runs and checked.solution.entries:
        yield Finding("look", "outline", "nothing is lined in yet: no outline to cut or to mark")
    for name, line, loop in checked.runs:
        if name.partition(".")[0] in checked.diagrams:
            yield Finding("good", "outline", f"{name} is a diagram, and no outline", line)
        elif loop.closed:
            message = f"{name} is closed: perimeter {spell(loop.length, unit)} {unit}"
            if crosses_itself(loop):
                # What lies to one hand of it here lies to the other there: it bounds no area.
                yield Finding("good", "outline", message, line)
                continue
            yield Finding(
                "good", "outline", f"{message}, area {spell(abs(loop.area), unit)} {unit}²", line
            )
            if abs(loop.area) > checked.close * loop.length:
                middle = loop.centroid
                at = (
                    f"{spell(middle.x, unit, 2)} across and {spell(middle.y, unit, 2)} up from "
                    "the datum"
                )
                place = checked.sheet.on_paper(middle)
                yield Finding("good", "outline", f"the centroid of {name} lies {at}", line, place)
        else:
            place = checked.sheet.on_paper(loop.pieces[-1].exit)
            gap = f"its ends are {spell(loop.gap, unit)} {unit} apart"
            if loop.gap <= checked.close:
                gap = "it comes back to where it began, and bounds no material"
            message = f"{name} is an open run: {gap}"
            yield Finding("note" if line in meant else "look", "open", message, line, place)
