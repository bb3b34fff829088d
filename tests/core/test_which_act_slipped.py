"""The act that slipped, named from strokes alone: sheets drawn by usual hands with all their errors, places along
them a millimetre apart taken by a general-purpose library, with an error of measuring of their own."""

from functools import cache

import numpy as np
import pytest
import shapely
from hypothesis import given
from hypothesis import strategies as st
from scipy.spatial import KDTree

import parts
from desk import HEAD
from entrick.core.desk import Work, work_out
from entrick.core.drawing.strokes import Role
from entrick.core.look.by_hand import drawn_by_hand
from entrick.core.look.errors import errors_of
from entrick.core.look.likely import Outline, laid_over
from entrick.core.look.lined import BESIDE, EVERY, FEWEST, SPARSE, lined_in
from entrick.core.look.seen import from_arcs
from entrick.core.look.slipped import Slip, carry_out_slipped
from entrick.core.look.traces import SOUND, TRACE
from entrick.core.look.which import (
    CANDIDATES,
    SHORT,
    STEADY,
    Hypotheses,
    _Back,
    _forth,
    _nearest,
    hypotheses,
    hypotheses_after,
    named,
)
from entrick.core.rehearsal.hand import NONE, Hand
from entrick.core.rehearsal.many import Hands
from entrick.demo import sample_plans
from examples import examples, some

PLANS = {name[3:6]: text for name, text in sample_plans().items()}
SMALL = ("014", "027", "033", "036", "041", "052", "063", "068", "071", "075")
"""Plans whose slips are soon tried."""

MEASURING = 0.08
"""What measuring is off, mm."""


@cache
def tried(name: str) -> tuple[Work, Hypotheses]:
    work = work_out(PLANS[name])
    return work, hypotheses(work)


class Strokes:
    """Heavy strokes of a sheet as a general-purpose tree finds their places, a fifth of a millimetre apart."""

    def __init__(self, fine: np.ndarray, places: np.ndarray, low: float = -np.inf) -> None:
        self.fine, self.places, self.low = fine, places, low
        self.tree = KDTree(np.column_stack((fine.real, fine.imag)))

    def nearest(self, places: np.ndarray) -> np.ndarray:
        spots = np.nan_to_num(places)
        found: np.ndarray = self.fine[self.tree.query(np.column_stack((spots.real, spots.imag)))[1]]
        return found

    def away(self, places: np.ndarray) -> np.ndarray:
        flat = places.ravel()
        return np.abs(self.nearest(flat) - np.nan_to_num(flat)).reshape(places.shape)

    def shows(self, places: np.ndarray) -> np.ndarray:
        return places.imag > self.low

    def above(self, low: float) -> "Strokes":
        """Return what of them is seen where a strip hides what is lower."""
        return Strokes(*(each[each.imag > low] for each in (self.fine, self.places)), low)


def seen(work: Work, every: Hypotheses, seed: int, slips: list[Slip]) -> Strokes:
    """Return the heavy strokes of a sheet, with an error of measuring that hangs together over some millimetres."""
    sheet = drawn_by_hand(work, seed, slips, order=every.order)
    random = np.random.default_rng(seed)
    origin = complex(work.sheet.origin.x, work.sheet.origin.y)
    heavy = {piece.called for piece in every.pieces}
    fine, spots = [], []
    for stroke in sheet.strokes:
        if stroke.piece in heavy:
            line = shapely.LineString([(p.real, p.imag) for p in stroke.places - origin])
            at = np.arange(0.0, max(line.length, 1.0), 0.2)
            knots = np.arange(0.0, at[-1] + 8.0, 4.0)
            off = [np.interp(at, knots, random.normal(0, MEASURING, len(knots))) for _ in "xy"]
            run = shapely.get_coordinates(line.interpolate(at)) @ (1, 1j) + off[0] + 1j * off[1]
            fine.append(run)
            spots.append(run[::5])
    return Strokes(np.concatenate(fine), np.concatenate(spots))


@given(st.sampled_from(sorted(PLANS.keys() - {"066"})), st.integers(0, 10_000))
def test_a_slip_is_drawn_as_it_is_tried(name: str, which: int) -> None:
    """By a hand that errs by next to nothing, whoever else draws beside it; but where two of them go different ways."""
    work, every = tried(name)
    hand = which % len(every.slips) + 1
    one, other = (drawn_pieces(work, every, hand, seed) for seed in (which, which + 1))
    for piece in every.pieces:
        if piece.there[hand]:
            runs = zip(one[piece.called], other[piece.called], strict=True)
            alike = [run for run, again in runs if apart(run, again) < 0.15]
            assert min((apart(piece.run(hand), run) for run in alike), default=0) < 0.15


