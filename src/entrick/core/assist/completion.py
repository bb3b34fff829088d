"""What completion offers."""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(frozen=True, slots=True)
class Completion:
    """One continuation: the row it makes, what it adds, and what that is."""

    row: str
    adds: str
    about: str
