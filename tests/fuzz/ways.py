"""Every way out of the desk, tried on one plan, with what must hold whatever the plan says."""

from __future__ import annotations

import json
import math
import time
from collections.abc import Callable, Iterator
from random import Random
from xml.etree import ElementTree

from outside import REFUSALS, doors

from desk import asked
from entrick.core.desk import work_out
from entrick.core.fault import OutOfTime
from entrick.core.formats import solution_data, write_cutter_dxf
from entrick.core.formats.issue import formats
from entrick.core.geometry.edges import RegionError
from entrick.core.plan.document import LONGEST_LINE, MOST_CHARACTERS
from entrick.core.plan.edit import EditError, tidy
from entrick.core.plan.errors import PlanError
from entrick.core.plan.reader import read_plan
from entrick.core.summarize import summarize
from entrick.web.answer import Answer, Refused
from entrick.web.workers.pool import USUAL, Clock, Stopped


def finite(answer: Answer) -> None:
    """Whatever is sent as JSON has no number that is none."""

    def look(value: object) -> None:
        if isinstance(value, float):
            assert math.isfinite(value)
        for inner in (
            value.values() if isinstance(value, dict) else value if isinstance(value, list) else ()
        ):
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
    spots = [(pick.uniform(0, 300), pick.uniform(0, 200)) for _ in range(pick.randint(1, 3))]
    row = pick.choice(text.split("\n"))

    def shown(address: str, **body: object) -> Callable[[], object]:
        return lambda: finite(asked(address, text=text, **body))

    yield "work", shown("work")
    yield "tidy", lambda: tidied(text)
    yield "proof", shown("proof")
    yield "complete", shown("complete", after=line, row=row[: pick.randint(0, len(row))])
    yield "regions", shown("regions", spots=spots, kind="line in")
    yield "summary", lambda: (picture := summarize(text).thumbnail) and well_formed(picture)
    yield "json", lambda: json.dumps(solution_data(work_out(text)), allow_nan=False)
    for format in formats():
        if format in ("svg", "csv") or pick.random() < 0.3:
            chosen = {
                "ovals": pick.choice(["ellipse", "arcs", "polyline"]),
                "construction": pick.random() < 0.5,
            }
            yield format, lambda format=format, chosen=chosen: exported(format, text, chosen)
    done = work_out(text)
    if done.outlines and pick.random() < 0.3:
        bare = write_cutter_dxf(done.outlines, done.solution.unit)[:4_000_000]
        within = pick.choice([None, 1e-3, 0.05])
        yield (
            "read back",
            lambda: finite(asked("read-back", name="x.dxf", text=bare, within=within)),
        )
    if pick.random() < 0.3:
        yield "suggest", lambda: suggested(text)
    for error in work_out(text).solution.errors[:3]:
        if error.mend:
            yield "mend", lambda error=error: mended(text, error)
    yield from doors(pick)
    for entry in work_out(text).solution.entries:
        if entry.made and entry.made.worksheet:
            turned = {"line": entry.line, "turn": pick.uniform(-400, 400)}
            yield "worksheet", shown("worksheet", **turned)
            for format in ("pdf", "csv", "svg"):
                body = {"text": text, **turned, "table": pick.choice([None, 0])}
                yield (
                    f"worksheet {format}",
                    lambda format=format, body=body: asked(f"worksheet/{format}", **body),
                )
        if entry.made and pick.random() < 0.3:
            yield "methods", shown("methods", line=entry.line)
    steps = work_out(text).steps
    for step in pick.sample(steps, min(3, len(steps))):
        yield "opened", shown("opened", step=step.number)
    yield "choices", shown("sheet-choices")
    yield "brief", lambda: asked("brief", text=text, line=line, brief=row)


def suggested(text: str) -> None:
    """What the desk writes into a plan it reads back."""
    after = json.loads(asked("suggest", text=text).content)["text"]
    assert len(work_out(after).solution.errors) <= len(work_out(text).solution.errors), after


def mended(text: str, error: PlanError) -> None:
    """What is offered for a mistake is another row, and has not that mistake in that place again."""
    rows = text.split("\n")
    before, rows[error.line - 1] = rows[error.line - 1], error.mend or ""
    assert rows[error.line - 1] != before, error
    for other in work_out("\n".join(rows)).solution.errors:
        assert (other.line, other.message, other.mend) != (error.line, error.message, error.mend)


def exported(format: str, text: str, chosen: dict[str, object]) -> None:
    """A file comes, and one that is XML is well formed."""
    answer = asked(f"export/{format}", text=text, insist=True, **chosen)
    if format == "svg":
        well_formed(answer.content)


def tried(text: str, pick: Random) -> Iterator[tuple[str, Exception | None, float]]:
    """Go every way out; return each with what went wrong, if anything, and the CPU seconds it took."""
    found, clock = ways(text, pick), Clock()
    while True:
        began = time.process_time()
        name = "work"
        try:
            clock.start(
                USUAL
            )  # as a worker's: what takes longer than the desk gives is told so, and is no failure
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
        except (EditError, RegionError, Refused, *REFUSALS):
            error: Exception | None = None
        except Exception as wrong:
            error = None if clock.explains(wrong) else wrong
        else:
            error = None
        yield name, error, time.process_time() - began
