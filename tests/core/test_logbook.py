"""Measured against computed, and what sittings teach."""

import math
import statistics
from fractions import Fraction

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from desk import HEAD, solved
from entrick.core.acts.act import Swing
from entrick.core.board.kit import default_kit
from entrick.core.board.order import acts_of
from entrick.core.board.schedule import INSTRUMENT, MINUTES, SETTING, counted, scheduled
from entrick.core.desk import Work
from entrick.core.logbook.learning import learn
from entrick.core.logbook.measured import Verdict, judge
from entrick.core.logbook.sitting import Event, Sitting, effective
from entrick.core.logbook.taught import teach
from entrick.core.measure import Scale, Unit
from entrick.core.plan.errors import ClauseError
from entrick.core.rehearsal.hand import Hand

ROWS = "A = point, 60 right of O\nbig = circle, centre O, radius 44\nsmall = circle, centre A, radius 17\n"
DONE = solved(ROWS, HEAD.replace("1:1", "1:2"))


def said(done: Work, name: str, measured: Fraction) -> Verdict:
    step = next(step for step in done.steps if step.name == name and step.setting)
    return judge(measured, step, done.steps, done.kit, done.sheet.scale, done.solution.unit)


@pytest.mark.parametrize(
    ("measured", "judged", "slip"),
    [
        ("44", "line", ""),
        ("44.6", "line", ""),
        ("22", "line", ""),
        ("88", "slip", "the diameter was set for the radius"),
        ("88", "slip", "the scale was forgotten"),
        ("64", "slip", "one too far"),
        ("24", "slip", "one too short"),
        ("440", "slip", "a decimal place too far"),
        ("60", "slip", "the size of a neighbour"),
        ("54.6", "slip", ""),
    ],
)
def test_a_measured_value_is_judged_and_the_slip_is_named(
    measured: str, judged: str, slip: str
) -> None:
    """R44 at 1:2 is set at 22 mm and asked across: 44; Ø and scale give the same number here, and both are named."""
    found = said(DONE, "big", Fraction(measured))
    assert found.judged == judged
    assert any(slip in told for told in found.slips) if slip else not found.slips


def test_what_a_hand_usually_misses_is_no_slip() -> None:
    found = said(solved("A = point, 60 right of O\n"), "A", Fraction(6034, 100))
    assert found.judged == "line"
    assert said(solved("A = point, 60 right of O\n"), "A", Fraction(6040, 100)).judged == "hand"
    assert said(solved("A = point, 60 right of O\n"), "A", Fraction(6050, 100)).judged == "slip"
    angle = solved("l = line, through O, at 37°\n")
    assert said(angle, "l", Fraction(374, 10)).judged == "hand"
    assert said(angle, "l", Fraction(53)).slips == (
        "counted from the plumb line instead of the level one",
    )
    assert said(angle, "l", Fraction(143)).slips == (
        "read from the other end of the protractor: 180° less the angle",
    )


@given(st.floats(-3, 3))
def test_the_right_value_and_what_hides_under_the_line_is_never_a_slip(share: float) -> None:
    for step in DONE.steps:
        if step.setting and not step.setting.is_angle:
            across = 2 if step.is_across else 1
            measured = across * Fraction(step.setting.drawn + share / 10)
            found = judge(
                measured, step, DONE.steps, DONE.kit, DONE.sheet.scale, DONE.solution.unit
            )
            assert found.judged != "slip"
            assert found.off == pytest.approx(share / 10)


def test_a_step_that_sets_nothing_cannot_be_measured_back() -> None:
    line = solved(ROWS + "l = line, from O to A\nM = midpoint, between O and A\n")
    step = next(step for step in line.steps if step.setting is None)
    with pytest.raises(ClauseError, match="sets nothing"):
        judge(Fraction(1), step, DONE.steps, default_kit(Unit.MM), Scale(), Unit.MM)


def test_what_was_taken_back_is_left_out_and_stays_where_it_is() -> None:
    events = (
        Event(1, "done", 1, "compass", 40.0),
        Event(2, "slip", 1, text="too wide"),
        Event(3, "undone", of=2),
    )
    assert [event.number for event in effective(events)] == [1]
    assert learn([Sitting(1, 1, events)]).slips == ()


@given(st.floats(-0.5, 0.5), st.floats(0.05, 0.4), st.integers(0, 10_000))
def test_bias_and_spread_are_found_again_within_the_stated_interval(
    bias: float, spread: float, seed: int
) -> None:
    """Made by a generator whose bias and spread are known; over forty sittings an interval of 95 % may miss some."""
    random = np.random.default_rng(seed)
    held = {"bias": 0, "spread": 0}
    for _ in range(40):
        values = random.normal(bias, math.hypot(spread, Hand().measuring), 25)
        events = tuple(
            Event(n, "measured", n, "compass", off=float(v)) for n, v in enumerate(values, 1)
        )
        (found,) = learn([Sitting(1, 1, events)]).spreads
        held["bias"] += abs(found.bias - bias) <= found.bias_off
        held["spread"] += found.low <= spread <= found.high
        assert found.low <= found.spread <= found.high
        told = {unit: found.hint(unit) for unit in Unit}
        assert bool(told[Unit.MM]) == (abs(found.bias) > found.bias_off)
        assert "in" not in told[Unit.MM].split()
        assert "mm" not in told[Unit.INCH].split()
    # 40 draws of 0.95: fewer than 29 happen less often than once in a million (binomial); slips that were left out as
    # too far off narrow an interval a little.
    assert min(held.values()) >= 29


