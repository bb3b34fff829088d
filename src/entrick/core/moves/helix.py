"""``helix``: on a cylinder or a cone, seen square to its axis; its far half apart from its near one."""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from functools import partial
from itertools import pairwise

from ..acts import LEVEL, PLUMB, Edge, Mark, Round, Way, Work
from ..acts.paper import nearest_place
from ..acts.procedures import away
from ..geometry import Line, Loop, Point, Shape, rotate
from ..geometry.biarc import smooth
from ..geometry.fitted import fitted
from ..geometry.loop import distance
from ..kind import Args, Kind, Made
from ..kind.figure import Family
from ..kind.parts import curve_run
from ..measure import spell_angle
from ..plan.errors import ClauseError
from ..plan.forms import Form
from ..rules.helix import MOST_TURNS, Helix
from ..tolerance import FITTED, ROUND

PARTS = 12

END_VIEW = 1.4
"""Distance of the end view from the foot of the axis, in radii."""

CLOSE = FITTED["helix"]
"""Departure of the arcs a helix is drawn with, as a share of its radius: a hundredth of a millimetre in 25."""


@dataclass(frozen=True)
class _Runs:
    """Half turns seen and behind, and the edges of a wire along the seen ones, by the names of their parts."""

    front: dict[str, Loop]
    back: dict[str, Loop]
    edges: dict[str, Loop]

    @property
    def all(self) -> dict[str, Loop]:
        return {**self.front, **self.back, **self.edges}


def construct(args: Args) -> Made:
    """Construct the projection of a helix that starts at a point of its axis and rises along it.

    Parts: ``front.1`` …, ``back.1`` … (half turns, seen and behind), ``axis``, ``development`` (the straight line it
    unrolls to); with a wire, ``above.1`` … and ``below.1`` …, the edges of the near halves.

    Notes
    -----
    Helix angle atan(lead/πD), length of a turn √((πD)² + lead²) (development). A right hand rises from left to right
    in front.
    """
    helix = _read(args)
    runs = _runs(args, helix)
    wide, lead, turns = (args.need(key).length(slot) for key, slot in
                         (("diameter", "size"), ("lead", "lead"), ("turns", "turns")))  # fmt: skip
    return Made(
        Family((*runs.front.values(), *runs.back.values())),
        f"Helix {args.name} from {args.need('from').ref('foot').text}, Ø{args.say(wide.value)}, "
        f"lead {args.say(lead.value)}, {turns.text} turns, {'left' if helix.hand < 0 else 'right'} hand.",
        tuple(_working(args, helix)),
        parts=_parts(helix, runs),
        draw=partial(_draw, args, helix, runs),
    )


def _read(args: Args) -> Helix:
    wide, narrow = args.need("diameter").length("size"), args.get("to")
    radius = float(wide) / 2
    top = float(narrow.length("size")) / 2 if narrow else radius
    lead, turns = float(args.need("lead").length("lead")), float(args.need("turns").length("turns"))
    if min(radius, lead) <= 0 or top < 0 or not 0 < turns <= MOST_TURNS:
        raise ClauseError(f"a helix has a diameter and a lead of more than nought, and up to {MOST_TURNS} turns",
                          args.need("turns").clause)  # fmt: skip
    up = Point(1.0, 0.0) if args.get("level") else Point(0.0, 1.0)
    hand = -1 if args.get("left") else 1
    return Helix(args.need("from").point("foot"), up, radius, top, lead, math.tau * turns, hand)


def _starts(args: Args) -> int:
    starts = args.get("starts")
    return starts.count("count") if starts else 1


def _runs(args: Args, first: Helix) -> _Runs:
    """Draw every start half turn by half turn, the seen ones with the edges of the wire."""
    wire = args.get("wire")
    half = float(wire.length("size")) / 2 if wire else 0.0
    runs, count = _Runs({}, {}, {}), _starts(args)
    for index in range(count):
        helix = replace(first, begin=math.pi + math.tau * index / count)
        for start, end in pairwise(helix.halves()):
            near = helix.is_near((start + end) / 2)
            word, group = ("front", runs.front) if near else ("back", runs.back)
            key = f"{word}.{len(group) + 1}"
            curves = fitted(helix.place, helix.heading, _knots(start, end), CLOSE * helix.radius)
            group[key] = curve_run(f"{args.name}.{key}", curves, closed=False)
            if near and half > 0:
                runs.edges.update(_wire(args, helix, start, end, half, len(runs.front)))
    return runs


