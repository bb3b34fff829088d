"""The outlines alone as DXF, for a cutter."""

from __future__ import annotations

from ...desk import Work
from ..dxf import write_cutter_dxf
from .format import Format, Options


def write(work: Work, options: Options) -> str:
    """Write the outlines at full size."""
    return write_cutter_dxf(work.outlines, work.solution.unit, options.ovals)


FORMAT = Format(
    place=4,
    key="cutter",
    label="Cutter",
    about="DXF of the outlines alone, at full size",
    group="for a machine",
    ending="dxf",
    media="image/vnd.dxf",
    write=write,
    takes=("ovals",),
    apart="-outlines",
    for_cutting=True,
)
