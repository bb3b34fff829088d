"""Rounds of practice, and sets for a class."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import replace
from functools import lru_cache
from random import Random

from ...core.desk import work_out
from ...core.formats.practice_paper import write_papers
from ...core.logbook.measured import read_value
from ...core.measure import Unit
from ...core.plan.errors import ClauseError
from ...core.plan.writer import write_content, write_plan
from ...core.practice.ask import questions
from ...core.practice.mark import HINT_COSTS, marked
from ...core.practice.question import Question
from ...core.practice.record import learner
from ...core.practice.sets import Set, brief_of, mark_answers, marks_csv, plan_paper, read_set, slips_of, write_set
from ...core.practice.spacing import Answered, Card, chosen
from ...core.practice.vary import variant
from ..answer import Answer, Refused
from ..present import practice as present
from ..schemas.practice import (
    ClassMarksOut,
    ClassSlipOut,
    HintIn,
    HintOut,
    MarkedPaperOut,
    MarksIn,
    OpenedToIn,
    OpenedToOut,
    PapersIn,
    PracticeIn,
    RoundIn,
    RoundOut,
    SetPartIn,
)
from .answers import as_file, as_json, kit_of


@lru_cache(maxsize=64)
def _asked_about(text: str, kit: str, seed: int) -> dict[str, Question]:
    """Return the questions of a plan by their keys; what is asked about one after another is made once."""
    return {question.key: question for question in questions(work_out(text, kit_of(kit)), seed)}


def _question(text: str, kit: str, seed: int, key: str) -> Question:
    found = _asked_about(text, kit, seed).get(key)
    if found is None:
        raise Refused(404, "No such question", "this plan has no such question any more: begin another round")
    return found


def practice_round(body: RoundIn, known: Mapping[str, Card], now: float) -> Answer:
    """Choose the questions of a round."""
    own = work_out(body.text, kit_of(body.kit))
    if own.solution.errors:
        first = own.solution.errors[0]
        raise Refused(409, "Not to be practised on", f"line {first.line}: {first.message}")
    done = (variant(body.text, body.seed) if body.varied else None) or own
    text = write_plan(done.plan)
    pool = list(_asked_about(text, body.kit, body.seed).values())
    if not pool:
        raise Refused(409, "Nothing to ask", "draw something first: there is nothing to ask about this plan yet")
    picked = chosen(pool, known, now, body.count, Random(body.seed), body.spaced)
    givens = tuple(write_content(entry.given).removeprefix("given ") for entry in done.solution.givens)
    return as_json(RoundOut(text=text, givens=givens, questions=tuple(present.question(q, known, now) for q in picked)))


def practice_hint(body: HintIn) -> Answer:
    """Return a hint to a question."""
    hints = _question(body.text, body.kit, body.seed, body.key).hints
    if body.number > len(hints):
        raise Refused(404, "No further hint", "there is no further hint to this question")
    return as_json(HintOut(told=hints[body.number - 1]))


def practice_opened(body: OpenedToIn) -> Answer:
    """Return the picture of an instrument set to what is typed."""
    try:
        value = float(read_value(body.said, Unit(body.unit)))
    except ClauseError:
        return as_json(OpenedToOut())
    return as_json(OpenedToOut(picture=present.picture_at(body.tool, value, body.unit)))


def practice_answer(body: PracticeIn, history: list[Answered], chances: list[tuple[str, ...]]) -> Answer:
    """Judge an answer."""
    question = _question(body.text, body.kit, body.seed, body.key)
    mark = marked(question, body.said, learner(history, chances))
    share = mark.share * max(0.0, 1 - HINT_COSTS * body.hints)
    verdict = present.verdict_in_practice(question, mark, share)
    kept = {
        "part": work_out(body.text, kit_of(body.kit)).solution.title, "rule": question.rule, "share": share,
        "slips": tuple(slip.key for slip in mark.slips[:1]), "hints": body.hints,
        "chances": tuple(sorted({slip.key for slip in question.slips})),
    }  # fmt: skip
    return replace(as_json(verdict), kept=kept)


def set_part(body: SetPartIn) -> Answer:
    """Return a set with the paper of one student alone."""
    paper = plan_paper(body.texts, body.student, body.count, body.seed)
    made = Set(body.title, body.seed, tuple(brief_of(work_out(text)) for text in body.texts), (paper,))
    return Answer(write_set(made).encode(), "application/json", {})


def papers(body: PapersIn) -> Answer:
    """Return the papers of a set, or its key, as PDF."""
    return as_file(write_papers(read_set(body.set), body.key, body.paper), "pdf", "key" if body.key else "papers")


def class_marks(body: MarksIn) -> Answer:
    """Mark the answers of a class, each slip named."""
    made = read_set(body.set)
    found = mark_answers(made, body.answers)
    return as_json(
        ClassMarksOut(
            csv=marks_csv(made, found),
            papers=tuple(MarkedPaperOut(student=m.student, total=m.total, of=len(m.marks)) for m in found),
            slips=tuple(ClassSlipOut(slip=slip, times=n, students=who) for slip, n, who in slips_of(found)),
        )
    )
