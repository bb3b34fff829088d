"""What crosses the API. Numbers are in stated units; words for people come from the core."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated, Literal

from pydantic import BaseModel, ConfigDict, Field

from ..core.assist.completion import Completion
from ..core.board.kits import Sort
from ..core.drawing.marks import Arrowhead, DisplayList, DrawnArc, DrawnCircle, DrawnDot, DrawnLine, DrawnRun, Lettering
from ..core.logbook.sitting import Kind
from ..core.plan.document import LONGEST_LINE, MOST_CHARACTERS
from ..core.plan.errors import PlanError

PlanText = Annotated[str, Field(max_length=MOST_CHARACTERS)]
RowText = Annotated[str, Field(max_length=LONGEST_LINE * 2)]


Schedule = Literal["written", "settings", "clean"]
"""In which order the steps of a plan are done."""


KitText = Annotated[str, Field(max_length=8000)]
"""A kit as the text of its file; empty for the small kit of the plan's unit."""


class Crossing(BaseModel):
    """What crosses the API. How it is read and written is worked out when the first one does."""

    model_config = ConfigDict(defer_build=True)


class Asked(Crossing):
    """What is sent to the desk: a field it does not know is a mistake, and is told."""

    model_config = ConfigDict(extra="forbid")


Whole = Annotated[int, Field(ge=-(2**31), le=2**31)]
"""A line, a clause or a step by its number; one the plan does not have is told in words."""


class SetGiven(Asked):
    """Give a given another value."""

    op: Literal["given"]
    line: Whole
    value: RowText


class SetClause(Asked):
    """Say a clause differently, take it out (empty), or add one (index one past the last)."""

    op: Literal["clause"]
    line: Whole
    clause: Whole
    text: RowText


class SetLine(Asked):
    """Put other text on a line."""

    op: Literal["line"]
    line: Whole
    text: RowText


class InsertLine(Asked):
    """Put a new line below another."""

    op: Literal["insert"]
    after: Whole
    text: RowText


class Append(Asked):
    """Put one line or several at the end of the plan, as typed."""

    op: Literal["append"]
    text: Annotated[str, Field(max_length=MOST_CHARACTERS)]


class NewGiven(Asked):
    """Write down another given, as typed: a letter, =, and the dimension. What is none is refused in words."""

    op: Literal["new given"]
    text: RowText


class SetPlace(Asked):
    """Say something else in one place of a clause, such as what was picked on the sheet."""

    op: Literal["place"]
    line: Whole
    clause: Whole
    place: Annotated[str, Field(max_length=40)]
    text: RowText


class SetEvent(Asked):
    """Say one event of a follower differently; one that is half written leaves the plan as it is."""

    op: Literal["event"]
    line: Whole
    clause: Whole
    event: Annotated[str, Field(max_length=40)]
    angle: RowText
    lift: RowText = ""
    motion: Annotated[str, Field(max_length=40)] = ""


class AddEvent(Asked):
    """Add an event at the end of what a follower does, to be changed to what is meant."""

    op: Literal["add event"]
    line: Whole


class DeleteLine(Asked):
    """Take a line out."""

    op: Literal["delete"]
    line: Whole


class MoveLine(Asked):
    """Move a line so that it becomes line `to`."""

    op: Literal["move"]
    line: Whole
    to: Whole


class SetHead(Asked):
    """Say the title, drawing number, units or sheet differently."""

    op: Literal["head"]
    key: Literal["plan", "drawing", "units", "sheet"]
    text: RowText


class SaySheet(Asked):
    """Say one clause of the sheet line: a paper, a border, a scale, a lettering, in the place of the one before."""

    op: Literal["sheet"]
    text: RowText


class ChooseCandidate(Asked):
    """Choose a lettered candidate of a statement."""

    op: Literal["choose"]
    line: Whole
    letter: Annotated[str, Field(pattern="^[A-HJ-NP-Z]$")]


Edit = Annotated[
    SetGiven
    | NewGiven
    | SetClause
    | SetPlace
    | SetEvent
    | AddEvent
    | SetLine
    | InsertLine
    | Append
    | DeleteLine
    | MoveLine
    | SetHead
    | SaySheet
    | ChooseCandidate,
    Field(discriminator="op"),
]


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
    """A clause as written; `picks` are the places whose reference may be picked on the sheet instead."""

    text: str
    key: str
    form: str
    picks: tuple[PickOut, ...] = ()


