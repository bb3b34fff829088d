"""Parts that no sample shows, laid out in the plan language, against the same parts put together by shapely.

shapely knows discs only as fine polygons (here 2000 sides, which lose 1.6e-6 of the area), so areas agree to 1e-5.
"""

import math
from functools import partial
from pathlib import Path

import pytest
import shapely
from click.testing import CliRunner
from hypothesis import given
from hypothesis import strategies as st
from shapely import affinity

from desk import solved
from entrick.cli import main
from entrick.core.assist.regions import region_at
from entrick.core.desk import Work, work_out
from entrick.core.dimensioning.variation import Variation
from entrick.core.geometry import Arc, Circle, Loop, Point
from entrick.core.proof import why_not_cut
from entrick.core.tolerance import VARIED

HEAD = "units mm\nsheet A1 landscape, scale 1:1, border 10\nO = datum\n"
SIDES = 500


def disc(x: float, y: float, r: float) -> shapely.Geometry:
    return shapely.Point(x, y).buffer(r, quad_segs=SIDES)


def slot(x: float, y: float, u: float, v: float, width: float) -> shapely.Geometry:
    return shapely.LineString([(x, y), (u, v)]).buffer(width / 2, quad_segs=SIDES)


def rounded(w: float, h: float, r: float) -> shapely.Geometry:
    return shapely.box(-w / 2 + r, -h / 2 + r, w / 2 - r, h / 2 - r).buffer(r, quad_segs=SIDES)


def material(done: Work) -> float:
    """Area of the part: outlines at even depth less those at odd."""
    assert not [f for f in done.findings if f.weight == "wrong"], [
        f.message for f in done.findings if f.weight == "wrong"
    ]
    assert why_not_cut(done.findings) == ""
    return sum(abs(o.loop.area) * (-1 if o.is_hole else 1) for o in done.checked.outlines)


BOX_SIDES = ("bottom", "right", "top", "left")


def rounded_box(name: str, w: float, h: float, r: float) -> str:
    rows = f"{name} = box, {w} by {h}, centred on O\n"
    for i, side in enumerate(BOX_SIDES):
        rows += f"{name}{i} = fillet, between {name}.{side} and {name}.{BOX_SIDES[(i + 1) % 4]}, radius {r}\n"
    walk = " > ".join(f"{name}.{side} > {name}{i}" for i, side in enumerate(BOX_SIDES))
    return rows + f"rim_{name} = line in, {walk}\n"


PARTS = {
    "flange with a bolt circle and a keyed bore": (
        "a = circle, centre O, radius 80\nb = circle, centre O, radius 25\np = circle, centre O, radius 58\n"
        "at = spaced, 6 on p, from 30°\nh = circle, centre at, diameter 15\nk = keyway, on b, width 14, depth 6, right\n"
        "rim = line in, a\nbolts = line in, h\nbore = line in, b long > k\n",
        disc(0, 0, 80)
        - shapely.union_all(
            [
                disc(
                    58 * math.cos(math.radians(30 + 60 * i)),
                    58 * math.sin(math.radians(30 + 60 * i)),
                    7.5,
                )
                for i in range(6)
            ]
        )
        - disc(0, 0, 25)
        - shapely.box(0, -7, 31, 7),
    ),
    "frame: a rounded box with a rounded window": (
        rounded_box("a", 120, 80, 20) + rounded_box("b", 70, 40, 6),
        rounded(120, 80, 20) - rounded(70, 40, 6),
    ),
    "strap with an adjusting slot and a round eye": (
        "A = point, 90 right of O\nB = point, 60 right of O\ns = slot, from O to A, width 40\nt = slot, from B to A, width 12\n"
        "c = circle, centre O, radius 11\nrim = line in, s\nway = line in, t\neye = line in, c\n",
        slot(0, 0, 90, 0, 40) - slot(60, 0, 90, 0, 12) - disc(0, 0, 11),
    ),
    "crank: two unequal bosses, straight flanks": (
        "A = point, 100 from O, at 35°\na = circle, centre O, radius 32\nb = circle, centre A, radius 17\n"
        "u = line, touching a and b, outer, above\nv = line, touching a and b, outer, below\nc = circle, centre O, radius 14\n"
        "rim = line in, a > u > b > v\nbore = line in, c\n",
        shapely.union_all(
            [
                disc(0, 0, 32),
                disc(100 * math.cos(math.radians(35)), 100 * math.sin(math.radians(35)), 17),
            ]
        ).convex_hull
        - disc(0, 0, 14),
    ),
    "five-lobed knob by turning": (
        "P = point, 40 above O\nb = circle, centre P, radius 14\nl = turn, of b, 5 about O\n"
        "w = arc, radius 25, beside l.1, beside l.2, left, above\nws = turn, of w, 5 about O\n"
        "rim = line in, l.1 > ws.1 > l.2 > ws.2 > l.3 > ws.3 > l.4 > ws.4 > l.5 > ws.5\n",
        None,
    ),
}


