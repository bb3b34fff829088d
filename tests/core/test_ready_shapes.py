"""Slots, keyways, runs, grids, smooth curves, swings, insets and chains: each is what it says it is."""

import math
from itertools import pairwise

import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from desk import refused, run_of, solved, thing
from entrick.core.geometry import Arc, Circle, Line, Point
from entrick.core.kind.figure import Family

lengths = st.integers(2, 60)
angles = st.integers(0, 359)


@given(st.integers(-40, 40), st.integers(-40, 40), st.integers(1, 30))
def test_a_straight_slot_is_smooth_and_its_area_is_the_handbooks(x: int, y: int, width: int) -> None:
    """Two half circles and a rectangle: π(w/2)² + w·l (common practice, no source)."""
    length = math.hypot(x, y)
    assume(length > 1)
    slot = run_of(solved(f"A = point, {x} right of O, {y} above O\ns = slot, from O to A, width {width}\n"), "s")
    assert slot.closed
    assert all(junction.is_tangent for junction in slot.junctions)
    assert abs(slot.area) == pytest.approx(math.pi * width**2 / 4 + width * length)


def test_a_slot_by_its_length_over_all_takes_the_width_off() -> None:
    done = solved(
        "s = slot, centred on O, length 50, width 12, level\nt = slot, centred on O, 38 between centres, width 12, plumb\n"
    )
    low, high = run_of(done, "s").box
    assert (high.x - low.x, high.y - low.y) == pytest.approx((50, 12))
    low, high = run_of(done, "t").box
    assert (high.x - low.x, high.y - low.y) == pytest.approx((12, 50))


@given(st.integers(10, 50), st.integers(2, 18), st.integers(0, 300), st.integers(20, 250))
def test_a_curved_slot_between_two_angles(inner: int, wide: int, start: int, turn: int) -> None:
    """Half circles on the middle radius: a ring sector of the angle between centres and two half discs."""
    outer = inner + wide
    assume(turn < 330)
    slot = run_of(solved(f"s = slot, about O, radii {inner} and {outer}, from {start}° to {start + turn}°\n"), "s")
    ends = math.pi * wide**2 / 4
    sector = math.radians(turn) / 2 * (outer**2 - inner**2)
    assert slot.closed
    assert all(j.is_tangent for j in slot.junctions)
    assert abs(slot.area) == pytest.approx(sector + ends)


def test_a_slot_bounded_by_circles_has_ends_that_aim_at_the_centre() -> None:
    done = solved(
        "pitch = circle, centre O, radius 60\nat = spaced, 3 on pitch, from above\nc = circle, centre at, radius 14\n"
        "s = slot, about O, radii 52 and 68, between c.1 and c.2\nf = slot, about O, radii 52 and 68, between c.2 and c.3, ends following\n"
    )
    slot = run_of(done, "s")
    for name in ("first_end", "second_end"):
        end = thing(done, f"s.{name}")
        assert isinstance(end, Line)
        assert abs(end.offset_of(Point(0, 0))) < 1e-9, "it aims at the centre"
    assert len(slot.pieces) == 4
    following = [p.curve for p in run_of(done, "f").pieces]
    assert sum(isinstance(c, Arc) and abs(c.radius - 14) < 1e-9 for c in following) == 2
    for p in slot.pieces:
        for ring in ("1", "2"):
            clear = thing(done, f"c.{ring}")
            assert isinstance(clear, Circle)
            assert abs(p.entry - clear.centre) >= 14 - 1e-6, "the slot stays clear of the circles that bound it"


@given(st.integers(10, 60), st.integers(2, 12), st.integers(1, 6), st.sampled_from(["above", "below", "left", "right"]))
def test_a_keyway_is_as_deep_as_said_beyond_the_circle(radius: int, width: int, depth: int, side: str) -> None:
    assume(width < radius)
    done = solved(
        f"b = circle, centre O, radius {radius}\nk = keyway, on b, width {width}, depth {depth}, {side}\neye = line in, b long > k\n"
    )
    floor = thing(done, "k.floor")
    assert isinstance(floor, Line)
    assert abs(floor.offset_of(Point(0, 0))) == pytest.approx(radius + depth)
    assert floor.end == pytest.approx(width)
    eye = run_of(done, "eye")
    half = math.asin(width / 2 / radius)
    segment = radius**2 * (half - math.sin(2 * half) / 2)
    rise = radius + depth - radius * math.cos(half)
    assert abs(eye.area) == pytest.approx(math.pi * radius**2 - segment + width * rise)


