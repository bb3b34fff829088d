"""Is any piece so short that a cutter trips over it?"""

from __future__ import annotations

from collections.abc import Iterator

from ..geometry import Piece
from ..geometry.ellipse import oval_of
from ..kind.claims import LeastPiece
from ..measure import spell
from .finding import Checked, Finding

SLIVER = 0.2
"""Pieces shorter than this, mm, are reported where the plan says nothing (common practice, no
source)."""


def inspect(checked: Checked) -> Iterator[Finding]:
    """Report pieces shorter than the size stated, or than a fifth of a millimetre."""
    unit, said = checked.solution.unit, checked.claims(LeastPiece)
    least = max((claim.length for _, claim in said), default=SLIVER / float(unit.mm))
    found = False
    for name, line, loop in checked.runs:
        short: dict[tuple[str, float], list[Piece]] = {}
        for piece in loop.pieces:
            # A curve is drawn with arcs as short as it needs; they join without a corner.
            if (
                oval_of(loop) is None
                and not piece.curve_of
                and piece.length < least - checked.close
            ):
                alike = (piece.name.partition(".")[0], round(piece.length, 6))
                short.setdefault(alike, []).append(piece)
        for pieces in short.values():
            found = True
            first, long = pieces[0], f"{spell(pieces[0].length, unit)} {unit}"
            place = checked.sheet.on_paper((first.entry + first.exit) * 0.5)
            if first.length <= checked.close:
                message = (
                    f"{_counted(pieces)} of {name} comes to no length: it begins where it ends; "
                    "are two of its points, or two pieces of the walk, swapped?"
                )
                yield Finding("wrong", "sliver", message, line, place)
                continue
            message = f"{first.name} in {name} is only {long} long: a sliver"
            if len(pieces) > 1:
                message = (
                    f"{len(pieces)} pieces of {name}, such as {first.name}, are only {long} "
                    "long: slivers"
                )
            yield Finding("wrong" if said else "look", "sliver", message, line, place)
    if said and not found:
        yield Finding(
            "good", "sliver", f"no piece is shorter than {spell(least, unit)} {unit}", said[0][0]
        )


def _counted(pieces: list[Piece]) -> str:
    first = pieces[0].name
    return first if len(pieces) == 1 else f"each of {len(pieces)} pieces such as {first}"
