"""The errors of a drafter's hand, in mm on paper and degrees: one standard deviation each."""

from __future__ import annotations

from dataclasses import dataclass, fields, replace


@dataclass(frozen=True, slots=True)
class Hand:
    """How far off a hand is, one standard deviation (common practice, no source).

    Attributes
    ----------
    needle : float
        Needle on a mark, across and up, each time it is set down.
    opening, carried : float
        Compass opened by the rule, or from mark to mark; once a setting.
    dividers : float
        Dividers opened by the rule, once a setting.
    measuring : float
        Marked off along the rule, both ends together.
    pricking : float
        Off each of the two lines of a crossing, square to it.
    edge : float
        Edge off each mark it is laid to, square to the line.
    line : float
        Line gone over, off what it follows, once a piece.
    set_square, t_square : float
        Tilt of a square that is slid, degrees.
    protractor, base : float
        A protractor read, and its base laid, degrees.
    opening_bias, dividers_bias, measuring_bias, protractor_bias : float
        By how much each comes out too wide, every time alike; nought of the usual hand.
    """

    needle: float = 0.10
    opening: float = 0.15
    carried: float = 0.10
    dividers: float = 0.10
    measuring: float = 0.20
    pricking: float = 0.10
    edge: float = 0.10
    line: float = 0.10
    set_square: float = 0.05
    t_square: float = 0.03
    protractor: float = 0.25
    base: float = 0.10
    opening_bias: float = 0.0
    dividers_bias: float = 0.0
    measuring_bias: float = 0.0
    protractor_bias: float = 0.0

    def times(self, factor: float) -> Hand:
        """Return a hand whose every error is so many times as large."""
        return replace(self, **{f.name: getattr(self, f.name) * factor for f in fields(self)})


NONE = Hand().times(0.0)
"""The hand that makes no error."""
