"""Tapped holes against the published thread tables; what is thick, thin, hatched and how the point is made."""

import math
from functools import partial

import pytest
import shapely
from hypothesis import given
from hypothesis import strategies as st

from desk import solved
from entrick.core.desk import Work, work_out
from entrick.core.drawing.marks import DrawnArc, DrawnCircle, DrawnLine
from entrick.core.geometry import Arc, Circle, Line, Loop
from entrick.core.rules.thread import COARSE, FINE, UNIFIED, UnknownThread, thread
from entrick.demo import sample_plans

HEAD = (
    "units mm\nsheet A3 landscape, scale 1:1, border 10\nO = datum\nblock = box, 80 by 60, centred on O\n"
    "rim = line in, block.bottom > block.right > block.top > block.left, cut\nP = point, 30 above O\n"
)
solved = partial(solved, head=HEAD)


def working(done: Work, name: str = "t") -> str:
    made = next(e.made for e in done.solution.entries if e.statement.name == name)
    assert made is not None
    return "\n".join(made.working)


@pytest.mark.parametrize(
    ("name", "minor", "drill"),
    [
        ("M3", 2.459, 2.5),
        ("M4", 3.242, 3.3),
        ("M5", 4.134, 4.2),
        ("M6", 4.917, 5.0),
        ("M8", 6.647, 6.8),
        ("M10", 8.376, 8.5),
        ("M12", 10.106, 10.2),
        ("M16", 13.835, 14.0),
        ("M20", 17.294, 17.5),
        ("M24", 20.752, 21.0),
        ("M30", 26.211, 26.5),
        ("M36", 31.670, 32.0),
        ("M10x1.25", 8.647, 8.8),
        ("M12x1.25", 10.647, 10.8),
        ("M20x1.5", 18.376, 18.5),
        ("M8x1", 6.917, 7.0),
        ("M3.5", 2.850, 2.9),
        ("M7", 5.917, 6.0),
        ("M2x0.25", 1.729, 1.75),
        ("M6x0.75", 5.188, 5.2),
        ("M45", 40.129, 40.5),
        ("M1.6x0.2", 1.383, 1.4),
    ],
)
def test_metric_threads_against_the_standards(name: str, minor: float, drill: float) -> None:
    """Minor diameters of ISO 724 and drills of ISO 2306, from memory; the drills are rounded to a tenth there."""
    found = thread(name)
    assert float(found.minor) == pytest.approx(minor, abs=6e-4)
    assert float(found.drill) == pytest.approx(drill, abs=0.0501)


@pytest.mark.parametrize(
    ("name", "major", "minor", "drill"),
    [
        ("1/4-20", 0.25, 0.1959, 0.201),
        ("5/16-18 UNC", 0.3125, 0.2524, 0.257),
        ("3/8-16", 0.375, 0.3073, 5 / 16),
        ("1/2-13", 0.5, 0.4167, 27 / 64),
        ("3/4-10", 0.75, 0.6417, 21 / 32),
        ("1-8", 1.0, 0.8647, 7 / 8),
        ("#0-80", 0.06, 0.0465, 3 / 64),
        ("#2-56", 0.086, 0.0667, 0.070),
        ("#10-32 UNF", 0.19, 0.1562, 0.159),
        ("1/4-28", 0.25, 0.2113, 0.213),
        ("1/2-20", 0.5, 0.4459, 29 / 64),
    ],
)
def test_unified_threads_against_the_handbook(
    name: str, major: float, minor: float, drill: float
) -> None:
    """Basic diameters of ASME B1.1 and the usual drills of the handbooks, from memory."""
    found = thread(name)
    assert float(found.major) / 25.4 == pytest.approx(major)
    assert float(found.minor) / 25.4 == pytest.approx(minor, abs=6e-5)
    assert float(found.drill) / 25.4 == pytest.approx(drill, abs=0.008)


