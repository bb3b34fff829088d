"""How drawings and other offices write a whole clause or line, and what that is here: the table is
`notations.txt`. Nothing in it is certain: what is offered is what solves."""

from __future__ import annotations

import re
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from functools import cache
from importlib import resources

from .words import SAYS_NOTHING

LONGEST = 300
"""Characters of a line beyond which no way of writing is looked for."""

_NUMBER = r"(?:\d+(?:\s+|-)\d+/\d+|\d+/\d+|\d*\.?\d+)(?:\s?(?:mm|in)\b|\")?"
_PLACES = {
    "<n>": rf"({_NUMBER}|[^\W\d][\w.]*)",
    "<d>": rf"({_NUMBER})",
    "<t>": r"([^\W\d][\w.]*)",
    "<a>": r"(-?\d+(?:\.\d+)?)\s*(?:°|deg\w*\.?)?",
    "<c>": r"(\d+)\s*(?:×|x|X|\*|-|off|no|No)?\.?",
    "<x>": r"\s*(?:×|x|X|\*|by)\s*",
    "<o>": r"\s*(?:Ø|⌀|ø|dia(?:m(?:eter)?)?\.?)\s*",
    "<r>": r"\s*(?:R|r|rad(?:ius)?\.?)\s*",
    "<about>": r"\s*(?:at|about|on|@|centre|center|from|round|around)\s+",
}


def _pattern(text: str) -> re.Pattern[str]:
    for place, written in _PLACES.items():
        text = text.replace(place, written)
    return re.compile(text)


@dataclass(frozen=True)
class Notation:
    """A way of writing clauses of some kinds, of any where none is named, or a whole line; with
    what it may mean, or what is told where one line cannot say it."""

    kinds: frozenset[str]
    is_line: bool
    pattern: re.Pattern[str]
    meant: tuple[str, ...]
    told: str

    def is_of(self, kind: str) -> bool:
        """Tell whether clauses of a kind may be written so."""
        return not self.is_line and (not self.kinds or kind in self.kinds)

    def is_in(self, line: str, kind: str, clauses: Sequence[str]) -> bool:
        """Tell whether a line, or any clause of it, is written so."""
        if self.is_line:
            return self.pattern.match(line) is not None
        return self.is_of(kind) and any(map(self.pattern.fullmatch, clauses))


@cache
def _table() -> tuple[Notation, ...]:
    """Return every way of writing that is known, read when the first is asked for."""
    text = resources.files(__package__).joinpath("notations.txt").read_text("utf-8")
    rows = (row.partition(" :: ") for row in text.splitlines() if row and not row.startswith("#"))
    return tuple(_read(of, rest) for of, _, rest in rows)


def _read(of: str, rest: str) -> Notation:
    written, _, meant = rest.partition(" => ")
    kinds = frozenset(() if of in ("*", "=") else of.split(", "))
    words = meant.removeprefix("! ") if meant.startswith("! ") else ""
    ways = () if words else tuple(meant.split(" || "))
    return Notation(kinds, of == "=", _pattern(written), ways, words)


NOTE = re.compile(r'(?<!thread)(?<!saying)(?<!titled)\s"[^"]*"\s*$')
"""What is noted of a line: it is the drafter's own, and says nothing of the part."""


def known_words(text: str) -> str:
    """Return what is told of a line that is known to want several, or what no line can say; nothing
    where no such is known."""
    line = NOTE.sub("", text[:LONGEST])
    kind, *clauses = line.partition(" = ")[2].split(", ")
    told = (each.told for each in _table() if each.told and each.is_in(line, kind, clauses))
    return next(told, "")


def notations(
    text: str, kinds: Mapping[str, Sequence[str]], datum: str = "O"
) -> Iterator[tuple[str, ...]]:
    """Yield what a line may be, written as this product writes it: for each way of writing that is
    known, what it may mean, the likeliest first.

    Parameters
    ----------
    text : str
    kinds : mapping
        The kinds each word of the trade may mean, their own names among them.
    datum : str, optional
    """
    if len(text) > LONGEST:
        return
    bare = NOTE.sub("", text)
    note = text[len(bare) :]
    for way in _meant(bare, kinds, datum):
        yield tuple(_noted(row, note) for row in way)


