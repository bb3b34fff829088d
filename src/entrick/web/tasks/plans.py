"""A plan worked out, after an edit."""

from __future__ import annotations

from contextlib import suppress

from ...core.assist.clauses import set_place
from ...core.assist.follow import Event, add_event, set_event
from ...core.desk import work_out
from ...core.moves import kinds
from ...core.plan import edit as edits
from ...core.plan.document import Plan, SheetLine
from ...core.plan.reader import read_plan
from ...core.plan.writer import write_plan
from ...core.sheet.choose import with_clause
from ..answer import Answer
from ..present import plans as present
from ..schemas.edits import (
    AddEvent,
    Append,
    ChooseCandidate,
    DeleteLine,
    Edit,
    InsertLine,
    MoveLine,
    NewGiven,
    SaySheet,
    SetClause,
    SetEvent,
    SetGiven,
    SetHead,
    SetLine,
    SetPlace,
)
from ..schemas.plans import WorkIn
from .answers import as_json, kit_of


def work(body: WorkIn) -> Answer:
    """Work a plan out, after an edit if one is given."""
    plan, refused = read_plan(body.text), ""
    if body.edit is not None:
        try:
            plan = _edited(plan, body.edit)
        except edits.NotUnderstood as error:
            refused = str(error)
    done = work_out(write_plan(plan), kit_of(body.kit), body.schedule)
    last = len(done.plan.lines)
    at = last if isinstance(body.edit, Append) and done.solution.entry(last) else 0
    return as_json(present.work(done, body.known, at, refused))


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
    return as_json(present.unworked(write_plan(plan), reason))
