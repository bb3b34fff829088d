"""What stands in a clause: numbers as written, names, sums and products, texts, arrows and
ratios."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from dataclasses import dataclass

from ..memo import Distinct

DEEPEST = 40
"""Nesting of brackets and operations a single expression may have."""


@dataclass(frozen=True, slots=True)
class Num(Distinct):
    """A number as written."""

    text: str


@dataclass(frozen=True, slots=True)
class Name:
    """A name, perhaps with dotted parts: a given, a reference, or a word of a clause."""

    text: str


@dataclass(frozen=True, slots=True)
class Negative:
    """The number below nought."""

    inner: Expression


@dataclass(frozen=True, slots=True)
class Bracket:
    """A bracketed expression, kept so that the text comes back as written."""

    inner: Expression


@dataclass(frozen=True, slots=True)
class Call:
    """A function of one expression."""

    function: str
    inner: Expression


@dataclass(frozen=True, slots=True)
class Binary:
    """Two expressions with + - * / between them."""

    left: Expression
    sign: str
    right: Expression


Expression = Num | Name | Negative | Bracket | Call | Binary


@dataclass(frozen=True, slots=True)
class Text:
    """A quoted string in a clause."""

    text: str


@dataclass(frozen=True, slots=True)
class Arrow:
    """The ``>`` between two pieces of a walk."""


@dataclass(frozen=True, slots=True)
class Ratio:
    """A scale such as 1:2."""

    text: str


Term = Expression | Text | Arrow | Ratio


def write(item: Term) -> str:
    """Return the canonical spelling of an expression or clause item."""
    match item:
        case Num(text) | Name(text) | Ratio(text):
            return text
        case Text(text):
            return f'"{text}"'
        case Arrow():
            return ">"
        case Negative(inner):
            return f"-{write(inner)}"
        case Bracket(inner):
            return f"({write(inner)})"
        case Call(function, inner):
            return f"{function}({write(inner)})"
        case Binary(left, sign, right):
            space = " " if sign in "+-" else ""
            return f"{write(left)}{space}{sign}{space}{write(right)}"


def depth(item: Term) -> int:
    """Return how deeply an expression is nested."""
    match item:
        case Negative(inner) | Bracket(inner) | Call(_, inner):
            return 1 + depth(inner)
        case Binary(left, _, right):
            return 1 + max(depth(left), depth(right))
    return 1


def names(item: Term) -> frozenset[str]:
    """Return every name an expression uses."""
    match item:
        case Name(text):
            return frozenset({text})
        case Negative(inner) | Bracket(inner) | Call(_, inner):
            return names(inner)
        case Binary(left, _, right):
            return names(left) | names(right)
    return frozenset()


def rewrite(item: Term, change: Callable[[Expression], Expression | None]) -> Term:
    """Return an item in which parts are changed: `change` gives the new part, or None to look
    inside the old one."""
    if isinstance(item, Text | Arrow | Ratio):
        return item
    return _rewritten(item, change)


def _rewritten(item: Expression, change: Callable[[Expression], Expression | None]) -> Expression:
    new = change(item)
    if new is not None:
        return new
    match item:
        case Negative(inner):
            return Negative(_rewritten(inner, change))
        case Bracket(inner):
            return Bracket(_rewritten(inner, change))
        case Call(function, inner):
            return Call(function, _rewritten(inner, change))
        case Binary(left, sign, right):
            return Binary(_rewritten(left, change), sign, _rewritten(right, change))
    return item


def terms(item: Term) -> Iterator[Num]:
    """Return the numbers that stand for a size of their own: alone, or added to or taken from
    something."""
    match item:
        case Num():
            yield item
        case Negative(inner) | Bracket(inner):
            yield from terms(inner)
        case Binary(left, sign, right) if sign in "+-−":
            yield from terms(left)
            yield from terms(right)
