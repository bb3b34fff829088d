"""A plan worked out, after an edit: what a person sees of it."""

from __future__ import annotations

from collections.abc import Collection, Mapping
from contextlib import suppress
from dataclasses import replace
from typing import Annotated, Literal, cast

from pydantic import Field

from ...core import fault
from ...core.assist.clauses import matched
from ...core.assist.follow import events_of
from ...core.assist.row import usually_next
from ...core.desk import Work, work_out
from ...core.display import Drawing, ghosts
from ...core.display.edge_rule import edge_rule
from ...core.drawing.widths import LIGHT, WIDTHS
from ...core.measure import Dimension, Quantity, Unit, spell, spell_angle
from ...core.memo import MEMO, Memo, remembered
from ...core.moves import kinds
from ...core.plan import edit as edits
from ...core.plan.document import Chain, Statement, Unread
from ...core.plan.errors import PlanError
from ...core.plan.reader import read_plan
from ...core.plan.writer import as_given, write_content, write_plan
from ...core.sheet.departure import with_departure
from ...core.sheet.layout import FORMS as SHEET_FORMS
from ...core.solve import Entry, GivenEntry
from ...core.summary import heading
from ...records import Schedule
from ..base import Asked, Crossing, KitText, Marks, PlanText
from ..operation import Operations
from .board import StepOut, step_out
from .edits import Append, ChooseCandidate, Edit
from .shared import kit_of

Key = Annotated[str, Field(max_length=32)]


class WorkIn(Asked):
    """A plan to be worked out, after an edit if there is one.

    `known` names layers of the drawing the asker has, by their keys: they are not sent again.
    """

    text: PlanText
    schedule: Schedule = "written"
    kit: KitText = ""
    edit: Edit | None = None
    known: Annotated[tuple[Key, ...], Field(max_length=4000)] = ()


class GivenOut(Crossing):
    """A given."""

    line: int
    name: str
    value: str
    worth: str
    note: str
    assumed: bool
    used_by: tuple[int, ...]
    error: PlanError | None
    is_chain: bool = False


class PickOut(Crossing):
    """A place of a clause that refers to something drawn, and what is wanted there."""

    place: str
    expectation: str


class ClauseOut(Crossing):
    """A clause as written; `picks` are the places whose reference may be picked on the sheet
    instead."""

    text: str
    key: str
    form: str
    picks: tuple[PickOut, ...] = ()


class EventOut(Crossing):
    """One event of a follower: which clause says it, and what it says; `motion` is empty for the
    usual one."""

    clause: int
    event: str
    angle: str
    lift: str
    motion: str


class EventsOut(Crossing):
    """What a follower does, event by event, and what each may be; `still` is the event without lift
    and motion."""

    rows: tuple[EventOut, ...]
    events: tuple[str, ...]
    motions: tuple[str, ...]
    usual: str
    still: str


class CandidateOut(Crossing):
    """A lettered solution."""

    letter: str
    about: str
    size: str
    words: tuple[str, ...]
    chosen: bool
    marks: Marks


class EntryOut(Crossing):
    """An entry in the order of work, or a comment between entries."""

    line: int
    text: str
    name: str = ""
    kind: str = ""
    comment: str = ""
    sentence: str = ""
    working: tuple[str, ...] = ()
    mistake: str = ""
    note: str = ""
    assumed: bool = False
    clauses: tuple[ClauseOut, ...] = ()
    candidates: tuple[CandidateOut, ...] = ()
    worksheet: bool = False
    events: EventsOut | None = None
    has_methods: bool = False
    error: PlanError | None = None


class SheetOut(Crossing):
    """The sheet, mm."""

    width: float
    height: float
    border: float
    scale: str
    name: str
    said: str
    working: tuple[str, ...]
    errors: tuple[PlanError, ...]
    forms: tuple[str, ...]


class EdgeRuleOut(Crossing):
    """The rule along the edges of the sheet: lengths in mm, longer marks every so many
    divisions."""

    division: float
    middle: int
    long: int
    number: float
    every: int


class StrokeOut(Crossing):
    """How strokes of a role are drawn: width in mm, and whether so lightly that they may be rubbed
    out."""

    width: float
    light: bool


class LayerOut(Crossing):
    """What one statement puts on the sheet, mm from the datum; None where the asker has it."""

    key: str
    marks: Marks | None


