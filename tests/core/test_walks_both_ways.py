"""Which way round a walk goes: decided by what is drawn or said, never by which happens to be shorter."""

from __future__ import annotations

import math
import re
from itertools import pairwise

import pytest
from hypothesis import given
from hypothesis import strategies as st

from desk import refused, run_of, solved
from entrick.core.plan.reader import read_plan
from entrick.core.solve import solve
from entrick.demo import sample_plans
from examples import some

SIDES = (("above", "left"), ("below",), ("above", "right"))


def lobes(radius: float, blend: float, walk: str) -> str:
    """Three lobes about O and a round between each two that touches both from outside."""
    rows = "k = circle, centre O, radius 50\n"
    for name, angle in zip("abc", (90, 210, 330), strict=True):
        x, y = 50 * math.cos(math.radians(angle)), 50 * math.sin(math.radians(angle))
        rows += f"P{name} = point, {x:.6f} right of O, {y:.6f} above O\n{name} = circle, centre P{name}, radius {radius}\n"
    for number, (one, other) in enumerate(("ab", "bc", "ca"), 1):
        rows += f"t{number} = arc, radius {blend}, beside {one}, beside {other}, near O\n"
        rows += f"h{number} = circle, centre t{number}.centre, radius {blend}\n"
    return rows + f"rim = line in, {walk}\n"


WHOLE = "a {} > h1 > b > h2 > c > h3"


@given(st.floats(15, 30), st.floats(40, 70))
def test_circles_that_run_into_each_other_both_ways_are_not_decided_by_length(
    radius: float, blend: float
) -> None:
    told = refused(lobes(round(radius, 2), round(blend, 2), WHOLE.format("")))
    assert "smoothly both ways round: say" in told
    outer, inner = (
        run_of(solved(lobes(round(radius, 2), round(blend, 2), WHOLE.format(way))), "rim")
        for way in ("ccw", "cw")
    )
    assert abs(outer.area) != pytest.approx(abs(inner.area)), (
        "they are two outlines, and words choose between them"
    )


@pytest.mark.parametrize(
    "walk", [WHOLE.format("ccw"), WHOLE.format("cw"), "a > t1 > b > t2 > c > t3"]
)
def test_a_choice_made_by_words_or_by_what_is_drawn_does_not_flip_when_a_given_changes(
    walk: str,
) -> None:
    """Area and perimeter go on without a jump over the whole range a radius may have (R20 to R26 among it)."""
    sizes = [16 + 0.25 * step for step in range(57)]
    runs = [run_of(solved(lobes(radius, 55, walk)), "rim") for radius in sizes]
    for before, after in pairwise(runs):
        assert abs(abs(after.area) - abs(before.area)) < 0.25 * 2 * max(before.length, after.length)
        assert abs(after.length - before.length) < 0.25 * 4 * math.tau


@given(st.integers(10, 40), st.integers(100, 160))
def test_straight_pieces_and_corners_leave_nothing_to_say(radius: int, apart: int) -> None:
    """A belt round two pulleys, and a circle cut by a line: as they were."""
    belt = run_of(
        solved(
            f"A = point, {apart} right of O\na = circle, centre O, radius {radius}\nb = circle, centre A, radius {radius + 5}\n"
            "t = line, touching a, touching b, outer, above\nu = line, touching a, touching b, outer, below\nrim = line in, a > t > b > u\n"
        ),
        "rim",
    )
    assert all(junction.is_tangent for junction in belt.junctions)
    cut = run_of(
        solved(
            f"a = circle, centre O, radius {radius}\nT = point, 4 above O\nl = line, through T, level\nx = line in, a short > l\n"
        ),
        "x",
    )
    assert abs(cut.area) < math.pi * radius**2 / 2


def closed(text: str) -> list[tuple[float, float]] | None:
    """Return area and girth of every closed outline; None where something does not solve."""
    solution = solve(read_plan(text))
    if solution.errors:
        return None
    loops = [
        loop for entry in solution.entries if entry.made for loop in entry.made.loops if loop.closed
    ]
    return [(abs(loop.area), loop.length) for loop in loops]


def apart(one: list[tuple[float, float]], other: list[tuple[float, float]]) -> float:
    return max(
        (
            abs(a[0] - b[0]) / a[0] + abs(a[1] - b[1]) / a[1]
            for a, b in zip(one, other, strict=True)
        ),
        default=0.0,
    )


@pytest.mark.parametrize("name", some(sorted(sample_plans()), 4))
def test_no_given_of_a_sample_flips_an_outline_into_another(name: str) -> None:
    """Over some percent of every given: what changes between two sizes halves with the step between them."""
    text = sample_plans()[name]
    for row in re.finditer(
        r'^given (\w+) = (?:\d+× )?([ØR]?)([^"\n,]+?)(?=,| "|$)', text, re.MULTILINE
    ):

        def at(factor: float, row: re.Match[str] = row) -> list[tuple[float, float]] | None:
            return closed(
                text.replace(row[0], f"given {row[1]} = {row[2]}({row[3]})*{factor:.12f}", 1)
            )

        found = [
            (factor, each)
            for factor in (0.95, 0.98, 1.0, 1.02, 1.05)
            if (each := at(factor)) is not None
        ]
        for (low, one), (high, other) in pairwise(found):
            assert len(one) == len(other)
            first = moved = apart(one, other)
            if first < 0.02:
                continue  # so little changes that nothing can have flipped
            for _ in range(4):
                middle = at((low + high) / 2)
                if middle is None:
                    break
                left = apart(one, middle) > apart(middle, other)
                half = (low + high) / 2
                low, one, high, other = (
                    (low, one, half, middle) if left else (half, middle, high, other)
                )
                moved = apart(one, other)
            else:
                assert moved < 0.4 * first, (row[0], low, high)


@given(st.floats(10, 40), st.floats(15, 165), st.floats(1.05, 3), st.floats(1.05, 3))
def test_an_open_run_goes_straight_on_at_a_touch_to_whichever_end_lies_there(
    radius: float, turn: float, first: float, last: float
) -> None:
    """Also where the other end of its last piece is farther away."""
    leg = radius * math.tan(math.radians(turn) / 2)
    way = math.radians(180 - turn)
    far = first * leg, last * leg
    rows = (
        f"A = point, {far[0]:.9f} right of O\n"
        f"B = point, {far[1] * math.cos(way):.9f} right of O, {far[1] * math.sin(way):.9f} above\n"
        "a = line, from A to O\nb = line, from O to B\n"
        f"f = fillet, between a and b, radius {radius:.9f}\nr = line in, a > f > b, open\n"
    )
    run = run_of(solved(rows), "r")
    whole = far[0] + far[1] - 2 * leg + radius * math.radians(turn)
    assert run.length == pytest.approx(whole, abs=1e-5)
    assert all(
        a.direction(a.exit).dot(b.direction(b.entry)) > 0.999 for a, b in pairwise(run.pieces)
    )
