"""A plan drawn by many hands at once: how well its outline will close on paper, why, and what would
help.

Half of the hands, and nine in ten, are read off what they drew; shares come from the first order:
every error by itself, one for each hand, all in one pass."""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass

import numpy as np

from ..acts.act import Act, StepOff
from ..acts.names import plain
from ..board.economy import acts_at_board
from ..board.kit import Kit, default_kit
from ..board.schedule import Schedule, scheduled
from ..drawing.strokes import Role
from ..geometry import Arc, Circle, Loop, Point
from ..geometry.loop import boxed
from ..kind.figure import Family
from ..sheet import Sheet
from ..solve import Entry, Solution
from ..tolerance import DIRECTION, NOUGHT, assembled
from .carry_out import Board, DrawnLine, DrawnPiece, DrawnRound, Lining, carry_out
from .curve import DrawnCurve
from .hand import Hand
from .many import Hands, OneByOne, Places, Reals
from .other_ways import OtherWay, other_ways, template_holes

QUANTILE = 0.04
"""Standard error of what nine in ten of 500 hands stay under, as a share of it (simulated, see the
tests)."""

SURELY = 1.96
"""Standard errors within which 95 in 100 values lie."""


def worth(hands: int) -> float:
    """Return the share of a miss that another way has to save to be told: more than chance makes of
    two rehearsals of so many hands."""
    return SURELY * math.sqrt(2) * QUANTILE * math.sqrt(500 / hands)


CLOUD = 60
"""Hands whose places are shown at a join."""

HANDS = 500
"""Hands a plan is drawn by to start with."""

PENCIL = 0.5
"""Width of an outline, mm, under which a miss of half as much to each side is hidden."""


@dataclass(frozen=True, slots=True)
class Spread:
    """A miss on paper, mm: one standard deviation, what half the hands stay under, and nine in
    ten."""

    sigma: float
    half: float
    nine: float


@dataclass(frozen=True, slots=True)
class Share:
    """What one act has of the variance of a miss."""

    step: str
    share: float


@dataclass(frozen=True, slots=True)
class Instead:
    """Another way, rehearsed: what nine in ten of the hands stay under with it, and how much less
    that is, mm on paper at the scale of the sheet."""

    told: str
    nine: float
    gain: float


@dataclass(frozen=True, slots=True)
class Join:
    """Where two pieces of an outline meet, as the hands drew it.

    Attributes
    ----------
    outline, first, second : str
    place : Point
        Plan units.
    tangent : bool
    miss : Spread
        Across the outline where they run into each other, else between the two ends; mm on paper.
    kink : float
        One standard deviation of the angle between them where they should run into each other,
        degrees.
    hidden : float
        Share of the hands whose miss a pencil line hides.
    unmet : float
        Share of the hands for whom some crossing before did not come about.
    shares : tuple of Share
        The three acts that matter most.
    instead : tuple of Instead
        The best other ways, best first.
    """

    outline: str
    first: str
    second: str
    place: Point
    tangent: bool
    miss: Spread
    kink: float
    hidden: float
    unmet: float
    shares: tuple[Share, ...]
    instead: tuple[Instead, ...]


@dataclass(frozen=True, slots=True)
class Overall:
    """Something of an outline that is measured on paper, mm: a size over all, the place of a hole,
    what stepping round leaves; how far off it comes out, and the best other ways, best first.

    Attributes
    ----------
    outline : str
    way : str
        "level" or "plumb", "place", or "closing".
    told : str
        What it is, in words.
    size : float
    off : Spread
    instead : tuple of Instead
    """

    outline: str
    way: str
    told: str
    size: float
    off: Spread
    instead: tuple[Instead, ...] = ()


@dataclass(frozen=True, slots=True)
class Rehearsal:
    """What the hands drew.

    `clouds` holds, for each join, a few of the hands' places of it, plan units from where it should
    be."""

    hands: int
    seed: int
    joins: tuple[Join, ...]
    sizes: tuple[Overall, ...]
    clouds: tuple[tuple[complex, ...], ...]


