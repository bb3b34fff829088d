"""The words that say where a thing lies among others: above, below, left, right."""

from __future__ import annotations

from collections.abc import Sequence
from itertools import permutations

from ..tolerance import worked
from .shapes import Point

SIDES: dict[str, Point] = {
    "above": Point(0, 1),
    "upper": Point(0, 1),
    "below": Point(0, -1),
    "lower": Point(0, -1),
    "left": Point(-1, 0),
    "right": Point(1, 0),
}


def on_sides(spots: Sequence[Point], words: Sequence[str]) -> list[int]:
    """Return which of several spots lie as several words say: they are a set, whose order never
    matters.

    Where one word after the other leads to the same spots in every order, to those; else to those
    that lie on all of these sides of the common middle, which may be none.

    Examples
    --------
    >>> corners = [Point(1, 1), Point(-1, 1), Point(-1, -1), Point(1, -1)]
    >>> on_sides(corners, ["left", "above"]), on_sides(corners, ["above", "below"])
    ([1], [])
    """
    found = {tuple(_one_by_one(spots, order)) for order in permutations(sorted(set(words)))}
    if len(found) == 1:
        return list(found.pop())
    every = [set(on_side(spots, word)) for word in words]
    return sorted(set.intersection(*every))


def _one_by_one(spots: Sequence[Point], words: Sequence[str]) -> list[int]:
    left = list(range(len(spots)))
    for word in words:
        left = [left[i] for i in on_side([spots[i] for i in left], word)]
    return left


def on_side(spots: Sequence[Point], word: str) -> list[int]:
    """Return which of several spots lie on the named side of their common middle.

    Parameters
    ----------
    spots : sequence of Point
        Where each candidate's drawn thing lies.
    word : str
        One of `SIDES`.

    Returns
    -------
    list of int
        Indexes; all of them when the word tells none apart.

    Examples
    --------
    >>> on_side([Point(0, 3), Point(0, -3)], "above")
    [0]
    """
    if len(spots) < 2:
        return list(range(len(spots)))
    heights = [spot.dot(SIDES[word]) for spot in spots]
    middle = sum(heights) / len(heights)
    tolerance = worked(max(abs(a - b) for a in heights for b in heights[:1]) or 1.0)
    chosen = [index for index, height in enumerate(heights) if height > middle + tolerance]
    return chosen or list(range(len(spots)))
