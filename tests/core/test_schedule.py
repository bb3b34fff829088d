"""Orders of work: what must wait waits, nothing is lost, and the fewest settings are near the fewest there can be."""

import sys
from functools import cache
from pathlib import Path
from random import Random

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from scipy.optimize import Bounds, LinearConstraint, milp

import parts
from desk import HEAD
from entrick.core.acts.act import Act, GoOver
from entrick.core.board.economy import acts_at_board
from entrick.core.board.order import acts_of
from entrick.core.board.schedule import (
    MINUTES,
    Schedule,
    Stand,
    counted,
    needs,
    scheduled,
    waits_for,
)
from entrick.core.desk import work_out
from entrick.core.geometry import Line
from entrick.core.rehearsal.carry_out import carry_out, miss_of
from entrick.core.rehearsal.hand import NONE
from entrick.core.rehearsal.many import Hands
from entrick.demo import sample_plans
from examples import some


def every_act(text: str) -> list[Act]:
    done = work_out(text)
    return [act for own in acts_of(done.solution, done.sheet) for act in own.acts]


@pytest.mark.parametrize("how", ["settings", "clean"])
@pytest.mark.parametrize("text", some(sorted(sample_plans().values()), 9))
def test_every_schedule_does_everything_once_and_ends_in_the_figure(
    text: str, how: Schedule
) -> None:
    acts = every_act(text)
    order = scheduled(acts, how)
    assert sorted(order) == list(range(len(acts)))
    waiting = waits_for(acts)
    place = {index: at for at, index in enumerate(order)}
    assert all(place[before] < place[index] for index, own in enumerate(waiting) for before in own)
    board = carry_out([acts[index] for index in order], Hands(NONE, 1, 0, 1.0))
    assert (
        max((float(off[0]) for act in acts for off in miss_of(board, act).values()), default=0.0)
        < 1.0
    )
    if how == "settings":
        written = counted(acts, range(len(acts)))
        assert counted(acts, order).minutes <= written.minutes + 1e-9


def test_with_clean_hands_arcs_are_lined_in_before_straights() -> None:
    acts = every_act(sample_plans()["OY-052-tool-block.entrick"])
    gone = [act for act in (acts[i] for i in scheduled(acts, "clean")) if isinstance(act, GoOver)]
    straight = [all(isinstance(piece.planned, Line) for piece in act.pieces) for act in gone]
    assert straight == sorted(straight)


def fewest(acts: list[Act]) -> float:
    """Return the least minutes any order takes: acts to places by a general solver (HiGHS through SciPy)."""
    n = len(acts)
    wanted, waiting = [needs(act) for act in acts], waits_for(acts)
    stands = [Stand(), *dict.fromkeys(w for w in wanted if w is not None)]
    index = {stand: number for number, stand in enumerate(stands)}
    m = len(stands)

    # Variables: x[i, t] act i at place t; s[t, k] the board stands so after place t; y[t, k, l] it went from k to l.
    def x(i: int, t: int) -> int:
        return i * n + t

    def s(t: int, k: int) -> int:
        return n * n + t * m + k

    def y(t: int, k: int, j: int) -> int:
        return n * n + n * m + (t * m + k) * m + j

    size = n * n + n * m + n * m * m
    cost = np.zeros(size)
    for t in range(n):
        for k in range(m):
            for j in range(m):
                cost[y(t, k, j)] = 0.0 if k == j else stands[k].to(stands[j])
    rows, low, high = [], [], []

    def add(terms: list[tuple[int, float]], least: float, most: float) -> None:
        row = np.zeros(size)
        for column, factor in terms:
            row[column] += factor
        rows.append(row)
        low.append(least)
        high.append(most)

    for i in range(n):
        add([(x(i, t), 1) for t in range(n)], 1, 1)
        add([(x(t, i), 1) for t in range(n)], 1, 1)
        for before in waiting[i]:
            add([*((x(i, t), t) for t in range(n)), *((x(before, t), -t) for t in range(n))], 1, n)
    for t in range(n):
        add([(s(t, k), 1) for k in range(m)], 1, 1)
        for i, need in enumerate(wanted):
            if need is not None:
                add([(s(t, index[need]), 1), (x(i, t), -1)], 0, 1)
        for k in range(m):
            before = [(s(t - 1, k), -1.0)] if t else []
            add(
                [*((y(t, k, j), 1.0) for j in range(m)), *before],
                *((0, 0) if t else (float(k == 0), float(k == 0))),
            )
            add([*((y(t, j, k), 1.0) for j in range(m)), (s(t, k), -1)], 0, 0)
    found = milp(
        cost,
        constraints=LinearConstraint(np.array(rows), low, high),
        integrality=np.ones(size),
        bounds=Bounds(0, 1),
    )
    assert found.success
    return float(found.fun) + sum(MINUTES.get(type(act), 0.0) for act in acts)