def _knots(start: float, end: float) -> list[float]:
    """Return where a half turn is constructed: at its ends and at every part of a turn between."""
    part = math.tau / PARTS
    between = [part * k for k in range(math.ceil(start / part + ROUND), math.floor(end / part - ROUND) + 1)]
    inner = [turn for turn in between if start + ROUND < turn < end - ROUND]
    quarters = [] if len(inner) > 1 else [start + (end - start) * k / 4 for k in (1, 2, 3)]
    return [start, *sorted({*inner, *quarters}), end]


def _wire(args: Args, helix: Helix, start: float, end: float, half: float, number: int) -> Iterator[tuple[str, Loop]]:
    """Return the two edges of a wire along a seen half turn."""
    tight = helix.tight(start, end, half)
    # Which side is above is told half way: at its ends the curve runs straight up.
    side = math.copysign(half, helix.heading((start + end) / 2).normal.dot(helix.up) * half)
    for sign, word in ((1, "above"), (-1, "below")):
        # Where the curve bends more tightly than the wire, its inner edge is hidden behind the round end.
        low, high = (start, end - tight) if sign > 0 else (start + tight, end)

        def edge(turn: float, off: float = side * sign) -> Point:
            return helix.place(turn) + helix.heading(turn).normal * off

        quarters = [low + (high - low) * k / 4 for k in range(5)]
        curves = fitted(edge, helix.heading, quarters, CLOSE * helix.radius)
        yield f"{word}.{number}", curve_run(f"{args.name}.{word}.{number}", curves, closed=False)


def _parts(helix: Helix, runs: _Runs) -> dict[str, Shape | Loop]:
    end = helix.foot + helix.up * helix.length
    corner = helix.foot + helix.across * (helix.radius * 1.5)
    unrolled = corner + helix.across * (math.tau * helix.radius) + helix.up * helix.lead
    return {
        **runs.all,
        "axis": Line.between(helix.foot, end),
        "development": Line.between(corner, unrolled),
        "start": helix.foot,
        "end": end,
    }


def _working(args: Args, helix: Helix) -> Iterator[str]:
    wide, lead = args.need("diameter").length("size"), args.need("lead").length("lead")
    count, around = _starts(args), math.tau * helix.radius
    angle = math.degrees(math.atan2(helix.lead, around))
    yield f"pitch {args.say(helix.lead / count)}" if count > 1 else f"pitch and lead {args.say(lead.value)}"
    yield f"helix angle atan({args.say(lead.value)} ÷ (π × {args.say(wide.value)})) = {spell_angle(angle)}"
    long = args.say(math.hypot(around, helix.lead))
    yield f"a turn is √({args.say(around)}² + {args.say(lead.value)}²) = {long} long"
    yield _drafted(args, helix)


def _drafted(args: Args, helix: Helix) -> str:
    """Return by how much a fair curve through the stations departs from the true one, over a turn."""
    place, whole = helix.place, min(helix.whole, math.tau)
    drawn = smooth([place(whole * index / PARTS) for index in range(PARTS + 1)])
    each = len(drawn) // PARTS  # none where the stations lie closer together than the rounding
    off = max(
        min(
            (distance(curve, place(whole * (k + share) / PARTS)) for curve in drawn[k * each : (k + 1) * each]),
            default=0,
        )
        for k in range(PARTS)
        for share in (0.25, 0.5, 0.75)
    )
    return f"a fair curve through {PARTS} points a turn departs {args.say(off)} at most from the true one"


