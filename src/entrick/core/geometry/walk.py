"""Lining in: walking an outline along the pieces of a construction.

The drafter names the pieces in order. Where two of them touch the walk goes straight on; where they
cross it takes the shorter way, unless told otherwise.
"""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from itertools import product

from ..tolerance import same
from .loop import Loop, Piece
from .meet import Meeting, gap, meet
from .place import on_side
from .shapes import Arc, Circle, Curve, Line, Point, extremes, is_drawn_at, support


class WalkError(ValueError):
    """A walk that cannot be made. `stop` is the index of the piece where it fails, `place` where on the figure."""

    def __init__(self, message: str, stop: int, place: Point | None = None, spots: Sequence[Point] = ()) -> None:
        super().__init__(message)
        self.message = message
        self.stop = stop
        self.place = place
        self.spots = tuple(spots)


@dataclass(frozen=True, slots=True)
class Stop:
    """One piece of a walk as asked for.

    Attributes
    ----------
    curve : Line, Circle or Arc
    name : str
    way : str
        "cw", "ccw", "long", "short" or "" for the walk along this piece.
    via : Point or None
        A point the walk along this piece passes.
    side : tuple of str
        Words of place that pick where the walk comes onto this piece.
    at : Point or None
        The meeting at, or nearest to, this point is where the walk comes onto this piece.
    run : Loop or None
        Several pieces end to end that are walked as they are; `curve` is the first of them.
    """

    curve: Curve
    name: str
    way: str = ""
    via: Point | None = None
    side: tuple[str, ...] = ()
    at: Point | None = None
    run: Loop | None = None


MOST_RUNS = 8
"""Runs of pieces one walk may join: each may be walked either way."""


def walk(stops: Sequence[Stop], closed: bool = True) -> Loop:
    """Walk an outline along named pieces.

    Parameters
    ----------
    stops : sequence of Stop
        The pieces in order; a closed walk returns from the last to the first.
    closed : bool
        False for an open run, which begins and ends at the drawn ends of its outer pieces.

    Returns
    -------
    Loop

    Raises
    ------
    WalkError
        Where two pieces do not meet (with the distance), where several crossings fit, or where both ways
        round are equally long.
    """
    runs = [index for index, stop in enumerate(stops) if stop.run is not None]
    if len(runs) > MOST_RUNS:
        raise WalkError(f"at most {MOST_RUNS} runs are joined in one walk; join some of them first", runs[MOST_RUNS])
    if not runs:
        return _walked(stops, closed)[1]
    if len(stops) == 1:
        return _single_run(stops[0], closed)
    for index in runs:
        stop = stops[index]
        if stop.run is not None and stop.run.closed:
            names = " > ".join(piece.name for piece in stop.run.pieces[:3])
            raise WalkError(f"{stop.name} is closed: name the pieces the outline takes, such as {names}", index)
    best: tuple[Cost, Loop] | None = None
    refused: WalkError | None = None
    for turned in product((False, True), repeat=len(runs)):
        expanded = _expanded(stops, dict(zip(runs, turned, strict=True)))
        try:
            found = _walked(expanded, closed)
        except WalkError as error:
            refused = refused or error
            continue
        if best is None or found[0] < best[0]:
            best = found
    if best is None:
        assert refused is not None
        raise refused
    return best[1]


def _walked(stops: Sequence[Stop], closed: bool) -> tuple[Cost, Loop]:
    if len(stops) == 1:
        return (0, 0, 0.0), _single(stops[0], closed)
    joins = _joins(stops, closed)
    cost, ways = _ways(stops, joins, closed)
    return cost, Loop(ways, closed)


def _single_run(stop: Stop, closed: bool) -> Loop:
    run = stop.run
    assert run is not None
    if closed and not run.closed:
        if run.gap > same(abs(run.pieces[0].entry)) * 10:
            spots = (run.pieces[-1].exit, run.pieces[0].entry)
            raise WalkError(f"{stop.name} does not close: its ends are {run.gap:.4g} apart", 0, spots[0], spots)
        return Loop(run.pieces, True)
    return run if closed else Loop(run.pieces, run.closed)


