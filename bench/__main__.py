"""Print the performance table: each measure beside its budget, all taken in one run on this
machine."""

from __future__ import annotations

import gzip
import json
import math
import os
import re
import statistics
import sys
import tempfile
import time
from collections.abc import Callable, Sequence
from fractions import Fraction
from itertools import groupby, pairwise
from pathlib import Path

import sympy

from entrick.core.assist.regions import region_at
from entrick.core.board.order import acts_of
from entrick.core.board.schedule import scheduled
from entrick.core.desk import work_out
from entrick.core.dimensioning.suggest import suggest_dimensions
from entrick.core.display import DisplayList, DrawnDot, DrawnLine, Lettering, Mark, draw_worksheet
from entrick.core.formats import write_pdf, write_svg
from entrick.core.geometry import Circle, Point
from entrick.core.geometry.locus import around, beside, tangencies
from entrick.core.plan.reader import read_line
from entrick.core.rehearsal.rehearse import rehearse
from entrick.core.summary import Summary
from entrick.demo import sample_plans
from entrick.store import add_job, open_store
from entrick.web.http.app import create_app
from entrick.web.workers.pool import tune_gc

from .browser import repaint_milliseconds, served
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
    return lambda index: region_at(
        done.solution, [Point(1.5 + index % 9, 1.5), Point(2.5 + index % 9, 1.5)]
    )


CURVES = {
    "polygon": "polygon, 7 sides, centred on O, {} across corners",
    "ellipse by circles": "ellipse, centred on O, axes {} and 56",
    "ellipse by four centres": "ellipse, centred on O, axes {} and 56, by four centres",
    "spiral": "spiral, about O, radius 10 to {}, 2 turns",
    "helix of three turns": "helix, from O, diameter {}, lead 12, 3 turns",
    "isometric circle": "isometric circle, centred on O, diameter {}, on top, by points",
    "isometric box": "isometric box, from O, {} by 40 by 30",
    "cylinder": "cylinder, from O, diameter {}, length 60, true",
    "screw of eight threads": "screw, from O, diameter {}, core diameter 60, lead 12, length 96, "
    "square",
    "stub": "stub, from O, diameter {}, length 24, step diameter 30, step length 30, rounded",
    "cone": "cone, from O, diameter {}, height 120, true",
}


def one_curve(row: str) -> Callable[[int], None]:
    """Return the work of laying out one curve whose size changes."""

    def work(index: int) -> None:
        done = work_out(
            f"units mm\nsheet A3\nO = datum\nc = {row.format(f'{80 + (index + 2) / 1000:.3f}')}\n"
        )
        assert not done.solution.errors

    return work


def one_ring(index: int) -> None:
    """Lay out and line in a whole ring of 120 teeth by the true involute."""
    module = f"{3 + (index + 2) / 1000:.3f}"
    done = work_out(
        f"units mm\nsheet A1\nO = datum\nw = gear, about O, 120 teeth, module {module}\nrim = "
        "line in, w\n"
    )
    assert not done.solution.errors


def one_turn(index: int) -> None:
    """Draw the worksheet of that cam at another angle."""
    done = work_out(sample_plans()["OY-072-paddle-lift-cam.entrick"])
    sheet = next(e.made.worksheet for e in done.solution.entries if e.made and e.made.worksheet)
    draw_worksheet(sheet(float(index * 7 % 360)), done.solution.unit)


PROBLEMS = [(100 + d, 30, 20 + d % 7, 140 + 3 * d) for d in range(12)]


def ours(_: int) -> None:
    """Find the centres and touch points of blends around and beside two eyes by loci."""
    for d, r1, r2, radius in PROBLEMS:
        a, b = Circle(Point(0, 0), r1, Fraction(r1)), Circle(Point(d, 0), r2, Fraction(r2))
        for contact in (around, beside):
            tangencies([contact(a, radius)], [contact(b, radius)], radius)


