"""Papers and keys of a set as PDF: every student's on pages of its own."""

from __future__ import annotations

import io
from typing import TYPE_CHECKING, Literal

from ..practice.sets import Paper, Set, rows_of

if TYPE_CHECKING:
    from reportlab.pdfgen.canvas import Canvas

LETTERS, LEADING = 9.0, 12.0
"""Height of the lettering and of a row, points."""

MARGIN = 45.0


def write_papers(made: Set, key: bool = False, paper: Literal["A4", "letter"] = "A4") -> bytes:
    """Write the papers of a set, or its key.

    Parameters
    ----------
    made : Set
    key : bool
        Whether answers and working are written instead of room for them.
    paper : str

    Returns
    -------
    bytes
    """
    from reportlab.lib import pagesizes
    from reportlab.pdfgen.canvas import Canvas as Sheet

    size = {"A4": pagesizes.A4, "letter": pagesizes.letter}[paper]
    buffer = io.BytesIO()
    canvas = Sheet(buffer, pagesize=size, invariant=1)
    canvas.setTitle(f"{made.title}{', key' if key else ''}")
    canvas.setCreator("Entrick")
    for each in made.papers:
        _student(canvas, made, each, key, size)
    canvas.save()
    return buffer.getvalue()


def _student(canvas: Canvas, made: Set, paper: Paper, key: bool, size: tuple[float, float]) -> None:
    from reportlab.lib.utils import simpleSplit

    from .pdf import face_name

    face = face_name()
    wide, high = size
    at = high - MARGIN

    def head() -> float:
        canvas.setFont(face, 13)
        canvas.drawString(MARGIN, high - MARGIN, made.title)
        canvas.setFont(face, LETTERS)
        canvas.drawRightString(
            wide - MARGIN, high - MARGIN, f"student {paper.student}{'  (key)' if key else ''}"
        )
        canvas.setFont(face, LETTERS)
        below = high - MARGIN - LEADING
        for given in paper.givens or made.briefs:
            for part in simpleSplit(given, face, LETTERS, wide - 2 * MARGIN):
                canvas.drawString(MARGIN, below, part)
                below -= LEADING
        return below - LEADING

    at = top = head()
    for number, question in enumerate(paper.questions, 1):
        rows = []
        for row in rows_of(question, number, key):
            indent = "      " if row.startswith("      ") else ""
            split = simpleSplit(row.strip(), face, LETTERS, wide - 2 * MARGIN - len(indent) * 4)
            rows += [(indent, part) for part in split]
        # A question stands on one page.
        if at - LEADING * len(rows) < MARGIN and at < top:
            canvas.showPage()
            at = head()
        for indent, part in rows:
            canvas.setFont(face, LETTERS)
            canvas.drawString(MARGIN + len(indent) * 4, at, part)
            at -= LEADING
        at -= LEADING * 0.8
    canvas.showPage()
