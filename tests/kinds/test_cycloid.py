"""``cycloid``."""

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from desk import HEAD, run_of, solved
from entrick.core.desk import work_out


@given(st.integers(3, 40), st.integers(1, 3))
def test_a_cycloid_is_eight_radii_long_for_every_turn(radius: int, turns: int) -> None:
    """Length 8r and rise 2r for an arch, 2πr along (Roberval, Wren; from memory)."""
    loop = run_of(solved(f"c = cycloid, from O, radius {radius}, {turns} turns\n"), "c")
    assert loop.length == pytest.approx(8 * radius * turns, rel=1e-4)
    low, high = loop.box
    assert high.y - low.y == pytest.approx(2 * radius, rel=1e-4)
    assert loop.pieces[-1].exit.x == pytest.approx(math.tau * radius * turns)


@pytest.mark.parametrize(
    ("inside", "length", "reach"), [(False, 8 * 10 * 50 / 40 * 4, 60), (True, 6 * 40, 40)]
)
def test_epicycloid_and_astroid_against_the_handbook(
    inside: bool, length: float, reach: float
) -> None:
    """Epicycloid arch 8r(R + r)/R; astroid, the hypocycloid of R = 4r, 6R in all (handbook, from memory)."""
    rows = f"b = circle, centre O, radius 40\nc = cycloid, on b,{' inside,' if inside else ''} radius 10, 4 turns\n"
    loop = run_of(solved(rows), "c")
    assert loop.length == pytest.approx(length, rel=1e-4)
    assert max(abs(spot) for spot in loop.box) <= reach * math.sqrt(2)
    assert abs(loop.pieces[-1].exit - loop.pieces[0].entry) < 1e-6, "it closes after R/r turns"
    if inside:
        for piece in loop.pieces:
            x, y = abs(piece.entry.x) / 40, abs(piece.entry.y) / 40
            assert x ** (2 / 3) + y ** (2 / 3) == pytest.approx(1, abs=2e-3), "x^⅔ + y^⅔ = R^⅔"


@pytest.mark.parametrize(
    ("row", "told"),
    [
        ("c = cycloid, radius 9, 1 turns\n", "say one of them"),
        ("c = cycloid, from O, radius 9, 13 turns\n", "up to 12 turns"),
        (
            "b = circle, centre O, radius 9\nc = cycloid, on b, inside, radius 9, 1 turns\n",
            "smaller than it",
        ),
    ],
)
def test_what_cannot_roll_is_said(row: str, told: str) -> None:
    assert told in work_out(HEAD + row).solution.errors[0].message
