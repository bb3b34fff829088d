"""Files of other writers: tables of points as spreadsheets of any country write them, curves as drawing programs do."""

import cmath
import io
import math
import re
import time
from collections.abc import Callable
from itertools import pairwise
from typing import Any

import ezdxf
import pytest
from hypothesis import given
from hypothesis import strategies as st

from entrick.core.desk import work_out
from entrick.core.geometry import Circle, Point
from entrick.core.geometry.ellipse import Ellipse
from entrick.core.measure import Unit
from entrick.core.readback import read_back
from entrick.core.readback.conics import ellipse_through
from entrick.core.readback.profile import ProfileError, box_of
from entrick.core.readback.read import read_profile

BOX = [(0.0, 0.0), (60.5, 0.0), (60.5, 40.25), (0.0, 40.25)]

writings = st.fixed_dictionaries(
    {
        "sep": st.sampled_from([",", ";", "\t", "|", " "]),
        "comma": st.booleans(),
        "head": st.sampled_from(["", "x y", "n x y", "X [{u}] Y [{u}]", "Punkt x y"]),
        "unit": st.sampled_from(["mm", "in"]),
        "end": st.sampled_from(["\n", "\r\n"]),
        "code": st.sampled_from(["utf-8", "utf-8-sig", "utf-16"]),
        "says": st.booleans(),
        "remark": st.booleans(),
    }
)


@given(writings)
def test_an_outline_is_read_in_any_writing(writing: dict[str, object]) -> None:
    sep, head = str(writing["sep"]), str(writing["head"]).format(u=writing["unit"])
    decimal = "," if writing["comma"] and sep != "," else "."
    counts = head.startswith(("n ", "Punkt"))
    words = head.replace(" [", "[").split(" ") if head else []
    rows = [sep.join(words)] if words else []
    for number, (x, y) in enumerate(BOX, 1):
        cells = [str(number)] if counts else []
        cells += [f"{x:.2f}".replace(".", decimal), f"{y:.2f}".replace(".", decimal)]
        rows.append(sep.join(cells))
    if writing["says"] and sep not in (" ", "\t"):
        rows.insert(0, f"sep={sep}")
    if writing["remark"]:
        rows.insert(0, "# measured on Tuesday")
    text = str(writing["end"]).join([*rows, ""])
    profile = read_profile(text.encode(str(writing["code"])), "x.csv")
    low, high = box_of(profile.runs)
    assert (high.x - low.x, high.y - low.y) == pytest.approx((60.5, 40.25))
    assert profile.unit == (Unit(str(writing["unit"])) if "[" in head else None)


@pytest.mark.parametrize(
    ("text", "unit", "told"),
    [
        ("60 mm,0 mm\n60 mm,40 mm\n0 mm,40 mm\n", Unit.MM, ""),
        ('2",0"\n2",1"\n0",1"\n', Unit.INCH, ""),
        ("Part 7;\nx;y\nmm;mm\n0;0\n6;0\n6;4\n", Unit.MM, ""),
        ("1,0,0\n2,6,0\n3,6,4\n", None, "the first column counts the rows"),
        ("x,y,z\n0,0,0\n6,0,1\n6,4,2\n", None, "column 3 was left out"),
        ("0,0\n60,40\n60,0\n0,40\n", None, "crosses itself"),
        ("x;y\n0;0\n1.060,5;0\n1.060,5;40\n", None, ""),
    ],
)
def test_units_and_what_was_left_out_are_told(text: str, unit: Unit | None, told: str) -> None:
    profile = read_profile(text.encode(), "x.csv")
    assert profile.unit == unit
    assert told in " ".join(profile.told)
    assert bool(told) == bool(profile.told)


@pytest.mark.parametrize(
    ("text", "words"),
    [
        ("0,0x\n60,0\n60,40\n", "row 1: 0,0x is no point"),
        ("0,5,0,5\n6,5,0,5\n6,5,4,5\n", "may be two numbers with decimal commas, or four"),
        ("1e300,1\n2,3\n4,5\n", "row 1: a point lies farther away"),
        ("0,0\n1,1\n2,2\n", "all points lie on one line"),
        ("x,y\n1,2\n3\n", "row 3: 3 is no point"),
        ("", "three points"),
    ],
)
def test_a_table_that_is_no_outline_is_told_why(text: str, words: str) -> None:
    with pytest.raises(ProfileError, match=words):
        read_profile(text.encode(), "x.csv")


