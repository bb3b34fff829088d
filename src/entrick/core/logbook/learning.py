"""What sittings teach: minutes by instrument, bias and spread of each, and the slips made most."""

from __future__ import annotations

import math
import statistics
from collections import Counter
from collections.abc import Iterable, Sequence
from dataclasses import dataclass

from .sitting import Sitting, effective

SURE = 0.95
"""Share of the cases in which an interval holds the true value."""

FEWEST = 3
"""Values below which no spread is told."""

FAR = 3.5
"""Robust standard deviations beyond which a value is a slip and no error of the hand (common
practice, no source)."""

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
        Standard deviation, and its interval (chi-squared).
    hint : str
        What to do about it; empty where the bias may be none.
    """

    tool: str
    count: int
    bias: float
    bias_off: float
    spread: float
    low: float
    high: float
    hint: str = ""


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
    formulas)."""
    events = [event for sitting in sittings for event in effective(sitting.events)]
    times: dict[str, list[float]] = {}
    offs: dict[str, list[float]] = {}
    for event in events:
        if event.kind == "done" and 0 < event.seconds <= LONG:
            times.setdefault(event.tool, []).append(event.seconds)
        elif event.kind == "measured":
            offs.setdefault(event.tool, []).append(event.off)
    slips = Counter(event.text for event in events if event.kind == "slip" and event.text)
    return Learnt(
        {tool: (statistics.median(values), len(values)) for tool, values in sorted(times.items())},
        tuple(
            spread_of(tool, values)
            for tool, values in sorted(offs.items())
            if len(_kept(values)) >= FEWEST
        ),
        tuple(slips.most_common()),
    )


def _kept(values: Sequence[float]) -> list[float]:
    """Leave out what is too far off to be an error of the hand: beyond 3.5 robust deviations of the
    median."""
    middle = statistics.median(values)
    away = statistics.median(abs(value - middle) for value in values) * 1.4826
    return [value for value in values if away == 0 or abs(value - middle) <= FAR * away]


def spread_of(tool: str, values: Sequence[float]) -> Spread:
    """Return the bias and the spread of an instrument, each with its interval."""
    # Loaded when it is first wanted: it is a large part of a cold start.
    from scipy.stats import chi2, t  # type: ignore[import-untyped]

    kept = _kept(values)
    count, bias = len(kept), statistics.fmean(kept)
    spread = statistics.stdev(kept)
    free = count - 1
    off = float(t.ppf((1 + SURE) / 2, free)) * spread / math.sqrt(count)
    low, high = (
        spread * math.sqrt(free / float(chi2.ppf(share, free)))
        for share in ((1 + SURE) / 2, (1 - SURE) / 2)
    )
    hint = ""
    if abs(bias) > off:
        unit = "°" if tool == "protractor" else " mm"
        way, mend = ("wide", "under") if bias > 0 else ("short", "over")
        hint = f"with the {tool} you come out {abs(bias):.2g}{unit} {way}: set a hair {mend}"
    return Spread(tool, count, bias, off, spread, low, high, hint)
