"""Every rule of the proof finds what it is for, and leaves sound parts alone."""

import math

import pytest
import shapely
from hypothesis import given
from hypothesis import strategies as st

from desk import edited
from entrick.core.desk import Work, work_out
from entrick.core.geometry import Arc, Circle, Line, Point
from entrick.core.geometry.nearest import nearest
from entrick.core.plan import edit
from entrick.core.plan.writer import write_plan
from entrick.core.proof import Finding, why_not_cut

HEAD = "units mm\nsheet A2 landscape, scale 1:1, border 10\n"
FRAME = "O = datum\nframe = box, 100 by 60, centred on O\n"
RIM = "rim = line in, frame.bottom > frame.right > frame.top > frame.left\n"


def found(rows: str, rule: str, weight: str = "") -> list[Finding]:
    done = work_out(HEAD + rows)
    assert not done.solution.errors, done.solution.errors
    return [f for f in done.findings if f.rule == rule and weight in ("", f.weight)]


def says(findings: list[Finding]) -> str:
    return "\n".join(f.message for f in findings)


def mended(rows: str, finding: Finding) -> Work:
    """Make the edit a finding offers."""
    mend = finding.mend
    assert mend is not None
    change = edit.set_line if mend.op == "line" else edit.insert_line
    done = work_out(edited(HEAD + rows, change, mend.line, mend.text))
    assert not done.solution.errors
    return done


def hole(x: float, y: float, r: float, name: str = "c") -> str:
    at = f"P{name} = point, {x} right of O, {y} above O\n"
    return f"{at}{name} = circle, centre P{name}, radius {r}\nin_{name} = line in, {name}\n"


@pytest.mark.parametrize(
    ("rows", "rule", "weight", "told"),
    [
        (RIM + hole(80, 0, 5), "material", "wrong", "in_c lies outside the material of rim"),
        (RIM + hole(50, 0, 5), "material", "wrong", "in_c runs across rim"),
        (
            RIM + hole(0, 0, 5) + "again = line in, c\n",
            "doubled",
            "wrong",
            "again is in_c again, all round",
        ),
        (
            RIM + "l = line, from frame.lower_left to frame.lower_right\nlow = line in, l, open\n",
            "doubled",
            "wrong",
            "lies over frame.bottom",
        ),
        (
            RIM + hole(46, 0, 3) + "must = check, wall at least 2\n",
            "wall",
            "wrong",
            "1 mm of wall between rim and in_c",
        ),
        (RIM + hole(46, 0, 3), "wall", "good", "least wall 1 mm"),
        (RIM + "must = check, no piece under 70\n", "sliver", "wrong", "60 mm long"),
        (
            RIM + "must = check, no piece under 50\n",
            "sliver",
            "good",
            "no piece is shorter than 50",
        ),
        (
            RIM + "must = check, overall 100 by 61\n",
            "overall",
            "wrong",
            "60 mm up, measured on the outline; 61 is given, 1 too little",
        ),
        (
            RIM + "must = check, overall across 100\n",
            "overall",
            "good",
            "100 mm across, measured on the outline, as given",
        ),
        (RIM + "must = check, overall up 60\n", "overall", "good", "60 mm up"),
        (
            RIM + hole(10, 0, 3) + "must = check, symmetric about O.plumb\n",
            "symmetry",
            "wrong",
            "c has no image",
        ),
        (
            RIM + hole(10, 0, 3) + "must = check, symmetric about O.level\n",
            "symmetry",
            "good",
            "every piece",
        ),
        (RIM + hole(10, 0, 3), "symmetry", "note", "symmetric about O.level: say so"),
        (
            RIM + hole(-30, 0, 4, "a") + hole(0, 0, 4, "b"),
            "finish",
            "note",
            "circles without centre lines: a, b",
        ),
        (
            "c = circle, centre O, radius 9\nx = line in, c, cut\ncl = centre lines, of c\n",
            "finish",
            "look",
            "x is cut and not hatched",
        ),
        (RIM, "dimensions", "note", "Suggest dimensions"),
        (
            RIM + "d1 = dimension, from frame.lower_left to frame.lower_right, level\n",
            "dimensions",
            "look",
            "no dimension fixes 60 in frame",
        ),
        (
            RIM + 't = title, drawn "A"\n',
            "title",
            "look",
            "checked, date, sheet, material, projection",
        ),
    ],
)
def test_each_rule_says_what_it_is_for(rows: str, rule: str, weight: str, told: str) -> None:
    assert told in says(
        found(FRAME + rows if "frame" in rows else "O = datum\n" + rows, rule, weight)
    )


