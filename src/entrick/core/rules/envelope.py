"""What is left of a cam's profile where a roller or a flat face cannot be followed into it: the
parallel curve cut off where it crosses itself, as a drafter leaves it, and how far the follower
lags there."""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from itertools import pairwise

from ..geometry import Arc, Line, Point, meet
from ..geometry.shapes import ends, is_drawn_at
from ..tolerance import DIRECTION, ROUND, surely_two
from .cam import CLOSE, JOINS, Cam

Named = tuple[str, Line | Arc]
"""A curve of the profile with the event it belongs to."""

SHORT = (60, 300)
"""Parts of the greatest distance of the cam: longer curves are looked at in pieces of so much;
finer where that does not do."""

FAR = 200
"""How many curves before and behind a gouge may be lost with it."""

NEAR_BY = 12
"""How many curves further a better corner is looked for."""

SURELY = 0.05
"""Share of what may be told from the boundary within which a corner lies on it."""

FINE = 12
"""Places looked at in each stretch of an event: a gouge that is smaller is none on paper."""


@dataclass(frozen=True)
class Envelope:
    """The profile as it is drawn.

    Attributes
    ----------
    curves : tuple of (str, Line or Arc)
        End to end and closed, each with the event it belongs to.
    corners : tuple of Point
        Where it has been cut off.
    lag : float
        How far the follower stands short of its lift there at most, plan units.
    lags_at : float
        At which angle of the cam, degrees.
    lost : bool
        Whether the follower cuts away what should carry it, so that no profile is left there.
    """

    curves: tuple[Named, ...]
    corners: tuple[Point, ...] = ()
    lag: float = 0.0
    lags_at: float = 0.0
    lost: bool = False


def envelope(cam: Cam) -> Envelope:
    """Return the profile of a cam, cut off wherever its parallel runs into what the follower
    sweeps.

    Notes
    -----
    A place that lies nearer to the path of a roller's middle than its radius, or above a face, is
    cut away by the follower itself (definition of the envelope of what sweeps)."""
    whole = tuple((name, curve) for name, curves in cam.stretches() for curve in curves)
    if not _may_be_cut(cam):
        return Envelope(whole)
    swept = _Swept(cam)
    kept: tuple[Named, ...] = whole
    corners: tuple[Point, ...] = ()
    left = False
    for parts in SHORT:
        raw = list(_split(whole, cam.far / parts))
        gouged = [swept.takes_away(name, curve) for name, curve in raw]
        if not any(gouged) or all(gouged):
            return Envelope(whole, lost=any(gouged))
        kept, corners, left = _cut(raw, gouged, swept)
        if not left:
            break
    # On the outer flank of a groove nothing is carried: the inner one does.
    short = _lag(cam, swept, corners) if corners and not cam.outer else (0.0, 0.0)
    return Envelope(_rejoined(kept), corners, *short, lost=left)


def _lag(cam: Cam, swept: _Swept, corners: Sequence[Point]) -> tuple[float, float]:
    """Return how far the follower comes to stand short of its lift at most, and at which angle of
    the cam, degrees: it rests on a corner of the profile there.

    Notes
    -----
    Lowered along its line by δ the roller touches the corner, d from its middle: δ = d·out −
    √(r² − (d × out)²) (right triangle); a face, δ = d·out."""
    worst, where = 0.0, 0.0
    for index, share in cam.places(FINE):
        if not cam.events[index].drops and swept.covers(cam.profile(index, share)[0]):
            short = _short(cam, index, share, corners)
            if short > worst:
                worst, where = short, cam.angle_of(index, share)
    return worst, where


def _short(cam: Cam, index: int, share: float, corners: Sequence[Point]) -> float:
    out = cam.going(index, share)
    if cam.follower == "flat":
        high = cam.height(index, share)
        return high - max((corner - cam.centre).dot(out) for corner in corners)
    place = cam.pitch(index, share)[0]
    best = math.inf
    for corner in corners:
        off = place - corner
        beside = off.cross(out)
        if abs(beside) < cam.roller and off.dot(out) > 0:
            best = min(best, off.dot(out) - math.sqrt(cam.roller**2 - beside**2))
    return best if best < math.inf else 0.0


