"""Numbers as a drafter writes them: mixed fractions, decimals, units, degrees; read exactly or
refused.

A number is never misread: a spelling that can be taken two ways is an error that shows both.
"""

from __future__ import annotations

import re
from dataclasses import dataclass
from enum import StrEnum
from fractions import Fraction
from functools import lru_cache

from .units import Unit

Number = Fraction | float
"""Exact where it is known exactly, a float once a root or an angle function went into it."""

LARGEST = 10**6
"""Largest magnitude of a number in a plan, in its own unit."""

FINEST_BITS = 256
"""Bits a numerator or denominator may need; finer fractions come only from runaway products."""


class MeasureError(ValueError):
    """A number that cannot be read or used. `mend` is a spelling that would be understood."""

    def __init__(self, message: str, mend: str | None = None) -> None:
        super().__init__(message)
        self.message = message
        self.mend = mend


class Dimension(StrEnum):
    """What a quantity was written as. PLAIN numbers take the plan's unit where a length is
    wanted."""

    PLAIN = "plain"
    LENGTH = "length"
    ANGLE = "angle"
    AREA = "area"
    PER_LENGTH = "number to a length"


@dataclass(frozen=True, slots=True)
class Quantity:
    """A value with what it measures.

    Attributes
    ----------
    value : Fraction or float
        Plan units for lengths, degrees for angles.
    dimension : Dimension
    mark : str
        "Ø" or "R" when the brief gives it as a diameter or radius, else "".
    """

    value: Number
    dimension: Dimension = Dimension.PLAIN
    mark: str = ""


VULGAR = {
    "¼": Fraction(1, 4),
    "½": Fraction(1, 2),
    "¾": Fraction(3, 4),
    "⅛": Fraction(1, 8),
    "⅜": Fraction(3, 8),
    "⅝": Fraction(5, 8),
    "⅞": Fraction(7, 8),
}

_UNIT = r"(?P<unit>mm|cm|inches|inch|in|″|\"|°|deg)?"
_SPELLINGS = re.compile(
    r"(?:"
    r"(?P<degrees>\d+)\s*°\s*(?P<minutes>\d+(?:\.\d+)?)\s*['′]"
    r"|(?P<comma>\d+,\d+)"
    r"|(?P<whole>\d+)(?P<joint>\s+|\s*-\s*)(?P<num>\d+)\s*/\s*(?P<den>\d+)"
    r"|(?P<fnum>\d+)\s*/\s*(?P<fden>\d+)"
    r"|(?P<vwhole>\d+)?\s*(?P<vulgar>[¼½¾⅛⅜⅝⅞])"
    r"|(?P<decimal>\d+\.\d*|\.\d+|\d+)"
    r")\s*" + _UNIT,
)
_CANONICAL_UNIT = {"inches": "in", "inch": "in", "″": "in", '"': "in", "deg": "°"}


