"""The sheet as PDF."""

from __future__ import annotations

from ...desk import Work
from ..pdf import write_pdf
from .format import Format, Options


def write(work: Work, options: Options) -> bytes:
    """Write the sheet on one page, at true size."""
    return write_pdf(work.display, work.solution.title, options.construction)


FORMAT = Format(
    place=1,
    key="pdf",
    label="PDF",
    about="the sheet at true size: print at 100 %",
    group="to print",
    ending="pdf",
    media="application/pdf",
    write=write,
    takes=("construction",),
)
