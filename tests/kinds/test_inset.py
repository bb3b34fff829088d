"""``inset``."""

import math

import pytest
import shapely
from hypothesis import assume, given
from hypothesis import strategies as st

from desk import refused, run_of, solved
from entrick.core.geometry import Arc
from entrick.core.kind.figure import Family
from entrick.core.rehearsal.exactly import carried_exactly


@given(st.integers(20, 80), st.integers(20, 80), st.integers(3, 9), st.integers(2, 9))
def test_an_inset_of_a_rounded_box_keeps_its_wall_everywhere(
    w: int, h: int, radius: int, wall: int
) -> None:
    assume(2 * radius < min(w, h) and 2 * wall < min(w, h) - 1)
    sides = ["bottom", "right", "top", "left"]
    rows = f"b = box, {w} by {h}, centred on O\n" + "".join(
        f"f{i} = fillet, between b.{sides[i]} and b.{sides[(i + 1) % 4]}, radius {radius}\n"
        for i in range(4)
    )
    rows += "rim = line in, " + " > ".join(f"b.{sides[i]} > f{i}" for i in range(4)) + "\n"
    done = solved(
        rows + f"i = inset, of rim, wall {wall}\no = inset, of rim, wall {wall}, outside\n"
    )
    rim, inner, outer = (run_of(done, name) for name in ("rim", "i", "o"))
    for run in (inner, outer):
        for piece in run.pieces:
            middle = (
                piece.curve.middle
                if isinstance(piece.curve, Arc)
                else (piece.entry + piece.exit) * 0.5
            )
            assert rim.distance(middle) == pytest.approx(wall, abs=1e-6)
            if isinstance(piece.curve, Arc):
                assert piece.curve.radius == pytest.approx(
                    radius + (wall if run is outer else -wall)
                )
    arcs = sum(isinstance(p.curve, Arc) for p in inner.pieces)
    assert arcs == (4 if radius > wall else 0)
    assert abs(outer.area) == pytest.approx(abs(rim.area) + rim.length * wall + math.pi * wall**2)


DUMBBELL = (
    "A = point, 40 left of O\nB = point, 40 right of O\na = circle, centre A, radius 25\nb = circle, centre B, radius 25\n"
    "u = parallel, to O.level, at 6, above\nv = parallel, to O.level, at 6, below\n"
    "P = crossing, of a and u, right\nQ = crossing, of b and u, left\nR = crossing, of b and v, left\nS = crossing, of a and v, right\n"
    "t = line, from P to Q\ns = line, from R to S\nrim = line in, a long > t > b long > s\n"
)


def test_where_the_inside_parts_there_are_several_each_with_its_own_parts() -> None:
    whole = solved(DUMBBELL + "i = inset, of rim, wall 5\n").solution.figure.items["i"]
    assert not isinstance(whole.shape, Family)
    done = solved(
        DUMBBELL + "i = inset, of rim, wall 7\nleft = line in, i.1\nright = line in, i.2\n"
    )
    parted = done.solution.figure.items["i"]
    assert isinstance(parted.shape, Family)
    assert {key.partition(".")[0] for key in parted.parts} == {"1", "2"}
    one, other = (run_of(done, name) for name in ("left", "right"))
    assert one.area == pytest.approx(other.area)
    discs = [shapely.Point(x, 0).buffer(25, quad_segs=500) for x in (-40, 40)]
    eroded = shapely.union_all([*discs, shapely.box(-40, -6, 40, 6)]).buffer(-7, quad_segs=500)
    assert [abs(one.area)] * 2 == pytest.approx([part.area for part in eroded.geoms], rel=1e-4)
    assert {
        round(p.curve.radius, 6)
        for run in (one, other)
        for p in run.pieces
        if isinstance(p.curve, Arc)
    } >= {18.0}
    carried = carried_exactly(done.solution, done.sheet)
    assert (carried.failure, carried.computed) == ("", ())


@given(st.integers(30, 70), st.integers(15, 29), st.integers(2, 8), st.booleans())
def test_the_wall_of_a_curve_whose_centres_nobody_knows_is_swung_about_its_places(
    a: int, b: int, wall: int, outside: bool
) -> None:
    rows = f"e = ellipse, centred on O, axes {2 * a} and {2 * b}\nrim = line in, e\n"
    assume(outside or wall < b * b / a - 1)
    done = solved(
        rows
        + f"i = inset, of rim, wall {wall}{', outside' if outside else ''}\nin_i = line in, i\n"
    )
    run, rim = run_of(done, "in_i"), run_of(done, "rim")
    for piece in run.pieces:
        assert rim.distance(piece.entry) == pytest.approx(wall, abs=1e-3 * a)
    swings = [
        step for step in done.steps if step.name == "i" and step.setting and "swing" in step.text
    ]
    assert sum(len(step.source.acts) for step in swings if step.source) > 8
    assert {round(step.setting.actual, 9) for step in swings if step.setting} == {wall}
    carried = carried_exactly(done.solution, done.sheet)
    assert carried.failure == ""


@pytest.mark.parametrize(
    ("rows", "told"),
    [
        (
            "l = line, from O to A\nr = line in, open, l\ni = inset, of r, wall 2\n",
            "is an open run",
        ),
        (
            "c = circle, centre O, radius 9\nr = line in, c\ni = inset, of r, wall 0\n",
            "more than nought",
        ),
        (
            "c = circle, centre O, radius 9\nr = line in, c\ni = inset, of r, wall 9\n",
            "nothing is left inside r",
        ),
    ],
)
def test_a_wall_that_cannot_be_is_told(rows: str, told: str) -> None:
    assert told in refused("A = point, 40 right of O\n" + rows)


def test_the_working_says_what_the_wall_makes_of_every_radius() -> None:
    rows = "f = box, 60 by 40, centred on O\nr = rounded, all corners of f, radius 8\nrim = line in, r\n"
    for clause, told in (
        ("wall 3", "8 − 3 = 5"),
        ("wall 8", "8 − 8: the round is gone"),
        ("wall 3, outside", "8 + 3 = 11"),
    ):
        made = solved(rows + f"i = inset, of rim, {clause}\n").solution.entries[-1].made
        assert made is not None
        assert made.working == (told,)
