"""Procedures of the board on random givens: what they leave is what they say, whatever opening was taken.

Carried out by the executor alone; held against what defines the result, not against how it was planned.
"""

import cmath
import math
from collections.abc import Callable

import numpy as np
import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from entrick.core.acts import LEVEL, Mark, Paper, Way, Work
from entrick.core.acts.act import Edge, Fix, Measure, Round
from entrick.core.acts.copies import mirrored, shifted, turned
from entrick.core.acts.procedures import (
    around_three,
    bisect,
    circle_through,
    divide,
    drop_square,
    foot,
    halve,
    middle,
    off,
    raise_square,
    ring,
    tangent_from,
    tangent_to_both,
)
from entrick.core.board.order import acts_of
from entrick.core.board.words import NEARLY, step_of
from entrick.core.desk import work_out
from entrick.core.geometry import Circle, Line, Point, polar
from entrick.core.rehearsal.carry_out import Board, carry_out
from entrick.core.rehearsal.hand import NONE
from entrick.core.rehearsal.many import Hands
from entrick.demo import sample_plans

coordinates = st.integers(-900, 900).map(lambda v: v / 10)
places = st.builds(Point, coordinates, coordinates)
angles = st.integers(0, 3599).map(lambda v: v / 10)


class Sheet:
    """A sheet with a few marks on it, to try a procedure on."""

    def __init__(self, *spots: Point, handy: float = 20.0) -> None:
        self.work = Work(Paper(420.0, handy), "x")
        self.marks = []
        for index, spot in enumerate(spots):
            name = "ABCDEF"[index]
            self.work.acts.append(Fix(leaves=name, called=name, planned=spot))
            self.marks.append(Mark(name, spot, name))
            self.work.leave(self.marks[-1])

    @property
    def board(self) -> Board:
        return carry_out(self.work.acts, Hands(NONE, 1, 0, 1.0))

    def at(self, mark: Mark) -> complex:
        return complex(self.board.mark(mark.key)[0])

    def line(self, edge: Edge) -> tuple[complex, complex]:
        drawn = self.board.line(edge.key)
        return complex(drawn.at[0]), complex(drawn.ahead[0])


def off_line(spot: complex, line: tuple[complex, complex]) -> float:
    return abs(((spot - line[0]) * line[1].conjugate()).imag)


def square(one: tuple[complex, complex], other: tuple[complex, complex]) -> float:
    return abs((one[1] * other[1].conjugate()).real)


@given(places, places, st.floats(3, 60))
def test_a_bisector_is_as_far_from_the_one_as_from_the_other_whatever_the_opening(
    a: Point, b: Point, handy: float
) -> None:
    assume(abs(b - a) > 2)
    sheet = Sheet(a, b, handy=handy)
    line = sheet.line(bisect(sheet.work, *sheet.marks))
    for step in (-30.0, 0.0, 30.0):
        spot = line[0] + line[1] * step
        assert abs(abs(spot - complex(*a)) - abs(spot - complex(*b))) < 1e-9
    half = middle(sheet.work, *sheet.marks, called="M")
    assert abs(sheet.at(half) - (complex(*a) + complex(*b)) / 2) < 1e-9


@given(places, places, places, st.floats(5, 60))
def test_a_square_raised_and_one_dropped_are_square(
    a: Point, b: Point, c: Point, handy: float
) -> None:
    assume(abs(b - a) > 5)
    sheet = Sheet(a, b, c, handy=handy)
    edge = sheet.work.through(sheet.marks[0], sheet.marks[1])
    assume(abs(edge.line.offset_of(c)) > 2)
    raised = raise_square(sheet.work, sheet.marks[0], edge)
    dropped = drop_square(sheet.work, sheet.marks[2], edge)
    base = sheet.line(edge)
    for line, through in ((sheet.line(raised), a), (sheet.line(dropped), c)):
        assert square(base, line) < 1e-9
        assert off_line(complex(*through), line) < 1e-9
    down = sheet.at(foot(sheet.work, sheet.marks[2], edge))
    assert off_line(down, base) < 1e-9
    assert off_line(complex(*c), base) == pytest.approx(abs(down - complex(*c)), abs=1e-9)


