"""What a departure from the true curve comes to on the sheet, and how much of it the pencil
hides."""

from __future__ import annotations

from . import WIDTHS, Sheet

_FINE = 2
"""Decimals of a millimetre on paper."""


def on_sheet(departs: float, sheet: Sheet) -> str:
    """Say what a departure in plan units is on paper, and whether the line in which it is drawn
    hides it.

    Half the width of an outline lies on each side of the curve (line widths: ISO 128).
    """
    line = WIDTHS["outline"].width
    drawn = departs * sheet.factor
    words = f"at {sheet.scale} {max(drawn, 0.01):.{_FINE}f} mm on paper: "
    if drawn <= line / 2:
        return f"{words}a {line:g} mm line hides all of it"
    return f"{words}a {line:g} mm line hides {line / 2:.{_FINE}f} mm of it"


def with_departure(
    working: tuple[str, ...], departs: float | None, sheet: Sheet
) -> tuple[str, ...]:
    """Return a working with what its departure comes to on the sheet."""
    return working if departs is None else (*working, on_sheet(departs, sheet))
