"""Radial cams by their outline: base circle, events, motions and follower, where it dwells and so
says what it turns about."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass, replace
from functools import cache, partial
from itertools import pairwise, product

import numpy as np
from numpy.typing import NDArray
from scipy.optimize import minimize, minimize_scalar  # type: ignore[import-untyped]

from ..geometry import Arc, Line, Loop, Point, shift
from ..geometry.loop import boxed
from ..geometry.shapes import ends as ends_of
from ..geometry.transform import from_start
from ..measure import Unit
from ..memo import remembered
from ..plan.reader import read_plan
from ..rules.motion import MOTIONS
from ..solve import solve
from ..tolerance import NOUGHT
from .profile import Curve, Run, length_of, loop_of, pieces_of
from .simplest import simplest

FEWEST_PIECES = 8
"""Arcs by which a cam is followed: what has fewer is told by them."""

ROUGHLY = 0.05
"""Of the lift, how far off a cam may be while its angles are not those that were given."""

STRAIGHT = 0.03
"""Of an outline, how much may be straight: a cam's is not."""

MOST_CENTRES, MOST_EVENTS = 4, 12

ROUND_TO = (10.0, 5.0, 1.0, 0.5)
"""Degrees that angles of events are whole in, the roundest first."""

SOFT = 7.0
"""Degrees by which the beginning of a motion may be seen too early or too late."""

STILL = 0.08
"""Of the steepest way out or in, how steep it is at most where a cam stands still for a moment."""

LEAST_DWELL = math.radians(8)
"""Turn of an arc by which it is a dwell, and its centre what the cam turns about."""

EACH = 6
"""Places of a piece that are looked at."""

OFF = 0.004
"""How far an outline may be off the cam it is taken for, as a share of the lift (by eye)."""

ANGLE = 0.5
"""Degrees: angles of events are most often whole or half."""

ROLLERS = 24
"""Radii of a roller that are tried first."""

WAYS = ((90.0, ""), (0.0, ", right"), (180.0, ", left"), (270.0, ", below"))
"""Where the follower may stand, and how that is said."""

Values = NDArray[np.float64]


@dataclass(frozen=True, slots=True)
class _Event:
    """From one angle to another, counter-clockwise, degrees; from one lift to another."""

    start: float
    end: float
    low: float
    high: float

    @property
    def turn(self) -> float:
        return self.end - self.start


@dataclass(frozen=True, slots=True)
class Lifted:
    """A cam found in an outline.

    Attributes
    ----------
    said : str
        As a statement has it, about ``CENTRE``.
    centre : Point
    off : float
        How far the outline is from it.
    loop : Loop
        The cam about its centre.
    """

    said: str
    centre: Point
    off: float
    loop: Loop


def as_cam(run: Run, within: float, unit: Unit) -> tuple[Run, str]:
    """Return the cam a closed run follows, and what is to be told of it; the run and nothing where
    it follows none, or is one already."""
    found = cam_in(run, within, unit)
    if found is None or found.off <= within:
        return run, ""
    cam: list[Curve] = [
        piece.curve for piece in found.loop.pieces if isinstance(piece.curve, Line | Arc)
    ]
    what = found.said.partition(", about CENTRE, ")[2]
    return tuple(
        cam
    ), f"an outline follows a cam within {found.off:.2g}, and was taken for it: {what}"


def cam_in(run: Run, within: float, unit: Unit) -> Lifted | None:
    """Return the cam an outline is; None where it is none that dwells.

    The follower's lift at an angle is told by the outline and what rides on it: its end (a knife),
    a roller's centre (a radius further out, square to the outline), or a flat face (the outline's
    reach in that direction). Motions are those whose diagram the lifts follow.
    """
    pieces = pieces_of(run)
    if len(pieces) < FEWEST_PIECES:
        return None
    start = ends_of(pieces[0])[0]
    alike = tuple(from_start(piece, start) for piece in pieces)
    found = _from_its_start(alike, within, unit)
    return found and replace(found, centre=found.centre + start, loop=shift(found.loop, start))