METRIC_AREAS = {
    "M3": 5.03,
    "M3.5": 6.78,
    "M4": 8.78,
    "M5": 14.2,
    "M6": 20.1,
    "M7": 28.9,
    "M8": 36.6,
    "M10": 58.0,
    "M12": 84.3,
    "M14": 115,
    "M16": 157,
    "M18": 192,
    "M20": 245,
    "M22": 303,
    "M24": 353,
    "M27": 459,
    "M30": 561,
    "M33": 694,
    "M36": 817,
    "M39": 976,
    "M8x1": 39.2,
    "M10x1": 64.5,
    "M10x1.25": 61.2,
    "M12x1.25": 92.1,
    "M12x1.5": 88.1,
    "M14x1.5": 125,
    "M16x1.5": 167,
    "M18x1.5": 216,
    "M20x1.5": 272,
    "M22x1.5": 333,
    "M24x2": 384,
    "M27x2": 496,
    "M30x2": 621,
    "M33x2": 761,
    "M36x3": 865,
    "M39x3": 1030,
}

UNIFIED_AREAS = {
    "#0-80": 0.00180,
    "#1-64": 0.00263,
    "#1-72": 0.00278,
    "#2-56": 0.00370,
    "#2-64": 0.00394,
    "#3-48": 0.00487,
    "#3-56": 0.00523,
    "#4-40": 0.00604,
    "#4-48": 0.00661,
    "#5-40": 0.00796,
    "#5-44": 0.00830,
    "#6-32": 0.00909,
    "#6-40": 0.01015,
    "#8-32": 0.0140,
    "#8-36": 0.01474,
    "#10-24": 0.0175,
    "#10-32": 0.0200,
    "#12-24": 0.0242,
    "#12-28": 0.0258,
    "1/4-20": 0.0318,
    "1/4-28": 0.0364,
    "5/16-18": 0.0524,
    "5/16-24": 0.0580,
    "3/8-16": 0.0775,
    "3/8-24": 0.0878,
    "7/16-14": 0.1063,
    "7/16-20": 0.1187,
    "1/2-13": 0.1419,
    "1/2-20": 0.1599,
    "9/16-12": 0.182,
    "9/16-18": 0.203,
    "5/8-11": 0.226,
    "5/8-18": 0.256,
    "3/4-10": 0.334,
    "3/4-16": 0.373,
    "7/8-9": 0.462,
    "7/8-14": 0.509,
    "1-8": 0.606,
    "1-12": 0.663,
    "1 1/8-7": 0.763,
    "1 1/8-12": 0.856,
    "1 1/4-7": 0.969,
    "1 1/4-12": 1.073,
    "1 3/8-6": 1.155,
    "1 3/8-12": 1.315,
    "1 1/2-6": 1.405,
    "1 1/2-12": 1.581,
    "1 3/4-5": 1.90,
    "2-4.5": 2.50,
    "2 1/4-4.5": 3.25,
    "2 1/2-4": 4.00,
    "2 3/4-4": 4.93,
    "3-4": 5.97,
    "3 1/4-4": 7.10,
    "3 1/2-4": 8.33,
    "3 3/4-4": 9.66,
    "4-4": 11.08,
}


@pytest.mark.parametrize(("name", "area"), [*METRIC_AREAS.items(), *UNIFIED_AREAS.items()])
def test_size_and_pitch_give_the_published_stress_area(name: str, area: float) -> None:
    """Stress areas of ISO 898-1 (mm²) and of the unified tables (in²), both from memory. They stand in no table of the
    desk, and come of size and pitch by π/4 (d − 0.9382 P)², in inches 0.9743 P: a size or a pitch that is wrong by the
    least step shows."""
    found = thread(name)
    inch, share = (1.0, 0.938194) if name.startswith("M") else (25.4, 0.9743)
    across = (float(found.major) - share * float(found.pitch)) / inch
    digits = len(f"{area:g}".lstrip("0.").replace(".", ""))
    rounding = 0.51 * 10 ** (math.floor(math.log10(area)) - digits + 1)
    assert math.pi / 4 * across**2 == pytest.approx(area, abs=max(rounding, area * 4e-3))


