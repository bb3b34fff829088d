"""Is any piece so short that a cutter trips over it?"""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterator

from ..geometry import Arc
from ..kind.claims import LeastPiece
from ..measure import spell
from .finding import Checked, Finding

SLIVER = 0.2
"""Pieces shorter than this, mm, are reported where the plan says nothing (common practice, no source)."""

FEW = 3
"""Numbered arcs of one owner beyond which they are arcs of a curve, as short as it needs."""


def inspect(checked: Checked) -> Iterator[Finding]:
    """Report pieces shorter than the size stated, or than a fifth of a millimetre."""
    unit, said = checked.solution.unit, checked.claims(LeastPiece)
    least = max((claim.length for _, claim in said), default=SLIVER / float(unit.mm))
    found = False
    for name, line, loop in checked.runs:
        owners = Counter(piece.name.rpartition(".")[0] for piece in loop.pieces)
        for piece in loop.pieces:
            owner, _, number = piece.name.rpartition(".")
            if loop.stands_for is not None or (
                isinstance(piece.curve, Arc) and number.isdigit() and owners[owner] > FEW
            ):
                continue  # a curve is drawn with arcs as short as it needs; they join without a corner
            if piece.length < least - checked.close:
                found = True
                told = f"{piece.name} in {name} is only {spell(piece.length, unit)} {unit} long: a sliver"
                place = checked.sheet.on_paper((piece.entry + piece.exit) * 0.5)
                yield Finding("wrong" if said else "look", "sliver", told, line, place)
    if said and not found:
        yield Finding("good", "sliver", f"no piece is shorter than {spell(least, unit)} {unit}", said[0][0])
