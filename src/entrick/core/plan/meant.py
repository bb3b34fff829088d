"""What a clause that fits no form may have been meant as: written as on a drawing, in other words, or in part."""

from __future__ import annotations

import re
from collections.abc import Container, Iterable, Iterator, Sequence, Set
from itertools import chain

from .document import Clause
from .forms import Form, Word, fit, match_clause
from .slots import NUMBERS, REFERENCES
from .terms import Binary, Name, Num, Term

Terms = tuple[Term, ...]

MOST_TERMS = 24
"""Terms of a clause up to which it is looked what it may have been meant as."""

OURS = {
    "horizontal": "level", "horizontally": "level", "vertical": "plumb", "vertically": "plumb",
    "perpendicular": "square", "tangent": "touching", "tangential": "touching", "center": "centre",
    "dia": "diameter", "diam": "diameter", "d": "diameter", "Ø": "diameter",
    "rad": "radius", "r": "radius", "R": "radius",
    "up": "above", "down": "below", "over": "above", "under": "below", "outside": "beside", "within": "inside",
    "wide": "width", "deep": "depth", "long": "length", "high": "height", "angle": "at", "x": "by",
}  # fmt: skip
"""Words and signs other offices use, and ours."""

LITTLE = frozenset({"of", "on", "to", "at", "in", "by", "with", "from", "the"})
"""Words that are easily one too many."""

BETWEEN = ("to", "and", "by")
"""Words that stand between two values, and are easily left out or taken for one another."""

DEGREES = frozenset({"degree", "degrees", "deg"})

LISTS = frozenset({"several", "walk", "lengths"})
"""Types of slot that take any number of words."""

_SIGNED = re.compile(r"([RØ])(\d+(?:\.\d+)?(?: \d+/\d+|/\d+)?)")


def meanings(clause: Clause, forms: Sequence[Form], givens: Set[str], things: Container[str]) -> list[str]:
    """Return what a clause that fits no form may have been meant as, each as it would be written.

    Parameters
    ----------
    clause : Clause
    forms : sequence of Form
        Those of its kind.
    givens, things : set of str
        Names of givens, and of what is drawn above.

    Returns
    -------
    list of str
        Of the nearest sort alone: in our words; with a word between two values; without one that is too many; with the
        words in front by which its kind knows what a value is.
    """
    if len(clause.items) > MOST_TERMS:
        return []
    written = list(dict.fromkeys(_readings(clause.items, givens)))

    def fits(items: Terms) -> bool:
        return bool(items) and match_clause(Clause(items), forms, 0, givens) is not None

    def needless(item: Term) -> bool:
        return isinstance(item, Name) and (
            item.text in LITTLE or (item.text not in givens and item.text.partition(".")[0] not in things)
        )

    def shorter(items: Terms) -> Iterator[Terms]:
        return ((*items[:at], *items[at + 1 :]) for at, item in enumerate(items) if needless(item))

    nearest: tuple[Iterable[Terms], ...] = (
        (items for items in written if items != clause.items),
        chain.from_iterable(map(_with_between, written)),
        chain.from_iterable(map(shorter, written)),
    )
    for sort in nearest:
        found = list(filter(fits, sort))
        if found:
            return list(dict.fromkeys(str(Clause(items)) for items in found))
    bared = [items[1:] for items in written if needless(items[0])]
    for bare in (*written, *bared, *chain.from_iterable(map(_with_another_between, written))):
        found = list(_with_lead(bare, forms, givens, things))
        if found:
            return list(dict.fromkeys(str(Clause(items)) for items in found))
    return []


def _readings(items: Terms, givens: Set[str]) -> Iterator[Terms]:
    """Return a clause as it is written, and in our words: without signs, with its word in front of a value."""
    yield items
    signed = _SIGNED.fullmatch(str(Clause(items)))
    if signed:
        items = (Name(signed[1]), Num(signed[2]))
    if len(items) > 1 and isinstance(items[-2], Num) and isinstance(items[-1], Name) and items[-1].text in DEGREES:
        items = (*items[:-2], Num(f"{items[-2].text}°"))
        yield items
    if isinstance(items[0], Binary) and items[0].sign == "*":
        items = (items[0].left, Name("by"), items[0].right, *items[1:])
        yield items
    ours = tuple(
        Name(OURS[item.text]) if isinstance(item, Name) and item.text in OURS and item.text not in givens else item
        for item in items
    )
    yield ours
    if len(ours) == 2 and isinstance(ours[1], Name) and not isinstance(ours[0], Name):
        yield ours[1], ours[0]


def _with_between(items: Terms) -> Iterator[Terms]:
    for place in range(1, len(items)):
        yield from ((*items[:place], Name(word), *items[place:]) for word in BETWEEN)


def _with_another_between(items: Terms) -> Iterator[Terms]:
    for place, item in enumerate(items):
        if isinstance(item, Name) and item.text in BETWEEN:
            yield from ((*items[:place], Name(word), *items[place + 1 :]) for word in BETWEEN)


def _with_lead(items: Terms, forms: Sequence[Form], givens: Set[str], things: Container[str]) -> Iterator[Terms]:
    """Return what values would be with the words in front that a form begins with, where they are of it beyond doubt:
    several have its word between them, a number is one or the name of a given, what is drawn is there."""

    def known(value: Term, type_: str) -> bool:
        if not isinstance(value, Name) or type_ not in NUMBERS | REFERENCES:
            return True
        return value.text in givens if type_ in NUMBERS else value.text.partition(".")[0] in things

    for form in forms:
        if form.choice or not form.lead or not items:
            continue
        said = 0
        while said < len(form.lead) - 1 and said < len(items) and items[said] == Name(form.lead[said]):
            said += 1
        bare = items[said:]
        slots = fit(bare, form.parts[len(form.lead) :], givens) if bare else None
        joined = any(isinstance(part, Word) and Name(part.text) in bare for part in form.parts)
        if slots is None or (len(bare) > 1 and not joined):
            continue
        types = {slot.name: slot.type for slot in form.slots}
        if all((types[name] not in LISTS or len(bare) == 1) and all(known(value, types[name]) for value in values)
               for name, values in slots.items()):  # fmt: skip
            yield (*map(Name, form.lead), *bare)
