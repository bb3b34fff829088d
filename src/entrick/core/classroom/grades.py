"""How hard a set is: at full size, at a scale, with the slips of a question kept apart, with two
traps at once."""

from __future__ import annotations

from itertools import combinations

from ..desk import work_out
from ..memo import remembered
from ..plan.edit import set_head
from ..plan.errors import ClauseError
from ..plan.reader import read_plan
from ..plan.writer import write_plan
from ..practice.question import Question
from ..sheet import Sheet

ANY, FULL_SIZE, TO_SCALE, APART, TWO_TRAPS = range(5)

GRADES = {
    ANY: "as the plans are drawn",
    FULL_SIZE: "at full size",
    TO_SCALE: "at a scale",
    APART: "at a scale, each slip told from any other",
    TWO_TRAPS: "at a scale, two traps at once",
}

PAPERS = ("A4 landscape", "A3 landscape", "A2 landscape", "A1 landscape")
SCALES = ("1:2", "2:1", "1:5")
"""Scales a plan is drawn at where it is at full size and is not to be, the first that fits."""

GRADUATIONS = 2.0
"""Slips that are kept apart differ by so many graduations at least."""

SCALE_SLIPS = frozenset({"scale forgotten", "scale twice", "scale upside down"})
EYE = frozenset({"a main mark out", "point slipped", "figures changed round", "mm for inch"})
EYE |= {"sixteenths for thirty-seconds", "a mark out", "counted backwards"}
"""Slips of reading: they are no trap of the question."""


@remembered()
def at_grade(text: str, grade: int) -> str:
    """Return a plan at full size, or at a scale, on the smallest paper that holds it; as it is
    where none does, and where the grade leaves it as it is.

    Parameters
    ----------
    text : str
        A plan without mistakes.
    grade : int
        Of `GRADES`.
    """
    full = work_out(text).sheet.scale.ratio == 1
    if grade == ANY or full == (grade == FULL_SIZE):
        return text
    for scale in ("1:1",) if grade == FULL_SIZE else SCALES:
        for paper in PAPERS:
            try:
                plan = set_head(read_plan(text), "sheet", f"{paper}, scale {scale}")
            except (ClauseError, ValueError):
                continue
            work = work_out(write_plan(plan))
            if not work.solution.errors and not work.sheet.errors and _holds(work.sheet):
                return write_plan(plan)
    return text


def _holds(sheet: Sheet) -> bool:
    (low, high), (a, b) = sheet.space, sheet.room
    return a.x >= low.x and a.y >= low.y and b.x <= high.x and b.y <= high.y


def suits(question: Question, grade: int) -> bool:
    """Tell whether a question is one of a grade; what has no number is of all but the last."""
    numbers = [slip for slip in question.slips if isinstance(slip.answer, float | int)]
    if not numbers:
        return grade != TWO_TRAPS
    traps = {slip.key in SCALE_SLIPS for slip in numbers if slip.key not in EYE}
    if grade == TWO_TRAPS:
        return traps == {True, False}
    if grade == APART:
        return are_apart(question)
    return True


def are_apart(question: Question) -> bool:
    """Tell whether any two slips of a question give answers that can be told apart."""
    answers = [
        (slip.key, float(slip.answer))
        for slip in question.slips
        if isinstance(slip.answer, float | int) and slip.key not in EYE
    ]
    least = 2 * question.near * GRADUATIONS
    return all(
        one == other or abs(a - b) >= least for (one, a), (other, b) in combinations(answers, 2)
    )