def test_every_unified_thread_has_its_stress_area() -> None:
    listed = {
        f"{size}-{float(count):g}"
        for size, counts in UNIFIED.items()
        for count in counts
        if count is not None
    }
    assert listed == set(UNIFIED_AREAS)


def test_every_thread_of_the_tables_is_deeper_than_nothing_and_finer_than_coarse() -> None:
    for size, pitch in COARSE.items():
        found = thread(f"M{size}")
        assert (
            0.7 * float(found.major) < float(found.minor) < float(found.drill) < float(found.major)
        )
        for fine in FINE.get(size, ()):
            assert float(fine) < float(pitch)
            assert thread(f"M{size} × {fine}").series == "metric fine"
    for size, counts in UNIFIED.items():
        said = [float(count) for count in counts if count is not None]
        assert said == sorted(said), "coarse first"
        series = [thread(f"{size}-{count:g}").series for count in said]
        assert series == [
            f"unified {word}"
            for word, count in zip(("coarse", "fine"), counts, strict=False)
            if count
        ]


@pytest.mark.parametrize(
    ("text", "words"),
    [
        ("M11", "the nearest is M10"),
        ("M10x3", "it has 1.5, 0.75, 1, 1.25"),
        ("1/4-21", "20 or 28 threads"),
        ("1/3-20", "no size of the unified table"),
        ("1/4-20 UNF", "is UNC"),
        ("NPT 1/2", "is no thread of the tables"),
    ],
)
def test_a_thread_that_stands_in_no_table_is_refused(text: str, words: str) -> None:
    with pytest.raises(UnknownThread, match=words):
        thread(text)
    done = work_out(f'{HEAD}t = tapped hole, at P, thread "{text}", section down, depth 10\n')
    assert words in done.solution.errors[0].message
    assert done.solution.errors[0].clause == 1


def test_the_end_view_is_thick_all_round_and_thin_for_three_quarters() -> None:
    done = solved('t = tapped hole, at O, thread "M16"\n')
    (hole,) = [m for m in done.display.marks if isinstance(m, DrawnCircle) and m.role == "outline"]
    (outer,) = [m for m in done.display.marks if isinstance(m, DrawnArc) and m.role == "thread"]
    assert hole.r == pytest.approx(13.835 / 2, abs=1e-3)
    assert outer.r == pytest.approx(8)
    assert outer.sweep == pytest.approx(270), "broken for a quarter"
    assert any(outline.name == "t" and outline.is_hole for outline in done.checked.outlines)


@pytest.mark.parametrize("way", ["down", "up", "left", "right"])
def test_a_blind_hole_has_its_depths_and_a_point_of_120_degrees(way: str) -> None:
    done = solved(f't = tapped hole, at O, thread "M16", section {way}, depth 18, drilled 26\n')
    parts = done.solution.figure.items["t"].parts
    ahead = {"down": (0, -1), "up": (0, 1), "left": (-1, 0), "right": (1, 0)}[way]
    for name, depth in (
        ("deep", 18.0),
        ("drilled", 26.0),
        ("tip", 26 + 13.834936 / 2 / math.sqrt(3)),
    ):
        spot = parts[name]
        assert spot.x * ahead[0] + spot.y * ahead[1] == pytest.approx(depth, abs=1e-6)  # type: ignore[union-attr]
    lines = [parts["point.1"], parts["point.2"]]
    assert all(isinstance(line, Line) for line in lines)
    turn = math.degrees(math.acos(lines[0].direction.dot(lines[1].direction)))  # type: ignore[union-attr]
    assert turn == pytest.approx(120)
    thick = [m for m in done.display.marks if isinstance(m, DrawnLine) and m.role == "outline"]
    thin = [m for m in done.display.marks if isinstance(m, DrawnLine) and m.role == "thread"]
    assert len(thin) == 2
    assert len(thick) == 4 + 2 + 2 + 2, "the box, the hole, both depths, the point"


