"""From the core's results to what crosses the API."""

from __future__ import annotations

from collections.abc import Collection, Mapping, Sequence
from functools import lru_cache
from typing import TYPE_CHECKING
from urllib.parse import urlencode

from ..core import fault
from ..core.assist.clauses import matched
from ..core.assist.follow import events_of
from ..core.assist.methods import framed, methods
from ..core.assist.regions import region_at
from ..core.assist.row import usually_next
from ..core.board.opening import opens
from ..core.board.schedule import CALLED
from ..core.board.steps import BoardStep, counts, opened_steps
from ..core.cutting.program import CAUTION as CUTTING_CAUTION
from ..core.desk import Work, work_out
from ..core.display import Drawing, draw_curves, draw_steps, draw_worksheet, ghosts
from ..core.display.edge_rule import edge_rule
from ..core.drawing.widths import LIGHT, WIDTHS
from ..core.formats.run_sheet import CAUTION
from ..core.formats.tables import in_words
from ..core.geometry import Point
from ..core.kept import KEPT_PIECES, Kept
from ..core.kind import Kind
from ..core.logbook.taught import Taught
from ..core.measure import Dimension, Quantity, Unit, spell, spell_angle
from ..core.moves import kinds
from ..core.plan.document import Chain, Statement, Unread
from ..core.plan.edit import EditError
from ..core.plan.errors import PlanError
from ..core.plan.forms import Slot
from ..core.plan.writer import as_given, write_content, write_plan
from ..core.practice.mark import Mark
from ..core.practice.question import RULES, Question
from ..core.practice.sets import answer_of
from ..core.practice.spacing import Card
from ..core.proof import why_not_cut
from ..core.proof.measures import joined, measures
from ..core.rehearsal.rehearse import rehearse
from ..core.sheet.choose import borders, letterings, papers, recommended, scales, taken
from ..core.sheet.departure import with_departure
from ..core.sheet.layout import FORMS as SHEET_FORMS
from ..core.solve import Entry, GivenEntry
from ..core.summary import heading
from ..core.worksheets import Worksheet
from ..devices.cutter import Cutter
from .schemas import (
    AroundOut,
    CandidateOut,
    ChoiceOut,
    ChoicesOut,
    ClauseOut,
    CountedOut,
    CutMoveOut,
    CutOut,
    DrawingOut,
    EdgeRuleOut,
    EntryOut,
    EventsOut,
    FindingOut,
    FormOut,
    GivenOut,
    InsteadOut,
    JoinOut,
    JunctionOut,
    KindOut,
    LayerOut,
    MeasureOut,
    MendOut,
    MethodOut,
    MethodsOut,
    NamedSlipOut,
    OpenedOut,
    OverallOut,
    PickOut,
    ProofOut,
    QuestionOut,
    RegionsOut,
    RehearsalOut,
    SchedulesOut,
    SettingOut,
    ShareOut,
    SheetOut,
    SlotOut,
    SpreadOut,
    StepOut,
    StrokeOut,
    TableOut,
    VerdictInPractice,
    WorkOut,
    WorksheetOut,
)

if TYPE_CHECKING:
    from ..devices.judge import Judged


def work(done: Work, known: Collection[str] = (), at: int = 0, refused: str = "") -> WorkOut:
    """Present a plan worked out, without the layers the asker has."""
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
        sheet_drawing=_drawing(done.drawing, frozenset(known)),
        strokes={role: StrokeOut(width=kind.width, light=role in LIGHT) for role, kind in WIDTHS.items()},
        edge_rule=EdgeRuleOut.model_validate(edge_rule(solution.unit)),
        schedule=done.schedule,
        at=at,
        refused=refused,
        usually=usually_next(done.plan),
    )


def _drawing(drawing: Drawing, known: Collection[str]) -> DrawingOut:
    return DrawingOut(
        width=drawing.width,
        height=drawing.height,
        origin=drawing.origin,
        space=drawing.space,
        ground=drawing.ground,
        layers=tuple(
            LayerOut(key=layer.key, marks=None if layer.key in known else layer.marks) for layer in drawing.layers
        ),
    )


def unworked(text: str, reason: str) -> WorkOut:
    """Present a plan that asks for too much to be worked out: its text, its heading, and why."""
    head = heading(text)
    blank = work(work_out(""))
    return blank.model_copy(
        update={
            "text": text,
            "title": head.title,
            "drawing": head.drawing,
            "unit": head.unit or "mm",
            "trouble": reason,
        }
    )


