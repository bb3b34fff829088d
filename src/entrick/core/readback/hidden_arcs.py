"""Lines and arcs hidden in many short straight pieces: a polyline that goes round in chords, or
points measured along a part; and an ellipse hidden in arcs."""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence
from itertools import pairwise

from ..geometry import Arc, Circle, Line, Point, meet
from ..geometry.shapes import ends as ends_of
from ..tolerance import FITTED, NOUGHT, READ_WITHIN
from .conics import ellipse_through
from .profile import Piece, Run, length_of, middle_of, pieces_of

FEWEST = 5
"""Chords that make an arc: fewer lie on a circle by chance, or are corners that somebody meant."""

FEWEST_ALL_ROUND = 12
"""Chords that make a whole circle: a regular polygon has fewer sides."""

STEEPEST = math.radians(24)
"""Turn from chord to chord above which it is the corner of a polygon."""

FINE_CHORD = math.radians(6)
"""Turn from chord to chord of a circle in many chords: where a file rounds them, some lie in one
line and are one."""

FEWEST_MEASURED, STEEPEST_MEASURED = 7, math.radians(40)
"""The same of places that are off by more than a file rounds: somebody measured them, a few round
each hole."""

SPREAD = 1.6
"""How far measured places may lie from what is laid through them, in tolerances: across and up may
both be off, and what goes through many of them is nearer to the part than any."""

WINDOW = 3
"""Corners on either side of one by which it is told how sharply the run bends there."""


def with_arcs(run: Run, within: float) -> Run:
    """Return a run in which stretches along a line or a circle are one piece each.

    Parameters
    ----------
    run : tuple
        Closed.
    within : float
        How far corners may lie from the line or circle.
    """
    pieces = pieces_of(run)
    if within > READ_WITHIN:
        within *= SPREAD
    if len(pieces) < FEWEST or not all(isinstance(piece, Line) for piece in pieces):
        return _mixed(pieces, within) if pieces else run
    corners = _thinned([ends_of(piece)[0] for piece in pieces], within)
    fewest = FEWEST_MEASURED if within > READ_WITHIN else FEWEST_ALL_ROUND
    if len(corners) >= fewest and _is_round(
        [*corners, corners[0]], within, math.tau, max(1.8 * math.tau / len(corners), FINE_CHORD)
    ):
        whole = _least_squares(corners)
        return (whole,) if whole else run
    start = _sharpest(corners)
    found = _parted([*corners[start:], *corners[:start], corners[start]], within)
    # The longest stretch surely ends at a joint, or begins at one if it ends where the first was
    # begun at a venture: from there the others are found whole.
    longest = max(range(len(found)), key=lambda k: len(found[k][0]))
    count = longest + (longest + 1 < len(found))
    start = (start + sum(len(spots) - 1 for spots, _ in found[:count])) % len(corners)
    found = _without_slips(
        _parted([*corners[start:], *corners[:start], corners[start]], within), within
    )
    if len(found) == len(pieces):
        return run
    return tuple(_joined(found, within))


SPAN = 24
"""Places over which it is told how far they lie apart: one after another they go back and forth."""


