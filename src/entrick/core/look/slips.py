"""What may go wrong at each act of a plan: every slip that it may suffer, told with its numbers.

Slips, their weights and what is said of them are common practice, no source. Which size an act sets
is known from the act, what it is made up of from the circles about its needle: no kind of
construction is asked."""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from ..acts.act import Act, Draw, GoOver, Key, Measure, Prick, StepOff, Strip, Swing, Way
from ..board.schedule import guest_of
from ..desk import Work
from ..geometry import Arc, Circle
from ..measure import Number, spell_angle
from ..practice.question import Slip as Answer
from ..practice.slips import OnRule, angles, chord
from ..rehearsal.carry_out import Board, DrawnRound
from ..rehearsal.hand import NONE
from ..rehearsal.many import Hands
from .in_order import InOrder
from .slipped import Slip, rounds_about

MOST = 3000
"""Slips that are tried of one plan, the heaviest first."""

NEIGHBOURS = 12
"""Sizes of the plan that may be taken for one another."""

CENTRES = 6
"""Marks on which a needle may stand instead, the nearest ones."""

RIGHT_ANGLE = 90


def slips_of(work: Work, order: InOrder) -> tuple[Slip, ...]:
    """Return the slips the acts of a plan may suffer, one at a time.

    Parameters
    ----------
    work : Work
    order : InOrder
        Its acts.
    """
    maker = _Maker(work, order)
    found = [slip for act in order.acts for slip in maker.at(act)]
    return tuple(sorted(found, key=lambda slip: -slip.weight)[:MOST])


@dataclass(frozen=True)
class _Set:
    """A size that is set: how large, and what it is for."""

    size: float
    radii: tuple[float, ...] = ()
    """Of the circles that stand about the needle."""


