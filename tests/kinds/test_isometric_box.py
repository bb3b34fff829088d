"""``isometric box``."""

from functools import partial

import pytest
from hypothesis import given
from hypothesis import strategies as st

from desk import line_of, solved, thing
from entrick.core.geometry import Loop
from entrick.core.geometry.isometric import (
    AXES,
    FORESHORTENED,
)

HEAD = "units mm\nsheet A1 landscape, scale 1:1, border 10\nO = datum\n"


sizes = st.integers(5, 90)


solved = partial(solved, head=HEAD)


@given(sizes, sizes, sizes, st.booleans())
def test_edges_of_a_box_run_along_the_axes_at_their_lengths(
    w: int, d: int, h: int, projected: bool
) -> None:
    done = solved(
        f"b = isometric box, from O, {w} by {d} by {h}{', projection' if projected else ''}\n"
    )
    scale = FORESHORTENED if projected else 1.0
    lengths = {"right": w * scale, "left": d * scale, "up": h * scale}
    for name in (*(f"edge.{i}" for i in range(1, 10)), *(f"behind.{i}" for i in range(1, 4))):
        line = line_of(done, f"b.{name}")
        (axis,) = [word for word, way in AXES.items() if abs(line.direction.cross(way)) < 1e-9]
        assert line.end == pytest.approx(lengths[axis])
    outline = done.solution.figure.items["b"].shape
    assert isinstance(outline, Loop)
    faces = [thing(done, f"b.{face}") for face in ("top", "left", "right")]
    assert abs(outline.area) == pytest.approx(
        sum(abs(face.area) for face in faces if isinstance(face, Loop))
    )