@dataclass(frozen=True, slots=True)
class _Meeting:
    outline: str
    first: DrawnPiece
    second: DrawnPiece
    at: Point
    normal: complex
    tangent: bool


def rehearse(
    solution: Solution,
    sheet: Sheet,
    hands: int = HANDS,
    seed: int = 1,
    hand: Hand | None = None,
    kit: Kit | None = None,
    schedule: Schedule = "written",
) -> Rehearsal:
    """Rehearse a plan.

    Parameters
    ----------
    solution : Solution
    sheet : Sheet
        Its scale turns the hand's errors, in mm on paper, into plan units.
    hands : int
    seed : int
        The same seed gives the same answer.
    hand : Hand, optional
        The usual one where none is given.
    kit : Kit, optional
        What it is drawn with; the small kit of the plan's unit where none is given. Sizes are set
        to its graduations, holes of its template are used.
    schedule : str
        In which order.

    Returns
    -------
    Rehearsal
    """
    hand, kit = hand or Hand(), kit or default_kit(solution.unit)
    ordered = acts_at_board(solution, sheet, kit)
    written = [act for own in ordered for act in own.acts]
    names = [own.entry.statement.name for own in ordered for _ in own.acts]
    order = scheduled(written, schedule)
    acts, owners = [written[index] for index in order], [names[index] for index in order]
    rule, holes = float(kit.graduation * kit.unit.mm), template_holes(acts, kit, sheet)

    def drawn(by: Sequence[Act], lining: Lining = "rule") -> Board:
        return carry_out(by, Hands(hand, hands, seed, sheet.factor), lining, holes, rule)

    board = drawn(acts)
    loops = [each for own in ordered if own.entry.made for each in _named_loops(own.entry)]
    meetings = [meeting for name, loop in loops for meeting in _meetings(name, loop, board)]
    single, sources = _one_by_one(acts, hand, sheet.factor, holes)
    alone = [meeting for name, loop in loops for meeting in _meetings(name, loop, single)]
    things = {thing.key: thing for own in reversed(ordered) for thing in own.left}
    others = [(way, drawn(way.acts, way.lining)) for way in other_ways(acts, things, sheet)]
    other_meetings = [
        (way, [m for name, loop in loops for m in _meetings(name, loop, each)])
        for way, each in others
    ]
    met = board.unmet == 0
    joins, clouds = [], []
    for index, meeting in enumerate(meetings):
        miss = _miss(meeting) * sheet.factor
        spread = _spread(miss[met] if bool(np.any(met)) else miss)
        first_order = _miss(alone[index]) * sheet.factor
        instead = sorted(
            _instead(index, spread, other_meetings, sheet.factor, worth(hands)),
            key=lambda way: -way.gain,
        )
        joins.append(
            Join(
                meeting.outline,
                meeting.first.called,
                meeting.second.called,
                meeting.at,
                meeting.tangent,
                spread,
                math.degrees(float(np.std(_kink(meeting)))) if meeting.tangent else 0.0,
                float(np.mean(np.abs(miss) <= PENCIL / 2)),
                float(np.mean(~met)),
                tuple(_shares(first_order, sources, acts, owners))[:3],
                tuple(instead[:3]),
            )
        )
        clouds.append(
            tuple(
                complex(each)
                for each in _nearest_places(meeting)[:CLOUD] - complex(meeting.at.x, meeting.at.y)
            )
        )
    least = worth(hands)
    sizes = [
        *_sizes(loops, board, sheet.factor, others, least),
        *_closings(acts, owners, board, Hands(hand, hands, seed + 1, sheet.factor)),
    ]
    return Rehearsal(hands, seed, tuple(joins), tuple(sizes), tuple(clouds))


