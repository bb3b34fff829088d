"""Is there one wall all along, though the brief gives only radii?"""

from __future__ import annotations

from collections.abc import Iterator
from itertools import combinations

from ..geometry import Arc, Circle
from ..measure import spell
from .finding import Checked, Finding

FEWEST = 2
"""Pairs of concentric pieces that must agree before a wall is spoken of."""


def inspect(checked: Checked) -> Iterator[Finding]:
    """Report outlines whose concentric pieces all differ by the same amount: a constant wall."""
    unit = checked.solution.unit
    for outer, inner in combinations(checked.outlines, 2):
        pairs: dict[tuple[float, float], float] = {}
        for one in outer.loop.pieces:
            for other in inner.loop.pieces:
                a, b = one.curve, other.curve
                if not (isinstance(a, Circle | Arc) and isinstance(b, Circle | Arc)):
                    continue
                if abs(a.centre - b.centre) <= checked.close and abs(a.radius - b.radius) > checked.close:
                    pairs[round(a.centre.x, 6), round(a.centre.y, 6)] = abs(a.radius - b.radius)
        if len(pairs) < FEWEST:
            continue
        walls = sorted(pairs.values())
        wall = spell(walls[len(walls) // 2], unit)
        if walls[-1] - walls[0] <= checked.close:
            told = f"{inner.name} keeps a wall of {wall} {unit} to {outer.name} at {len(pairs)} common centres: "
            told += f"inset, of {outer.name} would say so in one line"
            yield Finding("note", "relation", told, inner.line)
        elif len(walls) > FEWEST and walls[len(walls) // 2 - 1] == walls[len(walls) // 2]:
            apart = [spell(w, unit) for w in (walls[0], walls[-1])]
            told = f"the wall of {inner.name} to {outer.name} is {wall} at most centres, but {apart[0]} to {apart[1]}"
            yield Finding("look", "relation", f"{told} in all: was one wall meant?", inner.line)
