"""What is done at the board is what is needed: an act nothing stands on is left out, a line wanted
for one mark alone is held and not drawn, and what is lined in all the same is not drawn lightly
first."""

from __future__ import annotations

import math
from collections import Counter
from collections.abc import Iterator, Mapping, Sequence, Set
from dataclasses import replace
from itertools import accumulate
from typing import cast

from ..acts.act import (
    Act,
    Draw,
    Edge,
    Finish,
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
    Way,
)
from ..drawing.strokes import Role, Stroke
from ..geometry import Arc, Circle, Line, Loop, Point, Shape
from ..memo import MEMO, Memo, number_of, remembered
from ..sheet import Sheet
from ..solve import Solution
from ..tolerance import DIRECTION, same
from .kit import Kit
from .lacking import with_kit
from .order import Ordered, acts_of
from .schedule import leaves
from .together import regrouped

SPARED = cast(Memo[Ordered], MEMO)
"""Statements of which acts are left out, or done together with others."""

At = int
"""Where an act stands among all of the plan."""


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
    return tuple(map(_regrouped, spared(ordered)))


def _regrouped(own: Ordered) -> Ordered:
    """Return the acts of a statement with those that are alike one after another."""
    key = (_regrouped, own.serial)
    known = SPARED.get(key)
    if known is None:
        acts = tuple(regrouped(list(_both_marked(own.acts))))
        known = own if acts == own.acts else replace(own, acts=acts)
        SPARED.put(key, known, 1 + len(acts))
    return known


BEYOND = 1 / 60
"""How far a line is drawn beyond what stands on it, as a share of the sheet."""

A_ROW = 3
"""Lengths along one line from one mark for which the rule is laid once."""


def _laid(act: Measure) -> object:
    """Return how the rule lies for a length."""
    return act.start, act.way.off, act.ahead.dot(Point(1.0, 0.618)) > 0


def _both_marked(acts: Sequence[Act]) -> Iterator[Act]:
    """Yield acts, those that mark the two crossings of the same two things as such, and those that
    are ticks along one line."""
    pairs = Counter(
        frozenset((act.first, act.second)) for act in acts if isinstance(act, Prick) and act.pick
    )
    rows = Counter(_laid(act) for act in acts if isinstance(act, Measure) and act.way.off)
    for act in acts:
        if isinstance(act, Measure) and rows[_laid(act)] >= A_ROW:
            yield replace(act, row=True)
            continue
        if isinstance(act, Prick) and pairs[frozenset((act.first, act.second))] == 2:
            yield replace(act, both=True)
        else:
            yield act


def spared(ordered: Sequence[Ordered]) -> tuple[Ordered, ...]:
    """Return the acts of a plan without those that are done in vain, or may be done at once with
    others."""
    every = [act for own in ordered for act in own.acts]
    of = [index for index, own in enumerate(ordered) for _ in own.acts]
    stands = [keys for own in ordered for keys in own.stands]
    first = list(accumulate((len(own.acts) for own in ordered), initial=0))
    asked = {start + at for start, own in zip(first, ordered, strict=False) for at in _asked(own)}
    out = _in_vain(every, of, asked, stands)
    kept = {at: act for at, act in enumerate(every) if at not in out}
    uses: dict[Key, list[At]] = {}
    for at in kept:
        for key in stands[at]:
            uses.setdefault(key, []).append(at)
    guests = _held(kept, asked, uses) | _ticked(kept, uses) | dict(_lined_in_at_once(kept, uses))
    out |= set(guests.values())
    sizes = [own.size for own in ordered for _ in own.acts]
    places = {key: at for own in ordered for key, at in own.marked.items()}
    reaches = _as_far_as_wanted(kept, asked, uses, places, sizes)
    labels = {act.of: act.strokes[0].label for act in every if isinstance(act, Finish) and act.of}
    for at, act in reaches.items():
        every[at] = act
    return tuple(
        _rewritten(own, range(start, start + len(own.acts)), every, out, guests, (labels, reaches))
        for start, own in zip(first, ordered, strict=False)
    )


