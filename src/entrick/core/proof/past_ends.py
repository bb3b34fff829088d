"""Is a line lined in farther than it was drawn?"""

from __future__ import annotations

from collections.abc import Iterator, Mapping

from ..geometry import Line, Loop, Point
from ..kind.figure import Item
from ..measure import spell
from .finding import Checked, Finding


def inspect(checked: Checked) -> Iterator[Finding]:
    """Report pieces of outlines that run on past the ends their line was drawn with."""
    items, unit = checked.solution.figure.items, checked.solution.unit
    for name, line, loop in checked.runs:
        told: dict[str, tuple[float, Finding]] = {}
        for piece_name, over, place in _past(loop, items):
            if over <= checked.close or over <= told.get(piece_name, (0.0, None))[0]:
                continue
            words = (
                f"{piece_name} is lined in {spell(over, unit)} {unit} past the end it was drawn "
                f"with, in {name}: was it meant to run on?"
            )
            found = Finding("look", "past ends", words, line, checked.sheet.on_paper(place))
            told[piece_name] = over, found
        yield from (found for _, found in told.values())


def _past(loop: Loop, items: Mapping[str, Item]) -> Iterator[tuple[str, float, Point]]:
    """Yield each straight piece that runs past an end of its line: its name, by how much, where."""
    for piece in loop.pieces:
        item = items.get(piece.name)
        line = None if item is None else item.shape
        if not isinstance(line, Line) or line.start is None or line.end is None:
            continue
        for spot in (piece.entry, piece.exit):
            at = line.direction.dot(spot - line.through)
            yield piece.name, max(line.start - at, at - line.end), spot
