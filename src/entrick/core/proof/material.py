"""Do the outlines together bound one part: holes in the material, nothing crossing, nothing
loose?"""

from __future__ import annotations

from collections.abc import Iterator
from itertools import combinations

from ..geometry import Circle, Loop, Point, meet
from ..geometry.loop import boxed
from ..geometry.shapes import is_drawn_at
from ..measure import spell
from ..memo import remembered
from .finding import Checked, Finding, Outline


def inspect(checked: Checked) -> Iterator[Finding]:
    """Report holes outside the material, outlines that cross, separate pieces, and the area of the
    whole."""
    if checked.failed_outlines:
        return  # what is wrong with the holes may be that their rim is not there
    outlines = checked.outlines
    crossed: set[str] = set()
    for first, second in combinations(outlines, 2):
        if checked.is_nearly_again(second.loop, first.loop):
            crossed |= {first.name, second.name}
            continue  # drawn twice, which is told as such
        place = _crossing(first.loop, second.loop, checked.close)
        if place is not None:
            crossed |= {first.name, second.name}
            message = (
                f"{second.name} runs across {first.name}: a hole that breaks out is lined in "
                "as one outline with it"
            )
            yield Finding("wrong", "material", message, second.line, checked.sheet.on_paper(place))
    outer = [outline for outline in outlines if outline.depth == 0]
    for outline in outer[1:]:
        if _is_round(outline) and outline.name not in crossed:
            message = (
                f"{outline.name} lies outside the material of {outer[0].name}: a hole in nothing"
            )
            place = checked.sheet.on_paper(outline.loop.pieces[0].entry)
            yield Finding("wrong", "material", message, outline.line, place)
    pieces = [outline for outline in outer if outline is outer[0] or not _is_round(outline)]
    loose = [o for o in outlines if o.depth and not o.is_hole and o.name not in crossed]
    for outline in loose:
        message = f"{outline.name} lies loose in a hole: it is a piece by itself, and falls out"
        yield Finding("note", "material", message, outline.line)
    if len(pieces) + len(loose) > 1:
        names = ", ".join(outline.name for outline in (*pieces, *loose))
        message = f"{len(pieces) + len(loose)} separate pieces: {names}"
        yield Finding("note", "material", message, pieces[0].line)
    if len(outlines) > 1 and not crossed:
        unit = checked.solution.unit
        area = sum(abs(o.loop.area) * (-1 if o.is_hole else 1) for o in outlines)
        holes = sum(o.is_hole for o in outlines)
        message = (
            f"material in all: {spell(area, unit)} {unit}², {holes} "
            f"hole{'s' if holes != 1 else ''} taken off"
        )
        yield Finding("good", "material", message)


def _is_round(outline: Outline) -> bool:
    return len(outline.loop.pieces) == 1 and isinstance(outline.loop.pieces[0].curve, Circle)


@remembered()
def _crossing(first: Loop, second: Loop, close: float) -> Point | None:
    """Return where one outline crosses another, if it does; known for two looked at before."""
    return next(_crossings(first, second, close), None)


def _crossings(first: Loop, second: Loop, close: float) -> Iterator[Point]:
    one, other = boxed(first), boxed(second)
    for piece, box in zip(first.pieces, one.boxes, strict=True):
        if not box.meets(other.box, close):
            continue
        for across, around in zip(second.pieces, other.boxes, strict=True):
            for meeting in meet(piece.curve, across.curve) if box.meets(around, close) else ():
                spot = meeting.point
                if meeting.touch or not (
                    is_drawn_at(piece.curve, spot) and is_drawn_at(across.curve, spot)
                ):
                    continue
                ends = (piece.entry, piece.exit, across.entry, across.exit)
                if all(abs(spot - end) > close for end in ends):
                    yield spot
