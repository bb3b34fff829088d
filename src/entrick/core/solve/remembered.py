"""What statements came to before. A statement that is the same, on the same line, and uses the same
comes to the same: so an edit costs what it changes, and what depends on that. Where it uses another
thing that is the same to it (a line from the centre of a circle whose radius changes), it makes the
very same, and nothing that follows notices.

What is drawn is told apart by its serial number: a thing that was remembered is the thing itself,
and one made anew is another. Sizes are compared by value. Mistakes are not remembered, since their
words may name anything above."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from typing import cast

from ..kind import Made
from ..kind.figure import Item
from ..memo import MEMO, Memo, remembered
from ..plan.document import Chain, Given, Statement
from ..plan.terms import names
from .solution import Entry

Key = tuple[object, ...]


@dataclass(frozen=True, slots=True)
class Remembered:
    """What a statement came to.

    Attributes
    ----------
    entry : Entry
    item : Item or None
        None where it adds nothing that could be referred to.
    asked : int
        Pieces it asked for.
    """

    entry: Entry
    item: Item | None
    asked: int


RESULTS = cast(Memo[Remembered], MEMO)


def recall(key: Key) -> Remembered | None:
    """Return what was remembered under a key."""
    return RESULTS.get(key)


def remember(key: Key, found: Remembered) -> None:
    """Remember what a statement came to."""
    RESULTS.put(key, found, 20 + found.asked)


def the_same(number: int, statement: Statement, made: Made) -> Remembered | None:
    """Return what a statement came to when it made the very same before, from other things that
    were alike to it."""
    return RESULTS.get((the_same, number, statement.serial, made.serial))


def note(found: Remembered) -> Remembered:
    """Note what a statement came to, by what it made."""
    entry = found.entry
    assert entry.made is not None
    key = (the_same, entry.line, entry.statement.serial, entry.made.serial)
    return RESULTS.put(key, found, 20 + found.asked)


@remembered(2)
def names_used(statement: Statement) -> tuple[tuple[str, str], ...]:
    """Return every name a statement uses, each with the name of the thing it is a part of (or its
    own)."""
    used = {name for clause in statement.clauses for item in clause.items for name in names(item)}
    return tuple((name, name.partition(".")[0]) for name in sorted(used))


def owners(content: Given | Chain | Statement) -> Iterator[str]:
    """Return the names of the givens and things that a line uses."""
    match content:
        case Statement():
            return (owner for _, owner in names_used(content))
        case Given(value=value):
            return (name.partition(".")[0] for name in names(value))
    links = (*content.links, content.overall)
    return (name.partition(".")[0] for link in links if link is not None for name in names(link))