class EventOut(Crossing):
    """One event of a follower: which clause says it, and what it says; `motion` is empty for the usual one."""

    model_config = ConfigDict(from_attributes=True)

    clause: int
    event: str
    angle: str
    lift: str
    motion: str


class EventsOut(Crossing):
    """What a follower does, event by event, and what each may be; `still` is the event without lift and motion."""

    model_config = ConfigDict(from_attributes=True)

    rows: tuple[EventOut, ...]
    events: tuple[str, ...]
    motions: tuple[str, ...]
    usual: str
    still: str


Marks = tuple[DrawnLine | DrawnArc | DrawnCircle | DrawnRun | DrawnDot | Arrowhead | Lettering, ...]


class CandidateOut(Crossing):
    """A lettered solution."""

    letter: str
    about: str
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


class SettingOut(Crossing):
    """A setting: `actual` in plan units, `drawn` in rule units or degrees; `kept` where it stands so already."""

    model_config = ConfigDict(from_attributes=True)

    is_angle: bool
    actual: float
    drawn: float
    reading: str
    error: float
    told: str
    rounding: str
    kept: bool
    picture: str


class StepOut(Crossing):
    """A step at the board: `needle` in mm from the datum; `opens` where a classic construction stands behind it, `why`
    where it has been moved from its place."""

    number: int
    line: int
    name: str
    tool: str
    text: str
    check: str
    setting: SettingOut | None
    needle: tuple[float, float] | None
    opens: bool
    why: str


class MendOut(Crossing):
    """An edit that mends what was found: put `text` on a line, or below it."""

    model_config = ConfigDict(from_attributes=True)

    op: Literal["line", "insert"]
    line: int
    text: str
    told: str


class FindingOut(Crossing):
    """A finding. `place` in mm on paper."""

    weight: Literal["wrong", "look", "note", "good"]
    rule: str
    message: str
    line: int
    place: tuple[float, float] | None
    mend: MendOut | None


class JunctionOut(Crossing):
    """Where two pieces of an outline join. `turn` in degrees, 0 where it goes straight on; `how` in words."""

    outline: str
    line: int
    first: str
    second: str
    turn: float
    how: str
    place: tuple[float, float]


class MeasureOut(Crossing):
    """An outline as measured, plan units, in words."""

    model_config = ConfigDict(from_attributes=True)

    outline: str
    line: int
    length: str
    area: str
    size: str
    middle: str
    kind: Literal["material", "hole", "open"]


class ProofOut(Crossing):
    """What the inspection found, and what it measured."""

    findings: tuple[FindingOut, ...]
    junctions: tuple[JunctionOut, ...]
    measures: tuple[MeasureOut, ...]
    cut: str


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
    """The rule along the edges of the sheet: lengths in mm, longer marks every so many divisions."""

    model_config = ConfigDict(from_attributes=True)

    division: float
    middle: int
    long: int
    number: float
    every: int


class StrokeOut(Crossing):
    """How strokes of a role are drawn: width in mm, and whether so lightly that they may be rubbed out."""

    width: float
    light: bool


class LayerOut(Crossing):
    """What one statement puts on the sheet, mm from the datum; None where the asker has it."""

    key: str
    marks: Marks | None


class DrawingOut(Crossing):
    """The sheet: what belongs to the paper, mm on paper, and what every statement draws, from the datum at `origin`.

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

    `at` is the line of the statement that was put at the end, 0 where none was; `refused` says why an edit was not made
    and the plan is as it was; `usually` is the statement that usually comes next.
    """

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


class PlanIn(Asked):
    """A plan's text."""

    text: PlanText


class CountedOut(Crossing):
    """What an order of work takes."""

    model_config = ConfigDict(from_attributes=True)

    schedule: Schedule
    called: str
    settings: int
    changes: int
    minutes: float


class SchedulesOut(Crossing):
    """Every order in which the steps of a plan may be done; `told` says what the minutes rest on."""

    schedules: tuple[CountedOut, ...]
    told: str


