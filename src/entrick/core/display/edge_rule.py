"""The rule along two edges of the sheet on the screen, life-size in the plan's unit."""

from __future__ import annotations

from dataclasses import dataclass

from ..measure import Unit


@dataclass(frozen=True, slots=True)
class EdgeRule:
    """How a rule is divided.

    Attributes
    ----------
    division : float
        Its finest, mm.
    middle, long : int
        Every so many divisions a longer mark, and the longest.
    number : float
        What one of its numbers is, mm.
    every : int
        Every so many are written.
    """

    division: float
    middle: int
    long: int
    number: float
    every: int


_RULES = {Unit.MM: EdgeRule(1.0, 5, 10, 1.0, 20), Unit.INCH: EdgeRule(25.4 / 16, 4, 16, 25.4, 1)}


def edge_rule(unit: Unit) -> EdgeRule:
    """Return the rule for a unit: in millimetres, or in sixteenths of an inch."""
    return _RULES[unit]
