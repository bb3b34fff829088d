"""Points and lines that follow from others, families, and copies."""

import math
from itertools import pairwise

import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from desk import HEAD, refused, solved
from entrick.core.desk import Work, work_out
from entrick.core.geometry import Circle, Line, Loop, Point, Shape
from entrick.core.geometry.shapes import extremes
from entrick.core.geometry.transform import rotate, shift
from entrick.core.kind.figure import Family

coordinates = st.floats(-80, 80).map(lambda v: round(v, 3))


def point(done: Work, name: str) -> Point:
    found = dict(done.solution.figure.things()).get(name)
    assert isinstance(found, Point), name
    return found


def line(done: Work, name: str) -> Line:
    found = dict(done.solution.figure.things())[name]
    assert isinstance(found, Line)
    return found


def points(x: float, y: float, u: float, v: float) -> str:
    return f"A = point, {x} right of O, {y} above O\nB = point, {u} right of O, {v} above O\n"


@given(coordinates, coordinates, coordinates, coordinates)
def test_a_midpoint_is_as_far_from_both_and_on_the_line(x: float, y: float, u: float, v: float) -> None:
    assume(math.hypot(x - u, y - v) > 0.1)
    done = solved(points(x, y, u, v) + "M = midpoint, between A and B\np = bisector, of line A B\n")
    a, b, m = (point(done, n) for n in "ABM")
    assert abs(m - a) == pytest.approx(abs(m - b))
    assert abs((m - a).cross(b - a)) < 1e-6
    axis = line(done, "p")
    far = axis.at(37)
    assert abs(far - a) == pytest.approx(abs(far - b))


@given(coordinates, coordinates, st.floats(0, 179))
def test_a_foot_is_the_nearest_point_of_the_line(x: float, y: float, angle: float) -> None:
    done = work_out(
        HEAD + f"A = point, {x} right of O, {y} above O\nl = line, through O, at {angle:.3f}°\nF = foot, of A on l\n"
    )
    if done.solution.errors:
        assert "lies on l already" in done.solution.errors[0].message
        return
    a, f, l_ = point(done, "A"), point(done, "F"), line(done, "l")
    assert abs(l_.offset_of(f)) < 1e-9
    assert abs((a - f).dot(l_.direction)) < 1e-9
    assert all(abs(a - l_.at(l_.along(f) + step)) >= abs(a - f) for step in (-1, 1))


@given(st.floats(0, 359), st.floats(5, 170))
def test_an_angle_is_halved(start: float, angle: float) -> None:
    done = solved(
        f"A = point, 50 from O, at {start:.3f}°\nB = point, 30 from O, at {start + angle:.3f}°\nq = bisector, of angle A O B\n"
    )
    q = line(done, "q").direction
    a, b = point(done, "A").unit, point(done, "B").unit
    assert math.acos(min(1, q.dot(a))) == pytest.approx(math.acos(min(1, q.dot(b))), abs=1e-6)


@given(st.floats(0, 179), st.floats(0.1, 60), st.sampled_from(["above", "below", "left", "right"]))
def test_a_parallel_keeps_its_distance_on_the_named_side(angle: float, distance: float, side: str) -> None:
    assume((abs(angle - 90) > 5) if side in ("above", "below") else (8 < angle < 172))
    done = solved(f"l = line, through O, at {angle:.3f}°\nm = parallel, to l, at {distance:.3f}, {side}\n")
    m = line(done, "m")
    assert abs(m.direction.cross(line(done, "l").direction)) < 1e-12
    assert abs(m.offset_of(Point(0, 0))) == pytest.approx(round(distance, 3))
    foot = m.foot(Point(0, 0))
    assert {"above": foot.y, "below": -foot.y, "left": -foot.x, "right": foot.x}[side] > 0


@given(st.integers(2, 40), st.floats(1, 100), st.sampled_from(["above", "below", "left", "right"]))
def test_spaced_points_lie_on_the_circle_a_chord_apart(count: int, radius: float, side: str) -> None:
    """Chord 2R·sin(180°/n): rules of plane geometry, found in any handbook's table of chords (from memory)."""
    done = solved(f"c = circle, centre O, radius {radius:.4f}\nring = spaced, {count} on c, from {side}\n")
    spots = [point(done, f"ring.{i}") for i in range(1, count + 1)]
    r = round(radius, 4)
    chord = 2 * r * math.sin(math.pi / count)
    for first, second in zip(spots, [*spots[1:], spots[0]], strict=True):
        assert abs(first) == pytest.approx(r)
        assert abs(second - first) == pytest.approx(chord)
    start = {"above": (0, r), "below": (0, -r), "left": (-r, 0), "right": (r, 0)}[side]
    assert (spots[0].x, spots[0].y) == pytest.approx(start, abs=1e-9)