class SpreadOut(Crossing):
    """A miss on paper, mm: one standard deviation, what half the hands and nine in ten stay under."""

    model_config = ConfigDict(from_attributes=True)

    sigma: float
    half: float
    nine: float


class ShareOut(Crossing):
    """What one act has of a miss."""

    model_config = ConfigDict(from_attributes=True)

    step: str
    share: float


class InsteadOut(Crossing):
    """Another way, with what nine in ten of the hands stay under, and how much less that is, mm."""

    model_config = ConfigDict(from_attributes=True)

    told: str
    nine: float
    gain: float


class JoinOut(Crossing):
    """How two pieces of an outline meet on paper; `place` and `cloud` (places of the hands) in mm on paper."""

    outline: str
    first: str
    second: str
    tangent: bool
    place: tuple[float, float]
    miss: SpreadOut
    kink: float
    hidden: float
    unmet: float
    shares: tuple[ShareOut, ...]
    instead: tuple[InsteadOut, ...]
    cloud: tuple[tuple[float, float], ...]


class OverallOut(Crossing):
    """A size over all on paper, how far off it comes out, mm, and what would help."""

    model_config = ConfigDict(from_attributes=True)

    outline: str
    way: str
    size: float
    off: SpreadOut
    instead: tuple[InsteadOut, ...]


class RehearsalOut(Crossing):
    """A plan drawn by many hands; `whose` says where their errors are from."""

    hands: int
    whose: str
    joins: tuple[JoinOut, ...]
    sizes: tuple[OverallOut, ...]


class SuggestOut(Crossing):
    """Dimensions suggested: the plan with them, the statements, and what they leave open."""

    text: str
    statements: tuple[str, ...]
    left_open: tuple[str, ...]


Spot = tuple[Annotated[float, Field(ge=-1e5, le=1e5)], Annotated[float, Field(ge=-1e5, le=1e5)]]


class RegionsIn(Asked):
    """Places pointed at, mm on paper; the boundary of the regions they lie in is wanted as statements of a kind."""

    text: PlanText
    spots: Annotated[tuple[Spot, ...], Field(min_length=1, max_length=200)]
    kind: Annotated[str, Field(max_length=40)] = "line in"


class RegionsOut(Crossing):
    """The boundary: statements that line it in, and what they will look like."""

    statements: tuple[str, ...]
    marks: Marks


class OpenedIn(Asked):
    """A step to open up, by its number."""

    text: PlanText
    step: Whole
    schedule: Schedule = "written"
    kit: KitText = ""


class OpenedOut(Crossing):
    """The classic construction behind a step, and what it draws; `step` of a mark is the number of its sub-step."""

    steps: tuple[StepOut, ...]
    marks: Marks


class MethodsIn(Asked):
    """A statement, by its line, whose methods are to be compared."""

    text: PlanText
    line: Whole


class MethodOut(Crossing):
    """One method: the whole statement with it, what it takes, how close it comes, and what it draws."""

    said: str
    row: str
    told: str
    settings: int
    instruments: tuple[str, ...]
    chosen: bool
    marks: Marks


class MethodsOut(Crossing):
    """Every method of a statement, drawn in one box: left, bottom, width, height in mm on paper."""

    methods: tuple[MethodOut, ...]
    box: tuple[float, float, float, float]


class WorksheetIn(Asked):
    """A statement, by its line, whose worksheet is wanted, turned through an angle in degrees."""

    text: PlanText
    line: Whole
    turn: float = Field(default=0.0, ge=-3600, le=3600)


class TableOut(Crossing):
    """A table of a worksheet, in words."""

    model_config = ConfigDict(from_attributes=True)

    title: str
    columns: tuple[str, ...]
    rows: tuple[tuple[str, ...], ...]
    note: str


class WorksheetOut(Crossing):
    """A worksheet: its drawing, its tables, what turning does and what is so at this moment."""

    title: str
    display: DisplayList
    tables: tuple[TableOut, ...]
    turns: str
    told: str
    caution: str


class WorksheetPath(Asked):
    """A file of a worksheet: its drawing or one of its tables as PDF or SVG, a table as CSV."""

    format: Literal["pdf", "svg", "csv"]


