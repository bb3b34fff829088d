"""The plan as a model: one entry for every line of its text."""

from __future__ import annotations

import re
from dataclasses import dataclass
from typing import NamedTuple

from ..memo import Distinct
from .errors import PlanError
from .terms import Expression, Term, write

MOST_LINES = 1000
LONGEST_LINE = 1600
MOST_CHARACTERS = 100_000
MOST_STATEMENTS = 1000


class PlanTooLarge(ValueError):
    """A text beyond what a plan may hold."""


class Clause(NamedTuple):
    """One clause: its items in order."""

    items: tuple[Term, ...]

    def __str__(self) -> str:
        return " ".join(write(item) for item in self.items)


@dataclass(frozen=True, slots=True)
class Title:
    """``plan "…"``"""

    text: str


@dataclass(frozen=True, slots=True)
class DrawingNumber:
    """``drawing …``"""

    text: str


@dataclass(frozen=True, slots=True)
class Units:
    """``units mm`` or ``units in``"""

    text: str


@dataclass(frozen=True, slots=True)
class SheetLine:
    """``sheet A4 landscape, scale 1:2, border 10``"""

    clauses: tuple[Clause, ...]


@dataclass(frozen=True, slots=True)
class Given(Distinct):
    """``given a = 96 "between the eyes"``; ``given d = 4× Ø9/16`` says how often a size stands on
    the brief."""

    name: str
    value: Expression
    mark: str = ""
    assumed: bool = False
    note: str = ""
    count: int = 0


@dataclass(frozen=True, slots=True)
class Chain(Distinct):
    """``chain top = 20 10 ? 20, overall 80 "along the top edge"``; a missing link is None."""

    name: str
    links: tuple[Expression | None, ...]
    overall: Expression | None = None
    assumed: bool = False
    note: str = ""


@dataclass(frozen=True, slots=True)
class Statement(Distinct):
    """``name = kind, clause, clause…``"""

    name: str
    kind: str
    clauses: tuple[Clause, ...] = ()
    assumed: bool = False
    note: str = ""


@dataclass(frozen=True, slots=True)
class Unread:
    """A line that could not be read, kept as typed."""

    text: str
    error: PlanError


UNREAD_GIVEN = re.compile(
    r'\s*(?P<word>given|chain)\s+(?P<name>[^\W\d]\w*)\s*=(?P<value>[^#]*?)(?P<note>\s"[^"]*")?(?P<comment>\s*#.*)?\s*'
)
"""A given whose value cannot be read still shows its name, what was typed, and its note."""

Content = Title | DrawingNumber | Units | SheetLine | Given | Chain | Statement | Unread | None


@dataclass(frozen=True, slots=True)
class Line:
    """One line of the plan: its content, if any, and its comment, if any.

    `typed` is the text as it was typed, where tidying would make it longer than may be.
    """

    content: Content
    comment: str = ""
    typed: str = ""


@dataclass(frozen=True, slots=True)
class Plan:
    """A whole plan, line by line."""

    lines: tuple[Line, ...]
