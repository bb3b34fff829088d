"""A profile exported, its history taken away, and read back: the same outlines, by conditions and few numbers."""

import io
import json
import math
import random
import re
import time
from pathlib import Path

import ezdxf
import pytest
from click.testing import CliRunner
from hypothesis import given
from hypothesis import strategies as st

from desk import HEAD, solved
from entrick.cli import main
from entrick.core.desk import Work, work_out
from entrick.core.formats import write_cutter_dxf, write_dxf
from entrick.core.geometry import Loop
from entrick.core.measure import Unit
from entrick.core.readback import ProfileError, ReadBack, Ways, read_back, read_profile
from entrick.core.readback.profile import Curve, length_of
from entrick.core.readback.simplest import simplest
from entrick.core.readback.symmetry import axes_of
from entrick.demo import sample_plans
from examples import IS_DEEP, some
from parts import SORTS, part

FINE = 1e-6
TOO_MANY = "066"
"""A spring and a screw as they are seen: more pieces than a plan may have lines."""
SAMPLES = [(name, text) for name, text in sorted(sample_plans().items()) if TOO_MANY not in name]
FLAT = [
    (name, text)
    for name, text in SAMPLES
    if any(
        number in name for number in ("014", "027", "031", "033", "036", "041", "044", "055", "063")
    )
]


def again(done: Work, within: float = FINE) -> ReadBack:
    data = write_cutter_dxf(done.outlines, done.solution.unit).encode()
    return read_back(read_profile(data, "part.dxf", within), None, within)


def alike(done: Work, other: Work, within: float) -> None:
    """Hold outlines to each other by what does not change when a part is moved: areas and lengths, one by one."""
    mine, theirs = (
        sorted((abs(loop.area), loop.length) for loop in each.outlines if loop.closed)
        for each in (done, other)
    )
    opened = [
        sum(loop.length for loop in each.outlines if not loop.closed) for each in (done, other)
    ]
    assert opened[1] == pytest.approx(opened[0], abs=within * 200)
    assert len(mine) == len(theirs)
    for (area, length), (area_again, length_again) in zip(mine, theirs, strict=True):
        assert area_again == pytest.approx(area, abs=within * length * 4)
        assert length_again == pytest.approx(length, abs=within * 60)


@pytest.mark.parametrize(
    ("name", "text"), some(SAMPLES, 8), ids=[name for name, _ in some(SAMPLES, 8)]
)
def test_a_sample_comes_back_with_its_outlines(name: str, text: str) -> None:
    done = work_out(text)
    found = again(done)
    other = work_out(found.text)
    assert other.solution.errors == ()
    assert other.solution.unit is done.solution.unit
    assert found.off <= FINE
    # What is seen of a round thing does not close, and of a cam no more is known than the arcs of its outline.
    assert not [told for told in found.told if "stay open" not in told and "in part" not in told]
    alike(done, other, FINE)


def test_what_no_plan_can_hold_is_told() -> None:
    (text,) = [text for name, text in sample_plans().items() if TOO_MANY in name]
    with pytest.raises(ProfileError, match="a plan holds at most 1000 lines"):
        again(work_out(text))


PER_SORT = 31 if IS_DEEP else 5


@pytest.mark.parametrize("sort", range(len(SORTS)), ids=[sort.__name__ for sort in SORTS])
def test_parts_made_up_at_random_come_back_by_no_more_numbers(sort: int) -> None:
    """Hundreds of parts: each outline within a millionth, no outline by coordinates, and on the whole hardly more numbers."""
    numbers = given_by = 0
    for seed in range(sort, sort + PER_SORT * len(SORTS), len(SORTS)):
        rows, count = part(seed)
        done = solved(rows)
        found = again(done)
        other = work_out(found.text)
        assert other.solution.errors == (), found.text
        assert found.off <= FINE
        assert found.told == (), (seed, found.text)
        alike(done, other, FINE)
        numbers, given_by = numbers + found.numbers, given_by + count
    assert numbers <= 1.3 * given_by


