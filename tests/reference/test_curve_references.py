"""Ellipses, helices and isometric circles against mpmath, sympy and the handbook; files re-read with ezdxf."""

import io
import math

import ezdxf
import mpmath
import pytest
import sympy
from hypothesis import given
from hypothesis import strategies as st

from entrick.core import formats
from entrick.core.desk import work_out
from entrick.core.geometry import Arc, Line, Loop, Point
from entrick.core.geometry.ellipse import Ellipse, departure, four_centres
from entrick.core.geometry.isometric import PLANES, SQUARE, lean, rhombus, true_ellipse
from examples import some

HEAD = "units mm\nsheet A2 landscape, scale 1:1, border 10\nO = datum\n"


@pytest.mark.parametrize(("a", "b"), [(50, 22), (45, 28), (100, 1), (10, 10), (7, 6.9)])
def test_the_perimeter_of_an_ellipse_against_mpmath(a: float, b: float) -> None:
    """4a·E(e²), the complete elliptic integral of the second kind."""
    theirs = 4 * a * float(mpmath.ellipe(1 - mpmath.mpf(b) ** 2 / mpmath.mpf(a) ** 2))
    assert Ellipse(Point(0, 0), Point(a, 0), b).perimeter == pytest.approx(theirs, rel=1e-13)


@given(st.floats(20, 90), st.floats(0.2, 0.95), st.floats(0, 6.28))
def test_places_and_distances_against_mpmath(a: float, share: float, turn: float) -> None:
    """The nearest place found by minimising the distance numerically."""
    ellipse = Ellipse(Point(0, 0), Point(a, 0), a * share)
    point = Point(a * 1.4 * math.cos(turn), a * 1.1 * math.sin(turn))
    far = mpmath.findroot(
        lambda t: (
            (a * mpmath.cos(t) - point.x) * -a * mpmath.sin(t)
            + (a * share * mpmath.sin(t) - point.y) * a * share * mpmath.cos(t)
        ),
        ellipse.nearest_turn(point),
    )
    spot = Point(a * float(mpmath.cos(far)), a * share * float(mpmath.sin(far)))
    assert ellipse.distance(point) == pytest.approx(abs(spot - point), abs=1e-9)


@pytest.mark.parametrize(("a", "b"), some([(5, 3), (8, 5), (12, 7), (10, 9)], 2))
def test_four_centres_against_an_independent_derivation(a: int, b: int) -> None:
    """sympy bisects what is left of the join of the axes' ends, and crosses the bisector with both axes."""
    right, top = sympy.Point(a, 0), sympy.Point(0, b)
    cut = top + (right - top) * sympy.Rational(a - b) / right.distance(top)
    bisector = sympy.Segment(right, cut).perpendicular_bisector()
    on_long = bisector.intersection(sympy.Line(sympy.Point(0, 0), right))[0]
    on_short = bisector.intersection(sympy.Line(sympy.Point(0, 0), top))[0]
    arcs = four_centres(Ellipse(Point(0, 0), Point(a, 0), b))
    assert arcs[0].centre.x == pytest.approx(float(on_long.x))
    assert arcs[1].centre.y == pytest.approx(float(on_short.y))
    assert arcs[0].radius == pytest.approx(float(on_long.distance(right)))
    assert arcs[1].radius == pytest.approx(float(on_short.distance(top)))


def test_axes_of_an_isometric_circle_are_derived() -> None:
    """Along two axes at 120° the ellipse measures d: x = r(u·cos t + v·sin t); its squared reach is extreme at √(3/2)
    and √(1/2) of r (sympy)."""
    t = sympy.Symbol("t")
    x = sympy.cos(sympy.pi / 6) * (sympy.cos(t) - sympy.sin(t))
    y = sympy.sin(sympy.pi / 6) * (sympy.cos(t) + sympy.sin(t))
    reach = sympy.simplify(x**2 + y**2)
    extremes = {sympy.simplify(reach.subs(t, root)) for root in (sympy.pi / 4, 3 * sympy.pi / 4)}
    assert extremes == {sympy.Rational(1, 2), sympy.Rational(3, 2)}
    for plane in PLANES:
        ellipse = true_ellipse(Point(0, 0), 40, plane)
        assert (ellipse.a, ellipse.b) == pytest.approx((20 * math.sqrt(1.5), 20 * math.sqrt(0.5)))
        for axis in PLANES[plane]:
            along, up = (
                axis.dot(ellipse.major) / ellipse.a**2,
                axis.dot(ellipse.across) / ellipse.b**2,
            )
            assert abs(ellipse.at(math.atan2(up, along))) == pytest.approx(20), (
                "the diameter along an axis"
            )
        assert abs(math.cos(lean(plane) - SQUARE[plane].angle)) < 1e-12


@pytest.mark.parametrize("plane", list(PLANES))
def test_the_rhombus_comes_out_six_percent_short_and_three_and_a_half_wide(plane: str) -> None:
    """Derived: along, the small circle's edge lies at d(1/√3·½·… ) = (d/2√3)(1 + 1); across, (√3/2 − ½)d (common practice
    says about 6 % and 3.5 %)."""
    d = 40.0
    four, true = rhombus(Point(0, 0), d, plane), true_ellipse(Point(0, 0), d, plane)
    reach = [abs(arc.at(arc.start + arc.sweep * k / 400)) for arc in four.arcs for k in range(401)]
    assert max(reach) == pytest.approx(d / math.sqrt(3), rel=1e-9)
    assert min(reach) == pytest.approx((math.sqrt(3) - 1) / 2 * d, rel=1e-9)
    assert max(reach) / true.a == pytest.approx(2 / math.sqrt(3) / math.sqrt(1.5))
    assert 1 - max(reach) / true.a == pytest.approx(0.057, abs=5e-4)
    assert min(reach) / true.b - 1 == pytest.approx(0.0353, abs=5e-4)
    for arc in four.arcs:
        assert arc.radius == pytest.approx(d * math.sqrt(3) / 2) or arc.radius == pytest.approx(
            d / 2 / math.sqrt(3)
        )
    assert departure(true, four.arcs)[0] == pytest.approx(true.a - max(reach), rel=1e-6)


