"""Papers of a set as PDF: every student's on pages of its own, with a figure, room to work, and a
frame to draw in."""

from __future__ import annotations

import io
import math
from collections import Counter
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from typing import TYPE_CHECKING, Literal

from ..classroom.sets import Paper, Set
from ..desk import Work, work_out
from ..display.picture import rule_picture
from ..drawing.marks import DisplayList, Lettering
from ..geometry import Circle, Point
from ..practice.keys import rows_of
from ..practice.other_hand import hands
from ..practice.question import Question
from .faces import split_rows, write_text
from .pdf import draw_mark

if TYPE_CHECKING:
    from reportlab.pdfgen.canvas import Canvas

LETTERS, LEADING = 9.0, 12.0
"""Height of the lettering and of a row, points."""

BRIEF, BRIEF_ROW = 7.5, 9.5
"""The same of what is given."""

MARGIN = 45.0

MM = 72 / 25.4
"""Points in a millimetre."""

FIGURE = 150.0
"""Greatest height of a figure, points."""

ROOM_TO_WORK = tuple(range(12, 0, -1))
"""Rows left free below a question with a number: as many as leave no page more."""

SHOWN = frozenset({"outline", "hidden", "centre", "edge", "hatch"})
"""What a figure shows of a plan: what is lined in, without sizes and without how it is drawn."""

Size = tuple[float, float]
PaperName = Literal["A4", "letter"]


@dataclass(frozen=True, slots=True)
class Figure:
    """A figure of a plan as it is kept in the file: by name, its size in mm, how many points a
    millimetre of it is shown in; and the frame its drawing is made in, mm, with its scale."""

    name: str
    wide: float
    tall: float
    times: float
    frame: Size
    scale: str


@dataclass(frozen=True, slots=True)
class Block:
    """A question as it stands on a page: its rows with how far they are indented, the picture of a
    rule below them, and whether it is worked out below."""

    rows: tuple[tuple[float, str], ...]
    picture: DisplayList | None
    is_worked: bool

    def tall(self, free: int) -> float:
        """Return how high it is with so many rows free to work in, points."""
        picture = self.picture.height * MM + LEADING if self.picture else 0.0
        return LEADING * (len(self.rows) + 0.8 + self.is_worked * free) + picture


def page_size(paper: PaperName) -> Size:
    """Return the size of a page, points."""
    from reportlab.lib import pagesizes

    size: Size = {"A4": pagesizes.A4, "letter": pagesizes.letter}[paper]
    return size


def new_canvas(buffer: io.BytesIO, title: str, paper: PaperName) -> Canvas:
    """Begin a file of pages."""
    from reportlab.pdfgen.canvas import Canvas as Pages

    canvas = Pages(buffer, pagesize=page_size(paper), invariant=1)
    canvas.setTitle(title)
    canvas.setCreator("Entrick")
    return canvas


def write_papers(made: Set, paper: PaperName = "A4", frames: bool = True) -> bytes:
    """Write the papers of a set.

    Parameters
    ----------
    made : Set
    paper : str
    frames : bool
        Whether every student has a frame to draw each part in.

    Returns
    -------
    bytes
    """
    buffer = io.BytesIO()
    canvas = new_canvas(buffer, made.title, paper)
    size = page_size(paper)
    figures: dict[str, Figure] = {}
    room = (size[0] - 2 * MARGIN) / max(1, len(made.plans))
    for each in made.papers:
        own = []
        for plan in _plans_of(made, each):
            if plan not in figures:
                figures[plan] = _figure(canvas, f"figure{len(figures)}", plan, room)
            own.append(figures[plan])
        _Student(canvas, made, each, own, size).draw(frames)
    canvas.save()
    return buffer.getvalue()


def _plans_of(made: Set, paper: Paper) -> Iterator[str]:
    """Yield the plans of a paper, each of the hand its student has it."""
    for number, text in enumerate(made.plans):
        hand = paper.hands[number] if number < len(paper.hands) else 0
        known = hands(text) if hand else (text,)
        yield known[min(hand, len(known) - 1)]


def _figure(canvas: Canvas, name: str, text: str, room: float) -> Figure:
    """Draw the figure of a plan once, for so much room; papers show it by name."""
    done = work_out(text)
    low, high = done.sheet.view
    wide, tall = high.x - low.x + 2 * ROOM, high.y - low.y + 2 * ROOM
    times = min(room * 0.94 / wide, FIGURE / tall)
    frame = (high.x - low.x + 4 * ROOM, high.y - low.y + 4 * ROOM)
    canvas.beginForm(name, -ROOM, -ROOM, wide, tall)
    canvas.translate(-low.x, -low.y)
    shown = [mark for mark in done.display.marks if mark.role in SHOWN]
    for mark in (*shown, *_names(done, LETTERS * 0.7 / times)):
        draw_mark(canvas, mark)
    canvas.endForm()
    return Figure(name, wide, tall, times, frame, str(done.sheet.scale))


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


