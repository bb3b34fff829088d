"""Expressions: exact rationals, givens by name, and the few functions a drafter needs."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterator, Mapping
from dataclasses import dataclass
from difflib import get_close_matches
from fractions import Fraction

from ..measure import Dimension, MeasureError, Number, Quantity, Unit, read_number
from ..measure.number import LARGEST, check_fineness
from .errors import ClauseError

DEEPEST = 40
"""Nesting of brackets and operations a single expression may have."""


@dataclass(frozen=True, slots=True)
class Num:
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


Item = Expression | Text | Arrow | Ratio


def write(item: Item) -> str:
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


def depth(item: Item) -> int:
    """Return how deeply an expression is nested."""
    match item:
        case Negative(inner) | Bracket(inner) | Call(_, inner):
            return 1 + depth(inner)
        case Binary(left, _, right):
            return 1 + max(depth(left), depth(right))
    return 1


def names(item: Item) -> frozenset[str]:
    """Return every name an expression uses."""
    match item:
        case Name(text):
            return frozenset({text})
        case Negative(inner) | Bracket(inner) | Call(_, inner):
            return names(inner)
        case Binary(left, _, right):
            return names(left) | names(right)
    return frozenset()


def rewrite(item: Item, change: Callable[[Expression], Expression | None]) -> Item:
    """Return an item in which parts are changed: `change` gives the new part, or None to look inside the old one."""
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


def terms(item: Item) -> Iterator[Num]:
    """Return the numbers that stand for a size of their own: alone, or added to or taken from something."""
    match item:
        case Num():
            yield item
        case Negative(inner) | Bracket(inner):
            yield from terms(inner)
        case Binary(left, sign, right) if sign in "+-−":
            yield from terms(left)
            yield from terms(right)


def evaluate(item: Expression, givens: Mapping[str, Quantity], unit: Unit) -> Quantity:
    """Work an expression out, exactly as long as no root or angle function is in it.

    Parameters
    ----------
    item : Expression
    givens : mapping of str to Quantity
        What stands above, in plan units.
    unit : Unit
        The plan's unit.

    Returns
    -------
    Quantity

    Raises
    ------
    ClauseError
        For an unknown given, an impossible operation, or a value out of bounds.

    Examples
    --------
    >>> evaluate(Binary(Name("a"), "/", Num("2")), {"a": Quantity(Fraction(9, 16))}, Unit.INCH).value
    Fraction(9, 32)
    """
    try:
        result = _evaluate(item, givens, unit)
        check_fineness(result.value)
    except MeasureError as error:
        raise ClauseError(error.message) from error
    except OverflowError as error:
        raise ClauseError(f"{write(item)} is too large to work with") from error
    if not abs(float(result.value)) <= LARGEST:
        raise ClauseError(f"{write(item)} is too large: the desk works up to {LARGEST}")
    return result


def _evaluate(item: Expression, givens: Mapping[str, Quantity], unit: Unit) -> Quantity:
    match item:
        case Num(text):
            try:
                return read_number(text, unit)
            except MeasureError as error:
                raise ClauseError(error.message, None, (text, error.mend) if error.mend else None) from error
        case Name("pi"):
            return Quantity(math.pi)
        case Name(text):
            if text in givens:
                return givens[text]
            close = get_close_matches(text, [*givens, "pi"], 1, 0.5)
            hint = f"; did you mean {close[0]}?" if close else ""
            raise ClauseError(f"no given is called {text}{hint}", None, (text, close[0]) if close else None)
        case Negative(inner):
            found = _evaluate(inner, givens, unit)
            return Quantity(-found.value, found.dimension)
        case Bracket(inner):
            return _evaluate(inner, givens, unit)
        case Call(function, inner):
            return _call(function, _evaluate(inner, givens, unit), write(item))
        case Binary(left, sign, right):
            if sign == "/" and isinstance(right, Num) and "/" in right.text:
                text, other = write(item), write(left)
                top, bottom = right.text.split("/")
                raise ClauseError(
                    f"{text} can be taken two ways: write {other}/({right.text}) or ({other}/{top})/{bottom}",
                    None,
                    (text, f"{other}/({right.text})"),
                )
            return _binary(_evaluate(left, givens, unit), sign, _evaluate(right, givens, unit), write(item))
    raise TypeError(item)


_LENGTH, _ANGLE, _AREA, _PLAIN = Dimension.LENGTH, Dimension.ANGLE, Dimension.AREA, Dimension.PLAIN
_PRODUCTS = {(_LENGTH, _LENGTH): _AREA}
_QUOTIENTS = {(_LENGTH, _LENGTH): _PLAIN, (_ANGLE, _ANGLE): _PLAIN, (_AREA, _LENGTH): _LENGTH, (_AREA, _AREA): _PLAIN}


def _binary(left: Quantity, sign: str, right: Quantity, text: str) -> Quantity:
    a, b = left.value, right.value
    kinds = (left.dimension, right.dimension)
    if sign in "+-":
        if _PLAIN not in kinds and kinds[0] != kinds[1]:
            raise ClauseError(f"{text} mixes a {kinds[0]} with a {kinds[1]}")
        kind = kinds[1] if kinds[0] is _PLAIN else kinds[0]
        return Quantity(_exactly(a + b if sign == "+" else a - b, a, b), kind)
    if sign == "*":
        made = _PRODUCTS.get(kinds) or (kinds[1] if kinds[0] is _PLAIN else kinds[0] if kinds[1] is _PLAIN else None)
        if made is None:
            raise ClauseError(f"{text} multiplies a {kinds[0]} by a {kinds[1]}")
        return Quantity(_exactly(a * b, a, b), made)
    if b == 0:
        raise ClauseError(f"{text} divides by nought")
    left_over = _QUOTIENTS.get(kinds) or (kinds[0] if kinds[1] is _PLAIN else None)
    if left_over is None:
        raise ClauseError(f"{text} divides a {kinds[0]} by a {kinds[1]}")
    return Quantity(_exactly(a / b, a, b), left_over)


def _exactly(result: Number, *parts: Number) -> Number:
    if all(isinstance(part, Fraction) for part in parts):
        check_fineness(result)
    return result


def _call(function: str, inner: Quantity, text: str) -> Quantity:
    if function == "sqrt":
        if inner.value < 0:
            raise ClauseError(f"{text}: there is no root of a number below nought")
        kind = _LENGTH if inner.dimension is _AREA else inner.dimension
        return Quantity(_root(inner.value), kind)
    if function in ("sin", "cos", "tan"):
        radians = math.radians(inner.value)
        return Quantity(getattr(math, function)(radians))
    if function in ("asin", "acos") and abs(float(inner.value)) > 1:
        raise ClauseError(f"{text}: only numbers from -1 to 1 have an {function}")
    return Quantity(math.degrees(getattr(math, function)(float(inner.value))), _ANGLE)


def _root(value: Number) -> Number:
    if isinstance(value, Fraction):
        top, bottom = math.isqrt(value.numerator), math.isqrt(value.denominator)
        if top * top == value.numerator and bottom * bottom == value.denominator:
            return Fraction(top, bottom)
    return math.sqrt(value)
