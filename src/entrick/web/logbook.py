"""The logbook: sittings at the board, what happened in them, what they teach."""

from __future__ import annotations

import csv
import io

from flask import Response, current_app
from pydantic import BaseModel

from .. import store
from ..core.logbook.learning import learn
from ..core.logbook.sitting import Event, Sitting, effective
from ..core.logbook.taught import Taught, teach
from .documented import Routes
from .jobs import the_store
from .problems import FILES, PROBLEMS, committed
from .schemas.logbook import (
    AmendedIn,
    EventIO,
    EventsIn,
    HandOut,
    LogbookOut,
    PaceOut,
    RemovedIn,
    SittingIn,
    SittingOut,
    SittingPath,
    SittingsQuery,
    SlipOut,
)

logbook = Routes("logbook", __name__, url_prefix="/api", abp_responses=PROBLEMS)


def _json(model: BaseModel, status: int = 200) -> Response:
    return current_app.response_class(model.model_dump_json(), status=status, mimetype="application/json")


def _shown(sitting: store.SittingView, title: str = "") -> SittingOut:
    stands = effective(sitting.events)
    done = [event for event in stands if event.kind == "done"]
    gaps = [event.off for event in stands if event.kind == "closed"]
    told = {
        "title": title,
        "standing": tuple(EventIO.model_validate(event) for event in stands),
        "steps": len(done),
        "minutes": sum(event.seconds for event in done) / 60,
        "slips": sum(event.kind == "slip" for event in stands),
        "gap": gaps[-1] if gaps else None,
    }
    return SittingOut.model_validate(sitting).model_copy(update=told)


def taught_now() -> Taught:
    """Return what the logbook changes elsewhere; worked out anew where anything has been recorded."""
    kept: dict[object, Taught] = current_app.extensions.setdefault("entrick.taught", {})
    with the_store().reading() as session:
        state = store.state_of_sittings(session)
        if state not in kept:
            found = store.list_sittings(session)
            kept.clear()
            kept[state] = teach([Sitting(s.job, s.revision, s.events, s.rehearsed) for s in found])
    return kept[state]


@logbook.get("/logbook", responses={200: LogbookOut})
def whole(query: SittingsQuery) -> Response:
    """Return sittings, those taken out too, and what those that are not teach."""
    with the_store().reading() as session:
        found = store.list_sittings(session, query.job, removed=True)
        jobs = {sitting.job for sitting in found}
        titles = {job: made.made.title for job in jobs if (made := store.listed(session, job)) is not None}
    learnt = learn(Sitting(s.job, s.revision, s.events, s.rehearsed) for s in found if not s.removed)
    return _json(
        LogbookOut(
            sittings=tuple(_shown(sitting, titles.get(sitting.job, "")) for sitting in found),
            pace=tuple(PaceOut(tool=tool, seconds=took, count=n) for tool, (took, n) in learnt.seconds.items()),
            spreads=tuple(HandOut.model_validate(spread) for spread in learnt.spreads),
            slips=tuple(SlipOut(told=told, count=count) for told, count in learnt.slips),
        )
    )


COLUMNS = ("sitting", "job", "revision", "begun", "rehearsed", "number", "kind", "step", "instrument", "seconds", "off",
           "text")  # fmt: skip


@logbook.get("/logbook.csv", responses={200: FILES})
def as_csv() -> Response:
    """Return everything that happened, a row for each event that stands, RFC 4180 line ends."""
    with the_store().reading() as session:
        found = store.list_sittings(session)
    stream = io.StringIO()
    table = csv.writer(stream)
    table.writerow(COLUMNS)
    for sitting in reversed(found):
        for event in effective(sitting.events):
            table.writerow((
                sitting.uid, sitting.job, sitting.revision, sitting.started_at.isoformat(), int(sitting.rehearsed),
                event.number, event.kind, event.step, event.tool, event.seconds, event.off, event.text,
            ))  # fmt: skip
    response = current_app.response_class(stream.getvalue(), mimetype="text/csv")
    response.headers["Content-Disposition"] = 'attachment; filename="logbook.csv"'
    return response


@logbook.post("/sittings", responses={201: SittingOut})
def begin(body: SittingIn) -> Response:
    """Begin a sitting; one that is known already is answered as it is."""
    with the_store().writing() as session:
        found = store.begin(session, body.uid, body.job, body.revision, body.schedule, kit=body.kit)
    committed()
    return _json(_shown(found), 201)


@logbook.post("/sittings/<string:uid>/events", responses={200: SittingOut})
def append(path: SittingPath, body: EventsIn) -> Response:
    """Append what happened; an event that has been taken already is not taken twice."""
    with the_store().writing() as session:
        found = store.append(session, path.uid, [_event(each) for each in body.events])
    committed()
    return _json(_shown(found))


@logbook.post("/sittings/<string:uid>/amendments", responses={200: SittingOut})
def amend(path: SittingPath, body: AmendedIn) -> Response:
    """Correct an event of a sitting, or take one back; the events themselves stay as they were recorded."""
    with the_store().writing() as session:
        found = store.amend(session, path.uid, body.kind, body.of, body.seconds, body.off, body.text)
    committed()
    return _json(_shown(found))


@logbook.patch("/sittings/<string:uid>", responses={200: RemovedIn})
def remove(path: SittingPath, body: RemovedIn) -> Response:
    """Take a sitting out of the logbook, or put it back."""
    with the_store().writing() as session:
        store.set_removed(session, path.uid, body.removed)
    committed()
    return _json(body)


def _event(said: EventIO) -> Event:
    return Event(**said.model_dump())
