"""The geometry against general libraries: sympy exactly, shapely by sampling, and against published handbook facts."""

import math
from fractions import Fraction as F

import pytest
import shapely
import sympy
from hypothesis import assume, given
from hypothesis import strategies as st

from desk import outline
from entrick.core.desk import work_out
from entrick.core.geometry import Arc, Circle, Line, Loop, Point, meet
from entrick.core.geometry.locus import around, beside, tangencies
from entrick.core.geometry.three import circles_touching
from examples import examples

whole = st.integers(-40, 40)
sizes = st.integers(1, 40)


@given(whole, whole, sizes, whole, whole, sizes)
def test_circle_crossings_against_exact_symbolic_geometry(
    x1: int, y1: int, r1: int, x2: int, y2: int, r2: int
) -> None:
    """sympy.geometry intersects the same circles in exact arithmetic."""
    assume((x1, y1) != (x2, y2))
    ours = sorted(
        (m.point.x, m.point.y) for m in meet(Circle(Point(x1, y1), r1), Circle(Point(x2, y2), r2))
    )
    exact = sympy.Circle(sympy.Point(x1, y1), r1).intersection(
        sympy.Circle(sympy.Point(x2, y2), r2)
    )
    theirs = sorted((float(p.x), float(p.y)) for p in exact)
    assert len(ours) == len(theirs)
    for mine, other in zip(ours, theirs, strict=True):
        assert mine == pytest.approx(other, abs=1e-9)


@examples(15)
@given(whole, whole, sizes, whole, whole)
def test_line_crossings_against_exact_symbolic_geometry(
    x: int, y: int, r: int, dx: int, dy: int
) -> None:
    assume((dx, dy) != (0, 0))
    line = Line.between(Point(0, 0), Point(dx, dy))
    ours = sorted((m.point.x, m.point.y) for m in meet(line, Circle(Point(x, y), r)))
    exact = sympy.Circle(sympy.Point(x, y), r).intersection(
        sympy.Line(sympy.Point(0, 0), sympy.Point(dx, dy))
    )
    theirs = sorted((float(p.x), float(p.y)) for p in exact)
    assert len(ours) == len(theirs)
    for mine, other in zip(ours, theirs, strict=True):
        assert mine == pytest.approx(other, abs=1e-9)


@pytest.mark.parametrize(
    ("d", "r1", "r2", "radius"), [(100, 30, 20, 100), (96, 28, 21, 140), (50, 10, 10, 40)]
)
@pytest.mark.parametrize("contact", [around, beside])
def test_blend_centres_solve_the_equations_exactly(
    d: int, r1: int, r2: int, radius: int, contact
) -> None:  # type: ignore[no-untyped-def]
    """sympy solves |C − A| = R ∓ r1, |C − B| = R ∓ r2 for the centre; ours are those solutions."""
    sign = 1 if contact is beside else -1
    x, y = sympy.symbols("x y", real=True)
    a, b = radius + sign * r1, radius + sign * r2
    roots = sympy.solve([x**2 + y**2 - a**2, (x - d) ** 2 + y**2 - b**2], [x, y])
    theirs = sorted((float(p), float(q)) for p, q in roots)
    one = contact(Circle(Point(0, 0), r1, F(r1)), F(radius))
    other = contact(Circle(Point(d, 0), r2, F(r2)), F(radius))
    ours = sorted((t.centre.x, t.centre.y) for t in tangencies([one], [other], F(radius)))
    assert len(ours) == len(theirs) == 2
    for mine, root in zip(ours, theirs, strict=True):
        assert mine == pytest.approx(root, abs=1e-10)


def test_sample_outlines_against_sampled_polygons(samples: dict[str, str]) -> None:
    """Area and length in closed form against shapely on a fine polygon, for every outline of the samples."""
    checked = 0
    for text in (
        text for text in samples.values() if " = gear, " not in text
    ):  # thousands of arcs: tested apart
        for item in work_out(text).solution.figure.items.values():
            if isinstance(item.shape, Loop) and item.shape.closed:
                polygon = outline(item.shape, per_turn=4000)
                assert polygon.is_valid
                assert abs(item.shape.area) == pytest.approx(polygon.area, rel=1e-5)
                assert item.shape.length == pytest.approx(polygon.length, rel=1e-5)
                checked += 1
    assert checked >= 25


def test_blends_do_not_cut_into_what_they_touch() -> None:
    """A sampled blend around and beside two eyes has shapely distance nought to them and never crosses over."""
    text = (
        "units mm\nO = datum\nA = point, 60 left of O\nB = point, 60 right of O\na = circle, centre A, radius 35\n"
        "b = circle, centre B, radius 22\ntop = arc, radius 150, around a, around b, above\n"
        "low = arc, radius 90, beside a, beside b, below\n"
    )
    items = work_out(text).solution.figure.items
    eyes = [
        shapely.Point(i.shape.centre.x, i.shape.centre.y).buffer(i.shape.radius, 2048)
        for i in (items["a"], items["b"])
    ]  # type: ignore[union-attr]
    for name in ("top", "low"):
        arc = items[name].shape
        assert isinstance(arc, Arc)
        spots = [arc.at(arc.start + arc.sweep * i / 2000) for i in range(2001)]
        run = shapely.LineString([(p.x, p.y) for p in spots])
        for eye in eyes:
            assert run.distance(eye) < 1e-3
            assert run.intersection(eye).length < 0.5, "it touches, it does not cut through"