def _may_be_cut(cam: Cam) -> bool:
    """Tell whether anything may have to be cut off: only where the path bends more sharply than
    the roller, a face's line turns back, or the velocity jumps."""
    if cam.follower == "knife":
        return False
    if any(event.drops for event in cam.events) or any(True for _ in cam.jumps()):
        return True
    if abs(cam.events[-1].end - cam.events[0].start) > ROUND:
        return True
    if cam.follower == "flat":
        return cam.flattest()[0] <= 0
    return cam.sharpest()[0] < cam.roller * (1 + ROUND)


class _Swept:
    """What the follower sweeps: places of its middle, or its face, all round."""

    def __init__(self, cam: Cam) -> None:
        self.cam = cam
        self.close = CLOSE * 20 * cam.far
        spots = list(cam.places(FINE))
        self.walls = {event.name for event in cam.events if event.drops}
        if cam.follower == "flat":
            self.faces = [(cam.going(*spot), cam.height(*spot)) for spot in spots]
        else:
            self.middles = [cam.pitch(index, share)[0] for index, share in spots]

    def takes_away(self, name: str, curve: Line | Arc) -> bool:
        """Tell whether the middle of a curve is cut away, or it joins two others backwards."""
        start, end = ends(curve)
        middle = curve.middle if isinstance(curve, Arc) else (start + end) * 0.5
        if JOINS in name and isinstance(curve, Arc):
            return curve.sweep * self.cam.way * self.cam.inward > 0
        if name in self.walls:
            return self.covers(middle)
        backwards = (middle - self.cam.centre).cross(end - start) * self.cam.way < 0
        return backwards or self.covers(middle)

    def covers(self, spot: Point, share: float = 1.0) -> bool:
        """Tell whether a place is swept, deeper than can be told from its boundary or than a share
        of that."""
        off, close = spot - self.cam.centre, self.close * share
        if self.cam.follower == "flat":
            return any(off.dot(out) > high + close for out, high in self.faces)
        reach = self.cam.roller - close
        for middle in self.middles:
            dx, dy = middle.x - spot.x, middle.y - spot.y
            if -reach < dx < reach and -reach < dy < reach and dx * dx + dy * dy < reach * reach:
                return True
        return False


def _split(curves: Sequence[Named], longest: float) -> Iterator[Named]:
    """Yield curves in parts no longer than a length, so that each is cut away or kept as one."""
    for name, curve in curves:
        if isinstance(curve, Line):
            start, end = ends(curve)
            count = max(1, math.ceil(abs(end - start) / longest))
            spots = [start + (end - start) * (k / count) for k in range(count + 1)]
            yield from ((name, Line.between(a, b)) for a, b in pairwise(spots))
            continue
        count = max(1, math.ceil(curve.radius * abs(curve.sweep) / longest))
        each = curve.sweep / count
        for k in range(count):
            yield name, replace(curve, start=curve.start + k * each, sweep=each)


def _rejoined(curves: Sequence[Named]) -> tuple[Named, ...]:
    """Return curves with what had been split, and has not been cut, in one again."""
    result: list[Named] = []
    for name, curve in curves:
        before = result[-1] if result else ("", curve)
        if before[0] != name or type(before[1]) is not type(curve):
            result.append((name, curve))
            continue
        match before[1], curve:
            case Arc() as one, Arc() if one.centre == curve.centre and one.radius == curve.radius:
                result[-1] = (name, replace(one, sweep=one.sweep + curve.sweep))
            case Line() as line, Line() if _runs_on(line, curve):
                result[-1] = (name, Line.between(ends(line)[0], ends(curve)[1]))
            case _:
                result.append((name, curve))
    return tuple(result)


def _runs_on(one: Line, other: Line) -> bool:
    on = abs(ends(one)[1] - ends(other)[0]) <= surely_two(abs(ends(one)[1]))
    return on and abs(one.direction.cross(other.direction)) <= DIRECTION