class WorksheetFileIn(WorksheetIn):
    """Which worksheet, and which of its tables where one is wanted instead of the drawing."""

    table: int | None = Field(default=None, ge=0, le=100)


class BriefIn(Asked):
    """Events of a cam in sentences, or stations as CSV, for the statement on a line."""

    text: PlanText
    line: Whole
    brief: Annotated[str, Field(max_length=20_000)]


class MisreadOut(Crossing):
    """A row of a brief that could not be read, and why."""

    model_config = ConfigDict(from_attributes=True)

    row: int
    message: str


class BriefOut(Crossing):
    """The whole statement with the events of the brief, empty where a row could not be read."""

    statement: str
    misread: tuple[MisreadOut, ...]


class ChoiceOut(Crossing):
    """One thing to take for a part of the sheet, how the sheet line says it, and why or why not."""

    model_config = ConfigDict(from_attributes=True)

    name: str
    said: str
    reason: str
    fits: bool
    chosen: bool


class ChoicesOut(Crossing):
    """What a sheet may be: units, papers, borders, scales with their reasons, the recommended one."""

    units: tuple[str, ...]
    papers: tuple[ChoiceOut, ...]
    borders: tuple[ChoiceOut, ...]
    scales: tuple[ChoiceOut, ...]
    letterings: tuple[ChoiceOut, ...]
    recommended: str


class CompleteIn(Asked):
    """A row half written below a line of a plan.

    `after` is the line it stands below, the last where none is named. `begin` names a kind the row is to begin with,
    unless it does; `pick` what was picked on the sheet for it. `caret` is where in the row one writes, its end where
    that is not said.
    """

    text: PlanText
    row: RowText
    after: Whole | None = None
    begin: Annotated[str, Field(max_length=40)] = ""
    pick: Annotated[str, Field(max_length=200)] = ""
    caret: Annotated[int, Field(ge=0, le=LONGEST_LINE * 2)] | None = None


class CompleteOut(Crossing):
    """The row as it is now, what may follow, why it is no statement yet where that can be told, and what is to be
    picked on the sheet for the blank at the caret, empty where nothing is."""

    row: str
    completions: tuple[Completion, ...]
    doubt: str
    wanted: str


class SlotOut(Crossing):
    """A place for a value in a clause; `is_reference` tells whether it takes the name of something drawn."""

    model_config = ConfigDict(from_attributes=True)

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

    `by_clicking` says whether it is said by clicking pieces one after another; `lines_in` as what it lines in what is
    clicked or pointed at: outline or hidden, empty for other kinds; `follows` whether it has a follower, told in a
    brief.
    """

    name: str
    group: str
    summary: str
    example: str
    mistake: str
    forms: tuple[FormOut, ...]
    by_clicking: bool
    lines_in: str
    follows: bool


class KindsOut(Crossing):
    """Every kind, and the words of the trade with what they mean."""

    kinds: tuple[KindOut, ...]
    words: dict[str, str]


class LessonOut(Crossing):
    """The first job: the plan it starts with, which task comes next of how many, what it is, why, and a statement that
    does it; all empty once every task is done."""

    start: str
    at: int
    of: int
    told: str
    why: str
    row: str


class RevisionOut(Crossing):
    """A saved state of a plan."""

    model_config = ConfigDict(from_attributes=True)

    number: int
    based_on: int | None
    text: str
    note: str
    saved_at: datetime


class JobOut(Crossing):
    """A job as the register lists it.

    `trouble` is its first mistake in words. `pending` says that it has not been worked out yet; then only its heading
    is known. `pictured` says whether there is a thumbnail.
    """

    id: int
    title: str
    drawing: str
    unit: str
    scale: str
    revision: int
    worked_at: datetime
    archived: bool
    mistakes: int
    outlines: int
    trouble: str
    pending: bool
    pictured: bool


class JobsOut(Crossing):
    """A page of the register: its jobs, and how many there are on all pages."""

    jobs: tuple[JobOut, ...]
    page: int
    pages: int
    total: int


class JobIn(Asked):
    """A new job: from a plan's text, or a copy of another job, or blank."""

    text: PlanText | None = None
    copy_of: Annotated[int, Field(ge=1, le=2**63 - 1)] | None = None
    note: Annotated[str, Field(max_length=200)] = ""


