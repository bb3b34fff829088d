"""``foot``."""

from hypothesis import given
from hypothesis import strategies as st

from desk import HEAD
from entrick.core.desk import Work, work_out
from entrick.core.geometry import Line, Point

coordinates = st.floats(-80, 80).map(lambda v: round(v, 3))


def point(done: Work, name: str) -> Point:
    found = dict(done.solution.figure.things()).get(name)
    assert isinstance(found, Point), name
    return found


def line(done: Work, name: str) -> Line:
    found = dict(done.solution.figure.things())[name]
    assert isinstance(found, Line)
    return found


@given(coordinates, coordinates, st.floats(0, 179))
def test_a_foot_is_the_nearest_point_of_the_line(x: float, y: float, angle: float) -> None:
    done = work_out(
        HEAD + f"A = point, {x} right of O, {y} above O\nl = line, through O, at {angle:.3f}°\nF = foot, of A on l\n"
    )
    if done.solution.errors:
        assert "lies on l already" in done.solution.errors[0].message
        return
    a, f, l_ = point(done, "A"), point(done, "F"), line(done, "l")
    assert abs(l_.offset_of(f)) < 1e-9
    assert abs((a - f).dot(l_.direction)) < 1e-9
    assert all(abs(a - l_.at(l_.along(f) + step)) >= abs(a - f) for step in (-1, 1))
