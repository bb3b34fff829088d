"""What practice has shown: how every rule stands, which slips are made, and what a slip at the
board is called here."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, field

from .question import RULES, Slip
from .spacing import Answered, Card, cards

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
class Standing:
    """How a rule stands: how often it was asked, the share that was right, when it is due,
    seconds."""

    rule: str
    told: str
    asked: int
    share: float
    due: float


@dataclass(frozen=True, slots=True)
class Learner:
    """How often somebody made each slip, and had the chance to."""

    times: Mapping[str, int] = field(default_factory=dict)
    chances: Mapping[str, int] = field(default_factory=dict)

    def weight(self, slip: Slip) -> float:
        """Return how likely a slip is: one's own share of the chances, leaning on the table while
        there are few."""
        own, chances = self.times.get(slip.key, 0), self.chances.get(slip.key, 0)
        return (own + SHARE * slip.weight / HEAVIEST) / (chances + SHARE)


def called_in_practice(told: str) -> str:
    """Return what a slip noted at the board is called; empty where it is none of those practice
    knows."""
    return next((key for begins, key in AT_THE_BOARD if told.startswith(begins)), "")


def standings(history: Sequence[Answered]) -> tuple[Standing, ...]:
    """Return how every rule that was asked stands, the worst first."""
    known = cards(history)
    shares: dict[str, list[float]] = {}
    for answer in history:
        shares.setdefault(answer.rule, []).append(answer.share)
    found = [
        Standing(rule, RULES.get(rule, rule), len(own), sum(own) / len(own), known[rule].due)
        for rule, own in shares.items()
    ]
    return tuple(sorted(found, key=lambda each: (each.share, each.rule)))


def learner(history: Iterable[Answered], chances: Iterable[Iterable[str]]) -> Learner:
    """Return how often every slip was made, of how many chances."""
    times = Counter(slip for answer in history for slip in answer.slips)
    return Learner(dict(times), dict(Counter(slip for own in chances for slip in own)))


def with_board(history: Sequence[Answered], slips: Iterable[tuple[str, float]]) -> dict[str, Card]:
    """Return what is due after practice and after slips at the board, each with when it was made,
    seconds."""
    found = cards(history)
    for told, at in slips:
        key = called_in_practice(told)
        if key:
            found[key] = Card(0, at)
    return found
