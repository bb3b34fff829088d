"""The sheet as SVG."""

from __future__ import annotations

from ...desk import Work
from ..svg import write_svg
from .format import Format, Options


def write(work: Work, options: Options) -> str:
    """Write the sheet in millimetres."""
    return write_svg(work.display, options.construction, work.solution.unit)


FORMAT = Format(
    place=2,
    key="svg",
    label="SVG",
    about="the sheet in millimetres",
    group="to open elsewhere",
    ending="svg",
    media="image/svg+xml",
    write=write,
    takes=("construction",),
)
