"""Print the performance table: each measure beside its budget, all taken in one run on this machine."""

from __future__ import annotations

import gzip
import os
import re
import statistics
import subprocess
import sys
import tempfile
import time
import urllib.request
from collections.abc import Callable
from fractions import Fraction
from pathlib import Path

import sympy

from entrick.core.assist.regions import region_at
from entrick.core.desk import work_out
from entrick.core.dimensioning.suggest import suggest_dimensions
from entrick.core.display import draw_worksheet
from entrick.core.formats import write_pdf
from entrick.core.geometry import Circle, Point
from entrick.core.geometry.locus import around, beside, tangencies
from entrick.core.plan.reader import read_line
from entrick.core.summary import Summary
from entrick.demo import sample_plans
from entrick.store import add_job, open_store
from entrick.web import create_app
from entrick.web.serve import settle_memory

from .browser import repaint_milliseconds
from .plans import chain, crossed

ASSETS = Path("src/entrick/web/static/assets")


def median_ms(work: Callable[[int], object], rounds: int = 40) -> float:
    """Return the median time of one round in milliseconds, after a warm-up."""
    work(-1)
    times = []
    for index in range(rounds):
        start = time.perf_counter()
        work(index)
        times.append((time.perf_counter() - start) * 1000)
    return statistics.median(times)


def one_given(index: int) -> None:
    """Change a given that one eye and its blends use."""
    work_out(chain(60).replace("radius r + 0", f"radius {9 + (index + 2) / 1000}", 1))


def every_blend(index: int) -> None:
    """Change the radius every blend uses."""
    work_out(chain(60, 61 + (index + 2) / 100))


def unseen(index: int) -> None:
    """Work a plan out as the first time it is ever read."""
    read_line.cache_clear()
    work_out(chain(60, 71 + (index + 2) / 100))


def sample_part(name: str) -> Callable[[int], None]:
    """Return the work of changing the first given of a sample."""
    text = sample_plans()[name]
    given = re.search(r"^given (\w+) = (.+?)(?= \"|$)", text, re.MULTILINE)
    assert given is not None
    value = re.sub(r"^\d+× ", "", given[2])

    def work(index: int) -> None:
        factor = f"{1 + (index + 2) / 100_000:.5f}"
        changed = f"given {given[1]} = {value}*{factor}"
        done = work_out(text.replace(given[0], changed, 1))
        assert not done.solution.errors, done.solution.errors

    return work


def pick_of_thousand() -> Callable[[int], object]:
    """Return the work of picking a region among about a thousand pieces: 22 by 22 lines."""
    done = work_out(crossed(22))
    return lambda index: region_at(done.solution, [Point(1.5 + index % 9, 1.5), Point(2.5 + index % 9, 1.5)])


CURVES = {
    "polygon": "polygon, 7 sides, centred on O, {} across flats",
    "ellipse by circles": "ellipse, centred on O, axes {} and 56",
    "ellipse by four centres": "ellipse, centred on O, axes {} and 56, by four centres",
    "spiral": "spiral, about O, radius 10 to {}, 2 turns",
    "helix of three turns": "helix, from O, diameter {}, lead 12, 3 turns",
    "isometric circle": "isometric circle, centred on O, diameter {}, on top, by points",
    "isometric box": "isometric box, from O, {} by 40 by 30",
    "cylinder": "cylinder, from O, diameter {}, length 60, true",
    "screw of eight threads": "screw, from O, diameter {}, core diameter 60, lead 12, length 96, square",
    "stub": "stub, from O, diameter {}, length 24, step diameter 30, step length 30, rounded",
    "cone": "cone, from O, diameter {}, height 120, true",
}


def one_curve(row: str) -> Callable[[int], None]:
    """Return the work of laying out one curve whose size changes."""

    def work(index: int) -> None:
        done = work_out(f"units mm\nsheet A3\nO = datum\nc = {row.format(f'{80 + (index + 2) / 1000:.3f}')}\n")
        assert not done.solution.errors

    return work


def one_ring(index: int) -> None:
    """Lay out and line in a whole ring of 120 teeth by the true involute."""
    module = f"{3 + (index + 2) / 1000:.3f}"
    done = work_out(f"units mm\nsheet A1\nO = datum\nw = gear, about O, 120 teeth, module {module}\nrim = line in, w\n")
    assert not done.solution.errors


def one_cam(index: int) -> None:
    """Lay out the roller cam of the samples."""
    least = f"given r = {46 + (index + 2) / 1000:.3f}"
    done = work_out(sample_plans()["OY-072-paddle-lift-cam.entrick"].replace("given r = 46", least, 1))
    assert not done.solution.errors


def one_turn(index: int) -> None:
    """Draw the worksheet of that cam at another angle."""
    done = work_out(sample_plans()["OY-072-paddle-lift-cam.entrick"])
    sheet = next(e.made.worksheet for e in done.solution.entries if e.made and e.made.worksheet)
    draw_worksheet(sheet(float(index * 7 % 360)), done.solution.unit)


PROBLEMS = [(100 + d, 30, 20 + d % 7, 140 + 3 * d) for d in range(12)]


def ours(_: int) -> None:
    """Find the centres of blends around and beside two eyes by loci."""
    for d, r1, r2, radius in PROBLEMS:
        a, b = Circle(Point(0, 0), r1, Fraction(r1)), Circle(Point(d, 0), r2, Fraction(r2))
        for contact in (around, beside):
            tangencies([contact(a, radius)], [contact(b, radius)], radius)


def symbolic(_: int) -> None:
    """Find the same centres with a general symbolic-geometry library."""
    for d, r1, r2, radius in PROBLEMS:
        for sign in (-1, 1):
            one = sympy.Circle(sympy.Point(0, 0), radius + sign * r1)
            one.intersection(sympy.Circle(sympy.Point(d, 0), radius + sign * r2))


