"""How thin one outline gets, against a finely sampled outline and against what is drawn."""

import math

import pytest
import shapely
from hypothesis import assume, given
from hypothesis import strategies as st

from desk import outline, run_of, solved, thing
from entrick.core.geometry import Circle, Loop, Point
from entrick.core.geometry import thickness as thickness_of
from entrick.core.geometry.loop import piece_of
from entrick.core.geometry.thickness import thinnest
from entrick.core.memo import MEMO

LINK = (
    "A = point, 45 left of O\nB = point, 45 right of O\na = circle, centre A, radius {0}\nb = circle, centre B, radius {1}\n"
    "top = arc, radius {2}, beside a, beside b, above\nlow = arc, radius {2}, beside a, beside b, below\n"
    "rim = line in, a > top > b > low\n"
)


def thickness(rows: str) -> float:
    rim = run_of(solved(rows), "rim")
    found = thinnest(rim, [])
    assert found is not None
    return found[0]


@given(st.integers(10, 30), st.integers(10, 30), st.integers(60, 200))
def test_the_waist_of_a_link_is_where_its_blends_face_each_other(a: int, b: int, r: int) -> None:
    """By sampling: for every place of the upper blend, the nearest of the lower one."""
    rows = LINK.format(a, b, r)
    done = solved(rows)
    upper = thing(done, "top")
    spots = [upper.at(upper.start + upper.sweep * k / 4000) for k in range(4001)]
    sampled = min(2 * spot.y for spot in spots)
    assume(sampled > 0)  # else the blends cross, and the outline itself
    # A blend that is narrowest where it ends has no waist: the link only tapers into its eye, and nothing there is
    # square at both ends. What is to be said of such a neck is open.
    assume(min(spots, key=lambda spot: spot.y) not in (spots[0], spots[-1]))
    found = thickness(rows)
    assert found <= sampled + 1e-9
    assert found == pytest.approx(sampled, abs=1e-3)


@pytest.mark.parametrize(
    ("rows", "thin"),
    [
        ("b = box, 60 by 40, centred on O\nrim = line in, b\n", 40.0),
        ("c = circle, centre O, radius 12\nrim = line in, c\n", 24.0),
        ("A = point, 50 right of O\ns = slot, from O to A, width 14\nrim = line in, s\n", 14.0),
        # a hook's throat cut into a plate: the corner of the cut points at the far edge
        (
            "r = run, from O, right 60, up 40, left 25, down 28, left 10, up 28, left 25, close\nrim = line in, r\n",
            12.0,
        ),
    ],
)
def test_thickness_of_plain_shapes(rows: str, thin: float) -> None:
    assert thickness(rows) == pytest.approx(thin)


def test_a_corner_that_points_into_the_material_counts() -> None:
    """A vee cut into a bar from above, its point 7 above the foot."""
    rows = (
        "r = run, from O, right 60, up 20, left 20, to P, to Q, left 20, close\nrim = line in, r\n"
    )
    assert thickness(
        "P = point, 30 right of O, 7 above\nQ = point, 20 right of O, 20 above\n" + rows
    ) == pytest.approx(7)


@given(st.integers(5, 30), st.integers(31, 44), st.booleans())
def test_an_arm_that_tapers_is_as_thin_as_the_disc_of_its_round_end(
    small: int, large: int, bored: bool
) -> None:
    """The largest disc about the small end's centre that lies in the outline, by a general geometry library."""
    rows = (
        f"A = point, 90 right of O\na = circle, centre O, radius {large}\nb = circle, centre A, radius {small}\n"
        "up = line, touching a, touching b, outer, above\ndn = line, touching a, touching b, outer, below\n"
        "rim = line in, a > up > b > dn\n"
    )
    drawn = outline(run_of(solved(rows), "rim"), 400)
    disc = drawn.exterior.distance(shapely.Point(90, 0))
    assert thickness(rows) == pytest.approx(2 * disc, rel=1e-3)
    if bored:
        rows += f"h = circle, centre A, radius {small / 2}\nbore = line in, h\n"
        told = [
            f.message
            for f in solved(rows + f"must = check, wall at least {small * 0.9}\n").findings
            if f.rule == "wall"
        ]
        assert told
        assert not any(f"rim is {2 * small} mm thin" in each for each in told), (
            "with a hole in it, it is a wall"
        )


