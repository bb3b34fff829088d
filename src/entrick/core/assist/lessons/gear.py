"""A gear with its bore."""

from __future__ import annotations

from ...desk import Work
from ...geometry import Point
from .lesson import Lesson, Names, Task, called, made, of_kind, outlines


def _names(work: Work) -> Names:
    usual = {name: name for name in ("O", "wheel")}
    return called(usual, {"O": made(work, Point), "wheel": of_kind(work, "gear")})


TASKS = (
    Task(
        "Put down the datum: the middle of the wheel.",
        "Pitch circle, root and tip are all drawn about it.",
        "O = datum, middle of sheet",
        lambda work: bool(made(work, Point)),
    ),
    Task(
        "Set out a wheel of 24 teeth, module 4, with a bore of 20.",
        "Module times teeth is the pitch diameter: 96. A tooth stands one module out of it and "
        "goes one and a quarter in; both count on both sides.",
        "wheel = gear, about {O}, 24 teeth, module 4, bore diameter 20",
        lambda work: bool(of_kind(work, "gear")),
    ),
    Task(
        "Line the teeth in.",
        "Flanks are arcs that come as near to the involute as the card says; one tooth is drawn, "
        "the others are stepped round.",
        "rim = line in, {wheel}",
        lambda work: outlines(work) >= 1,
    ),
    Task(
        "And the bore.",
        "What is inside an outline is a hole: the inspection tells material from hole by itself.",
        "bore = line in, {wheel}.bore",
        lambda work: outlines(work) >= 2,
    ),
)


LESSON = Lesson(
    "gear",
    "A gear with its bore",
    "Pitch circle, teeth and bore: which diameter takes the addendum once, and which twice.",
    'plan "Winding wheel"\nunits mm\nsheet A3 landscape, scale 1:1, border 10\n',
    TASKS,
    "The wheel is set out. Its card tells every circle with its sum; with a mating wheel said as "
    "well, undercut and clearance are told among the findings.",
    _names,
)
