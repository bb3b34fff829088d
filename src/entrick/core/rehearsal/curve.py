"""A traced curve as many hands drew it: the true one, moved between its stations as they came
out."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass

import numpy as np

from ..geometry import Arc, Circle, Line, Loop, Point
from ..geometry.loop import boxed
from ..memo import remembered
from ..tolerance import SPECK
from .many import Places, Reals


@dataclass(slots=True)
class DrawnCurve:
    """A curve as it came out.

    Attributes
    ----------
    true : Loop
        The curve of the figure.
    off : array of complex
        By how much the pencil is off the curve that the stations give, for every hand.
    along : array of float
        Where along the true curve the stations lie: pieces, and shares of them.
    moved : array of complex
        By how much each station is off its place on the true curve, for every hand: one row for
        each.
    """

    true: Loop
    off: Places
    along: Reals
    moved: Places

    def displaced(self, place: Point) -> Places:
        """Return by how much the curve is off at a place of the true one: between two stations in
        proportion to the way along it."""
        if not len(self.along):
            return self.off
        at, last = along_of(self.true, place), float(len(self.true.pieces))
        stations, moved = self.along, self.moved
        if self.true.closed:
            # Round once more each way, so that the place lies between two of them.
            stations = np.concatenate((stations[-1:] - last, stations, stations[:1] + last))
            moved = np.concatenate((moved[-1:], moved, moved[:1]))
        after = int(np.searchsorted(stations, at))
        if after in (0, len(stations)):
            end: Places = moved[min(after, len(stations) - 1)] + self.off
            return end
        before, behind = stations[after - 1], stations[after]
        share = (at - before) / (behind - before) if behind > before else 0.0
        places: Places = moved[after - 1] * (1 - share) + moved[after] * share + self.off
        return places


def through(true: Loop, off: Places, stations: Sequence[tuple[Point, Places]]) -> DrawnCurve:
    """Return the curve that is traced through stations, given where each belongs on the true one
    and where it came to."""
    found = sorted(
        ((along_of(true, place), came - complex(place.x, place.y)) for place, came in stations),
        key=lambda each: each[0],
    )
    along = np.array([at for at, _ in found])
    moved = np.array([moved for _, moved in found]).reshape(len(found), len(off))
    return DrawnCurve(true, off, along, moved)


def copied(curve: DrawnCurve, loop: Loop, move: Callable[[Places], Places]) -> DrawnCurve:
    """Return a copy of a curve: every station moved as the copy is."""
    stations = []
    for at, moved in zip(curve.along, curve.moved, strict=True):
        place = place_at(curve.true, float(at))
        true = complex(place.x, place.y)
        # Where most hands have a copy of its place: one that is far off moves it for no other.
        copy = move(np.full(len(moved), true))
        middle = Point(float(np.median(copy.real)), float(np.median(copy.imag)))
        spot = on(loop, middle)
        stations.append((abs(spot - middle), spot, move(moved + true)))
    return through(loop, curve.off, list(_each_in_its_place(stations)))


def _each_in_its_place(
    stations: Sequence[tuple[float, Point, Places]],
) -> Iterator[tuple[Point, Places]]:
    """Yield stations of a copy that ends sooner than its curve: of those that lie beyond its end
    the nearest alone."""
    taken: list[Point] = []
    for _, spot, came in sorted(stations, key=lambda each: each[0]):
        if all(abs(spot - other) > SPECK for other in taken):
            taken.append(spot)
            yield spot, came


@remembered()
def along_of(loop: Loop, place: Point) -> float:
    """Return where along a run its place nearest to a point lies: pieces, and the share of one."""
    index, spot = boxed(loop).nearest_piece(place)
    piece = loop.pieces[index]
    return index + _share(piece.curve, piece.entry, spot)


def _share(curve: Line | Circle | Arc, entry: Point, spot: Point) -> float:
    match curve:
        case Line():
            long = curve.end - curve.start if curve.end and curve.start is not None else 1.0
            return min(abs(spot - entry) / long, 1.0) if long else 0.0
        case Arc():
            first = abs(entry - curve.first) <= abs(entry - curve.last)
            turned, whole = _turn(curve, spot), abs(curve.sweep)
            if turned > whole:
                # Beside one of its ends: just before the first it has turned nearly all round.
                turned = whole if turned - whole < 2 * np.pi - turned else 0.0
            return (turned if first else whole - turned) / whole
    return ((spot - curve.centre).angle % (2 * np.pi)) / (2 * np.pi)


def _turn(arc: Arc, spot: Point) -> float:
    sense = 1 if arc.sweep > 0 else -1
    return float((sense * ((spot - arc.centre).angle - arc.start)) % (2 * np.pi))


def place_at(loop: Loop, along: float) -> Point:
    """Return the place of a run so many pieces, and a share of one, along it."""
    index = min(int(along), len(loop.pieces) - 1)
    piece, share = loop.pieces[index], along - index
    match piece.curve:
        case Arc() as arc:
            forwards = abs(piece.entry - arc.first) <= abs(piece.entry - arc.last)
            return arc.at(arc.start + arc.sweep * (share if forwards else 1 - share))
        case Circle() as circle:
            return circle.at(2 * np.pi * share)
    return piece.entry + (piece.exit - piece.entry) * share


def on(loop: Loop, place: Point) -> Point:
    """Return the place of a run that is nearest to a point."""
    return boxed(loop).nearest(place)
