"""A question about a plan: what is asked, the right answer, and the answers known slips give."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from ..measure import RulePiece

Sort = Literal["length", "angle", "choice", "order"]
"""How it is answered: with a length or an angle, by one of several choices, or by putting steps in
order."""

RULES: dict[str, str] = {
    "locus": "An arc that goes around a circle has its centre at the difference of the radii, one "
    "beside it at the sum",
    "radius": "A compass goes by radius, a template by diameter",
    "scale": "What is drawn is the size times the scale; angles never scale",
    "reading": "A size is counted on from the nearest figure before it: the longer the mark, the "
    "rounder the size",
    "direction": "A direction is counted from level to the right, against the clock; the other way "
    "round it is what is left of 180",
    "crossing": "Two swings cross twice: an arc that lies above has its centre below",
    "candidate": "Of several solutions the words of the brief choose one",
    "parts": "n equal parts lie 360/n apart; dividers span the chord, twice the radius times the "
    "sine of half of it",
    "stations": "Stations of a cam run against its turning, and begin at the least distance",
    "chain": "The links of a chain add up to its overall size",
    "template": "A template's holes go by diameter, at the scale of the sheet",
    "next": "An outline is gone over end to end, each piece to where the next begins",
    "planted": "Every size of the brief is found again in the drawing",
    "order": "Nothing is drawn before what it stands on",
    "place": "A place is measured from the mark the brief names, and half each way from a middle",
    "thread": "A thread's minor diameter is the major one less 1.0825 times the pitch: once, for "
    "both sides together",
    "keyway": "The floor of a keyway in a bore lies its depth beyond the circle, counted from the "
    "centre",
    "flats": "Across corners is across flats over the cosine of 180/n",
    "wheel": "A wheel's circles: twice the addendum out, twice the dedendum in, the base by the "
    "cosine",
}
"""What a question tests, in a sentence (common practice, no source)."""


@dataclass(frozen=True, slots=True)
class Slip:
    """A known slip and the answer it gives.

    Attributes
    ----------
    key : str
        What went wrong, in two or three words: the same slip has the same key everywhere.
    weight : int
        6 always with us, 3 usual, 1 now and then (common practice, no source).
    answer : float or str
        In the unit of the question, or the choice it leads to.
    said : str
        What is told of it, with the numbers at hand.
    """

    key: str
    weight: int
    answer: float | str
    said: str


@dataclass(frozen=True, slots=True)
class Question:
    """A question.

    Attributes
    ----------
    key : str
        The same question of the same plan has the same key.
    rule : str
        Which of `RULES` it tests.
    asks : str
    sort : str
    line : int
        Statement it is about; 0 for the whole plan.
    step : int
        The sheet is shown as it stands before this step; 0 where all of it may be seen.
    right : float, str or tuple of str
    unit : str
        Of the answer where it is a number: that of the rule, or °.
    near : float
        How far an answer may be off, in its unit: half a graduation.
    choices : tuple of str
        For a choice, and the steps to be put in order.
    slips : tuple of Slip
        Heaviest first; none gives the right answer.
    hints : tuple of str
        Each says more than the one before.
    working : tuple of str
    waits : tuple of tuple of int
        Of steps to be put in order: which of them have to come before each.
    shows : str
        The plan to be shown, where it is another one than the question's.
    setting : str
        Instrument, where the answer can be shown as a setting; empty where it cannot.
    rule_shown : RulePiece, optional
        The piece of a rule that is read, or, where it has no pointer, on which one is set.
    """

    key: str
    rule: str
    asks: str
    sort: Sort
    line: int
    right: float | str | tuple[str, ...]
    step: int = 0
    unit: str = ""
    near: float = 0.0
    choices: tuple[str, ...] = ()
    slips: tuple[Slip, ...] = ()
    hints: tuple[str, ...] = ()
    working: tuple[str, ...] = ()
    waits: tuple[tuple[int, ...], ...] = ()
    shows: str = ""
    setting: str = ""
    rule_shown: RulePiece | None = None
