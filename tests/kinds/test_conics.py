"""``parabola``, ``hyperbola``, ``conic``, and an ellipse on two diameters: held against their definitions by places, and
against what curves.md of the design gives as check values (worked independently)."""

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from desk import led_to, line_of, point_of, refused, run_of, solved
from entrick.core.desk import Work
from entrick.core.geometry import Loop, Point

TURNS = st.integers(0, 359)
SIZES = st.integers(8, 60)


def places(loop: Loop) -> list[Point]:
    """Where the arcs it is drawn by begin, and their middles."""
    return [piece.entry for piece in loop.pieces] + [
        piece.curve.middle for piece in loop.pieces if hasattr(piece.curve, "middle")
    ]


def at(name: str, x: float, y: float) -> str:
    """The row of a point so far right and above the datum."""
    across, up = "right" if x >= 0 else "left", "above" if y >= 0 else "below"
    return f"{name} = point, {abs(x)} {across} of O, {abs(y)} {up}"


def working_of(done: Work) -> str:
    """The working of the last statement."""
    return " ".join(done.solution.entries[-1].made.working)


def turned(size: float, degrees: float) -> tuple[float, float]:
    angle = math.radians(degrees)
    return round(size * math.cos(angle), 6), round(size * math.sin(angle), 6)


@given(SIZES, TURNS, st.integers(20, 120), st.booleans())
def test_a_parabola_is_as_far_from_its_focus_as_from_its_directrix(
    apart: int, turn: int, wide: int, by_directrix: bool
) -> None:
    x, y = turned(apart, turn)
    given_by = "directrix d" if by_directrix else "vertex V"
    done = solved(
        f"{at('F', x, y)}\nd = line, through O, square to line O F\n"
        f"V = midpoint, between O and F\np = parabola, focus F, {given_by}, width {wide}\n"
    )
    focus, directrix = point_of(done, "F"), line_of(done, "p.directrix")
    for place in places(run_of(done, "p")):
        assert abs(place - focus) == pytest.approx(abs(directrix.offset_of(place)), abs=4e-5 * wide)
    for index in range(13):
        station = point_of(done, f"p.station.{index}")
        assert abs(station - focus) == pytest.approx(abs(directrix.offset_of(station)), abs=1e-9)
    led_to(done)


def test_a_parabola_of_the_design_page() -> None:
    """Focus 50 from the directrix: the point 70 above the axis is 74 from the directrix."""
    done = solved(
        "F = point, 50 right of O\nd = line, from O, plumb, for 60\n"
        "p = parabola, focus F, directrix d, width 140\n"
    )
    assert point_of(done, "p.end") == pytest.approx((74, 70))
    assert "latus rectum 4 × 25 = 100" in working_of(done)


@given(st.integers(-60, 60), st.integers(-60, 60), st.integers(25, 80), st.integers(-50, 50))
def test_between_two_tangents_it_touches_both_where_it_ends(
    x: int, y: int, cx: int, cy: int
) -> None:
    """The curve of second degree of three points, by its own formula; tangents from the corner."""
    if abs(x * cy - y * cx) < 200:
        return
    done = solved(
        f"{at('Q', x, y)}\n{at('C', cx, cy)}\np = parabola, between O and Q, meeting at C\n"
        "t = tangent, to p, at place p.station.3\nn = tangent, to p, at place p.station.2, normal\n"
    )
    loop = run_of(done, "p")
    for share in (0.13, 0.5, 0.81):
        spot = Point(cx, cy) * (2 * share * (1 - share)) + Point(x, y) * share**2
        assert loop.distance(spot) < 2e-5 * max(abs(Point(x, y)), abs(Point(cx, cy)))
    focus, directrix = point_of(done, "p.focus"), line_of(done, "p.directrix")
    assert abs(focus) == pytest.approx(abs(directrix.offset_of(Point(0, 0))), rel=1e-6, abs=1e-6)
    led_to(done)


