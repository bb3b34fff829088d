"""Help while a plan is written: completion, kinds, regions, dimensions, briefs, the sheet, the
first job."""

from __future__ import annotations

from typing import Annotated

from pydantic import Field

from ...core.assist.blanks import BLANK, wanted_at
from ...core.assist.complete import complete
from ...core.assist.completion import Completion
from ...core.assist.follow import follow
from ...core.assist.glossary import WORDS
from ...core.assist.lessons import lessons
from ...core.assist.regions import region_at
from ...core.assist.row import begin, doubt, picked
from ...core.desk import work_out
from ...core.dimensioning.suggest import suggest_dimensions
from ...core.display import draw_curves
from ...core.geometry import Point
from ...core.geometry.edges import RegionError
from ...core.kind import Kind
from ...core.measure import Unit
from ...core.moves import kinds
from ...core.plan.document import LONGEST_LINE
from ...core.plan.forms import Slot
from ...core.plan.slots import REFERENCES
from ...core.sheet.choose import borders, letterings, papers, recommended, scales, taken
from ..answer import Refused
from ..base import Asked, Crossing, Marks, PlanIn, PlanText, RowText, Spot, Whole
from ..operation import Operations


class SuggestOut(Crossing):
    """Dimensions suggested: the plan with them, the statements, and what they leave open."""

    text: str
    statements: tuple[str, ...]
    left_open: tuple[str, ...]


class RegionsIn(Asked):
    """Places pointed at, mm on paper; the boundary of the regions they lie in is wanted as
    statements of a kind."""

    text: PlanText
    spots: Annotated[tuple[Spot, ...], Field(min_length=1, max_length=200)]
    kind: Annotated[str, Field(max_length=40)] = "line in"


class RegionsOut(Crossing):
    """The boundary: statements that line it in, and what they will look like."""

    statements: tuple[str, ...]
    marks: Marks


class BriefIn(Asked):
    """Events of a cam in sentences, or stations as CSV, for the statement on a line."""

    text: PlanText
    line: Whole
    brief: Annotated[str, Field(max_length=20_000)]


class MisreadOut(Crossing):
    """A row of a brief that could not be read, and why."""

    row: int
    message: str


class UnderstoodOut(Crossing):
    """One event of a brief as it was understood: the words it was read from, what the follower
    does, over which angle, from where to where, its lift and motion."""

    sentence: str
    event: str
    angle: str
    span: str
    lift: str
    motion: str


class BriefOut(Crossing):
    """The whole statement with the events of the brief, empty where a row could not be read; the
    events as they were understood."""

    statement: str
    events: tuple[UnderstoodOut, ...]
    misread: tuple[MisreadOut, ...]


class ChoiceOut(Crossing):
    """One thing to take for a part of the sheet, how the sheet line says it, and why or why not."""

    name: str
    said: str
    reason: str
    fits: bool
    chosen: bool


class ChoicesOut(Crossing):
    """What a sheet may be: units, papers, borders, scales with their reasons, the recommended
    one."""

    units: tuple[str, ...]
    papers: tuple[ChoiceOut, ...]
    borders: tuple[ChoiceOut, ...]
    scales: tuple[ChoiceOut, ...]
    letterings: tuple[ChoiceOut, ...]
    recommended: str


class CompleteIn(Asked):
    """A row half written below a line of a plan.

    `after` is the line it stands below, the last where none is named. `begin` names a kind the row
    is to begin with, unless it does; `pick` what was picked on the sheet for it. `caret` is where
    in the row one writes, its end where that is not said."""

    text: PlanText
    row: RowText
    after: Whole | None = None
    begin: Annotated[str, Field(max_length=40)] = ""
    pick: Annotated[str, Field(max_length=200)] = ""
    caret: Annotated[int, Field(ge=0, le=LONGEST_LINE * 2)] | None = None


class CompleteOut(Crossing):
    """The row as it is now, what may follow, why it is no statement yet where that can be told, and
    what is to be picked on the sheet for the blank at the caret, empty where nothing is; `blank` is
    what may be written there, picked or not."""

    row: str
    completions: tuple[Completion, ...]
    doubt: str
    wanted: str
    blank: str


class SlotOut(Crossing):
    """A place for a value in a clause; `is_reference` tells whether it takes the name of something
    drawn."""

    name: str
    type: str
    expectation: str
    choices: tuple[str, ...]
    is_reference: bool


class FormOut(Crossing):
    """A clause a kind takes. `parts` alternates words and slots as the pattern does."""

    key: str
    pattern: str
    example: str
    needed: bool
    most: int
    choice: bool
    parts: tuple[str | SlotOut, ...]


class KindOut(Crossing):
    """A kind of construction.

    `by_clicking` says whether it is said by clicking pieces one after another; `lines_in` as what
    it lines in what is clicked or pointed at: outline or hidden, empty for other kinds; `follows`
    whether it has a follower, told in a brief; `also` what it is called elsewhere."""

    name: str
    group: str
    summary: str
    example: str
    mistake: str
    forms: tuple[FormOut, ...]
    by_clicking: bool
    lines_in: str
    follows: bool
    also: tuple[str, ...]


