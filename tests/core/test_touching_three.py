"""Circles touching three things, and boxes."""

import math

import pytest
from hypothesis import assume, example, given
from hypothesis import strategies as st

from desk import HEAD, edited, solved
from entrick.core.desk import work_out
from entrick.core.geometry import Circle, Line, Loop, Point, polar
from entrick.core.geometry.three import Target, circles_touching
from entrick.core.plan.edit import choose_candidate

coordinates = st.floats(-60, 60)
points = st.builds(Point, coordinates, coordinates)
lines = st.builds(Line, points, st.floats(-3.1, 3.1).map(lambda a: polar(1.0, a)))
circles = st.builds(Circle, points, st.floats(1, 40))


def miss(target: Target, circle: Circle) -> float:
    """By how much a circle fails to touch a target, worked out afresh."""
    match target:
        case Point():
            return abs(abs(target - circle.centre) - circle.radius)
        case Line():
            return abs(abs(target.offset_of(circle.centre)) - circle.radius)
        case Circle():
            apart = abs(target.centre - circle.centre)
            return min(abs(apart - circle.radius - target.radius), abs(apart - abs(circle.radius - target.radius)))


@given(st.tuples(*[st.one_of(points, lines, circles)] * 3))
@example((Point(0.0, 0.0), Line(Point(0.0, 0.0), polar(1.0, 0.0625)), Line(Point(0.0, 1.0), polar(1.0, 0.0625))))
def test_every_circle_found_touches_all_three(targets: tuple[Target, Target, Target]) -> None:
    found = circles_touching(targets)
    assert len(found) <= 8
    for touching in found:
        size = touching.circle.radius + abs(touching.circle.centre) + 100
        assume(size < 1e5)  # nearly parallel lines put the answer out of any board's reach
        for target, touch in zip(targets, touching.touches, strict=True):
            assert miss(target, touching.circle) < 1e-7 * size
            assert abs(abs(touch - touching.circle.centre) - touching.circle.radius) < 1e-6 * size


@given(points, points, points)
def test_three_points_have_one_circle_unless_in_line(a: Point, b: Point, c: Point) -> None:
    sides = abs(a - b), abs(b - c), abs(c - a)
    area = abs((b - a).cross(c - a)) / 2
    assume(area > 1)
    (found,) = circles_touching((a, b, c))
    assert found.circle.radius == pytest.approx(math.prod(sides) / (4 * area), rel=1e-6)  # circumradius abc/4Δ


def test_points_in_line_and_parallel_lines_have_none() -> None:
    assert circles_touching((Point(0, 0), Point(1, 1), Point(2, 2))) == ()
    level = [Line(Point(0, y), Point(1, 0)) for y in (0, 5, 9)]
    assert circles_touching(level) == ()


def test_three_separate_circles_have_all_eight() -> None:
    """The classic problem: circles well apart have eight, found by Apollonius and counted in any geometry text."""
    three = [Circle(Point(0, 0), 10), Circle(Point(60, 5), 14), Circle(Point(25, 50), 8)]
    found = circles_touching(three)
    assert len(found) == 8
    assert len({f.contacts for f in found}) == 8
    assert found[0].contacts == ("beside",) * 3
    assert found[-1].contacts == ("around",) * 3


def test_four_circles_touch_a_triangles_sides() -> None:
    """In-circle and three ex-circles of the 3-4-5 triangle: radii 1, 2, 3 and 6 (plane geometry)."""
    corners = [Point(0, 0), Point(4, 0), Point(0, 3)]
    sides = [Line.between(a, b) for a, b in zip(corners, [*corners[1:], corners[0]], strict=True)]
    assert [f.circle.radius for f in circles_touching(sides)] == pytest.approx([1, 2, 3, 6])


def test_through_three_points_in_a_plan_by_bisecting_two_chords() -> None:
    done = solved("A = point, 40 right of O\nB = point, 30 above O\nc = circle, through O, through A, through B\n")
    circle = done.solution.figure.items["c"].shape
    assert isinstance(circle, Circle)
    assert (circle.centre.x, circle.centre.y, circle.radius) == pytest.approx((20, 15, 25))  # Thales, 3-4-5
    tools = [s.tool for s in done.steps if s.name == "c"]
    assert tools.count("straightedge") == 2
    assert tools[-1] == "compass"