class DrawingOut(Crossing):
    """The sheet: what belongs to the paper, mm on paper, and what every statement draws, from the
    datum at `origin`.

    Light work stops at the sides of `space`: left, lower, right, upper.
    """

    width: float
    height: float
    origin: tuple[float, float]
    space: tuple[float, float, float, float]
    ground: Marks
    layers: tuple[LayerOut, ...]


class WorkOut(Crossing):
    """A plan worked out; `trouble` says why where it asks for too much and is text alone.

    `at` is the line of the statement that was put at the end, 0 where none was; `refused` says why
    an edit was not made and the plan is as it was; `usually` is the statement that usually comes
    next."""

    text: str
    title: str
    drawing: str
    unit: Literal["mm", "in"]
    sheet: SheetOut
    givens: tuple[GivenOut, ...]
    entries: tuple[EntryOut, ...]
    steps: tuple[StepOut, ...]
    sheet_drawing: DrawingOut
    strokes: dict[str, StrokeOut]
    edge_rule: EdgeRuleOut
    schedule: Schedule = "written"
    at: int = 0
    refused: str = ""
    usually: str = ""
    trouble: str = ""


def _shown(done: Work, known: Collection[str] = (), at: int = 0, refused: str = "") -> WorkOut:
    """Present a plan worked out, without the layers the asker has."""
    solution, sheet = done.solution, done.sheet
    quantities = solution.quantities
    return WorkOut(
        text=write_plan(done.plan),
        title=solution.title,
        drawing=solution.drawing,
        unit=solution.unit.value,
        sheet=SheetOut.from_core(
            sheet,
            scale=str(sheet.scale),
            said=", ".join(map(str, solution.sheet.clauses)) if solution.sheet else "",
            forms=tuple(form.example for form in SHEET_FORMS),
        ),
        givens=tuple(_given(given, solution.unit, quantities) for given in solution.givens),
        entries=tuple(_entries(done)),
        steps=tuple(step_out(step, done) for step in done.steps),
        sheet_drawing=_drawing(done.drawing, frozenset(known)),
        strokes={
            role: StrokeOut(width=kind.width, light=role in LIGHT) for role, kind in WIDTHS.items()
        },
        edge_rule=EdgeRuleOut.model_validate(edge_rule(solution.unit)),
        schedule=done.schedule,
        at=at,
        refused=refused,
        usually=usually_next(done.plan),
    )


def _drawing(drawing: Drawing, known: Collection[str]) -> DrawingOut:
    layers = (
        LayerOut(key=each.key, marks=None if each.key in known else each.marks)
        for each in drawing.layers
    )
    return DrawingOut.from_core(drawing, layers=tuple(layers))


def _given(entry: GivenEntry, unit: Unit, quantities: Mapping[str, Quantity]) -> GivenOut:
    given, quantity = entry.given, entry.quantity
    shown = {"name": given.name, "note": given.note, "assumed": given.assumed}
    worth = ""
    if isinstance(given, Chain):
        value = (
            write_content(given)
            .partition("= ")[2]
            .removesuffix(f' "{given.note}"')
            .removesuffix(", assumed")
        )
        links = (
            spell(q.value, unit)
            for key, q in quantities.items()
            if key.startswith(f"{given.name}.")
        )
        worth = " + ".join(links) + f" = {spell(quantity.value, unit)}" if quantity else ""
        return GivenOut.from_core(entry, **shown, value=value, worth=worth, is_chain=True)
    value = as_given(given)
    if quantity is not None:
        angle = quantity.dimension is Dimension.ANGLE
        worth = spell_angle(quantity.value) if angle else spell(quantity.value, unit)
        worth = "" if value.endswith(f"{given.mark}{worth}") else worth
    return GivenOut.from_core(entry, **shown, value=value, worth=worth, is_chain=False)


def _entries(done: Work) -> list[EntryOut]:
    solved = {entry.line: entry for entry in done.solution.entries}
    given_lines = {given.line for given in done.solution.givens}
    result = []
    for number, line in enumerate(done.plan.lines, 1):
        if number in solved:
            result.append(_entry_or_fault(solved[number], done))
        elif isinstance(line.content, Unread) and number not in given_lines:
            error = next((e for e in done.solution.errors if e.line == number), None)
            result.append(EntryOut(line=number, text=line.content.text, error=error))
        elif line.content is None and line.comment:
            result.append(
                EntryOut(line=number, text=line.comment, comment=line.comment.lstrip("# "))
            )
    return result


