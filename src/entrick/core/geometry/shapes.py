"""The shapes a figure is made of, in plan units and radians, y upwards."""

from __future__ import annotations

import math
from dataclasses import dataclass, field
from typing import NamedTuple

from ..measure import Number
from ..tolerance import ROUND, same

point_of = tuple.__new__
"""Makes a point of its class and its places: several hundred thousand are made for one sheet, and a
call costs as much as the point."""


class Point(NamedTuple):
    """A position, or a displacement between two positions.

    A tuple, since it is made in quicker time than anything else that cannot be changed; it adds and
    multiplies as a displacement does."""

    x: float
    y: float

    def __add__(self, other: Point) -> Point:  # type: ignore[override]
        return point_of(Point, (self.x + other.x, self.y + other.y))

    def __sub__(self, other: Point) -> Point:
        return point_of(Point, (self.x - other.x, self.y - other.y))

    def __mul__(self, factor: float) -> Point:  # type: ignore[override]
        return point_of(Point, (self.x * factor, self.y * factor))

    def __neg__(self) -> Point:
        return point_of(Point, (-self.x, -self.y))

    def __abs__(self) -> float:
        return math.hypot(self.x, self.y)

    def dot(self, other: Point) -> float:
        """Scalar product."""
        return self.x * other.x + self.y * other.y

    def cross(self, other: Point) -> float:
        """Signed area of the parallelogram on the two displacements."""
        return self.x * other.y - self.y * other.x

    @property
    def normal(self) -> Point:
        """The displacement turned a quarter turn counter-clockwise."""
        return point_of(Point, (-self.y, self.x))

    @property
    def angle(self) -> float:
        """Direction in radians, −π to π, counter-clockwise from the right."""
        return math.atan2(self.y, self.x)

    @property
    def unit(self) -> Point:
        """The displacement at length 1.

        Raises
        ------
        ZeroDivisionError
            If it has no length.
        """
        length = abs(self)
        return point_of(Point, (self.x / length, self.y / length))


def polar(radius: float, angle: float) -> Point:
    """Return the displacement of a length in a direction (radians)."""
    return point_of(Point, (radius * math.cos(angle), radius * math.sin(angle)))


@dataclass(frozen=True, slots=True)
class Line:
    """A straight line of unlimited length, drawn from `start` to `end` where it has ends.

    Attributes
    ----------
    through : Point
    direction : Point
        Of length 1.
    start, end : float or None
        Where the drawn part begins and ends, measured along `direction` from `through`.
    """

    through: Point
    direction: Point
    start: float | None = None
    end: float | None = None

    @classmethod
    def between(cls, first: Point, second: Point) -> Line:
        """Return the line drawn from one point to another; from a place to itself it has no length,
        to the right."""
        along = abs(second - first)
        return cls(first, (second - first).unit if along > 0 else Point(1.0, 0.0), 0.0, along)

    def at(self, along: float) -> Point:
        """Return the point that lies a distance along the line."""
        # Written out, like the next few: these run thousands of times for one sheet.
        (x, y), (ahead, up) = self.through, self.direction
        return point_of(Point, (x + ahead * along, y + up * along))

    def along(self, point: Point) -> float:
        """Return how far along the line the foot of the perpendicular from a point lies."""
        return (point.x - self.through.x) * self.direction.x + (
            point.y - self.through.y
        ) * self.direction.y

    def offset_of(self, point: Point) -> float:
        """Return the signed distance of a point, positive to the left of the direction."""
        return self.direction.x * (point.y - self.through.y) - self.direction.y * (
            point.x - self.through.x
        )

    def foot(self, point: Point) -> Point:
        """Return the foot of the perpendicular from a point."""
        return self.at(self.along(point))


@dataclass(frozen=True, slots=True)
class Circle:
    """A full circle. `exact` is the radius as given, where no root went into it."""

    centre: Point
    radius: float
    exact: Number | None = field(default=None, hash=False)

    def at(self, angle: float) -> Point:
        """Return the point at a direction from the centre (radians)."""
        r, c = self.radius, self.centre
        return point_of(Point, (c.x + r * math.cos(angle), c.y + r * math.sin(angle)))

    @property
    def size(self) -> Number:
        """The radius, exact where it is known exactly."""
        return self.radius if self.exact is None else self.exact


