"""From the core's results to what crosses the API."""

from __future__ import annotations

from collections.abc import Mapping
from urllib.parse import urlencode

from ..core.board import BoardStep
from ..core.desk import Work, work_out
from ..core.display import ghosts
from ..core.geometry import Point
from ..core.kind import Kind
from ..core.measure import Dimension, Quantity, Unit, spell, spell_angle
from ..core.moves import kinds
from ..core.plan.document import Chain, Statement, Unread
from ..core.plan.forms import Slot, match_clause
from ..core.plan.writer import as_given, write_content, write_plan
from ..core.sheet import WIDTHS
from ..core.sheet.layout import FORMS as SHEET_FORMS
from ..core.solve import Entry, GivenEntry
from ..store import JobView
from .schemas import (
    CandidateOut,
    ClauseOut,
    EntryOut,
    FindingOut,
    FormOut,
    GivenOut,
    JobOut,
    KindOut,
    SettingOut,
    SheetOut,
    SlotOut,
    StepOut,
    WorkOut,
)


def work(done: Work) -> WorkOut:
    """Present a plan worked out."""
    solution, sheet = done.solution, done.sheet
    quantities = solution.quantities
    return WorkOut(
        text=write_plan(done.plan),
        title=solution.title,
        drawing=solution.drawing,
        unit=solution.unit.value,
        sheet=SheetOut(
            width=sheet.width,
            height=sheet.height,
            border=sheet.border,
            scale=str(sheet.scale),
            name=sheet.name,
            said=", ".join(map(str, solution.sheet.clauses)) if solution.sheet else "",
            errors=sheet.errors,
            forms=tuple(form.example for form in SHEET_FORMS),
            working=sheet.working,
        ),
        givens=tuple(_given(given, solution.unit, quantities) for given in solution.givens),
        entries=tuple(_entries(done)),
        steps=tuple(_step(step, done) for step in done.steps),
        display=done.display,
        widths={role: kind.width for role, kind in WIDTHS.items()},
        findings=tuple(
            FindingOut(weight=f.weight, rule=f.rule, message=f.message, line=f.line, place=_pair(f.place))
            for f in done.findings
        ),
    )


def _pair(point: Point | None) -> tuple[float, float] | None:
    return None if point is None else (point.x, point.y)


def _given(entry: GivenEntry, unit: Unit, quantities: Mapping[str, Quantity]) -> GivenOut:
    given, quantity = entry.given, entry.quantity
    worth = ""
    if isinstance(given, Chain):
        value = write_content(given).partition("= ")[2].removesuffix(f' "{given.note}"').removesuffix(", assumed")
        links = (spell(q.value, unit) for key, q in quantities.items() if key.startswith(f"{given.name}."))
        worth = " + ".join(links) + f" = {spell(quantity.value, unit)}" if quantity else ""
        return GivenOut(
            line=entry.line, name=given.name, value=value, worth=worth, note=given.note, assumed=given.assumed,
            used_by=entry.used_by, error=entry.error, is_chain=True,
        )  # fmt: skip
    value = as_given(given)
    if quantity is not None:
        angle = quantity.dimension is Dimension.ANGLE
        worth = spell_angle(quantity.value) if angle else spell(quantity.value, unit)
        worth = "" if value.endswith(f"{given.mark}{worth}") else worth
    return GivenOut(
        line=entry.line,
        name=given.name,
        value=value,
        worth=worth,
        note=given.note,
        assumed=given.assumed,
        used_by=entry.used_by,
        error=entry.error,
    )


def _entries(done: Work) -> list[EntryOut]:
    solved = {entry.line: entry for entry in done.solution.entries}
    given_lines = {given.line for given in done.solution.givens}
    found = []
    for number, line in enumerate(done.plan.lines, 1):
        if number in solved:
            found.append(_entry(solved[number], done))
        elif isinstance(line.content, Unread) and number not in given_lines:
            error = next((e for e in done.solution.errors if e.line == number), None)
            found.append(EntryOut(line=number, text=line.content.text, error=error))
        elif line.content is None and line.comment:
            found.append(EntryOut(line=number, text=line.comment, comment=line.comment.lstrip("# ")))
    return found


def _entry(entry: Entry, done: Work) -> EntryOut:
    statement, made = entry.statement, entry.made
    kind = kinds().get(statement.kind)
    return EntryOut(
        line=entry.line,
        text=write_content(statement),
        name=statement.name,
        kind=statement.kind,
        sentence=made.sentence if made else "",
        working=made.working if made else (),
        mistake=kind.mistake if kind else "",
        note=statement.note,
        assumed=statement.assumed,
        clauses=_clauses(statement, kind),
        candidates=tuple(
            CandidateOut(
                letter=candidate.letter,
                about=candidate.about,
                words=candidate.words,
                chosen=candidate.chosen,
                marks=tuple(marks),
            )
            for candidate, marks in ghosts(entry.candidates, done.sheet, entry.line)
        ),
        error=entry.error,
    )


def _clauses(statement: Statement, kind: Kind | None) -> tuple[ClauseOut, ...]:
    forms = kind.forms if kind else ()
    matched = [match_clause(clause, forms) for clause in statement.clauses]
    return tuple(
        ClauseOut(text=str(clause), key=match.form.key if match else "", form=match.form.example if match else "")
        for clause, match in zip(statement.clauses, matched, strict=True)
    )


def _step(step: BoardStep, done: Work) -> StepOut:
    setting, kit = None, done.kit
    if step.setting is not None:
        s = step.setting
        unit = "deg" if s.is_angle else kit.unit.value
        setting = SettingOut(
            is_angle=s.is_angle,
            actual=s.actual,
            drawn=s.drawn,
            reading=s.reading,
            error=s.error,
            told=s.told,
            rounding=s.rounding,
            picture="/api/pictures/setting.svg?"
            + urlencode({"tool": step.tool, "value": f"{s.drawn:.6g}", "unit": unit, "graduation": kit.graduation}),
        )
    return StepOut(
        number=step.number,
        line=step.line,
        name=step.name,
        tool=step.tool,
        text=step.text,
        check=step.check,
        setting=setting,
        needle=_pair(done.sheet.on_paper(step.needle)) if step.needle else None,
    )


def kind(declared: Kind) -> KindOut:
    """Present a kind with the clauses it declares."""
    return KindOut(
        name=declared.name,
        group=declared.group,
        summary=declared.summary,
        example=declared.example,
        mistake=declared.mistake,
        forms=tuple(
            FormOut(
                key=form.key,
                pattern=form.pattern,
                example=form.example,
                needed=form.needed,
                most=form.most,
                choice=form.choice,
                parts=tuple(
                    SlotOut(name=part.name, type=part.type, expectation=part.expectation, choices=part.choices)
                    if isinstance(part, Slot)
                    else part.text
                    for part in form.parts
                ),
            )
            for form in declared.forms
        ),
    )


def job(view: JobView) -> JobOut:
    """Present a job; its title, number, units and scale stand in its plan."""
    done = work_out(view.newest.text)
    return JobOut(
        id=view.id,
        title=done.solution.title or "Untitled",
        drawing=done.solution.drawing,
        unit=done.solution.unit.value,
        scale=str(done.sheet.scale),
        revision=view.newest.number,
        worked_at=view.newest.saved_at,
        archived=view.archived,
        mistakes=len(done.solution.errors),
        outlines=sum(len(e.made.loops) for e in done.solution.entries if e.made),
    )
