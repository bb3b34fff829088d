"""What is lined in, as many hands drew it: places along every piece, on paper."""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from functools import cached_property

import numpy as np
import numpy.typing as npt

from ..drawing.strokes import Role
from ..geometry import Arc, Circle, Line, Loop, Point
from ..rehearsal.carry_out import DrawnLine, DrawnPiece, DrawnRound
from ..rehearsal.curve import DrawnCurve, place_at
from ..rehearsal.many import Places, Reals
from ..tolerance import SPECK
from .slipped import SlippedBoard

EVERY = 2.0
"""Distance of places along a piece, mm on paper."""

FEWEST = 5
"""Places along the shortest piece."""

SPARSE = 1.5
"""How many times further apart places of a piece are that a hand drew too long for them, and how
many times closer if too short."""

BESIDE = 0.05
"""How far an arc may run beside the straights between its places, mm."""


@dataclass(frozen=True, eq=False)
class LinedPiece:
    """A piece that is lined in, as many hands drew it.

    Attributes
    ----------
    drawn : DrawnPiece
    called : str
        What the plan calls it.
    places : array of complex, (places, hands)
        Along it, from its start to its end; mm on paper from the datum.
    there : array of bool, (hands,)
        Whether a hand drew it at all.
    centre : array of complex, (hands,), or None
        Of a circle or an arc, mm on paper from the datum.
    radius : array of float, (hands,), or None
    """

    drawn: DrawnPiece
    called: str
    places: Places
    there: np.ndarray
    centre: Places | None
    radius: Reals | None

    @property
    def planned(self) -> Line | Circle | Arc | Loop:
        """Where the figure has it."""
        return self.drawn.planned

    @cached_property
    def bowed(self) -> npt.NDArray[np.bool_]:
        """Which hands drew it as an arc that straights between its `places` run beside: it came out
        much longer than others draw it."""
        if self.centre is None or self.radius is None:
            return np.zeros(len(self.there), bool)
        steps = np.mean(np.abs(np.diff(self.places, axis=0)), axis=0)
        result: npt.NDArray[np.bool_] = steps**2 > 8 * BESIDE * self.radius
        return result

    def run(self, hand: int) -> Places:
        """Return places along it as one hand drew it, close enough for straights between them."""
        run = self.places[:, hand]
        if self.centre is None or not self.bowed[hand]:
            return run
        return _finer(run, complex(self.centre[hand]))

    def every(self, hand: int) -> Places:
        """Return places along it as one hand drew it, about as far apart as along any outline: many
        more where it came out much longer than others draw it, few where much shorter."""
        run, long = self.places[:, hand], float(self._long[hand])
        usual = EVERY * (len(run) - 1)
        if not self.there[hand] or not (long > SPARSE * usual or SPARSE * long < usual):
            return run
        count = max(FEWEST, math.ceil(long / EVERY) + 1)
        if count == len(run):
            return run
        if self.centre is None:
            return between(run, count)
        return _on_arc(run, complex(self.centre[hand]), count)

    @cached_property
    def _long(self) -> Reals:
        """How long each hand drew it, mm."""
        result: Reals = np.sum(np.abs(np.diff(self.places, axis=0)), axis=0)
        return result

    @property
    def is_heavy(self) -> bool:
        """Whether it is an outline or an edge that is seen."""
        return self.drawn.role in (Role.OUTLINE, Role.EDGE)


def lined_in(board: SlippedBoard, factor: float) -> Iterator[LinedPiece]:
    """Yield everything that was lined in, by every hand.

    Parameters
    ----------
    board : SlippedBoard
        After the acts.
    factor : float
        Millimetres on paper for a unit of the plan.
    """
    for piece, missing in zip(board.gone, board.missing, strict=True):
        there = np.ones(board.hands.count, bool)
        there[list(missing)] = False
        thing = piece.thing
        centre: Places | None = None
        radius: Reals | None = None
        if isinstance(thing, DrawnRound):
            centre, radius = thing.centre * factor, np.abs(thing.radius) * factor
        places = _along(piece, factor, board.hands.count) * factor
        yield LinedPiece(piece, piece.called, places, there, centre, radius)


def _along(piece: DrawnPiece, factor: float, hands: int) -> Places:
    thing, planned = piece.thing, piece.planned
    match thing:
        case DrawnLine(at=at, ahead=ahead):
            assert isinstance(planned, Line)
            assert piece.start is not None
            assert piece.end is not None
            # Each end is where the line passes its mark.
            first, last = (
                at + ahead * (np.conj(ahead) * (end - at)).real for end in (piece.start, piece.end)
            )
            size = float(np.median(np.abs(last - first)))
            run: Places = first + _shares(size * factor)[:, None] * (last - first)
            return run
        case DrawnRound(centre=centre, radius=radius):
            start, sweep = _swept(piece, thing)
            long = abs(planned.radius * float(np.median(np.abs(sweep)))) * factor  # type: ignore[union-attr]
            some, own = _different(centre, radius, start, sweep)
            turned = start[some] + _shares(long)[:, None] * sweep[some]
            swung: Places = centre[some] + np.abs(radius[some]) * np.exp(1j * turned)
            return swung[:, own]
    return _along_curve(thing, planned, factor, hands)


