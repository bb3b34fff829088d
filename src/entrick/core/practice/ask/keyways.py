"""Where the floor of a keyway lies."""

from __future__ import annotations

from collections.abc import Iterator
from random import Random

from ...geometry import Line as Straight
from ...geometry import Point
from ...tolerance import worked
from ..question import Question, Slip
from .context import Context, of_size

PLACE = 7
"""Where it stands among the others."""


def ask(at: Context, _: Random) -> Iterator[Question]:
    """Ask how far from the centre the floor of a keyway lies."""
    for entry in at.work.solution.entries:
        parts = entry.made.parts if entry.made else {}
        floor, start = parts.get("floor"), parts.get("start")
        if not isinstance(floor, Straight) or not isinstance(start, Point):
            continue
        round_ = next(
            (c for _, c in at.circles if abs(abs(start - c.centre) - c.radius) <= worked(c.radius)),
            None,
        )
        if round_ is None:
            continue
        far, r = abs(floor.offset_of(round_.centre)), round_.radius
        if far <= r:
            continue
        own = [
            Slip(
                "depth from the wrong side",
                3,
                r - (far - r),
                "The floor lies beyond the circle, not inside it",
            ),
            Slip("depth alone", 3, far - r, "Its depth is counted from the circle"),
            Slip("diameter for radius", 6, r + far, "Half of the bore counts, from its centre"),
        ]
        asks = "How far from the centre of the bore does its floor lie"
        yield from of_size(at, entry, "keyway", asks, far, own, "The radius, and then the depth")
