"""The hand of a kind: it finds on the sheet what it stands on, and puts down one act after
another."""

from __future__ import annotations

import math
from collections.abc import Callable, Mapping, Sequence
from dataclasses import replace
from typing import Any, Literal, TypeVar

from ..drawing.strokes import Role, Stroke
from ..geometry import Arc, Circle, Line, Loop, Point, meet, polar, rotate
from ..geometry.shapes import is_drawn_at
from ..measure import Number
from ..tolerance import TOUCHING
from .act import (
    NOWHERE,
    Act,
    Copy,
    Draw,
    Edge,
    Finish,
    Finishing,
    Fix,
    Gone,
    GoOver,
    Key,
    Mark,
    Measure,
    Prick,
    Round,
    Setting,
    StepOff,
    Strip,
    Swing,
    Thing,
    Trace,
    Traced,
    Way,
)
from .names import named
from .paper import Paper, Place, crossing

SWING = math.radians(14)
"""Half the length of a light swing drawn where something is expected."""

TICK = math.radians(6)
"""Half the length of the tick a step round a circle leaves."""

SLACK = 0.05
"""Sine of the angle below which a crossing is not taken where a place is looked for."""

T = TypeVar("T", bound=Thing)

Lookup = tuple[Callable[[Paper, object], object], object, object]
"""What was looked for on the sheet, and what was found of others: what was done holds while the
answers do."""


