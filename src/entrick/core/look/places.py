"""A sheet of which there is no picture: places measured by a digitiser, sizes by callipers.

Every slip predicts where each measured place lies and how large each size is; what is measured is
laid over it by a shift and a turn, and the sum of squares over what hand and measuring may be off
(χ²) tells how well it fits."""

from __future__ import annotations

import csv
import io
import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass

import numpy as np

from ..desk import Work
from ..geometry import Circle
from ..rehearsal.many import Places, Reals
from .lined import LinedPiece
from .traces import SOUND
from .which import Explained, Hypotheses, each_once, explained, hypotheses

MOST_ROWS = 2000
"""Rows of a table that is read."""

FEWEST = 4
"""Places or sizes from which something is said."""

HAND, MEASURING = 0.3, 0.2
"""What a usual hand, and measuring, are off, mm (common practice, no source)."""

SPREAD = 1.4
"""Times as far off as a usual hand is one that errs much: nine in ten err less."""

SHIFTED, TURNED = 0.7, 0.004
"""How far a view stands beside its place and how far askew as a rule, mm and radians."""

ELSEWHERE = 3.0
"""How many times as far it has to stand to be said to stand elsewhere."""

SURE = 2.326
"""Standard deviations under which 99 in 100 values lie (normal distribution)."""

CLEAR = 16.0
"""By how much a slip has to fit better than none."""

AS_WELL = math.log(10.0)
"""Logarithm of how much likelier a slip has to be than another for that not to be told."""

GROSS = 25.0
"""Square from which a single place is no error of the hand."""

CUT = 60.0
"""Most that one place may count."""


class PlacesError(Exception):
    """A table of measured places that cannot be used: says why."""


@dataclass(frozen=True)
class Taken:
    """What was measured: places (mm on paper from the lower left corner of the sheet), each with
    the piece it lies on, empty where nobody said; and sizes of pieces, mm on paper, diameters of
    circles and radii of arcs."""

    places: Places
    pieces: tuple[str, ...]
    sizes: tuple[tuple[str, float], ...]


def read_taken(text: str) -> Taken:
    """Read a table of measured places: columns ``x,y,piece``, or ``piece,size``.

    Raises
    ------
    PlacesError
        Where it is no such table.
    """
    rows = [row for row in csv.reader(io.StringIO(text)) if any(cell.strip() for cell in row)]
    if not rows:
        raise PlacesError("the table is empty")
    if len(rows) > MOST_ROWS:
        raise PlacesError(f"the table has more than {MOST_ROWS} rows")
    head = [cell.strip().lower() for cell in rows[0]]
    if not {"x", "y"} <= set(head) and not {"piece", "size"} <= set(head):
        raise PlacesError("the first row says what the columns are:  x,y,piece  or  piece,size")
    places, pieces, sizes = [], [], []
    for number, row in enumerate(rows[1:], 2):
        said = dict(zip(head, (cell.strip() for cell in row), strict=False))
        if said.get("size"):
            sizes.append((said.get("piece", ""), _number(said["size"], number)))
        if said.get("x"):
            x, y = _number(said["x"], number), _number(said.get("y", ""), number)
            places.append(complex(x, y))
            pieces.append(said.get("piece", ""))
    return Taken(np.array(places, complex), tuple(pieces), tuple(sizes))


def _number(text: str, row: int) -> float:
    try:
        result = float(text.replace(",", "."))
    except ValueError:
        result = math.nan
    if not math.isfinite(result) or abs(result) > LARGEST:
        raise PlacesError(f"row {row}: {text[:20] or 'nothing'} is no length in mm")
    return result


LARGEST = 100_000


@dataclass(frozen=True)
class FoundByPlaces:
    """What measured places say.

    Attributes
    ----------
    slips : tuple of Explained
        The likeliest, and all others nearly as likely; empty where none is needed, or none fits.
    fits : bool
        Whether what was measured lies within what hand and measuring are off, given the slip that
        is told.
    off : tuple of (str, float)
        By how much each piece is off from the plan at most, mm on paper, the worst first.
    shift : complex
        How far the view stands from its place, mm.
    sentence : str
    """

    slips: tuple[Explained, ...]
    fits: bool
    off: tuple[tuple[str, float], ...]
    shift: complex
    sentence: str


