"""Ready shapes a run may be: each file knows one, and writes it as the language has it."""

from __future__ import annotations

from collections.abc import Callable

from ..profile import Run
from ..rows import Rows
from . import box, ellipse, gear, keyway, legs, polygon, rounded, slot

Recognised = Callable[[Run, Rows], str]
"""Writes a run and returns what to line in; empty where it is no such shape."""

READY: tuple[Recognised, ...] = (
    ellipse.written,
    box.written,
    rounded.boxed,
    polygon.written,
    slot.written,
    keyway.written,
    gear.written,
)
"""Those that need no second look: what they are is told by few numbers, and cannot be told by fewer."""

CORNERED: tuple[Recognised, ...] = (rounded.written, legs.written)
"""Corners one after another: where nothing is alike on both sides."""

__all__ = ["CORNERED", "READY", "Recognised"]