def by_hand(_: int) -> None:
    """Find the same by hand-written floats and nothing else."""
    for d, r1, r2, radius in PROBLEMS:
        for sign in (-1, 1):
            one, two = radius + sign * r1, radius + sign * r2
            along = (d + (one - two) * (one + two) / d) / 2
            across = math.sqrt(one * one - along * along)
            for y in (across, -across):
                near, far = sign * r1 / one, sign * r2 / two
                (along * near, y * near), (d + (along - d) * far, y * far)


def symbolic(_: int) -> None:
    """Find the same centres with a general symbolic-geometry library."""
    for d, r1, r2, radius in PROBLEMS:
        for sign in (-1, 1):
            one = sympy.Circle(sympy.Point(0, 0), radius + sign * r1)
            one.intersection(sympy.Circle(sympy.Point(d, 0), radius + sign * r2))


def cold_start(register: Path) -> float:
    """Return the seconds from starting the server on a register to its first answer."""
    start = time.perf_counter()
    with served(register):
        return time.perf_counter() - start


def start_seconds() -> float:
    """Return the median cold start once the register and Python's own compiled files are there."""
    with tempfile.TemporaryDirectory() as folder:
        return statistics.median([cold_start(Path(folder) / "r.db") for _ in range(4)][1:])


def scripts_kb() -> float:
    """Return the compressed size of the scripts of the first view, the register, kB."""
    manifest = json.loads((ASSETS.parent / ".vite/manifest.json").read_text())
    wanted, found = ["index.html", "src/pages/index.tsx"], set[str]()
    while wanted:
        chunk = manifest[wanted.pop()]
        if chunk["file"] not in found:
            found.add(chunk["file"])
            wanted += chunk.get("imports", [])
    files = [ASSETS.parent / name for name in found if name.endswith(".js")]
    return sum(len(gzip.compress(path.read_bytes())) for path in files) / 1000


SIZES = (60, 120, 240, 480, 960)


def local_change(statements: int) -> Callable[[int], None]:
    """Return the work of changing a given that one eye of a plan of that many statements and its
    blends use."""

    def work(index: int) -> None:
        work_out(
            chain(statements).replace(
                "radius r + 0", f"radius {9 + (index + 2) / 1000 + statements / 1e6:.6f}", 1
            )
        )

    return work


def cost_picture(costs: dict[int, float], path: Path) -> None:
    """Draw what a local change costs against the size of the plan: across statements, upwards
    milliseconds."""
    left, low, wide, tall = 25.0, 20.0, 160.0, 90.0
    most = max(costs.values()) * 1.1
    marks: list[Mark] = [
        DrawnLine(left, low, left + wide, low, "dimension"),
        DrawnLine(left, low, left, low + tall, "dimension"),
        Lettering("statements", left + wide, low - 14, 3.5, "end"),
        Lettering("one local change, ms", left, low + tall + 4, 3.5),
    ]
    spots = {
        size: (left + wide * size / max(costs), low + tall * ms / most)
        for size, ms in costs.items()
    }
    marks += [DrawnLine(*one, *other, "outline") for one, other in pairwise(spots.values())]
    for size, (x, y) in spots.items():
        marks += [DrawnDot(x, y, "outline"), Lettering(f"{costs[size]:.1f}", x, y + 3, 3.5, "end")]
        marks += [
            DrawnLine(x, low, x, low - 2, "dimension"),
            Lettering(str(size), x, low - 8, 3.5, "middle"),
        ]
    path.parent.mkdir(exist_ok=True)
    path.write_text(write_svg(DisplayList(left + wide + 15, low + tall + 15, tuple(marks))))