def _named_loops(entry: Entry) -> Iterator[tuple[str, Loop]]:
    """Yield the outlines a statement goes over, the members of a family by their own names."""
    made, name = entry.made, entry.statement.name
    assert made is not None
    labelled = made.shape.labelled if isinstance(made.shape, Family) else (("", made.shape),)
    for index, (label, shape) in enumerate(labelled):
        if made.lined is Role.OUTLINE and index not in made.standing and isinstance(shape, Loop):
            yield f"{name}.{label}".rstrip("."), shape


def _one_by_one(
    acts: Sequence[Act], hand: Hand, factor: float, holes: frozenset[float]
) -> tuple[Board, list[int]]:
    """Carry acts out by as many hands as there are errors, each of which makes one of them, and no
    other."""
    counting = OneByOne(hand, 1, factor)
    sources: list[int] = []
    board = Board(counting, holes=holes)
    for index, act in enumerate(acts):
        before = counting.drawn
        board.do(act)
        sources += [index] * (counting.drawn - before)
    each = OneByOne(hand, max(len(sources), 1), factor)
    return carry_out(acts, each, holes=holes), sources


def _meetings(name: str, loop: Loop, board: Board) -> Iterator[_Meeting]:
    """Find the pieces of an outline among what was gone over, and yield where they meet; inside a
    curve nowhere."""
    drawn = [(piece, board.gone_along(piece.curve)) for piece in loop.pieces]
    count = len(drawn)
    for index in range(count if loop.closed else count - 1):
        (one, first), (other, second) = drawn[index], drawn[(index + 1) % count]
        if first is None or second is None or first is second:
            continue
        at = one.exit
        before, after = one.direction(at), other.direction(at)
        yield _Meeting(
            name,
            first,
            second,
            at,
            1j * complex(before.x, before.y),
            abs(before.cross(after)) < DIRECTION and before.dot(after) > 0,
        )


def _miss(meeting: _Meeting) -> Reals:
    """Return by how much two pieces miss, plan units: across the outline, signed, where they run
    into each other; at a corner how far both ends, where the mark is carried square on to each, lie
    apart."""
    if meeting.tangent:
        at = complex(meeting.at.x, meeting.at.y)
        return _across(meeting.second, at, meeting.normal) - _across(
            meeting.first, at, meeting.normal
        )
    one, other = _end_on(meeting.first, meeting), _end_on(meeting.second, meeting)
    apart: Reals = np.abs(other - one)
    return apart


def _across(piece: DrawnPiece, at: complex, normal: complex) -> Reals:
    """Return how far a drawn piece lies from a place, along the normal of the outline there."""
    match piece.thing:
        case DrawnLine(at=start, ahead=ahead):
            off: Reals = (np.conj(ahead) * (at - start)).imag
            side = np.sign((np.conj(1j * ahead) * normal).real)
            beside: Reals = -off * side
            return beside
        case DrawnRound(centre=centre, radius=radius):
            out = at - centre
            side = np.sign((np.conj(out) * normal).real)
            beyond: Reals = (radius - np.abs(out)) * side
            return beyond
        case DrawnCurve() as curve:
            aside: Reals = (curve.displaced(Point(at.real, at.imag)) * np.conj(normal)).real
            return aside
    raise TypeError(piece.thing)


def _end_on(piece: DrawnPiece, meeting: _Meeting) -> Places:
    """Return where a piece ends at a join: its mark carried square on to what was drawn."""
    at = complex(meeting.at.x, meeting.at.y)
    found = [end for end in (piece.start, piece.end) if end is not None]
    mark = (
        min(found, key=lambda end: abs(complex(np.mean(end)) - at))
        if found
        else np.full(_count(piece), at)
    )
    match piece.thing:
        case DrawnLine(at=start, ahead=ahead):
            return start + ahead * (np.conj(ahead) * (mark - start)).real
        case DrawnRound(centre=centre, radius=radius):
            out = mark - centre
            return centre + out / np.maximum(np.abs(out), NOUGHT) * radius
        case DrawnCurve() as curve:
            return mark + curve.off if found else mark + curve.displaced(meeting.at)
    raise TypeError(piece.thing)


