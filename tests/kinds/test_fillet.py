"""``fillet``."""

import pytest

from desk import HEAD, solved
from entrick.core.desk import work_out
from entrick.core.geometry import Point


def test_a_fillet_of_a_line_and_a_circle_says_which_when_several_are_drawn() -> None:
    rows = "c = circle, centre O, radius 30\nA = point, 60 left of O, 10 above\nB = point, 60 right of O, 10 above\nl = line, from A to B\n"
    undecided = work_out(HEAD + rows + "x = fillet, between l and c, radius 6\n").solution.entries[
        -1
    ]
    assert len(undecided.candidates) == 8
    chosen = solved(
        rows + "x = fillet, between l and c, radius 6, beside, above, right\n"
    ).solution.figure.items["x"]
    centre = chosen.parts["centre"]
    assert isinstance(centre, Point)
    assert centre.y == pytest.approx(16)
    assert abs(centre) == pytest.approx(36)
    assert centre.x > 0


@pytest.mark.parametrize("corner", ["ring", "c1", "O"])
def test_what_is_no_corner_is_told(corner: str) -> None:
    rows = "c1 = circle, centre O, radius 20\nring = spaced, 6 on c1, from below\n"
    done = work_out(HEAD + rows + f"f = fillet, corner {corner}, radius 4\n")
    (error,) = done.solution.errors
    assert "corner" in error.message
    assert "reference" not in error.message, "that would be a fault of the desk"
