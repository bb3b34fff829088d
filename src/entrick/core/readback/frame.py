"""By which angle a part stands turned in its file: its sides, what it is alike about, or the line
of its centres say so."""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from dataclasses import replace
from itertools import combinations

from ..geometry import Circle, Line
from ..geometry.shapes import ends as ends_of
from .match import Places, images, loosely, mirrored, turned_by
from .profile import Profile, box_of, is_closed, length_of, loop_of, middle_of, pieces_of
from .symmetry import axes_of, rim_of

LEVEL_SHARE = 0.3
"""Of the length of its straight sides, how much lies level or plumb in a part that is not
turned."""

MOST_PIECES = 150
"""Pieces of a profile that is tried in several positions: each is read once more."""

MOST_HOLES = 24
"""Holes of which each is looked at with every other."""

ALIKE = math.radians(0.05)
"""Between the directions of sides that stand square or parallel to each other."""


def frames(profile: Profile, within: float) -> list[float]:
    """Return the angles a part may stand turned by, radians, counter-clockwise, the likeliest
    first; none for one that stands level.

    Parameters
    ----------
    profile : Profile
    within : float
        How far places may be off.
    """
    if sum(map(len, profile.runs)) > MOST_PIECES or _stands_level(profile, within):
        return []
    found: list[float] = []
    for angle in (*_of_symmetry(profile, within), *_of_sides(profile), *_of_centres(profile)):
        # A right angle more or less is the same frame.
        angle = math.remainder(angle, math.pi / 2)
        said = _simplest(angle, profile, within)
        if abs(said) > ALIKE / 10 and all(abs(said - other) > ALIKE for other in found):
            found.append(said)
    return found[:3]


def levelled(profile: Profile, angle: float) -> Profile:
    """Return a profile turned back by an angle (radians) about the middle of its box."""
    low, high = box_of(profile.runs)
    back = turned_by((low + high) * 0.5, -angle)
    return replace(profile, runs=tuple(tuple(map(back, run)) for run in profile.runs))


def _lines(profile: Profile) -> list[Line]:
    return [curve for run in profile.runs for curve in run if isinstance(curve, Line)]


def _stands_level(profile: Profile, within: float) -> bool:
    axes = axes_of(profile.runs, within)
    if len(profile.runs[rim_of(profile.runs)]) > 1 and axes.ways:
        return True
    lines = _lines(profile)
    level = sum(length_of(line) for line in lines if _is_level(line, within))
    whole = sum(map(length_of, lines))
    return whole > 0 and level >= LEVEL_SHARE * whole


def _is_level(line: Line, within: float) -> bool:
    a, b = ends_of(line)
    return min(abs(a.x - b.x), abs(a.y - b.y)) <= within * 2


def _of_symmetry(profile: Profile, within: float) -> Iterator[float]:
    """Yield the angle of an axis the rim is alike about."""
    rim = profile.runs[rim_of(profile.runs)]
    if len(rim) < 2 or not is_closed(rim, within):
        return
    about = loop_of(rim).centroid
    places = Places(rim, loosely(within))
    spots = [spot for piece in pieces_of(rim) for spot in (middle_of(piece), ends_of(piece)[0])]
    for spot in sorted(spots, key=lambda spot: -abs(spot - about)):
        if abs(spot - about) <= within:
            continue
        axis = Line(about, (spot - about).unit)
        if images(rim, places, mirrored(axis)) is not None:
            yield axis.direction.angle
            return


def _of_sides(profile: Profile) -> Iterator[float]:
    """Yield the direction of the sides that are square or parallel to most others."""
    return _most(_lines(profile))


def _most(lines: Sequence[Line]) -> Iterator[float]:
    """Yield the direction that most of some lines are parallel or square to, by their lengths."""
    sides = [(line.direction.angle % (math.pi / 2), length_of(line)) for line in lines]

    def together(angle: float) -> list[tuple[float, float]]:
        off = ((math.remainder(other - angle, math.pi / 2), long) for other, long in sides)
        return [(each, long) for each, long in off if abs(each) <= ALIKE]

    if sides:
        best = max((angle for angle, _ in sides), key=lambda a: sum(w for _, w in together(a)))
        near = together(best)
        yield best + sum(off * long**2 for off, long in near) / sum(long**2 for _, long in near)


def _of_centres(profile: Profile) -> Iterator[float]:
    """Yield the direction of most lines from hole to hole."""
    holes = [c.centre for run in profile.runs for c in run if isinstance(c, Circle)][:MOST_HOLES]
    return _most([Line.between(a, b) for a, b in combinations(holes, 2) if a != b])


def _simplest(angle: float, profile: Profile, within: float) -> float:
    """Return the simplest angle that moves nothing by more than places may be off."""
    low, high = box_of(profile.runs)
    near = math.degrees(2 * within / max(abs(high - low), within))
    degrees = math.degrees(angle)
    for decimals in range(MOST_DECIMALS):
        said = round(degrees, decimals)
        if abs(said - degrees) <= near:
            return math.radians(said)
    return angle


MOST_DECIMALS = 4
"""Of a degree."""
