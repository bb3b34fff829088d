"""``line``."""

import math

import pytest

from desk import HEAD, refused, thing
from entrick.core.desk import work_out
from entrick.core.geometry import Point

TWO = "A = point, 70 left of O\nB = point, 70 right of O\na = circle, centre A, radius 30\nb = circle, centre B, radius 20\n"


def test_lines_level_plumb_at_an_angle_parallel_and_square() -> None:
    done = work_out(
        HEAD + "A = point, 30 right of O\nl = line, through A, level\np = line, through A, plumb\n"
        "s = line, through O, at 30°\nq = line, through A, parallel to s\nr = line, through A, square to s\n"
        "t = line, from O to A\nu = line, through O, through A\nX = crossing, of s and p\n"
    )
    directions = {n: thing(done, n).direction for n in "lpsqrtu"}  # type: ignore[union-attr]
    assert directions["l"] == Point(1, 0)
    assert directions["p"] == Point(0, 1)
    assert directions["q"] == directions["s"]
    assert abs(directions["r"].dot(directions["s"])) < 1e-12
    assert directions["t"] == directions["u"]
    x = thing(done, "X")
    assert isinstance(x, Point)
    assert (x.x, x.y) == pytest.approx((30, 30 * math.tan(math.radians(30))))


def test_a_line_may_be_said_in_several_ways() -> None:
    rows = "A = point, 30 right of O, 4 above\n" + "".join(
        f"l{i} = line, {said}\n"
        for i, said in enumerate(
            ("from O to A", "O A", "O to A", "through O and A", "through O A", "through O, through A")
        )
    )
    done = work_out(HEAD + rows + "m = line, from O, level\nn = line, through O, level\n")
    assert not done.solution.errors
    assert len({thing(done, f"l{i}") for i in range(6)}) == 1
    assert thing(done, "m") == thing(done, "n")
    pair = HEAD + TWO + "s = line, touching a, touching b, outer, above\nt = line, touching a and b, outer, above\n"
    assert thing(work_out(pair), "s") == thing(work_out(pair), "t")
    assert "nothing more" in refused(TWO + "t = line, touching a and b, level")
