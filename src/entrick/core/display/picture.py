"""Pictures of instruments at their setting, life-size: the compass over a rule, a direction at its
angle."""

from __future__ import annotations

import math
from fractions import Fraction
from itertools import pairwise

from ..drawing.marks import DisplayList, DrawnArc, DrawnCircle, DrawnDot, DrawnLine, Lettering, Mark
from ..measure import RulePiece, Unit

WIDEST = 95.0
"""Widest picture in mm; a longer opening is shown with a break in the rule."""

_SHOWN_END = 40.0

LONGEST = {Unit.MM: 1200.0, Unit.INCH: 48.0}
"""Rules end here; a longer opening is drawn as this one."""

LARGEST_HOLE = 50.0
"""Largest hole of a template, mm."""

CLOSEST = 0.15
"""Graduations nearer than this, mm, run together: the coarser ones are drawn."""


LEGS = ("compass", "beam compass", "dividers")
"""Instruments that stand over the rule on two legs."""

_BASE = 13.0
"""How high the edge of the rule lies in a picture, mm."""


def height_of(tool: str, size: float, unit: Unit | None) -> float:
    """Return how high the picture of a setting is, mm: room is kept for it before it is there.

    Parameters
    ----------
    tool : str
    size : float
        In `unit`.
    unit : Unit or None
        None for an angle, in degrees.
    """
    if unit is None:
        return 44.0
    if tool == "circle template":
        return 2 * _half(size, unit)
    return _BASE + (34.0 if tool in LEGS else 10.0)


def compass_over_rule(
    opening: float, unit: Unit, graduation: Fraction, tool: str = "compass"
) -> DisplayList:
    """Draw an opening over a rule, life-size.

    Parameters
    ----------
    opening : float
        Between needle and lead (or the two points), in `unit`.
    unit : Unit
        Of the rule.
    graduation : Fraction
        Finest graduation, in `unit`.
    tool : str
        "compass", "beam compass", "dividers", or what is laid along the rule: "rule",
        "straightedge", "pencil".

    Returns
    -------
    DisplayList
        In mm; a long opening is broken in the middle.
    """
    mm = float(unit.mm)
    opening = max(0.0, min(abs(opening), LONGEST[unit]))
    while float(graduation) * mm < CLOSEST:
        graduation *= 2
    wide = opening * mm
    left, base = 8.0, _BASE
    broken = wide > WIDEST - 18
    hidden = max(0.0, wide - (WIDEST - 18)) if broken else 0.0
    end = left + wide - hidden
    marks: list[Mark] = [*_rule(left, base, wide, hidden, unit, graduation)]
    if tool in LEGS:
        marks.extend(_legs(left, end, base, tool))
    else:
        marks.extend(
            [
                DrawnLine(left, base, left, base + 6, "outline"),
                DrawnLine(end, base, end, base + 6, "outline"),
            ]
        )
    return DisplayList(end + 12, height_of(tool, opening, unit), tuple(marks))


def _rule(
    left: float, base: float, wide: float, hidden: float, unit: Unit, graduation: Fraction
) -> list[Mark]:
    mm = float(unit.mm)
    marks: list[Mark] = []
    last = math.ceil((wide + 6) / mm / float(graduation))
    break_from = left + _SHOWN_END if hidden else math.inf
    break_to = break_from + 4
    right = left + wide + 6 - hidden
    for start, end in ((left - 4, min(break_from, right)), (break_to, right)):
        if start < end:
            marks.append(DrawnLine(start, base, end, base, "outline"))
            marks.append(DrawnLine(start, base - 11, end, base - 11, "construction"))
    step = float(graduation) * mm
    before = min(last, math.ceil((break_from - 1 - left) / step)) if hidden else last
    after = (
        max(before + 1, math.floor((break_to + 1 + hidden - left) / step)) if hidden else last + 1
    )
    for index in (*range(before + 1), *range(after, last + 1)):
        value = index * graduation
        x = left + float(value) * mm
        if hidden and x > break_from - 1:
            x -= hidden
            if x < break_to + 1:
                continue
        if x > right:
            break
        marks.append(DrawnLine(x, base, x, base - _tick(value, unit), "construction"))
        if value.denominator == 1 and (unit is Unit.INCH or value % 10 == 0):
            marks.append(Lettering(str(value), x, base - 9.6, 2.5, "middle"))
    return marks


