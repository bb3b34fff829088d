"""Arcs of a file that rounds its numbers, as they were before: about the centres others have, and
of the simplest radius that its decimals leave open."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace

from ..geometry import Arc, Circle, Point
from ..measure import Unit
from .hidden_arcs import circle_through
from .profile import Curve, Profile, Run
from .simplest import simplest, worth

LONGEST = 1.95 * math.pi
"""Turn of an arc that still has two ends."""

PLACES = 4
"""Parts of an arc between which it is held against a circle."""

MOST_OF_RADIUS = 0.1
"""Of its radius, how far the centre of a flat arc may be looked for."""


@dataclass(frozen=True, slots=True)
class _Round:
    """A circle or arc, and how far its centre may be from where the file has it."""

    run: int
    at: int
    curve: Arc | Circle
    unsure: float


def adjusted(profile: Profile, unit: Unit, within: float) -> Profile:
    """Return a profile whose arcs lie about centres that are known better, where they come to the
    same places within a tolerance, and have the simplest radii that do.

    Parameters
    ----------
    profile : Profile
    unit : Unit
        In which radii are to be simple.
    within : float
        How far the file's places may be off, in that unit.
    """
    rounds = [
        _Round(n, k, curve, _unsure(curve, within))
        for n, run in enumerate(profile.runs)
        for k, curve in enumerate(run)
        if isinstance(curve, Arc | Circle)
    ]
    runs: list[list[Curve]] = [list(run) for run in profile.runs]
    centres: list[Point] = []
    for each in sorted(rounds, key=lambda each: each.unsure):
        found = _about_another(each, centres, within) or _simpler(each, unit, within)
        runs[each.run][each.at] = found
        centres.append(found.centre)
    return replace(profile, runs=tuple(map(tuple, runs)))


def whole_arcs(run: Run, within: float, closed: bool) -> Run:
    """Return a run in which neighbours on one circle are one arc, as they are before a program
    writes each quarter by itself; a circle if that is all.

    Parameters
    ----------
    run : tuple
    within : float
        How far places may be from the circle.
    closed : bool
    """
    found: list[Curve] = []
    for curve in run:
        one = _of_both(found[-1], curve, within) if found else None
        found[-1:] = [one] if one else [*found[-1:], curve]
    while closed and len(found) > 1 and (one := _of_both(found[-1], found[0], within)):
        found = [one, *found[1:-1]]
    if closed and len(found) == 2 and (whole := _circle_of(found, within)):
        return (whole,)
    return tuple(found)


def _circle_of(halves: Sequence[Curve], within: float) -> Circle | None:
    """Return the circle that two arcs make; None where they make none."""
    if not all(isinstance(half, Arc) for half in halves):
        return None
    arcs = [half for half in halves if isinstance(half, Arc)]
    whole = _through(arcs, within)
    all_round = abs(abs(sum(arc.sweep for arc in arcs)) - math.tau) * arcs[0].radius <= within
    return whole if all_round else None


def _of_both(one: Curve, other: Curve, within: float) -> Arc | None:
    """Return the arc that two are parts of; None where they are of none."""
    if not (isinstance(one, Arc) and isinstance(other, Arc)) or one.sweep * other.sweep < 0:
        return None
    if abs(one.sweep + other.sweep) > LONGEST:
        return None
    whole = _through([one, other], within)
    if whole is None:
        return None
    return _from_to(one.first, other.last, whole, one.sweep)


def _through(arcs: Sequence[Arc], within: float) -> Circle | None:
    """Return the circle all of some arcs lie on."""
    spots = [arc.at(arc.start + arc.sweep * k / PLACES) for arc in arcs for k in range(PLACES + 1)]
    return circle_through(spots, within)


def _unsure(curve: Arc | Circle, within: float) -> float:
    """Return how far a centre may be off where the ends of its arc are: its height over the chord
    decides."""
    if isinstance(curve, Circle) or abs(curve.sweep) >= math.pi:
        return within
    height = 1 - math.cos(curve.sweep / 2)
    return min(within / height, MOST_OF_RADIUS * curve.radius)


def _about_another(each: _Round, centres: Sequence[Point], within: float) -> Arc | Circle | None:
    """Return an arc about the nearest centre that is known better; None where it does not come to
    its places from there."""
    curve = each.curve
    near = [spot for spot in centres if abs(spot - curve.centre) <= each.unsure + within]
    if not near:
        return None
    centre = min(near, key=lambda spot: abs(spot - curve.centre))
    if isinstance(curve, Circle):
        return Circle(centre, curve.radius)
    spots = (curve.first, curve.middle, curve.last)
    radius = sum(abs(spot - centre) for spot in spots) / 3
    moved = _from_to(curve.first, curve.last, Circle(centre, radius), curve.sweep)
    return moved if max(abs(abs(spot - centre) - radius) for spot in spots) <= within else None


def _from_to(first: Point, last: Point, on: Circle, way: float) -> Arc:
    """Return the arc of a circle from one place to another, counter-clockwise for a positive
    way."""
    start = (first - on.centre).angle
    sweep = ((last - on.centre).angle - start) % math.tau
    return Arc(on.centre, on.radius, start, sweep if way > 0 else sweep - math.tau)


def _simpler(each: _Round, unit: Unit, within: float) -> Arc | Circle:
    """Return an arc of the simplest radius with which it comes to the same places."""
    curve = each.curve
    if isinstance(curve, Circle) or abs(curve.sweep) >= math.pi:
        return curve
    first, last = curve.first, curve.last
    for unsure in (each.unsure, each.unsure / 4, within):
        radius = worth(simplest(curve.radius, unit, unsure))
        chord = abs(last - first) / 2
        if radius <= chord:
            continue
        out = (curve.centre - (first + last) * 0.5).unit
        centre = (first + last) * 0.5 + out * math.sqrt(radius**2 - chord**2)
        if abs(abs(curve.middle - centre) - radius) <= within:
            return _from_to(first, last, Circle(centre, radius), curve.sweep)
    return curve
