"""``line in``: go over the outline, piece by piece; arcs first, then the straight lines that join
them."""

from __future__ import annotations

import math
from collections.abc import Sequence
from fractions import Fraction
from functools import partial

from ..acts import Work
from ..acts.copies import laid_off
from ..acts.shapes import MOST_STROKES, as_run, draw, go_over
from ..allowance import check_copies
from ..geometry import Arc, Circle, Curve, Line, Loop, Point, Stop, WalkError, walk
from ..geometry.walk import pinned, turned
from ..kind import Args, ClauseValues, Kind, Made, Option, Role, Undecided
from ..kind.choosing import OfWalk, lettered
from ..kind.parts import outermost_parts
from ..plan.errors import ClauseError
from ..plan.forms import Form
from ..tolerance import DIRECTION, assembled

MOST_TOLD = 24
"""Pieces a sentence names one by one."""


def construct(args: Args) -> Made:
    """Walk the outline along the named pieces; see `entrick.core.geometry.walk`."""
    return lined(args, Role.OUTLINE)


def lined(args: Args, role: Role) -> Made:
    """Go over pieces as outline, as edges seen on a face, or as hidden lines.

    Parts of the run, for dimensions: ``left right top bottom``, its outermost places, and
    ``corner.1`` and so on, where its pieces begin."""
    clause, again = args.need("walk"), args.get("repeat")
    stops: Sequence[Stop] = clause.stops("walk")
    said, clockwise = len(stops), False
    try:
        if again:
            stops, loop, clockwise = _repeated(args, stops, again, role)
        else:
            loop = _walked(stops, args.get("open") is None, role, 0)
    except WalkError as error:
        ways = _ways_of(error, clause.index, stops, said)
        if ways:
            raise Undecided(error.message, lettered(ways, None), clause.index) from error
        raise ClauseError(error.message, clause.index) from error
    if len(stops) == 1 and stops[0].lined == role:
        return _there_already(args, loop, stops[0].name)
    names = " > ".join(_named(loop))
    closing = "closed" if loop.closed else "an open run"
    does = {Role.OUTLINE: "Line in", Role.EDGE: "Seen edge", Role.HIDDEN: "Hidden lines"}[role]
    return Made(
        loop,
        f"{does} {args.name} along {names}: {closing}.",
        (
            f"{len(loop.pieces)} piece{'s' if len(loop.pieces) > 1 else ''}, length "
            f"{args.say(loop.length)}"
            + (f", area {args.say(abs(loop.area))} {args.unit.value}²" if loop.closed else ""),
        ),
        parts=outermost_parts(loop),
        lined=role,
        draw=partial(_draw, args, stops, said, clockwise, loop, role),
        cut=args.get("cut") is not None,
    )


def _named(loop: Loop) -> list[str]:
    """Return what a run goes along: every piece, every curve of many arcs, or no more than whose
    pieces they are."""
    owners = [
        p.curve_of or p.name if len(loop.pieces) > MOST_STROKES else p.name for p in loop.pieces
    ]
    distinct = list(dict.fromkeys(owners))
    if len(distinct) <= MOST_TOLD:
        return distinct
    return list(dict.fromkeys(owner.partition(".")[0] for owner in owners))


def _there_already(args: Args, loop: Loop, name: str) -> Made:
    """What is gone over once more stays what it is: one outline, to be cut once."""
    words = f"{args.name} is {name}, which has been gone over: nothing more is drawn."
    return Made(loop, words, parts=outermost_parts(loop), cut=args.get("cut") is not None)


def _ways_of(error: WalkError, clause: int, stops: Sequence[Stop], said: int) -> list[Option]:
    """Return every way that words would choose, all along the walk; of one that repeats itself each
    once."""
    found: dict[OfWalk, Option] = {}
    for each in error.unsettled:
        stop = each.stop % said
        for words, what in each.ways:
            spot = (
                what
                if isinstance(what, Point)
                else what.middle
                if isinstance(what, Arc)
                else what.at(0.0)
            )
            way = OfWalk(clause, stop, words)
            found.setdefault(way, Option(what, spot, f"{stops[stop].name} {words}", of_walk=way))
    return list(found.values())


