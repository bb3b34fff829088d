"""What the proof says of chains, threads, islands, doubles, chance equalities and tangents is so."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from desk import HEAD, edited, solved
from entrick.core.desk import Work, work_out
from entrick.core.dimensioning.suggest import suggest_dimensions
from entrick.core.plan import edit

STRIP = (
    "A = point, 60 right of O\nB = point, 20 right of A\nC = point, 30 above B\nD = point, 30 above O\n"
    "edge = run, from O, to A, to B, to C, to D, close\nrim = line in, edge\n"
    "d3 = dimension, from O to D, plumb, left\nd4 = dimension, from B to C, plumb, right\n"
)
FRAME = "f = box, 100 by 80, centred on O\nrim = line in, f\n"


def told(done: Work, rule: str) -> list[str]:
    return [finding.message for finding in done.findings if finding.rule == rule]


@pytest.mark.parametrize(
    ("rows", "words"),
    [
        ("d1 = dimension, chain O A B, level, below\n", "nothing missing, nothing twice"),
        ("d1 = dimension, edge O A B, level, below\n", "nothing missing, nothing twice"),
        (
            "d1 = dimension, chain O A B, level, below\nd2 = dimension, from O to B, level, below\n",
            "d2 says again",
        ),
        (
            "d2 = dimension, from O to B, level, below\nd1 = dimension, chain O A B, level, below\n",
            "d1 closes a chain",
        ),
        (
            "d1 = dimension, chain O A B, level\nd2 = dimension, from O to B, level, below, in brackets\n",
            "nothing missing, nothing twice",
        ),
    ],
)
def test_a_closed_chain_is_told_unless_a_link_stands_in_brackets(rows: str, words: str) -> None:
    """A size that follows from others stands in brackets (auxiliary dimension, ISO 129-1; from memory)."""
    (only,) = told(solved(STRIP + rows), "dimensions")
    assert words in only


def test_a_dimension_said_again_is_put_in_brackets_by_a_press() -> None:
    text = f"{HEAD}{STRIP}d1 = dimension, chain O A B, level, below\nd2 = dimension, from O to B, level\n"
    (finding,) = [f for f in work_out(text).findings if f.rule == "dimensions"]
    assert finding.mend is not None
    after = work_out(edited(text, edit.set_line, finding.mend.line, finding.mend.text))
    assert "nothing missing, nothing twice" in told(after, "dimensions")[0]
    assert "(80)" in {m.text for m in after.display.marks if m.kind == "text"}


@given(st.lists(st.sampled_from(["M6", "M8", "M10"]), min_size=1, max_size=4), st.data())
def test_threads_are_part_of_the_dimensions_and_are_suggested(
    sizes: list[str], data: st.DataObject
) -> None:
    rows = (
        FRAME
        + "d1 = dimension, from f.lower_left to f.lower_right, level\nd2 = dimension, from f.lower_left to f.upper_left, plumb\n"
    )
    for index, size in enumerate(sizes):
        rows += (
            f"P{index} = point, {8 + 9 * index} right of O, {data.draw(st.integers(5, 30))} above\n"
        )
        rows += f't{index} = tapped hole, at P{index}, thread "{size}"\n'
    done = solved(rows)
    unsaid = [m for m in told(done, "dimensions") if "does not say its thread" in m]
    assert len(unsaid) == len(sizes)
    found = suggest_dimensions(done.solution)
    letters = {m.text for m in work_out(found.text).display.marks if m.kind == "text"}
    for size in set(sizes):
        count = sizes.count(size)
        assert (f"{count}× {size}" if count > 1 else size) in letters
    assert "nothing missing, nothing twice" in told(work_out(found.text), "dimensions")[0]


@pytest.mark.parametrize(
    ("rows", "values"),
    [
        (
            "P = point, 30 from O, at 100°\nc = circle, centre P, diameter 9\nh = line in, c\n",
            {"30", "100°", "Ø9"},
        ),
        (
            "P = point, 25 left of O, 12 above\nc = circle, centre P, diameter 9\nh = line in, c\n",
            {"25", "12", "Ø9"},
        ),
        (
            "p = circle, centre O, diameter 50\nr = spaced, 6 on p, from 10°\nc = circle, centre r, diameter 7\nh = line in, c\n",
            {"Ø50", "10°", "6× Ø7"},
        ),
        (
            "b = holes, 4 on diameter 50, about O, from 40°, diameter 7\nh = line in, b\n",
            {"Ø50", "40°", "4× Ø7"},
        ),
        (
            "l = line, through f.lower_left, at 20°\nm = parallel, to l, at 18, above\nP = point, on m at 40\n",
            set(),
        ),
        (
            "s = slot, from 30° to 75°, about O, radius 25, width 8\nh = line in, s\n",
            {"30°", "75°"},
        ),
    ],
)
def test_what_is_suggested_speaks_the_brief(rows: str, values: set[str]) -> None:
    done = work_out(HEAD + FRAME + rows)
    found = suggest_dimensions(done.solution)
    letters = {m.text for m in work_out(found.text).display.marks if m.kind == "text"}
    assert values <= letters
    assert found.left_open == ()


def test_an_island_in_a_window_is_told_as_a_separate_piece() -> None:
    inner = "w = box, 70 by 50, centred on O\nwin = line in, w\n"
    assert not told(solved(FRAME + inner), "material")[:-1]
    rows = FRAME + inner + "i = box, 20 by 20, centred on O\nisland = line in, i\n"
    assert told(solved(rows), "material")[:2] == [
        "2 separate pieces: rim, island",
        "island lies loose in a hole: it is a piece by itself, and falls out",
    ]


@pytest.mark.parametrize(
    ("off", "words"), [("0", "all round"), ("0.005", "drawn twice"), ("14", None)]
)
def test_a_hole_drawn_twice_is_told_as_that(off: str, words: str | None) -> None:
    rows = f"A = point, 20 left of O\nB = point, {off} right of A\na = circle, centre A, radius 5\nb = circle, centre B, radius 5\n"
    done = solved(FRAME + rows + "h = line in, a\nk = line in, b\n")
    assert [words in m for m in told(done, "doubled") if words] == ([True] if words else [])
    assert not [m for m in told(done, "material") if "breaks out" in m]


def test_a_tangent_that_was_asked_is_no_chance() -> None:
    rows = (
        "A = point, 45 above O\nboss = circle, centre A, radius 12\nhub = circle, centre O, radius 30\n"
        "lobes = turn, of boss, 3 about O\nw = arc, radius 20, beside lobes.1, beside hub, left\n"
        "v = mirror, of w, about O.plumb\nrim = line in, hub long > w > boss > v\n"
    )
    assert not [m for m in told(solved(rows), "relation") if "givens agree" in m]


def test_a_line_that_nearly_touches_is_made_to_touch_by_a_press() -> None:
    rows = (
        "A = point, 100 right of O\na = circle, centre O, radius 40\nb = circle, centre A, radius 25\n"
        "P = point, 6 right of O, 39.6 above\nQ = point, 4 right of A, 24.7 above\nt = line, from P to Q\n"
    )
    near = [f for f in solved(rows).findings if f.rule == "nearly"]
    assert {f.mend.text for f in near if f.mend} == {
        "t = line, touching a, touching b, outer, above"
    }


@pytest.mark.parametrize(
    ("given_", "used", "row", "is_offered"),
    [
        ("R10", "", "b = circle, centre O, radius 10", True),
        ("R10", "a = circle, centre O, radius r\n", "b = circle, centre O, radius 10", False),
        ("2× R10", "a = circle, centre O, radius r\n", "b = circle, centre O, radius 10", True),
        ("10", "a = circle, centre O, radius r\n", 'l = label, saying "A", at O, height 10', False),
        ("Ø10", "", "b = circle, centre O, radius 10", False),
    ],
)
def test_only_what_the_brief_asks_for_is_offered_to_be_linked(
    given_: str, used: str, row: str, is_offered: bool
) -> None:
    done = work_out(f"units mm\ngiven r = {given_}\nO = datum\n{used}{row}\n")
    assert bool([f for f in done.findings if f.mend and f.mend.told == "Link to r"]) == is_offered
