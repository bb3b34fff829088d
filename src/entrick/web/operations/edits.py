"""Edits of a plan, as they are asked for, each with how it is carried out."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from ...core.assist.clauses import set_place
from ...core.assist.follow import Event, add_event, set_event
from ...core.desk import work_out
from ...core.moves import kinds
from ...core.plan import edit as edits
from ...core.plan.document import MOST_CHARACTERS, Plan, SheetLine
from ...core.plan.writer import write_plan
from ...core.sheet.choose import with_clause
from ..base import Asked, RowText, Whole


class SetGiven(Asked):
    """Give a given another value."""

    op: Literal["given"]
    line: Whole
    value: RowText

    def carried_out(self, plan: Plan) -> Plan:
        return edits.set_given(plan, self.line, self.value)


class SetClause(Asked):
    """Say a clause differently, take it out (empty), or add one (index one past the last)."""

    op: Literal["clause"]
    line: Whole
    clause: Whole
    text: RowText

    def carried_out(self, plan: Plan) -> Plan:
        return edits.set_clause(plan, self.line, self.clause, self.text)


class SetLine(Asked):
    """Put other text on a line."""

    op: Literal["line"]
    line: Whole
    text: RowText

    def carried_out(self, plan: Plan) -> Plan:
        return edits.set_line(plan, self.line, self.text)


class InsertLine(Asked):
    """Put a new line below another."""

    op: Literal["insert"]
    after: Whole
    text: RowText

    def carried_out(self, plan: Plan) -> Plan:
        return edits.insert_line(plan, self.after, self.text)


class Append(Asked):
    """Put one line or several at the end of the plan, as typed."""

    op: Literal["append"]
    text: Annotated[str, Field(max_length=MOST_CHARACTERS)]

    def carried_out(self, plan: Plan) -> Plan:
        return edits.append(plan, self.text)


class NewGiven(Asked):
    """Write down another given, as typed: a letter, =, and the dimension. What is none is refused
    in words."""

    op: Literal["new given"]
    text: RowText

    def carried_out(self, plan: Plan) -> Plan:
        return edits.new_given(plan, self.text)


class SetPlace(Asked):
    """Say something else in one place of a clause, such as what was picked on the sheet."""

    op: Literal["place"]
    line: Whole
    clause: Whole
    place: Annotated[str, Field(max_length=40)]
    text: RowText

    def carried_out(self, plan: Plan) -> Plan:
        return set_place(plan, self.line, self.clause, self.place, self.text)


class SetEvent(Asked):
    """Say one event of a follower differently; one that is half written leaves the plan as it
    is."""

    op: Literal["event"]
    line: Whole
    clause: Whole
    event: Annotated[str, Field(max_length=40)]
    angle: RowText
    lift: RowText = ""
    motion: Annotated[str, Field(max_length=40)] = ""

    def carried_out(self, plan: Plan) -> Plan:
        event = Event(self.clause, self.event, self.angle, self.lift, self.motion)
        return set_event(plan, self.line, event)


class AddEvent(Asked):
    """Add an event at the end of what a follower does, to be changed to what is meant."""

    op: Literal["add event"]
    line: Whole

    def carried_out(self, plan: Plan) -> Plan:
        return add_event(plan, self.line)


class DeleteLine(Asked):
    """Take a line out."""

    op: Literal["delete"]
    line: Whole

    def carried_out(self, plan: Plan) -> Plan:
        return edits.delete_line(plan, self.line)


class MoveLine(Asked):
    """Move a line so that it becomes line `to`."""

    op: Literal["move"]
    line: Whole
    to: Whole

    def carried_out(self, plan: Plan) -> Plan:
        return edits.move_line(plan, self.line, self.to)


class SetHead(Asked):
    """Say the title, drawing number, units or sheet differently."""

    op: Literal["head"]
    key: Literal["plan", "drawing", "units", "sheet"]
    text: RowText

    def carried_out(self, plan: Plan) -> Plan:
        return edits.set_head(plan, self.key, self.text)


class SaySheet(Asked):
    """Say one clause of the sheet line: a paper, a border, a scale, a lettering, in the place of
    the one before."""

    op: Literal["sheet"]
    text: RowText

    def carried_out(self, plan: Plan) -> Plan:
        written = [line.content for line in plan.lines if isinstance(line.content, SheetLine)]
        return edits.set_head(
            plan, "sheet", with_clause(written[-1] if written else None, self.text)
        )


class ChooseCandidate(Asked):
    """Choose a lettered candidate of a statement."""

    op: Literal["choose"]
    line: Whole
    letter: Annotated[str, Field(pattern="^[A-HJ-NP-Z]$")]

    def carried_out(self, plan: Plan) -> Plan:
        entry = work_out(write_plan(plan)).solution.entry(self.line)
        candidate = (
            next((c for c in entry.candidates if c.letter == self.letter), None) if entry else None
        )
        if entry is None or candidate is None:
            raise edits.EditError(f"line {self.line} has no candidate {self.letter}")
        if candidate.of_walk:
            return edits.choose_in_walk(plan, self.line, *candidate.of_walk)
        words = kinds()[entry.statement.kind].choosing_words
        return edits.choose_candidate(plan, self.line, candidate.words, words)


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