@pytest.mark.parametrize(
    ("rows", "told"),
    [
        (
            "c = circle, centre O, radius 20\nH = point, 20.1 above O\nl = line, through H, level\n",
            "c and l miss touching by 0.1 mm: exact tangency wants c at R20.1",
        ),
        (
            "c = circle, centre O, radius 20\nA = point, 50.3 right of O\nd = circle, centre A, radius 30\n",
            "c and d miss touching by 0.3 mm: exact tangency wants d at R30.3",
        ),
        (
            "c = circle, centre O, radius 20\nA = point, 9.9 right of O\nd = circle, centre A, radius 10\n",
            "c and d miss touching by 0.1 mm: exact tangency wants d at R10.1",
        ),
        (
            "c = circle, centre O, radius 20\nA = point, 49.8 right of O\nd = circle, centre A, radius 30\n",
            "cross instead of touching, by 0.2 mm",
        ),
        (
            "s = swing, from O, radius 20, between 0 and 89.5\nA = point, 30 left of O\nB = point, 40 above O\n"
            "l = line, from A to B\nm = line, from O to B\nx = line in, open, s > m upper\n",
            "s ends 0.175 mm short of m",
        ),
    ],
)
def test_curves_that_nearly_touch_are_told_what_exact_tangency_needs(rows: str, told: str) -> None:
    assert told in says(found("O = datum\n" + rows, "nearly"))


def test_a_corner_that_is_nearly_none_says_the_radius_it_wants() -> None:
    rows = (
        "O = datum\nc = circle, centre O, radius 20\nH = point, 19.99 above O\nA = point, 40 right of H\nl = line, from H to A\n"
        "B = point, 40 right of O\nr = line, from A to B\nlow = line, from B to O\nup = line, through O, plumb\n"
        "x = line in, c right long > l right > r > low\n"
    )
    told = says(found(rows, "junction", "look"))
    assert "was a smooth blend meant? exact tangency wants c at R19.99" in told


@pytest.mark.parametrize(
    ("given", "weight", "told"),
    [("2× Ø8", "good", "all are in the outline"), ("4× Ø8", "look", "2 of Ø8 are lined in")],
)
def test_counts_of_the_brief_are_counted_on_the_outline(given: str, weight: str, told: str) -> None:
    rows = f"given d = {given}\n{FRAME}{RIM}" + "".join(
        f"P{i} = point, {x} right of O\nc{i} = circle, centre P{i}, diameter d\nh{i} = line in, c{i}\n"
        for i, x in enumerate((-20, 20))
    )
    assert told in says(found(rows, "count", weight))


def test_two_counts_of_one_size_are_counted_together() -> None:
    rows = f"given d = 2× R4\ngiven e = 1× R4\n{FRAME}{RIM}" + "".join(
        f"P{i} = point, {x} right of O\nc{i} = circle, centre P{i}, radius {g}\nh{i} = line in, c{i}\n"
        for i, (x, g) in enumerate(((-20, "d"), (20, "d"), (0, "e")))
    )
    assert len(found(rows, "count", "good")) == 2


def test_a_bare_number_that_is_a_given_can_be_linked() -> None:
    rows = "given r = R20\ngiven d = Ø30\nO = datum\nc = circle, centre O, radius 20\ne = circle, centre O, radius 30\n"
    (finding,) = [f for f in found(rows, "givens", "note") if "which is the given" in f.message]
    assert finding.message.startswith("c says 20, which is the given r")
    done = mended(rows, finding)
    assert "c = circle, centre O, radius r\n" in "".join(f"{line}\n" for line in str_lines(done))
    assert not [f for f in done.findings if "which is the given" in f.message], (
        "30 as a radius is not the Ø30 given"
    )


def str_lines(done: Work) -> list[str]:
    return write_plan(done.plan).splitlines()


def test_mends_do_what_they_say() -> None:
    rows = FRAME + RIM + hole(0, 0, 6)
    symmetry = found(rows, "symmetry", "note")[0]
    assert "symmetric about O.level, every piece" in says(list(mended(rows, symmetry).findings))
    finish = found(rows, "finish", "note")[0]
    assert "every circle has its centre lines" in says(list(mended(rows, finish).findings))
    cut = "O = datum\nc = circle, centre O, radius 9\nx = line in, c, cut\n"
    hatch = next(f for f in found(cut, "finish") if "hatched" in f.message)
    assert any(m.role == "hatch" for m in mended(cut, hatch).display.marks)


