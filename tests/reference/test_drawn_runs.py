"""Curves of many arcs as SVG paths, PDF paths and DXF polylines, each re-read by something else and measured."""

import io
import math
import re
from functools import partial

import ezdxf
import ezdxf.path
import pytest
import shapely
from hypothesis import given
from hypothesis import strategies as st
from pypdf import PdfReader

from desk import solved
from entrick.core import formats
from entrick.core.desk import Work, work_out
from entrick.core.drawing.marks import DrawnRun, Lettering, moved, reach
from entrick.core.geometry import Loop, Point
from entrick.core.sheet.departure import on_sheet
from entrick.demo import sample_plans

HEAD = "units mm\nsheet A3 landscape, scale 1:1, border 10\nO = datum\n"
CURVES = [
    "e = ellipse, centred on O, axes 90 and 56, at 20\nrim = line in, e\n",
    "c = cylinder, from O, diameter 60, length 70, along right, true\nrim = line in, c\n",
    "c = cylinder, from O, diameter 60, length 70, true\nrim = line in, c\n",
]


def rim(done: Work) -> Loop:
    loop = done.solution.figure.items["rim"].shape
    assert isinstance(loop, Loop)
    return loop


def flattened(run: DrawnRun) -> shapely.Polygon:
    """Sample a run by its bulges, as a reader of the file would."""
    spots = []
    for x, y, u, v, bulge in run.stretches:
        if abs(bulge) < 1e-12:
            spots.append((x, y))
            continue
        turn = 4 * math.atan(bulge)
        rise = (1 - bulge * bulge) / (4 * bulge)
        cx, cy = (x + u) / 2 - (v - y) * rise, (y + v) / 2 + (u - x) * rise
        r, start = math.hypot(x - cx, y - cy), math.atan2(y - cy, x - cx)
        spots += [
            (cx + r * math.cos(start + turn * k / 16), cy + r * math.sin(start + turn * k / 16))
            for k in range(16)
        ]
    return shapely.Polygon(spots)


@pytest.mark.parametrize("rows", CURVES)
def test_a_run_read_by_its_bulges_has_the_area_of_the_outline(rows: str) -> None:
    done = solved(rows)
    runs = [m for m in done.display.marks if isinstance(m, DrawnRun) and m.role == "outline"]
    if len(runs) == 1 and runs[0].closed:
        assert flattened(runs[0]).area == pytest.approx(abs(rim(done).area), rel=2e-4)
    low, high = rim(done).box
    spots = [spot for run in runs for spot in reach(run)]
    spots += [
        spot
        for m in done.display.marks
        if m.role == "outline" and not isinstance(m, DrawnRun)
        for spot in reach(m)
    ]
    assert max(x for x, _ in spots) - min(x for x, _ in spots) == pytest.approx(
        high.x - low.x, rel=2e-2
    )


@pytest.mark.parametrize("rows", CURVES)
def test_the_svg_path_of_a_run_goes_through_its_corners(rows: str) -> None:
    done = solved(rows)
    svg = formats.write_svg(done.display, construction=False)
    height = done.display.height
    for run in (m for m in done.display.marks if isinstance(m, DrawnRun) and m.role == "outline"):
        path = next(
            p
            for p in re.findall(r' d="([^"]+)"', svg)
            if p.startswith(f"M{run.corners[0][0]:.6f} {height - run.corners[0][1]:.6f}")
        )
        ends = re.findall(r"[AL](?:[\d.e-]+ [\d.e-]+ 0 [01] [01] )?(-?[\d.]+) (-?[\d.]+)", path)
        wanted = [(u, height - v) for _, _, u, v, _ in run.stretches]
        assert len(ends) == len(wanted)
        assert [(float(x), float(y)) for x, y in ends] == [
            pytest.approx(spot, abs=1e-5) for spot in wanted
        ]


def test_the_pdf_of_a_run_keeps_to_the_curve() -> None:
    """Every end of a Bézier piece in the PDF lies on the ellipse (ISO 32000-1: operands of c are control points)."""
    done = solved(CURVES[0])
    page = PdfReader(io.BytesIO(formats.write_pdf(done.display, construction=False))).pages[0]
    content = page.get_contents()
    assert content is not None
    ellipse = rim(done).stands_for
    assert ellipse is not None
    ends = [
        (float(operands[4]), float(operands[5]))
        for operands, operator in content.operations
        if operator == b"c"
    ]
    assert len(ends) >= 20
    for x, y in ends:
        assert ellipse.distance(done.sheet.on_plan(type(ellipse.centre)(x, y))) < 5e-3


