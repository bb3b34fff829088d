"""Is each junction of an outline tangent, or a corner, and at what angle?"""

from __future__ import annotations

import math
from collections.abc import Iterator, Mapping

from ..geometry import Curve, Junction
from .finding import Checked, Finding
from .nearly import exactly

NEARLY = math.radians(3)
"""A turn smaller than this was probably meant to be none (common practice, no source)."""

BACK = math.radians(179.9)


def inspect(checked: Checked) -> Iterator[Finding]:
    """Report every junction: tangent, a corner with its angle, nearly tangent, or doubling back."""
    for entry in checked.solution.entries:
        for loop in entry.made.loops if entry.made else ():
            pieces = {piece.name: piece.curve for piece in loop.pieces}
            for junction in loop.junctions:
                if junction.is_tangent and within_one(junction):
                    continue
                yield _report(junction, entry.line, checked, pieces)


def within_one(junction: Junction) -> bool:
    """Tell whether two pieces are neighbours of one curve of many arcs."""
    first, second = junction.first.rpartition("."), junction.second.rpartition(".")
    return first[0] == second[0] != "" and first[2].isdigit() and second[2].isdigit()


def how(junction: Junction) -> str:
    """Return how two pieces join, in words: tangent, or a corner with its angle."""
    if junction.is_tangent:
        return "tangent"
    inside = f"{180 - math.degrees(abs(junction.turn)):.2f}°".replace(".00°", "°")
    return f"a corner of {inside}"


def _report(junction: Junction, line: int, checked: Checked, pieces: Mapping[str, Curve]) -> Finding:
    place = checked.sheet.on_paper(junction.point)
    pair = f"{junction.first} to {junction.second}"
    if junction.is_tangent:
        return Finding("good", "junction", f"{pair}: tangent", line, place)
    turn = abs(junction.turn)
    if turn >= BACK:
        return Finding("wrong", "junction", f"{pair}: the outline doubles back on itself", line, place)
    told = f"{math.degrees(turn):.2f}°".replace(".00°", "°")
    if turn < NEARLY:
        needed = exactly(
            pieces[junction.first], pieces[junction.second], junction.first, junction.second, checked.solution.unit
        )
        return Finding("look", "junction", f"{pair}: turns {told}; was a smooth blend meant? {needed}", line, place)
    return Finding("note", "junction", f"{pair}: {how(junction)}", line, place)
