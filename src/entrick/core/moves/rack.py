"""``rack``: straight-flanked teeth along a line, as a gear of the same module runs on."""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass
from fractions import Fraction
from functools import partial

from ..acts import Edge, Mark, Way, Work
from ..acts.procedures import away, off
from ..geometry import Line, Loop, Point, Shape, polar
from ..kind import Args, Kind, Made
from ..kind.parts import run
from ..measure import Number, spell_angle
from ..plan.errors import ClauseError, Wanting
from ..plan.forms import Form
from ..rules.gear import RUNS, Gear
from ..tolerance import ROUND
from ..worksheets import Remark
from ..worksheets.rack import RackSheet
from .gear import FEWEST
from .toothed import (
    SHAPE,
    SIZE,
    Proportions,
    heights_told,
    module_of,
    pitch_told,
    proportions_of,
    times,
    tooth_remarks,
)


@dataclass(frozen=True)
class Rack:
    """Teeth along a pitch line, in its own frame: x along the line from its start, y to the side of
    the teeth.

    Attributes
    ----------
    start, ahead : Point
        Where the pitch line begins, and its direction, of length 1; the teeth stand to its left.
    teeth : int
    module : float
    shape : Proportions
    backing : float
        From the root line to the back, 0 for teeth alone.

    Notes
    -----
    Pitch p = πm; thickness on the pitch line p/2, less half the backlash; a flank leans by the
    pressure angle, so that a tooth is 2h·tan φ thinner at a height h (basic rack of ISO 53)."""

    start: Point
    ahead: Point
    teeth: int
    module: float
    shape: Proportions
    backing: float

    @property
    def pitch(self) -> float:
        """Distance of neighbouring teeth."""
        return math.pi * self.module

    @property
    def thickness(self) -> float:
        """Thickness of a tooth on the pitch line."""
        return self.pitch / 2 - self.shape.backlash / 2

    @property
    def top(self) -> float:
        """Height of the tips above the pitch line."""
        return self.shape.addendum * self.module

    @property
    def root(self) -> float:
        """Height of the root line, below nought."""
        return -self.shape.dedendum * self.module

    @property
    def length(self) -> float:
        """From one end face to the other: both lie in the middle of a space."""
        return self.teeth * self.pitch

    def half(self, height: float) -> float:
        """Return half the thickness of a tooth at a height above the pitch line."""
        return self.thickness / 2 - height * math.tan(self.shape.pressure)

    def middle(self, tooth: int) -> float:
        """Return where the middle of a tooth stands, counted from 1."""
        return (tooth - 0.5) * self.pitch

    def place(self, along: float, height: float) -> Point:
        """Return a place of the rack's own frame in the plan."""
        return self.start + self.ahead * along + self.ahead.normal * height

    def line(self, height: float) -> Line:
        """Return the line along the rack at a height."""
        return Line.between(self.place(0.0, height), self.place(self.length, height))

    def tooth(self, number: int) -> list[tuple[str, Line]]:
        """Return the two flanks and the top of a tooth."""
        middle, low, high = self.middle(number), self.half(self.root), self.half(self.top)
        spots = [
            self.place(middle + along, height)
            for along, height in (
                (-low, self.root),
                (-high, self.top),
                (high, self.top),
                (low, self.root),
            )
        ]
        names = (f"tooth{number}.rise", f"tooth{number}.top", f"tooth{number}.fall")
        return [
            (name, Line.between(a, b)) for name, a, b in zip(names, spots, spots[1:], strict=False)
        ]

    def outline(self) -> list[tuple[str, Line]]:
        """Return every piece in order, from the first end; round the back where there is one."""
        pieces: list[tuple[str, Line]] = []
        here = self.place(0.0, self.root)
        for number in range(1, self.teeth + 1):
            tooth = self.tooth(number)
            pieces += [(f"root{number}", Line.between(here, tooth[0][1].at(0.0))), *tooth]
            here = tooth[-1][1].at(tooth[-1][1].end or 0.0)
        pieces.append(
            (f"root{self.teeth + 1}", Line.between(here, self.place(self.length, self.root)))
        )
        if self.backing:
            low = self.root - self.backing
            corners = [(self.length, self.root), (self.length, low), (0.0, low), (0.0, self.root)]
            spots = [self.place(*corner) for corner in corners]
            ends = zip(("far_end", "back", "near_end"), spots, spots[1:], strict=False)
            pieces += [(name, Line.between(a, b)) for name, a, b in ends]
        return pieces


