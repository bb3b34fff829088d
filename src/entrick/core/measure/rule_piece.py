"""A piece of a rule as one looks at it: which graduations it has, which of them are figured, and
where a pointer stands."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, replace
from fractions import Fraction

from .number import spell
from .units import Unit

FIGURED_MM = tuple(map(Fraction, (5, 10, 20, 50, 100, 200, 500)))
FIGURED_IN = tuple(map(Fraction, (1, 2, 5, 10, 20)))
"""Sizes whose multiples may be figured on a face (common practice, no source)."""

APART = 9.0
"""Figures stand at least so far apart on the rule, mm."""

LONG = 80.0
"""How long a piece is that is looked at, mm."""


@dataclass(frozen=True, slots=True)
class RulePiece:
    """A piece of a face of a rule.

    Attributes
    ----------
    unit : Unit
    step : Fraction
        From one graduation to the next, in sizes of the part.
    ratio : Fraction
        Of the face: what is on the rule for one of the part.
    first, count : int
        The graduation it begins at, counted from nought, and how many there are.
    pointer : int or None
        The graduation the pointer stands at; None where the hand has to set it.
    """

    unit: Unit
    step: Fraction
    ratio: Fraction
    first: int
    count: int
    pointer: int | None = None

    @property
    def apart(self) -> float:
        """From one graduation to the next on the rule, mm."""
        return float(self.step * self.ratio * self.unit.mm)

    @property
    def figured(self) -> Fraction:
        """Multiples of this size are figured."""
        sizes = FIGURED_MM if self.unit is Unit.MM else FIGURED_IN
        wide = float(self.ratio * self.unit.mm)
        return next((size for size in sizes if float(size) * wide >= APART), sizes[-1])

    def values(self) -> Iterator[tuple[int, Fraction]]:
        """Yield every graduation with its value."""
        for number in range(self.first, self.first + self.count):
            yield number, number * self.step

    def told(self, number: int) -> str:
        """Return what the rule says at a graduation."""
        return spell(number * self.step, self.unit)

    def rank(self, value: Fraction) -> int:
        """Return how round a graduation is: 0 for a figured one, more for each finer sort."""
        parts = (1, 2, 10) if self.unit is Unit.MM else (1, 2, 4, 8, 16)
        ranked = (n for n, part in enumerate(parts) if value % (self.figured / part) == 0)
        return next(ranked, len(parts))

    def without_pointer(self) -> RulePiece:
        """Return the same with the pointer for the hand to set."""
        return replace(self, pointer=None)


def piece_about(number: int, unit: Unit, step: Fraction, ratio: Fraction) -> RulePiece:
    """Return the piece of a rule about one of its graduations; it begins at a figured one."""
    whole = RulePiece(unit, step, ratio, 0, 0)
    count = max(2, round(LONG / whole.apart))
    each = max(1, round(whole.figured / step))
    # Away from the middle, or one would know without looking.
    first = max(0, (number - number * 7 % max(1, count * 3 // 4)) // each * each)
    return RulePiece(unit, step, ratio, first, max(count, number - first + 2), number)
