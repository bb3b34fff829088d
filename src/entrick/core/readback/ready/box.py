"""A level rectangle, by its middle and its two sizes."""

from __future__ import annotations

from collections.abc import Sequence

from ...geometry import Line, Point
from ...geometry.shapes import ends as ends_of
from ..profile import Run, pieces_of
from ..rows import Rows

CORNERS = {
    (-1, -1): "lower_left",
    (1, -1): "lower_right",
    (1, 1): "upper_right",
    (-1, 1): "upper_left",
}


def written(run: Run, rows: Rows) -> str:
    """Write a run that is a level rectangle."""
    pieces = pieces_of(run)
    if len(pieces) != 4 or not all(isinstance(piece, Line) for piece in pieces):
        return ""
    return of_corners([ends_of(piece)[0] for piece in pieces], rows)


def of_corners(spots: Sequence[Point], rows: Rows) -> str:
    """Write the box with four corners; empty where they are those of none."""
    if not is_box(spots, rows.within):
        return ""
    low, high = _reach(spots)
    size, middle = high - low, (low + high) * 0.5
    name = rows.add(
        "b",
        f"box, {rows.say(size.x, 'size')} by {rows.say(size.y, 'size')}, centred on "
        f"{rows.point(middle)}",
    )
    for (i, j), corner in CORNERS.items():
        rows.remember(middle + Point(size.x * i, size.y * j) * 0.5, f"{name}.{corner}")
    return name


def is_box(spots: Sequence[Point], near: float) -> bool:
    """Tell whether some corners, one after another, are those of a level rectangle."""
    if len(spots) != 4:
        return False
    low, high = _reach(spots)
    for a, b in zip(spots, [*spots[1:], spots[0]], strict=True):
        if min(abs(a.x - b.x), abs(a.y - b.y)) > near:
            return False
        if not all(
            min(abs(v - lo), abs(v - hi)) <= near
            for v, lo, hi in ((a.x, low.x, high.x), (a.y, low.y, high.y))
        ):
            return False
    return True


def _reach(spots: Sequence[Point]) -> tuple[Point, Point]:
    low = Point(min(p.x for p in spots), min(p.y for p in spots))
    return low, Point(max(p.x for p in spots), max(p.y for p in spots))
