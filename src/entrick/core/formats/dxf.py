"""DXF for a cutter or another program: the figure at full size in plan units, true arcs, one layer for each role."""

from __future__ import annotations

import io
from typing import TYPE_CHECKING

from ..display import DisplayList, DrawnArc, DrawnCircle, DrawnDot, DrawnLine, Lettering, Mark
from ..measure import Unit
from ..sheet.widths import WIDTHS
from .svg import kept

if TYPE_CHECKING:
    from ezdxf.layouts.layout import Modelspace

_SHEET = frozenset({"border", "strip", "lettering"})
_WEIGHTS = (13, 18, 25, 35, 50, 70)
"""Line weights DXF knows, hundredths of a mm."""


def write_dxf(display: DisplayList, unit: Unit, construction: bool = True) -> str:
    """Write the figure of a display list as DXF R2010.

    Parameters
    ----------
    display : DisplayList
        Its paper lengths are turned back into plan units, from the datum.
    unit : Unit
        Of the plan; stated in the file.
    construction : bool
        Whether construction and pricked points are kept.

    Returns
    -------
    str

    Notes
    -----
    Border, title strip and lettering stay on the sheet: a cutter has no use for them.
    """
    # Only an export pays for loading the library: it is a third of the desk's cold start.
    from ezdxf import units
    from ezdxf.filemanagement import new

    document = new("R2010", units=units.MM if unit is Unit.MM else units.IN)
    space = document.modelspace()
    for mark in kept(display.marks, construction):
        if mark.role in _SHEET or isinstance(mark, Lettering):
            continue
        layer = mark.role.upper()
        if layer not in document.layers:
            width = WIDTHS[mark.role].width * 100
            document.layers.add(layer, lineweight=min(_WEIGHTS, key=lambda weight: abs(weight - width)))
        _add(space, mark, display, {"layer": layer})
    stream = io.StringIO()
    document.write(stream)
    return stream.getvalue()


def _add(space: Modelspace, mark: Mark, display: DisplayList, attributes: dict[str, str]) -> None:
    def at(x: float, y: float) -> tuple[float, float]:
        return (x - display.origin[0]) / display.factor, (y - display.origin[1]) / display.factor

    match mark:
        case DrawnLine():
            space.add_line(at(mark.x1, mark.y1), at(mark.x2, mark.y2), dxfattribs=attributes)
        case DrawnCircle():
            space.add_circle(at(mark.cx, mark.cy), mark.r / display.factor, dxfattribs=attributes)
        case DrawnArc():
            first, last = sorted((mark.start, mark.start + mark.sweep))
            space.add_arc(at(mark.cx, mark.cy), mark.r / display.factor, first, last, dxfattribs=attributes)
        case DrawnDot():
            space.add_point(at(mark.x, mark.y), dxfattribs=attributes)