def _repeated(
    args: Args, stops: Sequence[Stop], again: ClauseValues, role: Role
) -> tuple[Sequence[Stop], Loop, bool]:
    """Return the stops of a walk that is repeated all round, what it comes to, and whether it goes
    round clockwise.

    The pieces may be named in either order: the other way goes back over what it has gone along.
    """
    count, centre = again.count("count"), again.point("centre")
    if count < 2:
        raise ClauseError("a walk is repeated at least twice", again.index)
    if args.get("open"):
        raise ClauseError("a walk that is repeated all round closes: it is not open", again.index)
    check_copies([stop.run or stop.curve for stop in stops], count)
    every, loop, refused = _all_round(stops, count, centre, role, clockwise=False)
    over = math.inf if loop is None else _swept(loop, centre, len(stops))
    past = math.inf if loop is None else _past_ends(loop, every)
    if over > math.tau + DIRECTION or past > assembled(abs(centre)):
        other, back, _ = _all_round(stops, count, centre, role, clockwise=True)
        if back is not None:
            # Once over every place, then along no line farther than it was drawn.
            twice = _swept(back, centre, len(stops))
            if (max(twice, math.tau), _past_ends(back, other)) < (max(over, math.tau), past):
                return other, back, True
    if loop is None:
        assert refused is not None
        raise refused
    return every, loop, False


def _all_round(
    stops: Sequence[Stop], count: int, centre: Point, role: Role, clockwise: bool
) -> tuple[Sequence[Stop], Loop | None, WalkError | None]:
    """Return the stops all round one way, and what the walk comes to or why it is refused: first
    with what is said alone, then with the crossings that go onward all the time."""
    refused: WalkError | None = None
    every: Sequence[Stop] = stops
    for onward in (False, True):
        try:
            every = turned(
                pinned(stops, count, centre, clockwise, onward), count, centre, clockwise
            )
            return every, _walked(every, True, role, len(stops)), None
        except WalkError as error:
            refused = refused or error
            if not error.unsettled:
                break
    return every, None, refused and refused.of_first(len(stops))


def _past_ends(loop: Loop, stops: Sequence[Stop]) -> float:
    """Return how far a walk runs on along lines past the ends they were drawn with, all together;
    nought where that cannot be told piece by piece."""
    if len(loop.pieces) != len(stops):
        return 0.0
    result = 0.0
    for piece, stop in zip(loop.pieces, stops, strict=True):
        line = stop.curve
        if stop.run is None and isinstance(line, Line) and line.start is not None:
            for spot in (piece.entry, piece.exit):
                at = line.direction.dot(spot - line.through)
                end = math.inf if line.end is None else line.end
                result += max(0.0, line.start - at, at - end)
    return result


def _swept(loop: Loop, centre: Point, period: int) -> float:
    """Return the greatest turn a run makes along any one circle about a centre, all its stretches
    together, radians: more than all round, and it goes over itself."""
    rounds = [
        piece.curve
        for piece in loop.pieces
        if isinstance(piece.curve, Arc)
        and abs(piece.curve.centre - centre) <= assembled(piece.curve.radius)
    ]
    along = (
        sum(
            abs(other.sweep)
            for other in rounds
            if abs(other.radius - each.radius) <= assembled(each.radius)
        )
        for each in rounds[:period]
    )
    return max(along, default=0.0)


