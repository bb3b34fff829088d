"""What an inspection says, and what it looks at."""

from __future__ import annotations

from collections.abc import Callable, Iterable
from dataclasses import dataclass
from typing import Literal

from ..board import BoardStep
from ..geometry import Point
from ..sheet import Sheet
from ..solve import Solution

Weight = Literal["wrong", "look", "note", "good"]


@dataclass(frozen=True, slots=True)
class Checked:
    """A solved plan on its sheet, with its steps: all a rule may look at."""

    solution: Solution
    sheet: Sheet
    steps: tuple[BoardStep, ...]


@dataclass(frozen=True, slots=True)
class Finding:
    """One thing an inspection found.

    Attributes
    ----------
    weight : str
        "wrong", "look" (look again), "note" or "good".
    rule : str
        The rule that found it.
    message : str
        What was found and what to do.
    line : int
        Line of the plan, 0 for the sheet.
    place : Point or None
        On paper, mm.
    """

    weight: Weight
    rule: str
    message: str
    line: int = 0
    place: Point | None = None


Rule = Callable[[Checked], Iterable[Finding]]
