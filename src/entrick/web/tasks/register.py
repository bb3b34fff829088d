"""What the register lists."""

from __future__ import annotations

from ...core.summarize import summarize
from ...core.summary import Summary


def summary(text: str) -> Summary:
    """Return what the register lists of a plan."""
    return summarize(text)
