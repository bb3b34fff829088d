"""Displacement diagrams by the book: the base divided, each motion constructed, everything lettered; steps to follow."""

import math
from collections.abc import Iterable
from functools import partial
from itertools import pairwise
from typing import Any

import pytest
import shapely
from hypothesis import given
from hypothesis import strategies as st

from desk import point_of, solved
from entrick.core.acts.names import plain
from entrick.core.board.schedule import guest_of
from entrick.core.desk import Work, work_out
from entrick.core.drawing.marks import Arrowhead, DrawnArc, DrawnLine, Lettering, Mark, reach
from entrick.core.drawing.strokes import Role
from entrick.core.geometry import Arc, Circle, Line, Loop, Point
from entrick.core.rules.cam import Cam, Event
from entrick.core.rules.motion import MOTIONS
from entrick.core.worksheets.cam import Diagram

HEAD = "units mm\nsheet A2 landscape, scale 1:1, border 10\nO = datum\nG = point, 120 right of O\n"
CAM = "c = cam, about O, least 30, {}, 12 parts, diagram from G, 30° is 10, lift scale 2:1"
EVENTS = "rise 120° by 24 {}, dwell 60°, fall 180° by 24 {}"


def every_act(done: Work) -> list[Any]:
    """Return everything that is done, the edges that are held among it."""
    acts = [act for step in done.steps if step.source for act in step.source.acts]
    return [each for act in acts for each in (act, guest_of(act)) if each is not None]


def diagram(motion: str, angle: int = 120, lift: float = 24.0, parts: int = 12) -> Diagram:
    one = Event("rise1", math.radians(angle), 0.0, lift, MOTIONS[motion])
    two = Event("fall1", math.radians(360 - angle), lift, 0.0, MOTIONS[motion])
    return Diagram(
        Cam(Point(0.0, 0.0), 30.0, True, (one, two)), Point(100.0, 0.0), 0.5, 1.0, parts, 1.0, str
    )


def lines(drawn: Diagram, until: float) -> list[Line]:
    """The construction lines of the first event."""
    found = [s.shape for s in drawn.constructions() if isinstance(s.shape, Line)]
    return [line for line in found if line.at(line.end or 0.0).x <= until + 1e-9]


@given(st.integers(90, 180), st.floats(2, 60))
def test_harmonic_motion_comes_from_a_semicircle_on_the_lift(angle: int, lift: float) -> None:
    drawn = diagram("harmonic", angle, lift)
    (arc, _) = [s.shape for s in drawn.constructions() if isinstance(s.shape, Arc)]
    assert arc.radius == pytest.approx(lift / 2)
    assert abs(arc.sweep) == pytest.approx(math.pi)
    across = lines(drawn, drawn.spot(angle, 0.0).x)
    turns = []
    for line in across:
        start, end = line.at(0.0), line.at(line.end or 0.0)
        assert abs(abs(start - arc.centre) - arc.radius) < 1e-9 * 100, "from the semicircle"
        assert start.y == pytest.approx(end.y)
        turns.append((start - arc.centre).angle % math.tau)
        share = (end.x - drawn.at.x) / 0.5 / angle
        assert end.y == pytest.approx(lift / 2 * (1 - math.cos(math.pi * share))), "to its station"
    parts = sorted(turns)
    steps = [b - a for a, b in pairwise(parts)]
    assert max(steps) - min(steps) < 1e-9, "the semicircle is divided into equal parts"


def test_uniform_acceleration_comes_from_squares_on_a_slanted_line() -> None:
    drawn = diagram("parabolic", 180, 32.0, 16)
    found = lines(drawn, drawn.at.x)
    slanted, parallels = found[0], found[1:]
    starts = sorted(abs(line.at(0.0) - drawn.at) for line in parallels)
    unit = starts[0]
    assert [round(start / unit, 6) for start in starts] == [1, 4, 9, 16, 23, 28, 31, 32], (
        "1 : 4 : 9, then mirrored"
    )
    directions = {round(math.degrees(line.direction.angle), 6) for line in parallels}
    assert len(directions) == 1, "all parallel"
    assert abs(slanted.direction.x) > 0.1


def test_cycloidal_motion_comes_from_a_rolled_circle() -> None:
    drawn = diagram("cycloidal", 180, 30.0, 24)
    circle, _ = [s.shape for s in drawn.constructions() if isinstance(s.shape, Circle)]
    assert math.tau * circle.radius == pytest.approx(30.0), "one turn of it is the lift"
    diagonal, *carried = lines(drawn, drawn.spot(180, 0.0).x)
    for line in carried:
        assert abs(line.direction.cross(diagonal.direction)) < 1e-9
        start = line.at(0.0)
        assert abs(start - circle.centre) <= circle.radius + 1e-9
        end = line.at(line.end or 0.0)
        share = (end.x - drawn.at.x) / 0.5 / 180
        assert end.y == pytest.approx(30 * (share - math.sin(math.tau * share) / math.tau))


