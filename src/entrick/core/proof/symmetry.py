"""Is a part that is said to be symmetric symmetric, and is one that is not said to be so anyhow?"""

from __future__ import annotations

from collections.abc import Callable, Iterator, Mapping
from dataclasses import dataclass

from ..geometry import Arc, Circle, Line, Piece, Point
from ..kind import Made
from ..kind.claims import Symmetric
from ..tolerance import ROUND
from .finding import Checked, Finding, Mend


def inspect(checked: Checked) -> Iterator[Finding]:
    """Report where a symmetric part is not, and offer a symmetry about a datum line that nobody spoke of."""
    if checked.failed_outlines:
        return  # the part is not whole without them
    pieces = [(line, piece) for _, line, loop in checked.runs for piece in loop.pieces]
    if not pieces:
        return
    known = _Places([piece for _, piece in pieces], checked.close)
    said = checked.claims(Symmetric)
    for line, claim in said:
        odd = next(known.without_image(claim.axis), None)
        if odd is None:
            yield Finding("good", "symmetry", f"symmetric about {claim.name}, every piece", line)
        else:
            at, piece = pieces[odd]
            place = checked.sheet.on_paper(_middle(piece))
            told = f"not symmetric about {claim.name}: {piece.name} has no image on the other side"
            yield Finding("wrong", "symmetry", told, at, place)
    axes = [claim.axis for _, claim in said]
    for name, axis in _datum_lines(checked):
        if any(_same(axis, other, checked.close) for other in axes):
            continue
        if next(known.without_image(axis), None) is None:
            axes.append(axis)
            row = f"{checked.solution.free_name('must')} = check, symmetric about {name}"
            mend = Mend("insert", len(checked.solution.plan.lines), row, "Say so")
            told = f"the outline is symmetric about {name}: say so, and it stays proved"
            yield Finding("note", "symmetry", told, 0, None, mend)


def _datum_lines(checked: Checked) -> Iterator[tuple[str, Line]]:
    for entry in checked.solution.entries:
        made: Made | None = entry.made
        if made is not None and made.placing is not None:
            parts: Mapping[str, object] = made.parts
            yield from (
                (f"{entry.statement.name}.{key}", line) for key, line in parts.items() if isinstance(line, Line)
            )


def _same(first: Line, second: Line, close: float) -> bool:
    return abs(first.direction.cross(second.direction)) < ROUND and abs(first.offset_of(second.through)) <= close


def _middle(piece: Piece) -> Point:
    match piece.curve:
        case Arc() as arc:
            return arc.middle
        case Circle(centre=c):
            return c
    return (piece.entry + piece.exit) * 0.5


@dataclass(frozen=True, slots=True)
class _Place:
    """Where a piece lies, and what its image must be like: its middle, ends and radius (0 for a straight one)."""

    piece: Piece
    middle: Point
    radius: float
    ends: tuple[Point, ...]


class _Places:
    """Pieces by where their middles lie, for looking up images."""

    def __init__(self, pieces: list[Piece], close: float) -> None:
        self.close = close
        self.step = close * 1e4
        self.places = []
        for piece in pieces:
            ends = () if isinstance(piece.curve, Circle) else (piece.entry, piece.exit)
            radius = 0.0 if isinstance(piece.curve, Line) else piece.curve.radius
            self.places.append(_Place(piece, _middle(piece), radius, ends))
        self.cells: dict[tuple[int, int], list[_Place]] = {}
        for place in self.places:
            self.cells.setdefault(self._cell(place.middle), []).append(place)

    def _cell(self, spot: Point) -> tuple[int, int]:
        return round(spot.x / self.step), round(spot.y / self.step)

    def without_image(self, axis: Line) -> Iterator[int]:
        """Return the pieces, by index, that have no image on the other side of an axis."""
        through, across = axis.through, axis.direction.normal

        def image(spot: Point) -> Point:
            off = 2 * ((spot.x - through.x) * across.x + (spot.y - through.y) * across.y)
            return Point(spot.x - off * across.x, spot.y - off * across.y)

        return (index for index, place in enumerate(self.places) if not self._has_image(place, image))

    def _has_image(self, place: _Place, image: Callable[[Point], Point]) -> bool:
        middle, close = image(place.middle), self.close
        column, row = self._cell(middle)
        near = [p for i in (-1, 0, 1) for j in (-1, 0, 1) for p in self.cells.get((column + i, row + j), ())]
        alike = [
            other
            for other in near
            if len(other.ends) == len(place.ends)
            and abs(other.radius - place.radius) <= close
            and abs(other.middle - middle) <= close
        ]
        if not (alike and place.ends):
            return bool(alike)
        ends = [image(end) for end in place.ends]
        return any(all(min(abs(end - e) for e in other.ends) <= close for end in ends) for other in alike)
