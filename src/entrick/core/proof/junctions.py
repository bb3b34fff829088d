"""Is each junction of an outline tangent, or a corner, and at what angle?"""

from __future__ import annotations

import math
import re
from collections.abc import Iterator, Mapping

from ..geometry import Curve, Junction, Loop
from .finding import Checked, Finding
from .nearly import exactly

NEARLY = math.radians(3)
"""A turn smaller than this was probably meant to be none (common practice, no source)."""

MOST_TOLD = 60
"""Junctions of one outline beyond which those alike are told together."""

MOST_NAMED = 2
"""Corners of one angle that are told by their pieces."""

BACK = math.radians(179.9)


def inspect(checked: Checked) -> Iterator[Finding]:
    """Report every junction: tangent, a corner with its angle, nearly tangent, or doubling back."""
    for entry in checked.solution.entries:
        if entry.statement.name in checked.pictorial:
            continue  # a corner of a picture is none of the part's
        for loop in entry.made.loops if entry.made else ():
            pieces = {piece.name: piece.curve for piece in loop.pieces}
            corners: dict[str, list[Junction]] = {}
            for junction, alike in told_apart(loop):
                # Two arcs of one flank, or of a drafted curve, turn a little where they meet: that
                # is their method.
                if abs(junction.turn) < NEARLY and junction.within:
                    continue
                if alike == 1 and NEARLY <= abs(junction.turn) < BACK:
                    corners.setdefault(how(junction), []).append(junction)
                else:
                    yield _report(junction, alike, entry.line, checked, pieces)
            for told, each in corners.items():
                yield _corners(told, each, entry.line, checked)


def _corners(told: str, each: list[Junction], line: int, checked: Checked) -> Finding:
    """Report corners of one angle together: four of a box are one note."""
    pairs = [f"{junction.first} to {junction.second}" for junction in each]
    if len(each) > 1:
        told = f"{len(each)} corners of {told.removeprefix('a corner of ')}"
    more = f" and {len(pairs) - MOST_NAMED} more" if len(pairs) > MOST_NAMED else ""
    where = f"{', '.join(pairs[:MOST_NAMED])}{more}"
    return Finding(
        "note", "junction", f"{where}: {told}", line, checked.sheet.on_paper(each[0].point)
    )


def told_apart(loop: Loop) -> Iterator[tuple[Junction, int]]:
    """Yield the junctions of an outline, each with how many are like it; those of many teeth are
    told once."""
    junctions = loop.junctions
    if len(junctions) <= MOST_TOLD:
        yield from ((junction, 1) for junction in junctions)
        return
    groups: dict[tuple[str, str], list[Junction]] = {}
    for junction in junctions:
        names = re.sub(r"\d+", "", f"{junction.first} {junction.second}")
        groups.setdefault((names, how(junction)), []).append(junction)
    yield from ((group[0], len(group)) for group in groups.values())


def how(junction: Junction) -> str:
    """Return how two pieces join, in words: tangent, or a corner with its angle."""
    if junction.is_tangent:
        return "tangent"
    inside = f"{180 - math.degrees(abs(junction.turn)):.2f}°".replace(".00°", "°")
    return f"a corner of {inside}"


def _report(
    junction: Junction, alike: int, line: int, checked: Checked, pieces: Mapping[str, Curve]
) -> Finding:
    place = checked.sheet.on_paper(junction.point)
    pair = f"{junction.first} to {junction.second}" + (
        f" and {alike - 1} more alike" if alike > 1 else ""
    )
    if junction.is_tangent:
        return Finding("good", "junction", f"{pair}: tangent", line, place)
    turn = abs(junction.turn)
    if turn >= BACK and junction.within:
        return Finding("good", "junction", f"{pair}: a cusp, as the curve has it", line, place)
    if turn >= BACK:
        return Finding(
            "wrong", "junction", f"{pair}: the outline doubles back on itself", line, place
        )
    told = f"{math.degrees(turn):.2f}°".replace(".00°", "°")
    if turn < NEARLY:
        needed = exactly(
            pieces[junction.first],
            pieces[junction.second],
            junction.first,
            junction.second,
            checked.solution.unit,
        )
        return Finding(
            "look",
            "junction",
            f"{pair}: turns {told}; was a smooth blend meant? {needed}",
            line,
            place,
        )
    return Finding("note", "junction", f"{pair}: {how(junction)}", line, place)
