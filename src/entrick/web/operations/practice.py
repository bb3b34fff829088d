"""Rounds of practice, and sets for a class."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from random import Random
from typing import Annotated, Literal
from urllib.parse import urlencode

from pydantic import Field

from ...core.board.kit import default_kit
from ...core.desk import work_out
from ...core.display.picture import LEFT, rule_picture
from ...core.drawing.marks import DisplayList
from ...core.logbook.measured import read_value
from ...core.look.played import Played, played
from ...core.measure import Unit
from ...core.memo import remembered
from ...core.plan.errors import ClauseError
from ...core.plan.writer import write_plan
from ...core.practice.as_given import givens_of, rows_drawn
from ...core.practice.ask import questions
from ...core.practice.choosing import Next, by_lot, next_question
from ...core.practice.drill import drill_question
from ...core.practice.keys import answer_of
from ...core.practice.mark import HINT_COSTS, answer_meant, marked
from ...core.practice.question import RULES, Question
from ...core.practice.record import learner
from ...core.practice.spacing import Answered, due_times
from ...core.practice.vary import variant
from ...records import Uid
from ..answer import Refused
from ..base import Asked, Crossing, KitText, PlanText, Seed
from ..operation import Operations, Recorded
from .shared import kit_of

QuestionKey = Annotated[str, Field(max_length=80)]


class NextIn(Asked):
    """The next question of a round about a plan is wanted: whether with new givens, and whether
    what was wrong comes sooner. `asked` are the keys of those the round has asked, in order."""

    text: PlanText
    seed: Seed
    asked: Annotated[tuple[QuestionKey, ...], Field(max_length=60)] = ()
    varied: bool = True
    spaced: bool = True
    kit: KitText = ""


class RuleOut(Crossing):
    """The piece of a rule a question is about: its picture, where the first graduation stands in
    it and how far apart they are, mm, how many there are, and whether a pointer stands at one;
    else the hand sets it."""

    picture: DisplayList
    begins: float
    apart: float
    count: int
    pointed: bool


class QuestionOut(Crossing):
    """A question as it is asked; see `core.practice.Question`.

    `tool` names the instrument its answer is set on; `lettered` says that the solutions of its
    statement are shown with their letters, `pointed` that it may be answered on the sheet."""

    key: str
    rule: str
    tests: str
    asks: str
    sort: Literal["length", "angle", "choice", "order"]
    line: int
    step: int
    unit: str
    choices: tuple[str, ...]
    hints: int
    tool: str
    shows: str
    again: bool
    lettered: bool
    pointed: bool
    rule_shown: RuleOut | None


class NextOut(Crossing):
    """The question that comes next, the plan it is about and its seed, and what is given in it."""

    text: str
    seed: int
    givens: tuple[str, ...]
    question: QuestionOut


class DrillIn(Asked):
    """Another size to read off the rule of a kit is wanted."""

    seed: Seed
    kit: KitText = ""


class HintIn(Asked):
    """A hint to a question is wanted: the first, or a further one."""

    text: PlanText
    seed: Seed
    key: QuestionKey
    number: Annotated[int, Field(ge=1, le=20)]
    kit: KitText = ""


class HintOut(Crossing):
    """A hint."""

    told: str


class OpenedToIn(Asked):
    """What is typed, to be shown on an instrument."""

    said: Annotated[str, Field(max_length=200)]
    tool: Annotated[str, Field(max_length=40)]
    unit: Literal["mm", "in"]


class OpenedToOut(Crossing):
    """The picture of an instrument at a setting; empty where what is typed is no value yet."""

    picture: str = ""


class PracticeIn(Asked):
    """An answer: to which question of which plan, and how many hints it took."""

    uid: Uid
    text: PlanText
    seed: Seed
    key: QuestionKey
    said: Annotated[str, Field(max_length=500)]
    hints: Annotated[int, Field(ge=0, le=20)] = 0
    kit: KitText = ""


class NamedSlipOut(Crossing):
    """A slip that gives the answer."""

    key: str
    said: str


class VerdictInPractice(Crossing):
    """What came of an answer: its mark, the slips that give it, the right answer and the working;
    and what a wrong one comes to on the sheet, strokes in mm on paper."""

    share: float
    told: str
    slips: tuple[NamedSlipOut, ...]
    right: str
    working: tuple[str, ...]
    picture: str
    played: tuple[tuple[tuple[float, float], ...], ...]
    played_told: str


practice = Operations()


@remembered(200)
def _asked_about(text: str, kit: str, seed: int) -> dict[str, Question]:
    """Return the questions of a plan by their keys; what is asked about one after another is made
    once."""
    return {question.key: question for question in questions(work_out(text, kit_of(kit)), seed)}


def _question(body: HintIn | PracticeIn) -> Question:
    if not body.text:
        # No plan is wanted for what is asked of the rule alone.
        return drill_question(kit_of(body.kit) or default_kit(Unit.MM), body.seed)
    question = _asked_about(body.text, body.kit, body.seed).get(body.key)
    if question is None:
        raise Refused(
            404, "No such question", "this plan has no such question any more: begin another round"
        )
    return question


@practice.post("/practice/next")
def ask_next(
    body: NextIn, history: Sequence[Answered], noted: Sequence[tuple[str, float]], now: float
) -> NextOut:
    """Choose the next question of a round, and the givens it is about."""
    own = work_out(body.text, kit_of(body.kit))
    if own.solution.errors:
        first = own.solution.errors[0]
        raise Refused(409, "Not to be practised on", f"line {first.line}: {first.message}")
    found = _chosen(body, body.seed, history, noted, now)
    if body.varied and (found.asked.again or found.asked.question.key in body.asked):
        # What comes back has other numbers, where they have the same question.
        other = _chosen(body, body.seed + 1 + len(body.asked), history, noted, now)
        found = other if other.asked.question.key == found.asked.question.key else found
    work = work_out(found.text, kit_of(body.kit))
    return NextOut(
        text=found.text,
        seed=found.seed,
        givens=(*givens_of(work), *rows_drawn(work)),
        question=_shown(found.asked),
    )


@dataclass(frozen=True, slots=True)
class _Found:
    """A question that is to be asked, the plan it is about, and the seed that made it."""

    asked: Next
    text: str
    seed: int


def _chosen(
    body: NextIn,
    seed: int,
    history: Sequence[Answered],
    noted: Sequence[tuple[str, float]],
    now: float,
) -> _Found:
    """Choose the next question among those of a plan with the givens of a seed."""
    text = _with_givens(body.text, seed) if body.varied else body.text
    pool = list(_asked_about(text, body.kit, seed).values())
    if not pool:
        raise Refused(
            409,
            "Nothing to ask",
            "draw something first: there is nothing to ask about this plan yet",
        )
    count = len(body.asked)
    known = list(history) if body.spaced else list(history[len(history) - count :])
    # What the round has asked stands last in the record; only the round knows by which key.
    tail = zip(known[len(known) - count :], body.asked, strict=False)
    known[len(known) - count :] = [replace(answer, key=key) for answer, key in tail]
    due = due_times(history, noted) if body.spaced else {}
    random = Random(f"{body.seed} {count}")
    choose = next_question if body.spaced else by_lot
    return _Found(choose(pool, known, due, now, random, count), text, seed)


@remembered(200)
def _with_givens(text: str, seed: int) -> str:
    """Return a plan with other givens; as it is where it has none to change."""
    done = variant(text, seed)
    return write_plan(done.plan) if done else text


def _shown(asked: Next) -> QuestionOut:
    """Return a question without its answer."""
    question = asked.question
    return QuestionOut.from_core(
        question,
        tests=RULES[question.rule],
        hints=len(question.hints),
        tool=question.setting,
        lettered=question.rule == "candidate",
        pointed=question.rule == "next",
        again=asked.again,
        rule_shown=_rule_shown(question),
    )


def _rule_shown(question: Question) -> RuleOut | None:
    piece = question.rule_shown
    if piece is None:
        return None
    pointed = piece.pointer is not None
    return RuleOut(
        picture=rule_picture(piece),
        begins=LEFT,
        apart=piece.apart,
        count=piece.count,
        pointed=pointed,
    )


@practice.post("/practice/drill")
def ask_drill(body: DrillIn) -> QuestionOut:
    """Return one size to be read off the rule of a kit, or set on it."""
    return _shown(Next(drill_question(kit_of(body.kit) or default_kit(Unit.MM), body.seed)))


@practice.post("/practice/hint")
def give_hint(body: HintIn) -> HintOut:
    """Return a hint to a question; each says more than the one before, and costs a part of the
    mark."""
    hints = _question(body).hints
    if body.number > len(hints):
        raise Refused(404, "No further hint", "there is no further hint to this question")
    return HintOut(told=hints[body.number - 1])


@practice.post("/practice/opened")
def show_setting(body: OpenedToIn) -> OpenedToOut:
    """Return the picture of an instrument set to what is typed."""
    try:
        value = float(read_value(body.said, Unit(body.unit)))
    except ClauseError:
        return OpenedToOut()
    return OpenedToOut(picture=_picture_at(body.tool, value, body.unit))


def _picture_at(tool: str, value: float, unit: str) -> str:
    """Return the address of the picture of an instrument at a setting."""
    graduation = "1/2" if unit == "mm" else "1/32"
    setting = {"tool": tool, "value": f"{value:.6g}", "unit": unit, "graduation": graduation}
    return f"/api/pictures/setting.svg?{urlencode(setting)}"


@practice.post("/practice/answers")
def judge_answer(body: PracticeIn, history: Sequence[Answered]) -> Recorded[VerdictInPractice]:
    """Judge an answer, and keep what it showed."""
    question = _question(body)
    mark = marked(question, body.said, learner(history))
    share = mark.share * max(0.0, 1 - HINT_COSTS * body.hints)
    right, picture = question.right, ""
    if question.setting and isinstance(right, float | int):
        picture = _picture_at(question.setting, float(right), question.unit)
    shown = _played(body, question) if mark.share < 1 else Played()
    verdict = VerdictInPractice(
        share=share,
        told=mark.told,
        slips=tuple(map(NamedSlipOut.from_core, mark.slips)),
        right=answer_of(question),
        working=question.working,
        picture=picture,
        played=shown.runs,
        played_told=shown.told,
    )
    record = {
        "uid": body.uid,
        "part": work_out(body.text, kit_of(body.kit)).solution.title if body.text else "",
        "rule": question.rule,
        "share": share,
        "slips": tuple(slip.key for slip in mark.slips[:1]),
        "hints": body.hints,
        "chances": tuple(sorted({slip.key for slip in question.slips})),
    }
    return Recorded(verdict, record)


def _played(body: PracticeIn, question: Question) -> Played:
    """Return what a wrong answer comes to on the sheet."""
    if not body.text or question.step <= 0 or question.rule_shown is not None:
        return Played()
    answer = answer_meant(question, body.said)
    work = work_out(body.text, kit_of(body.kit))
    return played(work, question, answer) if answer is not None else Played()
