"""What the desk is asked to work out, as functions of what was sent: they run at a worker, away from Flask and the
database, and keep nothing but what is quicker to keep than to work out again."""

from __future__ import annotations

import re
from collections.abc import Mapping
from contextlib import suppress
from dataclasses import replace
from fractions import Fraction
from functools import lru_cache
from random import Random

from pydantic import BaseModel

from ..core import fault, formats
from ..core.assist.blanks import BLANK, wanted_at
from ..core.assist.clauses import set_place
from ..core.assist.complete import complete
from ..core.assist.follow import Event, add_event, follow, set_event
from ..core.assist.glossary import WORDS
from ..core.assist.lesson import START, TASKS
from ..core.assist.lesson import at as task_at
from ..core.assist.row import begin, doubt, picked
from ..core.board.kit import Kit
from ..core.board.kits import read_kit
from ..core.board.lacks import lacks
from ..core.board.steps import BoardStep
from ..core.cutting import tool_paths, write_program
from ..core.desk import Work, work_out
from ..core.dimensioning.suggest import suggest_dimensions
from ..core.display import DisplayList, Layer, draw_worksheet
from ..core.display.instruments import instrument_picture
from ..core.display.picture import angle_picture, compass_over_rule, template_picture
from ..core.formats.practice_paper import write_papers
from ..core.formats.tables import in_words, table_csv, table_page
from ..core.logbook.measured import judge, read_value
from ..core.logbook.taught import Taught
from ..core.measure import Unit
from ..core.moves import kinds
from ..core.plan import edit as edits
from ..core.plan.document import Plan, SheetLine
from ..core.plan.errors import ClauseError
from ..core.plan.reader import read_plan
from ..core.plan.slots import REFERENCES, SLOTS
from ..core.plan.writer import write_content, write_plan
from ..core.practice.ask import questions
from ..core.practice.mark import HINT_COSTS, marked
from ..core.practice.question import Question
from ..core.practice.record import learner
from ..core.practice.sets import (
    Set,
    brief_of,
    mark_answers,
    marks_csv,
    plan_paper,
    read_set,
    slips_of,
    write_set,
)
from ..core.practice.spacing import Answered, Card, chosen
from ..core.practice.vary import variant
from ..core.proof import why_not_cut
from ..core.readback import WAYS, ProfileError, ReadBack, as_drawn, box_of, others, read_back, read_profile
from ..core.sheet.choose import with_clause
from ..core.summarize import summarize
from ..core.summary import Summary
from ..devices.cutter import Cutter, run
from . import present
from .answer import Answer, Refused
from .schemas import (
    AddEvent,
    Append,
    BriefIn,
    BriefOut,
    ChooseCandidate,
    ClassMarksOut,
    ClassSlipOut,
    CompleteIn,
    CompleteOut,
    CutIn,
    DeleteLine,
    Edit,
    ExportIn,
    HintIn,
    HintOut,
    InsertLine,
    InstrumentQuery,
    KindsOut,
    LackOut,
    LacksIn,
    LacksOut,
    LessonOut,
    MarkedPaperOut,
    MarksIn,
    MeasuredIn,
    MethodsIn,
    MisreadOut,
    MoveLine,
    NewGiven,
    OpenedIn,
    OpenedToIn,
    OpenedToOut,
    PapersIn,
    PictureQuery,
    PlanIn,
    PracticeIn,
    ProfileIn,
    ReadBackOut,
    RegionsIn,
    RoundIn,
    RoundOut,
    SaidOut,
    SaySheet,
    ScheduledIn,
    SetClause,
    SetEvent,
    SetGiven,
    SetHead,
    SetLine,
    SetPartIn,
    SetPlace,
    SuggestOut,
    VerdictOut,
    WorkIn,
    WorksheetFileIn,
    WorksheetIn,
)


def _json(model: BaseModel) -> Answer:
    return Answer(model.model_dump_json().encode())


def vocabulary() -> Answer:
    """Return every kind of construction with its clauses."""
    return _json(KindsOut(kinds=tuple(present.kind(kind) for kind in kinds().values()), words=WORDS))