def test_a_rounded_corner_is_no_thin_place() -> None:
    rows = "b = box, 60 by 40, centred on O\nr = rounded, all corners of b, radius 2\nrim = line in, r\n"
    assert thickness(rows) == pytest.approx(40)


def test_a_triangle_has_none() -> None:
    rim = run_of(solved("r = run, from O, right 60, up 40, close\nrim = line in, r\n"), "rim")
    assert thinnest(rim, []) is None


@given(st.integers(5, 60))
def test_the_proof_says_so_only_where_it_is_so(asked: int) -> None:
    rows = LINK.format(25, 25, 90)
    thin = thickness(rows)
    told = [
        f
        for f in solved(f"{rows}must = check, wall at least {asked}\n").findings
        if f.rule == "wall"
    ]
    assert [f.weight for f in told] == ["wrong" if thin < asked - 1e-6 else "good"]
    assert not [f for f in solved(rows).findings if f.rule == "wall"]


def test_what_lies_across_a_hole_is_a_wall_and_no_thickness() -> None:
    rows = "b = box, 40 by 40, centred on O\nrim = line in, b\nc = circle, centre O, radius 19\nbore = line in, c\n"
    told = [
        f.message
        for f in solved(rows + "must = check, wall at least 0.5\n").findings
        if f.rule == "wall"
    ]
    assert told == ["least wall 1 mm, between rim and bore"]


def test_a_hole_in_the_middle_does_not_hide_how_thin_a_plate_is() -> None:
    rows = "b = box, 90 by 20, centred on O\nrim = line in, b\nc = circle, centre O, radius 4\nbore = line in, c\n"
    told = [
        f.message
        for f in solved(rows + "must = check, wall at least 25\n").findings
        if f.rule == "wall"
    ]
    assert any("rim is 20 mm thin here; 25 is asked for" in each for each in told)


COMB = st.lists(
    st.tuples(st.integers(3, 12), st.integers(3, 12), st.integers(4, 26)), min_size=2, max_size=9
)


@given(COMB, st.booleans(), st.sampled_from([math.inf, 30.0, 6.0]))
def test_what_is_not_looked_at_is_no_thinner(
    teeth: list[tuple[int, int, int]], rounded: bool, limit: float
) -> None:
    """A comb whose gaps are cut from above to depths of their own, looked through whole."""
    legs = [f"right {sum(tooth + gap for tooth, gap, _ in teeth) + 5}", "up 30", "left 5"]
    for tooth, gap, deep in teeth:
        legs += [f"down {deep}", f"left {gap}", f"up {deep}", f"left {tooth}"]
    rows = f"r = run, from O, {', '.join(legs)}, close\n"
    rows += (
        "s = rounded, all corners of r, radius 1\nrim = line in, s\n"
        if rounded
        else "rim = line in, r\n"
    )
    rim = run_of(solved(rows), "rim")
    bores = [Loop((piece_of(Circle(Point(2.5, 27.0), 0.5), "bore"),), True)]
    quick = thinnest(rim, bores, limit)
    with pytest.MonkeyPatch.context() as patch:
        patch.setattr(thickness_of, "FIRST_LOOK", 1e6)
        patch.setattr(thickness_of._Look, "may_face", lambda *_: True)
        MEMO.clear()
        whole = thinnest(rim, bores, limit)
    assert quick == whole
    if not rounded and limit == math.inf:
        assert quick is not None
        assert quick[0] <= min(min(tooth, 30 - deep) for tooth, _, deep in teeth) + 1e-9