def _count(piece: DrawnPiece) -> int:
    """Return how many hands drew a piece."""
    match piece.thing:
        case DrawnLine(at=at):
            return len(at)
        case DrawnRound(centre=centre):
            return len(centre)
        case DrawnCurve(off=off):
            return len(off)


def _kink(meeting: _Meeting) -> Reals:
    """Return the angle between two pieces where they should run into each other, radians."""
    ways = []
    for piece in (meeting.first, meeting.second):
        match piece.thing:
            case DrawnLine(ahead=ahead):
                way = ahead
            case DrawnRound(centre=centre):
                way = 1j * (_end_on(piece, meeting) - centre)
            case DrawnCurve(off=off):
                way = np.full(len(off), -1j * meeting.normal)
        ways.append(way * np.where((np.conj(way) * (-1j * meeting.normal)).real < 0, -1.0, 1.0))
    return np.angle(ways[1] * np.conj(ways[0]))


def _nearest_places(meeting: _Meeting) -> Places:
    return (_end_on(meeting.first, meeting) + _end_on(meeting.second, meeting)) / 2


def _spread(values: Reals) -> Spread:
    half, nine = np.quantile(np.abs(values), (0.5, 0.9))
    return Spread(float(np.sqrt(np.mean(values**2))), float(half), float(nine))


def _shares(
    first_order: Reals, sources: Sequence[int], acts: Sequence[Act], owners: Sequence[str]
) -> Iterator[Share]:
    """Return what each act has of the variance, most first."""
    total = float(np.sum(first_order**2))
    if total == 0.0 or not sources:
        return
    each = np.zeros(len(acts))
    np.add.at(each, np.array(sources), first_order[: len(sources)] ** 2)
    for index in np.argsort(-each):
        if each[index] > 0:
            yield Share(
                f"{owners[index]}: {plain(acts[index].called)}".rstrip(": "),
                float(each[index]) / total,
            )


def _instead(
    index: int,
    spread: Spread,
    others: Sequence[tuple[OtherWay, Sequence[_Meeting]]],
    factor: float,
    least: float,
) -> Iterator[Instead]:
    """Yield the other ways with which nine in ten of the hands come closer."""
    for way, meetings in others:
        meeting = meetings[index]
        rounds = any(isinstance(piece.planned, Arc) for piece in (meeting.first, meeting.second))
        if rounds or not way.arcs_only:
            yield from _gained(way, spread, _miss(meeting) * factor, least)


def _gained(way: OtherWay, spread: Spread, off: Reals, least: float) -> Iterator[Instead]:
    nine = float(np.quantile(np.abs(off), 0.9))
    if nine < spread.nine * (1 - least):
        yield Instead(way.told, nine, spread.nine - nine)


def _sizes(
    loops: Sequence[tuple[str, Loop]],
    board: Board,
    factor: float,
    others: Sequence[tuple[OtherWay, Board]],
    least: float,
) -> Iterator[Overall]:
    """Yield how far off each outline comes out over all, level and plumb, or where a hole comes to,
    and what would help."""
    for name, loop in loops:
        hole = loop.pieces[0].curve if len(loop.pieces) == 1 else None
        if isinstance(hole, Circle):
            yield from _place(name, hole, board, factor, others, least)
            continue
        box = boxed(loop).box
        for way, axis, planned in (
            ("level", 1.0, box.high.x - box.low.x),
            ("plumb", -1j, box.high.y - box.low.y),
        ):
            off = _off_over_all(loop, board, axis, planned)
            if off is None:
                continue
            spread = _spread(off * factor)
            found: list[Instead] = []
            for other, drawn in others:
                otherwise = _off_over_all(loop, drawn, axis, planned)
                if otherwise is not None:
                    found += _gained(other, spread, otherwise * factor, least)
            found.sort(key=lambda each: -each.gain)
            words = f"over all, {way}: {planned * factor:.1f} mm"
            yield Overall(name, way, words, planned * factor, spread, tuple(found[:3]))


