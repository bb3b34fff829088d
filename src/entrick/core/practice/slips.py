"""Slips that any length or angle may suffer, as the answers they give.

Kinds of slips, their weights and what is said of them are common practice, no source.
"""

from __future__ import annotations

import math
from collections.abc import Iterable, Iterator
from dataclasses import dataclass
from fractions import Fraction

from ..board.kit import Kit
from ..measure import Scale, Unit, spell, spell_angle
from .question import Slip

APART = 2.0
"""A slip nearer to the right answer than so many graduations is none worth asking about."""

ANGLES_NEAR = 0.5
"""How far an angle may be off, degrees."""


@dataclass(frozen=True, slots=True)
class OnRule:
    """Lengths as they are set: sizes of the plan at the scale of the sheet, in the unit of the
    rule."""

    kit: Kit
    scale: Scale
    unit: Unit

    @property
    def factor(self) -> float:
        """Units of the rule on paper for one of the plan."""
        return float(self.scale.ratio) * float(self.unit.mm / self.kit.unit.mm)

    @property
    def near(self) -> float:
        """Half a graduation."""
        return float(self.kit.graduation) / 2

    def drawn(self, size: float) -> float:
        """Return a size of the plan as it is set."""
        return size * self.factor

    def say(self, drawn: float) -> str:
        """Write a length as it is set."""
        return spell(self.exact(drawn), self.kit.unit)

    def exact(self, drawn: float) -> float | Fraction:
        """Return a length as a fraction where it is one of the rule's graduations."""
        count = drawn / float(self.kit.graduation)
        return round(count) * self.kit.graduation if abs(count - round(count)) < 1 / 1000 else drawn

    def lengths(self, right: float, own: Iterable[Slip]) -> tuple[Slip, ...]:
        """Return the slips a length may suffer, its own and those of every length, heaviest first.

        Parameters
        ----------
        right : float
            As it is set.
        own : iterable of Slip
            Those that belong to how this length is come by.
        """
        far = APART * float(self.kit.graduation)
        found = [slip for slip in (*own, *self._every(right)) if _is_far(slip, right, far)]
        return tuple(sorted(found, key=lambda slip: -slip.weight))

    def _every(self, right: float) -> Iterator[Slip]:
        v, s, kit = right, float(self.scale.ratio), self.kit
        say, unit = self.say, kit.unit
        if s != 1:
            yield Slip(
                "scale forgotten", 6, v / s, f"At {self.scale}, {say(v / s)} is drawn {say(v)}"
            )
            yield Slip("scale twice", 3, v * s, f"{say(v)} is to scale already")
            yield Slip(
                "scale upside down",
                3,
                v / s / s,
                f"{say(v)} is to scale already, and {self.scale} makes it "
                f"{'smaller' if s < 1 else 'larger'}",
            )
        marks = (10.0, 5.0) if unit is Unit.MM else (1.0, 0.5)
        for mark in marks:
            for side in (1, -1):
                yield Slip(
                    "a main mark out",
                    6,
                    v + side * mark,
                    f"Read from the wrong mark: {say(v + side * mark)} for {say(v)}",
                )
        yield Slip("point slipped", 3, v * 10, f"Put the point right: {say(v)}")
        yield Slip("point slipped", 3, v / 10, f"Put the point right: {say(v)}")
        if unit is Unit.MM:
            turned = _turned(v)
            if turned is not None:
                yield Slip("figures changed round", 3, turned, f"{say(v)}, not {say(turned)}")
        else:
            whole, part = divmod(v, 1.0)
            if part:
                words = f"The fraction of {say(v)} was read on the other row of graduations"
                yield Slip("sixteenths for thirty-seconds", 4, whole + part / 2, words)
                yield Slip("sixteenths for thirty-seconds", 4, whole + 2 * part, words)
        yield Slip("mm for inch", 2, v * 25.4, "That is the other face of the rule")
        yield Slip("mm for inch", 2, v / 25.4, "That is the other face of the rule")


def _turned(value: float) -> float | None:
    """Return a whole number with its last two figures changed round; None where that is the same or
    no number."""
    whole = round(value)
    if abs(value - whole) > 1 / 1000 or whole < 10:
        return None
    tens, ones = divmod(whole % 100, 10)
    found = whole - 10 * tens - ones + 10 * ones + tens
    return float(found) if found != whole and found > 0 else None


def _is_far(slip: Slip, right: float, far: float) -> bool:
    return (
        isinstance(slip.answer, float | int) and slip.answer > 0 and abs(slip.answer - right) > far
    )


def angles(right: float, own: Iterable[Slip]) -> tuple[Slip, ...]:
    """Return the slips an angle in degrees may suffer, its own and those of every angle, heaviest
    first."""
    say = spell_angle
    every = (
        Slip(
            "square turned over",
            6,
            180 - right,
            f"Turn the square over: {say(right)} from the right",
        ),
        Slip("complement", 5, 90 - right, "Counted from plumb; it is from level"),
        Slip("half or double angle", 3, right / 2, f"Half and whole angle are mixed: {say(right)}"),
        Slip("half or double angle", 3, right * 2, f"Half and whole angle are mixed: {say(right)}"),
    )
    found = [slip for slip in (*own, *every) if _is_far(slip, right, APART * ANGLES_NEAR)]
    return tuple(sorted(found, key=lambda slip: -slip.weight))


def rounded(value: float, near: float) -> float:
    """Return a value at the nearest graduation, `near` being half of one."""
    return round(value / (2 * near)) * 2 * near if near else value


def chord(radius: float, parts: float) -> float:
    """Return the chord of the n-th part of a circle: 2R·sin(180°/n)."""
    return 2 * radius * math.sin(math.pi / parts)