@dataclass(frozen=True, slots=True)
class Arc:
    """Part of a circle, from the angle `start` through `sweep` (radians, positive
    counter-clockwise)."""

    centre: Point
    radius: float
    start: float
    sweep: float
    exact: Number | None = field(default=None, hash=False)

    @classmethod
    def between(cls, circle: Circle, first: Point, second: Point, long: bool = False) -> Arc:
        """Return the shorter (or longer) part of a circle between two of its points."""
        start = (first - circle.centre).angle
        sweep = math.remainder((second - circle.centre).angle - start, math.tau)
        if long:
            sweep -= math.copysign(math.tau, sweep)
        return cls(circle.centre, circle.radius, start, sweep, circle.exact)

    def at(self, angle: float) -> Point:
        """Return the point at a direction from the centre (radians)."""
        r, c = self.radius, self.centre
        return point_of(Point, (c.x + r * math.cos(angle), c.y + r * math.sin(angle)))

    @property
    def size(self) -> Number:
        """The radius, exact where it is known exactly."""
        return self.radius if self.exact is None else self.exact

    @property
    def first(self) -> Point:
        """Where the arc begins."""
        return self.at(self.start)

    @property
    def last(self) -> Point:
        """Where the arc ends."""
        return self.at(self.start + self.sweep)

    @property
    def middle(self) -> Point:
        """Half way along the arc."""
        return self.at(self.start + self.sweep / 2)

    @property
    def centroid(self) -> Point:
        """Where the drawn arc lies as a whole: R·sin(α)/α from the centre, α half the angle
        (handbook formula)."""
        half = abs(self.sweep) / 2
        return self.centre + polar(self.radius * math.sin(half) / half, self.start + self.sweep / 2)


Curve = Line | Circle | Arc
Shape = Point | Curve


def support(curve: Curve) -> Line | Circle:
    """Return the whole curve a piece belongs to: the circle of an arc, the endless line."""
    match curve:
        case Arc():
            return Circle(curve.centre, curve.radius, curve.exact)
        case Line():
            return Line(curve.through, curve.direction)
        case Circle():
            return curve


def ends(curve: Line | Arc) -> tuple[Point, Point]:
    """Return where a drawn line or an arc begins and ends."""
    if isinstance(curve, Arc):
        return curve.first, curve.last
    return curve.at(curve.start or 0.0), curve.at(curve.end or 0.0)


def is_drawn_at(curve: Curve, point: Point) -> bool:
    """Tell whether a point of the curve's support lies on the part that is drawn."""
    match curve:
        case Line():
            along = curve.along(point)
            tolerance = same(abs(point - curve.through))
            return (curve.start is None or along >= curve.start - tolerance) and (
                curve.end is None or along <= curve.end + tolerance
            )
        case Arc():
            turned = (
                ((point - curve.centre).angle - curve.start)
                * math.copysign(1, curve.sweep)
                % math.tau
            )
            tolerance = same(curve.radius) / curve.radius * 10
            return turned <= abs(curve.sweep) + tolerance or turned >= math.tau - tolerance
        case Circle():
            return True


def extremes(shape: Shape) -> tuple[Point, ...]:
    """Return points whose bounding box is that of the shape; none for a line without ends."""
    match shape:
        case Point():
            return (shape,)
        case Line(start=float() as start, end=float() as end):
            return (shape.at(start), shape.at(end))
        case Line():
            return ()
        case Circle(centre=c, radius=r):
            return (c - Point(r, r), c + Point(r, r))
        case Arc():
            return (
                shape.first,
                shape.last,
                *(shape.at(turn * math.pi / 2) for turn in quarters(shape)),
            )


def quarters(arc: Arc) -> range:
    """Return the quarter turns an arc passes, counted from the x axis; at most four of them."""
    low, high = arc.start, arc.start + arc.sweep
    if high < low:
        low, high = high, low
    quarter = math.pi / 2
    return range(math.ceil(low / quarter - ROUND), math.floor(high / quarter + ROUND) + 1)[:4]