def _expanded(stops: Sequence[Stop], turned: Mapping[int, bool]) -> list[Stop]:
    """Put the pieces of every run in the place of its stop, walked as drawn or the other way."""
    found: list[Stop] = []
    for index, stop in enumerate(stops):
        if stop.run is None:
            found.append(stop)
            continue
        pieces = (stop.run.reversed if turned[index] else stop.run).pieces
        for number, piece in enumerate(pieces):
            inner = 0 < number < len(pieces) - 1 and isinstance(piece.curve, Arc)
            found.append(
                Stop(
                    piece.curve,
                    piece.name,
                    via=piece.curve.middle if inner and isinstance(piece.curve, Arc) else None,
                    side=stop.side if number == 0 else (),
                    at=piece.entry if number else stop.at,
                )
            )
    return found


def _single(stop: Stop, closed: bool) -> Loop:
    if isinstance(stop.curve, Circle):
        place = stop.curve.at(0)
        return Loop((Piece(stop.curve, stop.name, place, place),), True)
    ends = _ends(stop, 0)
    piece = Piece(stop.curve, stop.name, *ends)
    if closed:
        raise WalkError(
            f"{stop.name} does not close: its ends are {abs(ends[1] - ends[0]):.4g} apart", 0, ends[1], ends
        )
    return Loop((piece,), False)


def _ends(stop: Stop, index: int) -> tuple[Point, Point]:
    match stop.curve:
        case Arc() as arc:
            return arc.first, arc.last
        case Line() as line if line.start is not None:
            first, last = extremes(line)
            return first, last
    raise WalkError(f"an open run cannot begin or end on {stop.name}: it has no ends", index)


def _joins(stops: Sequence[Stop], closed: bool) -> list[Meeting]:
    """Choose where the walk goes over from each piece to the next."""
    count = len(stops) if closed else len(stops) - 1
    choices = [_meetings(stops, index, (index + 1) % len(stops)) for index in range(count)]
    if len(stops) == 2 and closed:
        return _two_pieces(stops, choices)
    settled: set[int] = set()
    while True:
        known = [i for i, found in enumerate(choices) if len(found) == 1 and i not in settled]
        if not known:
            break
        for index in known:
            settled.add(index)
            neighbours = ((index - 1) % count, (index + 1) % count) if closed else (index - 1, index + 1)
            for other in (n for n in neighbours if 0 <= n < count):
                if len(choices[other]) > 1:
                    taken = choices[index][0].point
                    rest = [m for m in choices[other] if abs(m.point - taken) > same(abs(taken)) * 10]
                    choices[other] = rest or choices[other]
    for index, found in enumerate(choices):
        if len(found) > 1:
            nxt = (index + 1) % len(stops)
            raise WalkError(
                f"{stops[index].name} and {stops[nxt].name} cross at {len(found)} places: "
                f"say which, such as {stops[nxt].name} {_word_for(found)}, or at a named point",
                nxt,
                found[0].point,
                [m.point for m in found],
            )
    return [found[0] for found in choices]


def _two_pieces(stops: Sequence[Stop], choices: list[list[Meeting]]) -> list[Meeting]:
    onward, back = choices
    for first in onward:
        for second in back:
            if abs(first.point - second.point) > same(abs(first.point)) * 10:
                return [first, second]
    raise WalkError(
        f"{stops[0].name} and {stops[1].name} meet at one place only, so a walk along both does not close",
        1,
        onward[0].point,
    )


def _word_for(found: Sequence[Meeting]) -> str:
    spots = [m.point for m in found]
    return next((word for word in ("upper", "left") if len(on_side(spots, word)) == 1), "upper")


def _meetings(stops: Sequence[Stop], here: int, there: int) -> list[Meeting]:
    first, second = stops[here], stops[there]
    found = list(meet(first.curve, second.curve))
    if not found:
        shared = _shared_end(first.curve, second.curve)
        if shared is not None:
            return [Meeting(shared, True)]
        miss, place = gap(first.curve, second.curve)
        if miss <= same(1.0):
            raise WalkError(f"{first.name} and {second.name} lie on the same line or circle", there, place)
        raise WalkError(f"{first.name} and {second.name} do not meet: they miss by {miss:.4g}", there, place)
    if second.at is not None:
        target = second.at
        return [min(found, key=lambda m: abs(m.point - target))]
    for word in second.side:
        found = [found[i] for i in on_side([m.point for m in found], word)]
    if second.side:
        return found
    drawn = [m for m in found if is_drawn_at(first.curve, m.point) and is_drawn_at(second.curve, m.point)]
    return drawn or found


