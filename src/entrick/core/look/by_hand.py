"""A plan drawn by a simulated hand: its acts carried out with the errors a hand makes, and one slip
where one is asked for."""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass

import numpy as np

from ..desk import Work
from ..drawing.marks import Arrowhead, DrawnArc, DrawnCircle, Lettering, Mark, moved
from ..drawing.marks import DrawnLine as LineMark
from ..drawing.widths import WIDTHS
from ..rehearsal.carry_out import DrawnLine, DrawnRound
from ..rehearsal.hand import Hand
from ..rehearsal.many import Hands, Places
from .in_order import InOrder, in_order
from .lined import lined_in
from .slipped import Slip, SlippedBoard, carry_out_slipped


@dataclass(frozen=True)
class Stroke:
    """A stroke of the pencil.

    Attributes
    ----------
    places : array of complex
        Along it, mm on paper from the lower left corner of the sheet, upwards.
    width : float
        Of the pencil, mm.
    dark : float
        1 black, 0 paper.
    piece : str
        What the drafter takes it for; empty where it is no piece of an outline.
    line : int
        Statement of the plan that piece is of.
    """

    places: Places
    width: float
    dark: float
    piece: str = ""
    line: int = 0


@dataclass(frozen=True)
class DrawnSheet:
    """A sheet as a hand has drawn it; lengths in mm.

    Attributes
    ----------
    width, height : float
    strokes : tuple of Stroke
    lettering : tuple of Lettering
    """

    width: float
    height: float
    strokes: tuple[Stroke, ...]
    lettering: tuple[Lettering, ...]


def drawn_by_hand(
    work: Work,
    seed: int,
    slips: Sequence[Slip] = (),
    hand: Hand | None = None,
    order: InOrder | None = None,
) -> DrawnSheet:
    """Draw a plan by a simulated hand.

    Parameters
    ----------
    work : Work
    seed : int
        Of its errors.
    slips : sequence of Slip, optional
        What it gets wrong.
    hand : Hand, optional
        How much it errs; a usual hand where none is said.
    order : InOrder, optional
        The acts of the plan, where they are at hand.

    Raises
    ------
    NotDrawn
        Where an act stands on something that is not there.
    """
    sheet = work.sheet
    # The first hand tells which way is meant where the others may take another one, and two of
    # three where a station belongs.
    hands = Hands(hand or Hand(), 3, seed, sheet.factor)
    board = carry_out_slipped((order or in_order(work)).acts, hands, ((), (), slips))
    origin = complex(sheet.origin.x, sheet.origin.y)
    own = hands.count - 1
    pieces = [piece for piece in lined_in(board, sheet.factor) if piece.there[own]]
    names = {piece.name: line for _, line, loop in work.checked.runs for piece in loop.pieces}
    strokes = []
    for piece in pieces:
        kind = WIDTHS[piece.drawn.role]
        at = origin + piece.run(own)
        line = names.get(piece.called, 0)
        strokes.append(Stroke(at, kind.width, kind.ink, piece.called, line))
    others = [mark for layer in work.drawing.layers for mark in layer.marks if mark.role in FINE]
    every = [
        *work.drawing.ground,
        *(moved(mark, sheet.origin.x, sheet.origin.y, 0, 0) for mark in others),
    ]
    lettering = tuple(mark for mark in every if isinstance(mark, Lettering))
    fine = [stroke for mark in every if (stroke := stroke_of(mark)) is not None]
    light = list(_light(board, sheet.factor, origin))
    return DrawnSheet(sheet.width, sheet.height, (*light, *fine, *strokes), lettering)


FINE = frozenset({"dimension", "centre", "hatch", "label"})
"""Roles of strokes that finish a sheet."""


def stroke_of(mark: Mark) -> Stroke | None:
    """Return a mark of the finished sheet as a stroke; None for lettering."""
    kind = WIDTHS.get(mark.role)
    if kind is None or mark.role == "guide":
        return None
    match mark:
        case LineMark(x1=x, y1=y, x2=u, y2=v):
            places = np.array([complex(x, y), complex(u, v)])
        case DrawnCircle(cx=x, cy=y, r=r):
            places = complex(x, y) + r * np.exp(1j * np.linspace(0, math.tau, ROUND))
        case DrawnArc(cx=x, cy=y, r=r, start=start, sweep=sweep):
            turned = np.radians(np.linspace(start, start + sweep, ROUND))
            places = complex(x, y) + r * np.exp(1j * turned)
        case Arrowhead(corners=corners):
            places = np.array([complex(*corner) for corner in (*corners, corners[0])])
        case _:
            return None
    return Stroke(places, kind.width, kind.ink)


ROUND = 60
"""Straights a round of the finish is drawn by."""


def _light(board: SlippedBoard, factor: float, origin: complex) -> Iterator[Stroke]:
    """Yield light lines and circles as the last hand left them."""
    kind = WIDTHS["construction"]
    turn = np.exp(1j * np.linspace(0, math.tau, ROUND))
    for thing in board.things.values():
        match thing:
            case DrawnRound(centre=centre, radius=radius):
                places = origin + (centre[-1] + radius[-1] * turn) * factor
            case DrawnLine(at=at, ahead=ahead):
                ends = np.array([-LIGHT, LIGHT])
                places = origin + at[-1] * factor + ahead[-1] * ends
            case _:
                continue
        if np.all(np.isfinite(places)):
            yield Stroke(places, kind.width, FAINT)


LIGHT = 25.0
"""Half of a light line, mm."""

FAINT = 0.3
"""How dark a light line is."""
