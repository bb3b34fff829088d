"""A worksheet as a display list: its drawing at the largest scale that fits the page."""

from __future__ import annotations

from collections.abc import Sequence
from fractions import Fraction

from ..drawing.marks import DisplayList, DrawnLine, Lettering, Mark, moved
from ..drawing.strokes import Role
from ..finish import View, finish
from ..geometry import Point
from ..measure import Scale, Unit
from ..sheet import Sheet
from ..worksheets import Worksheet
from .build import draw_lettered

WIDE, TALL = 280.0, 180.0
"""Room on an A4 page laid across, mm."""

EDGE = 8.5
"""What is left round it, mm."""

FINEST = 100
"""Scales of a worksheet are hundredths: it is looked at, not measured."""


def draw_worksheet(sheet: Worksheet, unit: Unit, heading: Sequence[str] = ()) -> DisplayList:
    """Draw a worksheet.

    Parameters
    ----------
    sheet : Worksheet
    unit : Unit
        Of the plan.
    heading : sequence of str
        Lines lettered above it when it is printed.

    Returns
    -------
    DisplayList
    """
    low, high = sheet.box
    across, up = (high.x - low.x) * float(unit.mm), (high.y - low.y) * float(unit.mm)
    tall = TALL - 6.0 * len(heading)
    ratio = Fraction(max(1, int(min(WIDE / across, tall / up) * FINEST)), FINEST)
    factor = float(ratio * unit.mm)
    page = (WIDE + 2 * EDGE, up * float(ratio) + 6.0 * len(heading) + 2 * EDGE)
    origin = Point(EDGE + (WIDE - across * float(ratio)) / 2, EDGE) - low * factor
    board = Sheet(
        *page, 0.0, Scale(ratio), unit, origin, (origin + low * factor, origin + high * factor), ()
    )
    marks = draw_lettered(sheet.strokes, board)
    view = View(factor, low * factor, high * factor, ())
    marks += [
        moved(mark, origin.x, origin.y, 0, 0)
        for _, mark in finish([(0, note) for note in sheet.notes], view)
    ]
    marks += [
        Lettering(text, EDGE, page[1] - EDGE - 4.0 - 6.0 * row, 3.5, "start", "lettering")
        for row, text in enumerate(heading)
    ]
    return DisplayList(*page, tuple(_chained(mark) for mark in marks), factor, (origin.x, origin.y))


def _chained(mark: Mark) -> Mark:
    """Give the line that shows the moment its long dashes."""
    if isinstance(mark, DrawnLine) and mark.role == str(Role.CENTRE) and not mark.dash:
        return DrawnLine(mark.x1, mark.y1, mark.x2, mark.y2, mark.role, dash=(6.0, 1.0, 1.0, 1.0))
    return mark