legs = st.lists(st.tuples(st.sampled_from(["right", "left", "up", "down"]), lengths), min_size=1, max_size=8)
WAYS = {"right": Point(1, 0), "left": Point(-1, 0), "up": Point(0, 1), "down": Point(0, -1)}


@given(legs)
def test_a_run_of_legs_ends_where_they_add_up(steps: list[tuple[str, int]]) -> None:
    assume(all(abs(WAYS[a[0]] + WAYS[b[0]]) > 0 for a, b in pairwise(steps)))
    run = run_of(solved("r = run, from O, " + ", ".join(f"{way} {size}" for way, size in steps) + "\n"), "r")
    end = Point(0, 0)
    for way, size in steps:
        end = end + WAYS[way] * size
    assert abs(run.pieces[-1].exit - end) < 1e-9
    assert run.length == pytest.approx(sum(size for _, size in steps))


@given(angles, lengths)
def test_a_leg_at_an_angle_counts_it_from_the_right(angle: int, size: int) -> None:
    run = run_of(solved(f"r = run, from O, right 10, at {angle} for {size}\n"), "r") if angle != 180 else None
    if run is not None:
        leg = run.pieces[1]
        turned = math.degrees((leg.exit - leg.entry).angle) % 360
        assert math.isclose(turned, angle, abs_tol=1e-7) or math.isclose(turned, angle + 360, abs_tol=1e-7)


@given(st.lists(lengths, min_size=1, max_size=6), st.lists(lengths, min_size=1, max_size=5))
def test_grid_lines_stand_at_the_running_sums(across: list[int], up: list[int]) -> None:
    done = solved(f"g = grid, from O, across {' '.join(map(str, across))}, up {' '.join(map(str, up))}\n")
    for i in range(len(across) + 1):
        for j in range(len(up) + 1):
            assert thing(done, f"g.at.{i}.{j}") == Point(float(sum(across[:i])), float(sum(up[:j])))


@given(st.lists(lengths, min_size=2, max_size=7), st.data())
def test_a_missing_link_is_the_difference(links: list[int], data: st.DataObject) -> None:
    gone = data.draw(st.integers(0, len(links) - 1))
    told = " ".join("?" if i == gone else str(link) for i, link in enumerate(links))
    done = solved(
        f"chain c = {told}, overall {sum(links)}\ng = grid, from O, across c\nP = point, c.{gone + 1} right of O\n"
    )
    place = done.solution.figure.items["P"].shape
    assert place == Point(float(links[gone]), 0.0)
    assert thing(done, f"g.across.{len(links)}") is not None


@pytest.mark.parametrize(("row", "told"), [
    ("chain c = 20 30, overall 60\n", "the links come to 50, the overall size is 60: 10 is missing"),
    ("chain c = 20 30, overall 40\n", "10 too much"), ("chain c = ? ?, overall 40\n", "one link can be found"),
    ("chain c = 20 ?\n", "say  overall"), ("chain c = 50 ?, overall 40\n", "come to 50 already"),
    ("chain a = 20 20\nchain b = 10 10 10, overall a\n", "the links come to 30, the overall size is 40"),
    ("chain c = 20 -5\n", "-5 is no link"), ("given d = 0× Ø9\n", ""), ("s = slot, from O to O, width 4\n", ""),
    ("A = point, 9 right of O\nb = circle, centre O, radius 3\nk = keyway, on b, width 7, depth 1, above\n", ""),
    ("c = circle, centre O, radius 9\nr = line in, c\ni = inset, of r, wall 12\n", "take a thinner one"),
    ("x = check\n", "say what must hold"), ("x = check, wall at least 0\n", "more than nought"),
    ("b = box, 9 by 9, centred on O\nh = hatch, of b.left\n", "encloses nothing"), ("t = title\n", "at least one of"),
    ("d = dimension, from O to O, level\n", "no distance"), ("cl = centre lines\n", "what the centre lines belong to"),
])  # fmt: skip
def test_what_cannot_be_is_said_in_the_trades_words(row: str, told: str) -> None:
    assert told in refused(row)


coordinates = st.integers(-60, 60)


