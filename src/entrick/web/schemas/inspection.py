"""What the inspection of a plan found."""

from __future__ import annotations

from typing import Literal

from pydantic import ConfigDict

from .crossing import Crossing


class MendOut(Crossing):
    """An edit that mends what was found: put `text` on a line, or below it."""

    model_config = ConfigDict(from_attributes=True)

    op: Literal["line", "insert"]
    line: int
    text: str
    told: str


class FindingOut(Crossing):
    """A finding. `place` in mm on paper."""

    weight: Literal["wrong", "look", "note", "good"]
    rule: str
    message: str
    line: int
    place: tuple[float, float] | None
    mend: MendOut | None


class JunctionOut(Crossing):
    """Where two pieces of an outline join. `turn` in degrees, 0 where it goes straight on; `how` in words."""

    outline: str
    line: int
    first: str
    second: str
    turn: float
    how: str
    place: tuple[float, float]


class MeasureOut(Crossing):
    """An outline as measured, plan units, in words."""

    model_config = ConfigDict(from_attributes=True)

    outline: str
    line: int
    length: str
    area: str
    size: str
    middle: str
    kind: Literal["material", "hole", "open"]


class ProofOut(Crossing):
    """What the inspection found, and what it measured."""

    findings: tuple[FindingOut, ...]
    junctions: tuple[JunctionOut, ...]
    measures: tuple[MeasureOut, ...]
    cut: str