def test_uniform_motion_is_a_straight_line_and_its_rounded_ends_run_into_it() -> None:
    curve = diagram("uniform").curve("k")
    assert all(isinstance(piece.curve, Line) for piece in curve.pieces)
    rounded = diagram("rounded").curve("k")
    assert all(junction.is_tangent for junction in rounded.junctions)
    assert any(
        isinstance(piece.curve, Line) or piece.curve.radius > 1e3 for piece in rounded.pieces
    )


@given(
    st.sampled_from([name for name in MOTIONS if name != "uniform"]),
    st.integers(40, 200),
    st.floats(1, 40),
)
def test_the_curve_goes_through_every_station_and_keeps_to_the_motion(
    motion: str, angle: int, lift: float
) -> None:
    drawn = diagram(motion, angle, lift, 24)
    curve = drawn.curve("k")
    assert abs(curve.pieces[0].entry - drawn.at) < 1e-9
    assert abs(curve.pieces[-1].exit - drawn.spot(360, 0.0)) < 1e-9 * 100
    for degrees in (*drawn.stations, angle / 3, angle * 0.77):
        spot = drawn.spot(degrees, drawn.cam.lift(math.radians(min(degrees, 359.999999)))[0])
        assert curve.distance(spot) < 8e-3


def test_the_diagram_stands_on_the_sheet_with_everything_it_is_marked_for() -> None:
    done = solved(
        CAM.format(EVENTS.format("harmonic", "harmonic"))
        + "\nk = line in, c.diagram, open\nrim = line in, c\n"
    )
    words = [m.text for m in done.display.marks if isinstance(m, Lettering)]
    for wanted in (
        "DISPLACEMENT DIAGRAM",
        "CAM ANGLE, 30° = 10",
        "LIFT, 2:1",
        "harmonic",
        "dwell",
        "0°",
        "120°",
        "180°",
        "360°",
    ):
        assert wanted in words
    # Stations below the base, 0 again at 360°; the same numbers on the profile are names of points.
    assert words.count("0") >= 2
    assert set(map(str, range(12))) <= set(words)
    assert sum(isinstance(m, Arrowhead) for m in done.display.marks) == 1, "the rotation"
    curve = done.solution.figure.items["c"].parts["diagram"]
    assert isinstance(curve, Loop)
    low, high = curve.box
    assert high.x - low.x == pytest.approx(120)
    assert high.y - low.y == pytest.approx(48), "the lift at 2:1"


@pytest.mark.parametrize(("way", "turn"), [("cw", -1), ("ccw", 1)])
def test_the_rotation_arrow_points_the_way_the_cam_turns_and_stations_run_against_it(
    way: str, turn: int
) -> None:
    done = solved(CAM.format(f"{way}, {EVENTS.format('harmonic', 'uniform')}") + "\n")
    (arc,) = [m for m in done.display.marks if isinstance(m, DrawnArc) and m.role == "dimension"]
    assert math.copysign(1, arc.sweep) == turn
    parts = done.solution.figure.items["c"].parts
    first, second = parts["station.0"], parts["station.1"]
    assert isinstance(first, Point)
    assert isinstance(second, Point)
    assert math.copysign(1, first.cross(second)) == -turn


def test_the_steps_divide_the_base_construct_the_motions_and_open_the_compass_station_by_station() -> (
    None
):
    done = solved(CAM.format(f"shaft diameter 20, {EVENTS.format('harmonic', 'parabolic')}") + "\n")
    steps = [step for step in done.steps if step.name == "c"]
    told = [step.text for step in steps]
    order = [
        "Draw a through G, plumb",
        "tick it 11 times, mark ",
        "Draw the stations through",
        "draw b lightly",
        "draw f lightly",
        "Draw the ray at 30°",
        "along the ray at 30°, to the left and up, mark 1",
    ]
    places = [next(i for i, text in enumerate(told) if words in text) for words in order]
    assert places == sorted(places)
    stations = {
        s.shape
        for step in steps
        for s in step.strokes
        if s.role is Role.POINT and s.label.isdigit()
    }
    for number in range(12):
        degrees = 30 * number
        lift = 12 * (1 - math.cos(math.pi * degrees / 120)) if degrees < 120 else 24.0
        if degrees > 180:
            share = (degrees - 180) / 180
            lift = 24 * (1 - (2 * share**2 if share < 0.5 else 1 - 2 * (1 - share) ** 2))
        assert any(
            abs(spot) == pytest.approx(30 + lift) for spot in stations if isinstance(spot, Point)
        ), number
    ticks = [s.shape for step in steps if "tick it" in step.text for s in step.strokes]
    apart = [abs(b - a) for a, b in pairwise(ticks)]  # type: ignore[operator]
    assert max(apart) - min(apart) < 1e-9
    assert {spot.y for spot in ticks if isinstance(spot, Point)} == {0.0}, "on the base"
    hatch = [m for m in done.display.marks if isinstance(m, DrawnLine) and m.role == "hatch"]
    assert hatch, "a cut shaft is hatched"


