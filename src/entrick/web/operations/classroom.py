"""Sets for a class: papers, keys, class lists, answers marked."""

from __future__ import annotations

from dataclasses import replace
from typing import Annotated, Any, Literal

from pydantic import Field

from ...core.classroom.answers import (
    Marked,
    answer_sheet,
    mark_answers,
    marks_csv,
    read_answers,
    read_names,
    slips_of,
)
from ...core.classroom.grades import GRADES, at_grade
from ...core.classroom.set_file import read_set, write_set
from ...core.classroom.sets import ON_PAPER, Paper, Set, briefs_of, plan_paper
from ...core.classroom.sets import Asked as AskedOf
from ...core.classroom.topics import new_part, topics
from ...core.formats.practice_key import write_key
from ...core.formats.practice_paper import write_papers
from ...core.plan.writer import write_plan
from ...core.practice.question import RULES
from ...records import LARGEST_ID
from ..answer import Answer
from ..base import Asked, Crossing, PlanText, Seed
from ..operation import Operations, Recorded
from .shared import as_file

RuleName = Annotated[str, Field(max_length=40)]


class SetPartIn(Asked):
    """The paper of one student of a set is wanted."""

    title: Annotated[str, Field(max_length=120)]
    texts: Annotated[list[PlanText], Field(min_length=1, max_length=12)]
    student: Annotated[int, Field(ge=1, le=2000)]
    count: Annotated[int, Field(ge=1, le=60)]
    seed: Seed
    name: Annotated[str, Field(max_length=200)] = ""
    rules: Annotated[tuple[RuleName, ...], Field(max_length=40)] = ()
    grade: Annotated[int, Field(ge=0, le=4)] = 0


class SetChoiceOut(Crossing):
    """Something that can be chosen, and what is told of it."""

    key: str
    told: str


class SetChoicesOut(Crossing):
    """What a set may ask: rules, and grades by their number."""

    rules: tuple[SetChoiceOut, ...]
    grades: tuple[SetChoiceOut, ...]


class TopicOut(Crossing):
    """A topic new parts are made of: by what it is asked, what it is called and what it is."""

    key: str
    title: str
    told: str


class TopicsOut(Crossing):
    """Every topic."""

    topics: tuple[TopicOut, ...]


class NewPartIn(Asked):
    """A new part of a topic is wanted, at a grade."""

    topic: Annotated[str, Field(max_length=40)]
    seed: Seed
    grade: Annotated[int, Field(ge=0, le=4)] = 0


class NewPartOut(Crossing):
    """A new part: its plan, and what it is called."""

    text: str
    title: str


class NamesIn(Asked):
    """A class list: a name in a row, or a table with a column of names."""

    text: Annotated[str, Field(max_length=2**20)]


class NamesOut(Crossing):
    """The names of a class, in its order."""

    names: tuple[str, ...]


SetText = Annotated[str, Field(max_length=64 * 2**20)]


class PapersIn(Asked):
    """Papers of a set are wanted, or its key."""

    set: SetText
    key: bool = False
    paper: Literal["A4", "letter"] = "A4"
    frames: bool = True


class MarksIn(Asked):
    """Answers of a class to a set, CSV; with the number of a set of the register their marks are
    kept with it."""

    set: SetText
    answers: Annotated[str, Field(max_length=8 * 2**20)]
    set_id: Annotated[int, Field(ge=0, le=LARGEST_ID)] = 0


class SheetIn(Asked):
    """An empty table of answers to a set is wanted."""

    set: SetText


class WaitsOut(Crossing):
    """An answer that could not be read: to which question, and what is told of it."""

    question: int
    told: str


class MarkedPaperOut(Crossing):
    """A student's marks; `waits` are the questions whose answers could not be read, each with what
    is told of it."""

    student: str
    name: str
    total: float
    of: int
    waits: tuple[WaitsOut, ...]


class ClassSlipOut(Crossing):
    """A slip of a class: how often it was made, and by how many."""

    slip: str
    times: int
    students: int


