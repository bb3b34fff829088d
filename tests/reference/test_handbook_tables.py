"""Whole plans against what handbooks print: lengths, areas and settings of parts, not the formulas they come from.

All tables here are from memory; each stands in machinists' and mechanical engineers' handbooks of any edition.
"""

from __future__ import annotations

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from desk import run_of, solved

BIG = "units mm\nsheet A2 landscape, scale 1:1, border 10\nO = datum\n"


@pytest.mark.parametrize(
    ("angle", "chord", "height", "area"),
    [
        (30, 0.51764, 0.03407, 0.01180),
        (45, 0.76537, 0.07612, 0.03915),
        (60, 1.00000, 0.13397, 0.09059),
        (75, 1.21752, 0.20665, 0.17154),
        (90, 1.41421, 0.29289, 0.28540),
        (120, 1.73205, 0.50000, 0.61418),
        (150, 1.93185, 0.74118, 1.05900),
        (180, 2.00000, 1.00000, 1.57080),
    ],
)
def test_segments_of_a_circle(angle: int, chord: float, height: float, area: float) -> None:
    """Segments for a radius of 1: chord, height and area by the angle at the centre."""
    start = 90 - angle / 2
    done = solved(
        f"s = swing, from O, radius 100, between {start} and {start + angle}\nc = line, from s.end to s.start\n"
        "rim = line in, s > c\nh = foot, of s.top on c\n",
        BIG,
    )
    loop = run_of(done, "rim")
    straight = next(piece.length for piece in loop.pieces if piece.name == "c")
    assert straight / 100 == pytest.approx(chord, abs=6e-6)
    assert loop.length / 100 == pytest.approx(math.radians(angle) + chord, abs=6e-6)
    assert abs(loop.area) / 1e4 == pytest.approx(area, abs=6e-6)
    foot = done.solution.figure.items["h"].shape
    assert (100 - foot.y) / 100 == pytest.approx(height, abs=6e-6)  # type: ignore[union-attr]


@pytest.mark.parametrize(
    ("sides", "area", "around", "within"),
    [
        (3, 0.4330127, 0.5773503, 0.2886751),
        (4, 1.0, 0.7071068, 0.5),
        (5, 1.7204774, 0.8506508, 0.6881910),
        (6, 2.5980762, 1.0, 0.8660254),
        (7, 3.6339124, 1.1523824, 1.0382607),
        (8, 4.8284271, 1.3065630, 1.2071068),
        (9, 6.1818242, 1.4619022, 1.3737387),
        (10, 7.6942088, 1.6180340, 1.5388418),
        (12, 11.1961524, 1.9318517, 1.8660254),
    ],
)
def test_regular_polygons_of_side_one(
    sides: int, area: float, around: float, within: float
) -> None:
    """Area, and the radii of the circles around and within, for a side of 1."""
    done = solved(f"p = polygon, {sides} sides, centred on O, side 50\nrim = line in, p\n", BIG)
    loop = run_of(done, "rim")
    assert loop.area / 2500 == pytest.approx(area, abs=6e-8)
    assert max(abs(piece.entry) for piece in loop.pieces) / 50 == pytest.approx(around, abs=6e-8)
    assert min(
        abs((piece.entry + piece.exit) * 0.5) for piece in loop.pieces
    ) / 50 == pytest.approx(within, abs=6e-8)


@pytest.mark.parametrize(("sides", "factor"), [(4, 1.41421), (6, 1.15470), (8, 1.08239)])
def test_across_corners_from_across_flats(sides: int, factor: float) -> None:
    """Bar stock: across corners is so many times across flats."""
    loop = run_of(solved(f"p = polygon, {sides} sides, centred on O, 40 across flats\n"), "p")
    assert 2 * abs(loop.pieces[0].entry) / 40 == pytest.approx(factor, abs=6e-6)


@given(st.integers(10, 200), st.integers(10, 150), st.integers(1, 9))
def test_a_fillet_takes_0_2146_of_its_radius_squared(wide: int, high: int, share: int) -> None:
    """Area of the spandrel of a quarter circle, 0.2146 r²: a plate loses it at every rounded corner."""
    radius = min(wide, high) * share / 20
    done = solved(
        f"frame = box, {wide} by {high}, centred on O\nr = rounded, all corners of frame, radius {radius}\nrim = line in, r\n",
        BIG,
    )
    loop = run_of(done, "rim")
    assert abs(loop.area) == pytest.approx(
        wide * high - 4 * 0.2146 * radius**2, abs=4 * 5e-5 * radius**2
    )
    assert loop.length == pytest.approx(2 * (wide + high) - (8 - math.tau) * radius)
    assert all(junction.is_tangent for junction in loop.junctions)


@given(st.integers(20, 150), st.integers(2, 19))
def test_an_obround_is_a_circle_and_a_rectangle(between: int, half: int) -> None:
    """Area πr² + 2rL and length 2πr + 2L of a slot with round ends, L between its centres."""
    done = solved(
        f"s = slot, centred on O, {between} between centres, width {2 * half}, level\nhole = line in, s\n",
        BIG,
    )
    loop = run_of(done, "hole")
    assert abs(loop.area) == pytest.approx(math.pi * half**2 + 2 * half * between)
    assert loop.length == pytest.approx(math.tau * half + 2 * between)


@given(st.integers(30, 120), st.integers(3, 20), st.integers(10, 170))
def test_a_curved_slot_is_a_sector_of_a_ring_between_two_half_circles(
    middle: int, half: int, sweep: int
) -> None:
    """Sector of a ring 0.00873 α (R² − r²), and its two ends together the circle of its width."""
    done = solved(
        f"s = slot, about O, radius {middle}, width {2 * half}, from 5° to {5 + sweep}°\nhole = line in, s\n",
        BIG,
    )
    ring = 0.00872665 * sweep * ((middle + half) ** 2 - (middle - half) ** 2)
    assert abs(run_of(done, "hole").area) == pytest.approx(ring + math.pi * half**2, rel=1e-6)


@pytest.mark.parametrize(
    ("teeth", "thick", "high"),
    [
        (12, 1.5663, 1.0514),
        (14, 1.5675, 1.0440),
        (17, 1.5686, 1.0362),
        (21, 1.5694, 1.0294),
        (26, 1.5698, 1.0237),
        (35, 1.5702, 1.0176),
        (55, 1.5706, 1.0112),
        (135, 1.5707, 1.0047),
    ],
)
def test_chordal_thickness_by_the_table_of_the_formed_cutters(
    teeth: int, thick: float, high: float
) -> None:
    """Chordal thickness and corrected addendum for a diametral pitch of 1, at the least teeth of each of eight cutters."""
    done = solved(
        f"w = gear, about O, {teeth} teeth, diametral pitch 1, proportions full\n",
        "units in\nsheet A0\nO = datum\n",
    )
    made = next(entry.made for entry in done.solution.entries if entry.statement.name == "w")
    assert made is not None
    told = "\n".join(made.working)
    row = next(row for row in made.working if "chordal" in row)
    numbers = [
        float(part)
        for part in row.replace(",", " ").replace("=", " ").replace(":", " ").split()
        if _is_number(part)
    ]
    assert any(abs(number - thick) < 1.01e-3 for number in numbers), told
    assert any(abs(number - high) < 1.01e-3 for number in numbers), told


def _is_number(text: str) -> bool:
    try:
        float(text)
    except ValueError:
        return False
    return True