@pytest.mark.parametrize(
    ("count", "chord"), [(3, 1.7320508), (5, 1.1755705), (6, 1.0), (7, 0.8677675), (8, 0.7653669), (12, 0.5176381)]
)
def test_chords_against_the_published_table(count: int, chord: float) -> None:
    """Length of chords for spacing off the circumference of a circle of diameter 2 (machinist's handbook table, from memory)."""
    done = solved(f"c = circle, centre O, radius 1\nring = spaced, {count} on c\n")
    settings = [s.setting.actual for s in done.steps if s.tool == "dividers" and s.setting]
    assert settings == pytest.approx([chord] * (count - 1), abs=5e-8)


@given(coordinates, coordinates, coordinates, coordinates, st.integers(2, 12))
def test_a_line_is_divided_equally(x: float, y: float, u: float, v: float, count: int) -> None:
    assume(math.hypot(x - u, y - v) > 0.5)
    done = solved(points(x, y, u, v) + f"d = divide, of line A B, in {count}\n")
    spots = [point(done, "A"), *(point(done, f"d.{i}") for i in range(1, count)), point(done, "B")]
    part = abs(spots[-1] - spots[0]) / count
    assert all(abs(b - a) == pytest.approx(part) for a, b in pairwise(spots))


@given(coordinates, coordinates, st.floats(-7, 7), coordinates, coordinates)
def test_turned_and_shifted_shapes_are_congruent(x: float, y: float, angle: float, u: float, v: float) -> None:
    a, b, about = Point(x, y), Point(u, v), Point(3, -4)
    assume(abs(a - b) > 1e-3)
    for copy in (lambda s: rotate(s, about, angle), lambda s: shift(s, Point(7, -2))):
        assert abs(copy(a) - copy(b)) == pytest.approx(abs(a - b))
        moved = copy(Line.between(a, b))
        assert abs(moved.at(moved.start) - copy(a)) < 1e-9
        assert abs(moved.at(moved.end) - copy(b)) < 1e-9
    assert abs(rotate(rotate(a, about, angle), about, -angle) - a) < 1e-9


FAMILY = "c = circle, centre O, radius 50\nring = spaced, 3 on c, from below\nhole = circle, centre ring, diameter 9\n"


def test_a_statement_given_a_family_makes_a_family() -> None:
    done = solved(
        FAMILY + "holes = line in, hole\none = circle, centre ring.2, radius 20\nmid = midpoint, between O and ring\n"
    )
    hole = done.solution.figure.items["hole"].shape
    assert isinstance(hole, Family)
    assert [m.radius for m in hole.members] == [4.5] * 3  # type: ignore[union-attr]
    assert {f"hole.{i}" for i in (1, 2, 3)} <= dict(done.solution.figure.things()).keys()
    one = done.solution.figure.items["one"].shape
    assert isinstance(one, Circle)
    assert one.centre == point(done, "ring.2")
    assert abs(point(done, "mid.3")) == pytest.approx(25)
    entry = next(e for e in done.solution.entries if e.statement.name == "hole")
    assert entry.made is not None
    assert entry.made.sentence == "3 times: Circle hole about ring, diameter 9."
    assert len([s for s in done.steps if s.name == "hole"]) == 3
    loops = next(e.made.loops for e in done.solution.entries if e.made and e.statement.name == "holes")
    assert sum(abs(loop.area) for loop in loops) == pytest.approx(3 * math.pi * 4.5**2)
    assert sum("is closed" in f.message for f in done.findings) == 3
    picks = {m.name for m in done.display.marks if hasattr(m, "name") and m.name}
    assert {"hole.1", "hole.3", "ring.2"} <= picks


