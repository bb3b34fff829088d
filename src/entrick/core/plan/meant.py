"""What a clause that fits no form may have been meant as: written as on a drawing, in other words,
or in part."""

from __future__ import annotations

import re
from collections.abc import Callable, Iterable, Iterator, Mapping, Sequence, Set
from dataclasses import dataclass
from functools import cached_property
from itertools import chain

from .document import Clause
from .forms import Form, Word, fit, match_clause
from .slots import NUMBERS, REFERENCES
from .terms import Binary, Name, Num, Ratio, Term

Terms = tuple[Term, ...]

MOST_TERMS = 8
"""Terms of a clause up to which it is looked what it may have been meant as."""

OURS = {
    "horizontal": "level",
    "horizontally": "level",
    "vertical": "plumb",
    "vertically": "plumb",
    "perpendicular": "square",
    "tangent": "touching",
    "tangential": "touching",
    "center": "centre",
    "dia": "diameter",
    "diam": "diameter",
    "d": "diameter",
    "D": "diameter",
    "Ø": "diameter",
    "rad": "radius",
    "r": "radius",
    "R": "radius",
    "up": "above",
    "down": "below",
    "over": "above",
    "under": "below",
    "outside": "beside",
    "external": "beside",
    "within": "inside",
    "internal": "inside",
    "wide": "width",
    "deep": "depth",
    "long": "length",
    "high": "height",
    "angle": "at",
    "x": "by",
    "AF": "across flats",
    "AC": "across corners",
}
"""Words and signs other offices use, and ours."""

LITTLE = frozenset({"of", "on", "to", "at", "in", "by", "with", "from", "the"})
"""Words that are easily one too many."""

BETWEEN = ("to", "and", "by")
"""Words that stand between two values, and are easily left out or taken for one another."""

DEGREES = frozenset({"degree", "degrees", "deg"})

LISTS = frozenset({"several", "walk", "lengths"})
"""Types of slot that take any number of words."""

_SIGNED = re.compile(r"([RrØDd])(\d+(?:\.\d+)?(?: \d+/\d+|/\d+)?)")


_RATIO = re.compile(r"\d+:\d+")

SCALES = {"full": "1:1", "half": "1:2", "quarter": "1:4", "double": "2:1", "twice": "2:1"}
"""Scales by their names (common practice, no source)."""

LAID = {"horizontal": "landscape", "vertical": "portrait", "upright": "portrait"}
"""Which way round paper lies, in other words."""


Suits = Callable[[str, str], bool | None]
"""Whether a name is of something that suits a type of slot; None where nothing above has that
name."""


def unknown(_: str, __: str) -> bool | None:
    """Know no names."""
    return None


def meanings(
    clause: Clause,
    forms: Sequence[Form],
    givens: Set[str],
    suits: Suits = unknown,
    first: Sequence[Sequence[Form]] = (),
) -> list[str]:
    """Return what a clause that fits no form may have been meant as, each as it would be written.

    Parameters
    ----------
    clause : Clause
    forms : sequence of Form
        Those of its kind.
    givens : set of str
        Names of givens.
    suits : callable, optional
        What is drawn above.
    first : sequence of sequence of Form, optional
        Among which of them it is looked before all.

    Returns
    -------
    list of str
        Of the nearest sort alone: in our words; with a word between two values; without one that is
        too many; with the words in front by which its kind knows what a value is. Where nothing of
        a type that is wanted has the name that is written, those in which anything has.
    """
    if len(clause.items) > MOST_TERMS:
        return []
    for strictly in (True, False):
        found = _Meant(forms, forms, givens, suits, strictly).of(clause.items)
        if found:
            preferred = (
                _Meant(some, forms, givens, suits, strictly).of(clause.items)
                for some in first
                if some
            )
            return list(dict.fromkeys(next(filter(None, preferred), found)))
    return []


def fits(clause: Clause, forms: Sequence[Form], givens: Set[str], suits: Suits) -> bool:
    """Tell whether a clause is one beyond doubt, and what it names is there and suits it; a list is
    none, as it takes any words."""
    match = match_clause(clause, forms, 0, givens)
    is_list = match is not None and any(slot.type in LISTS for slot in match.form.slots)
    return not is_list and _Meant(forms, forms, givens, suits, strictly=True).fits(clause.items)


