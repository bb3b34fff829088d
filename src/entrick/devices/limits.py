"""What each process must not do, whatever the outline: held against what a machine has done."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import replace

import shapely  # type: ignore[import-untyped]
from shapely import LineString, Polygon
from shapely.ops import unary_union  # type: ignore[import-untyped]

from ..core.cutting.machine import Machine
from .cutter import Move
from .judge import ROUND, places

DEEPEST = 1.5
"""Of its width, how deep a router's tool goes at once (common practice, no source)."""

THROUGH = 0.01
"""By how much less than its thickness a sheet is cut and is cut through, mm."""


def outline_moves(moves: Sequence[Move], process: str) -> list[Move]:
    """Return movements as they make the outline: over its bridges, where a beam is off, it goes on
    along it."""
    if process != "laser":
        return list(moves)
    return [replace(move, cutting=not move.rapid) for move in moves]


def broken(
    moves: Sequence[Move], machine: Machine, tool: float, parts: Sequence[Polygon]
) -> Iterator[str]:
    """Yield what a process does not bear, in words.

    Parameters
    ----------
    moves : sequence of Move
        About the plan's datum, mm.
    machine : Machine
        In mm.
    tool : float
        Width of the cut, mm.
    parts : sequence of Polygon
        Those of the plan, mm.
    """
    if machine.process == "router":
        deepest = max(machine.depths[0], 0.0)
        if deepest > DEEPEST * tool:
            yield (
                f"{deepest:.3g} mm deep at once with a tool of {tool:.3g}: "
                f"{DEEPEST:g} times its width at most; set a smaller pass"
            )
        if machine.tabs and machine.tab_height >= machine.thickness:
            yield "the tabs are as high as the sheet is thick: nothing is cut through there"
    if machine.process == "torch" and machine.cut_height > machine.pierce_height:
        yield "it cuts higher than it pierces: what is blown out hits the torch"
    if machine.process in ("router", "laser"):
        loose = _loose(moves, machine, tool, parts)
        if machine.tabs and loose:
            yield f"{loose} parts come loose, though they are to be held"
        if not machine.tabs and loose < len(parts):
            yield "the sheet is not cut through all round"


def _loose(moves: Sequence[Move], machine: Machine, tool: float, parts: Sequence[Polygon]) -> int:
    """Return how many parts no longer hang on the sheet."""
    bottom = -(machine.thickness - THROUGH) if machine.process == "router" else 1.0
    through = [move for move in moves if move.cutting and max(move.heights) <= bottom]
    kerf = unary_union(
        [LineString(places(move)).buffer(tool / 2, quad_segs=ROUND) for move in through]
    )
    west, south, east, north = unary_union(list(parts)).bounds
    sheet = shapely.box(west - 4 * tool, south - 4 * tool, east + 4 * tool, north + 4 * tool)
    left = sheet.difference(kerf)
    pieces = getattr(left, "geoms", [left])
    rim = sheet.boundary
    return sum(
        not max(pieces, key=lambda piece: piece.intersection(part).area).intersects(rim)
        for part in parts
    )
