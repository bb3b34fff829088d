"""A radial cam that dwells: its events, motions and follower."""

from __future__ import annotations

from ..cams import cam_in
from ..profile import Run
from ..rows import Rows


def written(run: Run, rows: Rows) -> str:
    """Write a run that is a cam."""
    found = cam_in(run, rows.within, rows.unit)
    if found is None or found.off > rows.within:
        return ""
    rows.count(found.said)
    return rows.add("k", found.said.replace("CENTRE", rows.point(found.centre)))
