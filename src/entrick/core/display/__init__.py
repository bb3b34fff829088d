"""The one display list every output is drawn from: strokes and lettering in paper mm."""

from ..drawing.marks import (
    Arrowhead,
    DisplayList,
    Drawing,
    DrawnArc,
    DrawnCircle,
    DrawnDot,
    DrawnLine,
    DrawnRun,
    Layer,
    Lettering,
    Mark,
)
from .build import build_display, draw_curves, draw_steps, ghosts
from .worksheet import draw_worksheet

__all__ = [
    "Arrowhead",
    "DisplayList",
    "Drawing",
    "DrawnArc",
    "DrawnCircle",
    "DrawnDot",
    "DrawnLine",
    "DrawnRun",
    "Layer",
    "Lettering",
    "Mark",
    "build_display",
    "draw_curves",
    "draw_steps",
    "draw_worksheet",
    "ghosts",
]