@pytest.mark.parametrize("seed", some(range(3 * len(SORTS)), 7))
def test_changed_by_a_tenth_a_part_read_back_stays_tangent_and_alike_on_both_sides(
    seed: int,
) -> None:
    found = again(solved(part(seed)[0]))
    before = work_out(found.text)
    smooth = [[junction.is_tangent for junction in loop.junctions] for loop in before.outlines]
    axes = axes_of([_run(loop) for loop in before.outlines], FINE)
    changed = 0
    for at in re.finditer(
        r"(?:given \w+ = [ØR]?|radius |diameter |side |by |wall |, )(\d+(?:\.\d+)?)(?=[,\n ]| by)",
        found.text,
    ):
        if found.text[at.end() :].startswith((" sides", " times", " about", " teeth", " on ")):
            continue
        text = found.text[: at.start(1)] + f"{float(at[1]) * 1.1:.6f}" + found.text[at.end() :]
        after = work_out(text)
        if after.solution.errors:
            continue  # what is asked for cannot be had: a blend too small, a hole beyond the rim
        changed += 1
        assert [
            [junction.is_tangent for junction in loop.junctions] for loop in after.outlines
        ] == smooth, text
        now = axes_of([_run(loop) for loop in after.outlines], FINE)
        assert now.plumb >= axes.plumb, text
        assert now.level >= axes.level, text
    assert changed


def _run(loop: Loop) -> tuple[Curve, ...]:
    return tuple(piece.curve for piece in loop.pieces)


def test_the_link_comes_back_as_it_was_given_by_seven_numbers() -> None:
    """Two eyes with their pins, one distance, two blends by what they touch: no coordinate of a touch point."""
    found = again(work_out(FLAT[0][1]))
    assert found.numbers == 7
    assert found.text.count(" = point") == 1
    rows = [row.partition(" = ")[2] for row in found.text.split("\n") if " = arc" in row]
    assert len(rows) == 2
    assert all(
        re.fullmatch(
            r"arc, radius \d+, touching c\d, touching c\d, (around|beside), (above|below)", row
        )
        for row in rows
    )
    # A given changed by a tenth: the blends still run into the eyes.
    changed = work_out(found.text.replace("radius 220", "radius 242"))
    assert changed.solution.errors == ()
    assert all(junction.is_tangent for loop in changed.outlines for junction in loop.junctions)


@given(
    st.integers(30, 90),
    st.integers(8, 28),
    st.integers(8, 28),
    st.integers(60, 240),
    st.integers(2, 7),
)
def test_any_link_comes_back_with_no_more_numbers(
    apart: int, a: int, b: int, blend: int, pin: int
) -> None:
    if blend < apart / 2 + max(a, b) + 8 or apart <= a + b:
        return
    rows = (
        f"A = point, {apart} right of O\na = circle, centre O, radius {a}\nb = circle, centre A, radius {b}\n"
        f"t = arc, radius {blend}, around a, around b, above\nu = arc, radius {blend}, around a, around b, below\n"
        f"p = circle, centre O, radius {pin}\nq = circle, centre A, radius {pin}\n"
        "rim = line in, a > t > b > u\nbore = line in, p\nother = line in, q\n"
    )
    done = work_out(HEAD + rows)
    if done.solution.errors:
        return
    found = again(done)
    assert found.numbers <= 7 * 1.3
    alike(done, work_out(found.text), FINE)


@given(st.integers(20, 120), st.integers(20, 80), st.integers(1, 9), st.integers(0, 6))
def test_a_plate_with_rounded_corners_comes_back_as_a_rounded_box(
    wide: int, high: int, rounded: int, hole: int
) -> None:
    rows = f"frame = box, {wide} by {high}, centred on O\nr = rounded, all corners of frame, radius {rounded}\nrim = line in, r\n"
    if hole:
        rows += f"c = circle, centre O, radius {hole}\nbore = line in, c\n"
    done = solved(rows)
    found = again(done)
    assert f"rounded, all corners of b1, radius {rounded}" in found.text or wide == high
    alike(done, work_out(found.text), FINE)


@pytest.mark.parametrize(
    ("value", "unit", "within", "said"),
    [
        (0.28125, Unit.INCH, 1e-6, "9/32"),
        (2.625001, Unit.INCH, 1e-4, "2 5/8"),
        (0.3, Unit.INCH, 1e-6, "0.3"),
        (44.0000003, Unit.MM, 1e-5, "44"),
        (12.5, Unit.MM, 1e-6, "12.5"),
        (1e-9, Unit.MM, 1e-6, "0"),
        (73.61216, Unit.MM, 1e-5, "73.61216"),
    ],
)
def test_a_number_is_the_simplest_within_the_tolerance(
    value: float, unit: Unit, within: float, said: str
) -> None:
    assert simplest(value, unit, within) == said


