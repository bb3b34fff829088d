"""Pictures of what a kit holds, life-size where they are small enough: one for each of its
items."""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence
from fractions import Fraction
from itertools import pairwise

from ..drawing.marks import DisplayList, DrawnArc, DrawnCircle, DrawnLine, DrawnRun, Lettering, Mark
from ..measure import Unit
from .picture import angle_picture, compass_over_rule

Corner = tuple[float, float]

OPENING = 35.0
"""Opening at which compasses and dividers are shown, mm."""


def _closed(corners: Sequence[Corner], role: str = "construction") -> list[Mark]:
    return [DrawnLine(*a, *b, role) for a, b in pairwise([*corners, corners[0]])]


def _legs(tool: str) -> DisplayList:
    return compass_over_rule(OPENING, Unit.MM, Fraction(1), tool)


def _rule() -> DisplayList:
    return compass_over_rule(60, Unit.MM, Fraction(1, 2), "rule")


def _faces() -> DisplayList:
    """Return a three-sided rule from its end, and two of its faces."""
    marks = _closed([(4, 4), (22, 4), (13, 18)], "outline")
    for row, (name, step) in enumerate((("1:2", 5.0), ("1:5", 2.0))):
        base = 16.0 - 10 * row
        marks += [DrawnLine(28, base, 82, base, "outline"), Lettering(name, 30, base - 6, 2.5)]
        marks += [
            DrawnLine(
                28 + n * step, base, 28 + n * step, base - (4 if n % 5 == 0 else 2), "construction"
            )
            for n in range(int(54 / step) + 1)
        ]
    return DisplayList(86, 22, tuple(marks))


def _template() -> DisplayList:
    marks = _closed([(1, 1), (79, 1), (79, 27), (1, 27)])
    x = 6.0
    for wide in (4, 6, 8, 10, 12, 14):
        marks.append(DrawnCircle(x + wide / 2, 12, wide / 2, "outline"))
        marks.append(Lettering(str(wide), x + wide / 2, 21, 2.0, "middle"))
        x += wide + 3.6
    return DisplayList(80, 28, tuple(marks))


def _ellipses() -> DisplayList:
    """Return an isometric template: holes named by the circle, sqrt(3/2) long and sqrt(1/2) wide
    for each 1 of it."""
    marks = _closed([(1, 1), (79, 1), (79, 27), (1, 27)])
    x = 5.0
    for wide in (6, 9, 12, 15):
        a, b = wide / 2 * math.sqrt(1.5), wide / 2 * math.sqrt(0.5)
        turns = [math.tau * k / 48 for k in range(49)]
        marks.append(
            DrawnRun(
                tuple((x + a + a * math.cos(t), 12 + b * math.sin(t), 0.0) for t in turns),
                False,
                "outline",
            )
        )
        marks.append(Lettering(str(wide), x + a, 21, 2.0, "middle"))
        x += 2 * a + 4
    return DisplayList(80, 28, tuple(marks))


def _squares() -> DisplayList:
    low, side = 3.0, 34.0
    marks = _closed([(3, low), (3 + side, low), (3, low + side)], "outline")
    marks += _closed(
        [(44, low), (44 + side, low), (44, low + side * math.tan(math.radians(30)))], "outline"
    )
    return DisplayList(86, 40, tuple(marks))


def _adjustable() -> DisplayList:
    """Return a set square whose upper edge turns on a screw over an arc."""
    marks = _closed([(4, 3), (64, 3), (64, 10), (4, 10)], "outline")
    end = (6 + 54 * math.cos(math.radians(28)), 10 + 54 * math.sin(math.radians(28)))
    marks += _closed([(6, 10), end, (end[0] - 3, end[1] + 5), (4, 15)], "outline")
    marks += [DrawnArc(6, 10, 40, 0, 45, "construction"), DrawnCircle(41, 29, 2.2, "outline")]
    return DisplayList(68, 44, tuple(marks))


def _curve() -> DisplayList:
    """Return the outline of a curve: parts of spirals that meet, one tightening and one opening."""
    turns = [k / 12 for k in range(38)]
    outer = [((8 + 9 * t) * math.cos(t), (4 + 5 * t) * math.sin(t)) for t in turns]
    inner = [((3 + 7 * t) * math.cos(t), (1 + 3 * t) * math.sin(t)) for t in reversed(turns)]
    run = [*outer, *inner, outer[0]]
    low = min(y for _, y in run)
    left = min(x for x, _ in run)
    corners = tuple((x - left + 3, y - low + 3, 0.0) for x, y in run)
    return DisplayList(
        max(x for x, _, _ in corners) + 3,
        max(y for _, y, _ in corners) + 3,
        (DrawnRun(corners, False, "outline"),),
    )


def _pencils() -> DisplayList:
    marks: list[Mark] = []
    for row in range(2):
        y = 6.0 + 14 * row
        marks += _closed([(20, y - 2.5), (80, y - 2.5), (80, y + 2.5), (20, y + 2.5)], "outline")
        marks += [
            DrawnLine(20, y - 2.5, 8, y - 0.4, "outline"),
            DrawnLine(20, y + 2.5, 8, y + 0.4, "outline"),
        ]
        marks.append(DrawnLine(3, y, 8, y, "outline" if row else "construction"))
    return DisplayList(84, 26, tuple(marks))


def _papers() -> DisplayList:
    """Return sheets of one series lying over each other, each half of the one before."""
    marks: list[Mark] = []
    wide, high = 59.4, 42.0
    for _ in range(4):
        marks += _closed([(2, 2), (2 + wide, 2), (2 + wide, 2 + high), (2, 2 + high)])
        wide, high = high, wide / 2
        if high > wide:
            wide, high = high, wide
    return DisplayList(64, 46, tuple(marks))


_PICTURES: dict[str, Callable[[], DisplayList]] = {
    "graduation": _rule,
    "faces": _faces,
    "compass": lambda: _legs("compass"),
    "beam": lambda: _legs("beam compass"),
    "dividers": lambda: _legs("dividers"),
    "template_holes": _template,
    "ellipse_holes": _ellipses,
    "set_squares": _squares,
    "adjustable_square": _adjustable,
    "protractor": lambda: angle_picture(35, "protractor"),
    "french_curves": _curve,
    "pencils": _pencils,
    "papers": _papers,
    "guide": lambda: angle_picture(0, "T-square"),
}


def instrument_picture(item: str) -> DisplayList:
    """Draw an item of a kit.

    Parameters
    ----------
    item : str
        Its key in a kit's file.

    Raises
    ------
    KeyError
        Where a kit has no such item.
    """
    return _PICTURES[item]()
