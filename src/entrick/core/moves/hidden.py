"""``hidden``: go over what lies behind the material, in dashes."""

from __future__ import annotations

from ..kind import Args, Kind, Made, Role
from ..plan.forms import Form
from . import line_in


def construct(args: Args) -> Made:
    """Walk along pieces as ``line in`` does, but in dashed thin lines; an open run needs no
    closing."""
    return line_in.lined(args, Role.HIDDEN)


ABOUT = """\
The same walk, dashed: what lies behind. It may stay open.
"""

SHOWN = """\
units mm
O = datum
block = box, 60 by 40, centred on O
rim = line in, block.bottom > block.right > block.top > block.left
A = point, 10 left of block.lower_right
slot = run, from A, up 15, left 12, down 15
behind = hidden, slot
"""

KIND = Kind(
    name="hidden",
    group="Outline",
    summary="dashed lines for what lies behind",
    example="back = hidden, slot1",
    mistake="The dashes stop short of the outline: a hidden line begins and ends on a dash.",
    also=("dashed", "hidden lines", "hidden edge"),
    forms=(
        Form("open"),
        line_in.REPEATED,
        Form("{walk:walk}", "walk", needed=True),
    ),
    construct=construct,
    about=ABOUT,
    shown=SHOWN,
    lines_in=Role.HIDDEN,
)