def _rewritten(
    own: Ordered,
    numbers: Sequence[At],
    acts: Sequence[Act],
    out: Set[At],
    guests: Mapping[At, At],
    changed: tuple[Mapping[Key, str], Mapping[At, Act]],
) -> Ordered:
    """Return a statement without the acts that are out, with guests in others, with marks lettered
    where they are made, and lines no longer than they are wanted."""
    labels, reaches = changed
    stay = [at for at in numbers if at not in out]
    hosted = {at: acts[guests[at]] for at in stay if at in guests}
    said = {at: labels[acts[at].leaves] for at in stay if acts[at].leaves in labels}
    cut = [at for at in stay if at in reaches]
    if len(stay) == len(numbers) and not hosted and not said and not cut:
        return own
    start = numbers[0]
    parts = (
        tuple((at - start, guest) for at, guest in hosted.items()),
        tuple((at - start, label) for at, label in said.items()),
        tuple((at - start, acts[at].strokes) for at in cut),
    )
    key = (spared, own.serial, tuple(at - start for at in stay), number_of(parts))
    known = SPARED.get(key)
    if known is not None:
        return known
    result = []
    for at in stay:
        act = _with_guest(acts[at], hosted[at]) if at in hosted else acts[at]
        result.append(_with_label(act, said[at]) if at in said else act)
    return SPARED.put(key, replace(own, acts=tuple(result)), 1 + len(stay))


Uses = Mapping[Key, Sequence[At]]
"""Which acts stand on each thing, in the order in which they are done."""


def _as_far_as_wanted(
    acts: Mapping[At, Act],
    asked: Set[At],
    uses: Uses,
    places: Mapping[Key, Point],
    sizes: Sequence[float],
) -> dict[At, Act]:
    """Return the lines without an end that are drawn for what stands on them alone, drawn no
    further than that: construction stays inside its own view."""
    result: dict[At, Act] = {}
    for at, act in acts.items():
        if not isinstance(act, Draw) or at in asked or act.planned is None:
            continue
        if act.planned.start is not None or act.planned.end is not None:
            continue
        spots: list[Point] = []
        wanted = [_wanted_of(acts[each], act.leaves, places) for each in uses.get(act.leaves, ())]
        for each in wanted:
            spots += each or ()
        if not spots or None in wanted:
            continue
        start = [places[act.start]] if act.start in places else []
        along = [act.planned.along(spot) for spot in (*spots, *start)]
        room = sizes[at] * BEYOND
        line = Line(
            act.planned.through, act.planned.direction, min(along) - room, max(along) + room
        )
        strokes = tuple(
            replace(each, shape=line) if each.shape == act.planned else each for each in act.strokes
        )
        result[at] = replace(act, strokes=strokes)
    return result


def _wanted_of(act: Act, key: Key, places: Mapping[Key, Point]) -> list[Point] | None:
    """Return the places of a line at which an act wants it; None where it may want any of it."""
    match act:
        case Measure(way=way, planned=at) if way.off == key:
            start = places.get(act.start)
            return [at] if start is None else [at, start]
        case Prick(planned=at) | Strip(planned=at):
            return [at]
        case StepOff(planned=spots):
            return list(spots)
        case Draw(way=Way() as way) if way.off == key:
            return []
        case _:
            return None


def _with_label(act: Act, label: str) -> Act:
    return replace(
        act,
        strokes=tuple(
            Stroke(stroke.shape, Role.POINT, label) if isinstance(stroke.shape, Point) else stroke
            for stroke in act.strokes
        ),
    )


def _with_guest(host: Act, guest: Act) -> Act:
    """Return an act with another done in the same go."""
    if isinstance(host, Prick) and isinstance(guest, Draw):
        reached = tuple(stroke for stroke in host.strokes if isinstance(stroke.shape, Point))
        return replace(host, held=guest, strokes=reached)
    if isinstance(host, Strip) and isinstance(guest, Measure):
        return replace(host, held=guest)
    assert isinstance(host, GoOver)
    assert isinstance(guest, Swing | Draw)
    return replace(host, drawn=guest, strokes=(*guest.strokes, *host.strokes))


@remembered()
def _asked(own: Ordered) -> tuple[int, ...]:
    """Return which acts draw what a statement is there for: what it says it makes, whatever nothing
    can be stood on, and curves."""
    made = own.entry.made
    shapes: dict[object, list[Shape]] = {}
    for shape in () if made is None else made.shapes:
        for each in _pieces(shape):
            shapes.setdefault(_about(each, own.size)[0], []).append(each)
    things = {thing.key: thing for thing in own.left}

    def is_shown(key: Key) -> bool:
        thing = things.get(key)
        return thing is not None and any(
            _is_of(thing, shape)
            for place in _about(_shape_of(thing), own.size)
            for shape in shapes.get(place, ())
        )

    return tuple(
        at
        for at, act in enumerate(own.acts)
        if act.wanted
        or not isinstance(act, Measure | Prick | Draw | Swing | StepOff | Strip)
        or any(map(is_shown, leaves(act)))
    )


