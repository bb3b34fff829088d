"""Geometry: what should touch touches, what should close closes."""

import math
import os
import pickle
import subprocess
import sys

import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from entrick.core.geometry import (
    Arc,
    Circle,
    Line,
    Point,
    Stop,
    WalkError,
    gap,
    meet,
    polar,
    reflect,
    walk,
)
from entrick.core.geometry.locus import (
    around,
    beside,
    centred_on,
    inside,
    limit,
    tangencies,
    through,
    touching_line,
)
from entrick.core.geometry.loop import polyline
from entrick.core.geometry.place import on_side
from entrick.core.geometry.shapes import extremes, is_drawn_at

coordinates = st.floats(-200, 200)
points = st.builds(Point, coordinates, coordinates)
radii = st.floats(0.5, 150)
circles = st.builds(Circle, points, radii)
directions = st.floats(-math.pi, math.pi).map(lambda a: polar(1.0, a))
lines = st.builds(Line, points, directions)


def distance_to(shape: Circle | Line | Point, centre: Point) -> float:
    """Signed gap between a circle's centre and what it should touch, measured without the code under test."""
    if isinstance(shape, Line):
        dx, dy = centre.x - shape.through.x, centre.y - shape.through.y
        return abs(shape.direction.x * dy - shape.direction.y * dx)
    other = shape.centre if isinstance(shape, Circle) else shape
    return math.hypot(centre.x - other.x, centre.y - other.y)


@given(circles, circles)
def test_circle_meetings_lie_on_both(a: Circle, b: Circle) -> None:
    found = meet(a, b)
    size = max(a.radius, b.radius, abs(a.centre - b.centre), 1)
    for meeting in found:
        # Near a touch the crossing is ill-conditioned along the tangent, never across it.
        assert abs(abs(meeting.point - a.centre) - a.radius) < 1e-8 * size
        assert abs(abs(meeting.point - b.centre) - b.radius) < 1e-8 * size
    if not found and abs(a.centre - b.centre) > 1e-6:
        assert gap(a, b)[0] > 0


@given(lines, circles)
def test_line_meetings_lie_on_both(line: Line, circle: Circle) -> None:
    for meeting in meet(line, circle):
        assert abs(line.offset_of(meeting.point)) < 1e-9 * 400
        assert abs(abs(meeting.point - circle.centre) - circle.radius) < 1e-7
    if not meet(line, circle):
        miss, place = gap(line, circle)
        assert miss == pytest.approx(distance_to(line, circle.centre) - circle.radius, abs=1e-9)
        assert abs(abs(line.offset_of(place)) - miss / 2) < 1e-6


@given(circles, circles, st.floats(0.5, 400))
def test_every_arc_offered_is_tangent_to_both_circles(a: Circle, b: Circle, radius: float) -> None:
    """For random circles each candidate touches each within 1e-9 of the size, where and how it says."""
    assume(
        abs(a.centre - b.centre) > 1e-3
        and abs(radius - a.radius) > 1e-3
        and abs(radius - b.radius) > 1e-3
    )
    loci = [
        [beside(c, radius), around(c, radius) if radius > c.radius else inside(c, radius)]
        for c in (a, b)
    ]
    size = max(a.radius, b.radius, radius, abs(a.centre - b.centre))
    found = tangencies(loci[0], loci[1], radius)
    assert len(found) <= 8
    for tangency in found:
        for locus, touch, circle in zip(tangency.loci, tangency.touches, (a, b), strict=True):
            apart = distance_to(circle, tangency.centre)
            wanted = {
                "beside": radius + circle.radius,
                "around": radius - circle.radius,
                "inside": circle.radius - radius,
            }[locus.contact]
            assert abs(apart - wanted) < 1e-9 * size
            assert touch is not None
            assert abs(abs(touch - tangency.centre) - radius) < 1e-9 * size
            assert abs(abs(touch - circle.centre) - circle.radius) < 1e-9 * size


@given(lines, circles, st.floats(0.5, 200))
def test_arcs_touching_a_line_and_passing_or_touching(
    line: Line, circle: Circle, radius: float
) -> None:
    size = 1000.0
    for tangency in tangencies(touching_line(line, radius), [beside(circle, radius)], radius):
        assert abs(distance_to(line, tangency.centre) - radius) < 1e-9 * size
        assert abs(distance_to(circle, tangency.centre) - radius - circle.radius) < 1e-9 * size
    for tangency in tangencies(
        touching_line(line, radius), [through(circle.centre, radius)], radius
    ):
        assert abs(abs(tangency.centre - circle.centre) - radius) < 1e-9 * size
    for tangency in tangencies([centred_on(line)], [through(circle.centre, radius)], radius):
        assert distance_to(line, tangency.centre) < 1e-9 * size


