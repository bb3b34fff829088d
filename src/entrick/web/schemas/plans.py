"""A plan to be worked out, and what a person sees of it."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import ConfigDict, Field

from ...core.plan.errors import PlanError
from .board import StepOut
from .crossing import Asked, Crossing, KitText, Marks, PlanText, Schedule
from .edits import Edit

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