def test_each_lettered_circle_is_chosen_by_its_words_and_touches() -> None:
    rows = (
        "A = point, 60 right of O, 5 above\nB = point, 25 right of O, 50 above\na = circle, centre O, radius 10\n"
        "b = circle, centre A, radius 14\nc = circle, centre B, radius 8\nx = circle, touching a, touching b, touching c\n"
    )
    entry = work_out(HEAD + rows).solution.entries[-1]
    assert len(entry.candidates) == 8
    for candidate in entry.candidates:
        done = work_out(edited(HEAD + rows, choose_candidate, entry.line, candidate.words, frozenset()))
        assert done.solution.figure.items["x"].shape == candidate.shape
        assert {"x.touch.a", "x.centre"} <= {f"x.{key}" for key in done.solution.figure.items["x"].parts}


@pytest.mark.parametrize(
    ("rows", "says"),
    [
        ("c = circle, through O", "needs three of them, and has 1"),
        ("c = circle, through O, touching O.level, touching O.plumb, radius 4", "and no radius"),
        ("c = circle, radius 4", "needs centre"),
        (
            "A = point, 1 right of O\nB = point, 2 right of O\nc = circle, through O, through A, through B",
            "no circle touches",
        ),
        ("c = circle, touching O.level, touching O.plumb, through O", "no circle touches"),
        ("b = box, 4 by 0, centred on O", "more than nought"),
        ("b = box, 4 by 3", "either centred on a point"),
        ("b = box, 4 by 3, centred on O, from O", "either centred on a point"),
    ],
)
def test_what_cannot_be_is_said(rows: str, says: str) -> None:
    errors = work_out(HEAD + rows + "\n").solution.errors
    assert errors
    assert says in errors[0].message


@given(st.integers(1, 300), st.integers(1, 200))
def test_a_box_has_named_sides_and_corners_and_closes(width: int, height: int) -> None:
    done = solved(
        f"f = box, {width} by {height}, centred on O\ng = box, {width} by {height}, from f.upper_right\n"
        "rim = line in, f.bottom > f.right > f.top > f.left\nd = line, from f.lower_left to f.upper_right\n"
    )
    items = done.solution.figure.items
    rim = items["rim"].shape
    assert isinstance(rim, Loop)
    assert abs(rim.area) == pytest.approx(width * height)
    assert items["f"].parts["centre"] == Point(0, 0)
    assert items["g"].parts["lower_left"] == items["f"].parts["upper_right"]
    diagonal = items["d"].shape
    assert isinstance(diagonal, Line)
    assert diagonal.end == pytest.approx(math.hypot(width, height))


def test_a_box_in_inches_halves_exactly() -> None:
    done = work_out("units in\nO = datum\nf = box, 4 1/4 by 2 9/16, centred on O\n")
    made = done.solution.entries[-1].made
    assert made is not None
    assert made.working == ("4 1/4 ÷ 2 = 2 1/8", "2 9/16 ÷ 2 = 1 9/32")


@given(st.integers(20, 300), st.integers(20, 200), st.integers(1, 9))
def test_fillets_of_a_box_need_no_choosing_and_make_it_smooth(width: int, height: int, radius: int) -> None:
    """Where two sides end in a corner only one fillet lies on both; area is that of the box less (4 − π)r² (plane geometry)."""
    sides = ["bottom", "right", "top", "left"]
    rows = [f"f = box, {width} by {height}, centred on O"]
    rows += [
        f"c{i} = fillet, between f.{a} and f.{b}, radius {radius}"
        for i, (a, b) in enumerate(zip(sides, sides[1:] + sides[:1], strict=True))
    ]
    rows.append("rim = line in, " + " > ".join(f"f.{side} > c{i}" for i, side in enumerate(sides)))
    done = solved("\n".join(rows) + "\n")
    rim = done.solution.figure.items["rim"].shape
    assert isinstance(rim, Loop)
    assert all(j.is_tangent for j in rim.junctions)
    assert abs(rim.area) == pytest.approx(width * height - (4 - math.pi) * radius**2)


def test_a_fillet_of_a_line_and_a_circle_says_which_when_several_are_drawn() -> None:
    rows = "c = circle, centre O, radius 30\nA = point, 60 left of O, 10 above\nB = point, 60 right of O, 10 above\nl = line, from A to B\n"
    undecided = work_out(HEAD + rows + "x = fillet, between l and c, radius 6\n").solution.entries[-1]
    assert len(undecided.candidates) == 8
    chosen = solved(rows + "x = fillet, between l and c, radius 6, beside, above, right\n").solution.figure.items["x"]
    centre = chosen.parts["centre"]
    assert isinstance(centre, Point)
    assert centre.y == pytest.approx(16)
    assert abs(centre) == pytest.approx(36)
    assert centre.x > 0
