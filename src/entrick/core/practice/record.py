"""What practice has shown: which slips somebody makes, and what a slip at the board is called
here."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field

from .question import Slip
from .spacing import Answered
from .standing import by_slip

SHARE = 5
"""Chances the table of weights counts for beside one's own (common practice, no source)."""

HEAVIEST = 6
"""Weight of a slip that is always with us."""

AT_THE_BOARD = (
    ("the diameter was set", "diameter for radius"),
    ("the radius was set", "radius for diameter"),
    ("the scale was forgotten", "scale forgotten"),
    ("the scale was taken twice", "scale twice"),
    ("read from the wrong", "a main mark out"),
    ("a decimal place", "point slipped"),
    ("inches taken", "mm for inch"),
    ("millimetres taken", "mm for inch"),
    ("the size of a neighbour", "a neighbour's circle"),
    ("counted from the plumb", "complement"),
    ("read from the other end", "square turned over"),
)
"""How slips noted at the board begin, and what they are called in practice."""


@dataclass(frozen=True, slots=True)
class Learner:
    """How often somebody makes each slip, of how many chances; the last count most."""

    times: Mapping[str, float] = field(default_factory=dict)
    chances: Mapping[str, float] = field(default_factory=dict)

    def weight(self, slip: Slip) -> float:
        """Return how likely a slip is: one's own share of the chances, leaning on the table while
        there are few."""
        own, chances = self.times.get(slip.key, 0), self.chances.get(slip.key, 0)
        return (own + SHARE * slip.weight / HEAVIEST) / (chances + SHARE)


def called_in_practice(told: str) -> str:
    """Return what a slip noted at the board is called; empty where it is none of those practice
    knows."""
    return next((key for begins, key in AT_THE_BOARD if told.startswith(begins)), "")


def learner(history: Sequence[Answered]) -> Learner:
    """Return how often every slip is made, of how many chances."""
    shares = by_slip(history)
    return Learner(
        {slip: own.share * own.weighs for slip, own in shares.items()},
        {slip: own.weighs for slip, own in shares.items()},
    )
