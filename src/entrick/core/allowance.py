"""How much a plan may ask for, named in one place. No sensible plan comes near; beyond it a
statement is refused in words.

Everything is counted in pieces: a straight line, an arc, a point, a stroke or a note on the sheet
is one, a run as many as it has. What one request costs, in time and in memory, follows from that
count."""

from __future__ import annotations

from collections.abc import Iterable

from .geometry import Loop, Shape
from .plan.errors import TooMuch

MOST_PIECES = 60_000
"""Pieces a plan may ask for in all: some twenty gears of a hundred teeth."""

FARTHEST = 20_000.0
"""How large a view may be on paper, mm, and still get its dimensions, centre lines and hatching: a
sheet is 5 m at most."""


def pieces(shapes: Iterable[Shape | Loop]) -> int:
    """Count the pieces of shapes."""
    return sum(len(shape.pieces) if isinstance(shape, Loop) else 1 for shape in shapes)


def refuse(what: str, count: int, most: int) -> TooMuch:
    """Return the refusal of something that asks for more than its allowance."""
    return TooMuch(
        f"{what} asks for {grouped(count)} pieces; the desk works out {grouped(most)} at once"
    )


def grouped(count: int) -> str:
    """Write a large number in groups of three that stay together.

    >>> grouped(1234567).replace("\\u202f", "_")
    '1_234_567'
    """
    return f"{count:,}".replace(",", "\u202f")


def check_copies(things: Iterable[Shape | Loop], count: int) -> None:
    """Refuse copies beyond the allowance before the first is made; each is counted as made and as
    drawn.

    Raises
    ------
    TooMuch
    """
    asked = 2 * count * pieces(things)
    if asked > MOST_PIECES:
        raise refuse("this", asked, MOST_PIECES)
