"""Slips carried out, one for each hand: what stands on a slip follows it, what does not stays; measured places and
sizes name it; lines and circles are fitted as a general-purpose optimiser fits them."""

import math
from functools import cache

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from scipy.optimize import least_squares

import parts
from desk import HEAD
from entrick.core.acts.act import Act, GoOver
from entrick.core.board.schedule import guest_of, leaves, stands_on
from entrick.core.desk import Work, work_out
from entrick.core.look.by_hand import drawn_by_hand
from entrick.core.look.finding import Finding, Row
from entrick.core.look.fit import fit_circle, fit_circles, fit_line
from entrick.core.look.in_order import in_order
from entrick.core.look.lined import lined_in
from entrick.core.look.places import PlacesError, look_at_places, read_taken, to_measure
from entrick.core.look.scheme import Scheme, marked
from entrick.core.look.slipped import carry_out_slipped
from entrick.core.look.slips import slips_of
from entrick.core.look.traces import SOUND
from entrick.core.look.which import STEADY, Hypotheses, hypotheses
from entrick.core.memo import MEMO
from entrick.core.rehearsal.hand import Hand
from entrick.core.rehearsal.many import Hands
from entrick.demo import sample_plans
from entrick.devices.callipers import callipered
from entrick.devices.digitiser import digitised
from examples import examples, some

SAMPLES = sample_plans()
LINK = SAMPLES["OY-014-paddle-pawl-link.entrick"]


@cache
def tried(text: str) -> tuple[Work, Hypotheses]:
    work = work_out(text)
    return work, hypotheses(work)


def followers(acts: tuple[Act, ...], first: Act) -> set[Act]:
    """Return an act and all that stand on it, one after another; an opening stays until the next setting."""
    found, gone = {first}, set(leaves(first))
    for act in acts[acts.index(first) :] if first in acts else acts:
        inner = guest_of(act)
        if act in found or inner in found or not gone.isdisjoint(stands_on(act)):
            found.add(act)
            gone |= {*leaves(act), *(leaves(inner) if inner else ())}
    return found


@given(st.integers(0, 300), st.integers(0, 10_000))
def test_what_does_not_stand_on_a_slipped_act_stays_as_it_is(seed: int, which: int) -> None:
    _, every = tried(HEAD + parts.part(seed)[0])
    if not every.slips:
        return
    at = which % len(every.slips)
    slip = every.slips[at]
    if slip.sort == "size" and hasattr(slip.act, "setting"):
        return  # the compass stays as it was opened: what is swung next follows too
    follow = followers(every.order.acts, slip.act)
    for piece in every.pieces:
        own = {
            act
            for act in every.order.acts
            if isinstance(act, GoOver) and any(g.planned == piece.planned for g in act.pieces)
        }
        if not follow & own:
            moved = np.max(np.abs(piece.places[:, at + 1] - piece.places[:, SOUND]))
            assert moved < 1e-3, (slip.key, piece.called)


@given(st.integers(0, 10_000))
def test_a_hand_among_many_draws_what_it_draws_alone(which: int) -> None:
    done, every = tried(LINK)
    at = which % len(every.slips)
    hands = Hands(Hand().times(STEADY), 2, 0, done.sheet.factor)
    alone = lined_in(
        carry_out_slipped(every.order.acts, hands, [(), (every.slips[at],)]), done.sheet.factor
    )
    for one, many in zip(alone, every.pieces, strict=True):
        assert one.there[1] == many.there[at + 1]
        if one.there[1] and len(one.places) == len(many.places):
            assert np.max(np.abs(one.places[:, 1] - many.places[:, at + 1])) < 1e-3