def _noted(row: str, note: str) -> str:
    """Return a line with a note, behind what it notes already."""
    own = NOTE.search(row)
    if not own or not note:
        return row + note
    both = ", ".join(each.strip().strip('"') for each in (own[0], note))
    return f'{row.removesuffix(own[0])} "{both}"'


def _meant(text: str, kinds: Mapping[str, Sequence[str]], datum: str) -> Iterator[tuple[str, ...]]:
    """Yield what a line without a note may be."""
    for notation in _table():
        found = notation.pattern.match(text) if notation.is_line else None
        if found:
            yield tuple(row.strip().rstrip(",") for row in _filled(notation.meant, found, datum))
    head, equals, rest = text.partition(" = ")
    if not equals:
        return
    kind, *clauses = rest.split(", ")
    if kind not in kinds:
        yield from _with_kind_found(head, kind, clauses, kinds)
    if kind not in kinds.get(kind, ()):
        return  # what a clause means is asked when the kind it is of has been found
    for at, clause in enumerate(clauses):
        for notation in _table():
            found = notation.pattern.fullmatch(clause.strip()) if notation.is_of(kind) else None
            if found:
                filled = _filled(notation.meant, found, datum)
                yield tuple(_with(head, kind, clauses, at, said) for said in filled)


@dataclass(frozen=True, slots=True)
class Within:
    """A word of the trade in what stands where a kind does, and what stands round it."""

    word: str
    before: str
    after: str


def within(said: str, words: Mapping[str, Sequence[str]]) -> list[Within]:
    """Return the words of the trade in what stands where a kind does: the longest it begins with,
    and every kind's own name further on (``tangent arc``)."""
    small = said.casefold()
    # Most of the words are not in it at all, and a pattern costs more than to look for one.
    places = (
        (each, re.search(rf"(?<!\S){re.escape(each)}(?!\S)", small))
        for each in words
        if each in small
    )
    there = [
        (place.start(), -len(each), each)
        for each, place in places
        if place and (not place.start() or each in words[each])
    ]
    found: dict[int, Within] = {}
    for start, length, each in sorted(there):
        rest = said[start - length :].strip()
        found.setdefault(start, Within(each, said[:start].strip(), rest))
    return list(found.values())


def _with_kind_found(
    head: str, said: str, clauses: Sequence[str], words: Mapping[str, Sequence[str]]
) -> Iterator[tuple[str, ...]]:
    """Yield a line in which more than the kind stands before its first comma with a word of the
    trade in it as its kind: what stands round that is a clause (``level line, through A``), or says
    nothing (``construction line``)."""
    for place in within(said, words):
        round_it = [
            part
            for part in (place.before, place.after)
            if part and not SAYS_NOTHING.issuperset(part.casefold().split())
        ]
        rest = (*round_it, *clauses)
        yield tuple(f"{head} = {', '.join((kind, *rest))}" for kind in words[place.word])


def _filled(ways: Sequence[str], found: re.Match[str], datum: str) -> Iterator[str]:
    """Yield what is meant with what was found in its places; what is measured from the datum only
    where nothing else was said."""
    known = [
        way
        for way in ways
        if all(found[int(place)] is not None for place in re.findall(r"\{(\d+)\}", way))
    ]
    said = [way for way in known if "{O}" not in way] or known
    groups = [UPRIGHT.get(each or "", each or "").strip() for each in found.groups()]
    for way in said:
        row = way.replace("{O}", datum).format("", *groups)
        yield re.sub(r"\b(above|below) of ", r"\1 ", row).strip()


UPRIGHT = {"up": "above", "down": "below"}
"""Ways that are places here."""


def _with(head: str, kind: str, clauses: list[str], at: int, said: str) -> str:
    """Return a line with a clause said otherwise, what is noted of it in quotes at its end."""
    own, _, note = (part.strip() for part in said.partition("|"))
    kept = (*clauses[:at], *((own,) if own else ()), *clauses[at + 1 :])
    row = f"{head} = {', '.join((kind, *kept))}"
    return f'{row} "{note}"' if note else row
