"""Drawing scales: drawn = actual × scale; angles never scale."""

from __future__ import annotations

from dataclasses import dataclass
from fractions import Fraction
from functools import cached_property

RECOMMENDED = frozenset({Fraction(1), Fraction(1, 2), Fraction(1, 5), Fraction(2), Fraction(5)})


@dataclass(frozen=True)
class Scale:
    """A ratio drawn : actual.

    Examples
    --------
    >>> Scale(1, 2).apply(Fraction(70)), Scale(1, 2).is_recommended, Scale(1, 3).is_recommended
    (Fraction(35, 1), True, False)
    """

    drawn: Fraction | int = 1
    actual: Fraction | int = 1

    @cached_property
    def ratio(self) -> Fraction:
        """Drawn over actual, exact."""
        return Fraction(self.drawn) / Fraction(self.actual)

    def apply(self, value: Fraction | float) -> Fraction | float:
        """Return the drawn length of an actual one; exact stays exact."""
        return value * self.ratio if isinstance(value, Fraction) else value * float(self.ratio)

    def times(self, larger: int) -> Scale:
        """Return the scale of what is drawn so many times as large, with a 1 on the side that takes
        it."""
        ratio = self.ratio * larger
        return Scale(ratio, 1) if ratio >= 1 else Scale(1, 1 / ratio)

    @property
    def is_recommended(self) -> bool:
        """Whether the ratio is 1:2, 1:5, 1:10, 2:1, 5:1, 10:1 or a decade of them (ISO 5455)."""
        ratio = self.ratio
        while ratio > 5:
            ratio /= 10
        while ratio < Fraction(1, 5):
            ratio *= 10
        return ratio in RECOMMENDED

    def __str__(self) -> str:
        return f"{_plain(self.drawn)}:{_plain(self.actual)}"


def _plain(value: Fraction | int) -> str:
    number = Fraction(value)
    return str(number) if number.denominator == 1 else f"{float(number):g}"
