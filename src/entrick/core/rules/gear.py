"""Spur gears with involute teeth: sizes, the flank by each method, what an inspector measures, how
a pair runs."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterator
from dataclasses import dataclass, replace
from functools import cached_property
from typing import Literal

from ..geometry import Arc, Circle, Line, Loop, Piece, Point, piece_of, polar
from ..geometry.fitted import fitted
from ..memo import remembered
from ..tolerance import CONVERGED, FITTED, NOUGHT, ROUND, SPECK

CLOSE = FITTED["gear"]
"""Departure of the arcs an involute is drawn with, as a share of the module: less than half a µm in
each mm."""

PREFERRED = (1, 1.25, 1.5, 2, 2.5, 3, 4, 5, 6, 8, 10, 12, 16, 20, 25, 32, 40, 50)
"""Modules of the first series, mm (ISO 54, from memory)."""

PIN = 1.728
"""Diameter of measuring pins, in modules (common practice, no source)."""

RUNS = 1.2
"""Contact ratio below which a pair does not run smoothly (common practice, no source)."""

PROPORTIONS = {"older": (1.0, 1.157), "full": (1.0, 1.25), "stub": (0.8, 1.0)}
"""Addendum and dedendum in modules: older full depth, ISO 53, stub."""

Method = Literal["involute", "arcs", "arc"]


@dataclass(frozen=True, slots=True)
class Called:
    """What the parts of a toothed ring are called: the circle its flanks run out to and that they
    come from, what stands and what lies between, the arc at the end of a tooth and that between
    two."""

    far: str = "outside"
    near: str = "root"
    stands: str = "tooth"
    between: str = "space"
    end: str = "tip"
    ground: str = "root"


OUTSIDE = Called()
INSIDE = Called(
    far="root", near="inside", stands="space", between="tooth", end="root", ground="tip"
)
"""Seen from the centre, what is a tooth outside is a space of an internal gear."""


def inv(angle: float) -> float:
    """Return the involute function tan φ − φ of an angle in radians (definition).

    Examples
    --------
    >>> round(inv(math.radians(20)), 7)
    0.0149044
    """
    return math.tan(angle) - angle


def angle_of_inv(value: float) -> float:
    """Return the angle, radians, whose involute function is a value (Newton's method; the slope is
    tan²φ)."""
    angle = (3 * value) ** (1 / 3) if value < 1 else 1.2
    for _ in range(60):
        step = (inv(angle) - value) / max(math.tan(angle) ** 2, NOUGHT)
        angle -= step
        if abs(step) < CONVERGED:
            break
    return angle


@dataclass(frozen=True)
class Gear:
    """A spur gear about the origin, its first tooth on the x axis; lengths in plan units.

    Attributes
    ----------
    teeth : int
    module : float
        Pitch diameter over teeth.
    pressure : float
        Radians.
    addendum, dedendum : float
        In modules.
    backlash : float
        Play at the pitch circle of a pair; half of it is taken off each tooth.
    fillet : float
        Radius wished for at the root.
    shift : float
        Profile shift, in modules: the rack that cuts it is set so far out.
    radii : (float, float) or None
        Face and flank radius of two arcs where they are stated, as from a chart; the best ones are
        found else.
    """

    teeth: int
    module: float
    pressure: float
    addendum: float = 1.0
    dedendum: float = 1.25
    backlash: float = 0.0
    fillet: float = 0.0
    shift: float = 0.0
    radii: tuple[float, float] | None = None

    @property
    def pitch(self) -> float:
        """Radius of the pitch circle, N·m/2."""
        return self.teeth * self.module / 2

    @property
    def base(self) -> float:
        """Radius of the base circle, that of the pitch circle times cos φ."""
        return self.pitch * math.cos(self.pressure)

    @property
    def outside(self) -> float:
        """Radius of the outside circle."""
        return self.pitch + (self.addendum + self.shift) * self.module

    @property
    def root(self) -> float:
        """Radius of the root circle."""
        return self.pitch - (self.dedendum - self.shift) * self.module

    @property
    def thickness(self) -> float:
        """Thickness of a tooth along the pitch circle, πm/2 + 2xm·tan φ less its share of the
        backlash."""
        wide = math.pi * self.module / 2 - self.backlash / 2
        return wide + 2 * self.shift * self.module * math.tan(self.pressure)

    @property
    def half_base(self) -> float:
        """Half the angle of a tooth at its base circle, t/D + inv φ."""
        return self.thickness / (2 * self.pitch) + inv(self.pressure)

    def half(self, radius: float) -> float:
        """Return half the angle of a tooth at a radius outside the base circle."""
        return self.half_base - inv(math.acos(min(1.0, self.base / radius)))

    @cached_property
    def tip(self) -> float:
        """Radius at which the tooth ends: the outside, or where its flanks meet in a point
        before."""
        if self.half(self.outside) > 0:
            return self.outside
        return self.base / math.cos(angle_of_inv(self.half_base))

    @property
    def is_pointed(self) -> bool:
        """Whether the flanks meet before the outside circle."""
        return self.tip < self.outside

    @property
    def is_undercut(self) -> bool:
        """Whether a rack that cuts it takes away some of the involute: N < 2(k − x)/sin²φ (handbook
        formula)."""
        return self.teeth < 2 * (self.addendum - self.shift) / math.sin(self.pressure) ** 2 - ROUND

    def roll(self, radius: float) -> float:
        """Return how far the thread is unwound at a radius: tan of the pressure angle there."""
        return math.sqrt(max((radius / self.base) ** 2 - 1, 0.0))

    def involute(self, roll: float) -> tuple[Point, Point]:
        """Return a place of the flank on the clockwise side of the first tooth, and its direction
        outward."""
        turned = roll - self.half_base
        out = polar(1.0, turned)
        return out * self.base - out.normal * (self.base * roll), out

    # What an inspector measures.

    @property
    def chordal(self) -> tuple[float, float]:
        """Chordal thickness and height at the pitch circle: D·sin(t/D), a + D/2·(1 − cos(t/D))
        (handbook formulas)."""
        turn = self.thickness / (2 * self.pitch)
        wide = 2 * self.pitch * math.sin(turn)
        return wide, self.outside - self.pitch + self.pitch * (1 - math.cos(turn))

    @property
    def spanned(self) -> int:
        """Teeth to span so that the jaws touch near the pitch circle: Nφ/π + ½, rounded."""
        return max(2, round(self.teeth * self.pressure / math.pi + 0.5))

    def span(self, count: int) -> float:
        """Return the size over so many teeth: m·cos φ·(π(k − ½) + N·inv φ) + 2xm·sin φ less
        backlash (handbook formula)."""
        wide = math.pi * (count - 0.5) + self.teeth * inv(self.pressure)
        wide += 2 * self.shift * math.tan(self.pressure)
        return math.cos(self.pressure) * (self.module * wide - self.backlash / 2)

    def over_pins(self, pin: float) -> float | None:
        """Return the size over two pins in opposite spaces; None where they fall past the flanks to
        the root.

        Notes
        -----
        inv φ₁ = t/D + inv φ + d/(D·cos φ) − π/N; over D·cos φ/cos φ₁ + d, for odd teeth times
        cos(90°/N) (handbook formula)."""
        wide = 2 * self.pitch
        value = (
            self.thickness / wide
            + inv(self.pressure)
            + pin / (2 * self.base)
            - math.pi / self.teeth
        )
        if value <= 0:
            return None
        out = 2 * self.base / math.cos(angle_of_inv(value))
        return out * (math.cos(math.pi / 2 / self.teeth) if self.teeth % 2 else 1.0) + pin

    def pins_touch(self, pin: float) -> float:
        """Return the radius at which pins in the spaces touch the flanks: a pin's centre lies
        D/2·sin φ₁ along the line that touches the base circle, and the flank half a pin before
        it."""
        value = self.thickness / (2 * self.pitch) + inv(self.pressure)
        value += pin / (2 * self.base) - math.pi / self.teeth
        along = self.base * math.tan(angle_of_inv(max(value, 0.0))) - pin / 2
        return math.hypot(self.base, max(along, 0.0))

    @property
    def base_pitch(self) -> float:
        """Distance of neighbouring flanks along their common line, πm·cos φ."""
        return math.pi * self.module * math.cos(self.pressure)

    def mate(self, teeth: int) -> Gear:
        """Return a gear of other teeth that runs with this one, shifted as far the other way: the
        pair stands (D₁ + D₂)/2 apart, as it does without."""
        return replace(self, teeth=teeth, shift=-self.shift, radii=None)

    def distance(self, other: Gear) -> float:
        """Return the centre distance of a pair, (D₁ + D₂)/2."""
        return self.pitch + other.pitch

    def contact_ratio(self, other: Gear) -> float:
        """Return how many pairs of teeth touch on average (handbook formula: line of action over
        base pitch)."""
        reach = sum(math.sqrt(gear.tip**2 - gear.base**2) for gear in (self, other))
        return (reach - self.distance(other) * math.sin(self.pressure)) / self.base_pitch

    def interferes(self, other: Gear) -> bool:
        """Tell whether the other's tip reaches past where this one's involute begins (handbook
        condition)."""
        limit = math.hypot(other.base, self.distance(other) * math.sin(self.pressure))
        return other.tip > limit * (1 + NOUGHT)

    # The flank by its methods.

    def departure(self, arc: Centred, low: float, high: float) -> float:
        """Return by how much an arc departs most from the involute between two radii."""
        return _departure(arc, self._places(low, high))

    def _places(self, low: float, high: float) -> list[Point]:
        """Return places of the involute close together between two radii."""
        begin, end = self.roll(low), self.roll(high)
        return [self.involute(begin + (end - begin) * k / 24)[0] for k in range(25)]

    def centred(self, radius: float) -> Centred:
        """Return the arc of a radius through the pitch point whose centre lies on the base circle,
        in the tooth."""
        cos = (self.pitch**2 + self.base**2 - radius**2) / (2 * self.pitch * self.base)
        away = math.acos(max(-1.0, min(1.0, cos)))
        return Centred(polar(self.base, away - self.half(self.pitch)), radius, self.base)

    def best_arc(self, low: float, high: float) -> Centred:
        """Return the arc with its centre on the base circle that departs least between two radii
        (golden section)."""
        least = self.pitch - self.base
        middle = self.base * self.roll((low + high) / 2)
        a, b = max(least * 1.0000001, middle * 0.3), max(middle * 2.5, least * 4)
        golden = (math.sqrt(5) - 1) / 2
        places = self._places(low, high)
        for _ in range(40):
            c, d = b - golden * (b - a), a + golden * (b - a)
            if _departure(self.centred(c), places) < _departure(self.centred(d), places):
                b = d
            else:
                a = c
        return self.centred((a + b) / 2)

    @property
    def start(self) -> float:
        """Radius at which the working flank begins: the base circle, or the root where that is
        larger."""
        return max(self.base, self.root)

    @cached_property
    def two_arcs(self) -> tuple[Centred, Centred, float]:
        """The face arc, the flank arc, and their greatest departure from the involute."""
        return _two_arcs(self)

    @cached_property
    def one_arc(self) -> tuple[Centred, float]:
        """The single arc, and its greatest departure."""
        return _one_arc(self)

    def departs(self, method: Method) -> float:
        """Return by how much a flank by a method departs most from the involute."""
        return {
            "involute": lambda: 0.0,
            "arcs": lambda: self.two_arcs[2],
            "arc": lambda: self.one_arc[1],
        }[method]()

    def tooth(self, method: Method) -> tuple[tuple[str, tuple[Line | Arc, ...]], ...]:
        """Return the first tooth from the middle of one space to that of the next,
        counter-clockwise, by what it is."""
        rise = self._rise(method)
        fall = tuple(
            (word, tuple(_mirrored(curve) for curve in curves[::-1])) for word, curves in rise[::-1]
        )
        half = -rise[-1][1][-1].last.angle if isinstance(rise[-1][1][-1], Arc) else 0.0
        tip: tuple[tuple[str, tuple[Line | Arc, ...]], ...] = ()
        if half > ROUND:
            tip = (("tip", (Arc(Point(0.0, 0.0), self.tip, -half, 2 * half),)),)
        return (*rise, *tip, *fall)

    def _rise(self, method: Method) -> list[tuple[str, tuple[Line | Arc, ...]]]:
        """Return the clockwise side of a tooth from the middle of the space to the tip."""
        flank, begin = self._flank(method)
        space = -math.pi / self.teeth
        corner = self._corner(method, begin, space)
        result: list[tuple[str, tuple[Line | Arc, ...]]] = []
        low = corner.centre.angle if corner else begin
        if low - space > ROUND:
            result.append(("root", (Arc(Point(0.0, 0.0), self.root, space, low - space),)))
        if corner:
            result.append(("fillet", (corner,)))
        foot = corner.last if corner else polar(self.root, begin)
        if abs(foot) < self.base - ROUND * self.base:
            result.append(("radial", (Line.between(foot, polar(self.base, begin)),)))
        result.append(("flank", flank(max(abs(foot), self.base))))
        return result

    def _flank(self, method: Method) -> tuple[Callable[[float], tuple[Line | Arc, ...]], float]:
        """Return the working flank from a radius outward, and the direction in which it begins."""
        if method == "involute":
            return self._by_involute, -self.half(self.start)
        if method == "arcs":
            face, inner, _ = self.two_arcs
            return lambda low: (
                inner.between(low, self.pitch),
                face.between(self.pitch, self._end(face)),
            ), inner.angle(self.start)
        one, _ = self.one_arc
        return lambda low: (one.between(low, self._end(one)),), one.angle(self.start)

    def _end(self, arc: Centred) -> float:
        """Return the radius to which an arc runs: the tip, or where both flanks meet before."""
        if arc.angle(self.tip) < 0:
            return self.tip
        low, high = self.pitch, self.tip
        for _ in range(60):
            middle = (low + high) / 2
            low, high = (middle, high) if arc.angle(middle) < 0 else (low, middle)
        return low

    def _by_involute(self, low: float) -> tuple[Line | Arc, ...]:
        begin, end = self.roll(low), self.roll(self.tip)
        # Close to the base circle the curve is infinitely tight: stations there lie closer.
        knots = [
            begin,
            *(begin + (end - begin) * share for share in (1 / 16, 1 / 4) if begin < 0.05),
            end,
        ]
        return fitted(
            lambda r: self.involute(r)[0], lambda r: self.involute(r)[1], knots, CLOSE * self.module
        )

    def _corner(self, method: Method, begin: float, space: float) -> Arc | None:
        """Return the root fillet: as wished for, or the largest the space holds; None where there
        is no room."""
        wished = self.fillet
        if wished <= 0:
            return None
        arc = self._fillet(method, begin, wished)
        if arc and arc.centre.angle >= space:
            return arc
        low, high = 0.0, wished
        for _ in range(50):
            middle = (low + high) / 2
            arc = self._fillet(method, begin, middle)
            low, high = (middle, high) if arc and arc.centre.angle >= space else (low, middle)
        return self._fillet(method, begin, low) if low > SPECK * self.module else None

    def _fillet(self, method: Method, begin: float, radius: float) -> Arc | None:
        """Return the fillet of a radius between root circle and flank, its centre in the space.

        Notes
        -----
        Against the radial flank its centre lies asin(f/(r + f)) beside it, r the root radius; where
        it would reach past the base circle it touches the involute instead: its centre is unwound f
        further than the touch point, so (r + f)² = r_b² + (r_b·u + f)² (closed form); against an
        arc it is beside it."""
        reach = self.root + radius
        if reach**2 - radius**2 <= self.base**2:
            centre = polar(reach, begin - math.asin(radius / reach))
            touch = polar(math.sqrt(reach**2 - radius**2), begin)
        elif method == "involute":
            roll = (math.sqrt(reach**2 - self.base**2) - radius) / self.base
            touch, ahead = self.involute(roll)
            centre = touch - ahead.normal * radius
        else:
            arc = self.two_arcs[1] if method == "arcs" else self.one_arc[0]
            out = abs(arc.centre)
            cos = (reach**2 + out**2 - (arc.radius + radius) ** 2) / (2 * reach * out)
            if not -1 <= cos <= 1:
                return None
            centre = polar(reach, arc.centre.angle - math.acos(cos))
            touch = centre + (arc.centre - centre).unit * radius
        return Arc.between(Circle(centre, radius, radius), centre * (self.root / reach), touch)

    def ring(
        self,
        method: Method,
        owner: str,
        centre: Point,
        turned: float,
        shown: int,
        called: Called = OUTSIDE,
    ) -> Loop:
        """Return so many teeth of the gear about a centre, all of them closed, the first in a
        direction (radians)."""
        names = {"tip": called.end, "root": called.ground}
        tooth = [
            (
                f"{names.get(word, word)}{'' if len(curves) == 1 else f'.{number}'}",
                piece_of(curve, "", "" if len(curves) == 1 else word),
            )
            for word, curves in self.tooth(method)
            for number, curve in enumerate(curves, 1)
        ]
        each = math.tau / self.teeth
        first = -(shown // 2) if shown < self.teeth else 0
        pieces = [
            piece
            for index in range(shown)
            for piece in _placed(
                tooth,
                f"{owner}.{called.stands}{index + 1}",
                centre,
                turned + (first + index) * each,
            )
        ]
        return Loop(tuple(pieces), shown == self.teeth)


@dataclass(frozen=True, slots=True)
class Centred:
    """An arc of a flank whose centre lies on the base circle."""

    centre: Point
    radius: float
    base: float

    def angle(self, radius: float) -> float:
        """Return the direction in which it meets a circle about the gear's centre (law of
        cosines)."""
        cos = (radius**2 + self.base**2 - self.radius**2) / (2 * radius * self.base)
        return self.centre.angle - math.acos(max(-1.0, min(1.0, cos)))

    def between(self, low: float, high: float) -> Arc:
        """Return the part between two circles about the gear's centre."""
        circle = Circle(self.centre, self.radius, self.radius)
        return Arc.between(circle, polar(low, self.angle(low)), polar(high, self.angle(high)))


