"""The simplest number within a tolerance: as somebody would have given it."""

from __future__ import annotations

from fractions import Fraction

from ..measure import Unit, spell

INCH_PARTS = (1, 2, 4, 8, 16, 32, 64)
MOST_DECIMALS = 9


def simplest(value: float, unit: Unit, within: float) -> str:
    """Write the simplest number within a tolerance of a value: whole, a half, fewest decimals; in
    inches a fraction of the rule first."""
    if unit is Unit.INCH:
        for parts in INCH_PARTS:
            found = Fraction(round(value * parts), parts)
            if abs(float(found) - value) <= within:
                return spell(found, unit)
    for decimals in range(MOST_DECIMALS + 1):
        text = f"{value:.{decimals}f}"
        if abs(float(text) - value) <= within:
            return "0" if float(text) == 0 else text
    return f"{value:.12g}"


def worth(text: str) -> float:
    """Return the number that was written."""
    total = 0.0
    for part in text.split():
        above, _, below = part.partition("/")
        total += float(above) / float(below or 1)
    return total


def cost(text: str) -> float:
    """Return how much a number asks one to remember: its figures."""
    return sum(letter.isdigit() for letter in text) if text != "0" else 0
