"""Is every outline closed?"""

from __future__ import annotations

from collections.abc import Iterator

from ..measure import spell
from .finding import Checked, Finding


def inspect(checked: Checked) -> Iterator[Finding]:
    """Report each outline as closed, with area and length, or open, and by how much."""
    solution, unit = checked.solution, checked.solution.unit
    loops = [(e, loop) for e in solution.entries if e.made for loop in e.made.loops]
    if not loops and solution.entries:
        yield Finding("look", "outline", "nothing is lined in yet: no outline to cut or to mark")
    for entry, loop in loops:
        name = entry.statement.name
        if loop.closed:
            told = (
                f"{name} is closed: {spell(loop.length, unit)} {unit} round, area {spell(abs(loop.area), unit)} {unit}²"
            )
            yield Finding("good", "outline", told, entry.line)
        else:
            place = checked.sheet.on_paper(loop.pieces[-1].exit)
            told = f"{name} is an open run: its ends are {spell(loop.gap, unit)} {unit} apart"
            yield Finding("look", "outline", told, entry.line, place)
