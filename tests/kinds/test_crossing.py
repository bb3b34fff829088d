"""``crossing``."""

from desk import HEAD, refused, thing
from entrick.core.desk import work_out
from entrick.core.geometry import Point


def test_crossings_are_chosen_by_words() -> None:
    rows = "c = circle, centre O, radius 10\nP = crossing, of c and O.plumb, upper\nQ = crossing, of c O.level, left\nN = crossing, of c O.level, near Q\n"
    done = work_out(HEAD + rows)
    assert thing(done, "P") == Point(0, 10)
    assert thing(done, "Q") == thing(done, "N") == Point(-10, 0)
    assert "miss by 5" in refused(
        "c = circle, centre O, radius 10\nA = point, 15 above O\nl = line, through A, level\nP = crossing, of c and l"
    )
