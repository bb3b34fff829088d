"""The logbook: sittings at the board, what happened in them, what they teach."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import asdict, replace
from datetime import datetime
from typing import Annotated, Literal

from flask import current_app
from pydantic import Field

from ... import store
from ...core.logbook.history import Dated, history
from ...core.logbook.learning import learn
from ...core.logbook.sitting import Event, Sitting, effective
from ...core.logbook.taught import Taught, teach
from ...core.measure import Unit
from ...core.spreadsheet import write_table
from ...records import (
    AskedNumber,
    EventNumber,
    EventRecord,
    EventText,
    Finite,
    Schedule,
    Seconds,
    Uid,
    UsedKit,
)
from ..answer import Answer
from ..base import Asked, Crossing
from ..http.who import me
from ..operation import Operations
from ..workers.forward import known_for
from .saved import committed, the_store


class EventIO(Asked, EventRecord):
    """One thing that happened at the board, numbered by the device; see `core.logbook.Event`."""


class SittingPath(Asked):
    """A sitting by the name its device gave it."""

    uid: Uid


class SittingIn(Asked):
    """A sitting that begins: which revision of which job is drawn, in which order."""

    uid: Uid
    job: AskedNumber
    revision: AskedNumber
    schedule: Schedule = "written"
    kit: UsedKit = ""


class EventsIn(Asked):
    """Events of a sitting; what has been taken already may be sent again."""

    events: Annotated[list[EventIO], Field(max_length=2000)]


class AmendedIn(Asked):
    """What is put right in a sitting: an event corrected, or taken back; taking back a correction
    undoes it."""

    of: EventNumber
    kind: Literal["corrected", "undone"]
    seconds: Seconds = 0.0
    off: Finite = 0.0
    text: EventText = ""


class RemovedIn(Asked):
    """Whether a sitting is out of the logbook."""

    removed: bool


class SittingOut(Crossing):
    """A sitting with what happened; `rehearsed` where a simulated hand made it up, and nobody drew.

    `standing` are the events as they were corrected last; `gap` is how far the last join gaped, mm
    on paper."""

    uid: str
    job: int
    title: str = ""
    revision: int
    schedule: str
    kit: str
    started_at: datetime
    rehearsed: bool
    removed: bool
    events: tuple[EventIO, ...]
    standing: tuple[EventIO, ...] = ()
    steps: int = 0
    minutes: float = 0.0
    slips: int = 0
    gap: float | None = None


class PaceOut(Crossing):
    """Median seconds of a step with an instrument, and on how many it rests."""

    tool: str
    seconds: float
    count: int


class HandOut(Crossing):
    """How an instrument comes out in these hands; see `core.logbook.Spread`."""

    tool: str
    count: int
    bias: float
    bias_off: float
    spread: float
    low: float
    high: float
    hint: str


class SlipOut(Crossing):
    """A slip, and how often it was made."""

    told: str
    count: int


class ValuesOut(Crossing):
    """What an instrument was off by, value by value; see `core.logbook.history.Values`."""

    tool: str
    days: tuple[str, ...]
    offs: tuple[float, ...]
    assumed: float
    unit: str


class WeekOut(Crossing):
    """How often a slip was made in a week."""

    week: str
    told: str
    count: int


class AgainOut(Crossing):
    """A step of a job done again: seconds at first and at last."""

    job: int
    title: str
    step: int
    tool: str
    first: float
    last: float
    times: int


class LogbookOut(Crossing):
    """Every sitting, the last first, and what they teach; `unread` rows of it cannot be read any
    more."""

    sittings: tuple[SittingOut, ...]
    pace: tuple[PaceOut, ...]
    spreads: tuple[HandOut, ...]
    slips: tuple[SlipOut, ...]
    values: tuple[ValuesOut, ...]
    weeks: tuple[WeekOut, ...]
    again: tuple[AgainOut, ...]
    unread: int = 0


class SittingsQuery(Asked):
    """Sittings of one job, or of all; with everything that happened in them, or in sum; in which
    unit it is told what a hand is off by; whose, one's own where it is not said."""

    job: AskedNumber | None = None
    events: bool = True
    unit: Literal["mm", "in"] = "mm"
    person: AskedNumber | None = None


class BookQuery(Asked):
    """Whose logbook is asked for, by number; one's own where it is not said."""

    person: AskedNumber | None = None


logbook = Operations()


def _shown(sitting: store.SittingView, title: str = "", events: bool = True) -> SittingOut:
    stands = effective(sitting.events)
    done = [event for event in stands if event.kind == "done"]
    gaps = [event.off for event in stands if event.kind == "closed"]
    told = {
        "title": title,
        "standing": tuple(map(EventIO.model_validate, stands)) if events else (),
        "steps": len(done),
        "minutes": sum(event.seconds for event in done) / 60,
        "slips": sum(event.kind == "slip" for event in stands),
        "gap": gaps[-1] if gaps else None,
    }
    bare = sitting if events else replace(sitting, events=())
    return SittingOut.model_validate(bare).model_copy(update=told)


MOST_TAUGHT = 50
"""People of whom what their logbooks teach is remembered at once."""


