"""Runs that do not close come back by their conditions: what goes on smoothly is said to touch."""

import cmath
import io
import math
from itertools import pairwise

import ezdxf
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from changes import each_changed, touching
from entrick.core.desk import work_out
from entrick.core.readback import read_back, read_profile

Piece = tuple[float, float]
"""A length, or a radius, and by how much it turns, degrees; a line turns by nought."""

PIECES = st.lists(
    st.one_of(
        st.tuples(st.integers(15, 60), st.just(0)),
        st.tuples(st.integers(8, 40), st.integers(25, 100)),
        st.tuples(st.integers(8, 40), st.integers(-100, -25)),
    ),
    min_size=2,
    max_size=4,
).filter(
    lambda pieces: all(
        (a[1] != 0 or b[1] != 0) and not (a[1] * b[1] > 0 and a[0] == b[0])
        for a, b in pairwise(pieces)
    )
)


def drawn(pieces: list[Piece]) -> tuple[bytes, float]:
    """Return a drawing of pieces that run into each other, worked out with complex numbers, and how long they are."""
    document = ezdxf.new()
    document.units = 4
    space = document.modelspace()
    at, heading, long = 0j, 0.0, 0.0
    for size, turn in pieces:
        way = cmath.exp(1j * heading)
        if not turn:
            end = at + size * way
            space.add_line((at.real, at.imag), (end.real, end.imag))
            at, long = end, long + size
            continue
        centre = at + (1j if turn > 0 else -1j) * size * way
        first = cmath.phase(at - centre)
        last = first + math.radians(turn)
        ends = (first, last) if turn > 0 else (last, first)
        space.add_arc((centre.real, centre.imag), size, *map(math.degrees, ends))
        at, heading = centre + size * cmath.exp(1j * last), heading + math.radians(turn)
        long += size * abs(math.radians(turn))
    out = io.StringIO()
    document.write(out)
    return out.getvalue().encode(), long


@settings(max_examples=10, deadline=None)
@given(PIECES)
def test_an_open_run_comes_back_as_long(pieces: list[Piece]) -> None:
    data, long = drawn(pieces)
    found = read_back(read_profile(data, "run.dxf"))
    (outline,) = work_out(found.text).outlines
    assert abs(outline.length - long) < 0.01
    assert not outline.closed


@pytest.mark.parametrize(
    ("pieces", "numbers"),
    [
        ([(60, 0), (20, -120)], 4),
        ([(50, 0), (15, 180), (50, 0)], 3),
        ([(31, 0), (36, -94), (41, 0)], 4),
        ([(40, 0), (12, 50), (40, 0)], 4),
        ([(30, 0), (12, 50), (30, 0), (12, -50), (30, 0)], 5),
    ],
)
def test_any_number_of_an_open_run_can_be_changed_and_it_touches_where_it_did(
    pieces: list[Piece], numbers: int
) -> None:
    found = read_back(read_profile(drawn(pieces)[0], "run.dxf"))
    assert found.numbers <= numbers, found.text
    before = touching(found.text)
    assert before[0][1] >= len(pieces) - 1
    for changed, text in each_changed(found.text):
        assert touching(text) == before, changed
