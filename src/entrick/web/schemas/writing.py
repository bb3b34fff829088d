"""Help while a plan is written: completion, kinds, regions, dimensions, briefs, the sheet, the first job."""

from __future__ import annotations

from typing import Annotated

from pydantic import ConfigDict, Field

from ...core.assist.completion import Completion
from ...core.plan.document import LONGEST_LINE
from .crossing import Asked, Crossing, Marks, PlanText, RowText, Spot, Whole


class SuggestOut(Crossing):
    """Dimensions suggested: the plan with them, the statements, and what they leave open."""

    text: str
    statements: tuple[str, ...]
    left_open: tuple[str, ...]


class RegionsIn(Asked):
    """Places pointed at, mm on paper; the boundary of the regions they lie in is wanted as statements of a kind."""

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