def work(body: WorkIn) -> Answer:
    """Work a plan out, after an edit if one is given."""
    plan, refused = read_plan(body.text), ""
    if body.edit is not None:
        try:
            plan = _edited(plan, body.edit)
        except edits.NotUnderstood as error:
            refused = str(error)
    done = work_out(write_plan(plan), _kit(body.kit), body.schedule)
    last = len(done.plan.lines)
    at = last if isinstance(body.edit, Append) and done.solution.entry(last) else 0
    return _json(present.work(done, body.known, at, refused))


def _edited(plan: Plan, edit: Edit) -> Plan:
    match edit:
        case SetGiven():
            return edits.set_given(plan, edit.line, edit.value)
        case NewGiven():
            return edits.new_given(plan, edit.text)
        case SetClause():
            return edits.set_clause(plan, edit.line, edit.clause, edit.text)
        case SetPlace():
            return set_place(plan, edit.line, edit.clause, edit.place, edit.text)
        case SetEvent():
            return set_event(plan, edit.line, Event(edit.clause, edit.event, edit.angle, edit.lift, edit.motion))
        case AddEvent():
            return add_event(plan, edit.line)
        case SetLine():
            return edits.set_line(plan, edit.line, edit.text)
        case InsertLine():
            return edits.insert_line(plan, edit.after, edit.text)
        case Append():
            return edits.append(plan, edit.text)
        case DeleteLine():
            return edits.delete_line(plan, edit.line)
        case MoveLine():
            return edits.move_line(plan, edit.line, edit.to)
        case SetHead():
            return edits.set_head(plan, edit.key, edit.text)
        case SaySheet():
            said = [line.content for line in plan.lines if isinstance(line.content, SheetLine)]
            return edits.set_head(plan, "sheet", with_clause(said[-1] if said else None, edit.text))
        case ChooseCandidate():
            return _chosen(plan, edit)


def _chosen(plan: Plan, edit: ChooseCandidate) -> Plan:
    entry = work_out(write_plan(plan)).solution.entry(edit.line)
    candidate = next((c for c in entry.candidates if c.letter == edit.letter), None) if entry else None
    if entry is None or candidate is None:
        raise edits.EditError(f"line {edit.line} has no candidate {edit.letter}")
    if candidate.of_walk:
        return edits.choose_in_walk(plan, edit.line, *candidate.of_walk)
    words = kinds()[entry.statement.kind].choosing_words
    return edits.choose_candidate(plan, edit.line, candidate.words, words)


def unworked(reason: str, body: WorkIn) -> Answer:
    """Return a plan that asks for too much as text alone, edited where that needs no working out."""
    plan = read_plan(body.text)
    if body.edit is not None and not isinstance(body.edit, ChooseCandidate):
        with suppress(edits.NotUnderstood):
            plan = _edited(plan, body.edit)
    return _json(present.unworked(write_plan(plan), reason))


def text_alone(_: str, body: ExportIn, __: str) -> Answer:
    """Return the text of a plan that asks for too much."""
    return _file(edits.tidy(body.text), "entrick", "plan")


def completion(body: CompleteIn) -> Answer:
    """Return a row being written as it is now, and what may follow in it."""
    solution, row = work_out(body.text).solution, body.row
    after = len(solution.plan.lines) if body.after is None else body.after
    if body.begin and row.partition("=")[2].partition(",")[0].strip() != body.begin:
        row = begin(solution, body.begin)
    if body.pick:
        row = picked(solution, row, body.pick, body.caret or 0)
    # What may follow is asked for where one writes: before a blank, or at the end.
    caret = body.caret if body.caret is not None and row == body.row else f"{row}{BLANK}".index(BLANK)
    offers = complete(solution, after, row, caret)
    wanted = wanted_at(row, caret)
    reference = SLOTS[wanted].expectation if wanted in REFERENCES else ""
    return _json(CompleteOut(row=row, completions=offers, doubt=doubt(row), wanted=reference))


