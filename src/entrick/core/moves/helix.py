"""``helix``: on a cylinder or a cone, seen square to its axis; its far half apart from its near
one."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass, replace
from functools import partial
from itertools import pairwise

from ..acts import LEVEL, PLUMB, Edge, Mark, Round, Way, Work
from ..acts.procedures import away
from ..acts.shapes import as_run
from ..geometry import Arc, Circle, Line, Loop, Point, Shape, piece_of, rotate, shift
from ..geometry.biarc import smooth
from ..geometry.fitted import fitted
from ..geometry.loop import boxed, distance
from ..geometry.partial import outside
from ..kind import Args, Kind, Made
from ..kind.figure import Family
from ..kind.parts import curve_run
from ..measure import spell_angle
from ..plan.errors import ClauseError, Wanting
from ..plan.forms import Form
from ..rules.helix import MOST_TURNS, Helix
from ..tolerance import FITTED, ROUND
from ..worksheets import Remark

PARTS = 12

STEP = 1 / 4096
"""Share of all it goes through by which a direction is taken from two places."""

END_VIEW = 1.4
"""Distance of the end view from the foot of the axis, in radii."""

STUB = 1.05
"""How far from the middle of its ends, in halves of the wire, its edges are half way along for it
to be drawn."""

SQUARE = 0.02
"""Cosine below which an edge runs along the round end of the wire where they meet, rather than
crosses it."""

CLOSE = FITTED["helix"]
"""Departure of the arcs a helix is drawn with, as a share of its radius: a hundredth of a
millimetre in 25."""


@dataclass(frozen=True)
class _Runs:
    """Half turns seen and behind, and the edges of a wire along the seen ones, by the names of
    their parts; where the wire is wanted as it is seen, also its edges along those behind, and what
    of it all shows."""

    front: dict[str, Loop]
    back: dict[str, Loop]
    edges: dict[str, Loop]
    behind: dict[str, Loop]
    coils: list[Loop]
    shows: list[Loop]

    @property
    def all(self) -> dict[str, Shape | Loop]:
        ends = [piece for coil in self.coils for piece in coil.pieces if not piece.curve_of]
        caps = {piece.name.partition(".")[2]: piece.curve for piece in ends}
        shown = {f"show{number}": run for number, run in enumerate(self.shows, 1)}
        return {**self.front, **self.back, **self.edges, **caps, **shown}


def construct(args: Args) -> Made:
    """Construct the projection of a helix that starts at a point of its axis and rises along it.

    Parts: ``front.1`` …, ``back.1`` … (half turns, seen and behind), ``axis``, ``development`` (the
    straight line it unrolls to); with a wire, ``above.1`` … and ``below.1`` …, the edges of the
    near halves. ``as seen`` it is the wire itself: the near coils closed round the wire at their
    sides, those behind as far as they show between them.

    Notes
    -----
    Helix angle atan(lead/πD), length of a turn √((πD)² + lead²) (development). A right hand rises
    from left to right in front."""
    helix = _read(args)
    runs = _runs(args, helix)
    wide, lead, turns = (
        args.need(key).length(slot)
        for key, slot in (("diameter", "size"), ("lead", "lead"), ("turns", "turns"))
    )
    return Made(
        Family(
            (*runs.coils, *runs.shows)
            if runs.coils
            else (*runs.front.values(), *runs.back.values())
        ),
        f"Helix {args.name} from {args.need('from').ref('foot').text}, Ø{args.say(wide.value)}"
        f"{_tapering(args)}, "
        f"lead {args.say(lead.value)}, {turns.text} turns, "
        f"{'left' if helix.hand < 0 else 'right'} hand.",
        tuple(_working(args, helix)),
        parts=_parts(args, helix, runs),
        remarks=partial(_remarks, args, helix),
        draw=partial(_draw, args, helix, runs),
    )


def _remarks(args: Args, helix: Helix) -> Iterator[Remark]:
    """Tell a spring that cannot be: coils that run into each other, a wire as thick as the
    coil."""
    wire = args.get("wire")
    if wire is None:
        return
    thick, pitch = float(wire.length("size")), helix.lead / _starts(args)
    if thick >= 2 * max(helix.radius, helix.top):
        yield Remark("wrong", "the wire is as thick as the coil is wide: no such coil", helix.foot)
    elif pitch <= thick:
        yield Remark(
            "wrong",
            f"the coils run into each other: from one to the next it is {args.say(pitch)}, and the "
            f"wire is {args.say(thick)} thick",
            helix.foot,
        )


def _tapering(args: Args) -> str:
    """Return the diameter it comes to, where it goes round a cone."""
    narrow = args.get("to")
    return f" to Ø{args.say(narrow.length('size').value)}" if narrow else ""


def _read(args: Args) -> Helix:
    wide, narrow = args.need("diameter").length("size"), args.get("to")
    radius = float(wide) / 2
    top = float(narrow.length("size")) / 2 if narrow else radius
    lead, turns = float(args.need("lead").length("lead")), float(args.need("turns").length("turns"))
    if min(radius, lead) <= 0 or top < 0 or not 0 < turns <= MOST_TURNS:
        raise ClauseError(
            f"a helix has a diameter and a lead of more than nought, and up to {MOST_TURNS} turns",
            args.need("turns").index,
        )
    up = Point(1.0, 0.0) if args.get("level") else Point(0.0, 1.0)
    hand = -1 if args.get("left") else 1
    return Helix(args.need("from").point("foot"), up, radius, top, lead, math.tau * turns, hand)


def _starts(args: Args) -> int:
    starts = args.get("starts")
    return starts.count("count") if starts else 1


def _runs(args: Args, first: Helix) -> _Runs:
    """Draw every start half turn by half turn, the seen ones with the edges of the wire."""
    wire, seen = args.get("wire"), args.get("seen")
    half = float(wire.length("size")) / 2 if wire else 0.0
    if seen and half <= 0:
        raise Wanting("how a wire is seen depends on its thickness: say  wire Ø6", seen.index)
    runs, count = _Runs({}, {}, {}, {}, [], []), _starts(args)
    for index in range(count):
        helix = replace(first, begin=math.pi + math.tau * index / count)
        halves = _Halves(helix, half)
        for start, end in pairwise(helix.halves()):
            near = helix.is_near((start + end) / 2)
            word, group = ("front", runs.front) if near else ("back", runs.back)
            key = f"{word}.{len(group) + 1}"
            group[key] = curve_run(f"{args.name}.{key}", halves.middle(start, end), closed=False)
            if half <= 0 or not (near or seen):
                continue
            tag = str(len(group)) if near else f"behind.{len(group)}"
            if seen and end - start < math.pi - ROUND and _is_stub(helix, start, end, half):
                message = (
                    "the last part of a turn is shorter than the wire is thick; leave it out, "
                    "or make it longer"
                )
                raise ClauseError(message, args.need("turns").index)
            above, below = halves.edges(start, end)
            edges = {
                f"{side}.{tag}": curve_run(f"{args.name}.{side}.{tag}", curves, closed=False)
                for side, curves in (("above", above), ("below", below))
            }
            (runs.edges if near else runs.behind).update(edges)
            caps = [
                _cap(edges, tag, Circle(helix.place(turn), half, half), last=turn == end)
                for turn in (start, end)
            ]
            if near and seen:
                runs.coils.append(_closed(f"{args.name}.coil{len(group)}", edges, tag, caps))
            elif seen:
                ends = (("begin", start == 0.0, caps[0]), ("end", end == helix.whole, caps[1]))
                runs.behind.update(
                    {f"{word}.{tag}": as_run(cap) for word, there, cap in ends if there}
                )
    if seen:
        runs.shows.extend(_shows(args.name, runs))
    return runs


class _Halves:
    """The half turns of a helix and the edges of the wire along them. On a cylinder every turn is
    the one before, a lead higher: what was fitted once is moved up."""

    def __init__(self, helix: Helix, half: float) -> None:
        self.helix, self.half = helix, half
        self._fitted: dict[tuple[str, bool], tuple[float, list[Sequence[Arc | Line]]]] = {}

    def middle(self, start: float, end: float) -> Sequence[Arc | Line]:
        """Return the middle line of a half turn."""
        helix = self.helix
        (run,) = self._once(
            "middle",
            start,
            end,
            lambda: [fitted(helix.place, helix.heading, _knots(start, end), CLOSE * helix.radius)],
        )
        return run

    def edges(self, start: float, end: float) -> list[Sequence[Arc | Line]]:
        """Return the upper and the lower edge of the wire along a half turn."""
        return self._once(
            "edges", start, end, lambda: [self._edge(start, end, sign) for sign in (1, -1)]
        )

    def _edge(self, start: float, end: float, sign: int) -> Sequence[Arc | Line]:
        helix = self.helix
        # Which side is above is told half way: at its ends the curve runs straight up.
        off = math.copysign(self.half, helix.heading((start + end) / 2).normal.dot(helix.up)) * sign
        # Where the curve bends more tightly than the wire, its inner edge is hidden behind the
        # round end.
        low, high = (
            helix.emerges(start, end, self.half, off),
            helix.emerges(end, start, self.half, off),
        )
        quarters = [low + (high - low) * k / 4 for k in range(5)]
        return fitted(partial(helix.edge, off=off), helix.heading, quarters, CLOSE * helix.radius)

    def _once(
        self, what: str, start: float, end: float, fit: Callable[[], list[Sequence[Arc | Line]]]
    ) -> list[Sequence[Arc | Line]]:
        helix = self.helix
        if helix.top != helix.radius or end - start < math.pi - ROUND:
            return fit()
        key = (what, helix.is_near((start + end) / 2))
        if key not in self._fitted:
            self._fitted[key] = (start, fit())
        at, runs = self._fitted[key]
        by = helix.up * (helix.lead * (start - at) / math.tau)
        return [[shift(curve, by) for curve in run] for run in runs] if by.x or by.y else runs


def _is_stub(helix: Helix, start: float, end: float, half: float) -> bool:
    """Tell whether the wire has hardly come out of one of its ends half way to the other."""
    middle = (start + end) / 2
    sides = (helix.edge(middle, off) for off in (half, -half))
    return any(
        abs(side - helix.place(turn)) < half * STUB for side in sides for turn in (start, end)
    )


def _cap(edges: dict[str, Loop], tag: str, wire: Circle, last: bool) -> Arc:
    """Return the part of the wire's end that bulges away from its two edges, from the upper one at
    the far end, from the lower one at the near end."""
    above, below = edges[f"above.{tag}"], edges[f"below.{tag}"].reversed
    before, after = (above, below) if last else (below, above)
    spot, onward = before.pieces[-1].exit, after.pieces[0].entry
    short = Arc.between(wire, spot, onward)
    ahead = before.pieces[-1].direction(spot) - after.pieces[0].direction(onward)
    return (
        short
        if (short.middle - wire.centre).dot(ahead) > 0
        else Arc.between(wire, spot, onward, long=True)
    )


def _closed(name: str, edges: dict[str, Loop], tag: str, caps: Sequence[Arc]) -> Loop:
    """Close the two edges of a coil round the wire at both of its ends."""
    near, far = (
        piece_of(cap, f"{name}.{word}_end") for cap, word in zip(caps, ("near", "far"), strict=True)
    )
    return Loop(
        (*edges[f"above.{tag}"].pieces, far, *edges[f"below.{tag}"].reversed.pieces, near), False
    )


def _shows(name: str, runs: _Runs) -> Iterator[Loop]:
    """Yield what of the edges behind shows between the coils in front, each stretch under a name of
    its own."""
    stretches = (part for edge in runs.behind.values() for part in outside(edge, runs.coils))
    for number, part in enumerate(stretches, 1):
        own = f"{name}.show{number}"
        if part.pieces[0].curve_of:
            yield curve_run(own, [piece.curve for piece in part.pieces], closed=False)
        else:
            yield Loop(tuple(piece_of(piece.curve, own) for piece in part.pieces), False)


def _knots(start: float, end: float) -> list[float]:
    """Return where a half turn is constructed: at its ends and at every part of a turn between."""
    part = math.tau / PARTS
    between = [
        part * k for k in range(math.ceil(start / part + ROUND), math.floor(end / part - ROUND) + 1)
    ]
    inner = [turn for turn in between if start + ROUND < turn < end - ROUND]
    quarters = [] if len(inner) > 1 else [start + (end - start) * k / 4 for k in (1, 2, 3)]
    return [start, *sorted({*inner, *quarters}), end]


def _development(args: Args, helix: Helix) -> Line | Loop:
    """Return what a turn unrolls to, beside it: a straight line; of a cone, all of it, a spiral."""
    corner = helix.foot + helix.across * (max(helix.radius, helix.top) * 1.5)
    if not helix.is_tapered:
        unrolled = corner + helix.across * (math.tau * helix.radius) + helix.up * helix.lead
        return Line.between(corner, unrolled)
    begin = helix.unrolled(0.0).x

    def place(turn: float) -> Point:
        spot = helix.unrolled(turn)
        return corner + helix.across * (begin - spot.x) + helix.up * spot.y

    def heading(turn: float) -> Point:
        # By differences: the spiral is smooth, and its arcs are fitted far more coarsely.
        step = helix.whole * STEP
        return (place(turn + step) - place(turn - step)).unit

    count = max(4, math.ceil(helix.whole / math.tau * PARTS))
    knots = [helix.whole * index / count for index in range(count + 1)]
    close = CLOSE * max(helix.radius, helix.top)
    return curve_run(f"{args.name}.development", fitted(place, heading, knots, close), closed=False)


def _parts(args: Args, helix: Helix, runs: _Runs) -> dict[str, Shape | Loop]:
    end = helix.foot + helix.up * helix.length
    return {
        **runs.all,
        "axis": Line.between(helix.foot, end),
        "development": _development(args, helix),
        "start": helix.foot,
        "end": end,
    }


def _working(args: Args, helix: Helix) -> Iterator[str]:
    wide, lead = args.need("diameter").length("size"), args.need("lead").length("lead")
    count, around = _starts(args), math.tau * helix.radius
    angle = math.degrees(math.atan2(helix.lead, around))
    if helix.is_tapered:
        yield from _along_a_cone(args, helix)
        yield _drafted(args, helix)
        return
    yield (
        f"pitch {args.say(helix.lead / count)}"
        if count > 1
        else f"pitch and lead {args.say(lead.value)}"
    )
    yield (
        f"helix angle atan({args.say(lead.value)} ÷ (π × {args.say(wide.value)})) = "
        f"{spell_angle(angle)}"
    )
    long = args.say(math.hypot(around, helix.lead))
    yield f"a turn is √({args.say(around)}² + {args.say(lead.value)}²) = {long} long"
    yield _drafted(args, helix)


def _along_a_cone(args: Args, helix: Helix) -> Iterator[str]:
    """Tell a helix on a cone: its side, its turns, the sector it unrolls to."""
    slope, rise = abs(helix.radius - helix.top), helix.length
    side = math.hypot(slope, rise)
    one = min(helix.whole, math.tau)
    yield f"pitch along the axis {args.say(helix.lead / _starts(args))}"
    yield f"side of the cone √({args.say(slope)}² + {args.say(rise)}²) = {args.say(side)}"
    yield (
        f"the first turn is {args.say(helix.along(0.0, one))} long, all of it "
        f"{args.say(helix.along(0.0, helix.whole))} (∫√(r² + (dr/dθ)² + (lead ÷ 2π)²) dθ)"
    )
    yield (
        f"unrolled, a turn takes {spell_angle(360 * slope / side)} of the sector; even rise makes "
        "a spiral on it"
    )


def _drafted(args: Args, helix: Helix) -> str:
    """Return by how much a fair curve through the stations departs from the true one, over a
    turn."""
    place, whole = helix.place, min(helix.whole, math.tau)
    drawn = smooth([place(whole * index / PARTS) for index in range(PARTS + 1)])
    each = len(drawn) // PARTS  # none where the stations lie closer together than the rounding
    off = max(
        min(
            (
                distance(curve, place(whole * (k + share) / PARTS))
                for curve in drawn[k * each : (k + 1) * each]
            ),
            default=0,
        )
        for k in range(PARTS)
        for share in (0.25, 0.5, 0.75)
    )
    return (
        f"a fair curve through {PARTS} points a turn departs {args.say(off)} at most from the "
        "true one"
    )


def _draw(args: Args, first: Helix, runs: _Runs, work: Work) -> None:
    """Divide the end view and the lead alike, and carry every part of the one on to its line across
    of the other."""
    foot = work.mark(first.foot, args.need("from").ref("foot").text)
    axis = work.draw(
        foot,
        LEVEL if args.get("level") else PLUMB,
        first.foot + first.up * first.length,
        f"the axis of {args.name}",
    )
    count = _starts(args)
    seen: dict[str, list[Mark]] = {}
    for index in range(count):
        helix = replace(first, begin=math.pi + math.tau * index / count)
        turns = sorted(
            {
                *(math.tau * k / PARTS for k in range(round(PARTS * helix.whole / math.tau) + 1)),
                helix.whole,
                *(turn for turn in helix.halves()),
            }
        )
        turns = [turn for k, turn in enumerate(turns) if k == 0 or turn - turns[k - 1] > ROUND]
        marks = {
            turn: station(work, helix, turn, foot, axis, args.name)
            for turn in turns
            if turn <= helix.whole
        }
        for (start, end), run in zip(pairwise(helix.halves()), _own(runs, helix), strict=False):
            own = [mark for turn, mark in marks.items() if start - ROUND <= turn <= end + ROUND]
            name = run.pieces[0].curve_of
            seen[name] = own
            work.trace(own, run, name, check="in front a right hand rises from left to right")
    within = (
        CLOSE * (first.radius + float(args.need("wire").length("size")))
        if args.get("wire")
        else 0.0
    )
    for name, run in (*runs.edges.items(), *runs.behind.items()):
        word, _, tag = name.partition(".")
        half = f"back.{tag.removeprefix('behind.')}" if tag.startswith("behind") else f"front.{tag}"
        places = seen.get(f"{args.name}.{half}", [])
        if word in ("above", "below"):
            _draw_edge(args, places, run, f"{args.name}.{name}", within, work)
    if runs.coils:
        _draw_ends(args, runs, work)


def _draw_ends(args: Args, runs: _Runs, work: Work) -> None:
    """Mark where the edges run into the round ends of the wire, and where what lies behind goes
    under what is in front."""
    size = args.need("wire").length("size").value / 2
    ends = [
        (coil, piece.curve) for coil in runs.coils for piece in coil.pieces if not piece.curve_of
    ]
    ends += [
        (run, piece.curve)
        for run in runs.behind.values()
        for piece in run.pieces
        if not piece.curve_of
    ]
    for _, arc in ends:
        assert isinstance(arc, Arc)
        middle = work.mark(arc.centre, f"an end of the middle line of {args.name}")
        ring = work.swing(middle, size, f"the wire at {middle.called}", shape=arc)
        for spot in (arc.first, arc.last):
            along = work.curve_along([spot])
            if along is None or work.has_mark(spot):
                continue
            words = f"where an edge of {args.name} runs into the end of the wire"
            piece = min(
                (along.loop.pieces[0], along.loop.pieces[-1]), key=lambda p: distance(p.curve, spot)
            )
            if abs(piece.direction(spot).dot((spot - arc.centre).unit)) > SQUARE:
                work.prick(along, ring, spot, words)
                continue
            # They run along each other there: the place is found on the line square to the wire.
            across = work.draw(middle, Way(math.degrees((spot - arc.centre).angle)), spot)
            work.prick(across, ring, spot, words)
    for run in runs.shows:
        for spot in (run.pieces[0].entry, run.pieces[-1].exit):
            work.mark(spot, f"where an edge of {args.name} goes under the coil in front")


def _own(runs: _Runs, helix: Helix) -> list[Loop]:
    """Return the half turns of one start, in order."""
    both = [*runs.front.values(), *runs.back.values()]
    loops = []
    for start, end in pairwise(helix.halves()):
        spot = helix.place(start)
        near = helix.is_near((start + end) / 2)
        group = runs.front if near else runs.back
        loops.append(
            min(group.values(), key=lambda run: abs(run.pieces[0].entry - spot))
            if group
            else both[0]
        )
    return loops


def station(work: Work, helix: Helix, turn: float, foot: Mark, axis: Edge, name: str) -> Mark:
    """Mark a place of a helix: its part of the end view carried along the axis on to its line
    across."""
    below = helix.foot - helix.up * (END_VIEW * helix.radius)
    words = f"the centre of the end view of {name}"
    centre = (
        work.measure(foot, away(axis, foot, below), END_VIEW * helix.radius, words, below)
        if (not work.has_mark(below))
        else work.mark(below)
    )
    out, angle = helix.out(turn), turn + helix.begin
    high = helix.foot + helix.up * (helix.lead * turn / math.tau)
    at = (
        work.measure(
            foot, away(axis, foot, high), helix.lead * turn / math.tau, f"a height of {name}", high
        )
        if turn
        else foot
    )
    if out <= work.paper.nothing:
        return at
    level = work.square(axis, at, helix.place(turn))
    spot = below + rotate(helix.across * (out * helix.hand), Point(0.0, 0.0), angle)
    # On a cone every place has a circle of its own: no more of it is swung than the ray crosses.
    ring = work.swing(
        centre, out, f"the end view of {name}", near=[spot] if helix.top != helix.radius else ()
    )
    ray = work.draw(centre, Way(math.degrees(angle) - 90 * helix.hand, axis.key, axis.called), spot)
    part = work.prick(ray, ring, spot, f"a part of the end view of {name}")
    carried = work.parallel(axis, part, helix.place(turn))
    return work.prick(carried, level, helix.place(turn), f"a place of {name}")


def _draw_edge(
    args: Args, places: Sequence[Mark], run: Loop, name: str, within: float, work: Work
) -> None:
    """Swing the wire about places of the middle line, and draw its edge touching the swings."""
    half = args.need("wire").length("size").value / 2
    touched: list[Round] = []
    for mark in places:
        spot = boxed(run).nearest(mark.at)
        if abs(abs(spot - mark.at) - float(half)) < CLOSE * float(half):
            touched.append(work.swing(mark, half, f"the wire at {mark.called}", near=[spot]))
    work.trace(touched, run, name, touching=True, within=within)


ABOUT = """\
On a cylinder, or `to diameter` on a cone; `lead`, `turns`, `starts`, hand; `level` or upright.
Parts `front.1`, `back.1` and so on, `axis`, `development`; with `wire`, the edges `above.1`,
`below.1` of a round wire; `as seen` it is the wire itself: near coils closed round it at their
sides, those behind as far as they show, all lined in by `line in, spring, open`. A screw's
edges are two helices, crest and root.
"""

SHOWN = """\
units mm
O = datum
spring = helix, from O, diameter 48, lead 16, 4 turns, wire 6, as seen
A = point, 90 right of O
worm = helix, from A, diameter 40, lead 24, 2 turns, 2 starts, left hand, level
coils = line in, spring, open
near = line in, worm.front.1, open
far = hidden, worm.back.1, open
"""

KIND = Kind(
    name="helix",
    group="Curves",
    summary="on a cylinder or cone; near and far half, springs, screw edges",
    example="coil = helix, from O, diameter 40, lead 12, 3 turns",
    mistake="The lead is taken for the pitch: with two starts the pitch is half the lead.",
    also=("spring", "coil"),
    forms=(
        Form("from {foot:point}", needed=True),
        Form("diameter {size:diameter}", needed=True),
        Form("to diameter {size:length}", "to"),
        Form("lead {lead:length}", needed=True),
        Form("{turns:length} turns", "turns", needed=True),
        Form("{count:count} starts", "starts"),
        Form("right hand", "right"),
        Form("left hand", "left"),
        Form("level"),
        Form("plumb"),
        Form("wire {size:diameter}"),
        Form("as seen", "seen"),
    ),
    construct=construct,
    about=ABOUT,
    shown=SHOWN,
)
