"""What sittings show when they are laid side by side: each instrument's values one after another,
slips week by week, and the same step now and before."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterable, Sequence
from dataclasses import dataclass

from ..rehearsal.hand import Hand
from .learning import told_of_hand
from .sitting import Sitting, effective

ASSUMED = {
    "compass": Hand().opening,
    "beam compass": Hand().opening,
    "dividers": Hand().dividers,
    "rule": Hand().measuring,
    "protractor": Hand().protractor,
}
"""What is assumed of an instrument before anything has been measured: one standard deviation, mm on
paper or degrees (common practice, no source)."""

MOST_AGAIN = 12
"""Steps done again that are told, those first whose time changed most."""


@dataclass(frozen=True, slots=True)
class Dated:
    """A sitting with the day and the week it was begun in, as they are shown."""

    day: str
    week: str
    sitting: Sitting


@dataclass(frozen=True, slots=True)
class Values:
    """What an instrument was off by, value by value, in `unit`; `assumed` is one standard deviation
    of the usual hand, nought where none is assumed."""

    tool: str
    days: tuple[str, ...]
    offs: tuple[float, ...]
    assumed: float

    @property
    def unit(self) -> str:
        """Degrees of a protractor, mm on paper of everything else."""
        return "°" if self.tool == "protractor" else "mm"


@dataclass(frozen=True, slots=True)
class Week:
    """How often a slip was made in a week."""

    week: str
    told: str
    count: int


@dataclass(frozen=True, slots=True)
class Again:
    """A step of a job done in several sittings: seconds at first and at last, and how often."""

    job: int
    step: int
    tool: str
    first: float
    last: float
    times: int


@dataclass(frozen=True, slots=True)
class History:
    """What sittings show side by side."""

    values: tuple[Values, ...]
    weeks: tuple[Week, ...]
    again: tuple[Again, ...]


def history(sittings: Iterable[Dated]) -> History:
    """Return what sittings show, given in the order in which they were begun."""
    dated = tuple(sittings)
    return History(_values(dated), _weeks(dated), _again(dated))


def _values(dated: Sequence[Dated]) -> tuple[Values, ...]:
    found: dict[str, list[tuple[str, float]]] = {}
    for each in dated:
        for event in told_of_hand(effective(each.sitting.events)):
            found.setdefault(event.tool, []).append((each.day, event.off))
    return tuple(
        Values(
            tool,
            tuple(day for day, _ in values),
            tuple(off for _, off in values),
            ASSUMED.get(tool, 0.0),
        )
        for tool, values in sorted(found.items())
    )


def _weeks(dated: Sequence[Dated]) -> tuple[Week, ...]:
    counts = Counter(
        (each.week, event.text)
        for each in dated
        for event in effective(each.sitting.events)
        if event.kind == "slip" and event.text
    )
    return tuple(Week(week, told, count) for (week, told), count in counts.items())


def _again(dated: Sequence[Dated]) -> tuple[Again, ...]:
    seconds: dict[tuple[int, int, str], list[float]] = {}
    for each in dated:
        done = {
            event.step: event
            for event in effective(each.sitting.events)
            if event.kind == "done" and event.seconds > 0
        }
        for step, event in done.items():
            seconds.setdefault((each.sitting.job, step, event.tool), []).append(event.seconds)
    again = [
        Again(job, step, tool, took[0], took[-1], len(took))
        for (job, step, tool), took in seconds.items()
        if len(took) > 1
    ]
    again.sort(key=lambda each: -abs(each.first - each.last))
    return tuple(again[:MOST_AGAIN])
