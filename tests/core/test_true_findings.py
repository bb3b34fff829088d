"""A finding is said when it is so, and only then: both sides of each rule, over parts of many sizes."""

from __future__ import annotations

import math
import re

import pytest
import shapely
from hypothesis import assume, example, given
from hypothesis import strategies as st

from desk import HEAD, outline, solved
from entrick.core.desk import Work, work_out
from entrick.core.drawing.marks import Lettering, reach
from entrick.core.formats.data import solution_data
from entrick.core.geometry import Loop, Point
from examples import examples

PLATE = "frame = box, 120 by 80, centred on O\nrim = line in, frame.bottom > frame.right > frame.top > frame.left\n"


def told(done: Work, *rules: str) -> list[tuple[str, str]]:
    return [(f.weight, f.message) for f in done.findings if f.rule in rules]


def hole(name: str, x: float, y: float, radius: float | str) -> str:
    return (
        f"P{name} = point, {x} right of O, {y} above O\n{name} = circle, centre P{name}, radius {radius}\n"
        f"in_{name} = line in, {name}\n"
    )


@given(st.integers(0, 5), st.integers(1, 5), st.booleans())
def test_a_count_counts_holes_and_not_the_rounded_corners_of_their_radius(
    made: int, wanted: int, linked: bool
) -> None:
    size = "d/2" if linked else "5"
    rows = (
        f"given d = {wanted}× Ø10\n"
        + HEAD.removeprefix("units mm\n")
        + "frame = box, 120 by 80, centred on O\n"
    )
    corners = ["bottom right", "right top", "top left", "left bottom"]
    for number, pair in enumerate(corners, 1):
        first, second = pair.split()
        rows += f"r{number} = fillet, between frame.{first} and frame.{second}, radius 5\n"
    rows += (
        "rim = line in, frame.bottom > r1 > frame.right > r2 > frame.top > r3 > frame.left > r4\n"
    )
    rows += "".join(hole(f"h{k}", -40 + 20 * k, 10, size) for k in range(made))
    found = told(solved(rows, "units mm\n"), "count")
    assert len(found) == 1
    assert (found[0][0] == "good") == (made == wanted), found
    if made != wanted:
        assert f"{made} of Ø10 are lined in" in found[0][1]


@given(st.integers(0, 355), st.integers(5, 300), st.integers(0, 355), st.integers(5, 300))
@example(0, 180, 180, 180)
@example(20, 90, 110, 250)
def test_arcs_are_cut_twice_where_they_overlap_and_not_where_they_only_meet(
    a: int, s: int, b: int, t: int
) -> None:
    done = solved(
        f"one = swing, from O, radius 30, between {a} and {a + s}\ntwo = swing, from O, radius 30, between {b} and {b + t}\n"
        "x = line in, open, one\ny = line in, open, two\n"
    )
    shared = {d % 360 for d in range(a, a + s)} & {
        d % 360 for d in range(b, b + t)
    }  # whole degrees gone over twice
    found = told(done, "doubled")
    assert bool(found) == bool(shared), (found, len(shared))


@given(st.integers(-30, 30), st.integers(1, 60), st.integers(31, 60), st.integers(1, 60))
def test_lines_are_cut_twice_where_they_overlap_and_not_where_they_only_meet(
    a: int, s: int, b: int, t: int
) -> None:
    ends = {"A": a, "B": a + s, "C": b - 31, "D": b - 31 + t}
    rows = "".join(f"{name} = point, {x} right of O\n" for name, x in ends.items())
    done = solved(
        rows
        + "l = line, from A to B\nm = line, from D to C\nx = line in, open, l\ny = line in, open, m\n"
    )
    overlap = min(ends["B"], ends["D"]) - max(ends["A"], ends["C"])
    assert bool(told(done, "doubled")) == (overlap > 0)


@given(st.integers(-20, 110), st.integers(3, 12), st.booleans())
@example(52, 8, True)
@example(68, 8, True)
def test_the_wall_of_a_hole_to_its_edge_is_told_also_where_none_is_left(
    x: int, radius: int, asked: bool
) -> None:
    assume(abs(x - 60) > radius / 5)  # half in and half out
    rows = PLATE + hole("c", x, 0, radius) + ("must = check, wall at least 4\n" if asked else "")
    done = solved(rows)
    wall = shapely.box(-60, -40, 60, 40).boundary.distance(shapely.Point(x, 0)) - radius
    inside = x < 60
    found = told(done, "wall", "material")
    text = "\n".join(message for _, message in found)
    assert ("a hole in nothing" in text) == (not inside and wall > -1e-9)
    none_left = inside and wall <= 1e-9
    assert ("no wall is left between rim and in_c" in text) == none_left
    if inside and wall > 1e-9:
        assert (f"least wall {wall:g} mm" in text) == (wall >= 4 or not asked)
        assert ("4 is asked for" in text) == (asked and wall < 4)
    if none_left and asked:
        assert "4 is asked for" in text


