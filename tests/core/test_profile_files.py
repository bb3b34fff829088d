"""Files a profile comes in: each format read as its standard has it, mended where it can be, refused with the reason."""

import io
import math
import random
import time

import ezdxf
import pytest
from hypothesis import given
from hypothesis import strategies as st

from desk import solved
from entrick.core.desk import work_out
from entrick.core.formats import write_svg
from entrick.core.geometry import Arc, Circle, Line, Loop, Point
from entrick.core.geometry.ellipse import Ellipse
from entrick.core.measure import Unit
from entrick.core.readback import ProfileError, read_back, read_profile
from entrick.core.readback.clean import clean
from entrick.core.readback.hidden_arcs import with_arcs
from entrick.core.readback.profile import Profile, in_unit, loop_of
from entrick.demo import sample_plans
from examples import some
from parts import part


def svg(body: str, head: str = 'width="100mm" height="80mm" viewBox="0 0 100 80"') -> bytes:
    return f'<svg xmlns="http://www.w3.org/2000/svg" {head}>{body}</svg>'.encode()


def dxf(units: int = 4) -> tuple[ezdxf.document.Drawing, ezdxf.layouts.Modelspace]:
    document = ezdxf.new()
    document.header["$INSUNITS"] = units
    return document, document.modelspace()


def of(document: ezdxf.document.Drawing, within: float | None = None, **more: object) -> Profile:
    stream = io.StringIO()
    document.write(stream)
    return read_profile(stream.getvalue().encode(), "x.dxf", within, **more)  # type: ignore[arg-type]


def sizes(profile: Profile) -> list[tuple[float, float]]:
    return sorted(
        (round(abs(loop_of(run).area), 4), round(loop_of(run).length, 4)) for run in profile.runs
    )


SQUARE = "M10 10 h20 v20 h-20 z"


@pytest.mark.parametrize(
    ("body", "head", "area", "unit"),
    [
        (f'<path d="{SQUARE}"/>', 'width="100mm" height="80mm" viewBox="0 0 100 80"', 400, Unit.MM),
        (f'<path d="{SQUARE}"/>', 'width="50mm" height="40mm" viewBox="0 0 100 80"', 100, Unit.MM),
        (f'<path d="{SQUARE}"/>', 'width="10cm" height="8cm" viewBox="0 0 100 80"', 400, Unit.MM),
        (f'<path d="{SQUARE}"/>', 'width="4in" height="3in" viewBox="0 0 100 75"', 0.64, Unit.INCH),
        (f'<path d="{SQUARE}"/>', 'viewBox="0 0 100 80"', 400, None),
        (f'<path d="{SQUARE}"/>', 'width="100" height="80"', 400, None),
        (
            f'<g transform="translate(5 5) scale(2)"><path transform="rotate(30)" d="{SQUARE}"/></g>',
            "",
            1600,
            None,
        ),
        ('<rect x="1" y="1" width="20" height="20"/>', "", 400, None),
        ('<polygon points="0,0 20,0 20,20 0,20"/>', "", 400, None),
        (f'<path d="{SQUARE}"/><path display="none" d="M0 0h5v5z"/>', "", 400, None),
    ],
)
def test_a_path_is_read_in_the_units_of_its_picture(
    body: str, head: str, area: float, unit: Unit | None
) -> None:
    """SVG 2, section 8: a viewBox is laid on the width that is said; what it is drawn through turns and enlarges it."""
    profile = read_profile(svg(body, head), "x.svg")
    assert profile.unit is unit
    assert [area] == [pytest.approx(a, rel=1e-6) for a, _ in sizes(profile)]