SMALL = (
    "A = point, 20 right of O\na = circle, centre O, radius 5\nb = circle, centre A, radius 8\nc = circle, centre A, radius 5\n",
    "A = point, 20 right of O\na = circle, centre O, radius 5\nl = line, through O, at 30°\nm = line, through A, at 30°\n"
    "b = circle, centre A, radius 5\n",
    "A = point, 20 right of O, 5 above\nB = point, 30 right of O\na = circle, centre A, radius 7\nb = circle, centre B, radius 7\n",
)


@pytest.mark.parametrize("rows", SMALL)
def test_fewest_settings_comes_within_five_in_a_hundred_of_the_proven_best(rows: str) -> None:
    acts = every_act(HEAD + rows)
    assert len(acts) <= 11
    assert counted(acts, scheduled(acts, "settings")).minutes <= 1.05 * fewest(acts)


@given(st.integers(0, 2**32))
def test_a_random_plan_is_scheduled_whole(seed: int) -> None:
    sys.path.insert(0, str(Path(__file__).parents[1] / "fuzz"))
    from grammar import Writer

    acts = every_act(Writer(Random(seed)).plan())
    for how in ("settings", "clean"):
        order = scheduled(acts, how)
        place = {index: at for at, index in enumerate(order)}
        assert all(
            place[before] < place[index]
            for index, own in enumerate(waits_for(acts))
            for before in own
        )


def test_ones_own_pace_is_counted_also_where_most_steps_are_guessed_to_take_no_time() -> None:
    """A plan so small that half its steps are free, by a hand whose every instrument is known."""
    acts = every_act(
        HEAD
        + "c = circle, centre O, radius 9\nd = slot, from O, 40 long, width 10\nrim = line in, c\n"
    )
    tools = (
        "pencil",
        "compass",
        "rule",
        "square",
        "dividers",
        "protractor",
        "curve",
        "straightedge",
    )
    for size in range(len(acts) + 1):
        assert counted(acts[:size], list(range(size)), dict.fromkeys(tools, 0.5)).minutes >= 0


def least(acts: list[Act]) -> float:
    """Return the least minutes of any order, by going through every set of acts that may be done first."""
    wanted, waiting = [needs(act) for act in acts], waits_for(acts)

    @cache
    def rest(done: frozenset[int], stand: Stand) -> float:
        ready = [i for i in range(len(acts)) if i not in done and waiting[i] <= done]
        costs = [stand.to(wanted[i]) + rest(done | {i}, wanted[i] or stand) for i in ready]
        return min(costs, default=0.0)

    return rest(frozenset(), Stand()) + sum(MINUTES.get(type(act), 0.0) for act in acts)


@given(st.integers(0, 400), st.integers(5, 12))
def test_fewest_settings_is_the_best_there_is_for_a_few_acts(seed: int, count: int) -> None:
    done = work_out(HEAD + parts.part(seed)[0])
    every = [each for own in acts_at_board(done.solution, done.sheet) for each in own.acts]
    acts = every[:count]
    assert counted(acts, scheduled(acts, "settings")).minutes <= 1.05 * least(acts) + 1e-9
