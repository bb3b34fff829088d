"""Clause forms: how a kind declares the clauses it takes, and how written clauses are matched to them.

A form is a short pattern: words stand for themselves, ``[word]`` may be left out, ``{slot:type}`` takes a value.

>>> form = Form("{amount:length} {way:left/right} [of] {origin:point}")
>>> [str(part) for part in form.parts]
['{amount:length}', '{way:left/right}', '[of]', '{origin:point}']
"""

from __future__ import annotations

import re
from collections.abc import Container, Iterator, Mapping, Sequence, Set
from dataclasses import dataclass, field
from difflib import get_close_matches
from functools import cached_property
from itertools import chain, takewhile

from .document import Clause
from .errors import ClauseError
from .slots import NUMBERS, REFERENCES, SLOTS, lengths
from .terms import Arrow, Binary, Name, Ratio, Term, Text, write


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
        return "/".join(self.choices) or f"({self.expectation.removeprefix('a ').removeprefix('an ')})"

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
            names = [p.text for p in parts if isinstance(p, Word)] + [p.name for p in parts if isinstance(p, Slot)]
            object.__setattr__(self, "key", names[0])

    @cached_property
    def head(self) -> str:
        """The word the clause starts with, or "" when it starts with a value."""
        return self.parts[0].text if isinstance(self.parts[0], Word) else ""

    @cached_property
    def lead(self) -> tuple[str, ...]:
        """The words in front of the first value."""
        return tuple(part.text for part in takewhile(lambda part: isinstance(part, Word), self.parts))  # type: ignore[union-attr]

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


def match_clauses(
    clauses: Sequence[Clause],
    forms: Sequence[Form],
    kind: str,
    givens: Set[str] = frozenset(),
    things: Container[str] = frozenset(),
) -> tuple[Match, ...]:
    """Match every clause of a statement to one of its kind's forms; givens are the names known to be of numbers, things
    those of what is drawn.

    Raises
    ------
    ClauseError
        For a clause that fits no form, one said too often, or one that is missing.
    """
    matches: list[Match] = []
    for index, clause in enumerate(clauses):
        found = match_clause(clause, forms, index, givens)
        if found is None:
            raise _misfit(clause, index, forms, kind, givens, things)
        if sum(m.form.key == found.form.key for m in matches) >= found.form.most:
            times = "twice" if found.form.most == 1 else f"more than {found.form.most} times"
            raise ClauseError(f"{found.form.key} is said {times}; once is enough", index)
        matches.append(found)
    said = {m.form.key for m in matches}
    for form in forms:
        if form.needed and form.key not in said:
            raise ClauseError(f"{kind} needs {form.example}")
    return tuple(matches)


SAME = (
    (("centre",), ("centred", "on"), ("about",)),
    (("times",), ("times", "about"), ("times", "on"), ("about",), ("on",)),
)
"""Words for one idea: which of them a clause is declared with is of no account."""


def match_clause(clause: Clause, forms: Sequence[Form], index: int = 0, givens: Set[str] = frozenset()) -> Match | None:
    """Match one clause to the first form it fits, or to none.

    One that fits none may still be another wording of one: ``about A`` for ``centre A``. Where only a form fits in
    which a given stands for something drawn, it is that form, so that what is wrong can be said.
    """
    for known in (givens, frozenset[str]()) if givens else (givens,):
        for items in chain((clause.items,), _other_words(clause.items, givens)):
            for form in forms:
                slots = _fit(items, form.parts, known)
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
    many = next((words for words in sorted(times, key=len, reverse=True)
                 if count and rest[: len(words)] == tuple(map(Name, words))), None)  # fmt: skip
    if many and (not isinstance(count[0], Name | Text | Arrow | Ratio) or str(write(count[0])) in givens):
        yield from ((*count, *map(Name, words), *rest[len(many) :]) for words in times if words != many)


def _fit(items: tuple[Term, ...], parts: Sequence[Word | Slot], givens: Set[str]) -> dict[str, tuple[Term, ...]] | None:
    if not parts:
        return None if items else {}
    part, rest = parts[0], parts[1:]
    if isinstance(part, Word):
        if items and items[0] == Name(part.text):
            fitted = _fit(items[1:], rest, givens)
            if fitted is not None:
                return fitted
        return _fit(items, rest, givens) if part.optional else None
    for taken in lengths(part.type, items, givens):
        fitted = _fit(items[taken:], rest, givens)
        if fitted is not None:
            return {part.name: items[:taken], **fitted}
    return None


ELSEWHERE = {
    "horizontal": "level",
    "horizontally": "level",
    "vertical": "plumb",
    "vertically": "plumb",
    "perpendicular": "square",
    "tangent": "touching",
    "tangential": "touching",
    "center": "centre",
    "dia": "diameter",
    "rad": "radius",
    "r": "radius",
    "d": "diameter",
    "up": "above",
    "down": "below",
    "over": "above",
    "under": "below",
    "outside": "beside",
    "within": "inside",
    "x": "by",
}
"""Words other offices use, and ours."""


MOST_PARTED = 4
"""Clauses into which one is parted to see whether commas are missing."""

MOST_TERMS = 24
"""Terms of a clause up to which it is looked what it may have been meant as."""

MOST_MEANT = 4
"""Clauses that are told where what is written may be one of several."""

ALIKE = 0.7
"""How much of a word must agree with the beginning of a clause for it to be taken as that, misspelt (by eye)."""

