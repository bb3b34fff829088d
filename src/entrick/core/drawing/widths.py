"""Line kinds: told apart by weight and dash only, as on paper (after ISO 128: thin to thick is 1 :
2)."""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(frozen=True, slots=True)
class LineKind:
    """Width in mm, dash lengths in mm, and how dark the pencil is (1 black, 0 paper)."""

    width: float
    dash: tuple[float, ...] = ()
    ink: float = 1.0


WIDTHS: dict[str, LineKind] = {
    "outline": LineKind(0.5),
    "edge": LineKind(0.5),
    "construction": LineKind(0.18, (), 0.55),
    "point": LineKind(0.18, (), 0.8),
    "hidden": LineKind(0.25),
    "centre": LineKind(0.25),
    "thread": LineKind(0.25),
    "dimension": LineKind(0.25),
    "hatch": LineKind(0.25, (), 0.85),
    "label": LineKind(0.25),
    "guide": LineKind(0.13, (), 0.3),
    "ghost": LineKind(0.35, (2.5, 1.5)),
    "border": LineKind(0.7),
    "strip": LineKind(0.35),
    "lettering": LineKind(0.25),
}

LIGHT = frozenset({"construction", "point", "letter", "guide"})
"""Roles drawn so lightly that they may be rubbed out."""
