"""What is done at the board is what is needed: an act nothing stands on is left out, a line wanted
for one mark alone is held and not drawn, and what is lined in all the same is not drawn lightly
first."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from typing import TypeVar, cast

from ..acts.act import (
    Act,
    Draw,
    Edge,
    GoOver,
    Key,
    Mark,
    Measure,
    Prick,
    Round,
    StepOff,
    Strip,
    Swing,
    Thing,
)
from ..geometry import Arc, Circle, Line, Loop, Point, Shape
from ..memo import MEMO, Memo
from ..sheet import Sheet
from ..solve import Solution
from ..tolerance import DIRECTION, same
from .kit import Kit
from .lacking import with_kit
from .order import Ordered, acts_of
from .schedule import leaves, stands_on

A = TypeVar("A", bound=Act)

SPARED = cast(Memo[Ordered], MEMO)
"""Statements of which acts are left out, or done together with others."""

At = tuple[int, int]
"""Where an act stands: in which statement, and the how manieth it is there."""


def acts_at_board(solution: Solution, sheet: Sheet, kit: Kit | None = None) -> tuple[Ordered, ...]:
    """Return the acts of every statement as they are done at the board.

    Parameters
    ----------
    solution : Solution
    sheet : Sheet
    kit : Kit, optional
        What they are done with; a whole kit where none is said.

    Returns
    -------
    tuple of Ordered
        The very same as before where nothing about them has changed.
    """
    ordered = acts_of(solution, sheet)
    if kit is not None and not kit.is_whole:
        done = with_kit(ordered, kit, sheet)
        ordered = tuple(replace(own, acts=acts) for own, acts in zip(ordered, done, strict=True))
    return spared(ordered)


@dataclass
class _Sparing:
    """What becomes of acts: those left out, and those that are done within another."""

    out: set[At]
    within: dict[At, At]


def spared(ordered: Sequence[Ordered]) -> tuple[Ordered, ...]:
    """Return the acts of a plan without those that are done in vain, or may be done at once with
    others."""
    acts = {(i, j): act for i, own in enumerate(ordered) for j, act in enumerate(own.acts)}
    asked = {at for i, own in enumerate(ordered) for at in _asked(i, own)}
    out = _in_vain(acts, asked)
    kept = {at: act for at, act in acts.items() if at not in out}
    within = dict(_held(kept, asked)) | dict(_lined_in_at_once(kept))
    return tuple(_rewritten(own, i, acts, _Sparing(out, within)) for i, own in enumerate(ordered))


def _rewritten(own: Ordered, index: int, acts: Mapping[At, Act], sparing: _Sparing) -> Ordered:
    places = [(index, at) for at in range(len(own.acts))]
    gone = tuple(at for at in places if at in sparing.out or at in sparing.within)
    taken = {host: at for at, host in sparing.within.items() if host[0] == index}
    if not gone and not taken:
        return own
    hosts = tuple((host[1], acts[at].leaves) for host, at in sorted(taken.items()))
    key = (spared, own.serial, tuple(at for _, at in gone), hosts)
    known = SPARED.get(key)
    if known is not None and all(
        _guest(known_act) is acts[taken[host]]
        for host, known_act in _hosts(known, places, gone, taken)
    ):
        return known
    found = []
    for at in places:
        if at in gone:
            continue
        act = own.acts[at[1]]
        found.append(_with_guest(act, acts[taken[at]]) if at in taken else act)
    return SPARED.put(key, replace(own, acts=tuple(found)), 1 + len(found))


def _hosts(
    known: Ordered, places: Sequence[At], gone: Sequence[At], taken: Mapping[At, At]
) -> Iterator[tuple[At, Act]]:
    """Yield the acts of a statement that others are done within, each with its place."""
    stay = [at for at in places if at not in gone]
    yield from ((at, act) for at, act in zip(stay, known.acts, strict=True) if at in taken)


def _guest(host: Act) -> Act | None:
    match host:
        case Prick(held=held):
            return held
        case GoOver(drawn=drawn):
            return drawn
    return None


def _with_guest(host: Act, guest: Act) -> Act:
    """Return an act with another done in the same go."""
    if isinstance(host, Prick) and isinstance(guest, Draw):
        reached = tuple(stroke for stroke in host.strokes if isinstance(stroke.shape, Point))
        return replace(host, held=guest, strokes=reached)
    assert isinstance(host, GoOver)
    assert isinstance(guest, Swing | Draw)
    return replace(host, drawn=guest)


def _asked(index: int, own: Ordered) -> Iterator[At]:
    """Yield where a statement draws what it is there for: what it says it makes, whatever nothing
    can be stood on, and curves."""
    made = own.entry.made
    shapes = [] if made is None else [each for shape in made.shapes for each in _pieces(shape)]
    things = {thing.key: thing for thing in own.left}
    for at, act in enumerate(own.acts):
        keys = [key for key in leaves(act) if key in things]
        own_way = not isinstance(act, Measure | Prick | Draw | Swing | StepOff | Strip)
        if own_way or any(_is_of(things[key], shape) for key in keys for shape in shapes):
            yield index, at


def _pieces(shape: Shape | Loop) -> Iterator[Shape]:
    if isinstance(shape, Loop):
        yield from (piece.curve for piece in shape.pieces)
    else:
        yield shape


def _is_of(thing: Thing, shape: Shape) -> bool:
    """Tell whether a thing lies where a shape does."""
    match thing, shape:
        case Mark(at=at), Point():
            return abs(at - shape) <= same(abs(at))
        case Edge(line=line), Line():
            near = same(abs(line.through) + abs(shape.through))
            turned = abs(line.direction.cross(shape.direction)) <= DIRECTION
            return turned and abs(line.offset_of(shape.through)) <= near
        case Round(circle=circle), Circle() | Arc():
            near = same(circle.radius + abs(circle.centre))
            off = abs(circle.centre - shape.centre), abs(circle.radius - shape.radius)
            return max(off) <= near
    return False


def _in_vain(acts: Mapping[At, Act], asked: set[At]) -> set[At]:
    """Return the acts whose results nothing that is done stands on, from the last one back."""
    wanted: set[Key] = set()
    out: set[At] = set()
    for at in reversed(list(acts)):
        act = acts[at]
        if at in asked or not wanted.isdisjoint(leaves(act)):
            wanted.update(stands_on(act))
        else:
            out.add(at)
    return out


def _held(acts: Mapping[At, Act], asked: set[At]) -> Iterator[tuple[At, At]]:
    """Yield the lines that one mark alone is wanted for, each with the act that makes that mark:
    the edge is laid there and a tick made across what it cuts."""
    uses = Counter(key for act in acts.values() for key in set(stands_on(act)) if key)
    drawn = {
        act.leaves: at
        for at, act in acts.items()
        if isinstance(act, Draw) and at not in asked and uses[act.leaves] == 1
    }
    for at, act in acts.items():
        if isinstance(act, Prick):
            lines = [drawn[key] for key in (act.first, act.second) if key in drawn]
            if lines:
                yield lines[-1], at


def _lined_in_at_once(acts: Mapping[At, Act]) -> Iterator[tuple[At, At]]:
    """Yield the circles, arcs and straight lines that are drawn for one lining in alone, each with
    the act that does it."""
    uses = Counter(key for act in acts.values() for key in stands_on(act) if key)
    last = {key: at for at, act in acts.items() for key in leaves(act)}
    for at, act in acts.items():
        if not isinstance(act, GoOver) or len(act.pieces) != 1:
            continue
        piece = act.pieces[0]
        light = last.get(piece.thing)
        if light is None or uses[piece.thing] != 1:
            continue
        guest = acts[light]
        is_straight = isinstance(guest, Draw) and bool(piece.start and piece.end) and guest.end
        if isinstance(guest, Swing) or is_straight:
            yield light, at