POINTER = 9.0
"""How far a pointer stands up from the edge of a rule, mm."""

EDGE = 13.0
"""How far below its edge a rule reaches, mm."""

HEIGHTS = {Unit.MM: (6.0, 4.5, 3.0, 1.8), Unit.INCH: (6.0, 5.0, 4.0, 3.2, 2.4, 1.6)}
"""Of graduations, the roundest first, mm."""


def rule_picture(piece: RulePiece) -> DisplayList:
    """Draw a piece of a rule, life-size, with the pointer where it has one.

    Returns
    -------
    DisplayList
        In mm; the first graduation stands `LEFT` from the left, the edge `EDGE` from below.
    """
    end = LEFT + piece.apart * (piece.count - 1)
    marks: list[Mark] = [
        DrawnLine(LEFT - 4, EDGE, end + 4, EDGE, "outline"),
        DrawnLine(LEFT - 4, EDGE - 12, end + 4, EDGE - 12, "construction"),
    ]
    for number, value in piece.values():
        x = LEFT + piece.apart * (number - piece.first)
        rank = piece.rank(value)
        marks.append(DrawnLine(x, EDGE, x, EDGE - HEIGHTS[piece.unit][rank], "construction"))
        if rank == 0:
            marks.append(Lettering(piece.told(number), x, EDGE - 9.6, 2.5, "middle"))
    if piece.pointer is not None:
        x = LEFT + piece.apart * (piece.pointer - piece.first)
        marks += [
            DrawnLine(x, EDGE + 0.4, x, EDGE + POINTER, "outline"),
            DrawnLine(x, EDGE + 0.4, x - 1.2, EDGE + 3.4, "outline"),
            DrawnLine(x, EDGE + 0.4, x + 1.2, EDGE + 3.4, "outline"),
        ]
    return DisplayList(end + LEFT, EDGE + POINTER + 2, tuple(marks))


LEFT = 8.0
"""How far the first graduation of a piece of a rule stands from the left, mm."""


def _tick(value: Fraction, unit: Unit) -> float:
    """Return the length of a graduation: the coarser, the longer."""
    if unit is Unit.INCH:
        return {1: 6.0, 2: 5.0, 4: 4.0, 8: 3.2, 16: 2.4}.get(value.denominator, 1.6)
    if value % 10 == 0:
        return 6.0
    if value % 5 == 0:
        return 4.5
    return 3.0 if value.denominator == 1 else 1.8


LEAD = 5.0
"""How far the lead of a compass stands out of its holder, mm."""


def _legs(left: float, right: float, base: float, tool: str) -> list[Mark]:
    top = base + 28.0
    if tool == "beam compass":
        return [
            DrawnLine(left, base, left, top - 8, "outline"),
            DrawnLine(right, base, right, top - 8, "outline"),
            DrawnLine(left - 3, top - 8, right + 3, top - 8, "outline"),
            DrawnLine(left - 3, top - 5, right + 3, top - 5, "outline"),
            DrawnDot(left, base, "point"),
        ]
    middle = (left + right) / 2
    marks: list[Mark] = [
        DrawnLine(left, base, middle - 1.2, top, "outline"),
        DrawnLine(right, base, middle + 1.2, top, "outline"),
        DrawnCircle(middle, top + 1.5, 2.2, "outline"),
        DrawnLine(middle, top + 3.7, middle, top + 5.5, "outline"),
        DrawnDot(left, base, "point"),
    ]
    if tool == "dividers":
        # Two needles; a compass has a lead in its holder.
        return [*marks, DrawnDot(right, base, "point")]
    share = LEAD / math.hypot(top - base, middle - right)
    x, y = right + (middle - right) * share, base + (top - base) * share
    return [*marks, *_closed([(x - 1, y), (x + 1, y), (x + 1, y + 5), (x - 1, y + 5)])]


