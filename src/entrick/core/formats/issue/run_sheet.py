"""The run sheet: every step on paper."""

from __future__ import annotations

from ...desk import Work
from ..run_sheet import write_run_sheet
from .format import Format, Options


def write(work: Work, options: Options) -> bytes:
    """Write every step with boxes for tick, measured value and time."""
    return write_run_sheet(work, options.paper)


FORMAT = Format(
    place=5,
    key="run-sheet",
    label="Run sheet",
    about="every step on paper, with boxes to tick",
    group="to print",
    ending="pdf",
    media="application/pdf",
    write=write,
    takes=("paper",),
    apart="-run-sheet",
)