def _draw(
    args: Args,
    stops: Sequence[Stop],
    said: int,
    clockwise: bool,
    loop: Loop,
    role: Role,
    work: Work,
) -> None:
    """Carry what is repeated round to its other places, and go over everything from mark to
    mark."""
    if len(stops) > said:
        again = args.need("repeat")
        centre = work.mark(again.point("centre"), again.ref("centre").text)
        count = len(stops) // said
        names = " and ".join(dict.fromkeys(stop.name for stop in stops[:said]))
        for number in range(1, count):
            degrees = Fraction(360 * (count - number if clockwise else number), count)
            for stop, copy in zip(
                stops[:said], stops[said * number : said * (number + 1)], strict=True
            ):
                if stop.run is None and same_place(stop.curve, copy.curve):
                    continue
                if stop.run is None:
                    draw(work, stop.curve, stop.name)
                one, other = (_with_ends(each, work.paper.handy) for each in (stop, copy))
                laid_off(work, one, other, "turn", centre, degrees=degrees, called=names)
    go_over(work, loop, role)


def _with_ends(stop: Stop, reach: float) -> Loop:
    """Return what is walked as a run; of a line without ends so much as shows where it lies."""
    curve = stop.curve
    if stop.run is None and isinstance(curve, Line) and (curve.start is None or curve.end is None):
        curve = Line(curve.through, curve.direction, 0.0, reach)
    return as_run(stop.run or curve)


def same_place(one: Curve, other: Curve) -> bool:
    """Tell whether a turned circle or arc lies on the same circle again."""
    return (
        isinstance(one, Circle | Arc)
        and isinstance(other, Circle | Arc)
        and (abs(one.centre - other.centre) <= assembled(one.radius))
    )


def _walked(stops: Sequence[Stop], closed: bool, role: Role, period: int) -> Loop:
    if role is not Role.OUTLINE and closed:
        # What lies behind is often open: its ends are where the material in front begins. So is an
        # edge on a face.
        try:
            return walk(stops, period=period)
        except WalkError:
            return walk(stops, closed=False)
    return walk(stops, closed, period)


REPEATED = Form("{count:count} about {centre:point}", "repeat")
"""The same pieces again and again, equally spaced."""


ABOUT = """\
Walks the outline along pieces in order. At a touch point the walk goes straight on, so its
direction follows by itself; at a crossing it takes the shorter way. Round pieces that run into
each other smoothly both ways round are two outlines: say `cw` or `ccw` after the first of them.
After a piece: `cw ccw long short` or `via P` say how to go along it; `upper lower left right`
or `at P` say where the walk comes onto it. `open` allows a run that does not close. A circle is
a walk alone.

What comes again round a centre is said once: `24 about O` after the walk goes along its pieces at 24 places. The pieces of
one place are named in either order.

```entrick
units mm
O = datum
disc = circle, centre O, radius 50
notch = keyway, on disc, width 5, depth 6, inward, above
index = line in, disc > notch, 24 about O
```

The image, turn or shift of what is lined in is lined in as well; lining it in once more changes nothing.

`cut` says that the outline is that of cut material, to be hatched. Parts `left right top bottom`, the outermost places,
and `corner.1` and so on, where its pieces begin. In the Bench, *Line in by region* writes the walk for you.
"""  # noqa: E501

SHOWN = """\
units mm
O = datum
H = point, 12 above O
c = circle, centre O, radius 20
top = line, through H, level
cap = line in, c long > top
hole = circle, centre O, radius 5
bore = line in, hole
"""

KIND = Kind(
    name="line in",
    group="Outline",
    summary="go over the outline along the pieces, in order",
    example="rim = line in, eyeA > top > eyeB > low",
    mistake="The arc is trimmed to a line it only nearly touches. Stop at the computed touch "
    "point, arcs first.",
    also=("outline", "profile", "contour", "go over"),
    forms=(
        Form("open"),
        Form("cut"),
        REPEATED,
        Form("{walk:walk}", "walk", needed=True),
    ),
    construct=construct,
    about=ABOUT,
    shown=SHOWN,
    lines_in=Role.OUTLINE,
)
