"""The board with slips of its own for each hand: the act that suffers one comes out wrong, and
whatever stands on that act comes out accordingly."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from typing import Literal

import numpy as np

from ..acts.act import Act, GoOver, Key, Prick, Setting, StepOff, Swing, Way
from ..measure import Number
from ..rehearsal.carry_out import Board, DrawnLine, DrawnRound
from ..rehearsal.many import Hands, Places, Reals

Sort = Literal["size", "angle", "crossing", "needle", "left out"]
"""What comes out wrong: a size set or measured, a direction held, which of two crossings is taken,
where the needle stands, whether it is done at all."""


@dataclass(frozen=True, slots=True)
class Slip:
    """One slip at one act.

    Attributes
    ----------
    act : Act
    sort : str
    key : str
        What went wrong, in two or three words.
    said : str
        What is told of it, with the numbers at hand.
    weight : int
        6 always with us, 3 usual, 1 now and then (common practice, no source).
    right, wrong : float
        The size in plan units, or the angle in degrees, as it should be, and as it was.
    instead : str
        Key of the mark on which the needle stood.
    """

    act: Act
    sort: Sort
    key: str
    said: str
    weight: int
    right: float = 0.0
    wrong: float = 0.0
    instead: Key = ""


PARALLEL = 0.01
"""Angle under which lines that should cross do so nowhere, radians."""


@dataclass
class SlippedBoard(Board):
    """A board on which each hand suffers slips of its own; the first as a rule none.

    `suffered` are those of every hand. `short` is by how much at most, for each, what should cross
    fell short of each other, in plan units."""

    suffered: Sequence[Sequence[Slip]] = ((),)
    now: Act | None = None
    missing: list[frozenset[int]] = field(default_factory=list)
    short: Reals = field(init=False)

    def __post_init__(self) -> None:
        super().__post_init__()
        self.short = np.zeros(self.hands.count)
        self._at: dict[tuple[Act | None, Sort], list[tuple[int, Slip]]] = {}
        for hand, slips in enumerate(self.suffered):
            for slip in slips:
                self._at.setdefault((slip.act, slip.sort), []).append((hand, slip))

    def _suffering(self, sort: Sort) -> list[tuple[int, Slip]]:
        return self._at.get((self.now, sort), [])

    def do(self, act: Act) -> None:
        """Carry one act out, and whatever is done within it."""
        outer, self.now = self.now, act
        gone = len(self.gone)
        super().do(act)
        if isinstance(act, GoOver):
            left_out = frozenset(hand for hand, _ in self._at.get((act, "left out"), ()))
            self.missing += [left_out] * (len(self.gone) - gone)
        self.now = outer

    def opening(self, setting: Setting, tool: str) -> Reals:
        """Return what is opened to: a slip is made where the instrument is set anew, and stays in
        it until the next setting."""
        was = self.opened.get(tool)
        size = super().opening(setting, tool)
        if (was is not None and was[0] == setting) or setting.between is not None or setting.free:
            return size
        slipped = self._with_slips(setting.size, size)
        self.opened[tool] = (setting, slipped)
        return slipped

    def read(self, size: Number) -> float | Reals:
        """Return a size as it is measured."""
        result = super().read(size)
        # What an instrument is opened to has its slips there.
        if isinstance(self.now, Swing | GoOver) or (
            isinstance(self.now, StepOff) and not self.now.by_rule
        ):
            return result
        return self._with_slips(size, np.full(self.hands.count, float(result)))

    def _with_slips(self, right: Number, size: Reals) -> Reals:
        size = np.array(size)
        for hand, slip in self._suffering("size"):
            if slip.right == abs(float(right)):
                sense = -1.0 if float(right) < 0 else 1.0
                size[hand] += sense * (slip.wrong - slip.right)
        return size

    def direction(self, way: Way) -> Places:
        """Return a direction as it is held."""
        held = super().direction(way)
        for hand, slip in self._suffering("angle"):
            held[hand] *= np.exp(1j * np.radians(slip.wrong - slip.right))
        return held

    def side(self, forth: bool) -> float | Reals:
        """Return which of two crossings is taken."""
        side = super().side(forth)
        slipped = self._suffering("crossing")
        if not slipped:
            return side
        result = np.full(self.hands.count, float(side))
        for hand, _ in slipped:
            result[hand] *= -1.0
        return result

    def _two_rounds(self, first: DrawnRound, second: DrawnRound, side: float | Reals) -> Places:
        apart = np.abs(second.centre - first.centre)
        one, other = np.abs(first.radius), np.abs(second.radius)
        self._fell_short(np.maximum(apart - (one + other), np.abs(one - other) - apart))
        return super()._two_rounds(first, second, side)

    def _line_round(self, line: DrawnLine, round_: DrawnRound, side: float | Reals) -> Places:
        away = np.abs(((round_.centre - line.at) * np.conj(line.ahead)).imag)
        self._fell_short(away - np.abs(round_.radius))
        return super()._line_round(line, round_, side)

    def _pricked(self, act: Prick) -> Places:
        first, second = self.things.get(act.first), self.things.get(act.second)
        if isinstance(first, DrawnLine) and isinstance(second, DrawnLine):
            turn = np.abs((np.conj(first.ahead) * second.ahead).imag)
            self._fell_short(np.where(turn < PARALLEL, np.inf, 0.0))
        return super()._pricked(act)

    def _fell_short(self, by: Reals) -> None:
        self.short = np.fmax(self.short, by)

    def needle_at(self, key: Key) -> Places:
        """Return the mark on which the needle is set."""
        place = super().needle_at(key).copy()
        for hand, slip in self._suffering("needle"):
            place[hand] = self.mark(slip.instead)[hand]
        return place


def carry_out_slipped(
    acts: Sequence[Act], hands: Hands, suffered: Sequence[Sequence[Slip]]
) -> SlippedBoard:
    """Carry acts out by many hands, each with the slips it suffers.

    Raises
    ------
    NotDrawn
        Where an act stands on something no act before it has left.
    """
    board = SlippedBoard(hands, suffered=suffered)
    for act in acts:
        board.do(act)
    return board


def rounds_about(board: Board) -> Mapping[Key, list[DrawnRound]]:
    """Return the circles and swings that stand about each mark."""
    result: dict[Key, list[DrawnRound]] = {}
    for key, needle in board.needles.items():
        thing = board.things.get(key)
        if isinstance(thing, DrawnRound):
            result.setdefault(needle, []).append(thing)
    return result
