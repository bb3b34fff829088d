"""Files are read back by independent libraries and measured."""

import csv
import io
import json
import math
import re
import socket
import subprocess
import sys
import xml.etree.ElementTree as ET
from pathlib import Path

import ezdxf
import pytest
from click.testing import CliRunner
from ezdxf import units
from pypdf import PdfReader

from entrick.cli import main
from entrick.core import formats
from entrick.core.desk import Work, work_out
from entrick.core.formats.run_sheet import write_run_sheet
from entrick.core.geometry import Arc, Circle
from entrick.core.plan.reader import read_plan
from entrick.core.plan.writer import write_plan
from entrick.demo import sample_plans

POINTS_PER_MM = 72 / 25.4
"""ISO 32000-1, 8.3.2.3: a unit of default user space is 1/72 in."""


@pytest.fixture(params=[name for name in sorted(sample_plans()) if name < "OY-06"])
def sample(request: pytest.FixtureRequest, samples: dict[str, str]) -> Work:
    return work_out(samples[request.param])


def segments(pdf: bytes) -> list[tuple[float, float, float, float]]:
    """Return the straight strokes of a PDF in mm, by its own page content and transforms."""
    page = PdfReader(io.BytesIO(pdf)).pages[0]
    content = page.get_contents()
    assert content is not None
    found, stack, scale, at = [], [], 1.0, (0.0, 0.0)
    for operands, operator in content.operations:
        numbers = [
            float(n)
            for n in operands
            if isinstance(n, int | float) or re.fullmatch(r"-?[\d.]+", str(n))
        ]
        if operator == b"q":
            stack.append(scale)
        elif operator == b"Q":
            scale = stack.pop()
        elif operator == b"cm":
            assert numbers[1] == numbers[2] == 0
            scale *= numbers[0]
        elif operator == b"m":
            at = (numbers[0], numbers[1])
        elif operator == b"l":
            found.append(tuple(v * scale / POINTS_PER_MM for v in (*at, numbers[0], numbers[1])))
            at = (numbers[0], numbers[1])
    return found  # type: ignore[return-value]


def test_a_line_of_100_mm_measures_100_mm_on_the_page() -> None:
    done = work_out("units mm\nO = datum\nA = point, 100 right of O\nl = line, from O to A\n")
    pdf = formats.write_pdf(done.display)
    page = PdfReader(io.BytesIO(pdf)).pages[0]
    assert float(page.mediabox.width) / POINTS_PER_MM == pytest.approx(297, abs=0.01)
    assert float(page.mediabox.height) / POINTS_PER_MM == pytest.approx(210, abs=0.01)
    lengths = [math.hypot(x2 - x1, y2 - y1) for x1, y1, x2, y2 in segments(pdf)]
    assert any(length == pytest.approx(100, abs=1e-3) for length in lengths)


def test_an_inch_plan_at_half_size_measures_half(samples: dict[str, str]) -> None:
    done = work_out(
        "units in\nsheet A4, scale 1:2\nO = datum\nA = point, 4 right of O\nl = line, from O to A\n"
    )
    lengths = [
        math.hypot(x2 - x1, y2 - y1) for x1, y1, x2, y2 in segments(formats.write_pdf(done.display))
    ]
    assert any(length == pytest.approx(2 * 25.4, abs=1e-3) for length in lengths)


def test_the_title_strip_can_be_read_from_the_pdf(sample: Work) -> None:
    text = (
        PdfReader(io.BytesIO(formats.write_pdf(sample.display, sample.solution.title)))
        .pages[0]
        .extract_text()
    )
    assert sample.solution.title in text
    assert sample.solution.drawing in text


def test_the_dxf_is_sound_at_full_size_with_true_arcs_and_layers_by_role(sample: Work) -> None:
    document = ezdxf.read(io.StringIO(formats.write_dxf(sample.display, sample.solution.unit)))
    auditor = document.audit()
    assert not auditor.errors
    assert not auditor.fixes
    assert document.units == (units.MM if sample.solution.unit == "mm" else units.IN)
    outline = document.modelspace().query('*[layer=="OUTLINE"]')
    pieces = [
        p for e in sample.solution.entries if e.made for loop in e.made.loops for p in loop.pieces
    ]
    assert len(outline) == len(pieces)
    for piece, entity in zip(
        sorted(pieces, key=key), sorted(outline, key=lambda e: key_of(e)), strict=True
    ):
        match piece.curve:
            case Arc() as arc:
                assert entity.dxftype() == "ARC"
                assert tuple(entity.dxf.center)[:2] == pytest.approx(
                    (arc.centre.x, arc.centre.y), abs=1e-9
                )
                assert entity.dxf.radius == pytest.approx(arc.radius)
                for end in (arc.first, arc.last):
                    spots = (entity.start_point, entity.end_point)
                    assert min(math.hypot(p.x - end.x, p.y - end.y) for p in spots) < 1e-6
                turned = (entity.dxf.end_angle - entity.dxf.start_angle) % 360
                assert turned == pytest.approx(abs(math.degrees(arc.sweep)))
            case Circle() as circle:
                assert entity.dxftype() == "CIRCLE"
                assert entity.dxf.radius == pytest.approx(circle.radius)
            case _:
                assert entity.dxftype() == "LINE"