def lesson(body: PlanIn) -> Answer:
    """Return how far a plan has come in the first job, and what comes next."""
    done = task_at(work_out(body.text))
    task = TASKS[done] if done < len(TASKS) else None
    told, why, row = (task.told, task.why, task.row) if task else ("", "", "")
    return _json(LessonOut(start=START, at=done, of=len(TASKS), told=told, why=why, row=row))


def proof(body: PlanIn) -> Answer:
    """Inspect a plan: findings, junctions and measures."""
    return _json(present.proof(work_out(body.text)))


def schedules(body: ScheduledIn, taught: Taught) -> Answer:
    """Count what every order of work takes."""
    return _json(present.schedules(work_out(body.text, _kit(body.kit)), taught))


def rehearsal(body: ScheduledIn, taught: Taught) -> Answer:
    """Draw a plan by many hands."""
    return _json(present.rehearsal(work_out(body.text, _kit(body.kit)), taught))


def suggest(body: PlanIn) -> Answer:
    """Suggest dimensions that define the outline."""
    found = suggest_dimensions(work_out(body.text).solution)
    return _json(SuggestOut(text=found.text, statements=found.statements, left_open=found.left_open))


def regions(body: RegionsIn) -> Answer:
    """Return the boundary of the regions pointed at."""
    return _json(present.regions(work_out(body.text), body.spots, body.kind))


def opened(body: OpenedIn) -> Answer:
    """Open a step up into the classic construction behind it."""
    return _json(present.opened(work_out(body.text, _kit(body.kit), body.schedule), body.step))


def compared(body: MethodsIn) -> Answer:
    """Construct a statement by each of its methods."""
    return _json(present.compared(work_out(body.text), body.line))


def worksheet(body: WorksheetIn) -> Answer:
    """Return the worksheet of a statement, turned through an angle."""
    return _json(present.worksheet(work_out(body.text), body.line, body.turn))


def worksheet_file(body: WorksheetFileIn, format: str) -> Answer:
    """Return a worksheet as a file: diagram and profile on one page, or one of its tables."""
    done = work_out(body.text)
    name, sheet = present.worksheet_of(done, body.line, body.turn)
    heading = f"{done.solution.drawing} {done.solution.title}: {name}".strip()
    if (body.table or 0) >= len(sheet.tables):
        raise edits.EditError(f"the worksheet has no table {body.table or 0}")
    table = in_words(sheet.tables[body.table or 0], done)
    if format == "csv":
        content: str | bytes = table_csv(table)
    elif body.table is not None:
        content = _drawn(format, table_page(table, (heading, sheet.caution)), table.title)
    else:
        display = draw_worksheet(sheet, done.solution.unit, (heading, sheet.caution))
        content = _drawn(format, display, sheet.title)
    return _file(content, format, f"{done.solution.drawing} {name} worksheet")


def _drawn(format: str, display: DisplayList, title: str) -> str | bytes:
    return formats.write_pdf(display, title) if format == "pdf" else formats.write_svg(display)


def brief(body: BriefIn) -> Answer:
    """Give a cam the events of a brief: sentences, or stations as CSV."""
    statement, read = follow(work_out(body.text), body.line, body.brief)
    misread = tuple(MisreadOut.model_validate(row) for row in read.misread)
    return _json(BriefOut(statement="" if misread else statement, misread=misread))


@lru_cache(maxsize=32)
def _kit(text: str) -> Kit | None:
    """Return the kit that is asked for; the same text is the same kit, so that what was worked out with it is kept."""
    return read_kit(text) if text else None


def lacking(body: LacksIn) -> Answer:
    """Return what a kit lacks for a job."""
    kit = read_kit(body.kit)
    done = work_out(body.text, kit)
    found = lacks(done.solution, done.sheet, kit)
    return _json(LacksOut(lacks=tuple(LackOut.model_validate(lack) for lack in found)))


