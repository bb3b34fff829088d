"""The instruments a drafter owns."""

from __future__ import annotations

from dataclasses import dataclass
from fractions import Fraction

from ..measure import Number, Unit

BY_EYE = "pencil, by eye"
"""How a round is drawn that no compass of the kit goes down to."""

CARD = "strip of card"
"""How a round is swung that no compass of the kit reaches: a needle through one end, the pencil through the other
(common practice, no source)."""

GUIDES = ("T-square", "parallel rule", "drafting head")
"""What guides level lines."""


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
    beam : Fraction
        Largest radius the beam compass swings, in `unit`; None where there is none.
    protractor : Fraction
        Finest graduation of the protractor, degrees; None where there is none.
    templates : frozenset of Fraction
        Diameters of the circle template, in `unit`.
    squares : bool
        Whether there are set squares.
    least : Fraction
        Smallest radius the compass swings, in `unit`; what is smaller is drawn by eye, unless a template has its hole.
    length : Fraction
        Of the rule, in `unit`; what is longer is measured in several lengths.
    faces : frozenset of Fraction
        Ratios the rule has a face for beside full size.
    ellipses : frozenset of Fraction
        Circle diameters the isometric template has holes for, in `unit`.
    dividers, curves, adjustable : bool
        Whether there are dividers, French curves, an adjustable set square.
    guide : str
        What guides level lines, of `GUIDES`.
    pencils : tuple of Fraction
        Line widths there are pencils for, mm.
    papers : tuple of str
        Sheets at hand; any where none is named.
    """

    unit: Unit
    graduation: Fraction
    compass: Fraction
    protractor: Fraction | None = Fraction(1, 2)
    templates: frozenset[Fraction] = frozenset()
    squares: bool = True
    least: Fraction = Fraction(0)
    beam: Fraction | None = None
    length: Fraction = Fraction(300)
    faces: frozenset[Fraction] = frozenset()
    ellipses: frozenset[Fraction] = frozenset()
    dividers: bool = True
    curves: bool = True
    adjustable: bool = False
    guide: str = GUIDES[0]
    pencils: tuple[Fraction, ...] = (Fraction(1, 4), Fraction(1, 2))
    papers: tuple[str, ...] = ()

    @property
    def is_whole(self) -> bool:
        """Whether every act is done with it as it is composed."""
        return self.squares and self.has_angles and self.beam is not None and self.dividers and self.curves

    @property
    def has_angles(self) -> bool:
        """Whether any direction can be drawn."""
        return self.protractor is not None or self.adjustable

    def has_template(self, diameter: Number, unit: Unit) -> bool:
        """Tell whether a circle of a diameter as drawn, in a unit, has a hole in the template."""
        return isinstance(diameter, Fraction) and diameter * unit.mm / self.unit.mm in self.templates

    def round_tool(self, drawn: Number) -> str:
        """Name the instrument for a radius as drawn, in the rule's unit."""
        if drawn < self.least:
            return BY_EYE
        if drawn <= self.compass:
            return "compass"
        return "beam compass" if self.beam is not None and drawn <= self.beam else CARD

    def angle_tool(self, degrees: Number) -> str:
        """Name the instrument for a direction in degrees: T-square and set squares make every multiple of 15."""
        turned = degrees % 180
        if turned == 0:
            return self.guide
        if turned % 15 != 0:
            return "adjustable set square" if self.adjustable else "protractor"
        match int(turned):
            case 90:
                return f"{self.guide} and set square"
            case 45 | 135:
                return "45° set square"
            case 30 | 60 | 120 | 150:
                return "30/60 set square"
        return "both set squares together"


METRIC_TEMPLATE = frozenset(map(Fraction, (*range(1, 21), 22, 24, 25, 26, 28, 30, 32, 35)))
INCH_TEMPLATE = frozenset(Fraction(n, 16) for n in (1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12, 13, 14, 15, 16, 18, 20, 22))
"""Holes of a common circle template, mm and inches (common practice, no source)."""

METRIC_ELLIPSES = frozenset(map(Fraction, (*range(4, 31, 2), 35, 40)))
INCH_ELLIPSES = frozenset(Fraction(n, 8) for n in range(1, 13))
"""Holes of a common isometric template, by the diameter of the circle (common practice, no source)."""


def default_kit(unit: Unit) -> Kit:
    """Return the small kit every drafter starts with in a unit system."""
    if unit is Unit.INCH:
        return Kit(unit, Fraction(1, 32), Fraction(6), templates=INCH_TEMPLATE, least=Fraction(1, 16),
                   beam=Fraction(24), length=Fraction(12), ellipses=INCH_ELLIPSES)  # fmt: skip
    return Kit(unit, Fraction(1, 2), Fraction(150), templates=METRIC_TEMPLATE, least=Fraction(3, 2),
               beam=Fraction(600), ellipses=METRIC_ELLIPSES)  # fmt: skip
