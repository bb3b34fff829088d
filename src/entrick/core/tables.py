"""Tables of a worksheet in words: lengths as the plan writes them, settings at the scale of the sheet with readings."""

from __future__ import annotations

import csv
import io
from dataclasses import dataclass

from .board.steps import length_setting
from .desk import Work
from .measure import spell, spell_angle
from .worksheets import Table


@dataclass(frozen=True, slots=True)
class Told:
    """A table in words."""

    title: str
    columns: tuple[str, ...]
    rows: tuple[tuple[str, ...], ...]
    note: str = ""


def told(table: Table, work: Work) -> Told:
    """Return a table in words; a setting takes two columns, what is drawn and its reading on the rule."""
    columns: list[str] = []
    for column in table.columns:
        if column.kind == "setting":
            columns += [f"{column.name} at {work.sheet.scale}, {work.kit.unit}", "reading"]
        else:
            columns.append(column.name)
    rows = tuple(
        tuple(text for cell, column in zip(row, table.columns, strict=True) for text in _cell(cell, column.kind, work))
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
        case "setting":
            setting = length_setting(cell, work.kit, work.sheet.scale, work.solution.unit)
            return (spell(setting.drawn, work.kit.unit, 3), setting.reading)
    return (f"{cell:.5g}",)


def table_csv(table: Told) -> str:
    """Write a table as CSV with RFC 4180 line ends, its heads first."""
    stream = io.StringIO()
    rows = csv.writer(stream)
    rows.writerow(table.columns)
    rows.writerows(table.rows)
    return stream.getvalue()