def test_slips_of_the_link_put_its_blend_where_it_was_reckoned() -> None:
    """Centres of the upper blend on paper, 1:2: reckoned by hand (two circles), (−7.563, −56.385) sound, mirrored
    when the other crossing is taken, (12.604, 123.198) with the sum of radii for the difference at both ends."""
    done, every = tried(LINK)
    (top,) = (piece for piece in every.pieces if piece.called == "top")
    assert top.centre is not None
    assert abs(top.centre[SOUND] - complex(-7.563, -56.385)) < 2e-3
    order, sheet = every.order, done.sheet
    slips = slips_of(done, order)
    sums = [slip for slip in slips if slip.key == "sum for difference"]
    pairs = [(a, b) for a in sums for b in sums if a.act is not b.act]
    pairs += [(slip,) for slip in slips if slip.key == "other crossing"]  # type: ignore[misc]
    board = carry_out_slipped(
        order.acts, Hands(Hand().times(STEADY), len(pairs) + 1, 0, sheet.factor), [(), *pairs]
    )
    (both,) = (piece for piece in lined_in(board, sheet.factor) if piece.called == "top")
    assert both.centre is not None
    assert min(np.abs(both.centre[1:] - complex(-7.563, 56.385))) < 2e-3
    reckoned = (complex(12.604, 123.198), complex(12.604, -123.198))
    assert min(abs(place - want) for place in both.centre[1:] for want in reckoned) < 2e-3


def test_every_act_has_its_step_whatever_has_been_put_away_meanwhile() -> None:
    work = work_out(SAMPLES["OY-014-paddle-pawl-link.entrick"])
    before = in_order(work)
    MEMO.clear()
    after = in_order(work)
    for order in (before, after):
        assert sum(act in order.steps for act in order.acts) == len(order.acts) - 1, "but the datum"
    numbers = [sorted(step.number for step in order.steps.values()) for order in (before, after)]
    assert numbers[0] == numbers[1]


@pytest.mark.parametrize("name", some(["OY-014-paddle-pawl-link", "OY-027-latch-plate"], 1))
def test_digitised_places_name_the_slip_and_call_a_sound_sheet_sound(name: str) -> None:
    done, every = tried(SAMPLES[f"{name}.entrick"])
    told = [slip for slip in every.slips if slip.sort != "left out"]
    right = 0
    for seed, slip in enumerate(some(told, 5)):
        sheet = drawn_by_hand(done, seed, [slip], order=every.order)
        found = look_at_places(done, read_taken(digitised(sheet, seed)))
        step = every.order.steps[slip.act].number
        right += any((each.step, each.slip.key) == (step, slip.key) for each in found.slips)
    assert right >= 4, "ceilings of the trial: 96 in 100"
    for seed in range(2):
        sound = drawn_by_hand(done, 100 + seed, order=every.order)
        found = look_at_places(done, read_taken(digitised(sound, seed)))
        assert found.slips == (), found.sentence
        assert found.fits


def test_sizes_by_callipers_say_which_size_is_wrong() -> None:
    done, every = tried(LINK)
    slip = next(
        slip
        for at, slip in enumerate(every.slips, 1)
        if slip.sort == "size"
        and any(p.radius is not None and abs(p.radius[at] - p.radius[0]) > 3 for p in every.pieces)
    )
    sheet = drawn_by_hand(done, 3, [slip], order=every.order)
    found = look_at_places(done, read_taken(callipered(sheet)))
    assert any(each.slip.key == slip.key for each in found.slips), found.sentence
    assert found.off[0][1] > 2


@pytest.mark.parametrize(
    ("table", "words"),
    [
        ("", "the table is empty"),
        ("a,b\n1,2\n", "the first row says what the columns are"),
        ("x,y,piece\n1,zwei,top\n", "row 2: zwei is no length"),
        ("x,y,piece\n1,2,roof\n2,3,roof\n1,4,roof\n1,5,roof\n", "nothing called roof"),
        ("x,y,piece\n1,2,top\n", "measure 4 places"),
        ("piece,size\n" + "top,1\n" * 2001, "more than 2000 rows"),
    ],
)
def test_a_table_that_cannot_be_used_is_told_why(table: str, words: str) -> None:
    with pytest.raises(PlacesError, match=words):
        look_at_places(tried(LINK)[0], read_taken(table))


def test_what_is_to_be_measured_are_pieces_of_the_plan_no_more_than_asked() -> None:
    done, every = tried(LINK)
    asked = to_measure(done, 7)
    assert len(asked) == 7 == len(set(asked))
    assert {name for name, _ in asked} <= {piece.called for piece in every.pieces}


