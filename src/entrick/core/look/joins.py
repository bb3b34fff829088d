"""Where pieces of an outline meet on the sheet."""

from __future__ import annotations

from collections.abc import Iterator, Sequence

import numpy as np

from ..desk import Work
from .finding import Joined
from .fit import FittedCircle, FittedLine
from .measure import FOUND, Measured
from .rows import ALIGNED
from .traces import SOUND


def joins(work: Work, found: Sequence[Measured]) -> Iterator[Joined]:
    """Yield where pieces that are both there meet."""
    factor = work.sheet.factor
    there = [each for each in found if each.seen >= FOUND]
    for _, _, loop in work.checked.runs:
        following = [*loop.pieces[1:], *(loop.pieces[:1] if loop.closed else ())]
        for one, other in zip(loop.pieces, following, strict=False):
            at = complex(one.exit.x, one.exit.y) * factor
            first, second = (_ending(there, name, at) for name in (one.name, other.name))
            if first is None or second is None or first is second:
                continue
            run, on = first.piece.places[:, first.hand], second.piece.places[:, second.hand]
            # The ends that meet, where the slip that is told puts them.
            ends = [(a, b) for a in (run[0], run[-1]) for b in (on[0], on[-1])]
            meet = min(ends, key=lambda pair: abs(pair[0] - pair[1]))
            spot = complex(meet[0] + meet[1]) / 2
            spots = [_nearest(each, spot) for each in (first, second)]
            if None in spots:
                continue
            miss = abs(spots[0] - spots[1])  # type: ignore[operator]
            yield Joined(one.name, other.name, miss, (spot.real / factor, spot.imag / factor))


def _ending(found: Sequence[Measured], name: str, at: complex) -> Measured | None:
    """Return the piece of a name that ends at a place of the plan: copies are called alike."""
    for each in found:
        if each.piece.called != name:
            continue
        ends = each.piece.places[[0, -1], SOUND]
        if np.min(np.abs(ends - at)) < ALIGNED:
            return each
    return None


def _nearest(each: Measured, spot: complex) -> complex | None:
    """Return the place of a piece, as it was drawn, nearest to a spot."""
    fitted = each.fitted
    if isinstance(fitted, FittedCircle):
        out = spot - fitted.centre
        return fitted.centre + out / max(abs(out), ALIGNED) * fitted.radius
    if isinstance(fitted, FittedLine):
        return fitted.at + fitted.ahead * float((np.conj(fitted.ahead) * (spot - fitted.at)).real)
    if not len(each.places):
        return None
    return complex(each.places[int(np.argmin(np.abs(each.places - spot)))])
