"""Whether the acts of a plan, carried out exactly, end in its figure."""

from __future__ import annotations

from dataclasses import dataclass

from ..acts.act import Act, Mark, Measure, Trace
from ..acts.names import plain
from ..board.economy import acts_at_board
from ..board.kit import Kit
from ..board.order import Ordered
from ..geometry import Loop, Shape
from ..sheet import Sheet
from ..solve import Solution
from ..tolerance import same, worked
from .carry_out import Board, NotDrawn, miss_of, piece_off
from .hand import NONE
from .many import Hands


@dataclass(frozen=True, slots=True)
class Carried:
    """What came of carrying acts out.

    Attributes
    ----------
    acts : int
        How many there are.
    miss : float
        How far anything left is at most from where the figure has it, plan units.
    where : str
        What that is.
    allowed : float
        How much is allowed: what makes two lengths of the figure's size the same.
    computed : tuple of str
        Marks put down at places that were worked out and are neither given nor said on a card.
    undrawn : tuple of str
        Statements whose thing no act has left, or whose outline none goes over.
    failure : str
        Why the acts could not be carried out to their end; empty where they could.
    """

    acts: int
    miss: float
    where: str
    allowed: float
    computed: tuple[str, ...]
    undrawn: tuple[str, ...]
    failure: str = ""

    @property
    def ends_in_the_figure(self) -> bool:
        """Whether the acts leave the figure of the plan."""
        return not self.failure and not self.undrawn and self.miss <= self.allowed


def carried_exactly(solution: Solution, sheet: Sheet, kit: Kit | None = None) -> Carried:
    """Carry the acts of a solved plan out by a hand that makes no error, and compare with its
    figure.

    Parameters
    ----------
    solution : Solution
    sheet : Sheet
        Its scale decides openings that are free.
    kit : Kit, optional
        What it is done with; a whole kit where none is said.

    Returns
    -------
    Carried
    """
    ordered = acts_at_board(solution, sheet, kit)
    reach = (abs(mark.at) for own in ordered for mark in own.left if isinstance(mark, Mark))
    size = max(max(sheet.width, sheet.height) / sheet.factor, *reach, 0.0)
    board = Board(Hands(NONE, 1, 0, sheet.factor))
    miss, where, count = 0.0, "", 0
    computed: list[str] = []
    for own in ordered:
        for act in own.acts:
            count += 1
            try:
                board.do(act)
                found = miss_of(board, act)
            except NotDrawn as error:
                words = f"line {own.entry.line}, {own.entry.statement.kind}: {error}"
                return Carried(count, miss, where, same(size), tuple(computed), (), words)
            # The arcs that stand for a curve are come by in several steps.
            share = same(size) / worked(size) if isinstance(act, Trace) else 1.0
            for off in found.values():
                if not off[0] * share <= miss:
                    miss, where = (
                        float(off[0]) * share,
                        f"{own.entry.statement.name}: {plain(act.called)}",
                    )
            if isinstance(act, Measure) and act.computed:
                computed.append(f"{own.entry.statement.name}: {plain(act.called)}")
    for piece in board.gone:
        off = piece_off(piece)
        if not off[0] <= miss:
            miss, where = float(off[0]), f"{piece.called}, gone over"
    undrawn = tuple(own.entry.statement.name for own in ordered if not _is_drawn(own, ordered))
    return Carried(count, miss, where, same(size), tuple(computed), undrawn)


def _is_drawn(own: Ordered, ordered: tuple[Ordered, ...]) -> bool:
    """Tell whether the acts leave what a statement makes: every stroke of it, or go over it where
    it is lined in."""
    made = own.entry.made
    if made is None or made.nothing:
        return True
    if made.lined is not None:
        gone = _curves(own.acts)
        return all(piece in gone for shape in made.gone_over for piece in _pieces(shape))
    return any(act.strokes for each in ordered for act in each.acts)


def _curves(acts: tuple[Act, ...]) -> set[object]:
    result: set[object] = set()
    for act in acts:
        for stroke in act.strokes:
            result |= set(_pieces(stroke.shape))
    return result


def _pieces(shape: Shape | Loop) -> list[object]:
    return [piece.curve for piece in shape.pieces] if isinstance(shape, Loop) else [shape]