def key(piece) -> tuple[str, float, float, float]:  # type: ignore[no-untyped-def]
    curve = piece.curve
    if isinstance(curve, Arc | Circle):
        return (
            "ARC" if isinstance(curve, Arc) else "CIRCLE",
            round(curve.centre.x, 6),
            round(curve.radius, 6),
            round(curve.centre.y, 6),
        )
    return ("LINE", round(min(piece.entry.x, piece.exit.x), 6), 0.0, 0.0)


def key_of(entity) -> tuple[str, float, float, float]:  # type: ignore[no-untyped-def]
    if entity.dxftype() == "LINE":
        return ("LINE", round(min(entity.dxf.start.x, entity.dxf.end.x), 6), 0.0, 0.0)
    centre, radius = entity.dxf.center, entity.dxf.radius
    return (entity.dxftype(), round(centre.x, 6), round(radius, 6), round(centre.y, 6))


def test_a_clean_dxf_holds_no_construction_and_a_cutters_the_outline_alone(sample: Work) -> None:
    document = ezdxf.read(
        io.StringIO(formats.write_dxf(sample.display, sample.solution.unit, construction=False))
    )
    assert not {e.dxf.layer for e in document.modelspace()} & {
        "CONSTRUCTION",
        "POINT",
        "LETTER",
        "GUIDE",
        "STRIP",
    }
    cutter = ezdxf.read(
        io.StringIO(formats.write_cutter_dxf(sample.outlines, sample.solution.unit))
    )
    assert {e.dxf.layer for e in cutter.modelspace()} == {"OUTLINE"}
    assert len(list(cutter.modelspace())) == len(sample.outlines)


def test_a_cutters_dxf_closes_and_encloses_the_area_that_was_proved(sample: Work) -> None:
    """Re-read by another library: every outline one closed polyline with true arcs or a circle, of the same area."""
    cutter = ezdxf.read(
        io.StringIO(formats.write_cutter_dxf(sample.outlines, sample.solution.unit))
    )
    for entity, loop in zip(cutter.modelspace(), sample.outlines, strict=True):
        if entity.dxftype() == "CIRCLE":
            assert math.pi * entity.dxf.radius**2 == pytest.approx(abs(loop.area))
            continue
        assert entity.dxftype() == "LWPOLYLINE"
        assert entity.closed
        area = 0.0
        rows = list(entity.get_points("xyb"))
        for (x, y, bulge), (u, v, _) in zip(rows, [*rows[1:], rows[0]], strict=True):
            area += (x * v - u * y) / 2
            turn = 4 * math.atan(bulge)
            if bulge:
                radius = math.hypot(u - x, v - y) / (2 * abs(math.sin(turn / 2)))
                area += radius**2 * (turn - math.sin(turn)) / 2
        assert area == pytest.approx(loop.area)


def test_the_svg_is_in_millimetres_and_leaves_construction_out_when_told(sample: Work) -> None:
    kept = ET.fromstring(formats.write_svg(sample.display))
    assert kept.get("width") == f"{sample.sheet.width:.6g}mm"
    assert kept.get("viewBox") == f"0 0 {sample.sheet.width:.6g} {sample.sheet.height:.6g}"
    clean = ET.fromstring(formats.write_svg(sample.display, construction=False))
    assert len(clean) < len(kept)
    shapes = [e for e in clean.iter() if e.get("stroke-width") == "0.5"]
    assert len(shapes) == sum(m.role == "outline" for m in sample.display.marks)


def test_text_in_files_is_escaped() -> None:
    done = work_out('plan "<b>&amp;"\nO = datum\n')
    assert any(e.text == "<b>&amp;" for e in ET.fromstring(formats.write_svg(done.display)).iter())


def test_settings_as_csv(sample: Work) -> None:
    rows = list(csv.DictReader(io.StringIO(formats.settings_csv(sample.steps, sample.kit))))
    assert len(rows) == len(sample.steps)
    for row, step in zip(rows, sample.steps, strict=True):
        assert row["instrument"] == step.tool
        if step.setting:
            assert float(row["drawn"]) == pytest.approx(step.setting.drawn, rel=1e-5)


