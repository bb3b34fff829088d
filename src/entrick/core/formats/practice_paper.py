"""Papers and keys of a set as PDF: every student's on pages of its own."""

from __future__ import annotations

import io
import math
from collections import Counter
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from typing import TYPE_CHECKING, Literal

from ..desk import Work, work_out
from ..display.picture import rule_picture
from ..drawing.marks import DisplayList, Lettering
from ..geometry import Circle, Point
from ..practice.sets import Paper, Set, rows_of
from .pdf import draw_mark, face_name

if TYPE_CHECKING:
    from reportlab.pdfgen.canvas import Canvas

LETTERS, LEADING = 9.0, 12.0
"""Height of the lettering and of a row, points."""

MARGIN = 45.0

MM = 72 / 25.4
"""Points in a millimetre."""

FIGURE = 150.0
"""Greatest height of a figure, points."""

SHOWN = frozenset({"outline", "hidden", "centre", "edge", "hatch"})
"""What a figure shows of a plan: what is lined in, without sizes and without how it is drawn."""


@dataclass(frozen=True, slots=True)
class Figure:
    """A figure of a plan as it is kept in the file: by name, its size in mm, and how many points
    a millimetre of it is shown in."""

    name: str
    wide: float
    tall: float
    times: float


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
    figures = () if key else tuple(_figures(canvas, made, size[0] - 2 * MARGIN))
    for each in made.papers:
        _student(canvas, made, each, figures, key, size)
    canvas.save()
    return buffer.getvalue()


def _figures(canvas: Canvas, made: Set, room: float) -> Iterator[Figure]:
    """Draw the figure of every plan once, for so much room beside each other; papers show it by
    name."""
    each = room / max(1, len(made.plans))
    for number, text in enumerate(made.plans, 1):
        done = work_out(text)
        if done.solution.errors:
            continue
        low, high = done.sheet.view
        wide, tall = high.x - low.x + 2 * ROOM, high.y - low.y + 2 * ROOM
        times = min(each * 0.94 / wide, FIGURE / tall)
        figure = Figure(f"figure{number}", wide, tall, times)
        canvas.beginForm(figure.name, -ROOM, -ROOM, figure.wide, figure.tall)
        canvas.translate(-low.x, -low.y)
        for mark in done.display.marks:
            if mark.role in SHOWN:
                draw_mark(canvas, mark, face_name())
        for mark in _names(done, LETTERS * 0.7 / times):
            draw_mark(canvas, mark, face_name())
        canvas.endForm()
        yield figure


def _names(done: Work, height: float) -> Iterator[Lettering]:
    """Letter circles and points by the names questions ask for them by: points at their place,
    circles beside their edge, each further round where several lie about one centre."""
    about: Counter[tuple[float, float]] = Counter()
    for item in done.solution.figure.items.values():
        shape = item.shape
        if isinstance(shape, Point):
            at = done.sheet.on_paper(shape)
        elif isinstance(shape, Circle):
            centre = round(shape.centre.x, 6), round(shape.centre.y, 6)
            at = done.sheet.on_paper(shape.at(math.radians(40 - 80 * (about[centre] % 2))))
            about[centre] += 1
        else:
            continue
        yield Lettering(item.name, at.x + height * 0.3, at.y - height * 0.3, height)


ROOM = 10.0
"""Room about a figure, mm."""


def _student(
    canvas: Canvas,
    made: Set,
    paper: Paper,
    figures: Sequence[Figure],
    key: bool,
    size: tuple[float, float],
) -> None:
    from reportlab.lib.utils import simpleSplit

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
        if not key:
            blanks = (("name", 28), ("class", 12), ("date", 12), ("marks", 6))
            rule = "   ".join(f"{word} {'_' * long}" for word, long in blanks)
            canvas.drawString(MARGIN, below - LEADING * 0.5, f"{rule} of {len(paper.questions)}")
            below -= LEADING * 2
        for given in paper.givens or made.briefs:
            for part in simpleSplit(given, face, LETTERS, wide - 2 * MARGIN):
                canvas.drawString(MARGIN, below, part)
                below -= LEADING
        return below - LEADING

    at = top = _shown(canvas, figures, head(), wide - 2 * MARGIN)
    for number, question in enumerate(paper.questions, 1):
        rows = []
        for row in rows_of(question, number, key):
            indent = "      " if row.startswith("      ") else ""
            split = simpleSplit(row.strip(), face, LETTERS, wide - 2 * MARGIN - len(indent) * 4)
            rows += [(indent, part) for part in split]
        picture = rule_picture(question.rule_shown) if question.rule_shown else None
        tall = picture.height * MM + LEADING if picture else 0.0
        # A question stands on one page.
        if at - LEADING * len(rows) - tall < MARGIN and at < top:
            canvas.showPage()
            at = head()
        for indent, part in rows:
            canvas.setFont(face, LETTERS)
            canvas.drawString(MARGIN + len(indent) * 4, at, part)
            at -= LEADING
        if picture is not None:
            at -= tall
            _draw(canvas, picture, MARGIN, at)
        at -= LEADING * 0.8
    canvas.showPage()


def _draw(canvas: Canvas, picture: DisplayList, left: float, low: float) -> None:
    """Draw a picture life-size."""
    canvas.saveState()
    canvas.translate(left, low)
    canvas.scale(MM, MM)
    for mark in picture.marks:
        draw_mark(canvas, mark, face_name())
    canvas.restoreState()


def _shown(canvas: Canvas, figures: Sequence[Figure], top: float, room: float) -> float:
    """Show figures beside each other under a height; return where the questions begin."""
    if not figures:
        return top
    each = room / len(figures)
    tall = 0.0
    for number, figure in enumerate(figures):
        times = figure.times
        canvas.saveState()
        left = MARGIN + number * each + ROOM * times
        canvas.translate(left, top - (figure.tall - ROOM) * times)
        canvas.scale(times, times)
        canvas.doForm(figure.name)
        canvas.restoreState()
        tall = max(tall, figure.tall * times)
    canvas.setFont(face_name(), LETTERS)
    canvas.drawString(MARGIN, top - tall - LEADING, "Not to scale: the sizes stand above.")
    return top - tall - 2.5 * LEADING