def construct(args: Args) -> Made:
    """Construct a rack: its pitch, tip and root lines, and its teeth with straight flanks at the
    pressure angle.

    Parts: ``pitch_line``, ``tip_line``, ``root_line``, ``pitch_point`` (middle of the first tooth),
    ``tooth`` (the first, an open run), ``tooth1.rise``, ``tooth1.top``, ``tooth1.fall`` …,
    ``root1`` …, and with a backing ``back``, ``near_end``, ``far_end``."""
    rack, module, worked = _read(args)
    shape = run(args.name, rack.outline(), bool(rack.backing))
    name, sheet = args.need("from").ref("start").text, _sheet(args, rack, shape)
    return Made(
        shape,
        f"Rack {args.name} from {name}, {rack.teeth} teeth, {pitch_told(args, module)}, pressure "
        "angle "
        f"{spell_angle(math.degrees(rack.shape.pressure))}.",
        (*worked, *_working(args, rack, module), *_with_pinion(args, sheet)),
        parts=_parts(args, rack, shape) | ({"mate": sheet.centre} if sheet else {}),
        draw=partial(_draw, args, rack, module, shape, sheet.centre if sheet else None),
        remarks=partial(_remarks, args, rack, sheet),
        worksheet=sheet.at if sheet else None,
    )