def around(body: ScheduledIn) -> Answer:
    """Return how the sheet is made ready and finished, and what is usually done wrong in each statement."""
    return _json(present.around(work_out(body.text, _kit(body.kit), body.schedule)))


def measured(body: MeasuredIn) -> Answer:
    """Judge a value measured back at the board."""
    done = work_out(body.text, _kit(body.kit), body.schedule)
    step = next((step for step in (*done.before, *done.steps) if _is_step(step, body)), None)
    if step is None:
        raise Refused(409, "No such step", f"the order of work has no step {body.step}")
    value = read_value(body.value, Unit.MM if step.setting and step.setting.is_angle else done.kit.unit)
    found = judge(value, step, done.steps, done.kit, done.sheet.scale, done.solution.unit)
    per = 1.0 if step.setting and step.setting.is_angle else float(done.kit.unit.mm)
    return _json(VerdictOut(judged=found.judged, off=found.off * per, told=found.told, slips=found.slips))


def _is_step(step: BoardStep, body: MeasuredIn) -> bool:
    return step.number == body.step and (step.line == 0) == body.ready


def sheet_choices(body: PlanIn) -> Answer:
    """Return the papers, borders and scales a plan may take, each scale with its reason."""
    return _json(present.choices(work_out(body.text)))


def export(body: ExportIn, format: str) -> Answer:
    """Return a plan as a file."""
    done = work_out(body.text, _kit(body.kit), body.schedule)
    if format == "cutter" and not body.insist and (reason := why_not_cut(done.findings)):
        raise Refused(409, "Not to be cut as it is", reason)
    try:
        written = _written(format, done, body)
    except Exception as error:
        told = fault.told(error, f"writing {format}")
        raise Refused(500, "Not written", _blamed(format, done, body) + told.partition(";")[0]) from error
    return _file(written, format, f"{done.solution.drawing} {done.solution.title}")


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


_TYPES = {
    "pdf": "application/pdf",
    "svg": "image/svg+xml",
    "dxf": "image/vnd.dxf",
    "cutter": "image/vnd.dxf",
    "run-sheet": "application/pdf",
    "csv": "text/csv; charset=utf-8",
    "entrick": "text/plain; charset=utf-8",
}
_ENDINGS = {"cutter": "dxf", "run-sheet": "pdf"}
_APART = {"cutter": "-outlines", "run-sheet": "-run-sheet"}
"""What stands behind the name of a file that is not to be taken for another of the same ending."""


def _file(content: str | bytes, format: str, name: str) -> Answer:
    stem = re.sub(r"[^A-Za-z0-9-]+", "-", name).strip("-")[:100] or "plan"
    kept = f'attachment; filename="{stem}{_APART.get(format, "")}.{_ENDINGS.get(format, format)}"'
    written = content.encode("utf-8", "replace") if isinstance(content, str) else content
    return Answer(written, _TYPES[format], {"Content-Disposition": kept})


def picture(query: PictureQuery) -> Answer:
    """Return a life-size picture of an instrument at its setting."""
    if query.unit == "deg":
        drawing = angle_picture(query.value, query.tool)
    else:
        unit, graduation = Unit(query.unit), Fraction(query.graduation)
        if query.tool == "circle template":
            drawing = template_picture(query.value, unit)
        else:
            drawing = compass_over_rule(query.value, unit, graduation, query.tool)
    shown = formats.write_svg(drawing).encode()
    return Answer(shown, "image/svg+xml", {"Cache-Control": "private, max-age=86400"})


