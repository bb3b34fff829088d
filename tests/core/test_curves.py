"""Polygons, ellipses, spirals, involutes and helices: each is what its definition says, however it is drawn."""

import math

import pytest
from hypothesis import assume, given, settings
from hypothesis import strategies as st

from desk import HEAD, run_of, solved, thing
from entrick.core.board import opened_steps
from entrick.core.desk import work_out
from entrick.core.drawing.marks import DrawnRun
from entrick.core.geometry import Arc, Circle, Line, Loop, Point, reflect, rotate
from entrick.core.geometry.ellipse import Ellipse, departure, four_centres
from entrick.core.geometry.fitted import fitted
from entrick.core.geometry.shapes import polar
from entrick.core.kind.figure import Family


@given(
    st.integers(3, 40),
    st.integers(5, 80),
    st.sampled_from(["side {}", "{} across corners", "{} across flats", "radius {}"]),
)
def test_polygons_against_exact_trigonometry(count: int, size: int, how: str) -> None:
    loop = run_of(solved(f"p = polygon, {count} sides, centred on O, {how.format(size)}\n"), "p")
    half = math.pi / count
    radius = {
        "side {}": size / 2 / math.sin(half),
        "{} across corners": size / 2,
        "{} across flats": size / 2 / math.cos(half),
        "radius {}": size,
    }[how]
    assert loop.closed
    assert all(abs(piece.entry) == pytest.approx(radius) for piece in loop.pieces)
    assert loop.length == pytest.approx(count * 2 * radius * math.sin(half))
    assert loop.area == pytest.approx(count / 2 * radius**2 * math.sin(2 * half))
    assert loop.box[0].y == pytest.approx(-radius * math.cos(half)), "flat below unless something else is said"


@pytest.mark.parametrize(
    ("said", "where"), [("point up", 90), ("flat right", 36), ("first corner at 20°", 20), ("corner towards P", 0)]
)
def test_a_polygon_is_turned_as_said(said: str, where: float) -> None:
    done = solved(f"P = point, 30 right of O\np = polygon, 5 sides, centred on O, radius 20, {said}\n")
    corner = thing(done, "p.corner.1")
    assert isinstance(corner, Point)
    assert math.degrees(corner.angle) == pytest.approx(where)


@pytest.mark.parametrize(
    ("count", "words"),
    [
        (3, "set squares"),
        (5, "golden section"),
        (6, "set squares"),
        (7, "stepped off"),
        (10, "Euclid"),
        (12, "set squares"),
        (17, "stepped off"),
    ],
)
def test_the_board_method_goes_by_the_number_of_sides(count: int, words: str) -> None:
    done = solved(f"p = polygon, {count} sides, centred on O, radius 20\n")
    assert words in " ".join(done.solution.entries[-1].made.working)  # type: ignore[union-attr]
    if "set squares" in words and count != 24:
        angles = [s.tool for s in done.steps if s.setting and s.setting.is_angle]
        assert "protractor" not in angles


@pytest.mark.parametrize("count", [5, 10])
def test_the_exact_compass_construction_cuts_off_the_side(count: int) -> None:
    """Euclid XIII.10: the swing from half the radius cuts the decagon's side off the centre, the pentagon's off the corner."""
    done = solved(f"p = polygon, {count} sides, centred on O, radius 20, point up\n")
    (cut,) = [s.strokes[1].shape for s in done.steps if "swing down to the diameter" in s.text]
    assert isinstance(cut, Point)
    side = run_of(done, "p").pieces[0].length
    assert (abs(cut - Point(0, 20)) if count == 5 else abs(cut)) == pytest.approx(side)


ellipses = st.builds(
    Ellipse,
    st.builds(Point, st.floats(-50, 50), st.floats(-50, 50)),
    st.builds(polar, st.floats(20, 80), st.floats(-3, 3)),
    st.floats(6, 19.9),
)


@given(ellipses)
@settings(max_examples=30)
def test_arcs_of_a_true_ellipse_keep_to_it_and_run_on_without_a_corner(ellipse: Ellipse) -> None:
    curves = ellipse.drawn()
    off, _ = departure(ellipse, curves)
    assert off < 1e-4 * ellipse.a
    for first, second in zip(curves, (*curves[1:], curves[0]), strict=True):
        assert isinstance(first, Arc)
        assert isinstance(second, Arc)
        assert abs(first.last - second.first) < 1e-8
        assert abs((first.last - first.centre).unit.cross((second.first - second.centre).unit)) < 1e-7


