"""Can everything written on the sheet be read: nothing over another, nothing over the border or the
title strip?"""

from __future__ import annotations

from collections.abc import Iterator

from ..drawing.marks import DrawnArc, DrawnCircle, DrawnLine, Lettering, Mark, reach
from ..geometry import Point
from ..geometry.box import Box, around, neighbours
from .finding import Checked, Finding

BARELY = 0.3
"""How far letters may come into each other's boxes and still be read, mm: letters do not fill
theirs (by eye, no source)."""

OVERLAP = 0.01
"""How far a line may run over the border before anybody sees it, mm."""

MOST_TOLD = 5
"""Collisions that are told one by one."""


def inspect(checked: Checked) -> Iterator[Finding]:
    """Report letters and figures that stand over others, and what runs over the border or the title
    strip."""
    marks = [mark for layer in checked.drawing.layers for mark in layer.marks]
    # Working points are numbered lightly, and rubbed out with what they stand beside.
    names = checked.solution.figure.items.keys()
    letters = [mark for mark in marks if isinstance(mark, Lettering) and mark.text.strip()]
    lasting = [mark for mark in letters if mark.role != "letter" or mark.text in names]
    yield from _crowded(lasting, checked)
    kept = [mark for mark in marks if not isinstance(mark, Lettering) or mark in lasting]
    yield from _outside(kept, checked)


def _crowded(letters: list[Lettering], checked: Checked) -> Iterator[Finding]:
    boxes = [_box(mark).grown(-BARELY) for mark in letters]
    pairs = neighbours(boxes, 0.0)
    for first, second in pairs[:MOST_TOLD]:
        one, other = letters[first], letters[second]
        message = (
            f"“{other.text}” stands over “{one.text}”: neither can be read; give one another "
            "side or place"
        )
        yield Finding(
            "look", "lettering", message, other.line or one.line, _place(boxes[second], checked)
        )
    if len(pairs) > MOST_TOLD:
        yield Finding(
            "look", "lettering", f"{len(pairs) - MOST_TOLD} more letterings stand over others"
        )


def _outside(marks: list[Mark], checked: Checked) -> Iterator[Finding]:
    sheet = checked.sheet
    if sheet.border <= 0:
        return
    low, high = (corner - sheet.origin for corner in sheet.space)
    frame = Box(low.x, low.y, high.x, high.y)
    told: set[str] = set()
    for mark in marks:
        name = _name(mark)
        if not name or name in told:
            continue
        box = _box(mark)
        if frame.contains(box, OVERLAP):
            continue
        told.add(name)
        over = (
            "the title strip"
            if _over_strip(box, low.y, high.y, sheet.strip_on_top)
            else "the border"
        )
        yield Finding(
            "look", "lettering", f"{name} runs over {over}", mark.line, _place(box, checked)
        )


def _over_strip(box: Box, low: float, high: float, on_top: bool) -> bool:
    if on_top:
        return box.upper > high + OVERLAP and box.lower < high
    return box.lower < low - OVERLAP and box.upper > low


def _name(mark: Mark) -> str:
    """Return what is looked at by the name it is told by: letters, centre lines and dimension
    lines."""
    if isinstance(mark, Lettering):
        return f"“{mark.text}”"
    if isinstance(mark, DrawnLine | DrawnArc | DrawnCircle) and mark.role in (
        "centre",
        "dimension",
    ):
        return f"a {mark.role} line of line {mark.line}"
    return ""


def _box(mark: Mark) -> Box:
    return around(Point(x, y) for x, y in reach(mark))


def _place(box: Box, checked: Checked) -> Point:
    return checked.sheet.origin + (box.low + box.high) * 0.5