@dataclass(frozen=True)
class _Meant:
    """Looks for what a clause may mean, given what is known: a form of some, by the words of all of
    its kind."""

    forms: Sequence[Form]
    all: Sequence[Form]
    givens: Set[str]
    suits: Suits
    strictly: bool

    def of(self, items: Terms, whole: bool = True) -> list[str]:
        """Return what terms may mean; as two clauses as well where they are the whole of one."""
        said = self._as_spelt(items)
        written = list(dict.fromkeys((*self._with_datum(said), *readings(said, self.givens))))
        nearest: tuple[Iterable[Terms], ...] = (
            (each for each in written if each != items),
            chain.from_iterable(map(self._with_between, written)),
            chain.from_iterable(map(self._shorter, written)),
            chain.from_iterable(map(self._with_another_between, written)),
        )
        for sort in nearest:
            found = [str(Clause(each)) for each in sort if self.fits(each)]
            if found:
                return found
        parted = list(self._parted(items)) if whole else []
        if parted:
            return parted
        bared = [each[1:] for each in written if len(each) > 1 and self._needless(each[0])]
        joined = chain.from_iterable(map(self._with_between, written))
        others = chain.from_iterable(map(self._with_another_between, (*written, *bared)))
        for bare in dict.fromkeys((*written, *bared, *joined, *others)):
            found = [str(Clause(each)) for each in self._with_lead(bare)]
            if found:
                return found
        shorter = chain.from_iterable(map(self._shorter, written))
        shared = [said for each in (*written, *shorter) for said in self._shared_out(each)]
        return shared or [str(Clause(each)) for said in written for each in self._with_tail(said)]

    def fits(self, items: Terms) -> bool:
        """Tell whether a clause is one beyond doubt: a number is one, or the name of a given, and
        what is drawn is there."""
        match = match_clause(Clause(items), self.forms, 0, self.givens) if items else None
        return match is not None and self._known(match.form, match.slots)

    def _known(self, form: Form, slots: Mapping[str, Terms]) -> bool:
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

    def _needless(self, item: Term) -> bool:
        """Tell whether a word may be one too many: it is no name of anything, and says nothing by
        itself."""
        return isinstance(item, Name) and (
            item.text in LITTLE
            or not (item.text.casefold() in self._words or self._is_named(item.text))
        )

    def _is_named(self, text: str) -> bool:
        """Tell whether a given or a thing above has a name."""
        return text in self.givens or self.suits(text, "several") is not None

    @cached_property
    def _words(self) -> Mapping[str, str]:
        """Every word of the forms, by its small letters."""
        parts = [part for form in self.all for part in form.parts]
        words = chain.from_iterable(
            (part.text,) if isinstance(part, Word) else part.choices for part in parts
        )
        return {word.casefold(): word for word in words}

    def _as_spelt(self, items: Terms) -> Terms:
        """Return a clause with the words of its kind in the letters they have: ``a4 Landscape`` is
        A4 landscape."""
        known = self._words
        return tuple(
            Name(known[item.text.casefold()])
            if isinstance(item, Name)
            and item.text.casefold() in known
            and not self._is_named(item.text)
            else item
            for item in items
        )

    def _with_datum(self, items: Terms) -> Iterator[Terms]:
        """Return a clause with the letter O for every nought that stands where a point is
        wanted."""
        if Num("0") in items and self.suits("O", "point"):
            yield tuple(Name("O") if item == Num("0") else item for item in items)

    def _parted(self, items: Terms) -> Iterator[str]:
        """Return a clause that ends or begins with a word that is one by itself, as two."""
        for word, rest in ((items[-1], items[:-1]), (items[0], items[1:])):
            if (
                isinstance(word, Name)
                and rest
                and match_clause(Clause((word,)), self.all, 0, self.givens)
            ):
                yield from (f"{said}, {word.text}" for said in self.of(rest, whole=False))

    def _shorter(self, items: Terms) -> Iterator[Terms]:
        return (
            (*items[:at], *items[at + 1 :]) for at, item in enumerate(items) if self._needless(item)
        )

    @cached_property
    def _between(self) -> tuple[str, ...]:
        """The words that stand between values: those that are easily mixed up, and those of the
        forms."""
        inner = (
            part.text
            for form in self.forms
            for part in form.parts[len(form.lead) : len(form.parts) - len(form.tail)]
            if isinstance(part, Word)
        )
        return tuple(dict.fromkeys((*BETWEEN, *inner)))

    def _with_between(self, items: Terms) -> Iterator[Terms]:
        for place in range(1, len(items)):
            yield from ((*items[:place], Name(word), *items[place:]) for word in self._between)

    def _with_another_between(self, items: Terms) -> Iterator[Terms]:
        for place, item in enumerate(items[1:-1], 1):
            if isinstance(item, Name) and (item.text in self._between or self._needless(item)):
                yield from (
                    (*items[:place], Name(word), *items[place + 1 :]) for word in self._between
                )

    def _with_lead(self, items: Terms) -> Iterator[Terms]:
        """Return what values would be with the words in front that a form begins with; several have
        its word between them, and no list is needed that takes any words."""
        for form in self.forms:
            if form.choice or not form.lead or not items:
                continue
            said = 0
            while (
                said < len(form.lead) - 1
                and said < len(items)
                and items[said] == Name(form.lead[said])
            ):
                said += 1
            bare = items[said:]
            slots = fit(bare, form.parts[len(form.lead) :], self.givens) if bare else None
            if slots is None:
                continue
            joined = any(isinstance(part, Word) and Name(part.text) in bare for part in form.parts)
            if len(bare) > 1 and (not joined or any(slot.type in LISTS for slot in form.slots)):
                continue
            if self._known(form, slots):
                yield (*map(Name, form.lead), *bare)

    def _with_tail(self, items: Terms) -> Iterator[Terms]:
        """Return what a value alone would be with the words that a form ends with."""
        for form in self.forms:
            if len(form.parts) == 1 + len(form.tail) and form.tail and not form.choice:
                slots = fit(items, form.parts[:1], self.givens)
                if slots is not None and self._known(form, slots):
                    yield (*items, *map(Name, form.tail))

    def _shared_out(self, items: Terms) -> Iterator[str]:
        """Return a clause that says of two things what is said of one at a time, as two clauses."""
        for place, item in enumerate(items):
            if item == Name("and") and 1 < place < len(items) - 1:
                first, second = items[:place], (*items[: place - 1], *items[place + 1 :])
                if self.fits(first) and self.fits(second):
                    yield f"{Clause(first)}, {Clause(second)}"