@given(ellipses, st.floats(0, 6.28))
def test_places_of_an_ellipse_keep_the_sum_of_their_distances_to_the_foci(ellipse: Ellipse, turn: float) -> None:
    spot = ellipse.at(turn)
    assert sum(abs(spot - focus) for focus in ellipse.foci) == pytest.approx(2 * ellipse.a)
    bisector = sum(((spot - focus).unit for focus in ellipse.foci), Point(0, 0))
    assert abs(bisector.dot(ellipse.heading(turn))) < 1e-6, "the normal halves the angle between the focal rays"


@given(ellipses, st.builds(Point, st.floats(-200, 200), st.floats(-200, 200)), st.floats(0, 3.1))
def test_tangents_of_an_ellipse_touch_and_do_not_cut(ellipse: Ellipse, point: Point, angle: float) -> None:
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
def test_the_nearest_place_lies_square_below_a_point(ellipse: Ellipse, turn: float, out: float) -> None:
    spot = ellipse.at(turn) - ellipse.heading(turn).normal * out
    assert ellipse.distance(spot) == pytest.approx(out, abs=1e-6)


@given(ellipses, st.floats(-3, 3))
def test_an_ellipse_is_copied_with_what_it_stands_for(ellipse: Ellipse, angle: float) -> None:
    done = solved("e = ellipse, centred on O, axes 90 and 56, at 20°\nm = mirror, of e, about O.plumb\n")
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
        assert abs((first.last - first.centre).unit.cross((second.first - second.centre).unit)) < 1e-9


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
        if isinstance(s.shape, Point) and s.role == "point" and s.label != "F"
    ]
    on = [spot for spot in pricked if ellipse.distance(spot) < 1e-6]
    assert len(on) >= 8
    assert len(on) == len(pricked)
    assert any(opened_steps(step, done.kit, done.sheet) for step in done.steps if step.name == "e")


def test_an_ellipse_by_an_axis_and_a_point_goes_through_it() -> None:
    done = solved("P = point, 30 right of O, 15 above\ne = ellipse, centred on O, axis 80, through P\n")
    ellipse = run_of(done, "e").stands_for
    assert ellipse is not None
    assert ellipse.distance(Point(30, 15)) < 1e-9
    assert ellipse.a == 40


@given(st.integers(0, 30), st.integers(31, 80), st.integers(1, 5), st.booleans())
@settings(max_examples=40)
def test_a_spiral_gains_the_same_for_every_turn(first: int, last: int, turns: int, clockwise: bool) -> None:
    done = solved(f"s = spiral, about O, radius {first} to {last}, {turns} turns{', cw' if clockwise else ''}\n")
    count = 12 * turns
    for index in range(count + 1):
        spot = thing(done, f"s.station.{index}")
        assert isinstance(spot, Point)
        assert abs(spot) == pytest.approx(first + (last - first) * index / count, abs=1e-9)
        assert run_of(done, "s").distance(spot) < 1e-6


@given(st.integers(5, 60), st.integers(40, 400))
def test_an_involute_is_square_to_its_thread_and_as_long_as_the_formula_says(radius: int, degrees: int) -> None:
    """Length r·θ²/2 (definition, integrated)."""
    done = solved(f"c = circle, centre O, radius {radius}\ni = involute, of c, through {degrees}°\n")
    loop = run_of(done, "i")
    turn = math.radians(degrees)
    assert loop.length == pytest.approx(radius * turn**2 / 2, rel=1e-3)
    end = thing(done, "i.end")
    assert isinstance(end, Point)
    assert abs(end) == pytest.approx(radius * math.hypot(1, turn))
    last = loop.pieces[-1]
    thread = end - Circle(Point(0, 0), radius).at(turn)
    assert abs(thread) == pytest.approx(radius * turn)
    assert abs(thread.unit.dot(last.direction(last.exit))) < 1e-6


