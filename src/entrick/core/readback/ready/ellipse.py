"""A circle; a true ellipse by its axes; an oval of four arcs that is one drawn by four centres."""

from __future__ import annotations

import math

from ...geometry import Arc, Circle
from ...geometry.ellipse import Ellipse, four_centres
from ..profile import Run, loop_of
from ..rows import Rows


def written(run: Run, rows: Rows) -> str:
    """Write a run that is round all over."""
    whole = run[0]
    if isinstance(whole, Circle):
        return rows.circle(whole.centre, whole.radius)
    if not isinstance(whole, Ellipse):
        return _oval(run, rows)
    return _axes(whole, rows, "")


def _axes(whole: Ellipse, rows: Rows, how: str) -> str:
    turn = math.remainder(whole.major.angle, math.pi)
    fine = rows.fine / whole.a
    first, second = (rows.say(2 * half, "size") for half in (whole.a, whole.b))
    words = f"ellipse, centred on {rows.point(whole.centre)}, "
    if abs(abs(turn) - math.pi / 2) <= fine:
        return rows.add("e", f"{words}axes {second} and {first}{how}")
    tilt = "" if abs(turn) <= fine else f", at {rows.say_angle(turn, whole.a)}"
    return rows.add("e", f"{words}axes {first} and {second}{tilt}{how}")


def _oval(run: Run, rows: Rows) -> str:
    """Write four arcs that run into each other, where they are what an ellipse by four centres is
    drawn with."""
    arcs = [piece for piece in run if isinstance(piece, Arc)]
    if len(run) != 4 or len(arcs) != 4:
        return ""
    loop = loop_of(run)
    middle, low_high = loop.centroid, [max(arcs[k].radius, arcs[k + 1].radius) for k in (0, 2)]
    if abs(low_high[0] - low_high[1]) > rows.within * 4:
        return ""
    # The flat arcs lie across the short axis.
    flat = max(arcs, key=lambda arc: arc.radius)
    pointed = min(arcs, key=lambda arc: arc.radius)
    across, along = flat.middle - middle, pointed.middle - middle
    if abs(across) <= rows.within or abs(across.dot(along)) > rows.within * abs(across) * 4:
        return ""
    whole = Ellipse(middle, along, abs(across))
    if any(
        min(abs(arc.radius - each.radius) for each in four_centres(whole)) > rows.within * 8
        for arc in arcs
    ):
        return ""
    return f"{_axes(whole, rows, ', by four centres')}"
