"""Arcs of a file that rounds its numbers, as they were before: about the centres others have, and
of the simplest radius that its decimals leave open."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np

from ..geometry import Arc, Circle, Point
from ..geometry.shapes import ends as ends_of
from ..measure import Unit
from ..tolerance import NOUGHT, SPECK
from .hidden_arcs import circle_through
from .profile import Curve, Profile, Run, pieces_of
from .simplest import simplest, worth

MIDDLE = 4.0
"""How much further off than its ends the middle of an arc may be (by eye)."""

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
    # Rounds stand about the corners of others, too.
    corners = [ends_of(piece)[0] for run in profile.runs for piece in pieces_of(run)]
    places = np.array([complex(*corner) for corner in corners])
    centres: dict[Point, None] = {}
    for each in sorted(rounds, key=lambda each: each.unsure):
        away = np.abs(places - complex(*each.curve.centre))
        others = [corners[n] for n in np.flatnonzero(away <= 2 * each.unsure)]
        found = _about_another(each, [*others, *centres], within) or _simpler(each, unit, within)
        runs[each.run][each.at] = found
        centres[found.centre] = None
    return replace(profile, runs=tuple(map(tuple, runs)))


def moved_at_most(before: Profile, after: Profile) -> float:
    """Return how far a profile was moved at most where it was adjusted."""
    pairs = (
        pair
        for run, other in zip(before.runs, after.runs, strict=True)
        for pair in zip(run, other, strict=True)
    )
    return max((_moved(one, other) for one, other in pairs), default=0.0)


def _moved(one: Curve, other: Curve) -> float:
    if isinstance(one, Circle) and isinstance(other, Circle):
        return abs(one.centre - other.centre) + abs(one.radius - other.radius)
    if not (isinstance(one, Arc) and isinstance(other, Arc)):
        return 0.0
    ends = (abs(abs(end - other.centre) - other.radius) for end in (one.first, one.last))
    return max(abs(one.middle - other.middle), *ends)


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
    parted: list[list[Curve]] = []
    for curve in run:
        if parted and _lie_on_one([*parted[-1], curve], within):
            parted[-1].append(curve)
        else:
            parted.append([curve])
    if closed and len(parted) > 1 and _lie_on_one([*parted[-1], *parted[0]], within):
        parted[0] = [*parted.pop(), *parted[0]]
    if closed and len(parted) == 1 and (whole := _all_round(parted[0], within)):
        return (whole,)
    return tuple(_one(each, within) for each in parted)


def _lie_on_one(curves: Sequence[Curve], within: float) -> bool:
    """Tell whether arcs, one after another, are parts of one that still has two ends."""
    arcs = [curve for curve in curves if isinstance(curve, Arc)]
    turn = sum(arc.sweep for arc in arcs)
    return (
        len(arcs) == len(curves)
        and all(arc.sweep * turn > 0 for arc in arcs)
        and abs(turn) <= math.tau + SPECK
        and _through(arcs, within) is not None
    )


def _all_round(curves: Sequence[Curve], within: float) -> Circle | None:
    """Return the circle that arcs make; None where they do not go all round."""
    arcs = [curve for curve in curves if isinstance(curve, Arc)]
    whole = _through(arcs, within) if arcs else None
    if whole is None or abs(arcs[-1].last - arcs[0].first) > 2 * within:
        return None
    return whole if len(arcs) > 1 else None


def _one(curves: Sequence[Curve], within: float) -> Curve:
    """Return the arc that several are parts of."""
    arcs = [curve for curve in curves if isinstance(curve, Arc)]
    whole = _through(arcs, within) if len(arcs) > 1 else None
    if whole is None:
        return curves[0]
    return _from_to(arcs[0].first, arcs[-1].last, whole, arcs[0].sweep)


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
    return min(within / max(height, NOUGHT), MOST_OF_RADIUS * curve.radius)


def _about_another(each: _Round, centres: Sequence[Point], within: float) -> Arc | Circle | None:
    """Return an arc about the nearest centre that is known better; None where it does not come to
    its places from there."""
    curve = each.curve
    near = [spot for spot in centres if abs(spot - curve.centre) <= 2 * each.unsure]
    if not near:
        return None
    centre = min(near, key=lambda spot: abs(spot - curve.centre))
    if isinstance(curve, Circle):
        return Circle(centre, curve.radius)
    radius = (abs(curve.first - centre) + abs(curve.last - centre)) / 2
    moved = _from_to(curve.first, curve.last, Circle(centre, radius), curve.sweep)
    # Ends are written; the middle of an arc is worked out of them, and further off.
    ends = abs(abs(curve.first - centre) - radius) <= within
    return moved if ends and abs(moved.middle - curve.middle) <= MIDDLE * within else None


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