def proof(done: Work) -> ProofOut:
    """Present the inspection of a plan."""
    return ProofOut(
        findings=tuple(
            FindingOut(
                weight=f.weight, rule=f.rule, message=f.message, line=f.line, place=_pair(f.place),
                mend=MendOut.model_validate(f.mend) if f.mend else None,
            )
            for f in done.findings
        ),
        junctions=tuple(
            JunctionOut(
                outline=j.outline, line=j.line, first=j.first, second=j.second, turn=j.turn, how=j.how,
                place=(j.place.x, j.place.y),
            )
            for j in joined(done.checked)
        ),
        measures=tuple(MeasureOut.model_validate(each) for each in measures(done.checked)),
        cut=why_not_cut(done.findings),
    )  # fmt: skip


def schedules(done: Work, taught: Taught) -> SchedulesOut:
    """Present what every order of work takes, minutes as far as they are known in one's own pace."""
    found = counts(done.solution, done.sheet, done.kit, taught.pace)
    rehearsed = ", rehearsed ones among them" if taught.rehearsed else ""
    told = f"minutes by {taught.steps} steps of the logbook{rehearsed}" if taught.steps else "minutes are guesses"
    return SchedulesOut(
        told=told,
        schedules=tuple(
            CountedOut(schedule=how, called=CALLED[how], settings=c.settings, changes=c.changes, minutes=c.minutes)
            for how, c in found.items()
        ),
    )


def _whose(taught: Taught) -> str:
    """Tell whose errors a rehearsal makes."""
    if not taught.values:
        return "The errors of the hand are common practice, no source."
    rest = " and ".join(f"{tool} ({count} values)" for tool, count in taught.values.items())
    rehearsed = ", rehearsed ones among them" if taught.rehearsed else ""
    return f"The errors of {rest} are those of the logbook{rehearsed}; the others are common practice, no source."


def rehearsal(done: Work, taught: Taught) -> RehearsalOut:
    """Present a rehearsal by one's own hand as far as it is known, places in mm on paper."""
    found, sheet = rehearse(done.solution, done.sheet, hand=taught.hand, kit=done.kit), done.sheet
    joins = []
    for join, cloud in zip(found.joins, found.clouds, strict=True):
        spot = sheet.on_paper(join.place)
        joins.append(
            JoinOut(
                outline=join.outline, first=join.first, second=join.second, tangent=join.tangent,
                place=(spot.x, spot.y), miss=SpreadOut.model_validate(join.miss), kink=join.kink, hidden=join.hidden,
                unmet=join.unmet, shares=tuple(map(ShareOut.model_validate, join.shares)),
                instead=tuple(map(InsteadOut.model_validate, join.instead)),
                cloud=tuple((each.real * sheet.factor, each.imag * sheet.factor) for each in cloud),
            )
        )  # fmt: skip
    sizes = tuple(map(OverallOut.model_validate, found.sizes))
    return RehearsalOut(hands=found.hands, joins=tuple(joins), sizes=sizes, whose=_whose(taught))


def regions(done: Work, spots: Sequence[tuple[float, float]], kind: str) -> RegionsOut:
    """Present the boundary of the regions that places on paper lie in."""
    sheet = done.sheet
    found = region_at(done.solution, [sheet.on_plan(Point(x, y)) for x, y in spots], kind)
    marks = draw_curves([piece.curve for loop in found.loops for piece in loop.pieces], sheet)
    return RegionsOut(statements=found.statements, marks=tuple(marks))


def opened(done: Work, number: int) -> OpenedOut:
    """Present the classic construction behind a step; empty for a step the plan does not have."""
    step = next((step for step in done.steps if step.number == number), None)
    steps = opened_steps(step, done.solution, done.kit, done.sheet) if step else ()
    return OpenedOut(steps=tuple(_step(each, done) for each in steps), marks=tuple(draw_steps(steps, done.sheet)))


def compared(done: Work, line: int) -> MethodsOut:
    """Present the methods of a statement side by side."""
    found = methods(done, line)
    drawn = [draw_steps(method.steps, done.sheet) for method in found]
    box = framed(done, line)
    return MethodsOut(
        methods=tuple(
            MethodOut(
                said=method.said or "the usual way", row=method.row, told=method.told, settings=method.settings,
                instruments=method.instruments, chosen=method.chosen, marks=tuple(marks),
            )
            for method, marks in zip(found, drawn, strict=True)
        ),
        box=(box.left, box.lower, box.right - box.left, box.upper - box.lower),
    )  # fmt: skip