@given(st.integers(0, 10_000), st.floats(0.6, 6.2), st.floats(5, 200))
@examples(15)
def test_a_circle_is_fitted_as_by_a_general_optimiser_and_knows_how_sure_it_is(
    seed: int, turn: float, radius: float
) -> None:
    """Cauchy's loss of scipy's least_squares is the oracle."""
    random = np.random.default_rng(seed)
    angles = np.linspace(0, turn, 60)
    noise = 0.05
    places = 3 - 2j + (radius + random.normal(0, noise, 60)) * np.exp(1j * angles)
    places[::17] += 1.5
    begun = (3.2 - 1.8j, radius * 1.02)
    found = fit_circle(places, begun, 1.0)

    def off(p: np.ndarray) -> np.ndarray:
        return np.abs(places - complex(p[0], p[1])) - p[2]

    best = least_squares(
        off, [3.2, -1.8, radius * 1.02], loss="cauchy", f_scale=2.385 * found.scatter
    )
    assert abs(found.radius - best.x[2]) <= 0.1 * found.radius_off + 1e-3
    assert abs(found.radius - radius) <= 5 * found.radius_off + 0.02
    theory = noise / math.sqrt(60)
    assert found.radius_off > theory / 3, "nobody is surer than the scatter allows"


@given(st.lists(st.tuples(st.integers(4, 300), st.floats(0.05, 6.2)), min_size=1, max_size=8))
def test_circles_are_fitted_side_by_side_as_each_is_alone(wanted: list[tuple[int, float]]) -> None:
    """Long arcs and short ones, flat ones and whole circles."""
    random = np.random.default_rng(len(wanted))
    runs = [
        7j + (20 + random.normal(0, 0.05, count)) * np.exp(1j * np.linspace(0, turn, count))
        for count, turn in wanted
    ]
    begun = [(7.1j, 20.3)] * len(runs)
    for run, together in zip(runs, fit_circles(runs, begun, 2.0), strict=True):
        alone = fit_circle(run, begun[0], 2.0)
        if alone.radius_off > alone.radius / 3:
            continue  # so flat that it may be anything
        assert together.centre == pytest.approx(alone.centre, rel=1e-6, abs=1e-6)
        assert together.radius == pytest.approx(alone.radius, rel=1e-6)
        assert together.radius_off == pytest.approx(alone.radius_off, rel=1e-6)


SPOTS = st.complex_numbers(max_magnitude=300)


@given(st.lists(SPOTS, min_size=4, max_size=9) | st.builds(lambda p: [p] * 5, SPOTS), SPOTS)
def test_of_places_on_no_circle_something_is_told(places: list[complex], begun: complex) -> None:
    found = fit_circle(np.array(places), (begun, 20.0), 4.0)
    assert found.scatter > 0


@given(st.integers(0, 10_000), st.floats(0, 3.14))
def test_a_line_is_fitted_where_most_places_lie(seed: int, turn: float) -> None:
    random = np.random.default_rng(seed)
    ahead = complex(math.cos(turn), math.sin(turn))
    places = 5j + ahead * (np.linspace(-20, 20, 80) + 1j * random.normal(0, 0.05, 80))
    places[::13] += 2j * ahead
    found = fit_line(places, 1.0)
    off = (np.conj(found.ahead) * (5j - found.at)).imag
    assert abs(off) < 0.08
    assert abs((np.conj(found.ahead) * ahead).imag) < 5e-3


def row(judged: str, **more: object) -> Row:
    return Row("a.b", 1, judged, "", 1.0, (), dark=1.0, **more)  # type: ignore[arg-type]


@given(
    st.lists(st.sampled_from(["within", "unsure", "off", "missing"]), min_size=1, max_size=12),
    st.floats(0, 20),
)
def test_marks_are_never_more_than_there_are_and_a_sound_sheet_gets_all(
    kinds: list[str], away: float
) -> None:
    scheme = Scheme()
    finding = Finding(tuple(map(row, kinds)), (), (), "", (), (), (away, 0.0), 0.5)
    marks = marked(finding, scheme)
    assert 0 <= marks.whole <= scheme.whole
    assert (marks.accuracy == scheme.accuracy) == (set(kinds) <= {"within", "unsure"})
    sound = Finding((row("within"),), (), (), "", (), (), (0.0, 0.0), 0.5)
    assert marked(sound, scheme).whole == scheme.whole
