"""How a clause is written, as a list of rules: each gives the same clause written otherwise, or
nothing."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from itertools import chain

from ..document import Clause
from ..terms import Binary, Name, Num, Ratio, Term
from .words import DEGREES, LAID, OURS, RATIO, SCALES, SIGNED

Terms = tuple[Term, ...]
Spelling = Callable[[Terms], Terms | None]

MOST_TERMS = 8
"""Terms of a clause up to which it is looked what it may have been meant as."""


def sign_apart(items: Terms) -> Terms | None:
    """``R90`` is R 90."""
    signed = SIGNED.fullmatch(str(Clause(items)))
    return (Name(signed[1]), Num(signed[2])) if signed else None


def in_degrees(items: Terms) -> Terms | None:
    """``45 degrees`` is 45°."""
    match items:
        case (*before, Num(text=number), Name(text=word)) if word in DEGREES:
            return (*before, Num(f"{number}°"))
    return None


def scale_as_ratio(items: Terms) -> Terms | None:
    """``scale half`` and ``scale 1/2`` are scale 1:2."""
    match items:
        case (Name(text="scale") as scale, (Name() | Num()) as size, *_):
            ratio = SCALES.get(size.text) or size.text.replace("/", ":")
            return (scale, Ratio(ratio)) if RATIO.fullmatch(ratio) else None
    return None


def times_as_by(items: Terms) -> Terms | None:
    """``80 × 50`` is 80 by 50."""
    match items:
        case (Binary(sign="*") as product, *after):
            return (product.left, Name("by"), product.right, *after)
    return None


SPELLINGS: tuple[Spelling, ...] = (sign_apart, in_degrees, scale_as_ratio, times_as_by)
"""Ways of writing, each looked for in what the one before it gave."""


def in_our_words(items: Terms, is_named: Callable[[str], bool]) -> Terms:
    """``dia 40`` is diameter 40; the name of something above is no word."""
    return tuple(
        chain.from_iterable(
            map(Name, OURS[item.text].split())
            if isinstance(item, Name) and item.text in OURS and not is_named(item.text)
            else (item,)
            for item in items
        )
    )


def as_paper_lies(items: Terms) -> Terms:
    """``A4 horizontal`` is A4 landscape."""
    return tuple(
        Name(LAID[item.text]) if isinstance(item, Name) and item.text in LAID else item
        for item in items
    )


def readings(items: Terms, is_named: Callable[[str], bool]) -> Iterator[Terms]:
    """Yield a clause as it is written, and in our words: without signs, with its word in front of a
    value."""
    yield items
    if len(items) > MOST_TERMS:
        return
    for spelling in SPELLINGS:
        spelt = spelling(items)
        if spelt is not None:
            items = spelt
            yield items
    ours = in_our_words(items, is_named)
    yield ours
    yield as_paper_lies(items)
    if len(ours) == 2 and isinstance(ours[1], Name) and not isinstance(ours[0], Name):
        yield ours[1], ours[0]