KAPPA = 0.5522847498
"""4/3 (√2 − 1): by how much of the radius the controls of a quarter stand out (common practice, no source)."""


def quarters(middle: complex, a: float, b: float, turn: float) -> str:
    """Write an ellipse as drawing programs do: four cubic curves, four decimals."""
    way = cmath.exp(1j * turn)
    ends = [a, 1j * b, -a, -1j * b, a]

    def said(spot: complex) -> str:
        at = middle + spot * way
        return f"{at.real:.4f},{at.imag:.4f}"

    rows = [f"M{said(a)}"]
    for p, q in pairwise(ends):
        rows.append(f"C{said(p + KAPPA * q)} {said(q + KAPPA * p)} {said(q)}")
    return "".join(rows) + "Z"


def picture(path: str) -> bytes:
    remark = '<!-- <svg width="3in" viewBox="0 0 1 1"> -->'
    size = 'width="400mm" height="400mm" viewBox="0 0 400 400"'
    return (
        f'{remark}<svg xmlns="http://www.w3.org/2000/svg" {size}><path d="{path}"/></svg>'.encode()
    )


@given(st.floats(5, 120), st.floats(0.2, 1), st.floats(0, 3.1))
def test_a_circle_or_an_ellipse_in_cubic_curves_is_one(a: float, share: float, turn: float) -> None:
    b = a if share > 0.97 else a * share
    ((found,),) = read_profile(picture(quarters(200 + 180j, a, b, turn)), "x.svg").runs
    if b == a:
        assert isinstance(found, Circle)
        assert found.radius == pytest.approx(a, abs=0.01)
    else:
        assert isinstance(found, Ellipse)
        assert (found.a, found.b) == (pytest.approx(a, abs=0.01), pytest.approx(b, abs=0.01))
    assert (found.centre.x, found.centre.y) == pytest.approx((200, -180), abs=0.01)


@given(st.integers(60, 140), st.integers(40, 100), st.integers(3, 15))
def test_a_plate_with_rounds_in_cubic_curves_has_three_numbers(
    wide: int, high: int, r: int
) -> None:
    k = r - r * KAPPA
    path = (
        f"M{r},0L{wide - r},0C{wide - k:.4f},0 {wide},{k:.4f} {wide},{r}"
        f"L{wide},{high - r}C{wide},{high - k:.4f} {wide - k:.4f},{high} {wide - r},{high}"
        f"L{r},{high}C{k:.4f},{high} 0,{high - k:.4f} 0,{high - r}L0,{r}C0,{k:.4f} {k:.4f},0 {r},0Z"
    )
    found = read_back(read_profile(picture(path), "x.svg"))
    assert found.numbers <= 3
    assert f"radius {r}" in found.text


def dxf(draw: Callable[[Any], None]) -> bytes:
    """Write a DXF with a general library."""
    document = ezdxf.new()  # type: ignore[attr-defined]
    draw(document)
    stream = io.StringIO()
    document.write(stream)
    return stream.getvalue().encode()


def test_a_spline_that_is_an_arc_comes_back_as_one() -> None:
    def draw(document: Any) -> None:
        space = document.modelspace()
        k = 10 * KAPPA
        space.add_open_spline([(50, 0), (50 + k, 0), (60, 10 - k), (60, 10)])
        for a, b in pairwise([(60, 10), (60, 40), (0, 40), (0, 0), (50, 0)]):
            space.add_line(a, b)

    found = read_back(read_profile(dxf(draw), "x.dxf"), Unit.MM)
    assert "radius 10" in found.text
    assert found.numbers <= 3


def inserted_in_itself(document: Any) -> None:
    block = document.blocks.new("EYE")
    block.add_circle((0, 0), 5)
    block.add_blockref("EYE", (20, 0))
    document.modelspace().add_blockref("EYE", (0, 0))


def on_paper(document: Any) -> None:
    document.layout("Layout1").add_circle((0, 0), 5)


