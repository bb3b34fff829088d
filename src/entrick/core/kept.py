"""Keeping what was made, so that an edit costs what it changes: the one store behind everything that is remembered.

What things are made of is mostly compared by identity, since to look through a figure again costs as much as to make
it. An identity is only good while the thing exists; so whatever a key names by `id` is held beside the result.
"""

from __future__ import annotations

from collections.abc import Hashable
from typing import Generic, TypeVar

V = TypeVar("V")


class Kept(Generic[V]):
    """Results by key, up to a weight; beyond it all is forgotten and keeping begins anew.

    Parameters
    ----------
    most : int
        Weight at most, in whatever unit results are kept with.
    """

    def __init__(self, most: int) -> None:
        self._most = most
        self._weight = 0
        self._found: dict[Hashable, tuple[V, object]] = {}

    def recall(self, key: Hashable) -> V | None:
        """Return what was kept under a key."""
        found = self._found.get(key)
        return None if found is None else found[0]

    def keep(self, key: Hashable, value: V, held: object = None, weight: int = 1) -> V:
        """Keep a result, with what its key names by identity, and return it."""
        if self._weight + weight > self._most:
            self.forget()
        self._found[key] = (value, held)
        self._weight += weight
        return value

    def forget(self) -> None:
        """Begin anew."""
        self._found.clear()
        self._weight = 0