def hatched(done: Work) -> list[shapely.LineString]:
    x, y = done.display.origin
    return [
        shapely.LineString([(m.x1 - x, m.y1 - y), (m.x2 - x, m.y2 - y)])
        for m in done.display.marks
        if isinstance(m, DrawnLine) and m.role == "hatch"
    ]


@pytest.mark.parametrize("filled", [False, True])
def test_hatching_runs_to_the_hole_while_it_is_empty_and_to_the_thread_when_filled(
    filled: bool,
) -> None:
    done = solved(
        f't = tapped hole, at P, thread "M16", section down, depth 24, drilled 34{", filled" if filled else ""}\n'
        "h = hatch, of rim t.edge\n"
    )
    lines = shapely.union_all(hatched(done))
    thread_zone = shapely.box(6.95, 8, 7.97, 29)
    hole = shapely.box(-6.9, -3, 6.9, 29.9)
    assert lines.intersection(hole.buffer(-0.05)).is_empty
    assert lines.intersection(thread_zone).is_empty == filled, (
        "common practice: through the thread while it is empty"
    )
    below = shapely.box(-30, -29, 30, -20)
    assert not lines.intersection(below).is_empty
    edge = done.solution.figure.items["t"].parts["edge"]
    assert isinstance(edge, Loop)
    assert edge.closed
    assert ("hatching stops at the outer line" in working(done)) == filled


def test_the_three_schools_of_the_minor_diameter() -> None:
    rows = 't = tapped hole, at O, thread "M10"'
    for words, minor in (
        ("", 8.376202),
        (", minor computed", 8.376202),
        (", minor simplified", 8.0),
    ):
        shape = solved(f"{rows}{words}\n").solution.figure.items["t"].parts["minor"]
        assert isinstance(shape, Circle)
        assert 2 * shape.radius == pytest.approx(minor)
    stated = solved(f"{rows}, thread depth 0.8\n")
    assert 2 * stated.solution.figure.items["t"].parts["minor"].radius == pytest.approx(8.4)  # type: ignore[union-attr]
    assert not [f for f in stated.findings if f.rule == "tapped hole"]
    wrong = solved(f"{rows}, thread depth 1.5\n")
    (found,) = [f for f in wrong.findings if f.rule == "tapped hole"]
    assert found.weight == "look"
    assert "gives a minor diameter of 7; by the standard it is 8.376" in found.message


def test_the_tapping_drill_comes_with_its_caution() -> None:
    told = working(solved('t = tapped hole, at O, thread "M10x1.25"\n'))
    assert "tapping drill 10 − 1.25 = 8.75" in told
    assert "follow the tap maker's data, clamp the work, mind chips" in told
    inch = working(solved('t = tapped hole, at O, thread "3/8-16"\n', head="units in\nO = datum\n"))
    assert "tapping drill 3/8 − 1/16 = 5/16, nearest 64th 5/16" in inch


@pytest.mark.parametrize(
    ("clauses", "words"),
    [
        ("section down", "a blind hole has a depth"),
        ("depth 12", "depths belong to a section"),
        ("section down, depth 20, drilled 12", "at least as deep"),
        ("section down, through 20, depth 4", "or it has depths"),
        ("minor simplified, thread depth 1", "or follows from a school"),
        ("thread depth 6", "less deep than half"),
        ("section down, through 0", "more than nought thick"),
    ],
)
def test_a_tapped_hole_that_cannot_be_is_refused(clauses: str, words: str) -> None:
    done = work_out(f'{HEAD}t = tapped hole, at P, thread "M10", {clauses}\n')
    assert words in done.solution.errors[0].message


