"""Dashes fitted to the length of a line, so that even a short one reads as what it is."""

from __future__ import annotations

from ..tolerance import NOUGHT

LONG, GAP, DOT = 8.0, 1.2, 0.8
"""Long dash, gap and dot of a centre line, mm (after ISO 128, in proportion to a thin line)."""

DASH, BREAK = 3.0, 1.2
"""Dash and gap of a hidden line, mm (after ISO 128)."""


def centre_dashes(length: float, closed: bool = False) -> tuple[float, ...]:
    """Return a dash pattern that begins and ends on a long dash, with at least one dot.

    Parameters
    ----------
    length : float
        Of the line, mm.
    closed : bool
        Whether it comes back to its start.

    Examples
    --------
    >>> [round(part, 3) for part in centre_dashes(14.0)]
    [5.4, 1.2, 0.8, 1.2]
    """
    if length <= NOUGHT:
        return ()  # what has no length has no dashes
    small = 2 * GAP + DOT
    count = max(1, round((length - (0 if closed else LONG)) / (LONG + small)))
    dash = (length - count * small) / (count if closed else count + 1)
    if dash < 2 * DOT:
        part = length / (6 if closed else 9)
        return (3 * part, part, part, part)
    return (dash, GAP, DOT, GAP)


def hidden_dashes(length: float, closed: bool = False) -> tuple[float, ...]:
    """Return a dash pattern that begins and ends on a dash."""
    if length <= NOUGHT:
        return ()
    gaps = max(1, round((length - (0 if closed else DASH)) / (DASH + BREAK)))
    dash = (length - gaps * BREAK) / (gaps if closed else gaps + 1)
    if dash < BREAK / 2:
        return (length / 3, length / 3)
    return (dash, BREAK)