@pytest.mark.parametrize("way", ["rectangle", "tangents"])
def test_in_a_rectangle_it_ends_in_its_corners(way: str) -> None:
    done = solved(f"p = parabola, vertex O, width 90, height 40, opening left, by {way}\n")
    ends = sorted((point_of(done, f"p.{end}") for end in ("start", "end")), key=lambda end: end.y)
    assert ends[0] == pytest.approx((-40, -45))
    assert ends[1] == pytest.approx((-40, 45))
    led_to(done)


@given(SIZES, TURNS, st.integers(10, 90), st.integers(15, 60))
def test_a_hyperbola_keeps_the_difference_of_its_distances(
    half: int, turn: int, share: int, high: int
) -> None:
    x, y = turned(half, turn)
    axis = 2 * half * share / 100
    done = solved(
        f"{at('F', x, y)}\n{at('G', -x, -y)}\n"
        f"h = hyperbola, foci F and G, axis {axis}, height {high}\n"
        "t = tangent, to h, at place h.station.9\n"
    )
    near, far = point_of(done, "F"), point_of(done, "G")
    for index in range(13):
        spot = point_of(done, f"h.station.{index}")
        assert abs(spot - far) - abs(spot - near) == pytest.approx(axis, abs=1e-6)
    touch, line = point_of(done, "t.touch"), line_of(done, "t")
    angles = [abs(line.direction.cross((focus - touch).unit)) for focus in (near, far)]
    assert angles[0] == pytest.approx(angles[1], abs=1e-6), "it halves the angle of the focal rays"
    led_to(done)


@given(st.integers(25, 150), st.integers(10, 50), st.integers(10, 50), st.booleans())
def test_between_asymptotes_all_parallelograms_are_one_size(
    angle: int, along: int, beside: int, swapped: bool
) -> None:
    other = Point(math.cos(math.radians(angle)), math.sin(math.radians(angle)))
    spot = Point(along, 0) + other * beside
    names = "m and l" if swapped else "l and m"
    done = solved(
        f"l = line, through O, level\nm = line, through O, at {angle}°\n"
        f"{at('P', round(spot.x, 6), round(spot.y, 6))}\n"
        f"h = hyperbola, asymptotes {names}, through P, height 30\n"
        "n = tangent, to h, at place P, normal\n"
    )
    sizes = []
    for place in places(run_of(done, "h")):
        up = place.y / other.y
        sizes.append((place.x - up * other.x) * up)
    assert min(sizes) == pytest.approx(along * beside, rel=2e-3)
    assert max(sizes) == pytest.approx(along * beside, rel=2e-3)
    led_to(done)


@pytest.mark.parametrize(
    ("ratio", "rest", "told"),
    [
        (
            "2/3",
            "",
            ("vertex 50 ÷ (1 + 0.6667) = 30", "= 150 from the directrix; axes 120 and 89.443"),
        ),
        ("3/2", ", height 40", ("= 20 from it", "= -100 from the directrix")),
        ("1", ", width 140", ("latus rectum 2 × 1 × 50 = 100",)),
    ],
)
def test_conics_of_the_design_page(ratio: str, rest: str, told: tuple[str, ...]) -> None:
    """Ellipse e = 2/3, focus 50 from the directrix: vertices 30 and 150 from it, axes 120 and 89.443; hyperbola e = 3/2:
    vertices at 20 and −100."""
    done = solved(
        "F = point, 50 right of O\nd = line, from O, plumb, for 60\n"
        f"c = conic, focus F, directrix d, eccentricity {ratio}{rest}\n"
    )
    working = working_of(done).replace("−", "-")
    assert all(each in working for each in told), working