def _cut(
    raw: Sequence[Named], gouged: Sequence[bool], swept: _Swept
) -> tuple[tuple[Named, ...], tuple[Point, ...], bool]:
    """Cut out every run of gouged curves, and join what is left of the curves before and behind
    where they cross. Tell whether one is left that nothing crosses behind."""
    count = len(raw)
    dropped: set[int] = set()
    starts: dict[int, Point] = {}
    ends_: dict[int, Point] = {}
    corners: list[Point] = []
    left_over = False
    for first, last in _runs(gouged):
        if all(index % count in dropped for index in range(first, last + 1)):
            continue
        crossing = _crossing(raw, (first, last), (dropped, corners), swept)
        if crossing is None:
            left_over = True
            continue
        before, behind, spot = crossing
        dropped |= {index % count for index in range(before + 1, behind)}
        ends_[before % count], starts[behind % count] = spot, spot
        corners.append(spot)
    kept: list[Named] = []
    for index, (name, curve) in enumerate(raw):
        if index in dropped:
            continue
        left = _from(curve, starts[index]) if index in starts else curve
        kept.append((name, _upto(left, ends_[index]) if index in ends_ else left))
    return tuple(kept), tuple(corners), left_over


def _runs(gouged: Sequence[bool]) -> Iterator[tuple[int, int]]:
    """Yield the first and the last of every run of gouged curves; one over the end goes on
    counting."""
    count, begin = len(gouged), gouged.index(False)
    first: int | None = None
    for index in range(begin, begin + count + 1):
        if gouged[index % count] and first is None:
            first = index
        elif not gouged[index % count] and first is not None:
            yield first, index - 1
            first = None


def _crossing(
    raw: Sequence[Named],
    run: tuple[int, int],
    gone: tuple[set[int], Sequence[Point]],
    swept: _Swept,
) -> tuple[int, int, Point] | None:
    """Return the curves, before and behind the middle of a gouge, that cross where nothing sweeps:
    those nearest to it."""
    (first, last), count = run, len(raw)
    reach = [ends(curve) for _, curve in raw]
    dropped, corners = gone
    best: tuple[int, int, Point] | None = None
    found_at = FAR
    for before, behind in _pairs(first, last, count):
        far = max(first - before, behind - last)
        if far > found_at + NEAR_BY:
            break
        if not 0 < behind - before < count:
            continue
        if before % count in dropped or behind % count in dropped:
            continue
        one, two = raw[before % count][1], raw[behind % count][1]
        if _apart(reach[before % count], reach[behind % count]):
            continue
        joints = [*ends(one), *ends(two)] if (behind - before) % count in (1, count - 1) else []
        for meeting in meet(one, two):
            spot = meeting.point
            if any(abs(spot - other) <= surely_two(abs(spot)) for other in (*corners, *joints)):
                continue
            if not is_drawn_at(one, spot) or not is_drawn_at(two, spot) or swept.covers(spot):
                continue
            # Two that are hardly swept lie near a corner; the one that is not swept at all is it.
            if not swept.covers(spot, SURELY):
                return before, behind, spot
            best, found_at = best or (before, behind, spot), min(found_at, far)
    return best


def _pairs(first: int, last: int, count: int) -> Iterator[tuple[int, int]]:
    """Yield curves before and behind a run of so many, the nearest to it first."""
    for far in range(min(FAR, count)):
        yield from ((first - far, last + near) for near in range(far))
        yield from ((first - near, last + far) for near in range(far + 1))


def _apart(one: tuple[Point, Point], other: tuple[Point, Point]) -> bool:
    """Tell whether two short curves are surely apart, by their ends: further than their lengths
    reach."""
    (a, b), (c, d) = one, other
    reach = 2 * (abs(b.x - a.x) + abs(b.y - a.y) + abs(d.x - c.x) + abs(d.y - c.y))
    return abs(c.x - a.x) > reach or abs(c.y - a.y) > reach


def _upto(curve: Line | Arc, spot: Point) -> Line | Arc:
    if isinstance(curve, Line):
        return Line.between(ends(curve)[0], spot)
    sweep = _swept(curve, spot)
    return Arc(curve.centre, curve.radius, curve.start, sweep, curve.exact)


def _from(curve: Line | Arc, spot: Point) -> Line | Arc:
    if isinstance(curve, Line):
        return Line.between(spot, ends(curve)[1])
    sweep = _swept(curve, spot)
    return Arc(curve.centre, curve.radius, curve.start + sweep, curve.sweep - sweep, curve.exact)


def _swept(arc: Arc, spot: Point) -> float:
    way = math.copysign(1.0, arc.sweep)
    turned = ((spot - arc.centre).angle - arc.start) * way % math.tau
    return way * min(turned, abs(arc.sweep))