Number = Annotated[int, Field(ge=0, le=2**63 - 1)]
"""Of a job or a revision: SQLite has 64 bits."""


class JobPath(Asked):
    """A job by number."""

    job_id: Number


class RevisionPath(Asked):
    """A revision of a job."""

    job_id: Number
    number: Number


class ArchiveIn(Asked):
    """Whether a job is archived."""

    archived: bool


class SaveIn(Asked):
    """A plan to save as the next revision."""

    text: PlanText
    based_on: Annotated[int, Field(ge=0, le=2**63 - 1)]
    note: Annotated[str, Field(max_length=200)] = ""


class JobWithPlan(Crossing):
    """A job with its newest revision."""

    job: JobOut
    newest: RevisionOut
    schedule: Schedule
    kit: str = ""


class ScheduleIn(Asked):
    """In which order the steps of a job are done from now on."""

    schedule: Schedule


class JobKitIn(Asked):
    """Which kit a job is drawn with from now on, by name; the usual one where it is empty."""

    kit: Annotated[str, Field(max_length=60)]


class ScheduledIn(Asked):
    """A plan with the order in which its steps are done."""

    text: PlanText
    schedule: Schedule = "written"
    kit: KitText = ""


class AroundOut(Crossing):
    """How the sheet is made ready and finished, step by step; by line of the plan, the mistake usually made there."""

    ready: tuple[StepOut, ...]
    finish: tuple[StepOut, ...]
    mistakes: dict[int, str]
    caution: str


class MeasuredIn(ScheduledIn):
    """A value measured back after a step, as a drafter writes it; `ready` where the step makes the sheet ready."""

    step: Whole
    ready: bool = False
    value: Annotated[str, Field(max_length=60)]


class VerdictOut(Crossing):
    """What is to be said of a measured value; `off` in mm on paper, or degrees."""

    judged: Literal["line", "hand", "slip"]
    off: float
    told: str
    slips: tuple[str, ...]


KitName = Annotated[str, Field(pattern=r"^[\w .+-]{1,60}$")]


class KitPath(Asked):
    """A kit by name."""

    name: KitName


class KitOut(Crossing):
    """A kit by name, as the text of its file; `starter` where it comes with the desk and cannot be changed."""

    name: str
    text: str
    usual: bool
    starter: bool


class KitItemOut(Crossing):
    """Something a kit may hold, as its page asks for it; see `core.board.kits.Item`."""

    model_config = ConfigDict(from_attributes=True)

    key: str
    label: str
    sort: Sort
    in_unit: bool
    usual: str
    choices: tuple[str, ...]
    picture: str = ""


class KitsOut(Crossing):
    """Every kit, and everything a kit may hold."""

    kits: tuple[KitOut, ...]
    items: tuple[KitItemOut, ...]


class KitIn(Asked):
    """A kit to be kept, and whether it is the usual one from now on."""

    text: KitText
    usual: bool = False


class LacksIn(Asked):
    """A plan and a kit."""

    text: PlanText
    kit: KitText


class LackOut(Crossing):
    """Something a kit lacks: how many more steps a job takes without it, and the first that are different."""

    model_config = ConfigDict(from_attributes=True)

    told: str
    more: int
    instead: tuple[str, ...]


class LacksOut(Crossing):
    """What a kit lacks for a job."""

    lacks: tuple[LackOut, ...]


Uid = Annotated[str, Field(pattern=r"^[0-9a-f-]{8,64}$")]
"""How a device names a sitting."""

Finite = Annotated[float, Field(allow_inf_nan=False, ge=-1e6, le=1e6)]


class EventIO(Asked):
    """One thing that happened at the board, numbered by the device; see `core.logbook.Event`."""

    model_config = ConfigDict(extra="forbid", from_attributes=True)

    number: Annotated[int, Field(ge=1, le=20_000)]
    kind: Kind
    step: Annotated[int, Field(ge=0, le=100_000)] = 0
    tool: Annotated[str, Field(max_length=80)] = ""
    seconds: Annotated[float, Field(ge=0, le=1e6, allow_inf_nan=False)] = 0.0
    off: Finite = 0.0
    text: Annotated[str, Field(max_length=500)] = ""
    of: Annotated[int, Field(ge=0, le=20_000)] = 0


