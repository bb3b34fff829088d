"""Isometric solids: lengths along the axes are true, parallels stay parallel, what is seen is told from what is not."""

import math
from functools import partial

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from desk import solved, thing
from entrick.core.desk import Work, work_out
from entrick.core.geometry import Arc, Line, Loop, Point
from entrick.core.geometry.isometric import (
    AXES,
    FORESHORTENED,
    PLANES,
    SQUARE,
    lean,
    rhombus,
    tangents_to_arcs,
    true_ellipse,
)

HEAD = "units mm\nsheet A1 landscape, scale 1:1, border 10\nO = datum\n"
sizes = st.integers(5, 90)


def point(done: Work, name: str) -> Point:
    found = thing(done, name)
    assert isinstance(found, Point)
    return found


def edge(done: Work, name: str) -> Line:
    found = thing(done, name)
    assert isinstance(found, Line)
    return found


@given(sizes, sizes, sizes, st.booleans())
def test_edges_of_a_box_run_along_the_axes_at_their_lengths(w: int, d: int, h: int, projected: bool) -> None:
    done = solved(f"b = isometric box, from O, {w} by {d} by {h}{', projection' if projected else ''}\n")
    scale = FORESHORTENED if projected else 1.0
    lengths = {"right": w * scale, "left": d * scale, "up": h * scale}
    for name in (*(f"edge.{i}" for i in range(1, 10)), *(f"behind.{i}" for i in range(1, 4))):
        line = edge(done, f"b.{name}")
        (axis,) = [word for word, way in AXES.items() if abs(line.direction.cross(way)) < 1e-9]
        assert line.end == pytest.approx(lengths[axis])
    outline = done.solution.figure.items["b"].shape
    assert isinstance(outline, Loop)
    faces = [thing(done, f"b.{face}") for face in ("top", "left", "right")]
    assert abs(outline.area) == pytest.approx(sum(abs(face.area) for face in faces if isinstance(face, Loop)))


@given(sizes, st.sampled_from(list(PLANES)))
def test_circles_on_a_face_touch_the_middles_of_its_sides(side: int, plane: str) -> None:
    """A box of equal sides with a circle on each face: neighbours touch the shared edge in the same place."""
    done = solved(
        f"b = isometric box, from O, {side} by {side} by {side}\n"
        + "".join(f"{p} = isometric circle, centred on b.{p}_middle, diameter {side}, on {p}\n" for p in PLANES)
    )
    touches = [point(done, f"{plane}.touch.{i}") for i in range(1, 5)]
    face = thing(done, f"b.{plane}")
    assert isinstance(face, Loop)
    for spot in touches:
        assert min(abs(spot - (p.entry + p.exit) * 0.5) for p in face.pieces) < 1e-9 * side * 100
    others = [point(done, f"{other}.touch.{i}") for other in PLANES if other != plane for i in range(1, 5)]
    assert sum(any(abs(spot - other) < 1e-7 for other in others) for spot in touches) == 2


@pytest.mark.parametrize(("plane", "degrees"), [("top", 0), ("right", 60), ("left", -60)])
def test_which_way_an_isometric_circle_leans(plane: str, degrees: float) -> None:
    """Level on top, at 60° on the side planes (common practice, no source)."""
    assert math.degrees(lean(plane)) % 180 == pytest.approx(degrees % 180)
    done = solved(f"c = isometric circle, centred on O, diameter 40, on {plane}, by template\n")
    working = done.solution.entries[-1].made.working  # type: ignore[union-attr]
    assert any("Ø40 hole" in row for row in working)
    assert abs(edge(done, "c.short").direction.cross(SQUARE[plane])) < 1e-9


@given(sizes, st.sampled_from(list(PLANES)), st.floats(0, 6.28), st.floats(1.05, 4))
def test_tangents_to_a_ring_of_arcs_touch_and_leave_it_on_one_side(d: int, plane: str, turn: float, out: float) -> None:
    four = rhombus(Point(0, 0), d, plane)
    point = true_ellipse(Point(0, 0), d * out, plane).at(turn)
    found = tangents_to_arcs(point, four.arcs)
    spots = [arc.at(arc.start + arc.sweep * k / 40) for arc in four.arcs for k in range(41)]
    for line, touch in found:
        offs = [line.offset_of(spot) for spot in spots]
        assert min(offs) > -1e-7 * d or max(offs) < 1e-7 * d
        assert abs(line.offset_of(touch)) < 1e-9 * d
    if out > 1.3:
        assert len(found) == 2