@remembered()
def _from_its_start(run: tuple[Line | Arc, ...], within: float, unit: Unit) -> Lifted | None:
    """Find a cam as it lies from its first place: it is the same wherever the datum is."""
    pieces = pieces_of(run)
    straight = sum(length_of(piece) for piece in pieces if isinstance(piece, Line))
    if straight > STRAIGHT * sum(map(length_of, pieces)):
        return None
    found: list[Lifted] = []
    centres = [_Seen(run, pieces, centre, within, unit) for centre in _centres(pieces, within)]
    # One that points to its centre is looked for first: most do, and it costs the least.
    for ways in (_in_line, _beside):
        for seen in centres:
            if seen.may_be:
                found += filter(None, map(seen.drawn, ways(seen)))
            if any(each.off <= within for each in found):
                return min(found, key=lambda each: each.off)
    return min(found, key=lambda each: each.off, default=None)


class _Seen:
    """An outline as it is seen from a centre: its events, places, and which way it looks."""

    def __init__(
        self, run: Run, pieces: Sequence[Line | Arc], centre: Point, within: float, unit: Unit
    ) -> None:
        self.run, self.centre, self.unit = run, centre, unit
        self.events = _events(pieces, centre, within)
        self.may_be = 2 <= len(self.events) <= MOST_EVENTS and not all(map(_stands, self.events))
        self.places = _places(pieces, centre)
        self.least = min((event.low for event in self.events), default=0.0)
        self.lift = max((event.high for event in self.events), default=0.0) - self.least
        self.close = max(5 * within, OFF * self.lift)

    def lifts(self, follower: Follower) -> tuple[Values, Values]:
        """Return at which angle each place is under a follower, and how high that stands then."""
        return _lifts(follower, *self.places, self.least)

    def drawn(self, fitted: _Fitted) -> Lifted | None:
        """Return a cam as it is drawn, and how far the outline is from it; None where it is
        far."""
        if fitted.off > self.close:
            return None
        said = _said(fitted, self.unit, self.close / 8)
        loop = _drawn(said, self.unit) if said else None
        if not loop:
            return None
        there = shift(loop, self.centre)
        ring, mine = boxed(there), boxed(loop_of(self.run))
        places = [self.centre + Point(float(x), float(y)) for x, y in self.places[0]]
        farthest = max(
            *(abs(ring.nearest(spot) - spot) for spot in places),
            *(abs(mine.nearest(piece.entry) - piece.entry) for piece in there.pieces),
        )
        if farthest > self.close:
            return None
        return Lifted(said, self.centre, farthest, there)


@dataclass(frozen=True, slots=True)
class _Fitted:
    """Events with their motions under a follower, and how far the lifts are off them."""

    events: list[_Event]
    motions: list[str]
    follower: Follower
    off: float


def _in_line(seen: _Seen) -> Iterator[_Fitted]:
    """Yield the cam whose follower points to its centre; nothing where the outline is far from
    any."""
    events, least, (spots, normals) = seen.events, seen.least, seen.places
    follower, motions, off = _follower(events, spots, normals, least)
    if off > ROUGHLY * seen.lift:
        return
    # Where a motion begins softly it is hardly seen: angles are such as are given, all of them
    # round together first.
    tried = [_all_round(events, step) for step in ROUND_TO]
    events = min(tried, key=lambda each: _follower(each, spots, normals, least)[2])
    follower, motions, off = _follower(events, spots, normals, least)
    events = _rounded(events, _lifts(follower, spots, normals, least))
    follower, motions, off = _follower(events, spots, normals, least)
    yield _Fitted(events, motions, follower, off)


def _beside(seen: _Seen) -> Iterator[_Fitted]:
    """Yield cams whose follower's line passes their centre at some distance, the one given by the
    roundest numbers first; none where the outline is far from any."""
    events, least = seen.events, seen.least

    def off(said: Values, angles: Sequence[_Event]) -> float:
        follower = "roller", abs(float(said[0])), float(said[1])
        if abs(follower[2]) >= 0.9 * (least + follower[1]) or follower[1] > 2 * least:
            return math.inf
        lifts = seen.lifts(follower)
        return _motions(_at(angles, _ridden(events, follower, least), lifts), lifts)[1]

    # Angles are such as are given: from each offset that may be, those near it in round figures.
    begun: dict[tuple[float, ...], tuple[float, Follower, list[_Event]]] = {}
    for share, way, size in product(OFFSETS, (1, -1), SIZES):
        follower: Follower = ("roller", least * size, least * share * way)
        lifts = seen.lifts(follower)
        own = _ridden(events, follower, least)
        for step in ROUND_TO[:2]:
            angles = _all_round(own, step)
            now = _motions(angles, lifts)[1]
            key = tuple(round(each.start) for each in angles)
            if key not in begun or now < begun[key][0]:
                begun[key] = (now, follower, angles)
    nearest = sorted(begun.values(), key=lambda each: each[0])[:TRIED]
    if nearest[0][0] > 2 * ROUGHLY * seen.lift:
        return
    best: tuple[float, Values, list[_Event]] | None = None
    for _, follower, angles in nearest:
        found = minimize(
            off,
            np.array(follower[1:]),
            args=(angles,),
            method="Nelder-Mead",
            options={"maxiter": 60},
        )
        if best is None or found.fun < best[0]:
            best = (float(found.fun), found.x, angles)
    if best is None or best[0] > OFF * seen.lift:
        return
    _, said, angles = best
    for radius, offset in _rounder(said, partial(off, angles=angles), least):
        follower = ("roller", radius, offset)
        lifts = seen.lifts(follower)
        known = _at(angles, _ridden(events, follower, least), lifts)
        motions, now = _motions(known, lifts)
        yield _Fitted(known, motions, follower, now)


