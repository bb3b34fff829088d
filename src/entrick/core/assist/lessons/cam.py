"""A cam from its sentence."""

from __future__ import annotations

from ...desk import Work
from ...geometry import Point
from .lesson import Lesson, Names, Task, called, made, of_kind, outlines


def _names(work: Work) -> Names:
    usual = {name: name for name in ("O", "lift")}
    return called(usual, {"O": made(work, Point), "lift": of_kind(work, "cam")})


TASKS = (
    Task(
        "Put down the datum: the cam turns about it.",
        "Every angle of the cam is counted about this point.",
        "O = datum, middle of sheet",
        lambda work: bool(made(work, Point)),
    ),
    Task(
        "Write what the follower does: it rises 24 in a quarter of a turn, dwells 60°, falls in "
        "120°, and dwells.",
        "From a brief… takes the sentence as it stands; or write the events one after another. "
        "What is left of the turn is the last dwell.",
        "lift = cam, about {O}, least 38, rise 90° by 24 harmonic, dwell 60°, fall 120° by 24 "
        "harmonic, dwell 90°",
        lambda work: bool(of_kind(work, "cam")),
    ),
    Task(
        "Line the cam in.",
        "The curve goes through a place for every station; the card's worksheet shows diagram and "
        "cam turning together.",
        "rim = line in, {lift}",
        lambda work: outlines(work) > 0,
    ),
    Task(
        "Mark the middle of the cam with its centre lines.",
        "A part that turns is measured from its middle; the lines are drawn thin, in chain dashes.",
        "middle = centre lines, of {lift}.least",
        lambda work: bool(of_kind(work, "centre lines")),
    ),
)


LESSON = Lesson(
    "cam",
    "A cam from its sentence",
    "What a follower does becomes a curve: events, motions, stations, and where the numbers run.",
    'plan "Lifting cam"\nunits mm\nsheet A3 landscape, scale 1:1, border 10\n',
    TASKS,
    "The cam is set out. Open its card and press Worksheet: velocity and acceleration stand under "
    "the diagram, and a jump in either is told among the findings.",
    _names,
)
