"""From the core's results to what crosses the API: worksheets."""

from __future__ import annotations

from ...core.desk import Work
from ...core.display import draw_worksheet
from ...core.formats.tables import in_words
from ...core.plan.edit import EditError
from ...core.worksheets import Worksheet
from ..schemas.worksheets import TableOut, WorksheetOut


def worksheet(done: Work, line: int, turn: float) -> WorksheetOut:
    """Present the worksheet of a statement, turned through an angle."""
    _, sheet = worksheet_of(done, line, turn)
    return WorksheetOut(
        title=sheet.title,
        display=draw_worksheet(sheet, done.solution.unit),
        tables=tuple(TableOut.model_validate(in_words(table, done)) for table in sheet.tables),
        turns=sheet.turns,
        told=sheet.told,
        caution=sheet.caution,
    )


def worksheet_of(done: Work, line: int, turn: float) -> tuple[str, Worksheet]:
    """Return the name of the statement on a line, and its worksheet.

    Raises
    ------
    EditError
        When that statement has none.
    """
    entry = done.solution.entry(line)
    if entry is None or entry.made is None or entry.made.worksheet is None:
        raise EditError(f"line {line} has no worksheet")
    return entry.statement.name, entry.made.worksheet(turn)
