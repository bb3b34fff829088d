"""In which order the acts of a plan are done: as written, with the fewest settings, or with clean
hands.

Some acts must wait for others, for what they stand on; the rest is free. Minutes are plain guesses
until a logbook knows better (common practice, no source)."""

from __future__ import annotations

import math
import statistics
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from functools import lru_cache
from typing import Literal

from ..acts.act import (
    Act,
    Copy,
    Draw,
    Finish,
    GoOver,
    Key,
    Measure,
    Prick,
    Setting,
    StepOff,
    Strip,
    Swing,
    Trace,
    Way,
)
from ..geometry import Arc, Circle, Line, Loop, Point

Schedule = Literal["written", "settings", "clean"]

CALLED: dict[Schedule, str] = {
    "written": "as written",
    "settings": "fewest settings",
    "clean": "clean hands",
}
"""What the schedules are called."""

INSTRUMENT, SETTING, PENCIL = 0.15, 0.35, 0.10
"""Minutes to take up another instrument, to set one, and to take up another pencil (guesses)."""

MINUTES: dict[type[Act], float] = {
    Measure: 0.3,
    Prick: 0.1,
    Draw: 0.2,
    Swing: 0.2,
    StepOff: 0.2,
    Strip: 0.3,
    Trace: 1.5,
    Copy: 1.0,
    GoOver: 0.4,
    Finish: 1.0,
}
"""Minutes an act takes when all is set (guesses)."""


GROUPS = {"French curve": "pencil", "tracing paper": "dividers"}
"""What is told together with another instrument where minutes are learnt."""


@dataclass(frozen=True, slots=True)
class Stand:
    """How the board stands: what is in hand, how it is set, and which pencil."""

    tool: str = ""
    setting: object = None
    pencil: str = "light"

    def to(self, other: Stand | None) -> float:
        """Return the minutes it takes to get ready for another act; none where nothing has to
        change."""
        if other is None:
            return 0.0
        cost = PENCIL if other.pencil != self.pencil else 0.0
        if other.tool != self.tool:
            return cost + INSTRUMENT + (SETTING if other.setting is not None else 0.0)
        return cost + (
            SETTING if other.setting is not None and other.setting != self.setting else 0.0
        )


@dataclass(frozen=True, slots=True)
class Counted:
    """What an order of work takes.

    Attributes
    ----------
    settings : int
        How often an instrument is set.
    changes : int
        How often another instrument is taken up.
    minutes : float
    """

    settings: int
    changes: int
    minutes: float


def needs(act: Act) -> Stand | None:
    """Return how the board has to stand for an act; None where the hand alone does it."""
    match act:
        case Prick(held=Draw() as held):
            return needs(held)
        case Swing(setting=setting):
            return Stand("compass", setting)
        case StepOff(by_rule=True):
            return Stand("rule")
        case StepOff(setting=setting, compass=compass):
            return Stand("compass" if compass else "dividers", setting)
        case Draw(way=Way(), planned=line):
            return Stand("square", round(math.degrees(line.direction.angle) % 180, 6) % 180)
        case Draw():
            return Stand("edge")
        case Measure() | Strip():
            return Stand("rule")
        case Trace():
            return Stand("French curve")
        case Copy():
            return Stand("tracing paper")
        case GoOver(setting=Setting() as setting, role=role):
            return Stand("compass", setting, str(role))
        case GoOver(told=told, role=role):
            return Stand("French curve" if told in ("curve", "bent") else "edge", None, str(role))
    return None


def stands_on(act: Act) -> Iterator[Key]:
    """Return the keys of what an act stands on."""
    match act:
        case Measure(start=start, way=way):
            yield from (start, way.off)
        case Prick(first=first, second=second, held=held):
            own = held.leaves if held else ""
            yield from (key for key in (first, second) if key != own)
            if held:
                yield from stands_on(held)
        case Draw(start=start, end=end, way=held, touching=round_):
            yield from (start, end, held.off if held else "", round_)
        case Swing(needle=needle, setting=setting):
            yield from (needle, *(setting.between or ()))
        case StepOff(start=start, along=along, setting=setting):
            yield from (start, along, *(setting.between or ()))
        case Strip(tick=tick, axis=axis, held=placed):
            yield from (axis, *((tick,) if placed is None else stands_on(placed)))
        case Trace(stations=stations):
            yield from stations
        case Copy(pairs=pairs, about=about, to=to):
            yield from (*(original for original, _ in pairs), about, to)
        case GoOver(pieces=pieces, drawn=drawn):
            for piece in pieces:
                yield from ("" if drawn else piece.thing, piece.start, piece.end)
            if drawn:
                yield from stands_on(drawn)


def guest_of(act: Act) -> Act | None:
    """Return what is done within an act."""
    match act:
        case Prick(held=Act() as held) | Strip(held=Act() as held) | GoOver(drawn=Act() as held):
            return held
    return None


@lru_cache(maxsize=8192)
def leaves(act: Act) -> tuple[Key, ...]:
    """Return the keys of all an act leaves."""
    own = (act.leaves,) if act.leaves else ()
    match act:
        case StepOff(marks=marks):
            return (*own, *marks)
        case Copy(pairs=pairs):
            return (*own, *(copy for _, copy in pairs))
    return own


