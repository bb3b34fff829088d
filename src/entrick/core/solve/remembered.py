"""What statements came to before. A statement that is the same, on the same line, and uses the same comes to the same:
so an edit costs what it changes, and what depends on that.

What is drawn is compared by identity: a thing that was remembered is the thing itself, and one made anew is another.
Sizes are compared by value. Mistakes are not remembered, since their words may name anything above.
"""

from __future__ import annotations

from dataclasses import dataclass

from ..allowance import KEPT_PIECES
from ..kind.figure import Item
from ..plan.document import Statement
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
    statement : Statement
    used : tuple of Item
        What it stands on. Held, so that nothing else can have the identity by which they are known.
    """

    entry: Entry
    item: Item | None
    asked: int
    statement: Statement
    used: tuple[Item, ...]


_KEPT: dict[Key, Remembered] = {}
_USED: dict[int, tuple[Statement, frozenset[str]]] = {}
_weight = 0


def recall(key: Key) -> Remembered | None:
    """Return what was remembered under a key."""
    return _KEPT.get(key)


def remember(key: Key, found: Remembered) -> None:
    """Keep what a statement came to, as long as all that is kept is no more than so many pieces; then begin anew."""
    global _weight
    if _weight > KEPT_PIECES:
        forget()
    _KEPT[key] = found
    _weight += 20 + found.asked


def forget() -> None:
    """Begin anew: the next plan is solved as the first."""
    global _weight
    _KEPT.clear()
    _USED.clear()
    _weight = 0


def names_used(statement: Statement) -> frozenset[str]:
    """Return every name a statement uses."""
    known = _USED.get(id(statement))
    if known is None or known[0] is not statement:
        known = (statement, frozenset(name for c in statement.clauses for item in c.items for name in names(item)))
        if len(_USED) > 8192:
            _USED.clear()
        _USED[id(statement)] = known
    return known[1]
