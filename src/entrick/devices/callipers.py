"""Callipers that are not here: they report how large the round strokes of a sheet are.

They know what stands on the sheet, and nothing of the plan it was drawn from."""

from __future__ import annotations

import numpy as np

from ..core.look.by_hand import DrawnSheet
from ..core.look.fit import fit_circle
from ..core.spreadsheet import write_table

OFF = 0.1
"""What a size is off, mm, one standard deviation."""

ROUND = 0.05
"""Scatter, mm, from which a stroke is none of a circle."""


def callipered(sheet: DrawnSheet, seed: int = 0) -> str:
    """Return sizes of a sheet as a table ``piece,size``, mm: across whole circles, radii of
    arcs."""
    random = np.random.default_rng(seed)
    rows: list[tuple[object, ...]] = [("piece", "size")]
    for stroke in sheet.strokes:
        places = stroke.places
        bent = (
            np.ptp(np.angle(np.diff(places)[1:] / np.diff(places)[:-1])) if len(places) > 4 else 1
        )
        if not stroke.piece or len(places) < 5 or bent > ROUND:
            continue
        middle = complex(np.mean(places))
        found = fit_circle(places, (middle, float(np.mean(np.abs(places - middle)))), 1.0)
        if found.scatter > ROUND or found.radius > sheet.width:
            continue
        is_whole = abs(places[0] - places[-1]) < ROUND
        size = found.radius * (2 if is_whole else 1) + random.normal(0.0, OFF)
        rows.append((stroke.piece, f"{size:.2f}"))
    return write_table(rows)
