"""What crosses the API. Numbers are in stated units; words for people come from the core."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated, Literal

from pydantic import BaseModel, ConfigDict, Field

from ..core.complete import Completion
from ..core.marks import DisplayList, DrawnArc, DrawnCircle, DrawnDot, DrawnLine, Lettering
from ..core.plan.document import LONGEST_LINE, MOST_CHARACTERS
from ..core.plan.errors import PlanError

PlanText = Annotated[str, Field(max_length=MOST_CHARACTERS)]
RowText = Annotated[str, Field(max_length=LONGEST_LINE * 2)]


class SetGiven(BaseModel):
    """Give a given another value."""

    op: Literal["given"]
    line: int
    value: RowText


class SetClause(BaseModel):
    """Say a clause differently, take it out (empty), or add one (index one past the last)."""

    op: Literal["clause"]
    line: int
    clause: int
    text: RowText


class SetLine(BaseModel):
    """Put other text on a line."""

    op: Literal["line"]
    line: int
    text: RowText


class InsertLine(BaseModel):
    """Put a new line below another."""

    op: Literal["insert"]
    after: int
    text: RowText


class DeleteLine(BaseModel):
    """Take a line out."""

    op: Literal["delete"]
    line: int


class MoveLine(BaseModel):
    """Move a line so that it becomes line `to`."""

    op: Literal["move"]
    line: int
    to: int


class SetHead(BaseModel):
    """Say the title, drawing number, units or sheet differently."""

    op: Literal["head"]
    key: Literal["plan", "drawing", "units", "sheet"]
    text: RowText


class ChooseCandidate(BaseModel):
    """Choose a lettered candidate of a statement."""

    op: Literal["choose"]
    line: int
    letter: Annotated[str, Field(pattern="^[A-H]$")]


Edit = Annotated[
    SetGiven | SetClause | SetLine | InsertLine | DeleteLine | MoveLine | SetHead | ChooseCandidate,
    Field(discriminator="op"),
]


class WorkIn(BaseModel):
    """A plan to be worked out, after an edit if there is one."""

    text: PlanText
    edit: Edit | None = None


class GivenOut(BaseModel):
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


class ClauseOut(BaseModel):
    """A clause as written."""

    text: str
    key: str
    form: str


Marks = tuple[DrawnLine | DrawnArc | DrawnCircle | DrawnDot | Lettering, ...]


class CandidateOut(BaseModel):
    """A lettered solution."""

    letter: str
    about: str
    words: tuple[str, ...]
    chosen: bool
    marks: Marks


class EntryOut(BaseModel):
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
    error: PlanError | None = None


class SettingOut(BaseModel):
    """A setting: `actual` in plan units, `drawn` in rule units (degrees for angles)."""

    model_config = ConfigDict(from_attributes=True)

    is_angle: bool
    actual: float
    drawn: float
    reading: str
    error: float
    told: str
    rounding: str
    picture: str


class StepOut(BaseModel):
    """A step at the board. `needle` in mm on paper."""

    number: int
    line: int
    name: str
    tool: str
    text: str
    check: str
    setting: SettingOut | None
    needle: tuple[float, float] | None


class FindingOut(BaseModel):
    """A finding. `place` in mm on paper."""

    weight: Literal["wrong", "look", "note", "good"]
    rule: str
    message: str
    line: int
    place: tuple[float, float] | None


class SheetOut(BaseModel):
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


class WorkOut(BaseModel):
    """A plan worked out."""

    text: str
    title: str
    drawing: str
    unit: Literal["mm", "in"]
    sheet: SheetOut
    givens: tuple[GivenOut, ...]
    entries: tuple[EntryOut, ...]
    steps: tuple[StepOut, ...]
    display: DisplayList
    widths: dict[str, float]
    findings: tuple[FindingOut, ...]


class CompleteIn(BaseModel):
    """A row half written below a line of a plan."""

    text: PlanText
    after: int
    row: RowText


class CompleteOut(BaseModel):
    """What may follow."""

    completions: tuple[Completion, ...]


class SlotOut(BaseModel):
    """A place for a value in a clause."""

    name: str
    type: str
    expectation: str
    choices: tuple[str, ...]


class FormOut(BaseModel):
    """A clause a kind takes. `parts` alternates words and slots as the pattern does."""

    key: str
    pattern: str
    example: str
    needed: bool
    most: int
    choice: bool
    parts: tuple[str | SlotOut, ...]


class KindOut(BaseModel):
    """A kind of construction."""

    name: str
    group: str
    summary: str
    example: str
    mistake: str
    forms: tuple[FormOut, ...]


class KindsOut(BaseModel):
    """Every kind."""

    kinds: tuple[KindOut, ...]


class RevisionOut(BaseModel):
    """A saved state of a plan."""

    model_config = ConfigDict(from_attributes=True)

    number: int
    based_on: int | None
    text: str
    note: str
    saved_at: datetime


class JobOut(BaseModel):
    """A job as the register lists it."""

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


class JobsOut(BaseModel):
    """The register."""

    jobs: tuple[JobOut, ...]


class JobIn(BaseModel):
    """A new job: from a plan's text, or a copy of another job, or blank."""

    text: PlanText | None = None
    copy_of: int | None = None
    note: Annotated[str, Field(max_length=200)] = ""


class JobPath(BaseModel):
    """A job by number."""

    job_id: int


class RevisionPath(BaseModel):
    """A revision of a job."""

    job_id: int
    number: int


class ArchiveIn(BaseModel):
    """Whether a job is archived."""

    archived: bool


class SaveIn(BaseModel):
    """A plan to save as the next revision."""

    text: PlanText
    based_on: int
    note: Annotated[str, Field(max_length=200)] = ""


class JobWithPlan(BaseModel):
    """A job with its newest revision."""

    job: JobOut
    newest: RevisionOut


class RevisionsOut(BaseModel):
    """Every revision of a job, newest first."""

    revisions: tuple[RevisionOut, ...]


class RegisterQuery(BaseModel):
    """Which part of the register."""

    archived: bool = False


class ExportPath(BaseModel):
    """A file format."""

    format: Literal["pdf", "svg", "dxf", "csv", "entrick"]


class ExportIn(BaseModel):
    """A plan to export; `construction` says whether the light work stays on the sheet."""

    text: PlanText
    construction: bool = True


class PictureQuery(BaseModel):
    """An instrument at its setting: `value` in `unit`, or degrees."""

    tool: Annotated[str, Field(max_length=40)]
    value: Annotated[float, Field(ge=-1e5, le=1e5)]
    unit: Literal["mm", "in", "deg"]
    graduation: Annotated[str, Field(pattern=r"^\d{1,3}(/\d{1,3})?$")] = "1"
