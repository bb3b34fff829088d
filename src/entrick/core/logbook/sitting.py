"""A sitting at the board: events as the device numbered them, appended and never changed."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from typing import Literal

Kind = Literal["done", "back", "measured", "slip", "note", "undone"]


@dataclass(frozen=True, slots=True)
class Event:
    """One thing that happened.

    Attributes
    ----------
    number : int
        From 1 on, as the device counts.
    kind : str
        "done" (a step, with its seconds), "back" (returned to it), "measured" (a value against the computed one),
        "slip" and "note" (in words), "undone" (takes back the event of a number).
    step : int
        Number of the step, in the order of the sitting.
    tool : str
    seconds : float
    off : float
        Measured less computed, mm on paper, or degrees.
    text : str
    of : int
        Which event is undone.
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
    """Return the events that stand: those that were taken back, and what took them back, are left out."""
    found = tuple(events)
    gone = {event.of for event in found if event.kind == "undone"}
    return tuple(event for event in found if event.kind != "undone" and event.number not in gone)