def test_arcs_and_ellipses_of_a_picture_are_what_they_are() -> None:
    body = (
        '<path d="M30 20 A20 20 0 0 1 -10 20 L-10 0 H30 Z"/><circle cx="60" cy="20" r="7"/>'
        '<ellipse cx="70" cy="50" rx="20" ry="9" transform="rotate(15 70 50)"/>'
        '<path d="M80 20 a9 5 0 0 1 -18 0 a9 5 0 0 1 18 0"/>'
    )
    profile = read_profile(svg(body), "x.svg")
    assert [type(run[0]) for run in profile.runs if len(run) == 1].count(Circle) == 1
    ovals = [run[0] for run in profile.runs if isinstance(run[0], Ellipse)]
    assert sorted((round(each.a, 6), round(each.b, 6)) for each in ovals) == [(9, 5), (20, 9)]
    # Upwards in a picture is downwards on paper: what leans one way there leans the other here.
    assert max(ovals, key=lambda each: each.a).major.angle % math.pi == pytest.approx(
        math.radians(165)
    )
    arcs = [piece for run in profile.runs for piece in run if isinstance(piece, Arc)]
    assert [(round(arc.radius, 6), round(abs(arc.sweep), 6)) for arc in arcs] == [
        (20, round(math.pi, 6))
    ]
    assert profile.told == ()


def test_a_bezier_curve_is_followed_within_the_tolerance() -> None:
    profile = read_profile(svg('<path d="M0 0 C10 20 30 20 40 0 Z"/>'), "x.svg", 1e-3)
    assert "followed by arcs within 0.001" in " ".join(profile.told)
    loop = loop_of(profile.runs[0])
    for k in range(101):
        t = k / 100
        x, y = (
            30 * t * (1 - t) ** 2 + 90 * t**2 * (1 - t) + 40 * t**3,
            60 * t * (1 - t) ** 2 + 60 * t**2 * (1 - t),
        )
        assert loop.distance(Point(x, -y)) < 1.1e-3


def test_what_is_all_open_comes_back_open() -> None:
    """A bent line, and arcs of half a turn and of more, that stop where they stop."""
    body = '<path d="M5 5 L60 5 L60 30"/><path d="M20 30 a10 10 0 0 1 20 0"/><path d="M70 30 a6 6 0 1 1 3 4"/>'
    found = read_back(read_profile(svg(body), "x.svg"))
    profile = read_profile(svg(body), "x.svg")
    lengths = sorted(loop.length for loop in work_out(found.text).outlines)
    assert lengths == pytest.approx(sorted(loop_of(run).length for run in profile.runs), abs=1e-3)
    assert not any(loop.closed for loop in work_out(found.text).outlines)


@pytest.mark.parametrize("number", ["027", "031", "036", "044", "063", "074"])
def test_a_sheet_written_as_a_picture_comes_back_at_full_size(number: str) -> None:
    """Six decimals on paper, at the scale the sheet was drawn to: what is lined in comes back, and its plan's unit."""
    (text,) = [text for name, text in sample_plans().items() if number in name]
    done = work_out(text)
    profile = read_profile(write_svg(done.display, True, done.solution.unit).encode(), "x.svg")
    assert profile.unit is done.solution.unit
    found = read_back(profile)
    assert found.off < 5e-5
    other = work_out(found.text)
    assert sorted(loop.length for loop in other.outlines) == pytest.approx(
        sorted(loop.length for loop in done.outlines), abs=2e-4
    )


def test_ellipses_splines_and_curves_seen_from_behind_are_read_from_a_dxf() -> None:
    document, space = dxf()
    space.add_ellipse((0, 0), (30, 0), 0.5)
    space.add_ellipse((100, 0), (20, 0), 1.0, 0, math.pi)
    space.add_line((80, 0), (120, 0))
    space.add_arc((50, 0), 8, 0, 90, dxfattribs={"extrusion": (0, 0, -1)})
    space.add_line((-50, 0), (-50, 8))
    space.add_line((-50, 0), (-58, 0))
    space.add_spline(dxfattribs={}).set_closed([(0, 60, 0), (20, 80, 0), (40, 60, 0), (20, 50, 0)])
    profile = of(document)
    areas = [area for area, _ in sizes(profile)]
    assert round(math.pi * 64 / 4, 4) in areas, "an arc seen from behind closes with its lines"
    assert round(math.pi * 200, 4) in areas
    assert any(isinstance(run[0], Ellipse) for run in profile.runs)
    assert "followed by arcs" in " ".join(profile.told)


