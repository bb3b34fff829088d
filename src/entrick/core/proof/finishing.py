"""Has every circle its centre lines, and every cut region its hatching?"""

from __future__ import annotations

from collections.abc import Iterator

from ..drawing.notes import CentreLine, Hatching
from ..geometry import Arc, Circle, Line, Point
from .finding import Checked, Finding, Mend


def inspect(checked: Checked) -> Iterator[Finding]:
    """Report circles without centre lines, and outlines marked as cut without hatching."""
    made = [(entry, entry.made) for entry in checked.solution.entries if entry.made]
    crosses = [note.along for _, m in made for note in m.notes if isinstance(note, CentreLine)]
    begun = any(m.notes for _, m in made)
    bare: list[tuple[str, Point]] = []
    for name, _, loop in checked.flat:
        for piece in loop.pieces:
            if isinstance(piece.curve, Circle) and not _centred(
                piece.curve, crosses, checked.close
            ):
                bare.append((piece.name if "." not in piece.name else name, piece.curve.centre))
    if bare:
        names = list(dict.fromkeys(name for name, _ in bare))
        many = len(bare) > 1
        message = f"{'circles' if many else 'a circle'} without centre lines: {', '.join(names)}"
        row = f"{checked.solution.free_name('cl')} = centre lines, of {' '.join(names)}"
        mend = Mend("insert", len(checked.solution.plan.lines), row, "Draw them")
        place = checked.sheet.on_paper(bare[0][1])
        yield Finding("look" if begun else "note", "finish", message, 0, place, mend)
    elif crosses:
        yield Finding("good", "finish", "every circle has its centre lines")
    hatched = [
        loop
        for _, m in made
        for note in m.notes
        if isinstance(note, Hatching)
        for loop in note.loops
    ]
    for entry, m in made:
        for loop in m.loops if m.cut else ():
            if not any(_same(loop.centroid, other.centroid, checked.close) for other in hatched):
                message = f"{entry.statement.name} is cut and not hatched"
                row = f"{checked.solution.free_name('cut')} = hatch, of {entry.statement.name}"
                mend = Mend("insert", len(checked.solution.plan.lines), row, "Hatch it")
                yield Finding(
                    "look",
                    "finish",
                    message,
                    entry.line,
                    checked.sheet.on_paper(loop.centroid),
                    mend,
                )


def _same(first: Point, second: Point, close: float) -> bool:
    return abs(first - second) <= close


def _centred(circle: Circle, crosses: list[Line | Circle | Arc], close: float) -> bool:
    """Tell whether two chain lines cross in the middle of a circle, or one and a pitch circle."""
    through = 0
    for along in crosses:
        match along:
            case Line():
                through += abs(along.offset_of(circle.centre)) <= close
            case Circle() | Arc():
                through += abs(abs(circle.centre - along.centre) - along.radius) <= close
    return through >= 2