class ClassMarksOut(Crossing):
    """A class, marked: as CSV, student by student, slip by slip; rows that were left out."""

    left_out: tuple[str, ...]

    csv: str
    papers: tuple[MarkedPaperOut, ...]
    slips: tuple[ClassSlipOut, ...]


classroom = Operations()


@classroom.post("/practice/set-part")
def set_paper(body: SetPartIn) -> Answer:
    """Return a set with the paper of one student alone: a page puts them together, and tells how
    far it is."""
    asked = AskedOf(frozenset(body.rules), body.grade)
    paper = plan_paper(body.texts, body.student, body.count, body.seed, asked)
    paper = replace(paper, name=body.name)
    plans = tuple(at_grade(text, body.grade) for text in body.texts)
    made = Set(body.title, body.seed, briefs_of(body.texts), (paper,), plans)
    return Answer(write_set(made).encode())


@classroom.get("/practice/set/choices")
def set_choices() -> SetChoicesOut:
    """Return what a set may ask."""
    rules = tuple(
        SetChoiceOut(key=key, told=told) for key, told in RULES.items() if key in ON_PAPER
    )
    grades = tuple(SetChoiceOut(key=str(key), told=told) for key, told in GRADES.items())
    return SetChoicesOut(rules=rules, grades=grades)


@classroom.get("/practice/topics")
def list_topics() -> TopicsOut:
    """Return what new parts can be made of."""
    found = (
        TopicOut(key=key, title=topic.TITLE, told=topic.TOLD) for key, topic in topics().items()
    )
    return TopicsOut(topics=tuple(found))


@classroom.post("/practice/part")
def make_part(body: NewPartIn) -> NewPartOut:
    """Return a part of a topic that nobody has had before."""
    work = new_part(body.topic, body.seed, body.grade)
    return NewPartOut(text=write_plan(work.plan), title=work.solution.title)


@classroom.post("/practice/set/names")
def class_list(body: NamesIn) -> NamesOut:
    """Read a class list."""
    return NamesOut(names=read_names(body.text))


@classroom.post("/practice/set/answers")
def set_answers(body: SheetIn) -> Answer:
    """Return an empty table of answers to a set."""
    return as_file(answer_sheet(read_set(body.set)), "answers", "csv")


@classroom.post("/practice/set/papers")
def set_papers(body: PapersIn) -> Answer:
    """Return the papers of a set, or its key, as PDF."""
    made = read_set(body.set)
    content = (
        write_key(made, body.paper) if body.key else write_papers(made, body.paper, body.frames)
    )
    return as_file(content, "key" if body.key else "papers", "pdf")


@classroom.post("/practice/set/marks")
def mark_class(body: MarksIn) -> Recorded[ClassMarksOut]:
    """Mark the answers of a class, each slip named."""
    made = read_set(body.set)
    found = mark_answers(made, body.answers)
    shown = ClassMarksOut(
        csv=marks_csv(made, found),
        left_out=read_answers(body.answers).left_out,
        papers=tuple(map(_marked, found)),
        slips=tuple(
            ClassSlipOut(slip=slip, times=n, students=who) for slip, n, who in slips_of(found)
        ),
    )
    papers = {paper.student: paper for paper in made.papers}
    kept = [_kept(papers[each.student], each) for each in found] if body.set_id else []
    return Recorded(shown, {"set_id": body.set_id, "students": kept})


def _marked(marked: Marked) -> MarkedPaperOut:
    waits = tuple(WaitsOut(question=n, told=marked.marks[n - 1].told) for n in marked.waits)
    return MarkedPaperOut(
        student=marked.student,
        name=marked.name,
        total=marked.total,
        of=len(marked.marks),
        waits=waits,
    )


def _kept(paper: Paper, marked: Marked) -> dict[str, Any]:
    """Return what the register keeps of a student's marks."""
    answers = [
        {
            "rule": question.rule,
            "share": mark.share,
            "slip": mark.slips[0].key if mark.slips else "",
            "waits": mark.told if mark.waits else "",
        }
        for question, mark in zip(paper.questions, marked.marks, strict=True)
    ]
    return {"student": marked.student, "name": marked.name, "answers": answers}