@pytest.mark.parametrize(
    ("code", "unit", "by"),
    [
        (4, Unit.MM, 1),
        (1, Unit.INCH, 1),
        (5, Unit.MM, 10),
        (6, Unit.MM, 1000),
        (2, Unit.INCH, 12),
        (0, None, 1),
    ],
)
def test_units_of_a_dxf(code: int, unit: Unit | None, by: float) -> None:
    """$INSUNITS of the DXF reference: 0 none, 1 inches, 2 feet, 4 mm, 5 cm, 6 m."""
    document, space = dxf(code)
    space.add_circle((0, 0), 2)
    profile = of(document)
    assert profile.unit is unit
    assert profile.runs[0][0].radius == pytest.approx(2 * by)  # type: ignore[union-attr]


def test_layers_are_a_choice_and_blocks_are_taken_apart_however_deep() -> None:
    document, space = dxf()
    inner = document.blocks.new("INNER")
    inner.add_circle((1, 0), 1)
    outer = document.blocks.new("OUTER")
    outer.add_blockref("INNER", (5, 0), dxfattribs={"rotation": 90, "xscale": 2, "yscale": 2})
    space.add_blockref("OUTER", (10, 0), dxfattribs={"layer": "HOLES"})
    space.add_lwpolyline(
        [(0, -20), (40, -20), (40, 20), (0, 20)], close=True, dxfattribs={"layer": "RIM"}
    )
    profile = of(document)
    circle = next(run[0] for run in profile.runs if isinstance(run[0], Circle))
    assert (circle.centre, circle.radius) == (pytest.approx((15, 2)), pytest.approx(2))
    assert set(profile.layers) >= {"RIM"}
    assert len(of(document, layers=["RIM"]).runs) == 1


def test_a_file_of_another_encoding_and_of_an_old_release_is_read() -> None:
    document = ezdxf.new("R12")
    document.encoding = "cp1252"
    document.layers.add("Überzug")
    document.modelspace().add_circle((0, 0), 3, dxfattribs={"layer": "Überzug"})
    stream = io.StringIO()
    document.write(stream)
    profile = read_profile(stream.getvalue().encode("cp1252", "replace"), "x.dxf")
    assert [type(run[0]) for run in profile.runs] == [Circle]


@pytest.mark.parametrize("make", ["lines", "points", "paths"])
def test_a_hundred_thousand_pieces_are_refused_in_time(make: str) -> None:
    if make == "lines":
        row = "  0\nLINE\n  8\n0\n 10\n{0}\n 20\n0\n 11\n{0}\n 21\n1\n"
        data = (
            "  0\nSECTION\n  2\nENTITIES\n"
            + "".join(row.format(k) for k in range(100_000))
            + "  0\nENDSEC\n  0\nEOF\n"
        ).encode()
    elif make == "points":
        data = "\n".join(f"{k},{k % 7}" for k in range(100_000)).encode()
    else:
        data = svg('<path d="M0 0' + "".join(f"l1 {k % 5}" for k in range(100_000)) + 'z"/>')
    begun = time.process_time()
    with pytest.raises(ProfileError, match=r"at most 20000 pieces|no DXF"):
        read_profile(data, {"lines": "x.dxf", "points": "x.csv", "paths": "x.svg"}[make])
    assert time.process_time() - begun < 60


