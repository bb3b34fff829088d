"""``isometric block``."""

from functools import partial

import pytest
from hypothesis import given
from hypothesis import strategies as st

from desk import line_of, solved, thing
from entrick.core.geometry import Loop, Point
from entrick.core.geometry.isometric import (
    PLANES,
    SQUARE,
    rhombus,
)

HEAD = "units mm\nsheet A1 landscape, scale 1:1, border 10\nO = datum\n"


solved = partial(solved, head=HEAD)


@given(
    st.integers(10, 60),
    st.integers(10, 60),
    st.integers(3, 50),
    st.integers(0, 5),
    st.sampled_from(list(PLANES)),
)
def test_a_rounded_block_is_its_face_carried_back(
    w: int, h: int, thick: int, radius: int, plane: str
) -> None:
    """The face less its corners; the outline is the face and what it sweeps over; no corner where a round is touched."""
    rounded = f", rounded {radius}" if radius else ""
    done = solved(
        f"b = isometric block, centred on O, {w} by {h}, on {plane}, thick {thick}{rounded}\n"
    )
    face, outline, near, far, hidden = (
        thing(done, f"b.{name}") for name in ("face", "outline", "near", "far", "hidden")
    )
    for run in (face, outline, near, far, hidden):
        assert isinstance(run, Loop)
    u, v = PLANES[plane]
    square = abs(u.cross(v)) * w * h
    lost = (
        (2 * radius) ** 2 * abs(u.cross(v))
        - abs(
            sum(
                arc.radius**2 * arc.sweep + arc.centre.cross(arc.last - arc.first)
                for arc in rhombus(Point(0, 0), 2 * radius, plane).arcs
            )
            / 2
        )
        if radius
        else 0.0
    )
    assert abs(face.area) == pytest.approx(square - lost)  # type: ignore[union-attr]
    edges = [line_of(done, f"b.edge.{number}") for number in (1, 2)]
    assert all(line.end == pytest.approx(thick) for line in edges)
    assert all(abs(line.direction.cross(SQUARE[plane])) < 1e-9 for line in edges)
    across = abs((edges[0].at(0.0) - edges[1].at(0.0)).cross(edges[0].direction))
    assert abs(outline.area) == pytest.approx(abs(face.area) + across * thick)  # type: ignore[union-attr]
    assert far.length + hidden.length == pytest.approx(face.length)  # type: ignore[union-attr]
    if radius:
        smooth = [j for j in outline.junctions if abs(j.turn) < 1e-6]  # type: ignore[union-attr]
        assert len(smooth) == len(outline.junctions)  # type: ignore[union-attr]
