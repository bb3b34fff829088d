"""Is any piece so short that a cutter trips over it?"""

from __future__ import annotations

from collections.abc import Iterator

from ..claims import LeastPiece
from ..geometry import Loop
from ..measure import spell
from ..parts import MOST_STROKES
from .finding import Checked, Finding

SLIVER = 0.2
"""Pieces shorter than this, mm, are reported where the plan says nothing (common practice, no source)."""


def inspect(checked: Checked) -> Iterator[Finding]:
    """Report pieces shorter than the size stated, or than a fifth of a millimetre."""
    unit, said = checked.solution.unit, checked.claims(LeastPiece)
    least = max((claim.length for _, claim in said), default=SLIVER / float(unit.mm))
    found = False
    for name, line, loop in checked.runs:
        for piece in loop.pieces:
            if loop.stands_for is not None or _of_a_curve(piece.name, loop):
                continue  # a curve is drawn with arcs as short as it needs; they join without a corner
            if piece.length < least - checked.close:
                found = True
                told = f"{piece.name} in {name} is only {spell(piece.length, unit)} {unit} long: a sliver"
                place = checked.sheet.on_paper((piece.entry + piece.exit) * 0.5)
                yield Finding("wrong" if said else "look", "sliver", told, line, place)
    if said and not found:
        yield Finding("good", "sliver", f"no piece is shorter than {spell(least, unit)} {unit}", said[0][0])


def _of_a_curve(name: str, loop: Loop) -> bool:
    owner, _, number = name.rpartition(".")
    return number.isdigit() and sum(p.name.rpartition(".")[0] == owner for p in loop.pieces) > MOST_STROKES
