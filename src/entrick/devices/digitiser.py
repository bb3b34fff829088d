"""A digitiser that is not here: a puck is laid on strokes of a sheet, and it sends where that is.

It knows what stands on the sheet, and nothing of the plan it was drawn from."""

from __future__ import annotations

import numpy as np

from ..core.look.by_hand import DrawnSheet
from ..core.spreadsheet import write_table

OFF = 0.08
"""What the puck is off, mm, one standard deviation."""


def digitised(sheet: DrawnSheet, seed: int = 0, every: float = 12.0, named: bool = True) -> str:
    """Return places on the outlines of a sheet as a table ``x,y,piece``, mm.

    Parameters
    ----------
    sheet : DrawnSheet
    seed : int
        Of how the puck is off, and of how the sheet lies on the table.
    every : float
        Distance of the places along a stroke, mm.
    named : bool
        Whether it is said on which piece each lies.
    """
    random = np.random.default_rng(seed)
    turn = np.exp(1j * random.normal(0.0, 0.003))
    shift = complex(*random.normal(0.0, 0.5, 2))
    rows: list[tuple[object, ...]] = [("x", "y", "piece")]
    for stroke in sheet.strokes:
        if not stroke.piece:
            continue
        sizes = np.concatenate(([0.0], np.cumsum(np.abs(np.diff(stroke.places)))))
        count = max(3, round(float(sizes[-1]) / every))
        spots = np.interp(np.linspace(0.0, sizes[-1], count), sizes, stroke.places)
        spots = spots * turn + shift
        spots += random.normal(0.0, OFF, count) + 1j * random.normal(0.0, OFF, count)
        name = stroke.piece if named else ""
        rows += [(f"{spot.real:.2f}", f"{spot.imag:.2f}", name) for spot in spots]
    return write_table(rows)
