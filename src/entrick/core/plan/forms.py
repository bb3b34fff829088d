"""Clause forms: how a kind declares the clauses it takes, and how written clauses are matched to
them.

A form is a short pattern: words stand for themselves, ``[word]`` may be left out, ``{slot:type}``
takes a value.

>>> form = Form("{amount:length} {way:left/right} [of] {origin:point}")
>>> [str(part) for part in form.parts]
['{amount:length}', '{way:left/right}', '[of]', '{origin:point}']
"""

from __future__ import annotations

import re
from collections.abc import Iterable, Iterator, Mapping, Sequence, Set
from dataclasses import dataclass, field
from functools import cached_property
from itertools import chain

from .document import Clause
from .slots import REFERENCES, SLOTS, lengths
from .terms import Arrow, Name, Ratio, Term, Text, write


@dataclass(frozen=True, slots=True)
class Word:
    """A literal word of a pattern."""

    text: str
    optional: bool = False

    def __str__(self) -> str:
        return f"[{self.text}]" if self.optional else self.text


@dataclass(frozen=True, slots=True)
class Slot:
    """A place in a pattern for a value."""

    name: str
    type: str

    @property
    def choices(self) -> tuple[str, ...]:
        """The words the slot takes, where it takes only certain words."""
        return tuple(self.type.split("/")) if self.type not in SLOTS else ()

    @property
    def expectation(self) -> str:
        """What the slot takes, in the trade's words."""
        known = SLOTS.get(self.type)
        return known.expectation if known else "one of " + ", ".join(self.choices)

    @property
    def is_reference(self) -> bool:
        """Whether it takes the name of something drawn."""
        return self.type in REFERENCES

    @property
    def takes_one(self) -> bool:
        """Whether it takes the name of one thing drawn, and no more."""
        return self.is_reference and self.type not in ("walk", "several")

    @property
    def shown(self) -> str:
        """The slot as a person reads it in a pattern."""
        return (
            "/".join(self.choices) or f"({self.expectation.removeprefix('a ').removeprefix('an ')})"
        )

    def __str__(self) -> str:
        return "{" + f"{self.name}:{self.type}" + "}"


@dataclass(frozen=True)
class Form:
    """One clause a kind takes.

    Attributes
    ----------
    pattern : str
    key : str
        Name of the clause; its first word when not given.
    needed : bool
        Whether a statement of the kind must have it.
    most : int
        How often it may be said.
    choice : bool
        Whether the clause only chooses among several solutions.
    """

    pattern: str
    key: str = ""
    needed: bool = False
    most: int = 1
    choice: bool = False
    parts: tuple[Word | Slot, ...] = field(init=False, default=())

    def __post_init__(self) -> None:
        parts = tuple(_part(text) for text in re.findall(r"\{[^}]*\}|\S+", self.pattern))
        object.__setattr__(self, "parts", parts)
        if not self.key:
            names = [p.text for p in parts if isinstance(p, Word)] + [
                p.name for p in parts if isinstance(p, Slot)
            ]
            object.__setattr__(self, "key", names[0])

    @cached_property
    def head(self) -> str:
        """The word the clause starts with, or "" when it starts with a value."""
        return self.parts[0].text if isinstance(self.parts[0], Word) else ""

    @cached_property
    def lead(self) -> tuple[str, ...]:
        """The words in front of the first value."""
        return tuple(_words(self.parts))

    @cached_property
    def tail(self) -> tuple[str, ...]:
        """The words behind the last value."""
        return tuple(_words(self.parts[::-1]))[::-1]

    @cached_property
    def slots(self) -> tuple[Slot, ...]:
        """The value slots, in order."""
        return tuple(part for part in self.parts if isinstance(part, Slot))

    @property
    def example(self) -> str:
        """The pattern as a person reads it: ``centre (point)``."""
        return " ".join(part.shown if isinstance(part, Slot) else part.text for part in self.parts)


def _part(text: str) -> Word | Slot:
    if text.startswith("{"):
        name, _, kind = text[1:-1].partition(":")
        return Slot(name, kind)
    if text.startswith("["):
        return Word(text[1:-1], True)
    return Word(text)


@dataclass(frozen=True, slots=True)
class Match:
    """A written clause matched to its form: the raw items of every slot."""

    form: Form
    clause: int
    slots: Mapping[str, tuple[Term, ...]]


SAME = (
    (("centre",), ("centred", "on"), ("about",)),
    (("times",), ("times", "about"), ("times", "on"), ("about",), ("on",)),
)
"""Words for one idea: which of them a clause is declared with is of no account."""


def match_clause(
    clause: Clause, forms: Sequence[Form], index: int = 0, givens: Set[str] = frozenset()
) -> Match | None:
    """Match one clause to the first form it fits, or to none.

    One that fits none may still be another wording of one: ``about A`` for ``centre A``. Where only
    a form fits in which a given stands for something drawn, it is that form, so that what is wrong
    can be said."""
    for known in (givens, frozenset[str]()) if givens else (givens,):
        for items in chain((clause.items,), _other_words(clause.items, givens)):
            for form in forms:
                slots = fit(items, form.parts, known)
                if slots is not None:
                    return Match(form, index, slots)
    return None


def _other_words(items: tuple[Term, ...], givens: Set[str]) -> Iterator[tuple[Term, ...]]:
    """Return a clause in the other words of the same idea: where its centre is, how many times."""
    ideas, times = SAME
    head = next((words for words in ideas if items[: len(words)] == tuple(map(Name, words))), None)
    if head:
        yield from ((*map(Name, words), *items[len(head) :]) for words in ideas if words != head)
    count, rest = items[:1], items[1:]
    many = next(
        (
            words
            for words in sorted(times, key=len, reverse=True)
            if count and rest[: len(words)] == tuple(map(Name, words))
        ),
        None,
    )
    if many and (
        not isinstance(count[0], Name | Text | Arrow | Ratio) or str(write(count[0])) in givens
    ):
        yield from (
            (*count, *map(Name, words), *rest[len(many) :]) for words in times if words != many
        )


def fit(
    items: tuple[Term, ...], parts: Sequence[Word | Slot], givens: Set[str]
) -> dict[str, tuple[Term, ...]] | None:
    """Return the terms that fill each slot of the parts of a form, all of them used; None where
    they do not fit."""
    if not parts:
        return None if items else {}
    part, rest = parts[0], parts[1:]
    if isinstance(part, Word):
        if items and items[0] == Name(part.text):
            fitted = fit(items[1:], rest, givens)
            if fitted is not None:
                return fitted
        return fit(items, rest, givens) if part.optional else None
    for taken in lengths(part.type, items, givens):
        fitted = fit(items[taken:], rest, givens)
        if fitted is not None:
            return {part.name: items[:taken], **fitted}
    return None


def _words(parts: Iterable[Word | Slot]) -> Iterator[str]:
    """Yield the words that parts begin with."""
    for part in parts:
        if not isinstance(part, Word):
            return
        yield part.text