@pytest.mark.parametrize("true", ["", ", true"])
@pytest.mark.parametrize("along", ["up", "right", "left"])
def test_edges_of_cylinders_and_cones_are_tangent_to_what_is_drawn(along: str, true: str) -> None:
    done = work_out(
        HEAD
        + f"c = cylinder, from O, diameter 40, length 70, along {along}{true}\nk = cone, from O, diameter 50, height 90, along {along}{true}\n"
    )
    assert not done.solution.errors
    for owner, drawn, touches in (
        ("c", "end", ("touch.1", "touch.2")),
        ("k", "base", ("touch.1", "touch.2")),
    ):
        parts = done.solution.figure.items[owner].parts
        loop = parts[drawn]
        assert isinstance(loop, Loop)
        for number, touch in enumerate(touches, 1):
            spot, edge = parts[touch], parts[f"edge.{number}"]
            assert isinstance(spot, Point)
            assert isinstance(edge, Line)
            # The radius of the very arc that is touched is square to the edge.
            arcs = [
                p.curve
                for p in loop.pieces
                if isinstance(p.curve, Arc)
                and abs(abs(spot - p.curve.centre) - p.curve.radius) < 1e-7
            ]
            assert min(abs((spot - arc.centre).unit.dot(edge.direction)) for arc in arcs) < 1e-6
    outline = done.solution.figure.items["c"].shape
    assert isinstance(outline, Loop)
    assert outline.closed
    assert all(abs(j.turn) < 1e-6 for j in outline.junctions), "no corner all round"


@pytest.mark.parametrize(("diameter", "lead"), [(40, 12), (25, 25), (60, 5)])
def test_the_length_of_a_turn_of_helix_against_numerical_integration(
    diameter: int, lead: int
) -> None:
    done = work_out(HEAD + f"h = helix, from O, diameter {diameter}, lead {lead}, 1 turns\n")
    told = next(
        row for row in done.solution.entries[-1].made.working if row.startswith("a turn is")
    )  # type: ignore[union-attr]
    r = diameter / 2
    theirs = mpmath.quad(
        lambda t: mpmath.sqrt(
            r**2 * mpmath.sin(t) ** 2 + r**2 * mpmath.cos(t) ** 2 + (lead / (2 * mpmath.pi)) ** 2
        ),
        [0, 2 * mpmath.pi],
    )
    assert float(told.split("= ")[1].split()[0]) == pytest.approx(float(theirs), abs=1e-3)
    front = done.solution.figure.items["h"].parts["front.1"]
    assert isinstance(front, Loop)
    projected = mpmath.quad(
        lambda t: mpmath.sqrt((r * mpmath.sin(t)) ** 2 + (lead / (2 * mpmath.pi)) ** 2),
        [0, mpmath.pi],
    )
    assert front.length == pytest.approx(float(projected), rel=2e-4)


def test_a_true_ellipse_goes_to_dxf_as_one_and_four_centres_as_arcs() -> None:
    rows = "e = ellipse, centred on O, axes 90 and 56, at 20°\nf = ellipse, centred on O, axes 60 and 30, by four centres\nrim = line in, e\nhole = line in, f\n"
    done = work_out(HEAD + rows)
    file = ezdxf.read(io.StringIO(formats.write_cutter_dxf(done.outlines, done.solution.unit)))
    assert not file.audit().errors
    kinds = sorted(entity.dxftype() for entity in file.modelspace())
    assert kinds == ["ELLIPSE", "LWPOLYLINE"]
    (oval,) = file.modelspace().query("LWPOLYLINE")
    assert oval.closed
    assert [bulge != 0 for *_, bulge in oval.get_points("xyb")] == [True] * 4
    (ellipse,) = file.modelspace().query("ELLIPSE")
    assert ellipse.dxf.major_axis.magnitude == pytest.approx(45)
    assert ellipse.dxf.ratio == pytest.approx(28 / 45)
    assert math.degrees(
        math.atan2(ellipse.dxf.major_axis.y, ellipse.dxf.major_axis.x)
    ) == pytest.approx(20)


def test_a_curve_that_is_not_an_ellipse_goes_to_dxf_as_a_polyline_of_arcs() -> None:
    done = work_out(HEAD + "s = spiral, about O, radius 10 to 40, 2 turns\nx = line in, s, open\n")
    file = ezdxf.read(
        io.StringIO(formats.write_dxf(done.display, done.solution.unit, construction=False))
    )
    (line,) = file.modelspace().query("LWPOLYLINE")
    assert not line.closed
    spots = [
        Point(v.dxf.location.x, v.dxf.location.y)
        for v in line.virtual_entities()
        if v.dxftype() == "POINT"
    ] or [Point(x, y) for x, y, *_ in line.get_points("xyb")]
    for spot in spots:
        turn = spot.angle % math.tau
        radii = [10 + 15 * (turn / math.tau + k) for k in range(3)]
        assert min(abs(abs(spot) - r) for r in radii) < 1e-3
