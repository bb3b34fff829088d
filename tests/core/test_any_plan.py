"""Whatever is done to a plan, the desk answers: with a figure, or with words at a place."""

import math
import re

import pytest
import shapely
from hypothesis import assume, given
from hypothesis import strategies as st

from desk import edited
from entrick.core import formats
from entrick.core.desk import work_out
from entrick.core.display import DrawnArc, DrawnCircle, DrawnLine
from entrick.core.geometry import Arc, Line, Loop, Point, Stop, walk
from entrick.core.plan import edit
from entrick.core.plan.reader import read_plan
from entrick.core.plan.writer import write_plan
from entrick.demo import sample_plans

SAMPLES = sorted(sample_plans().values())
words = st.sampled_from(
    [
        "above",
        "left",
        "radius",
        "beside",
        "touching",
        "through",
        "eyeA",
        "bossA",
        "N",
        "O",
        "top",
        "0",
        "-3",
        "1/0",
        "999999",
        "4 1/4",
        '"',
        ",",
        ">",
        "=",
        "(",
        ")",
        "°",
        "assumed",
        "first",
        "near",
        "line in",
        "arc",
        "Ø",
        "sqrt(",
        "#",
        "\t",
    ]
)


@given(
    st.sampled_from(SAMPLES),
    st.integers(0, 400),
    words,
    st.sampled_from(["replace", "insert", "drop"]),
)
def test_a_word_put_anywhere_is_worked_out_or_explained(
    text: str, place: int, word: str, how: str
) -> None:
    """One word of a sample is changed, added or lost; nothing falls over, and every error has a line and words."""
    parts = re.split(r"(\s+|,|>)", text)
    index = place % len(parts)
    parts[index : index + (how != "insert")] = [] if how == "drop" else [word]
    done = work_out("".join(parts))
    for error in (*done.solution.errors, *done.sheet.errors):
        assert 1 <= error.line <= len(done.plan.lines)
        assert error.message
    for mark in done.display.marks:
        if isinstance(mark, DrawnCircle | DrawnArc):
            assert math.isfinite(mark.cx + mark.cy + mark.r)
            assert mark.r >= 0
        elif isinstance(mark, DrawnLine):
            assert math.isfinite(mark.x1 + mark.y1 + mark.x2 + mark.y2)
    assert write_plan(read_plan(write_plan(done.plan))) == write_plan(done.plan)
    formats.write_svg(done.display)
    formats.solution_data(done)


@given(st.sampled_from(SAMPLES), st.data())
def test_any_run_of_edits_leaves_a_plan(text: str, data: st.DataObject) -> None:
    """Moving, deleting and inserting lines at random never loses a line that was not deleted."""
    kept = sorted(row for row in text.splitlines() if row)
    for _ in range(data.draw(st.integers(1, 6))):
        count = len(text.splitlines())  # a blank line that has come to the end is no line any more
        line = data.draw(st.integers(1, count))
        text = edited(text, edit.move_line, line, data.draw(st.integers(1, count)))
    assert sorted(row for row in text.splitlines() if row) == kept
    work_out(text)
    count = len(text.splitlines())
    shorter = edited(text, edit.delete_line, data.draw(st.integers(1, count)))
    assert len(shorter.splitlines()) < count
    assert sum(bool(row) for row in shorter.splitlines()) >= len(kept) - 1
    work_out(shorter)


@given(
    st.floats(0.2, 5),
    st.sampled_from(
        # Diametral pitches and threads of a table do not grow with the part; nor do sizes said in a statement.
        [
            text
            for text in SAMPLES
            if not re.search(r"chain|diametral|tapped hole|= point, \d", text)
        ]
    ),
)
def test_a_part_drawn_at_another_size_is_the_same_part(factor: float, text: str) -> None:
    """Every length times a factor: areas grow by its square, lengths by it, and every junction turns as before."""
    factor = round(factor, 3)

    def grow(row: str) -> str:
        found = re.fullmatch(r'(given \w+ = )(?:\d+× )?(Ø?)R?([^"°]*?)( ".*")', row)
        return f"{found[1]}{found[2]}({found[3]})*{factor}{found[4]}" if found else row

    before = work_out(text).solution.figure.items
    after = work_out("\n".join(map(grow, text.splitlines())) + "\n").solution.figure.items
    for name, item in before.items():
        if isinstance(item.shape, Loop):
            other = after[name].shape
            assert isinstance(other, Loop)
            assert abs(other.area) == pytest.approx(abs(item.shape.area) * factor**2)
            assert other.length == pytest.approx(item.shape.length * factor)
            turns = [sorted(abs(j.turn) for j in loop.junctions) for loop in (item.shape, other)]
            assert turns[0] == pytest.approx(turns[1], abs=1e-6)


polygons = st.lists(st.tuples(st.integers(8, 60), st.floats(0.3, 0.9)), min_size=3, max_size=12)


@given(polygons)
def test_the_walk_round_any_star_shaped_polygon_against_shapely(
    rays: list[tuple[int, float]],
) -> None:
    """Corners at growing angles about a point: area, length and corner angles against shapely."""
    total = sum(share for _, share in rays)
    angle, corners = 0.0, []
    for reach, share in rays:
        corners.append(Point(reach * math.cos(angle), reach * math.sin(angle)))
        angle += math.tau * share / total
    sides = [Line.between(a, b) for a, b in zip(corners, [*corners[1:], corners[0]], strict=True)]
    assume(
        all(
            abs(a.direction.cross(b.direction)) > 1e-3
            for a, b in zip(sides, [*sides[1:], sides[0]], strict=True)
        )
    )
    loop = walk([Stop(side, str(i)) for i, side in enumerate(sides)])
    polygon = shapely.Polygon([(p.x, p.y) for p in corners])
    assert abs(loop.area) == pytest.approx(polygon.area)
    assert loop.length == pytest.approx(polygon.length)
    if polygon.is_valid:
        assert abs(sum(j.turn for j in loop.junctions)) == pytest.approx(math.tau)


@given(st.floats(10, 80), st.floats(1, 9), st.integers(3, 9))
def test_a_rounded_polygon_turns_once_round_in_its_arcs(
    reach: float, radius: float, count: int
) -> None:
    """A regular polygon with all corners rounded: the arcs together turn a full circle, and every join is smooth."""
    reach, radius = round(reach, 3), round(radius, 3)
    rows = [f"O = datum\nc = circle, centre O, radius {reach}\nring = spaced, {count} on c"]
    for index in range(1, count + 1):
        rows.append(f"s{index} = line, from ring.{index} to ring.{index % count + 1}")
    for index in range(1, count + 1):
        rows.append(
            f"r{index} = fillet, between s{index} and s{index % count + 1}, radius {radius}"
        )
    rows.append("rim = line in, " + " > ".join(f"s{i} > r{i}" for i in range(1, count + 1)))
    inscribed = reach * math.cos(math.pi / count)
    assume(radius < inscribed * 0.8)
    done = work_out("\n".join(rows) + "\n")
    assert not done.solution.errors
    rim = done.solution.figure.items["rim"].shape
    assert isinstance(rim, Loop)
    assert all(j.is_tangent for j in rim.junctions)
    arcs = [p.curve for p in rim.pieces if isinstance(p.curve, Arc)]
    assert abs(sum(arc.sweep for arc in arcs)) == pytest.approx(math.tau)
    sharp = 0.5 * count * reach**2 * math.sin(math.tau / count)
    lost = radius**2 * (count * math.tan(math.pi / count) - math.pi)
    assert abs(rim.area) == pytest.approx(sharp - lost)
