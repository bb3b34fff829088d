"""What was worked out before: the one store behind all that is remembered, so that an edit costs
what it changes.

What things are made of is mostly told apart by which thing it is, since to look through a figure
again costs as much as to make it. A thing that may be so told apart has a serial number, which is
never given to another; so a key made of serial numbers means what it meant as long as the desk
runs.
"""

from __future__ import annotations

from collections.abc import Callable, Hashable
from functools import wraps
from itertools import count
from typing import Any, Generic, ParamSpec, TypeVar

P = ParamSpec("P")
T = TypeVar("T")
V = TypeVar("V")

MOST = 360_000
"""Weight of what is remembered, in pieces of what was constructed, before the older half goes."""

_SERIALS = count()


class Distinct:
    """A thing told apart from others that are equal to it."""

    __slots__ = ("_serial",)
    _serial: int

    @property
    def serial(self) -> int:
        """The number of this very thing."""
        try:
            return self._serial
        except AttributeError:
            object.__setattr__(self, "_serial", next(_SERIALS))
            return self._serial


class Memo(Generic[V]):
    """Results by key, up to a weight; what has not been asked for lately goes first.

    Parameters
    ----------
    most : int
        Weight at which the results that were not asked for since the last such time are let go.
    """

    def __init__(self, most: int) -> None:
        self._most = most
        self._weight = 0
        self._young: dict[Hashable, tuple[V, int]] = {}
        self._old: dict[Hashable, tuple[V, int]] = {}

    def get(self, key: Hashable) -> V | None:
        """Return what was put under a key."""
        found = self._young.get(key)
        if found is None:
            found = self._old.get(key)
            if found is None:
                return None
            self.put(key, *found)
        return found[0]

    def put(self, key: Hashable, value: V, weight: int = 1) -> V:
        """Put a result under a key, and return it."""
        if self._weight + weight > self._most:
            self._old, self._young, self._weight = self._young, {}, 0
        self._young[key] = (value, weight)
        self._weight += weight
        return value

    def clear(self) -> None:
        """Begin anew: everything is worked out as the first time."""
        self._young, self._old, self._weight = {}, {}, 0


MEMO: Memo[object] = Memo(MOST)
"""The store of this process."""

_NOTHING = object()
"""Stands for a result that is None."""


def remembered(weigh: Callable[[Any], int] | int = 5) -> Callable[[Callable[P, T]], Callable[P, T]]:
    """Remember what a pure function gave.

    Parameters
    ----------
    weigh : callable or int
        From a result to its weight, in pieces.
    """

    def remember(function: Callable[P, T]) -> Callable[P, T]:
        @wraps(function)
        def known(*args: P.args, **kwargs: P.kwargs) -> T:
            key = (function, *map(_part, args), *map(_part, kwargs.items()))
            found = MEMO.get(key)
            if found is None:
                result = function(*args, **kwargs)
                weight = weigh if isinstance(weigh, int) else weigh(result)
                MEMO.put(key, _NOTHING if result is None else result, weight)
                return result
            return None if found is _NOTHING else found  # type: ignore[return-value]

        return known

    return remember


def _part(arg: object) -> Hashable:
    if isinstance(arg, Distinct):
        return arg.serial
    if isinstance(arg, tuple | list):
        return tuple(map(_part, arg))
    return arg


def number_of(value: Hashable) -> int:
    """Return one number for all values that are equal; after a long time without being asked for,
    another."""
    key = (number_of, value)
    found = MEMO.get(key)
    return MEMO.put(key, next(_SERIALS)) if found is None else found  # type: ignore[return-value]
