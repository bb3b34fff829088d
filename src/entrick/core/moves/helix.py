"""``helix``: on a cylinder or a cone, seen square to its axis; its far half apart from its near one."""

from __future__ import annotations

import math
from collections.abc import Callable
from itertools import pairwise

from ..geometry import Circle, Line, Loop, Point
from ..geometry.biarc import smooth
from ..geometry.fitted import fitted
from ..geometry.loop import distance
from ..kind import Args, Kind, Made, Role, Step, Stroke, Tool
from ..kind.figure import Family
from ..kind.parts import curve_run
from ..measure import spell_angle
from ..plan.errors import ClauseError
from ..plan.forms import Form
from ..tolerance import FITTED, NOUGHT, ROUND

PARTS = 12
MOST_TURNS = 30

CLOSE = FITTED["helix"]
"""Departure of the arcs a helix is drawn with, as a share of its radius: a hundredth of a millimetre in 25."""


def construct(args: Args) -> Made:
    """Construct the projection of a helix that starts at a point of its axis and rises along it.

    Parts: ``front.1`` …, ``back.1`` … (half turns, seen and behind), ``axis``, ``development`` (the straight line it
    unrolls to); with a wire, ``above.1`` … and ``below.1`` …, the edges of the near halves.

    Notes
    -----
    Seen from the front a place at angle θ is r·cos θ from the axis and lead·θ/2π up it. Helix angle atan(lead/πD),
    length of a turn √((πD)² + lead²) (development). A right hand rises from left to right in front.
    """
    foot, name = args.need("from").point("foot"), args.need("from").ref("foot").text
    wide = args.need("diameter").length("size")
    narrow = args.get("to")
    radius, top = float(wide) / 2, float(narrow.length("size")) / 2 if narrow else float(wide) / 2
    lead, turns = args.need("lead").length("lead"), args.need("turns").length("turns")
    starts = args.get("starts")
    count = starts.count("count") if starts else 1
    if min(radius, float(lead)) <= 0 or top < 0 or not 0 < float(turns) <= MOST_TURNS:
        raise ClauseError(f"a helix has a diameter and a lead of more than nought, and up to {MOST_TURNS} turns",
                          args.need("turns").clause)  # fmt: skip
    hand = -1 if args.get("left") else 1
    up = Point(1.0, 0.0) if args.get("level") else Point(0.0, 1.0)
    across = -up.normal
    whole = math.tau * float(turns)

    def shrink(turn: float) -> float:
        return radius + (top - radius) * turn / whole

    def curve(begin: float) -> tuple[Callable[[float], Point], Callable[[float], Point]]:
        def place(turn: float) -> Point:
            out = shrink(turn) * math.cos(turn + begin) * hand
            return foot + across * out + up * (float(lead) * turn / math.tau)

        def heading(turn: float) -> Point:
            slim = (top - radius) / whole
            out = (slim * math.cos(turn + begin) - shrink(turn) * math.sin(turn + begin)) * hand
            return (across * out + up * (float(lead) / math.tau)).unit

        return place, heading

    parts: dict[str, Point | Line | Loop] = {}
    fronts: list[Loop] = []
    backs: list[Loop] = []
    edges: list[Loop] = []
    wire = args.get("wire")
    half = float(wire.length("size")) / 2 if wire else 0.0
    for index in range(count):
        begin = math.pi + math.tau * index / count
        place, heading = curve(begin)
        bounds = [
            0.0,
            *(t for k in range(-1, 2 * MOST_TURNS + 4) if ROUND < (t := k * math.pi - begin % math.pi) < whole - ROUND),
            whole,
        ]
        for start, end in pairwise(bounds):
            middle = (start + end) / 2 + begin
            seen = math.sin(middle) < 0
            group = fronts if seen else backs
            told = f"{'front' if seen else 'back'}.{len(group) + 1}"
            quarters = [start + (end - start) * k / 4 for k in range(5)]
            group.append(
                curve_run(f"{args.name}.{told}", fitted(place, heading, quarters, CLOSE * radius), closed=False)
            )
            if seen and half > 0:
                tight = _tight(start, end, begin, shrink, float(lead), half)
                for side, word in ((1, "above"), (-1, "below")):
                    # Where the curve bends more tightly than the wire, its inner edge is hidden behind the round end.
                    low, high = (start, end - tight) if side > 0 else (start + tight, end)
                    edge = _edge(place, heading, (start + end) / 2, up, side * half)
                    quarters = [low + (high - low) * k / 4 for k in range(5)]
                    owner = f"{args.name}.{word}.{len(fronts)}"
                    edges.append(curve_run(owner, fitted(edge, heading, quarters, CLOSE * radius), closed=False))
    for run in (*fronts, *backs, *edges):
        parts[run.pieces[0].name.rpartition(".")[0].removeprefix(f"{args.name}.")] = run
    length = float(lead) * float(turns)
    axis = Line.between(foot, foot + up * length)
    around = math.pi * radius * 2
    angle = math.degrees(math.atan2(float(lead), around))
    corner = foot + across * (radius * 1.5)
    parts |= {"axis": axis, "development": Line.between(corner, corner + across * around + up * float(lead)),
              "start": foot, "end": foot + up * length}  # fmt: skip
    place, _ = curve(math.pi)
    return Made(
        Family((*fronts, *backs)),
        f"Helix {args.name} from {name}, Ø{args.say(wide.value)}, lead {args.say(lead.value)}, {turns.text} turns, "
        f"{'left' if hand < 0 else 'right'} hand.",
        (
            f"pitch {args.say(float(lead) / count)}" if count > 1 else f"pitch and lead {args.say(lead.value)}",
            f"helix angle atan({args.say(lead.value)} ÷ (π × {args.say(wide.value)})) = {spell_angle(angle)}",
            f"a turn is √({args.say(around)}² + {args.say(lead.value)}²) = "
            f"{args.say(math.hypot(around, float(lead)))} long",
            _drafted(args, place, float(lead), radius, min(whole, math.tau)),
        ),
        _steps(args, place, foot, up, across, radius, float(lead), whole, (*fronts, *backs, *edges)),
        parts,
    )


