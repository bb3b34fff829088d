"""From a plan's text to what the register lists of it."""

from __future__ import annotations

from .desk import work_out
from .formats.svg import thumbnail_svg
from .plan.edit import tidy
from .summary import Summary

LARGEST_THUMBNAIL = 60_000
"""Characters of a thumbnail; a finer outline cannot be told apart when it is so small, and is left
out."""


def tidied(text: str) -> tuple[str, Summary]:
    """Return a plan's text in canonical spacing, and what the register lists of it."""
    tidy_text = tidy(text)
    return tidy_text, summarize(tidy_text)


def summarize(text: str) -> Summary:
    """Return what the register lists of a plan's text."""
    done = work_out(text)
    solution = done.solution
    errors = (*solution.errors, *done.sheet.errors)
    first = min(errors, key=lambda error: error.line, default=None)
    picture = thumbnail_svg(done.display, *done.sheet.view)
    return Summary(
        title=solution.title,
        drawing=solution.drawing,
        unit=solution.unit.value,
        scale=str(done.sheet.scale),
        mistakes=len(errors),
        outlines=sum(len(e.made.loops) for e in solution.entries if e.made),
        trouble=f"line {first.line}: {first.message}"[:300] if first else "",
        thumbnail=picture if len(picture) <= LARGEST_THUMBNAIL else "",
    )
