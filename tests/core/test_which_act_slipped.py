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
from entrick.core.look.lined import lined_in
from entrick.core.look.slipped import Slip, carry_out_slipped
from entrick.core.look.traces import SOUND, TRACE
from entrick.core.look.which import Hypotheses, hypotheses, named
from entrick.core.rehearsal.hand import Hand
from entrick.core.rehearsal.many import Hands, InGroups
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

    def __init__(self, fine: np.ndarray, places: np.ndarray) -> None:
        self.fine, self.places = fine, places
        self.tree = KDTree(np.column_stack((fine.real, fine.imag)))

    def nearest(self, places: np.ndarray) -> np.ndarray:
        spots = np.nan_to_num(places)
        found: np.ndarray = self.fine[self.tree.query(np.column_stack((spots.real, spots.imag)))[1]]
        return found

    def away(self, places: np.ndarray) -> np.ndarray:
        flat = places.ravel()
        return np.abs(self.nearest(flat) - np.nan_to_num(flat)).reshape(places.shape)


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


@examples(12)
@given(st.sampled_from(SMALL), st.integers(0, 10_000))
def test_of_a_sound_sheet_no_slip_is_named(name: str, seed: int) -> None:
    work, every = tried(name)
    assert named(every, seen(work, every, seed, [])).slips == ()


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
    for slip in every.slips:
        if slip.key == key:
            assert hypotheses(work, (slip,)).pieces


@given(st.integers(1, 5), st.integers(1, 5), st.integers(0, 10_000))
def test_in_every_group_the_same_errors_are_made_and_the_first_hand_makes_none(
    groups: int, each: int, seed: int
) -> None:
    hands = InGroups(Hand(), groups, each, seed, 1.0)
    for errors in (hands.length(0.3), hands.place(0.3), hands.angle(0.2, 0.1)):
        assert len(errors) == hands.count == 1 + groups * each
        assert errors[0] == 0
        own = errors[1:].reshape(groups, each)
        assert np.all(own == own[0])
        assert len(set(own[0].tolist())) == each