class _Student:
    """The pages of one student: laid out first, so that each says how many there are."""

    def __init__(
        self, canvas: Canvas, made: Set, paper: Paper, figures: Sequence[Figure], size: Size
    ) -> None:
        self.canvas, self.made, self.paper, self.figures = canvas, made, paper, figures
        self.wide, self.high = size
        self.room = self.wide - 2 * MARGIN
        self.brief = [
            row
            for given in paper.givens or made.briefs
            for row in split_rows(given, BRIEF, self.room)
        ]

    def draw(self, frames: bool) -> None:
        """Draw every page."""
        blocks = [
            self._block(question, number) for number, question in enumerate(self.paper.questions, 1)
        ]
        free, pages = self._laid_out(blocks)
        own = self.figures if frames else ()
        total = len(pages) + len(own)
        for number, page in enumerate(pages, 1):
            at = self._head(number, total) if number > 1 else self._first(total)
            for block in page:
                at = self._draw_block(block, at, free)
            self.canvas.showPage()
        for number, figure in enumerate(own, len(pages) + 1):
            self._frame(figure, self._head(number, total))
            self.canvas.showPage()

    def _block(self, question: Question, number: int) -> Block:
        rows = []
        for row in rows_of(question, number):
            indent = 24.0 if row.startswith("      ") else 0.0
            split = split_rows(row.strip(), LETTERS, self.room - indent)
            rows += [(indent, part) for part in split]
        picture = rule_picture(question.rule_shown) if question.rule_shown else None
        is_worked = question.sort in ("length", "angle") and picture is None
        return Block(tuple(rows), picture, is_worked)

    def _laid_out(self, blocks: Sequence[Block]) -> tuple[int, list[list[Block]]]:
        """Return how many rows are left free, and what stands on which page: as few pages as there
        can be, and no more white than fills them."""
        least = len(self._pages(blocks, ROOM_TO_WORK[-1]))
        for free in ROOM_TO_WORK:
            pages = self._pages(blocks, free)
            if len(pages) <= least:
                return free, pages
        return ROOM_TO_WORK[-1], self._pages(blocks, ROOM_TO_WORK[-1])

    def _pages(self, blocks: Sequence[Block], free: int) -> list[list[Block]]:
        pages: list[list[Block]] = [[]]
        left = self._below_brief() - MARGIN
        for block in blocks:
            # A question stands on one page.
            if block.tall(free) > left and pages[-1]:
                pages.append([])
                left = self.high - 2 * MARGIN - 2 * LEADING
            pages[-1].append(block)
            left -= block.tall(free)
        return pages

    def _below_brief(self) -> float:
        tall = max((figure.tall * figure.times for figure in self.figures), default=0.0)
        told = 1.5 * LEADING if self.figures else 0.0
        above = 4.5 * LEADING + BRIEF_ROW * len(self.brief) + LEADING
        return self.high - MARGIN - above - tall - told - LEADING

    def _head(self, number: int, total: int) -> float:
        """Write what stands on top of every page; return where the rest begins."""
        canvas, paper, top = self.canvas, self.paper, self.high - MARGIN
        write_text(canvas, self.made.title, (MARGIN, top), 13)
        who = f"student {paper.student}{f', {paper.name}' if paper.name else ''}"
        page = f"{who}  ·  page {number} of {total}"
        write_text(canvas, page, (self.wide - MARGIN, top), LETTERS, "end")
        return top - 2 * LEADING

    def _first(self, total: int) -> float:
        canvas = self.canvas
        below = self._head(1, total)
        name = f"name {self.paper.name}" if self.paper.name else f"name {'_' * 28}"
        blanks = "   ".join(f"{word} {'_' * long}" for word, long in (("class", 12), ("date", 12)))
        marks = f"marks {'_' * 6} of {len(self.paper.questions)}"
        write_text(canvas, f"{name}   {blanks}   {marks}", (MARGIN, below), LETTERS)
        below -= 1.5 * LEADING
        for row in self.brief:
            write_text(canvas, row, (MARGIN, below), BRIEF)
            below -= BRIEF_ROW
        self._shown(below)
        return self._below_brief()

    def _shown(self, top: float) -> None:
        """Show figures beside each other under a height."""
        if not self.figures:
            return
        each = self.room / len(self.figures)
        tall = 0.0
        for number, figure in enumerate(self.figures):
            times = figure.times
            self.canvas.saveState()
            left = MARGIN + number * each + ROOM * times
            self.canvas.translate(left, top - (figure.tall - ROOM) * times)
            self.canvas.scale(times, times)
            self.canvas.doForm(figure.name)
            self.canvas.restoreState()
            tall = max(tall, figure.tall * times)
        words = "Not to scale: the sizes stand above."
        write_text(self.canvas, words, (MARGIN, top - tall - LEADING), LETTERS)

    def _draw_block(self, block: Block, at: float, free: int) -> float:
        canvas = self.canvas
        for indent, part in block.rows:
            write_text(canvas, part, (MARGIN + indent, at), LETTERS)
            at -= LEADING
        if block.picture is not None:
            at -= block.picture.height * MM + LEADING
            _draw(canvas, block.picture, MARGIN, at)
        return at - LEADING * (0.8 + block.is_worked * free)

    def _frame(self, figure: Figure, top: float) -> None:
        """Draw a frame for the part at the scale of its sheet, or say which paper it wants."""
        wide, tall = (each * MM for each in figure.frame)
        room = top - MARGIN - 2 * LEADING
        if (wide > self.room or tall > room) and tall <= self.room and wide <= room:
            wide, tall = tall, wide
        if wide > self.room or tall > room:
            words = (
                f"At {figure.scale} the part wants {figure.frame[0]:.0f} × {figure.frame[1]:.0f} mm"
            )
            write_text(self.canvas, f"{words}: draw it on a larger sheet.", (MARGIN, top), LETTERS)
            return
        write_text(self.canvas, f"Draw the part here, at {figure.scale}.", (MARGIN, top), LETTERS)
        # What is left of the page belongs to the frame as well.
        self.canvas.rect(MARGIN, MARGIN, self.room, top - MARGIN - LEADING)


def _draw(canvas: Canvas, picture: DisplayList, left: float, low: float) -> None:
    """Draw a picture life-size."""
    canvas.saveState()
    canvas.translate(left, low)
    canvas.scale(MM, MM)
    for mark in picture.marks:
        draw_mark(canvas, mark)
    canvas.restoreState()