def test_a_flat_face_and_a_roller_show_how_the_board_finds_them() -> None:
    for follower, shape in (("flat", Line), ("roller radius 6", Circle)):
        done = solved(f"c = cam, about O, least 40, {follower}, rise 180° by 9, fall 180° by 9\n")
        words = "the face at 90°" if follower == "flat" else "the roller at 90°"
        drawn = next(act for act in every_act(done) if plain(act.called) == words)
        assert any(isinstance(stroke.shape, shape) for stroke in drawn.strokes)
        strokes = [stroke for step in done.steps for stroke in step.strokes]
        assert any(stroke.role is Role.POINT and stroke.label == "3" for stroke in strokes)
    offset = solved("c = cam, about O, least 40, offset 7 left, rise 180° by 9, fall 180° by 9\n")
    circle = offset.solution.figure.items["c"].parts["offset"]
    assert isinstance(circle, Circle)
    rays = [act.planned for act in every_act(offset) if plain(act.called).startswith("the ray at")]
    assert len(rays) == 12
    for ray in rays:
        assert isinstance(ray, Line)
        assert abs(ray.offset_of(Point(0.0, 0.0))) == pytest.approx(7), (
            "every station's line touches it"
        )


solved = partial(solved, head=HEAD)


def clashes(marks: Iterable[Mark]) -> list[tuple[Lettering, Lettering]]:
    """Which letterings stand on each other: boxes of letters, by shapely."""
    letters = [mark for mark in marks if isinstance(mark, Lettering) and mark.text.strip()]
    boxes = [shapely.MultiPoint(reach(mark)).convex_hull.buffer(-0.25) for mark in letters]
    tree = shapely.STRtree(boxes)
    pairs = [(i, int(j)) for i, box in enumerate(boxes) for j in tree.query(box, "intersects")]
    return [(letters[i], letters[j]) for i, j in pairs if i < j]


@given(
    st.tuples(st.integers(20, 150), st.integers(4, 80), st.integers(30, 120)),
    st.integers(8, 30),
    st.sampled_from(["uniform", "harmonic", "parabolic", "cycloidal", "rounded"]),
    st.sampled_from(["12 parts", "every 30°", "24 parts", "every 15°"]),
    st.sampled_from(["30° is 8", "30° is 10", "30° is 15"]),
    st.lists(
        st.sampled_from(["with velocity", "with acceleration", "degrees", "lift scale 2:1"]),
        unique=True,
    ),
)
def test_labels_of_a_diagram_do_not_collide(
    angles: tuple[int, int, int], lift: int, motion: str, parts: str, scale: str, more: list[str]
) -> None:
    rise, stand, fall = angles
    rest = "".join(f", {each}" for each in more)
    done = work_out(
        f"units mm\nsheet A2 landscape, scale 1:1\nO = datum\nG = point, {lift + 80} right of O, 10 above\n"
        f"c = cam, about O, least 30, rise {rise}° by {lift} {motion}, dwell {stand}°, fall {fall}° by {lift} "
        f"{motion}, dwell {360 - rise - stand - fall}°, {parts}, diagram from G, {scale}{rest}\n"
        "r = line in, c\nv = line in, c.diagram, open\n"
    )
    assert not done.solution.errors
    found = clashes(done.display.marks)
    both = [(a.text, b.text) for a, b in found if a.role == b.role == "label"]
    assert both == [], "no lettering of the diagram stands on another"
    # Numbers of working points make room as well as they can: a few in a hundred may touch.
    many = sum(isinstance(mark, Lettering) for mark in done.display.marks)
    assert len(found) <= max(3, many / 20), [(a.text, b.text) for a, b in found]


@given(
    st.integers(70, 140),
    st.integers(8, 30),
    st.sampled_from(["20 parts", "12 parts", "18 parts", "every 15°"]),
    st.sampled_from(["30° is 10", "30° is 8"]),
)
def test_construction_stays_in_its_own_view(rise: int, lift: int, parts: str, scale: str) -> None:
    """No light line of the cam or its diagram runs through the graphs, or out to the border."""
    done = work_out(
        f"units mm\nsheet A2 landscape, scale 1:1\nO = datum\nG = point, {lift + 90} right of O, 10 above\n"
        f"c = cam, about O, least 30, rise {rise}° by {lift} harmonic, dwell 60°, fall {300 - rise}° by {lift} "
        f"harmonic, {parts}, diagram from G, {scale}, with velocity, with acceleration\n"
        "r = line in, c\nv = line in, c.diagram, open\n"
    )
    corner = done.sheet.on_paper(point_of(done, "G"))
    wide = 360 * (10 if scale.endswith("10") else 8) / 30
    graphs = shapely.box(corner.x + 1, corner.y - 60, corner.x + wide - 1, corner.y - 20)
    view = shapely.box(*done.sheet.view[0], *done.sheet.view[1]).buffer(6 + lift)
    for mark in done.display.marks:
        if isinstance(mark, DrawnLine) and mark.role == "construction" and mark.line > 4:
            stroke = shapely.LineString([(mark.x1, mark.y1), (mark.x2, mark.y2)])
            level = abs(mark.y1 - mark.y2) < 1e-9
            assert level or not stroke.intersects(graphs)
            assert view.contains(stroke)
