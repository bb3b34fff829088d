"""``foot``."""

from hypothesis import given
from hypothesis import strategies as st

from desk import HEAD, line_of, point_of
from entrick.core.desk import work_out

coordinates = st.floats(-80, 80).map(lambda v: round(v, 3))


@given(coordinates, coordinates, st.floats(0, 179))
def test_a_foot_is_the_nearest_point_of_the_line(x: float, y: float, angle: float) -> None:
    done = work_out(
        HEAD
        + f"A = point, {x} right of O, {y} above O\nl = line, through O, at {angle:.3f}°\nF = foot, of A on l\n"
    )
    if done.solution.errors:
        assert "lies on l already" in done.solution.errors[0].message
        return
    a, f, l_ = point_of(done, "A"), point_of(done, "F"), line_of(done, "l")
    assert abs(l_.offset_of(f)) < 1e-9
    assert abs((a - f).dot(l_.direction)) < 1e-9
    assert all(abs(a - l_.at(l_.along(f) + step)) >= abs(a - f) for step in (-1, 1))