class Work:
    """The acts of one statement, put down in order.

    Parameters
    ----------
    paper : Paper
        What stands on the sheet already; what the acts leave is put on it as well.
    name : str
        Of the statement: keys of what it leaves begin with it.
    """

    def __init__(self, paper: Paper, name: str) -> None:
        self.paper, self.name = paper, name
        self.acts: list[Act] = []
        self.left: list[Thing] = []
        self._own: set[Key] = set()
        self._run_on_to: dict[Key, list[Point]] = {}
        self.lookups: list[Lookup] = []
        self.placed: list[tuple[Place, object]] = []

    # What stands there already.

    def _look(self, where: Callable[[Paper, object], object], what: object) -> Thing | None:
        result = where(self.paper, what)
        # What the statement itself has left is not there when it is asked whether all is as it was:
        # nothing was.
        own = result is not None and result.key in self._own  # type: ignore[attr-defined]
        self.lookups.append((where, what, None if own else result))
        return result  # type: ignore[return-value]

    def _look_all(self, where: Callable[[Paper, object], list[Any]], what: object) -> list[Any]:
        result = where(self.paper, what)
        self.lookups.append(
            (where, what, [thing for thing in result if thing.key not in self._own])
        )
        return result

    def mark(self, at: Point, called: str = "") -> Mark:
        """Return the mark at a place; where there is none, one is pricked where drawn things cross
        there, or touch; a place where nothing is drawn is measured from the datum as it was worked
        out, and is told as such."""
        mark = self._look(Paper.mark, at)  # type: ignore[arg-type]
        if isinstance(mark, Mark):
            return mark
        crossed = self._crossed(at, called)
        if crossed is not None:
            return crossed
        how = self.paper.offered(at)
        self.lookups.append((Paper.offered, at, how))  # type: ignore[arg-type]
        return (
            how(self)
            if how is not None
            else self._outermost(at, called) or self._computed(at, called)
        )

    def offer(self, at: Point, how: Callable[[Work], Mark]) -> None:
        """Say how a place is to be marked, should anything that follows stand on it."""
        self._put(self.paper.place_of_offer(at), how)

    def has_mark(self, at: Point) -> bool:
        """Tell whether a place is marked."""
        return self._look(Paper.mark, at) is not None  # type: ignore[arg-type]

    def edge(self, line: Line, called: str = "") -> Edge:
        """Return what is drawn along a line; where nothing is, it is drawn through its ends."""
        edge = self._look(Paper.edge, line)  # type: ignore[arg-type]
        if isinstance(edge, Edge):
            return edge
        start, end = line.at(line.start or 0.0), line.at(line.end if line.end is not None else 1.0)
        return self.through(self.mark(start), self.mark(end), called)

    def round(self, curve: Circle | Arc, called: str = "", needle: Mark | None = None) -> Round:
        """Return the circle, or swing, that is drawn along a circle; where there is none, it is
        swung."""
        circle = Circle(curve.centre, curve.radius, curve.exact)
        result = self._look(Paper.round, circle)  # type: ignore[arg-type]
        if isinstance(result, Round):
            return result
        middle = needle or self.mark(curve.centre, f"the centre of {called}" if called else "")
        return self.swing(middle, curve.size, called, shape=curve)

    def anywhere(self, edge: Edge, at: Point, called: str) -> Mark:
        """Mark a place on a line where any will do."""
        start = self.place_on(edge, edge.line)
        along = (at - start.at).dot(edge.line.direction)
        return self.measure(
            start, Way(0, edge.key, edge.called), along, called, told="any distance will do"
        )

    def edge_of(self, key: Key) -> Edge:
        """Return the line that has been drawn under a key."""
        return self.paper.lines[key]

    @property
    def next_key(self) -> Key:
        """The key of what the next act leaves."""
        return self._key()

    def marks(self) -> list[Mark]:
        """Return every mark on the sheet."""
        return self._look_all(Paper.all_marks, None)

    def place_on(self, edge: Edge, near: Line) -> Mark:
        """Return a mark on a line: its end, or where it begins; any place of it that is marked will
        do."""
        spot = near.at(near.start or 0.0)
        mark = self._look(Paper.mark_on, edge.line)  # type: ignore[arg-type]
        if isinstance(mark, Mark):
            return mark
        return self.mark(spot, f"a place on {edge.called}")

    def curve(self, name: str, at: Point) -> Traced | None:
        """Return the curve of a name that goes through a place."""
        found = self._look(Paper.curve, (name, at))  # type: ignore[arg-type]
        return found if isinstance(found, Traced) else None

    def curve_along(self, places: Sequence[Point]) -> Traced | None:
        """Return a curve that goes through several places, whatever its name."""
        found = [{c.key for c in self._look_all(Paper.curves_at, place)} for place in places]  # type: ignore[arg-type]
        both = set.intersection(*found)
        key = min(both, default=None)
        return self.paper.curves[key] if key else None

    def has_drawn(self, curve: Line | Circle | Arc) -> bool:
        """Tell whether a line, or a circle with its centre, has been drawn."""
        if isinstance(curve, Line):
            return self._look(Paper.edge, curve) is not None  # type: ignore[arg-type]
        return self._look(Paper.round, Circle(curve.centre, curve.radius)) is not None  # type: ignore[arg-type]

    def _crossed(self, at: Point, called: str) -> Mark | None:
        """Prick a place where two of the things drawn cross, the squarer the better; or find where
        two touch."""
        through = self._look_all(Paper.through, at)  # type: ignore[arg-type]
        pairs = [
            (crossing(a, b, at), i, j)
            for i, a in enumerate(through)
            for j, b in enumerate(through)
            if i < j
        ]
        best = max(pairs, default=(0.0, 0, 0))
        if best[0] > SLACK:
            return self.prick(through[best[1]], through[best[2]], at, called)
        curves: list[Traced] = self._look_all(Paper.curves_at, at)  # type: ignore[arg-type]
        if curves and (through or len(curves) > 1):
            other: Thing = through[0] if through else curves[1]
            return self.prick(other, curves[0], at, called)
        rounds = [thing for thing in through if isinstance(thing, Round)]
        if len(through) < 2 or not rounds:
            return None
        return self.touch(
            rounds[0], next(thing for thing in through if thing is not rounds[0]), at, called
        )

    def _outermost(self, at: Point, called: str) -> Mark | None:
        """Prick an outermost place of a circle: where the level or plumb line through its centre
        crosses it."""
        for each in self._look_all(Paper.through, at):  # type: ignore[arg-type]
            if isinstance(each, Round) and self.has_mark(each.circle.centre):
                off = at - each.circle.centre
                if min(abs(off.x), abs(off.y)) <= self.paper.nothing:
                    middle = self.mark(each.circle.centre)
                    across = self.draw(middle, Way(0 if abs(off.x) > abs(off.y) else 90), at)
                    return self.prick(across, each, at, called)
        return None

    def _computed(self, at: Point, called: str) -> Mark:
        """Measure a place from the datum, across and up, as it was worked out."""
        first = self._look(Paper.first_mark, None)
        origin = first if isinstance(first, Mark) else None
        told = called or "a place worked out"
        if origin is None:
            origin = Mark(f"{self.name}.datum", Point(0.0, 0.0), "the datum")
            self.acts.append(Fix(leaves=origin.key, called=origin.called, planned=origin.at))
            origin = self.leave(origin)
        off = at - origin.at
        level = (
            self.measure(origin, Way(0), off.x, f"{told}, across", computed=True)
            if off.x
            else origin
        )
        return (
            self.measure(level, Way(90), off.y, told, computed=True)
            if off.y or not off.x
            else level
        )

    def touch(
        self, one: Round, other: Edge | Round, at: Point, called: str = "", label: str = ""
    ) -> Mark:
        """Mark where a circle touches a line or another circle: square to the line from the centre,
        or on the line of centres. A touch is never pricked by itself, as the two run along each
        other there."""
        centre = self.mark(one.circle.centre)
        if isinstance(other, Edge):
            across = self.square(other, centre, at)
            return self.prick(across, other, at, called, label=label)
        return self.prick(
            self.through(centre, self.mark(other.circle.centre), reach=at),
            one,
            at,
            called,
            label=label,
        )

    # Acts.

    def _key(self) -> Key:
        return f"{self.name}:{len(self.acts) + 1}"

    def leave(self, thing: T) -> T:
        """Put what an act leaves on the sheet: whoever names it names this very thing."""
        left = replace(thing, called=named(thing.key, thing.called))
        self._own.add(left.key)
        self.left.append(left)
        self._put(self.paper.place_of(left), left)
        return left

    def _put(self, place: Place, what: object) -> None:
        self.placed.append((place, what))
        self.paper.put_in(((place, what),))

    def _mark(self, act: Act, at: Point) -> Mark:
        self.acts.append(act)
        return self.leave(Mark(act.leaves, at, act.called))

    def measure(  # noqa: PLR0913
        self,
        start: Mark,
        way: Way,
        size: Number,
        called: str,
        at: Point | None = None,
        *,
        computed: bool = False,
        line: bool = False,
        label: str = "",
        told: str = "",
        check: str = "",
    ) -> Mark:
        """Mark a place at a distance from a mark; a distance below nought lies the other way."""
        place = at if at is not None else start.at + self.direction(way) * float(size)
        strokes = (
            (Stroke(Line.between(start.at, place)),) if line and abs(place - start.at) > 0 else ()
        )
        dot = Stroke(place, Role.POINT, label) if label else Stroke(place)
        return self._mark(
            Measure(
                leaves=self._key(),
                called=called,
                strokes=(*strokes, dot),
                check=check,
                start=start.key,
                way=way,
                size=size,
                planned=place,
                ahead=(place - start.at).unit if abs(place - start.at) > 0 else NOWHERE,
                told=start.called,
                why=told,
                computed=computed,
            ),
            place,
        )

    def prick(  # noqa: PLR0913
        self,
        first: Thing,
        second: Thing,
        at: Point,
        called: str = "",
        *,
        label: str = "",
        told: str = "",
        check: str = "",
        anew: bool = False,
    ) -> Mark:
        """Mark where two drawn things cross; a mark that is there already is taken, unless it is
        pricked `anew`."""
        if not anew:
            there = self._look(Paper.mark, at)  # type: ignore[arg-type]
            if isinstance(there, Mark):
                return there
        if not isinstance(first, Traced | Mark) and not isinstance(second, Traced | Mark):
            one, other = (first, second) if isinstance(first, Round) else (second, first)
            if isinstance(one, Round) and crossing(first, second, at) < TOUCHING:
                return self.touch(one, other, at, called, label)
        both = f"where {first.called} and {second.called} cross"
        where = told or f"{both}{_which(first, second, at, self._run_on_to)}"
        laid = told or f"{both}{_which(first, second, at, None)}"
        dot = Stroke(at, Role.POINT, label) if label else Stroke(at)
        reach = tuple(filter(None, (self._run_on(thing, at) for thing in (first, second))))
        called = called or f"the crossing of {first.called} and {second.called}"
        return self._mark(
            Prick(
                leaves=self._key(),
                called=called,
                strokes=(*reach, dot),
                check=check,
                first=first.key,
                second=second.key,
                pick=picked(first, second, at),
                planned=at,
                told=where,
                laid=laid,
            ),
            at,
        )

    def _run_on(self, thing: Thing, at: Point) -> Stroke | None:
        """Return what has to be run on of a line or a swing, so that it reaches where it is to be
        pricked."""
        near = self.paper.nothing * 100
        if isinstance(thing, Edge) and thing.line.start is not None and thing.line.end is not None:
            along = thing.line.along(at)
            if not thing.line.start - near <= along <= thing.line.end + near:
                self._run_on_to.setdefault(thing.key, []).append(at)
            if along < thing.line.start - near:
                return Stroke(Line.between(thing.line.at(thing.line.start), at))
            if along > thing.line.end + near:
                return Stroke(Line.between(thing.line.at(thing.line.end), at))
        if (
            isinstance(thing, Round)
            and thing.drawn
            and not any(is_drawn_at(curve, at) for curve in thing.drawn)
        ):
            turn = (at - thing.circle.centre).angle
            return Stroke(Arc(thing.circle.centre, thing.circle.radius, turn - SWING / 2, SWING))
        return None

    def through(
        self,
        first: Mark,
        second: Mark,
        called: str = "",
        *,
        reach: Point | None = None,
        shown: Line | None = None,
        told: str = "",
        check: str = "",
    ) -> Edge:
        """Draw the straight line through two marks, unless it is there."""
        line = shown or Line.between(first.at, second.at)
        edge = self._look(Paper.edge, line)  # type: ignore[arg-type]
        if isinstance(edge, Edge):
            return edge
        if reach is not None:
            along = [0.0, line.along(reach), line.along(second.at)]
            line = Line(line.through, line.direction, min(along), max(along))
        called = called or f"the line through {first.called} and {second.called}"
        return self._edge(
            Draw(
                leaves=self._key(),
                called=called,
                strokes=(Stroke(line),),
                check=check,
                start=first.key,
                end=second.key,
                planned=line,
                told=told or f"through {first.called} and {second.called}",
            ),
            line,
        )

    def _edge(self, act: Act, line: Line) -> Edge:
        self.acts.append(act)
        return self.leave(Edge(act.leaves, line, act.called))

    def draw(
        self,
        start: Mark,
        way: Way,
        to: Point | None = None,
        called: str = "",
        *,
        shown: Line | None = None,
        check: str = "",
        anew: bool = False,
    ) -> Edge:
        """Draw a line through a mark in a direction, as far as a place; past the view where none is
        said."""
        ahead = self.direction(way)
        line = (
            _along(shown, ahead)
            if shown
            else Line(start.at, ahead)
            if to is None
            else _reaching(start.at, ahead, to)
        )
        edge = self._look(Paper.edge, line)  # type: ignore[arg-type]
        if isinstance(edge, Edge) and not anew:
            return edge
        called = called or f"the line through {start.called}"
        return self._edge(
            Draw(
                leaves=self._key(),
                called=called,
                strokes=(Stroke(line),),
                check=check,
                start=start.key,
                way=way,
                planned=Line(line.through, line.direction, line.start, line.end),
                told=f"through {start.called}",
            ),
            line,
        )

    def draw_touching(
        self,
        round_: Round,
        way: Way,
        at: Point,
        to: Point,
        called: str,
        *,
        shown: Line | None = None,
    ) -> Edge:
        """Draw the line in a direction that touches a round at a place: the square is slid until it
        touches."""
        ahead = self.direction(way)
        line = _along(shown, ahead) if shown else _reaching(at, ahead, to)
        edge = self._look(Paper.edge, line)  # type: ignore[arg-type]
        if isinstance(edge, Edge):
            return edge
        return self._edge(
            Draw(
                leaves=self._key(),
                called=called,
                strokes=(Stroke(line),),
                way=way,
                touching=round_.key,
                planned=line,
                told=f"touching {round_.called}",
            ),
            line,
        )

    def want(self) -> None:
        """Say of the last act that it is asked for, whatever stands on it."""
        self.acts[-1] = replace(self.acts[-1], wanted=True)

    def square(self, edge: Edge, start: Mark, to: Point | None = None, called: str = "") -> Edge:
        """Draw the line square to another through a mark."""
        return self.draw(
            start, Way(90, edge.key, edge.called), to, called or f"the square to {edge.called}"
        )

    def parallel(
        self,
        edge: Edge,
        start: Mark,
        to: Point | None = None,
        called: str = "",
        *,
        shown: Line | None = None,
        check: str = "",
    ) -> Edge:
        """Draw the line parallel to another through a mark."""
        return self.draw(
            start,
            Way(0, edge.key, edge.called),
            to,
            called or f"the parallel to {edge.called}",
            shown=shown,
            check=check,
        )

    def swing(  # noqa: PLR0913
        self,
        needle: Mark,
        size: Number | Setting,
        called: str = "",
        *,
        shape: Circle | Arc | None = None,
        near: Sequence[Point] = (),
        check: str = "",
        told: str = "",
        anew: bool = False,
    ) -> Round:
        """Swing about a mark; of the swing no more is drawn than `shape`, or a little `near` where
        it is wanted."""
        setting = size if isinstance(size, Setting) else Setting(size)
        radius = float(setting.size)
        circle = Circle(
            needle.at, radius, None if isinstance(setting.size, float) else setting.size
        )
        if not anew:
            result = self._look(Paper.round, circle)  # type: ignore[arg-type]
            if isinstance(result, Round):
                return result
        shapes = tuple(
            Arc(needle.at, radius, (spot - needle.at).angle - SWING, 2 * SWING, circle.exact)
            for spot in near
        ) or (shape or circle,)
        act = Swing(
            leaves=self._key(),
            called=called or f"the swing about {needle.called}",
            strokes=tuple(map(Stroke, shapes)),
            check=check,
            needle=needle.key,
            setting=setting,
            planned=circle,
            told=f"{needle.called}|{told}",
        )
        self.acts.append(act)
        return self.leave(Round(act.leaves, circle, act.called, needle.key, shapes))

    def between(self, first: Mark, second: Mark) -> Setting:
        """Return the compass opened from one mark to another."""
        words = f"from {first.called} to {second.called}"
        return Setting(abs(second.at - first.at), (first.key, second.key), told=words)

    def step_off(  # noqa: PLR0913
        self,
        start: Mark,
        size: Number | Setting,
        along: Edge | Round,
        spots: Sequence[Point],
        names: Sequence[str],
        *,
        labels: Sequence[str] = (),
        check: str = "",
        told: str = "",
        compass: bool = False,
        by_rule: bool = False,
    ) -> list[Mark]:
        """Step off equal lengths with the dividers along a line, or as chords round a circle."""
        setting = size if isinstance(size, Setting) else Setting(size)
        if isinstance(along, Edge):
            forwards = (spots[0] - start.at).dot(along.line.direction) > 0
        else:
            middle = along.circle.centre
            forwards = (start.at - middle).cross(spots[0] - middle) > 0
        base = self._key()
        keys = tuple(f"{base}.{index}" for index in range(1, len(spots) + 1))
        strokes = [
            Stroke(s, Role.POINT, labels[i]) if labels else Stroke(s) for i, s in enumerate(spots)
        ]
        if isinstance(along, Round):
            size_ = float(setting.size)
            strokes += [
                Stroke(Arc(before, size_, (spot - before).angle - TICK, 2 * TICK))
                for before, spot in zip((start.at, *spots), spots, strict=False)
            ]
        self.acts.append(
            StepOff(
                leaves=base,
                called=names[-1],
                strokes=tuple(strokes),
                check=check,
                start=start.key,
                setting=setting,
                compass=compass or setting.between is not None,
                by_rule=by_rule,
                along=along.key,
                forwards=forwards,
                marks=keys,
                planned=tuple(spots),
                told=f"{start.called}|{along.called}|{told}",
            ),
        )
        return [
            self.leave(Mark(key, spot, called))
            for key, spot, called in zip(keys, spots, names, strict=True)
        ]

    def strip(
        self,
        tick: Mark,
        axis: Edge,
        whole: Number,
        rest: Number,
        at: Point,
        called: str,
        ends: tuple[str, str, str],
    ) -> Mark:
        """Mark a place by a strip of paper, its further tick on a mark and the nearer one on a
        line; `ends` are the centre and the ends of the axes, from which the ticks are taken."""
        on = at + (tick.at - at) * (float(rest) / float(whole))
        ahead = (on - axis.line.foot(tick.at)).dot(axis.line.direction)
        return self._mark(
            Strip(
                leaves=self._key(),
                called=called,
                strokes=(Stroke(Line.between(tick.at, at)), Stroke(at)),
                tick=tick.key,
                axis=axis.key,
                pick="second" if ahead > 0 else "first",
                whole=whole,
                rest=rest,
                planned=at,
                ends=ends,
            ),
            at,
        )

    def trace(  # noqa: PLR0913
        self,
        stations: Sequence[Thing],
        loop: Loop,
        called: str,
        *,
        key: str = "",
        touching: bool = False,
        check: str = "",
        within: float = 0.0,
        tool: str = "French curve",
    ) -> Traced:
        """Draw a curve through marks, or touching what is drawn, by the French curve."""
        name = key or f"{called}@{self._key()}"
        act = Trace(
            leaves=name,
            called=called,
            strokes=(Stroke(loop),),
            check=check,
            stations=tuple(s.key for s in stations),
            planned=loop,
            touching=touching,
            within=within,
            tool=tool,
        )
        self.acts.append(act)
        return self.leave(Traced(name, loop, called))

    def copy(  # noqa: PLR0913
        self,
        originals: Sequence[Thing],
        copies: Sequence[Thing],
        how: Literal["shift", "turn", "mirror"],
        about: Mark | Edge,
        to: Mark | None = None,
        degrees: Number = 0,
        called: str = "",
        strokes: Sequence[Stroke] = (),
        check: str = "",
    ) -> None:
        """Repeat what is drawn somewhere else: what the copies are is said with the keys they
        get."""
        base = self._key()
        self.acts.append(
            Copy(
                leaves=base,
                called=called,
                strokes=tuple(strokes),
                check=check,
                pairs=tuple((a.key, b.key) for a, b in zip(originals, copies, strict=True)),
                things=tuple(copies),
                how=how,
                about=about.key,
                to=to.key if to else "",
                degrees=degrees,
            )
        )
        for each in copies:
            self.leave(each)

    def go_over(
        self,
        pieces: Sequence[Gone],
        role: Role,
        called: str,
        strokes: Sequence[Stroke],
        check: str = "",
        setting: Setting | None = None,
        told: str = "",
    ) -> None:
        """Go over pieces that stand there in light lines."""
        self.acts.append(
            GoOver(
                called=called,
                strokes=tuple(strokes),
                check=check,
                pieces=tuple(pieces),
                role=role,
                setting=setting,
                told=told,
            )
        )

    def finish(
        self,
        told: str,
        verb: Finishing,
        strokes: Sequence[Stroke] = (),
        check: str = "",
        size: Number | None = None,
    ) -> None:
        """Do what finishes a sheet."""
        self.acts.append(
            Finish(told=told, verb=verb, strokes=tuple(strokes), check=check, size=size)
        )

    def relabel(self, mark: Mark, label: str) -> None:
        """Letter a mark that stands there already."""
        if label:
            strokes = (Stroke(mark.at, Role.POINT, label),)
            words = f"Letter {mark.called}: {label}"
            self.acts.append(Finish(told=words, verb="letter", strokes=strokes, of=mark.key))

    def direction(self, way: Way) -> Point:
        """Return a direction as the figure has it."""
        turn = float(way.degrees)
        if way.off:
            base = self.edge_of(way.off).line.direction
            return {0.0: base, 90.0: base.normal, 180.0: -base, 270.0: -base.normal}.get(
                turn % 360, rotate(base, Point(0.0, 0.0), math.radians(turn))
            )
        quarters = {
            0.0: Point(1.0, 0.0),
            90.0: Point(0.0, 1.0),
            180.0: Point(-1.0, 0.0),
            270.0: Point(0.0, -1.0),
        }
        return quarters.get(turn % 360) or polar(1.0, math.radians(turn))


