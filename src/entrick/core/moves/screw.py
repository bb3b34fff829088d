"""``screw``: a square or V thread seen square to its axis, by its crest and root helices."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterator, Mapping, Sequence
from dataclasses import dataclass, field
from functools import partial

from ..acts import LEVEL, PLUMB, Mark, Way, Work
from ..acts.copies import laid_off
from ..acts.procedures import away
from ..geometry import Arc, Line, Loop, Point, rotate, shift
from ..geometry.fitted import fitted
from ..kind import Args, Kind, Made
from ..kind.figure import Family
from ..kind.parts import curve_run
from ..measure import spell_angle
from ..plan.errors import ClauseError
from ..plan.forms import Form
from ..tolerance import ROUND
from ..worksheets import Remark
from .helix import CLOSE, END_VIEW

Drawn = tuple[Line | Arc, ...]
"""One edge, end to end."""

MOST_PITCHES = 60
"""Threads one above the other on one screw."""

LEFT, FRONT, RIGHT = math.pi, 1.5 * math.pi, math.tau
"""Directions on the end view, radians, of what is seen at the left, in the middle of the near half,
at the right."""


@dataclass(frozen=True)
class _Screw:
    """Sizes of a screw in plan units, standing upright on nought, right-handed; and how it is put
    on the sheet."""

    crest: float
    root: float
    lead: float
    pitch: float
    length: float
    put: Callable[[float, float], Point]
    fitted: dict[tuple[float, float, float], tuple[float, Drawn]] = field(default_factory=dict)
    """Whole edges: those of every other thread are the same, further up."""
    spans: dict[Drawn, tuple[float, float, float, float, bool]] = field(default_factory=dict)
    """Of every curved edge its radius, its thread, from which direction to which, and whether it is
    a whole one."""

    def level(self, turn: float, number: float) -> float:
        """Return how high the edge of a thread is in a direction, counting threads from below."""
        return self.lead * (turn - LEFT) / math.tau + number * self.pitch

    def edge(self, radius: float, number: float, begin: float, end: float) -> list[Drawn]:
        """Return the part of a helix that lies on the screw, as arcs."""

        def turn_at(high: float) -> float:
            return (high - number * self.pitch) / self.lead * math.tau + LEFT

        low, high = max(begin, turn_at(0.0)), min(end, turn_at(self.length))
        if high - low < ROUND:
            return []
        curves = self._edge(radius, number, (begin, end), (low, high))
        self.spans[curves] = (radius, number, low, high, (low, high) == (begin, end))
        return [curves]

    def _edge(
        self, radius: float, number: float, span: tuple[float, float], seen: tuple[float, float]
    ) -> Drawn:
        (begin, end), (low, high) = span, seen
        whole = (radius, begin, end)
        if (low, high) == (begin, end) and whole in self.fitted:
            number_of_it, curves = self.fitted[whole]
            by = self.put(0.0, (number - number_of_it) * self.pitch) - self.put(0.0, 0.0)
            return tuple(shift(curve, by) for curve in curves)
        # Half a turn about a point of the axis takes an edge to its fellow on the other flank,
        # walked back.
        twin = (radius, LEFT + RIGHT - end, LEFT + RIGHT - begin)
        if (low, high) == (begin, end) and twin in self.fitted:
            number_of_it, curves = self.fitted[twin]
            about = self.put(0.0, (self.lead / 2 + (number + number_of_it) * self.pitch) / 2)
            self.fitted[whole] = (
                number,
                tuple(_walked_back(rotate(c, about, math.pi)) for c in curves[::-1]),
            )
            return self.fitted[whole][1]

        rise, base = self.lead / math.tau, number * self.pitch

        def place(turn: float) -> Point:
            return self.put(radius * math.cos(turn), rise * (turn - LEFT) + base)

        ahead = self.put(0.0, 0.0)

        def heading(turn: float) -> Point:
            return (self.put(-radius * math.sin(turn), rise) - ahead).unit

        count = math.ceil((high - low) / (math.pi / 4) - ROUND)
        knots = [low + (high - low) * k / count for k in range(count + 1)]
        curves = fitted(place, heading, knots, 2 * CLOSE * self.crest)
        if (low, high) == (begin, end):
            self.fitted[whole] = (number, curves)
        return curves

    def straight(self, out: float, low: float, beyond: float, high: float) -> list[Drawn]:
        """Return the part of a line between two places (out, high) that lies on the screw."""
        if low > high:
            out, low, beyond, high = beyond, high, out, low
        if high <= 0 or low >= self.length or high - low < ROUND:
            return []

        def at(level: float) -> float:
            return out + (beyond - out) * (level - low) / (high - low)

        start, end = max(low, 0.0), min(high, self.length)
        return [(Line.between(self.put(at(start), start), self.put(at(end), end)),)]


def _walked_back(curve: Line | Arc) -> Line | Arc:
    if isinstance(curve, Arc):
        return Arc(curve.centre, curve.radius, curve.start + curve.sweep, -curve.sweep)
    return Line.between(curve.at(curve.end or 0.0), curve.at(curve.start or 0.0))


def construct(args: Args) -> Made:
    """Construct what is seen of a screw thread from its foot, as many edges: crests, roots, sides,
    ends.

    Parts by number: ``crest.1`` …, ``root.1`` …, ``side.1`` … (of the thread), ``core.1`` … (of the
    core between the threads), ``flank.1`` … (of a V thread), ``end.1``, ``end.2``; ``axis``.

    Notes
    -----
    A square thread is half a pitch thick. Of its two flanks a right hand shows the upper one at the
    right of the axis and the lower one at the left, where they face the eye: there the root helix
    is seen, and the crest beyond the core until the core hides it, at acos(root ÷ crest) past the
    side (from the projection). V threads are drawn as the books do: straight flanks from crest to
    root."""
    screw, starts = _read(args), _starts(args)
    vee = _is_vee(args)
    found = _vee(screw, starts) if vee else _square(screw, starts, _beyond(args))
    edges = {
        f"{word}.{index}": curve_run(f"{args.name}.{word}.{index}", curve, closed=False)
        for word, curves in found.items()
        for index, curve in enumerate(curves, 1)
    }
    foot, (over, core, lead, length) = (
        args.need("from"),
        (args.need(key).length(slot).value for key, slot in _SIZES),
    )
    return Made(
        Family(tuple(edges.values())),
        f"Screw {args.name} from {foot.ref('foot').text}, {'V' if vee else 'square'} thread "
        f"Ø{args.say(over)}, "
        f"core Ø{args.say(core)}, lead {args.say(lead)}, {args.say(length)} long, "
        f"{'left' if args.get('left') else 'right'} hand.",
        _working(args, starts, vee),
        parts={
            **edges,
            "axis": Line.between(foot.point("foot"), screw.put(0.0, screw.length)),
            "foot": foot.point("foot"),
        },
        remarks=partial(_remarks, args, screw, starts, vee),
        draw=partial(_draw, args, screw, found, edges),
    )


USUAL_FLANKS = 60.0
"""Angle between the flanks of the usual V thread, degrees (ISO 68-1, unified threads)."""

FLANKS_OFF = 10.0
"""By how much another angle is remarked on, degrees."""


def _flanks(args: Args, starts: int) -> float:
    """Return the angle between the flanks of a V thread in degrees: 2·atan(p/2 ÷ depth)."""
    over, core, lead = (float(args.need(key).length(slot)) for key, slot in _SIZES[:3])
    return 2 * math.degrees(math.atan2(lead / starts / 2, (over - core) / 2))


def _remarks(args: Args, screw: _Screw, starts: int, vee: bool) -> Iterator[Remark]:
    if vee and abs(_flanks(args, starts) - USUAL_FLANKS) > FLANKS_OFF:
        yield Remark(
            "look",
            f"the flanks stand at {_flanks(args, starts):.1f}°; {USUAL_FLANKS:g}° is the usual V "
            "thread: is the core's diameter meant so?",
            screw.put(0.0, 0.0),
        )


_SIZES = (("diameter", "size"), ("core", "size"), ("lead", "lead"), ("length", "length"))
"""Clauses and their places: diameter over the threads, of the core, lead, length."""


def _starts(args: Args) -> int:
    starts = args.get("starts")
    return starts.count("count") if starts else 1


def _is_vee(args: Args) -> bool:
    form = args.get("form")
    return form is not None and form.word("form") == "vee"


def _beyond(args: Args) -> float:
    """Return how far past the side the crest of a square thread is seen, radians."""
    return math.acos(
        float(args.need("core").length("size")) / float(args.need("diameter").length("size"))
    )


def _read(args: Args) -> _Screw:
    over, core, lead, length = (args.need(key).length(slot) for key, slot in _SIZES)
    starts = _starts(args)
    pitch = lead.value / starts
    if not 0 < float(core) < float(over):
        raise ClauseError(
            f"the core is thinner than the {args.say(over.value)} over the threads",
            args.need("core").index,
        )
    if float(lead) <= 0 or not 0 < float(length) <= MOST_PITCHES * float(pitch):
        raise ClauseError(
            f"a screw is more than nought long, and at most {MOST_PITCHES} pitches",
            args.need("length").index,
        )
    if not _is_vee(args) and _beyond(args) > math.pi / (2 * starts):
        least = float(over) * math.cos(math.pi / (2 * starts))
        raise ClauseError(
            f"with {starts} starts the core is at least {args.say(least)}: a thinner one is "
            "hidden by the next thread",
            args.need("core").index,
        )
    foot = args.need("from").point("foot")
    up = Point(1.0, 0.0) if args.get("level") else Point(0.0, 1.0)
    across = -up.normal * (-1 if args.get("left") else 1)

    def put(out: float, high: float) -> Point:
        # Written out: it runs thousands of times for one screw.
        return Point(foot.x + across.x * out + up.x * high, foot.y + across.y * out + up.y * high)

    return _Screw(float(over) / 2, float(core) / 2, float(lead), float(pitch), float(length), put)


def _working(args: Args, starts: int, vee: bool) -> tuple[str, ...]:
    over, core, lead, _ = (args.need(key).length(slot).value for key, slot in _SIZES)
    pitch = lead / starts
    thick = "" if vee else f"{args.say(pitch / 2)} thick, half the pitch, and "
    deep = f"({args.say(over)} − {args.say(core)}) ÷ 2 = {args.say((over - core) / 2)} deep"
    angle = math.degrees(math.atan2(float(lead), math.pi * float(over)))
    return (
        f"pitch {args.say(lead)} ÷ {starts} start{'s' if starts > 1 else ''} = {args.say(pitch)}",
        f"the thread is {thick}{deep}",
        f"helix angle over the threads atan({args.say(lead)} ÷ (π × {args.say(over)})) = "
        f"{spell_angle(angle)}",
    )


def _square(screw: _Screw, starts: int, beyond: float) -> dict[str, list[Drawn]]:
    """Return what is seen of a square thread, by what it is."""
    R, r, half = screw.crest, screw.root, 0.5  # noqa: N806 - as drafters write them
    result: dict[str, list[Drawn]] = {"crest": [], "root": [], "side": [], "core": [], "end": []}
    for n in range(-starts - 2, math.ceil(screw.length / screw.pitch) + 2):
        top = n + half
        result["crest"] += screw.edge(R, n, LEFT - beyond, RIGHT) + screw.edge(
            R, top, LEFT, RIGHT + beyond
        )
        result["root"] += screw.edge(r, n, LEFT, FRONT) + screw.edge(r, top, FRONT, RIGHT)
        for side, turn in ((-1, LEFT), (1, RIGHT)):
            result["side"] += screw.straight(
                side * R, screw.level(turn, n), side * R, screw.level(turn, top)
            )
        result["core"] += screw.straight(
            r, screw.level(RIGHT, top), r, screw.level(RIGHT - beyond, n + 1)
        )
        result["core"] += screw.straight(
            -r, screw.level(LEFT, n), -r, screw.level(LEFT + beyond, top - 1)
        )
    result["end"] = _ends(screw, lambda turn, high: _in_thread(screw, turn, high))
    return result


def _vee(screw: _Screw, starts: int) -> dict[str, list[Drawn]]:
    """Return what the books draw of a V thread: both helices in front, straight flanks at the
    sides."""
    R, r, half = screw.crest, screw.root, 0.5  # noqa: N806 - as drafters write them
    result: dict[str, list[Drawn]] = {"crest": [], "root": [], "flank": [], "end": []}
    for n in range(-starts - 2, math.ceil(screw.length / screw.pitch) + 2):
        result["crest"] += screw.edge(R, n, LEFT, RIGHT)
        result["root"] += screw.edge(r, n + half, LEFT, RIGHT)
        for side, turn in ((-1, LEFT), (1, RIGHT)):
            low, middle, high = (screw.level(turn, n + step) for step in (0.0, half, 1.0))
            result["flank"] += screw.straight(side * R, low, side * r, middle)
            result["flank"] += screw.straight(side * r, middle, side * R, high)

    def radius(turn: float, high: float) -> float:
        away = (high - screw.level(turn, 0)) / screw.pitch % 1.0
        return r + (R - r) * abs(2 * away - 1)

    result["end"] = _ends(screw, radius)
    return result


def _in_thread(screw: _Screw, turn: float, high: float) -> float:
    """Return the radius of a square-threaded screw in a direction at a level."""
    away = (high - screw.level(turn, 0)) / screw.pitch % 1.0
    return screw.crest if away <= 0.5 + ROUND or away > 1 - ROUND else screw.root


def _ends(screw: _Screw, radius: Callable[[float, float], float]) -> list[Drawn]:
    """Return the two ends, each as wide as the section there: at a side, or where the edge of a
    thread crosses it."""
    result: list[Drawn] = []
    for high in (0.0, screw.length):
        crossings = [
            turn
            for step in range(-60, 61)
            for turn in ((high - step * screw.pitch / 2) / screw.lead * math.tau + LEFT,)
            if 0 <= turn <= 2 * math.tau
        ]
        outs = [math.cos(turn) * radius(turn, high) for turn in (LEFT, RIGHT, *crossings)]
        result.append((Line.between(screw.put(min(outs), high), screw.put(max(outs), high)),))
    return result


def _draw(
    args: Args,
    screw: _Screw,
    found: Mapping[str, Sequence[Drawn]],
    edges: Mapping[str, Loop],
    work: Work,
) -> None:
    """Project the parts of both end-view circles on to their heights: one thread; its fellows are
    laid off from it."""
    drawn = _OnSheet(args, screw, work)
    first: dict[tuple[float, float, float], tuple[Loop, float]] = {}
    for word, curves in found.items():
        for index, curve in enumerate(curves, 1):
            run = edges[f"{word}.{index}"]
            name = f"{args.name}.{word}.{index}"
            span = screw.spans.get(curve)
            if span is None:
                ends = [
                    drawn.place(*drawn.from_axis(spot))
                    for spot in (run.pieces[0].entry, run.pieces[-1].exit)
                ]
                work.through(ends[0], ends[1], name)
                continue
            radius, number, low, high, whole = span
            known = first.get((radius, low - high, low)) if whole else None
            if known is None:
                drawn.edge(radius, number, (low, high), run, name)
                if whole:
                    first[radius, low - high, low] = (run, number)
                continue
            original, _ = known
            start = work.mark(original.pieces[0].entry)
            to = drawn.place(*drawn.from_axis(run.pieces[0].entry))
            laid_off(
                work, original, run, "shift", start, to, called=f"{name}, a template of card helps"
            )


class _OnSheet:
    """A screw on the sheet: its axis, its end view below the foot, and the places that are
    projected from it."""

    def __init__(self, args: Args, screw: _Screw, work: Work) -> None:
        self.screw, self.work, self.name = screw, work, args.name
        self.origin = screw.put(0.0, 0.0)
        self.up = screw.put(0.0, 1.0) - self.origin
        self.across = screw.put(1.0, 0.0) - self.origin
        self.foot = work.mark(self.origin, args.need("from").ref("foot").text)
        self.axis = work.draw(
            self.foot,
            LEVEL if args.get("level") else PLUMB,
            screw.put(0.0, screw.length),
            f"the axis of {args.name}",
        )
        below = screw.put(0.0, -END_VIEW * screw.crest)
        words = f"the centre of the end view of {args.name}"
        self.centre = work.measure(
            self.foot, away(self.axis, self.foot, below), END_VIEW * screw.crest, words, below
        )

    def from_axis(self, spot: Point) -> tuple[float, float]:
        """Return how far a place is out from the axis, and how high up it."""
        off = spot - self.origin
        return off.dot(self.across), off.dot(self.up)

    def height(self, high: float) -> Mark:
        """Mark a height on the axis."""
        spot = self.screw.put(0.0, high)
        if self.work.has_mark(spot):
            return self.work.mark(spot)
        return self.work.measure(
            self.foot, away(self.axis, self.foot, spot), abs(high), f"a height of {self.name}", spot
        )

    def place(self, out: float, high: float) -> Mark:
        """Mark a place so far out from the axis at a height."""
        spot = self.screw.put(out, high)
        if self.work.has_mark(spot):
            return self.work.mark(spot)
        at = self.height(high)
        if abs(out) <= self.work.paper.nothing:
            return at
        level = self.work.square(self.axis, at, spot)
        return self.work.measure(
            at, away(level, at, spot), abs(out), f"a corner of {self.name}", spot
        )

    def edge(
        self, radius: float, number: float, span: tuple[float, float], run: Loop, name: str
    ) -> None:
        """Project a curved edge from the end view, at every part of its turn."""
        low, high = span
        count = math.ceil((high - low) / (math.pi / 4) - ROUND)
        marks = []
        for index in range(count + 1):
            turn = low + (high - low) * index / count
            level, out = self.screw.level(turn, number), radius * math.cos(turn)
            spot = self.screw.put(out, level)
            if self.work.has_mark(spot):
                marks.append(self.work.mark(spot))
                continue
            at = self.height(level)
            line = self.work.square(self.axis, at, spot)
            ring = self.work.swing(self.centre, radius, f"the end view of {self.name}")
            seen = self.centre.at + self.across * out + self.up * (radius * math.sin(turn))
            turned = math.degrees((seen - self.centre.at).angle - self.axis.line.direction.angle)
            ray = self.work.draw(self.centre, Way(turned, self.axis.key, self.axis.called), seen)
            part = self.work.prick(ray, ring, seen, f"a part of the end view of {self.name}")
            carried = self.work.parallel(self.axis, part, spot)
            marks.append(self.work.prick(carried, line, spot, f"a place of {name}"))
        self.work.trace(marks, run, name, within=4 * CLOSE * self.screw.crest)


ABOUT = """\
A thread seen square to its axis: `diameter` over the threads, `core diameter`, `lead`,
`length`, `square` (the usual) or `vee`, `starts`, `right hand` or `left hand`, `plumb` or
`level`. It makes every edge that is seen, one beside the other; `line in, screw, open` goes
over them all.
"""

SHOWN = """\
units mm
O = datum
paddle = screw, from O, diameter 40, core diameter 32, lead 12, length 96, square
thread = line in, paddle, open
"""

KIND = Kind(
    name="screw",
    group="Curves",
    summary="square or V thread, from its crest and root helices",
    example="paddle = screw, from B, diameter 40, core diameter 32, lead 12, length 96, square",
    mistake="Both root helices are drawn right across: of each groove one is seen, on the side "
    "that faces the eye.",
    also=("thread", "worm"),
    forms=(
        Form("from {foot:point}", needed=True),
        Form("diameter {size:diameter}", needed=True),
        Form("core diameter {size:diameter}", "core", needed=True),
        Form("lead {lead:length}", needed=True),
        Form("length {length:length}", needed=True),
        Form("{form:square/vee}", "form"),
        Form("{count:count} starts", "starts"),
        Form("right hand", "right"),
        Form("left hand", "left"),
        Form("level"),
        Form("plumb"),
    ),
    construct=construct,
    about=ABOUT,
    shown=SHOWN,
)