@pytest.mark.parametrize("name", [name for name, (_, shape) in PARTS.items() if shape is not None])
def test_a_part_put_together_by_shapely_has_the_same_area(name: str) -> None:
    rows, shape = PARTS[name]
    done = solved(rows)
    assert shape is not None
    assert material(done) == pytest.approx(shape.area, rel=1e-5)
    low, high = (
        f(o.loop.box[i] for o in done.checked.outlines)
        for f, i in ((min_corner, 0), (max_corner, 1))
    )
    assert (low.x, low.y, high.x, high.y) == pytest.approx(shape.bounds, abs=2e-4)


def min_corner(spots: object) -> Point:
    found = list(spots)  # type: ignore[call-overload]
    return Point(min(p.x for p in found), min(p.y for p in found))


def max_corner(spots: object) -> Point:
    found = list(spots)  # type: ignore[call-overload]
    return Point(max(p.x for p in found), max(p.y for p in found))


def test_a_knob_of_five_lobes_repeats_itself() -> None:
    rows, _ = PARTS["five-lobed knob by turning"]
    done = solved(rows)
    rim = done.solution.figure.items["rim"].shape
    assert isinstance(rim, Loop)
    assert all(junction.is_tangent for junction in rim.junctions)
    spots = [
        (p.curve.at(p.curve.start + p.curve.sweep * i / 200))
        for p in rim.pieces
        if isinstance(p.curve, Arc)
        for i in range(200)
    ]
    whole = shapely.Polygon([(p.x, p.y) for p in spots])
    turned = affinity.rotate(whole, 72, origin=(0, 0))
    assert whole.symmetric_difference(turned).area < 1e-3 * whole.area


def test_a_crescent_and_a_lens_are_lined_in_by_region() -> None:
    """Lens of two circles: 2r²·acos(d/2r) − d/2·√(4r² − d²) (handbook, from memory)."""
    done = solved(
        "A = point, 30 right of O\na = circle, centre O, radius 40\nb = circle, centre A, radius 40\n"
    )
    lens = 2 * 40**2 * math.acos(30 / 80) - 15 * math.sqrt(4 * 40**2 - 30**2)
    between = region_at(done.solution, [Point(15, 0)])
    crescent = region_at(done.solution, [Point(-30, 0)])
    assert between.loops[0].area == pytest.approx(lens)
    assert crescent.loops[0].area == pytest.approx(math.pi * 1600 - lens)
    both = region_at(done.solution, [Point(15, 0), Point(-30, 0), Point(60, 0)])
    assert both.loops[0].area == pytest.approx((disc(0, 0, 40) | disc(30, 0, 40)).area, rel=1e-5)


@pytest.mark.parametrize(("chord", "radius"), [(60, 40), (30, 100), (79, 40)])
def test_a_segment_against_the_handbook(chord: int, radius: int) -> None:
    """Segment of a circle: r²/2·(α − sin α), α = 2·asin(c/2r) (handbook, from memory)."""
    rise = math.sqrt(radius**2 - chord**2 / 4)
    done = solved(
        f"H = point, {rise!r} above O\nc = circle, centre O, radius {radius}\nl = line, through H, level\nrim = line in, c short > l\n"
    )
    alpha = 2 * math.asin(chord / 2 / radius)
    assert material(done) == pytest.approx(radius**2 / 2 * (alpha - math.sin(alpha)))