def drawn_pieces(
    work: Work, every: Hypotheses, hand: int, seed: int
) -> dict[str, list[np.ndarray]]:
    """Return what a steady hand draws with the slip of another one, by the names of the pieces."""
    slips = [every.slips[hand - 1]]
    sheet = drawn_by_hand(work, seed, slips, Hand().times(STEADY), every.order)
    origin = complex(work.sheet.origin.x, work.sheet.origin.y)
    drawn: dict[str, list[np.ndarray]] = {}
    for stroke in sheet.strokes:
        drawn.setdefault(stroke.piece, []).append(stroke.places - origin)
    return drawn


def apart(one: np.ndarray, other: np.ndarray) -> float:
    """Return how far two runs are apart where they are furthest, by a general-purpose library."""
    lines = [shapely.LineString(np.column_stack((run.real, run.imag))) for run in (one, other)]
    return float(shapely.hausdorff_distance(*lines))


@examples(12)
@given(st.sampled_from(SMALL), st.integers(0, 10_000))
def test_of_a_sound_sheet_no_slip_is_named(name: str, seed: int) -> None:
    work, every = tried(name)
    assert named(every, seen(work, every, seed, [])).slips == ()


@examples(6)
@given(st.sampled_from(SMALL), st.integers(0, 10_000), st.floats(0.02, 0.5))
def test_what_is_drawn_where_nothing_is_seen_speaks_for_no_slip(
    name: str, seed: int, hidden: float
) -> None:
    work, every = tried(name)
    whole = seen(work, every, seed, [])
    assert named(every, whole.above(np.quantile(whole.fine.imag, hidden))).slips == ()


@given(st.floats(0.0, 2.0), st.floats(-np.pi, np.pi), st.integers(0, 10_000))
def test_a_piece_ends_where_its_stroke_does_where_an_error_may_have_it_end_there(
    short: float, turn: float, seed: int
) -> None:
    along = np.arange(0.0, 41.0, 2.0)
    way = np.exp(1j * turn)
    off = np.random.default_rng(seed).normal(0, MEASURING / 2, 401)
    fine = (np.linspace(0.0, 40.0 - short, 401) + 1j * off) * way
    far_end, across = 2.0 * way * along / 40, np.full(len(along), 1j * way)
    moves = np.column_stack((far_end, across))
    outline = Outline(along * way, moves, np.ones(len(along)), {0: slice(0, len(along))}, (False,))
    drawn = laid_over(outline, Strokes(fine, fine[::10])).drawn[0]
    assert abs(drawn[-1] / way - (40.0 - short)) < 0.3


def test_the_slip_that_was_made_is_named_first_or_with_those_that_draw_the_same() -> None:
    right = wrong = 0
    sheets = some([(name, seed) for name in SMALL for seed in range(12)], 20)
    for name, seed in sheets:
        work, every = tried(name)
        slip = every.slips[np.random.default_rng(seed).integers(len(every.slips))]
        step = every.order.steps.get(slip.act)
        made = (step.number if step else 0, slip.key)
        told = [(e.step, e.slip.key) for e in named(every, seen(work, every, seed, [slip])).slips]
        right += made in told
        wrong += bool(told) and made not in told
    assert right >= 0.9 * len(sheets)
    assert wrong <= 0.1 * len(sheets)


@examples(5)
@given(st.sampled_from(SMALL), st.integers(0, 10_000))
def test_slips_that_are_held_against_a_sheet_are_the_nearest_of_all(name: str, seed: int) -> None:
    """However early the others are given up."""
    work, every = tried(name)
    slip = every.slips[seed % len(every.slips)]
    strokes = seen(work, every, seed, [slip])
    forth, back = _forth(every.pieces, strokes), _Back(every.pieces, strokes)
    away = sorted((forth[n] + back.of(n), n) for n in range(1, len(every.slips) + 1))
    assert _nearest(every.pieces, strokes) == [n for _, n in away[:CANDIDATES]]


@examples(6)
@given(st.sampled_from(SMALL), st.integers(0, 10_000))
def test_a_slip_makes_a_hand_err_neither_more_often_nor_less(name: str, which: int) -> None:
    """By so many errors, mixtures of them stay what they are after a slip."""
    work, every = tried(name)
    slip = every.slips[which % len(every.slips)]
    after = errors_of(every.order, work.sheet.factor, every.pieces, [slip])
    assert len(after.mixed) == len(every.mixed)


@given(st.integers(0, 300), st.integers(0, 10_000))
def test_a_slip_that_is_tried_can_be_seen(seed: int, which: int) -> None:
    every = hypotheses(work_out(HEAD + parts.part(seed)[0]))
    if not every.slips:
        return
    hand = which % len(every.slips) + 1

    def strokes(of: int) -> shapely.Geometry:
        runs = [p.places[:, of] for p in every.pieces if p.there[of]]
        return shapely.union_all(
            [shapely.LineString(np.column_stack((r.real, r.imag))) for r in runs]
        )

    sound, slipped = strokes(SOUND), strokes(hand)
    assert slipped.is_empty or shapely.hausdorff_distance(sound, slipped, 0.02) > TRACE - 0.05