@given(st.lists(st.tuples(coordinates, coordinates), min_size=3, max_size=6, unique=True), angles)
def test_a_smooth_curve_goes_through_every_point_without_a_corner(spots: list[tuple[int, int]], leaving: int) -> None:
    gaps = [math.hypot(b[0] - a[0], b[1] - a[1]) for a, b in pairwise(spots)]
    assume(min(gaps) > 5)
    (x0, y0), (x1, y1) = spots[:2]
    back = math.atan2(y1 - y0, x1 - x0) - math.radians(leaving)
    assume(math.cos(back) > -1 + 1e-9)  # straight away from the next point: no pair of arcs turns round, known gap
    rows = "".join(f"P{i} = point, {x} right of O, {y} above O\n" for i, (x, y) in enumerate(spots))
    names = " ".join(f"P{i}" for i in range(len(spots)))
    curve = run_of(solved(rows + f"s = smooth, through {names}, leaving at {leaving}\n"), "s")
    assert all(junction.is_tangent for junction in curve.junctions)
    for x, y in spots:
        assert curve.distance(Point(float(x), float(y))) < 1e-6
    first = curve.pieces[0]
    way = first.direction(first.entry)
    assert math.cos(way.angle - math.radians(leaving)) == pytest.approx(1, abs=1e-9)


def test_a_smooth_curve_says_whether_its_points_were_computed() -> None:
    rows = "A = point, 20 right of O, 8 above\nB = point, 45 right of O, 5 above\n"
    told = [
        e.made.sentence
        for e in solved(rows + "s = smooth, through O A B\nt = smooth, through O A B, by eye\n").solution.entries
        if e.made
    ]
    assert told[-1] != told[-2].replace(" s", " t")
    assert "eye" in told[-1]


@given(st.integers(20, 80), st.integers(20, 80), st.integers(3, 9), st.integers(2, 9))
def test_an_inset_of_a_rounded_box_keeps_its_wall_everywhere(w: int, h: int, radius: int, wall: int) -> None:
    assume(2 * radius < min(w, h) and 2 * wall < min(w, h) - 1)
    sides = ["bottom", "right", "top", "left"]
    rows = f"b = box, {w} by {h}, centred on O\n" + "".join(
        f"f{i} = fillet, between b.{sides[i]} and b.{sides[(i + 1) % 4]}, radius {radius}\n" for i in range(4)
    )
    rows += "rim = line in, " + " > ".join(f"b.{sides[i]} > f{i}" for i in range(4)) + "\n"
    done = solved(rows + f"i = inset, of rim, wall {wall}\no = inset, of rim, wall {wall}, outside\n")
    rim, inner, outer = (run_of(done, name) for name in ("rim", "i", "o"))
    for run in (inner, outer):
        for piece in run.pieces:
            middle = piece.curve.middle if isinstance(piece.curve, Arc) else (piece.entry + piece.exit) * 0.5
            assert rim.distance(middle) == pytest.approx(wall, abs=1e-6)
            if isinstance(piece.curve, Arc):
                assert piece.curve.radius == pytest.approx(radius + (wall if run is outer else -wall))
    arcs = sum(isinstance(p.curve, Arc) for p in inner.pieces)
    assert arcs == (4 if radius > wall else 0)
    assert abs(outer.area) == pytest.approx(abs(rim.area) + rim.length * wall + math.pi * wall**2)


def test_copies_of_a_row_are_numbered_and_a_run_is_copied_whole() -> None:
    done = solved(
        "c = circle, centre O, radius 3\nl = line, through O, at 30°\nrow = shift, of c, 20 along l, 3 times\n"
        "b = box, 9 by 5, from O\nr = line in, b.bottom > b.right > b.top > b.left\nm = mirror, of r, about O.plumb\n"
        "both = mirror, of c row.1, about O.plumb\n"
    )
    row = done.solution.figure.items["row"].shape
    assert isinstance(row, Family)
    assert [abs(c.centre) for c in row.members if isinstance(c, Circle)] == pytest.approx([20, 40, 60])
    assert thing(done, "row.1") == row.members[0]
    assert abs(run_of(done, "m").area) == pytest.approx(45)
    assert thing(done, "both.2") == thing(done, "both.row.1")


def test_a_swing_is_drawn_only_as_far_as_it_is_wanted() -> None:
    done = solved(
        "A = point, 60 right of O\ns = swing, from O, radius 40\nt = swing, from O, radius 40, between 20° and 80°\nu = swing, from O, radius 40, towards A\n"
    )
    items = done.solution.figure.items
    assert isinstance(items["s"].shape, Circle | Arc)
    arc, short = items["t"].shape, items["u"].shape
    assert isinstance(arc, Arc)
    assert (math.degrees(arc.start), math.degrees(arc.sweep)) == pytest.approx((20, 60))
    assert isinstance(short, Arc)
    assert abs(short.middle.angle) < 1e-9
