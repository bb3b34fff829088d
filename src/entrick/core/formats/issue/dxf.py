"""The whole figure as DXF."""

from __future__ import annotations

from ...desk import Work
from ..dxf import write_dxf
from .format import Format, Options


def write(work: Work, options: Options) -> str:
    """Write the figure at full size."""
    return write_dxf(work.display, work.solution.unit, options.construction, options.ovals)


FORMAT = Format(
    place=3,
    key="dxf",
    label="DXF",
    about="the whole figure at full size, true arcs, layers by kind of line",
    group="to open elsewhere",
    ending="dxf",
    media="image/vnd.dxf",
    write=write,
    takes=("construction", "ovals"),
)
