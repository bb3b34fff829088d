"""``cycloid``: the path of a point on a circle that rolls along a line, or round a circle outside
or inside it; or of a point inside or outside that circle."""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from functools import partial

from ..acts import LEVEL, PLUMB, Edge, Mark, Round, Work
from ..acts.normals import Normals
from ..acts.procedures import away, ray_to
from ..geometry import Arc, Circle, Line, Loop, Point, polar
from ..geometry.fitted import fitted
from ..kind import Args, Kind, Made
from ..kind.parts import curve_run
from ..measure import Number, spell_angle
from ..plan.errors import ClauseError, Wanting
from ..plan.forms import Form
from ..tolerance import FITTED, ROUND

PARTS = 12
CLOSE = FITTED["cycloid"]
"""Departure of the arcs it is drawn with, as a share of the rolling radius."""


@dataclass(frozen=True)
class _Rolled(Normals):
    """The path of a point that is carried by a rolling circle, by the angle rolled.

    Attributes
    ----------
    size, trace : float
        Radius of the rolling circle; how far from its centre the point is.
    whole : float
        Angle rolled in all, rad.
    """

    size: float
    trace: float
    whole: float

    @property
    def span(self) -> tuple[float, float]:
        return 0.0, self.whole

    @property
    def parts(self) -> int:
        return max(36, round(72 * self.whole / math.tau))

    @property
    def has_cusps(self) -> bool:
        """Whether the point is on the rolling circle: it comes to rest wherever it touches."""
        return self.trace == self.size


@dataclass(frozen=True)
class _Along(_Rolled):
    """Along a level line, to the right, from where the point is lowest over `start`."""

    start: Point

    def centre(self, turn: float) -> Point:
        return self.start + Point(self.size * turn, self.size)

    def at(self, turn: float) -> Point:
        return self.centre(turn) - Point(math.sin(turn), math.cos(turn)) * self.trace

    def heading(self, turn: float) -> Point:
        if self.has_cusps:
            # Half-angle form of (1 − cos θ, sin θ): at the cusps as well it has a direction,
            # square to the base.
            return Point(math.sin(turn / 2), math.cos(turn / 2))
        ahead = self.size - self.trace * math.cos(turn)
        return Point(ahead, self.trace * math.sin(turn)).unit

    def normal(self, work: Work, at: Mark, turn: float, called: str, shown: Line | None) -> Edge:
        """It goes through where the rolling circle touches the line."""
        under = self.start + Point(self.size * turn, 0.0)
        if abs(under - at.at) <= work.paper.nothing:
            return work.draw(at, LEVEL, None, called)
        centre_at = self.centre(turn)
        middle = work.mark(self.centre(0.0), "the centre at the start")
        line = work.draw(middle, LEVEL, centre_at, "the line of the centres")
        swing = work.swing(at, self.trace, near=[centre_at], told="back to the centre")
        centre = work.prick(swing, line, centre_at, "the centre of the rolling circle")
        base = work.draw(work.mark(self.start), LEVEL, under, "the line it rolls on")
        plumb = work.draw(centre, PLUMB, under)
        touch = work.prick(plumb, base, under, "where it touches the line")
        return work.through(at, touch, called, shown=shown)