def worksheet(done: Work, line: int, turn: float) -> WorksheetOut:
    """Present the worksheet of a statement, turned through an angle."""
    _, sheet = worksheet_of(done, line, turn)
    return WorksheetOut(
        title=sheet.title,
        display=draw_worksheet(sheet, done.solution.unit),
        tables=tuple(TableOut.model_validate(in_words(table, done)) for table in sheet.tables),
        turns=sheet.turns,
        told=sheet.told,
        caution=sheet.caution,
    )


def worksheet_of(done: Work, line: int, turn: float) -> tuple[str, Worksheet]:
    """Return the name of the statement on a line, and its worksheet.

    Raises
    ------
    EditError
        When that statement has none.
    """
    entry = done.solution.entry(line)
    if entry is None or entry.made is None or entry.made.worksheet is None:
        raise EditError(f"line {line} has no worksheet")
    return entry.statement.name, entry.made.worksheet(turn)


def choices(done: Work) -> ChoicesOut:
    """Present what the sheet may be."""
    said = done.solution.sheet
    ratios = scales(done.solution, done.sheet)
    best = recommended(ratios)
    return ChoicesOut(
        units=tuple(unit.value for unit in Unit),
        papers=tuple(ChoiceOut.model_validate(choice) for choice in taken(said, papers(done.solution.unit))),
        borders=tuple(ChoiceOut.model_validate(choice) for choice in taken(said, borders())),
        letterings=tuple(ChoiceOut.model_validate(c) for c in taken(said, letterings(), "dimensions aligned")),
        scales=tuple(ChoiceOut.model_validate(choice) for choice in ratios),
        recommended=best.name if best else "",
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
            found.append(_entry_or_fault(solved[number], done))
        elif isinstance(line.content, Unread) and number not in given_lines:
            error = next((e for e in done.solution.errors if e.line == number), None)
            found.append(EntryOut(line=number, text=line.content.text, error=error))
        elif line.content is None and line.comment:
            found.append(EntryOut(line=number, text=line.comment, comment=line.comment.lstrip("# ")))
    return found


_ENTRIES: Kept[EntryOut] = Kept(KEPT_PIECES)
_STEPS: Kept[StepOut] = Kept(KEPT_PIECES)


def _entry_or_fault(entry: Entry, done: Work) -> EntryOut:
    key = (id(entry), done.sheet.factor)
    known = _ENTRIES.recall(key)
    if known is not None:
        return known
    try:
        shown = _entry(entry, done)
    except Exception as error:
        told = PlanError(entry.line, fault.told(error, f"presenting line {entry.line}, {entry.statement.kind}"))
        return EntryOut(line=entry.line, text=write_content(entry.statement), name=entry.statement.name, error=told)
    # Candidates lie on the paper, and move when the view does.
    return shown if shown.candidates else _ENTRIES.keep(key, shown, entry, 20)


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
        clauses=_clauses(statement),
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
        worksheet=made is not None and made.worksheet is not None,
        events=EventsOut.model_validate(events) if (events := events_of(statement)) else None,
        has_methods=kind is not None and kind.has_methods,
        error=entry.error,
    )


_CLAUSES: Kept[tuple[ClauseOut, ...]] = Kept(8192)


def _clauses(statement: Statement) -> tuple[ClauseOut, ...]:
    known = _CLAUSES.recall(id(statement))
    return _CLAUSES.keep(id(statement), _matched(statement), statement) if known is None else known


def _matched(statement: Statement) -> tuple[ClauseOut, ...]:
    found = []
    for clause in statement.clauses:
        match = matched(statement.kind, clause)
        if match is None:
            found.append(ClauseOut(text=str(clause), key="", form=""))
            continue
        picks = tuple(
            PickOut(place=slot.name, expectation=slot.expectation)
            for slot in match.form.slots
            if slot.takes_one and slot.name in match.slots
        )
        found.append(ClauseOut(text=str(clause), key=match.form.key, form=match.form.example, picks=picks))
    return tuple(found)


def _step(step: BoardStep, done: Work) -> StepOut:
    key = (id(step), done.sheet.factor)
    return _STEPS.recall(key) or _STEPS.keep(key, _shown(step, done), step, 10)


