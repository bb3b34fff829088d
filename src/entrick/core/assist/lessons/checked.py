"""A drawing checked: a plan with three faults, found and mended."""

from __future__ import annotations

from ...desk import Work
from ...proof.finding import Finding
from .lesson import Lesson, Names, Task, of_kind

START = """\
plan "Cover plate"
units mm
sheet A4 landscape, scale 1:1, border 10
given d = 4× Ø8 "bolt holes"
given w = 60 "between bolts, across"
O = datum, middle of sheet
frame = box, 90 by 60, centred on O
bolts = holes, 2 by 1, w by 30 apart, centred on O, diameter d
rim = line in, frame.bottom > frame.right > frame.top, open
drilled = line in, bolts
"""


def _found(work: Work, rule: str) -> list[Finding]:
    return [each for each in work.findings if each.rule == rule and each.weight != "good"]


def _line(name: str, work: Work) -> int:
    """Return where a statement of the plan stands; 0 where there is none of that name."""
    lines = (each.line for each in work.solution.entries if each.statement.name == name)
    return next(lines, 0)


def _names(work: Work) -> Names:
    return {}


TASKS = (
    Task(
        "The outline is open: its ends are 60 apart. Close it.",
        "Turn to Findings: what is wrong stands first, and each row shows its place on the sheet "
        "when it is pointed at. A walk takes every side, or the box as a whole.",
        "rim = line in, frame",
        lambda work: not _found(work, "open"),
        lambda work: _line("rim", work),
    ),
    Task(
        "Four holes are given, and two are lined in. Put the other two there.",
        "The count the brief gives is held against what is drawn: a hole forgotten is found before "
        "the plate is drilled.",
        "bolts = holes, 2 by 2, w by 30 apart, centred on O, diameter d",
        lambda work: not _found(work, "count"),
        lambda work: _line("bolts", work),
    ),
    Task(
        "The circles have no centre lines. Draw them.",
        "Whoever drills finds a hole by its centre lines.",
        "middles = centre lines, of bolts",
        lambda work: bool(of_kind(work, "centre lines")) and not _found(work, "finish"),
    ),
)


LESSON = Lesson(
    "checked",
    "A drawing checked",
    "A plate somebody else drew, with three faults: how the inspection finds them, and how they "
    "are mended.",
    START,
    TASKS,
    "Nothing is wrong any more. The proof tells what was measured and how each piece joins; "
    "Suggest dimensions puts a full set on.",
    _names,
)
