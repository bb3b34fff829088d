"""Every tolerance of the core, named in one place.

Lengths in the geometry are plan units (mm or inches) in double precision.
"""

RELATIVE = 1e-9
"""Two lengths closer than this share of the figure's size are the same length."""

SMALLEST = 1e-9
"""Floor of the same, in plan units, for figures about one unit across and smaller."""

DIRECTION = 1e-7
"""Two directions closer than this, in radians, are the same direction: a tangent junction."""

NEAR_MISS = 2e-2
"""Curves that miss by less than this share of the smaller radius were probably meant to touch."""

PAPER = 0.01
"""Millimetres on paper below which nobody can see or draw a difference."""


def same(size: float) -> float:
    """Return the length below which two positions in a figure of the given size coincide.

    Parameters
    ----------
    size : float
        A length typical of the figure, plan units.

    Returns
    -------
    float
        Tolerance in plan units.
    """
    return max(SMALLEST, RELATIVE * abs(size))