@pytest.mark.parametrize(
    ("data", "words"),
    [
        (b"AC1027" + bytes(60), "this is a DWG"),
        (b"xxxx Binary DXF\r\n\x1a\0" + bytes(60), "in binary: save it as text"),
        (b"%PDF-1.7", "this is a PDF"),
        (dxf(inserted_in_itself), "the block EYE is inserted within itself"),
        (dxf(on_paper), "stands on a sheet of paper"),
    ],
    ids=["dwg", "binary", "pdf", "block", "paper"],
)
def test_a_file_that_is_no_drawing_is_told_what_it_is(data: bytes, words: str) -> None:
    with pytest.raises(ProfileError, match=words):
        read_profile(data, "x.dxf")


def test_what_rises_out_of_the_plane_is_told() -> None:
    def draw(document: Any) -> None:
        corners = [(0, 0, 0), (60, 0, 5), (60, 40, 0), (0, 40, 0), (0, 0, 0)]
        for a, b in pairwise(corners):
            document.modelspace().add_line(a, b)

    assert "2 pieces do not lie flat" in " ".join(read_profile(dxf(draw), "x.dxf").told)


def table(*outlines: list[complex], places: int = 3) -> bytes:
    rows = [
        "\n".join(f"{p.real:.{places}f},{p.imag:.{places}f}" for p in each) for each in outlines
    ]
    return "\n\n".join(rows).encode()


def ring(count: int, radius: float) -> list[complex]:
    return [cmath.rect(radius, math.tau * k / count) for k in range(count)]


