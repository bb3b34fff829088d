"""``ellipse``."""

import math
import re

import pytest
from hypothesis import assume, example, given
from hypothesis import strategies as st

from desk import run_of, solved
from entrick.core.board.steps import opened_steps
from entrick.core.geometry import Arc, Line, Point, reflect, rotate
from entrick.core.geometry.ellipse import Ellipse, departure, four_centres
from entrick.core.geometry.shapes import polar

ellipses = st.builds(
    Ellipse,
    st.builds(Point, st.floats(-50, 50), st.floats(-50, 50)),
    st.builds(polar, st.floats(20, 80), st.floats(-3, 3)),
    st.floats(6, 19.9),
)


@given(ellipses)
def test_arcs_of_a_true_ellipse_keep_to_it_and_run_on_without_a_corner(ellipse: Ellipse) -> None:
    curves = ellipse.drawn()
    off, _ = departure(ellipse, curves)
    assert off < 1e-4 * ellipse.a
    for first, second in zip(curves, (*curves[1:], curves[0]), strict=True):
        assert isinstance(first, Arc)
        assert isinstance(second, Arc)
        assert abs(first.last - second.first) < 1e-8
        assert (
            abs((first.last - first.centre).unit.cross((second.first - second.centre).unit)) < 1e-7
        )


@given(ellipses, st.floats(-2, 2), st.floats(-2, 2))
@example(Ellipse(Point(0, 0), Point(80, 0), 6), 0.0, 0.0)
@example(Ellipse(Point(0, 0), Point(80, 0), 6), 0.5, 0.0)
@example(Ellipse(Point(0, 0), Point(20, 0), 60), 0.0, 1.5)
def test_nothing_of_an_ellipse_is_nearer_to_a_point_than_its_nearest_place(
    ellipse: Ellipse, along: float, beside: float
) -> None:
    point = ellipse.centre + ellipse.major * along + ellipse.across * beside
    others = (ellipse.at(math.tau * at / 720) for at in range(720))
    assert ellipse.distance(point) <= min(abs(spot - point) for spot in others) + 1e-9


@given(ellipses, st.floats(0, 6.28))
def test_places_of_an_ellipse_keep_the_sum_of_their_distances_to_the_foci(
    ellipse: Ellipse, turn: float
) -> None:
    spot = ellipse.at(turn)
    assert sum(abs(spot - focus) for focus in ellipse.foci) == pytest.approx(2 * ellipse.a)
    bisector = sum(((spot - focus).unit for focus in ellipse.foci), Point(0, 0))
    assert abs(bisector.dot(ellipse.heading(turn))) < 1e-6, (
        "the normal halves the angle between the focal rays"
    )


@given(ellipses, st.builds(Point, st.floats(-200, 200), st.floats(-200, 200)), st.floats(0, 3.1))
def test_tangents_of_an_ellipse_touch_and_do_not_cut(
    ellipse: Ellipse, point: Point, angle: float
) -> None:
    assume(abs(sum(abs(point - focus) for focus in ellipse.foci) - 2 * ellipse.a) > 1e-6)
    turns = ellipse.touching_from(point)
    for turn in turns:
        assume(abs(ellipse.at(turn) - point) > 1e-3)
        assert abs((ellipse.at(turn) - point).unit.cross(ellipse.heading(turn))) < 1e-6
    inside = sum(abs(point - focus) for focus in ellipse.foci) < 2 * ellipse.a
    assert len(turns) == (0 if inside else 2)
    way = polar(1.0, angle)
    for turn in ellipse.touching_along(way):
        line = Line(ellipse.at(turn), way)
        offs = [line.offset_of(ellipse.at(turn + k / 10)) for k in range(63)]
        assert min(offs) > -1e-9 or max(offs) < 1e-9


@given(ellipses, st.floats(0, 6.28), st.floats(0, 40))
def test_the_nearest_place_lies_square_below_a_point(
    ellipse: Ellipse, turn: float, out: float
) -> None:
    spot = ellipse.at(turn) - ellipse.heading(turn).normal * out
    assert ellipse.distance(spot) == pytest.approx(out, abs=1e-6)


@given(ellipses, st.floats(-3, 3))
def test_an_ellipse_is_copied_with_what_it_stands_for(ellipse: Ellipse, angle: float) -> None:
    done = solved(
        "e = ellipse, centred on O, axes 90 and 56, at 20°\nm = mirror, of e, about O.plumb\n"
    )
    image = run_of(done, "m").stands_for
    assert image is not None
    assert abs(image.major.angle % math.pi - math.radians(160)) < 1e-9
    assert departure(image, tuple(p.curve for p in run_of(done, "m").pieces))[0] < 1e-2  # type: ignore[arg-type]
    turned = rotate(run_of(done, "e"), Point(5, 5), angle).stands_for
    assert turned is not None
    assert abs(turned.centre - rotate(Point(0, 0), Point(5, 5), angle)) < 1e-9
    assert reflect(Point(1, 1), Line(Point(0, 0), Point(1, 0))) == Point(1, -1)


@given(st.floats(10, 100), st.floats(0.3, 0.98))
def test_four_centres_meet_on_their_lines_of_centres(a: float, share: float) -> None:
    arcs = four_centres(Ellipse(Point(0, 0), Point(a, 0), a * share))
    assert arcs[0].at(0.0).x == pytest.approx(a)
    assert arcs[1].at(math.pi / 2).y == pytest.approx(a * share)
    for first, second in zip(arcs, (*arcs[1:], arcs[0]), strict=True):
        assert abs(first.last - second.first) < 1e-9 * a * 100
        assert (
            abs((first.last - first.centre).unit.cross((second.first - second.centre).unit)) < 1e-9
        )


PLACE = re.compile(r"^place \d+ of e")


@pytest.mark.parametrize("method", ["circles", "trammel", "rectangle", "foci"])
def test_every_method_pricks_points_of_the_true_ellipse(method: str) -> None:
    done = solved(f"e = ellipse, centred on O, axes 90 and 56, at 20°, by {method}\n")
    ellipse = run_of(done, "e").stands_for
    assert ellipse is not None
    pricked = [
        s.shape
        for step in done.steps
        if step.name == "e"
        for s in step.strokes
        if isinstance(s.shape, Point) and step.source and PLACE.search(step.source.acts[-1].called)
    ]
    on = [spot for spot in pricked if ellipse.distance(spot) < 1e-6]
    assert len(on) >= 8
    assert len(on) == len(pricked)
    assert any(
        opened_steps(step, done.solution, done.kit, done.sheet)
        for step in done.steps
        if step.name == "e"
    )


def test_an_ellipse_by_an_axis_and_a_point_goes_through_it() -> None:
    done = solved(
        "P = point, 30 right of O, 15 above\ne = ellipse, centred on O, axis 80, through P\n"
    )
    ellipse = run_of(done, "e").stands_for
    assert ellipse is not None
    assert ellipse.distance(Point(30, 15)) < 1e-9
    assert ellipse.a == 40
