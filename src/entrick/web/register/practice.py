"""Practice: a round of questions about a job, answers judged, what they show, and sets for a
class."""

from __future__ import annotations

from collections.abc import Mapping
from datetime import UTC, datetime
from typing import Any

from ... import store
from ...core.logbook.sitting import effective
from ...core.practice.record import called_in_practice
from ...core.practice.spacing import Answered, due_times
from ...core.practice.standing import MASTERED, by_slip, standings
from ...records import AskedNumber
from ..base import Asked, Crossing
from ..http.who import me
from ..operation import Operations
from ..workers.forward import known_for, records
from .saved import committed, the_store


class StandingOut(Crossing):
    """How a rule stands in practice."""

    rule: str
    told: str
    asked: int
    share: float
    weighs: float
    low: float
    high: float
    due: datetime


class PracticeSlipOut(Crossing):
    """A slip: how often it was made, which share of its chances it is made in now, and whether it
    has left."""

    slip: str
    times: int
    share: float
    mastered: bool


class PracticeOut(Crossing):
    """What practice has shown: rules, the worst first; slips; by day how many answers, and which
    share was right."""

    standings: tuple[StandingOut, ...]
    slips: tuple[PracticeSlipOut, ...]
    at_the_board: int
    days: tuple[tuple[str, int, float], ...]
    rehearsed: bool


class WhoseQuery(Asked):
    """Whose practice is asked for, by number; one's own where it is not said."""

    person: AskedNumber | None = None


practice = Operations()


def _history(whose: int) -> tuple[list[store.AnswerView], list[Answered], list[tuple[str, float]]]:
    """Return what a person answered in practice, the same for the schedule, and the slips noted at
    the board, as practice calls them, each with when."""
    with the_store().reading() as session:
        views = store.list_answers(session, whose)
        sittings = store.list_sittings(session, whose=whose)
    noted = [
        (called_in_practice(event.text), sitting.started_at.timestamp())
        for sitting in sittings
        for event in effective(sitting.events)
        if event.kind == "slip"
    ]
    history = [Answered(v.rule, v.share, v.slips, v.at.timestamp(), v.chances) for v in views]
    return views, history, noted


@practice.get("/practice", deed="see practice")
def practice_record(query: WhoseQuery) -> PracticeOut:
    """Return what practice has shown so far: one's own, or somebody's whose it may be seen."""
    views, history, noted = _history(query.person or me())
    times: dict[str, int] = {}
    for view in views:
        for slip in view.slips:
            times[slip] = times.get(slip, 0) + 1
    days: dict[str, list[float]] = {}
    for view in views:
        days.setdefault(view.at.date().isoformat(), []).append(view.share)
    due = due_times(history)
    shares = {slip: own.share for slip, own in by_slip(history).items()}
    slips = sorted(times, key=lambda slip: (-shares[slip], slip))
    return PracticeOut(
        standings=tuple(
            StandingOut.from_core(each, due=datetime.fromtimestamp(each.due, UTC))
            for each in standings(history, due)
        ),
        slips=tuple(
            PracticeSlipOut(
                slip=slip,
                times=times[slip],
                share=shares[slip],
                mastered=shares[slip] <= MASTERED,
            )
            for slip in slips
        ),
        at_the_board=len(noted),
        days=tuple((day, len(own), sum(own) / len(own)) for day, own in sorted(days.items())),
        rehearsed=any(view.rehearsed for view in views),
    )


@practice.delete("/practice", deed="practise")
def forget_practice() -> PracticeOut:
    """Forget every answer."""
    with the_store().writing() as session:
        store.forget_answers(session, me())
    committed()
    return practice_record(WhoseQuery())


@known_for("/api/practice/next")
def _known_of_next() -> Mapping[str, Any]:
    _, history, board = _history(me())
    noted = [(slip, at) for slip, at in board if slip]
    return {"history": history, "noted": noted, "now": datetime.now(UTC).timestamp()}


@known_for("/api/practice/answers")
def _known_of_answers() -> Mapping[str, Any]:
    return {"history": _history(me())[1]}


@records("/api/practice/answers")
def _record(answer: Mapping[str, Any]) -> None:
    with the_store().writing() as session:
        store.put_answer(session, store.AnswerView(at=datetime.now(UTC), whose=me(), **answer))
    committed()
