"""What a follower does, event by event: read from a statement, changed one by one, or taken from a
brief."""

from __future__ import annotations

from dataclasses import dataclass

from ..desk import Work
from ..moves import kinds
from ..plan.document import Plan, Statement
from ..plan.edit import EditError, set_clause, statement_on
from ..plan.writer import write_clauses
from ..rules.brief import Brief, read_brief
from ..rules.motion import MOTIONS, USUAL
from .blanks import usual_clauses
from .clauses import matched, said_in_place
from .row import free_name

EVENTS = ("rise", "fall", "dwell")
"""What a follower may do for a while."""

STILL = "dwell"
"""The one of them that has no lift and no motion."""

STARTING = "dwell 30°"
"""The event that is added, to be changed to what is meant."""


@dataclass(frozen=True, slots=True)
class Event:
    """One event as the plan says it: which clause, and what is said of angle, lift and motion
    (empty: the usual)."""

    clause: int
    event: str
    angle: str
    lift: str
    motion: str


@dataclass(frozen=True, slots=True)
class Events:
    """The events of a statement in order, and what each may be."""

    rows: tuple[Event, ...]
    events: tuple[str, ...] = EVENTS
    motions: tuple[str, ...] = tuple(MOTIONS)
    usual: str = USUAL
    still: str = STILL


def events_of(statement: Statement) -> Events | None:
    """Return the events a statement gives its follower; None for a kind that has no follower."""
    kind = kinds().get(statement.kind)
    if kind is None or not kind.follows:
        return None
    rows = []
    for index, clause in enumerate(statement.clauses):
        match = matched(statement.kind, clause)
        if match and match.form.key in EVENTS:
            said = {slot.name: text for slot, text in said_in_place(match)}
            rows.append(
                Event(
                    index,
                    match.form.key,
                    said.get("angle", ""),
                    said.get("lift", ""),
                    said.get("motion", ""),
                )
            )
    return Events(tuple(rows))


def set_event(plan: Plan, line: int, event: Event) -> Plan:
    """Say one event differently, or add it where its clause is one past the last.

    An event that is no dwell and has no lift yet is left as it was: it is half written.
    """
    if event.event not in EVENTS:
        raise EditError(f"a follower does not {event.event}; it may {', '.join(EVENTS)}")
    statement_on(plan, line)
    if event.event == STILL:
        return set_clause(plan, line, event.clause, f"dwell {event.angle.strip()}")
    if not (event.lift.strip() and event.angle.strip()):
        return plan
    said = f"{event.event} {event.angle.strip()} by {event.lift.strip()} {event.motion}".rstrip()
    return set_clause(plan, line, event.clause, said)


def add_event(plan: Plan, line: int) -> Plan:
    """Add an event at the end of what is said, to be changed to what is meant."""
    return set_clause(plan, line, len(statement_on(plan, line).clauses), STARTING)


def follow(work: Work, line: int, text: str) -> tuple[str, Brief]:
    """Return the whole statement with the events of a brief, and how the brief was read.

    Where the line is 0 it is one still to be written: the row of one that is begun, with blanks for
    the rest.

    Raises
    ------
    EditError
        When nothing on the line has a follower.
    """
    brief = read_brief(text)
    if line == 0:
        return _begun(work, brief), brief
    entry = work.solution.entry(line)
    kind = kinds().get(entry.statement.kind) if entry else None
    if entry is None or kind is None or not kind.follows:
        raise EditError(f"line {line} is no cam")
    statement, kept = entry.statement, []
    for clause in statement.clauses:
        match = matched(statement.kind, clause)
        if match is None or match.form.key not in (*EVENTS, "lift"):
            kept.append(str(clause))
    row = write_clauses([statement.kind, *kept, *brief.clauses], statement)
    return f"{statement.name} = {row}", brief


def _begun(work: Work, brief: Brief) -> str:
    kind = next(kind for kind in kinds().values() if kind.follows)
    others = [
        clause for clause in usual_clauses(kind).split(", ") if clause.split()[0] not in EVENTS
    ]
    return ", ".join((f"{free_name(work.solution, kind)} = {kind.name}", *others, *brief.clauses))