def cold_start(folder: str) -> float:
    """Return the seconds from starting the server on a register to its first answer."""
    compiled = {name: value for name, value in os.environ.items() if name != "PYTHONDONTWRITEBYTECODE"}
    start = time.perf_counter()
    process = subprocess.Popen(
        [sys.executable, "-m", "entrick.cli", "serve", "--port", "8497", "--database", f"{folder}/r.db"],
        env=compiled,
        stdout=subprocess.DEVNULL,
        stderr=subprocess.DEVNULL,
    )
    try:
        while time.perf_counter() - start < 30:
            try:
                with urllib.request.urlopen("http://127.0.0.1:8497/api/jobs", timeout=1):
                    return time.perf_counter() - start
            except OSError:
                time.sleep(0.01)
    finally:
        process.terminate()
        process.wait()
    raise RuntimeError("the server did not answer")


def start_seconds() -> float:
    """Return the median cold start once the register and Python's own compiled files are there."""
    with tempfile.TemporaryDirectory() as folder:
        return statistics.median([cold_start(folder) for _ in range(4)][1:])


def scripts_kb() -> float:
    """Return the compressed size of the scripts of the first view, kB."""
    return sum(len(gzip.compress(path.read_bytes())) for path in ASSETS.glob("*.js")) / 1000


def local_change(index: int) -> None:
    """Change a given that one eye of a plan of 480 statements and its blends use."""
    work_out(chain(480).replace("radius r + 0", f"radius {9 + (index + 2) / 1000}", 1))


def register_page() -> float:
    """Return the median time of a page of a register of 5,000 jobs, ms, whatever page and order."""
    orders = ["order=worked", "order=title", "order=drawing", "search=part", "order=entered"]
    with tempfile.TemporaryDirectory() as folder:
        store = open_store(Path(folder) / "register.db")
        with store.writing() as session:
            for number in range(5000):
                add_job(
                    session, "O = datum\n", made=Summary(f"Part {number * 7919 % 5000}", f"OY-{number}", "mm", "1:1")
                )
        client = create_app(store).test_client()
        found = median_ms(
            lambda i: client.get(
                f"/api/jobs?{orders[i % 5]}&page={1 + 13 * i % 90}", headers={"Host": "127.0.0.1"}
            ).get_data(),
            25,
        )
        store.close()
    return found


def main() -> None:
    """Measure and print."""
    settle_memory()
    large = work_out(chain(60).replace("A2", "A3"))
    rows: list[tuple[str, str, str]] = [
        ("read + solve + display, 60 statements, one given changed", f"{median_ms(one_given):.1f} ms", "10 ms"),
        ("the same, every blend changed", f"{median_ms(every_blend):.1f} ms", "10 ms"),
        ("the same, never read before", f"{median_ms(unseen, 20):.1f} ms", "20 ms"),
        ("480 statements, one given changed", f"{median_ms(local_change, 15):.1f} ms", "none"),
        ("a page of a register of 5,000 jobs", f"{register_page():.0f} ms", "100 ms"),
    ]
    rows += [
        (
            f"{name.removesuffix('.entrick')}, one given changed",
            f"{median_ms(sample_part(name), 20):.1f} ms",
            "15 ms" if name < "OY-06" else "none",  # the budget is for parts of lines and arcs
        )
        for name in sample_plans()
    ]
    rows += [
        (f"{kind} in a plan, its size changed", f"{median_ms(one_curve(row), 15):.1f} ms", "30 ms")
        for kind, row in CURVES.items()
    ]
    rows += [
        ("a gear of 120 teeth, its module changed", f"{median_ms(one_ring, 15):.1f} ms", "50 ms"),
        ("a cam of five events with its diagram, least distance changed", f"{median_ms(one_cam, 15):.1f} ms", "none"),
        ("the worksheet of that cam, turned", f"{median_ms(one_turn, 20):.1f} ms", "none"),
    ]
    slowest = sample_plans()["OY-055-pawl-spring-plate.entrick"]
    bare = slowest[: slowest.index("# finish")]
    rows += [
        ("a region picked among a thousand pieces", f"{median_ms(pick_of_thousand(), 10):.0f} ms", "100 ms"),
        ("proof of OY-055", f"{median_ms(lambda i: work_out(f'{slowest}# {i}').findings, 5):.0f} ms", "none"),
        (
            "dimensions suggested for OY-055",
            f"{median_ms(lambda _: suggest_dimensions(work_out(bare).solution), 3):.0f} ms",
            "none",
        ),
    ]
    rows += [
        ("change a given to repainted sheet, in the browser", f"{repaint_milliseconds():.0f} ms", "100 ms"),
        ("PDF of an A3 sheet", f"{median_ms(lambda _: write_pdf(large.display), 10):.0f} ms", "300 ms"),
        ("scripts for the first view, compressed", f"{scripts_kb():.0f} kB", "250 kB"),
        ("cold start to first answer, on a register already made", f"{start_seconds():.2f} s", "2 s"),
    ]
    print(f"{os.cpu_count()} cores, Python {sys.version.split()[0]}\n")
    print(f"{'measure':62}{'median':>12}{'budget':>12}")
    for name, value, budget in rows:
        print(f"{name:62}{value:>12}{budget:>12}")
    mine, theirs = median_ms(ours, 20), median_ms(symbolic, 3)
    print(f"\n{2 * len(PROBLEMS)} tangent-arc centres: by loci {mine:.2f} ms, by a general symbolic-geometry library "
          f"{theirs:.0f} ms: {theirs / mine:.0f} times")  # fmt: skip


if __name__ == "__main__":
    main()