@settings(max_examples=30)
@given(sizes, sizes, st.sampled_from(["up", "right", "left"]), st.booleans())
def test_a_cylinder_is_its_end_moved_along_the_axis(d: int, length: int, along: str, true: bool) -> None:
    done = solved(f"c = cylinder, from O, diameter {d}, length {length}, along {along}{', true' if true else ''}\n")
    for number in (1, 2):
        line = edge(done, f"c.edge.{number}")
        assert line.end == pytest.approx(length)
        assert abs(line.direction.cross(AXES[along])) < 1e-9
    end, near, far, hidden = (thing(done, f"c.{name}") for name in ("end", "near", "far", "hidden"))
    outline = done.solution.figure.items["c"].shape
    for run in (end, near, far, hidden, outline):
        assert isinstance(run, Loop)
    assert far.length + hidden.length == pytest.approx(end.length, rel=1e-6)  # type: ignore[union-attr]
    across = abs(point(done, "c.touch.1") - point(done, "c.touch.2"))
    swept = across * length * abs((point(done, "c.touch.1") - point(done, "c.touch.2")).unit.cross(AXES[along]))
    assert abs(outline.area) == pytest.approx(abs(end.area) + swept, rel=1e-6)  # type: ignore[union-attr]


def test_steps_of_a_solid_leave_the_hidden_half_light() -> None:
    done = solved("c = cylinder, from O, diameter 40, length 60\nrim = line in, c\nback = hidden, c.hidden, open\n")
    assert any(s.check == "the hidden half stays light" for s in done.steps)
    assert {m.role for m in done.display.marks} >= {"construction", "outline", "hidden"}


@settings(max_examples=40)
@given(st.integers(10, 60), st.integers(10, 60), st.integers(3, 50), st.integers(0, 5), st.sampled_from(list(PLANES)))
def test_a_rounded_block_is_its_face_carried_back(w: int, h: int, thick: int, radius: int, plane: str) -> None:
    """The face less its corners; the outline is the face and what it sweeps over; no corner where a round is touched."""
    rounded = f", rounded {radius}" if radius else ""
    done = solved(f"b = isometric block, centred on O, {w} by {h}, on {plane}, thick {thick}{rounded}\n")
    face, outline, near, far, hidden = (
        thing(done, f"b.{name}") for name in ("face", "outline", "near", "far", "hidden")
    )
    for run in (face, outline, near, far, hidden):
        assert isinstance(run, Loop)
    u, v = PLANES[plane]
    square = abs(u.cross(v)) * w * h
    lost = (2 * radius) ** 2 * abs(u.cross(v)) - abs(
        sum(arc.radius**2 * arc.sweep + arc.centre.cross(arc.last - arc.first) for arc in rhombus(Point(0, 0), 2 * radius, plane).arcs) / 2
    ) if radius else 0.0  # fmt: skip
    assert abs(face.area) == pytest.approx(square - lost)  # type: ignore[union-attr]
    edges = [edge(done, f"b.edge.{number}") for number in (1, 2)]
    assert all(line.end == pytest.approx(thick) for line in edges)
    assert all(abs(line.direction.cross(SQUARE[plane])) < 1e-9 for line in edges)
    across = abs((edges[0].at(0.0) - edges[1].at(0.0)).cross(edges[0].direction))
    assert abs(outline.area) == pytest.approx(abs(face.area) + across * thick)  # type: ignore[union-attr]
    assert far.length + hidden.length == pytest.approx(face.length)  # type: ignore[union-attr]
    if radius:
        smooth = [j for j in outline.junctions if abs(j.turn) < 1e-6]  # type: ignore[union-attr]
        assert len(smooth) == len(outline.junctions)  # type: ignore[union-attr]


@pytest.mark.parametrize(("row", "told"), [
    ("b = isometric block, centred on O, 60 by 40, on top, thick 0\n", "more than nought"),
    ("b = isometric block, centred on O, 60 by 40, on top, thick 9, rounded 21\n", "at most half its shorter edge"),
    ("c = cylinder, from O, diameter 9, length 0\n", "more than nought long"),
])  # fmt: skip
def test_solids_that_cannot_be_are_refused(row: str, told: str) -> None:
    assert told in work_out(HEAD + row).solution.errors[0].message


def test_on_ruled_paper_settings_are_counted_in_squares() -> None:
    """A radius of 1 in on quarter-inch squares is four squares out each way (common practice, no source)."""
    text = "units in\nsheet A3, border 10 mm, ground isometric 1/4\nO = datum\nc = circle, centre O, radius 1\n"
    done = work_out(text)
    assert not done.sheet.errors
    assert done.steps[-1].setting is not None
    assert done.steps[-1].setting.told.endswith("4 squares of the ground")
    ruled = [
        m
        for m in done.display.marks
        if m.role == "guide" and m.kind == "line" and math.hypot(m.x2 - m.x1, m.y2 - m.y1) > 20
    ]
    turns = {round(math.degrees(math.atan2(m.y2 - m.y1, m.x2 - m.x1)) % 180) for m in ruled}  # type: ignore[union-attr]
    assert {30, 90, 150} <= turns
    plumb = sorted(m.x1 for m in ruled if m.kind == "line" and abs(m.x1 - m.x2) < 1e-9)
    assert plumb[1] - plumb[0] == pytest.approx(6.35 * math.sqrt(3) / 2)
    low, high = done.sheet.space
    assert all(low.x - 1e-6 <= x <= high.x + 1e-6 for m in ruled if m.kind == "line" for x in (m.x1, m.x2))
    squares = work_out(text.replace("ground isometric 1/4", "ground squares 1/2"))
    assert squares.steps[-1].setting is not None
    assert squares.steps[-1].setting.told.endswith("2 squares of the ground")
    assert "2 to 100 mm" in work_out(text.replace("1/4", "1/64")).sheet.errors[0].message