def test_a_hole_that_touches_the_edge_from_inside_is_deducted() -> None:
    done = solved(PLATE + hole("c", 52, 0, 8))
    area = 120 * 80 - math.pi * 64
    assert any(
        f"material in all: {area:.1f}"[:22] in message for _, message in told(done, "material")
    )


@pytest.mark.parametrize(
    "row",
    [
        "b = isometric box, from O, 60 by 40 by 30\nx = line in, b\nt = line in, b.top\n",
        "c = cylinder, from O, diameter 40, length 60\nx = line in, c\ne = isometric circle, centred on O, diameter 20, on top\ny = line in, e\n",
        "k = isometric block, centred on O, 60 by 40, on right, thick 22, rounded 8\nx = line in, k\nf = line in, k.face\n",
    ],
)
def test_a_picture_has_no_walls_holes_or_corners_of_the_part(row: str) -> None:
    done = solved(row)
    assert told(done, "wall", "material", "junction") == []
    assert not [message for _, message in told(done, "finish") if "centre lines" in message]
    assert told(solved(PLATE), "junction"), "a flat part beside it has them"


@given(st.integers(1, 4))
def test_what_follows_from_a_rim_that_failed_is_not_told_of_its_holes(count: int) -> None:
    holes = "".join(hole(f"c{k}", 25 * k - 50, 0, 6) for k in range(count))
    broken = work_out(HEAD + PLATE.replace("frame.left\n", "frame.nowhere\n") + holes)
    assert broken.solution.errors
    assert told(broken, "wall", "material", "overall", "symmetry") == []
    assert told(solved(PLATE + holes), "material")
    assert told(solved(PLATE + holes), "overall")


@given(st.integers(60, 110), st.integers(40, 70), st.integers(6, 12), st.integers(2, 5))
def test_one_wall_all_along_is_told_unless_an_inset_made_it(
    wide: int, tall: int, radius: int, wall: int
) -> None:
    def rounded(name: str, w: int, h: int, r: int) -> str:
        rows = f"{name} = box, {w} by {h}, centred on O\n"
        pairs = ("bottom right", "right top", "top left", "left bottom")
        for number, (first, second) in enumerate((pair.split() for pair in pairs), 1):
            rows += f"{name}r{number} = fillet, between {name}.{first} and {name}.{second}, radius {r}\n"
        walk = " > ".join(
            f"{name}.{side} > {name}r{n}"
            for n, side in enumerate(("bottom", "right", "top", "left"), 1)
        )
        return rows + f"in_{name} = line in, {walk}\n"

    outer = rounded("a", wide, tall, radius)
    assume(radius > wall)
    by_hand = solved(outer + rounded("b", wide - 2 * wall, tall - 2 * wall, radius - wall))
    assert any("keeps a wall" in message for _, message in told(by_hand, "relation"))
    by_inset = solved(outer + f"i = inset, of in_a, wall {wall}\nin_i = line in, i\n")
    assert not any(
        "keeps a wall" in message or "one wall meant" in message
        for _, message in told(by_inset, "relation")
    )


def test_two_slots_about_one_centre_are_not_taken_for_a_wall() -> None:
    """A slotted plate: the round ends of a long slot and of a short one beside it share centres, and no wall."""
    done = solved(
        PLATE
        + "A = point, 40 left of O\nB = point, 40 right of O\ns = slot, from A to B, width 30\nin_s = line in, s\n"
        "c = circle, centre A, radius 4\nin_c = line in, c\ne = circle, centre B, radius 6\nin_e = line in, e\n"
    )
    assert not any("one wall meant" in message for _, message in told(done, "relation"))