def waits_for(acts: Sequence[Act]) -> list[set[int]]:
    """Return for each act which others come before it. What finishes a sheet waits for all that is
    drawn."""
    left: dict[Key, int] = {}
    result: list[set[int]] = []
    drawn = {index for index, act in enumerate(acts) if not isinstance(act, Finish)}
    for index, act in enumerate(acts):
        own = {left[key] for key in stands_on(act) if key in left}
        if isinstance(act, Finish):
            own |= drawn
        result.append(own - {index})
        for key in leaves(act):
            left.setdefault(key, index)
    return result


def scheduled(acts: Sequence[Act], how: Schedule) -> list[int]:
    """Return the order in which acts are done, by their places in the plan's own order.

    Parameters
    ----------
    acts : sequence of Act
        As written.
    how : str

    Returns
    -------
    list of int
    """
    written = _by_trade(acts)
    if how == "written":
        return written
    waiting = waits_for(acts)
    if how == "clean":
        return _by_priority(acts, waiting, _cleanly(acts))
    orders = [_fewest(acts, waiting, eager) for eager in (False, True)]
    orders.append(_searched(acts, waiting))
    best = min(orders, key=lambda order: counted(acts, order).minutes)
    return best if counted(acts, best).minutes <= counted(acts, written).minutes else written


def _by_trade(acts: Sequence[Act]) -> list[int]:
    """Light work as written, then what is lined in, in the order of the trade, then what finishes
    the sheet."""
    light = [at for at, act in enumerate(acts) if not isinstance(act, GoOver | Finish)]
    lined = [at for at, act in enumerate(acts) if isinstance(act, GoOver)]
    last = [at for at, act in enumerate(acts) if isinstance(act, Finish)]
    by_sort = _cleanly(acts)
    return [*light, *sorted(lined, key=lambda at: by_sort[at]), *last]


def _fewest(acts: Sequence[Act], waiting: Sequence[set[int]], eager: bool) -> list[int]:
    """Keep what is in hand as long as anything can be done with it; then take up what lets most be
    done, light first.

    Where `eager`, what has waited longest comes first among equals, else what makes most other acts
    possible."""
    after: list[list[int]] = [[] for _ in acts]
    for index, before in enumerate(waiting):
        for each in before:
            after[each].append(index)
    wanted = [needs(act) for act in acts]
    left = [len(before) for before in waiting]
    ready = {index for index, count in enumerate(left) if count == 0}
    order: list[int] = []
    stand = Stand()
    while ready:
        free = [index for index in ready if wanted[index] is None]
        if free:
            index = min(free)
        else:
            groups: dict[Stand, list[int]] = {}
            for each in ready:
                need = wanted[each]
                assert need is not None
                groups.setdefault(need, []).append(each)

            def worth(need: Stand) -> tuple[float, ...]:
                cost = stand.to(need)  # noqa: B023 - called at once
                own = groups[need]  # noqa: B023
                opened = sum(len(after[i]) for i in own)
                heavy = 1.0 if need.pencil != "light" else 0.0
                return (
                    cost if cost == 0.0 else 1.0 + heavy,
                    cost,
                    min(own) if eager else -opened,
                    min(own),
                )

            need = min(groups, key=worth)
            index = min(groups[need])
            stand = need
        ready.remove(index)
        order.append(index)
        for each in after[index]:
            left[each] -= 1
            if left[each] == 0:
                ready.add(each)
    return order


EXACT = 14
"""Acts up to which every order is looked at."""

LOOKED_AT = 300
"""Acts times ways kept open in the search of a longer order: what may be looked at while somebody
waits."""


@dataclass(frozen=True, slots=True)
class _Way:
    """So far in an order: the minutes to get ready, how the board stands, what is done."""

    minutes: float
    stand: Stand
    done: int
    order: tuple[int, ...]


