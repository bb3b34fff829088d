"""What a cutter has cut, held against the plan: by a general geometry library, which knows neither
of them."""

from __future__ import annotations

import math
from collections.abc import Iterable, Sequence
from dataclasses import dataclass

import shapely  # type: ignore[import-untyped]
from shapely import LineString, MultiPolygon, Point, Polygon
from shapely.ops import unary_union  # type: ignore[import-untyped]

from ..core.geometry import Arc, Circle, Loop
from .cutter import Move

FINE = 0.002
"""Sagitta of the straight pieces an arc is looked at in, mm."""

WITHIN = 0.02
"""How far the cut part may be from the plan, mm, where nothing else is said (by eye, no source)."""

ROUND = 48
"""Straight pieces in a quarter of the tool's round end."""


@dataclass(frozen=True, slots=True)
class Judged:
    """How a cut part came out, mm.

    Attributes
    ----------
    fits : bool
    gouged, left : float
        How deep something was cut away that belongs to the part, and how far material was left that
        does not; rounds that the tool leaves in inner corners are told apart.
    corners : int
        Inner corners that keep a round of the tool's radius.
    parts : int
        How many parts lie loose, as many as the plan has.
    length, minutes : float
        Of the cut, and of everything.
    told : tuple of str
        What is wrong, in words.
    """

    fits: bool
    gouged: float
    left: float
    corners: int
    parts: int
    length: float
    minutes: float
    told: tuple[str, ...]


def judged(
    moves: Sequence[Move], outlines: Sequence[Loop], mm: float, tool: float, within: float = WITHIN
) -> Judged:
    """Compare what was cut with the outlines of a plan.

    Parameters
    ----------
    moves : sequence of Move
        In mm.
    outlines : sequence of Loop
        Closed, plan units.
    mm : float
        Millimetres in a plan unit.
    tool : float
        Width of the cut, mm.
    within : float
        How far off the part may be, mm.

    Returns
    -------
    Judged
    """
    plan = _material([_polygon(loop, mm) for loop in outlines])
    kerf = unary_union(
        [
            LineString(_places(move)).buffer(tool / 2, quad_segs=ROUND)
            for move in moves
            if move.cutting
        ]
    )
    west, south, east, north = plan.bounds
    sheet = shapely.box(west - 4 * tool, south - 4 * tool, east + 4 * tool, north + 4 * tool)
    pieces = _polygons(sheet.difference(kerf))
    corners = [spot for loop in outlines for spot in _inner_corners(loop, mm, plan)]
    gouged = left = 0.0
    told: list[str] = []
    parts = 0
    rim = sheet.boundary
    for part in _polygons(plan):
        kept = max(pieces, key=lambda piece: piece.intersection(part).area, default=Polygon())
        if kept.is_empty or kept.intersects(rim):
            told.append("a part hangs together with the sheet: its outline was not cut all round")
            left = math.inf
            continue
        parts += 1
        gouged = max(gouged, _depth(part.difference(kept), kept))
        rounds = unary_union([Point(spot).buffer(tool) for spot in corners])
        left = max(left, _depth(kept.difference(part).difference(rounds), part))
    if gouged > within:
        told.append(f"cut into the part by {gouged:.3f} mm")
    if within < left < math.inf:
        told.append(f"left standing by {left:.3f} mm")
    return Judged(
        not told,
        gouged,
        left,
        len(corners),
        parts,
        math.fsum(m.length for m in moves if m.cutting),
        math.fsum(m.minutes for m in moves),
        tuple(told),
    )


def _places(move: Move) -> list[tuple[float, float]]:
    if move.centre is None:
        return [move.start, move.end]
    radius = math.dist(move.start, move.centre)
    step = 2 * math.acos(max(-1.0, 1 - FINE / radius)) if radius > FINE else math.pi
    count = max(2, math.ceil(abs(move.turn) / step))
    return [move.at(k / count) for k in range(count + 1)]


def outlines_of(outlines: Sequence[Loop], mm: float) -> tuple[tuple[tuple[float, float], ...], ...]:
    """Return outlines as places in mm, to be looked at."""
    return tuple(tuple(_polygon(loop, mm).simplify(SEEN).exterior.coords) for loop in outlines)


SEEN = 0.02
"""What cannot be seen, mm."""


def _polygon(loop: Loop, mm: float) -> Polygon:
    spots: list[tuple[float, float]] = []
    for piece in loop.pieces:
        curve = piece.curve
        if isinstance(curve, Arc | Circle):
            sweep = curve.sweep if isinstance(curve, Arc) else math.tau
            begin = curve.start if isinstance(curve, Arc) else 0.0
            radius = curve.radius * mm
            step = 2 * math.acos(max(-1.0, 1 - FINE / radius)) if radius > FINE else math.pi
            count = max(3, math.ceil(abs(sweep) / step))
            spots += [
                ((p := curve.at(begin + sweep * k / count)).x * mm, p.y * mm) for k in range(count)
            ]
        else:
            spots.append((piece.entry.x * mm, piece.entry.y * mm))
    return Polygon(spots)


def _material(rings: Iterable[Polygon]) -> MultiPolygon | Polygon:
    """Return what lies inside an odd number of outlines."""
    found: Polygon | MultiPolygon = Polygon()
    for ring in rings:
        found = found.symmetric_difference(ring)
    return found


def _polygons(shape: shapely.Geometry) -> list[Polygon]:
    return [
        each
        for each in getattr(shape, "geoms", [shape])
        if isinstance(each, Polygon) and not each.is_empty
    ]


def _depth(shape: shapely.Geometry, other: shapely.Geometry) -> float:
    """Return how far a shape reaches from the edge of another."""
    edge = other.boundary
    return max(
        (edge.distance(Point(spot)) for each in _polygons(shape) for spot in each.exterior.coords),
        default=0.0,
    )


def _inner_corners(loop: Loop, mm: float, plan: shapely.Geometry) -> list[tuple[float, float]]:
    """Return the corners of an outline that point into the material: a round tool leaves a round in
    each."""
    found = []
    for index, junction in enumerate(loop.junctions):
        if junction.is_tangent:
            continue
        first, second = loop.pieces[index], loop.pieces[(index + 1) % len(loop.pieces)]
        spot = junction.point
        way = second.direction(spot) - first.direction(spot)
        ahead = Point((spot.x + way.unit.x * _SPECK) * mm, (spot.y + way.unit.y * _SPECK) * mm)
        # Between the two sides lies waste where the corner points into the material.
        if not plan.contains(ahead):
            found.append((spot.x * mm, spot.y * mm))
    return found


_SPECK = 1e-4
"""How far beside a corner one looks for material, plan units."""