def findings_after(name: str) -> float:
    """Return the median time to inspect a sample after its first given changed, ms."""
    text = sample_plans()[name]
    given = re.search(r"^given (\w+) = (.+?)(?= \"|$)", text, re.MULTILINE)
    assert given is not None
    work_out(text).findings  # noqa: B018 - it is worked out by asking
    times = []
    for index in range(5):
        value = re.sub(r"^\d+× ", "", given[2])
        done = work_out(
            text.replace(given[0], f"given {given[1]} = {value}*{1 + (index + 2) / 100_000:.5f}", 1)
        )
        start = time.perf_counter()
        assert done.findings
        times.append((time.perf_counter() - start) * 1000)
    return statistics.median(times)


def suggested(name: str) -> float:
    """Return the time to suggest dimensions for a sample that has none, ms."""
    rows = [row for row in sample_plans()[name].splitlines() if "= dimension" not in row]
    solution = work_out("\n".join(rows) + "\n").solution
    start = time.perf_counter()
    suggest_dimensions(solution)
    return (time.perf_counter() - start) * 1000


def at_the_board(what: str) -> float:
    """Return the time to rehearse, or to schedule, the plan of 60 statements, ms."""
    done = work_out(chain(60, 61))
    acts = [act for own in acts_of(done.solution, done.sheet) for act in own.acts]
    start = time.perf_counter()
    if what == "rehearse":
        rehearse(done.solution, done.sheet)
    else:
        scheduled(acts, "settings")
    return (time.perf_counter() - start) * 1000


def spread(values: Sequence[float]) -> str:
    """Tell the middle and the worst of several."""
    return f"{statistics.median(values):.0f} ms, worst {max(values):.0f}"


