"""What an outline measures: length, area, size and centroid, and how its pieces join."""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass
from typing import Literal

from ..geometry import Point
from ..geometry.loop import boxed
from ..measure import spell
from .finding import Checked
from .junctions import how, told_apart


@dataclass(frozen=True, slots=True)
class Measured:
    """A run as measured, in plan units and their squares, in words; empty where there is no such
    measure."""

    outline: str
    line: int
    length: str
    area: str
    size: str
    centroid: str
    kind: Literal["material", "hole", "open"]


@dataclass(frozen=True, slots=True)
class Joined:
    """Where two pieces of an outline join; `turn` in degrees, `how` in words, `place` in mm on
    paper; `smooth` where they are tangent."""

    outline: str
    line: int
    first: str
    second: str
    turn: float
    how: str
    place: Point
    smooth: bool


def measures(checked: Checked) -> Iterator[Measured]:
    """Return what every run of the part measures."""
    unit = checked.solution.unit
    holes = {outline.name: outline.is_hole for outline in checked.outlines}
    for name, line, loop in checked.part:
        box = boxed(loop).box
        has_area = loop.closed and abs(loop.area) > checked.close * loop.length
        centroid = loop.centroid if has_area else None
        yield Measured(
            name,
            line,
            spell(loop.length, unit, 3),
            spell(abs(loop.area), unit, 3) if loop.closed else "",
            f"{spell(box.right - box.left, unit, 3)} by {spell(box.upper - box.lower, unit, 3)}",
            f"{spell(centroid.x, unit, 2)}, {spell(centroid.y, unit, 2)}" if centroid else "",
            "open" if name not in holes else "hole" if holes[name] else "material",
        )


def joined(checked: Checked) -> Iterator[Joined]:
    """Return how the pieces of every run join; those alike are told once, those within one curve
    not at all."""
    for name, line, loop in checked.part:
        for junction, alike in told_apart(loop):
            if not junction.within:
                words = how(junction) + (f", {alike} alike" if alike > 1 else "")
                place = checked.sheet.on_paper(junction.point)
                yield Joined(
                    name,
                    line,
                    junction.first,
                    junction.second,
                    math.degrees(junction.turn),
                    words,
                    place,
                    junction.is_tangent,
                )
