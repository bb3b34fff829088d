"""An answer as a drafter writes it: read, judged, and where it is wrong, understood."""

from __future__ import annotations

import re
from collections.abc import Sequence
from dataclasses import dataclass, replace

from ..logbook.measured import read_value
from ..measure import Unit
from ..outside import read_number
from ..plan.errors import ClauseError
from ..tolerance import ROUND
from .question import Question, Slip
from .record import Learner
from .slips import rounded

HALF = frozenset({"a main mark out", "figures changed round"})
"""Slips of the eye on the rule: the method was right, and half the mark is given."""

HINT_COSTS = 0.25
"""What a hint takes off a mark (by eye, no source)."""

ON_TOP = ("scale forgotten", "scale twice")
"""Slips that are looked for on top of another one, where none alone fits."""


@dataclass(frozen=True, slots=True)
class Mark:
    """What came of an answer.

    Attributes
    ----------
    share : float
        Of the mark: 1 for the right answer, a half for a right method read wrongly off the rule,
        else 0.
    slips : tuple of Slip
        Which known slips give that answer, the likeliest first.
    working : tuple of str
        Shown where nothing known gives it, and at the end.
    told : str
    waits : bool
        Whether it could not be read: the teacher decides, and it is no mark yet.
    """

    share: float
    slips: tuple[Slip, ...] = ()
    working: tuple[str, ...] = ()
    told: str = ""
    waits: bool = False


def marked(question: Question, said: str, learner: Learner | None = None) -> Mark:
    """Judge an answer.

    Parameters
    ----------
    question : Question
    said : str
        As typed: ``3 1/4``, ``83 mm``, ``R44``, a choice, or for steps the numbers in their order,
        ``2 1 3 5 4``.
    learner : Learner, optional
        Whose answer it is: the slips one makes oneself are named first.

    Raises
    ------
    ClauseError
        Where the answer cannot be read, in words.
    """
    if question.sort == "order":
        return _ordered(question, said)
    if question.sort == "choice":
        return _chosen(question, said)
    right = question.right
    assert isinstance(right, float | int)
    value = _read(question, said)
    # 1,200 is twelve hundred to one writer, and one and a fifth to another: either may be meant.
    in_thousands = re.sub(r"(?<=\d),(?=\d{3}(?!\d))", "", said)
    values = {value, _read(question, in_thousands)}
    if any(abs(each - right) <= question.near + ROUND for each in values):
        return Mark(1.0, told="Right.")
    found = _diagnosed(question, value, learner or Learner())
    half = any(slip.key in HALF for slip in found[:1]) or (
        not found and abs(value - right) <= 4 * question.near + ROUND
    )
    told = " ".join(f"{slip.said}." for slip in found) or (
        "Nearly: look at the graduation once more."
        if half
        else "No usual slip gives that; here is the working."
    )
    return Mark(0.5 if half else 0.0, found, () if found else question.working, told)


def answer_meant(question: Question, said: str) -> float | str | None:
    """Return what an answer means: a number in the unit of the question, or a choice; None where it
    is an order of steps, or cannot be read."""
    if question.sort == "choice":
        return _choice(question, said)
    try:
        return _read(question, said) if question.sort != "order" else None
    except ClauseError:
        return None


def in_our_writing(said: str) -> str:
    """Return a number as it is read here, however it was written: a decimal comma, a unit in
    capitals or right behind it, a full stop at the end.

    Examples
    --------
    >>> in_our_writing("46,25"), in_our_writing("120MM."), in_our_writing("3 1/4 IN")
    ('46.25', '120 mm', '3 1/4 in')
    """
    text = " ".join(said.split()).strip().rstrip(".;:")
    text = re.sub(r"(?<=\d),(?=\d)", ".", text)
    text = re.sub(r"(?<=[\d\s])(mm|in|inch|inches)\.?$", _unit, text, flags=re.IGNORECASE)
    return " ".join(text.split())


def _unit(match: re.Match[str]) -> str:
    return f" {'mm' if match[1].casefold() == 'mm' else 'in'}"


SET_AT = re.compile(r"#(\d{1,5})")
"""How a pointer that was set is said: by the graduation it stands at, counted along the picture."""


def _read(question: Question, said: str) -> float:
    piece, set_at = question.rule_shown, SET_AT.fullmatch(said.strip())
    if piece is not None and set_at is not None:
        return float((piece.first + int(set_at[1])) * piece.step)
    text = in_our_writing(said.strip().rstrip("°"))
    if question.sort == "angle":
        try:
            return float(read_number(text.removesuffix("deg").rstrip()))
        except ClauseError as error:
            raise ClauseError(
                f"{said.strip() or 'nothing'} is no angle; write it as  37  or  22.5°"
            ) from error
    return float(read_value(text, Unit(question.unit)))


