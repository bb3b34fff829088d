"""The key of a set as PDF: a grid of students and questions on a page, and the workings after
it."""

from __future__ import annotations

import io
from collections.abc import Iterator, Sequence
from typing import TYPE_CHECKING

from ..classroom.sets import Paper, Set
from ..practice.keys import rows_of, short_key_of
from .faces import split_rows, wide, write_text
from .practice_paper import LEADING, LETTERS, MARGIN, PaperName, new_canvas, page_size

if TYPE_CHECKING:
    from reportlab.pdfgen.canvas import Canvas

TALLEST, LEAST = 15.0, 9.0
"""Height of a row of the grid, points: as many students as there are share a page, if they can."""

SMALL = 0.62
"""Height of the lettering in a row, and greatest width of a letter, of a row's height."""

WHO = 70.0
"""Width of the column with the students, points."""

EDGE = 24.0
"""Margin of the page with the grid, points."""

BELOW = (
    "a letter is a choice; a number may be off by half a graduation; * any order that keeps what "
    "must come first"
)


def write_key(made: Set, paper: PaperName = "A4", workings: bool = True) -> bytes:
    """Write the key of a set.

    Parameters
    ----------
    made : Set
    paper : str
    workings : bool
        Whether the working of every question of every student stands after the grid.

    Returns
    -------
    bytes
    """
    buffer = io.BytesIO()
    canvas = new_canvas(buffer, f"{made.title}, key", paper)
    across, high = page_size(paper)
    count = max((len(each.questions) for each in made.papers), default=0)
    # A grid is wider than it is high.
    lies = count > 12 and len(made.papers) <= 40
    canvas.setPageSize((high, across) if lies else (across, high))
    _grid(canvas, made, count)
    if workings:
        canvas.setPageSize((across, high))
        for each in made.papers:
            _workings(canvas, made, each, (across, high))
    canvas.save()
    return buffer.getvalue()


def _grid(canvas: Canvas, made: Set, count: int) -> None:
    """Draw the grid: a row for a student, a column for a question; at the foot what each mark is
    worth."""
    across, high = canvas._pagesize
    room = high - 2 * EDGE - 5 * LEADING
    row = max(LEAST, min(TALLEST, room / max(1, len(made.papers) + 1)))
    on_page = max(1, int(room / row) - 1)
    column = (across - 2 * EDGE - WHO) / max(1, count)
    for start in range(0, len(made.papers), on_page):
        papers = made.papers[start : start + on_page]
        write_text(canvas, f"{made.title}  (key)", (EDGE, high - EDGE - LEADING), 13)
        top = high - EDGE - 2.5 * LEADING
        cells = [["student", *(str(n) for n in range(1, count + 1))], *map(_cells, papers)]
        for place, each in enumerate(cells):
            low = top - row * (place + 1)
            for n, said in enumerate(each):
                left = EDGE + (WHO + column * (n - 1) if n else 0.0)
                width = column if n else WHO
                _cell(canvas, said, (left, low, width, row))
        foot = top - row * len(cells) - LEADING
        write_text(canvas, f"One mark each, {count} in all; {BELOW}.", (EDGE, foot), 7)
        canvas.showPage()


def _cells(paper: Paper) -> list[str]:
    return [paper.name or paper.student, *(short_key_of(each) for each in paper.questions)]


def _cell(canvas: Canvas, said: str, box: tuple[float, float, float, float]) -> None:
    """Draw a cell, its lettering as large as it has room."""
    left, low, width, tall = box
    canvas.setLineWidth(0.3)
    canvas.rect(left, low, width, tall)
    letters = tall * SMALL
    drawn = wide(said, letters)
    if drawn > width - 3:
        letters *= (width - 3) / drawn
    write_text(canvas, said, (left + 1.5, low + tall * 0.3), letters)


def _workings(canvas: Canvas, made: Set, paper: Paper, size: tuple[float, float]) -> None:
    across, high = size
    room = across - 2 * MARGIN
    blocks = [_block(paper, number, room) for number in range(1, len(paper.questions) + 1)]

    def head() -> float:
        who = f"student {paper.student}{f', {paper.name}' if paper.name else ''}  (key)"
        write_text(canvas, made.title, (MARGIN, high - MARGIN), LETTERS)
        write_text(canvas, who, (across - MARGIN, high - MARGIN), LETTERS, "end")
        return high - MARGIN - 2 * LEADING

    at = top = head()
    for rows in blocks:
        if at - LEADING * len(rows) < MARGIN and at < top:
            canvas.showPage()
            at = top = head()
        for indent, part in rows:
            write_text(canvas, part, (MARGIN + indent, at), LETTERS)
            at -= LEADING
        at -= LEADING * 0.6
    canvas.showPage()


def _block(paper: Paper, number: int, room: float) -> Sequence[tuple[float, str]]:
    def rows() -> Iterator[tuple[float, str]]:
        for row in rows_of(paper.questions[number - 1], number, key=True):
            indent = 24.0 if row.startswith("      ") else 0.0
            for part in split_rows(row.strip(), LETTERS, room - indent):
                yield indent, part

    return list(rows())