def _shared_end(first: Curve, second: Curve) -> Point | None:
    """Return where two pieces of the same line or circle hand over to each other."""
    ends = [extremes(curve)[:2] if not isinstance(curve, Circle) else () for curve in (first, second)]
    pairs = ((a, b) for a in ends[0] for b in ends[1])
    return next((a for a, b in pairs if abs(a - b) <= same(max(abs(a), 1.0)) * 10), None)


def _options(stop: Stop, entry: Point, exit_: Point) -> list[Piece]:
    """Return the ways along one piece: one on a line, round either way on a circle."""
    whole = support(stop.curve)
    if isinstance(whole, Line):
        if abs(exit_ - entry) <= same(abs(entry)):
            return [Piece(whole, stop.name, entry, exit_)]
        return [Piece(Line.between(entry, exit_), stop.name, entry, exit_)]
    start = (entry - whole.centre).angle
    turn = ((exit_ - whole.centre).angle - start) % math.tau
    both = [
        Piece(Arc(whole.centre, whole.radius, start, sweep, whole.exact), stop.name, entry, exit_)
        for sweep in (turn, turn - math.tau)
    ]
    if stop.via is not None:
        via = whole.centre + (stop.via - whole.centre).unit * whole.radius
        both = [p for p in both if is_drawn_at(p.curve, via)] or both
    match stop.way:
        case "ccw":
            return both[:1]
        case "cw":
            return both[1:]
        case "long":
            return [max(both, key=lambda p: p.length)]
        case "short":
            return [min(both, key=lambda p: p.length)]
    return both


Cost = tuple[int, int, float]


def _cost(stop: Stop, piece: Piece) -> Cost:
    off = 0
    if isinstance(stop.curve, Arc) and isinstance(piece.curve, Arc):
        off = 0 if is_drawn_at(stop.curve, piece.curve.middle) else 1
    return (0, off, piece.length)


def _add(first: Cost, second: Cost) -> Cost:
    return (first[0] + second[0], first[1] + second[1], first[2] + second[2])


def _ways(stops: Sequence[Stop], joins: list[Meeting], closed: bool) -> tuple[Cost, tuple[Piece, ...]]:
    """Choose the way along every piece so that the walk doubles back least, keeps to drawn arcs, and is short."""
    points = [m.point for m in joins]
    if closed:
        entries, exits = [points[-1], *points[:-1]], points
    else:
        entries = [_far_end(stops[0], 0, points[0]), *points]
        exits = [*points, _far_end(stops[-1], len(stops) - 1, points[-1])]
    options = [_options(stop, a, b) for stop, a, b in zip(stops, entries, exits, strict=True)]
    _refuse_equal_ways(stops, joins, options, closed)

    best: tuple[Cost, tuple[Piece, ...]] | None = None
    for opening in options[0]:
        runs: list[tuple[Cost, tuple[Piece, ...]]] = [(_cost(stops[0], opening), (opening,))]
        for index in range(1, len(stops)):
            join = joins[index - 1]
            runs = [
                min(
                    (
                        (_add(cost, _add(_cost(stops[index], piece), _doubling(run[-1], piece, join))), (*run, piece))
                        for cost, run in runs
                    ),
                    key=lambda entry: entry[0],
                )
                for piece in options[index]
            ]
        for cost, run in runs:
            total = _add(cost, _doubling(run[-1], opening, joins[-1])) if closed else cost
            if best is None or total < best[0]:
                best = (total, run)
    assert best is not None
    return best


def _doubling(before: Piece, after: Piece, join: Meeting) -> Cost:
    if join.touch and before.direction(join.point).dot(after.direction(join.point)) < 0:
        return (1, 0, 0.0)
    return (0, 0, 0.0)


def _far_end(stop: Stop, index: int, join: Point) -> Point:
    return max(_ends(stop, index), key=lambda end: abs(end - join))


def _refuse_equal_ways(stops: Sequence[Stop], joins: list[Meeting], options: list[list[Piece]], closed: bool) -> None:
    for index, (stop, ways) in enumerate(zip(stops, options, strict=True)):
        around = {index - 1, index} if not closed else {(index - 1) % len(joins), index}
        if any(joins[j].touch for j in around if 0 <= j < len(joins)) or not isinstance(stop.curve, Circle):
            continue
        if len(ways) == 2 and abs(ways[0].length - ways[1].length) <= same(ways[0].length) * 10:
            raise WalkError(
                f"both ways round {stop.name} are equally long: say {stop.name} cw, {stop.name} ccw or via a point",
                index,
                stop.curve.centre,
            )
