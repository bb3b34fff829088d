"""``stub``."""

import math
from functools import partial

import pytest
from hypothesis import given
from hypothesis import strategies as st

from desk import line_of, solved, thing
from entrick.core.geometry import Arc, Loop
from entrick.core.geometry.isometric import (
    AXES,
)

HEAD = "units mm\nsheet A1 landscape, scale 1:1, border 10\nO = datum\n"


sizes = st.integers(5, 90)


solved = partial(solved, head=HEAD)


@given(
    sizes,
    st.integers(10, 90),
    sizes,
    sizes,
    st.sampled_from(list(AXES)),
    st.booleans(),
    st.booleans(),
)
def test_what_a_stub_shows_of_its_shoulder_lies_outside_the_smaller_cylinder(
    long: int, share: int, step: int, wide: int, axis: str, true: bool, rounded: bool
) -> None:
    words = f"{', true' if true else ''}{', rounded' if rounded else ''}"
    done = solved(
        f"s = stub, from O, diameter {wide}, length {long}, step diameter {wide * share / 100}, step length {step}, "
        f"along {axis}{words}\n"
    )
    rim, neck, ring = thing(done, "s.rim"), thing(done, "s.neck"), thing(done, "s.shoulder")
    assert isinstance(rim, Loop)
    assert isinstance(neck, Loop)
    assert isinstance(ring, Loop)
    assert neck.closed
    assert neck.gap < 1e-9 * 100
    if not rim.closed:
        for end in (rim.pieces[0].entry, rim.pieces[-1].exit):
            assert neck.distance(end) < 1e-6
            assert ring.distance(end) < 1e-6
    for piece in rim.pieces:
        middle = piece.curve.middle if isinstance(piece.curve, Arc) else piece.entry
        assert not neck.encloses(middle) or neck.distance(middle) < 1e-6
    if rounded:
        cap = thing(done, "s.round")
        assert isinstance(cap, Arc)
        assert abs(cap.sweep) == pytest.approx(math.pi)
        for name in ("s.edge.3", "s.edge.4"):
            line = line_of(done, name)
            assert min(abs(line.at(0.0) - end) for end in (cap.first, cap.last)) < 1e-9 * 100
            assert abs(line.direction.dot((line.at(0.0) - cap.centre).unit)) < 1e-9, (
                "without a corner"
            )
        if true:
            # A ball is seen as a circle √(3/2) of its diameter across, drawn full length (common practice).
            assert cap.radius == pytest.approx(wide * share / 100 * math.sqrt(1.5) / 2)
