"""A step at the board before the kit and the scale are known: what an act is, in words."""

from __future__ import annotations

from dataclasses import dataclass

from ..acts.act import Act
from ..drawing.strokes import Stroke, Tool
from ..geometry import Point
from ..measure import Number


@dataclass(frozen=True, slots=True, eq=False)
class Step:
    """One thing done at the board. Compared by identity, so that what is derived from it can be
    kept.

    Attributes
    ----------
    tool : Tool
    text : str
        What to do, in the trade's words, without the setting.
    setting : Fraction, float or None
        Plan units at full size, or degrees when `tool` is ANGLE.
    needle : Point or None
        Where the compass stands.
    strokes : tuple of Stroke
        What appears on the sheet.
    check : str
        How to see that it came out right.
    act : Act or None
        What it tells; see `opening.opened`.
    also : tuple of Act
        What is done in the same go.
    """

    tool: Tool
    text: str
    setting: Number | None = None
    needle: Point | None = None
    strokes: tuple[Stroke, ...] = ()
    check: str = ""
    act: Act | None = None
    also: tuple[Act, ...] = ()

    @property
    def acts(self) -> tuple[Act, ...]:
        """All it tells."""
        return (self.act, *self.also) if self.act else ()