ENTRIES = cast(Memo[EntryOut], MEMO)


def _entry_or_fault(entry: Entry, done: Work) -> EntryOut:
    key = (_entry, entry.serial, done.sheet.factor)
    known = ENTRIES.get(key)
    if known is not None:
        return known
    try:
        shown = _entry(entry, done)
    except Exception as error:
        told = PlanError(
            entry.line, fault.report(error, f"presenting line {entry.line}, {entry.statement.kind}")
        )
        return EntryOut(
            line=entry.line,
            text=write_content(entry.statement),
            name=entry.statement.name,
            error=told,
        )
    # Candidates lie on the paper, and move when the view does.
    return shown if shown.candidates else ENTRIES.put(key, shown, 20)


def _entry(entry: Entry, done: Work) -> EntryOut:
    statement, made = entry.statement, entry.made
    kind = kinds().get(statement.kind)
    return EntryOut(
        line=entry.line,
        text=write_content(statement),
        name=statement.name,
        kind=statement.kind,
        sentence=made.sentence if made else "",
        working=with_departure(made.working, made.departs, done.sheet) if made else (),
        mistake=kind.mistake if kind else "",
        note=statement.note,
        assumed=statement.assumed,
        clauses=_matched(statement),
        candidates=tuple(
            CandidateOut.from_core(
                candidate, size=candidate.size(done.solution.unit), marks=tuple(marks)
            )
            for candidate, marks in ghosts(entry.candidates, done.sheet, entry.line)
        ),
        worksheet=made is not None and made.worksheet is not None,
        events=EventsOut.model_validate(events) if (events := events_of(statement)) else None,
        has_methods=kind is not None and kind.has_methods,
        error=_without_candidates(entry),
    )


def _without_candidates(entry: Entry) -> PlanError | None:
    """Return the mistake of an entry; what fits stands on the sheet and on its presses, and is not
    told a third time."""
    if entry.error is None or not entry.candidates:
        return entry.error
    told = entry.error.message.partition("; say which")[0]
    return replace(entry.error, message=f"{told}: choose by the letters on the sheet")


@remembered(10)
def _matched(statement: Statement) -> tuple[ClauseOut, ...]:
    result = []
    for clause in statement.clauses:
        match = matched(statement.kind, clause)
        if match is None:
            result.append(ClauseOut(text=str(clause), key="", form=""))
            continue
        picks = tuple(
            PickOut(place=slot.name, expectation=slot.expectation)
            for slot in match.form.slots
            if slot.takes_one and slot.name in match.slots
        )
        result.append(
            ClauseOut(text=str(clause), key=match.form.key, form=match.form.example, picks=picks)
        )
    return tuple(result)


plans = Operations()


def _unworked(reason: str, body: WorkIn) -> WorkOut:
    """Return a plan that asks for too much as text alone, edited where that needs no working
    out."""
    plan = read_plan(body.text)
    if body.edit is not None and not isinstance(body.edit, ChooseCandidate):
        with suppress(edits.NotUnderstood):
            plan = body.edit.carried_out(plan)
    text = write_plan(plan)
    head = heading(text)
    known = {"title": head.title, "drawing": head.drawing, "unit": head.unit or "mm"}
    return _shown(work_out("")).model_copy(update={"text": text, "trouble": reason, **known})


@plans.post("/work", otherwise=_unworked)
def work_out_plan(body: WorkIn) -> WorkOut:
    """Work a plan out, after an edit if one is given. The answer carries the edited text.

    A plan that asks for more than the desk gives to one comes back as text alone, with the reason
    in `trouble`."""
    plan, refused = read_plan(body.text), ""
    if body.edit is not None:
        try:
            plan = body.edit.carried_out(plan)
        except edits.NotUnderstood as error:
            refused = str(error)
    done = work_out(write_plan(plan), kit_of(body.kit), body.schedule)
    last = len(done.plan.lines)
    at = last if isinstance(body.edit, Append) and done.solution.entry(last) else 0
    return _shown(done, body.known, at, refused)