def _place(
    name: str,
    hole: Circle,
    board: Board,
    factor: float,
    others: Sequence[tuple[OtherWay, Board]],
    least: float,
) -> Iterator[Overall]:
    """Yield how far a hole comes to lie from its place."""

    def away(by: Board) -> Reals | None:
        gone = by.gone_along(hole)
        if gone is None or not isinstance(gone.thing, DrawnRound):
            return None
        result: Reals = np.abs(gone.thing.centre - complex(hole.centre.x, hole.centre.y)) * factor
        return result

    off = away(board)
    if off is None:
        return
    spread = _spread(off)
    result = [
        each
        for way, by in others
        if (otherwise := away(by)) is not None
        for each in _gained(way, spread, otherwise, least)
    ]
    result.sort(key=lambda each: -each.gain)
    size = 2 * hole.radius * factor
    yield Overall(name, "place", f"its place, Ø{size:.1f} mm", size, spread, tuple(result[:3]))


def _closings(
    acts: Sequence[Act], owners: Sequence[str], board: Board, more: Hands
) -> Iterator[Overall]:
    """Yield what is left, or lacking, where a circle was stepped round and one step more, with
    errors of its own, should come to the start."""
    for act, owner in zip(acts, owners, strict=True):
        along = board.things.get(act.along) if isinstance(act, StepOff) else None
        if not isinstance(act, StepOff) or not isinstance(along, DrawnRound):
            continue
        start, size = board.planned.get(act.start), float(act.setting.size)
        if not isinstance(start, Point) or not _comes_round(act, along, start, size):
            continue
        came = board.one_more(act, along, more)
        begun = board.mark(act.start) - along.centre
        off = np.angle((came - along.centre) * np.conj(begun)) * along.radius * more.factor
        words = f"closing after {len(act.marks) + 1} steps of {size * more.factor:.1f} mm"
        yield Overall(owner, "closing", words, size * more.factor, _spread(off))


def _comes_round(act: StepOff, along: DrawnRound, start: Point, size: float) -> bool:
    """Tell whether one step more comes to where the steps began."""
    radius = float(np.mean(along.radius))
    steps = len(act.marks) + 1
    if size >= 2 * radius or abs(abs(act.planned[-1] - start) - size) > assembled(size):
        return False
    return abs(steps * 2 * math.asin(size / (2 * radius)) - math.tau) < CLOSES


CLOSES = 0.05
"""Turn, radians, by which steps may miss coming round and be meant to (by eye)."""


def _off_over_all(loop: Loop, board: Board, axis: complex, planned: float) -> Reals | None:
    ends = [_extreme(loop, board, axis * sign) for sign in (1, -1)]
    return None if ends[0] is None or ends[1] is None else ends[0] + ends[1] - planned


def _extreme(loop: Loop, board: Board, axis: complex) -> Reals | None:
    """Return how far the drawn outline reaches in a direction, where the figure reaches
    furthest."""
    ahead = Point(axis.real, -axis.imag)
    best = max(
        (spot for piece in loop.pieces for spot in piece.outermost),
        key=lambda spot: spot.dot(ahead),
    )
    piece = next(p for p in loop.pieces if any(spot == best for spot in p.outermost))
    gone = board.gone_along(piece.curve)
    if gone is None:
        return None
    way = complex(ahead.x, ahead.y)
    match gone.thing:
        case DrawnCurve() as curve:
            came = complex(best.x, best.y) + curve.displaced(best)
            far: Reals = (came * np.conj(way)).real
            return far
        case DrawnRound(centre=centre, radius=radius) if best not in (piece.entry, piece.exit):
            reach: Reals = (centre * np.conj(way)).real + radius
            return reach
    meeting = _Meeting("", gone, gone, best, way, False)
    out: Reals = (_end_on(gone, meeting) * np.conj(way)).real
    return out
