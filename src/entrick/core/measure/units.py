"""The two unit systems of the trade and their exact ratio."""

from __future__ import annotations

from enum import StrEnum
from fractions import Fraction


class Unit(StrEnum):
    """Unit of length a plan is written in."""

    MM = "mm"
    INCH = "in"

    @property
    def mm(self) -> Fraction:
        """Millimetres in one unit, exact (the inch is 25.4 mm since the 1959 agreement)."""
        return MILLIMETRES[self.value]

    def convert(self, value: Fraction, written: str) -> Fraction:
        """Turn a value written in another unit into this one, exactly.

        Examples
        --------
        >>> Unit.MM.convert(Fraction(17, 4), "in")
        Fraction(2159, 20)
        """
        return value * MILLIMETRES[written] / self.mm


MILLIMETRES: dict[str, Fraction] = {
    "mm": Fraction(1),
    "cm": Fraction(10),
    "in": Fraction(127, 5),
}