def _thinned(spots: list[Point], within: float) -> list[Point]:
    """Return the middles of several measured places at a time where they lie closer together than
    they may be off: nobody can tell which way one goes to the next, but of the middles one can."""
    if within <= READ_WITHIN or len(spots) < 2 * SPAN:
        return spots
    spans = sorted(abs(spots[k] - spots[k - SPAN]) for k in range(0, len(spots), SPAN))
    apart = spans[len(spans) // 2] / SPAN
    several = min(math.ceil(within / max(apart, NOUGHT)), len(spots) // MANY)
    if several < 2:
        return spots
    parts = [spots[k : k + several] for k in range(0, len(spots), several)]
    return [
        Point(sum(p.x for p in part) / len(part), sum(p.y for p in part) / len(part))
        for part in parts
    ]


def without_slivers(run: Run, within: float) -> Run:
    """Return a closed run without pieces so short that their ends are one place; the next one goes
    on from there."""
    pieces = pieces_of(run)
    shortest = within * (4 if within > READ_WITHIN else 1)
    kept = [piece for piece in pieces if length_of(piece) > shortest]
    if len(kept) == len(pieces) or len(kept) < 3:
        return run
    result: list[Piece] = []
    for k, piece in enumerate(kept):
        first, last = ends_of(kept[k - 1])[1], ends_of(piece)[1]
        if isinstance(piece, Line):
            result.append(Line.between(first, last))
        else:
            result.append(
                _through(first, last, piece.centre, [piece.first, piece.middle, piece.last])
            )
    return tuple(result)


MANY = 60
"""Places of an outline from which on somebody measured them, and did not give them."""


def scatter(run: Run, within: float) -> float:
    """Return by how much the many places of an outline scatter, where that is more than they may be
    off; else nought.

    The median of how far a place lies from the middle of its neighbours, which on a smooth line is
    next to nothing."""
    pieces = pieces_of(run)
    if len(pieces) < MANY or not all(isinstance(piece, Line) for piece in pieces):
        return 0.0
    spots = [ends_of(piece)[0] for piece in pieces]
    off = sorted(
        abs(Line.between(spots[k - 1], spots[(k + 1) % len(spots)]).offset_of(spot))
        for k, spot in enumerate(spots)
    )
    middle = off[len(off) // 2]
    return middle if middle > within else 0.0


def _mixed(pieces: Sequence[Piece], within: float) -> Run:
    """Return a run with arcs of its own, in which stretches of lines are looked through one by
    one."""
    start = next((k for k, piece in enumerate(pieces) if isinstance(piece, Arc)), 0)
    found: list[Piece] = []
    stretch: list[Piece] = []
    for piece in [*pieces[start:], *pieces[:start]]:
        if isinstance(piece, Line):
            stretch.append(piece)
            continue
        found += _of_lines(stretch, within)
        stretch = []
        found.append(piece)
    return (*found, *_of_lines(stretch, within))


def _of_lines(stretch: Sequence[Piece], within: float) -> list[Piece]:
    if len(stretch) < FEWEST:
        return list(stretch)
    parted = _parted([*(ends_of(piece)[0] for piece in stretch), ends_of(stretch[-1])[1]], within)
    return [_between(spots, round_) for spots, round_ in parted]


Stretch = tuple[list[Point], bool]
"""Places one after another, and whether they lie round a centre."""


def _sharpest(corners: Sequence[Point]) -> int:
    """Return the corner at which a run bends most unlike its neighbours: there a piece begins."""
    count = len(corners)
    reach = min(WINDOW, max(1, count // 4))

    def off(k: int) -> float:
        around = [corners[(k + i) % count] for i in range(-reach, reach + 1)]
        whole = _least_squares(around)
        chord = Line.between(around[0], around[-1])
        straight = max(abs(chord.offset_of(spot)) for spot in around)
        curved = (
            max(abs(abs(p - whole.centre) - whole.radius) for p in around) if whole else math.inf
        )
        return min(straight, curved)

    return max(range(count), key=off)


def _parted(spots: Sequence[Point], within: float) -> list[Stretch]:
    """Part places into the longest stretches along a line or a circle, one after another."""
    stretches: list[Stretch] = []
    k = 0
    while k < len(spots) - 1:
        straight = _longest(spots, k, 1, lambda stretch: _is_straight(stretch, within))
        # Of few noisy places nobody can tell which way they bend; more are tried before it is
        # called straight.
        tried = (FEWEST, 4 * FEWEST, 12 * FEWEST)
        curved = max(
            _longest(spots, k, least, lambda stretch: _is_round(stretch, within)) for least in tried
        )
        as_arc = curved > straight and curved >= FEWEST
        count = curved if as_arc else straight
        stretches.append((list(spots[k : k + count + 1]), as_arc))
        k += count
    return stretches


SLIP = 3
"""Chords of a stretch that may be nothing but the noise where two others meet."""


def _without_slips(found: list[Stretch], within: float) -> list[Stretch]:
    """Return stretches without the short ones that lie along what comes before or after them just
    as well."""
    k = 0
    while len(found) > 2 and k < len(found):
        spots, _ = found[k]
        before, after = found[k - 1], found[(k + 1) % len(found)]
        step = max(abs(b - a) for side in (before[0], after[0]) for a, b in pairwise(side[:SLIP]))
        short = len(spots) - 1 <= SLIP and abs(spots[-1] - spots[0]) <= SLIP * step
        if short and min(len(before[0]), len(after[0])) > len(spots) + 1:
            one, two = _fitted(*before), _fitted(*after)
            nearer = [(_apart(one, spot), _apart(two, spot)) for spot in spots]
            if all(min(each) <= within * 1.5 for each in nearer):
                # It is parted where it comes nearer to what follows.
                at = next((n for n, (a, b) in enumerate(nearer) if b < a), len(spots) - 1)
                found[k - 1] = ([*before[0], *spots[1 : at + 1]], before[1])
                found[(k + 1) % len(found)] = ([*spots[at:-1], *after[0]], after[1])
                del found[k]
                continue
        k += 1
    return found


def _apart(whole: Line | Circle, spot: Point) -> float:
    return (
        abs(whole.offset_of(spot))
        if isinstance(whole, Line)
        else abs(abs(spot - whole.centre) - whole.radius)
    )


def _longest(
    spots: Sequence[Point], start: int, least: int, fits: Callable[[Sequence[Point]], bool]
) -> int:
    """Return how many chords from a place on fit; what fits does so in each of its parts, so the
    end is found by doubling and halving."""
    most = len(spots) - 1 - start
    if most < least or not fits(spots[start : start + least + 1]):
        return min(1, most)
    low, high = least, least
    while high < most and fits(spots[start : start + min(2 * high, most) + 1]):
        low = high = min(2 * high, most)
    high = min(2 * low, most)
    while low < high:
        middle = (low + high + 1) // 2
        if fits(spots[start : start + middle + 1]):
            low = middle
        else:
            high = middle - 1
    return low


def _is_straight(spots: Sequence[Point], within: float) -> bool:
    if len(spots) < 3:
        return True
    line = _line(spots)
    along = [line.along(spot) for spot in spots]
    return all(abs(line.offset_of(spot)) <= within for spot in spots) and all(
        b >= a - within for a, b in pairwise(along)
    )


def _line(spots: Sequence[Point]) -> Line:
    """Return the line that places lie along, by least squares square to it, from the first to the
    last."""
    mean = Point(sum(p.x for p in spots) / len(spots), sum(p.y for p in spots) / len(spots))
    xx = sum((p.x - mean.x) ** 2 for p in spots)
    yy = sum((p.y - mean.y) ** 2 for p in spots)
    xy = sum((p.x - mean.x) * (p.y - mean.y) for p in spots)
    angle = math.atan2(2 * xy, xx - yy) / 2
    way = Point(math.cos(angle), math.sin(angle))
    return Line(mean, way if way.dot(spots[-1] - spots[0]) > 0 else -way)


def _is_round(
    spots: Sequence[Point],
    within: float,
    most: float = 1.9 * math.pi,
    steepest: float | None = None,
) -> bool:
    whole = circle_through(spots, within)
    if whole is None:
        return False
    steepest = steepest or (STEEPEST_MEASURED if within > READ_WITHIN else STEEPEST)
    turns = [
        math.remainder((b - whole.centre).angle - (a - whole.centre).angle, math.tau)
        for a, b in pairwise(spots)
    ]
    one_way = all(turn > -within / whole.radius for turn in turns) or all(
        turn < within / whole.radius for turn in turns
    )
    return (
        one_way
        and abs(sum(turns)) <= most + within / whole.radius
        and max(map(abs, turns)) <= steepest
    )


def circle_through(spots: Sequence[Point], within: float) -> Circle | None:
    """Return the circle that all places lie along within a tolerance; None where they do not."""
    whole = _least_squares(spots)
    if whole is None or any(abs(abs(p - whole.centre) - whole.radius) > within for p in spots):
        return None
    return whole


def _least_squares(spots: Sequence[Point]) -> Circle | None:
    """Return the circle by least squares (Kåsa's, closed form)."""
    count = len(spots)
    mx, my = sum(p.x for p in spots) / count, sum(p.y for p in spots) / count
    u, v = [p.x - mx for p in spots], [p.y - my for p in spots]
    suu, svv, suv = (
        sum(a * b for a, b in zip(*pair, strict=True)) for pair in ((u, u), (v, v), (u, v))
    )
    square = [a * a + b * b for a, b in zip(u, v, strict=True)]
    su, sv = (sum(a * b for a, b in zip(square, each, strict=True)) / 2 for each in (u, v))
    worth = suu * svv - suv * suv
    if abs(worth) <= NOUGHT * (suu + svv) ** 2:
        return None
    centre = Point(mx + (su * svv - sv * suv) / worth, my + (sv * suu - su * suv) / worth)
    return Circle(centre, sum(abs(p - centre) for p in spots) / count)


def _inner(spots: list[Point]) -> list[Point]:
    """Return the places of a stretch without those at its ends, which may belong to what comes
    next."""
    trim = min(2, max(0, (len(spots) - FEWEST - 1) // 2))
    return spots[trim : len(spots) - trim]


def _fitted(spots: list[Point], round_: bool) -> Line | Circle:
    inner = _inner(spots)
    if round_ and (whole := _least_squares(inner)):
        return whole
    if len(inner) < 4:
        return Line.between(spots[0], spots[-1])
    return _line(inner)


def _joined(parted: Sequence[Stretch], within: float) -> list[Piece]:
    """Return the pieces of a closed run, each fitted to its places, that end where they cross or
    touch."""
    whole = [_fitted(spots, round_) for spots, round_ in parted]
    joints = [_joint(whole[k - 1], whole[k], parted[k][0][0], within) for k in range(len(parted))]
    pieces: list[Piece] = []
    for k, (spots, _) in enumerate(parted):
        first, last = joints[k], joints[(k + 1) % len(joints)]
        each = whole[k]
        if isinstance(each, Line):
            pieces.append(Line.between(first, last))
            continue
        pieces.append(_through(first, last, each.centre, spots))
    return pieces


def _joint(one: Line | Circle, two: Line | Circle, spot: Point, within: float) -> Point:
    """Return where two fitted pieces touch, or cross nearest to a place."""
    touch = _touch(one, two, within)
    reach = _reach(one, two, within)
    if touch is not None and abs(touch - spot) <= reach:
        return touch
    crossings = [meeting.point for meeting in meet(one, two)]
    nearest = min(crossings, key=lambda p: abs(p - spot), default=spot)
    return nearest if abs(nearest - spot) <= reach else spot


def _reach(one: Line | Circle, two: Line | Circle, within: float) -> float:
    """Return how far along a joint may lie from where it was seen: pieces that touch part
    slowly."""
    radii = [each.radius for each in (one, two) if isinstance(each, Circle)]
    return within * 4 + 4 * math.sqrt(within * min(radii)) if radii else within * 8


def _touch(one: Line | Circle, two: Line | Circle, within: float) -> Point | None:
    """Return where two pieces touch, within a tolerance."""
    if isinstance(one, Line) and isinstance(two, Line):
        return None
    if isinstance(one, Circle) and isinstance(two, Circle):
        apart = abs(two.centre - one.centre)
        if apart <= within:
            return None
        way = (two.centre - one.centre).unit
        for near in (one.radius + two.radius, abs(one.radius - two.radius)):
            if abs(apart - near) <= within * 2:
                out = (
                    one.radius
                    if near > max(one.radius, two.radius) or one.radius > two.radius
                    else -one.radius
                )
                return one.centre + way * out
        return None
    line, circle = (one, two) if isinstance(one, Line) else (two, one)
    assert isinstance(line, Line)
    assert isinstance(circle, Circle)
    foot = line.foot(circle.centre)
    return foot if abs(abs(foot - circle.centre) - circle.radius) <= within * 2 else None


def _between(spots: list[Point], round_: bool) -> Piece:
    """Return the piece from the first place to the last, nearest to all between."""
    first, last = spots[0], spots[-1]
    circle = _least_squares(spots) if round_ else None
    if circle is None:
        return Line.between(first, last)
    return _through(first, last, circle.centre, spots)


def _through(first: Point, last: Point, near: Point, spots: Sequence[Point]) -> Arc:
    """Return the arc from one place to another about a centre near a given one, the way round its
    places go."""
    chord = last - first
    middle = (first + last) * 0.5
    centre = near
    if abs(chord) > abs(first - near) / 1000:
        # As far from both ends, it stands square to the chord.
        across = chord.unit.normal
        centre = middle + across * (near - middle).dot(across)
    start = (first - centre).angle
    turns = [
        math.remainder((b - centre).angle - (a - centre).angle, math.tau)
        for a, b in pairwise(spots)
    ]
    sweep = math.remainder((last - centre).angle - start, math.tau)
    sweep += math.tau * round((sum(turns) - sweep) / math.tau)
    return Arc(centre, (abs(first - centre) + abs(last - centre)) / 2, start, sweep)


FEWEST_ARCS = 12
"""Arcs that may be an ellipse: by four centres it has fewer, and is what it is."""


def as_ellipse(run: Run, within: float) -> Run:
    """Return the ellipse that a closed run of arcs or of many chords follows all round; the run if
    it follows none."""
    pieces = pieces_of(run)
    if len(pieces) < FEWEST_ARCS:
        return run
    spots = [spot for piece in pieces for spot in (ends_of(piece)[0], middle_of(piece))]
    whole = ellipse_through(spots)
    if whole is None or whole.a - whole.b < within * 4:
        return run
    close = max(within, FITTED["ellipse"] * whole.a)
    off = max(abs(whole.at(whole.nearest_turn(spot)) - spot) for spot in spots)
    return (whole,) if off <= close * 2 else run