def _sheet(args: Args, rack: Rack, shape: Loop) -> RackSheet | None:
    """Return the worksheet of the rack with its pinion, where it has one."""
    mating = args.get("mating")
    if mating is None:
        return None
    teeth = mating.count("teeth")
    if teeth < FEWEST:
        raise ClauseError(f"a pinion has at least {FEWEST} teeth", mating.index)
    like = rack.shape
    pinion = Gear(
        teeth,
        rack.module,
        like.pressure,
        like.addendum,
        like.dedendum,
        like.backlash,
        0.3 * rack.module,
    )
    if pinion.root <= 0:
        raise ClauseError("the teeth are deeper than the pinion: more teeth", mating.index)
    touch = rack.place(rack.teeth // 2 * rack.pitch, 0.0)
    mm = 1 / float(args.unit.mm)
    return RackSheet(shape, pinion, touch, rack.ahead, rack.length, mm, args.say)


def _read(args: Args) -> tuple[Rack, Number, list[str]]:
    module, worked = module_of(args)
    if module is None:
        raise Wanting("a rack needs  module (length)  or  diametral pitch (length)")
    along, leaning = args.get("along"), args.get("at")
    if along and leaning:
        raise ClauseError(
            "a rack lies along a line, or at an angle: say one of them", leaning.index
        )
    ahead = along.line("line").direction if along else Point(1.0, 0.0)
    if leaning:
        ahead = polar(1.0, math.radians(float(leaning.length("angle"))))
    backing = args.get("backing")
    deep = args.number("backing", usual=0.0)
    if backing and deep <= 0:
        raise ClauseError("the backing is more than nought", backing.index)
    shape = proportions_of(args, module)
    teeth = args.need("teeth").count("count")
    rack = Rack(args.need("from").point("start"), ahead, teeth, float(module), shape, deep)
    if rack.half(rack.top) <= 0:
        raise ClauseError(
            "the teeth are pointed before their tips: a smaller addendum, or a smaller pressure "
            "angle"
        )
    if rack.half(rack.root) >= rack.pitch / 2:
        raise ClauseError(
            "the teeth run into each other at the root: a smaller dedendum, or a smaller pressure "
            "angle"
        )
    return rack, module, worked


def _parts(args: Args, rack: Rack, shape: Loop) -> dict[str, Shape | Loop]:
    return {
        "pitch_line": rack.line(0.0),
        "tip_line": rack.line(rack.top),
        "root_line": rack.line(rack.root),
        "pitch_point": rack.place(rack.middle(1), 0.0),
        "tooth": run(f"{args.name}.tooth", rack.tooth(1), False),
        **{piece.name.removeprefix(f"{args.name}."): piece.curve for piece in shape.pieces},
    }


def _working(args: Args, rack: Rack, module: Number) -> Iterator[str]:
    say = args.say
    yield f"pitch π × {say(module)} = {say(rack.pitch)}"
    less = f" − {say(rack.shape.backlash)} ÷ 2" if rack.shape.backlash else ""
    yield f"thickness on the pitch line {say(rack.pitch)} ÷ 2{less} = {say(rack.thickness)}"
    yield from heights_told(args, rack.shape, module)
    angle = spell_angle(math.degrees(rack.shape.pressure))
    thin = say(2 * rack.half(rack.top))
    yield f"thickness at the tip {say(rack.thickness)} − 2 × {say(rack.top)} × tan {angle} = {thin}"
    yield (
        f"length {rack.teeth} × {say(rack.pitch)} = {say(rack.length)}: the ends lie in the "
        "middle of a space"
    )


def _with_pinion(args: Args, sheet: RackSheet | None) -> Iterator[str]:
    if sheet is not None:
        pinion, say = sheet.pinion, args.say
        yield (
            f"pinion's centre {say(pinion.module)} × {pinion.teeth} ÷ 2 = {say(pinion.pitch)} from "
            "the pitch line; contact ratio "
            f"(√(R² − r²) − R₀·sin φ + a ÷ sin φ) ÷ πm·cos φ = {sheet.contact_ratio:.3f}"
        )


def _draw(
    args: Args, rack: Rack, module: Number, shape: Loop, mate: Point | None, work: Work
) -> None:
    """Draw pitch, tip and root line, step the middles of the teeth off, and lay a flank each side
    of every one."""
    name = args.name
    start = work.mark(rack.start, args.need("from").ref("start").text)
    way = _way(args, work)
    pitch = work.draw(start, way, called=f"the pitch line of {name}", shown=rack.line(0.0))

    def beside(edge: Edge, mark: Mark, word: str, high: float, size: Number) -> Edge:
        called = f"the {word} of {name}"
        return off(work, edge, mark, size, called, rack.line(high), rack.place(0.0, high))

    tips = beside(pitch, start, "tip line", rack.top, times(rack.shape.addendum, module))
    roots = beside(pitch, start, "root line", rack.root, times(rack.shape.dedendum, module))
    for number, middle in enumerate(_middles(rack, pitch, start, work), 1):
        _draw_tooth(args, rack, shape, number, middle, (pitch, tips, roots), work)
    _draw_ends(name, rack, start, pitch, roots, work)
    if rack.backing:
        at = work.place_on(roots, rack.line(rack.root))
        high = args.need("backing").length("height").value
        beside(roots, at, "back", rack.root - rack.backing, high)
    if mate is not None:
        foot = rack.place(rack.teeth // 2 * rack.pitch, 0.0)
        under = work.measure(
            start, away(pitch, start, foot), abs(foot - start.at), "under the pinion", foot
        )
        square = work.square(pitch, under, mate)
        size = module * args.need("mating").count("teeth") / 2
        work.measure(under, away(square, under, mate), size, f"{name}.mate", mate)


def _way(args: Args, work: Work) -> Way:
    """Return in which direction the rack lies: along a line, or turned."""
    clause = args.get("along")
    if clause:
        model = work.edge(clause.line("line"), clause.ref("line").text)
        return Way(0, model.key, model.called)
    turned = args.get("at")
    return Way(turned.length("angle").value if turned else 0)


def _middles(rack: Rack, pitch: Edge, start: Mark, work: Work) -> list[Mark]:
    """Step the middles of the teeth off along the pitch line."""
    spots = [rack.place(rack.middle(number), 0.0) for number in range(1, rack.teeth + 1)]
    names = [f"the middle of tooth {number}" for number in range(1, rack.teeth + 1)]
    half = rack.pitch / 2
    first = work.measure(start, away(pitch, start, spots[0]), half, names[0], spots[0])
    if len(spots) == 1:
        return [first]
    check = "the last middle is half a pitch from the end"
    others = work.step_off(
        first, rack.pitch, pitch, spots[1:], names[1:], told="the pitch", check=check
    )
    return [first, *others]


def _draw_tooth(
    args: Args,
    rack: Rack,
    shape: Loop,
    number: int,
    middle: Mark,
    lines: tuple[Edge, Edge, Edge],
    work: Work,
) -> None:
    """Lay both flanks of a tooth through half its thickness to either side of its middle."""
    pitch, tips, roots = lines
    steep = Fraction(90) - _pressure(args, rack)
    sense = 0 if pitch.line.direction.dot(rack.ahead) > 0 else 180
    for side, word, lean in ((-1, "rise", steep), (1, "fall", 180 - steep)):
        spot = rack.place(rack.middle(number) + side * rack.half(0.0), 0.0)
        edge = work.measure(
            middle,
            away(pitch, middle, spot),
            rack.thickness / 2,
            f"the {word} of tooth {number} on the pitch line",
            spot,
        )
        called = f"{args.name}.tooth{number}.{word}"
        line = next(piece.curve for piece in shape.pieces if piece.name == called)
        assert isinstance(line, Line)
        way = Way(lean + sense, pitch.key, pitch.called)
        flank = work.draw(edge, way, called=called, shown=line)
        tip, root = sorted(
            (line.at(0.0), line.at(line.end or 0.0)), key=lambda at: abs(tips.line.offset_of(at))
        )
        work.prick(flank, tips, tip, f"a tip of tooth {number}")
        work.prick(flank, roots, root, f"a root of tooth {number}")


def _draw_ends(name: str, rack: Rack, start: Mark, pitch: Edge, roots: Edge, work: Work) -> None:
    """Draw the two ends, square to the pitch line."""
    spot = rack.place(rack.length, 0.0)
    for along in (0.0, rack.length):
        mark = start
        if along:
            ahead = away(pitch, start, spot)
            mark = work.measure(start, ahead, rack.length, f"the far end of {name}", spot)
        deep = rack.place(along, rack.root - rack.backing)
        end = work.square(pitch, mark, deep, f"an end of {name}")
        work.prick(end, roots, rack.place(along, rack.root), "where an end begins")


def _pressure(args: Args, rack: Rack) -> Number:
    clause = args.get("pressure")
    return clause.length("angle").value if clause else math.degrees(rack.shape.pressure)


def _remarks(args: Args, rack: Rack, sheet: RackSheet | None) -> Iterator[Remark]:
    top = rack.place(rack.middle(1), 0.0)
    yield from tooth_remarks(args, rack.shape, module_of(args)[0] or rack.module, top)
    if sheet is not None and sheet.pinion.is_undercut:
        least = math.ceil(2 * rack.shape.addendum / math.sin(rack.shape.pressure) ** 2 - ROUND)
        yield Remark(
            "look",
            f"a pinion of {sheet.pinion.teeth} teeth is undercut by this rack: from {least} teeth "
            "on it is not",
            sheet.centre,
        )
    if sheet is not None and sheet.contact_ratio < RUNS:
        yield Remark(
            "look",
            f"the contact ratio is {sheet.contact_ratio:.2f}; {RUNS:g} is the usual least (common "
            "practice)",
            sheet.centre,
        )


ABOUT = """\
Straight-flanked teeth along a pitch line that begins `from` a point, to the right, or `along` a
line, or `at` an angle; the teeth stand to its left. `module`, `diametral` or `circular pitch`,
and as in a gear `pressure`, `proportions`, `addendum`, `dedendum`, `backlash`. Both ends lie in
the middle of a space. With a `backing`, measured from the root line to the back, it is a closed
outline; without, an open run. `mating 20` teeth shows a pinion running on it in the worksheet,
with the measures of the pair, and marks its centre, `mate`. Parts `pitch_line`, `tip_line`,
`root_line`, `pitch_point` (middle of the first tooth), `tooth`, and every piece: `tooth1.rise`,
`tooth1.top`, `tooth1.fall`, `root1`, `back`, `near_end`, `far_end`.
"""

SHOWN = """\
units mm
O = datum
bar = rack, from O, 8 teeth, module 4, pressure 20°, backing 12, mating 18
rim = line in, bar
"""

KIND = Kind(
    name="rack",
    group="Curves",
    summary="straight-flanked teeth along a line, with a backing; a gear of the same module runs "
    "on it",
    example="bar = rack, from P, 8 teeth, module 4, backing 12",
    mistake="Tooth and space are made alike at the tips. They are alike on the pitch line alone.",
    also=("toothed bar", "rack and pinion"),
    forms=(
        Form("from {start:point}", needed=True),
        Form("along {line:line}"),
        Form("at {angle:angle}"),
        Form("{count:count} teeth", "teeth", needed=True),
        *SIZE,
        *SHAPE,
        Form("backing {height:length}"),
        Form("mating {teeth:count} [teeth]"),
    ),
    construct=construct,
    about=ABOUT,
    shown=SHOWN,
)