@given(places, angles, angles)
def test_the_halved_angle_is_half_of_it(corner: Point, first: float, between: float) -> None:
    assume(2 < between < 178)
    ends = [corner + polar(40.0, math.radians(turn)) for turn in (first, first + between)]
    sheet = Sheet(corner, *ends)
    edges = tuple(sheet.work.through(sheet.marks[0], mark) for mark in sheet.marks[1:])
    _, ahead = sheet.line(halve(sheet.work, sheet.marks[0], edges, (ends[0], ends[1])))  # type: ignore[arg-type]
    wanted = cmath.exp(1j * math.radians(first + between / 2))
    assert abs((ahead * wanted.conjugate()).imag) < 1e-9


@given(places, angles, st.integers(1, 400), st.booleans())
def test_a_parallel_lies_at_its_distance_on_its_side(
    a: Point, turn: float, tenths: int, left: bool
) -> None:
    end = a + polar(50.0, math.radians(turn))
    sheet = Sheet(a, end)
    edge = sheet.work.through(*sheet.marks)
    side = a + polar(10.0, math.radians(turn + (90 if left else -90)))
    line = sheet.line(off(sheet.work, edge, sheet.marks[0], tenths / 10, "p", side=side))
    base = sheet.line(edge)
    assert abs((line[1] * base[1].conjugate()).imag) < 1e-9
    across = ((line[0] - base[0]) * base[1].conjugate()).imag
    wanted = ((complex(*side) - base[0]) * base[1].conjugate()).imag
    assert across * math.copysign(1, wanted) == pytest.approx(tenths / 10, abs=1e-9)


@given(places, places, st.integers(2, 9))
def test_a_line_is_divided_in_equal_parts(a: Point, b: Point, count: int) -> None:
    assume(abs(b - a) > 5)
    sheet = Sheet(a, b)
    marks = divide(sheet.work, *sheet.marks, count=count, called=[f"p{i}" for i in range(1, count)])
    spots = [complex(*a), *(sheet.at(mark) for mark in marks), complex(*b)]
    parts = np.diff(np.array(spots))
    assert np.ptp(np.abs(parts)) < 1e-8
    assert np.ptp(np.angle(parts * np.conj(parts[0]))) < 1e-8


@given(places, places, st.integers(20, 200))
def test_a_tangent_touches_and_is_square_to_the_radius(a: Point, c: Point, tenths: int) -> None:
    radius = tenths / 10
    assume(abs(a - c) > radius * 1.1)
    sheet = Sheet(a, c)
    circle = sheet.work.swing(sheet.marks[1], radius, "c")
    half = math.acos(radius / abs(a - c))
    touch = Circle(c, radius).at((a - c).angle + half)
    edge, mark = tangent_from(sheet.work, sheet.marks[0], circle, touch)
    spot, line = sheet.at(mark), sheet.line(edge)
    assert abs(abs(spot - complex(*c)) - radius) < 1e-9
    assert off_line(complex(*a), line) < 1e-9
    assert off_line(complex(*c), line) == pytest.approx(radius, abs=1e-7)


@given(
    places,
    places,
    st.integers(20, 200),
    st.integers(20, 200),
    st.sampled_from([(1, 1), (1, -1), (-1, 1), (-1, -1)]),
)
def test_a_line_touching_two_circles_touches_both(
    a: Point, b: Point, first: int, second: int, way: tuple[int, int]
) -> None:
    radii, (side, same) = (first / 10, second / 10), way
    reach = radii[0] - radii[1] if same > 0 else radii[0] + radii[1]
    assume(abs(b - a) > abs(reach) * 1.05 + 1)
    normal = polar(1.0, (b - a).angle + side * math.acos(reach / abs(b - a)))
    touches = (a + normal * radii[0], b + normal * (same * radii[1]))
    assume(abs(touches[1] - touches[0]) > 1)
    sheet = Sheet(a, b)
    circles = [Circle(spot, radius) for spot, radius in zip((a, b), radii, strict=True)]
    edge, _ = tangent_to_both(sheet.work, circles, ("a", "b"), touches, "t", Line.between(*touches))
    line = sheet.line(edge)
    for spot, radius in zip((a, b), radii, strict=True):
        assert off_line(complex(*spot), line) == pytest.approx(radius, abs=1e-7)


