"""Slots, keyways, runs, grids, smooth curves, swings, insets and chains: each is what it says it is."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from desk import refused, run_of, solved, thing
from entrick.core.geometry import Circle, Point
from entrick.core.kind.figure import Family

lengths = st.integers(2, 60)


@given(st.lists(lengths, min_size=2, max_size=7), st.data())
def test_a_missing_link_is_the_difference(links: list[int], data: st.DataObject) -> None:
    gone = data.draw(st.integers(0, len(links) - 1))
    told = " ".join("?" if i == gone else str(link) for i, link in enumerate(links))
    done = solved(
        f"chain c = {told}, overall {sum(links)}\ng = grid, from O, across c\nP = point, c.{gone + 1} right of O\n"
    )
    place = done.solution.figure.items["P"].shape
    assert place == Point(float(links[gone]), 0.0)
    assert thing(done, f"g.across.{len(links)}") is not None


@pytest.mark.parametrize(
    ("row", "told"),
    [
        (
            "chain c = 20 30, overall 60\n",
            "the links come to 50, the overall size is 60: 10 is missing",
        ),
        ("chain c = 20 30, overall 40\n", "10 too much"),
        ("chain c = ? ?, overall 40\n", "one link can be found"),
        ("chain c = 20 ?\n", "say  overall"),
        ("chain c = 50 ?, overall 40\n", "come to 50 already"),
        (
            "chain a = 20 20\nchain b = 10 10 10, overall a\n",
            "the links come to 30, the overall size is 40",
        ),
        ("chain c = 20 -5\n", "-5 is no link"),
        ("given d = 0× Ø9\n", ""),
        ("s = slot, from O to O, width 4\n", ""),
        (
            "A = point, 9 right of O\nb = circle, centre O, radius 3\nk = keyway, on b, width 7, depth 1, above\n",
            "",
        ),
        (
            "c = circle, centre O, radius 9\nr = line in, c\ni = inset, of r, wall 12\n",
            "take a thinner one",
        ),
        ("x = check\n", "say what must hold"),
        ("x = check, wall at least 0\n", "more than nought"),
        ("b = box, 9 by 9, centred on O\nh = hatch, of b.left\n", "encloses nothing"),
        ("t = title\n", "at least one of"),
        ("d = dimension, from O to O, level\n", "no distance"),
        ("cl = centre lines\n", "what the centre lines belong to"),
    ],
)
def test_what_cannot_be_is_said_in_the_trades_words(row: str, told: str) -> None:
    assert told in refused(row)


def test_copies_of_a_row_are_numbered_and_a_run_is_copied_whole() -> None:
    done = solved(
        "c = circle, centre O, radius 3\nl = line, through O, at 30°\nrow = shift, of c, 20 along l, 3 times\n"
        "b = box, 9 by 5, from O\nr = line in, b.bottom > b.right > b.top > b.left\nm = mirror, of r, about O.plumb\n"
        "both = mirror, of c row.1, about O.plumb\n"
    )
    row = done.solution.figure.items["row"].shape
    assert isinstance(row, Family)
    assert [abs(c.centre) for c in row.members if isinstance(c, Circle)] == pytest.approx(
        [20, 40, 60]
    )
    assert thing(done, "row.1") == row.members[0]
    assert abs(run_of(done, "m").area) == pytest.approx(45)
    assert thing(done, "both.2") == thing(done, "both.row.1")
