"""A part is the part that was meant, or something says that it may not be."""

import math
from itertools import permutations

import pytest
import shapely
from hypothesis import given
from hypothesis import strategies as st

from desk import HEAD, refused, solved
from entrick.core.desk import Work, work_out
from entrick.core.geometry import Point
from entrick.core.geometry.place import SIDES, on_sides
from examples import examples

PLACES = st.lists(
    st.builds(Point, st.integers(-9, 9).map(float), st.integers(-9, 9).map(float)), max_size=5
)


def looked(done: Work, rule: str) -> list[str]:
    return [finding.message for finding in done.findings if finding.rule == rule]


@given(PLACES, st.lists(st.sampled_from(sorted(SIDES)), max_size=3))
def test_words_of_place_are_a_set(spots: list[Point], words: list[str]) -> None:
    found = [on_sides(spots, order) for order in permutations(words)]
    assert all(one == found[0] for one in found)
    if {"above", "below"} <= set(words) and len({spot.y for spot in spots}) > 1:
        assert found[0] == []


@pytest.mark.parametrize("words", ["above, below", "below, above", "left, right"])
def test_words_that_contradict_are_refused_with_what_each_solution_is(words: str) -> None:
    rows = "a = circle, centre O, radius 20\nB = point, 20 right of O\nb = circle, centre B, radius 20\n"
    told = refused(f"{rows}p = crossing, of a and b, {words}\n")
    assert told.startswith(("none of the 2 crossings lies as it is said", "2 crossings fit"))


def test_candidates_say_their_radius_and_where_their_centre_lies() -> None:
    rows = "B = point, 55 right of O\nl = line, from O to B\nc = circle, centre O, radius 22\n"
    for order in ("right, above", "above, right"):
        told = refused(
            f"{rows}u = parallel, to l, at 11, above\nf = fillet, between c and u, radius 12, {order}\n"
        )
        assert "R12 about 25.04, 23" in told


def test_a_line_lined_in_past_its_end_is_told() -> None:
    """By hand: m runs at 45° from (50, 20), and meets l, which is level, at (30, 0): 20 √2 before its beginning."""
    rows = (
        "A = point, 50 right of O\nl = line, from O to A\nB = point, 50 right of O, 20 above\n"
        "C = point, 70 right of O, 40 above\nm = line, from B to C\nk = line, from C to O\nrim = line in, l > m > k\n"
    )
    (told,) = looked(solved(rows), "past ends")
    assert "m is lined in 28.284 mm past the end" in told
    square = "s = box, 40 by 30, centred on O\nrim = line in, s\n"
    assert looked(solved(square), "past ends") == []


def test_a_closed_figure_that_is_not_lined_in_is_asked_about_and_lined_in_by_a_press() -> None:
    rows = "s = box, 90 by 60, centred on O\nrim = line in, s\nA = point, 30 right of O\n"
    holes = "h = circle, centre O, radius 8\ng = circle, centre A, radius 5\nd = dimension, diameter h\n"
    done = solved(rows + holes)
    found = [finding for finding in done.findings if finding.rule == "not lined in"]
    assert [finding.message.split()[0] for finding in found] == ["h", "g"]
    text = HEAD + rows + holes
    for finding in reversed(found):
        assert finding.mend is not None
        lines = text.split("\n")
        lines.insert(finding.mend.line, finding.mend.text)
        text = "\n".join(lines)
    after = work_out(text)
    assert after.solution.errors == ()
    assert looked(after, "not lined in") == []
    assert len(after.outlines) == 3


def test_what_others_are_constructed_from_or_lies_outside_is_no_hole() -> None:
    rows = (
        "s = box, 90 by 60, centred on O\nrim = line in, s\npitch = circle, centre O, radius 20\n"
        "P = crossing, of pitch and O.level, right\nfar = circle, centre P, radius 60\n"
    )
    assert looked(solved(rows), "not lined in") == []


@given(st.integers(3, 40), st.floats(0.3, 0.95))
@examples(5)
def test_which_of_two_pieces_of_a_wheel_is_named_first_never_matters(
    count: int, inner: float
) -> None:
    """A ratchet wheel, against the sum of its triangles: n/2 · R · r · sin(2π/n) for whole steps."""
    root = round(70 * inner, 3)
    degrees = 360 / count
    rows = (
        f"tips = circle, centre O, radius 70\nroots = circle, centre O, radius {root}\n"
        f"A = crossing, of tips and O.level, right\nB = crossing, of roots and O.level, right\n"
        f"C = point, on roots at {degrees:.9f}°\nface = line, from B to A\nback = line, from A to C\n"
    )
    for order in ("face > back", "back > face"):
        done = solved(f"{rows}rim = line in, {order}, {count} about O\n")
        (rim,) = done.outlines
        exact = count / 2 * 70 * root * math.sin(math.tau / count)
        assert abs(rim.area) == pytest.approx(exact, rel=1e-6)
        assert looked(done, "past ends") == []


@pytest.mark.parametrize(
    ("rows", "words"),
    [
        (
            "l = line, from O to A\nB = point, 40 right of O, 30 above\nm = line, from A to B\n"
            "k = line, from B to O\nrim = line in, l > c > m > k\n",
            "c of rim comes to no length",
        ),
        ("a = line, from O to A\nrim = line in, c > a, 8 about O\n", "each of 8 pieces such as a"),
    ],
)
def test_a_piece_of_no_length_is_told_with_its_likely_cause(rows: str, words: str) -> None:
    head = "c = circle, centre O, radius 40\nA = point, on c at 0°\n"
    (told,) = looked(solved(head + rows), "sliver")
    assert told.startswith(words)
    assert "swapped" in told


@pytest.mark.parametrize("said", ["c > n", "c > n left", "n > c", "c > n short"])
@pytest.mark.parametrize("count", [5, 24])
def test_which_crossing_is_meant_follows_where_a_walk_comes_again_round_a_centre(
    said: str, count: int
) -> None:
    """Notches round a disc, against the plane figures: disc less lenses, by the areas of two segments."""
    head = "c = circle, centre O, radius 60\nA = point, 60 above O\n"
    done = solved(
        f"{head}n = circle, centre A, radius 6\ndisc = line in, {said}, {count} about O\n"
    )
    (run,) = done.checked.runs
    disc, notch = shapely.Point(0, 0).buffer(60, 512), shapely.Point(0, 60).buffer(6, 512)
    wanted = disc.area - count * disc.intersection(notch).area
    assert abs(run[2].area) == pytest.approx(wanted, rel=1e-4)
