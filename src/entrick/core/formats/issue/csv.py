"""The settings as CSV."""

from __future__ import annotations

from ...desk import Work
from ..rows import settings_csv
from .format import Format, Options


def write(work: Work, _: Options) -> str:
    """Write the settings, step by step."""
    return settings_csv(work.steps, work.kit, work.before, work.after)


FORMAT = Format(
    place=6,
    key="csv",
    label="CSV",
    about="the settings, step by step",
    group="as data",
    ending="csv",
    media="text/csv; charset=utf-8",
    write=write,
)
