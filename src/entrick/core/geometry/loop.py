"""Runs of pieces end to end: outlines, and the closed shapes they bound."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from functools import cached_property
from typing import TYPE_CHECKING

from ..memo import Distinct, remembered
from ..tolerance import DIRECTION, ROUND, same
from .box import Sides, around, together
from .shapes import Arc, Circle, Curve, Line, Point, is_drawn_at, quarters

if TYPE_CHECKING:
    from .true_curve import TrueCurve


@dataclass(frozen=True, slots=True)
class Piece:
    """A stretch of outline, in walking direction: a line with ends, an arc, or a whole circle.

    `curve_of` names the curve it is one of many arcs of, such as a spiral or the flank of a tooth;
    empty for a piece that stands for itself."""

    curve: Curve
    name: str
    entry: Point
    exit: Point
    curve_of: str = ""

    @property
    def length(self) -> float:
        """Length along the piece, plan units."""
        match self.curve:
            case Arc(radius=r, sweep=sweep):
                return r * abs(sweep)
            case Circle(radius=r):
                return math.tau * r
            case Line():
                return abs(self.exit - self.entry)

    @property
    def outermost(self) -> tuple[Point, ...]:
        """Places of the piece that may lie furthest left, right, up or down: its ends, and the
        quarters of an arc."""
        curve = self.curve
        if isinstance(curve, Circle):
            return tuple(curve.at(k * math.pi / 2) for k in range(4))
        if isinstance(curve, Arc):
            turns = quarters(curve)
            if turns:
                return (self.entry, self.exit, *(curve.at(turn * math.pi / 2) for turn in turns))
        return (self.entry, self.exit)

    @property
    def reversed(self) -> Piece:
        """The same stretch walked the other way."""
        curve = self.curve
        match curve:
            case Arc(centre=c, radius=r, start=start, sweep=sweep):
                curve = Arc(c, r, start + sweep, -sweep, curve.exact)
            case Line() if abs(self.exit - self.entry) > 0:
                curve = Line.between(self.exit, self.entry)
        return Piece(curve, self.name, self.exit, self.entry, self.curve_of)

    def direction(self, point: Point) -> Point:
        """Return the direction of walking at a point of the piece, of length 1."""
        match self.curve:
            case Arc(centre=c, sweep=sweep):
                return _outward(c, point).normal * math.copysign(1, sweep)
            case Circle(centre=c):
                return _outward(c, point).normal
            case Line(direction=d):
                return d


def _outward(centre: Point, point: Point) -> Point:
    """Return the direction from a centre; some one where the round is smaller than the rounding of
    its places."""
    out = point - centre
    return out.unit if abs(out) > 0 else Point(1.0, 0.0)


@dataclass(frozen=True, slots=True)
class Junction:
    """Where the walk goes over from one piece to the next.

    `turn` in radians, 0 where it goes straight on; `within` tells whether both are arcs of one
    curve."""

    point: Point
    first: str
    second: str
    turn: float
    within: bool = False

    @property
    def is_tangent(self) -> bool:
        """Whether no corner can be seen or felt."""
        return abs(self.turn) <= DIRECTION


@dataclass(frozen=True)
class Loop(Distinct):
    """An outline: pieces end to end. Closed unless it was asked for as an open run."""

    pieces: tuple[Piece, ...]
    closed: bool
    stands_for: TrueCurve | None = None
    """The curve it draws with its arcs, where there is one."""

    def __hash__(self) -> int:
        return self._hash

    def __getstate__(self) -> dict[str, object]:
        # A hash holds in one process only.
        return {"pieces": self.pieces, "closed": self.closed, "stands_for": self.stands_for}

    @cached_property
    def _hash(self) -> int:
        # What is kept by what it stands on asks for it again and again, and a run may have hundreds
        # of pieces.
        return hash((self.pieces, self.closed))

    @cached_property
    def length(self) -> float:
        """Perimeter, plan units."""
        return math.fsum(piece.length for piece in self.pieces)

    @cached_property
    def area(self) -> float:
        """Signed area, positive when walked counter-clockwise (Green's theorem, closed form per
        piece)."""
        total = 0.0
        for piece in self.pieces:
            match piece.curve:
                case Circle(radius=r):
                    total += math.tau * r * r
                case Arc(centre=c, radius=r, sweep=sweep):
                    total += r * r * sweep + c.cross(piece.exit - piece.entry)
                case Line():
                    total += piece.entry.cross(piece.exit)
        return total / 2

    @cached_property
    def junctions(self) -> tuple[Junction, ...]:
        """Every place where one piece hands over to the next."""
        if self.stands_for is not None and self.closed:
            return ()
        pairs = list(zip(self.pieces, self.pieces[1:], strict=False))
        if self.closed and len(self.pieces) > 1:
            pairs.append((self.pieces[-1], self.pieces[0]))
        junctions = []
        for first, second in pairs:
            before, after = first.direction(first.exit), second.direction(first.exit)
            turn = math.atan2(before.cross(after), before.dot(after))
            within = first.curve_of == second.curve_of != ""
            junctions.append(Junction(first.exit, first.name, second.name, turn, within))
        return tuple(junctions)

    @property
    def gap(self) -> float:
        """Distance from the end of the last piece to the start of the first."""
        return abs(self.pieces[-1].exit - self.pieces[0].entry)

    @property
    def reversed(self) -> Loop:
        """The same run walked the other way."""
        return Loop(
            tuple(piece.reversed for piece in self.pieces[::-1]), self.closed, self.stands_for
        )

    @cached_property
    def centroid(self) -> Point:
        """Middle of the area enclosed (Green's theorem: ∮x² dy / 2A and −∮y² dx / 2A, closed form
        per piece).

        That of its box where it encloses nothing.
        """
        x = y = 0.0
        for piece in self.pieces:
            dx, dy = _first_moments(piece)
            x, y = x + dx, y + dy
        double = 2 * self.area
        if abs(double) <= same(self.length) ** 2:
            low, high = self.box
            return (low + high) * 0.5
        return Point(x / double, y / double)

    @cached_property
    def box(self) -> tuple[Point, Point]:
        """Lower left and upper right corner of all it reaches."""
        spots = [spot for piece in self.pieces for spot in piece.outermost]
        xs, ys = [spot.x for spot in spots], [spot.y for spot in spots]
        return Point(min(xs), min(ys)), Point(max(xs), max(ys))

    def encloses(self, point: Point) -> bool:
        """Tell whether a closed run goes round a point; see `Boxed.encloses`."""
        return boxed(self).encloses(point)

    def distance(self, point: Point) -> float:
        """Return how far a point is from the nearest place of the run."""
        return min(distance(piece.curve, point) for piece in self.pieces)

    def __add__(self, other: Loop) -> Loop:
        return Loop(self.pieces + other.pieces, False)


class Boxed:
    """A run with its own box and those of its pieces, for asking about many points: most pieces are
    far from each."""

    def __init__(self, loop: Loop) -> None:
        self.loop = loop
        self.boxes = [around(piece.outermost) for piece in loop.pieces]
        self.box = together(self.boxes)
        self._walked = [
            (*piece.entry, *piece.exit, *box, piece.curve)
            for piece, box in zip(loop.pieces, self.boxes, strict=True)
        ]

    def encloses(self, point: Point) -> bool:
        """Tell whether the run goes round a point.

        Notes
        -----
        Winding number: how often chords cross the level line to the right of the point upwards,
        less how often downwards (published, the crossing rule); and once more where the point lies
        between an arc and its chord."""
        if not self.box.holds(point):
            return False
        x, y = point
        turns = 0
        for x0, y0, x1, y1, left, lower, right, upper, curve in self._walked:
            if not lower <= y <= upper or right < x:
                continue
            if (y0 > y) != (y1 > y) and (left > x or x0 + (y - y0) / (y1 - y0) * (x1 - x0) > x):
                turns += 1 if y1 > y0 else -1
            if left <= x and not isinstance(curve, Line):
                centre, radius = curve.centre, curve.radius
                if math.hypot(x - centre.x, y - centre.y) < radius:
                    if isinstance(curve, Circle) or abs(curve.sweep) > math.tau - ROUND:
                        turns += 1
                    elif ((x1 - x0) * (y - y0) - (y1 - y0) * (x - x0)) * curve.sweep < 0:
                        turns += 1 if curve.sweep > 0 else -1
        return turns != 0

    def is_nearer(self, point: Point, limit: float) -> bool:
        """Tell whether any place of the run is nearer to a point than so much."""
        if not self.box.holds(point, limit):
            return False
        left, lower, right, upper = (
            point.x - limit,
            point.y - limit,
            point.x + limit,
            point.y + limit,
        )
        return any(
            box[0] <= right
            and box[2] >= left
            and box[1] <= upper
            and box[3] >= lower
            and distance(piece.curve, point) < limit
            for piece, box in zip(self.loop.pieces, self.boxes, strict=True)
        )

    def nearest(self, point: Point) -> Point:
        """Return the place of the run that is nearest to a point."""
        return self.nearest_piece(point)[1]

    def nearest_piece(self, point: Point) -> tuple[int, Point]:
        """Return which piece of the run is nearest to a point, the first of those that are alike,
        and its place; one whose box lies further off is passed over."""
        best, found, spot = math.inf, 0, self.loop.pieces[0].entry
        for at_least, number in self._sides.nearest_first(*point):
            if at_least > best:
                break
            place = nearest_place(self.loop.pieces[number].curve, point)
            away = abs(place - point)
            if away < best or (away == best and number < found):
                best, found, spot = away, number, place
        return found, spot

    @cached_property
    def _sides(self) -> Sides:
        return Sides(self.boxes)


@remembered(lambda found: len(found.loop.pieces))
def boxed(loop: Loop) -> Boxed:
    """Return a run with its boxes; what was asked about before has them already."""
    return Boxed(loop)


def piece_of(curve: Curve, name: str, curve_of: str = "") -> Piece:
    """Return a drawn line, an arc or a circle as a piece of a run."""
    match curve:
        case Arc():
            return Piece(curve, name, curve.first, curve.last, curve_of)
        case Line(start=float() as start, end=float() as end):
            return Piece(
                Line.between(curve.at(start), curve.at(end)),
                name,
                curve.at(start),
                curve.at(end),
                curve_of,
            )
        case Circle():
            return Piece(curve, name, curve.at(0.0), curve.at(0.0), curve_of)
    raise ValueError("an endless line is no piece")


def polyline(corners: Sequence[Point], names: Sequence[str], closed: bool = False) -> Loop:
    """Return straight pieces from corner to corner, back to the first when closed."""
    ends = [*corners[1:], corners[0]] if closed else corners[1:]
    pairs = zip(corners, ends, names, strict=closed)
    return Loop(tuple(Piece(Line.between(a, b), name, a, b) for a, b, name in pairs), closed)


def nearest_place(curve: Curve, point: Point) -> Point:
    """Return the place of the drawn part of a curve that is nearest to a point."""
    match curve:
        case Line():
            along = curve.along(point)
            if curve.start is not None:
                along = max(along, curve.start)
            if curve.end is not None:
                along = min(along, curve.end)
            return curve.at(along)
        case Circle(centre=c):
            return curve.at((point - c).angle)
        case Arc(centre=c):
            place = curve.at((point - c).angle) if point != c else curve.first
            if is_drawn_at(curve, place):
                return place
            return min(curve.first, curve.last, key=lambda end: abs(end - point))


def distance(curve: Curve, point: Point) -> float:
    """Return how far a point is from the drawn part of a curve."""
    match curve:
        case Circle(centre=c, radius=r):
            return abs(math.hypot(point.x - c.x, point.y - c.y) - r)
        case Arc(centre=c, radius=r):
            if is_drawn_at(curve, point):
                return abs(math.hypot(point.x - c.x, point.y - c.y) - r)
            return min(abs(curve.first - point), abs(curve.last - point))
        case Line():
            return abs(nearest_place(curve, point) - point)


def _first_moments(piece: Piece) -> tuple[float, float]:
    """Return ∫x² dy and −∫y² dx along a piece."""
    a, b = piece.entry, piece.exit
    match piece.curve:
        case Line():
            third = (a.x * a.x + a.x * b.x + b.x * b.x) / 3, (a.y * a.y + a.y * b.y + b.y * b.y) / 3
            return third[0] * (b.y - a.y), -third[1] * (b.x - a.x)
        case Circle(centre=c, radius=r):
            return math.tau * r * r * c.x, math.tau * r * r * c.y
        case Arc(centre=c, radius=r, start=start, sweep=sweep):
            x = y = 0.0
            for angle, sign in ((start + sweep, 1), (start, -1)):
                sin, cos, twice = math.sin(angle), math.cos(angle), math.sin(2 * angle)
                x += sign * (
                    c.x * c.x * sin
                    + 2 * c.x * r * (angle / 2 + twice / 4)
                    + r * r * (sin - sin**3 / 3)
                )
                y += sign * (
                    -c.y * c.y * cos
                    + 2 * c.y * r * (angle / 2 - twice / 4)
                    + r * r * (cos**3 / 3 - cos)
                )
            return r * x, r * y
