"""Rounds of practice, and sets for a class."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated, Literal

from pydantic import Field

from .crossing import Asked, Crossing, KitText, PlanText, Seed
from .logbook import Uid

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