@given(places, places, places)
def test_the_centre_around_three_marks_is_as_far_from_each(a: Point, b: Point, c: Point) -> None:
    assume(abs((b - a).cross(c - a)) > 200)
    centre = circle_through(a, b, c)
    assume(abs(centre - a) < 500)
    sheet = Sheet(a, b, c)
    spot = sheet.at(around_three(sheet.work, sheet.marks, centre, "M"))
    far = [abs(spot - complex(*each)) for each in (a, b, c)]
    assert max(far) - min(far) < 1e-7


@given(places, st.integers(3, 24), angles)
def test_chords_step_round_and_come_back(a: Point, count: int, turn: float) -> None:
    start = a + polar(30.0, math.radians(turn))
    sheet = Sheet(a, start)
    circle = sheet.work.swing(sheet.marks[0], 30, "c")
    assert isinstance(circle, Round)
    marks = ring(sheet.work, sheet.marks[1], circle, count, [f"p{i}" for i in range(2, count + 1)])
    spots = np.array([complex(*start), *(sheet.at(mark) for mark in marks)])
    turns = np.angle((np.roll(spots, -1) - complex(*a)) / (spots - complex(*a)))
    assert turns == pytest.approx(np.full(count, math.tau / count), abs=1e-9)


@given(places, places, places, angles)
def test_marks_are_carried_over_a_line_round_a_centre_and_along(
    a: Point, b: Point, p: Point, turn: float
) -> None:
    assume(abs(b - a) > 5)
    assume(abs(p - a) > 1)
    sheet = Sheet(a, b, p)
    axis = sheet.work.through(sheet.marks[0], sheet.marks[1])
    assume(abs(axis.line.offset_of(p)) > 1)
    image = sheet.at(mirrored(sheet.work, sheet.marks[2], axis, "m"))
    line, spot = sheet.line(axis), complex(*p)
    assert off_line((image + spot) / 2, line) < 1e-8
    assert abs(((image - spot) * line[1].conjugate()).real) < 1e-8
    round_ = sheet.at(turned(sheet.work, sheet.marks[2], sheet.marks[0], turn, "t"))
    wanted = complex(*a) + (spot - complex(*a)) * cmath.exp(1j * math.radians(turn))
    assert abs(round_ - wanted) < 1e-8
    moves = ((LEVEL, 12.5), (Way(90), -7.25))
    assert (
        abs(sheet.at(shifted(sheet.work, sheet.marks[2], moves, "s")) - (spot + 12.5 - 7.25j))
        < 1e-9
    )


@pytest.mark.parametrize("find", [bisect, middle])
def test_what_is_one_place_is_not_bisected(find: Callable[..., object]) -> None:
    sheet = Sheet(Point(1.0, 2.0), Point(5.0, 6.0))
    twin = Mark("twin", Point(1.0, 2.0), "twin")
    if find is middle:
        assert middle(sheet.work, sheet.marks[0], twin, "M") is sheet.marks[0]
    else:
        with pytest.raises(ValueError, match="same place"):
            bisect(sheet.work, sheet.marks[0], twin)


@pytest.mark.parametrize("text", sample_plans().values(), ids=sample_plans().keys())
def test_every_measurement_says_its_sense(text: str) -> None:
    """The same words are never said of a place to the left and of one to the right."""
    done = work_out(text)
    ordered = acts_of(done.solution, done.sheet)
    marks = {mark.key: mark.at for own in ordered for mark in own.left if isinstance(mark, Mark)}
    for own in ordered:
        for act in own.acts:
            if (
                isinstance(act, Measure)
                and act.start in marks
                and abs(act.planned - marks[act.start]) > 0
            ):
                told, way = step_of(act).text, (act.planned - marks[act.start]).unit
                for size, more, less in (
                    (way.x, "to the right", "to the left"),
                    (way.y, "up", "down"),
                ):
                    said = more if size > 0 else less
                    assert abs(size) <= NEARLY or said in told, told
