"""A regular polygon, by whichever of its sizes is the simplest number."""

from __future__ import annotations

import math
from collections.abc import Sequence

from ...geometry import Line, Point, polar
from ...geometry.shapes import ends as ends_of
from ..profile import Run, pieces_of
from ..rows import Rows
from ..simplest import cost

MOST_SIDES = 40
WAYS = {0: "right", 90: "up", 180: "left", 270: "down"}


def written(run: Run, rows: Rows) -> str:
    """Write a run that is a regular polygon."""
    pieces = pieces_of(run)
    if not all(isinstance(piece, Line) for piece in pieces):
        return ""
    return of_corners([ends_of(piece)[0] for piece in pieces], rows)


def of_corners(spots: Sequence[Point], rows: Rows) -> str:
    """Write the regular polygon with some corners; empty where they are those of none."""
    sides = len(spots)
    if not 3 <= sides <= MOST_SIDES:
        return ""
    centre = Point(sum(p.x for p in spots) / sides, sum(p.y for p in spots) / sides)
    radius = sum(abs(p - centre) for p in spots) / sides
    area = sum(a.cross(b) for a, b in zip(spots, [*spots[1:], spots[0]], strict=True))
    first = (spots[0] - centre).angle
    ideal = [
        centre + polar(radius, first + math.copysign(math.tau * k / sides, area))
        for k in range(sides)
    ]
    if any(abs(a - b) > rows.within for a, b in zip(spots, ideal, strict=True)):
        return ""
    step = math.tau / sides
    sizes = [
        (2 * radius * math.cos(step / 2), "{} across flats" if sides % 2 == 0 else ""),
        (2 * radius * math.sin(step / 2), "side {}"),
        (2 * radius, "{} across corners" if sides % 2 == 0 else ""),
        (radius, "radius {}"),
    ]
    size, form = min(
        (each for each in sizes if each[1]), key=lambda each: cost(rows.simple(each[0]))
    )
    role = "radius" if form.startswith("radius") else "size"
    said = form.format(rows.say(size, role))
    way, start = _way(first, step, rows.fine / radius)
    way = way or f"first corner at {rows.say_angle(start, radius)}"
    name = rows.add("n", f"polygon, {sides} sides, centred on {rows.point(centre)}, {said}, {way}")
    # Corners are counted counter-clockwise.
    for k in range(sides):
        rows.remember(centre + polar(radius, start + step * k), f"{name}.corner.{k + 1}")
    return name


def _way(first: float, step: float, fine: float) -> tuple[str, float]:
    """Return how a polygon stands, which is empty where it stands in no usual way, and the
    direction of its first corner."""
    for word, turn in (("point", first), ("flat", first + step / 2)):
        for degrees in (90, 0, 180, 270):
            if abs(math.remainder(turn - math.radians(degrees), step)) <= fine:
                start = math.radians(degrees) + (step / 2 if word == "flat" else 0.0)
                return f"{word} {WAYS[degrees]}", start
    return "", first % step
