"""What isometric kinds have in common that are round at their ends; no kind of its own."""

from __future__ import annotations

from ..geometry import Arc, Line, Loop, Point
from ..geometry.isometric import rhombus, true_ellipse
from ..kind.parts import curve_run, run

PLANE_OF = {"up": "top", "right": "left", "left": "right"}
"""The plane a cylinder along an axis has its ends on."""


def end_on(owner: str, centre: Point, size: float, plane: str, true: bool) -> Loop:
    """Return the end of something round on an isometric plane: the true ellipse, or by four centres."""
    if true:
        ellipse = true_ellipse(centre, size, plane)
        return curve_run(owner, ellipse.drawn(), ellipse)
    four = rhombus(centre, size, plane)
    return run(owner, [(f"arc{i}", arc) for i, arc in enumerate(four.arcs, 1)], True)


def counter_clockwise(ring: Loop) -> list[Line | Arc]:
    """Return the curves of a closed run, walked counter-clockwise."""
    turned = ring if ring.area > 0 else ring.reversed
    return [piece.curve for piece in turned.pieces if isinstance(piece.curve, Line | Arc)]
