"""What is told of a sheet: a sentence, and notes."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence

import numpy as np

from .finding import Joined, Row, Slipped
from .measure import FOUND, Measured
from .shift import ELSEWHERE
from .straight import Straight
from .which import Explained, Hypotheses

UNDRAWN = 1.8
"""Longest stretch of a piece that may be missing, mm."""

TOO_FAINT = 0.65
"""Share of how dark the sheet's lines are under which one is too faint."""

MOST_MISSING = 8
"""Pieces that are not there which are told one by one."""


def told_slip(every: Hypotheses) -> Callable[[Explained], Slipped]:
    numbers = {step.number: step for step in every.order.steps.values()}

    def told(explained: Explained) -> Slipped:
        step = numbers.get(explained.step)
        act = step.text if step else ""
        slip = explained.slip
        return Slipped(
            slip.key, slip.said, explained.step, act, explained.gain, step.name if step else ""
        )

    return told


def sentence(
    rows: Sequence[Row],
    slips: Sequence[Slipped],
    second: Sequence[Slipped],
    unfinished: bool,
) -> str:
    off = [row for row in rows if row.judged == "off"]
    missing = [row for row in rows if row.judged == "missing"]
    if slips:
        words = f"At step {slips[0].step} {_first_low(slips[0].key)}: {slips[0].said}"
        others = [f"step {each.step}, {_first_low(each.key)}" for each in slips[1:3]]
        if others:
            words += f" (or {', or '.join(others)}: they leave nearly the same)"
        if second:
            words += f"; and at step {second[0].step} {_first_low(second[0].key)}: {second[0].said}"
        if unfinished:
            words += f"; {len(missing)} of {len(rows)} pieces are not lined in yet"
        return words + "."
    if not off and not missing:
        return "Everything is within the tolerance."
    if unfinished:
        rest = f"{len(off)} of those that are drawn are off" if off else "what is drawn is right"
        return f"{len(missing)} of {len(rows)} pieces are not lined in yet; {rest}."
    worst = max(off, key=_how_far, default=None)
    parts = [f"{len(off)} of {len(rows)} pieces are off"] if off else []
    parts += [f"{len(missing)} not there"] if missing else []
    where = f"; most {worst.name}, {worst.told}" if worst is not None and worst.told else ""
    return f"{', '.join(parts)}{where}. No one slip explains it."


def _how_far(row: Row) -> float:
    return max(row.place, abs(row.size.paper) if row.size else 0.0)


def _first_low(text: str) -> str:
    return text[:1].lower() + text[1:]


def notes(
    rows: Sequence[Row],
    found: Sequence[Measured],
    joins: Sequence[Joined],
    straight: Straight,
    shift: complex,
    extra: Sequence[tuple[float, float, float]],
) -> Iterator[str]:
    if abs(shift) > ELSEWHERE:
        across = f"{abs(shift.real):.1f} mm to the {'right' if shift.real > 0 else 'left'}"
        up = f"{abs(shift.imag):.1f} mm {'up' if shift.imag > 0 else 'down'}"
        words = " and ".join(
            word for word, by in ((across, shift.real), (up, shift.imag)) if abs(by) > 0.5
        )
        yield f"The view stands {words} from its place: was the border counted?"
    missing = [row.name for row in rows if row.judged == "missing"]
    if len(missing) > MOST_MISSING:
        some, more = missing[:MOST_MISSING], len(missing) - MOST_MISSING
        yield f"Not there: {', '.join(some)} and {more} more."
    else:
        yield from (f"{name} is not there." for name in missing)
    dark = float(np.median([each.dark for each in found])) if found else 0.0
    for each in found:
        if each.seen < FOUND:
            continue
        if each.gap > UNDRAWN:
            yield f"{each.piece.called}: {each.gap:.0f} mm of it are not drawn."
        for end, past in zip(("start", "end"), each.beyond, strict=True):
            if past > 1.5:
                yield f"{each.piece.called} runs {past:.1f} mm past its {end}."
        if each.dark < TOO_FAINT * dark:
            yield f"{each.piece.called} is too faint for an outline."
    for join in joins:
        if not join.is_closed:
            yield f"{join.first} and {join.second} miss each other by {join.miss:.1f} mm."
    for x, y, long in extra:
        yield f"A heavy line of {long:.0f} mm about ({x:.0f}, {y:.0f}) belongs to nothing."
    if straight.pixels < 150 / 25.4:
        yield "The picture is coarse: scan at 300 dpi to measure more closely."
    if straight.off > 0.6:
        yield f"The border is {straight.off:.1f} mm from straight: did the sheet lie flat?"