@pytest.mark.parametrize(("r", "h"), [(10, 6), (25, 7), (4, 1)])
def test_segment_area_against_the_handbook_formula(r: int, h: int) -> None:
    """Area of a circular segment: r²·acos(h/r) − h·√(r² − h²). Any engineering handbook's table of plane areas (from memory)."""
    text = f"units mm\nO = datum\nH = point, {h} above O\nc = circle, centre O, radius {r}\nl = line, through H, level\ncap = line in, c > l\n"
    loop = work_out(text).solution.figure.items["cap"].shape
    assert isinstance(loop, Loop)
    assert abs(loop.area) == pytest.approx(r * r * math.acos(h / r) - h * math.sqrt(r * r - h * h))


@pytest.mark.parametrize(("d", "r1", "r2"), [(10, 3, 2), (100, 40, 15), (9, 4, 4)])
def test_open_belt_length_against_the_handbook_formula(d: int, r1: int, r2: int) -> None:
    """Open belt over two pulleys: 2√(d² − (R−r)²) + R(π + 2α) + r(π − 2α), sin α = (R − r)/d (handbook, from memory)."""
    text = (
        f"units mm\nO = datum\nB = point, {d} right of O\na = circle, centre O, radius {r1}\nb = circle, centre B, radius {r2}\n"
        "u = line, touching a, touching b, outer, above\nv = line, touching a, touching b, outer, below\nbelt = line in, a > u > b > v\n"
    )
    loop = work_out(text).solution.figure.items["belt"].shape
    assert isinstance(loop, Loop)
    alpha = math.asin((r1 - r2) / d)
    belt = (
        2 * math.sqrt(d * d - (r1 - r2) ** 2)
        + r1 * (math.pi + 2 * alpha)
        + r2 * (math.pi - 2 * alpha)
    )
    assert loop.length == pytest.approx(belt, rel=1e-12)
    assert all(junction.is_tangent for junction in loop.junctions)


@pytest.mark.parametrize(("d", "r1", "r2"), [(10, 3, 2), (100, 40, 15)])
def test_crossed_belt_tangent_length_against_the_handbook_formula(d: int, r1: int, r2: int) -> None:
    """Crossed belt: each straight part is √(d² − (R + r)²) (handbook, from memory)."""
    text = (
        f"units mm\nO = datum\nB = point, {d} right of O\na = circle, centre O, radius {r1}\nb = circle, centre B, radius {r2}\n"
        "u = line, touching a, touching b, crossed, above\n"
    )
    line = work_out(text).solution.figure.items["u"].shape
    assert isinstance(line, Line)
    assert line.end == pytest.approx(math.sqrt(d * d - (r1 + r2) ** 2), rel=1e-12)


@pytest.mark.parametrize(
    "corners", [((0, 0), (4, 0), (0, 3)), ((-7, 2), (11, 5), (3, 19)), ((0, 0), (10, 1), (5, 30))]
)
def test_circles_of_a_triangle_against_exact_symbolic_geometry(
    corners: tuple[tuple[int, int], ...],
) -> None:
    """sympy's in-circle, radii of the ex-circles, and circumcircle of the same triangle."""
    triangle = sympy.Triangle(*corners)
    spots = [Point(float(x), float(y)) for x, y in corners]
    sides = [Line.between(a, b) for a, b in zip(spots, [*spots[1:], spots[0]], strict=True)]
    found = circles_touching(sides)
    radii = sorted(float(r) for r in (triangle.inradius, *triangle.exradii.values()))
    assert [f.circle.radius for f in found] == pytest.approx(radii)
    centre = triangle.incenter
    assert (found[0].circle.centre.x, found[0].circle.centre.y) == pytest.approx(
        (float(centre.x), float(centre.y))
    )
    (around_all,) = circles_touching(spots)
    circum = triangle.circumcircle
    assert around_all.circle.radius == pytest.approx(float(circum.radius))
    assert (around_all.circle.centre.x, around_all.circle.centre.y) == pytest.approx(
        (float(circum.center.x), float(circum.center.y))
    )


def test_inner_and_outer_circles_of_four_equal_coins_against_the_exact_solution() -> None:
    """Three touching coins of radius r: the circles between and around them have radii r(2/√3 ∓ 1), solved by sympy."""
    r = sympy.Symbol("r", positive=True)
    exact = sorted(
        float(abs(s.subs(r, 10)))
        for s in sympy.solve((r + sympy.Symbol("x")) ** 2 - (2 * r / sympy.sqrt(3)) ** 2, "x")
    )
    coins = [
        Circle(Point(20 * math.cos(a) / math.sqrt(3), 20 * math.sin(a) / math.sqrt(3)), 10)
        for a in (0, math.tau / 3, -math.tau / 3)
    ]
    found = {f.contacts: f.circle.radius for f in circles_touching(coins)}
    assert found["beside", "beside", "beside"] == pytest.approx(exact[0])
    assert found["around", "around", "around"] == pytest.approx(exact[1])
