"""Practice: a round of questions about a job, answers judged, what they show, and sets for a class."""

from __future__ import annotations

import threading
from datetime import UTC, datetime

from flask import Response, current_app
from pydantic import BaseModel

from .. import store
from ..core.logbook.sitting import effective
from ..core.practice.record import standings, with_board
from ..core.practice.spacing import Answered
from .ask import asked, hands, sent
from .asked_for import tasks
from .documented import Routes
from .jobs import the_store
from .problems import FILES, PROBLEMS, committed
from .schemas.practice import (
    ClassMarksOut,
    HintIn,
    HintOut,
    MarksIn,
    OpenedToIn,
    OpenedToOut,
    PapersIn,
    PracticeIn,
    PracticeOut,
    PracticeSlipOut,
    RoundIn,
    RoundOut,
    SetPartIn,
    StandingOut,
    VerdictInPractice,
)

practice = Routes("practice", __name__, url_prefix="/api/practice", abp_responses=PROBLEMS)

_AT_A_TIME = threading.Lock()
"""Papers and marks of a class take longer than a hand works at one thing: they are made here, one at a time."""


def _json(model: BaseModel) -> Response:
    return current_app.response_class(model.model_dump_json(), mimetype="application/json")


def _history() -> tuple[list[store.AnswerView], list[Answered], list[tuple[str, float]]]:
    """Return what was answered in practice, the same for the schedule, and the slips noted at the board."""
    with the_store().reading() as session:
        views = store.list_answers(session)
        sittings = store.list_sittings(session)
    board = [
        (event.text, sitting.started_at.timestamp())
        for sitting in sittings for event in effective(sitting.events) if event.kind == "slip"
    ]  # fmt: skip
    return views, [Answered(v.rule, v.share, v.slips, v.at.timestamp()) for v in views], board


@practice.get("", responses={200: PracticeOut})
def record() -> Response:
    """Return what practice has shown so far."""
    return _record()


def _record() -> Response:
    views, history, board = _history()
    times: dict[str, int] = {}
    for view in views:
        for slip in view.slips:
            times[slip] = times.get(slip, 0) + 1
    days: dict[str, list[float]] = {}
    for view in views:
        days.setdefault(view.at.date().isoformat(), []).append(view.share)
    slips = sorted(times.items(), key=lambda each: (-each[1], each[0]))
    return _json(
        PracticeOut(
            standings=tuple(
                StandingOut(rule=s.rule, told=s.told, asked=s.asked, share=s.share,
                            due=datetime.fromtimestamp(s.due, UTC)) for s in standings(history)
            ),
            slips=tuple(PracticeSlipOut(slip=slip, times=count) for slip, count in slips),
            at_the_board=len(board),
            days=tuple((day, len(own), sum(own) / len(own)) for day, own in sorted(days.items())),
            rehearsed=any(view.rehearsed for view in views),
        )
    )  # fmt: skip


@practice.delete("", responses={200: PracticeOut})
def forget() -> Response:
    """Forget every answer."""
    with the_store().writing() as session:
        store.forget_answers(session)
    committed()
    return _record()


@practice.post("/round", responses={200: RoundOut})
def begin(body: RoundIn) -> Response:
    """Choose the questions of a round, and the givens they are about."""
    _, history, board = _history()
    now = datetime.now(UTC).timestamp()
    return asked(tasks.practice_round, body, with_board(history, board), now)


@practice.post("/hint", responses={200: HintOut})
def hint(body: HintIn) -> Response:
    """Return a hint to a question; each says more than the one before, and costs a part of the mark."""
    return asked(tasks.practice_hint, body)


@practice.post("/opened", responses={200: OpenedToOut})
def opened(body: OpenedToIn) -> Response:
    """Return the picture of an instrument set to what is typed."""
    return asked(tasks.practice_opened, body)


@practice.post("/answers", responses={200: VerdictInPractice})
def answer(body: PracticeIn) -> Response:
    """Judge an answer, and keep what it showed."""
    views, history, _ = _history()
    judged = hands().do(tasks.practice_answer, body, history, [view.chances for view in views])
    kept = judged.kept
    assert kept is not None
    with the_store().writing() as session:
        store.put_answer(session, store.AnswerView(body.uid, datetime.now(UTC), **kept))
    committed()
    response: Response = current_app.response_class(judged.content, content_type=judged.type)
    return response


@practice.post("/set-part", responses={200: FILES})
def part(body: SetPartIn) -> Response:
    """Return a set with the paper of one student alone: a page puts them together, and tells how far it is."""
    return asked(tasks.set_part, body)


@practice.post("/set/papers", responses={200: FILES})
def papers(body: PapersIn) -> Response:
    """Return the papers of a set, or its key, as PDF."""
    with _AT_A_TIME:
        return sent(tasks.papers(body))


@practice.post("/set/marks", responses={200: ClassMarksOut})
def marks(body: MarksIn) -> Response:
    """Mark the answers of a class, each slip named."""
    with _AT_A_TIME:
        return sent(tasks.class_marks(body))