def _at(
    angles: Sequence[_Event], heights: Sequence[_Event], lifts: tuple[Values, Values]
) -> list[_Event]:
    """Return events by the angles of some and the heights of others; where one motion follows
    another without a dwell, as high as the follower stands at that angle."""
    events = [replace(a, low=b.low, high=b.high) for a, b in zip(angles, heights, strict=True)]
    order = np.argsort(lifts[0] % 360.0)
    at, far = lifts[0][order] % 360.0, lifts[1][order]
    for k, event in enumerate(events):
        if _stands(event) or _stands(events[k - 1]):
            continue
        high = float(np.interp(event.start % 360.0, at, far, period=360.0))
        events[k], events[k - 1] = replace(event, low=high), replace(events[k - 1], high=high)
    return events


def _rounder(
    found: Values, off: Callable[[Values], float], least: float
) -> list[tuple[float, float]]:
    """Return radii and offsets as they may have been given, the roundest of those that fit as well
    first."""
    enough = off(found) * AS_WELL + least * FINE
    radius, offset = abs(float(found[0])), float(found[1])
    radii, offsets = (
        {value for step in ROLLER_STEPS for value in _around(size, step)}
        for size in (radius, offset)
    )
    pairs = ((r, e) for r in radii for e in offsets if r and e)
    fits = [pair for pair in pairs if off(np.array(pair)) <= enough]
    fits.sort(key=lambda pair: (sum(len(f"{abs(size):g}") for size in pair), off(np.array(pair))))
    return [*fits[:FOLLOWED], (radius, offset)]


def _around(size: float, step: float) -> tuple[float, float]:
    """Return the whole steps below and above a size."""
    return math.floor(size / step) * step, math.ceil(size / step) * step


FOLLOWED = 4
"""Pairs of radius and offset that are drawn, and held against the outline."""

OFFSETS = tuple(k / 15 for k in range(1, 9))
SIZES = (0.1, 0.2, 0.35, 0.5)
"""How far a follower's line may pass the centre, and how large its roller may be, as shares of the
least distance."""

TRIED = 12
"""Of the angles found by those, how many are followed up."""


def _ridden(events: Sequence[_Event], follower: Follower, least: float) -> list[_Event]:
    """Return events of an outline as a follower whose line passes the centre goes through them: it
    comes to a place earlier or later, and stands as high as its line is long."""
    _, radius, offset = follower
    rest = math.sqrt((least + radius) ** 2 - offset**2)

    def angle(far: float) -> float:
        return math.degrees(math.asin(offset / (far + radius)))

    def high(far: float) -> float:
        return math.sqrt((far + radius) ** 2 - offset**2) - rest + least

    starts = [event.start + angle(event.low) for event in events]
    return [
        _Event(start, end, high(event.low), high(event.low if _stands(event) else event.high))
        for event, start, end in zip(events, starts, [*starts[1:], starts[0] + 360.0], strict=True)
    ]


def _centres(pieces: Sequence[Line | Arc], within: float) -> list[Point]:
    """Return what a cam may turn about: the centres of its longest rounds."""
    arcs = [p for p in pieces if isinstance(p, Arc) and abs(p.sweep) >= LEAST_DWELL]
    found: list[Point] = []
    for arc in sorted(arcs, key=lambda arc: -abs(arc.sweep)):
        if all(abs(arc.centre - other) > 8 * within for other in found):
            found.append(arc.centre)
    return found[:MOST_CENTRES]


