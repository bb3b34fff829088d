"""What is seen of a helix, half turns one after another."""

from __future__ import annotations

from ..helices import helix_in
from ..profile import Run
from ..rows import Rows


def written(run: Run, rows: Rows) -> str:
    """Write an open run that is what is seen of a helix."""
    found = helix_in(run, rows.within, rows.unit)
    if found is None or found.off > rows.within:
        return ""
    rows.count(found.said)
    return found.walk(rows.add("h", found.said.replace("FOOT", rows.point(found.foot))))