STACKED = {15: (45, -30), 75: (30, 45)}
"""How two set squares stand on each other for a direction: the first on the T-square, the second on
its edge."""


def angle_picture(degrees: float, tool: str) -> DisplayList:
    """Draw a direction over the T-square with the instrument that gives it in its position, the
    angle counted from the right.

    Parameters
    ----------
    degrees : float
        Direction of the line; shown between 0 and 180.
    tool : str
        "T-square", "T-square and set square", a set square, "both set squares together" or
        "protractor".
    """
    turned = degrees % 180
    centre, reach = 45.0, 34.0
    end = _at(centre, reach, turned)
    marks: list[Mark] = [
        *_closed([(8, 2), (86, 2), (86, 6), (8, 6)]),
        *_closed([(3, 0), (8, 0), (8, 9), (3, 9)]),
        DrawnLine(centre, 6, *end, "outline"),
        DrawnDot(centre, 6, "point"),
    ]
    if turned > 0:
        marks.append(DrawnArc(centre, 6, 10, 0, turned, "construction"))
    if tool == "protractor":
        marks += _protractor(centre)
    elif "square" in tool and turned > 0 and tool != "T-square":
        # Seen from the back of the sheet a direction beyond 90° is one before it.
        back = turned > 90
        first, more = STACKED.get(
            round(180 - turned if back else turned), (180 - turned if back else turned, 0.0)
        )
        for start, stop in ((0.0, first), (first, first + more)) if more else ((0.0, first),):
            if back:
                start, stop = 180 - start, 180 - stop
            marks += _set_square(centre, reach, start, stop)
    return DisplayList(90, height_of(tool, degrees, None), tuple(marks))


def _at(centre: float, out: float, degrees: float) -> tuple[float, float]:
    return centre + out * math.cos(math.radians(degrees)), 6 + out * math.sin(math.radians(degrees))


def _closed(corners: list[tuple[float, float]]) -> list[Mark]:
    return [DrawnLine(*a, *b, "construction") for a, b in pairwise([*corners, corners[0]])]


def _set_square(centre: float, reach: float, start: float, stop: float) -> list[Mark]:
    """Return a set square with one corner at the centre, from one direction to another; it is
    right-angled."""
    wide = abs(stop - start)
    along = reach * (math.cos(math.radians(wide)) if wide < 90 else math.tan(math.radians(30)))
    return _closed([(centre, 6.0), _at(centre, along, start), _at(centre, reach, stop)])


def _protractor(centre: float) -> list[Mark]:
    marks: list[Mark] = [DrawnArc(centre, 6, 30, 0, 180, "construction")]
    for degrees in range(0, 181, 10):
        inner = 27 if degrees % 30 else 25
        marks.append(
            DrawnLine(*_at(centre, inner, degrees), *_at(centre, 30, degrees), "construction")
        )
    return marks


_ABOUT = 6.0
"""How much of a template is seen about a hole, mm."""


def _half(diameter: float, unit: Unit) -> float:
    return min(abs(diameter) * float(unit.mm), LARGEST_HOLE) / 2 + _ABOUT


def template_picture(diameter: float, unit: Unit) -> DisplayList:
    """Draw a hole of the circle template, life-size, with the marks that go on the centre lines.

    Parameters
    ----------
    diameter : float
        In `unit`.
    unit : Unit
    """
    half = _half(diameter, unit)
    r = half - _ABOUT
    edge = [(0.0, 0.0), (2 * half, 0.0), (2 * half, 2 * half), (0.0, 2 * half), (0.0, 0.0)]
    marks: list[Mark] = [DrawnLine(*a, *b, "construction") for a, b in pairwise(edge)]
    marks.append(DrawnCircle(half, half, r, "outline"))
    for across, up in ((1, 0), (-1, 0), (0, 1), (0, -1)):
        marks.append(
            DrawnLine(
                half + across * r,
                half + up * r,
                half + across * (r + 3),
                half + up * (r + 3),
                "outline",
            )
        )
    return DisplayList(2 * half, 2 * half, tuple(marks))