def test_minutes_are_medians_and_a_step_left_lying_does_not_count() -> None:
    seconds = [30.0, 40.0, 50.0, 9000.0]
    events = tuple(Event(n, "done", n, "compass", s) for n, s in enumerate(seconds, 1))
    assert learn([Sitting(1, 1, events)]).seconds == {"compass": (40.0, 3)}
    assert learn([]).seconds == {}
    assert math.isfinite(learn([Sitting(1, 1, events)]).seconds["compass"][0])


def steps_of(seconds: list[float], tool: str = "compass") -> Sitting:
    return Sitting(
        1, 1, tuple(Event(n, "done", n, tool, took) for n, took in enumerate(seconds, 1))
    )


def test_a_correction_counts_and_what_was_taken_back_may_be_put_back() -> None:
    events = [
        Event(1, "done", 0, "rule", 30.0),
        Event(2, "slip", 0, "rule", text="x"),
        Event(3, "corrected", 0, "rule", 12.0, of=1),
        Event(4, "undone", of=2),
        Event(5, "undone", of=4),
        Event(6, "corrected", 0, "rule", 15.0, of=1),
    ]
    assert [(e.number, e.seconds, e.text) for e in effective(events)] == [
        (1, 15.0, ""),
        (2, 0.0, "x"),
    ]
    # Taking the last correction back leaves the one before it; with both back, it is as it was recorded.
    assert effective([*events, Event(7, "undone", of=6)])[0].seconds == 12.0
    assert (
        effective([*events, Event(7, "undone", of=6), Event(8, "undone", of=3)])[0].seconds == 30.0
    )
    assert [e.number for e in effective([*events, Event(7, "undone", of=5)])] == [1]


@given(st.lists(st.floats(1, 500), min_size=5, max_size=30))
def test_minutes_of_an_order_follow_the_own_pace_and_what_it_saves_stays(
    seconds: list[float],
) -> None:
    """Where every step of a group takes the median, the whole does: median against the plan's median guess."""
    taught = teach([steps_of(seconds)])
    assert taught.pace == {"compass": pytest.approx(float(np.median(seconds)) / 60)}
    done = solved(
        "A = point, 60 right of O\n"
        + "".join(f"c{n} = circle, centre A, radius {n + 40}\n" for n in range(6))
    )
    acts = [act for own in acts_of(done.solution, done.sheet) for act in own.acts]
    orders = {how: scheduled(acts, how) for how in ("written", "settings", "clean")}
    for order in orders.values():
        guess, own = counted(acts, order), counted(acts, order, taught.pace)
        assert (own.settings, own.changes) == (guess.settings, guess.changes)
    swings = [act for act in acts if isinstance(act, Swing)]
    times = taught.pace["compass"] / statistics.median([MINUTES[Swing] + SETTING] * len(swings))
    rest = counted(acts, orders["written"]).minutes - len(swings) * (MINUTES[Swing] + SETTING)
    found = counted(acts, orders["written"], taught.pace).minutes
    assert found == pytest.approx(
        rest + times * len(swings) * (MINUTES[Swing] + SETTING), abs=INSTRUMENT * times + 0.2
    )


def test_too_few_steps_or_values_change_nothing() -> None:
    assert teach([steps_of([30.0] * 4)]).pace == {}
    few = Sitting(1, 1, tuple(Event(n, "measured", n, "compass", off=0.5) for n in range(1, 8)))
    assert teach([few]).hand == Hand()


@given(st.floats(-0.5, 0.5), st.floats(0.05, 0.6), st.integers(0, 2**31))
def test_the_hand_of_the_rehearsal_is_that_of_the_values(
    bias: float, spread: float, seed: int
) -> None:
    read = math.hypot(spread, Hand().measuring)
    offs = np.random.default_rng(seed).normal(bias, read, 4000)
    own = teach(
        [
            Sitting(
                1,
                1,
                tuple(
                    Event(n, "measured", n, "compass", off=float(off))
                    for n, off in enumerate(offs, 1)
                ),
            )
        ]
    )
    assert own.hand.opening == pytest.approx(spread, rel=0.1, abs=0.05)
    assert own.hand.opening_bias == pytest.approx(bias, abs=0.05)
    assert own.hand.needle == Hand().needle
    assert own.values.keys() == {"compass"}


def test_one_slip_does_not_make_the_hand() -> None:
    """Seven exact readings and one slip of 44: nobody is told to open the compass 16 mm off."""
    values = [0.0] * 7 + [44.0]
    events = [Event(n, "measured", n, "compass", off=off) for n, off in enumerate(values, 1)]
    (found,) = learn([Sitting(1, 1, tuple(events))]).spreads
    assert (found.count, found.spread, found.bias) == (7, 0.0, 0.0)
    # A slip that is small enough to be taken for the hand teaches nothing once it was named.
    named = [
        *events[:7],
        Event(8, "measured", 8, "compass", off=0.6),
        Event(9, "slip", 8, text="twice"),
    ]
    (found,) = learn([Sitting(1, 1, tuple(named))]).spreads
    assert found.count == 7
