"""The one display list every output is drawn from: strokes and lettering in paper mm."""

from ..drawing.marks import (
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
from .build import build_display, draw_curves, draw_steps, ghosts
from .worksheet import draw_worksheet

__all__ = [
    "Arrowhead",
    "DisplayList",
    "DrawnArc",
    "DrawnCircle",
    "DrawnDot",
    "DrawnLine",
    "DrawnRun",
    "Lettering",
    "Mark",
    "build_display",
    "draw_curves",
    "draw_steps",
    "draw_worksheet",
    "ghosts",
]