def _all_round(events: Sequence[_Event], step: float) -> list[_Event]:
    """Return events that begin at multiples of an angle, where those are near."""
    found = list(events)
    for k, event in enumerate(events):
        at = round(event.start / step) * step
        if abs(at - event.start) <= SOFT:
            found = _begun(found, k, at)
    return found if all(event.turn > 0 for event in found) else list(events)


def _rounded(events: Sequence[_Event], lifts: tuple[Values, Values]) -> list[_Event]:
    """Return events that begin at the roundest angles near by with which lifts follow their
    motions best."""
    now = list(events)
    for k in range(len(now)):
        tried = []
        for step in ROUND_TO:
            at = round(now[k].start / step) * step
            if abs(at - events[k].start) <= SOFT:
                moved = _begun(now, k, at)
                tried.append((_motions(moved, lifts)[1], at))
        best, at = min(tried, default=(math.inf, now[k].start))
        if best <= _motions(now, lifts)[1]:
            now = _begun(now, k, at)
    return now


def _begun(events: Sequence[_Event], k: int, at: float) -> list[_Event]:
    """Return events of which one begins, and the one before it ends, at another angle."""
    result = list(events)
    shifted = at - result[k].start
    result[k] = replace(result[k], start=at)
    before = result[k - 1]
    result[k - 1] = replace(before, end=before.end + shifted)
    return result


def _events(pieces: Sequence[Line | Arc], centre: Point, within: float) -> list[_Event]:
    """Return the events of a cam in order of their angles: what dwells, and what lies between."""
    dwells: list[tuple[float, float, float]] = []
    for piece in pieces:
        if not isinstance(piece, Arc) or abs(piece.centre - centre) > 8 * within:
            continue
        if abs(piece.sweep) < LEAST_DWELL / 2:
            continue
        first = piece.first if piece.sweep > 0 else piece.last
        start = _degrees((first - centre).angle)
        dwells.append((start, start + math.degrees(abs(piece.sweep)), piece.radius))
    dwells.sort()
    if not dwells:
        return []
    marks = [(_round(a), _round(b), radius) for a, b, radius in dwells]
    found: list[_Event] = []
    for k, (a, b, radius) in enumerate(marks):
        found.append(_Event(a, b, radius, radius))
        on, _, next_radius = marks[(k + 1) % len(marks)]
        on += 360.0 if k + 1 == len(marks) else 0.0
        if on - b < ANGLE / 2:
            continue
        turns = [(b, radius), *_turns(pieces, centre, b, on), (on, next_radius)]
        for (p, r), (q, s) in pairwise(turns):
            # What hardly rises, and not for long, is where a dwell was not seen to its end.
            level = abs(s - r) <= 8 * within
            found.append(_Event(p, q, r, r) if level else _Event(p, q, r, s))
    return _merged(found, 8 * within)


def _merged(events: Sequence[_Event], near: float) -> list[_Event]:
    """Return events in which dwells that follow each other at one height are one."""
    result: list[_Event] = []
    for event in events:
        if (
            result
            and _stands(result[-1])
            and _stands(event)
            and abs(result[-1].low - event.low) <= near
        ):
            result[-1] = _Event(result[-1].start, event.end, event.low, event.high)
        else:
            result.append(event)
    first, last = result[0], result[-1]
    if len(result) > 2 and _stands(first) and _stands(last) and abs(first.low - last.low) <= near:
        result = [_Event(last.start - 360.0, first.end, first.low, first.high), *result[1:-1]]
    return result


def _stands(event: _Event) -> bool:
    return event.low == event.high


def _turns(
    pieces: Sequence[Line | Arc], centre: Point, start: float, end: float
) -> list[tuple[float, float]]:
    """Return where the outline is furthest out, or nearest, between two angles, or stands still for
    a moment on its way: there one motion ends and another begins."""
    rows = sorted(
        (((_degrees((spot - centre).angle) - start) % 360.0) + start, abs(spot - centre))
        for piece in pieces
        for spot in _along(piece)
    )
    inner = [(at, far) for at, far in rows if start < at < end]
    found = []
    for before, here, after in zip(inner, inner[1:], inner[2:], strict=False):
        if (here[1] - before[1]) * (after[1] - here[1]) < 0:
            found.append((_round(here[0], 2.0), here[1]))
    return found or _still(inner, start, end)


