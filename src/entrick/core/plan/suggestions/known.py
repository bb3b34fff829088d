"""What is known where a clause stands: the forms of its kind, and what has a name."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence, Set
from dataclasses import dataclass
from functools import cached_property
from itertools import chain

from ..document import Clause
from ..forms import Form, Word, match_clause
from ..slots import NUMBERS, REFERENCES
from ..terms import Name, Num, Term
from .readings import Terms, readings
from .words import BETWEEN, COUNTING, LITTLE, SIZING

Suits = Callable[[str, str], bool | None]
"""Whether a name is of something that suits a type of slot; None where nothing above has that
name."""


def unknown(_: str, __: str) -> bool | None:
    """Know no names."""
    return None


@dataclass(frozen=True)
class Known:
    """What is known.

    Attributes
    ----------
    forms : sequence of Form
        What a clause may be.
    all : sequence of Form
        Every form of the kind: its words are known by them.
    givens : set of str
    suits : callable
    strictly : bool
        Whether a name has to be of something that suits, or of anything at all.
    """

    forms: Sequence[Form]
    all: Sequence[Form]
    givens: Set[str]
    suits: Suits
    strictly: bool

    def fits(self, items: Terms) -> bool:
        """Tell whether a clause is one beyond doubt: a number is one, or the name of a given, and
        what is drawn is there."""
        match = match_clause(Clause(items), self.forms, 0, self.givens) if items else None
        return match is not None and self.suits_all(match.form, match.slots)

    def suits_all(self, form: Form, slots: Mapping[str, Terms]) -> bool:
        types = {slot.name: slot.type for slot in form.slots}
        return all(
            self._suits(value, types[name]) for name, values in slots.items() for value in values
        )

    def _suits(self, value: Term, type_: str) -> bool:
        if isinstance(value, Num):
            return (type_ == "angle") == ("°" in value.text)
        if not isinstance(value, Name) or type_ not in NUMBERS | REFERENCES:
            return True
        if type_ in NUMBERS:
            return value.text in self.givens
        suits = self.suits(value.text, type_)
        return suits is True or (suits is False and not self.strictly)

    def is_needless(self, item: Term) -> bool:
        """Tell whether a word may be one too many: it is no name of anything, and says nothing by
        itself."""
        return (
            isinstance(item, Name)
            and item.text.casefold() not in COUNTING | SIZING
            and (
                item.text in LITTLE
                or not (item.text.casefold() in self.words or self.is_named(item.text))
            )
        )

    def is_named(self, text: str) -> bool:
        """Tell whether a given or a thing above has a name."""
        return text in self.givens or self.suits(text, "several") is not None

    @cached_property
    def words(self) -> Mapping[str, str]:
        """Every word of the forms, by its small letters."""
        parts = [part for form in self.all for part in form.parts]
        words = chain.from_iterable(
            (part.text,) if isinstance(part, Word) else part.choices for part in parts
        )
        return {word.casefold(): word for word in words}

    def as_spelt(self, items: Terms) -> Terms:
        """Return a clause with the words of its kind in the letters they have: ``a4 Landscape`` is
        A4 landscape."""
        known = self.words
        return tuple(
            Name(known[item.text.casefold()])
            if isinstance(item, Name)
            and item.text.casefold() in known
            and not self.is_named(item.text)
            else item
            for item in items
        )

    @cached_property
    def between(self) -> tuple[str, ...]:
        """The words that stand between values: those that are easily mixed up, and those of the
        forms."""
        inner = (
            part.text
            for form in self.forms
            for part in form.parts[len(form.lead) : len(form.parts) - len(form.tail)]
            if isinstance(part, Word)
        )
        return tuple(dict.fromkeys((*BETWEEN, *inner)))

    def written(self, items: Terms) -> list[Terms]:
        """Return a clause in every way it may be written: its words in the letters they have, O for
        a nought that stands where a point is wanted, in our words."""
        spelt = self.as_spelt(items)
        datum = [tuple(Name("O") if item == Num("0") else item for item in spelt)]
        if Num("0") not in spelt or not self.suits("O", "point"):
            datum = []
        return list(dict.fromkeys((*datum, *readings(spelt, self.is_named))))
