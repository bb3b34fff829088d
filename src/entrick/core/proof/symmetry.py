"""Is a part that is said to be symmetric symmetric, and is one that is not said to be so anyhow?"""

from __future__ import annotations

from collections.abc import Iterator, Mapping

from ..geometry import Arc, Circle, Line, Piece, Point, reflect
from ..kind import Made
from ..kind.claims import Symmetric
from ..tolerance import ROUND
from .finding import Checked, Finding, Mend


def inspect(checked: Checked) -> Iterator[Finding]:
    """Report where a symmetric part is not, and offer a symmetry about a datum line that nobody spoke of."""
    pieces = [(line, piece) for _, line, loop in checked.runs for piece in loop.pieces]
    if not pieces:
        return
    known = _Places([piece for _, piece in pieces], checked.close)
    said = checked.claims(Symmetric)
    for line, claim in said:
        odd = next(((at, piece) for at, piece in pieces if not known.has(piece, claim.axis)), None)
        if odd is None:
            yield Finding("good", "symmetry", f"symmetric about {claim.name}, every piece", line)
        else:
            place = checked.sheet.on_paper(_middle(odd[1]))
            told = f"not symmetric about {claim.name}: {odd[1].name} has no image on the other side"
            yield Finding("wrong", "symmetry", told, odd[0], place)
    axes = [claim.axis for _, claim in said]
    for name, axis in _datum_lines(checked):
        if not any(_same(axis, other, checked.close) for other in axes) and all(
            known.has(piece, axis) for _, piece in pieces
        ):
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


class _Places:
    """Pieces by where their middles lie, for looking up images."""

    def __init__(self, pieces: list[Piece], close: float) -> None:
        self.close = close
        self.step = close * 1e4
        self.cells: dict[tuple[int, int], list[Piece]] = {}
        for piece in pieces:
            self.cells.setdefault(self._cell(_middle(piece)), []).append(piece)

    def _cell(self, spot: Point) -> tuple[int, int]:
        return round(spot.x / self.step), round(spot.y / self.step)

    def has(self, piece: Piece, axis: Line) -> bool:
        """Tell whether the image of a piece is a piece of the outline as well."""
        middle = reflect(_middle(piece), axis)
        ends = {reflect(piece.entry, axis), reflect(piece.exit, axis)}
        column, row = self._cell(middle)
        near = (p for i in (-1, 0, 1) for j in (-1, 0, 1) for p in self.cells.get((column + i, row + j), ()))
        return any(
            type(other.curve) is type(piece.curve)
            and abs(_middle(other) - middle) <= self.close
            and abs(getattr(other.curve, "radius", 0.0) - getattr(piece.curve, "radius", 0.0)) <= self.close
            and (isinstance(piece.curve, Circle) or all(
                min(abs(end - other.entry), abs(end - other.exit)) <= self.close for end in ends
            ))
            for other in near
        )  # fmt: skip
