"""``seen edge``: an edge that is seen and bounds no material: a seat, a bevel, the end of a
round."""

from __future__ import annotations

from ..kind import Args, Kind, Made, Role
from ..plan.forms import Form
from . import line_in


def construct(args: Args) -> Made:
    """Walk along pieces as ``line in`` does, as heavy as an outline; it is neither rim nor hole,
    and is not cut."""
    return line_in.lined(args, Role.EDGE)


ABOUT = """\
The same walk, as heavy as an outline: an edge that is seen and bounds no material, as of a seat
or a bevel. It is neither rim nor hole to the proof, and no cutter follows it. It may stay open.
"""

SHOWN = """\
units mm
O = datum
c = circle, centre O, radius 30
d = circle, centre O, radius 26
rim = line in, c
bevel = seen edge, d
"""

KIND = Kind(
    name="seen edge",
    group="Outline",
    summary="an edge that is seen but is neither rim nor hole: a seat, a bevel",
    example="bevel = seen edge, ring",
    mistake="A seat is lined in as a hole, and the cutter goes through it.",
    also=("edge", "bevel", "seat"),
    forms=(
        Form("open"),
        line_in.REPEATED,
        Form("{walk:walk}", "walk", needed=True),
    ),
    construct=construct,
    about=ABOUT,
    shown=SHOWN,
    lines_in=Role.EDGE,
)