def _draw(args: Args, first: Helix, runs: _Runs, work: Work) -> None:
    """Divide the end view and the lead alike, and carry every part of the one on to its line across of the other."""
    foot = work.mark(first.foot, args.need("from").ref("foot").text)
    axis = work.draw(foot, LEVEL if args.get("level") else PLUMB, first.foot + first.up * first.length,
                     f"the axis of {args.name}")  # fmt: skip
    count = _starts(args)
    seen: dict[str, list[Mark]] = {}
    for index in range(count):
        helix = replace(first, begin=math.pi + math.tau * index / count)
        turns = sorted({*(math.tau * k / PARTS for k in range(round(PARTS * helix.whole / math.tau) + 1)),
                        helix.whole, *(turn for turn in helix.halves())})  # fmt: skip
        turns = [turn for k, turn in enumerate(turns) if k == 0 or turn - turns[k - 1] > ROUND]
        marks = {turn: station(work, helix, turn, foot, axis, args.name) for turn in turns if turn <= helix.whole}
        for (start, end), run in zip(pairwise(helix.halves()), _own(runs, helix), strict=False):
            own = [mark for turn, mark in marks.items() if start - ROUND <= turn <= end + ROUND]
            name = run.pieces[0].curve_of
            seen[name] = own
            work.trace(own, run, name, check="in front a right hand rises from left to right")
    for name, run in runs.edges.items():
        places = seen.get(f"{args.name}.front.{name.rpartition('.')[2]}", [])
        _draw_edge(
            args,
            places,
            run,
            f"{args.name}.{name}",
            CLOSE * (first.radius + float(args.need("wire").length("size"))),
            work,
        )


def _own(runs: _Runs, helix: Helix) -> list[Loop]:
    """Return the half turns of one start, in order."""
    both = [*runs.front.values(), *runs.back.values()]
    found = []
    for start, end in pairwise(helix.halves()):
        spot = helix.place(start)
        near = helix.is_near((start + end) / 2)
        group = runs.front if near else runs.back
        found.append(min(group.values(), key=lambda run: abs(run.pieces[0].entry - spot)) if group else both[0])
    return found


def station(work: Work, helix: Helix, turn: float, foot: Mark, axis: Edge, name: str) -> Mark:
    """Mark a place of a helix: its part of the end view carried along the axis on to its line across."""
    below = helix.foot - helix.up * (END_VIEW * helix.radius)
    told = f"the centre of the end view of {name}"
    centre = work.measure(foot, away(axis, foot, below), END_VIEW * helix.radius, told, below) if (
        not work.has_mark(below)) else work.mark(below)  # fmt: skip
    out, angle = helix.out(turn), turn + helix.begin
    high = helix.foot + helix.up * (helix.lead * turn / math.tau)
    at = work.measure(foot, away(axis, foot, high), helix.lead * turn / math.tau, f"a height of {name}",
                      high) if turn else foot  # fmt: skip
    if out <= work.paper.nothing:
        return at
    level = work.square(axis, at, helix.place(turn))
    ring = work.swing(centre, out, f"the end view of {name}")
    spot = below + rotate(helix.across * (out * helix.hand), Point(0.0, 0.0), angle)
    ray = work.draw(centre, Way(math.degrees(angle) - 90 * helix.hand, axis.key, axis.called), spot)
    part = work.prick(ray, ring, spot, f"a part of the end view of {name}")
    carried = work.parallel(axis, part, helix.place(turn))
    return work.prick(carried, level, helix.place(turn), f"a place of {name}")


def _draw_edge(args: Args, places: Sequence[Mark], run: Loop, name: str, within: float, work: Work) -> None:
    """Swing the wire about places of the middle line, and draw its edge touching the swings."""
    half = args.need("wire").length("size").value / 2
    touched: list[Round] = []
    for mark in places:
        spots = [nearest_place(piece.curve, mark.at) for piece in run.pieces]
        spot = min(spots, key=lambda place: abs(place - mark.at))
        if abs(abs(spot - mark.at) - float(half)) < CLOSE * float(half):
            touched.append(work.swing(mark, half, f"the wire at {mark.called}", near=[spot]))
    work.trace(touched, run, name, touching=True, within=within)


KIND = Kind(
    name="helix",
    group="Curves",
    summary="on a cylinder or cone; near and far half, springs, screw edges",
    example="coil = helix, from O, diameter 40, lead 12, 3 turns",
    mistake="The lead is taken for the pitch: with two starts the pitch is half the lead.",
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
    ),
    construct=construct,
)