@lru_cache(maxsize=2048)
def _picture(tool: str, value: str, unit: str, graduation: str) -> str:
    return "/api/pictures/setting.svg?" + urlencode(
        {"tool": tool, "value": value, "unit": unit, "graduation": graduation}
    )


def _shown(step: BoardStep, done: Work) -> StepOut:
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
            kept=s.kept,
            picture=_picture(step.tool, f"{s.drawn:.6g}", unit, str(kit.graduation)),
        )
    return StepOut(
        number=step.number,
        line=step.line,
        name=step.name,
        tool=step.tool,
        text=step.text,
        check=step.check,
        setting=setting,
        needle=_pair(step.needle * done.sheet.factor) if step.needle else None,
        opens=step.source is not None and step.source.act is not None and opens(step.source.act),
        why=step.why,
    )


def around(done: Work) -> AroundOut:
    """Present what is done before the first statement and after the last."""
    mistakes = {e.line: kinds()[e.statement.kind].mistake for e in done.solution.entries if e.statement.kind in kinds()}
    ready, finish = (tuple(_shown(step, done) for step in steps) for steps in (done.before, done.after))
    return AroundOut(ready=ready, finish=finish, mistakes=mistakes, caution=CAUTION)


def kind(declared: Kind) -> KindOut:
    """Present a kind with the clauses it declares."""
    return KindOut(
        name=declared.name,
        group=declared.group,
        summary=declared.summary,
        example=declared.example,
        mistake=declared.mistake,
        by_clicking=declared.by_clicking,
        lines_in=str(declared.lines_in or ""),
        follows=declared.follows,
        forms=tuple(
            FormOut(
                key=form.key,
                pattern=form.pattern,
                example=form.example,
                needed=form.needed,
                most=form.most,
                choice=form.choice,
                parts=tuple(
                    SlotOut.model_validate(part) if isinstance(part, Slot) else part.text for part in form.parts
                ),
            )
            for form in declared.forms
        ),
    )


def question(asked: Question, known: Mapping[str, Card], now: float) -> QuestionOut:
    """Present a question without its answer."""
    keys = (asked.rule, *(slip.key for slip in asked.slips))
    return QuestionOut(
        key=asked.key, rule=asked.rule, tests=RULES[asked.rule], asks=asked.asks, sort=asked.sort, line=asked.line,
        step=asked.step, unit=asked.unit, choices=asked.choices, hints=len(asked.hints), tool=asked.setting,
        shows=asked.shows, lettered=asked.rule == "candidate", pointed=asked.rule == "next",
        due=any(key in known and known[key].due <= now for key in keys),
    )  # fmt: skip


def picture_at(tool: str, value: float, unit: str) -> str:
    """Return the address of the picture of an instrument at a setting."""
    said = {"tool": tool, "value": f"{value:.6g}", "unit": unit, "graduation": "1/2" if unit == "mm" else "1/32"}
    return f"/api/pictures/setting.svg?{urlencode(said)}"


def verdict_in_practice(asked: Question, mark: Mark, share: float) -> VerdictInPractice:
    """Present what came of an answer."""
    right = asked.right
    picture = ""
    if asked.setting and isinstance(right, float | int):
        picture = picture_at(asked.setting, float(right), asked.unit)
    return VerdictInPractice(
        share=share, told=mark.told, slips=tuple(NamedSlipOut(key=s.key, said=s.said) for s in mark.slips),
        right=answer_of(asked), working=asked.working, picture=picture,
    )  # fmt: skip


def cut(
    program: str, machine: Cutter, found: Judged, edges: Sequence[Sequence[tuple[float, float]]], tool: float
) -> CutOut:
    """Present what a cutter did, and how the part came out."""
    spots = [spot for edge in edges for spot in edge]
    xs, ys = [x for x, _ in spots], [y for _, y in spots]
    return CutOut(
        program=program,
        moves=tuple(
            CutMoveOut(block=m.block, start=m.start, end=m.end, centre=m.centre, turn=m.turn, cutting=m.cutting,
                       minutes=m.minutes) for m in machine.moves
        ),
        edges=tuple(tuple(edge) for edge in edges), tool=tool, bounds=(min(xs), min(ys), max(xs), max(ys)),
        happened=tuple(machine.told), fits=found.fits, told=found.told, gouged=found.gouged,
        left=min(found.left, 1e6), corners=found.corners, minutes=found.minutes, length=found.length,
        caution=CUTTING_CAUTION,
    )  # fmt: skip
