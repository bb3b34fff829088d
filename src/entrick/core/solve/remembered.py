"""What statements came to before. A statement that is the same, on the same line, and uses the same
comes to the same: so an edit costs what it changes, and what depends on that. Where it uses another
thing that is the same to it (a line from the centre of a circle whose radius changes), it makes the
very same, and nothing that follows notices.

What is drawn is compared by identity: a thing that was remembered is the thing itself, and one made
anew is another. Sizes are compared by value. Mistakes are not remembered, since their words may
name anything above."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from ..kept import KEPT_PIECES, Kept
from ..kind import Made
from ..kind.figure import Item
from ..plan.document import Chain, Given, Statement
from ..plan.terms import names
from .solution import Entry, Solution

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


_KEPT: Kept[Remembered] = Kept(KEPT_PIECES)
_SAME: Kept[Remembered] = Kept(KEPT_PIECES)
_USED: Kept[tuple[tuple[str, str], ...]] = Kept(8192)


LAST: list[Solution] = []
"""Plans that were solved last, the newest first; none with a mistake."""

MOST_LAST = 2
"""The plan at hand, and that which its dimensions are held against."""


def solved_last(found: Solution) -> None:
    """Note which plan was solved last."""
    LAST.insert(0, found)
    del LAST[MOST_LAST:]


def recall(key: Key) -> Remembered | None:
    """Return what was remembered under a key."""
    return _KEPT.recall(key)


def remember(key: Key, found: Remembered, used: list[object]) -> None:
    """Keep what a statement came to, and hold what it stands on, so that nothing else can have the
    identity by which that is known."""
    _KEPT.keep(key, found, (found, used), 20 + found.asked)


def the_same(number: int, statement: Statement, made: Made) -> Remembered | None:
    """Return what a statement came to when it made the very same before, from other things that
    were alike to it."""
    return _SAME.recall((number, id(statement), id(made)))


def note(found: Remembered) -> Remembered:
    """Note what a statement came to, by what it made."""
    entry = found.entry
    return _SAME.keep(
        (entry.line, id(entry.statement), id(entry.made)), found, found, 20 + found.asked
    )


def forget() -> None:
    """Begin anew: the next plan is solved as the first."""
    _KEPT.forget()
    _SAME.forget()
    _USED.forget()
    LAST.clear()


def names_used(statement: Statement) -> tuple[tuple[str, str], ...]:
    """Return every name a statement uses, each with the name of the thing it is a part of (or its
    own)."""
    known = _USED.recall(id(statement))
    if known is None:
        used = sorted(
            {name for clause in statement.clauses for item in clause.items for name in names(item)}
        )
        known = _USED.keep(
            id(statement), tuple((name, name.partition(".")[0]) for name in used), statement
        )
    return known


def owners(content: Given | Chain | Statement) -> Iterator[str]:
    """Return the names of the givens and things that a line uses."""
    match content:
        case Statement():
            return (owner for _, owner in names_used(content))
        case Given(value=value):
            return (name.partition(".")[0] for name in names(value))
    links = (*content.links, content.overall)
    return (name.partition(".")[0] for link in links if link is not None for name in names(link))
