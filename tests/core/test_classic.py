"""Classic constructions: every step opened up comes out where the step itself does."""

import math

import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from entrick.core.board import opened_steps
from entrick.core.board.classic import angle_from_level, opened, opens, square_at, square_from
from entrick.core.board.step import Step
from entrick.core.desk import work_out
from entrick.core.drawing.strokes import Stroke, Tool
from entrick.core.geometry import Arc, Line, Point, meet
from entrick.core.geometry.shapes import is_drawn_at
from entrick.demo import sample_plans

coordinates = st.floats(-80, 80).map(lambda v: round(v, 3))
points = st.builds(Point, coordinates, coordinates)
HEAD = "units mm\nsheet A3 landscape, scale 1:1, border 10\nO = datum\n"


def swings(steps: tuple[Step, ...]) -> list[Arc]:
    return [s.shape for step in steps if step.tool is Tool.COMPASS for s in step.strokes if isinstance(s.shape, Arc)]


def cuts(steps: tuple[Step, ...], first: int, second: int) -> list[Point]:
    """Return where two of the swings cross, on what is drawn of them."""
    one, other = swings(steps)[first], swings(steps)[second]
    return [m.point for m in meet(one, other) if is_drawn_at(one, m.point) and is_drawn_at(other, m.point)]


@given(points, st.floats(0, 360), st.floats(5, 60))
def test_a_perpendicular_raised_at_a_point(point: Point, degrees: float, reach: float) -> None:
    direction = Line(point, Point(math.cos(math.radians(degrees)), math.sin(math.radians(degrees)))).direction
    steps = square_at(point, direction, reach, Stroke(Line(point, direction.normal)))
    (top,) = cuts(steps, 2, 3)
    assert (top - point).dot(direction) == pytest.approx(0, abs=1e-7)


@given(points, points)
def test_a_perpendicular_dropped_from_a_point(point: Point, foot: Point) -> None:
    assume(abs(point - foot) > 1)
    steps = square_from(point, foot, Stroke(Line.between(point, foot)))
    (below,) = cuts(steps, 2, 3)
    ahead = (foot - point).unit
    assert abs(ahead.cross(below - point)) == pytest.approx(0, abs=1e-7)


@pytest.mark.parametrize("degrees", range(0, 360, 5))
def test_any_direction_is_constructed_without_a_protractor(degrees: int) -> None:
    """The last two swings cross on the line; chords are as exact as they are worked out."""
    place, turn = Point(3.0, 4.0), math.radians(degrees)
    line = Line(place, Point(math.cos(turn), math.sin(turn)))
    steps = angle_from_level(place, float(degrees), 20.0, Stroke(line))
    if degrees % 180 == 0:
        assert steps == ()
        return
    assert steps[-1].strokes[-1].shape == line
    crossings = cuts(steps, -1, -2)
    assert any(abs(line.offset_of(spot)) < 1e-7 for spot in crossings)
    by_chord = [step for step in steps if "chord" in step.text]
    assert bool(by_chord) == (degrees % 15 != 0)


@pytest.mark.parametrize("text", sorted(sample_plans().values()), ids=lambda text: text.splitlines()[1])
def test_every_step_of_the_samples_opens_up_or_is_classic_already(text: str) -> None:
    done = work_out(text)
    opening = 0
    for step in done.steps:
        if step.source is None:
            continue
        found = opened_steps(step, done.kit, done.sheet)
        assert bool(found) == opens(step.source), step.text
        opening += bool(found)
        for each in found:
            assert each.tool in ("compass", "beam compass", "circle template", "dividers", "straightedge", "pencil")
            for stroke in each.strokes:
                if isinstance(stroke.shape, Arc) and each.needle is not None and each.setting is not None:
                    assert abs(stroke.shape.centre - each.needle) < 1e-9
    assert opening >= 5


@pytest.mark.parametrize(("rows", "words"), [
    ("l = line, through O, at 20°\nP = point, 5 right of O, 40 above\nf = foot, of P on l\n", "cut the line twice"),
    ("l = line, through O, at 20°\nm = parallel, to l, at 12, above\n", "Slide the first along it"),
    ("l = line, through O, at 20°\nP = point, 40 above O\nm = line, through P, parallel to l\n", "Slide the first along it"),
    ("l = line, through O, at 20°\nP = point, 40 above O\nm = line, through P, square to l\n", "cut the line twice"),
    ("l = line, through O, at 20°\nm = line, through O, square to l\n", "cut the line on both sides"),
    ("m = line, through O, at 75°\n", "75°"),
    ("m = line, through O, at 37°\n", "chord of the angle"),
    ("c = circle, centre O, radius 20\n", "the two meet in the centre"),
])  # fmt: skip
def test_steps_open_into_the_construction_that_stands_behind_them(rows: str, words: str) -> None:
    done = work_out(HEAD + rows)
    assert not done.solution.errors
    texts = [
        row
        for step in done.steps
        if step.source is not None
        for each in opened(step.source, 20.0)
        for row in (each.text, each.check)
    ]
    assert any(words in text for text in texts), texts


def test_settings_of_an_opened_step_are_at_the_scale_of_the_sheet() -> None:
    done = work_out("units mm\nsheet A3 landscape, scale 1:2\nO = datum\nl = line, through O, at 40°\n")
    step = done.steps[-1]
    found = opened_steps(step, done.kit, done.sheet)
    assert [s.number for s in found] == [1, 2, 3]
    assert found[0].setting is not None
    assert found[0].setting.reading == "20 mm", "a handy opening on paper"
    assert found[1].setting is not None
    assert found[1].setting.drawn == pytest.approx(2 * 20 * math.sin(math.radians(20)))
