"""The instruments a drafter owns."""

from __future__ import annotations

from dataclasses import dataclass
from fractions import Fraction

from ..measure import Number, Unit
from .kit_items import (
    HOLES,
    NAMES,
    NOUGHT_OR_MORE,
    RATIOS,
    SIZE,
    SIZE_OR_NONE,
    UNIT,
    WIDTHS,
    YES,
    held,
    one_of,
)

BY_EYE = "pencil, by eye"
"""How a round is drawn that no compass of the kit goes down to."""

CARD = "strip of card"
"""How a round is swung that no compass of the kit reaches: a needle through one end, the pencil
through the other (common practice, no source)."""

GUIDES = ("T-square", "parallel rule", "drafting head")
"""What guides level lines."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Kit:
    """What settings are read on: a field for everything a kit holds, in the order of its page.

    Sizes are in the unit of the rule. `least` and `compass` are the smallest and the largest radius
    the compass swings: what is smaller is drawn by eye unless a template has its hole, what is
    larger by the beam compass. `faces` are ratios the rule has a face for beside full size. Holes
    are named by the diameter of the circle. The protractor's graduation is in degrees, pencils by
    the width of their line in mm."""

    unit: Unit = held("Unit of the rule", UNIT, shown_as="graduation")
    graduation: Fraction = held("Rule, finest graduation", SIZE, in_unit=True)
    length: Fraction = held(
        "Rule, length", SIZE, Fraction(300), in_unit=True, shown_as="graduation"
    )
    faces: frozenset[Fraction] = held("Rule, faces at other scales", RATIOS, frozenset())
    compass: Fraction = held("Compass, largest radius", SIZE, in_unit=True)
    least: Fraction = held(
        "Compass, smallest radius", NOUGHT_OR_MORE, Fraction(0), in_unit=True, shown_as="compass"
    )
    beam: Fraction | None = held(
        "Beam compass, largest radius", SIZE_OR_NONE, None, in_unit=True, usual="600"
    )
    dividers: bool = held("Dividers", YES, True)
    template_holes: frozenset[Fraction] = held(
        "Circle template, holes", HOLES, frozenset(), in_unit=True
    )
    ellipse_holes: frozenset[Fraction] = held(
        "Isometric template, holes by the circle", HOLES, frozenset(), in_unit=True
    )
    set_squares: bool = held("Set squares, 45° and 30/60", YES, True)
    adjustable_square: bool = held("Adjustable set square", YES, False)
    protractor: Fraction | None = held(
        "Protractor, finest graduation, °", SIZE_OR_NONE, Fraction(1, 2), usual="1/2"
    )
    french_curves: bool = held("French curves", YES, True)
    pencils: tuple[Fraction, ...] = held(
        "Pencils, line widths, mm", WIDTHS, (Fraction(1, 4), Fraction(1, 2))
    )
    papers: tuple[str, ...] = held("Paper at hand (any where none is named)", NAMES, ())
    guide: str = held(
        "What guides level lines", one_of(GUIDES, "what guides level lines"), GUIDES[0]
    )

    @property
    def is_whole(self) -> bool:
        """Whether every act is done with it as it is composed."""
        return (
            self.set_squares
            and self.has_angles
            and self.beam is not None
            and self.dividers
            and self.french_curves
        )

    @property
    def has_angles(self) -> bool:
        """Whether any direction can be drawn."""
        return self.protractor is not None or self.adjustable_square

    def has_template(self, diameter: Number, unit: Unit) -> bool:
        """Tell whether a circle of a diameter as drawn, in a unit, has a hole in the template."""
        return (
            isinstance(diameter, Fraction)
            and diameter * unit.mm / self.unit.mm in self.template_holes
        )

    def round_tool(self, drawn: Number) -> str:
        """Name the instrument for a radius as drawn, in the rule's unit."""
        if drawn < self.least:
            return BY_EYE
        if drawn <= self.compass:
            return "compass"
        return "beam compass" if self.beam is not None and drawn <= self.beam else CARD

    def angle_tool(self, degrees: Number) -> str:
        """Name the instrument for a direction in degrees: T-square and set squares make every
        multiple of 15."""
        turned = degrees % 180
        if turned == 0:
            return self.guide
        if turned % 15 != 0:
            return "adjustable set square" if self.adjustable_square else "protractor"
        match int(turned):
            case 90:
                return f"{self.guide} and set square"
            case 45 | 135:
                return "45° set square"
            case 30 | 60 | 120 | 150:
                return "30/60 set square"
        return "both set squares together"


METRIC_TEMPLATE = frozenset(map(Fraction, (*range(1, 21), 22, 24, 25, 26, 28, 30, 32, 35)))
INCH_TEMPLATE = frozenset(
    Fraction(n, 16) for n in (1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12, 13, 14, 15, 16, 18, 20, 22)
)
"""Holes of a common circle template, mm and inches (common practice, no source)."""

METRIC_ELLIPSES = frozenset(map(Fraction, (*range(4, 31, 2), 35, 40)))
INCH_ELLIPSES = frozenset(Fraction(n, 8) for n in range(1, 13))
"""Holes of a common isometric template, by the diameter of the circle (common practice, no
source)."""


def default_kit(unit: Unit) -> Kit:
    """Return the small kit every drafter starts with in a unit system."""
    if unit is Unit.INCH:
        return Kit(
            unit=unit,
            graduation=Fraction(1, 32),
            length=Fraction(12),
            compass=Fraction(6),
            least=Fraction(1, 16),
            beam=Fraction(24),
            template_holes=INCH_TEMPLATE,
            ellipse_holes=INCH_ELLIPSES,
        )
    return Kit(
        unit=unit,
        graduation=Fraction(1, 2),
        compass=Fraction(150),
        least=Fraction(3, 2),
        beam=Fraction(600),
        template_holes=METRIC_TEMPLATE,
        ellipse_holes=METRIC_ELLIPSES,
    )
