"""Lining in: walking an outline along the pieces of a construction.

The drafter names the pieces in order. Where two of them touch the walk goes straight on; where they
cross it takes the shorter way, unless told otherwise.
"""

from __future__ import annotations

import math
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from itertools import pairwise, product
from typing import NamedTuple

from ..tolerance import TOUCHING, same, surely_two, worked
from .loop import Loop, Piece
from .meet import Meeting, gap, meet
from .partial import Place, between, jointed, places_on
from .place import SIDES, on_sides
from .shapes import Arc, Circle, Curve, Line, Point, extremes, is_drawn_at, support
from .transform import rotate


class Unsettled(NamedTuple):
    """Where words have to choose: at which stop, what is said of it, and the words for each way
    with where it leads.

    Of two pieces that cross at several places `crossing` names both, and `told` is an example of
    what to say; not every one of the places need have words."""

    stop: int
    told: str
    ways: tuple[tuple[str, Point | Curve], ...]
    crossing: str = ""
    places: int = 0


class WalkError(ValueError):
    """A walk that cannot be made. `stop` is the index of the piece where it fails, `place` where on
    the figure; `unsettled` is all that words would choose."""

    def __init__(
        self,
        message: str,
        stop: int,
        place: Point | None = None,
        spots: Sequence[Point] = (),
        unsettled: Sequence[Unsettled] = (),
    ) -> None:
        super().__init__(message)
        self.message = message
        self.stop = stop
        self.place = place
        self.spots = tuple(spots)
        self.unsettled = tuple(unsettled)

    def of_first(self, count: int) -> WalkError:
        """Return the same of a walk that repeats its first stops: each of them told once."""
        each = {unsettled.stop % count: unsettled for unsettled in reversed(self.unsettled)}
        if not each:
            return self
        return _undecided([each[stop]._replace(stop=stop) for stop in sorted(each)])


