"""What a kind of construction declares of itself."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

from ..plan.forms import Form
from .args import Args
from .made import Made

GROUPS = (
    "Points",
    "Lines",
    "Circles and arcs",
    "Copies",
    "Ready shapes",
    "Curves",
    "Isometric",
    "Outline",
    "Finish",
    "Proof",
)
"""Families of kinds, in the order they are listed."""


@dataclass(frozen=True)
class Kind:
    """A kind of construction, declared in a file of its own.

    Attributes
    ----------
    name : str
        What the plan calls it.
    group : str
        Family it is listed under.
    summary : str
        One line for the family list.
    example : str
        A whole statement.
    mistake : str
        The mistake usually made here.
    forms : tuple of Form
    construct : callable
        Args to Made; raises ClauseError.
    """

    name: str
    group: str
    summary: str
    example: str
    mistake: str
    forms: tuple[Form, ...]
    construct: Callable[[Args], Made]

    @property
    def choosing_words(self) -> frozenset[str]:
        """Every word with which a clause that only chooses among solutions begins."""
        choices = [form for form in self.forms if form.choice]
        words = {word for form in choices for slot in form.slots for word in slot.choices}
        return frozenset(words | {form.head for form in choices if form.head})