@given(
    st.integers(250, 400),
    st.sets(st.integers(0, 59), min_size=1, max_size=2),
    st.floats(0.5, 3),
    st.sampled_from(["round", "box"]),
)
def test_points_that_lie_off_alone_are_left_out_and_told(
    count: int, which: set[int], off: float, shape: str
) -> None:
    """And nothing else is: the part without slips comes back with nothing told of points."""
    spots, middle = ring(count, 30), 0j
    if shape == "box":
        middle = 30 + 20j
        around = [complex(x, y) for x, y in ((0, 0), (60, 0), (60, 40), (0, 40), (0, 0))]
        sides = list(pairwise(around))
        spots = [a + (b - a) * k / 20 for a, b in sides for k in range(20)]
    clean = read_profile(table(spots, places=4), "x.csv")
    assert not any("left out" in row for row in clean.told)
    slipped = {k * len(spots) // 60 for k in which if 3 < (k * len(spots) // 60) % 20 < 17}
    for k in slipped:
        spots[k] += off * cmath.exp(1j * (cmath.phase(spots[k] - middle) + 0.2))
    found = read_profile(table(spots, places=4), "x.csv")
    told = " ".join(row for row in found.told if "left out" in row)
    if slipped and not any(b - a < 4 for a, b in pairwise(sorted(slipped))):
        assert told.startswith(f"{len(slipped)} point")
        places = [tuple(map(float, each)) for each in re.findall(r"(-?[\d.]+), (-?[\d.]+)", told)]
        for k in slipped:
            assert min(abs(complex(*place) - spots[k]) for place in places) < 1e-3
        assert read_back(found, Unit.MM).numbers <= 2


def test_what_is_round_or_oval_in_many_chords_is_so_whatever_the_decimals() -> None:
    oval = [
        complex(40 * math.cos(math.tau * k / 200), 25 * math.sin(math.tau * k / 200))
        for k in range(200)
    ]
    for data, numbers in (
        (table(oval), 2),
        (table(oval, places=6), 2),
        (table(ring(720, 40), ring(720, 21)), 2),
        (table(ring(720, 40), ring(720, 21), places=6), 2),
    ):
        begun = time.perf_counter()
        assert read_back(read_profile(data, "x.csv"), Unit.MM).numbers == numbers
        assert time.perf_counter() - begun < 20, "they took for ever; a busy machine is slow"


@given(st.floats(1.3, 4), st.floats(-3, 3), st.floats(5, 60), st.floats(-0.02, 0.02))
def test_the_ellipse_through_places_is_the_one_they_lie_on(
    ratio: float, turn: float, size: float, noise: float
) -> None:
    way = cmath.exp(1j * turn)
    spots = [
        (
            complex(size * math.cos(k / 7), size / ratio * math.sin(k / 7))
            * (1 + noise * (-1) ** k / 50)
        )
        * way
        + (12 - 7j)
        for k in range(44)
    ]
    whole = ellipse_through([Point(p.real, p.imag) for p in spots])
    assert whole is not None
    assert whole.centre == pytest.approx((12, -7), abs=0.05)
    assert (whole.a, whole.b) == pytest.approx((size, size / ratio), rel=5e-3)


def drawing(extra: str) -> bytes:
    """A plate with a bore, and what somebody drew beside its outlines."""
    document = ezdxf.new(units=4)
    document.layers.add("AXES", linetype="CENTER")
    document.linetypes.add("CENTER", [2.0, 1.25, -0.25, 0.25, -0.25])
    space = document.modelspace()
    space.add_lwpolyline([(-45, -30), (45, -30), (45, 30), (-45, 30)], close=True)
    space.add_circle((0, 0), 12)
    level, plumb = ((-52, 0), (52, 0)), ((0, -36), (0, 36))
    match extra:
        case "by layer":
            for ends in (level, plumb):
                space.add_line(*ends, dxfattribs={"layer": "AXES"})
        case "by line type":
            for ends in (level, plumb):
                space.add_line(*ends, dxfattribs={"linetype": "CENTER"})
        case "plain":
            for ends in (level, plumb, ((-14, 0), (14, 0))):
                space.add_line(*ends)
        case "over a side":
            space.add_line((-20, -30), (10, -30))
        case "another part":
            space.add_lwpolyline([(60, -10), (80, -10), (80, 10), (60, 10)], close=True)
            space.add_circle((70, 0), 5)
    out = io.StringIO()
    document.write(out)
    return out.getvalue().encode()


@pytest.mark.parametrize(
    ("extra", "told"),
    [
        ("by layer", "2 pieces drawn as centre or hidden lines left out"),
        ("by line type", "2 pieces drawn as centre or hidden lines left out"),
        ("plain", "3 centre lines left out"),
        ("over a side", "1 piece over a side of an outline left out"),
        ("", ""),
    ],
)
def test_what_is_drawn_beside_the_outlines_is_left_out_and_told(extra: str, told: str) -> None:
    found = read_back(read_profile(drawing(extra), "plate.dxf"))
    assert "rim1 = line in, b1" in found.text, found.text
    assert "hole1 = line in, c1" in found.text
    assert found.numbers == 3
    assert ", open" not in found.text
    assert told in " ".join(found.told)
    assert bool(told) == bool(found.told)


def test_a_cut_through_a_hole_is_kept_where_it_is_said_to_be_one() -> None:
    kept = read_profile(drawing("plain"), "plate.dxf", keep_centre_lines=True)
    assert (len(kept.runs), kept.centre_lines) == (5, 3)
    assert read_back(kept).text.count(", open") == 3
    assert [row for row in kept.told if "left out" in row] == []
    left = read_profile(drawing("plain"), "plate.dxf")
    assert (len(left.runs), left.centre_lines) == (2, 3)
    assert [row for row in left.told if "open" in row] == [], "what was left out does not stay open"


def test_two_parts_have_two_rims_and_a_groove_that_is_open_stays() -> None:
    found = read_back(read_profile(drawing("another part"), "plate.dxf"))
    assert found.text.count("rim") == 2
    assert found.text.count("hole") == 2
    open_ = read_back(
        read_profile(picture("M0 0H60V40H0ZM10 10L30 17").replace(b"<!--", b"<!-- "), "groove.svg")
    )
    assert ", open" in open_.text
    dashed = picture("M0 0H60V40H0Z").replace(
        b"</svg>", b'<path d="M5 5H9" stroke-dasharray="4 1"/></svg>'
    )
    assert any("broken lines" in row for row in read_profile(dashed, "x.svg").told)


def test_an_open_run_is_said_by_its_corners_and_its_rounds_go_on_touching() -> None:
    """A bent rod: no touch points as numbers, and with another radius it still runs without a corner."""
    path = "M0 0H40A10 10 0 0 0 50 -10V-50L80 -80"
    found = read_back(read_profile(picture(path), "rod.svg"), Unit.MM)
    assert "fillet, between" in found.text
    assert ", open" in found.text
    assert found.numbers <= 7, found.text
    for radius in (10, 14):
        (loop,) = work_out(found.text.replace("radius 10", f"radius {radius}")).outlines
        assert not loop.closed
        ways = [(a.direction(a.exit), b.direction(b.entry)) for a, b in pairwise(loop.pieces)]
        assert sum(abs(p.cross(q)) < 1e-9 for p, q in ways) == 2