@settings(max_examples=20)
@given(st.integers(10, 60), st.integers(4, 40), st.integers(1, 4), st.sampled_from(["", ", left hand"]))
def test_a_helix_keeps_to_its_cylinder_and_rises_from_left_to_right_in_front(
    diameter: int, lead: int, turns: int, hand: str
) -> None:
    done = solved(f"h = helix, from O, diameter {diameter}, lead {lead}, {turns} turns{hand}\n")
    family = thing(done, "h")
    assert isinstance(family, Family)
    assert len(family.members) == 2 * turns
    for index in range(1, turns + 1):
        front, back = run_of(done, f"h.front.{index}"), run_of(done, f"h.back.{index}")
        start, end = front.pieces[0].entry, front.pieces[-1].exit
        assert abs(end.y - start.y) == pytest.approx(lead / 2)
        assert (end.x - start.x) == pytest.approx(diameter * (-1 if hand else 1))
        assert abs(back.pieces[0].entry - end) < 1e-9 or abs(back.pieces[-1].exit - start) < 1e-9
        low, high = front.box
        assert max(-low.x, high.x) <= diameter / 2 * (1 + 1e-3)


def test_curves_of_many_arcs_are_one_mark_and_one_step() -> None:
    done = solved("e = ellipse, centred on O, axes 90 and 56\nrim = line in, e\n")
    runs = [m for m in done.display.marks if isinstance(m, DrawnRun)]
    assert [m.role for m in runs] == ["construction", "outline"]
    assert runs[1].oval is not None
    assert sum(step.name == "rim" for step in done.steps) == 1
    assert not [f for f in done.findings if f.rule in ("junction", "sliver")]


@pytest.mark.parametrize(("row", "told"), [
    ("p = polygon, 2 sides, centred on O, side 9\n", "3 to 60 sides"), ("e = ellipse, centred on O\n", "both its axes, or one axis"),
    ("e = ellipse, centred on O, axis 20, through P\n", "no ellipse goes through"), ("e = ellipse, centred on O, axis 20\n", "needs a point"),
    ("e = ellipse, centred on O, axes 90 and 40\nt = tangent, to e, from O\n", "lies inside"),
    ("e = ellipse, centred on O, axes 90 and 40, by four centres\nt = tangent, to e, level\n", "e.true"),
    ("s = spiral, about O, radius 9 to 9, 2 turns\n", "two different radii"), ("h = helix, from O, diameter 9, lead 3, 99 turns\n", "up to 30 turns"),
    ("k = cone, from O, diameter 90, height 5\n", "the apex lies over the base"), ("b = isometric box, from O, 9 by 0 by 9\n", "more than nought"),
])  # fmt: skip
def test_what_cannot_be_drawn_is_said(row: str, told: str) -> None:
    errors = work_out(HEAD + "P = point, 30 right of O\n" + row).solution.errors
    assert errors
    assert told in errors[0].message


def test_arcs_fitted_to_a_circle_are_that_circle() -> None:
    circle = Circle(Point(1, 2), 30)
    arcs = fitted(circle.at, lambda t: (circle.at(t) - circle.centre).unit.normal, [0.0, 2.0, 4.0], 1e-6)
    assert all(isinstance(arc, Arc) and abs(arc.radius - 30) < 1e-6 for arc in arcs)


@settings(max_examples=20)
@given(st.integers(3, 40), st.integers(1, 3))
def test_a_cycloid_is_eight_radii_long_for_every_turn(radius: int, turns: int) -> None:
    """Length 8r and rise 2r for an arch, 2πr along (Roberval, Wren; from memory)."""
    loop = run_of(solved(f"c = cycloid, from O, radius {radius}, {turns} turns\n"), "c")
    assert loop.length == pytest.approx(8 * radius * turns, rel=1e-4)
    low, high = loop.box
    assert high.y - low.y == pytest.approx(2 * radius, rel=1e-4)
    assert loop.pieces[-1].exit.x == pytest.approx(math.tau * radius * turns)