def _still(
    rows: Sequence[tuple[float, float]], start: float, end: float
) -> list[tuple[float, float]]:
    """Return where places in a row hardly go out or in, away from where they begin and stop."""
    slopes = [
        (abs(b[1] - a[1]) / max(b[0] - a[0], NOUGHT), (a[0] + b[0]) / 2, (a[1] + b[1]) / 2)
        for a, b in pairwise(rows)
    ]
    steepest = max((slope for slope, _, _ in slopes), default=0.0)
    result = []
    for before, here, after in zip(slopes, slopes[1:], slopes[2:], strict=False):
        away = start + 2 * SOFT < here[1] < end - 2 * SOFT
        if away and here[0] < STILL * steepest and before[0] >= here[0] < after[0]:
            result.append((_round(here[1], 2.0), here[2]))
    return result


def _degrees(radians: float) -> float:
    return math.degrees(radians) % 360.0


def _round(degrees: float, near: float = 0.1) -> float:
    said = round(degrees / ANGLE) * ANGLE
    return said if abs(said - degrees) <= near else round(degrees, 3)


def _along(piece: Line | Arc) -> Iterator[Point]:
    for k in range(EACH):
        share = k / EACH
        if isinstance(piece, Arc):
            yield piece.at(piece.start + piece.sweep * share)
        else:
            yield piece.at(
                (piece.start or 0.0) + ((piece.end or 0.0) - (piece.start or 0.0)) * share
            )


def _places(pieces: Sequence[Line | Arc], centre: Point) -> tuple[Values, Values]:
    """Return places of an outline about its centre, and which way it looks there."""
    spots, normals = [], []
    for piece in pieces:
        for spot in _along(piece):
            out = (spot - piece.centre).unit if isinstance(piece, Arc) else piece.direction.normal
            away = spot - centre
            spots.append((away.x, away.y))
            normals.append((out.x, out.y) if out.dot(away) > 0 else (-out.x, -out.y))
    return np.array(spots), np.array(normals)


Follower = tuple[str, float, float]
"""What rides on a cam: ``knife``, ``flat``, or ``roller`` with its radius; and how far its line
passes the centre, to the right looking outward."""


def _follower(
    events: Sequence[_Event],
    spots: Values,
    normals: Values,
    least: float,
) -> tuple[Follower, list[str], float]:
    """Return the follower and the motions the outline fits best, and how far off."""

    def fitted(follower: Follower) -> tuple[list[str], float]:
        return _motions(events, _lifts(follower, spots, normals, least))

    def of_roller(radius: float) -> float:
        return fitted(("roller", radius, 0.0))[1]

    tried: list[Follower] = [("knife", 0.0, 0.0), ("flat", 0.0, 0.0)]
    radii = [least * 1.3 * (k + 1) / ROLLERS for k in range(ROLLERS)]
    rough = min(radii, key=of_roller)
    step = radii[1] - radii[0]
    bounds = (max(rough - step, step / 100), rough + step)
    found = minimize_scalar(
        of_roller, bounds=bounds, method="bounded", options={"xatol": least * FINE}
    )
    radius = float(found.x)
    # The outline hardly says how large a roller is: of those it fits as well, the roundest.
    enough = of_roller(radius) * AS_WELL + least * FINE
    rounder = (round(radius / step) * step for step in ROLLER_STEPS)
    near = (each for each in rounder if each > 0 and abs(each - radius) < radius / 8)
    radius = next((each for each in near if of_roller(each) <= enough), radius)
    tried.append(("roller", radius, 0.0))
    best = min(tried, key=lambda follower: fitted(follower)[1])
    return best, *fitted(best)


AS_WELL = 1.5
"""Times as far off a rounder radius may be and fit as well (by eye)."""

ROLLER_STEPS = (1.0, 0.5, 0.25, 0.125, 0.1, 0.0625, 0.05)
"""What radii of rollers are whole in, the roundest first."""

FINE = 1 / 100_000
"""How closely a roller's radius is looked for, as a share of the base circle."""


def _lifts(
    follower: Follower, spots: Values, normals: Values, least: float
) -> tuple[Values, Values]:
    """Return the angles at which each place is under the follower, degrees, and how far out the
    follower stands then, as if its end were on the outline."""
    kind, radius, offset = follower
    if kind == "flat":
        far = np.einsum("ij,ij->i", spots, normals)
        return np.degrees(np.arctan2(normals[:, 1], normals[:, 0])), far
    there = spots + normals * radius
    far = np.hypot(there[:, 0], there[:, 1])
    angles = np.degrees(np.arctan2(there[:, 1], there[:, 0]))
    if not offset:
        return angles, far - radius
    # A place is under it when its line, beside the centre, goes through it.
    along = np.sqrt(np.maximum(far**2 - offset**2, 0.0))
    rest = math.sqrt((least + radius) ** 2 - offset**2)
    turned = np.degrees(np.arcsin(np.clip(offset / far, -1.0, 1.0)))
    return angles + turned, along - rest + least