def test_a_through_hole_has_no_point_and_the_thread_goes_all_the_way() -> None:
    done = solved('t = tapped hole, at P, thread "M12", section down, through 60\n')
    parts = done.solution.figure.items["t"].parts
    assert "tip" not in parts
    edge = parts["edge"]
    assert isinstance(edge, Loop)
    assert abs(edge.area) == pytest.approx(60 * 10.1056, rel=1e-4)
    assert not any(isinstance(p.curve, Arc) for p in edge.pieces)


@given(st.floats(0.5, 2.0))
def test_hatching_bears_holes_that_share_an_edge_with_the_outline_at_any_size(
    factor: float,
) -> None:
    cap = sample_plans()["OY-075-bearing-cap.entrick"]
    done = work_out(cap.replace("given w = 150", f"given w = 150*{factor:.6f}"))
    if not done.solution.errors:
        assert all(line.length > 1e-6 for line in hatched(done))


@pytest.mark.parametrize(
    ("text", "major", "pitch"), [("M22x0.7", 22, 0.7), ("5/8-14", 15.875, 25.4 / 14)]
)
def test_a_thread_of_no_table_is_drawn_where_it_is_said_to_be_special(
    text: str, major: float, pitch: float
) -> None:
    """The same 60° profile: 1.0825 of the pitch off the diameter."""
    found = thread(text, special=True)
    assert (float(found.major), float(found.pitch)) == pytest.approx((major, pitch))
    assert float(found.minor) == pytest.approx(
        major - 2 * 5 / 8 * math.sqrt(3) / 2 * pitch, abs=1e-5
    )
    assert "in no table" in working(
        solved(f'P0 = point, 9 right of O\nt = tapped hole, at P0, thread "{text}", special\n')
    )
    told = work_out(f'{HEAD}t = tapped hole, at P, thread "{text}"\n').solution.errors[0].message
    assert "say  special" in told
    assert (
        "to its axis"
        in work_out(f'{HEAD}t = tapped hole, at P, thread "M3x3", special\n')
        .solution.errors[0]
        .message
    )


def test_a_thread_runs_out_behind_its_full_depth() -> None:
    row = 't = tapped hole, at P, thread "M12", section down, depth 20, drilled 28, runout {}\n'
    done = solved(row.format(4))
    first = done.solution.figure.items["t"].parts["run_out.1"]
    assert isinstance(first, Line)
    ends = [first.at(0.0), first.at(first.end or 0.0)]
    assert [30 - spot.y for spot in ends] == pytest.approx([20, 24])
    assert [abs(spot.x) for spot in ends] == pytest.approx([6, 10.1055 / 2], abs=1e-3)
    assert [mark.role for mark in done.display.marks].count("thread") == 4
    assert "within the drilled depth" in work_out(HEAD + row.format(9)).solution.errors[0].message


@pytest.mark.parametrize(
    ("name", "major", "minor"),
    [
        ("M1.4", 1.4, 1.075),
        ("M1.1", 1.1, 0.829),
        ("M68", 68, 61.505),
        ("M80x6", 80, 73.505),
        ("M100x4", 100, 95.670),
        ("G1/8", 9.728, 8.566),
        ("G1/2", 20.955, 18.631),
        ("G1", 33.249, 30.291),
        ("G2", 59.614, 56.656),
        ("Tr20x4", 20, 16),
        ("Tr40", 40, 33),
    ],
)
def test_more_of_the_tables(name: str, major: float, minor: float) -> None:
    """ISO 724, ISO 228-1 and ISO 10208, from memory."""
    found = thread(name)
    assert float(found.major) == pytest.approx(major)
    assert float(found.minor) == pytest.approx(minor, abs=1e-3)


@pytest.mark.parametrize(
    ("name", "told"),
    [
        ("M80", "no coarse pitch"),
        ("G9/16", "no size of the table"),
        ("Tr21", "the nearest is Tr20"),
        ("Tr20x9", "has no pitch 9"),
    ],
)
def test_what_stands_in_no_table_is_told(name: str, told: str) -> None:
    with pytest.raises(UnknownThread, match=told):
        thread(name)