@given(st.fractions(min_value="1/5", max_value=3, max_denominator=9), TURNS, SIZES)
def test_a_conic_keeps_one_ratio(ratio: object, turn: int, apart: int) -> None:
    x, y = turned(apart, turn)
    reach = (
        ""
        if float(str(ratio).partition("/")[0]) / float(str(ratio).partition("/")[2] or 1) < 1
        else ", height 30"
    )
    done = solved(
        f"{at('F', x, y)}\nd = line, through O, square to line O F\n"
        f"c = conic, focus F, directrix d, eccentricity {ratio}{reach}\n"
        "t = tangent, to c, at place c.station.4\n"
    )
    focus, directrix = point_of(done, "F"), line_of(done, "d")
    for index in range(1, 13):
        spot = point_of(done, f"c.station.{index}")
        numerator, _, denominator = str(ratio).partition("/")
        e = int(numerator) / int(denominator or 1)
        assert abs(spot - focus) == pytest.approx(e * abs(directrix.offset_of(spot)), rel=1e-5)
    # A tangent of a conic cuts off, between touch and directrix, what the focus sees under a right angle.
    touch, line = point_of(done, "t.touch"), line_of(done, "t")
    across = line.direction.cross(directrix.direction)
    if abs(across) > 0.05:
        cut = line.at((directrix.through - line.through).cross(directrix.direction) / across)
        assert (touch - focus).unit.dot((cut - focus).unit) == pytest.approx(0, abs=1e-5)
    led_to(done)


@given(st.integers(20, 60), st.integers(-30, 30), st.integers(-30, 30), st.integers(20, 60))
def test_an_ellipse_lies_in_the_parallelogram_of_its_diameters(
    ax: int, ay: int, bx: int, by: int
) -> None:
    first, second = Point(ax, ay), Point(bx, by)
    if abs(first.cross(second)) < 300:
        return
    done = solved(
        f"{at('A', ax, ay)}\n{at('B', bx, by)}\n"
        "e = ellipse, centred on O, diameters to A and B\nt = tangent, to e, at place A\n"
    )
    for turn in range(0, 360, 17):
        angle = math.radians(turn)
        spot = first * math.cos(angle) + second * math.sin(angle)
        assert run_of(done, "e").distance(spot) < 5e-3
    assert abs(line_of(done, "t").direction.cross(second.unit)) < 1e-6, (
        "the tangent is along the other"
    )
    led_to(done)


@pytest.mark.parametrize(
    ("row", "told"),
    [
        ("p = parabola, vertex A, width 20", "a parabola has a focus and a directrix or vertex"),
        ("p = parabola, focus A, vertex A, width 20", "does not lie on the vertex"),
        ("p = parabola, focus A, vertex O, width 20, height 9", "a width or a height: say one"),
        (
            "h = hyperbola, foci O and A, axis 20, width 20, height 9",
            "a width or a height: say one",
        ),
        (
            "c = conic, focus A, directrix d, eccentricity 2, width 20, height 9",
            "a width or a height: say one",
        ),
        (
            "C = point, 30 above O\np = parabola, between O and C, meeting at A, width 9",
            "leave this out",
        ),
        ("p = parabola, between O and A, meeting at B", "in a corner, not in a line"),
        ("h = hyperbola, foci O and A, axis 90, height 3", "less than the distance of the foci"),
        ("h = hyperbola, foci O and A, axis 20", "needs width"),
        ("c = conic, focus A, directrix d, eccentricity 0", "more than nought and at most 20"),
        ("c = conic, focus A, directrix d, eccentricity 1/2, width 9", "is drawn whole"),
        ("e = ellipse, centred on O, diameters to A and B", "not in one line"),
        (
            "p = parabola, vertex A, width 80, height 20\nt = tangent, to p, from B",
            "no tangent from B",
        ),
    ],
)
def test_what_cannot_be_is_said(row: str, told: str) -> None:
    head = "A = point, 60 right of O\nB = point, 60 right of A\nd = line, from O, plumb, for 9\n"
    if "tangent" in row:
        head = "A = point, 60 right of O\nB = point, 5 above A\n"
    assert told in refused(head + row + "\n")


def test_its_vertices_may_be_given() -> None:
    head = "F = point, 45 right of O\nG = point, 45 left of O\nA = point, 30 right of O\nB = point, 30 left of O\n"
    done = solved(f"{head}h = hyperbola, foci F and G, vertices A and B, height 40\n")
    same = solved(f"{head}h = hyperbola, foci F and G, axis 60, height 40\n")
    assert point_of(done, "h.end") == pytest.approx(point_of(same, "h.end"))
    led_to(done)
    told = refused(f"{head}h = hyperbola, foci F and G, vertices A and O, height 40\n")
    assert "as far from its middle on both sides" in told
