"""Sets for a class: kept as they are made, so that answers are marked whenever they come back."""

from __future__ import annotations

from collections.abc import Mapping
from datetime import datetime
from typing import Annotated, Any

from pydantic import Field

from ... import store
from ...core.classroom.record import Answer, class_record, record_csv
from ...core.classroom.set_file import read_set
from ...records import AskedNumber, Share
from ..base import Asked, Crossing
from ..http.who import me, require
from ..operation import Operations
from ..workers.forward import records
from .saved import committed, the_store

LARGEST_KEPT = 16 * 2**20
"""Signs of a set that is kept in the register."""


class SetPath(Asked):
    """A set by number."""

    set_id: AskedNumber


class KeptSetIn(Asked):
    """A set to be kept, as the text of its file."""

    set: Annotated[str, Field(max_length=LARGEST_KEPT)]


class PutAwayIn(Asked):
    """Whether a set is put away."""

    removed: bool


class KeptSetOut(Crossing):
    """A set as it is listed."""

    id: int
    title: str
    students: int
    made_at: datetime
    removed: bool


class KeptSetsOut(Crossing):
    """Every set, last made first."""

    sets: tuple[KeptSetOut, ...]


class SetTextOut(Crossing):
    """A set as the text of its file."""

    set: str


class DecidedIn(Asked):
    """What the teacher gives for an answer that could not be read."""

    student: Annotated[str, Field(max_length=200)]
    question: Annotated[int, Field(ge=1, le=60)]
    share: Share


class WaitingOut(Crossing):
    """An answer to be decided: to which question, and what is told of it."""

    question: int
    told: str


class KeptMarksOut(Crossing):
    """The marks of a student: of how many, the sum, and what is still to be decided."""

    student: str
    name: str
    total: float
    of: int
    waits: tuple[WaitingOut, ...]


class MarksOfSetOut(Crossing):
    """The marks that are kept with a set."""

    papers: tuple[KeptMarksOut, ...]


class RuleWeeksOut(Crossing):
    """A rule over the weeks: the share that was right in each."""

    rule: str
    told: str
    shares: tuple[float | None, ...]


class CommonSlipOut(Crossing):
    """A slip of the class in the last week: how often, and whose."""

    slip: str
    times: int
    whose: tuple[str, ...]


class StudentWeeksOut(Crossing):
    """A student over the weeks, with the slips by name."""

    who: str
    shares: tuple[float | None, ...]
    rules: tuple[RuleWeeksOut, ...]
    slips: tuple[tuple[str, int], ...]


class ClassRecordOut(Crossing):
    """A class over the weeks, student by student; the same as CSV."""

    weeks: tuple[str, ...]
    shares: tuple[float | None, ...]
    rules: tuple[RuleWeeksOut, ...]
    commonest: tuple[CommonSlipOut, ...]
    students: tuple[StudentWeeksOut, ...]
    csv: str


class_sets = Operations()


@class_sets.get("/sets", deed="keep a class")
def list_sets() -> KeptSetsOut:
    """Return every set, last made first, those put away as well."""
    with the_store().reading() as session:
        found = store.list_sets(session, me())
    return KeptSetsOut(sets=tuple(map(KeptSetOut.from_core, found)))


@class_sets.post("/sets", status=201, deed="keep a class")
def keep_set(body: KeptSetIn) -> KeptSetOut:
    """Keep a set; what is no set is refused in words."""
    made = read_set(body.set)
    with the_store().writing() as session:
        kept = store.add_set(session, made.title, len(made.papers), body.set, me())
    committed()
    return KeptSetOut.from_core(kept)


@class_sets.get("/sets/<set_id>", deed="keep a class")
def open_set(path: SetPath) -> SetTextOut:
    """Return a set as it was made."""
    with the_store().reading() as session:
        return SetTextOut(set=store.set_text(session, path.set_id))


@class_sets.patch("/sets/<set_id>", deed="keep a class")
def put_set_away(path: SetPath, body: PutAwayIn) -> KeptSetOut:
    """Put a set away, or back."""
    with the_store().writing() as session:
        found = store.put_set_away(session, path.set_id, body.removed)
    committed()
    return KeptSetOut.from_core(found)


@class_sets.get("/sets/<set_id>/marks", deed="keep a class")
def kept_marks(path: SetPath) -> MarksOfSetOut:
    """Return the marks that are kept with a set."""
    with the_store().reading() as session:
        found = store.marks_of(session, path.set_id)
    return MarksOfSetOut(papers=tuple(map(_kept, found)))


@class_sets.patch("/sets/<set_id>/marks", deed="keep a class")
def decide_mark(path: SetPath, body: DecidedIn) -> KeptMarksOut:
    """Give the mark of an answer that could not be read."""
    with the_store().writing() as session:
        found = store.decide(session, path.set_id, body.student, body.question, body.share)
    committed()
    return _kept(found)


def _kept(view: store.MarkView) -> KeptMarksOut:
    waits = tuple(
        WaitingOut(question=number, told=answer["waits"])
        for number, answer in enumerate(view.answers, 1)
        if answer["waits"]
    )
    total = sum(answer["share"] for answer in view.answers)
    return KeptMarksOut(
        student=view.student, name=view.name, total=total, of=len(view.answers), waits=waits
    )


@class_sets.get("/class-record", deed="keep a class")
def class_weeks() -> ClassRecordOut:
    """Return what the marks of all sets show, week by week."""
    with the_store().reading() as session:
        marks = store.all_marks(session, me())
    answers = [
        Answer(
            mark.name or mark.student,
            f"{mark.marked_at.isocalendar().year}-W{mark.marked_at.isocalendar().week:02}",
            answer["rule"],
            answer["share"],
            answer["slip"],
        )
        for mark in marks
        for answer in mark.answers
        if not answer["waits"]
    ]
    record = class_record(answers)
    return ClassRecordOut.from_core(record, csv=record_csv(record))


@records("/api/practice/set/marks")
def _keep_marks(found: Mapping[str, Any]) -> None:
    if found["set_id"]:
        require("keep a class")
        with the_store().writing() as session:
            store.keep_marks(session, found["set_id"], found["students"])
        committed()
