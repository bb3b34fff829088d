"""A polygon across corners, given across flats."""

from __future__ import annotations

import math
from collections.abc import Iterator
from random import Random

from ...geometry import Point
from ..question import Question, Slip
from .context import Context, of_size

PLACE = 8
"""Where it stands among the others."""


def ask(at: Context, _: Random) -> Iterator[Question]:
    """Ask for a polygon's size across corners, where it is given across flats."""
    for entry in at.work.solution.entries:
        made = entry.made
        corners = [
            shape
            for key, shape in (made.parts.items() if made else ())
            if key.startswith("corner.")
        ]
        spots = [corner for corner in corners if isinstance(corner, Point)]
        if made is None or "across flats" not in made.sentence or len(spots) < 4 or len(spots) % 2:
            continue
        middle = Point(sum(p.x for p in spots) / len(spots), sum(p.y for p in spots) / len(spots))
        right = 2 * abs(spots[0] - middle)
        flats = right * math.cos(math.pi / len(spots))
        own = [
            Slip(
                "flats for corners",
                5,
                flats,
                "Across corners is the flats over the cosine of 180/n",
            ),
            Slip(
                "times the cosine",
                3,
                flats * flats / right,
                "Divided by the cosine: corners lie further apart",
            ),
            Slip("radius for diameter", 4, right / 2, "That is from the middle to a corner"),
        ]
        yield from of_size(
            at, entry, "flats", "What is it across corners", right, own, "Corners lie further apart"
        )