@pytest.mark.parametrize(
    "data",
    [
        b'<!DOCTYPE svg [<!ENTITY a "aaaa"><!ENTITY b "&a;&a;">]><svg>&b;</svg>',
        b"<svg",
        b"",
        b"<html></html>",
        b'<svg><path d="M0 0 q"/></svg>',
        b'<svg width="0mm" viewBox="0 0 0 0"><path d="M0 0h1v1z"/></svg>',
        b'<svg><path d="M0 0 h1e400 v1 z"/></svg>',
        b'<svg><use href="#a" id="a"/></svg>',
    ],
)
def test_a_broken_picture_is_told(data: bytes) -> None:
    with pytest.raises(ProfileError, match=r"SVG|svg"):
        read_profile(data, "x.svg")


@given(st.text(alphabet="MmLlHhVvCcSsQqTtAaZz0123456789-., e", max_size=60))
def test_whatever_is_in_a_path_is_read_or_told(path: str) -> None:
    try:
        profile = read_profile(svg(f'<path d="{path}"/>'), "x.svg")
    except ProfileError:
        return
    assert all(math.isfinite(loop_of(run).length) for run in profile.runs)


def points_along(loop: Loop, step: float, noise: float, r: random.Random) -> str:
    rows = []
    for piece in loop.pieces:
        for k in range(count := max(1, round(piece.length / step))):
            share, curve = k / count, piece.curve
            if isinstance(curve, Line):
                x, y = piece.entry + (piece.exit - piece.entry) * share
            else:
                x, y = curve.at(
                    math.tau * share
                    if isinstance(curve, Circle)
                    else curve.start + curve.sweep * share
                )
            rows.append(f"{x + r.uniform(-noise, noise):.6f},{y + r.uniform(-noise, noise):.6f}")
    return "\n".join(rows)


@pytest.mark.parametrize(
    ("seed", "step", "noise"),
    some(
        [
            (seed, *each)
            for seed in (0, 1, 5, 7, 11, 15, 21)
            for each in ((0.7, 0.0), (0.7, 0.02), (0.1, 0.05), (0.1, 0.1))
        ],
        5,
    ),
)
def test_points_measured_along_a_part_come_back_as_its_lines_and_rounds(
    seed: int, step: float, noise: float
) -> None:
    """Plates, links, lobes and frames as rows of points, exact or each off, also by more than they lie apart: as few
    pieces as the part has, and within the tolerance asked."""
    done = solved(part(seed)[0])
    r = random.Random(seed)
    text = "\n\n".join(points_along(loop, step, noise, r) for loop in done.outlines)
    within = max(2.5 * noise, 1e-3)
    profile = read_profile(text.encode(), "x.csv", within)
    assert sorted(len(run) for run in profile.runs) == sorted(
        len(loop.pieces) for loop in done.outlines
    )
    found = read_back(profile, Unit.MM, within)
    assert found.off <= within
    assert work_out(found.text).solution.errors == ()
    lengths = [
        sorted(loop.length for loop in each.outlines) for each in (work_out(found.text), done)
    ]
    assert lengths[0] == pytest.approx(lengths[1], abs=20 * within)


@given(st.integers(12, 90), st.floats(2, 80), st.floats(0, 6), st.floats(1, 5.5))
def test_chords_along_an_arc_are_the_arc(
    count: int, radius: float, start: float, sweep: float
) -> None:
    if sweep / count > math.radians(20):
        return
    arc = Arc(Point(3.0, -2.0), radius, start, sweep)
    spots = [arc.at(start + sweep * k / count) for k in range(count + 1)]
    run = tuple(Line.between(a, b) for a, b in zip(spots, [*spots[1:], spots[0]], strict=True))
    found = with_arcs(run, radius * 1e-6)
    (round_,) = [piece for piece in found if isinstance(piece, Arc)]
    assert (round_.radius, abs(round_.sweep)) == (
        pytest.approx(radius, rel=1e-6),
        pytest.approx(sweep, rel=1e-5),
    )
    assert len(found) == 2


@given(st.integers(3, 11), st.floats(5, 50))
def test_a_regular_polygon_is_none(sides: int, radius: float) -> None:
    spots = [
        Point(radius * math.cos(math.tau * k / sides), radius * math.sin(math.tau * k / sides))
        for k in range(sides)
    ]
    run = tuple(Line.between(a, b) for a, b in zip(spots, [*spots[1:], spots[0]], strict=True))
    assert with_arcs(run, 1e-4) == run