@given(st.floats(0.001, 5000), st.sampled_from(list(Unit)), st.sampled_from([1e-6, 1e-4, 1e-2]))
def test_the_simplest_number_lies_within(value: float, unit: Unit, within: float) -> None:
    text = simplest(value, unit, within)
    worth = sum(
        int(a) / int(b)
        if (b := part.partition("/")[2]) and (a := part.partition("/")[0])
        else float(part)
        for part in text.split()
    )
    assert abs(worth - value) <= within * 1.0001


def dxf(draw: str, units: int = 4) -> bytes:
    document = ezdxf.new()
    document.header["$INSUNITS"] = units
    space = document.modelspace()
    corners = [(0, 0), (40, 0), (40, 20), (0, 20)]
    for a, b in zip(corners, [*corners[1:], corners[0]], strict=True):
        space.add_line(a, b)
    exec(draw, {"space": space, "document": document})
    stream = io.StringIO()
    document.write(stream)
    return stream.getvalue().encode()


@pytest.mark.parametrize(
    ("draw", "words"),
    [
        ("space.add_line((0, 0), (40, 0))", "lay over others"),
        ("space.add_line((100, 0), (140, 5))", "1 piece closes with no others"),
        ("space.add_spline([(0, 0), (5, 5), (9, 0)])", "followed by arcs"),
        ("space.add_text('rim')", ""),
        ("space.add_line((3, 3), (3, 3))", "no length"),
        (
            "b = document.blocks.new('HOLE'); b.add_circle((0, 0), 3); space.add_blockref('HOLE', (10, 10))",
            "",
        ),
    ],
)
def test_what_is_mended_or_left_out_of_a_file_is_told(draw: str, words: str) -> None:
    profile = read_profile(dxf(draw), "x.dxf", 1e-4)
    assert words in " ".join(profile.told)
    found = read_back(profile, None, 1e-4)
    assert "box, 40 by 20" in found.text, found.text
    assert (re.search(r"(radius 3|diameter 6)$", found.text, re.M) is not None) == (
        "add_circle" in draw
    )


def test_gaps_within_the_tolerance_are_closed_and_told_and_wider_ones_are_not() -> None:
    rows = "0,0\n40,0\n40,20\n0,20\n"
    assert (
        "box, 40 by 20" in read_back(read_profile(rows.encode(), "x.csv", 1e-4), Unit.MM, 1e-4).text
    )
    loose = dxf(
        "space.add_line((50, 0), (60, 0.0)); space.add_line((60.02, 0), (55, 9)); space.add_line((55, 9), (50, 0))"
    )
    assert "ends up to 0.02 apart" in " ".join(read_profile(loose, "x.dxf", 0.05).told)
    assert "3 pieces close with no others" in " ".join(read_profile(loose, "x.dxf", 0.001).told)


def test_a_noisy_file_comes_back_with_the_simplest_numbers_within() -> None:
    """Corners off by up to 0.04 mm come back as a box of whole millimetres, within the tolerance asked."""
    rows = "x,y\n0.031,-0.02\n39.98,0.018\n40.02,20.03\n-0.03,19.97\n"
    found = read_back(read_profile(rows.encode(), "x.csv", 0.06), Unit.MM, 0.06)
    assert work_out(found.text).solution.errors == ()
    assert found.off <= 0.06


@pytest.mark.parametrize(
    ("data", "name", "words"),
    [
        (b"", "x.dxf", "no DXF|no line"),
        (b"hello", "x.dxf", "no DXF|no line"),
        (b"1,2\n3,4\n", "x.csv", "three points"),
        (b"1,2\nx\n3,4\n5,6\n", "x.csv", "row 2"),
        (b"x", "x.pdf", "a profile is"),
        (b"nan,1\n2,3\n4,5\n", "x.csv", "is no point"),
    ],
)
def test_what_is_no_profile_is_told(data: bytes, name: str, words: str) -> None:
    with pytest.raises(ProfileError, match=words):
        read_profile(data, name, 1e-3)


