"""Do the outlines together bound one part: holes in the material, nothing crossing, nothing loose?"""

from __future__ import annotations

from collections.abc import Iterator
from itertools import combinations

from ..geometry import Circle, Loop, Point, meet
from ..geometry.shapes import is_drawn_at
from ..measure import spell
from .finding import Checked, Finding, Outline


def inspect(checked: Checked) -> Iterator[Finding]:
    """Report holes outside the material, outlines that cross, separate pieces, and the area of the whole."""
    outlines = checked.outlines
    crossed: set[str] = set()
    for first, second in combinations(outlines, 2):
        place = _crossing(first.loop, second.loop, checked.close)
        if place is not None:
            crossed |= {first.name, second.name}
            told = f"{second.name} runs across {first.name}: a hole that breaks out is lined in as one outline with it"
            yield Finding("wrong", "material", told, second.line, checked.sheet.on_paper(place))
    outer = [outline for outline in outlines if outline.depth == 0]
    for outline in outer[1:]:
        if _is_round(outline) and outline.name not in crossed:
            told = f"{outline.name} lies outside the material of {outer[0].name}: a hole in nothing"
            place = checked.sheet.on_paper(outline.loop.pieces[0].entry)
            yield Finding("wrong", "material", told, outline.line, place)
    pieces = [outline for outline in outer if outline is outer[0] or not _is_round(outline)]
    if len(pieces) > 1:
        names = ", ".join(outline.name for outline in pieces)
        yield Finding("note", "material", f"{len(pieces)} separate pieces: {names}", pieces[0].line)
    if len(outlines) > 1 and not crossed:
        unit = checked.solution.unit
        area = sum(abs(o.loop.area) * (-1 if o.is_hole else 1) for o in outlines)
        holes = sum(o.is_hole for o in outlines)
        told = f"material in all: {spell(area, unit)} {unit}², {holes} hole{'s' if holes != 1 else ''} taken off"
        yield Finding("good", "material", told)


def _is_round(outline: Outline) -> bool:
    return len(outline.loop.pieces) == 1 and isinstance(outline.loop.pieces[0].curve, Circle)


def _crossing(first: Loop, second: Loop, close: float) -> Point | None:
    (low, high), (other_low, other_high) = first.box, second.box
    if low.x > other_high.x or other_low.x > high.x or low.y > other_high.y or other_low.y > high.y:
        return None
    for one in first.pieces:
        for other in second.pieces:
            for meeting in meet(one.curve, other.curve):
                spot = meeting.point
                if meeting.touch or not (is_drawn_at(one.curve, spot) and is_drawn_at(other.curve, spot)):
                    continue
                ends = (one.entry, one.exit, other.entry, other.exit)
                if all(abs(spot - end) > close for end in ends):
                    return spot
    return None
