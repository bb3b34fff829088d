"""``drum``: a cylindrical cam, unrolled: the path of its roller's middle and both flanks of the
groove."""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from functools import partial
from itertools import pairwise

from ..acts import Mark, Work
from ..acts.procedures import off
from ..geometry import Arc, Line, Loop, Piece, Point, Shape, meet, piece_of
from ..geometry.fitted import fitted
from ..geometry.shapes import ends, is_drawn_at
from ..kind import Args, Kind, Made
from ..measure import spell_angle
from ..plan.errors import ClauseError
from ..plan.forms import Form
from ..rules.cam import STEEP, Cam
from ..tolerance import FITTED, NOUGHT, SPECK, assembled
from ..worksheets import Remark
from ..worksheets.cam import Diagram
from .cam_board import draw_diagram
from .cam_events import PARTS, described, events_by, events_of, parts_of

Curves = list[tuple[str, Line | Arc]]
"""Curves of a flank, each with the event it belongs to."""


@dataclass(frozen=True)
class _Drum:
    """The developed groove: its diagram, whose base is the circumference, and half its width."""

    diagram: Diagram
    half: float
    radius: float

    @property
    def cam(self) -> Cam:
        """Its events."""
        return self.diagram.cam

    def path(self, event: int, share: float) -> tuple[Point, Point]:
        """Return where the roller's middle is and which way it heads, of length 1."""
        each = self.cam.events[event]
        angle = math.degrees(self.cam.starts[event] + each.angle * share)
        lift, velocity, _ = each.at(share)
        return self.diagram.spot(angle, lift), Point(self.radius, velocity).unit

    def bend(self, event: int, share: float) -> float:
        """Return the curvature of the path, positive where it is hollow above (plane curve
        y(x))."""
        _, velocity, acceleration = self.cam.events[event].at(share)
        slope, bent = velocity / self.radius, acceleration / self.radius**2
        return float(bent / (1 + slope * slope) ** 1.5)

    def steepest(self) -> tuple[float, float]:
        """Return the greatest angle of the path with the base, degrees, and at which angle of the
        drum."""
        index, share = max(
            self.cam.places(), key=lambda spot: abs(self.cam.events[spot[0]].at(spot[1])[1])
        )
        velocity = abs(self.cam.events[index].at(share)[1])
        return math.degrees(math.atan2(velocity, self.radius)), self.cam.angle_of(index, share)

    def tightest(self) -> tuple[float, float]:
        """Return the least radius of curvature of the path and where, degrees."""
        index, share = max(self.cam.places(), key=lambda spot: abs(self.bend(*spot)))
        bend = abs(self.bend(index, share))
        return (1 / bend if bend > NOUGHT else math.inf), self.cam.angle_of(index, share)

    def flank(self, side: int) -> Curves:
        """Return one flank, 1 above the path: its parallel, rounded about an outer corner and cut
        off at an inner one."""
        curves: Curves = []
        for index, event in enumerate(self.cam.events):
            own = [(event.name, curve) for curve in self._stretch(index, side)]
            if not curves:
                curves = own
                continue
            curves = _joined(curves, own, self.path(index, 0.0)[0])
        return curves

    def _stretch(self, index: int, side: int) -> Sequence[Line | Arc]:
        event = self.cam.events[index]

        def place(share: float) -> Point:
            spot, ahead = self.path(index, share)
            return spot + ahead.normal * (side * self.half)

        if event.stands or (event.motion and event.motion.name == "uniform"):
            return (Line.between(place(0.0), place(1.0)),)

        def heading(share: float) -> Point:
            turned = 1 - side * self.half * self.bend(index, share)
            return self.path(index, share)[1] * (1.0 if turned >= 0 else -1.0)

        within = FITTED["cam"] * (360 * self.diagram.wide + self.diagram.top)
        return fitted(place, heading, event.breaks, within)


def _joined(before: Curves, after: Curves, corner: Point) -> Curves:
    """Put two stretches of a flank end to end: a round about the corner of the path fills a gap,
    and what crosses is cut off."""
    last, first = ends(before[-1][1])[1], ends(after[0][1])[0]
    if abs(last - first) <= assembled(abs(last) + abs(first)):
        return [*before, *after]
    one, other = last - corner, first - corner
    way = ends(before[-1][1])
    if (way[1] - way[0]).dot(first - last) > 0:
        sweep = math.remainder(other.angle - one.angle, math.tau)
        name = f"{before[-1][0]}_to_{after[0][0]}"
        return [*before, (name, Arc(corner, abs(one), one.angle, sweep)), *after]
    for lost in range(len(before) + len(after)):
        for dropped in range(max(0, lost - len(after) + 1), min(lost + 1, len(before))):
            i, j = len(before) - 1 - dropped, lost - dropped
            for meeting in meet(before[i][1], after[j][1]):
                spot = meeting.point
                if is_drawn_at(before[i][1], spot) and is_drawn_at(after[j][1], spot):
                    cut = [*before[:i], (before[i][0], _upto(before[i][1], spot))]
                    return [*cut, (after[j][0], _from(after[j][1], spot)), *after[j + 1 :]]
    return [*before, ("", Line.between(last, first)), *after]


