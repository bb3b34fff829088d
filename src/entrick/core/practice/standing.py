"""How rules stand, and how often slips are made: the last answers count most."""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass

from .question import RULES
from .spacing import Answered

HALF_LIFE = 15
"""Answers after which one counts half as much (by eye, no source)."""

FADES = 0.5 ** (1 / HALF_LIFE)

MASTERED = 0.1
"""A slip that is made less often than this, of its chances, has left (by eye, no source)."""

BEFORE = 1
"""Answers a share leans on while there are few of one's own (by eye, no source)."""

USUALLY_RIGHT, USUALLY_SLIPS = 0.6, 0.1
"""Shares of those: of right answers, and of a slip among its chances (by eye, no source)."""

SURE = 0.9
"""How sure the bounds of a standing are."""


@dataclass(frozen=True, slots=True)
class Share:
    """A share of answers, the last counting most, leaning a little on what is usual.

    Attributes
    ----------
    share : float
    weighs : float
        How many answers of equal weight it rests on.
    low, high : float
        Bounds between which it lies in nine of ten cases: those of a beta distribution with half
        an answer each way before (Jeffreys).
    """

    share: float
    weighs: float
    low: float
    high: float


@dataclass(frozen=True, slots=True)
class Standing:
    """How a rule stands: how often it was asked, the share that was right and what it rests on,
    when it is due, seconds."""

    rule: str
    told: str
    asked: int
    share: float
    weighs: float
    low: float
    high: float
    due: float


def share_of(shares: Sequence[float], usually: float) -> Share:
    """Return the share of a row of answers, the oldest first.

    Parameters
    ----------
    shares : sequence of float
        Of each answer, what was right, 0 to 1; not empty.
    usually : float
        What is usual where nothing is known yet.
    """
    # Only who looks at a record waits for it.
    from scipy.special import betaincinv  # type: ignore[import-untyped]

    total = squares = right = 0.0
    for own in shares:
        total, squares = total * FADES + 1, squares * FADES**2 + 1
        right = right * FADES + own
    share = (right + BEFORE * usually) / (total + BEFORE)
    weighs = total * total / squares
    ends = ((1 - SURE) / 2, (1 + SURE) / 2)
    half = 1 / 2
    low, high = (betaincinv(share * weighs + half, (1 - share) * weighs + half, p) for p in ends)
    return Share(share, weighs, float(low), float(high))


def by_rule(history: Iterable[Answered]) -> dict[str, Share]:
    """Return how every rule that was asked stands."""
    rows: dict[str, list[float]] = {}
    for answer in history:
        rows.setdefault(answer.rule, []).append(answer.share)
    return {rule: share_of(own, USUALLY_RIGHT) for rule, own in rows.items()}


def by_slip(history: Iterable[Answered]) -> dict[str, Share]:
    """Return how often every slip that was ever made is made, of its chances."""
    rows: dict[str, list[float]] = {}
    for answer in history:
        for slip in {*answer.slips, *answer.chances}:
            rows.setdefault(slip, []).append(float(slip in answer.slips))
    return {slip: share_of(own, USUALLY_SLIPS) for slip, own in rows.items() if any(own)}


def standings(history: Sequence[Answered], due: Mapping[str, float]) -> tuple[Standing, ...]:
    """Return how every rule that was asked stands, the worst first."""
    counts: dict[str, int] = {}
    for answer in history:
        counts[answer.rule] = counts.get(answer.rule, 0) + 1
    found = [
        Standing(
            rule,
            RULES.get(rule, rule),
            counts[rule],
            own.share,
            own.weighs,
            own.low,
            own.high,
            due.get(rule, 0.0),
        )
        for rule, own in by_rule(history).items()
    ]
    return tuple(sorted(found, key=lambda each: (each.share, each.rule)))
