"""PDF at true size: a 100 mm line measures 100 mm."""

from __future__ import annotations

import io
import math
from typing import TYPE_CHECKING

from ..display import (
    Arrowhead,
    DisplayList,
    DrawnArc,
    DrawnCircle,
    DrawnDot,
    DrawnLine,
    DrawnRun,
    Lettering,
    Mark,
)
from ..tolerance import ROUND
from .faces import write_text
from .svg import by_light, line_kind

if TYPE_CHECKING:
    from reportlab.pdfgen.canvas import Canvas

POINTS_PER_MM = 72 / 25.4
"""A PDF user unit is 1/72 in (ISO 32000-1, 8.3.2.3)."""


def write_pdf(display: DisplayList, title: str = "", construction: bool = True) -> bytes:
    """Write a display list as a one-page PDF.

    Parameters
    ----------
    display : DisplayList
    title : str
        Document title.
    construction : bool
        Whether construction and pricked points are kept.

    Returns
    -------
    bytes
    """
    # Only an export pays for loading the library, not the desk's cold start.
    from reportlab.pdfgen.canvas import Canvas

    buffer = io.BytesIO()
    page = (display.width * POINTS_PER_MM, display.height * POINTS_PER_MM)
    canvas = Canvas(buffer, pagesize=page, invariant=1)
    canvas.setTitle(title)
    canvas.setCreator("Entrick")
    canvas.scale(POINTS_PER_MM, POINTS_PER_MM)
    canvas.setLineCap(1)
    for light, marks in by_light(display, construction):
        canvas.saveState()
        if light and display.space:
            left, low, right, high = display.space
            inside = canvas.beginPath()
            inside.rect(left, low, right - left, high - low)
            canvas.clipPath(inside, stroke=0, fill=0)
        for mark in marks:
            draw_mark(canvas, mark)
        canvas.restoreState()
    canvas.showPage()
    canvas.save()
    return buffer.getvalue()


def draw_mark(canvas: Canvas, mark: Mark) -> None:
    """Draw a mark, mm."""
    kind = line_kind(mark.role)
    grey = 0.1 + (1 - kind.ink) * 0.78
    canvas.setLineWidth(kind.width)
    canvas.setStrokeGray(grey)
    canvas.setFillGray(grey)
    dash = getattr(mark, "dash", ())
    canvas.setDash(list(dash), 0)
    canvas.setLineCap(0 if dash else 1)
    match mark:
        case DrawnLine():
            canvas.line(mark.x1, mark.y1, mark.x2, mark.y2)
        case DrawnCircle():
            canvas.circle(mark.cx, mark.cy, mark.r)
        case DrawnArc():
            box = (mark.cx - mark.r, mark.cy - mark.r, mark.cx + mark.r, mark.cy + mark.r)
            if abs(mark.sweep) > ROUND:  # an arc of no turn would be divided by it
                canvas.arc(*box, startAng=mark.start, extent=mark.sweep)
        case DrawnRun():
            _run(canvas, mark)
        case DrawnDot():
            canvas.circle(mark.x, mark.y, 0.45, stroke=0, fill=1)
        case Lettering():
            canvas.setFillGray(0.1)
            canvas.saveState()
            canvas.translate(mark.x, mark.y)
            canvas.rotate(mark.angle)
            if mark.slant:
                # Letters as tall along the slanted axis as upright ones are high.
                slant = math.radians(mark.slant)
                canvas.transform(1, 0, math.sin(slant), math.cos(slant), 0, 0)
            write_text(canvas, mark.text, (0.0, 0.0), mark.height * 1.4, mark.anchor)
            canvas.restoreState()
        case Arrowhead():
            path = canvas.beginPath()
            (x, y), *rest = mark.corners
            path.moveTo(x, y)
            for corner in rest:
                path.lineTo(*corner)
            path.close()
            canvas.drawPath(path, stroke=0, fill=1)


def _run(canvas: Canvas, mark: DrawnRun) -> None:
    """Draw a run of arcs as one path, so that dashes and joins run on."""
    path = canvas.beginPath()
    x, y, _ = mark.corners[0]
    path.moveTo(x, y)
    for x, y, u, v, bulge in mark.stretches:
        if abs(bulge) < ROUND:
            path.lineTo(u, v)
            continue
        # Centre from chord and bulge: the sagitta is half the chord times the bulge.
        rise = (1 - bulge * bulge) / (4 * bulge)
        cx, cy = (x + u) / 2 - (v - y) * rise, (y + v) / 2 + (u - x) * rise
        r = math.hypot(x - cx, y - cy)
        start = math.degrees(math.atan2(y - cy, x - cx))
        path.arcTo(cx - r, cy - r, cx + r, cy + r, start, math.degrees(4 * math.atan(bulge)))
    if mark.closed:
        path.close()
    canvas.drawPath(path, stroke=1, fill=0)
