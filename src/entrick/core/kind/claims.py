"""What a drafter says of the finished part, so that the proof can hold it against what was
drawn."""

from __future__ import annotations

from dataclasses import dataclass

from ..geometry import Line


@dataclass(frozen=True, slots=True)
class Overall:
    """The part measures so much across and up, plan units; None where nothing was said of a
    direction."""

    across: float | None
    up: float | None


@dataclass(frozen=True, slots=True)
class Symmetric:
    """One half of the part is the image of the other."""

    axis: Line
    name: str


@dataclass(frozen=True, slots=True)
class LeastWall:
    """Nowhere is there less material between two outlines than this, plan units."""

    wall: float


@dataclass(frozen=True, slots=True)
class LeastPiece:
    """No piece of an outline is shorter than this, plan units."""

    length: float


Claim = Overall | Symmetric | LeastWall | LeastPiece