def test_relations_the_givens_only_imply_are_noticed() -> None:
    walls = (
        "O = datum\nA = point, 60 right of O\na = circle, centre O, radius 30\nb = circle, centre A, radius 20\n"
        "c = circle, centre O, radius 22\nd = circle, centre A, radius 12\nu = line, touching a, touching b, outer, above\n"
        "v = line, touching a, touching b, outer, below\nx = line, touching c, touching d, outer, above\n"
        "y = line, touching c, touching d, outer, below\nrim = line in, a > u > b > v\nwin = line in, c > x > d > y\n"
    )
    assert "win keeps a wall of 8 mm to rim at 2 common centres" in says(found(walls, "relation"))
    holes = "O = datum\nc = circle, centre O, radius 60\nrim = line in, c\n" + "".join(
        f"P{i} = point, 40 from O, at {90 + 120 * i}°\nh{i} = circle, centre P{i}, radius 5\nx{i} = line in, h{i}\n"
        for i in range(3)
    )
    assert "3 holes of R5 stand evenly on Ø80, 360 ÷ 3 = 120°" in says(found(holes, "relation"))
    touching = (
        FRAME
        + "P = point, 50 right of O\nc = circle, centre P, radius 30\nrim = line in, frame.bottom > c > frame.top > frame.left\n"
    )
    assert "frame.bottom is tangent to c because the givens agree" in says(
        found(touching, "relation")
    )


def test_chains_say_their_sum_and_their_missing_link() -> None:
    rows = "chain a = 20 ? 14, overall 60\nchain b = 35 25, overall a\nchain c = 5 5\nO = datum\ng = grid, from O, across a, up b\nh = grid, from O, across c\n"
    told = says(found(rows, "chain"))
    assert "the missing link of a is the difference: 26, of 60 in all" in told
    assert "b comes to 60, as a says" in told
    assert "c comes to 10; say its overall size" in told


def test_what_is_open_or_doubled_is_not_to_be_cut() -> None:
    good = work_out(HEAD + FRAME + RIM)
    assert why_not_cut(good.findings) == ""
    doubled = work_out(HEAD + FRAME + RIM + hole(0, 0, 4) + "again = line in, c\n")
    assert "cut twice" in why_not_cut(doubled.findings)
    opened = work_out(HEAD + FRAME + "rim = line in, frame.bottom > frame.right, open\n")
    assert "open run" in why_not_cut(opened.findings)
    assert "nothing is lined in" in why_not_cut(work_out(HEAD + FRAME).findings)


@given(
    st.integers(5, 60),
    st.integers(5, 60),
    st.sampled_from(["mirror, of rim, about O.plumb", "turn, of rim, by 180° about O"]),
)
def test_an_outline_that_comes_to_lie_on_itself_is_told_once(
    width: int, height: int, copied: str
) -> None:
    rows = (
        f"{HEAD}O = datum\nframe = box, {width} by {height}, centred on O\nrim = line in, frame\n"
    )
    done = work_out(f"{rows}m = {copied}\n")
    wrong = [f.message for f in done.findings if f.weight == "wrong"]
    assert wrong == ["m is rim again, all round: it would be drawn and cut twice"]
    (material,) = done.checked.outlines
    assert (material.name, material.is_hole) == ("rim", False)
    away = work_out(f"{rows}m = shift, of rim, {width + 5} right\n")
    assert not [f for f in away.findings if f.weight == "wrong"]


def test_an_outline_with_the_same_corners_bulging_the_other_way_is_another() -> None:
    """Arcs out and in by turns, and the same mirrored: as long, as large, in one box, through the same corners."""
    rows = "O = datum\nh = line, through O, at 45°\n"
    for number, degrees in enumerate(range(0, 360, 90)):
        rows += f"p{number} = point, 40 from O, at {degrees}°\n"
    for number in range(4):
        after = (number + 1) % 4
        for name, side in (
            ("a", "out" if number % 2 else "in"),
            ("b", "in" if number % 2 else "out"),
        ):
            middle = 60 if side == "out" else 5
            rows += f"{name}m{number} = point, {middle / 2} from O, at {45 + 90 * number}°\n"
            rows += f"{name}{number} = circle, through p{number}, through {name}m{number}, through p{after}\n"
    for name in "ab":
        walk = " > ".join(f"{name}{n} via {name}m{n} at p{n}" for n in range(4))
        rows += f"rim{name} = line in, {walk}\n"
    done = work_out(HEAD + rows)
    assert not done.solution.errors, done.solution.errors
    assert "again" not in says(done.findings)