def instrument(query: InstrumentQuery) -> Answer:
    """Return a picture of an item of a kit."""
    try:
        drawing = instrument_picture(query.item)
    except KeyError:
        raise Refused(404, "No such item", f"a kit has no {query.item}") from None
    shown = formats.write_svg(drawing).encode()
    return Answer(shown, "image/svg+xml", {"Cache-Control": "private, max-age=86400"})


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
    return _json(
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
    from ..devices.judge import judged, outlines_of

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
    return _json(present.cut(program, machine, found, outlines_of(done.outlines, mm), body.tool * mm))


@lru_cache(maxsize=64)
def _asked_about(text: str, kit: str, seed: int) -> dict[str, Question]:
    """Return the questions of a plan by their keys; what is asked about one after another is made once."""
    return {question.key: question for question in questions(work_out(text, _kit(kit)), seed)}


def _question(text: str, kit: str, seed: int, key: str) -> Question:
    found = _asked_about(text, kit, seed).get(key)
    if found is None:
        raise Refused(404, "No such question", "this plan has no such question any more: begin another round")
    return found


def practice_round(body: RoundIn, known: Mapping[str, Card], now: float) -> Answer:
    """Choose the questions of a round."""
    own = work_out(body.text, _kit(body.kit))
    if own.solution.errors:
        first = own.solution.errors[0]
        raise Refused(409, "Not to be practised on", f"line {first.line}: {first.message}")
    done = (variant(body.text, body.seed) if body.varied else None) or own
    text = write_plan(done.plan)
    pool = list(_asked_about(text, body.kit, body.seed).values())
    if not pool:
        raise Refused(409, "Nothing to ask", "draw something first: there is nothing to ask about this plan yet")
    picked = chosen(pool, known, now, body.count, Random(body.seed), body.spaced)
    givens = tuple(write_content(entry.given).removeprefix("given ") for entry in done.solution.givens)
    return _json(RoundOut(text=text, givens=givens, questions=tuple(present.question(q, known, now) for q in picked)))


def practice_hint(body: HintIn) -> Answer:
    """Return a hint to a question."""
    hints = _question(body.text, body.kit, body.seed, body.key).hints
    if body.number > len(hints):
        raise Refused(404, "No further hint", "there is no further hint to this question")
    return _json(HintOut(told=hints[body.number - 1]))


def practice_opened(body: OpenedToIn) -> Answer:
    """Return the picture of an instrument set to what is typed."""
    try:
        value = float(read_value(body.said, Unit(body.unit)))
    except ClauseError:
        return _json(OpenedToOut())
    return _json(OpenedToOut(picture=present.picture_at(body.tool, value, body.unit)))


def practice_answer(body: PracticeIn, history: list[Answered], chances: list[tuple[str, ...]]) -> Answer:
    """Judge an answer."""
    question = _question(body.text, body.kit, body.seed, body.key)
    mark = marked(question, body.said, learner(history, chances))
    share = mark.share * max(0.0, 1 - HINT_COSTS * body.hints)
    verdict = present.verdict_in_practice(question, mark, share)
    kept = {
        "part": work_out(body.text, _kit(body.kit)).solution.title, "rule": question.rule, "share": share,
        "slips": tuple(slip.key for slip in mark.slips[:1]), "hints": body.hints,
        "chances": tuple(sorted({slip.key for slip in question.slips})),
    }  # fmt: skip
    return replace(_json(verdict), kept=kept)


def set_part(body: SetPartIn) -> Answer:
    """Return a set with the paper of one student alone."""
    paper = plan_paper(body.texts, body.student, body.count, body.seed)
    made = Set(body.title, body.seed, tuple(brief_of(work_out(text)) for text in body.texts), (paper,))
    return Answer(write_set(made).encode(), "application/json", {})


def papers(body: PapersIn) -> Answer:
    """Return the papers of a set, or its key, as PDF."""
    return _file(write_papers(read_set(body.set), body.key, body.paper), "pdf", "key" if body.key else "papers")


def class_marks(body: MarksIn) -> Answer:
    """Mark the answers of a class, each slip named."""
    made = read_set(body.set)
    found = mark_answers(made, body.answers)
    return _json(
        ClassMarksOut(
            csv=marks_csv(made, found),
            papers=tuple(MarkedPaperOut(student=m.student, total=m.total, of=len(m.marks)) for m in found),
            slips=tuple(ClassSlipOut(slip=slip, times=n, students=who) for slip, n, who in slips_of(found)),
        )
    )


def summary(text: str) -> Summary:
    """Return what the register lists of a plan."""
    return summarize(text)
