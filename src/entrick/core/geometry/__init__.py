"""Points, lines, circles and arcs: where they meet, touch, mirror, and how an outline walks along
them."""

from .loop import Junction, Loop, Piece, piece_of, polyline
from .meet import Meeting, gap, meet
from .shapes import Arc, Circle, Curve, Line, Point, Shape, polar, support
from .transform import reflect, rotate, shift
from .walk import Stop, WalkError, walk

__all__ = [
    "Arc",
    "Circle",
    "Curve",
    "Junction",
    "Line",
    "Loop",
    "Meeting",
    "Piece",
    "Point",
    "Shape",
    "Stop",
    "WalkError",
    "gap",
    "meet",
    "piece_of",
    "polar",
    "polyline",
    "reflect",
    "rotate",
    "shift",
    "support",
    "walk",
]
