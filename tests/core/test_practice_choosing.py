"""Which question comes next: simulated learners whose weaknesses are known."""

from collections.abc import Callable, Iterator, Sequence
from functools import lru_cache
from itertools import pairwise
from random import Random

import pytest
from hypothesis import given
from hypothesis import strategies as st

from entrick.core.desk import work_out
from entrick.core.practice.ask import questions
from entrick.core.practice.choosing import by_lot, next_question
from entrick.core.practice.question import RULES, Question
from entrick.core.practice.record import learner
from entrick.core.practice.spacing import Answered, due_times
from entrick.core.practice.standing import MASTERED, by_rule, by_slip, share_of, standings
from entrick.demo import sample_plans
from examples import some

LINK, WHEEL = (
    next(text for name, text in sample_plans().items() if number in name)
    for number in ("OY-014", "OY-036")
)
DAY = 86_400.0
EACH = 10
"""Questions of a round; there is one a day."""

Slips = dict[str, float]


@lru_cache
def pool_of(text: str) -> tuple[Question, ...]:
    return questions(work_out(text))


def learnt(
    pool: Sequence[Question],
    knows: Callable[[Question], float],
    count: int,
    seed: int,
    choose: Callable[..., object] = next_question,
) -> list[Answered]:
    """Return what a learner answered who knows every question with a probability; of what is wrong, its first slip."""
    random, history, at = Random(seed), list[Answered](), 0.0
    for number in range(count):
        asked = number % EACH
        due = due_times(history) if choose is next_question else {}
        found = choose(pool, history, due, at, random, asked)
        question: Question = found.question  # type: ignore[attr-defined]
        right = random.random() < knows(question)
        chances = tuple(dict.fromkeys(slip.key for slip in question.slips))
        at += 20 if asked < EACH - 1 else DAY
        slips = () if right else chances[:1]
        history.append(Answered(question.rule, float(right), slips, at, chances, question.key))
    return history


@pytest.mark.parametrize("text", [LINK, WHEEL])
def test_a_weakness_is_asked_more_often_and_known_as_it_is(text: str) -> None:
    """By lot every rule is asked as often as another. Over sixty answers; means of several learners."""
    pool = pool_of(text)
    all_told = []
    for weak in some(sorted({question.rule for question in pool}), 4):
        told, often, lots = list[float](), 0, 0
        for seed in range(8):

            def knows(question: Question, weak: str = weak) -> float:
                return 0.4 if question.rule == weak else 0.95

            history = learnt(pool, knows, 60, seed)
            often += sum(answer.rule == weak for answer in history)
            lots += sum(answer.rule == weak for answer in learnt(pool, knows, 60, seed, by_lot))
            told += [share.share for rule, share in by_rule(history).items() if rule == weak]
        assert often >= 1.7 * lots, weak
        all_told += told
    assert sum(all_told) / len(all_told) == pytest.approx(0.4, abs=0.1)


def test_one_who_has_learnt_stands_as_he_is_now() -> None:
    """Told 0.66 where 0.92 is true, a share of all answers ever would be."""
    told = []
    for seed in range(20):
        random = Random(seed)
        early = [float(random.random() < 0.4) for _ in range(30)]
        told.append(share_of([*early, *(float(random.random() < 0.92) for _ in range(60))], 0.7))
    assert sum(each.share for each in told) / len(told) == pytest.approx(0.92, abs=0.1)
    assert sum(each.low <= 0.92 <= each.high for each in told) >= 14
    assert all(15 < each.weighs < 60 for each in told)


def test_what_is_mastered_leaves_and_is_not_due() -> None:
    slip = "diameter for radius"
    early = [Answered("radius", 0.0, (slip,), DAY * n, (slip,)) for n in range(6)]
    assert by_slip(early)[slip].share > 0.5
    assert due_times(early)[slip] <= 6 * DAY
    known = [*early, *(Answered("radius", 1.0, (), DAY * n, (slip,)) for n in range(6, 65))]
    assert by_slip(known)[slip].share <= MASTERED
    due = due_times(known)
    assert due[slip] > 66 * DAY
    assert due["radius"] > 66 * DAY
    assert learner(known).times[slip] < 0.1 * learner(known).chances[slip]


def gaps(history: Sequence[Answered], key: str) -> Iterator[int]:
    """Yield how many others were asked between what was asked under a key, and that again."""
    places = [n for n, answer in enumerate(history) if answer.key == key]
    yield from (b - a - 1 for a, b in pairwise(places))


@given(st.integers(0, 10**6), st.integers(0, 30))
def test_what_was_wrong_comes_after_two_and_after_five_others(seed: int, first: int) -> None:
    """One question is wrong once: it is asked again twice, and then left."""
    random, history = Random(seed), list[Answered]()
    pool = pool_of(LINK)
    wrong = pool[first % len(pool)]
    history.append(Answered(wrong.rule, 0.0, (), 0.0, (), wrong.key))
    for number in range(1, 12):
        question = next_question(pool, history, {}, 0.0, random, number).question
        history.append(Answered(question.rule, 1.0, (), 0.0, (), question.key))
    assert list(gaps(history, wrong.key)) == [2, 5]


@given(st.integers(0, 10**6), st.floats(0, 1))
def test_no_rule_has_more_than_four_of_ten(seed: int, knows: float) -> None:
    history = learnt(pool_of(LINK), lambda _: knows, 30, seed)
    for start in range(0, 30, EACH):
        rules = [answer.rule for answer in history[start : start + EACH]]
        assert max(map(rules.count, rules)) <= 4


@given(st.lists(st.tuples(st.sampled_from(sorted(RULES)), st.booleans()), min_size=1, max_size=40))
def test_standings_say_the_worst_first_and_what_they_rest_on(
    rows: list[tuple[str, bool]],
) -> None:
    history = [Answered(rule, float(right), (), float(at)) for at, (rule, right) in enumerate(rows)]
    found = standings(history, due_times(history))
    assert [each.share for each in found] == sorted(each.share for each in found)
    for each in found:
        assert each.low <= each.high
        assert 1 <= each.weighs <= each.asked + 1e-9
        assert each.due > 0
    assert sum(each.asked for each in found) == len(rows)


def test_slips_at_the_board_are_due_at_once() -> None:
    assert due_times([], [("scale twice", 7.0)]) == {"scale twice": 7.0}
