"""What is seen on a sheet, before anything is known of what it is: places on dark strokes."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property
from typing import Protocol

import numpy as np
from scipy.spatial import KDTree  # type: ignore[import-untyped]

from ..rehearsal.many import Places, Reals


class Seen(Protocol):
    """What is seen on a sheet.

    Attributes
    ----------
    places : array of complex
        On the strokes of an outline, mm on paper from the datum.
    """

    @property
    def places(self) -> Places:
        """Places on strokes."""

    def away(self, places: Places) -> Reals:
        """Return how far places are from the nearest stroke, mm."""


@dataclass(frozen=True)
class SeenPlaces:
    """Places measured on strokes, such as a digitiser sends them."""

    places: Places

    @cached_property
    def _tree(self) -> KDTree:
        return KDTree(_pairs(self.places))

    def away(self, places: Places) -> Reals:
        """Return how far places are from the nearest one measured, mm."""
        found: Reals = self._tree.query(_pairs(places.ravel()))[0]
        return found.reshape(places.shape)


@dataclass(frozen=True)
class SomeOf:
    """What is seen, of which not all has to be explained: `places` are those that do."""

    seen: Seen
    places: Places

    def away(self, places: Places) -> Reals:
        """Return how far places are from the nearest stroke of all, mm."""
        return self.seen.away(places)


def _pairs(places: Places) -> Reals:
    return np.column_stack((places.real, places.imag))