@given(
    st.integers(20, 90),
    st.integers(5, 19),
    st.integers(0, 170),
    st.sampled_from(["1:1", "1:2", "2:1"]),
)
def test_an_ellipse_in_dxf_is_full_size_whatever_the_scale(
    a: int, b: int, tilt: int, scale: str
) -> None:
    done = work_out(
        f"units mm\nsheet A1, scale {scale}\nO = datum\ne = ellipse, centred on O, axes {2 * a} and {2 * b}, at {tilt}\nrim = line in, e\n"
    )
    (entity,) = ezdxf.read(
        io.StringIO(formats.write_cutter_dxf(done.outlines, done.solution.unit))
    ).modelspace()
    assert entity.dxf.major_axis.magnitude == pytest.approx(a)
    assert entity.dxf.ratio == pytest.approx(b / a)
    assert math.degrees(
        math.atan2(entity.dxf.major_axis.y, entity.dxf.major_axis.x)
    ) % 180 == pytest.approx(tilt, abs=1e-6)


def test_a_run_is_moved_with_its_bulges() -> None:
    run = next(m for m in solved(CURVES[0]).display.marks if isinstance(m, DrawnRun))
    again = moved(run, 3.0, -2.0, 7, 9)
    assert isinstance(again, DrawnRun)
    assert (again.line, again.step) == (7, 9)
    assert again.corners[0] == (run.corners[0][0] + 3, run.corners[0][1] - 2, run.corners[0][2])


@pytest.mark.parametrize("name", [name for name in sorted(sample_plans()) if name > "OY-06"])
def test_sample_jobs_of_curves_are_issued_in_every_format(name: str) -> None:
    done = work_out(sample_plans()[name])
    assert not [f for f in done.findings if f.weight in ("wrong", "look") and f.rule != "cam"]
    file = ezdxf.read(io.StringIO(formats.write_dxf(done.display, done.solution.unit)))
    assert not file.audit().errors
    outline = [m for m in done.display.marks if m.role == "outline"]
    assert len(file.modelspace().query('*[layer=="OUTLINE"]')) == len(outline)
    assert (
        PdfReader(io.BytesIO(formats.write_pdf(done.display, done.solution.title)))
        .pages[0]
        .extract_text()
    )
    assert "<path" in formats.write_svg(done.display)
    assert "compass" in formats.settings_csv(done.steps, done.kit)


@pytest.mark.parametrize("within", [0.5, 0.05, 0.005])
@pytest.mark.parametrize("how", ["arcs", "polyline"])
def test_a_true_ellipse_in_dxf_keeps_within_the_tolerance_asked_for(
    how: str, within: float
) -> None:
    done = solved("e = ellipse, centred on O, axes 90 and 56, at 20\nrim = line in, e\n")
    text = formats.write_cutter_dxf(done.outlines, done.solution.unit, formats.Ovals(how, within))
    (entity,) = ezdxf.read(io.StringIO(text)).modelspace().query("LWPOLYLINE")
    assert entity.closed
    ellipse = rim(done).stands_for
    assert ellipse is not None
    path = ezdxf.path.make_path(entity)
    spots = list(path.flattening(within / 100))
    assert max(ellipse.distance(Point(p.x, p.y)) for p in spots) <= within * 1.02
    finer = formats.write_cutter_dxf(
        done.outlines, done.solution.unit, formats.Ovals(how, within / 4)
    )
    (more,) = ezdxf.read(io.StringIO(finer)).modelspace().query("LWPOLYLINE")
    assert len(more) >= len(entity)


def test_an_ellipse_by_four_centres_shows_the_true_one_beside_it_and_what_the_line_hides() -> None:
    done = solved("e = ellipse, centred on O, axes 90 and 56, by four centres\n")
    made = done.solution.entries[-1].made
    assert made is not None
    beside = [
        s.shape
        for step in done.steps
        for s in step.strokes
        if isinstance(s.shape, Loop) and s.shape.stands_for
    ]
    assert beside
    assert made.departs is not None
    told = on_sheet(made.departs, done.sheet)
    assert f"{made.departs:.2f} mm on paper" in told
    assert ("hides all" in told) == (made.departs <= 0.25)


def test_lettering_on_an_isometric_plane_leans_in_every_file() -> None:
    done = solved(
        "b = isometric box, from O, 60 by 40 by 30\nd = dimension, from b.near to b.right_low, isometric left\n"
    )
    leaning = [m for m in done.display.marks if isinstance(m, Lettering) and m.slant]
    assert leaning
    text = formats.write_dxf(done.display, done.solution.unit)
    assert {
        round(t.dxf.oblique) for t in ezdxf.read(io.StringIO(text)).modelspace().query("TEXT")
    } >= {round(m.slant) for m in leaning}
    assert "matrix(" in formats.write_svg(done.display)
    content = PdfReader(io.BytesIO(formats.write_pdf(done.display))).pages[0].get_contents()
    assert content is not None
    skewed = [
        ops
        for ops, name in content.operations
        if name in (b"cm", b"Tm") and abs(float(ops[2])) > 0.1
    ]
    assert skewed


solved = partial(solved, head=HEAD)
