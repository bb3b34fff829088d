"""A keeper plate: two eyes and two blends, from the datum to the outline."""

from __future__ import annotations

from ...desk import Work
from ...geometry import Arc, Circle, Point
from .lesson import Lesson, Names, Task, called, made, outlines


def _names(work: Work) -> Names:
    usual = {name: name for name in ("O", "A", "big", "small", "top", "low")}
    found = {
        "O A": made(work, Point),
        "big small": made(work, Circle),
        "top low": made(work, Arc),
    }
    return called(usual, found)


TASKS = (
    Task(
        "Put down the datum, in the middle of the sheet.",
        "The datum is the place everything else is measured from. Every plan begins with one.",
        "O = datum, middle of sheet",
        lambda work: len(made(work, Point)) >= 1,
    ),
    Task(
        "Set off a second centre: 60 to the right of {O}.",
        "Write it on the empty line, or choose a kind from the list and fill its blanks; Enter "
        "goes to the next blank.",
        "A = point, 60 right of {O}",
        lambda work: len(made(work, Point)) >= 2,
    ),
    Task(
        "Draw an eye of radius 22 about {O}.",
        "A circle is drawn with the needle on its centre. The card says what to set on the "
        "compass, at the scale.",
        "big = circle, centre {O}, radius 22",
        lambda work: len(made(work, Circle)) >= 1,
    ),
    Task(
        "Draw a smaller eye, radius 14, about {A}.",
        "Click {A} on the sheet when the blank for the centre is lit: what is picked goes where it "
        "fits.",
        "small = circle, centre {A}, radius 14",
        lambda work: len(made(work, Circle)) >= 2,
    ),
    Task(
        "Blend the two above with an arc of radius 80 that touches both from around them.",
        "Its centre lies where two swings cross: about {O} with 80 − 22, about {A} with 80 − 14. "
        "Around takes the "
        "difference of the radii, beside the sum.",
        "top = arc, radius 80, around {big}, around {small}, above",
        lambda work: len(made(work, Arc)) >= 1,
    ),
    Task(
        "And below, with the same radius.",
        "Two arcs fit, one on each side. Where several fit each has a letter, on the card and on "
        "the sheet; press it.",
        "low = arc, radius 80, around {big}, around {small}, below",
        lambda work: len(made(work, Arc)) >= 2,
    ),
    Task(
        "Line the outline in: {big}, {top}, {small}, {low}.",
        "Lining in goes over the outline heavily, from touch point to touch point, arcs first. "
        "Then slide through the "
        "steps under the sheet, and look at Findings: the profile is proved closed and tangent.",
        "rim = line in, {big} > {top} > {small} > {low}",
        lambda work: outlines(work) > 0,
    ),
)

LESSON = Lesson(
    "link",
    "A link, from the datum to the outline",
    "Two eyes and the blends between them, in seven lines: how a plan is written, how a blend is "
    "found, and what the desk proves of it.",
    'plan "Keeper plate"\nunits mm\nsheet A4 landscape, scale 1:1, border 10\n',
    TASKS,
    "The plate is set out and lined in. Every step at the board stands under the sheet, every "
    "setting on its card.",
    _names,
)
