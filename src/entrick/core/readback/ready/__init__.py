"""Ready shapes a run may be: each file knows one, and writes it as the language has it."""

from __future__ import annotations

from collections.abc import Callable

from ..profile import Run
from ..rows import Rows
from . import box, cam, ellipse, equal_width, gear, helix, keyway, legs, polygon, rounded, slot

Recognised = Callable[[Run, Rows], str]
"""Writes a run and returns what to line in; empty where it is no such shape."""

ROUND: Recognised = ellipse.written
"""What is round all over."""

READY: tuple[tuple[str, Recognised], ...] = (
    ("an oval by four centres", ellipse.written),
    ("a level rectangle", box.written),
    ("a level rectangle with rounded corners", rounded.boxed),
    ("a regular polygon", polygon.written),
    ("arcs about the corners opposite", equal_width.written),
    ("a slot", slot.written),
    ("a round with keyways", keyway.written),
    ("involute teeth", gear.written),
    ("a cam", cam.written),
)
"""Those that need no second look, and what each is: told by few numbers, it cannot be told by
fewer."""

OPEN: tuple[tuple[str, Recognised], ...] = (("what is seen of a helix", helix.written),)
"""Those that do not close."""

CORNERED: tuple[tuple[str, Recognised], ...] = (
    ("corners that are rounded", rounded.written),
    ("straight legs", legs.written),
)
"""Corners one after another: where nothing is alike on both sides."""

__all__ = ["CORNERED", "OPEN", "READY", "ROUND", "Recognised"]
