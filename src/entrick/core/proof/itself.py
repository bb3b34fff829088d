"""Does an outline cross itself?"""

from __future__ import annotations

from collections.abc import Iterator

from ..geometry import Loop, meet
from ..geometry.shapes import is_drawn_at
from ..tolerance import same
from .finding import Checked, Finding

MOST_PIECES = 120
"""Pieces beyond which every pair is no longer compared."""


def inspect(checked: Checked) -> Iterator[Finding]:
    """Report where two pieces of one outline cross away from their junctions."""
    for entry in checked.solution.entries:
        for loop in entry.made.loops if entry.made else ():
            if len(loop.pieces) <= MOST_PIECES:
                yield from _crossings(loop, entry.line, checked)


def _crossings(loop: Loop, line: int, checked: Checked) -> Iterator[Finding]:
    junctions = [end for piece in loop.pieces for end in (piece.entry, piece.exit)]
    for index, first in enumerate(loop.pieces):
        for second in loop.pieces[index + 1 :]:
            for meeting in meet(first.curve, second.curve):
                spot = meeting.point
                if not (is_drawn_at(first.curve, spot) and is_drawn_at(second.curve, spot)):
                    continue
                if all(abs(spot - end) > same(abs(spot)) * 100 for end in junctions):
                    told = f"the outline crosses itself, {first.name} with {second.name}: was another way round meant?"
                    yield Finding("wrong", "outline", told, line, checked.sheet.on_paper(spot))
