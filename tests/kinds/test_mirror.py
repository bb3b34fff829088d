"""``mirror``."""

from desk import HEAD, refused, thing
from entrick.core.desk import work_out
from entrick.core.geometry import Loop

TWO = "A = point, 70 left of O\nB = point, 70 right of O\na = circle, centre A, radius 30\nb = circle, centre B, radius 20\n"


def test_a_mirrored_blend_closes_the_outline() -> None:
    rows = TWO.replace("radius 20", "radius 30") + (
        "top = arc, radius 120, beside a, beside b, above\naxis = line, through O, level\n"
        "low = mirror, of top, about axis\nlow2 = mirror, of top, about line A B\nrim = line in, a > top > b > low\n"
    )
    done = work_out(HEAD + rows)
    assert not done.solution.errors
    assert thing(done, "low") == thing(done, "low2")
    rim = thing(done, "rim")
    assert isinstance(rim, Loop)
    assert rim.closed
    assert "its mirror image is itself" in refused("P = mirror, of O, about O.level")