def look_at_places(work: Work, taken: Taken) -> FoundByPlaces:
    """Say what measured places tell of a finished sheet.

    Parameters
    ----------
    work : Work
    taken : Taken

    Raises
    ------
    PlacesError
        Where there are too few, or of pieces the plan does not have.
    """
    every = hypotheses(work)
    names = {piece.called for piece in every.pieces}
    strange = {*taken.pieces, *(name for name, _ in taken.sizes)} - names - {""}
    if strange:
        raise PlacesError(f"the plan lines in nothing called {min(strange)}")
    if len(taken.places) + len(taken.sizes) < FEWEST:
        raise PlacesError(f"measure {FEWEST} places or sizes at least")
    scene = _Scene(every, taken, complex(work.sheet.origin.x, work.sheet.origin.y))
    hands = range(len(every.slips) + 1)
    fitted = [scene.fitted(hand) for hand in hands]
    chi = np.array([each[0] for each in fitted])
    freedom = max(2 * len(taken.places) // 2 + len(taken.sizes) - 3, 1)
    most = _quantile(freedom)
    shift = fitted[SOUND][1]
    off = scene.off(SOUND, fitted[SOUND])
    if chi[SOUND] <= most and scene.worst(SOUND, fitted[SOUND]) < GROSS:
        words = "Everything measured is within a hand."
        return FoundByPlaces((), True, off, shift, _placed(words, shift))
    likely = chi / 2 - np.log([1, *(slip.weight for slip in every.slips)])
    # What was measured was not left out.
    likely[[SOUND, *(at for at, s in enumerate(every.slips, 1) if s.sort == "left out")]] = np.inf
    best = int(np.argmin(likely))
    if chi[SOUND] - chi[best] < CLEAR:
        words = "Everything measured is about within a hand."
        return FoundByPlaces((), True, off, shift, _placed(words, shift))
    if chi[best] > most:
        worst = f"most {off[0][0]}, by {off[0][1]:.1f} mm" if off else ""
        words = f"No one slip gives what was measured; {worst}."
        return FoundByPlaces((), False, off, shift, _placed(words, shift))
    near = [
        hand
        for hand in map(int, np.argsort(likely)[:-1])
        if math.isfinite(likely[hand])
        and likely[hand] <= likely[best] + AS_WELL
        and chi[hand] <= most
    ]
    slips = each_once([explained(every, hand, float(chi[SOUND] - chi[hand])) for hand in near])
    first, *others = slips
    words = f"At step {first.step} {first.slip.key}: {first.slip.said}"
    if others:
        words += f" (or {', or '.join(f'step {e.step}, {e.slip.key}' for e in others[:3])})"
    return FoundByPlaces(slips, True, off, shift, _placed(f"{words}.", fitted[best][1]))


def _placed(told: str, shift: complex) -> str:
    if abs(shift) <= ELSEWHERE * SHIFTED:
        return told
    return f"{told} The view stands {abs(shift):.1f} mm from its place: was the border counted?"


def _quantile(freedom: int) -> float:
    """Return what 99 in 100 sums of so many squares stay under (E. B. Wilson and M. M. Hilferty
    1931; from memory)."""
    share = 2 / (9 * freedom)
    return float(freedom * (1 - share + SURE * math.sqrt(share)) ** 3)


class _Scene:
    """Measured places beside the outlines of many hands."""

    def __init__(self, every: Hypotheses, taken: Taken, origin: complex) -> None:
        self.pieces, self.taken = every.pieces, taken
        self.places = taken.places - origin
        self.groups: Mapping[str, list[int]] = {}
        groups: dict[str, list[int]] = {}
        for at, name in enumerate(taken.pieces):
            groups.setdefault(name, []).append(at)
        self.groups = groups
        usual = {
            piece.called: max(HAND, SPREAD * float(np.sqrt(np.mean(np.sum(np.abs(own) ** 2, 1)))))
            for piece, own in zip(every.pieces, every.errors, strict=True)
        }
        rough = max(usual.values(), default=HAND)
        spread = [usual.get(name, rough) for name in taken.pieces]
        self.variance = np.array(spread) ** 2 + MEASURING**2

    def _runs(self, name: str, hand: int) -> list[Places]:
        return [
            piece.run(hand)
            for piece in self.pieces
            if piece.there[hand] and name in ("", piece.called)
        ]

    def _feet(self, places: Places, hand: int) -> Places:
        """Return for each measured place the nearest one of its piece."""
        feet = np.full(len(places), np.nan + 0j)
        for name, own in self.groups.items():
            best = np.full(len(own), np.inf)
            for run in self._runs(name, hand):
                near = _foot(places[own], run)
                away = np.abs(near - places[own])
                feet[own] = np.where(away < best, near, feet[own])
                best = np.minimum(best, away)
        return feet

    def fitted(self, hand: int) -> tuple[float, complex, float]:
        """Lay what was measured over the outline of a hand: χ², and the shift and turn of it."""
        shift, turn = 0j, 0.0
        places, squares = self.places, np.zeros(0)
        for _ in range(ROUNDS if len(places) else 0):
            feet = self._feet(places, hand)
            there = np.isfinite(feet)
            if not there.any():
                return math.inf, 0j, 0.0
            off = (places - feet)[there]
            variance = self.variance[there]
            squares = np.abs(off) ** 2 / variance
            weight = 1 / np.maximum(1.0, squares / CUT * 4)
            arm = 1j * places[there]
            # Off by t + α·i·z along both axes, with what is usual as a prior.
            rows = (
                np.concatenate(
                    (
                        np.column_stack((np.ones(len(off)), np.zeros(len(off)), arm.real)),
                        np.column_stack((np.zeros(len(off)), np.ones(len(off)), arm.imag)),
                    )
                )
                * np.sqrt(np.concatenate((weight, weight)) / np.tile(variance, 2))[:, None]
            )
            wanted = np.concatenate((off.real, off.imag)) * np.sqrt(
                np.concatenate((weight, weight)) / np.tile(variance, 2)
            )
            prior = np.diag((1 / SHIFTED, 1 / SHIFTED, 1 / TURNED))
            begun = np.array((-shift.real / SHIFTED, -shift.imag / SHIFTED, -turn / TURNED))
            solved = np.linalg.lstsq(
                np.concatenate((rows, prior)), np.concatenate((wanted, begun)), rcond=None
            )[0]
            shift += complex(solved[0], solved[1])
            turn += float(solved[2])
            places = (self.places - shift) * np.exp(-1j * turn)
        chi = float(np.minimum(squares, CUT).sum()) if len(squares) else 0.0
        chi += sum(
            min((size - self._size(name, hand)) ** 2 / (HAND**2 + MEASURING**2), CUT)
            for name, size in self.taken.sizes
        )
        return chi, shift, turn

    def _size(self, name: str, hand: int) -> float:
        """Return how large a hand drew a piece: across a circle, the radius of an arc, the length
        of a line."""
        for piece in self.pieces:
            if piece.called == name:
                return _size_of(piece, hand)
        return 0.0

    def worst(self, hand: int, fitted: tuple[float, complex, float]) -> float:
        """Return the square of the place that is off most, over what it may be."""
        _, shift, turn = fitted
        places = (self.places - shift) * np.exp(-1j * turn)
        if not len(places):
            return 0.0
        away = np.nan_to_num(np.abs(places - self._feet(places, hand)))
        return float(np.max(away**2 / self.variance))

    def off(self, hand: int, fitted: tuple[float, complex, float]) -> tuple[tuple[str, float], ...]:
        """Return how far each piece that was measured is off, the worst first."""
        _, shift, turn = fitted
        places = (self.places - shift) * np.exp(-1j * turn)
        found: dict[str, float] = {}
        if len(places):
            away = np.nan_to_num(np.abs(places - self._feet(places, hand)))
            for name, own in self.groups.items():
                found[name or "places"] = float(np.max(away[own]))
        for name, size in self.taken.sizes:
            found[name] = max(found.get(name, 0.0), abs(size - self._size(name, hand)))
        return tuple(sorted(found.items(), key=lambda each: -each[1]))


ROUNDS = 4


def _size_of(piece: LinedPiece, hand: int) -> float:
    if piece.radius is not None:
        return float(piece.radius[hand]) * (2 if isinstance(piece.planned, Circle) else 1)
    return abs(complex(piece.places[-1, hand] - piece.places[0, hand]))


def _foot(places: Places, run: Places) -> Places:
    """Return the places of a run of straights nearest to given ones."""
    start, along = run[:-1], np.diff(run)
    size: Reals = np.maximum(np.abs(along) ** 2, np.finfo(float).tiny)
    offset = places[:, None] - start
    share = np.clip((np.conj(along) * offset).real / size, 0.0, 1.0)
    spots = start + share * along
    nearest = np.argmin(np.abs(places[:, None] - spots), axis=1)
    result: Places = spots[np.arange(len(places)), nearest]
    return result


def to_measure(work: Work, most: int = 14) -> Sequence[tuple[str, str]]:
    """Return what to measure on a sheet of a plan: pieces, and where.

    Circles at the right and the top, arcs in the middle, lines at both ends; first those that tell
    most slips apart.
    """
    every = hypotheses(work)
    found: list[tuple[float, str, str]] = []
    for piece in every.pieces:
        spread = np.abs(piece.places - piece.places[:, :1])
        told = float(np.mean(np.minimum(np.max(spread, axis=0), CAPPED)))
        where = (
            ("right", "top")
            if isinstance(piece.planned, Circle)
            else ("middle",)
            if piece.radius is not None
            else ("start", "end")
        )
        found += [(told, piece.called, each) for each in where]
    return [(name, where) for _, name, where in sorted(found, key=lambda each: -each[0])[:most]]


CAPPED = 5.0
"""What a slip moves is worth no more than so much, mm, where it is asked what tells slips apart."""
