"""What is asked sooner: every rule and every slip on a schedule of its own.

The schedule is published: P. Pimsleur, "A memory schedule", The Modern Language Journal 51 (1967),
pages 73 to 75: a thing is asked again after 5 seconds, 25 seconds, 2 minutes, 10 minutes, 1 hour, 5
hours, 1 day, 5 days, 25 days, 4 months and 2 years (values from memory). What is got wrong begins
again."""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from random import Random

from .question import Question

MINUTE, HOUR, DAY = 60.0, 3600.0, 86_400.0

INTERVALS = (
    5.0,
    25.0,
    2 * MINUTE,
    10 * MINUTE,
    HOUR,
    5 * HOUR,
    DAY,
    5 * DAY,
    25 * DAY,
    120 * DAY,
    730 * DAY,
)
"""Seconds after which a thing is asked again, each time it was known (Pimsleur 1967)."""


@dataclass(frozen=True, slots=True)
class Card:
    """How far something has got: how often in a row it was known, and when it is to be asked
    again."""

    rung: int = 0
    due: float = 0.0

    def after(self, right: bool, now: float) -> Card:
        """Return where it stands after it was asked."""
        rung = min(self.rung + 1, len(INTERVALS)) if right else 0
        return Card(rung, now + (INTERVALS[rung - 1] if rung else 0.0))


@dataclass(frozen=True, slots=True)
class Answered:
    """An answer that was given: what it tested, how much of it was right, which slips it showed,
    and when, seconds."""

    rule: str
    share: float
    slips: tuple[str, ...]
    at: float


def cards(history: Iterable[Answered]) -> dict[str, Card]:
    """Return where every rule stands after what was answered, and every slip that was made."""
    found: dict[str, Card] = {}
    for answer in sorted(history, key=lambda each: each.at):
        found[answer.rule] = found.get(answer.rule, Card()).after(answer.share >= 1, answer.at)
        for slip in answer.slips:
            found[slip] = Card().after(False, answer.at)
    return found


def chosen(
    questions: Sequence[Question],
    known: Mapping[str, Card],
    now: float,
    count: int,
    random: Random,
    spaced: bool = True,
) -> list[Question]:
    """Choose questions for a round: what is due first, the longest overdue before the rest; else by
    lot.

    Parameters
    ----------
    questions : sequence of Question
    known : mapping of str to Card
    now : float
        Seconds.
    count : int
    random : Random
    spaced : bool
        Whether the schedule decides, and not the lot alone.
    """
    pool = list(questions)
    random.shuffle(pool)
    if spaced:
        pool.sort(key=lambda question: _due(question, known, now))
    picked: list[Question] = []
    rules: dict[str, int] = {}
    # No rule fills the round alone as long as there are others.
    while pool and len(picked) < count:
        least = min(rules.get(question.rule, 0) for question in pool)
        question = next(each for each in pool if rules.get(each.rule, 0) == least)
        pool.remove(question)
        rules[question.rule] = least + 1
        picked.append(question)
    return picked


def _due(question: Question, known: Mapping[str, Card], now: float) -> float:
    """Return when a question is due: with its rule, or sooner with a slip that it could show again.

    What was never asked comes after what is overdue, and before what is not due yet.
    """
    times = [known[question.rule].due] if question.rule in known else [now]
    times += [known[slip.key].due for slip in question.slips if slip.key in known]
    return min(times)
