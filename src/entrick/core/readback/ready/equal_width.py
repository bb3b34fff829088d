"""Arcs about the corners of a regular polygon, each through the two opposite ones: as wide one way
as any other."""

from __future__ import annotations

from ...geometry import Arc
from ..profile import Run, pieces_of
from ..rows import Rows
from . import polygon

MOST_ARCS = 15


def written(run: Run, rows: Rows) -> str:
    """Write a run of as many arcs as an odd polygon has sides."""
    arcs = [piece for piece in pieces_of(run) if isinstance(piece, Arc)]
    count = len(arcs)
    if count != len(run) or count % 2 == 0 or not 3 <= count <= MOST_ARCS:
        return ""
    corners = [arc.first for arc in arcs]
    opposite = [(k + (count + 1) // 2) % count for k in range(count)]
    for arc, k in zip(arcs, opposite, strict=True):
        about = corners[k]
        width = abs(arc.first - about)
        if any(abs(abs(spot - about) - width) > rows.within * 2 for spot in (arc.middle, arc.last)):
            return ""
    base = polygon.of_corners(corners, rows)
    if not base:
        return ""
    named = [rows.point(corner) for corner in corners]
    return " > ".join(
        rows.add("c", f"circle, centre {named[k]}, through {named[n]}", arc)
        for n, (arc, k) in enumerate(zip(arcs, opposite, strict=True))
    )
