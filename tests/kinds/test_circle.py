"""``circle``."""

import pytest

from desk import HEAD, edited, refused, solved, thing
from entrick.core.desk import work_out
from entrick.core.geometry import Circle
from entrick.core.plan.edit import choose_candidate


def test_diameters_are_halved_exactly_and_the_working_says_so() -> None:
    done = work_out("units in\nO = datum\nc = circle, centre O, diameter 9/16\n")
    made = done.solution.entries[1].made
    assert made is not None
    assert made.working == ("Ø 9/16 ÷ 2 = 9/32: the compass goes by radius",)
    step = done.steps[-1]
    assert step.setting is not None
    assert (step.tool, step.setting.reading) == ("circle template", "Ø9/16 in"), (
        "a template goes by diameter"
    )
    larger = work_out("units in\nO = datum\nc = circle, centre O, diameter 3 9/16\n").steps[-1]
    assert larger.setting is not None
    assert (larger.tool, larger.setting.reading, larger.setting.error) == (
        "compass",
        "1 25/32 in",
        0,
    )


def test_through_three_points_in_a_plan_by_bisecting_two_chords() -> None:
    done = solved(
        "A = point, 40 right of O\nB = point, 30 above O\nc = circle, through O, through A, through B\n"
    )
    circle = done.solution.figure.items["c"].shape
    assert isinstance(circle, Circle)
    assert (circle.centre.x, circle.centre.y, circle.radius) == pytest.approx(
        (20, 15, 25)
    )  # Thales, 3-4-5
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
        done = work_out(
            edited(HEAD + rows, choose_candidate, entry.line, candidate.words, frozenset())
        )
        assert done.solution.figure.items["x"].shape == candidate.shape
        assert {"x.touch.a", "x.centre"} <= {
            f"x.{key}" for key in done.solution.figure.items["x"].parts
        }


def test_a_circle_about_a_centre_goes_through_a_point() -> None:
    done = solved(
        "A = point, 30 right of O, 40 above\nc = circle, about O, through A\nd = circle, concentric with c, through A\n"
    )
    assert thing(done, "c") == thing(done, "d")
    assert thing(done, "c").radius == pytest.approx(50)
    assert "the centre itself" in refused("c = circle, centre O, through O\n")
    assert "has its size" in refused(
        "A = point, 30 right of O\nc = circle, centre O, through A, radius 8\n"
    )
