"""Working an expression out: exact rationals, givens by name, and the few functions a drafter
needs."""

from __future__ import annotations

import math
from collections.abc import Mapping
from difflib import get_close_matches
from fractions import Fraction

from ..measure import Dimension, MeasureError, Number, Quantity, Unit, read_number
from ..measure.number import LARGEST, check_fineness
from .errors import ClauseError, Unknown
from .terms import Binary, Bracket, Call, Expression, Name, Negative, Num, write


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
    >>> half = Binary(Name("a"), "/", Num("2"))
    >>> evaluate(half, {"a": Quantity(Fraction(9, 16))}, Unit.INCH).value
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
                raise ClauseError(
                    error.message, None, (text, error.mend) if error.mend else None
                ) from error
        case Name("pi"):
            return Quantity(math.pi)
        case Name(text):
            if text in givens:
                return givens[text]
            close = get_close_matches(text, [*givens, "pi"], 1, 0.6)
            raise Unknown(f"no given is called {text}", text, [(text, each) for each in close])
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
                    f"{text} can be taken two ways: write {other}/({right.text}) or "
                    f"({other}/{top})/{bottom}",
                    None,
                    (text, f"{other}/({right.text})"),
                )
            return _binary(
                _evaluate(left, givens, unit), sign, _evaluate(right, givens, unit), write(item)
            )
    raise TypeError(item)


_LENGTH, _ANGLE, _AREA, _PLAIN = Dimension.LENGTH, Dimension.ANGLE, Dimension.AREA, Dimension.PLAIN
_PER_LENGTH = Dimension.PER_LENGTH


_PRODUCTS = {
    (_LENGTH, _LENGTH): _AREA,
    (_PER_LENGTH, _LENGTH): _PLAIN,
    (_LENGTH, _PER_LENGTH): _PLAIN,
    (_PER_LENGTH, _AREA): _LENGTH,
    (_AREA, _PER_LENGTH): _LENGTH,
}


_QUOTIENTS = {
    (_LENGTH, _LENGTH): _PLAIN,
    (_ANGLE, _ANGLE): _PLAIN,
    (_AREA, _LENGTH): _LENGTH,
    (_AREA, _AREA): _PLAIN,
    (_PLAIN, _LENGTH): _PER_LENGTH,
    (_LENGTH, _AREA): _PER_LENGTH,
    (_PLAIN, _PER_LENGTH): _LENGTH,
    (_PER_LENGTH, _PER_LENGTH): _PLAIN,
}


def _binary(left: Quantity, sign: str, right: Quantity, text: str) -> Quantity:
    a, b = left.value, right.value
    kinds = (left.dimension, right.dimension)
    if sign in "+-":
        if _PLAIN not in kinds and kinds[0] != kinds[1]:
            raise ClauseError(f"{text} mixes a {kinds[0]} with a {kinds[1]}")
        kind = kinds[1] if kinds[0] is _PLAIN else kinds[0]
        return Quantity(_exactly(a + b if sign == "+" else a - b, a, b), kind)
    if sign == "*":
        made = _PRODUCTS.get(kinds) or (
            kinds[1] if kinds[0] is _PLAIN else kinds[0] if kinds[1] is _PLAIN else None
        )
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