@given(st.randoms(use_true_random=False), st.integers(0, 39))
def test_pieces_in_any_order_and_direction_are_gathered_into_the_same_outlines(
    r: random.Random, seed: int
) -> None:
    done = solved(part(seed)[0])
    curves = []
    for loop in done.outlines:
        for piece in loop.pieces:
            curve = piece.curve
            if isinstance(curve, Line):
                a, b = piece.entry, piece.exit
                curves.append(Line.between(a, b) if r.random() < 0.5 else Line.between(b, a))
            else:
                curves.append(curve)
    r.shuffle(curves)
    told: list[str] = []
    runs = clean(curves, 1e-6, told)
    mine = sorted(round(loop.length, 5) for loop in done.outlines)
    assert sorted(round(loop_of(run).length, 5) for run in runs) == pytest.approx(mine, abs=1e-4)
    assert not [row for row in told if "open" in row]


@pytest.mark.parametrize("seed", [3, 8, 9])
def test_the_plan_is_in_the_unit_that_was_asked_for_or_that_explains_its_numbers(seed: int) -> None:
    document, space = dxf(4)
    for x in (-1, 1):
        space.add_circle((25.4 * x * seed / 4, 0), 25.4 * 5 / 16)
    space.add_lwpolyline([(-76.2, -38.1), (76.2, -38.1), (76.2, 38.1), (-76.2, 38.1)], close=True)
    profile = of(document)
    found = read_back(profile)
    assert found.unit is Unit.INCH
    assert "diameter 5/8" in found.text
    assert "rounder in in" in " ".join(found.told)
    assert read_back(profile, Unit.MM).unit is Unit.MM
    assert in_unit(profile, Unit.INCH).runs[-1][0].radius == pytest.approx(5 / 16)  # type: ignore[union-attr]


@pytest.mark.parametrize("seed", [1, 2, 3, 12, 13, 22, 24, 36])
def test_places_off_by_as_much_as_is_allowed_still_come_back_within_it(seed: int) -> None:
    """Every 1.5 mm a place that is off by up to 0.05 across and up; asked for is 0.05: hardly more numbers than it has."""
    rows, count = part(seed)
    done = solved(rows)
    r = random.Random(seed)
    text = "\n\n".join(points_along(loop, 1.5, 0.05, r) for loop in done.outlines)
    found = read_back(read_profile(text.encode(), "x.csv", 0.05), Unit.MM, 0.05)
    assert found.numbers <= 1.3 * count + 1
    lengths = [
        sorted(loop.length for loop in each.outlines) for each in (work_out(found.text), done)
    ]
    assert lengths[0] == pytest.approx(lengths[1], abs=0.6)


@given(st.integers(1, 100_000))
def test_points_in_no_order_are_read_back_somehow_or_told(seed: int) -> None:
    """Whatever closed outline somebody measures, it comes back within the tolerance, or it is told why not."""
    r = random.Random(seed)
    count = r.randrange(3, 30)
    corners = [(40 + r.uniform(-12, 12)) for _ in range(count)]
    spots = [
        (size * math.cos(math.tau * k / count), size * math.sin(math.tau * k / count))
        for k, size in enumerate(corners)
    ]
    text = "\n".join(f"{x:.3f},{y:.3f}" for x, y in spots)
    found = read_back(read_profile(text.encode(), "x.csv"), Unit.MM)
    assert found.off <= 2.01e-3, "two in its last decimal"
    (loop,) = work_out(found.text).outlines
    area = (
        sum(a * d - b * c for (a, b), (c, d) in zip(spots, [*spots[1:], spots[0]], strict=True)) / 2
    )
    assert abs(loop.area) == pytest.approx(abs(area), rel=1e-3)