def _upto(curve: Line | Arc, spot: Point) -> Line | Arc:
    if isinstance(curve, Line):
        return Line.between(ends(curve)[0], spot)
    turned = math.remainder((spot - curve.centre).angle - curve.start, math.tau)
    return Arc(curve.centre, curve.radius, curve.start, turned)


def _from(curve: Line | Arc, spot: Point) -> Line | Arc:
    if isinstance(curve, Line):
        return Line.between(spot, ends(curve)[1])
    turned = math.remainder((spot - curve.centre).angle - curve.start, math.tau)
    return Arc(curve.centre, curve.radius, curve.start + turned, curve.sweep - turned)


def construct(args: Args) -> Made:
    """Construct the development of a cylindrical cam's groove.

    Parts: ``path`` (of the roller's middle), ``upper``, ``lower`` (its flanks), ``station.0`` …,
    ``start``, ``end``.

    Notes
    -----
    Unrolled the drum is πD long; the path is the displacement diagram at full lift, and the flanks
    run at the roller's radius beside it (definition). Pressure angle tan⁻¹(s′ ÷ r)."""
    drum, problems, parts = _read(args)
    name, diagram = args.name, drum.diagram
    path = diagram.curve(f"{name}.diagram")
    flanks = {
        word: Loop(tuple(_pieces(drum.flank(side), f"{name}.{word}")), False)
        for word, side in (("upper", 1), ("lower", -1))
    }
    size = args.need("diameter").length("size").value
    long = args.say(360 * diagram.wide)
    steep, where = drum.steepest()
    stations = {
        f"station.{k}": diagram.spot(360 * k / parts, drum.cam.lift(math.tau * k / parts)[0])
        for k in range(parts + 1)
    }
    named: dict[str, Shape | Loop] = {
        "path": path,
        **flanks,
        **stations,
        "start": path.pieces[0].entry,
        "end": path.pieces[-1].exit,
    }
    return Made(
        path,
        f"Drum {name} from {args.need('from').ref('corner').text}, Ø{args.say(size)}, roller "
        f"R{args.say(args.need('roller').length('size').value)}, unrolled: "
        + ", ".join(described(event, args.say) for event in drum.cam.events)
        + ".",
        (
            f"π × {args.say(size)} = {long} all round; {args.say(360 * diagram.wide / parts)} for "
            f"each {spell_angle(360 / parts)}",
            f"greatest pressure angle tan⁻¹(s′ ÷ r) = {steep:.1f}°, at {where:.0f}°",
        ),
        parts=named,
        notes=diagram.lettering(),
        remarks=lambda: (*problems, *_remarks(args, drum)),
        draw=partial(_draw, args, drum, path, flanks),
    )


def _read(args: Args) -> tuple[_Drum, tuple[Remark, ...], int]:
    events, problems = events_of(args)
    if any(event.drops for event in events):
        raise ClauseError("a groove does not drop over no angle: give the fall some", None)
    size, roller = (
        float(args.need("diameter").length("size")),
        float(args.need("roller").length("size")),
    )
    if roller <= 0:
        raise ClauseError("a roller is larger than nought", args.need("roller").index)
    parts, mm = parts_of(args), 1 / float(args.unit.mm)
    cam = Cam(Point(0.0, 0.0), size / 2, args.get("ccw") is None, events)
    diagram = Diagram(
        cam,
        args.need("from").point("corner"),
        math.pi * size / 360,
        1.0,
        parts,
        mm,
        args.say,
        "DRUM CAM, UNROLLED",
    )
    return _Drum(diagram, roller, size / 2), problems, parts


def _pieces(curves: Curves, owner: str) -> Iterator[Piece]:
    """Yield a flank piece by piece, those of one event numbered."""
    names = [name for name, _ in curves]
    numbers: dict[str, int] = {}
    for name, curve in curves:
        if names.count(name) == 1:
            yield piece_of(curve, f"{owner}.{name}")
            continue
        numbers[name] = numbers.get(name, 0) + 1
        yield piece_of(curve, f"{owner}.{name}.{numbers[name]}", f"{owner}.{name}")


