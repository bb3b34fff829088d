"""The words that choose among several solutions: every one offered selects, and goes on meaning the same one."""

import random

import pytest
from hypothesis import given
from hypothesis import strategies as st

from desk import HEAD, edited, point_of, refused, solved, thing
from entrick.core.desk import work_out
from entrick.core.moves import kinds
from entrick.core.plan.edit import choose_candidate, choose_in_walk

ROUND = ("a", "b", "c")


def several(pick: random.Random) -> str:
    """A plan whose last statement may have several solutions."""
    rows = "".join(
        f"{name} = point, {pick.randint(-60, 60)} right of O, {pick.randint(-60, 60)} above O\n"
        for name in "ABC"
    )
    rows += "".join(
        f"{name} = circle, centre {name.upper()}, radius {pick.randint(5, 30)}\n" for name in ROUND
    )
    rows += f"l = line, from A to B\nm = line, through C, at {pick.randint(0, 179)}\n"
    one, two, three = (pick.choice([*ROUND, "l", "m"]) for _ in range(3))
    last = pick.choice(
        [
            f"circle, touching {one}, touching {two}, touching {three}",
            f"circle, touching {one}, touching {two}, through {pick.choice('ABC')}",
            f"arc, radius {pick.randint(10, 120)}, touching {one}, touching {two}",
            f"arc, radius {pick.randint(10, 120)}, around a, beside b",
            f"fillet, between {one} and {two}, radius {pick.randint(3, 20)}",
            f"crossing, of {one} and {two}",
            f"line, touching {one}, touching {two}",
            f"line, through C, touching {one}",
        ]
    )
    return HEAD + rows + f"x = {last}\n"


@given(st.integers(0, 10**6))
def test_every_word_offered_can_be_typed_and_selects_what_it_stands_by(seed: int) -> None:
    text = several(random.Random(seed))
    entry = work_out(text).solution.entries[-1]
    for candidate in entry.candidates:
        words = kinds()[entry.statement.kind].choosing_words
        chosen = work_out(
            edited(text, choose_candidate, entry.line, candidate.words, words)
        ).solution.entries[-1]
        assert chosen.error is None, (text, candidate.words)
        assert chosen.made is not None
        assert chosen.made.shape == candidate.shape, (text, candidate.words)


@given(
    st.integers(8, 30), st.integers(8, 30), st.floats(5, 300), st.sampled_from(["above", "below"])
)
def test_a_blend_chosen_by_a_word_stays_on_its_side_however_far_it_dips(
    first: int, second: int, blend: float, word: str
) -> None:
    """Beside two eyes a small blend dips across their line of centres: the upper one is still that with its centre up."""
    apart = first + second + 2 * blend - 1e-3
    for share in (0.2, 0.5, 0.8, 0.99):
        done = solved(
            f"A = point, {apart * share + (first + second) * (1 - share):.4f} right of O\n"
            f"a = circle, centre O, radius {first}\nb = circle, centre A, radius {second}\n"
            f"x = arc, radius {blend:.4f}, beside a, beside b, {word}\n"
        )
        assert (point_of(done, "x.centre").y > 0) == (word == "above")


ROOM = "A = point, 60 right of O\na = circle, centre O, radius 20\nb = circle, centre A, radius 10\nl = line, through O, at 30°\n"


@pytest.mark.parametrize(
    ("words", "x"),
    [("near A", 20), ("towards A", 20), ("away from A", -20), ("right", 20), ("left", -20)],
)
def test_a_named_point_chooses(words: str, x: float) -> None:
    assert point_of(
        solved(f"{ROOM}P = crossing, of a and O.level, {words}\n"), "P"
    ).x == pytest.approx(x)


def test_how_one_of_two_is_touched_can_be_said_beside_that_it_is() -> None:
    mixed = solved(f"{ROOM}x = arc, radius 90, touching a, touching b, around a, beside b, above\n")
    said = solved(f"{ROOM}x = arc, radius 90, around a, beside b, above\n")
    assert thing(mixed, "x") == thing(said, "x")


def test_a_side_of_a_line_that_is_touched_chooses() -> None:
    row = "x = circle, touching O.level, touching a, touching b, beside{}\n"
    over, under = (
        point_of(solved(ROOM + row.format(f", {word} O.level, left")), "x.centre")
        for word in ("above", "below")
    )
    assert over.y == pytest.approx(-under.y)
    assert over.y > 0
    assert "fit; say which" in refused(ROOM + row.format(""))


CROSSED = (
    "A = point, 30 right of O\nc = circle, centre O, radius 20\nd = circle, centre A, radius 20\n"
    "l = line, through O, at 10°\nm = line, through A, at -8°\nrim = line in, c > l > d > m\n"
)


def test_all_that_a_walk_leaves_undecided_is_said_at_once_and_chosen_by_letter() -> None:
    text = HEAD + CROSSED
    entry = work_out(text).solution.entries[-1]
    assert entry.error is not None
    assert entry.error.message.startswith(
        "c and l cross at 2 places, so do l and d, d and m, m and c: say which"
    )
    assert len({c.letter for c in entry.candidates}) == 8
    while entry.candidates:
        first = entry.candidates[0]
        assert first.of_walk is not None
        text = edited(text, choose_in_walk, entry.line, *first.of_walk)
        after = work_out(text).solution.entries[-1]
        assert len(after.candidates) < len(entry.candidates)
        entry = after
    assert entry.error is None, text


def test_halves_are_neither_long_nor_short() -> None:
    half = "c = circle, centre O, radius 20\nrim = line in, c {} > O.level\n"
    for word in ("", "long", "short"):
        entry = work_out(HEAD + half.format(word)).solution.entries[-1]
        assert [c.words for c in entry.candidates] == [("c ccw",), ("c cw",)]
    arc = "A = point, 40 right of O\nx = arc, radius 20, through O, through A{}\n"
    assert "2 arcs fit" in refused(arc.format(""))
    assert thing(solved(arc.format(", above")), "x").middle.y == pytest.approx(20)


@pytest.mark.parametrize(
    "nearest", ["near A", "away from O", "near A, away from O", "first", "left"]
)
def test_words_that_exclude_each_other_leave_none_whatever_else_is_said(nearest: str) -> None:
    rows = (
        "A = point, 40 right of O\na = circle, centre O, radius 20\nb = circle, centre A, radius 20\n"
        f"x = fillet, between O.level and b, radius 10, beside b, inside b, {nearest}\n"
    )
    assert "lies as it is said" in refused(rows)
