"""Is any piece so short that a cutter trips over it?"""

from __future__ import annotations

from collections.abc import Iterator

from ..claims import LeastPiece
from ..measure import spell
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
            if piece.length < least - checked.close:
                found = True
                told = f"{piece.name} in {name} is only {spell(piece.length, unit)} {unit} long: a sliver"
                place = checked.sheet.on_paper((piece.entry + piece.exit) * 0.5)
                yield Finding("wrong" if said else "look", "sliver", told, line, place)
    if said and not found:
        yield Finding("good", "sliver", f"no piece is shorter than {spell(least, unit)} {unit}", said[0][0])