def test_isometric_dimensions_run_along_the_axes_with_their_extension_lines() -> None:
    rows = (
        "b = isometric box, from O, 60 by 40 by 30\nrim = line in, b\nd1 = dimension, from b.near to b.right_low, isometric up, below\n"
        "d2 = dimension, from b.near to b.left_low, isometric up, below\nd3 = dimension, from b.right_low to b.top_right, isometric right, right\n"
    )
    done = solved(rows)
    texts = {m.text: m.angle for m in done.display.marks if m.kind == "text" and m.role == "dimension"}
    assert {text: round(angle) % 180 for text, angle in texts.items()} == {"60": 30, "40": 150, "30": 90}
    lines = [m for m in done.display.marks if m.kind == "line" and m.role == "dimension"]
    turns = {round(math.degrees(math.atan2(m.y2 - m.y1, m.x2 - m.x1))) % 180 for m in lines}
    assert turns == {30, 90, 150}
    refused = work_out(HEAD + rows + "d4 = dimension, from b.near to b.top_near, isometric up\n").solution.errors
    assert "along another axis" in refused[0].message


def test_the_school_is_chosen_for_the_plan_and_stated_on_the_sheet() -> None:
    rows = "O = datum\nb = isometric box, from O, 60 by 40 by 30\nrim = line in, b\nd = dimension, from b.near to b.right_low, isometric up, below\n"
    sizes, told = [], []
    for school in ("drawing", "projection"):
        done = work_out(f"units mm\nsheet A3, isometric {school}\n{rows}")
        assert not done.sheet.errors
        sizes.append(edge(done, "b.edge.1").end)
        told.append([m.text for m in done.display.marks if m.kind == "text"])
        assert f"1:1 isometric {school}" in told[-1]
        assert "60" in told[-1], "the part is lettered at its own size in either school"
    assert sizes[1] / sizes[0] == pytest.approx(math.sqrt(2 / 3))  # type: ignore[operator]


@given(sizes, st.integers(10, 90), sizes, sizes, st.sampled_from(list(AXES)), st.booleans(), st.booleans())
@settings(deadline=None, max_examples=40)
def test_what_a_stub_shows_of_its_shoulder_lies_outside_the_smaller_cylinder(
    long: int, share: int, step: int, wide: int, axis: str, true: bool, rounded: bool
) -> None:
    words = f"{', true' if true else ''}{', rounded' if rounded else ''}"
    done = solved(
        f"s = stub, from O, diameter {wide}, length {long}, step diameter {wide * share / 100}, step length {step}, "
        f"along {axis}{words}\n"
    )
    rim, neck, ring = thing(done, "s.rim"), thing(done, "s.neck"), thing(done, "s.shoulder")
    assert isinstance(rim, Loop)
    assert isinstance(neck, Loop)
    assert isinstance(ring, Loop)
    assert neck.closed
    assert neck.gap < 1e-9 * 100
    if not rim.closed:
        for end in (rim.pieces[0].entry, rim.pieces[-1].exit):
            assert neck.distance(end) < 1e-6
            assert ring.distance(end) < 1e-6
    for piece in rim.pieces:
        middle = piece.curve.middle if isinstance(piece.curve, Arc) else piece.entry
        assert not neck.encloses(middle) or neck.distance(middle) < 1e-6
    if rounded:
        cap = thing(done, "s.round")
        assert isinstance(cap, Arc)
        assert abs(cap.sweep) == pytest.approx(math.pi)
        for name in ("s.edge.3", "s.edge.4"):
            line = edge(done, name)
            assert min(abs(line.at(0.0) - end) for end in (cap.first, cap.last)) < 1e-9 * 100
            assert abs(line.direction.dot((line.at(0.0) - cap.centre).unit)) < 1e-9, "without a corner"
        if true:
            # A ball is seen as a circle √(3/2) of its diameter across, drawn full length (common practice).
            assert cap.radius == pytest.approx(wide * share / 100 * math.sqrt(1.5) / 2)


def test_quarters_of_circles_on_three_planes_close_about_a_corner() -> None:
    done = solved(
        "".join(f"{p} = isometric circle, centred on O, diameter 60, on {p}\n" for p in PLANES)
        + "rim = line in, top.arc4 > left.arc4 > right.arc4\n"
    )
    loop = done.solution.figure.items["rim"].shape
    assert isinstance(loop, Loop)
    assert loop.closed
    assert sorted(abs(piece.entry) for piece in loop.pieces) == pytest.approx([30, 30, 30])


solved = partial(solved, head=HEAD)