def _departure(arc: Centred, places: list[Point]) -> float:
    x, y = arc.centre.x, arc.centre.y
    return max(abs(math.hypot(spot.x - x, spot.y - y) - arc.radius) for spot in places)


@remembered()
def _two_arcs(gear: Gear) -> tuple[Centred, Centred, float]:
    if gear.radii is not None:
        face, inner = (gear.centred(radius) for radius in gear.radii)
    else:
        face, inner = gear.best_arc(gear.pitch, gear.tip), gear.best_arc(gear.start, gear.pitch)
    off = max(
        gear.departure(face, gear.pitch, gear.tip), gear.departure(inner, gear.start, gear.pitch)
    )
    return face, inner, off


@remembered()
def _one_arc(gear: Gear) -> tuple[Centred, float]:
    arc = gear.best_arc(gear.start, gear.tip)
    return arc, gear.departure(arc, gear.start, gear.tip)


def _mirrored(curve: Line | Arc) -> Line | Arc:
    """Return a curve mirrored about the x axis and walked back."""
    if isinstance(curve, Arc):
        return Arc(
            Point(curve.centre.x, -curve.centre.y),
            curve.radius,
            -curve.start - curve.sweep,
            curve.sweep,
        )
    ends = (curve.at(curve.end or 0.0), curve.at(curve.start or 0.0))
    return Line.between(*(Point(end.x, -end.y) for end in ends))