def _searched(acts: Sequence[Act], waiting: Sequence[set[int]]) -> list[int]:
    """Return the order in which least is set: exact for a few acts, else the best of the most
    promising ways, setting by setting (beam search).

    What can be done with what is in hand is done at once: it costs no more then than later."""
    wanted = [needs(act) for act in acts]
    before = [sum(1 << each for each in own) for own in waiting]
    every = (1 << len(acts)) - 1
    width = None if len(acts) <= EXACT else max(2, LOOKED_AT // len(acts))

    def gone_on(way: _Way) -> _Way:
        """Do all that needs nothing got ready."""
        done, order, again = way.done, list(way.order), True
        while again:
            again = False
            for index, need in enumerate(wanted):
                bit = 1 << index
                may = not done & bit and before[index] & ~done == 0
                if may and (need is None or need == way.stand):
                    done |= bit
                    order.append(index)
                    again = True
        return replace(way, done=done, order=tuple(order))

    ways = [gone_on(_Way(0.0, Stand(), 0, ()))]
    best: _Way | None = None
    while ways:
        further: dict[tuple[int, Stand], _Way] = {}
        for way in ways:
            if way.done == every:
                best = way if best is None or way.minutes < best.minutes else best
                continue
            ready = {
                need
                for index, need in enumerate(wanted)
                if need is not None and not way.done >> index & 1 and before[index] & ~way.done == 0
            }
            for need in ready:
                minutes = way.minutes + way.stand.to(need)
                if best is not None and minutes >= best.minutes:
                    continue
                after = gone_on(replace(way, minutes=minutes, stand=need))
                known = further.get((after.done, need))
                if known is None or minutes < known.minutes:
                    further[after.done, need] = after
        ways = list(further.values())
        if width is not None:
            # Of the ways that have cost as many settings those come first that have done most.
            ways = sorted(ways, key=lambda way: way.minutes - 0.25 * way.done.bit_count())[:width]
    assert best is not None
    return list(best.order)


def _by_priority(
    acts: Sequence[Act], waiting: Sequence[set[int]], priority: Sequence[tuple[float, ...]]
) -> list[int]:
    order: list[int] = []
    done: set[int] = set()
    left = set(range(len(acts)))
    while left:
        index = min((i for i in left if waiting[i] <= done), key=lambda i: priority[i])
        left.remove(index)
        done.add(index)
        order.append(index)
    return order


def _cleanly(acts: Sequence[Act]) -> list[tuple[float, ...]]:
    """Light work as written; then small arcs, larger ones, curves and straights (schools: arcs
    first; common practice, no source), among equals from the top left to the lower right, so that
    the hand does not lie on what is wet or soft."""
    result: list[tuple[float, ...]] = []
    for index, act in enumerate(acts):
        if not isinstance(act, GoOver):
            result.append((0.0 if not isinstance(act, Finish) else 2.0, float(index)))
            continue
        spot, (sort, radius) = _where(act), _sort(act)
        result.append((1.0, sort, radius, -spot.y, spot.x, float(index)))
    return result


def _sort(act: GoOver) -> tuple[float, float]:
    """Return of which sort what is lined in is, in the order of the trade, and how large."""
    match act.pieces[0].planned:
        case Circle(radius=radius) | Arc(radius=radius):
            return 0.0, float(f"{radius:.9g}")
        case Line():
            return 2.0, 0.0
    return 1.0, 0.0


def _where(act: GoOver) -> Point:
    match act.pieces[0].planned:
        case Line() as line:
            return line.at(line.start or 0.0)
        case Circle(centre=centre) | Arc(centre=centre):
            return centre
        case Loop() as loop:
            return loop.pieces[0].entry


def counted(
    acts: Sequence[Act], order: Sequence[int], pace: Mapping[str, float] | None = None
) -> Counted:
    """Count what an order takes.

    Parameters
    ----------
    acts : sequence of Act
        As written.
    order : sequence of int
    pace : mapping of str to float, optional
        Minutes a step takes in one's own hands, median, by group of instruments; guesses where
        there is none.

    Notes
    -----
    A guess for an act is taken as many times as the own median is of the median guess of its group
    in this plan: so what an order saves is still told by what it lets one leave as it is."""
    times = _own_times(acts, pace) if pace else {}
    stand = Stand()
    settings = changes = 0
    minutes = 0.0
    for index in order:
        need = needs(acts[index])
        guess = MINUTES.get(type(acts[index]), 0.0) + stand.to(need)
        minutes += guess * times.get(_group(need), 1.0)
        if need is None:
            continue
        changes += need.tool != stand.tool
        settings += need.setting is not None and (need.tool, need.setting) != (
            stand.tool,
            stand.setting,
        )
        stand = need
    return Counted(settings, changes, minutes)


def _group(need: Stand | None) -> str:
    return GROUPS.get(need.tool, need.tool) if need else "pencil"


def _own_times(acts: Sequence[Act], pace: Mapping[str, float]) -> dict[str, float]:
    """Return by group how many times as long as guessed a step takes."""
    stand = Stand()
    guesses: dict[str, list[float]] = {}
    for act in acts:
        need = needs(act)
        guesses.setdefault(_group(need), []).append(MINUTES.get(type(act), 0.0) + stand.to(need))
        stand = need or stand
    usual = {group: statistics.median(found) for group, found in guesses.items()}
    # What is guessed to take no time cannot take so many times as long.
    return {group: pace[group] / took for group, took in usual.items() if group in pace and took}


def why(acts: Sequence[Act], order: Sequence[int]) -> list[str]:
    """Return for each act in its new place why it comes here and not where it is written; empty
    where it has not moved past anything."""
    result = []
    for place, index in enumerate(order):
        before = order[place - 1] if place else -1
        if before + 1 == index:
            result.append("")
            continue
        need, last = needs(acts[index]), needs(acts[before]) if place else None
        if (
            need is not None
            and last is not None
            and need.tool == last.tool
            and need.setting == last.setting
        ):
            result.append(
                f"the {need.tool} is in hand and set so already"
                if need.setting is not None
                else f"the {need.tool} is in hand already"
            )
        elif need is not None and need.pencil != "light":
            result.append("light work is done before anything is lined in")
        else:
            result.append("what it stands on is there, and what comes after it can follow")
    return result
