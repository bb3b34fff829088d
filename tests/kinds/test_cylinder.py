"""``cylinder``."""

from functools import partial

import pytest
from hypothesis import given
from hypothesis import strategies as st

from desk import line_of, point_of, solved, thing
from entrick.core.geometry import Loop
from entrick.core.geometry.isometric import (
    AXES,
)

HEAD = "units mm\nsheet A1 landscape, scale 1:1, border 10\nO = datum\n"


sizes = st.integers(5, 90)


solved = partial(solved, head=HEAD)


@given(sizes, sizes, st.sampled_from(["up", "right", "left"]), st.booleans())
def test_a_cylinder_is_its_end_moved_along_the_axis(
    d: int, length: int, along: str, true: bool
) -> None:
    done = solved(
        f"c = cylinder, from O, diameter {d}, length {length}, along {along}{', true' if true else ''}\n"
    )
    for number in (1, 2):
        line = line_of(done, f"c.edge.{number}")
        assert line.end == pytest.approx(length)
        assert abs(line.direction.cross(AXES[along])) < 1e-9
    end, near, far, hidden = (thing(done, f"c.{name}") for name in ("end", "near", "far", "hidden"))
    outline = done.solution.figure.items["c"].shape
    for run in (end, near, far, hidden, outline):
        assert isinstance(run, Loop)
    assert far.length + hidden.length == pytest.approx(end.length, rel=1e-6)  # type: ignore[union-attr]
    across = abs(point_of(done, "c.touch.1") - point_of(done, "c.touch.2"))
    swept = (
        across
        * length
        * abs((point_of(done, "c.touch.1") - point_of(done, "c.touch.2")).unit.cross(AXES[along]))
    )
    assert abs(outline.area) == pytest.approx(abs(end.area) + swept, rel=1e-6)  # type: ignore[union-attr]
