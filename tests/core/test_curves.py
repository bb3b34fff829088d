"""Polygons, ellipses, spirals, involutes and helices: each is what its definition says, however it is drawn."""

import pytest

from desk import HEAD, solved
from entrick.core.desk import work_out
from entrick.core.drawing.marks import DrawnRun
from entrick.core.geometry import Arc, Circle, Point
from entrick.core.geometry.fitted import fitted


def test_curves_of_many_arcs_are_one_mark_and_one_step() -> None:
    done = solved("e = ellipse, centred on O, axes 90 and 56\nrim = line in, e\n")
    runs = [m for m in done.display.marks if isinstance(m, DrawnRun)]
    assert [m.role for m in runs] == ["construction", "outline"]
    assert runs[1].oval is not None
    assert sum(step.name == "rim" for step in done.steps) == 1
    assert not [f for f in done.findings if f.rule in ("junction", "sliver")]


@pytest.mark.parametrize(
    ("row", "told"),
    [
        ("p = polygon, 2 sides, centred on O, side 9\n", "3 to 60 sides"),
        ("e = ellipse, centred on O\n", "both its axes, or one axis"),
        ("e = ellipse, centred on O, axis 20, through P\n", "no ellipse goes through"),
        ("e = ellipse, centred on O, axis 20\n", "needs a point"),
        ("e = ellipse, centred on O, axes 90 and 40\nt = tangent, to e, from O\n", "lies inside"),
        (
            "e = ellipse, centred on O, axes 90 and 40, by four centres\nt = tangent, to e, level\n",
            "e.true",
        ),
        ("s = spiral, about O, radius 9 to 9, 2 turns\n", "two different radii"),
        ("h = helix, from O, diameter 9, lead 3, 99 turns\n", "up to 30 turns"),
        ("k = cone, from O, diameter 90, height 5\n", "the apex lies over the base"),
        ("b = isometric box, from O, 9 by 0 by 9\n", "more than nought"),
    ],
)
def test_what_cannot_be_drawn_is_said(row: str, told: str) -> None:
    errors = work_out(HEAD + "P = point, 30 right of O\n" + row).solution.errors
    assert errors
    assert told in errors[0].message


def test_arcs_fitted_to_a_circle_are_that_circle() -> None:
    circle = Circle(Point(1, 2), 30)
    arcs = fitted(
        circle.at, lambda t: (circle.at(t) - circle.centre).unit.normal, [0.0, 2.0, 4.0], 1e-6
    )
    assert all(isinstance(arc, Arc) and abs(arc.radius - 30) < 1e-6 for arc in arcs)