MOST_HEADS = 16
"""Beginnings of clauses that are told where nothing alike is known."""


LITTLE = frozenset({"of", "on", "to", "at", "in", "by", "with", "from", "the"})
"""Words that are easily one too many."""


BETWEEN = ("to", "and", "by")
"""Words that stand between two values, and are easily left out."""


def _misfit(
    clause: Clause, index: int, forms: Sequence[Form], kind: str, givens: Set[str], things: Container[str]
) -> ClauseError:
    parted = _parted(clause.items, forms, MOST_PARTED)
    if parted is not None:
        said = ", ".join(str(Clause(items)) for items in parted)
        return ClauseError(f"{clause}: a comma is missing between two clauses: {said}", index, (str(clause), said))
    meant = list(dict.fromkeys(str(Clause(items)) for items in _nearly(clause.items, forms, givens, things)))
    if 0 < len(meant) <= MOST_MEANT:
        ways = [(str(clause), each) for each in meant]
        told = f"{clause}: did you mean {' or '.join(meant)}?"
        return ClauseError(told, index, ways[0]) if len(ways) == 1 else ClauseError(told, index, None, ways)
    first = clause.items[0]
    head = first.text if isinstance(first, Name) else ""
    alike = [form for form in forms if form.head == head or head in (w.text for w in form.parts if isinstance(w, Word))]
    if head and alike:
        return ClauseError(f"{clause}: expected {' or '.join(form.example for form in alike)}", index)
    heads = {form.head for form in forms if form.head} | {
        word for form in forms for slot in form.slots for word in slot.choices if len(form.parts) == 1
    }
    close = get_close_matches(head, heads, 1, ALIKE) if head else []
    ours = ELSEWHERE.get(head)
    if ours in heads:
        close = [ours]
    if close:
        return ClauseError(f"{kind} takes no clause {head}; did you mean {close[0]}?", index, (head, close[0]))
    plain = [form for form in forms if not form.choice]
    if len(plain) <= MOST_PARTED:
        return ClauseError(f"{clause}: {kind} takes {'; '.join(form.example for form in plain)}", index)
    begun = list(dict.fromkeys(form.head or form.example for form in plain))[:MOST_HEADS]
    return ClauseError(f"{clause}: the clauses of {kind} begin with {'; '.join(begun)}", index)


def _nearly(
    items: tuple[Term, ...], forms: Sequence[Form], givens: Set[str], things: Container[str]
) -> Iterator[tuple[Term, ...]]:
    """Return what a clause may have been meant as: without a little word that is one too many, with the word in front
    that its kind says, with the word between two values, with ``by`` where a product is written, in our words."""

    def fits(items: tuple[Term, ...]) -> bool:
        return match_clause(Clause(items), forms, 0, givens) is not None

    if len(items) > MOST_TERMS:
        return
    ours = tuple(Name(ELSEWHERE.get(item.text, item.text)) if isinstance(item, Name) else item for item in items)
    if ours[1:] != items[1:] and fits(ours):
        yield ours
    if isinstance(items[0], Binary) and items[0].sign == "*":
        sizes = (items[0].left, Name("by"), items[0].right, *items[1:])
        if fits(sizes):
            yield sizes
    shorter = [(*items[:place], *items[place + 1 :]) for place, item in enumerate(items) if _is_little(item)]
    between = ((*items[:place], Name(word), *items[place:]) for place in range(1, len(items)) for word in BETWEEN)
    whole = [*filter(fits, between)]
    yield from whole or filter(fits, shorter)
    for bare in (items, items[1:]) if _is_little(items[0]) else (items,):
        for form in forms:
            if form.head and not form.choice and bare and _is_plainly(bare, form, givens, things):
                yield (*map(Name, form.lead), *bare)


def _is_little(item: Term) -> bool:
    return isinstance(item, Name) and item.text in LITTLE


def _is_plainly(bare: tuple[Term, ...], form: Form, givens: Set[str], things: Container[str]) -> bool:
    """Tell whether values are of a form beyond doubt: several have its word between them, a number is one or the name
    of a given, what is drawn is there, and no list is needed that takes any words."""
    slots = _fit(bare, form.parts[len(form.lead) :], givens)
    joined = any(isinstance(part, Word) and Name(part.text) in bare for part in form.parts)
    if slots is None or (len(bare) > 1 and not joined):
        return False
    types = {slot.name: slot.type for slot in form.slots}

    def known(value: Term, type_: str) -> bool:
        if not isinstance(value, Name) or type_ not in NUMBERS | REFERENCES:
            return True
        return value.text in givens if type_ in NUMBERS else value.text.partition(".")[0] in things

    return all(
        (types[name] not in LISTS or len(bare) == 1) and all(known(value, types[name]) for value in values)
        for name, values in slots.items()
    )


LISTS = frozenset({"several", "walk", "lengths"})
"""Types of slot that take any number of words."""


def _parted(items: tuple[Term, ...], forms: Sequence[Form], most: int) -> tuple[tuple[Term, ...], ...] | None:
    """Return the clauses a run of terms is when commas are put between them; None where it is not several."""
    if most > 1:
        for cut in range(len(items) - 1, 0, -1):
            if match_clause(Clause(items[:cut]), forms) is None:
                continue
            if match_clause(Clause(items[cut:]), forms) is not None:
                return items[:cut], items[cut:]
            rest = _parted(items[cut:], forms, most - 1)
            if rest is not None:
                return items[:cut], *rest
    return None