class SittingPath(Asked):
    """A sitting by the name its device gave it."""

    uid: Uid


class SittingIn(Asked):
    """A sitting that begins: which revision of which job is drawn, in which order."""

    uid: Uid
    job: Annotated[int, Field(ge=1, le=2**63 - 1)]
    revision: Annotated[int, Field(ge=1, le=2**63 - 1)]
    schedule: Schedule = "written"
    kit: Annotated[str, Field(max_length=60)] = ""


class EventsIn(Asked):
    """Events of a sitting; what has been taken already may be sent again."""

    events: Annotated[list[EventIO], Field(max_length=2000)]


class AmendedIn(Asked):
    """What is put right in a sitting: an event corrected, or taken back; taking back a correction undoes it."""

    of: Annotated[int, Field(ge=1, le=20_000)]
    kind: Literal["corrected", "undone"]
    seconds: Annotated[float, Field(ge=0, le=1e6, allow_inf_nan=False)] = 0.0
    off: Finite = 0.0
    text: Annotated[str, Field(max_length=500)] = ""


class RemovedIn(Asked):
    """Whether a sitting is out of the logbook."""

    removed: bool


class SittingOut(Crossing):
    """A sitting with what happened; `rehearsed` where a simulated hand made it up, and nobody drew.

    `standing` are the events as they were corrected last; `gap` is how far the last join gaped, mm on paper.
    """

    model_config = ConfigDict(from_attributes=True)

    uid: str
    job: int
    title: str = ""
    revision: int
    schedule: str
    kit: str
    started_at: datetime
    rehearsed: bool
    removed: bool
    events: tuple[EventIO, ...]
    standing: tuple[EventIO, ...] = ()
    steps: int = 0
    minutes: float = 0.0
    slips: int = 0
    gap: float | None = None


class PaceOut(Crossing):
    """Median seconds of a step with an instrument, and on how many it rests."""

    tool: str
    seconds: float
    count: int


class HandOut(Crossing):
    """How an instrument comes out in these hands; see `core.logbook.Spread`."""

    model_config = ConfigDict(from_attributes=True)

    tool: str
    count: int
    bias: float
    bias_off: float
    spread: float
    low: float
    high: float
    hint: str


class SlipOut(Crossing):
    """A slip, and how often it was made."""

    told: str
    count: int


class LogbookOut(Crossing):
    """Every sitting, the last first, and what they teach."""

    sittings: tuple[SittingOut, ...]
    pace: tuple[PaceOut, ...]
    spreads: tuple[HandOut, ...]
    slips: tuple[SlipOut, ...]


class SittingsQuery(Asked):
    """Sittings of one job, or of all."""

    job: Annotated[int, Field(ge=1, le=2**63 - 1)] | None = None


class RevisionsOut(Crossing):
    """Every revision of a job, newest first."""

    revisions: tuple[RevisionOut, ...]


class RegisterQuery(Asked):
    """Which part of the register: words that stand in title or number, an order, a page from 1."""

    archived: bool = False
    search: Annotated[str, Field(max_length=200)] = ""
    order: Literal["worked", "entered", "title", "drawing"] = "worked"
    page: Annotated[int, Field(ge=1, le=1_000_000)] = 1
    size: Annotated[int, Field(ge=1, le=200)] = 50


class Nothing(Asked):
    """No query."""


class NoticeOut(Crossing):
    """What whoever keeps the register should know, empty where there is nothing."""

    told: str


class ImportedOut(Crossing):
    """What came of an import: jobs entered, and jobs that were there already."""

    jobs: int
    known: int


class ExportPath(Asked):
    """A file format."""

    format: Literal["pdf", "svg", "dxf", "cutter", "csv", "run-sheet", "entrick"]