def _placed(
    tooth: list[tuple[str, Piece]], owner: str, about: Point, turn: float
) -> Iterator[Piece]:
    """Yield the pieces of a tooth turned about the origin and moved to a centre."""
    # Written out: a ring has thousands of pieces.
    cos, sin = math.cos(turn), math.sin(turn)
    ax, ay = about.x, about.y

    def put(point: Point) -> Point:
        return Point(ax + point.x * cos - point.y * sin, ay + point.x * sin + point.y * cos)

    for name, piece in tooth:
        entry, last = put(piece.entry), put(piece.exit)
        curve, curve_of = piece.curve, f"{owner}.{piece.curve_of}" if piece.curve_of else ""
        if isinstance(curve, Arc):
            turned = Arc(put(curve.centre), curve.radius, curve.start + turn, curve.sweep)
            yield Piece(turned, f"{owner}.{name}", entry, last, curve_of)
        else:
            yield Piece(Line.between(entry, last), f"{owner}.{name}", entry, last, curve_of)


def radii(
    teeth: int, pressure: float, addendum: float, dedendum: float
) -> tuple[float, float, float]:
    """Return face radius, flank radius and departure of two arcs for a module (or a unit of
    diametral pitch) of 1."""
    face, inner, off = Gear(teeth, 1.0, pressure, addendum, dedendum).two_arcs
    return face.radius, inner.radius, off