@given(
    circles,
    circles,
    st.sampled_from([(beside, beside), (beside, around), (around, around), (inside, beside)]),
)
def test_the_limiting_radius_is_where_solutions_begin(a: Circle, b: Circle, contacts) -> None:  # type: ignore[no-untyped-def]
    """Just inside the stated limits an arc exists; just outside none does."""
    assume(abs(a.centre - b.centre) > 0.5)
    one, other = contacts
    bound = limit(one(a, 1.0), other(b, 1.0))

    def fits(radius: float) -> bool:
        loci = (one(a, radius), other(b, radius))
        if any(locus.curve.radius <= 0 for locus in loci):
            return False
        return bool(tangencies([loci[0]], [loci[1]], radius))

    if bound.never:
        assert not any(fits(r) for r in (0.6, 3.0, 17.0, 90.0, 400.0, 3000.0))
        return
    # A miss smaller than the tolerance of the whole figure counts as a touch.
    if bound.least is not None and bound.least > 1:
        assert not fits(bound.least * (1 - 1e-5))
    if bound.greatest is not None and bound.greatest > 1:
        assert not fits(bound.greatest * (1 + 1e-5))


@given(points, points, lines)
def test_a_mirror_image_is_congruent_and_mirrors_back(p: Point, q: Point, axis: Line) -> None:
    a, b = reflect(p, axis), reflect(q, axis)
    assert abs(abs(a - b) - abs(p - q)) < 1e-9
    assert abs(reflect(a, axis) - p) < 1e-9
    assert abs(axis.offset_of(a) + axis.offset_of(p)) < 1e-9


@given(points, radii, st.floats(-3, 3), st.floats(-6, 6).filter(lambda s: abs(s) > 0.01), lines)
def test_a_mirrored_arc_keeps_its_points(
    c: Point, r: float, start: float, sweep: float, axis: Line
) -> None:
    arc = Arc(c, r, start, sweep)
    image = reflect(arc, axis)
    assert abs(image.first - reflect(arc.first, axis)) < 1e-8
    assert abs(image.last - reflect(arc.last, axis)) < 1e-8
    assert abs(image.middle - reflect(arc.middle, axis)) < 1e-8


@given(
    points,
    radii,
    st.floats(-3, 3),
    st.floats(-6.2, 6.2).filter(lambda s: abs(s) > 0.01),
    st.floats(0.01, 0.99),
)
def test_an_arc_is_drawn_along_its_sweep_only_and_inside_its_box(
    c: Point, r: float, start: float, sweep: float, part: float
) -> None:
    arc = Arc(c, r, start, sweep)
    inner, outer = (
        arc.at(start + part * sweep),
        arc.at(start + sweep + math.copysign(math.tau - abs(sweep), sweep) * part),
    )
    assert is_drawn_at(arc, inner)
    assert not is_drawn_at(arc, outer)
    box = extremes(arc)
    assert min(p.x for p in box) - 1e-9 <= inner.x <= max(p.x for p in box) + 1e-9
    assert min(p.y for p in box) - 1e-9 <= inner.y <= max(p.y for p in box) + 1e-9


@given(st.floats(5, 60), st.floats(5, 60), st.floats(10, 150), st.floats(1.05, 6))
def test_two_eyes_with_blends_close_and_are_tangent_all_round(
    r1: float, r2: float, between: float, grow: float
) -> None:
    """The walk over eyes and blends closes, without a corner, whatever the sizes."""
    assume(between > abs(r1 - r2) + 1)
    a, b = Circle(Point(-between / 2, 0), r1), Circle(Point(between / 2, 0), r2)
    radius = grow * (between + r1 + r2) / 2 + max(r1, r2)
    centre = max(
        tangencies([around(a, radius)], [around(b, radius)], radius), key=lambda t: -t.centre.y
    )
    small = tangencies([beside(a, radius)], [beside(b, radius)], radius)
    assume(small)
    low = min(small, key=lambda t: t.centre.y)
    top = Arc.between(Circle(centre.centre, radius), *centre.touches)
    bottom = Arc.between(Circle(low.centre, radius), *low.touches)
    loop = walk([Stop(a, "a"), Stop(top, "top"), Stop(b, "b"), Stop(bottom, "bottom")])
    assert loop.closed
    assert loop.gap < 1e-9 * radius
    assert all(junction.is_tangent for junction in loop.junctions)
    for first, second in zip(loop.pieces, [*loop.pieces[1:], loop.pieces[0]], strict=True):
        assert abs(first.exit - second.entry) < 1e-9


def square(side: float = 10) -> list[Line]:
    corners = [Point(0, 0), Point(side, 0), Point(side, side), Point(0, side)]
    return [Line.between(p, q) for p, q in zip(corners, [*corners[1:], corners[0]], strict=True)]


def test_a_square_is_walked_by_its_corners() -> None:
    loop = walk([Stop(line, f"s{i}") for i, line in enumerate(square())])
    assert abs(loop.area) == pytest.approx(100)
    assert loop.length == pytest.approx(40)
    assert [abs(math.degrees(j.turn)) for j in loop.junctions] == pytest.approx([90] * 4)


