"""Every curve of the construction, by the name that refers to it."""

from __future__ import annotations

from collections.abc import Iterator

from ..geometry import Curve, Loop, Point, Shape
from ..kind.figure import Family, Item
from ..memo import remembered
from . import Solution


def drawn_curves(solution: Solution) -> Iterator[tuple[str, Curve]]:
    """Return every curve of the construction with the name that refers to it; what is lined in is
    left out."""
    for entry in solution.entries:
        item = solution.figure.items.get(entry.statement.name)
        if item is not None and entry.made is not None and entry.made.lined is None:
            yield from _named(item)


@remembered(lambda found: 1 + len(found))
def _named(item: Item) -> tuple[tuple[str, Curve], ...]:
    return tuple(curve for name, shape in members(item) for curve in _curves(shape, name))


def members(item: Item) -> Iterator[tuple[str, Shape | Loop]]:
    """Return the things an item stands for, each by the shortest name that refers to it."""
    if isinstance(item.shape, Family):
        names = {part: key for key, part in reversed(list(item.parts.items()))}
        for label, member in item.shape.labelled:
            yield f"{item.name}.{names.get(member, label)}", member
    else:
        yield item.name, item.shape


def _curves(shape: Shape | Loop, name: str) -> Iterator[tuple[str, Curve]]:
    if isinstance(shape, Loop):
        yield from ((piece.name, piece.curve) for piece in shape.pieces)
    elif not isinstance(shape, Point):
        yield name, shape
