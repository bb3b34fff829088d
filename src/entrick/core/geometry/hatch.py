"""Even lines over a region, cut exactly at its boundary."""

from __future__ import annotations

import math
from collections.abc import Sequence
from itertools import pairwise

from ..tolerance import same
from .loop import Loop
from .shapes import Arc, Circle, Curve, Line, Point, polar

MOST = 5000
"""Lines one region may take."""


def hatch_lines(loops: Sequence[Loop], degrees: float, spacing: float) -> tuple[Line, ...]:
    """Return parallel lines over what lies inside an odd number of loops.

    Parameters
    ----------
    loops : sequence of Loop
        Closed: outlines and the holes in them, in any order and direction.
    degrees : float
        Direction of the lines, counter-clockwise from the right.
    spacing : float
        Between neighbours, plan units, more than nought.

    Returns
    -------
    tuple of Line
        With ends exactly on the loops, from one side of the region to the other.

    Notes
    -----
    Each piece is cut into stretches that rise or fall steadily across the lines; a line crosses
    such a stretch once, when its ends lie on either side (even-odd rule)."""
    along = polar(1.0, math.radians(degrees))
    across = along.normal
    stretches = [
        stretch
        for loop in loops
        for piece in loop.pieces
        for stretch in _steady(piece.curve, across)
    ]
    if not stretches:
        return ()
    low = min(min(a, b) for a, b, _ in stretches)
    high = max(max(a, b) for a, b, _ in stretches)
    first, last = math.ceil(low / spacing), math.floor(high / spacing)
    if last - first > MOST:
        return ()
    crossings: dict[int, list[float]] = {}
    for a, b, curve in stretches:
        for index in range(
            math.floor(min(a, b) / spacing) + 1, math.floor(max(a, b) / spacing) + 1
        ):
            place = _at_height(curve, index * spacing, across, a < b)
            crossings.setdefault(index, []).append(place.dot(along))
    lines = []
    for index in sorted(crossings):
        spots = sorted(crossings[index])
        base = across * (index * spacing)
        for start, end in zip(spots[::2], spots[1::2], strict=False):
            # Outlines that share an edge cross the line twice in one place, give or take the
            # rounding.
            if end - start > same(max(abs(start), abs(end))):
                lines.append(Line.between(base + along * start, base + along * end))
    return tuple(lines)


def _steady(curve: Curve, across: Point) -> list[tuple[float, float, Curve]]:
    """Cut a curve where it turns back across the lines; return heights of both ends of every
    stretch."""
    match curve:
        case Line(start=float() as start, end=float() as end):
            return [(curve.at(start).dot(across), curve.at(end).dot(across), curve)]
        case Circle():
            return _steady(Arc(curve.centre, curve.radius, across.angle, math.tau), across)
        case Arc(centre=c, radius=r, start=start, sweep=sweep):
            ends = [0.0, abs(sweep)]
            for turn in (across.angle, across.angle + math.pi):
                ends += [
                    t
                    for k in (0, 1)
                    if 0
                    < (t := ((turn - start) * math.copysign(1, sweep)) % math.tau + k * math.tau)
                    < abs(sweep)
                ]
            ends.sort()
            way = math.copysign(1, sweep)
            result: list[tuple[float, float, Curve]] = []
            for one, other in pairwise(ends):
                if other > one:
                    part = Arc(c, r, start + way * one, way * (other - one))
                    result.append((_height(part, 0.0, across), _height(part, 1.0, across), part))
            return result
    return []


def _height(arc: Arc, share: float, across: Point) -> float:
    return arc.centre.dot(across) + arc.radius * math.cos(
        arc.start + arc.sweep * share - across.angle
    )


def _at_height(curve: Curve, height: float, across: Point, rising: bool) -> Point:
    match curve:
        case Line(start=float() as start, end=float() as end):
            a, b = curve.at(start), curve.at(end)
            share = (height - a.dot(across)) / (b - a).dot(across)
            return a + (b - a) * share
        case Arc(centre=c, radius=r):
            turn = math.acos(max(-1.0, min(1.0, (height - c.dot(across)) / r)))
            # The height rises towards the direction across: counter-clockwise up to it, clockwise
            # from beyond.
            side = -1 if rising == (curve.sweep > 0) else 1
            return curve.at(across.angle + side * turn)
    raise TypeError(curve)
