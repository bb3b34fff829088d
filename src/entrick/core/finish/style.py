"""Sizes of what finishing draws, mm on paper, and the small marks all of it is made of."""

from __future__ import annotations

import math
from dataclasses import dataclass, field

from ..drawing.marks import Arrowhead, Mark
from ..geometry import Loop, Point
from ..measure import Scale

FIRST, NEXT = 10.0, 8.0
"""The first dimension line stands 10 mm off the view, each further one 8 mm (common practice)."""
OFF, PAST = 1.0, 2.0
"""Extension lines start 1 mm off the outline and run 2 mm past the dimension line (common
practice)."""
ARROW = 3.0
"""Arrowheads are 3 long to 1 wide, closed, filled (common practice)."""
OVER = 3.0
"""Centre lines run this far past what they centre, mm (common practice)."""
OVERRUN = 8.0
"""How far a line without ends runs past the view, mm on paper."""
LETTERS = 2.5
"""Height of dimension lettering, mm (ISO 3098)."""


@dataclass(frozen=True)
class View:
    """What finishing has to know of the view: its scale, its box on paper from the datum, its
    outlines, and from where to where its straight centre lines and the axes of its datum run, mm
    from the datum."""

    factor: float
    low: Point
    high: Point
    outlines: tuple[Loop, ...]
    aligned: bool = True
    scale: Scale = field(default_factory=Scale)
    chains: tuple[tuple[Point, Point], ...] = ()

    @property
    def axes(self) -> tuple[tuple[Point, Point], ...]:
        """The datum's own lines, level and plumb, as far as they are drawn past the view."""
        x0, x1 = min(self.low.x, 0.0) - OVERRUN, max(self.high.x, 0.0) + OVERRUN
        y0, y1 = min(self.low.y, 0.0) - OVERRUN, max(self.high.y, 0.0) + OVERRUN
        return ((Point(x0, 0.0), Point(x1, 0.0)), (Point(0.0, y0), Point(0.0, y1)))


Finished = tuple[int, Mark]
"""A mark in mm from the datum, with the line of the plan that asked for it."""


def arrow(tip: Point, pointing: Point) -> Arrowhead:
    """Return an arrowhead with its tip at a place, pointing in a direction."""
    return Arrowhead(tip.x, tip.y, math.degrees(pointing.angle), length=ARROW, wide=ARROW / 3)
