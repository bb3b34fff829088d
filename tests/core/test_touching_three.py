"""Circles touching three things, and boxes."""

import math

import pytest
from hypothesis import assume, example, given
from hypothesis import strategies as st

from desk import HEAD
from entrick.core.desk import work_out
from entrick.core.geometry import Circle, Line, Point, polar
from entrick.core.geometry.three import Target, circles_touching

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
            return min(
                abs(apart - circle.radius - target.radius),
                abs(apart - abs(circle.radius - target.radius)),
            )


@given(st.tuples(*[st.one_of(points, lines, circles)] * 3))
@example(
    (
        Point(0.0, 0.0),
        Line(Point(0.0, 0.0), polar(1.0, 0.0625)),
        Line(Point(0.0, 1.0), polar(1.0, 0.0625)),
    )
)
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
    assert found.circle.radius == pytest.approx(
        math.prod(sides) / (4 * area), rel=1e-6
    )  # circumradius abc/4Δ


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
