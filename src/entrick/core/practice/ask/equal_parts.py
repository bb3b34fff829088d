"""How far apart equal parts lie."""

from __future__ import annotations

from collections.abc import Iterator
from random import Random

from ...geometry import Point
from ...measure import spell_angle
from ..question import Question, Slip
from ..slips import ANGLES_NEAR, angles
from .context import Context

PLACE = 2
"""Where it stands among the others."""


def ask(at: Context, _: Random) -> Iterator[Question]:
    """Ask how far apart equal parts lie."""
    for entry in at.work.solution.entries:
        made = entry.made
        if made is None or entry.statement.kind not in ("spaced", "polygon"):
            continue
        count = sum(isinstance(shape, Point) for shape in made.shapes) or len(made.shapes)
        if entry.statement.kind == "polygon":
            count = sum(key.isdigit() for key in made.parts) or count
        if count < 3:
            continue
        right = 360 / count
        own = [
            Slip(
                "one part out",
                4,
                360 / (count + 1),
                f"{count} parts make {count} gaps, not {count + 1}",
            ),
            Slip(
                "one part out",
                4,
                360 / (count - 1),
                f"{count} parts make {count} gaps, not {count - 1}",
            ),
        ]
        slips = angles(right, own)
        told = at.told(entry.line)
        asks = f"{told} How many degrees lie from one to the next, seen from the middle?"
        yield Question(
            f"apart:{entry.line}",
            "parts",
            asks,
            "angle",
            entry.line,
            right,
            0,
            "°",
            ANGLES_NEAR,
            slips=slips,
            working=(f"360 ÷ {count} = {spell_angle(right)}",),
            hints=("All the way round is 360°",),
        )
