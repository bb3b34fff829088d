"""The events a cam follows: how they are stated, read and put in words; no kind of its own."""

from __future__ import annotations

import math
from collections import Counter
from collections.abc import Callable, Iterator, Sequence
from dataclasses import replace

from ..kind import Args, ClauseValues
from ..measure import spell_angle
from ..plan.errors import ClauseError, Wanting
from ..plan.forms import Form
from ..rules.cam import MOST_EVENTS, Event, measured
from ..rules.motion import MOTIONS, USUAL
from ..tolerance import ROUND, SPECK
from ..worksheets import Remark

FULL = SPECK
"""Degrees by which events may miss the full turn."""

LEAST = (
    Form("least {radius:length}", needed=True),
    Form("least diameter {radius_across:diameter}", "least", needed=True),
    Form("base circle radius {radius:radius}", "least", needed=True),
    Form("base circle diameter {radius_across:diameter}", "least", needed=True),
)
"""How the least circle is stated."""

PARTS = (Form("{count:count} parts", "parts"), Form("every {angle:angle}"))
"""How the turn is divided."""


def events_by(lift: str) -> tuple[Form, ...]:
    """Return how events are stated.

    Parameters
    ----------
    lift : str
        What a follower rises by: "length", or "angle" where it swings.
    """
    motion = "{motion:" + "/".join(MOTIONS) + "}"
    forms: list[Form] = []
    for way in ("rise", "fall"):
        stated = f"{way} {{angle:angle}} by {{lift:{lift}}}"
        forms.append(Form(stated, most=MOST_EVENTS))
        forms.append(Form(f"{stated} {motion}", way, most=MOST_EVENTS))
    return (*forms, Form("dwell {angle:angle}", most=MOST_EVENTS))


def described(event: Event, say: Callable[[float], str]) -> str:
    """Return an event in words, such as "rise 120° by 20 harmonic".

    Parameters
    ----------
    event : Event
    say : callable
        Writes what the follower rises by.
    """
    angle = spell_angle(math.degrees(event.angle))
    if event.stands:
        return f"dwell {angle}"
    way = "rise" if event.lift > 0 else "fall"
    motion = f" {event.motion.title}" if event.motion else " suddenly" if event.drops else ""
    return f"{way} {angle} by {say(abs(event.lift))}{motion}"


def parts_of(args: Args) -> int:
    """Return into how many parts the turn is divided: so many, or by a step that goes into 360°."""
    count, step = args.get("parts"), args.get("every")
    if count and step:
        raise ClauseError("a cam is divided into so many parts, or by a step", step.index)
    parts = count.count("count") if count else 12
    if step:
        angle = float(step.length("angle"))
        parts = round(360 / angle) if angle > 0 else 0
        if angle <= 0 or abs(parts * angle - 360) > FULL:
            raise ClauseError(
                "a step goes into 360° without a rest, such as  every 15°", step.index
            )
    if not 4 <= parts <= MOST_EVENTS:
        raise ClauseError(
            f"a cam is divided into 4 to {MOST_EVENTS} parts",
            (count or step or args.need("about")).index,
        )
    return parts


def events_of(args: Args) -> tuple[tuple[Event, ...], tuple[Remark, ...]]:
    """Read the events; what does not come round is made up with a dwell or a jump, and remarked.

    Parameters
    ----------
    args : Args

    Returns
    -------
    tuple of Event, tuple of Remark

    Raises
    ------
    ClauseError
        Where an event cannot be.
    Wanting
        Where there is nothing to follow.
    """
    lifts = args.all("lift")
    clauses = args.all("rise", "fall", "dwell")
    if lifts and clauses:
        raise ClauseError("a cam follows events or measured lifts, not both", lifts[0].index)
    if lifts:
        return _measured(lifts), ()
    if not any(one.key != "dwell" for one in clauses):
        raise Wanting("a cam has at least one rise and one fall, such as  rise 120° by 20 harmonic")
    if not any(float(one.length("angle")) for one in clauses):
        raise ClauseError("a cam does something over the turn, not all at once", clauses[0].index)
    events = _from_the_lowest(list(_one_by_one(clauses)))
    total = sum(float(one.length("angle")) for one in clauses)
    high = events[-1].end - events[0].start
    remarks = tuple(_what_does_not_come_round(args, total, high))
    if total < 360 - FULL:
        rest = events[-1].end
        events = [*events, Event("rest", math.radians(360 - total), rest, rest)]
    return _all_round(events), remarks


