"""How thin does the material get between two outlines, and where?"""

from __future__ import annotations

import math
from collections.abc import Iterator
from itertools import combinations

from ..geometry.nearest import least_wall
from ..kind.claims import LeastWall
from ..measure import spell
from .finding import Checked, Finding, Outline


def inspect(checked: Checked) -> Iterator[Finding]:
    """Report the least wall and where it is, and every wall thinner than one that was said."""
    if checked.failed_outlines:
        return
    unit, limits = checked.solution.unit, checked.claims(LeastWall)
    limit = max((claim.wall for _, claim in limits), default=0.0)
    walls = []
    for first, second in combinations(checked.outlines, 2):
        if not _share_material(first, second):
            continue
        wall, spot, other = least_wall(first.loop, second.loop)
        walls.append((max(wall, 0.0), first, second, checked.sheet.on_paper((spot + other) * 0.5)))
    walls.sort(key=lambda found: found[0])
    for wall, first, second, place in walls:
        if wall <= checked.close:
            asked = f"; {spell(limit, unit)} is asked for" if limit and not math.isinf(limit) else ""
            told = f"no wall is left between {first.name} and {second.name}: they meet{asked}"
            yield Finding("wrong", "wall", told, limits[0][0] if limits else second.line, place)
        elif wall < limit - checked.close:
            told = f"{spell(wall, unit)} {unit} of wall between {first.name} and {second.name}"
            told += f"; {spell(limit, unit)} is asked for"
            yield Finding("wrong", "wall", told, limits[0][0], place)
    if walls and walls[0][0] >= max(limit - checked.close, checked.close):
        wall, first, second, place = walls[0]
        told = f"least wall {spell(wall, unit)} {unit}, between {first.name} and {second.name}"
        yield Finding("good", "wall", told, second.line, place)
    elif limit and not walls and not math.isinf(limit):
        yield Finding("note", "wall", "there is no wall between two outlines to measure", limits[0][0])


def _share_material(first: Outline, second: Outline) -> bool:
    """Tell whether material lies between two outlines: an outer one and its hole, or two holes side by side."""
    if first.is_hole and second.is_hole:
        return first.depth == second.depth
    return second.is_hole and second.depth == first.depth + 1
