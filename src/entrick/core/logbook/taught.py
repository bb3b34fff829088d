"""What the logbook changes elsewhere: the minutes of an order of work, and the hand of the
rehearsal."""

from __future__ import annotations

import statistics
from collections.abc import Iterable
from dataclasses import dataclass, field

from ..rehearsal.hand import Hand
from .learning import LONG, Learnt, learn
from .sitting import Sitting, effective

ENOUGH_STEPS, ENOUGH_VALUES = 5, 8
"""Steps with an instrument, and values measured back, on which something is changed (by eye, no
source)."""

GROUPS = {
    "compass": "compass",
    "beam compass": "compass",
    "circle template": "compass",
    "strip of card": "compass",
    "pencil, by eye": "compass",
    "dividers": "dividers",
    "tracing paper": "dividers",
    "protractor": "square",
    "straightedge": "edge",
    "rule": "rule",
    "pencil": "pencil",
}
"""Instruments of steps by what an order of work reckons with; whatever guides level lines goes with
the squares."""

OWN = {
    "compass": "opening",
    "dividers": "dividers",
    "rule": "measuring",
    "protractor": "protractor",
}
"""Which error of a hand an instrument's values tell."""


@dataclass(frozen=True, slots=True)
class Taught:
    """What sittings change elsewhere.

    Attributes
    ----------
    pace : dict of str to float
        Median minutes of a step, by group of instruments; guesses stand where there are too few.
    steps : int
        How many steps that rests on.
    hand : Hand
        The usual one, with own errors where enough has been measured back.
    values : dict of str to int
        By instrument, how many values an own error rests on.
    rehearsed : bool
        Whether any of it was made up by a simulated hand.
    """

    pace: dict[str, float] = field(default_factory=dict)
    steps: int = 0
    hand: Hand = field(default_factory=Hand)
    values: dict[str, int] = field(default_factory=dict)
    rehearsed: bool = False


def group_of(tool: str) -> str:
    """Return the group of an instrument."""
    return GROUPS.get(tool, "square")


def teach(sittings: Iterable[Sitting], learnt: Learnt | None = None) -> Taught:
    """Return what sittings change elsewhere.

    Notes
    -----
    A hand errs by its spread, anew each time, and by its bias, each time alike."""
    found = tuple(sittings)
    known = learnt or learn(found)
    minutes: dict[str, list[float]] = {}
    for sitting in found:
        for event in effective(sitting.events):
            if event.kind == "done" and 0 < event.seconds <= LONG and event.tool:
                minutes.setdefault(group_of(event.tool), []).append(event.seconds / 60)
    minutes = {group: took for group, took in minutes.items() if len(took) >= ENOUGH_STEPS}
    own = {
        spread.tool: spread
        for spread in known.spreads
        if spread.tool in OWN and spread.count >= ENOUGH_VALUES
    }
    usual = Hand()
    errors = {OWN[tool]: spread.spread for tool, spread in own.items()}
    errors |= {f"{OWN[tool]}_bias": spread.bias for tool, spread in own.items()}
    return Taught(
        {group: statistics.median(took) for group, took in minutes.items()},
        sum(map(len, minutes.values())),
        Hand(**{name: errors.get(name, getattr(usual, name)) for name in Hand.__slots__}),
        {tool: spread.count for tool, spread in own.items()},
        any(sitting.rehearsed for sitting in found),
    )
