"""Blocks of a program by ISO 6983: words, numbers to so many places, arcs that rounding cannot turn
inside out."""

from __future__ import annotations

import math
import re
import unicodedata
from collections.abc import Iterator

from ..geometry import Arc, Circle, Line, Piece, Point
from ..measure import Unit

PLACES = {Unit.MM: 4, Unit.INCH: 5}
"""Decimals of a coordinate."""

LONGEST_COMMENT = 100


class Blocks:
    """What is written so far.

    Parameters
    ----------
    unit : Unit
    zero : Point
        Where the program has its zero, plan units.
    dry : bool
        Whether the tool stays off and up.
    """

    def __init__(self, unit: Unit, zero: Point, dry: bool = False) -> None:
        self.places, self.zero, self.dry = PLACES[unit], zero, dry
        self.rows: list[str] = []
        self._feed = 0.0

    def say(self, block: str) -> None:
        """Write a block as it is."""
        self.rows.append(block)

    def feed(self, feed: float) -> None:
        """Say a feed before anything moves."""
        self.rows.append(self._fed(feed).strip())

    def remark(self, text: str) -> None:
        """Write a comment."""
        self.rows.append(comment(text))

    def over(self, spot: Point) -> None:
        """Move over the sheet to a place."""
        self.rows.append(f"G0 {self._at(spot)}")

    def up(self, height: float) -> None:
        """Move quickly to a height."""
        self.rows.append(f"G0 Z{number(height, self.places)}")

    def down(self, height: float, feed: float) -> None:
        """Go down at a feed; in a dry run it stays up."""
        if not self.dry:
            self.rows.append(f"G1 Z{number(height, self.places)}{self._fed(feed)}")

    def on(self, words: str) -> None:
        """Put the tool on; in a dry run it stays off."""
        if not self.dry:
            self.rows.append(words)

    def off(self) -> None:
        """Put the tool off."""
        if not self.dry:
            self.rows.append("M5")

    def wait(self, seconds: float) -> None:
        """Wait where it is."""
        if seconds > 0 and not self.dry:
            self.rows.append(f"G4 P{seconds:g}")

    def along(self, curve: Line | Arc, feed: float, height: float | None = None) -> None:
        """Move along a piece, to a height at its end where one is said."""
        # What is shorter than the last decimal is no movement: a hole as wide as the tool is a
        # plunge.
        if length_of(curve) <= 10**-self.places:
            return
        deep = "" if height is None or self.dry else f" Z{number(height, self.places)}"
        if isinstance(curve, Line):
            self.rows.append(f"G1 {self._at(curve.at(curve.end or 0.0))}{deep}{self._fed(feed)}")
            return
        first, last = curve.first, curve.last
        turn = 3 if curve.sweep > 0 else 2
        i, j = curve.centre.x - first.x, curve.centre.y - first.y
        centre = f"I{number(i, self.places)} J{number(j, self.places)}"
        self.rows.append(f"G{turn} {self._at(last)}{deep} {centre}{self._fed(feed)}")

    def _fed(self, feed: float) -> str:
        """Return the word for a feed, where it is another than before."""
        if feed == self._feed:
            return ""
        self._feed = feed
        return f" F{feed:.5g}"

    def _at(self, spot: Point) -> str:
        x, y = spot - self.zero
        return f"X{number(x, self.places)} Y{number(y, self.places)}"


def drawn(piece: Piece) -> Iterator[Line | Arc]:
    """Yield a piece as moves: no arc is more than half a turn, so that rounding cannot turn it
    inside out."""
    match piece.curve:
        case Line():
            yield Line.between(piece.entry, piece.exit)
        case Arc() as arc:
            parts = max(1, math.ceil(abs(arc.sweep) / math.pi - 1 / 1024))
            each = arc.sweep / parts
            for k in range(parts):
                yield Arc(arc.centre, arc.radius, arc.start + k * each, each)
        case Circle() as circle:
            begin = (piece.entry - circle.centre).angle
            for k in range(2):
                yield Arc(circle.centre, circle.radius, begin + k * math.pi, math.pi)


def length_of(curve: Line | Arc) -> float:
    """Return the length of a move."""
    return abs(curve.sweep) * curve.radius if isinstance(curve, Arc) else curve.end or 0.0


def number(value: float, places: int) -> str:
    """Write a number with no more decimals than it needs."""
    text = f"{value:.{places}f}".rstrip("0").rstrip(".")
    return "0" if text in ("-0", "") else text


def comment(text: str) -> str:
    """Return a comment a control can read: plain capitals, no brackets in it."""
    plain = unicodedata.normalize("NFKD", text).encode("ascii", "ignore").decode().upper()
    return f"({re.sub(r'[^A-Z0-9 .,:+-]', ' ', plain)[:LONGEST_COMMENT].strip()})"
