"""Keeping what was made, so that an edit costs what it changes: the one store behind everything
that is remembered.

What things are made of is mostly compared by identity, since to look through a figure again costs
as much as to make it. An identity is only good while the thing exists; so whatever a key names by
`id` is held beside the result."""

from __future__ import annotations

from collections.abc import Callable, Hashable
from functools import lru_cache, update_wrapper
from typing import Generic, ParamSpec, TypeVar

V = TypeVar("V")
P = ParamSpec("P")
T = TypeVar("T")
KEPT_PIECES = 120_000
"""Pieces of what was constructed before that are kept, since most of a plan is as it was before an
edit."""


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


class OneOfEach(Generic[V]):
    """One thing for all that are equal, so that what stands on them can be told apart by identity.

    Parameters
    ----------
    most : int
        Things that are known at a time; beyond it all is forgotten, and what is equal to a
        forgotten one is another.
    """

    def __init__(self, most: int) -> None:
        self._most = most
        self._found: dict[Hashable, V] = {}

    def of(self, key: Hashable, thing: V) -> V:
        """Return the thing that was first met under a key."""
        if len(self._found) >= self._most:
            self._found.clear()
        return self._found.setdefault(key, thing)


class KeptByWeight(Generic[P, T]):
    """A pure function that keeps what it gave as long as all of it weighs no more than so much;
    then it begins anew."""

    def __init__(self, function: Callable[P, T], most: int, weigh: Callable[[T], int]) -> None:
        self._weight = 0
        self._most = most
        update_wrapper(self, function)

        @lru_cache(maxsize=8192)
        def kept(*args: P.args, **kwargs: P.kwargs) -> T:
            found = function(*args, **kwargs)
            self._weight += weigh(found)
            return found

        self._kept = kept

    def __call__(self, *args: P.args, **kwargs: P.kwargs) -> T:
        if self._weight > self._most:
            self.forget()
        return self._kept(*args, **kwargs)  # type: ignore[arg-type]

    def forget(self) -> None:
        """Begin anew."""
        self._kept.cache_clear()
        self._weight = 0


def kept_by_weight(
    most: int, weigh: Callable[[T], int]
) -> Callable[[Callable[P, T]], KeptByWeight[P, T]]:
    """Keep what a pure function gave.

    Parameters
    ----------
    most : int
        Weight at most, in the unit of `weigh`.
    weigh : callable
        From a result to its weight.
    """
    return lambda function: KeptByWeight(function, most, weigh)