@pytest.mark.parametrize("name", some(SMALL, 4))
def test_a_sheet_can_be_finished_with_any_slip_that_is_tried(name: str) -> None:
    """Where arcs fall short of each other there is nothing to prick: whoever draws notices."""
    work, every = tried(name)
    suffered = [(slip,) for slip in every.slips]
    hands = Hands(NONE, len(suffered), 0, work.sheet.factor)
    short = carry_out_slipped(every.order.acts, hands, suffered).short
    assert np.max(short) * work.sheet.factor < 1.01 * SHORT


@given(
    st.floats(0.3, 80),
    st.floats(-np.pi, np.pi),
    st.floats(0.2, 6.0) | st.just(2 * np.pi),
    st.booleans(),
    st.integers(5, 40),
    st.complex_numbers(max_magnitude=90),
)
def test_an_arc_of_few_places_is_as_far_as_it_is_swung(
    radius: float, start: float, sweep: float, back: bool, count: int, place: complex
) -> None:
    def swung(number: int) -> np.ndarray:
        turned = start + np.linspace(0, -sweep if back else sweep, number)
        return np.asarray(3 + 4j + radius * np.exp(1j * turned))

    line = shapely.LineString([(p.real, p.imag) for p in swung(3000)])
    away = line.distance(shapely.Point(place.real, place.imag))
    assert from_arcs(np.array([place]), [swung(count)])[0] == pytest.approx(away, abs=1e-3)


@examples(4)
@given(st.sampled_from(("073", "074", "041")), st.integers(0, 10_000))
def test_straights_between_places_of_a_run_lie_on_the_arc(name: str, which: int) -> None:
    """However much longer than the others one hand draws it."""
    every = tried(name)[1]
    hand = which % (len(every.slips) + 1)
    for piece in every.pieces:
        run = piece.run(hand)
        if piece.centre is not None and piece.radius is not None and np.all(np.isfinite(run)):
            out = np.abs((run[1:] + run[:-1]) / 2 - piece.centre[hand])
            assert np.max(np.abs(out - piece.radius[hand])) < 1.2 * BESIDE
            assert np.abs(run[[0, -1]] - piece.places[[0, -1], hand]).max() < 1e-6


@pytest.mark.parametrize("name", some(sorted(SMALL, key="041".__ne__), 1))
def test_a_piece_counts_by_its_length_however_long_a_hand_draws_it(name: str) -> None:
    every = tried(name)[1]
    for piece in every.pieces:
        for hand in np.flatnonzero(piece.there):
            run = piece.every(int(hand))
            if len(run) > FEWEST:
                apart = np.mean(np.abs(np.diff(run)))
                assert EVERY / (SPARSE + 0.01) < apart < EVERY * (SPARSE + 0.01), piece.called


@examples(6)
@given(st.sampled_from(SMALL), st.integers(0, 10_000))
def test_what_a_usual_hand_is_off_is_made_up_of_its_errors(name: str, seed: int) -> None:
    """To the first order, and no error has to be unlikely for it."""
    work, every = tried(name)
    factor = work.sheet.factor
    board = carry_out_slipped(every.order.acts, Hands(Hand(), 2, seed, factor), [(), ()])
    drawn = [p for p in lined_in(board, factor) if p.drawn.role in (Role.OUTLINE, Role.EDGE)]
    off, moves = [], []
    for own, piece, move in zip(drawn, every.pieces, every.errors, strict=True):
        if len(own.places) == len(piece.places):
            off.append(own.places[:, 1] - piece.places[:, SOUND])
            moves.append(move)
    wanted, every_move = np.concatenate(off), np.concatenate(moves)
    rows = np.concatenate((every_move.real, every_move.imag)) / 0.1
    both = np.concatenate((wanted.real, wanted.imag)) / 0.1
    errors = np.linalg.solve(rows.T @ rows + np.identity(rows.shape[1]), rows.T @ both)
    left = np.abs(wanted - every_move @ errors)
    assert np.sqrt(np.mean(left**2)) < 0.12
    assert float(errors @ errors) < 3 * len(errors)


@pytest.mark.parametrize("key", ["not halved", "mm for inch"])
def test_a_slip_after_which_nothing_would_cross_is_looked_past_for_a_second(key: str) -> None:
    work, every = tried("061")
    for slip in some([slip for slip in every.slips if slip.key == key], 2):
        assert hypotheses_after(work, (slip,)).pieces
