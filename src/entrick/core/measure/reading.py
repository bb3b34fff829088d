"""What a length looks like on the drafter's rule."""

from __future__ import annotations

import math
from dataclasses import dataclass
from fractions import Fraction

from ..tolerance import READ
from .number import Number, spell, spell_fraction
from .units import Unit


@dataclass(frozen=True, slots=True)
class Reading:
    """A length read to the nearest graduation.

    Attributes
    ----------
    text : str
        As the drafter reads it: ``9/32``, ``just under 5/16``, ``35``.
    value : Fraction
        The graduation read, in rule units.
    error : float
        Reading less true length, in rule units: what setting to the graduation adds.
    graduation : Fraction
        The rule's finest graduation.
    """

    text: str
    value: Fraction
    error: float
    graduation: Fraction


def read_on_rule(length: Number, graduation: Fraction, unit: Unit) -> Reading:
    """Read a length to the nearest graduation of a rule.

    Parameters
    ----------
    length : Fraction or float
        In the rule's unit.
    graduation : Fraction
        Finest graduation of the rule, such as 1/2 (mm) or 1/32 (in).
    unit : Unit

    Returns
    -------
    Reading

    Notes
    -----
    Common practice: "just over" and "just under" name the side on which the true length lies.

    Examples
    --------
    >>> read_on_rule(Fraction(9, 32), Fraction(1, 32), Unit.INCH).text
    '9/32'
    >>> read_on_rule(Fraction(9, 32), Fraction(1, 16), Unit.INCH).text
    'just under 5/16'
    """
    marks = length / graduation if isinstance(length, Fraction) else length / float(graduation)
    nearest = (
        Fraction(math.floor(marks + Fraction(1, 2) if isinstance(marks, Fraction) else marks + 0.5))
        * graduation
    )
    error = float(nearest - length) if isinstance(length, Fraction) else float(nearest) - length
    figures = spell_fraction(nearest) if unit is Unit.INCH else spell(nearest, unit)
    if abs(error) <= READ:
        return Reading(figures, nearest, 0.0, graduation)
    side = "just under" if error > 0 else "just over"
    return Reading(f"{side} {figures}", nearest, error, graduation)
