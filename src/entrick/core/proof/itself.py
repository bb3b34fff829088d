"""Does an outline cross itself?"""

from __future__ import annotations

from collections.abc import Iterator

from ..geometry import Loop, Point, meet
from ..geometry.box import neighbours
from ..geometry.loop import boxed
from ..geometry.shapes import is_drawn_at
from ..memo import remembered
from ..tolerance import assembled
from .finding import Checked, Finding


def inspect(checked: Checked) -> Iterator[Finding]:
    """Report where two pieces of one outline cross away from their junctions."""
    for entry in checked.solution.entries:
        for loop in entry.made.loops if entry.made else ():
            for spot, first, second in crossings(loop):
                message = (
                    f"the outline crosses itself, {first} with {second}: was another way round "
                    "meant?"
                )
                yield Finding("wrong", "outline", message, entry.line, checked.sheet.on_paper(spot))


def crosses_itself(loop: Loop) -> bool:
    """Tell whether an outline crosses itself."""
    return bool(crossings(loop))


@remembered(lambda found: 5 + len(found))
def crossings(loop: Loop) -> tuple[tuple[Point, str, str], ...]:
    """Return where a run crosses itself, and what its pieces there are called; known for one looked
    at before."""
    return tuple(_found(loop))


def _found(loop: Loop) -> Iterator[tuple[Point, str, str]]:
    if len(loop.pieces) == 1:
        return
    junctions = [end for piece in loop.pieces for end in (piece.entry, piece.exit)]
    boxes = boxed(loop).boxes
    close = assembled(max(map(abs, boxed(loop).box)))
    for index, other in neighbours(boxes, close):
        first, second = loop.pieces[index], loop.pieces[other]
        for spot in (meeting.point for meeting in meet(first.curve, second.curve)):
            if not (is_drawn_at(first.curve, spot) and is_drawn_at(second.curve, spot)):
                continue
            # Most meet at a junction of their own.
            own = (first.entry, first.exit, second.entry, second.exit)
            near = assembled(abs(spot))
            if all(abs(spot - end) > near for end in own) and all(
                abs(spot - end) > near for end in junctions
            ):
                yield spot, first.name, second.name
