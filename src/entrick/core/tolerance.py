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

NEARLY_AGAIN = 5e-3
"""Two outlines that lie within this share of their size are one, drawn twice (by eye, no
source)."""

TOUCHING = 3e-7
"""Sine of the angle below which two things touch at the board, and are not pricked where they run
along each other."""

SAME_PLACE = 1e-8
"""Marks closer than this share of the sheet are one mark to look at."""

PAPER = 0.01
"""Millimetres on paper below which nobody can see or draw a difference."""


ROUND = 1e-9
"""Rounding allowed for where something is counted, where angles wrap, and of shares and lengths
about one."""

NOUGHT = 1e-12
"""Nothing is divided by less."""

CONVERGED = 1e-15
"""A step smaller than this ends a search."""

SPECK = 1e-6
"""What is smaller, as a share of what it belongs to, is not kept as a piece of its own."""

FLAT = 1e-4
"""A slope over a bend below this tells that a place is where a curve is nearest, rad."""

READ = 5e-7
"""A reading nearer to a graduation than this stands on it."""

FINEST = 1e-7
"""Departure from a true curve, as a share of its length from end to end, below which nothing is
gained."""

FITTED = {
    "gear": 4e-4,
    "helix": 4e-4,
    "cycloid": 1e-4,
    "ellipse": 4e-5,
    "conic": 2e-5,
    "cam": 2e-5,
}
"""How closely the arcs of a fitted curve keep to it: shares of the module, of the radius, of half
the long axis, of the width of a conic, and of the least distance of a cam. Less than half a µm in
each mm of a tooth, and nowhere more than a pencil line hides."""

MISSED = 1e-4
"""Share of the least distance by which a cam's face may miss the arcs an event is drawn with."""

VARIED, ALIKE, NOISE = 1e-6, 1e-4, 1e-5
"""Dimensioning: by what share a size is made larger; derivatives that are alike; derivatives that
are none."""


OF_ONE = 1e-7
"""What two pieces in a file may differ by and be one line or arc, as a share of their size."""

AS_ROUND = 4e-4
"""Share of its radius by which a curve of another program may be off an arc and stand for it."""

JUST_FITS = 1e-4
"""Share of its width by which a tool may be taken narrower, to get into what is just as wide."""

RUNS_INTO = 1e-4
"""Sine of the angle below which two pieces in a file run into each other: files round their
numbers."""

READ_EXACT = 2e-6
"""What numbers of a file written to six decimals may be off by and be as they were given."""

READ_CLOSELY = (1e-6, 5e-6, 5e-5)
"""How closely a file is read first: one that is exact, and one that is written to six decimals,
where touch points come out worse than what they are computed from."""

READ_WITHIN = 1e-3
"""How far a number may be from what a file has, where nothing else is said, in its unit."""


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
    found = RELATIVE * abs(size)
    return (
        found if found > SMALLEST else SMALLEST
    )  # written out: asked for thousands of times at an edit


def worked(size: float) -> float:
    """Return the length below which two places coincide that were come by in several steps, plan
    units."""
    return 10 * same(size)


def assembled(size: float) -> float:
    """Return the same for places come by in different ways through a whole figure, plan units."""
    return 100 * same(size)


def surely_two(size: float) -> float:
    """Return the length beyond which two places are surely two, whatever way they were come by,
    plan units."""
    return 1000 * same(size)
