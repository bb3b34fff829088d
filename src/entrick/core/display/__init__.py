"""The one display list every output is drawn from: strokes and lettering in paper mm."""

from .build import build_display, ghosts
from .marks import DisplayList, DrawnArc, DrawnCircle, DrawnDot, DrawnLine, Lettering, Mark

__all__ = [
    "DisplayList",
    "DrawnArc",
    "DrawnCircle",
    "DrawnDot",
    "DrawnLine",
    "Lettering",
    "Mark",
    "build_display",
    "ghosts",
]
