"""The plan itself as text."""

from __future__ import annotations

from ...desk import Work
from ...plan.edit import tidy
from ...plan.writer import write_plan
from .format import Format, Options


def write(work: Work, _: Options) -> str:
    """Write the plan as it is read."""
    return write_plan(work.plan)


FORMAT = Format(
    place=7,
    key="entrick",
    label="Plan",
    about="the plan itself, as text",
    group="as data",
    ending="entrick",
    media="text/plain; charset=utf-8",
    write=write,
    without_work=tidy,
)
