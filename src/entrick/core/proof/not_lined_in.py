"""Are there closed figures inside the part that are not lined in: holes that would not be cut?"""

from __future__ import annotations

import math
from collections.abc import Iterator

from ..geometry import Arc, Circle, Loop, Point
from ..geometry.loop import Piece, boxed
from ..kind.figure import Family
from ..moves import kinds
from ..solve.remembered import owners
from .finding import Checked, Finding, Mend, Outline

LOOKING = ("Finish", "Proof")
"""Groups of kinds that look at a figure without anything being constructed from it."""


def inspect(checked: Checked) -> Iterator[Finding]:
    """Ask of every closed figure inside the material that nothing is constructed from whether it is
    a hole."""
    if not checked.outlines or checked.failed_outlines:
        return
    used = _constructed_from(checked)
    for entry in checked.solution.entries:
        made, name = entry.made, entry.statement.name
        if made is None or made.lined is not None or name in used or name in checked.pictorial:
            continue
        if kinds()[entry.statement.kind].group == "Isometric" or made.nothing:
            continue
        shapes = made.shape.members if isinstance(made.shape, Family) else (made.shape,)
        figures = [figure for shape in shapes if (figure := _closed(shape)) is not None]
        if not figures or not all(_in_material(figure, checked.outlines) for figure in figures):
            continue
        if any(checked.is_again(figure, o.loop) for figure in figures for o in checked.outlines):
            continue
        if len(figures) == 1:
            message = f"{name} is closed and inside the part, and is not lined in: it is not cut"
        else:
            message = (
                f"{name}, {len(figures)} closed figures inside the part, are not lined in: "
                "they are not cut"
            )
        free = checked.solution.free_name(f"{name}_edge", [])
        mend = Mend("insert", entry.line, f"{free} = line in, {name}", "Line it in")
        place = checked.sheet.on_paper(figures[0].pieces[0].entry)
        message += "; a hole, or construction?"
        yield Finding("look", "not lined in", message, entry.line, place, mend)


def _constructed_from(checked: Checked) -> frozenset[str]:
    """Return the names of the things others are constructed from."""
    result: set[str] = set()
    for entry in checked.solution.entries:
        kind = kinds().get(entry.statement.kind)
        if kind is None or kind.group not in LOOKING:
            result.update(owners(entry.statement))
    return frozenset(result)


def _closed(shape: object) -> Loop | None:
    """Return a figure as an outline where it is closed."""
    if isinstance(shape, Circle):
        start = shape.at(0.0)
        return Loop((Piece(shape, "", start, start),), True)
    return shape if isinstance(shape, Loop) and shape.closed else None


def _in_material(figure: Loop, outlines: tuple[Outline, ...]) -> bool:
    """Tell whether a figure lies wholly in material: inside an odd number of outlines, the same at
    every end of its pieces."""
    spots = [spot for piece in figure.pieces for spot in (piece.entry, _middle(piece))]
    depths = {sum(boxed(outline.loop).encloses(spot) for outline in outlines) for spot in spots}
    return len(depths) == 1 and depths.pop() % 2 == 1


def _middle(piece: Piece) -> Point:
    match piece.curve:
        case Circle() as circle:
            return circle.at(math.pi)
        case Arc() as arc:
            return arc.middle
    return (piece.entry + piece.exit) * 0.5
