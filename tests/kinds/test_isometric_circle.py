"""``isometric circle``."""

import math
from functools import partial

import pytest
from hypothesis import given
from hypothesis import strategies as st

from desk import line_of, point_of, refused, run_of, solved, thing
from entrick.core.geometry import Loop
from entrick.core.geometry.isometric import (
    PLANES,
    SQUARE,
    lean,
)

HEAD = "units mm\nsheet A1 landscape, scale 1:1, border 10\nO = datum\n"


sizes = st.integers(5, 90)


solved = partial(solved, head=HEAD)


@given(sizes, st.sampled_from(list(PLANES)))
def test_circles_on_a_face_touch_the_middles_of_its_sides(side: int, plane: str) -> None:
    """A box of equal sides with a circle on each face: neighbours touch the shared edge in the same place."""
    done = solved(
        f"b = isometric box, from O, {side} by {side} by {side}\n"
        + "".join(
            f"{p} = isometric circle, centred on b.{p}_middle, diameter {side}, on {p}\n"
            for p in PLANES
        )
    )
    touches = [point_of(done, f"{plane}.touch.{i}") for i in range(1, 5)]
    face = thing(done, f"b.{plane}")
    assert isinstance(face, Loop)
    for spot in touches:
        assert min(abs(spot - (p.entry + p.exit) * 0.5) for p in face.pieces) < 1e-9 * side * 100
    others = [
        point_of(done, f"{other}.touch.{i}")
        for other in PLANES
        if other != plane
        for i in range(1, 5)
    ]
    assert sum(any(abs(spot - other) < 1e-7 for other in others) for spot in touches) == 2


@pytest.mark.parametrize(("plane", "degrees"), [("top", 0), ("right", 60), ("left", -60)])
def test_which_way_an_isometric_circle_leans(plane: str, degrees: float) -> None:
    """Level on top, at 60° on the side planes (common practice, no source)."""
    assert math.degrees(lean(plane)) % 180 == pytest.approx(degrees % 180)
    done = solved(f"c = isometric circle, centred on O, diameter 40, on {plane}, by template\n")
    working = done.solution.entries[-1].made.working  # type: ignore[union-attr]
    assert any("Ø40 hole" in row for row in working)
    assert abs(line_of(done, "c.short").direction.cross(SQUARE[plane])) < 1e-9


def test_quarters_of_circles_on_three_planes_close_about_a_corner() -> None:
    done = solved(
        "".join(f"{p} = isometric circle, centred on O, diameter 60, on {p}\n" for p in PLANES)
        + "rim = line in, top.arc4 > left.arc4 > right.arc4\n"
    )
    loop = done.solution.figure.items["rim"].shape
    assert isinstance(loop, Loop)
    assert loop.closed
    assert sorted(abs(piece.entry) for piece in loop.pieces) == pytest.approx([30, 30, 30])


def test_a_radius_is_half_a_diameter() -> None:
    done = solved(
        "a = isometric circle, centred on O, radius 20, on top\nb = isometric circle, centred on O, diameter 40, on top\n"
    )
    assert [p.curve for p in run_of(done, "a").pieces] == [
        p.curve for p in run_of(done, "b").pieces
    ]
    assert "not both" in refused(
        "a = isometric circle, centred on O, radius 20, diameter 40, on top\n"
    )
