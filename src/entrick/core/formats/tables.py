"""Tables of a worksheet in words: lengths as the plan writes them, settings at the scale of the
sheet with readings."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from ..board.steps import length_setting
from ..desk import Work
from ..drawing.marks import DisplayList, DrawnLine, Lettering, Mark, wide
from ..measure import spell, spell_angle
from ..spreadsheet import write_table
from ..worksheets import Table


@dataclass(frozen=True, slots=True)
class Told:
    """A table in words."""

    title: str
    columns: tuple[str, ...]
    rows: tuple[tuple[str, ...], ...]
    note: str = ""


def in_words(table: Table, work: Work) -> Told:
    """Return a table in words; a setting takes two columns, what is drawn and its reading on the
    rule."""
    columns: list[str] = []
    for column in table.columns:
        if column.kind == "setting":
            columns += [f"{column.name} at {work.sheet.scale}, {work.kit.unit}", "reading"]
        elif column.kind == "paper":
            columns.append(f"{column.name} on paper at {work.sheet.scale}, mm")
        else:
            columns.append(column.name)
    rows = tuple(
        tuple(
            text
            for cell, column in zip(row, table.columns, strict=True)
            for text in _cell(cell, column.kind, work)
        )
        for row in table.rows
    )
    return Told(table.title, tuple(columns), rows, table.note)


def _cell(cell: str | float, kind: str, work: Work) -> tuple[str, ...]:
    if isinstance(cell, str):
        return (cell, "") if kind == "setting" else (cell,)
    match kind:
        case "angle":
            return (spell_angle(cell),)
        case "length":
            return (spell(cell, work.solution.unit, 4),)
        case "paper":
            return (f"{cell * work.sheet.factor:.3f}",)
        case "setting":
            setting = length_setting(cell, work.kit, work.sheet.scale, work.solution.unit)
            return (spell(setting.drawn, work.kit.unit, 3), setting.reading)
    return (f"{cell:.5g}",)


def table_csv(table: Told) -> str:
    """Write a table as CSV with RFC 4180 line ends, its heads first."""
    return write_table([table.columns, *table.rows])


PAGE = (210.0, 297.0)
"""A4 upright, mm (ISO 216)."""

MARGIN, LEAD = 14.0, 1.7
"""Room round a printed table, mm, and the distance of its lines in heights of letters."""


def table_page(table: Told, heading: Sequence[str]) -> DisplayList:
    """Return a table lettered on an A4 page, as large as it fits up to 2.5 mm.

    Parameters
    ----------
    table : Told
    heading : sequence of str
        Lines above it.
    """
    lines = [table.columns, *table.rows]
    each = [
        max(wide(row[index], 1.0) for row in lines) + 1.5 for index in range(len(table.columns))
    ]
    above = (table.title, *([table.note] if table.note else []), *heading)
    room = PAGE[1] - 2 * MARGIN - 6.0 * len(above)
    height = min(2.5, (PAGE[0] - 2 * MARGIN) / sum(each), room / (LEAD * (len(lines) + 1)))
    marks: list[Mark] = []
    y = PAGE[1] - MARGIN
    for text in above:
        y -= 6.0
        marks.append(Lettering(text, MARGIN, y + 1.5, 3.5 if text == table.title else 2.5))
    for number, row in enumerate(lines):
        y -= LEAD * height
        x = MARGIN
        for text, share in zip(row, each, strict=True):
            marks.append(Lettering(text, x, y, height))
            x += share * height
        if number == 0:
            y -= 0.4 * height
            marks.append(DrawnLine(MARGIN, y, MARGIN + sum(each) * height, y, "strip"))
    return DisplayList(*PAGE, tuple(marks))