def readings(items: Terms, givens: Set[str]) -> Iterator[Terms]:
    """Yield a clause as it is written, and in our words: without signs, with its word in front of a
    value."""
    yield items
    if len(items) > MOST_TERMS:
        return
    signed = _SIGNED.fullmatch(str(Clause(items)))
    if signed:
        items = (Name(signed[1]), Num(signed[2]))
    if (
        len(items) > 1
        and isinstance(items[-2], Num)
        and isinstance(items[-1], Name)
        and items[-1].text in DEGREES
    ):
        items = (*items[:-2], Num(f"{items[-2].text}°"))
        yield items
    if items[0] == Name("scale") and len(items) > 1 and isinstance(items[1], Name | Num):
        ratio = SCALES.get(items[1].text) or items[1].text.replace("/", ":")
        if _RATIO.fullmatch(ratio):
            yield items[0], Ratio(ratio)
    if isinstance(items[0], Binary) and items[0].sign == "*":
        items = (items[0].left, Name("by"), items[0].right, *items[1:])
        yield items
    ours: Terms = tuple(
        chain.from_iterable(
            map(Name, OURS[item.text].split())
            if isinstance(item, Name) and item.text in OURS and item.text not in givens
            else (item,)
            for item in items
        )
    )
    yield ours
    yield tuple(
        Name(LAID[item.text]) if isinstance(item, Name) and item.text in LAID else item
        for item in items
    )
    if len(ours) == 2 and isinstance(ours[1], Name) and not isinstance(ours[0], Name):
        yield ours[1], ours[0]
