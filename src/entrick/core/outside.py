"""What comes from outside: numbers written by others, and JSON, read with bounds, so that nothing
short takes long, and nothing odd gets any further."""

from __future__ import annotations

import json
import math
import re
from collections.abc import Iterator
from dataclasses import dataclass
from fractions import Fraction
from typing import Any

from .plan.errors import ClauseError

LONGEST_NUMBER = 60
"""Characters of a number."""

_NUMBER = re.compile(
    r"[+-]?(?:(?:(\d{1,9})[ ]+)?(\d{1,29})/(\d{1,29})|\d{1,12}(?:\.\d{0,12})?|\.\d{1,12})", re.ASCII
)
LONGEST_WHOLE = 18
"""Digits of a whole number in JSON."""


def read_number(text: str) -> Fraction:
    """Read a number as it is written by hand: ``12``, ``0.5``, ``1/32``, ``1 1/2``.

    Raises
    ------
    ClauseError
        For anything else, powers of ten among it.

    Examples
    --------
    >>> read_number("1 1/2"), read_number("-0.25")
    (Fraction(3, 2), Fraction(-1, 4))
    """
    number = text.strip() if len(text) <= LONGEST_NUMBER else ""
    found = _NUMBER.fullmatch(number)
    if found is None or (found[3] is not None and not int(found[3])):
        shown = text.strip()[:LONGEST_NUMBER] or "nothing"
        raise ClauseError(f"{shown} is no number; write it as 1/32 or 0.5")
    if found[3] is None:
        return Fraction(number)
    size = int(found[1] or 0) + Fraction(int(found[2]), int(found[3]))
    return -size if number.startswith("-") else size


def read_json(text: str, what: str) -> Any:
    """Read JSON, as far as it could have been written by us: no number is endless, nothing lies
    deeper than anything of ours.

    Parameters
    ----------
    text : str
    what : str
        What it should be, for the refusal.

    Raises
    ------
    ClauseError
    """
    try:
        return json.loads(text, parse_int=_whole, parse_float=_decimal, parse_constant=_constant)
    except json.JSONDecodeError as error:
        raise ClauseError(f"this is no {what}: line {error.lineno} is not JSON") from error
    except RecursionError as error:
        raise ClauseError(f"this is no {what}: it is nested too deeply") from error


def _whole(digits: str) -> int:
    if len(digits) > LONGEST_WHOLE:
        raise ClauseError(f"{digits[:LONGEST_WHOLE]}… is too large a number")
    return int(digits)


def _decimal(digits: str) -> float:
    result = float(digits)
    if not math.isfinite(result):
        raise ClauseError(f"{digits[:LONGEST_NUMBER]} is too large a number")
    return result


def _constant(word: str) -> float:
    raise ClauseError(f"{word} is no number")


@dataclass(frozen=True, slots=True)
class Fields:
    """An object of a file from outside, asked for its fields by name and type.

    Attributes
    ----------
    value : dict
    where : str
        Its place in the file, for the refusals.
    """

    value: dict[str, Any]
    where: str = ""

    @classmethod
    def of(cls, value: object, where: str = "") -> Fields:
        """Take something for an object.

        Raises
        ------
        ClauseError
            Where it is none.
        """
        if not isinstance(value, dict):
            raise ClauseError(f"{where or 'the whole'} is no object")
        return cls(value, where)

    def _at(self, name: str) -> str:
        return f"{self.where}.{name}" if self.where else name

    def __getitem__(self, name: str) -> Any:
        """Return a field as it is."""
        if name not in self.value:
            raise ClauseError(f"there is no {self._at(name)}")
        return self.value[name]

    def text(self, name: str, most: int) -> str:
        """Return a text of at most so many characters."""
        return self._text(self[name], self._at(name), most)

    def whole(self, name: str, least: int, most: int) -> int:
        """Return a whole number within bounds."""
        result = self[name]
        if not isinstance(result, int) or isinstance(result, bool) or not least <= result <= most:
            raise ClauseError(f"{self._at(name)} is no whole number from {least} to {most}")
        return result

    def number(self, name: str, most: float) -> float:
        """Return a number that is no larger than a bound, either way."""
        found = self[name]
        if not isinstance(found, int | float) or isinstance(found, bool) or abs(found) > most:
            raise ClauseError(f"{self._at(name)} is no number up to {most:g}")
        return float(found)

    def _rows(self, name: str, most: int) -> list[Any]:
        result = self[name]
        if not isinstance(result, list) or len(result) > most:
            raise ClauseError(f"{self._at(name)} is no list of at most {most}")
        return result

    def texts(self, name: str, most: int, longest: int) -> tuple[str, ...]:
        """Return a list of texts."""
        rows = enumerate(self._rows(name, most))
        return tuple(self._text(row, f"{self._at(name)}.{n}", longest) for n, row in rows)

    def wholes(self, name: str, most: int, largest: int) -> tuple[tuple[int, ...], ...]:
        """Return a list of lists of whole numbers from nought on."""
        result = []
        for row in self._rows(name, most):
            own = row if isinstance(row, list) and len(row) <= most else [None]
            if not all(type(each) is int and 0 <= each <= largest for each in own):
                raise ClauseError(f"{self._at(name)} holds something else than whole numbers")
            result.append(tuple(own))
        return tuple(result)

    def each(self, name: str, most: int) -> Iterator[Fields]:
        """Yield the objects of a list."""
        for n, row in enumerate(self._rows(name, most)):
            yield Fields.of(row, f"{self._at(name)}.{n}")

    def _text(self, found: object, where: str, most: int) -> str:
        if not isinstance(found, str) or len(found) > most:
            raise ClauseError(f"{where} is no text of at most {most} characters")
        return found
