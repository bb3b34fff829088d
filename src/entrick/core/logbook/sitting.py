"""A sitting at the board: events as the device numbered them, appended and never changed."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass, replace
from typing import Literal

Kind = Literal["done", "back", "measured", "slip", "note", "closed", "corrected", "undone"]


@dataclass(frozen=True, slots=True)
class Event:
    """One thing that happened.

    Attributes
    ----------
    number : int
        From 1 on, as the device counts.
    kind : str
        "done" (a step, with its seconds), "back" (returned to it), "measured" (a value against the
        computed one), "slip" and "note" (in words), "closed" (how far the last join gaped, mm on
        paper), "corrected" (says the seconds, the value and the words of the event of a number
        anew), "undone" (takes back the event of a number).
    step : int
        Number of the step, in the order of the sitting.
    tool : str
    seconds : float
    off : float
        Measured less computed, mm on paper, or degrees.
    text : str
    of : int
        Which event is undone, or corrected.
    """

    number: int
    kind: Kind
    step: int = 0
    tool: str = ""
    seconds: float = 0.0
    off: float = 0.0
    text: str = ""
    of: int = 0


@dataclass(frozen=True, slots=True)
class Sitting:
    """A sitting with what happened; `rehearsed` says that a simulated hand made it up."""

    job: int
    revision: int
    events: tuple[Event, ...]
    rehearsed: bool = False


def effective(events: Iterable[Event]) -> tuple[Event, ...]:
    """Return the events that stand, as they were corrected last: those that were taken back, and
    what took them back or corrected them, are left out."""
    found = tuple(events)
    gone: set[int] = set()
    # What is taken back may be put back: the last word counts.
    for event in reversed(found):
        if event.kind == "undone" and event.number not in gone:
            gone.add(event.of)
    anew = {
        event.of: event for event in found if event.kind == "corrected" and event.number not in gone
    }
    return tuple(
        replace(
            event,
            seconds=anew[event.number].seconds,
            off=anew[event.number].off,
            text=anew[event.number].text,
        )
        if event.number in anew
        else event
        for event in found
        if event.kind not in ("undone", "corrected") and event.number not in gone
    )
