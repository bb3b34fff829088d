"""Files a plan goes out as."""

from __future__ import annotations

from dataclasses import replace
from typing import Annotated, Literal

from pydantic import Field

from ...core import fault
from ...core.desk import Work, work_out
from ...core.display import Layer
from ...core.formats import Ovals
from ...core.formats.issue import Format, Options, formats
from ...core.office.titled import titled
from ...core.readback.read import ENDINGS
from ...records import Finite, Schedule
from ..answer import Answer, Refused
from ..base import Asked, Crossing, KitText, PlanText
from ..operation import Operations
from .shared import as_file, kit_of

MOST_WITHIN = 10
"""Plan units within which an ellipse may be written by other curves."""


class ExportPath(Asked):
    """A file format."""

    format: Annotated[str, Field(max_length=20)]


Signed = Annotated[str, Field(max_length=60)]


class SignedIn(Asked):
    """Who drew, checked and approved what is issued, and when; empty where nobody did."""

    drawn: Signed = ""
    checked: Signed = ""
    approved: Signed = ""
    date: Signed = ""


class ExportIn(Asked):
    """A plan to export.

    `construction` says whether the light work stays on the sheet; `insist` that an outline goes to
    the cutter although the proof found it open or doubled. `ovals` says as what DXF gets true
    ellipses, `within` how closely, plan units. `signed` stands in the title block where the plan
    does not say it."""

    text: PlanText
    schedule: Schedule = "written"
    kit: KitText = ""
    construction: bool = True
    insist: bool = False
    ovals: Literal["ellipse", "arcs", "polyline"] = "ellipse"
    within: Finite = 0.01
    paper: Literal["A4", "letter"] = "A4"
    signed: SignedIn = SignedIn()


class FormatOut(Crossing):
    """A file a plan goes out as; see `core.formats.issue.Format`."""

    key: str
    label: str
    about: str
    group: str
    ending: str
    takes: tuple[Literal["construction", "ovals", "paper"], ...]
    for_cutting: bool


class FormatsOut(Crossing):
    """Every file a plan goes out as, and how the names of files end that a bare profile is read
    from."""

    formats: tuple[FormatOut, ...]
    profiles: tuple[str, ...]


files = Operations()


@files.get("/formats")
def every_format() -> FormatsOut:
    """Return every file a plan goes out as; the page *Issue* is built from this."""
    every = tuple(map(FormatOut.from_core, formats().values()))
    return FormatsOut(formats=every, profiles=ENDINGS)


def _format(key: str) -> Format:
    if key not in formats():
        raise Refused(
            404, "No such format", f"there is no format {key}; there are {', '.join(formats())}"
        )
    return formats()[key]


def _without_work(_: str, path: ExportPath, body: ExportIn) -> Answer | None:
    """Return what can be written of a plan that asks for too much."""
    format = _format(path.format)
    if format.without_work is None:
        return None
    return as_file(format.without_work(body.text), "plan", format.ending, format.media)


@files.post("/export/<format>", otherwise=_without_work)
def export_plan(path: ExportPath, body: ExportIn) -> Answer:
    """Return a plan as a file."""
    format = _format(path.format)
    kit = kit_of(body.kit)
    done = work_out(body.text, kit, body.schedule)
    signed = titled(done, body.text, body.signed.model_dump())
    if signed != body.text:
        done = work_out(signed, kit, body.schedule)
    if not 0 < body.within <= MOST_WITHIN:
        unit = done.solution.unit.value
        message = f"it is more than 0 and at most {MOST_WITHIN} {unit}: {body.within:g} is not"
        raise Refused(422, "This is no tolerance", message)
    reason = "" if body.insist else format.refusal(done)
    if reason:
        raise Refused(409, "Not to be cut as it is", reason)
    options = Options(body.construction, Ovals(body.ovals, body.within), body.paper)
    try:
        written = format.written(done, options)
    except Exception as error:
        message = fault.report(error, f"writing {format.key}")
        blamed = _blamed(format, done, options)
        raise Refused(500, "Not written", blamed + message.partition(";")[0]) from error
    name = f"{done.solution.drawing} {done.solution.title}"
    return as_file(written, name, format.ending, format.media, format.apart)


def _blamed(format: Format, done: Work, options: Options) -> str:
    """Name the statements a format cannot be written with; a file that leaves them out without a
    word is worse than none."""
    blamed = []
    for entry in done.solution.entries:
        marks = tuple(
            mark for layer in done.drawing.layers for mark in layer.marks if mark.line == entry.line
        )
        steps = tuple(step for step in done.steps if step.line == entry.line)
        alone = replace(
            done, drawing=replace(done.drawing, ground=(), layers=(Layer(marks),)), steps=steps
        )
        try:
            format.written(alone, options)
        except Exception:
            blamed.append(f"line {entry.line} ({entry.statement.name}) cannot be written: ")
    return " ".join(blamed)
