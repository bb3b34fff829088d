"""Points, lines, circles and arcs: where they meet, touch, mirror, and how an outline walks along them."""

from .meet import Meeting, gap, meet
from .shapes import Arc, Circle, Curve, Line, Point, Shape, polar, support
from .transform import reflect, rotate, shift
from .walk import Loop, Piece, Stop, WalkError, walk

__all__ = [
    "Arc",
    "Circle",
    "Curve",
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
    "polar",
    "reflect",
    "rotate",
    "shift",
    "support",
    "walk",
]