@given(st.integers(12, 40), st.sampled_from([20, 25]))
@examples(10)
def test_slivers_of_many_teeth_are_told_once(teeth: int, angle: int) -> None:
    done = solved(
        f"g = gear, about O, {teeth} teeth, module 3, pressure {angle}\nrim = line in, g\n"
    )
    assert len(told(done, "sliver")) <= 2
    shape = done.solution.figure.items["rim"].shape
    assert isinstance(shape, Loop)
    short = [p for p in shape.pieces if not p.curve_of and p.length < 0.2]
    assert bool(told(done, "sliver")) == bool(short)
    assert outline(shape).is_valid


@given(st.integers(1, 9))
def test_a_construction_line_may_end_where_it_will(tenths: int) -> None:
    """An arc that ends near a construction line says nothing; the same arc lined in with it does."""
    angle = 90 - tenths / 10
    rows = f"s = swing, from O, radius 60, between 0 and {angle}\nm = line, through O, plumb\n"
    assert not told(solved(rows), "nearly")
    assert told(work_out(HEAD + rows + "x = line in, open, s > m upper\n"), "nearly")


def slot_by_numbers(radius: int, apart: int) -> str:
    return (
        f"given R = {radius}\ngiven a = {apart}\nO = datum\nA = point, a right of O\nT = point, R above O\nU = point, R below O\n"
        "c = circle, centre O, radius R\nd = circle, centre A, radius {}\n"
        "t = line, through T, level\nu = line, through U, level\nrim = line in, c > t > d > u\n"
    )


@given(st.integers(8, 40), st.integers(90, 140))
@examples(15)
def test_a_radius_that_only_fits_because_the_givens_agree_is_missed_until_it_is_dimensioned(
    radius: int, apart: int
) -> None:
    rows = (
        f"given r = {radius}\n"
        + slot_by_numbers(radius, apart).format("r")
        + "d1 = dimension, from O to A, level, below\n"
    )
    open_ = told(solved(rows, "units mm\nsheet A3\n"), "dimensions")
    assert not any(weight == "good" for weight, _ in open_)
    assert any(
        "no dimension fixes r" in message and "agrees with the others" in message
        for _, message in open_
    )
    rows += "d2 = dimension, radius c\nd3 = dimension, radius d\n"
    full = told(solved(rows, "units mm\nsheet A3\n"), "dimensions")
    assert [weight for weight, _ in full] == ["good"], full


@given(st.integers(5, 30), st.integers(5, 30), st.integers(2, 5))
@examples(15)
def test_running_dimensions_of_equal_treads_are_one_saying_and_a_second_set_is_said_again(
    tread: int, rise: int, count: int
) -> None:
    walk = ", ".join("right t, up s" for _ in range(count))
    rows = (
        f"given t = {tread}\ngiven s = {rise}\nO = datum\nt0 = point, 0 right of O\ne = run, from O, {walk}\n"
        f"f = run, from e.end, right t, down {count}*s + s, left {count}*t + t, up s\nrim = line in, e > f\n"
    )
    spots = " ".join(f"e.corner.{2 * k + 2}" for k in range(count))
    rows += f"d1 = dimension, edge O {spots}, level, below\nd2 = dimension, from e.corner.2 to e.corner.3, plumb, left\n"
    done = solved(rows, "units mm\nsheet A2\n")
    assert [weight for weight, _ in told(done, "dimensions")] == ["good"], told(done, "dimensions")
    again = solved(
        rows + "d3 = dimension, from O to e.corner.2, level, above\n", "units mm\nsheet A2\n"
    )
    assert any("d3 says again" in message for _, message in told(again, "dimensions"))


@given(st.integers(6, 40), st.integers(6, 90))
def test_a_contact_ratio_stands_under_reserve_where_the_pair_interferes(
    teeth: int, mate: int
) -> None:
    done = solved(f"g = gear, about O, {teeth} teeth, module 3, mating {mate} teeth\n")
    working = " ".join(done.solution.entries[-1].made.working)  # type: ignore[union-attr]
    assert ("were there no interference" in working) == any(
        "they interfere" in m for _, m in told(done, "gear")
    )


@given(st.integers(12, 60), st.integers(0, 4))
def test_the_chordal_thickness_computes_as_its_line_says(teeth: int, tenths: int) -> None:
    backlash = f", backlash {tenths / 10}" if tenths else ""
    done = solved(f"g = gear, about O, {teeth} teeth, module 3{backlash}\n")
    line = next(row for row in done.solution.entries[-1].made.working if row.startswith("chordal"))  # type: ignore[union-attr]
    found = re.search(r"= ([\d.]+) × sin (.+?) = ([\d.]+),", line)
    assert found
    degrees = sum(
        float(part) / 60**power for power, part in enumerate(re.findall(r"[\d.]+", found[2]))
    )
    assert float(found[1]) * math.sin(math.radians(degrees)) == pytest.approx(
        float(found[3]), abs=2e-4 * 3 * teeth
    ), "to the hundredth of a degree"


