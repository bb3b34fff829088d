"""``inset``."""

import math

import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from desk import run_of, solved
from entrick.core.geometry import Arc


@given(st.integers(20, 80), st.integers(20, 80), st.integers(3, 9), st.integers(2, 9))
def test_an_inset_of_a_rounded_box_keeps_its_wall_everywhere(w: int, h: int, radius: int, wall: int) -> None:
    assume(2 * radius < min(w, h) and 2 * wall < min(w, h) - 1)
    sides = ["bottom", "right", "top", "left"]
    rows = f"b = box, {w} by {h}, centred on O\n" + "".join(
        f"f{i} = fillet, between b.{sides[i]} and b.{sides[(i + 1) % 4]}, radius {radius}\n" for i in range(4)
    )
    rows += "rim = line in, " + " > ".join(f"b.{sides[i]} > f{i}" for i in range(4)) + "\n"
    done = solved(rows + f"i = inset, of rim, wall {wall}\no = inset, of rim, wall {wall}, outside\n")
    rim, inner, outer = (run_of(done, name) for name in ("rim", "i", "o"))
    for run in (inner, outer):
        for piece in run.pieces:
            middle = piece.curve.middle if isinstance(piece.curve, Arc) else (piece.entry + piece.exit) * 0.5
            assert rim.distance(middle) == pytest.approx(wall, abs=1e-6)
            if isinstance(piece.curve, Arc):
                assert piece.curve.radius == pytest.approx(radius + (wall if run is outer else -wall))
    arcs = sum(isinstance(p.curve, Arc) for p in inner.pieces)
    assert arcs == (4 if radius > wall else 0)
    assert abs(outer.area) == pytest.approx(abs(rim.area) + rim.length * wall + math.pi * wall**2)
