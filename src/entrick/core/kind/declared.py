"""What a kind of construction declares of itself."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

from ..drawing.strokes import Role
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

METHOD = "by"
"""Key of the clauses that choose a method."""


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
    about : str
        What stands of it in the handbook, as Markdown.
    shown : str
        A whole plan that shows it, in canonical spacing; the handbook draws it.
    lines_in : Role, optional
        As what it lines in what is clicked piece by piece or pointed at region by region.
    follows : bool
        Whether its clauses say, one after another, what a follower does.
    also : tuple of str
        What it is called elsewhere, or reached by (common practice, no source).
    """

    name: str
    group: str
    summary: str
    example: str
    mistake: str
    forms: tuple[Form, ...]
    construct: Callable[[Args], Made]
    about: str
    shown: str
    lines_in: Role | None = None
    follows: bool = False
    also: tuple[str, ...] = ()

    @property
    def by_clicking(self) -> bool:
        """Whether it is said by clicking pieces one after another."""
        return any(
            form.needed and slot.type == "walk" for form in self.forms for slot in form.slots
        )

    @property
    def has_methods(self) -> bool:
        """Whether a clause of it chooses among methods of construction."""
        return any(form.key == METHOD for form in self.forms)

    @property
    def choosing_words(self) -> frozenset[str]:
        """Every word with which a clause that only chooses among solutions begins."""
        choices = [form for form in self.forms if form.choice]
        words = {word for form in choices for slot in form.slots for word in slot.choices}
        return frozenset(words | {form.head for form in choices if form.head})
