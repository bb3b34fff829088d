"""From the core's results to what crosses the API: what a cutter made."""

from __future__ import annotations

from collections.abc import Sequence
from typing import TYPE_CHECKING

from ...core.cutting.program import CAUTION as CUTTING_CAUTION
from ...devices.cutter import Cutter
from ..schemas.files import CutMoveOut, CutOut

if TYPE_CHECKING:
    from ...devices.judge import Judged


def cut(
    program: str, machine: Cutter, found: Judged, edges: Sequence[Sequence[tuple[float, float]]], tool: float
) -> CutOut:
    """Present what a cutter did, and how the part came out."""
    spots = [spot for edge in edges for spot in edge]
    xs, ys = [x for x, _ in spots], [y for _, y in spots]
    return CutOut(
        program=program,
        moves=tuple(
            CutMoveOut(block=m.block, start=m.start, end=m.end, centre=m.centre, turn=m.turn, cutting=m.cutting,
                       minutes=m.minutes) for m in machine.moves
        ),
        edges=tuple(tuple(edge) for edge in edges), tool=tool, bounds=(min(xs), min(ys), max(xs), max(ys)),
        happened=tuple(machine.told), fits=found.fits, told=found.told, gouged=found.gouged,
        left=min(found.left, 1e6), corners=found.corners, minutes=found.minutes, length=found.length,
        caution=CUTTING_CAUTION,
    )  # fmt: skip