COARSE = 1 / 1000
"""Size of the stretches by which shapes are looked up, as a share of the sheet, or of a radian."""


def _shape_of(thing: Thing) -> Shape | Loop:
    match thing:
        case Mark(at=at):
            return at
        case Edge(line=line):
            return line
        case Round(circle=circle):
            return circle
    return thing.loop


def _about(shape: Shape | Loop, size: float) -> list[object]:
    """Return where a shape lies, roughly: its own stretch, and those beside it."""
    match shape:
        case Point(x=x):
            sort, value = "mark", x / (size * COARSE)
        case Line(direction=direction):
            sort, value = "edge", direction.angle % math.pi / COARSE
        case Circle(centre=centre) | Arc(centre=centre):
            sort, value = "round", centre.x / (size * COARSE)
        case _:
            return ["curve"]
    turn = round(math.pi / COARSE)
    near = (round(value), round(value) - 1, round(value) + 1)
    return [(sort, each % turn if sort == "edge" else each) for each in near]


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


def _in_vain(
    acts: Sequence[Act], of: Sequence[int], asked: Set[At], stands: Sequence[Sequence[Key]]
) -> set[At]:
    """Return the acts whose results nothing that is done stands on, from the last one back; `of` is
    the statement of each."""
    wanted: set[Key] = set()
    out: set[At] = set()
    gone_over: dict[Key, int] = {}
    for at in reversed(range(len(acts))):
        act = acts[at]
        if isinstance(act, GoOver):
            # A curve of a diagram that a later line of the plan lines in as well.
            curves = [each.thing for each in act.pieces if isinstance(each.planned, Loop)]
            later = all(gone_over.get(thing, of[at]) > of[at] for thing in curves)
            if len(curves) == len(act.pieces) and later:
                out.add(at)
                continue
            for thing in curves:
                gone_over.setdefault(thing, of[at])
        if isinstance(act, Finish) and act.of:
            # The act that makes a mark letters it.
            out.add(at)
        elif at in asked or not wanted.isdisjoint(leaves(act)):
            wanted.update(stands[at])
        else:
            out.add(at)
    return out


def _held(acts: Mapping[At, Act], asked: Set[At], uses: Uses) -> dict[At, At]:
    """Return the acts that make a mark and each the line that is wanted for that mark alone, or for
    both where the same two things cross: the edge is laid there and ticks made across what it
    cuts."""
    result: dict[At, At] = {}
    for at, line in reversed(list(acts.items())):
        if not isinstance(line, Draw) or at in asked:
            continue
        marks = uses.get(line.leaves, [])
        pricks = [act for act in map(acts.__getitem__, marks) if isinstance(act, Prick)]
        one_pair = len({frozenset((each.first, each.second)) for each in pricks}) == 1
        if one_pair and len(pricks) == len(marks) and result.keys().isdisjoint(marks):
            result |= dict.fromkeys(marks, at)
    return result


def _ticked(acts: Mapping[At, Act], uses: Uses) -> dict[At, At]:
    """Return the places marked by a strip and each where its further tick is to lie, of which
    nothing else is wanted: the strip is slid along the axis."""
    result: dict[At, At] = {}
    for at, act in acts.items():
        marks = uses.get(act.leaves, []) if isinstance(act, Measure) else []
        if marks and all(isinstance(acts[each], Strip) for each in marks):
            result |= dict.fromkeys(marks, at)
    return result


def _lined_in_at_once(acts: Mapping[At, Act], uses: Uses) -> Iterator[tuple[At, At]]:
    """Yield the acts that line a single piece in, each with what drew it lightly for that alone."""
    last = {key: at for at, act in acts.items() for key in leaves(act)}
    for at, act in acts.items():
        if not isinstance(act, GoOver) or len(act.pieces) != 1:
            continue
        piece = act.pieces[0]
        light = last.get(piece.thing)
        if light is None or len(uses.get(piece.thing, ())) != 1:
            continue
        guest = acts[light]
        is_straight = isinstance(guest, Draw) and bool(piece.start and piece.end) and guest.end
        if isinstance(guest, Swing) or is_straight:
            yield at, light