def test_an_outline_that_crosses_itself_bounds_no_area() -> None:
    rows = "A = point, 40 right of O\nB = point, 40 right of O, 30 above\nC = point, 30 above O\n"
    bow = says(
        work_out(
            f"{HEAD}O = datum\n{rows}r = run, from O, to B, to A, to C, close\nrim = line in, r\n"
        ).findings
    )
    assert "the outline crosses itself, r.leg.1 with r.leg.3" in bow
    assert "rim is closed: perimeter 160 mm" in bow
    assert "area" not in bow
    box = says(
        work_out(
            f"{HEAD}O = datum\n{rows}r = run, from O, to A, to B, to C, close\nrim = line in, r\n"
        ).findings
    )
    assert "perimeter 140 mm, area 1200 mm²" in box


coordinates = st.floats(-40, 40).map(lambda v: round(v, 2))
points = st.builds(Point, coordinates, coordinates)
curves = st.one_of(
    st.tuples(points, points)
    .filter(lambda p: abs(p[0] - p[1]) > 1)
    .map(lambda p: Line.between(*p)),
    st.builds(Circle, points, st.floats(1, 30)),
    st.builds(Arc, points, st.floats(1, 30), st.floats(-3, 3), st.floats(0.3, 6)),
)


def sampled(curve: Line | Circle | Arc, parts: int = 1200) -> shapely.LineString:
    match curve:
        case Line():
            assert curve.end is not None
            spots = [curve.at(0.0), curve.at(curve.end)]
        case Circle():
            spots = [curve.at(math.tau * i / parts) for i in range(parts + 1)]
        case Arc():
            spots = [curve.at(curve.start + curve.sweep * i / parts) for i in range(parts + 1)]
    return shapely.LineString([(p.x, p.y) for p in spots])


@given(curves, curves)
def test_the_least_distance_of_two_curves_against_shapely(
    first: Line | Circle | Arc, second: Line | Circle | Arc
) -> None:
    """Curves sampled in 1200 parts miss by at most r(1 − cos(π/1200)), below 0.001 here."""
    distance, one, other = nearest(first, second)
    assert distance == pytest.approx(sampled(first).distance(sampled(second)), abs=2e-3)
    assert abs(one - other) == pytest.approx(distance, abs=1e-9)


@given(
    st.integers(20, 90),
    st.integers(20, 60),
    st.integers(-15, 15),
    st.integers(-15, 15),
    st.integers(1, 4),
)
def test_least_wall_and_material_of_a_pierced_plate_against_shapely(
    w: int, h: int, x: int, y: int, r: int
) -> None:
    rows = f"O = datum\nframe = box, {w} by {h}, centred on O\n{RIM}" + hole(x, y, r)
    done = work_out(HEAD + rows)
    plate = shapely.box(-w / 2, -h / 2, w / 2, h / 2)
    ring = shapely.Point(x, y)
    wall = plate.exterior.distance(ring) - r if plate.contains(ring) else -1.0
    told = says(list(done.findings))
    if wall > 0.01:
        (finding,) = [f for f in done.findings if f.rule == "wall"]
        assert float(finding.message.split()[2]) == pytest.approx(wall, abs=1e-3)
        area = w * h - math.pi * r * r
        (sum_,) = [f for f in done.findings if "material in all" in f.message]
        assert float(sum_.message.split()[3]) == pytest.approx(area, abs=1e-3)
    elif wall < -0.01:
        assert "runs across" in told or "outside the material" in told


@given(
    st.lists(
        st.tuples(st.integers(5, 40), st.integers(-20, 20), st.integers(1, 3)),
        min_size=1,
        max_size=4,
    ),
    st.integers(0, 8),
)
def test_a_mirrored_part_is_symmetric_until_one_piece_is_moved(
    holes: list[tuple[int, int, int]], off: int
) -> None:
    rows = "O = datum\nbig = circle, centre O, radius 90\nrim = line in, big\n"
    for index, (x, y, r) in enumerate(holes):
        rows += f"P{index} = point, {x} right of O, {y} above O\nc{index} = circle, centre P{index}, radius {r}\n"
        rows += f"m{index} = mirror, of c{index}, about O.plumb\na{index} = line in, c{index}\nb{index} = line in, m{index}\n"
    rows += f"Q = point, {off} right of O, 70 above O\nlast = circle, centre Q, radius 2\nz = line in, last\n"
    done = work_out(HEAD + rows + "must = check, symmetric about O.plumb\n")
    weights = {f.weight for f in done.findings if f.rule == "symmetry" and "O.plumb" in f.message}
    assert weights == ({"good"} if off == 0 else {"wrong"})