def _edge(
    place: Callable[[float], Point], heading: Callable[[float], Point], middle: float, up: Point, off: float
) -> Callable[[float], Point]:
    """Return the parallel of a half turn at the radius of the wire, above it or below."""
    # Which side is above is told half way: at its ends the curve runs straight up.
    side = math.copysign(off, heading(middle).normal.dot(up) * off)

    def edge(turn: float) -> Point:
        return place(turn) + heading(turn).normal * side

    return edge


def _tight(start: float, end: float, begin: float, shrink: Callable[[float], float], lead: float, half: float) -> float:
    """Return how far from its ends a half turn bends more tightly than the wire is thick, radians (by halving)."""
    rise = lead / math.tau

    def bend(away: float) -> float:
        r, turn = shrink(start + away), start + away + begin
        ahead = math.hypot(r * math.sin(turn), rise)
        return ahead**3 / max(abs(r * math.cos(turn) * rise), NOUGHT)

    low, high = 0.0, (end - start) / 2
    if bend(low) >= half:
        return 0.0
    for _ in range(50):
        middle = (low + high) / 2
        low, high = (middle, high) if bend(middle) < half else (low, middle)
    return high


def _drafted(args: Args, place: Callable[[float], Point], lead: float, radius: float, whole: float) -> str:
    """Return by how much a fair curve through the stations departs from the true one, over a turn."""
    spots = [place(whole * index / PARTS) for index in range(PARTS + 1)]
    drawn = smooth(spots)
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


def _steps(
    args: Args, place: Callable[[float], Point], foot: Point, up: Point, across: Point, radius: float, lead: float,
    whole: float, runs: tuple[Loop, ...],
) -> tuple[Step, ...]:  # fmt: skip
    below = foot - up * (radius * 1.4)
    circle = Circle(below, radius)
    stations = range(round(PARTS * whole / math.tau) + 1)
    levels = tuple(
        Stroke(Line.between(spot - across * radius, spot + across * radius))
        for index in stations
        for spot in (foot + up * (lead * index / PARTS),)
    )
    spots = tuple(
        Stroke(place(math.tau * index / PARTS), Role.POINT, str(index) if index <= PARTS else "") for index in stations
    )
    return (
        Step(Tool.COMPASS, f"Draw the end view and divide it in {PARTS}", radius, below, (Stroke(circle),)),
        Step(Tool.DIVIDERS, f"Divide the lead in {PARTS} as well, draw the lines across", lead / PARTS, foot, levels),
        Step(Tool.STRAIGHTEDGE, "Project each part of the end view on to its line", strokes=spots,
             check="in front a right hand rises from left to right"),
        Step(Tool.PENCIL, f"Draw {args.name} fair through the points; the far half lightly",
             strokes=tuple(Stroke(run) for run in runs)),
    )  # fmt: skip


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
