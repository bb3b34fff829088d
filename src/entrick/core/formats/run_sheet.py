"""The run sheet: every step on paper with boxes for tick, measured value and time; settings summed
up by instrument."""

from __future__ import annotations

import io
from collections.abc import Iterator, Sequence
from typing import TYPE_CHECKING, Literal

from ..board.steps import BoardStep
from ..desk import Work

if TYPE_CHECKING:
    from reportlab.platypus import Flowable

Paper = Literal["A4", "letter"]

CAUTION = "Needle points and knives cut: cover the point of the compass whenever it is set down."


def settings_by_instrument(steps: Sequence[BoardStep]) -> Iterator[tuple[str, list[str]]]:
    """Yield every instrument with what it is set to, in order, what stands as it is not once
    more."""
    found: dict[str, dict[str, None]] = {}
    for step in steps:
        if step.setting and not step.setting.kept:
            found.setdefault(step.tool, {}).setdefault(step.setting.reading)
    yield from ((tool, list(readings)) for tool, readings in found.items())


def write_run_sheet(work: Work, paper: Paper = "A4") -> bytes:
    """Write the run sheet of a plan as PDF.

    Parameters
    ----------
    work : Work
    paper : str
        "A4" or "letter".

    Returns
    -------
    bytes
    """
    # Only an export pays for loading the library, not the desk's cold start.
    from reportlab.lib import pagesizes
    from reportlab.lib.units import mm
    from reportlab.platypus import SimpleDocTemplate

    buffer = io.BytesIO()
    title = " ".join(filter(None, (work.solution.drawing, work.solution.title))) or "Untitled"
    size = {"A4": pagesizes.A4, "letter": pagesizes.letter}[paper]
    document = SimpleDocTemplate(
        buffer,
        pagesize=size,
        leftMargin=15 * mm,
        rightMargin=12 * mm,
        topMargin=14 * mm,
        bottomMargin=14 * mm,
        title=f"Run sheet of {title}",
        creator="Entrick",
        invariant=1,
    )
    document.build(list(_story(work, title, size[0] - 27 * mm)))
    return buffer.getvalue()


MOST_IN_A_ROW = 60
"""Settings of an instrument that stand in one row of the sheet."""


def _story(work: Work, title: str, wide: float) -> Iterator[Flowable]:

    from reportlab.lib import colors
    from reportlab.lib.styles import ParagraphStyle
    from reportlab.lib.units import mm
    from reportlab.platypus import Paragraph, Spacer, Table, TableStyle

    from .faces import face_name, marked_up

    face = face_name()
    plain = ParagraphStyle("plain", fontName=face, fontSize=8.5, leading=10.5)
    head = ParagraphStyle("head", parent=plain, fontSize=15, leading=19)
    grid = TableStyle(
        [("GRID", (0, 0), (-1, -1), 0.4, colors.grey), ("VALIGN", (0, 0), (-1, -1), "TOP")]
    )

    def said(text: str, before: str = "") -> Paragraph:
        heading = f"<i>{marked_up(before)}</i><br/>" if before else ""
        return Paragraph(heading + marked_up(text), plain)

    steps = [*work.before, *work.steps, *work.after]
    yield Paragraph(marked_up(f"Run sheet: {title}"), head)
    yield said(f"{work.sheet.name}, scale {work.sheet.scale}, {len(steps)} steps. {CAUTION}")
    yield Spacer(0, 3 * mm)
    # A row stands on one page: an instrument with very many settings takes several.
    rows = [
        [said(tool), said("; ".join(readings[start : start + MOST_IN_A_ROW]))]
        for tool, readings in settings_by_instrument(steps)
        for start in range(0, len(readings), MOST_IN_A_ROW)
    ]
    if rows:
        yield said("What is set, instrument by instrument")
        yield Spacer(0, 1 * mm)
        yield Table(rows, colWidths=[34 * mm, wide - 34 * mm], style=grid)
        yield Spacer(0, 4 * mm)
    columns = [9 * mm, 26 * mm, wide - 105 * mm, 28 * mm, 8 * mm, 20 * mm, 14 * mm]
    heads = (
        "no.",
        "instrument",
        "what to do, and what to look for",
        "set to",
        "ok",
        "measured",
        "min",
    )
    table = [[said(word) for word in heads]]
    # What a statement makes stands above the first step that leads there.
    makes = {e.line: e.made.sentence for e in work.solution.entries if e.made is not None}
    for number, step in enumerate(steps, 1):
        reading = (
            (("as it is, " if step.setting.kept else "") + step.setting.reading)
            if step.setting
            else ""
        )
        words = f"{step.text}. Check: {step.check}" if step.check else step.text
        table.append(
            [
                said(str(number)),
                said(step.tool),
                said(words, makes.pop(step.line, "")),
                said(reading),
                said(""),
                said(""),
                said(""),
            ]
        )
    yield Table(table, colWidths=columns, style=grid, repeatRows=1)