def _remarks(args: Args, drum: _Drum) -> Iterator[Remark]:
    for turn, before, after in drum.cam.jumps():
        lift = drum.cam.lift(math.radians(turn))[0]
        yield Remark(
            "look",
            f"the velocity jumps at {turn:g}°, from {args.say(before)} to {args.say(after)} a "
            "degree: the follower is struck there",
            drum.diagram.spot(turn, lift),
        )
    steep, where = drum.steepest()
    if steep > STEEP:
        yield Remark(
            "look",
            f"the pressure angle is {steep:.1f}° at {where:.0f}°; {STEEP:g}° is the usual limit "
            "(common practice): a larger drum or a longer rise makes it less",
            drum.diagram.spot(where, drum.cam.lift(math.radians(where))[0]),
        )
    radius, where = drum.tightest()
    if radius < drum.half * (1 + SPECK):
        yield Remark(
            "wrong",
            f"at {where:.0f}° the path bends with {args.say(radius)}, less than the roller's "
            f"{args.say(drum.half)}: one flank is undercut; take a smaller roller or a larger drum",
            drum.diagram.spot(where, drum.cam.lift(math.radians(where))[0]),
        )


def _draw(args: Args, drum: _Drum, path: Loop, flanks: dict[str, Loop], work: Work) -> None:
    """Draw the diagram on the circumference, the roller at every station, and both flanks along
    them."""
    name, cam = args.name, drum.cam
    corner = args.need("from").ref("corner").text
    found = draw_diagram(work, drum.diagram, path, name, corner)
    size = args.need("roller").length("size").value
    rollers = {
        angle: work.swing(mark, size, f"the roller at {angle:g}°")
        for angle, (_, mark) in found.items()
    }
    bounds = [round(math.degrees(angle), 9) for angle in cam.starts]
    for side, (word, flank) in zip((1, -1), flanks.items(), strict=True):
        for event, (low, high) in zip(cam.events, pairwise(bounds), strict=True):
            owner = f"{name}.{word}.{event.name}"
            own = tuple(p for p in flank.pieces if owner in (p.curve_of, p.name))
            inside = [angle for angle in sorted(found) if low <= angle <= high]
            ends_ = found[inside[0]][1], found[inside[-1]][1]
            if event.stands or (event.motion and event.motion.name == "uniform"):
                _straight(work, own[0], ends_, size, side, owner)
                continue
            loop = Loop(own, False)
            close = 4 * FITTED["cam"] * (360 * drum.diagram.wide + drum.diagram.top)
            touching = [
                rollers[angle]
                for angle in inside
                if abs(loop.distance(found[angle][1].at) - drum.half) <= close
            ]
            work.trace(touching, loop, owner, touching=True, within=close)
        for piece in flank.pieces:
            if not piece.curve_of:
                for spot in (piece.entry, piece.exit):
                    work.mark(spot)


def _straight(
    work: Work, piece: Piece, marks: tuple[Mark, Mark], size: object, side: int, called: str
) -> None:
    """Draw a straight piece of a flank: the parallel of the path at the roller's radius."""
    assert isinstance(piece.curve, Line)
    edge = work.through(*marks)
    across = piece.curve.direction.normal * side
    off(work, edge, marks[0], size, called, piece.curve, marks[0].at + across)  # type: ignore[arg-type]


ABOUT = """\
A cylindrical cam, unrolled `from` a point to the right: as long as the drum's `diameter` is round,
with the path of the roller's middle at full lift and both flanks of its groove at the `roller
radius` beside it. Events as in a cam: `rise 120° by 30 harmonic`, `dwell 60°`, `fall 180° by 30`;
`24 parts` or `every 15°` divides it. Parts `path`, `upper`, `lower`, `station.0` on, `start`,
`end`.
"""

SHOWN = """\
units mm
O = datum
barrel = drum, from O, diameter 60, roller radius 6, rise 120° by 30 harmonic, dwell 60°, fall 180° by 30 cycloidal
top = line in, barrel.upper, open
low = line in, barrel.lower, open
"""  # noqa: E501

KIND = Kind(
    name="drum",
    group="Curves",
    summary="cylindrical cam, unrolled: the path of the roller and both flanks",
    example="barrel = drum, from O, diameter 60, roller radius 6, rise 120° by 30 harmonic, "
    "dwell 60°, fall 180° by 30 cycloidal",
    mistake="The base is made as long as the drum is wide instead of π times that.",
    also=("cylindrical cam", "barrel cam", "drum cam"),
    forms=(
        Form("from {corner:point}", needed=True),
        Form("diameter {size:diameter}", "diameter", needed=True),
        Form("roller radius {size:radius}", "roller", needed=True),
        Form("roller diameter {size_across:diameter}", "roller", needed=True),
        *events_by("length"),
        Form("cw"),
        Form("ccw"),
        *PARTS,
    ),
    construct=construct,
    about=ABOUT,
    shown=SHOWN,
    follows=True,
)
