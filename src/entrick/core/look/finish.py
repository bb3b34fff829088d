"""What finishes a sheet, and is no outline: dimensions, centre lines, lettering; and heavy lines
that belong to nothing."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Sequence

import numpy as np
import numpy.typing as npt
from scipy.ndimage import binary_dilation, label  # type: ignore[import-untyped]

from ..desk import Work
from ..drawing.marks import DrawnLine, Lettering, Mark
from ..rehearsal.many import Places
from .by_hand import stroke_of
from .lined import LinedPiece
from .seen import from_run, pairs, tree_of
from .shift import FAR
from .strokes import SeenStrokes
from .traces import SOUND

EXTRA = 12.0
"""Length from which a heavy line that belongs to no piece is told, mm."""

MOST_EXTRA = 5
"""Heavy lines too many that are told."""


def fine_lines(work: Work, pieces: Sequence[LinedPiece]) -> Places:
    """Return places on straight dimensions and centre lines, clear of every outline."""
    strokes = [
        stroke_of(mark)
        for _, mark in work.sheet.finish
        if isinstance(mark, DrawnLine) and mark.role in ("dimension", "centre")
    ]
    shares = np.linspace(0.1, 0.9, 20)
    runs = [
        each.places[0] + shares * (each.places[1] - each.places[0])
        for each in strokes
        if each is not None
    ]
    places = np.concatenate([np.zeros(0, complex), *runs])
    clear: Places = places[_are_clear(places, pieces, FAR)]
    return clear


def _are_clear(places: Places, pieces: Sequence[LinedPiece], far: float) -> npt.NDArray[np.bool_]:
    """Tell which places are further than that from every piece of the plan, mm."""
    tree = tree_of([piece.places[:, SOUND] for piece in pieces])
    result: npt.NDArray[np.bool_] = np.isinf(tree.query(pairs(places), distance_upper_bound=far)[0])
    return result


def of_the_finish(
    work: Work, pieces: Sequence[LinedPiece], seen: SeenStrokes
) -> npt.NDArray[np.bool_]:
    """Tell which places that are seen lie on dimensions, centre lines and lettering, and on no
    outline: not where something else crosses them."""
    places = seen.places
    found = np.zeros(len(places), bool)
    for _, mark in work.sheet.finish:
        on = np.flatnonzero(_is_of(mark, places))
        stroke = stroke_of(mark)
        if stroke is not None:
            ahead = _ahead(stroke.places, places[on])
            on = on[seen.runs_along(places[on], ahead)]
        found[on] = True
    return found & _are_clear(places, pieces, FAR / 2)


def _ahead(run: Places, places: Places) -> Places:
    """Return which way a run of straights goes beside each of some places."""
    middles, ways = (run[1:] + run[:-1]) / 2, np.diff(run)
    nearest = np.argmin(np.abs(places[:, None] - middles), axis=1)
    result: Places = ways[nearest]
    return result


def on_any(marks: Iterable[Mark], places: Places) -> npt.NDArray[np.bool_]:
    """Tell which places lie on dimensions, centre lines or lettering."""
    result = np.zeros(len(places), bool)
    for mark in marks:
        result |= _is_of(mark, places)
    return result


def extra_lines(
    places: Places, pieces: Sequence[LinedPiece], hand: int
) -> tuple[tuple[float, float, float], ...]:
    """Return the heavy lines among places that belong to no piece of the plan.

    Parameters
    ----------
    places : array of complex
        On what is seen, but for what finishes the sheet; mm from the datum.
    pieces : sequence of LinedPiece
    hand : int
        Whose outline was followed.
    """
    if not len(places):
        return ()
    drawn = [piece.run(hand) for piece in pieces if piece.there[hand]]
    planned = [piece.places[:, SOUND] for piece in pieces]
    near = tree_of([*drawn, *planned], FAR / 2).query(pairs(places))[0] < FAR
    return tuple(_clusters(places[~near]))[:MOST_EXTRA]


def _is_of(mark: Mark, places: Places) -> npt.NDArray[np.bool_]:
    """Tell which places lie on what finishes the sheet: dimensions, centre lines, lettering."""
    if isinstance(mark, Lettering):
        # Some letter along the line, some level.
        return _is_lettered(mark, mark.angle, places) | _is_lettered(mark, 0.0, places)
    stroke = stroke_of(mark)
    if stroke is None:
        return np.zeros(len(places), bool)
    on: npt.NDArray[np.bool_] = from_run(places, stroke.places) < FAR / 2
    return on


def _is_lettered(mark: Lettering, angle: float, places: Places) -> npt.NDArray[np.bool_]:
    start, ahead = complex(mark.x, mark.y), np.exp(1j * np.radians(angle))
    long = len(mark.text) * mark.height
    back = {"start": 0.0, "middle": 0.5, "end": 1.0}[mark.anchor] * long
    away = (places - start) * np.conj(ahead) + back
    result: npt.NDArray[np.bool_] = (
        (away.real > -FAR)
        & (away.real < long + FAR)
        & (np.abs(away.imag - mark.height / 2) < mark.height / 2 + FAR)
    )
    return result


def _clusters(places: Places) -> Iterator[tuple[float, float, float]]:
    if len(places) < EXTRA:
        return
    low = complex(places.real.min() - 4, places.imag.min() - 4)
    cell = places - low
    shape = (int(cell.imag.max()) + 6, int(cell.real.max()) + 6)
    grid = np.zeros(shape, bool)
    rows, columns = cell.imag.astype(int), cell.real.astype(int)
    grid[rows, columns] = True
    names, count = label(binary_dilation(grid, iterations=1))
    own = names[rows, columns]
    for number in range(1, count + 1):
        group = places[own == number]
        if len(group) >= EXTRA:
            middle = complex(np.mean(group))
            yield middle.real, middle.imag, float(len(group))
