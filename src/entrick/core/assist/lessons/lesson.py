"""What a lesson is: tasks one after another on a job of its own, each with the statement that does
it, in the drafter's own names."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

from ...desk import Work
from ...drawing.strokes import Role
from ...geometry import Loop, Shape
from ...kind.figure import Family

Names = dict[str, str]
"""What the things of a lesson are called: by the lesson, and by the drafter."""


@dataclass(frozen=True, slots=True)
class Task:
    """What is to be done.

    Attributes
    ----------
    told, why, row : str
        What it is, why it is done so, and the statement that does it; names stand in braces.
    is_done : callable
        Looks at the plan worked out.
    line : callable, optional
        Which line of the plan the row takes the place of; it is written at the end where it is 0.
    """

    told: str
    why: str
    row: str
    is_done: Callable[[Work], bool]
    line: Callable[[Work], int] = lambda work: 0


@dataclass(frozen=True, slots=True)
class Lesson:
    """A lesson: the plan it starts with, its tasks, and what comes next.

    `names` finds what the drafter called the things the tasks speak of."""

    key: str
    title: str
    about: str
    start: str
    tasks: tuple[Task, ...]
    end: str
    names: Callable[[Work], Names]

    def at(self, work: Work) -> int:
        """Return which task comes next: how many of them are done, one after another."""
        undone = (index for index, task in enumerate(self.tasks) if not task.is_done(work))
        return next(undone, len(self.tasks))


def made(work: Work, shape: type[Shape] | type[Loop] | type[Family]) -> list[str]:
    """Return the names of what is constructed of a shape, in order; what is lined in is none of
    it."""
    return [
        entry.statement.name
        for entry in work.solution.entries
        if entry.made and entry.made.lined is None and isinstance(entry.made.shape, shape)
    ]


def of_kind(work: Work, kind: str) -> list[str]:
    """Return the names of what is sound of a kind, in order."""
    return [
        entry.statement.name
        for entry in work.solution.entries
        if entry.made and entry.statement.kind == kind
    ]


def outlines(work: Work) -> int:
    """Return how many closed outlines are lined in."""
    return sum(
        loop.closed
        for entry in work.solution.entries
        if entry.made and entry.made.lined is Role.OUTLINE
        for loop in entry.made.loops
    )


def called(usual: Names, found: dict[str, list[str]]) -> Names:
    """Return what things are called: by the drafter where they are there, else as usual.

    `found` has the drafter's names of a sort of thing by the usual ones of it, in order, with
    blanks between them."""
    names = dict(usual)
    for sort, own in found.items():
        names |= dict(zip(sort.split(), own, strict=False))
    return names
