"""A first job in place: a keeper plate of the lock yard, from the datum to the outline, one task
after another."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

from ..desk import Work
from ..drawing.strokes import Role
from ..geometry import Arc, Circle, Point

START = 'plan "Keeper plate"\ndrawing OY-001\nunits mm\nsheet A4 landscape, scale 1:1, border 10\n'
"""The plan the first job begins with."""


@dataclass(frozen=True, slots=True)
class Task:
    """What is to be done: what it is, why it is done so, and the statement that does it.

    `is_done` looks at the plan worked out.
    """

    told: str
    why: str
    row: str
    is_done: Callable[[Work], bool]


def _count(work: Work, shape: type, least: int) -> bool:
    made = (entry.made for entry in work.solution.entries if entry.made)
    return sum(isinstance(each.shape, shape) and each.lined is None for each in made) >= least


TASKS = (
    Task(
        "Put down the datum, in the middle of the sheet.",
        "The datum is the place everything else is measured from. Every plan begins with one.",
        "O = datum, middle of sheet",
        lambda work: _count(work, Point, 1),
    ),
    Task(
        "Set off a second centre: 60 to the right of O.",
        "Write it on the empty line, or choose a kind from the list and fill its blanks; Enter "
        "goes to the next blank.",
        "A = point, 60 right of O",
        lambda work: _count(work, Point, 2),
    ),
    Task(
        "Draw an eye of radius 22 about O.",
        "A circle is drawn with the needle on its centre. The card says what to set on the "
        "compass, at the scale.",
        "big = circle, centre O, radius 22",
        lambda work: _count(work, Circle, 1),
    ),
    Task(
        "Draw a smaller eye, radius 14, about A.",
        "Click A on the sheet when the blank for the centre is lit: what is picked goes where it "
        "fits.",
        "small = circle, centre A, radius 14",
        lambda work: _count(work, Circle, 2),
    ),
    Task(
        "Blend the two above with an arc of radius 80 that touches both from around them.",
        "Its centre lies where two swings cross: about O with 80 − 22, about A with 80 − 14. "
        "Around takes the "
        "difference of the radii, beside the sum.",
        "top = arc, radius 80, around big, around small, above",
        lambda work: _count(work, Arc, 1),
    ),
    Task(
        "And below, with the same radius.",
        "Two arcs fit, one on each side. Where several fit each has a letter, on the card and on "
        "the sheet; press it.",
        "low = arc, radius 80, around big, around small, below",
        lambda work: _count(work, Arc, 2),
    ),
    Task(
        "Line the outline in: big, top, small, low.",
        "Lining in goes over the outline heavily, from touch point to touch point, arcs first. "
        "Then slide through the "
        "steps under the sheet, and look at Findings: the profile is proved closed and tangent.",
        "rim = line in, big > top > small > low",
        lambda work: any(e.made and e.made.lined is Role.OUTLINE for e in work.solution.entries),
    ),
)


def at(work: Work) -> int:
    """Return which task comes next: how many of them are done, one after another."""
    return next((index for index, task in enumerate(TASKS) if not task.is_done(work)), len(TASKS))