@dataclass(frozen=True)
class _Round(_Rolled):
    """Round a base circle, outside (`side` 1) or inside (−1), from a direction on."""

    base: Circle | Arc
    name: str
    side: int
    begin: float

    @property
    def share(self) -> float:
        """What the centre goes round of what the circle turns against the line of centres."""
        return self.size / self.base.radius

    def centre(self, turn: float) -> Point:
        out = polar(self.base.radius + self.side * self.size, self.begin + self.share * turn)
        return self.base.centre + out

    def _arm(self, turn: float) -> Point:
        return polar(self.trace, self.begin + (self.share + self.side) * turn) * self.side

    def at(self, turn: float) -> Point:
        return self.centre(turn) - self._arm(turn)

    def heading(self, turn: float) -> Point:
        if self.has_cusps:
            angle = self.begin + self.share * turn + self.side * turn / 2
            return polar(1.0, angle) * self.side
        carried = (self.centre(turn) - self.base.centre).normal * self.share
        return (carried - self._arm(turn).normal * (self.share + self.side)).unit

    def touch(self, turn: float) -> Point:
        """Where the rolling circle touches the base."""
        return self.base.centre + polar(self.base.radius, self.begin + self.share * turn)

    def normal(self, work: Work, at: Mark, turn: float, called: str, shown: Line | None) -> Edge:
        """It goes through where the rolling circle touches the base circle."""
        touch_at, centre_at = self.touch(turn), self.centre(turn)
        middle, base = work.mark(self.base.centre), work.round(self.base, self.name)
        if abs(touch_at - at.at) <= work.paper.nothing:
            return work.square(work.through(middle, at), at, None, called)
        ring = work.swing(
            middle, abs(centre_at - middle.at), "the way of the centres", near=[centre_at]
        )
        swing = work.swing(at, self.trace, near=[centre_at], told="back to the centre")
        centre = work.prick(swing, ring, centre_at, "the centre of the rolling circle")
        line = work.through(middle, centre, reach=touch_at)
        touch = work.prick(line, base, touch_at, "where it touches the base")
        return work.through(at, touch, called, shown=shown)


def construct(args: Args) -> Made:
    """Construct a cycloid, epicycloid (outside) or hypocycloid (inside), starting where the point
    is nearest to the base; with ``tracing`` a trochoid.

    Parts: ``start``, ``end``, ``station.0`` ….

    Notes
    -----
    Along a line: rθ − d·sin θ, r − d·cos θ. Round a circle of radius R the centre goes round by
    r/R of what the circle turns against the line of centres (rolling without slip)."""
    rolled = _read(args)
    stations = _stations(rolled)
    curves = _arches(rolled, stations)
    shape = curve_run(args.name, curves, rolled, closed=False)
    spots = [rolled.at(turn) for turn in stations]
    size, turns = args.need("radius").length("size").value, args.need("turns").length("turns")
    part = math.tau * rolled.size / PARTS
    traced = args.get("tracing")
    about = f", tracing {args.say(traced.length('size').value)} from its centre" if traced else ""
    return Made(
        shape,
        f"{_word(rolled)} {args.name} {_words(args)}, rolling radius {args.say(size)}{about}, "
        f"{turns.text} turns.",
        (
            f"a turn rolls 2π × {args.say(size)} = {args.say(math.tau * rolled.size)}, "
            f"{args.say(part)} for each {spell_angle(360 / PARTS)}",
            f"{args.say(_length(rolled) if rolled.has_cusps else shape.length)} long",
        ),
        parts={
            "start": spots[0],
            "end": spots[-1],
            **{f"station.{index}": spot for index, spot in enumerate(spots)},
            **{str(index): piece.curve for index, piece in enumerate(shape.pieces, 1)},
        },
        draw=partial(_draw, args, rolled, stations, shape),
    )


def _word(rolled: _Along | _Round) -> str:
    if not rolled.has_cusps:
        return "Trochoid"
    if isinstance(rolled, _Along):
        return "Cycloid"
    return "Epicycloid" if rolled.side > 0 else "Hypocycloid"


def _length(rolled: _Along | _Round) -> float:
    """Return how long the path of a point of the circle is: 8r for each whole turn along a line,
    4r(1 − cos θ/2) for a part of one; round a circle of radius R (R ± r)/R times as much (textbook
    formulas)."""
    turns, rest = divmod(rolled.whole, math.tau)
    stretch = 1.0 if isinstance(rolled, _Along) else 1 + rolled.share * rolled.side
    return stretch * rolled.size * (8 * turns + 4 * (1 - math.cos(rest / 2)))


def _stations(rolled: _Rolled) -> list[float]:
    """Return the angles at which the path is constructed: every twelfth of a turn, and the end."""
    part = math.tau / PARTS
    whole = math.floor(rolled.whole / part + ROUND)
    turns = [part * index for index in range(whole + 1)]
    return turns if rolled.whole - turns[-1] < ROUND * part else [*turns, rolled.whole]


