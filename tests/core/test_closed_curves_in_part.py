"""A closed curve walked in part: from where the walk comes onto it to where it leaves, the right way round."""

from __future__ import annotations

import math

import pytest

from desk import run_of, solved
from entrick.core.desk import work_out
from entrick.core.geometry import Loop

HEAD = "units mm\nsheet A4 landscape, scale 1:2\nO = datum, middle of sheet\ne = ellipse, centred on O, axes 90 and 56\n"


def outline(text: str, name: str) -> Loop:
    return run_of(solved(text, HEAD), name)


@pytest.mark.parametrize("height", [40, 80, 200])
def test_between_two_tangents_the_walk_goes_on_round_the_far_side(height: int) -> None:
    rim = outline(
        f"P = point, 10 right of O, {height} above\nl = tangent, to e, from P, left\nm = tangent, to e, from P, right\n"
        "rim = line in, l > e > m\n",
        "rim",
    )
    corners = [j for j in rim.junctions if abs(j.turn) > 1e-3]
    assert len(corners) == 1, "only the point the tangents come from is a corner"
    assert rim.area > math.pi * 45 * 28, "the ellipse lies inside it"


def test_both_parts_between_two_rays_make_up_the_whole() -> None:
    rays = "q = line, from O, at 20°, for 100\nr = line, from O, at 100°, for 100\n"
    areas = [
        abs(outline(f"{rays}s = line in, q > e {way} > r\n", "s").area) for way in ("short", "long")
    ]
    assert sum(areas) == pytest.approx(math.pi * 45 * 28, rel=1e-4)
    # A sector of an ellipse is that of the circle it is squeezed from: ab/2 times the eccentric angle (Archimedes).
    turn = math.atan2(math.sin(math.radians(100)) / 28, math.cos(math.radians(100)) / 45)
    turn -= math.atan2(math.sin(math.radians(20)) / 28, math.cos(math.radians(20)) / 45)
    assert min(areas) == pytest.approx(45 * 28 * turn / 2, rel=1e-4)


def test_two_closed_curves_bound_their_lens() -> None:
    lens = outline(
        "Q = point, 60 right of O\nf = ellipse, centred on Q, axes 90 and 56\ng = line in, e > f\n",
        "g",
    )
    # Both halves of the lens are the same segment: half axes 45 and 28, cut 30 from the middle (closed formula).
    turn = math.acos(30 / 45)
    assert abs(lens.area) == pytest.approx(45 * 28 * (2 * turn - math.sin(2 * turn)), rel=1e-4)


@pytest.mark.parametrize(
    ("walk", "told"),
    [
        ("q > e", "same place"),
        ("k > e > q", "do not meet"),
        ("q > e > q", "same place"),
    ],
)
def test_what_cannot_be_walked_says_why(walk: str, told: str) -> None:
    text = (
        HEAD
        + "q = line, from O, at 20°, for 100\nK = point, 200 right of O\nk = circle, centre K, radius 5\n"
        f"s = line in, {walk}\n"
    )
    errors = work_out(text).solution.errors
    assert len(errors) == 1
    assert told in errors[0].message