def test_data_of_a_solution_holds_the_figure(samples: dict[str, str]) -> None:
    done = work_out(samples["OY-014-paddle-pawl-link.entrick"])
    data = json.loads(json.dumps(formats.solution_data(done)))
    assert data["circles"]["eyeA"] == {"centre": [-120.0, 0.0], "radius": 66.0}
    top = data["arcs"]["top"]
    assert math.dist(top["centre"], [-120, 0]) == pytest.approx(220 - 66)
    assert math.dist(top["centre"], [120, 0]) == pytest.approx(220 - 44)
    for angle, end in ((top["start_angle"], "start"), (top["end_angle"], "end")):
        spot = [
            top["centre"][0] + 220 * math.cos(math.radians(angle)),
            top["centre"][1] + 220 * math.sin(math.radians(angle)),
        ]
        assert min(math.dist(spot, top["start"]), math.dist(spot, top["end"])) < 1e-9, end
    assert data["outlines"]["rim"]["closed"]
    assert len(data["outlines"]["rim"]["pieces"]) == 4
    assert data["outlines"]["bore"]["area"] == pytest.approx(math.pi * 38**2)
    assert {s["instrument"] for s in data["settings"]} >= {"compass", "rule", "straightedge"}


def shell(*arguments: str) -> subprocess.CompletedProcess[str]:
    """Give a command to the shell, in this process."""
    told = CliRunner().invoke(main, list(arguments))
    return subprocess.CompletedProcess(arguments, told.exit_code, told.stdout, told.stderr)


def process(*arguments: str) -> subprocess.CompletedProcess[str]:
    """Give a command to the shell, in a process of its own."""
    return subprocess.run(
        [sys.executable, "-m", "entrick.cli", *arguments],
        capture_output=True,
        text=True,
        check=False,
    )


def test_the_shell_solves_draws_and_checks(tmp_path: Path, samples: dict[str, str]) -> None:
    plan = tmp_path / "part.entrick"
    plan.write_text(samples["OY-027-latch-plate.entrick"], "utf-8")
    solved = shell("solve", str(plan), "--json")
    assert solved.returncode == 0
    assert json.loads(solved.stdout)["outlines"]["rim"]["closed"]
    assert "swing from A" in shell("solve", str(plan)).stdout
    for ending in ("pdf", "svg", "dxf", "csv"):
        out = tmp_path / f"part.{ending}"
        assert shell("draw", str(plan), "-o", str(out)).returncode == 0
        assert out.stat().st_size > 500
    assert shell("draw", str(plan), "-o", "part.png").returncode == 2
    assert shell("check", str(plan)).returncode == 0
    plan.write_text(
        samples["OY-027-latch-plate.entrick"].replace("beside bossA", "beside bosA"), "utf-8"
    )
    checked = shell("check", str(plan))
    assert checked.returncode == 1
    assert "did you mean beside bossA" in checked.stdout
    assert shell("solve", str(plan)).returncode == 1
    plan.write_bytes(b"\xff\xfe")
    assert "not UTF-8" in shell("check", str(plan)).stderr


def test_sample_plans_are_proved_clean_and_written_canonically(samples: dict[str, str]) -> None:
    for text in samples.values():
        assert write_plan(read_plan(text)) == text
        assert not [
            f for f in work_out(text).findings if f.weight in ("wrong", "look") and f.rule != "cam"
        ]


def test_the_shell_says_what_is_wrong_beside_what_it_draws(tmp_path: Path) -> None:
    plan = tmp_path / "half.entrick"
    plan.write_text(
        "O = datum\nc = circle, centre O, radius 9\nd = circle, centre X, radius 4\n", "utf-8"
    )
    out = tmp_path / "half.svg"
    drawn = shell("draw", str(plan), "-o", str(out), "--clean")
    assert drawn.returncode == 0
    assert f"{plan}:3: nothing above is called X" in drawn.stderr
    assert out.read_text().startswith("<svg")
    assert shell("draw", str(plan), "-o", str(tmp_path / "half")).returncode == 2
    assert shell("check", str(tmp_path / "none.entrick")).returncode == 2
    plan.write_text("#\n" * 3000, "utf-8")
    assert "at most" in shell("solve", str(plan)).stderr


def test_a_port_in_use_is_said(tmp_path: Path) -> None:
    with socket.socket() as taken:
        taken.bind(("127.0.0.1", 0))
        taken.listen()
        port = taken.getsockname()[1]
        refused = process("serve", "--port", str(port), "--database", str(tmp_path / "r.db"))
    assert refused.returncode == 1
    assert f"port {port} cannot be used" in refused.stderr


def test_the_run_sheet_says_what_every_statement_makes() -> None:
    done = work_out(sample_plans()["OY-027-latch-plate.entrick"])
    pages = PdfReader(io.BytesIO(write_run_sheet(done))).pages
    text = re.sub(r"\s+", " ", " ".join(page.extract_text() for page in pages))
    led_to = {step.line for step in done.steps}
    for entry in done.solution.entries:
        assert entry.made is not None
        assert entry.line not in led_to or entry.made.sentence in text
