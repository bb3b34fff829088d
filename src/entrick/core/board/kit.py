"""The instruments a drafter owns."""

from __future__ import annotations

from dataclasses import dataclass
from fractions import Fraction

from ..measure import Number, Unit

BY_EYE = "pencil, by eye"
"""How a round is drawn that no compass of the kit goes down to."""


@dataclass(frozen=True, slots=True)
class Kit:
    """What settings are read on.

    Attributes
    ----------
    unit : Unit
        Of the rule.
    graduation : Fraction
        Finest graduation of the rule, in `unit`.
    compass : Fraction
        Largest radius the compass swings, in `unit`; beyond it the beam compass is used.
    protractor : Fraction
        Finest graduation of the protractor, degrees; None where there is none.
    templates : frozenset of Fraction
        Diameters of the circle template, in `unit`.
    squares : bool
        Whether there are set squares.
    least : Fraction
        Smallest radius the compass swings, in `unit`; what is smaller is drawn by eye, unless a template has its hole.
    """

    unit: Unit
    graduation: Fraction
    compass: Fraction
    protractor: Fraction | None = Fraction(1, 2)
    templates: frozenset[Fraction] = frozenset()
    squares: bool = True
    least: Fraction = Fraction(0)

    def has_template(self, diameter: Number, unit: Unit) -> bool:
        """Tell whether a circle of a diameter as drawn, in a unit, has a hole in the template."""
        return isinstance(diameter, Fraction) and diameter * unit.mm / self.unit.mm in self.templates

    def round_tool(self, drawn: Number) -> str:
        """Name the instrument for a radius as drawn, in the rule's unit."""
        if drawn < self.least:
            return BY_EYE
        return "compass" if drawn <= self.compass else "beam compass"

    def angle_tool(self, degrees: Number) -> str:
        """Name the instrument for a direction in degrees: T-square and set squares make every multiple of 15."""
        turned = degrees % 180
        if turned == 0:
            return "T-square"
        if turned % 15 != 0:
            return "protractor"
        match int(turned):
            case 90:
                return "T-square and set square"
            case 45 | 135:
                return "45° set square"
            case 30 | 60 | 120 | 150:
                return "30/60 set square"
        return "both set squares together"


METRIC_TEMPLATE = frozenset(map(Fraction, (*range(1, 21), 22, 24, 25, 26, 28, 30, 32, 35)))
INCH_TEMPLATE = frozenset(Fraction(n, 16) for n in (1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12, 13, 14, 15, 16, 18, 20, 22))
"""Holes of a common circle template, mm and inches (common practice, no source)."""


def default_kit(unit: Unit) -> Kit:
    """Return the small kit every drafter starts with in a unit system."""
    if unit is Unit.INCH:
        return Kit(unit, Fraction(1, 32), Fraction(6), templates=INCH_TEMPLATE, least=Fraction(1, 16))
    return Kit(unit, Fraction(1, 2), Fraction(150), templates=METRIC_TEMPLATE, least=Fraction(3, 2))