def test_a_circle_and_a_chord_take_the_shorter_way_unless_told() -> None:
    circle, chord = Circle(Point(0, 0), 10), Line(Point(0, 6), Point(1, 0))
    short = walk([Stop(circle, "c"), Stop(chord, "l")])
    long = walk([Stop(circle, "c", way="long"), Stop(chord, "l")])
    cap = (
        100 * math.acos(0.6) - 6 * 8
    )  # area of a circular segment, handbook formula r² acos(h/r) − h √(r² − h²)
    assert abs(short.area) == pytest.approx(cap)
    assert abs(long.area) == pytest.approx(math.pi * 100 - cap)
    via = walk([Stop(circle, "c", via=Point(0, -10)), Stop(chord, "l")])
    assert abs(via.area) == pytest.approx(abs(long.area))


def test_halves_of_equal_length_must_be_told_apart() -> None:
    circle, middle = Circle(Point(0, 0), 10), Line(Point(0, 0), Point(1, 0))
    with pytest.raises(WalkError, match="equally long"):
        walk([Stop(circle, "c"), Stop(middle, "l")])
    half = walk([Stop(circle, "c", way="ccw"), Stop(middle, "l")])
    assert abs(half.area) == pytest.approx(50 * math.pi)


def test_a_walk_that_does_not_meet_says_by_how_much() -> None:
    with pytest.raises(WalkError, match="miss by 5"):
        walk([Stop(Circle(Point(0, 0), 10), "c"), Stop(Line(Point(0, 15), Point(1, 0)), "l")])
    with pytest.raises(WalkError, match="one place only"):
        walk([Stop(Circle(Point(0, 0), 10), "c"), Stop(Line(Point(0, 10), Point(1, 0)), "l")])
    with pytest.raises(WalkError, match="same line or circle"):
        walk([Stop(Circle(Point(0, 0), 10), "c"), Stop(Circle(Point(0, 0), 10), "d")])
    with pytest.raises(WalkError, match="does not close"):
        walk([Stop(Arc(Point(0, 0), 10, 0, 2), "c")])


def test_several_crossings_are_told_apart_by_words_or_refused() -> None:
    a, b = Circle(Point(-6, 0), 10), Circle(Point(6, 0), 10)
    axis = Line(Point(0, 0), Point(0, 1))
    with pytest.raises(WalkError, match="cross at 2 places"):
        walk([Stop(a, "a"), Stop(b, "b"), Stop(axis, "x")])
    floor = Line(Point(0, -9), Point(1, 0))
    loop = walk(
        [
            Stop(a, "a", side=("left",)),
            Stop(b, "b", side=("upper",)),
            Stop(floor, "l", side=("right",)),
        ]
    )
    assert loop.pieces[0].exit.y == pytest.approx(8)
    assert loop.pieces[2].length == pytest.approx(12 + 2 * math.sqrt(19))
    near = walk([Stop(a, "a"), Stop(b, "b", at=Point(0, -7))])
    assert near.pieces[0].exit.y < 0


def test_an_open_run_keeps_its_drawn_ends() -> None:
    rows = square()
    loop = walk([Stop(line, str(i)) for i, line in enumerate(rows[:3])], closed=False)
    assert not loop.closed
    assert loop.length == pytest.approx(30)
    assert loop.gap == pytest.approx(10)
    with pytest.raises(WalkError, match="has no ends"):
        walk(
            [Stop(Circle(Point(0, 0), 5), "c"), Stop(Line(Point(0, 5), Point(1, 0)), "l")],
            closed=False,
        )


@given(
    st.lists(points, min_size=2, max_size=6, unique=True),
    st.sampled_from(["above", "left", "lower", "right"]),
)
def test_words_of_place_keep_some_and_never_all_unless_level(spots: list[Point], word: str) -> None:
    chosen = on_side(spots, word)
    assert chosen
    if len(chosen) == len(spots):
        spread = [p.y if word in ("above", "lower") else p.x for p in spots]
        assert max(spread) - min(spread) < 1e-3


@given(points, radii, st.floats(-3, 3), st.floats(0.05, 6.2))
def test_the_centroid_of_an_arc_is_the_mean_of_its_points(
    c: Point, r: float, start: float, sweep: float
) -> None:
    arc = Arc(c, r, start, sweep)
    count = 2000
    spots = [arc.at(start + sweep * (i + 0.5) / count) for i in range(count)]
    mean = Point(sum(p.x for p in spots) / count, sum(p.y for p in spots) / count)
    assert abs(arc.centroid - mean) < 1e-5 * r


def test_a_run_taken_to_another_process_is_known_there_as_itself() -> None:
    """What it is known by is kept with it, and words have another hash in every process."""
    run = polyline([Point(0, 0), Point(4, 0), Point(4, 3)], ["a", "b", "c"], closed=True)
    assert len({run, run.reversed.reversed}) == 1
    assert run.length == 12
    code = "import pickle, sys; r = pickle.load(sys.stdin.buffer); print(r in {r.reversed.reversed}, r.length)"
    told = subprocess.run(
        [sys.executable, "-c", code],
        input=pickle.dumps(run),
        capture_output=True,
        check=True,
        env={**os.environ, "PYTHONHASHSEED": "7"},
    )
    assert told.stdout.split() == [b"True", b"12.0"]