@lru_cache(maxsize=4096)
def read_number(text: str, unit: Unit) -> Quantity:
    """Read one number with its unit.

    Parameters
    ----------
    text : str
        Such as ``4 1/4``, ``4-1/4"``, ``9/16 in``, ``.5625``, ``4½``, ``30°``, ``22° 30'``.
    unit : Unit
        The plan's unit, into which lengths written in another are converted exactly.

    Returns
    -------
    Quantity

    Raises
    ------
    MeasureError
        For a decimal comma, a zero denominator, ``4-1/4`` without an inch mark, or a number out of
        bounds.

    Examples
    --------
    >>> read_number('4-1/4"', Unit.INCH).value
    Fraction(17, 4)
    >>> read_number(".5625", Unit.INCH).value
    Fraction(9, 16)
    >>> read_number("0,5", Unit.MM)
    Traceback (most recent call last):
    ...
    entrick.core.measure.number.MeasureError: 0,5: a comma parts clauses; write a decimal point
    """
    text = text.strip()
    found = _SPELLINGS.fullmatch(text)
    if found is None:
        raise MeasureError(f"{text} is not a number", None)
    part = found.groupdict()
    written = _CANONICAL_UNIT.get(part["unit"] or "", part["unit"] or "")
    if part["comma"]:
        raise MeasureError(
            f"{text}: a comma parts clauses; write a decimal point", text.replace(",", ".")
        )
    if part["degrees"]:
        written = "°"
        value = Fraction(part["degrees"]) + Fraction(part["minutes"]) / 60
    elif part["whole"]:
        fraction = _over(part["num"], part["den"], text)
        if "-" in part["joint"] and written != "in":
            raise MeasureError(
                f"{text} can be taken as {part['whole']} and {fraction} or as {part['whole']} "
                f"less {fraction}",
                f"{part['whole']} {part['num']}/{part['den']}",
            )
        value = Fraction(part["whole"]) + fraction
    elif part["fnum"]:
        value = _over(part["fnum"], part["fden"], text)
    elif part["vulgar"]:
        value = Fraction(part["vwhole"] or 0) + VULGAR[part["vulgar"]]
    else:
        value = Fraction(part["decimal"] if part["decimal"] != "." else 0)
    if abs(value) > LARGEST:
        raise MeasureError(f"{text} is too large: the desk works up to {LARGEST}", None)
    check_fineness(value)
    if written == "°":
        return Quantity(value, Dimension.ANGLE)
    if written:
        return Quantity(unit.convert(value, written), Dimension.LENGTH)
    return Quantity(value)


def _over(numerator: str, denominator: str, text: str) -> Fraction:
    if int(denominator) == 0:
        raise MeasureError(f"{text}: a fraction cannot have 0 below the line", None)
    return Fraction(int(numerator), int(denominator))


def check_fineness(value: Number) -> None:
    """Refuse fractions whose terms have grown past any use, before they slow the desk down.

    Raises
    ------
    MeasureError
    """
    if (
        isinstance(value, Fraction)
        and max(value.numerator.bit_length(), value.denominator.bit_length()) > FINEST_BITS
    ):
        raise MeasureError("this number has grown too fine to work with", None)


@lru_cache(maxsize=8192, typed=True)  # 7/2 and 3.5 are equal, and written differently
def spell(value: Number, unit: Unit, places: int | None = None) -> str:
    """Write a length as the trade reads it: reduced fractions in inches, decimals in millimetres.

    Parameters
    ----------
    value : Fraction or float
        In `unit`.
    unit : Unit
    places : int, optional
        Decimal places at most; 3 for millimetres, 4 for inches when not given.

    Examples
    --------
    >>> spell(Fraction(9, 32), Unit.INCH), spell(Fraction(70), Unit.MM), spell(12.34567, Unit.MM)
    ('9/32', '70', '12.346')
    """
    if places is None:
        places = 4 if unit is Unit.INCH else 3
    if (
        unit is Unit.INCH
        and isinstance(value, Fraction)
        and value.denominator <= 64
        and _is_power_of_two(value)
    ):
        return spell_fraction(value)
    text = f"{float(value):.{places}f}".rstrip("0").rstrip(".")
    return "0" if text in ("-0", "") else text.replace("-", "−")


def spell_fraction(value: Fraction) -> str:
    """Write a mixed number, reduced: ``4 1/4``.

    >>> spell_fraction(Fraction(17, 4)), spell_fraction(Fraction(-9, 16))
    ('4 1/4', '−9/16')
    """
    sign = "−" if value < 0 else ""
    whole, rest = divmod(abs(value), 1)
    if rest == 0:
        return f"{sign}{whole}"
    return f"{sign}{whole} {rest}" if whole else f"{sign}{rest}"


def spell_angle(degrees: Number) -> str:
    """Write an angle in degrees to a hundredth.

    >>> spell_angle(22.5), spell_angle(Fraction(30))
    ('22.5°', '30°')
    """
    return spell(float(degrees), Unit.MM, 2) + "°"


def _is_power_of_two(value: Fraction) -> bool:
    return value.denominator & (value.denominator - 1) == 0
