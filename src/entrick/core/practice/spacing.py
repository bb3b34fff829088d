"""When a rule, or a slip, is to be asked again: a schedule that learns from how each answer went.

The schedule is that of the library ``fsrs``, an open scheduler for spaced repetition, with its own
default weights: what was known is asked again when nine in ten would still know it, and what was
not is begun again, after a minute and after ten."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from datetime import UTC, datetime

from fsrs import Card as Scheduled
from fsrs import Rating, Scheduler

LOOKED_BACK = 500
"""Answers the schedule goes by, the last ones."""

_SCHEDULER = Scheduler(enable_fuzzing=False)


@dataclass(frozen=True, slots=True)
class Answered:
    """An answer that was given.

    Attributes
    ----------
    rule : str
        What it tested.
    share : float
        How much of it was right, 0 to 1.
    slips : tuple of str
        Which it showed.
    at : float
        When, seconds.
    chances : tuple of str
        Which slips it might have shown.
    key : str
        Of the question; empty where it is not known any more.
    """

    rule: str
    share: float
    slips: tuple[str, ...]
    at: float
    chances: tuple[str, ...] = ()
    key: str = ""


def due_times(
    history: Iterable[Answered], noted: Iterable[tuple[str, float]] = ()
) -> dict[str, float]:
    """Return when every rule that was asked is due again, and every slip that was ever made.

    A slip recovers as a rule does: an answer that might have shown it, and did not, was known.

    Parameters
    ----------
    history : iterable of Answered
    noted : iterable of tuple of str and float
        Slips noted at the board, and when, seconds.

    Returns
    -------
    dict of str to float
        By rule and by slip, seconds.
    """
    cards: dict[str, Scheduled] = {}
    ordered = sorted(history, key=lambda each: each.at)[-LOOKED_BACK:]
    for answer in ordered:
        _review(cards, answer.rule, _rating(answer.share), answer.at)
        for slip in answer.slips:
            _review(cards, slip, Rating.Again, answer.at)
        for slip in answer.chances:
            if slip in cards and slip not in answer.slips:
                _review(cards, slip, Rating.Good, answer.at)
    due = {key: card.due.timestamp() for key, card in cards.items()}
    for slip, at in noted:
        due[slip] = min(at, due.get(slip, at))
    return due


def _rating(share: float) -> Rating:
    """Return how well something was known: a hint, or a slip of the eye, is *with effort*."""
    if share >= 1:
        return Rating.Good
    return Rating.Hard if share >= 1 / 2 else Rating.Again


def _review(cards: dict[str, Scheduled], key: str, rating: Rating, at: float) -> None:
    when = datetime.fromtimestamp(at, UTC)
    # A card's own number is the time it was made, which it waits for; none of ours is looked at.
    card = cards.get(key) or Scheduled(card_id=0, due=when)
    cards[key] = _SCHEDULER.review_card(card, rating, when)[0]