def _undecided(unsettled: Sequence[Unsettled]) -> WalkError:
    """Return one error for all that words have to choose."""
    spots = [what for each in unsettled for _, what in each.ways if isinstance(what, Point)]
    crossings = [each for each in unsettled if each.crossing]
    told = [each.told for each in unsettled if not each.crossing]
    if crossings:
        first, *others = crossings
        so = f", so do {', '.join(each.crossing for each in others)}" if others else ""
        such = f", such as  {first.told}  " if first.told else " "
        told.insert(
            0,
            f"{first.crossing} cross at {first.places} places{so}: say which{such}or at a named "
            "point",
        )
    return WalkError(
        "; ".join(told), unsettled[0].stop, spots[0] if spots else None, spots, unsettled
    )


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
    lined : str
        As what the run has been gone over before; empty where it has not.
    """

    curve: Curve
    name: str
    way: str = ""
    via: Point | None = None
    side: tuple[str, ...] = ()
    at: Point | None = None
    run: Loop | None = None
    lined: str = ""


MOST_RUNS = 8
"""Runs of pieces one walk may join: each may be walked either way."""


def turned(stops: Sequence[Stop], count: int, centre: Point, clockwise: bool = False) -> list[Stop]:
    """Return the stops of a walk that goes along the same pieces again and again, equally spaced
    about a centre: from one place to the next counter-clockwise, or clockwise. A piece is numbered
    by its place either way.

    Raises
    ------
    WalkError
        Where a stop is a closed run, which does not say what of it comes again.
    """
    for index, stop in enumerate(stops):
        if stop.run is not None and stop.run.closed:
            raise WalkError(
                f"{stop.name} is closed: name the piece of it that is walked, such as "
                f"{stop.name}.1",
                index,
            )

    def at(stop: Stop, number: int) -> Stop:
        angle = math.tau * number / count
        run = rotate(stop.run, centre, angle) if stop.run else None
        assert run is None or isinstance(run, Loop)
        if run is not None:
            run = Loop(
                tuple(replace(p, name=f"{p.name}.{number + 1}") for p in run.pieces), run.closed
            )
        return replace(
            stop,
            curve=rotate(stop.curve, centre, angle),
            name=f"{stop.name}.{number + 1}",
            via=rotate(stop.via, centre, angle) if stop.via is not None else None,
            at=rotate(stop.at, centre, angle) if stop.at is not None else None,
            run=run,
        )

    places = range(count - 1, 0, -1) if clockwise else range(1, count)
    return [*stops, *(at(stop, number) for number in places for stop in stops)]


MOST_WAYS = 4096
"""Ways of going round that are looked through for the one that goes onward all the time."""


def pinned(
    stops: Sequence[Stop], count: int, centre: Point, clockwise: bool = False, onward: bool = False
) -> list[Stop]:
    """Return the stops of a walk that is repeated about a centre with a point in the place of words
    of place, which speak of the first place and do not turn with the pieces.

    Where `onward`, crossings that nothing was said of are chosen, too, if there is one way only
    that goes onward round the centre all the time, and not farther than to the next place.
    """
    step = (-math.tau if clockwise else math.tau) / count
    before = [rotate_stop(stops[-1], centre, -step), *stops[:-1]]
    spots: list[list[Point]] = []
    for index, (last, stop) in enumerate(zip(before, stops, strict=True)):
        found = [] if last.run or stop.run or stop.at else _crossed(last, stop)
        if stop.side:
            found = [found[at] for at in _said(stop, found, index)]
            if len(found) != 1:
                message = f"{' '.join(stop.side)} does not turn with the pieces"
                raise WalkError(f"{message}: say at which point it comes onto {stop.name}", index)
        spots.append(found)
    if onward:
        ways = _onward(spots, centre, step)
        spots = [[each] for each in ways] if ways else spots
    return [
        replace(stop, side=(), at=found[0])
        if len(found) == 1 and (stop.side or onward) and stop.run is None
        else stop
        for stop, found in zip(stops, spots, strict=True)
    ]


def rotate_stop(stop: Stop, centre: Point, angle: float) -> Stop:
    """Return a stop of single curve turned about a centre."""
    return replace(stop, curve=rotate(stop.curve, centre, angle)) if stop.run is None else stop


def _crossed(first: Stop, second: Stop) -> list[Point]:
    return [meeting.point for meeting in meet(first.curve, second.curve)]


def _onward(spots: Sequence[Sequence[Point]], centre: Point, step: float) -> tuple[Point, ...]:
    """Return the one choice of places that goes onward about a centre, by less than a step from the
    first to the last; nothing where there is none, or several."""
    if not all(spots) or math.prod(map(len, spots)) > MOST_WAYS:
        return ()
    sense, found = math.copysign(1.0, step), []
    for way in product(*spots):
        if any(abs(after - before) <= worked(abs(after)) for before, after in pairwise(way)):
            continue
        angles = [(spot - centre).angle for spot in way]
        turns = [
            math.remainder(sense * (after - before), math.tau) for before, after in pairwise(angles)
        ]
        if min(turns, default=0.0) > -TOUCHING and sum(turns) < abs(step) - TOUCHING:
            found.append(way)
    return found[0] if len(found) == 1 else ()


def walk(stops: Sequence[Stop], closed: bool = True, period: int = 0) -> Loop:
    """Walk an outline along named pieces.

    Parameters
    ----------
    stops : sequence of Stop
        The pieces in order; a closed walk returns from the last to the first.
    closed : bool
        False for an open run, which begins and ends at the drawn ends of its outer pieces.
    period : int
        After how many stops the walk repeats itself, see `turned`; 0 where it does not. Every
        repeat goes the same way.

    Returns
    -------
    Loop

    Raises
    ------
    WalkError
        Where two pieces do not meet (with the distance), where several crossings fit, or where both
        ways round are equally long.
    """
    runs = [
        index for index, stop in enumerate(stops[: period or len(stops)]) if stop.run is not None
    ]
    if len(runs) > MOST_RUNS:
        raise WalkError(
            f"at most {MOST_RUNS} runs are joined in one walk; join some of them first",
            runs[MOST_RUNS],
        )
    if not runs:
        return _walked(stops, closed)[1]
    if len(stops) == 1:
        return _single_run(stops[0], closed)
    ways = [_either_way(stops, index, closed) for index in runs]
    best: tuple[Cost, Loop] | None = None
    refused: WalkError | None = None
    for chosen in product(*ways):
        every = _every(stops, dict(zip(runs, chosen, strict=True)), period)
        try:
            found = _walked(_expanded(stops, every), closed)
        except WalkError as error:
            refused = refused or _as_said(error, stops, every)
            continue
        if best is None or _is_less(found[0], best[0]):
            best = found
    if best is None:
        assert refused is not None
        raise refused
    return best[1]


def _is_less(cost: Cost, best: Cost) -> bool:
    """Tell whether one way costs less than another, and not by rounding alone: of two that are as
    good the first is taken, however the figure stands."""
    close = worked(abs(best[2]))
    return (*cost[:2], cost[2] + close) < best


def _as_said(error: WalkError, stops: Sequence[Stop], runs: Mapping[int, Loop]) -> WalkError:
    """Return an error in a walk whose runs were put in piece by piece, by the stops that were
    said."""
    begun = [
        (index, number == 0)
        for index, stop in enumerate(stops)
        for number in range(len(runs[index].pieces) if stop.run is not None else 1)
    ]
    said = []
    for each in error.unsettled:
        index, first = begun[each.stop]
        # Words behind a run say where the walk comes onto it, and nothing of the way along its
        # pieces.
        sayable = stops[index].run is None or (first and each.ways[0][0] not in ("cw", "ccw"))
        said.append(each._replace(stop=index, ways=each.ways if sayable else ()))
    return WalkError(error.message, begun[error.stop][0], error.place, error.spots, said)


def _every(stops: Sequence[Stop], first: Mapping[int, Loop], period: int) -> Mapping[int, Loop]:
    """Return the way along every run of a walk that repeats itself, from those along the runs of
    the first period."""
    if not period:
        return first
    result = {}
    for index, stop in enumerate(stops):
        if stop.run is not None:
            as_drawn = first[index % period] is stops[index % period].run
            result[index] = stop.run if as_drawn else stop.run.reversed
    return result


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
        if run.gap > worked(abs(run.pieces[0].entry)):
            spots = (run.pieces[-1].exit, run.pieces[0].entry)
            raise WalkError(
                f"{stop.name} does not close: its ends are {run.gap:.4g} apart", 0, spots[0], spots
            )
        return Loop(run.pieces, True)
    return run if closed else Loop(run.pieces, run.closed)


def _either_way(stops: Sequence[Stop], index: int, closed: bool) -> tuple[Loop, ...]:
    """Return the two ways along a run: as drawn or back; of a closed one, the two parts between its
    neighbours."""
    stop = stops[index]
    assert stop.run is not None
    if not stop.run.closed:
        return stop.run, stop.run.reversed
    count = len(stops)
    neighbours = (stops[index - 1], stops[(index + 1) % count])
    ends = [
        end
        for other in neighbours
        if not other.run and not isinstance(other.curve, Circle)
        for end in extremes(other.curve)[:2]
    ]
    stop = replace(stop, run=jointed(stop.run, ends))
    assert stop.run is not None
    if not closed and index in (0, count - 1):
        raise WalkError(f"an open run cannot begin or end on {stop.name}: it has no ends", index)
    after = (index + 1) % count
    entries = _spots(stop, stops[index - 1], stop, index)
    exits = _spots(stop, stops[after], stops[after], after)
    apart = surely_two(abs(entries[0][1]))
    pairs = [(a, b) for a in entries for b in exits if abs(a[1] - b[1]) > apart]
    if not pairs:
        raise WalkError(
            f"the walk comes onto {stop.name} and leaves it at the same place", index, entries[0][1]
        )
    if len(pairs) > (2 if count == 2 else 1):
        several, at = (entries, index) if len(entries) > 1 else (exits, after)
        raise WalkError(
            f"{stop.name} is met at {len(several)} places: say which, such as {stops[at].name} "
            "upper, "
            "or at a named point",
            at,
            several[0][1],
            [spot for _, spot in several],
        )
    # Two closed curves that cross twice: the second is walked back to where the first began.
    pairs.sort(key=lambda pair: (round(pair[0][1].x, 6), round(pair[0][1].y, 6)))
    entry, exit_ = pairs[0] if index == 0 else pairs[-1]
    back = between(stop.run, exit_, entry).reversed
    both = (between(stop.run, entry, exit_), back)
    if stop.way in ("ccw", "cw"):
        onward = (stop.run.area > 0) == (stop.way == "ccw")
        return both[:1] if onward else both[1:]
    if stop.via is not None:
        via = stop.via
        return (min(both, key=lambda part: part.distance(via)),)
    if stop.way:
        return ((max if stop.way == "long" else min)(both, key=lambda part: part.length),)
    return both


def _spots(stop: Stop, neighbour: Stop, coming: Stop, index: int) -> list[Place]:
    """Return where a closed run is met by its neighbour, as far as words leave a choice."""
    assert stop.run is not None
    curves = [piece.curve for piece in neighbour.run.pieces] if neighbour.run else [neighbour.curve]
    found = places_on(stop.run, curves)
    if not found and neighbour.run is None:
        found = places_on(stop.run, curves, whole=True)
    if not found:
        miss, place = min(
            (gap(piece.curve, curve) for piece in stop.run.pieces for curve in curves),
            key=lambda pair: pair[0],
        )
        raise WalkError(_apart(stop.name, neighbour.name, miss), index, place)
    if coming.at is not None:
        target = coming.at
        return [min(found, key=lambda place: abs(place[1] - target))]
    return [found[i] for i in _said(coming, [spot for _, spot in found], index)]


def _apart(first: str, second: str, miss: float) -> str:
    """Tell of two pieces that do not meet what goes between them."""
    return (
        f"{first} and {second} do not meet: they miss by {miss:.4g}; what leads from one to the "
        f"other stands between them, such as a line or an arc  touching {first}, touching {second}"
    )


def _said(stop: Stop, spots: Sequence[Point], index: int) -> list[int]:
    """Return which of several spots lie as the words behind a stop say.

    Raises
    ------
    WalkError
        Where none does.
    """
    left = on_sides(spots, stop.side)
    if spots and not left:
        raise WalkError(f"nothing of {stop.name} lies {' '.join(stop.side)} there", index, spots[0])
    return left


def _expanded(stops: Sequence[Stop], chosen: Mapping[int, Loop]) -> list[Stop]:
    """Put the pieces of every run in the place of its stop, walked the way that is tried."""
    result: list[Stop] = []
    leaving: Point | None = None
    for index, stop in enumerate(stops):
        if stop.run is None:
            result.append(stop if leaving is None or stop.at else replace(stop, at=leaving))
            leaving = None
            continue
        pieces = chosen[index].pieces
        cut = stop.run.closed
        for number, piece in enumerate(pieces):
            inner = (cut or 0 < number < len(pieces) - 1) and isinstance(piece.curve, Arc)
            result.append(
                Stop(
                    piece.curve,
                    piece.name,
                    via=piece.curve.middle if inner and isinstance(piece.curve, Arc) else None,
                    side=stop.side if number == 0 else (),
                    at=piece.entry if number or cut else stop.at or leaving,
                )
            )
        leaving = pieces[-1].exit if cut else None
    if leaving is not None and result[0].at is None:
        result[0] = replace(result[0], at=leaving)
    return result


def _single(stop: Stop, closed: bool) -> Loop:
    if isinstance(stop.curve, Circle):
        place = stop.curve.at(0)
        return Loop((Piece(stop.curve, stop.name, place, place),), True)
    ends = _ends(stop, 0)
    piece = Piece(stop.curve, stop.name, *ends)
    if closed:
        raise WalkError(
            f"{stop.name} does not close: its ends are {abs(ends[1] - ends[0]):.4g} apart",
            0,
            ends[1],
            ends,
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
            neighbours = (
                ((index - 1) % count, (index + 1) % count) if closed else (index - 1, index + 1)
            )
            for other in (n for n in neighbours if 0 <= n < count):
                if len(choices[other]) > 1:
                    taken = choices[index][0].point
                    rest = [m for m in choices[other] if abs(m.point - taken) > worked(abs(taken))]
                    choices[other] = rest or choices[other]
    several = [
        _which_crossing(stops, index, (index + 1) % len(stops), found)
        for index, found in enumerate(choices)
        if len(found) > 1
    ]
    if several:
        raise _undecided(several)
    return [found[0] for found in choices]


def _which_crossing(
    stops: Sequence[Stop], here: int, there: int, found: Sequence[Meeting]
) -> Unsettled:
    spots = [meeting.point for meeting in found]
    worded = [
        (words, spot) for index, spot in enumerate(spots) if (words := _words_for(spots, index))
    ]
    worded.sort(key=lambda way: list(SIDES).index(way[0].split()[0]))
    first, second = stops[here].name, stops[there].name
    # The word stands behind the piece the walk comes onto: at a closing, behind the first.
    said = f"{second} {worded[0][0]}" if worded else ""
    such = f"{said} > …" if there == 0 else f"… > {said}"
    such = such if said else ""
    return Unsettled(there, such, tuple(worded), f"{first} and {second}", len(found))


def _words_for(spots: Sequence[Point], index: int) -> str:
    """Return the fewest words of place that single one spot out; empty where two do not."""
    sides = ("upper", "lower", "left", "right")
    for words in (*((word,) for word in sides), *product(sides[:2], sides[2:])):
        if on_sides(spots, words) == [index]:
            return " ".join(words)
    return ""


def _two_pieces(stops: Sequence[Stop], choices: list[list[Meeting]]) -> list[Meeting]:
    onward, back = choices
    for first in onward:
        for second in back:
            if abs(first.point - second.point) > worked(abs(first.point)):
                return [first, second]
    raise WalkError(
        f"{stops[0].name} and {stops[1].name} meet at one place only, so a walk along both does "
        "not close",
        1,
        onward[0].point,
    )


def _meetings(stops: Sequence[Stop], here: int, there: int) -> list[Meeting]:
    first, second = stops[here], stops[there]
    meetings = list(meet(first.curve, second.curve))
    if not meetings:
        shared = _shared_end(first.curve, second.curve)
        if shared is not None:
            return [Meeting(shared, True)]
        miss, place = gap(first.curve, second.curve)
        if miss <= same(1.0):
            raise WalkError(
                f"{first.name} and {second.name} lie on the same line or circle", there, place
            )
        raise WalkError(_apart(first.name, second.name, miss), there, place)
    if second.at is not None:
        target = second.at
        return [min(meetings, key=lambda m: abs(m.point - target))]
    meetings = [meetings[i] for i in _said(second, [m.point for m in meetings], there)]
    if second.side:
        return meetings
    drawn = [
        m
        for m in meetings
        if is_drawn_at(first.curve, m.point) and is_drawn_at(second.curve, m.point)
    ]
    return drawn or meetings


def _shared_end(first: Curve, second: Curve) -> Point | None:
    """Return where two pieces of the same line or circle hand over to each other."""
    ends = [
        extremes(curve)[:2] if not isinstance(curve, Circle) else () for curve in (first, second)
    ]
    pairs = ((a, b) for a in ends[0] for b in ends[1])
    return next((a for a, b in pairs if abs(a - b) <= worked(max(abs(a), 1.0))), None)


def _options(stop: Stop, entry: Point, exit_: Point) -> list[Piece]:
    """Return the ways along one piece: one on a line, round either way on a circle."""
    whole = support(stop.curve)
    if isinstance(whole, Line):
        if abs(exit_ - entry) <= same(abs(entry)):
            # The walk only touches it here: a piece of no length, not a line without ends.
            return [Piece(Line(entry, whole.direction, 0.0, 0.0), stop.name, entry, exit_)]
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
    if stop.way in ("long", "short") and abs(both[0].length - both[1].length) <= worked(
        both[0].length
    ):
        return both
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


STRAIGHT_BACK = 0.9999
"""Cosine beyond which a walk turns straight back: a line touches a curve drawn by many arcs only
nearly."""

Cost = tuple[int, int, float]
"""How often a walk doubles back, how many pieces leave what is drawn, how long it is."""


@dataclass(frozen=True, slots=True)
class _Way:
    """One way along a piece: what it costs alone, and where it heads as it begins and ends."""

    piece: Piece
    off: int
    long: float
    sets_out: Point
    arrives: Point


def _way(stop: Stop, piece: Piece) -> _Way:
    off = 0
    if isinstance(stop.curve, Arc) and isinstance(piece.curve, Arc):
        off = 0 if is_drawn_at(stop.curve, piece.curve.middle) else 1
    elif isinstance(stop.curve, Line) and stop.curve.start is not None:
        # Of the two ways along a run the one that joins its neighbours at its ends is meant.
        off = sum(not is_drawn_at(stop.curve, end) for end in (piece.entry, piece.exit))
    return _Way(piece, off, piece.length, piece.direction(piece.entry), piece.direction(piece.exit))


def _ways(
    stops: Sequence[Stop], joins: list[Meeting], closed: bool
) -> tuple[Cost, tuple[Piece, ...]]:
    """Choose the way along every piece so that the walk doubles back least, keeps to drawn arcs,
    and is short."""
    points = [m.point for m in joins]
    if closed:
        begun = [([points[-1], *points[:-1]], points)]
    else:
        begun = [
            ([first, *points], [*points, last])
            for first in _outer_ends(stops, 0, joins[0])
            for last in _outer_ends(stops, len(stops) - 1, joins[-1])
        ]
    found = []
    for entries, exits in begun:
        options = [_options(stop, a, b) for stop, a, b in zip(stops, entries, exits, strict=True)]
        ways = [
            [_way(stop, piece) for piece in pieces]
            for stop, pieces in zip(stops, options, strict=True)
        ]
        found.append((_cheapest(joins, ways, closed), options, ways))
    # Of runs that double back as little, the one between the farther ends is meant.
    best, options, ways = min(found, key=lambda each: each[0][0][:2])
    unsettled = [
        *_equal_ways(stops, joins, options, closed),
        *_smooth_both_ways(stops, joins, ways, best[1], closed),
    ]
    if unsettled:
        raise _undecided(unsettled)
    return best[0], tuple(way.piece for way in best[1])


def _cheapest(joins: Sequence[Meeting], ways: Sequence[Sequence[_Way]], closed: bool) -> _Run:
    """Return the run of ways along all pieces that costs least."""
    # Every run ends on its way along the piece before, so the cheapest run to each way is enough.
    best: _Run | None = None
    for opening in ways[0]:
        runs: list[_Run] = [((0, opening.off, opening.long), (opening,))]
        for join, onward in zip(joins, ways[1:], strict=False):
            runs = [
                min((_onto(cost, run, way, join) for cost, run in runs), key=_cost_of)
                for way in onward
            ]
        for cost, run in runs:
            total = (
                (cost[0] + _doubles_back(run[-1], opening, joins[-1]), *cost[1:])
                if closed
                else cost
            )
            if best is None or total < best[0]:
                best = (total, run)
    assert best is not None
    return best


def _smooth_both_ways(
    stops: Sequence[Stop],
    joins: Sequence[Meeting],
    ways: Sequence[Sequence[_Way]],
    best: Sequence[_Way],
    closed: bool,
) -> Iterator[Unsettled]:
    """Find where a walk is undecided, as pieces that touch may be gone round the other way all
    together, as smoothly.

    A corner can be turned either way, and the shorter is meant unless something is said; but which
    of two smooth outlines is meant cannot be told, and the shorter of them may be the other one
    when a size changes."""
    for chain in _chains(joins, len(stops), closed):
        if len(chain) < 2 or any(len(ways[index]) != 2 for index in chain):
            continue
        other = {
            index: next(way for way in ways[index] if way is not best[index]) for index in chain
        }
        off = sum(best[index].off for index in chain), sum(way.off for way in other.values())
        inner = zip(
            chain,
            [*chain[1:], chain[0]] if len(chain) == len(stops) and closed else chain[1:],
            strict=False,
        )
        if off[0] == off[1] and not any(
            _doubles_back(other[a], other[b], joins[a]) for a, b in inner
        ):
            first, second = stops[chain[0]].name, stops[chain[1]].name
            yield Unsettled(
                chain[0],
                f"{first} and {second} run into each other smoothly both ways round: say {first} "
                f"cw or {first} ccw",
                _either(ways[chain[0]][0].piece, ways[chain[0]][1].piece),
            )


def _either(ccw: Piece, cw: Piece) -> tuple[tuple[str, Curve], ...]:
    return ("ccw", ccw.curve), ("cw", cw.curve)


def _chains(joins: Sequence[Meeting], count: int, closed: bool) -> list[list[int]]:
    """Return the pieces that follow one another by touching, from corner to corner."""
    corners = [index for index, join in enumerate(joins) if not join.touch]
    if closed and not corners:
        return [list(range(count))]
    start = (corners[0] + 1) % count if closed else 0
    chains: list[list[int]] = [[]]
    for index in ((start + step) % count for step in range(count)):
        chains[-1].append(index)
        if index < len(joins) and not joins[index].touch:
            chains.append([])
    return [chain for chain in chains if chain]


_Run = tuple[Cost, tuple[_Way, ...]]


def _cost_of(run: _Run) -> Cost:
    return run[0]


def _onto(cost: Cost, run: tuple[_Way, ...], way: _Way, join: Meeting) -> _Run:
    """Continue a run along one more way."""
    turned, off, long = cost
    return (turned + _doubles_back(run[-1], way, join), off + way.off, long + way.long), (*run, way)


def _doubles_back(before: _Way, after: _Way, join: Meeting) -> int:
    onward = before.arrives.dot(after.sets_out)
    return int(onward < (0 if join.touch else -STRAIGHT_BACK))


def _outer_ends(stops: Sequence[Stop], index: int, join: Meeting) -> list[Point]:
    """Return the ends that an open run may begin or stop at, the farther first: at a corner it is
    that one, where pieces touch the one that lies straight on."""
    ends = sorted(_ends(stops[index], index), key=lambda end: -abs(end - join.point))
    return ends if join.touch else ends[:1]


def _equal_ways(
    stops: Sequence[Stop], joins: list[Meeting], options: list[list[Piece]], closed: bool
) -> Iterator[Unsettled]:
    """Find where both ways round a circle are equally long, and no touch decides."""
    for index, (stop, ways) in enumerate(zip(stops, options, strict=True)):
        around = {index - 1, index} if not closed else {(index - 1) % len(joins), index}
        if any(joins[j].touch for j in around if 0 <= j < len(joins)) or not isinstance(
            stop.curve, Circle
        ):
            continue
        if len(ways) == 2 and abs(ways[0].length - ways[1].length) <= worked(ways[0].length):
            words = (
                f"both ways round {stop.name} are equally long: say {stop.name} cw, "
                f"{stop.name} ccw or via a point"
            )
            yield Unsettled(index, words, _either(*ways))
