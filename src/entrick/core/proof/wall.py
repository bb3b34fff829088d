"""How thin does the material get between two outlines, and where?"""

from __future__ import annotations

import math
from collections.abc import Iterator
from itertools import combinations

from ..geometry import Point
from ..geometry.nearest import least_wall
from ..geometry.thickness import thinnest
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
            asked = (
                f"; {spell(limit, unit)} is asked for" if limit and not math.isinf(limit) else ""
            )
            message = f"no wall is left between {first.name} and {second.name}: they meet{asked}"
            yield Finding("wrong", "wall", message, limits[0][0] if limits else second.line, place)
        elif wall < limit - checked.close:
            message = f"{spell(wall, unit)} {unit} of wall between {first.name} and {second.name}"
            message += f"; {spell(limit, unit)} is asked for"
            yield Finding("wrong", "wall", message, limits[0][0], place)
    if walls and walls[0][0] >= max(limit - checked.close, checked.close):
        wall, first, second, place = walls[0]
        message = f"least wall {spell(wall, unit)} {unit}, between {first.name} and {second.name}"
        yield Finding("good", "wall", message, second.line, place)
    if limit and not math.isinf(limit):
        yield from _thickness(checked, limits[0][0], limit)


def _thickness(checked: Checked, line: int, limit: float) -> Iterator[Finding]:
    """Report how thin each outline gets by itself: the neck of a link, the arm of a hook."""
    unit = checked.solution.unit
    loops = [outline.loop for outline in checked.outlines]
    least: tuple[float, str, Point] | None = None
    for outline in checked.outlines:
        others = [loop for loop in loops if loop is not outline.loop]
        found = thinnest(outline.loop, others, limit)
        if found is None:
            continue
        thick, first, second = found
        place = checked.sheet.on_paper((first + second) * 0.5)
        if thick < limit - checked.close:
            message = (
                f"{outline.name} is {spell(thick, unit)} {unit} thin here; "
                f"{spell(limit, unit)} is asked for"
            )
            yield Finding("wrong", "wall", message, line, place)
        if least is None or thick < least[0]:
            least = thick, outline.name, place
    if least and least[0] >= limit - checked.close:
        message = f"{least[1]} is nowhere thinner than {spell(least[0], unit)} {unit}"
        yield Finding("good", "wall", message, line, least[2])


def _share_material(first: Outline, second: Outline) -> bool:
    """Tell whether material lies between two outlines: an outer one and its hole, or two holes side
    by side."""
    if first.is_hole and second.is_hole:
        return first.depth == second.depth
    return second.is_hole and second.depth == first.depth + 1