def _one_by_one(clauses: Sequence[ClauseValues]) -> Iterator[Event]:
    """Yield the events as they are stated, each beginning where the last ends."""
    lift = total = 0.0
    counts: Counter[str] = Counter()
    for one in clauses:
        angle = float(one.length("angle"))
        is_sudden = angle == 0 and one.key == "fall"
        if not 0 < angle <= 360 and not is_sudden:
            message = (
                "an event takes more than 0° and at most 360°; only a fall may be sudden, over 0°"
            )
            raise ClauseError(message, one.index)
        total += angle
        if total > 360 + FULL:
            raise ClauseError(
                f"the events come to {spell_angle(total)}: {spell_angle(total - 360)} too much",
                one.index,
            )
        counts[one.key] += 1
        name = f"{one.key}{counts[one.key]}"
        if one.key == "dwell":
            yield Event(name, math.radians(angle), lift, lift)
            continue
        by = float(one.length("lift"))
        if by <= 0:
            raise ClauseError(f"a {one.key} is by more than nought", one.index)
        end = lift - by if one.key == "fall" else lift + by
        motion = MOTIONS[one.word("motion") if one.has("motion") else USUAL]
        yield Event(name, math.radians(angle), lift, end, None if is_sudden else motion)
        lift = end


def _from_the_lowest(events: Sequence[Event]) -> Sequence[Event]:
    """Return events told from the lowest place of the follower: where it stands at 0° is not it
    where the first event falls."""
    lowest = min(0.0, *(event.end for event in events))
    if lowest >= -ROUND:
        return events
    return [replace(each, start=each.start - lowest, end=each.end - lowest) for each in events]


def _what_does_not_come_round(args: Args, total: float, high: float) -> Iterator[Remark]:
    """Yield what is wrong with events of so many degrees that leave the follower so high."""
    if total < 360 - FULL:
        yield Remark(
            "wrong",
            f"the events come to {spell_angle(total)} of 360°: {spell_angle(360 - total)} is "
            "missing; it is drawn as a dwell",
        )
    if abs(high) > ROUND:
        yield Remark(
            "wrong",
            f"the follower does not come back: at 360° it is {args.say(high)} too "
            f"{'high' if high > 0 else 'low'}; the profile has a step there",
        )


def _all_round(events: Sequence[Event]) -> tuple[Event, ...]:
    """Return events of which the last ends where the turn does, however its angle was rounded."""
    last = max(index for index, event in enumerate(events) if not event.drops)
    others = math.fsum(event.angle for index, event in enumerate(events) if index != last)
    whole = replace(events[last], angle=math.tau - others)
    return (*events[:last], whole, *events[last + 1 :])


def _measured(lifts: Sequence[ClauseValues]) -> tuple[Event, ...]:
    stations: list[tuple[float, float]] = []
    for one in lifts:
        angle, lift = float(one.length("angle")), float(one.length("lift"))
        if not 0 <= angle < 360 or (stations and angle <= stations[-1][0]):
            raise ClauseError("stations rise from 0° and stay below 360°", one.index)
        if lift < 0:
            raise ClauseError(
                "a lift is measured from the least distance: it is not less than nought", one.index
            )
        stations.append((angle, lift))
    if len(stations) < 4:
        raise ClauseError("a measured cam has at least four stations", lifts[-1].index)
    if stations[0][0]:
        raise ClauseError("the first station is at 0°", lifts[0].index)
    return measured([(math.radians(angle), lift) for angle, lift in stations])
