"""A wrong answer played: the plan carried out with what was answered, and where it ends."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

import numpy as np

from ..acts.act import Act, GoOver, Measure, Prick, StepOff, Swing
from ..desk import Work
from ..practice.ask.hints import numbers
from ..practice.question import Question
from ..practice.slips import OnRule
from ..rehearsal.carry_out import DrawnRound
from ..rehearsal.hand import NONE
from ..rehearsal.many import Hands, Places
from .in_order import in_order
from .lined import lined_in
from .slipped import Slip, SlippedBoard, carry_out_slipped

SEEN = 0.3
"""A piece that ends so far from where it belongs is shown, mm on paper."""

ROUND = 90
"""Straights a swing is shown by."""

Run = tuple[tuple[float, float], ...]


@dataclass(frozen=True, slots=True)
class Played:
    """What comes of a wrong answer on the sheet.

    Attributes
    ----------
    runs : tuple of runs
        Strokes that end elsewhere, mm on paper from its lower left corner.
    told : str
    """

    runs: tuple[Run, ...] = ()
    told: str = ""


def played(work: Work, question: Question, answer: float | str) -> Played:
    """Carry a plan out with a wrong answer at the step a question is about.

    Parameters
    ----------
    work : Work
    question : Question
        Of that plan.
    answer : float or str
        As it was set, in the unit of the rule; or the choice that was made.
    """
    order = in_order(work)
    acts = [act for act, step in order.steps.items() if step.number == question.step]
    slips = [slip for act in acts for slip in _slip(work, question, answer, act)]
    if question.step <= 0 or not slips:
        return Played()
    # Two of three hands tell where a station belongs.
    hands = Hands(NONE, 3, 0, work.sheet.factor)
    board = carry_out_slipped(order.acts, hands, ((), (), slips))
    origin = complex(work.sheet.origin.x, work.sheet.origin.y)
    runs, lost = list(_swings(board, [slip.act for slip in slips], work.sheet.factor)), False
    for piece in lined_in(board, work.sheet.factor):
        right, _, wrong = piece.places.T
        if not np.all(np.isfinite(wrong)):
            lost = True
        elif float(np.max(np.abs(wrong - right))) > SEEN:
            runs.append(piece.run(2))
    words = "With that a piece of the outline cannot be drawn: what it stands on does not meet."
    return Played(tuple(_run(origin + run) for run in runs), words if lost else "")


def _run(places: Places) -> Run:
    return tuple((round(float(p.real), 3), round(float(p.imag), 3)) for p in places)


def _swings(board: SlippedBoard, acts: list[Act], factor: float) -> Iterator[Places]:
    """Yield the circles that the slipped acts themselves have left."""
    turn = np.exp(1j * np.linspace(0, 2 * np.pi, ROUND))
    for act in acts:
        thing = board.things.get(getattr(act, "leaves", ""))
        if isinstance(thing, DrawnRound) and np.isfinite(thing.centre[-1] + thing.radius[-1]):
            yield (thing.centre[-1] + thing.radius[-1] * turn) * factor


def _slip(work: Work, question: Question, answer: float | str, act: Act) -> Iterator[Slip]:
    """Yield the slip of an act that an answer comes to."""
    if question.rule == "crossing" and isinstance(act, Prick):
        yield Slip(act, "crossing", "", "", 1)
        return
    right = _size(act)
    wrong = _value(question, answer)
    if right is None or wrong is None:
        return
    factor = OnRule(work.kit, work.sheet.scale, work.solution.unit).factor
    halved = 2.0 if question.rule == "template" else 1.0
    yield Slip(act, "size", "", "", 1, right, wrong / factor / halved)


def _size(act: Act) -> float | None:
    match act:
        case Measure(size=size):
            return abs(float(size))
        case Swing(setting=setting) | StepOff(setting=setting):
            return float(setting.size)
        case GoOver(setting=setting) if setting is not None:
            return float(setting.size)
    return None


def _value(question: Question, answer: float | str) -> float | None:
    """Return what an answer sets: a length, or the sum that was chosen."""
    if isinstance(answer, float | int):
        return float(answer) if question.sort == "length" else None
    values = [value for _, value in numbers(answer)]
    if question.rule != "locus" or not values:
        return None
    if "sum" in answer:
        return sum(values)
    return abs(values[0] - values[-1]) if "difference" in answer else values[0]
