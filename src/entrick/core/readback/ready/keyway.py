"""A bore with keyways, or a shaft with tongues: an arc about one centre, and recesses of three
straight sides in it."""

from __future__ import annotations

import math
from itertools import groupby

from ...geometry import Arc, Line, Point
from ...geometry.shapes import ends as ends_of
from ..profile import Run, pieces_of
from ..rows import Rows
from ..simplest import cost
from ..symmetry import times_round

SIDES = {
    "above": Point(0.0, 1.0),
    "below": Point(0.0, -1.0),
    "left": Point(-1.0, 0.0),
    "right": Point(1.0, 0.0),
}
MOST = 8
"""Keyways one circle may have."""


def written(run: Run, rows: Rows) -> str:
    """Write a run that is a circle with keyways."""
    pieces = pieces_of(run)
    arcs = [piece for piece in pieces if isinstance(piece, Arc)]
    if not arcs or len(pieces) != 4 * len(arcs):
        return ""
    centre, radius = arcs[0].centre, arcs[0].radius
    if any(abs(arc.centre - centre) + abs(arc.radius - radius) > rows.within for arc in arcs):
        return ""
    start = next(k for k, piece in enumerate(pieces) if isinstance(piece, Arc))
    pieces = [*pieces[start:], *pieces[:start]]
    groups = [
        list(group)
        for straight, group in groupby(pieces, lambda p: isinstance(p, Line))
        if straight
    ]
    found = [_recess(group, centre, rows.within) for group in groups if len(group) == 3]
    if len(found) != len(arcs) or any(recess is None for recess in found):
        return ""
    recesses = [recess for recess in found if recess]
    times, _ = times_round(run, rows.within)
    if times > 2 and times == len(arcs):
        # One of them is said, the one that stands upright if one does.
        first = max(recesses, key=lambda recess: (round(recess[0].y, 6), recess[0].x))
        bore = rows.circle(centre, radius)
        return (
            f"{bore} > {_keyway(first, bore, radius, False, rows)}, {times} about "
            f"{rows.point(centre)}"
        )
    if len(arcs) > MOST:
        return ""
    bore = rows.circle(centre, radius)
    walk: list[str] = []
    for arc, recess in zip(arcs, recesses, strict=True):
        name = _keyway(recess, bore, radius, len(arcs) == 1, rows)
        word = "long" if abs(arc.sweep) > math.pi else "short"
        walk += [
            f"{bore} {word}" if len(arcs) == 1 else f"{bore} {'ccw' if arc.sweep > 0 else 'cw'}",
            name,
        ]
    return " > ".join(walk)


Recess = tuple[Point, float, float]
"""Which way it lies from the centre, how wide it is, and how far its floor is from the centre."""


def _keyway(recess: Recess, bore: str, radius: float, alone: bool, rows: Rows) -> str:
    way, width, floor = recess
    depth = floor - radius
    over = alone and depth > 0 and cost(rows.simple(floor + radius)) < cost(rows.simple(depth))
    size = (
        f"{rows.say(floor + radius, 'size')} over all"
        if over
        else f"depth {rows.say(abs(depth), 'wall')}"
    )
    side = next((word for word, at in SIDES.items() if abs(way - at) * radius <= rows.fine), "")
    side = side or f"at {rows.say_angle(way.angle, floor)}"
    inward = ", inward" if depth < 0 else ""
    return rows.add(
        "k", f"keyway, on {bore}, width {rows.say(width, 'size')}, {size}, {side}{inward}"
    )


def _recess(group: list[Line | Arc], centre: Point, within: float) -> Recess | None:
    side, floor, other = (piece for piece in group if isinstance(piece, Line))
    a, b = ends_of(floor)
    middle = (a + b) * 0.5 - centre
    way = middle.unit
    square = abs(floor.direction.dot(way)) * abs(b - a)
    along = max(abs(line.direction.cross(way)) * abs(line.end or 0.0) for line in (side, other))
    even = abs(abs(ends_of(side)[0] - centre) - abs(ends_of(other)[1] - centre))
    if max(square, along, even) > within * 2:
        return None
    return way, abs(b - a), abs(middle)
