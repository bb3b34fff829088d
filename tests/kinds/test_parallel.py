"""``parallel``."""

import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from desk import line_of, solved
from entrick.core.geometry import Point


@given(st.floats(0, 179), st.floats(0.1, 60), st.sampled_from(["above", "below", "left", "right"]))
def test_a_parallel_keeps_its_distance_on_the_named_side(
    angle: float, distance: float, side: str
) -> None:
    assume((abs(angle - 90) > 5) if side in ("above", "below") else (8 < angle < 172))
    done = solved(
        f"l = line, through O, at {angle:.3f}°\nm = parallel, to l, at {distance:.3f}, {side}\n"
    )
    m = line_of(done, "m")
    assert abs(m.direction.cross(line_of(done, "l").direction)) < 1e-12
    assert abs(m.offset_of(Point(0, 0))) == pytest.approx(round(distance, 3))
    foot = m.foot(Point(0, 0))
    assert {"above": foot.y, "below": -foot.y, "left": -foot.x, "right": foot.x}[side] > 0
