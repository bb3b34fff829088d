"""Edits of a plan, as they are asked for."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from ...core.plan.document import MOST_CHARACTERS
from .crossing import Asked, RowText, Whole


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
