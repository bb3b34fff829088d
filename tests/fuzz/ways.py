"""Every way out of the desk, tried on one plan, with what must hold whatever the plan says."""

from __future__ import annotations

import json
import math
import time
from collections.abc import Callable, Iterator
from random import Random
from xml.etree import ElementTree

from entrick.core import formats
from entrick.core.desk import work_out
from entrick.core.fault import OutOfTime
from entrick.core.geometry.edges import RegionError
from entrick.core.plan.document import LONGEST_LINE, MOST_CHARACTERS
from entrick.core.plan.edit import EditError, tidy
from entrick.core.plan.reader import read_plan
from entrick.core.summarize import summarize
from entrick.web import tasks
from entrick.web.answer import Answer, Refused
from entrick.web.hands import Clock, Stopped
from entrick.web.schemas.board import MethodsIn, OpenedIn
from entrick.web.schemas.crossing import PlanIn
from entrick.web.schemas.files import ExportIn, ProfileIn
from entrick.web.schemas.plans import WorkIn
from entrick.web.schemas.worksheets import WorksheetFileIn, WorksheetIn
from entrick.web.schemas.writing import BriefIn, CompleteIn, RegionsIn


def finite(answer: Answer) -> None:
    """Whatever is sent as JSON has no number that is none."""

    def look(value: object) -> None:
        if isinstance(value, float):
            assert math.isfinite(value)
        for inner in value.values() if isinstance(value, dict) else value if isinstance(value, list) else ():
            look(inner)

    look(json.loads(answer.content))


def tidied(text: str) -> None:
    """A tidied plan is tidied to itself, may be saved, and says the same."""
    once = tidy(text)
    assert tidy(once) == once, "tidied twice it changes again"
    assert len(once) <= max(MOST_CHARACTERS, len(text))
    before, after = read_plan(text), read_plan(once)
    assert len(before.lines) == len(after.lines)
    for one, other in zip(before.lines, after.lines, strict=True):
        assert type(one.content) is type(other.content), (one, other)
    assert all(len(row) <= LONGEST_LINE for row in once.splitlines()) or any(
        len(row) > LONGEST_LINE for row in text.splitlines()
    )


def well_formed(text: bytes | str) -> None:
    """XML any reader takes."""
    ElementTree.fromstring(text)


def ways(text: str, pick: Random) -> Iterator[tuple[str, Callable[[], object]]]:
    """Return every way out by name; the first works the plan out, the rest look at it."""
    count = len(text.split("\n"))
    line = pick.randint(1, count + 1)
    spots = tuple((pick.uniform(0, 300), pick.uniform(0, 200)) for _ in range(pick.randint(1, 3)))
    row = pick.choice(text.split("\n"))
    yield "work", lambda: finite(tasks.work(WorkIn(text=text)))
    yield "tidy", lambda: tidied(text)
    yield "proof", lambda: finite(tasks.proof(PlanIn(text=text)))
    yield (
        "complete",
        lambda: finite(tasks.completion(CompleteIn(text=text, after=line, row=row[: pick.randint(0, len(row))]))),
    )
    yield "regions", lambda: finite(tasks.regions(RegionsIn(text=text, spots=spots, kind="line in")))
    yield "summary", lambda: (shown := summarize(text).thumbnail) and well_formed(shown)
    yield "json", lambda: json.dumps(formats.solution_data(work_out(text)), allow_nan=False)
    for format in ("svg", "pdf", "dxf", "cutter", "csv", "entrick"):
        if format in ("svg", "csv") or pick.random() < 0.3:
            export = ExportIn(
                text=text,
                insist=True,
                ovals=pick.choice(["ellipse", "arcs", "polyline"]),
                construction=pick.random() < 0.5,
            )
            yield (
                format,
                lambda export=export, format=format: (
                    well_formed(tasks.export(export, format).content)
                    if format == "svg"
                    else tasks.export(export, format)
                ),
            )
    done = work_out(text)
    if done.outlines and pick.random() < 0.3:
        bare = formats.write_cutter_dxf(done.outlines, done.solution.unit)
        sent = ProfileIn(name="x.dxf", text=bare[:4_000_000], within=pick.choice([None, 1e-3, 0.05]))
        yield "read back", lambda: finite(tasks.read_back_profile(sent))
    if pick.random() < 0.3:
        yield "suggest", lambda: finite(tasks.suggest(PlanIn(text=text)))
    for entry in work_out(text).solution.entries:
        if entry.made and entry.made.worksheet:
            turn = pick.uniform(-400, 400)
            yield (
                "worksheet",
                lambda entry=entry, turn=turn: finite(
                    tasks.worksheet(WorksheetIn(text=text, line=entry.line, turn=turn))
                ),
            )
            for format in ("pdf", "csv", "svg"):
                sent = WorksheetFileIn(text=text, line=entry.line, turn=turn, table=pick.choice([None, 0]))
                yield f"worksheet {format}", lambda sent=sent, format=format: tasks.worksheet_file(sent, format)
        if entry.made and pick.random() < 0.3:
            yield "methods", lambda entry=entry: finite(tasks.compared(MethodsIn(text=text, line=entry.line)))
    steps = work_out(text).steps
    for step in pick.sample(steps, min(3, len(steps))):
        yield "opened", lambda step=step: finite(tasks.opened(OpenedIn(text=text, step=step.number)))
    yield "choices", lambda: finite(tasks.sheet_choices(PlanIn(text=text)))
    yield "brief", lambda: tasks.brief(BriefIn(text=text, line=line, brief=row))


def tried(text: str, pick: Random) -> Iterator[tuple[str, Exception | None, float]]:
    """Go every way out; return each with what went wrong, if anything, and the CPU seconds it took."""
    found, clock = ways(text, pick), Clock()
    while True:
        began = time.process_time()
        name = "work"
        try:
            clock.start()  # as a hand's: what takes longer than the desk gives is told so, and is no failure
            try:
                name, way = next(found)
                way()
            finally:
                clock.stop()
        except StopIteration:
            return
        except (OutOfTime, Stopped):
            yield f"{name}, out of time", None, time.process_time() - began
            if name == "work":
                return
            continue
        except (EditError, RegionError, Refused):
            error: Exception | None = None
        except Exception as wrong:
            error = wrong
        else:
            error = None
        yield name, error, time.process_time() - began
