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

JUST = 0.004
"""By how much a tool is taken smaller where it is asked what it reaches, mm: more than the chords
cost on both sides."""

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
        does not and the tool could have reached.
    rounded : float
        How far material stands in inner corners, which a round tool does not get into: of an angle
        θ it leaves r (1 / sin(θ/2) - 1) on the bisector.
    corners : int
        Inner corners that keep such a round.
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
    rounded: float
    corners: int
    parts: int
    length: float
    minutes: float
    told: tuple[str, ...]

    @property
    def remarks(self) -> tuple[str, ...]:
        """What is no fault, and should be known before anything is cut."""
        if not self.corners:
            return ()
        one = "1 inner corner keeps" if self.corners == 1 else f"{self.corners} inner corners keep"
        return (f"{one} a round of the tool, up to {self.rounded:.3f} mm of it",)


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
            LineString(places(move)).buffer(tool / 2, quad_segs=ROUND)
            for move in moves
            if move.cutting
        ]
    )
    west, south, east, north = plan.bounds
    sheet = shapely.box(west - 4 * tool, south - 4 * tool, east + 4 * tool, north + 4 * tool)
    pieces = _polygons(sheet.difference(kerf))
    waste = sheet.difference(plan)
    # What a round tool reaches of the waste while it stays off the part is its opening by a disc
    # (mathematical morphology).
    reached = _opened(waste, tool / 2)
    # What is just as wide as the tool is reached by one a hair narrower; corners are not.
    more = _opened(waste, max(tool / 2 - JUST, tool / 4)).difference(reached)
    wide = [each for each in _polygons(more) if not each.buffer(-tool / 4).is_empty]
    reached = unary_union([reached, *wide])
    unreached = waste.difference(reached).buffer(2 * FINE)
    gouged = left = rounded = 0.0
    told: list[str] = []
    parts = corners = 0
    rim = sheet.boundary
    for part in _polygons(plan):
        kept = max(pieces, key=lambda piece: piece.intersection(part).area, default=Polygon())
        if kept.is_empty or kept.intersects(rim):
            told.append("a part hangs together with the sheet: its outline was not cut all round")
            left = math.inf
            continue
        parts += 1
        gouged = max(gouged, _depth(part.difference(kept), part))
        beside = kept.difference(part)
        left = max(left, _depth(beside.difference(unreached), waste))
        stays = [_height(each, reached) for each in _polygons(beside.intersection(unreached))]
        rounds = [height for height in stays if height > SEEN_ROUND]
        corners += len(rounds)
        rounded = max([rounded, *rounds])
    if gouged > within:
        told.append(f"cut into the part by {gouged:.3f} mm")
    if within < left < math.inf:
        told.append(f"left standing by {left:.3f} mm")
    return Judged(
        not told,
        gouged,
        left,
        rounded,
        corners,
        parts,
        math.fsum(m.length for m in moves if m.cutting),
        math.fsum(m.minutes for m in moves),
        tuple(told),
    )


def places(move: Move) -> list[tuple[float, float]]:
    """Return a movement as places along it, seen from above."""
    if move.centre is None:
        return [move.start, move.end]
    radius = math.dist(move.start, move.centre)
    step = 2 * math.acos(max(-1.0, 1 - FINE / radius)) if radius > FINE else math.pi
    count = max(2, math.ceil(abs(move.turn) / step))
    return [move.at(k / count) for k in range(count + 1)]


def parts_of(outlines: Sequence[Loop], mm: float) -> list[Polygon]:
    """Return what a plan has material in, mm."""
    return _polygons(_material([_polygon(loop, mm) for loop in outlines]))


def outlines_of(outlines: Sequence[Loop], mm: float) -> tuple[tuple[tuple[float, float], ...], ...]:
    """Return outlines as places in mm, to be looked at."""
    return tuple(tuple(_polygon(loop, mm).simplify(SEEN).exterior.coords) for loop in outlines)


SEEN = 0.02
"""What cannot be seen, mm."""

SEEN_ROUND = 0.01
"""Height of a round that is told, mm: less than that are the chords it is looked at in."""


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
    result: Polygon | MultiPolygon = Polygon()
    for ring in rings:
        result = result.symmetric_difference(ring)
    return result


def _polygons(shape: shapely.Geometry) -> list[Polygon]:
    return [
        each
        for each in getattr(shape, "geoms", [shape])
        if isinstance(each, Polygon) and not each.is_empty
    ]


def _opened(region: shapely.Geometry, radius: float) -> shapely.Geometry:
    """Return what a disc covers that stays within a region."""
    return region.buffer(-radius, quad_segs=ROUND).buffer(radius, quad_segs=ROUND)


def _depth(shape: shapely.Geometry, region: shapely.Geometry) -> float:
    """Return how deep a shape lies within a region at most: by how much the region can be worn off
    all round before they part, to a tenth of what is seen."""
    least, most = 0.0, 4 * FINE
    if shape.is_empty:
        return 0.0
    while _reaches(shape, region, most):
        least, most = most, 2 * most
    while most - least > FINE / 10:
        middle = (least + most) / 2
        least, most = (middle, most) if _reaches(shape, region, middle) else (least, middle)
    return least


def _reaches(shape: shapely.Geometry, region: shapely.Geometry, depth: float) -> bool:
    return bool(shape.intersects(region.buffer(-depth, quad_segs=ROUND)))


def _height(shape: Polygon, reached: shapely.Geometry) -> float:
    """Return how far a corner lies from where a tool gets to."""
    return max(float(reached.distance(Point(spot))) for spot in shape.exterior.coords)
