"""Files out and in: export, the cutter, profiles read back."""

from __future__ import annotations

from dataclasses import replace

from ...core import fault, formats
from ...core.cutting import tool_paths, write_program
from ...core.desk import Work, work_out
from ...core.display import Layer
from ...core.measure import Unit
from ...core.plan import edit as edits
from ...core.plan.writer import write_plan
from ...core.proof import why_not_cut
from ...core.readback import WAYS, ProfileError, ReadBack, as_drawn, box_of, others, read_back, read_profile
from ...devices.cutter import Cutter, run
from ..answer import Answer, Refused
from ..present import files as present
from ..schemas.files import CutIn, ExportIn, ProfileIn, ReadBackOut, SaidOut
from .answers import as_file, as_json, kit_of


def text_alone(_: str, body: ExportIn, __: str) -> Answer:
    """Return the text of a plan that asks for too much."""
    return as_file(edits.tidy(body.text), "entrick", "plan")


def export(body: ExportIn, format: str) -> Answer:
    """Return a plan as a file."""
    done = work_out(body.text, kit_of(body.kit), body.schedule)
    if format == "cutter" and not body.insist and (reason := why_not_cut(done.findings)):
        raise Refused(409, "Not to be cut as it is", reason)
    try:
        written = _written(format, done, body)
    except Exception as error:
        told = fault.told(error, f"writing {format}")
        raise Refused(500, "Not written", _blamed(format, done, body) + told.partition(";")[0]) from error
    return as_file(written, format, f"{done.solution.drawing} {done.solution.title}")


def _blamed(format: str, done: Work, body: ExportIn) -> str:
    """Name the statements a format cannot be written with; a file that leaves them out without a word is worse than
    none."""
    blamed = []
    for entry in done.solution.entries:
        marks = tuple(mark for layer in done.drawing.layers for mark in layer.marks if mark.line == entry.line)
        steps = tuple(step for step in done.steps if step.line == entry.line)
        alone = replace(done, drawing=replace(done.drawing, ground=(), layers=(Layer(marks),)), steps=steps)
        try:
            _written(format, alone, body)
        except Exception:
            blamed.append(f"line {entry.line} ({entry.statement.name}) cannot be written: ")
    return " ".join(blamed)


def _written(format: str, done: Work, body: ExportIn) -> str | bytes:
    construction, ovals = body.construction, formats.Ovals(body.ovals, body.within)
    match format:
        case "pdf":
            return formats.write_pdf(done.display, done.solution.title, construction)
        case "svg":
            return formats.write_svg(done.display, construction, done.solution.unit)
        case "dxf":
            return formats.write_dxf(done.display, done.solution.unit, construction, ovals)
        case "cutter":
            return formats.write_cutter_dxf(done.outlines, done.solution.unit, ovals)
        case "run-sheet":
            return formats.write_run_sheet(done, body.paper)
        case "csv":
            return formats.settings_csv(done.steps, done.kit, done.before, done.after)
    return write_plan(done.plan)


def read_back_profile(body: ProfileIn) -> Answer:
    """Read a bare profile back into a plan, and into the others it may as well be."""
    title = body.name.rpartition(".")[0][:80].replace('"', "") or "Read back"
    try:
        profile = read_profile(body.text.encode(), body.name, body.within, body.layers)
        best = read_back(profile, Unit(body.units) if body.units else None, body.within, title)
    except ProfileError as error:
        raise Refused(409, "Not read back", str(error)) from error
    more = others(profile, best, body.within, title)
    plans = [_said("", "by its conditions", best)]
    plans += [_said(way, WAYS[way][0], found) for way, found in more.items()]
    low, high = box_of(profile.runs)
    return as_json(
        ReadBackOut(
            outlines=len(profile.runs),
            unit=best.unit.value,
            within=profile.within,
            paths=tuple(formats.outline_paths([as_drawn(run, profile.within) for run in profile.runs])),
            box=(low.x, -high.y, high.x, -low.y),
            layers=profile.layers,
            plans=tuple(plans),
        )
    )


def _said(way: str, called: str, found: ReadBack) -> SaidOut:
    return SaidOut(way=way, called=called, text=found.text, numbers=found.numbers, comes=found.comes, seen=found.seen,
                   told=found.told, assumed=found.assumed)  # fmt: skip


def cut(body: CutIn) -> Answer:
    """Cut a plan on the simulated cutter, and hold the part against it."""
    # The judge's library is loaded where it is wanted: it is a part of a cold start.
    from ...devices.judge import judged, outlines_of

    done = work_out(body.text)
    unit = done.solution.unit
    reason = why_not_cut(done.findings)
    if reason:
        raise Refused(409, "Not to be cut as it is", reason)
    if not body.confirmed:
        told = f"confirm first that {unit.value} and full size are what the machine is set to"
        raise Refused(409, "Units and scale are not confirmed", told)
    mm = float(unit.mm)
    title = f"{done.solution.drawing} {done.solution.title}"
    program = write_program(tool_paths(done.named_outlines, body.tool), unit, body.tool, body.feed, title)
    machine = run(program, Cutter(body.fault, body.at))
    found = judged(machine.moves, done.outlines, mm, body.tool * mm)
    return as_json(present.cut(program, machine, found, outlines_of(done.outlines, mm), body.tool * mm))