def test_families_are_paired_and_unequal_ones_refused() -> None:
    more = "d = circle, centre O, radius 30\nfour = spaced, 4 on d\nthree = spaced, 3 on d\n"
    done = solved(FAMILY + more + "rib = line, from three to ring\n")
    assert len(done.solution.figure.items["rib"].shape.members) == 3  # type: ignore[union-attr]
    assert "3 and 4 members cannot be paired" in refused(FAMILY + more + "rib = line, from four to ring\n")
    assert "family of families" in refused(FAMILY + "x = turn, of ring, 3 about O\n")
    assert "a family of several" in refused(FAMILY + "rim = line in, hole > c\n")


def test_three_lobes_are_turned_joined_and_closed() -> None:
    """A hand wheel: three bosses on a pitch circle, each pair joined by an arc beside both."""
    done = solved(
        "A = point, 60 above O\nboss = circle, centre A, radius 18\nlobe = turn, of boss, 3 about O\n"
        "ab = arc, radius 45, beside lobe.1, beside lobe.2, right\nbc = arc, radius 45, beside lobe.2, beside lobe.3, above\n"
        "ca = arc, radius 45, beside lobe.3, beside lobe.1, left\nrim = line in, lobe.1 > ab > lobe.2 > bc > lobe.3 > ca\n"
    )
    rim = done.solution.figure.items["rim"].shape
    assert isinstance(rim, Loop)
    assert rim.closed
    assert all(j.is_tangent for j in rim.junctions)
    assert not [f for f in done.findings if f.weight == "wrong"]
    lengths = [p.length for p in rim.pieces]
    assert lengths[0] == pytest.approx(lengths[2]) == pytest.approx(lengths[4])
    assert lengths[1] == pytest.approx(lengths[3]) == pytest.approx(lengths[5])


def test_shifted_things_keep_their_size() -> None:
    done = solved(
        "c = circle, centre O, radius 7\nd = shift, of c, 30 right, 4 below\nl = line, from O to d.centre\nm = shift, of l, 5 above\n"
    )
    d = done.solution.figure.items["d"].shape
    assert isinstance(d, Circle)
    assert (d.centre, d.radius) == (Point(30, -4), 7)
    assert extremes(line(done, "m")) == (Point(0, 5), Point(30, 1))


@pytest.mark.parametrize(("rows", "says"), [
    ("c = circle, centre O, radius 5\nr = spaced, 1 on c", "at least two"),
    ("c = circle, centre O, radius 5\nr = spaced, 2 1/2 on c", "not a whole number"),
    ("c = circle, centre O, radius 5\nr = spaced, 1000 on c", "not a whole number"),
    ("c = circle, centre O, radius 5\nr = spaced, 3 on c, first towards O", "centre itself"),
    ("l = line, through O, level\nd = divide, of l, in 3", "no ends to divide"),
    ("l = line, through O, level\nM = midpoint, of l", "no ends, so it has no middle"),
    ("l = line, through O, level\np = bisector, of l", "no ends to bisect"),
    ("A = point, 3 right of O\nd = divide, of line O A, in 1", "at least two parts"),
    ("A = point, 3 right of O\nq = bisector, of angle A O A", "straight line"),
    ("A = point, 3 right of O\nq = bisector, of angle A A O", "lead away from A"),
    ("l = line, through O, level\nF = foot, of O on l", "lies on l already"),
    ("l = line, through O, level\nm = parallel, to l, at 0, above", "more than nought"),
    ("l = line, through O, level\nm = parallel, to l, at 4", "2 parallels fit"),
    ("A = point, 3 right of O\nt = turn, of A, 1 about O", "at least two places"),
    ("A = point, 3 right of O\nt = shift, of A, 0 right", "nothing would move"),
    ("M = midpoint", "lies between two points"),
])  # fmt: skip
def test_what_cannot_be_is_said(rows: str, says: str) -> None:
    assert says in refused(rows + "\n")


@pytest.mark.parametrize(
    "rows",
    [
        FAMILY,
        "A = point, 30 right of O\nd = divide, of line O A, in 4\n",
        "A = point, 30 right of O\nM = midpoint, between O and A\n",
    ],
)
def test_swings_and_ticks_of_the_steps_lie_where_they_say(rows: str) -> None:
    """Every compass or divider step stands on its needle, and swings at its own setting."""
    done = solved(rows)
    for step in done.steps:
        if step.tool not in ("compass", "dividers") or step.needle is None or step.setting is None:
            continue
        for stroke in step.strokes:
            shape: Shape = stroke.shape
            if hasattr(shape, "radius"):
                assert shape.radius == pytest.approx(step.setting.actual)
                assert abs(shape.centre - step.needle) < 1e-9
