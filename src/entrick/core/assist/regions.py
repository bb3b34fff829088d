"""Lining in by region: the boundary of the regions a drafter points at, written as statements."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from ..geometry import Arc, Circle, Curve, Loop, Piece, Point, Stop, WalkError, walk
from ..geometry.arrange import Arrangement, regions
from ..geometry.edges import Named, RegionError
from ..geometry.meet import meet
from ..geometry.place import on_side
from ..moves import kinds
from ..solve import Solution
from ..solve.named import drawn_curves
from ..tolerance import surely_two


@dataclass(frozen=True)
class Region:
    """Boundary loops of the regions pointed at, outer ones first, with the statements that line
    them in."""

    loops: tuple[Loop, ...]
    statements: tuple[str, ...]


def region_at(solution: Solution, spots: Sequence[Point], kind: str = "line in") -> Region:
    """Return the boundary of the union of the regions several spots lie in.

    Parameters
    ----------
    solution : Solution
    spots : sequence of Point
        Plan units.
    kind : str
        The statement to write: "line in" or "hidden".

    Returns
    -------
    Region

    Raises
    ------
    RegionError
        For a spot around which nothing closes.
    """
    known = kinds().get(kind)
    if known is None or known.lines_in is None:
        raise RegionError(f"{kind} is not lined in by region")
    loops = regions(_arrangement(solution), spots)
    taken: list[str] = []
    statements = []
    for loop in loops:
        name = solution.free_name("rim" if loop.area > 0 else "hole", taken)
        taken.append(name)
        statements.append(f"{name} = {kind}, {_written(loop)}")
    return Region(loops, tuple(statements))


def _arrangement(solution: Solution) -> Arrangement:
    return Arrangement([Named(curve, name) for name, curve in drawn_curves(solution)])


def _written(loop: Loop) -> str:
    """Write a loop as a walk, with no more words than it needs."""
    if len(loop.pieces) == 1:
        return loop.pieces[0].name
    plain = [(piece.name, "", "") for piece in loop.pieces]
    joins = [_side(loop.pieces[index - 1], piece) for index, piece in enumerate(loop.pieces)]
    ways = [_way(piece) for piece in loop.pieces]
    sided = [(name, side, "") for (name, _, _), side in zip(plain, joins, strict=True)]
    turned = [(name, "", way) for (name, _, _), way in zip(plain, ways, strict=True)]
    full = [(name, side, way) for (name, _, _), side, way in zip(plain, joins, ways, strict=True)]
    for steps in (plain, sided, turned):
        if _walks(loop, steps):
            return _text(steps)
    return _text(full)


Steps = list[tuple[str, str, str]]


def _text(steps: Steps) -> str:
    return " > ".join(" ".join(word for word in words if word) for words in steps)


def _side(before: Piece, piece: Piece) -> str:
    """Return the word that picks where the walk comes onto a piece, if two places offer."""
    spots = [meeting.point for meeting in meet(before.curve, piece.curve)]
    if len(spots) < 2:
        return ""
    here = min(range(len(spots)), key=lambda index: abs(spots[index] - piece.entry))
    apart = spots[here] - spots[1 - here]
    words = (
        ("upper", "lower", "left", "right")
        if abs(apart.y) > abs(apart.x)
        else ("left", "right", "upper", "lower")
    )
    return next((word for word in words if on_side(spots, word) == [here]), "")


def _way(piece: Piece) -> str:
    if isinstance(piece.curve, Arc):
        return "ccw" if piece.curve.sweep > 0 else "cw"
    return ""


def _walks(loop: Loop, steps: Steps) -> bool:
    """Tell whether a walk with these words comes out as the loop."""
    stops = [
        Stop(_whole(piece.curve), name, way=way, side=(side,) if side else ())
        for piece, (name, side, way) in zip(loop.pieces, steps, strict=True)
    ]
    try:
        found = walk(stops)
    except WalkError:
        return False
    close = surely_two(loop.length)
    return len(found.pieces) == len(loop.pieces) and all(
        abs(a.entry - b.entry) <= close and abs(a.length - b.length) <= close
        for a, b in zip(found.pieces, loop.pieces, strict=True)
    )


def _whole(curve: Curve) -> Curve:
    return Circle(curve.centre, curve.radius, curve.exact) if isinstance(curve, Arc) else curve