def _motions(events: Sequence[_Event], lifts: tuple[Values, Values]) -> tuple[list[str], float]:
    """Return for each event the motion its lifts follow best, empty for a dwell, and how far the
    worst of them is off."""
    angles, far = lifts
    motions: list[str] = []
    worst = 0.0
    for event in events:
        at = (angles - event.start) % 360.0
        inside = at <= event.turn
        if event.low == event.high:
            motions.append("")
            continue
        shares, rows = at[inside] / event.turn, far[inside]
        if len(rows) < EACH:
            return [""] * len(events), math.inf
        off, name = _followed(shares, rows, event)
        motions.append(name)
        worst = max(worst, off)
    return motions, worst


SHARES = 2000
"""Of its angle, at which the lifts of a motion are known."""


@cache
def _diagrams() -> tuple[Sequence[str], Values]:
    """Return the motions by name, and for each its lifts at many shares of its angle."""
    names, shares = sorted(MOTIONS), np.linspace(0.0, 1.0, SHARES + 1)
    return names, np.array([[MOTIONS[n].shape(float(s))[0] for s in shares] for n in names])


def _followed(shares: Values, rows: Values, event: _Event) -> tuple[float, str]:
    """Return how far lifts are off the motion they follow best, in the mean of squares, and which
    that is."""
    names, diagrams = _diagrams()
    first = np.minimum((shares * SHARES).astype(int), SHARES - 1)
    beyond = shares * SHARES - first
    lifts = diagrams[:, first] * (1 - beyond) + diagrams[:, first + 1] * beyond
    off = np.mean((rows - event.low - (event.high - event.low) * lifts) ** 2, axis=1)
    best = int(np.argmin(off))
    return math.sqrt(off[best]), names[best]


def _said(fitted: _Fitted, unit: Unit, within: float) -> str:
    """Write a cam from where its follower stands; empty where no event begins or dwells there."""
    events, follower = fitted.events, fitted.follower
    rows = list(zip(events, fitted.motions, strict=True))
    least = min(event.low for event in events)
    for degrees, way in WAYS:
        order = _from(degrees, rows)
        if order is None:
            continue
        near = within
        parts = [f"least {simplest(least, unit, near)}"]
        if follower[0] == "roller":
            parts.append(
                f"roller radius {simplest(follower[1], unit, max(near, follower[1] / 300))}"
            )
        elif follower[0] == "flat":
            parts.append("flat")
        if follower[2]:
            size = simplest(abs(follower[2]), unit, near)
            parts.append(f"offset {size} {'right' if follower[2] > 0 else 'left'}")
        for event, motion in order:
            turn = f"{event.turn:.4f}".rstrip("0").rstrip(".")
            if not motion:
                parts.append(f"dwell {turn}°")
                continue
            size = simplest(abs(event.high - event.low), unit, near)
            usual = "" if motion == "harmonic" else f" {motion}"
            parts.append(f"{'rise' if event.high > event.low else 'fall'} {turn}° by {size}{usual}")
        return f"cam, about CENTRE, {', '.join(parts)}{way}"
    return ""


Row = tuple[_Event, str]


def _from(degrees: float, rows: Sequence[Row]) -> list[Row] | None:
    """Return events in order from an angle on; a dwell may be parted there, nothing else."""
    for k, (event, motion) in enumerate(rows):
        at = (degrees - event.start) % 360.0
        if at < ANGLE / 10 or 360.0 - at < ANGLE / 10:
            return [*rows[k:], *rows[:k]]
        if at < event.turn - ANGLE / 10:
            if motion:
                return None
            first = _Event(degrees, degrees + event.turn - at, event.low, event.high)
            last = _Event(event.start, event.start + at, event.low, event.high)
            return [(first, ""), *rows[k + 1 :], *rows[:k], (last, "")]
    return None


def _drawn(said: str, unit: Unit) -> Loop | None:
    text = (
        f"units {unit.value}\nsheet A0\nO = datum, middle of sheet\n"
        f"c = {said.replace('CENTRE', 'O')}\nrim = line in, c\n"
    )
    made = solve(read_plan(text)).entries[-1].made
    return made.loops[0] if made and made.loops else None