class ExportIn(Asked):
    """A plan to export.

    `construction` says whether the light work stays on the sheet; `insist` that an outline goes to the cutter although
    the proof found it open or doubled. `ovals` says as what DXF gets true ellipses, `within` how closely, plan units.
    """

    text: PlanText
    schedule: Schedule = "written"
    kit: KitText = ""
    construction: bool = True
    insist: bool = False
    ovals: Literal["ellipse", "arcs", "polyline"] = "ellipse"
    within: float = Field(default=0.01, gt=0, le=10)
    paper: Literal["A4", "letter"] = "A4"


class InstrumentQuery(Asked):
    """An item of a kit."""

    item: Annotated[str, Field(max_length=40)]


class PairingOut(Crossing):
    """How phones and tablets of the local network come in; empty where the desk was not asked to let them.

    `secure` where there is a certificate: then a browser keeps the pages of a sitting, too.
    """

    address: str = ""
    code: str = ""
    secure: bool = False
    picture: str = ""


class PictureQuery(Asked):
    """An instrument at its setting: `value` in `unit`, or degrees."""

    tool: Annotated[str, Field(max_length=40)]
    value: Annotated[float, Field(ge=-1e5, le=1e5)]
    unit: Literal["mm", "in", "deg"]
    graduation: Annotated[str, Field(pattern=r"^[1-9]\d{0,2}(/[1-9]\d{0,2})?$")] = "1"


Seed = Annotated[int, Field(ge=0, le=2**31)]
QuestionKey = Annotated[str, Field(max_length=80)]


class RoundIn(Asked):
    """A round about a plan: how many questions, whether with new givens, and whether what is due comes first."""

    text: PlanText
    seed: Seed
    count: Annotated[int, Field(ge=1, le=30)] = 10
    varied: bool = True
    spaced: bool = True
    kit: KitText = ""


class QuestionOut(Crossing):
    """A question as it is asked; see `core.practice.Question`.

    `tool` names the instrument its answer is set on; `lettered` says that the solutions of its statement are shown with
    their letters, `pointed` that it may be answered on the sheet.
    """

    key: str
    rule: str
    tests: str
    asks: str
    sort: Literal["length", "angle", "choice", "order"]
    line: int
    step: int
    unit: str
    choices: tuple[str, ...]
    hints: int
    tool: str
    shows: str
    due: bool
    lettered: bool
    pointed: bool


class RoundOut(Crossing):
    """A round: the plan it is about, what is given in it, and its questions."""

    text: str
    givens: tuple[str, ...]
    questions: tuple[QuestionOut, ...]


class HintIn(Asked):
    """A hint to a question is wanted: the first, or a further one."""

    text: PlanText
    seed: Seed
    key: QuestionKey
    number: Annotated[int, Field(ge=1, le=20)]
    kit: KitText = ""


class HintOut(Crossing):
    """A hint."""

    told: str


class OpenedToIn(Asked):
    """What is typed, to be shown on an instrument."""

    said: Annotated[str, Field(max_length=200)]
    tool: Annotated[str, Field(max_length=40)]
    unit: Literal["mm", "in"]


class OpenedToOut(Crossing):
    """The picture of an instrument at a setting; empty where what is typed is no value yet."""

    picture: str = ""


class PracticeIn(Asked):
    """An answer: to which question of which plan, and how many hints it took."""

    uid: Uid
    text: PlanText
    seed: Seed
    key: QuestionKey
    said: Annotated[str, Field(max_length=500)]
    hints: Annotated[int, Field(ge=0, le=20)] = 0
    kit: KitText = ""


class NamedSlipOut(Crossing):
    """A slip that gives the answer."""

    key: str
    said: str


class VerdictInPractice(Crossing):
    """What came of an answer: its mark, the slips that give it, the right answer and the working."""

    share: float
    told: str
    slips: tuple[NamedSlipOut, ...]
    right: str
    working: tuple[str, ...]
    picture: str


class StandingOut(Crossing):
    """How a rule stands in practice."""

    rule: str
    told: str
    asked: int
    share: float
    due: datetime


class PracticeSlipOut(Crossing):
    """A slip, and how often it was made in practice."""

    slip: str
    times: int