def _along(line: Line, direction: Point) -> Line:
    """Return a line in the sense in which what is held draws it."""
    if line.direction.dot(direction) > 0:
        return line
    start, end = (None if along is None else -along for along in (line.end, line.start))
    return Line(line.through, -line.direction, start, end)


def _reaching(start: Point, ahead: Point, to: Point) -> Line:
    along = ahead.dot(to - start)
    return Line(start, ahead, min(0.0, along), max(0.0, along))


def picked(
    first: Thing, second: Thing, at: Point
) -> Literal["", "first", "second", "left", "right", "curve"]:
    """Tell which of the crossings of two things lies at a place; see `Prick`."""
    if isinstance(first, Traced) or isinstance(second, Traced):
        return "curve"
    if isinstance(first, Edge) and isinstance(second, Edge):
        return ""
    if isinstance(first, Round) and isinstance(second, Round):
        between = second.circle.centre - first.circle.centre
        return "left" if between.cross(at - first.circle.centre) > 0 else "right"
    edge, round_ = (first, second) if isinstance(first, Edge) else (second, first)
    assert isinstance(edge, Edge)
    assert isinstance(round_, Round)
    middle = edge.line.along(round_.circle.centre)
    return "second" if edge.line.along(at) > middle else "first"


def _which(
    first: Thing, second: Thing, at: Point, run_on: Mapping[Key, Sequence[Point]] | None
) -> str:
    """Say which of two crossings is meant, where both are drawn: the upper one, the left one. Lines
    reach as far as they have been run on; an edge that is laid cuts wherever it would."""
    if not isinstance(first, Edge | Round) or not isinstance(second, Edge | Round):
        return ""
    one, other = (
        thing.line if isinstance(thing, Edge) else thing.circle for thing in (first, second)
    )
    found = [meeting.point for meeting in meet(one, other)]
    if len(found) != 2:
        return ""
    far = max(found, key=lambda spot: abs(spot - at))
    for thing in (first, second):
        if isinstance(thing, Round) and not is_drawn_at(_drawn_of(thing, far), far):
            return ""
        if isinstance(thing, Edge) and run_on is not None:
            along = [thing.line.along(spot) for spot in run_on.get(thing.key, ())]
            reach = [each for each in (thing.line.start, thing.line.end) if each is not None]
            ends = [*along, *reach]
            if len(reach) == 2 and not min(ends) <= thing.line.along(far) <= max(ends):
                return ""
    off = at - far
    if abs(off.y) >= abs(off.x):
        return ", the upper one" if off.y > 0 else ", the lower one"
    return ", the right one" if off.x > 0 else ", the left one"


def _drawn_of(thing: Round, at: Point) -> Circle | Arc:
    shown = thing.drawn or (thing.circle,)
    return next((curve for curve in shown if is_drawn_at(curve, at)), shown[0])