class _Maker:
    """Goes through the acts with a hand that makes no error, and says what might go wrong at
    each."""

    def __init__(self, work: Work, order: InOrder) -> None:
        self.rule = OnRule(work.kit, work.sheet.scale, work.solution.unit)
        self.board = Board(Hands(NONE, 1, 0, work.sheet.factor))
        gone = [piece for act in order.acts if isinstance(act, GoOver) for piece in act.pieces]
        rounds = [p.planned for p in gone if isinstance(p.planned, Arc | Circle)]
        self.lined = tuple(dict.fromkeys(each.radius for each in rounds))
        sizes = [size for act in order.acts for size in _sizes(act)]
        self.sizes = tuple(dict.fromkeys(sizes))[:NEIGHBOURS]

    def at(self, act: Act) -> Iterator[Slip]:
        """Yield the slips of an act, and of what is done within it, and carry it out."""
        guest = guest_of(act)
        if guest is not None and guest.leaves not in self.board.things:
            yield from self.at(guest)
        yield from self._slips(act)
        self.board.do(act)

    def _slips(self, act: Act) -> Iterator[Slip]:
        match act:
            case Measure(size=size):
                yield from self._lengths(act, size, self._of_length(float(size)))
                side = "Measured to the other side"
                right = abs(float(size))
                yield Slip(act, "size", "other side", side, 3, right, -right)
            case Strip(whole=whole, rest=rest):
                yield from self._lengths(act, whole, ())
                yield from self._lengths(act, rest, ())
            case StepOff(setting=setting) if not setting.between and not setting.free:
                yield from self._lengths(act, setting.size, [*self._of_steps(act)])
            case Swing(setting=setting, needle=needle):
                if not setting.between and not setting.free:
                    own = [*self._of_round(setting.size), *self._of_swing(setting.size, needle)]
                    yield from self._lengths(act, setting.size, own)
                yield from self._needles(act, needle)
            case Draw(way=Way() as way) if float(way.degrees) % RIGHT_ANGLE:
                yield from self._angles(act, float(way.degrees))
            case Prick(pick="first" | "second" | "left" | "right", both=False):
                words = "The other of the two crossings was taken"
                yield Slip(act, "crossing", "other crossing", words, 6)
            case GoOver(pieces=pieces, setting=setting):
                for each in pieces[:1] if len(pieces) == 1 else ():
                    if setting is not None and setting.between is None:
                        yield from self._lengths(act, setting.size, self._of_round(setting.size))
                        middle = self.board.needles.get(each.thing)
                        if middle is not None and act.drawn is None:
                            yield from self._needles(act, middle)
                yield Slip(act, "left out", "left out", "It was not lined in", 3)

    # Of sizes.

    def _lengths(self, act: Act, size: Number, own: Sequence[Answer]) -> Iterator[Slip]:
        """Yield what any length may suffer, and its own slips; each wrong size once."""
        actual, factor = abs(float(size)), self.rule.factor
        right = self.rule.drawn(actual)
        if right <= 0:
            return
        neighbours = [
            Answer("neighbour's value", 3, self.rule.drawn(other), self._belongs(other))
            for other in self.sizes
            if other > 0
        ]
        seen: set[int] = set()
        near = self.rule.near or 1.0
        for each in (*self.rule.lengths(right, own), *self.rule.lengths(right, neighbours)):
            assert isinstance(each.answer, float | int)
            number = round(float(each.answer) / near)
            if number not in seen:
                seen.add(number)
                wrong = float(each.answer) / factor
                yield Slip(act, "size", each.key, each.said, each.weight, actual, wrong)

    def _belongs(self, other: float) -> str:
        return f"{self._say(other)} is another size of the plan"

    def _say(self, size: float) -> str:
        return self.rule.say(self.rule.drawn(size))

    def _of_length(self, size: float) -> Sequence[Answer]:
        drawn = self.rule.drawn(abs(size))
        return (
            Answer("not halved", 6, 2 * drawn, f"{self.rule.say(2 * drawn)} is the whole"),
            Answer("halved once too often", 4, drawn / 2, f"{self.rule.say(drawn)} is no diameter"),
        )

    def _of_round(self, size: Number) -> Sequence[Answer]:
        drawn = self.rule.drawn(float(size))
        return (
            Answer(
                "diameter for radius",
                6,
                2 * drawn,
                f"The compass goes by radius: half of Ø{self.rule.say(2 * drawn)}",
            ),
            Answer(
                "radius for diameter", 4, drawn / 2, f"{self.rule.say(drawn)} is no diameter here"
            ),
        )

    def _of_swing(self, size: Number, needle: Key) -> Iterator[Answer]:
        """Yield what a locus may suffer: sum for difference, the circle forgotten, taken twice, or
        another one taken."""
        opened, say = float(size), self._say
        about = [float(each.radius[0]) for each in rounds_about(self.board).get(needle, ())]
        others = [
            float(each.radius[0])
            for key, rounds in rounds_about(self.board).items()
            for each in rounds
            if key != needle
        ]
        for eye in dict.fromkeys(about):
            for arc in self.lined:
                if self._same(arc + eye, opened):
                    told, sense = f"beside, the centre is at {say(arc)} + {say(eye)}", 1.0
                    yield self._answer("difference for sum", 6, abs(arc - eye), told)
                elif self._same(abs(arc - eye), opened):
                    told, sense = f"around, the centre is at {say(arc)} − {say(eye)}", -1.0
                    yield self._answer("sum for difference", 6, arc + eye, told)
                else:
                    continue
                told = f"{say(arc)} is the arc alone; the circle's {say(eye)} belongs to it"
                yield self._answer("circle forgotten", 4, arc, told)
                told = f"Ø{say(2 * eye)} goes in by half"
                yield self._answer("circle's diameter", 3, abs(arc + 2 * sense * eye), told)
                for other in dict.fromkeys(others):
                    told = f"{say(other)} is the other circle's"
                    yield self._answer("other circle", 4, abs(arc + sense * other), told)

    def _same(self, one: float, other: float) -> bool:
        return abs(self.rule.drawn(one - other)) <= self.rule.near / 2

    def _answer(self, key: str, weight: int, size: float, said: str) -> Answer:
        return Answer(key, weight, self.rule.drawn(size), said)

    def _of_steps(self, act: StepOff) -> Iterator[Answer]:
        """Yield what equal steps may suffer: a part too many or too few, the arc or the radius
        stepped, half the chord."""
        size, count = float(act.setting.size), len(act.marks)
        along = self.board.things.get(act.along)
        if not isinstance(along, DrawnRound):
            for counted in (count - 1, count + 1):
                if counted > 0 and count > 1:
                    words = "One part too many or too few was counted"
                    yield self._answer("one part out", 4, size * count / counted, words)
            return
        radius = float(along.radius[0])
        half = size / 2 / radius
        if not 0 < half <= 1:
            return
        turn = math.asin(half)
        parts = math.pi / turn
        for other in (parts - 1, parts + 1):
            if other > 1:
                words = f"One part out: the {round(other)}th of the circle was stepped"
                yield self._answer("one part out", 4, chord(radius, other), words)
        words = "Dividers span the chord, not the arc"
        yield self._answer("arc for chord", 4, 2 * radius * turn, words)
        words = "The radius steps off six only"
        yield self._answer("radius stepped", 2, radius, words)
        yield self._answer("half chord", 2, size / 2, "The chord is twice that")

    # Of directions, and where the needle stands.

    def _angles(self, act: Draw, degrees: float) -> Iterator[Slip]:
        """Yield what a direction may suffer; what comes to the same direction once."""
        right = degrees % 180
        every = [
            *((slip.key, slip.weight, slip.answer, slip.said) for slip in angles(right, ())),
            ("wrong way round", 3, -right, f"{spell_angle(right)} was held the other way round"),
        ]
        seen = {round(right) % 180}
        for key, weight, answer, said in every:
            assert isinstance(answer, float | int)
            if round(answer) % 180 not in seen:
                seen.add(round(answer) % 180)
                yield Slip(act, "angle", key, said, weight, right, float(answer))

    def _needles(self, act: Act, needle: Key) -> Iterator[Slip]:
        """Yield the other needle marks on which it may stand, the nearest ones."""
        here = complex(self.board.mark(needle)[0])
        places: dict[complex, Key] = {}
        for key in self.board.needles.values():
            place = complex(self.board.mark(key)[0])
            if abs(place - here) * self.rule.factor > 1:
                places.setdefault(complex(round(place.real, 6), round(place.imag, 6)), key)
        nearest = sorted(places, key=lambda place: abs(place - here))[:CENTRES]
        for place in nearest:
            words = "The needle stood on another mark"
            yield Slip(act, "needle", "wrong centre", words, 3, instead=places[place])


def _sizes(act: Act) -> Iterator[float]:
    match act:
        case Measure(size=size):
            yield abs(float(size))
        case Swing(setting=setting) | StepOff(setting=setting):
            if not setting.between and not setting.free:
                yield float(setting.size)
