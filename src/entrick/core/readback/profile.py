"""A bare profile: closed and open runs of lines, arcs, circles and ellipses, as an open file has
them."""

from __future__ import annotations

import math
from dataclasses import dataclass, replace

from ..geometry import Arc, Circle, Line, Loop, Point, piece_of
from ..geometry.ellipse import Ellipse
from ..geometry.fitted import fitted
from ..geometry.shapes import ends as ends_of
from ..measure import Unit
from ..tolerance import READ_WITHIN

MOST_ENTITIES = 20_000
"""Pieces a file may have."""

LARGEST_FILE = 16 * 2**20

Piece = Line | Arc
Curve = Line | Arc | Circle | Ellipse
Run = tuple[Curve, ...]

QUARTERS = tuple(math.pi / 2 * k for k in range(5))


class ProfileError(ValueError):
    """A file that is no profile, or too much of one; says why.

    `wider` is how far its places would have to be let off for it to be read, in its unit; nought
    where that is no remedy. `runs` are its outlines, as far as they were read."""

    def __init__(self, told: str, wider: float = 0.0, runs: tuple[Run, ...] = ()) -> None:
        super().__init__(told)
        self.wider, self.runs = wider, runs


@dataclass(frozen=True, slots=True)
class Profile:
    """Outlines as a file has them.

    Attributes
    ----------
    runs : tuple of tuple of Line, Arc, Circle or Ellipse
        Each piece begins where the one before it ends. A circle or an ellipse is a run by itself.
    unit : Unit or None
        As the file says; None where it does not.
    told : tuple of str
        What was mended or left out.
    layers : tuple of str
        Those the file has, where it has several.
    within : float
        What ends may be apart and be one place, in its unit.
    last : float
        One in the last decimal of its numbers, in its unit; nought where they have many.
    centre_lines : int
        How many of its lines look like centre lines, whether they were left out or kept.
    """

    runs: tuple[Run, ...]
    unit: Unit | None
    told: tuple[str, ...] = ()
    layers: tuple[str, ...] = ()
    within: float = READ_WITHIN
    last: float = 0.0
    centre_lines: int = 0


def is_whole(run: Run) -> bool:
    """Tell whether a run is one circle or ellipse."""
    return isinstance(run[0], Circle | Ellipse)


def is_closed(run: Run, within: float) -> bool:
    """Tell whether a run comes back to where it begins."""
    if is_whole(run):
        return True
    pieces = pieces_of(run)
    return len(pieces) > 1 and abs(ends_of(pieces[-1])[1] - ends_of(pieces[0])[0]) <= within


def pieces_of(run: Run) -> list[Piece]:
    """Return the lines and arcs of a run; none of a circle or an ellipse."""
    return [curve for curve in run if isinstance(curve, Line | Arc)]


def length_of(curve: Curve) -> float:
    """Return the length of a piece; of an ellipse the ring that is as long to three places
    (Ramanujan's formula, from memory), which is enough to tell it from others."""
    match curve:
        case Line():
            return (curve.end or 0.0) - (curve.start or 0.0)
        case Arc():
            return curve.radius * abs(curve.sweep)
        case Circle():
            return math.tau * curve.radius
    return math.pi * (
        3 * (curve.a + curve.b) - math.sqrt((3 * curve.a + curve.b) * (curve.a + 3 * curve.b))
    )


def middle_of(curve: Curve) -> Point:
    """Return the middle of a piece; of what is round all over its centre."""
    match curve:
        case Line():
            return curve.at(((curve.start or 0.0) + (curve.end or 0.0)) / 2)
        case Arc():
            return curve.middle
    return curve.centre


FARTHEST = 1e7
"""Of a place or size of a part, in the unit of its file."""


def is_sound(curve: Curve) -> bool:
    """Tell whether a piece has a place and a length, and is not farther away, or larger, than any
    part is."""
    spot, long = middle_of(curve), length_of(curve)
    size = curve.radius if isinstance(curve, Arc | Circle) else 0.0
    # What is no number is not below anything either.
    return max(abs(spot.x), abs(spot.y), size) < FARTHEST and 0 < long < FARTHEST


def turned(curve: Piece) -> Piece:
    """Return a piece from its other end."""
    if isinstance(curve, Arc):
        return Arc(curve.centre, curve.radius, curve.start + curve.sweep, -curve.sweep)
    a, b = ends_of(curve)
    return Line.between(b, a)


def loop_of(run: Run) -> Loop:
    """Return a run as an outline that has length, area and a middle; an ellipse by fine arcs."""
    first = run[0]
    if isinstance(first, Ellipse):
        arcs = fitted(first.at, first.heading, QUARTERS, first.a / 1000)
        return Loop(tuple(piece_of(arc, "") for arc in arcs), True)
    return Loop(tuple(piece_of(curve, "") for curve in run if not isinstance(curve, Ellipse)), True)


def as_drawn(run: Run, within: float) -> Loop:
    """Return a run as one stroke, to be looked at: what is open stays so, a circle goes round in
    two halves."""
    first = run[0]
    if isinstance(first, Circle):
        halves = (Arc(first.centre, first.radius, start, math.pi) for start in (0.0, math.pi))
        return Loop(tuple(piece_of(half, "") for half in halves), True)
    return Loop(loop_of(run).pieces, is_closed(run, within))


def box_of(runs: tuple[Run, ...]) -> tuple[Point, Point]:
    """Return the lower left and the upper right corner of the box round everything."""
    boxes = [loop_of(run).box for run in runs]
    low = Point(min(a.x for a, _ in boxes), min(a.y for a, _ in boxes))
    return low, Point(max(b.x for _, b in boxes), max(b.y for _, b in boxes))


def scaled(curve: Curve, by: float) -> Curve:
    """Return a piece so many times as large, from the origin."""
    match curve:
        case Line():
            return Line.between(curve.at(curve.start or 0.0) * by, curve.at(curve.end or 0.0) * by)
        case Arc() | Circle():
            return replace(curve, centre=curve.centre * by, radius=curve.radius * by)
    return Ellipse(curve.centre * by, curve.major * by, curve.minor * by)


def tolerance(asked: float | None, unit: Unit | None) -> float:
    """Return how far things in a file may be apart: as asked, or a thousandth of a millimetre, in
    its unit."""
    return asked if asked is not None else READ_WITHIN / float(unit.mm if unit else 1)


def in_unit(profile: Profile, unit: Unit) -> Profile:
    """Return a profile with its lengths in another unit; one that names none has them in any."""
    if profile.unit is None or profile.unit is unit:
        return profile
    by = float(profile.unit.mm) / float(unit.mm)
    runs = tuple(tuple(scaled(curve, by) for curve in run) for run in profile.runs)
    return replace(
        profile, runs=runs, unit=unit, within=profile.within * by, last=profile.last * by
    )


def closed_outlines(profile: Profile, unit: Unit) -> tuple[list[Loop], list[str]]:
    """Return the closed outlines of a profile in a unit, and what is to be told of them: that no
    unit was named, and what does not close."""
    told = list(profile.told)
    if profile.unit is None:
        told.append(f"the file names no unit: {unit.value} was taken, as in the plan")
    there = in_unit(profile, unit)
    loops = [as_drawn(run, there.within) for run in there.runs]
    left = sum(not loop.closed for loop in loops)
    if left:
        told.append(f"{left} runs that do not close were left out")
    return [loop for loop in loops if loop.closed], told