def _read(args: Args) -> _Along | _Round:
    radius, turns = (
        float(args.need("radius").length("size")),
        float(args.need("turns").length("turns")),
    )
    if not 0 < turns <= 12:
        raise ClauseError("a circle rolls up to 12 turns", args.need("turns").index)
    traced = args.get("tracing")
    trace = float(traced.length("size")) if traced else radius
    if traced and not 0 < trace <= 10 * radius:
        raise ClauseError("the point is up to ten radii from the centre", traced.index)
    rolled = radius, trace, math.tau * turns
    base, start = args.get("on"), args.get("from")
    if (base is None) == (start is None):
        raise Wanting(
            "the circle rolls from a point along a level line, or on a circle: say one of them"
        )
    if start is not None:
        return _Along(*rolled, start.point("start"))
    assert base is not None
    circle, inside = base.shape("circle"), args.get("inside") is not None
    assert isinstance(circle, Circle | Arc)
    if inside and radius >= circle.radius:
        message = f"a circle that rolls inside {base.ref('circle').text} is smaller than it"
        raise ClauseError(message, args.need("radius").index)
    begin = math.radians(args.number("at", usual=0.0))
    return _Round(*rolled, circle, base.ref("circle").text, -1 if inside else 1, begin)


def _words(args: Args) -> str:
    start = args.get("from")
    if start is not None:
        return f"from {start.ref('start').text}"
    return f"{'inside' if args.get('inside') else 'on'} {args.need('on').ref('circle').text}"


def _arches(rolled: _Rolled, stations: Sequence[float]) -> list[Line | Arc]:
    if not rolled.has_cusps:
        return list(fitted(rolled.at, rolled.heading, stations, CLOSE * rolled.size))
    curves: list[Line | Arc] = []
    for arch in range(math.ceil(rolled.whole / math.tau - ROUND)):
        # At a cusp the path turns back on itself: every arch is drawn for itself.
        low, high = arch * math.tau - ROUND, (arch + 1) * math.tau + ROUND
        knots = [turn for turn in stations if low <= turn <= high]
        sign = -1.0 if arch % 2 else 1.0
        curves += fitted(
            rolled.at,
            lambda turn, sign=sign: rolled.heading(turn) * sign,  # type: ignore[misc]
            knots,
            CLOSE * rolled.size,
        )
    return curves


def _draw(
    args: Args, rolled: _Along | _Round, stations: Sequence[float], shape: Loop, work: Work
) -> None:
    """Divide the generating circle where it starts; carry every division across, level or about the
    base's centre, to the swing about the centre that belongs to it."""
    found = (
        _along(args, rolled, stations, work)
        if isinstance(rolled, _Along)
        else _round(args, rolled, stations, work)
    )
    check = "it stands square on its base at every cusp" if rolled.has_cusps else ""
    work.trace(list(found), shape, args.name, check=check)