@given(st.binary(max_size=300))
def test_whatever_is_in_a_file_is_read_or_told(data: bytes) -> None:
    for name in ("x.dxf", "x.csv"):
        try:
            profile = read_profile(data, name, 1e-3)
        except ProfileError:
            continue
        assert all(
            math.isfinite(p.radius) for run in profile.runs for p in run if hasattr(p, "radius")
        )


@pytest.mark.parametrize(("name", "text"), FLAT)
def test_of_a_whole_drawing_only_what_is_lined_in_is_read(name: str, text: str) -> None:
    done = work_out(text)
    whole = read_profile(write_dxf(done.display, done.solution.unit).encode(), "part.dxf", FINE)
    bare = read_profile(
        write_cutter_dxf(done.outlines, done.solution.unit).encode(), "part.dxf", FINE
    )
    told = " ".join(whole.told)
    assert "pieces on other layers than OUTLINE left out" in told
    lengths = [sorted(sum(map(length_of, run)) for run in each.runs) for each in (whole, bare)]
    assert lengths[0] == pytest.approx(lengths[1], abs=FINE)


def test_from_the_shell_a_profile_becomes_a_plan(tmp_path: Path) -> None:
    plan, file, out = tmp_path / "a.entrick", tmp_path / "a.dxf", tmp_path / "b.entrick"
    plan.write_text(FLAT[0][1], "utf-8")
    run = CliRunner().invoke
    assert run(main, ["draw", str(plan), "--cutter", "-o", str(file)]).exit_code == 0
    done = run(main, ["read-back", str(file), "-o", str(out), "--within", "0.00001", "--json"])
    assert done.exit_code == 0, done.output
    assert json.loads(done.output)["numbers"] == 7
    assert run(main, ["check", str(out)]).exit_code == 0
    (tmp_path / "x.dxf").write_text("hello", "utf-8")
    assert run(main, ["read-back", str(tmp_path / "x.dxf"), "-o", str(out)]).exit_code == 1


def many(draw: str) -> bytes:
    document = ezdxf.new()
    document.header["$INSUNITS"] = 4
    space = document.modelspace()
    space.add_lwpolyline([(0, 0), (1000, 0), (1000, 1000), (0, 1000)], close=True)
    r = random.Random(3)
    for k in range(961):
        x, y = 30 * (k % 31) + 20, 30 * (k // 31) + 20
        match draw:
            case "grid":
                space.add_circle((x, y), 4)
            case "anywhere":
                space.add_circle((r.randrange(10, 990), r.randrange(10, 990)), r.randrange(2, 6))
            case "slots" if k < 248:
                corners = [(x, y, 0), (x + 16, y, 1), (x + 16, y + 8, 0), (x, y + 8, 1)]
                space.add_lwpolyline(corners, format="xyb", close=True)
    stream = io.StringIO()
    document.write(stream)
    return stream.getvalue().encode()


@pytest.mark.parametrize("draw", some(["grid", "slots", "anywhere"], 2))
def test_a_thousand_pieces_are_read_back_in_time(draw: str) -> None:
    """Two seconds are aimed at; a slow machine may take some times as long."""
    data = many(draw)
    begun = time.process_time()
    found = read_back(read_profile(data, "x.dxf"))
    assert time.process_time() - begun < 12
    assert found.off < 1e-6
    assert len(work_out(found.text).outlines) == len(read_profile(data, "x.dxf").runs)
    if draw != "anywhere":
        assert found.numbers <= 9


@pytest.mark.parametrize(
    "asked", [Ways(datum="corner"), Ways(copies=False), Ways(plainly=True)], ids=str
)
@pytest.mark.parametrize("number", ["014", "031", "044", "063"])
def test_a_profile_is_said_otherwise_where_that_is_asked_for(number: str, asked: Ways) -> None:
    (text,) = [text for name, text in FLAT if number in name]
    done = work_out(text)
    data = write_cutter_dxf(done.outlines, done.solution.unit).encode()
    found = read_back(read_profile(data, "part.dxf", FINE), None, FINE, ways=asked)
    assert found.numbers >= again(done).numbers
    alike(done, work_out(found.text), 2 * FINE)
