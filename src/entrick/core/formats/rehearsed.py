"""What came of carrying a plan out, as plain data."""

from __future__ import annotations

from dataclasses import asdict
from typing import Any

from ..rehearsal.exactly import Carried
from ..rehearsal.rehearse import Join, Rehearsal


def carried_data(carried: Carried) -> dict[str, Any]:
    """Return what carrying a plan out exactly came to, lengths in plan units."""
    return {
        "ends_in_the_figure": carried.ends_in_the_figure,
        "acts": carried.acts,
        "greatest_miss": carried.miss,
        "where": carried.where,
        "allowed": carried.allowed,
        "computed_places": len(carried.computed),
        "computed": list(carried.computed),
        "undrawn": list(carried.undrawn),
        "failure": carried.failure,
    }


def rehearsal_data(found: Rehearsal) -> dict[str, Any]:
    """Return a rehearsal, lengths in mm on paper."""
    return {
        "hands": found.hands,
        "seed": found.seed,
        "joins": [_join(join) for join in found.joins],
        "sizes": [asdict(size) for size in found.sizes],
    }


def _join(join: Join) -> dict[str, Any]:
    return {**asdict(join), "place": [join.place.x, join.place.y]}