def _diagnosed(question: Question, value: float, learner: Learner) -> tuple[Slip, ...]:
    """Return the slips whose answer, at the nearest graduation, is the one given; two at once where
    none is alone."""

    def fits(answer: float) -> bool:
        grid = question.near if question.sort == "length" else 0.0
        return abs(rounded(answer, grid) - value) <= question.near + ROUND

    slips = [slip for slip in question.slips if isinstance(slip.answer, float | int)]
    single = [slip for slip in slips if fits(float(slip.answer))]
    if not single:
        single = [each for each in _both(question, slips) if fits(float(each.answer))]
    best: dict[str, Slip] = {}
    for slip in sorted(single, key=lambda each: -learner.weight(each)):
        best.setdefault(slip.key, slip)
    return tuple(best.values())


def _both(question: Question, slips: Sequence[Slip]) -> list[Slip]:
    """Return slips of the kind with the scale forgotten, or taken twice, on top."""
    right = question.right
    assert isinstance(right, float | int)
    scaled = {
        slip.key: float(slip.answer) / right for slip in slips if slip.key in ON_TOP and right
    }
    own = [slip for slip in slips if slip.key not in ON_TOP and slip.key not in _EVERYWHERE]
    return [
        replace(
            slip,
            key=f"{slip.key}, {key}",
            answer=float(slip.answer) * times,
            said=f"{slip.said}; and the scale was "
            f"{'forgotten' if key == 'scale forgotten' else 'taken twice'}",
        )
        for slip in own
        for key, times in scaled.items()
    ]


_EVERYWHERE = frozenset(
    {
        "scale upside down",
        "a main mark out",
        "point slipped",
        "figures changed round",
        "sixteenths for thirty-seconds",
        "mm for inch",
    }
)
"""Slips of every length: only slips of the kind are looked for with another on top."""


def _choice(question: Question, said: str) -> str | None:
    """Return the choice that is meant: in full, by its letter however it is set off, or by words
    that stand in no other."""
    text = " ".join(said.split()).casefold().strip()
    for choice in question.choices:
        if choice.casefold() == text:
            return choice
    letter = re.fullmatch(r"\(?([a-z])[).:]?", text)
    if letter and ord(letter[1]) - ord("a") < len(question.choices):
        return question.choices[ord(letter[1]) - ord("a")]
    words = text.strip("().:")
    within = re.compile(rf"(?<!\w){re.escape(words)}(?!\w)", re.IGNORECASE) if words else None
    fitting = [choice for choice in question.choices if within and within.search(choice)]
    return fitting[0] if len(fitting) == 1 else None


def _chosen(question: Question, said: str) -> Mark:
    choice = _choice(question, said)
    if choice is None:
        raise ClauseError(f"{said.strip() or 'nothing'} is none of: {'; '.join(question.choices)}")
    if choice == question.right:
        return Mark(1.0, told="Right.")
    found = tuple(slip for slip in question.slips if slip.answer == choice)
    told = " ".join(f"{slip.said}." for slip in found) or f"It is {question.right}."
    return Mark(0.0, found, question.working, told)


def _in_order(said: str, count: int) -> list[int]:
    """Return an order of so many things as it was written: numbers or letters, parted or in one."""
    text = said.strip().casefold()
    if re.fullmatch(r"[\W_]*[a-z](?:[\W_]*[a-z])*[\W_]*", text):
        return [ord(letter) - ord("a") + 1 for letter in re.findall(r"[a-z]", text)]
    numbers = re.findall(r"\d+", text)
    if len(numbers) == 1 and len(numbers[0]) == count <= 9:
        numbers = list(numbers[0])
    return [int(each) for each in numbers]


def _ordered(question: Question, said: str) -> Mark:
    """Judge an order of steps: any that keeps what must come first is right."""
    numbers = _in_order(said, len(question.choices))
    if sorted(numbers) != list(range(1, len(question.choices) + 1)):
        raise ClauseError(
            f"write each number from 1 to {len(question.choices)} once, as  2 1 3 5 4"
        )
    done: set[int] = set()
    for number in numbers:
        lacking = [w for w in question.waits[number - 1] if w not in done]
        if lacking:
            first, wanted = question.choices[number - 1], question.choices[lacking[0]]
            return Mark(
                0.0,
                working=question.working,
                told=f"“{first}” stands on “{wanted}”, which comes first.",
            )
        done.add(number - 1)
    return Mark(1.0, told="Right.")