def register_page() -> float:
    """Return the median time of a page of a register of 5,000 jobs, ms, whatever page and order."""
    orders = ["order=worked", "order=title", "order=drawing", "search=part", "order=entered"]
    with tempfile.TemporaryDirectory() as folder:
        store = open_store(Path(folder) / "register.db")
        with store.writing() as session:
            for number in range(5000):
                add_job(
                    session,
                    "O = datum\n",
                    made=Summary(f"Part {number * 7919 % 5000}", f"OY-{number}", "mm", "1:1"),
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


def orders() -> dict[str, tuple[str, str]]:
    """Return jobs of which a skilled hand's orders of work are known, each with its steps and
    settings."""
    samples = sample_plans()
    top = "units mm\nsheet A3 landscape, scale 1:2\nO = datum, middle of sheet\n"
    return {
        "link with blends": (samples["OY-014-paddle-pawl-link.entrick"], "25 / 12"),
        "link with slot": (
            f"{top}A = point, 80 left of O\nB = point, 80 right of O\n"
            "eyeA = circle, centre A, radius 30\neyeB = circle, centre B, radius 20\n"
            "pinA = circle, centre A, diameter 20\npinB = circle, centre B, diameter 20\n"
            "t1 = line, touching eyeA, touching eyeB, outer, above\n"
            "t2 = line, touching eyeA, touching eyeB, outer, below\n"
            "s = slot, centred on O, length 60, width 20\nrim = line in, eyeA > t1 > eyeB > t2\n"
            "h1 = line in, pinA\nh2 = line in, pinB\nh3 = line in, s\n",
            "33 / 9",
        ),
        "ellipse by trammel": (
            f"{top}e = ellipse, centred on O, axes 120 and 80, by trammel\nrim = line in, e\n",
            "58 / 11",
        ),
        "cam of 24 stations": (
            f"{top}c = cam, about O, least 40, rise 120° by 30 harmonic, dwell 60°, "
            "fall 120° by 30 harmonic, dwell 60°, 24 parts\nrim = line in, c\n",
            "75",
        ),
        "paddle-lift cam, with its diagram": (samples["OY-072-paddle-lift-cam.entrick"], "120"),
    }


def main() -> None:
    """Measure and print."""
    tune_gc()
    large = work_out(chain(60).replace("A2", "A3"))
    costs = {size: median_ms(local_change(size), 15) for size in SIZES}
    cost_picture(costs, Path("build/cost-of-a-change.svg"))
    names = list(sample_plans())
    samples = {name: median_ms(sample_part(name), 12) for name in names}
    curves = {kind: median_ms(one_curve(row), 10) for kind, row in CURVES.items()}
    mine, plain, theirs = median_ms(ours, 40), median_ms(by_hand, 40), median_ms(symbolic, 3)
    painted = repaint_milliseconds([name[:6] for name in names])
    rows: list[tuple[str, str, str]] = [
        (
            "read + solve + display, 60 statements, one given changed",
            f"{costs[60]:.1f} ms",
            "1/5 of never read",
        ),
        ("the same, every blend changed", f"{median_ms(every_blend):.1f} ms", "none"),
        ("the same, never read before", f"{median_ms(unseen, 20):.1f} ms", "none"),
        *(
            (
                f"a local change in {size} statements",
                f"{ms:.1f} ms, {ms / costs[60]:.1f} ×",
                "2.5 ×" if size == 480 else "none",
            )
            for size, ms in costs.items()
            if size > 60
        ),
        ("a sample, one given changed: worked out", spread(list(samples.values())), "none"),
        (
            "a sample, key to repainted sheet in the browser",
            spread([took for took, _ in painted.values()]),
            "100 ms",
        ),
        (
            "its longest task in the browser",
            f"{max(long for _, long in painted.values()):.0f} ms",
            "50 ms",
        ),
        (
            "findings of a sample after one given changed",
            spread([findings_after(n) for n in names]),
            "30 ms",
        ),
        ("dimensions suggested for a sample", spread([suggested(n) for n in names]), "250 ms"),
        (
            "60 statements rehearsed by 500 hands, with other ways",
            f"{at_the_board('rehearse'):.0f} ms",
            "300 ms",
        ),
        (
            "the same put in the order of fewest settings",
            f"{at_the_board('schedule'):.0f} ms",
            "200 ms",
        ),
        (
            f"{2 * len(PROBLEMS)} tangent-arc centres against hand-written floats",
            f"{mine / plain:.1f} ×",
            "12 ×",
        ),
        (
            "the same, faster than a general symbolic-geometry library",
            f"{theirs / mine:.0f} ×",
            "300 ×",
        ),
        ("a page of a register of 5,000 jobs", f"{register_page():.0f} ms", "100 ms"),
        ("scripts for the first view, compressed", f"{scripts_kb():.0f} kB", "180 kB"),
        (
            "cold start to first answer, on a register already made",
            f"{start_seconds():.2f} s",
            "1.2 s",
        ),
        ("a curve in a plan, its size changed", spread(list(curves.values())), "none"),
        ("a gear of 120 teeth, its module changed", f"{median_ms(one_ring, 10):.1f} ms", "none"),
        ("the worksheet of a cam, turned", f"{median_ms(one_turn, 20):.1f} ms", "none"),
        (
            "a region picked among a thousand pieces",
            f"{median_ms(pick_of_thousand(), 10):.0f} ms",
            "none",
        ),
        (
            "PDF of an A3 sheet",
            f"{median_ms(lambda _: write_pdf(large.display), 10):.0f} ms",
            "none",
        ),
    ]
    print(f"{os.cpu_count()} cores, Python {sys.version.split()[0]}; all in one run\n")
    print(f"{'measure':62}{'median':>22}{'aim':>18}")
    for name, value, aim in rows:
        print(f"{name:62}{value:>22}{aim:>18}")
    print(f"\n{'an order of work':62}{'steps / settings':>22}{'aim':>18}")
    for name, (text, aim) in orders().items():
        done = work_out(text)
        round_ = ("compass", "beam compass", "dividers", "circle template")
        read = [(s.tool, s.setting.reading) for s in done.steps if s.tool in round_ and s.setting]
        sets = sum(1 for _ in groupby(read))
        print(f"{name:62}{f'{len(done.steps)} / {sets}':>22}{aim:>18}")
    print("\nWhat a local change costs against the size of the plan: build/cost-of-a-change.svg")


if __name__ == "__main__":
    main()
