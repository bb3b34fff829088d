"""DXF for a cutter or another program: the figure at full size in plan units, true arcs, one layer
for each role."""

from __future__ import annotations

import io
import math
from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import TYPE_CHECKING, Literal

from ..display import (
    Arrowhead,
    DisplayList,
    DrawnArc,
    DrawnCircle,
    DrawnDot,
    DrawnLine,
    DrawnRun,
    Lettering,
    Mark,
)
from ..display.build import draw_outlines
from ..drawing.widths import WIDTHS
from ..geometry import Arc, Loop, Point, piece_of
from ..geometry.ellipse import FINE, Ellipse
from ..geometry.fitted import fitted
from ..measure import Unit
from .svg import kept

if TYPE_CHECKING:
    from ezdxf.document import Drawing
    from ezdxf.layouts.layout import Modelspace

_SHEET = frozenset({"border", "strip", "lettering", "letter", "guide"})
_LINETYPES = {
    "centre": ("CENTRE", [11.2, 8.0, -1.2, 0.8, -1.2]),
    "hidden": ("HIDDEN", [4.2, 3.0, -1.2]),
}
"""Dashes by role, mm on paper: whole length, then dashes and gaps."""
_WEIGHTS = (13, 18, 25, 35, 50, 70)
"""Line weights DXF knows, hundredths of a mm."""


@dataclass(frozen=True)
class Ovals:
    """How ellipses are written: as ellipse entities, as arcs, or as straight pieces that keep
    within a tolerance.

    `within` is the greatest departure, plan units; arcs are those of the drawing where it is
    nought."""

    how: Literal["ellipse", "arcs", "polyline"] = "ellipse"
    within: float = 0.0


ENTITIES = Ovals()


def write_dxf(
    display: DisplayList, unit: Unit, construction: bool = True, ovals: Ovals = ENTITIES
) -> str:
    """Write the figure of a display list as DXF R2010.

    Parameters
    ----------
    display : DisplayList
        Its paper lengths are turned back into plan units, from the datum.
    unit : Unit
        Of the plan; stated in the file.
    construction : bool
        Whether construction and pricked points are kept.
    ovals : Ovals
        As what true ellipses are written, for programs that do not read ellipse entities.

    Returns
    -------
    str

    Notes
    -----
    Border and title strip stay on the sheet: another program has its own.
    """
    # Only an export pays for loading the library: it is a third of the desk's cold start.
    from ezdxf import units
    from ezdxf.filemanagement import new

    document = new("R2010", units=units.MM if unit is Unit.MM else units.IN)
    space = document.modelspace()
    for mark in kept(display.marks, construction):
        if mark.role in _SHEET:
            continue
        layer = mark.role.upper()
        if layer not in document.layers:
            width = WIDTHS[mark.role].width * 100
            document.layers.add(
                layer,
                lineweight=min(_WEIGHTS, key=lambda weight: abs(weight - width)),
                linetype=_linetype(document, mark.role, display.factor),
            )
        _add(space, _plainer(mark, ovals, display), display, {"layer": layer})
    stream = io.StringIO()
    document.write(stream)
    return stream.getvalue()


def write_cutter_dxf(outlines: Sequence[Loop], unit: Unit, ovals: Ovals = ENTITIES) -> str:
    """Write outlines alone, for a cutter: each one closed polyline with true arcs, or a circle, on
    one layer."""
    return write_dxf(DisplayList(0.0, 0.0, tuple(draw_outlines(outlines))), unit, False, ovals)


def _plainer(mark: Mark, ovals: Ovals, display: DisplayList) -> Mark:
    """Return an ellipse as arcs or straight pieces, where that was asked for."""
    if not isinstance(mark, DrawnRun) or mark.oval is None or ovals.how == "ellipse":
        return mark
    cx, cy, ux, uy, ratio = mark.oval
    whole = Ellipse(Point(cx, cy), Point(ux, uy), math.hypot(ux, uy) * ratio)
    within = max(ovals.within * display.factor, FINE * whole.a)
    quarters = [math.pi / 2 * k for k in range(5)]
    if ovals.how == "polyline":
        corners = [(p.x, p.y, 0.0) for p in whole.chords(within)]
    else:
        arcs = fitted(whole.at, whole.heading, quarters, within)
        corners = [
            (p.entry.x, p.entry.y, math.tan(p.curve.sweep / 4) if isinstance(p.curve, Arc) else 0.0)
            for p in (piece_of(arc, "") for arc in arcs)
        ]
    return replace(mark, corners=tuple(corners), oval=None)


def _linetype(document: Drawing, role: str, factor: float) -> str:
    """Return the line type of a role, made when it is first wanted, with its dashes in plan
    units."""
    if role not in _LINETYPES:
        return "Continuous"
    name, dashes = _LINETYPES[role]
    if name not in document.linetypes:
        document.linetypes.add(name, [part / factor for part in dashes])
    return name


def _add(
    space: Modelspace, mark: Mark, display: DisplayList, attributes: dict[str, str | float]
) -> None:
    from ezdxf.enums import TextEntityAlignment

    def at(x: float, y: float) -> tuple[float, float]:
        return (x - display.origin[0]) / display.factor, (y - display.origin[1]) / display.factor

    match mark:
        case DrawnLine():
            space.add_line(at(mark.x1, mark.y1), at(mark.x2, mark.y2), dxfattribs=attributes)
        case DrawnCircle():
            space.add_circle(at(mark.cx, mark.cy), mark.r / display.factor, dxfattribs=attributes)
        case DrawnArc():
            first, last = sorted((mark.start, mark.start + mark.sweep))
            space.add_arc(
                at(mark.cx, mark.cy), mark.r / display.factor, first, last, dxfattribs=attributes
            )
        case DrawnRun() if mark.oval is not None:
            cx, cy, ux, uy, ratio = mark.oval
            axis = (ux / display.factor, uy / display.factor)
            space.add_ellipse(at(cx, cy), axis, ratio, dxfattribs=attributes)
        case DrawnRun():
            corners = [(*at(x, y), bulge) for x, y, bulge in mark.corners]
            space.add_lwpolyline(corners, format="xyb", close=mark.closed, dxfattribs=attributes)
        case Arrowhead():
            space.add_solid([at(*corner) for corner in mark.corners], dxfattribs=attributes)
        case Lettering():
            anchor = {"start": "LEFT", "middle": "CENTER", "end": "RIGHT"}[mark.anchor]
            text = space.add_text(
                mark.text,
                height=mark.height * math.cos(math.radians(mark.slant)) / display.factor,
                rotation=mark.angle,
                dxfattribs=attributes | {"oblique": mark.slant},
            )
            text.set_placement(at(mark.x, mark.y), align=TextEntityAlignment[anchor])
        case DrawnDot():
            space.add_point(at(mark.x, mark.y), dxfattribs=attributes)
