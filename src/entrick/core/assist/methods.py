"""The same thing constructed by each of its methods, side by side: what they take, and how far off
they are."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from ..board.steps import BoardStep
from ..desk import Work, work_out
from ..geometry import Loop
from ..geometry.box import Box, together
from ..geometry.loop import boxed
from ..kind.declared import METHOD
from ..moves import kinds
from ..plan import edit
from ..plan.document import Clause, Statement
from ..plan.forms import Form
from ..plan.writer import write_clauses, write_plan
from ..sheet.departure import with_departure
from .clauses import matched


@dataclass(frozen=True)
class Method:
    """One method of constructing a statement.

    Attributes
    ----------
    said : str
        The clause that chooses it.
    row : str
        The whole statement with it.
    told : str
        What the working says of how close it comes.
    steps : tuple of BoardStep
    chosen : bool
    """

    said: str
    row: str
    told: str
    steps: tuple[BoardStep, ...]
    chosen: bool

    @property
    def settings(self) -> int:
        """How many settings it takes."""
        return sum(step.setting is not None for step in self.steps)

    @property
    def instruments(self) -> tuple[str, ...]:
        """What it is done with, in the order of work."""
        return tuple(dict.fromkeys(step.tool for step in self.steps))


def methods(work: Work, line: int) -> tuple[Method, ...]:
    """Return every method by which the statement on a line may be constructed; none where there is
    only one."""
    entry = work.solution.entry(line)
    kind = kinds().get(entry.statement.kind) if entry else None
    if entry is None or kind is None or entry.made is None:
        return ()
    statement = entry.statement
    said = [clause for clause in statement.clauses if _key(clause, kind.name) != METHOD]
    chosen = next(
        (str(clause) for clause in statement.clauses if _key(clause, kind.name) == METHOD), ""
    )
    usual = next(iter(_phrases(kind.forms)), "")
    found = []
    for phrase in _phrases(kind.forms):
        row = _row(statement, said, phrase)
        done = work_out(write_plan(edit.set_line(work.plan, line, row)))
        tried = done.solution.entry(line)
        made = tried.made if tried else None
        if made is not None:
            steps = tuple(step for step in done.steps if step.line == line)
            words = "; ".join(with_departure(made.working[-1:], made.departs, done.sheet))
            found.append(Method(phrase, row, words, steps, phrase == (chosen or usual)))
    return tuple(found) if len(found) > 1 else ()


def _key(clause: Clause, kind: str) -> str:
    match = matched(kind, clause)
    return match.form.key if match else ""


def _phrases(forms: tuple[Form, ...]) -> Iterator[str]:
    by = [form for form in forms if form.key == METHOD]
    if by and all(not form.slots for form in by):
        yield ""
    for form in by:
        choices = form.slots[0].choices if form.slots else ("",)
        for choice in choices:
            yield " ".join(
                choice if part in form.slots else str(part) for part in form.parts
            ).strip()


def _row(statement: Statement, said: list[Clause], phrase: str) -> str:
    parts = [statement.kind, *map(str, said), *([phrase] if phrase else [])]
    return f"{statement.name} = {write_clauses(parts, statement)}"


MARGIN = 0.12
"""Room about the thing constructed in a picture of its methods, as a share of its size: some of
what is drawn beside the curve belongs to the picture, but not all that runs out."""


def framed(work: Work, line: int) -> Box:
    """Return the frame of the pictures of a statement's methods, mm on paper; of no size where
    nothing is drawn."""
    entry = work.solution.entry(line)
    runs = [
        shape
        for shape in (entry.made.shapes if entry and entry.made else ())
        if isinstance(shape, Loop)
    ]
    if not runs:
        return Box(0.0, 0.0, 0.0, 0.0)
    box = together([boxed(run).box for run in runs])
    low, high = work.sheet.on_paper(box.low), work.sheet.on_paper(box.high)
    room = (high - low) * MARGIN
    return Box(low.x - room.x, low.y - room.y, high.x + room.x, high.y + room.y)
