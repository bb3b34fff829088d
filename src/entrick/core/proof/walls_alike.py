"""Is there one wall all along, though the brief gives only radii?"""

from __future__ import annotations

from collections.abc import Iterator
from itertools import combinations

from ..geometry import Arc, Circle, Point
from ..geometry.shapes import is_drawn_at
from ..measure import spell
from .finding import Checked, Finding, Outline

FEWEST = 2
"""Pairs of concentric pieces that must agree before a wall is spoken of."""


def inspect(checked: Checked) -> Iterator[Finding]:
    """Report outlines whose concentric pieces all differ by the same amount: a constant wall."""
    unit = checked.solution.unit
    for outer, inner in combinations(checked.outlines, 2):
        # A wall is between an outline and a hole in it; what was made by an inset says so already.
        if not (inner.is_hole and inner.depth == outer.depth + 1) or _by_inset(inner, checked):
            continue
        pairs: dict[tuple[float, float], float] = {}
        for one in outer.loop.pieces:
            for other in inner.loop.pieces:
                a, b = one.curve, other.curve
                if not (isinstance(a, Circle | Arc) and isinstance(b, Circle | Arc)):
                    continue
                if (
                    abs(a.centre - b.centre) <= checked.close
                    and a.radius > b.radius + checked.close
                    and _faces(a, b)
                ):
                    pairs[round(a.centre.x, 6), round(a.centre.y, 6)] = abs(a.radius - b.radius)
        if len(pairs) < FEWEST:
            continue
        walls = sorted(pairs.values())
        wall = spell(walls[len(walls) // 2], unit)
        if walls[-1] - walls[0] <= checked.close:
            message = (
                f"{inner.name} keeps a wall of {wall} {unit} to {outer.name} at {len(pairs)} "
                "common centres: "
            )
            message += f"inset, of {outer.name} would say so in one line"
            yield Finding("note", "relation", message, inner.line)
        elif len(walls) > FEWEST and walls[len(walls) // 2 - 1] == walls[len(walls) // 2]:
            apart = [spell(w, unit) for w in (walls[0], walls[-1])]
            message = (
                f"the wall of {inner.name} to {outer.name} is {wall} at most centres, but "
                f"{apart[0]} to {apart[1]}"
            )
            yield Finding("look", "relation", f"{message} in all: was one wall meant?", inner.line)


def _by_inset(inner: Outline, checked: Checked) -> bool:
    kind_of = {entry.statement.name: entry.statement.kind for entry in checked.solution.entries}
    owner = inner.name.partition(".")[0]
    return any(kind_of.get(name) == "inset" for name in checked.standing_on.get(owner, ()))


def _faces(outer: Circle | Arc, inner: Circle | Arc) -> bool:
    """Tell whether a ray from the common centre through the middle of one meets the other: not its
    far side."""
    pairs = ((outer, inner), (inner, outer))
    return all(
        not isinstance(one, Arc) or is_drawn_at(other, _out(other, one.middle))
        for one, other in pairs
    )


def _out(curve: Circle | Arc, through: Point) -> Point:
    return curve.at((through - curve.centre).angle)
