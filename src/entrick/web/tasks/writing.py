"""Help while a plan is written."""

from __future__ import annotations

from ...core.assist.blanks import BLANK, wanted_at
from ...core.assist.complete import complete
from ...core.assist.follow import follow
from ...core.assist.glossary import WORDS
from ...core.assist.lesson import START, TASKS
from ...core.assist.lesson import at as task_at
from ...core.assist.row import begin, doubt, picked
from ...core.desk import work_out
from ...core.dimensioning.suggest import suggest_dimensions
from ...core.geometry.edges import RegionError
from ...core.moves import kinds
from ...core.plan.slots import REFERENCES, SLOTS
from ..answer import Answer, Refused
from ..present import writing as present
from ..schemas.crossing import PlanIn
from ..schemas.writing import (
    BriefIn,
    BriefOut,
    CompleteIn,
    CompleteOut,
    KindsOut,
    LessonOut,
    MisreadOut,
    RegionsIn,
    SuggestOut,
)
from .answers import as_json


def vocabulary() -> Answer:
    """Return every kind of construction with its clauses."""
    return as_json(KindsOut(kinds=tuple(present.kind(kind) for kind in kinds().values()), words=WORDS))


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
    return as_json(CompleteOut(row=row, completions=offers, doubt=doubt(row), wanted=reference))


def lesson(body: PlanIn) -> Answer:
    """Return how far a plan has come in the first job, and what comes next."""
    done = task_at(work_out(body.text))
    task = TASKS[done] if done < len(TASKS) else None
    told, why, row = (task.told, task.why, task.row) if task else ("", "", "")
    return as_json(LessonOut(start=START, at=done, of=len(TASKS), told=told, why=why, row=row))


def suggest(body: PlanIn) -> Answer:
    """Suggest dimensions that define the outline."""
    found = suggest_dimensions(work_out(body.text).solution)
    return as_json(SuggestOut(text=found.text, statements=found.statements, left_open=found.left_open))


def regions(body: RegionsIn) -> Answer:
    """Return the boundary of the regions pointed at."""
    try:
        return as_json(present.regions(work_out(body.text), body.spots, body.kind))
    except RegionError as error:
        raise Refused(404, "No region there", str(error)) from error


def brief(body: BriefIn) -> Answer:
    """Give a cam the events of a brief: sentences, or stations as CSV."""
    statement, read = follow(work_out(body.text), body.line, body.brief)
    misread = tuple(MisreadOut.model_validate(row) for row in read.misread)
    return as_json(BriefOut(statement="" if misread else statement, misread=misread))


def sheet_choices(body: PlanIn) -> Answer:
    """Return the papers, borders and scales a plan may take, each scale with its reason."""
    return as_json(present.choices(work_out(body.text)))
