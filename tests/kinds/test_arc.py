"""``arc``."""

import math

import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from desk import HEAD, edited, refused, thing
from entrick.core.desk import work_out
from entrick.core.geometry import Arc, Circle, Line, Loop, Point, Shape
from entrick.core.plan.edit import choose_candidate

TWO = "A = point, 70 left of O\nB = point, 70 right of O\na = circle, centre A, radius 30\nb = circle, centre B, radius 20\n"


def check_contact(word: str, target: Shape | Loop, centre: Point, size: float) -> None:
    match target:
        case Point():
            assert abs(centre - target) == pytest.approx(size, abs=1e-9)
        case Line():
            apart = abs(target.offset_of(centre))
            assert apart == pytest.approx(0 if word == "centred on" else size, abs=1e-9)
        case Circle():
            apart = abs(centre - target.centre)
            wanted = {
                "around": [size - target.radius],
                "beside": [size + target.radius],
                "inside": [target.radius - size],
                "centred on": [target.radius],
                "touching": [size + target.radius, abs(size - target.radius)],
            }[word]
            assert min(abs(apart - w) for w in wanted) < 1e-9


@pytest.mark.parametrize(
    "conditions",
    [
        ("around a", "around b"),
        ("beside a", "beside b"),
        ("around a", "beside b"),
        ("through A", "through B"),
        ("beside a", "through B"),
        ("touching m", "around b"),
        ("touching l", "through B"),
        ("touching l", "touching m"),
        ("centred on l", "around a"),
        ("centred on a", "through B"),
        ("touching a", "touching l"),
        ("inside c", "beside b"),
        ("inside c", "touching l"),
        ("centred on l", "touching m"),
    ],
    ids=" and ".join,
)
def test_any_two_conditions_can_be_met_and_each_candidate_meets_them(
    conditions: tuple[str, str],
) -> None:
    size = 115.0
    rows = (
        TWO
        + "l = line, through O, level\nm = line, through A, at 40°\nc = circle, centre O, radius 300\n"
    )
    text = HEAD + rows + f"x = arc, radius {size}, {', '.join(conditions)}\n"
    entry = work_out(text).solution.entries[-1]
    letters = [c.letter for c in entry.candidates]
    assert len(letters) in (2, 4, 8) or entry.made is not None
    for candidate in entry.candidates:
        chosen = work_out(edited(text, choose_candidate, entry.line, candidate.words, frozenset()))
        made = chosen.solution.entries[-1].made
        assert made is not None, (candidate, chosen.solution.errors)
        assert made.shape == candidate.shape, "the words of a candidate choose that candidate"
        assert isinstance(made.shape, Arc | Circle)
        for condition in conditions:
            word, _, name = condition.rpartition(" ")
            check_contact(word, thing(chosen, name), made.shape.centre, size)


@pytest.mark.parametrize(
    ("rows", "says"),
    [
        ("x = arc, radius 30, around a, around b", "must be larger than its radius 30"),
        ("x = arc, radius 25, around a, around b", "must be larger"),
        ("x = arc, radius 90, inside a, beside b", "must be smaller"),
        (
            "x = arc, radius 10, beside a, beside b",
            "swings of 40 and 30 cannot meet across 140: the radius must be at least 45",
        ),
        (
            "x = arc, radius 60, around a, around b",
            "swings of 30 and 40 cannot meet across 140: the radius must be at least 95",
        ),
        ("x = arc, radius 85, beside a, around b2", "share their centre"),
        ("x = arc, radius 85, beside a, beside a", "all the way round"),
        ("x = arc, radius 5, touching l, beside a", "the radius must be at least"),
        ("x = arc, radius 85, beside l, beside a", "a circle or arc is wanted here"),
        ("x = arc, radius 85, beside a", "needs two conditions and has 1"),
        ("x = arc, beside a, beside b", "needs radius"),
        ("x = arc, radius 12, touching l, touching l2", "no radius would do"),
    ],
)
def test_what_cannot_be_is_explained_with_the_limit(rows: str, says: str) -> None:
    more = "b2 = circle, centre A, radius 20\nC = point, 60 above O\nl = line, through C, level\nD = point, 90 above O\n"
    assert says in refused(TWO + more + "l2 = line, through D, level\n" + rows)


@given(st.integers(60, 200), st.integers(5, 28), st.integers(5, 28), st.integers(120, 400))
def test_choices_are_kept_when_a_given_changes(between: int, r1: int, r2: int, radius: int) -> None:
    """The blend said to lie above lies above whatever the sizes, and its centre below."""
    assume(radius > (between + r1 + r2) / 2 + 1)
    # A blend beside that dips past the line of centres belongs to no part: its ends are above, its middle below.
    assume(min(r1, r2) > radius - math.sqrt(max(0.0, radius**2 - between**2 / 4)))
    rows = (
        f"given w = {between}\nA = point, w/2 left of O\nB = point, w/2 right of O\na = circle, centre A, radius {r1}\n"
        f"b = circle, centre B, radius {r2}\ntop = arc, radius {radius}, around a, around b, above\n"
        f"low = arc, radius {radius}, beside a, beside b, below\nrim = line in, a > top > b > low\n"
    )
    done = work_out(HEAD + rows)
    assert not done.solution.errors
    top = thing(done, "top")
    assert isinstance(top, Arc)
    assert top.middle.y > 0 > top.centre.y
    rim = thing(done, "rim")
    assert isinstance(rim, Loop)
    assert rim.closed
    assert all(j.is_tangent for j in rim.junctions)


def test_an_undecided_arc_lists_its_candidates_with_letters_and_words() -> None:
    done = work_out(HEAD + TWO + "x = arc, radius 90, touching a, touching b\n")
    entry = done.solution.entries[-1]
    assert entry.made is None
    assert [c.letter for c in entry.candidates] == list("ABCDEFGH")[: len(entry.candidates)]
    assert len({c.words for c in entry.candidates}) == len(entry.candidates)
    assert all(letter in entry.error.message for letter in "ABCD")  # type: ignore[union-attr]


def test_long_takes_the_other_part_of_the_arc() -> None:
    rows = (
        TWO
        + "s = arc, radius 90, beside a, beside b, below\nl = arc, radius 90, beside a, beside b, below, long\n"
    )
    done = work_out(HEAD + rows)
    short, long = thing(done, "s"), thing(done, "l")
    assert isinstance(short, Arc)
    assert isinstance(long, Arc)
    assert abs(short.sweep) + abs(long.sweep) == pytest.approx(math.tau)


def test_loci_that_only_touch_give_the_single_centre_and_either_half() -> None:
    """At the limiting radius the two swings touch: one centre, and only words can say which half is drawn."""
    rows = (
        TWO
        + "x = arc, radius 45, beside a, beside b{0}\ny = arc, radius 95, around a, around b{0}\n"
    )
    told = work_out(HEAD + rows.format("")).solution
    assert [e.candidates[0].words for e in told.entries[-2:]] == [("below",), ("below",)]
    done = work_out(HEAD + rows.format(", above"))
    assert not done.solution.errors
    x, y = thing(done, "x"), thing(done, "y")
    assert isinstance(x, Arc | Circle)
    assert isinstance(y, Arc | Circle)
    assert (x.centre.x, x.centre.y) == pytest.approx((5, 0))
    assert (y.centre.x, y.centre.y) == pytest.approx((-5, 0))
