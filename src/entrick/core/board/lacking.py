"""What is done instead where the kit lacks an instrument: the same by other acts, exactly, or with
what it departs; see `INSTEAD`."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterator, Sequence
from dataclasses import replace

from ..acts import Paper, Work
from ..acts.act import (
    NOWHERE,
    Act,
    Copy,
    Draw,
    Edge,
    GoOver,
    Key,
    Mark,
    Measure,
    Prick,
    Round,
    Setting,
    StepOff,
    Swing,
    Thing,
    Trace,
    Traced,
    Way,
)
from ..acts.names import named
from ..acts.paper import HANDY
from ..acts.procedures import drop_square, halve, raise_square
from ..acts.work import picked
from ..drawing.strokes import Stroke
from ..geometry import Arc, Line, Loop, Point, piece_of, rotate
from ..measure import Number
from ..sheet import Sheet
from ..tolerance import DIRECTION
from .kit import CARD, Kit
from .order import Ordered
from .ordinates import ordinates
from .schedule import leaves
from .words import BENT

INSTEAD = {
    "protractor": "An angle off the squares is drawn by its tangent: along and up, to the nearest "
    "graduations.",
    "set_squares": "The compass constructs the square and the parallel, and an angle by its chord.",
    "beam": "A radius beyond the compass is swung with a strip of card; beyond 400 mm on paper "
    "ordinates are set off from the chord.",
    "dividers": "The compass steps off.",
    "french_curves": "A strip is bent on its edge through the points.",
    "template_holes": "Circles below the compass's least are drawn by eye, all others by compass.",
    "ellipse_holes": "An isometric circle is drawn by four centres, or through points.",
}
"""What is done where a kit lacks an item, by its key (common practice, no source)."""

CARD_REACHES = 400.0
"""Radius up to which a strip of card swings better than ordinates are traced, mm on paper: up to
there it is taken for every swing, beyond it for none that is drawn (common practice, no source).
Rehearsed on arcs of 120 to 390: joins close about as well (nine in ten within 0.43 mm against
0.39), the rise comes out better (0.22 against 0.38), in 9 steps instead of 21."""

REACH = (40.0, 100.0)
"""How far along a tangent offset is measured, mm on paper: short ones are not true, long ones leave
the sheet."""


def with_kit(ordered: Sequence[Ordered], kit: Kit, sheet: Sheet) -> list[tuple[Act, ...]]:
    """Return the acts of every statement as they are done with a kit.

    Parameters
    ----------
    ordered : sequence of Ordered
        As they are done with a whole kit.
    kit : Kit
    sheet : Sheet

    Returns
    -------
    list of tuple of Act
        The same where nothing is lacking. What a line departs by its tangent offset is said as its
        check.
    """
    if kit.is_whole:
        return [own.acts for own in ordered]
    bench = _Bench(kit, sheet)
    result = []
    for own in ordered:
        bench.things |= {thing.key: thing for thing in own.left}
        result.append(tuple(each for act in own.acts for each in bench.instead(act)))
    return result


class _Bench:
    """What stands on the sheet while acts are replaced: what statements leave, which marks have
    been put down so far, and which rounds have become curves."""

    def __init__(self, kit: Kit, sheet: Sheet) -> None:
        self.kit, self.sheet = kit, sheet
        self.things: dict[Key, Thing] = {}
        self.marked: list[Mark] = []
        self.curved: set[Key] = set()

    def instead(self, act: Act) -> Iterator[Act]:
        """Yield what is done for an act with the kit."""
        yield from self._instead(act)
        self.marked += [
            thing for key in leaves(act) if isinstance(thing := self.things.get(key), Mark)
        ]

    def _instead(self, act: Act) -> Iterator[Act]:
        kit, sheet = self.kit, self.sheet
        match act:
            case Draw(way=Way()):
                yield from _directed(act, self.things, kit, sheet)
            case StepOff(compass=False) if not kit.dividers:
                yield replace(act, compass=True)
            case Trace(tool="French curve") if not kit.french_curves:
                yield replace(act, tool=BENT)
            case Swing(setting=setting) if self._is_beyond(setting.size):
                reached = max(sheet.width, sheet.height) / sheet.factor
                by_chord = ordinates(act, self.marked, Paper(reached, HANDY / sheet.factor), sheet)
                if by_chord:
                    self.curved.add(act.leaves)
                for each in by_chord:
                    yield from self._instead(each)
                if not by_chord:
                    yield act
            case Copy():
                yield self._copied(act)
            case GoOver():
                yield from self._gone_over(act)
            case _:
                yield act

    def _is_beyond(self, radius: Number) -> bool:
        """Tell whether neither compass nor a strip of card reaches a radius, and no template has
        its hole."""
        drawn, unit = self.sheet.scale.apply(radius), self.sheet.unit
        on_rule = float(drawn) * float(unit.mm / self.kit.unit.mm)
        by_card = self.kit.round_tool(on_rule) == CARD
        is_far = float(drawn) * float(unit.mm) > CARD_REACHES
        return by_card and is_far and not self.kit.has_template(drawn * 2, unit)

    def _copied(self, act: Copy) -> Act:
        """Return a copy whose rounds are the curves they have become."""
        changed = list(act.things)
        for index, (original, copy) in enumerate(act.pairs):
            thing = act.things[index]
            if original in self.curved and isinstance(thing, Round) and thing.drawn:
                self.curved.add(copy)
                arcs = tuple(part for part in thing.drawn if isinstance(part, Arc))
                changed[index] = Traced(
                    copy,
                    Loop(tuple(piece_of(part, thing.called) for part in arcs), False),
                    thing.called,
                )
        return replace(act, things=tuple(changed))

    def _gone_over(self, act: GoOver) -> Iterator[Act]:
        """Yield the pieces that have become curves by themselves: they are gone over as they were
        traced."""
        curved = tuple(piece for piece in act.pieces if piece.thing in self.curved)
        words = "curve" if self.kit.french_curves else "bent"
        if not curved:
            yield (
                replace(act, told=words)
                if act.told == "curve" and not self.kit.french_curves
                else act
            )
            return
        if len(curved) == len(act.pieces):
            yield replace(
                act, told=words, setting=None, check="the stretches overlap, and no join shows"
            )
            return
        yield act


def _directed(act: Draw, things: dict[Key, Thing], kit: Kit, sheet: Sheet) -> Iterator[Act]:
    assert act.way is not None
    if act.touching:
        if kit.set_squares:
            yield act
        else:
            for each in _by_its_touch(act, things):
                if isinstance(each, Draw):
                    yield from _directed(each, things, kit, sheet)
                else:
                    yield each
        return
    degrees = float(act.way.degrees)
    off_squares = abs(math.remainder(math.degrees(act.planned.direction.angle), 15)) > math.degrees(
        DIRECTION
    )
    slid = bool(act.way.off) and degrees % 90 == 0
    if not kit.has_angles and off_squares and not slid:
        yield from _tangent_offset(act, things, kit, sheet)
    elif not kit.set_squares and (slid or degrees % 180 != 0):
        yield from by_compass(act, things, sheet)
    else:
        yield act


def _by_its_touch(act: Draw, things: dict[Key, Thing]) -> Iterator[Act]:
    """Draw the radius square to a line that touches a round, and the line through its end."""
    round_ = things[act.touching]
    assert isinstance(round_, Round)
    assert act.way is not None
    needle = things[round_.needle]
    assert isinstance(needle, Mark)
    touch = act.planned.foot(round_.circle.centre)
    square = replace(act.way, degrees=act.way.degrees + 90)
    ahead = act.planned.direction.normal
    radius = Edge(f"{act.leaves}/radius", Line.between(needle.at, touch), "the radius to the touch")
    line = radius.line if ahead.dot(radius.line.direction) > 0 else Line.between(touch, needle.at)
    radius = replace(radius, line=line)
    yield Draw(
        leaves=radius.key,
        called=radius.called,
        strokes=(Stroke(radius.line),),
        start=needle.key,
        way=square,
        planned=radius.line,
        told=f"through {needle.called}",
    )
    mark = Mark(f"{act.leaves}/touch", touch, "the touch")
    things |= {radius.key: radius, mark.key: mark}
    yield Prick(
        leaves=mark.key,
        called=mark.called,
        strokes=(Stroke(touch),),
        first=radius.key,
        second=round_.key,
        pick=picked(radius, round_, touch),
        planned=touch,
        told=f"where {radius.called} and {round_.called} cross",
    )
    words = f"through {named(mark.key, mark.called)}"
    yield replace(act, start=mark.key, touching="", told=words)


def _way(start: Point, end: Point) -> Point:
    return (end - start).unit if end != start else NOWHERE


def _tangent_offset(act: Draw, things: dict[Key, Thing], kit: Kit, sheet: Sheet) -> Iterator[Act]:
    """Measure along the base and square to it, so that the line between leans as it should."""
    assert act.way is not None
    start = things[act.start]
    assert isinstance(start, Mark)
    turn = math.radians(float(act.way.degrees))
    base = things[act.way.off] if act.way.off else None
    ahead = base.line.direction if isinstance(base, Edge) else Point(1.0, 0.0)
    each = float(kit.graduation * kit.unit.mm) / sheet.factor
    steep = abs(math.sin(turn)) > abs(math.cos(turn))
    lean = math.cos(turn) / math.sin(turn) if steep else math.tan(turn)
    low, high = (round(reach / sheet.factor / each) for reach in REACH)
    best = min(range(low, high + 1), key=lambda n: abs(round(n * lean) / n - lean))
    long, short = best * each, round(best * lean) * each
    forth = math.copysign(1.0, math.sin(turn) if steep else math.cos(turn))
    along, up = (short * forth, long * forth) if steep else (long * forth, short * forth)
    off = abs(math.degrees(math.atan2(up, along) - math.atan2(math.sin(turn), math.cos(turn)))) * 60
    off = min(off, abs(360 * 60 - off))
    names = (f"the place along for {act.called}", f"the place up for {act.called}")
    first = start.at + ahead * along
    second = first + ahead.normal * up
    held, square = Way(0, act.way.off, act.way.called), Way(90, act.way.off, act.way.called)
    keys = (f"{act.leaves}/1", f"{act.leaves}/2")
    yield Measure(
        leaves=keys[0],
        called=names[0],
        start=act.start,
        way=held,
        size=along,
        planned=first,
        ahead=_way(start.at, first),
        told=start.called,
        why="the first of a tangent offset",
    )
    yield Measure(
        leaves=keys[1],
        called=names[1],
        start=keys[0],
        way=square,
        size=up,
        planned=second,
        ahead=_way(first, second),
        told=names[0],
        why="the other of a tangent offset",
    )
    words = f"through {start.called} and {names[1]}"
    yield replace(
        act,
        way=None,
        end=keys[1],
        told=words,
        check=f"by the nearest graduations it is {off:.1f}′ off",
    )


def by_compass(act: Draw, things: dict[Key, Thing], sheet: Sheet) -> Iterator[Act]:
    """Construct the line by compass and straight edge on what it stands on."""
    assert act.way is not None
    start = things[act.start]
    assert isinstance(start, Mark)
    paper = Paper(max(sheet.width, sheet.height) / sheet.factor, HANDY / sheet.factor)
    work = Work(paper, f"{act.leaves}/compass")
    base = things[act.way.off] if act.way.off else None
    known = [
        thing
        for thing in things.values()
        if isinstance(thing, Mark)
        and isinstance(base, Edge)
        and abs(base.line.offset_of(thing.at)) <= paper.nothing
    ]
    paper.put((start, *((base,) if base else ()), *known))
    degrees = float(act.way.degrees) % 180
    if not isinstance(base, Edge):
        base = work.draw(start, Way(0), called="a level line")
    on = abs(base.line.offset_of(start.at)) <= paper.nothing
    if degrees == 0 and on:
        yield act
        return
    if degrees == 90:
        (raise_square if on else drop_square)(work, start, base, act.called, act.planned)
    elif degrees == 0:
        _parallel(work, start, base, act.called, act.planned)
    else:
        if not on:
            base = _parallel(work, start, base, "the parallel through the mark")
        if degrees % 15 == 0:
            _by_halving(work, start, base, int(degrees), act)
        else:
            _by_chord(work, start, base, float(act.way.degrees), act)
    *before, last = work.acts
    assert isinstance(last, Draw)
    yield from before
    yield replace(
        last, leaves=act.leaves, called=act.called, strokes=act.strokes, planned=act.planned
    )


def _parallel(work: Work, start: Mark, base: Edge, called: str, shown: Line | None = None) -> Edge:
    """Two swings of one opening from the line and one from the mark make a rhombus on it."""
    foot = base.line.along(start.at)
    first = work.anywhere(base, base.line.at(foot - work.paper.handy), "any place on the line")
    setting = work.between(first, start)
    size = float(setting.size)
    other = first.at + base.line.direction * size
    swing = work.swing(first, setting, near=[other], anew=True)
    mark = work.prick(swing, base, other, "the cut on the line", anew=True)
    spot = start.at + base.line.direction * size
    swings = [work.swing(each, setting, near=[spot], anew=True) for each in (mark, start)]
    corner = work.prick(swings[0], swings[1], spot, "the corner of the rhombus", anew=True)
    return work.through(start, corner, called, shown=shown)


def _by_chord(work: Work, start: Mark, base: Edge, degrees: float, act: Draw) -> None:
    """Set an angle off by its chord, 2·R·sin(θ/2), on a swing from the base."""
    turn = math.remainder(degrees, 360)
    size = 2 * work.paper.handy
    at = start.at + base.line.direction * size
    swing = work.swing(start, Setting(size, free=True, told="any opening"), near=[at], anew=True)
    cut = work.prick(swing, base, at, "the cut on the base", anew=True)
    spot = start.at + rotate(base.line.direction * size, Point(0.0, 0.0), math.radians(turn))
    chord = 2 * size * abs(math.sin(math.radians(turn) / 2))
    other = work.swing(cut, chord, near=[spot], told="the chord of the angle", anew=True)
    mark = work.prick(swing, other, spot, "the cut on the swing", anew=True)
    work.through(start, mark, act.called, shown=act.planned)


def _by_halving(work: Work, start: Mark, base: Edge, degrees: int, act: Draw) -> None:
    """Construct a multiple of 15° from squares, equilateral triangles and halved angles (common
    practice)."""
    # From the nearer end of the base: beyond 90° the angle is counted from its other side.
    back = degrees > 90
    turn = 180 - degrees if back else degrees

    def at(angle: float) -> Point:
        forth = -base.line.direction if back else base.line.direction
        return (
            start.at
            + rotate(forth, Point(0.0, 0.0), math.radians(-angle if back else angle))
            * work.paper.handy
        )

    def halved(
        low: tuple[Edge, float], high: tuple[Edge, float], called: str, shown: Line | None = None
    ) -> Edge:
        return halve(work, start, (low[0], high[0]), (at(low[1]), at(high[1])), called, shown)

    final = {"called": act.called, "shown": act.planned}
    if turn == 60:
        _sixty(work, start, base, at, **final)  # type: ignore[arg-type]
        return
    sixty = _sixty(work, start, base, at) if turn != 45 else None
    if turn in (45, 75):
        square = raise_square(work, start, base)
        low = (base, 0.0) if sixty is None else (sixty, 60.0)
        halved(low, (square, 90.0), **final)  # type: ignore[arg-type]
        return
    assert sixty is not None
    if turn == 30:
        halved((base, 0.0), (sixty, 60.0), **final)  # type: ignore[arg-type]
        return
    thirty = halved((base, 0.0), (sixty, 60.0), "the line at 30°")
    halved((base, 0.0), (thirty, 30.0), **final)  # type: ignore[arg-type]


def _sixty(
    work: Work,
    start: Mark,
    base: Edge,
    at: Callable[[float], Point],
    called: str = "the line at 60°",
    shown: Line | None = None,
) -> Edge:
    """Two swings of one opening, about the mark and about where the first cuts the base, cross at
    60°."""
    setting = Setting(work.paper.handy, free=True, told="any opening")
    swing = work.swing(start, setting, near=[at(0.0), at(60.0)], anew=True)
    cut = work.prick(swing, base, at(0.0), "the cut on the base", anew=True)
    other = work.swing(cut, setting, near=[at(60.0)], anew=True)
    top = work.prick(swing, other, at(60.0), "the corner of the equal-sided triangle", anew=True)
    return work.through(start, top, called, shown=shown)