class KindsOut(Crossing):
    """Every kind, and the words of the trade with what they mean."""

    kinds: tuple[KindOut, ...]
    words: dict[str, str]


class LessonIn(Asked):
    """A plan in a lesson."""

    text: PlanText
    lesson: Annotated[str, Field(max_length=40)]


class LessonOut(Crossing):
    """A lesson: the plan it starts with, which task comes next of how many, what it is, why, and a
    statement that does it, on which line, 0 at the end; empty but for `end` once all is done.
    `following` is the lesson that comes after it, if any."""

    title: str
    about: str
    start: str
    end: str
    following: str
    at: int
    of: int
    told: str
    why: str
    row: str
    line: int


writing = Operations()


@writing.get("/kinds")
def vocabulary() -> KindsOut:
    """Return every kind of construction with its clauses; cards and lists are built from this."""
    return KindsOut(kinds=tuple(map(_kind, kinds().values())), words=WORDS)


def _kind(declared: Kind) -> KindOut:
    forms = tuple(
        FormOut.from_core(
            form, parts=tuple(part if isinstance(part, Slot) else part.text for part in form.parts)
        )
        for form in declared.forms
    )
    return KindOut.from_core(declared, lines_in=str(declared.lines_in or ""), forms=forms)


@writing.post("/complete")
def complete_row(body: CompleteIn) -> CompleteOut:
    """Return a row being written as it is now, and what may follow in it."""
    solution, row = work_out(body.text).solution, body.row
    after = len(solution.plan.lines) if body.after is None else body.after
    if body.begin and row.partition("=")[2].partition(",")[0].strip() != body.begin:
        row = begin(solution, body.begin)
    if body.pick:
        row = picked(solution, row, body.pick, body.caret or 0)
    # What may follow is asked for where one writes: before a blank, or at the end.
    caret = (
        body.caret if body.caret is not None and row == body.row else f"{row}{BLANK}".index(BLANK)
    )
    offers = complete(solution, after, row, caret)
    wanted = wanted_at(row, caret)
    blank = Slot("", wanted).expectation if wanted else ""
    reference = blank if wanted in REFERENCES else ""
    return CompleteOut(row=row, completions=offers, doubt=doubt(row), wanted=reference, blank=blank)


@writing.post("/lesson")
def lesson(body: LessonIn) -> LessonOut:
    """Return how far a plan has come in a lesson, and what comes next."""
    known = lessons()
    if body.lesson not in known:
        raise Refused(404, "No such lesson", f"there is no lesson {body.lesson}")
    taken, work = known[body.lesson], work_out(body.text)
    at, names = taken.at(work), taken.names(work)
    task = taken.tasks[at] if at < len(taken.tasks) else None
    after = [*known, ""][list(known).index(taken.key) + 1]
    return LessonOut(
        title=taken.title,
        about=taken.about,
        start=taken.start,
        end=taken.end,
        following=after,
        at=at,
        of=len(taken.tasks),
        told=task.told.format_map(names) if task else "",
        why=task.why.format_map(names) if task else "",
        row=task.row.format_map(names) if task else "",
        line=task.line(work) if task else 0,
    )


@writing.post("/suggest")
def suggest(body: PlanIn) -> SuggestOut:
    """Suggest dimensions that define the outline."""
    found = suggest_dimensions(work_out(body.text).solution)
    return SuggestOut.from_core(found)


@writing.post("/regions")
def regions(body: RegionsIn) -> RegionsOut:
    """Return the boundary of the regions pointed at."""
    done = work_out(body.text)
    places = [done.sheet.on_plan(Point(x, y)) for x, y in body.spots]
    try:
        found = region_at(done.solution, places, body.kind)
    except RegionError as error:
        raise Refused(404, "No region there", str(error)) from error
    marks = draw_curves([piece.curve for loop in found.loops for piece in loop.pieces], done.sheet)
    return RegionsOut(statements=found.statements, marks=tuple(marks))


@writing.post("/brief")
def brief(body: BriefIn) -> BriefOut:
    """Give a cam the events of a brief: sentences, or stations as CSV."""
    statement, read = follow(work_out(body.text), body.line, body.brief)
    return BriefOut.from_core(read, statement="" if read.misread else statement)


@writing.post("/sheet-choices")
def sheet_choices(body: PlanIn) -> ChoicesOut:
    """Return the papers, borders and scales a plan may take, each scale with its reason."""
    done = work_out(body.text)
    unit, said = done.solution.unit, done.solution.sheet
    ratios = scales(done.solution, done.sheet)
    best = recommended(ratios)
    return ChoicesOut(
        units=tuple(unit.value for unit in Unit),
        papers=tuple(map(ChoiceOut.from_core, taken(said, papers(unit)))),
        borders=tuple(map(ChoiceOut.from_core, taken(said, borders()))),
        letterings=tuple(map(ChoiceOut.from_core, taken(said, letterings(), "dimensions aligned"))),
        scales=tuple(map(ChoiceOut.from_core, ratios)),
        recommended=best.name if best else "",
    )