@given(st.integers(30, 90), st.integers(4, 14), st.integers(15, 60), st.integers(1, 3))
def test_a_fillet_centre_moves_as_its_derivative_says(
    between: int, radius: int, angle: int, where: int
) -> None:
    """Fillet of radius r in an angle α: its centre is r/sin(α/2) from the corner, so it moves so much per unit of r."""
    rows = (
        f"given r = {radius}\nA = point, {between * 2} right of O\nB = point, {between * 2} from O, at {angle}°\n"
        "l = line, from O to A\nm = line, from O to B\nn = line, from A to B\nf = fillet, between l and m, radius r\n"
        "rim = line in, l > n > m > f\n"
    )
    done = work_out(HEAD + rows)
    if done.solution.errors:
        return  # the fillet is too large for the legs
    variation = Variation(done.solution)
    column = [size.name for size in variation.sizes].index("r")

    def reach(solution) -> float:  # type: ignore[no-untyped-def]
        return abs(solution.figure.items["f"].parts["centre"])

    moved = (reach(variation.varied[column]) - reach(done.solution)) / VARIED
    assert moved == pytest.approx(radius / math.sin(math.radians(angle) / 2), rel=1e-4)


def test_the_shell_writes_for_a_cutter_with_the_caution_and_refuses_an_open_outline(
    tmp_path: Path,
) -> None:
    plan, out = tmp_path / "part.entrick", tmp_path / "part.dxf"
    plan.write_text(HEAD + PARTS["strap with an adjusting slot and a round eye"][0], "utf-8")
    done = CliRunner().invoke(main, ["draw", str(plan), "-o", str(out), "--cutter"])
    assert done.exit_code == 0
    assert "Check scale and units on the machine before cutting" in done.output
    assert out.exists()
    plan.write_text(
        HEAD + "b = box, 9 by 9, centred on O\nrim = line in, b.bottom > b.right, open\n", "utf-8"
    )
    refused = CliRunner().invoke(main, ["draw", str(plan), "-o", str(out), "--cutter"])
    assert refused.exit_code == 1
    assert "not to be cut as it is: rim is an open run" in refused.output
    assert (
        CliRunner()
        .invoke(main, ["draw", str(plan), "-o", str(out), "--cutter", "--insist"])
        .exit_code
        == 0
    )


@given(st.integers(2, 9), st.integers(20, 60), st.integers(2, 6))
def test_holes_spaced_on_a_circle_leave_the_wall_the_chord_leaves(
    count: int, pitch: int, radius: int
) -> None:
    """Wall between neighbours: chord 2R·sin(180°/n) less a diameter (common practice, no source)."""
    rows = (
        f"p = circle, centre O, radius {pitch}\nat = spaced, {count} on p\nh = circle, centre at, radius {radius}\n"
        f"a = circle, centre O, radius {pitch + radius + 50}\nrim = line in, a\nholes = line in, h\n"
    )
    done = work_out(HEAD + rows)
    chord = 2 * pitch * math.sin(math.pi / count)
    wall = chord - 2 * radius
    told = next((f.message for f in done.findings if f.rule == "wall"), "")
    if 0.01 < wall < 50:
        assert float(told.split()[2]) == pytest.approx(wall, abs=1e-3)
    elif wall < -0.01:
        assert any(f.rule == "material" and f.weight == "wrong" for f in done.findings)


def test_every_curve_drawn_on_paper_is_the_figures_at_scale() -> None:
    """The display list is the figure times scale plus origin, circle by circle."""
    done = work_out(
        HEAD.replace("1:1", "1:2") + PARTS["flange with a bolt circle and a keyed bore"][0]
    )
    circles = {
        (round(m.cx, 6), round(m.cy, 6), round(m.r, 6))
        for m in done.display.marks
        if m.kind == "circle"
    }
    for outline in done.checked.outlines:
        curve = outline.loop.pieces[0].curve
        if isinstance(curve, Circle) and len(outline.loop.pieces) == 1:
            spot = done.sheet.on_paper(curve.centre)
            assert (round(spot.x, 6), round(spot.y, 6), round(curve.radius / 2, 6)) in circles


solved = partial(solved, head=HEAD)
