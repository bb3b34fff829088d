"""Straight legs one after another, as a run: level and plumb by one number, else by angle and
length or to a place."""

from __future__ import annotations

import math
from collections.abc import Sequence

from ...geometry import Line, Point, polar
from ...geometry.shapes import ends as ends_of
from ..profile import Run, pieces_of
from ..rows import Rows
from ..simplest import cost, worth

MOST_LEGS = 60


def written(run: Run, rows: Rows) -> str:
    """Write a closed run of lines."""
    pieces = pieces_of(run)
    if not pieces or not all(isinstance(piece, Line) for piece in pieces):
        return ""
    return of_corners([ends_of(piece)[0] for piece in pieces], rows)


def of_corners(spots: Sequence[Point], rows: Rows) -> str:
    """Write the run with some corners; empty where it has too many legs."""
    if not 3 <= len(spots) <= MOST_LEGS:
        return ""
    start = min(range(len(spots)), key=lambda k: (rows.figures(spots[k]), spots[k].y, spots[k].x))
    spots = [*spots[start:], *spots[:start]]
    here = spots[0]
    legs = [f"from {rows.point(here)}"]
    for there in spots[1:]:
        # From where the last leg ends as it is written, so that rounding does not add up.
        said, here = _leg(here, there, rows)
        legs.append(said)
    name = rows.add("m", f"run, {', '.join(legs)}, close")
    for k, spot in enumerate(spots, 1):
        rows.remember(spot, f"{name}.corner.{k}")
    return name


def _leg(here: Point, there: Point, rows: Rows) -> tuple[str, Point]:
    way = there - here
    if abs(way.y) <= rows.within / 2:
        length = worth(rows.simple(abs(way.x)))
        return f"{'right' if way.x > 0 else 'left'} {rows.say(abs(way.x), 'size')}", here + Point(
            math.copysign(length, way.x), 0.0
        )
    if abs(way.x) <= rows.within / 2:
        length = worth(rows.simple(abs(way.y)))
        return f"{'up' if way.y > 0 else 'down'} {rows.say(abs(way.y), 'size')}", here + Point(
            0.0, math.copysign(length, way.y)
        )
    degrees = round(math.degrees(way.angle) * 2) / 2 % 360
    length = worth(rows.simple(abs(way)))
    end = here + polar(length, math.radians(degrees))
    if abs(end - there) <= rows.within / 2:
        by_angle = cost(f"{degrees:g}") + cost(rows.simple(abs(way)))
        if by_angle <= rows.figures(there):
            angle = rows.say_angle(math.radians(degrees), abs(way))
            return f"at {angle} for {rows.say(abs(way), 'size')}", end
    return f"to {rows.point(there)}", there