@pytest.mark.parametrize(
    ("said", "reserved"),
    [
        ("", False),
        (", thread depth 2", True),
        (", thread depth 1.083", False),
        (", minor simplified", True),
    ],
)
def test_a_tapping_drill_is_told_apart_from_a_hole_that_is_drawn_otherwise(
    said: str, reserved: bool
) -> None:
    done = solved(f't = tapped hole, at O, thread "M24x2"{said}\n')
    working = " ".join(done.solution.entries[-1].made.working)  # type: ignore[union-attr]
    assert "= 22" in working
    assert ("the standard thread, not" in working) == reserved


def test_outlines_in_the_data_are_what_is_lined_in_and_nothing_else() -> None:
    data = solution_data(solved(PLATE + "e = ellipse, centred on O, axes 40 and 20\n"))
    assert set(data["outlines"]) == {"rim"}
    assert "e" in data["runs"]


@given(st.integers(0, 60), st.integers(0, 20), st.sampled_from(["PIN HOLE", "A", "WALL 12"]))
def test_lettering_that_stands_over_another_is_told_and_what_stands_apart_is_not(
    x: int, y: int, text: str
) -> None:
    rows = f'P = point, {x} right of O, {y} above O\na = label, saying "SHAFT", at O, height 5\nb = label, saying "{text}", at P, height 5\n'
    done = solved(rows)
    boxes = []
    for mark in (m for layer in done.drawing.layers for m in layer.marks):
        if isinstance(mark, Lettering) and mark.text in ("SHAFT", text):
            xs, ys = zip(*reach(mark), strict=True)
            boxes.append(shapely.box(min(xs), min(ys), max(xs), max(ys)))
    apart = boxes[0].distance(boxes[1])
    shared = (
        boxes[0].intersection(boxes[1]).bounds
        if boxes[0].intersects(boxes[1])
        else (0.0, 0.0, 0.0, 0.0)
    )
    deep = min(shared[2] - shared[0], shared[3] - shared[1])
    said = any("“SHAFT”" in m and f"“{text}”" in m for _, m in told(done, "lettering"))
    if apart > 0:
        assert not said
    if deep > 1.0:
        assert said


@given(st.integers(-150, 150))
def test_what_runs_over_the_border_or_the_strip_is_told_and_what_stays_inside_is_not(
    y: int,
) -> None:
    head = "units mm\nsheet A4 landscape, scale 1:1, border 10\nO = datum, 140 from left, 100 from bottom\n"
    done = solved(
        f'c = circle, centre O, radius 20\nrim = line in, c\nP = point, {y} above O\nb = label, saying "SHAFT", at P, height 5\n',
        head,
    )
    place = done.sheet.on_paper(Point(0.0, float(y)))
    inside = 10 + 12 + 2.6 < place.y < 200 - 2.6
    found = [message for _, message in told(done, "lettering") if "“SHAFT” runs over" in message]
    if inside:
        assert not found
    elif abs(place.y - (22 + 2.6)) > 0.2 and abs(place.y - (200 - 2.6)) > 0.2:
        assert found
        assert ("title strip" in found[0]) == (place.y < 100 and place.y + 2.5 > 22)


@pytest.mark.parametrize(
    ("strip", "y", "told"),
    [("bottom", -95, True), ("bottom", 95, False), ("top", 95, True), ("top", -95, False)],
)
def test_a_needle_under_the_title_strip_is_told(strip: str, y: int, told: bool) -> None:
    """On A4 the datum stands 105 above the lower edge: 95 off it is inside the border, where a strip may be."""
    head = f"units mm\nsheet A4 landscape, strip {strip}\nO = datum, 148 from left edge, 105 from bottom edge\n"
    rows = f"P = point, {abs(y) - 5} {'above' if y > 0 else 'below'} O\nc = circle, centre P, radius 30\n"
    found = [
        f.message for f in solved(rows, head).findings if "where the title strip will" in f.message
    ]
    assert bool(found) == told
