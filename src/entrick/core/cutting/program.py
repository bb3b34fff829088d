"""A cutter's program by ISO 6983: one outline after another at full size, arcs as arcs."""

from __future__ import annotations

import math
import re
import unicodedata
from collections.abc import Iterator, Sequence

from ..geometry import Arc, Circle, Line, Point
from ..measure import Unit
from ..plan.errors import ClauseError
from .paths import Cut

PLACES = {Unit.MM: 4, Unit.INCH: 5}
"""Decimals of a coordinate."""

CAUTION = (
    "A profile says nothing about strength, fit or material. Check scale and units on the machine "
    "before cutting; "
    "guard, eye protection and the site's own rules apply."
)

LONGEST_COMMENT = 100

LARGEST_FEED = 100_000


def write_program(
    cuts: Sequence[Cut],
    unit: Unit,
    tool: float,
    feed: float,
    title: str = "",
    remarks: Sequence[str] = (),
) -> str:
    """Write the program of a cutter.

    Parameters
    ----------
    cuts : sequence of Cut
        In the order of cutting.
    unit : Unit
        Of the plan: the program is in it, at full size.
    tool : float
        Width of the cut, plan units; already taken off in the paths.
    feed : float
        Plan units a minute.
    title : str
    remarks : sequence of str
        What else is to be said in its head.

    Returns
    -------
    str
        G20 or G21 (inch, mm), G90 (absolute), G17 (in the plane of the sheet), G94 (feed a minute);
        G0 to where the tool goes in, M3 and M5 for cutting and not; G1 along lines, G2 and G3 along
        arcs with I and J from their beginning to their centre. CR LF at the end of blocks.

    Raises
    ------
    ClauseError
        For a feed that is none.
    """
    if not 0 < feed <= LARGEST_FEED:
        raise ClauseError(
            f"a feed is more than nought and at most {LARGEST_FEED} {unit.value} a minute"
        )
    rows = list(_rows(cuts, unit, tool, feed, (title or "OUTLINES", *remarks)))
    return "%\r\n" + "".join(f"{row}\r\n" for row in rows) + "%\r\n"


def _rows(
    cuts: Sequence[Cut], unit: Unit, tool: float, feed: float, head: Sequence[str]
) -> Iterator[str]:
    places = PLACES[unit]
    yield "O1"
    yield from map(_comment, head)
    yield _comment(f"UNITS {unit.value.upper()}, FULL SIZE 1 TO 1, TOOL {tool:.4g}, KERF TAKEN OFF")
    yield _comment(
        "LAYOUT ONLY. CHECK UNITS AND SCALE ON THE MACHINE, GUARD IT, WEAR EYE PROTECTION"
    )
    yield f"G{21 if unit is Unit.MM else 20} G90 G17 G94"
    yield f"F{feed:.4g}"
    for number, cut in enumerate(cuts, 1):
        yield _comment(f"{number} {cut.name}, {'HOLE' if cut.hole else 'RIM'}")
        yield f"G0 {_at(cut.start, places)}"
        yield "M3"
        curves = [cut.lead.into] if cut.lead else []
        curves += [
            curve  # type: ignore[misc]
            for piece in cut.path.pieces
            for curve in _drawn(piece.curve, piece.entry, piece.exit)
        ]
        curves += [cut.lead.out_of] if cut.lead else []
        # What is shorter than the last decimal is no movement: a hole as wide as the tool is a
        # plunge.
        yield from (_block(curve, places) for curve in curves if _length(curve) > 10**-places)
        yield "M5"
    yield "M30"


def _drawn(curve: Line | Arc | Circle, entry: Point, exit_: Point) -> Iterator[Line | Arc]:
    """Yield a piece as moves: no arc is more than half a turn, so that rounding cannot turn it
    inside out."""
    match curve:
        case Line():
            yield Line.between(entry, exit_)
        case Arc():
            parts = max(1, math.ceil(abs(curve.sweep) / math.pi - 1 / 1024))
            each = curve.sweep / parts
            for k in range(parts):
                yield Arc(curve.centre, curve.radius, curve.start + k * each, each)
        case Circle():
            begin = (entry - curve.centre).angle
            for k in range(2):
                yield Arc(curve.centre, curve.radius, begin + k * math.pi, math.pi)


def _length(curve: Line | Arc) -> float:
    return abs(curve.sweep) * curve.radius if isinstance(curve, Arc) else curve.end or 0.0


def _block(curve: Line | Arc, places: int) -> str:
    if isinstance(curve, Line):
        return f"G1 {_at(curve.at(curve.end or 0.0), places)}"
    first, last = curve.first, curve.last
    turn = 3 if curve.sweep > 0 else 2
    i, j = curve.centre.x - first.x, curve.centre.y - first.y
    return f"G{turn} {_at(last, places)} I{_number(i, places)} J{_number(j, places)}"


def _at(point: Point, places: int) -> str:
    return f"X{_number(point.x, places)} Y{_number(point.y, places)}"


def _number(value: float, places: int) -> str:
    text = f"{value:.{places}f}".rstrip("0").rstrip(".")
    return "0" if text in ("-0", "") else text


def _comment(text: str) -> str:
    """Return a comment a control can read: plain capitals, no brackets in it."""
    plain = unicodedata.normalize("NFKD", text).encode("ascii", "ignore").decode().upper()
    return f"({re.sub(r'[^A-Z0-9 .,:+-]', ' ', plain)[:LONGEST_COMMENT].strip()})"
