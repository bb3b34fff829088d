"""The acts of a plan carried out one after another, knowing nothing of how the kinds construct.

Places are complex numbers, one for each hand: x + i·y. A line is a place and a direction of length
1, a circle a place and a radius. Every act is worked out from what earlier acts left and from what
is set for it; where the figure has it tells no more than which of two crossings is meant on a
curve."""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from functools import cached_property
from typing import Literal

import numpy as np

from ..acts.act import (
    Act,
    Copy,
    Draw,
    Edge,
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
from ..acts.names import plain
from ..board.schedule import guest_of
from ..drawing.strokes import Role
from ..geometry import Arc, Circle, Line, Loop, Point
from ..geometry.ellipse import oval_of
from ..geometry.loop import nearest_place
from ..measure import Number
from ..tolerance import DIRECTION, NOUGHT, SPECK
from .curve import DrawnCurve, copied, on, through
from .hand import NONE
from .many import Hands, Places, Reals


@dataclass(slots=True)
class DrawnLine:
    """A line as it came out: a place on it and its direction of length 1, for every hand."""

    at: Places
    ahead: Places


@dataclass(slots=True)
class DrawnRound:
    """A circle as it came out, for every hand."""

    centre: Places
    radius: Reals


@dataclass(slots=True)
class DrawnPiece:
    """A piece that was gone over: what it follows, where it begins and ends, as what line."""

    planned: Line | Circle | Arc | Loop
    thing: DrawnLine | DrawnRound | DrawnCurve
    start: Places | None
    end: Places | None
    called: str
    role: Role = Role.OUTLINE


Lining = Literal["rule", "start", "end", "between"]
"""How the compass is opened for an arc gone over: by the rule, to one of its ends, or between what
both want."""

Drawn = Places | DrawnLine | DrawnRound | DrawnCurve


class NotDrawn(Exception):
    """An act stands on something that no act before it has left."""


@dataclass
class Board:
    """What is on the board while acts are carried out by many hands at once.

    `holes` are the radii that are gone over by a template. `rule` is the finest graduation, mm, to
    which sizes are set; nought where they are set as they are. `planned` holds where the figure has
    what was left, `stepped` with which opening a mark was stepped to. `unmet` counts for each hand
    how many crossings did not come about, such as swings that fell short of each other."""

    hands: Hands
    lining: Lining = "rule"
    holes: frozenset[float] = frozenset()
    rule: float = 0.0
    things: dict[Key, Drawn] = field(default_factory=dict)
    gone: list[DrawnPiece] = field(default_factory=list)
    opened: dict[str, tuple[Setting, Reals]] = field(default_factory=dict)
    needles: dict[Key, Key] = field(default_factory=dict)
    planned: dict[Key, object] = field(default_factory=dict)
    stepped: dict[Key, Reals] = field(default_factory=dict)
    unmet: Reals = field(init=False)

    def __post_init__(self) -> None:
        self.unmet = np.zeros(self.hands.count)

    # What stands there.

    def mark(self, key: Key) -> Places:
        """Return where a mark came to."""
        places = self.things.get(key)
        if not isinstance(places, np.ndarray):
            raise NotDrawn(f"{key} has not been marked")
        return places

    def line(self, key: Key) -> DrawnLine:
        """Return a line as it came out."""
        result = self.things.get(key)
        if not isinstance(result, DrawnLine):
            raise NotDrawn(f"{key} has not been drawn")
        return result

    def thing(self, key: Key) -> DrawnLine | DrawnRound | DrawnCurve:
        """Return a line, circle or curve as it came out."""
        result = self.things.get(key)
        if result is None or isinstance(result, np.ndarray):
            raise NotDrawn(f"{key} has not been drawn")
        return result

    def gone_along(self, curve: Line | Arc | Circle) -> DrawnPiece | None:
        """Return the piece that was gone over along a curve of the figure, once all has been."""
        return self._by_curve.get(_either_way(curve))

    @cached_property
    def _by_curve(self) -> dict[object, DrawnPiece]:
        result: dict[object, DrawnPiece] = {}
        for piece in self.gone:
            planned = piece.planned
            curves = (
                [each.curve for each in planned.pieces] if isinstance(planned, Loop) else [planned]
            )
            for curve in curves:
                result.setdefault(_either_way(curve), piece)
        return result

    # What is set.

    def opening(self, setting: Setting, tool: str) -> Reals:
        """Return what compass or dividers are opened to: as they are where nothing is to be
        changed."""
        was = self.opened.get(tool)
        if was is not None and was[0] == setting:
            return was[1]
        hand = self.hands.hand
        if setting.between is not None:
            first, second = (self.mark(key) for key in setting.between)
            size = np.abs(second - first) + self.hands.length(hand.carried)
        else:
            error = hand.opening if tool == "compass" else hand.dividers
            bias = hand.opening_bias if tool == "compass" else hand.dividers_bias
            size = (
                np.full(self.hands.count, float(setting.size))
                if setting.free
                else self.read(setting.size) + self.hands.length(error) + self.hands.fixed(bias)
            )
        self.opened[tool] = (setting, size)
        return size

    def read(self, size: Number) -> float | Reals:
        """Return a size as it is set by the rule: to its nearest graduation."""
        paper = float(size) * self.hands.factor
        if not self.rule or self.hands.hand == NONE:
            return float(size)
        return math.floor(paper / self.rule + 0.5) * self.rule / self.hands.factor

    def direction(self, way: Way) -> Places:
        """Return a direction as it is held; parallel and square to a line it is the square that
        slides."""
        base = self.line(way.off).ahead if way.off else np.ones(self.hands.count, complex)
        degrees = float(way.degrees)
        hand = self.hands.hand
        quarter = {0.0: 1, 90.0: 1j, 180.0: -1, 270.0: -1j}.get(degrees % 360)
        turn = (
            quarter
            if quarter is not None
            else complex(math.cos(math.radians(degrees)), math.sin(math.radians(degrees)))
        )
        if way.off or (degrees % 15 == 0 and degrees % 180 != 0):
            tilt = self.hands.angle(hand.set_square)
        elif degrees % 180 == 0:
            tilt = self.hands.angle(hand.t_square)
        else:
            tilt = self.hands.angle(hand.protractor, hand.base) + math.radians(hand.protractor_bias)
        held: Places = base * turn * np.exp(1j * tilt)
        return held

    def needle_at(self, key: Key) -> Places:
        """Return the mark on which a needle is set."""
        return self.mark(key)

    def side(self, forth: bool) -> float | Reals:
        """Return which of two crossings is taken: 1 the left or the second one, −1 the other."""
        return 1.0 if forth else -1.0

    # What is done.

    def do(self, act: Act) -> None:
        """Carry one act out."""
        hand = self.hands.hand
        within = guest_of(act)
        if within is not None and within.leaves not in self.things:
            self.do(within)
        match act:
            case Fix():
                self.things[act.leaves] = self._planned(act.planned)
            case Measure():
                ahead = self._held(act.way)
                along = self.read(act.size) + self.hands.length(hand.measuring)
                along = along + self.hands.fixed(hand.measuring_bias)
                across = self.hands.length(0.0 if self._is_drawn(act.way) else hand.edge)
                self.things[act.leaves] = self.mark(act.start) + ahead * (along + 1j * across)
            case Prick():
                self.things[act.leaves] = self._pricked(act)
            case Draw(end=""):
                self.things[act.leaves] = self._directed(act)
            case Draw():
                first, second = self.mark(act.start), self.mark(act.end)
                square = 1j * _unit(second - first)
                first, second = (m + square * self.hands.length(hand.edge) for m in (first, second))
                ahead = _unit(second - first)
                # A line has the sense in which the figure has it, from which crossings on it are
                # counted.
                along = (np.conj(_of(act.planned.direction)) * ahead).real
                sense = np.where(along > 0, 1.0, -1.0)
                self.things[act.leaves] = DrawnLine(first, ahead * sense)
            case Swing():
                needle = self.needle_at(act.needle) + self.hands.place(hand.needle)
                self.needles[act.leaves] = act.needle
                self.things[act.leaves] = DrawnRound(needle, self.opening(act.setting, "compass"))
            case StepOff():
                self._step(act)
            case Strip():
                self.things[act.leaves] = self._strip(act)
            case Trace():
                for key in act.stations:
                    if key not in self.things:
                        raise NotDrawn(f"{act.called} is drawn through {key}, which is not there")
                off = self.hands.place(hand.line)
                stations = [self._station(key, act.planned) for key in act.stations]
                self.things[act.leaves] = through(act.planned, off, stations)
            case Copy():
                self._copy(act)
            case GoOver():
                self._go_over(act)
            case _:
                pass
        self._note(act)

    def _directed(self, act: Draw) -> DrawnLine:
        """Draw a line in a direction, through a mark or touching a round."""
        assert act.way is not None
        ahead = self.direction(act.way)
        if act.touching:
            ring = self.thing(act.touching)
            assert isinstance(ring, DrawnRound)
            middle = act.planned.foot(Point(*_parts(ring.centre[0])))
            out = (_of(middle) - ring.centre[0]) * np.conj(ahead[0])
            side = 1.0 if out.imag > 0 else -1.0
            start = ring.centre + 1j * ahead * side * ring.radius
        else:
            start = self.mark(act.start)
        return DrawnLine(start + 1j * ahead * self.hands.length(self.hands.hand.edge), ahead)

    def _note(self, act: Act) -> None:
        """Note where the figure has what an act left."""
        match act:
            case Fix() | Measure() | Prick() | Strip() | Draw() | Swing():
                self.planned[act.leaves] = act.planned
            case StepOff():
                self.planned |= zip(act.marks, act.planned, strict=True)
            case Copy():
                for (_, key), thing in zip(act.pairs, act.things, strict=True):
                    match thing:
                        case Mark(at=place):
                            self.planned[key] = place
                        case Edge(line=line):
                            self.planned[key] = line
                        case Round(circle=circle):
                            self.planned[key] = circle

    def _station(self, key: Key, loop: Loop) -> tuple[Point, Places]:
        """Return where a station belongs on a curve, and where it came to: a mark by itself, a line
        or circle where the curve touches it."""
        thing, planned = self.things[key], self.planned.get(key)
        match thing, planned:
            case DrawnLine(at=at, ahead=ahead), Line():
                place = min(
                    (_nearest_on(piece.curve, planned) for piece in loop.pieces),
                    key=lambda spot: abs(planned.offset_of(spot)),
                )
                spot, foot = _of(place), _of(planned.foot(place))
                came = at + ahead * (np.conj(ahead) * (spot - at)).real
                return place, came - foot + spot
            case DrawnRound(centre=centre, radius=radius), Circle():
                place = on(loop, planned.centre)
                spot, middle = _of(place), _of(planned.centre)
                out = (spot - middle) / max(abs(spot - middle), NOUGHT)
                came = centre + _unit(spot - centre) * radius
                return place, came - (middle + out * planned.radius) + spot
            case DrawnCurve(), _:
                place = loop.pieces[0].entry
                return place, self._planned(place)
        assert isinstance(thing, np.ndarray)
        assert isinstance(planned, Point)
        place = on(loop, planned)
        # The curve passes a station, or touches it, as nearly as it does in the figure.
        return place, thing - _of(planned) + _of(place)

    def _planned(self, at: Point) -> Places:
        return np.full(self.hands.count, complex(at.x, at.y))

    def _held(self, way: Way) -> Places:
        """Return the direction one measures in: along a drawn line as it is, else along an edge
        that is held."""
        if self._is_drawn(way):
            return self.line(way.off).ahead * (1 if float(way.degrees) == 0 else -1)
        return self.direction(way)

    def _is_drawn(self, way: Way) -> bool:
        return bool(way.off) and float(way.degrees) in (0.0, 180.0)

    def _pricked(self, act: Prick) -> Places:
        first, second = self.thing(act.first), self.thing(act.second)
        first, second = (self._missed(thing) for thing in (first, second))
        if isinstance(first, DrawnCurve) or isinstance(second, DrawnCurve):
            return self._on_curve(first, second, act)
        if isinstance(first, DrawnLine) and isinstance(second, DrawnLine):
            turn = _cross(first.ahead, second.ahead)
            parallel = np.abs(turn) < NOUGHT
            if bool(np.all(parallel)):
                raise NotDrawn(f"{plain(act.called)}: what should cross runs parallel")
            # A hand whose lines never cross is counted, and does not keep the others from it.
            self.unmet += parallel
            turn = np.where(parallel, 1.0, turn)
            crossing: Places = first.at + first.ahead * (
                _cross(second.at - first.at, second.ahead) / turn
            )
            return crossing
        if isinstance(first, DrawnRound) and isinstance(second, DrawnRound):
            return self._two_rounds(first, second, self.side(act.pick == "left"))
        line, round_ = (first, second) if isinstance(first, DrawnLine) else (second, first)
        assert isinstance(line, DrawnLine)
        assert isinstance(round_, DrawnRound)
        return self._line_round(line, round_, self.side(act.pick == "second"))

    def _missed(
        self, thing: DrawnLine | DrawnRound | DrawnCurve
    ) -> DrawnLine | DrawnRound | DrawnCurve:
        """Return a thing moved square to itself by what the eye is off."""
        error = self.hands.length(self.hands.hand.pricking)
        match thing:
            case DrawnLine(at=at, ahead=ahead):
                return DrawnLine(at + 1j * ahead * error, ahead)
            case DrawnRound(centre=centre, radius=radius):
                return DrawnRound(centre, radius + error)
        return thing

    def _two_rounds(self, first: DrawnRound, second: DrawnRound, side: float | Reals) -> Places:
        between = second.centre - first.centre
        apart = np.maximum(np.abs(between), NOUGHT)
        along = (apart**2 + first.radius**2 - second.radius**2) / (2 * apart)
        places: Places = first.centre + between / apart * (
            along + 1j * side * self._root(first.radius, along)
        )
        return places

    def _line_round(self, line: DrawnLine, round_: DrawnRound, side: float | Reals) -> Places:
        away = (round_.centre - line.at) * np.conj(line.ahead)
        half = self._root(round_.radius, away.imag)
        return line.at + line.ahead * (away.real + side * half)

    def _root(self, radius: Reals, away: Reals) -> Reals:
        """Return half the chord; where the two fall short of each other, nought, which is
        counted."""
        inside = (radius - np.abs(away)) * (radius + np.abs(away))
        self.unmet += inside < -DIRECTION * radius**2
        return np.sqrt(np.maximum(inside, 0.0))

    def _on_curve(
        self,
        first: DrawnLine | DrawnRound | DrawnCurve,
        second: DrawnLine | DrawnRound | DrawnCurve,
        act: Prick,
    ) -> Places:
        """Cross a traced curve where the true one is, near where the figure has the crossing."""
        curve, other = (first, second) if isinstance(first, DrawnCurve) else (second, first)
        assert isinstance(curve, DrawnCurve)
        pieces = sorted(
            curve.true.pieces,
            key=lambda piece: abs(nearest_place(piece.curve, act.planned) - act.planned),
        )
        piece = pieces[0].curve
        moved = curve.displaced(act.planned)
        here = self._planned(act.planned) + moved
        if isinstance(other, DrawnCurve):
            return here
        support: DrawnLine | DrawnRound
        if isinstance(piece, Line):
            support = DrawnLine(
                self._planned(piece.through) + moved,
                np.full(self.hands.count, _of(piece.direction)),
            )
        else:
            support = DrawnRound(
                self._planned(piece.centre) + moved, np.full(self.hands.count, piece.radius)
            )
        return _nearest_crossing(self, support, other, here)

    def one_more(self, act: StepOff, ring: DrawnRound, hands: Hands) -> Places:
        """Return where one step more round a circle would come, by hands with errors of their
        own."""
        key = act.marks[-1]
        needle = self.mark(key) + hands.place(hands.hand.needle)
        swung = DrawnRound(needle, self.stepped[key] + hands.length(hands.hand.pricking))
        seen = DrawnRound(ring.centre, ring.radius + hands.length(hands.hand.pricking))
        return self._two_rounds(seen, swung, 1.0 if act.forwards else -1.0)

    def _step(self, act: StepOff) -> None:
        hand = self.hands.hand
        size = self.opening(act.setting, "compass" if act.compass else "dividers")
        along = self.thing(act.along)
        here = self.mark(act.start)
        if act.by_rule:
            self._ticked(act)
            return
        for key in act.marks:
            needle = here + self.hands.place(hand.needle)
            swung = DrawnRound(needle, size + self.hands.length(hand.pricking))
            if isinstance(along, DrawnLine):
                here = self._line_round(along, swung, 1.0 if act.forwards else -1.0)
            else:
                assert isinstance(along, DrawnRound)
                ring = DrawnRound(along.centre, along.radius + self.hands.length(hand.pricking))
                here = self._two_rounds(ring, swung, 1.0 if act.forwards else -1.0)
            self.things[key] = here
            self.stepped[key] = size

    def _ticked(self, act: StepOff) -> None:
        """Tick the graduations of a rule that is laid along a line: none adds to the one before."""
        along = self.line(act.along)
        start = self.mark(act.start)
        size = self.read(act.setting.size) * (1.0 if act.forwards else -1.0)
        for index, key in enumerate(act.marks, 1):
            error = self.hands.length(self.hands.hand.measuring)
            self.things[key] = start + along.ahead * (size * index + error)
            self.stepped[key] = np.broadcast_to(np.abs(size), (self.hands.count,))

    def _strip(self, act: Strip) -> Places:
        tick, axis = self.mark(act.tick), self.line(act.axis)
        whole = self.read(act.whole) + self.hands.length(self.hands.hand.measuring)
        rest = self.read(act.rest) + self.hands.length(self.hands.hand.measuring)
        on = self._line_round(
            axis, DrawnRound(tick, whole - rest), 1.0 if act.pick == "second" else -1.0
        )
        return on + _unit(on - tick) * rest

    def _copy(self, act: Copy) -> None:
        hand = self.hands.hand
        slip = self.hands.place(hand.needle)
        if act.how == "mirror":
            axis = self.line(act.about)
            flip = axis.ahead**2
            for (key, copy), thing in zip(act.pairs, act.things, strict=True):
                self.things[copy] = _moved(
                    self.things[key],
                    thing,
                    lambda z: axis.at + flip * np.conj(z - axis.at) + slip,
                    flip,
                    True,
                )
            return
        about = self.mark(act.about)
        if act.how == "shift":
            by = self.mark(act.to) - about
            turn = np.ones(self.hands.count, complex)
            for (key, copy), thing in zip(act.pairs, act.things, strict=True):
                self.things[copy] = _moved(
                    self.things[key], thing, lambda z: z + by + slip, turn, False
                )
            return
        degrees = math.radians(float(act.degrees))
        turn = np.exp(1j * (degrees + self.hands.angle(hand.protractor)))
        for (key, copy), thing in zip(act.pairs, act.things, strict=True):
            self.things[copy] = _moved(
                self.things[key], thing, lambda z: about + (z - about) * turn + slip, turn, False
            )

    def _go_over(self, act: GoOver) -> None:
        hand = self.hands.hand
        for piece in act.pieces:
            thing = self.thing(piece.thing)
            off = self.hands.length(hand.line)
            match thing:
                case DrawnLine():
                    thing = DrawnLine(thing.at + 1j * thing.ahead * off, thing.ahead)
                case DrawnRound() if hand != NONE:
                    thing = self._set_anew(thing, piece, off)
                case DrawnCurve():
                    pass
            start = self.mark(piece.start) if piece.start else None
            end = self.mark(piece.end) if piece.end else None
            self.gone.append(DrawnPiece(piece.planned, thing, start, end, piece.called, act.role))

    def _set_anew(self, thing: DrawnRound, piece: Gone, off: Reals) -> DrawnRound:
        """Return a circle or arc gone over: the needle on its mark once more, the compass opened
        for it."""
        mark = self.needles.get(piece.thing)
        middle = self.needle_at(mark) if mark else thing.centre
        if isinstance(piece.planned, Arc | Circle) and piece.planned.radius in self.holes:
            # A hole is as large as it is; it is laid to the centre lines by eye.
            return DrawnRound(
                middle + self.hands.place(self.hands.hand.edge), np.abs(piece.planned.radius + off)
            )
        needle = middle + self.hands.place(self.hands.hand.needle)
        ends = [self.mark(key) for key in (piece.start, piece.end) if key]
        if self.lining == "rule" or not ends or not isinstance(piece.planned, Arc):
            size = self.opening(Setting(piece.planned.size), "compass")  # type: ignore[union-attr]
            return DrawnRound(needle, size + off)
        self.opened.pop("compass", None)
        wanted = [np.abs(end - needle) for end in ends]
        size = {"start": wanted[0], "end": wanted[-1], "between": (wanted[0] + wanted[-1]) / 2}[
            self.lining
        ]
        return DrawnRound(needle, size + self.hands.length(self.hands.hand.carried) + off)


def _either_way(curve: Line | Arc | Circle) -> object:
    """Return what a curve is found by: a line is the same from either end."""
    if isinstance(curve, Line):
        return frozenset((curve.at(curve.start or 0.0), curve.at(curve.end or 0.0)))
    return curve


def _moved(original: Drawn, thing: Thing, move, turn: Places, over: bool) -> Drawn:  # type: ignore[no-untyped-def]
    match original:
        case DrawnLine(at=at, ahead=ahead):
            return DrawnLine(move(at), turn * (np.conj(ahead) if over else ahead))
        case DrawnRound(centre=centre, radius=radius):
            return DrawnRound(move(centre), radius)
        case DrawnCurve():
            assert isinstance(thing, Traced)
            return copied(original, thing.loop, move)
    return move(original)  # type: ignore[no-any-return]


def _parts(place: complex) -> tuple[float, float]:
    return place.real, place.imag


def _of(point: Point) -> complex:
    return complex(point.x, point.y)


def _unit(displacement: Places) -> Places:
    return displacement / np.maximum(np.abs(displacement), NOUGHT)


def _cross(a: Places, b: Places) -> Reals:
    return (np.conj(a) * b).imag


def _nearest_crossing(
    board: Board, one: DrawnLine | DrawnRound, other: DrawnLine | DrawnRound, here: Places
) -> Places:
    touching = _touching(one, other, here)
    if touching is not None:
        return touching
    if isinstance(one, DrawnLine) and isinstance(other, DrawnLine):
        return one.at + one.ahead * (
            _cross(other.at - one.at, other.ahead) / _cross(one.ahead, other.ahead)
        )
    if isinstance(one, DrawnRound) and isinstance(other, DrawnRound):
        both = [board._two_rounds(one, other, side) for side in (1.0, -1.0)]
    else:
        line, round_ = (one, other) if isinstance(one, DrawnLine) else (other, one)
        assert isinstance(line, DrawnLine)
        assert isinstance(round_, DrawnRound)
        both = [board._line_round(line, round_, side) for side in (1.0, -1.0)]
    return np.where(np.abs(both[0] - here) < np.abs(both[1] - here), both[0], both[1])


def _touching(
    one: DrawnLine | DrawnRound, other: DrawnLine | DrawnRound, here: Places
) -> Places | None:
    """Return where two touch: square to the line from the centre, or on the line of centres. None
    where they cross."""
    if isinstance(one, DrawnLine) and isinstance(other, DrawnLine):
        return None
    if isinstance(one, DrawnRound) and isinstance(other, DrawnRound):
        between = other.centre - one.centre
        apart = np.abs(between)
        gaps = [
            np.abs(apart - one.radius - other.radius),
            np.abs(apart - np.abs(one.radius - other.radius)),
        ]
        if float(np.min(np.minimum(*gaps) / one.radius)) > SPECK:
            return None
        along = one.centre + _unit(between) * one.radius
        against = one.centre - _unit(between) * one.radius
        return np.where(np.abs(along - here) < np.abs(against - here), along, against)
    line, round_ = (one, other) if isinstance(one, DrawnLine) else (other, one)
    assert isinstance(line, DrawnLine)
    assert isinstance(round_, DrawnRound)
    away = (round_.centre - line.at) * np.conj(line.ahead)
    if float(np.min(np.abs(np.abs(away.imag) - round_.radius) / round_.radius)) > SPECK:
        return None
    return line.at + line.ahead * away.real


def carry_out(
    acts: Sequence[Act],
    hands: Hands,
    lining: Lining = "rule",
    holes: frozenset[float] = frozenset(),
    rule: float = 0.0,
) -> Board:
    """Carry acts out one after another.

    Parameters
    ----------
    acts : sequence of Act
    hands : Hands
    lining : str
        How the compass is opened for arcs that are gone over.
    holes : frozenset of float
        Radii, plan units, that are gone over by a template.
    rule : float
        Finest graduation of the rule, mm; nought where sizes are set as they are.

    Returns
    -------
    Board

    Raises
    ------
    NotDrawn
        Where an act stands on something no act before it has left.
    """
    board = Board(hands, lining, holes, rule)
    for act in acts:
        board.do(act)
    return board


def miss_of(board: Board, act: Act) -> Mapping[Key, Reals]:
    """Return how far everything an act left is from where the figure has it, plan units;
    `carry_out` before."""
    result: dict[Key, Reals] = {}
    match act:
        case Fix() | Measure() | Prick() | Strip():
            result[act.leaves] = np.abs(board.mark(act.leaves) - _of(act.planned))
        case Draw(planned=line):
            result[act.leaves] = _line_off(board.line(act.leaves), line)
        case Swing(planned=circle):
            result[act.leaves] = _round_off(board.thing(act.leaves), circle)
        case StepOff():
            result |= {
                key: np.abs(board.mark(key) - _of(at))
                for key, at in zip(act.marks, act.planned, strict=True)
            }
        case Copy():
            for (_, key), thing in zip(act.pairs, act.things, strict=True):
                match thing:
                    case Mark(at=at):
                        result[key] = np.abs(board.mark(key) - _of(at))
                    case Edge(line=line):
                        result[key] = _line_off(board.line(key), line)
                    case Round(circle=circle):
                        result[key] = _round_off(board.thing(key), circle)
        case Trace(planned=loop):
            worst = np.zeros(board.hands.count)
            for key in act.stations:
                worst = np.maximum(worst, _off_curve(board.things[key], loop))
            result[act.leaves] = np.maximum(worst - act.within, 0.0)
    return result


def _line_off(drawn: DrawnLine, line: Line) -> Reals:
    ends = [
        line.at(along) for along in (line.start or 0.0, line.end if line.end is not None else 1.0)
    ]
    return np.maximum(*(np.abs(_cross(drawn.ahead, _of(end) - drawn.at)) for end in ends))


def _round_off(drawn: DrawnLine | DrawnRound | DrawnCurve, circle: Circle) -> Reals:
    assert isinstance(drawn, DrawnRound)
    return np.maximum(
        np.abs(drawn.centre - _of(circle.centre)), np.abs(drawn.radius - circle.radius)
    )


def _off_curve(drawn: Drawn, loop: Loop) -> Reals:
    """Return how far a curve is from passing a mark, or from touching a line or circle."""
    if isinstance(drawn, DrawnRound):
        return np.abs(_off_loop(drawn.centre, loop) - drawn.radius)
    if isinstance(drawn, DrawnLine):
        near = [_nearest_to_line(piece.curve, drawn) for piece in loop.pieces]
        off: Reals = np.min(
            np.abs([_cross(drawn.ahead, _of(spot) - drawn.at) for spot in near]), axis=0
        )
        return off
    assert isinstance(drawn, np.ndarray)
    return _off_loop(drawn, loop)


def _nearest_to_line(curve: Line | Circle | Arc, drawn: DrawnLine) -> Point:
    """Return the place of a piece that is nearest to a line, as the first hand has it."""
    at, ahead = complex(drawn.at[0]), complex(drawn.ahead[0])
    return _nearest_on(curve, Line(Point(at.real, at.imag), Point(ahead.real, ahead.imag)))


def _nearest_on(curve: Line | Circle | Arc, line: Line) -> Point:
    """Return the place of a piece that is nearest to a line."""
    if isinstance(curve, Line):
        return min(
            (curve.at(along or 0.0) for along in (curve.start, curve.end)),
            key=lambda s: abs(line.offset_of(s)),
        )
    return nearest_place(curve, line.foot(curve.centre))


def _off_loop(spots: Places, loop: Loop) -> Reals:
    ellipse = oval_of(loop)
    if ellipse is not None:
        return np.array([ellipse.distance(Point(float(s.real), float(s.imag))) for s in spots])
    best = np.full(spots.shape, math.inf)
    for piece in loop.pieces:
        for index, spot in enumerate(spots):
            at = Point(float(spot.real), float(spot.imag))
            best[index] = min(best[index], abs(nearest_place(piece.curve, at) - at))
    return best


def piece_off(piece: DrawnPiece) -> Reals:
    """Return how far a piece gone over is from its figure: centre and radius, or line, and both
    ends, plan units."""
    planned = piece.planned
    match piece.thing, planned:
        case DrawnLine() as drawn, Line():
            off = _line_off(drawn, planned)
            places = (planned.at(planned.start or 0.0), planned.at(planned.end or 0.0))
        case DrawnRound() as drawn, Circle() | Arc():
            off = _round_off(drawn, Circle(planned.centre, planned.radius))
            places = (planned.first, planned.last) if isinstance(planned, Arc) else ()  # type: ignore[assignment]
        case DrawnCurve(), Arc():
            # An arc by ordinates: its stations have been held against it, and the curve follows it
            # between them.
            off = np.zeros(piece.thing.off.shape)
            places = (planned.first, planned.last)
        case DrawnCurve(), Loop():
            off = np.zeros(1)
            places = (planned.pieces[0].entry, planned.pieces[-1].exit)
        case _:
            raise NotDrawn(f"{piece.called} is gone over along something else than it is")
    for drawn_at, at in zip((piece.start, piece.end), places, strict=False):
        if drawn_at is not None:
            off = np.maximum(off, np.abs(drawn_at - _of(at)))
    return off