def _divisions(
    args: Args, rolled: _Rolled, centre: Mark, begin: Number, way: int, work: Work
) -> tuple[Round, list[Mark]]:
    """Draw the generating circle about its first centre and divide it from the point on."""
    words = "the rolling circle" if rolled.has_cusps else "the circle of the tracing point"
    traced = args.get("tracing") or args.need("radius")
    ring = work.swing(centre, traced.length("size").value, words)
    marks = []
    for index in range(min(PARTS, round(rolled.whole / math.tau * PARTS) + 1)):
        degrees = begin + way * index * (360 // PARTS)
        spot = centre.at + polar(rolled.trace, math.radians(float(degrees)))
        marks.append(ray_to(work, centre, ring, degrees, spot, f"division {index} of {words}"))
    return ring, marks


def _along(args: Args, rolled: _Along, stations: Sequence[float], work: Work) -> Iterator[Mark]:
    clause = args.need("from")
    start = work.mark(rolled.start, clause.ref("start").text)
    end = rolled.start + Point(rolled.size * rolled.whole, 0.0)
    base = work.draw(start, LEVEL, end, "the line it rolls on")
    first = rolled.centre(0.0)
    size = args.need("radius").length("size").value
    centre = work.measure(start, PLUMB, size, "the centre at the start", first)
    way = work.parallel(base, centre, rolled.centre(rolled.whole), "the line of the centres")
    ring, divisions = _divisions(args, rolled, centre, 270, -1, work)
    for index, turn in enumerate(stations):
        spot, at = rolled.at(turn), rolled.centre(turn)
        called, label = f"{args.name}.station.{index}", str(index)
        middle = (
            work.measure(
                centre, away(way, centre, at), rolled.size * turn, f"the centre at part {index}", at
            )
            if turn
            else centre
        )
        swing = work.swing(middle, ring.circle.size, f"the circle at part {index}", near=[spot])
        division = _division(rolled, divisions, centre, ring, turn, work, 270, -1)
        level = work.parallel(base, division, spot, f"the level of division {index % PARTS}")
        yield work.prick(level, swing, spot, called, label=label)


def _division(  # noqa: PLR0913
    rolled: _Rolled,
    divisions: Sequence[Mark],
    centre: Mark,
    ring: Round,
    turn: float,
    work: Work,
    begin: Number,
    way: int,
) -> Mark:
    """Return the division that belongs to an angle rolled; a last part that is no whole one has its
    own."""
    part = turn / math.tau * PARTS
    index = round(part)
    if abs(part - index) < ROUND:
        return divisions[index % PARTS]
    degrees = float(begin) + way * math.degrees(turn)
    spot = centre.at + polar(rolled.trace, math.radians(degrees))
    return ray_to(work, centre, ring, degrees, spot, "the last division")


def _round(args: Args, rolled: _Round, stations: Sequence[float], work: Work) -> Iterator[Mark]:
    clause = args.need("on")
    size = args.need("radius").length("size").value
    middle, name = work.mark(rolled.base.centre, clause.ref("circle").centre_name), rolled.name
    work.round(rolled.base, name)
    track = work.swing(middle, rolled.base.size + size * rolled.side, "the way of the centres")
    begin = args.need("at").length("angle").value if args.get("at") else 0
    inward = begin + (180 if rolled.side > 0 else 0)
    centre = ray_to(work, middle, track, begin, rolled.centre(0.0), "the centre at the start")
    ring, divisions = _divisions(args, rolled, centre, inward, rolled.side, work)
    for index, turn in enumerate(stations):
        spot, at = rolled.at(turn), rolled.centre(turn)
        degrees = float(begin) + math.degrees(turn) * rolled.share
        own = (
            ray_to(work, middle, track, degrees, at, f"the centre at part {index}")
            if turn
            else centre
        )
        swing = work.swing(own, ring.circle.size, f"the circle at part {index}", near=[spot])
        division = _division(rolled, divisions, centre, ring, turn, work, inward, rolled.side)
        reach = work.between(middle, division)
        if float(reach.size) <= work.paper.nothing:
            yield middle
            continue
        carried = work.swing(middle, reach, f"the arc of division {index % PARTS}", near=[spot])
        yield work.prick(carried, swing, spot, f"{args.name}.station.{index}", label=str(index))


ABOUT = """\
The path of a point on a circle that rolls `from` a point along a level line, or `on` a circle,
outside or `inside`. `tracing` a length is a point so far from the centre of the rolling circle: a
trochoid, inferior inside it, superior beyond. Parts `start`, `end`, `station.0` and so on.
"""

SHOWN = """\
units mm
O = datum
path = cycloid, from O, radius 12, 1 turns
A = point, 130 right of O
base = circle, centre A, radius 30
outer = cycloid, on base, radius 10, 1 turns, at 90°
inner = cycloid, on base, inside, radius 10, 1 turns, at 270°
B = point, 60 below O
loops = cycloid, from B, radius 12, tracing 18, 1 turns
"""

KIND = Kind(
    name="cycloid",
    group="Curves",
    summary="a point carried by a circle that rolls along a line or round a circle",
    example="path = cycloid, from P, radius 12, 1 turns",
    mistake="The chord of a part is set off along the base instead of the arc it rolls.",
    also=(
        "epicycloid",
        "hypocycloid",
        "trochoid",
        "epitrochoid",
        "hypotrochoid",
        "rolling circle",
    ),
    forms=(
        Form("from {start:point}", "from"),
        Form("on {circle:circle}", "on"),
        Form("inside"),
        Form("radius {size:radius}", needed=True),
        Form("diameter {size_across:diameter}", "radius", needed=True),
        Form("{turns:length} turns", "turns", needed=True),
        Form("tracing {size:length}", "tracing"),
        Form("at {angle:angle}"),
    ),
    construct=construct,
    about=ABOUT,
    shown=SHOWN,
)
