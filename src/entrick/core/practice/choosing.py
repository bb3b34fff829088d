"""Which question comes next: chosen after each answer."""

from __future__ import annotations

from collections import Counter
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from random import Random

from .question import Question
from .spacing import Answered
from .standing import MASTERED, by_rule, by_slip

COMES_BACK = (2, 5)
"""What was wrong is asked again after so many others, and when it was right then after so many
more."""

OF_TEN, AMONG = 4, 10
"""At most so many of ten questions in a row are about one rule, as long as there are others."""

NOT_AGAIN = 3
"""A question is not asked again before so many others, but for what comes back."""

LEAST = 0.05
"""What the lot weighs a rule that stands without a fault (by eye, no source)."""

WRONG = 5
"""What it weighs the share that is wrong."""

UNKNOWN = 0.4
"""What counts as the share that is wrong of one that was never asked."""

OVERDUE = 0.15
"""What it weighs one more that is due."""


@dataclass(frozen=True, slots=True)
class Return:
    """Something that was wrong and comes back: after how many others, and which time."""

    answer: Answered
    wait: int
    turn: int = 0

    def is_about(self, answer: Answered) -> bool:
        """Tell whether an answer is about the same."""
        if self.answer.key and answer.key:
            return self.answer.key == answer.key
        return self.answer.rule == answer.rule


def returns(history: Sequence[Answered]) -> tuple[Return, ...]:
    """Return what was wrong and is still to come back, the longest due first.

    Parameters
    ----------
    history : sequence of Answered
        In order.
    """
    coming: list[Return] = []
    for answer in history:
        own = next((each for each in coming if each.is_about(answer)), None)
        coming = [replace(each, wait=each.wait - 1) for each in coming if each is not own]
        if answer.share < 1 / 2:
            coming.append(Return(answer, COMES_BACK[0]))
        elif own is not None and own.turn + 1 < len(COMES_BACK):
            coming.append(replace(own, wait=COMES_BACK[own.turn + 1], turn=own.turn + 1))
    return tuple(sorted(coming, key=lambda each: each.wait))


@dataclass(frozen=True, slots=True)
class Next:
    """The question that comes next, and whether it comes back because it was wrong."""

    question: Question
    again: bool = False


def next_question(
    pool: Sequence[Question],
    history: Sequence[Answered],
    due: Mapping[str, float],
    now: float,
    random: Random,
    asked: int = AMONG,
) -> Next:
    """Choose the question that comes next.

    What was wrong comes back after two and after five others; else the lot decides, and weighs a
    rule by what is wrong with it, more where it is due, and among its questions those that could
    show a slip that is still made.

    Parameters
    ----------
    pool : sequence of Question
        Not empty.
    history : sequence of Answered
        All that was answered, in order.
    due : mapping of str to float
        When rules and slips are due, seconds.
    now : float
        Seconds.
    random : Random
    asked : int
        How many of the last answers belong to this round.
    """
    lately = history[len(history) - min(asked, AMONG - 1) :]
    rules = Counter(answer.rule for answer in lately)
    allowed = [each for each in pool if rules[each.rule] < OF_TEN] or list(pool)
    coming = returns(history[-2 * AMONG :])
    for each in coming:
        found = _like(allowed, each.answer) if each.wait <= 0 else None
        if found is not None:
            return Next(found, again=True)
    # What is on its way back is not asked before its time, and has its place kept.
    for each in coming:
        rules[each.answer.rule] += len(COMES_BACK) - each.turn
    keys = {answer.key for answer in lately[-NOT_AGAIN:]}
    keys |= {each.answer.key for each in coming}
    others = [each for each in allowed if each.key not in keys]
    fresh = [each for each in others if rules[each.rule] < OF_TEN] or others or allowed
    weights = _weights(fresh, history, due, now)
    return Next(random.choices(fresh, weights)[0])


def by_lot(
    pool: Sequence[Question],
    history: Sequence[Answered],
    due: Mapping[str, float],
    now: float,
    random: Random,
    asked: int = AMONG,
) -> Next:
    """Choose the question that comes next by lot alone, of a rule that was asked least in this
    round."""
    round_ = history[len(history) - asked :] if asked else ()
    rules, keys = Counter(answer.rule for answer in round_), {answer.key for answer in round_}
    fresh = [each for each in pool if each.key not in keys] or list(pool)
    least = min(rules[each.rule] for each in fresh)
    return Next(random.choice([each for each in fresh if rules[each.rule] == least]))


def _like(pool: Sequence[Question], answer: Answered) -> Question | None:
    """Return the question that was wrong, else one that may show the same slip, else one of the
    same rule; None where there is none."""
    same = next((each for each in pool if each.key == answer.key), None)
    if same is not None:
        return same
    alike = [each for each in pool if each.rule == answer.rule]
    slips = set(answer.slips)
    return next(
        (each for each in alike if slips & {slip.key for slip in each.slips}),
        alike[0] if alike else None,
    )


def _weights(
    pool: Sequence[Question], history: Sequence[Answered], due: Mapping[str, float], now: float
) -> list[float]:
    """Return what the lot weighs every question."""
    rules, slips = by_rule(history), by_slip(history)
    count = Counter(each.rule for each in pool)

    def own(question: Question) -> float:
        rule = rules.get(question.rule)
        wrong = UNKNOWN if rule is None else 1 - rule.share
        keys = {slip.key for slip in question.slips}
        made = [slips[key].share for key in keys if key in slips]
        worst = max((share for share in made if share > MASTERED), default=0.0)
        late = any(due.get(key, now + 1) <= now for key in (question.rule, *keys))
        # However many questions of a rule there are, the rule is weighed once.
        return (LEAST + WRONG * wrong + worst + late * OVERDUE) / count[question.rule]

    return [own(question) for question in pool]
