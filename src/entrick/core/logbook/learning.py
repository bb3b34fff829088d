"""What sittings teach: minutes by instrument, bias and spread of each, and the slips made most."""

from __future__ import annotations

import math
import statistics
from collections import Counter
from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass
from fractions import Fraction

from ..measure import Unit
from ..measure.number import spell_fraction
from ..rehearsal.hand import Hand
from .sitting import Event, Sitting, effective

SURE = 0.95
"""Share of the cases in which an interval holds the true value."""

FEWEST = 3
"""Values below which no spread is told."""

FAR = 3.5
"""Robust standard deviations beyond which a value is a slip and no error of the hand (common
practice, no source)."""

FINEST = {"protractor": 0.25}
"""Half of a graduation, degrees: what nobody can be closer by than chance."""

HALF_GRADUATION = 0.25
"""The same of a rule in half millimetres, mm: values that agree better have not been told apart."""

READ = {"protractor": Hand().protractor}
"""How far off a value is read back, one standard deviation, degrees (common practice, no
source)."""

READ_BY_RULE = Hand().measuring
"""The same by the rule, mm."""

LONG = 600.0
"""Seconds beyond which a step was not worked at but left lying."""


@dataclass(frozen=True, slots=True)
class Spread:
    """How an instrument comes out in these hands, mm on paper or degrees.

    Attributes
    ----------
    tool : str
    count : int
        Values it rests on.
    bias, bias_off : float
        Mean of measured less computed, and half its interval (Student's t).
    spread, low, high : float
        Standard deviation, and its interval (chi-squared); what reading back adds is taken off.
    """

    tool: str
    count: int
    bias: float
    bias_off: float
    spread: float
    low: float
    high: float

    def hint(self, unit: Unit) -> str:
        """Return what to do about the bias, in the unit of a job; nothing where there may be
        none."""
        if abs(self.bias) <= self.bias_off:
            return ""
        way, mend = ("wide", "under") if self.bias > 0 else ("short", "over")
        size = _said(abs(self.bias), self.tool, unit)
        return f"with the {self.tool} you come out {size} {way}: set a hair {mend}"


@dataclass(frozen=True, slots=True)
class Learnt:
    """What the logbook knows: seconds a step by instrument with how many they rest on, spreads,
    slips with counts."""

    seconds: dict[str, tuple[float, int]]
    spreads: tuple[Spread, ...]
    slips: tuple[tuple[str, int], ...]


def learn(sittings: Iterable[Sitting]) -> Learnt:
    """Return what sittings teach.

    Notes
    -----
    Seconds are medians. A mean of n values with standard deviation s lies within t·s/√n of the true
    one, and the variance between (n − 1)s²/χ²; both intervals hold in 95 of 100 cases (textbook
    formulas). A value read back is off by the hand and by the reading: s² = σ² + σ_read²."""
    sittings = tuple(sittings)
    events = [event for sitting in sittings for event in effective(sitting.events)]
    times: dict[str, list[float]] = {}
    offs: dict[str, list[float]] = {}
    for event in events:
        if event.kind == "done" and 0 < event.seconds <= LONG:
            times.setdefault(event.tool, []).append(event.seconds)
    for sitting in sittings:
        for event in told_of_hand(effective(sitting.events)):
            offs.setdefault(event.tool, []).append(event.off)
    slips = Counter(event.text for event in events if event.kind == "slip" and event.text)
    return Learnt(
        {tool: (statistics.median(values), len(values)) for tool, values in sorted(times.items())},
        tuple(
            spread_of(tool, values)
            for tool, values in sorted(offs.items())
            if len(_kept(tool, values)) >= FEWEST
        ),
        tuple(slips.most_common()),
    )


def told_of_hand(events: Sequence[Event]) -> Iterator[Event]:
    """Yield the values that were measured back and not named a slip: a slip tells nothing of the
    spread of a hand."""
    open_: dict[int, Event] = {}
    for event in events:
        if event.kind == "measured":
            if event.step in open_:
                yield open_[event.step]
            open_[event.step] = event
        elif event.kind == "slip":
            open_.pop(event.step, None)
    yield from open_.values()


def _kept(tool: str, values: Sequence[float]) -> list[float]:
    """Leave out what is too far off to be an error of the hand: beyond 3.5 robust deviations of the
    median, or of half a graduation where the values agree better than they can be told."""
    middle = statistics.median(values)
    away = statistics.median(abs(value - middle) for value in values) * 1.4826
    away = max(away, FINEST.get(tool, HALF_GRADUATION))
    return [value for value in values if abs(value - middle) <= FAR * away]


def spread_of(tool: str, values: Sequence[float]) -> Spread:
    """Return the bias and the spread of an instrument, each with its interval."""
    # Loaded when it is first wanted: it is a large part of a cold start.
    from scipy.stats import chi2, t  # type: ignore[import-untyped]

    kept = _kept(tool, values)
    count, bias = len(kept), statistics.fmean(kept)
    spread = statistics.stdev(kept)
    free = count - 1
    off = float(t.ppf((1 + SURE) / 2, free)) * spread / math.sqrt(count)
    low, high = (
        spread * math.sqrt(free / float(chi2.ppf(share, free)))
        for share in ((1 + SURE) / 2, (1 - SURE) / 2)
    )
    spread, low, high = (_less_reading(tool, each) for each in (spread, low, high))
    return Spread(tool, count, bias, off, spread, low, high)


def _said(size: float, tool: str, unit: Unit) -> str:
    """Write a bias, mm or degrees: inches as parts of one, to the nearest sixty-fourth."""
    if tool == "protractor":
        return f"{size:.2g}°"
    if unit is Unit.MM:
        return f"{size:.2g} mm"
    parts = Fraction(round(size / 25.4 * 64), 64)
    return f"about {spell_fraction(parts)} in" if parts else "less than 1/64 in"


def _less_reading(tool: str, spread: float) -> float:
    """Return a spread without what reading back adds to it."""
    read = READ.get(tool, READ_BY_RULE)
    return math.sqrt(max(spread**2 - read**2, 0.0))