@pytest.mark.parametrize(("inside", "length", "reach"), [(False, 8 * 10 * 50 / 40 * 4, 60), (True, 6 * 40, 40)])
def test_epicycloid_and_astroid_against_the_handbook(inside: bool, length: float, reach: float) -> None:
    """Epicycloid arch 8r(R + r)/R; astroid, the hypocycloid of R = 4r, 6R in all (handbook, from memory)."""
    rows = f"b = circle, centre O, radius 40\nc = cycloid, on b,{' inside,' if inside else ''} radius 10, 4 turns\n"
    loop = run_of(solved(rows), "c")
    assert loop.length == pytest.approx(length, rel=1e-4)
    assert max(abs(spot) for spot in loop.box) <= reach * math.sqrt(2)
    assert abs(loop.pieces[-1].exit - loop.pieces[0].entry) < 1e-6, "it closes after R/r turns"
    if inside:
        for piece in loop.pieces:
            x, y = abs(piece.entry.x) / 40, abs(piece.entry.y) / 40
            assert x ** (2 / 3) + y ** (2 / 3) == pytest.approx(1, abs=2e-3), "x^⅔ + y^⅔ = R^⅔"


@pytest.mark.parametrize(("row", "told"), [
    ("c = cycloid, radius 9, 1 turns\n", "say one of them"), ("c = cycloid, from O, radius 9, 13 turns\n", "up to 12 turns"),
    ("b = circle, centre O, radius 9\nc = cycloid, on b, inside, radius 9, 1 turns\n", "smaller than it"),
])  # fmt: skip
def test_what_cannot_roll_is_said(row: str, told: str) -> None:
    assert told in work_out(HEAD + row).solution.errors[0].message


@given(st.integers(20, 60), st.integers(8, 30), st.integers(1, 5), st.sampled_from(["right hand", "left hand"]))
@settings(max_examples=30)
def test_the_edges_of_a_wire_keep_its_radius_from_the_middle_of_the_wire(
    wide: int, lead: int, turns: int, hand: str
) -> None:
    done = solved(f"h = helix, from O, diameter {wide}, lead {lead}, {turns} turns, {hand}, wire {lead / 5}\n")
    parts = done.solution.figure.items["h"].parts
    for index in range(1, turns + 1):
        middle = parts[f"front.{index}"]
        for word in ("above", "below"):
            edge = parts[f"{word}.{index}"]
            assert isinstance(edge, Loop)
            assert isinstance(middle, Loop)
            assert all(abs(junction.turn) < 1e-6 for junction in edge.junctions)
            off = [middle.distance(piece.entry) for piece in edge.pieces]
            assert max(off) <= lead / 10 + wide * 4e-4
            # Where an inner edge starts, behind the round end, the end of the wire's middle is nearer still.
            assert min(off) > lead / 10 * 0.8
            assert min(off[len(off) // 4 : -len(off) // 4]) == pytest.approx(lead / 10, abs=wide * 4e-4)


@given(
    st.integers(20, 60), st.integers(60, 92), st.integers(1, 3), st.integers(4, 30), st.sampled_from(["square", "vee"])
)
@settings(deadline=None)
def test_every_edge_of_a_screw_lies_on_it_between_its_ends(
    wide: int, share: int, starts: int, lead: int, form: str
) -> None:
    core, long = wide * share / 100, lead * 2.3
    rows = f"s = screw, from O, diameter {wide}, core diameter {core}, lead {lead}, length {long}, {form}"
    done = work_out(f"{HEAD}{rows}, {starts} starts\n")
    if form == "square" and share / 100 < math.cos(math.pi / 2 / starts):
        assert "the core is at least" in done.solution.errors[0].message
        return
    assert not done.solution.errors
    parts = done.solution.figure.items["s"].parts
    beyond = 4e-4 * wide
    for name, edge in parts.items():
        if not isinstance(edge, Loop):
            continue
        low, high = edge.box
        assert low.y > -beyond
        assert high.y < long + beyond
        radius = {"crest": wide / 2, "root": core / 2}.get(name.partition(".")[0], wide / 2)
        assert max(-low.x, high.x) < radius + beyond
        if name.startswith(("crest", "root")):
            # cos θ = x/r and the rise go together: the place is on a helix of the lead (definition).
            for piece in edge.pieces:
                turn = math.acos(max(-1.0, min(1.0, piece.entry.x / radius))) / math.tau * lead
                pitch = lead / starts
                shift = pitch / 2
                far = [((piece.entry.y + way * turn + lead / 2) / shift) % 1 for way in (1, -1)]
                assert min(min(f, 1 - f) for f in far) < (1e-3 * wide + 6e-3 * lead) / shift
    assert parts["crest.1"] != parts["root.1"]