def taught_now() -> Taught:
    """Return what one's own logbook changes elsewhere; worked out anew where anything has been
    recorded."""
    kept: dict[int, tuple[object, Taught]] = current_app.extensions.setdefault("entrick.taught", {})
    own = me()
    with the_store().reading() as session:
        state = store.state_of_sittings(session, own)
        known = kept.get(own)
        if known is not None and known[0] == state:
            return known[1]
        found = store.list_sittings(session, whose=own)
    taught = teach([Sitting(s.job, s.revision, s.events, s.rehearsed) for s in found])
    if len(kept) >= MOST_TAUGHT:
        kept.clear()
    kept[own] = (state, taught)
    return taught


@known_for("/api/schedules", "/api/rehearsal")
def _known() -> Mapping[str, Taught]:
    return {"taught": taught_now()}


@logbook.get("/logbook", deed="see a logbook")
def open_logbook(query: SittingsQuery) -> LogbookOut:
    """Return sittings, those taken out too, and what those that are not teach."""
    with the_store().reading() as session:
        whose = query.person or me()
        book = store.read_logbook(session, query.job, removed=True, whose=whose)
        found = book.sittings
        jobs = {sitting.job for sitting in found}
        titles = {
            job: made.made.title for job in jobs if (made := store.listed(session, job)) is not None
        }
    learnt = learn(
        Sitting(s.job, s.revision, s.events, s.rehearsed) for s in found if not s.removed
    )
    shown = history(_dated(each) for each in reversed(found) if not each.removed)
    return LogbookOut(
        sittings=tuple(_shown(each, titles.get(each.job, ""), query.events) for each in found),
        pace=tuple(
            PaceOut(tool=tool, seconds=took, count=n) for tool, (took, n) in learnt.seconds.items()
        ),
        spreads=tuple(
            HandOut(**asdict(spread), hint=spread.hint(Unit(query.unit)))
            for spread in learnt.spreads
        ),
        slips=tuple(SlipOut(told=told, count=count) for told, count in learnt.slips),
        values=tuple(map(ValuesOut.from_core, shown.values)),
        weeks=tuple(map(WeekOut.from_core, shown.weeks)),
        again=tuple(
            AgainOut.from_core(each, title=titles.get(each.job, "")) for each in shown.again
        ),
        unread=book.unread,
    )


def _dated(sitting: store.SittingView) -> Dated:
    year, week, _ = sitting.started_at.isocalendar()
    drawn = Sitting(sitting.job, sitting.revision, sitting.events, sitting.rehearsed)
    return Dated(sitting.started_at.date().isoformat(), f"{year}, week {week}", drawn)


COLUMNS = (
    "sitting",
    "job",
    "revision",
    "begun",
    "rehearsed",
    "number",
    "kind",
    "step",
    "instrument",
    "seconds",
    "off",
    "text",
)


@logbook.get("/logbook.csv", deed="see a logbook")
def logbook_csv(query: BookQuery) -> Answer:
    """Return everything that happened, a row for each event that stands, RFC 4180 line ends."""
    with the_store().reading() as session:
        found = store.list_sittings(session, whose=query.person or me())
    rows: list[Sequence[object]] = [COLUMNS]
    for sitting in reversed(found):
        begun = sitting.started_at.isoformat()
        own = (sitting.uid, sitting.job, sitting.revision, begun, int(sitting.rehearsed))
        for e in effective(sitting.events):
            rows.append((*own, e.number, e.kind, e.step, e.tool, e.seconds, e.off, e.text))
    disposition = {"Content-Disposition": 'attachment; filename="logbook.csv"'}
    return Answer(write_table(rows).encode(), "text/csv; charset=utf-8", disposition)


@logbook.get("/sittings/<uid>", deed="see a logbook")
def open_sitting(path: SittingPath) -> SittingOut:
    """Return a sitting with everything that happened in it."""
    with the_store().reading() as session:
        return _shown(store.one_sitting(session, path.uid))


@logbook.post("/sittings", status=201, deed="draw at the board")
def begin_sitting(body: SittingIn) -> SittingOut:
    """Begin a sitting; one that is known already is answered as it is."""
    with the_store().writing() as session:
        found = store.begin(
            session,
            body.uid,
            body.job,
            body.revision,
            body.schedule,
            kit=body.kit,
            whose=me(),
        )
    committed()
    return _shown(found)


@logbook.post("/sittings/<uid>/events", deed="draw at the board")
def add_events(path: SittingPath, body: EventsIn) -> SittingOut:
    """Append what happened; an event that has been taken already is not taken twice."""
    with the_store().writing() as session:
        found = store.append(session, path.uid, [_event(each) for each in body.events])
    committed()
    return _shown(found)


@logbook.post("/sittings/<uid>/amendments", deed="draw at the board")
def amend_sitting(path: SittingPath, body: AmendedIn) -> SittingOut:
    """Correct an event of a sitting, or take one back; the events themselves stay as they were
    recorded."""
    with the_store().writing() as session:
        found = store.amend(
            session, path.uid, body.kind, body.of, body.seconds, body.off, body.text
        )
    committed()
    return _shown(found)


@logbook.patch("/sittings/<uid>", deed="draw at the board")
def remove_sitting(path: SittingPath, body: RemovedIn) -> RemovedIn:
    """Take a sitting out of the logbook, or put it back."""
    with the_store().writing() as session:
        store.set_removed(session, path.uid, body.removed)
    committed()
    return body


def _event(said: EventIO) -> Event:
    return Event(**said.model_dump())
