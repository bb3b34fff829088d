"""The inspection of a plan."""

from __future__ import annotations

from typing import Literal

from ...core.desk import work_out
from ...core.proof import what_goes_out, why_not_cut
from ...core.proof.measures import joined, measures
from ..base import Crossing, ScheduledIn
from ..operation import Operations
from .shared import kit_of, pair


class MendOut(Crossing):
    """An edit that mends what was found: put `text` on a line, or below it, or move the line."""

    op: Literal["line", "insert", "move"]
    line: int
    text: str
    told: str
    to: int


class FindingOut(Crossing):
    """A finding. `place` in mm on paper; `page` of the handbook, empty where none tells of it."""

    weight: Literal["wrong", "look", "note", "good"]
    rule: str
    message: str
    line: int
    place: tuple[float, float] | None
    mend: MendOut | None
    page: str


class JunctionOut(Crossing):
    """Where two pieces of an outline join. `turn` in degrees, 0 where it goes straight on; `how` in
    words, `smooth` where they are tangent."""

    outline: str
    line: int
    first: str
    second: str
    turn: float
    how: str
    place: tuple[float, float]
    smooth: bool


class MeasureOut(Crossing):
    """An outline as measured, plan units, in words."""

    outline: str
    line: int
    length: str
    area: str
    size: str
    centroid: str
    kind: Literal["material", "hole", "open"]


class ProofOut(Crossing):
    """What the inspection found, and what it measured; why nothing is to be cut, and what would go
    out."""

    findings: tuple[FindingOut, ...]
    junctions: tuple[JunctionOut, ...]
    measures: tuple[MeasureOut, ...]
    cut: str
    goes: str


inspection = Operations()


@inspection.post("/proof")
def proof(body: ScheduledIn) -> ProofOut:
    """Inspect a plan as it is drawn with a kit and in an order: findings, junctions and
    measures."""
    done = work_out(body.text, kit_of(body.kit), body.schedule)
    return ProofOut(
        findings=tuple(
            FindingOut.from_core(each, place=pair(each.place)) for each in done.findings
        ),
        junctions=tuple(
            JunctionOut.from_core(each, place=pair(each.place)) for each in joined(done.checked)
        ),
        measures=tuple(map(MeasureOut.from_core, measures(done.checked))),
        cut=why_not_cut(done.findings),
        goes=what_goes_out(done.checked),
    )