def _different(*drawn: Places | Reals) -> tuple[npt.NDArray[np.intp], npt.NDArray[np.intp]]:
    """Return the first hand and those that drew anything otherwise, and which of these speaks for
    each hand: a single error moves few pieces."""
    differs = np.any([each != each[0] for each in drawn], axis=0)
    own = np.where(differs, np.cumsum(differs), 0)
    return np.concatenate(([0], np.flatnonzero(differs))), own


def between(run: Places, count: int) -> Places:
    """Return so many along a run, each on the straight between the two it lies between: the run
    itself where it has so many.

    Parameters
    ----------
    run : array of complex, (places,) or (places, ...)
    count : int
    """
    if len(run) == count:
        return run
    at = np.linspace(0.0, len(run) - 1, count)
    first = np.minimum(at.astype(int), len(run) - 2)
    share = (at - first).reshape(-1, *[1] * (run.ndim - 1))
    places: Places = (1 - share) * run[first] + share * run[first + 1]
    return places


def _finer(run: Places, middle: complex) -> Places:
    """Return places along an arc, close enough for straights between them."""
    spokes = run - middle
    widest = 2 * math.acos(max(0.0, 1 - BESIDE / float(np.max(np.abs(spokes)))))
    turned = float(np.ptp(np.unwrap(np.angle(spokes))))
    return _on_arc(run, middle, math.ceil(turned / widest) + 1)


def _on_arc(run: Places, middle: complex, count: int) -> Places:
    """Return so many places along an arc."""
    spokes, at = run - middle, np.arange(len(run))
    turned, long = np.unwrap(np.angle(spokes)), np.abs(spokes)
    shares = np.linspace(0.0, at[-1], count)
    places: Places = middle + np.interp(shares, at, long) * np.exp(
        1j * np.interp(shares, at, turned)
    )
    return places


def _shares(size: float) -> Reals:
    return np.linspace(0.0, 1.0, max(FEWEST, math.ceil(size / EVERY) + 1))


def _swept(piece: DrawnPiece, thing: DrawnRound) -> tuple[Reals, Reals]:
    """Return where an arc begins and how far it turns, radians."""
    planned = piece.planned
    if not isinstance(planned, Arc) or piece.start is None or piece.end is None:
        start = planned.start if isinstance(planned, Arc) else 0.0
        sweep = planned.sweep if isinstance(planned, Arc) else math.tau
        whole = np.ones(thing.centre.shape)
        return start * whole, sweep * whole
    first, last = (np.angle(end - thing.centre) for end in (piece.start, piece.end))
    sense = 1.0 if planned.sweep > 0 else -1.0
    turned = sense * (last - first) % math.tau
    # A short arc whose ends came out changed round is a short one still, and not nearly all round;
    # a long one whose ends came out in one place is all round.
    back = turned - math.tau
    if abs(planned.sweep) < math.pi:
        turned = np.where(back > -NEARLY, back, turned)
    else:
        turned = np.where(turned < SPECK, math.tau, turned)
    return first, sense * turned


NEARLY = 0.7
"""By how much the ends of an arc may come out changed round, radians."""


def _along_curve(
    thing: DrawnCurve, planned: Line | Circle | Arc | Loop, factor: float, hands: int
) -> Places:
    loop = planned if isinstance(planned, Loop) else thing.true
    spots = _places_of(planned, loop, factor)
    rows = [complex(spot.x, spot.y) + thing.displaced(spot) for spot in spots]
    return np.array([np.broadcast_to(row, (hands,)) for row in rows])


def _places_of(planned: Line | Circle | Arc | Loop, loop: Loop, factor: float) -> Sequence[Point]:
    if isinstance(planned, Arc):
        size = planned.radius * abs(planned.sweep) * factor
        return [planned.at(planned.start + planned.sweep * float(s)) for s in _shares(size)]
    if isinstance(planned, Circle):
        size = planned.radius * math.tau * factor
        return [planned.at(math.tau * float(s)) for s in _shares(size)]
    sizes = np.cumsum([0.0, *(piece.length for piece in loop.pieces)])
    total = float(sizes[-1])
    points = []
    for share in _shares(total * factor):
        at = float(np.interp(share * total, sizes, np.arange(len(sizes))))
        points.append(place_at(loop, at))
    return points