class PracticeOut(Crossing):
    """What practice has shown: rules, the worst first; slips; by day how many answers, and which share was right."""

    standings: tuple[StandingOut, ...]
    slips: tuple[PracticeSlipOut, ...]
    at_the_board: int
    days: tuple[tuple[str, int, float], ...]
    rehearsed: bool


class SetPartIn(Asked):
    """The paper of one student of a set is wanted."""

    title: Annotated[str, Field(max_length=120)]
    texts: Annotated[list[PlanText], Field(min_length=1, max_length=12)]
    student: Annotated[int, Field(ge=1, le=2000)]
    count: Annotated[int, Field(ge=1, le=60)]
    seed: Seed


SetText = Annotated[str, Field(max_length=64 * 2**20)]


class PapersIn(Asked):
    """Papers of a set are wanted, or its key."""

    set: SetText
    key: bool = False
    paper: Literal["A4", "letter"] = "A4"


class MarksIn(Asked):
    """Answers of a class to a set, CSV."""

    set: SetText
    answers: Annotated[str, Field(max_length=8 * 2**20)]


class MarkedPaperOut(Crossing):
    """A student's marks."""

    student: str
    total: float
    of: int


class ClassSlipOut(Crossing):
    """A slip of a class: how often it was made, and by how many."""

    slip: str
    times: int
    students: int


class ClassMarksOut(Crossing):
    """A class, marked: as CSV, student by student, slip by slip."""

    csv: str
    papers: tuple[MarkedPaperOut, ...]
    slips: tuple[ClassSlipOut, ...]


Size = Annotated[float, Field(gt=0, le=1e5, allow_inf_nan=False)]


class CutIn(Asked):
    """A plan to be cut on the simulated cutter.

    Width of the cut and feed are in the plan's unit; units and scale have to be confirmed; a fault happens at a block.
    """

    text: PlanText
    tool: Size
    feed: Size
    confirmed: bool = False
    fault: Literal["", "lost step", "late answer", "cut connection"] = ""
    at: Annotated[int, Field(ge=0, le=200_000)] = 0


class CutMoveOut(Crossing):
    """A movement of the tool, mm: straight, or round a centre by a turn in radians."""

    block: int
    start: tuple[float, float]
    end: tuple[float, float]
    centre: tuple[float, float] | None
    turn: float
    cutting: bool
    minutes: float


class CutOut(Crossing):
    """What the cutter did, and how the part came out, mm.

    `program` is what it was sent; `edges` are the outlines of the plan; `bounds` is left, lower, right, upper.
    """

    program: str
    moves: tuple[CutMoveOut, ...]
    edges: tuple[tuple[tuple[float, float], ...], ...]
    bounds: tuple[float, float, float, float]
    tool: float
    happened: tuple[str, ...]
    fits: bool
    told: tuple[str, ...]
    gouged: float
    left: float
    corners: int
    minutes: float
    length: float
    caution: str


class ProfileIn(Asked):
    """A file that may be a bare profile, by its name and what is in it; the unit of the plan, or what the file says."""

    name: Annotated[str, Field(max_length=200)]
    text: Annotated[str, Field(max_length=4_000_000)]
    units: Literal["", "mm", "in"] = ""
    within: Annotated[float, Field(gt=0, le=1, allow_inf_nan=False)] | None = None
    layers: Annotated[tuple[Annotated[str, Field(max_length=255)], ...], Field(max_length=100)] = ()


class SampleProfileOut(Crossing):
    """A bare profile to try: the name of its file, and what is in it."""

    name: str
    text: str


class SaidOut(Crossing):
    """A plan that comes to a profile: how far its outlines are from it, by how many numbers, what was seen in it, what
    was mended, left out or assumed, and the rows that are marked so."""

    way: str
    called: str
    text: str
    numbers: int
    comes: str
    seen: tuple[str, ...]
    told: tuple[str, ...]
    assumed: tuple[str, ...]


class ReadBackOut(Crossing):
    """A profile read back: its outlines as paths and the box round them (upwards counts down), its layers, the
    tolerance it was read with, and its plans, what was chosen first."""

    outlines: int
    unit: str
    within: float
    paths: tuple[str, ...]
    box: tuple[float, float, float, float]
    layers: tuple[str, ...]
    plans: tuple[SaidOut, ...]
