"""A rack and the pinion that runs on it, and the measures of the pair."""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import dataclass
from functools import cached_property

from ..drawing.notes import Label, Note, RotationArrow
from ..drawing.strokes import Role, Stroke
from ..geometry import Circle, Line, Loop, Point, rotate, shift
from ..rules.gear import Gear
from . import Column, Table, Worksheet
from .gear import CAUTION


@dataclass(frozen=True)
class RackSheet:
    """The worksheet of a rack with its pinion.

    Attributes
    ----------
    rack : Loop
    pinion : Gear
    touch : Point
        Where the pitch circle touches the pitch line, in the middle of a space of the rack.
    ahead : Point
        Along the pitch line, of length 1; the teeth stand to its left.
    reach : float
        Length of the rack, plan units.
    mm : float
        A millimetre in plan units.
    say : callable
        Writes a length.
    """

    rack: Loop
    pinion: Gear
    touch: Point
    ahead: Point
    reach: float
    mm: float
    say: Callable[[float], str]

    @property
    def centre(self) -> Point:
        """Where the pinion turns."""
        return self.touch + self.ahead.normal * self.pinion.pitch

    @cached_property
    def ring(self) -> Loop:
        """The pinion, a tooth of it in the space where it touches."""
        down = (-self.ahead.normal).angle
        return self.pinion.ring("involute", "pinion", self.centre, down, self.pinion.teeth)

    @cached_property
    def still(self) -> tuple[tuple[Stroke, ...], tuple[Note, ...]]:
        """Pitch line and circles, the line of action, with their names."""
        pinion, mm = self.pinion, self.mm
        strokes = [
            Stroke(Circle(self.centre, radius))
            for radius in (pinion.pitch, pinion.base, pinion.outside)
        ]
        line = rotate(self.ahead, Point(0.0, 0.0), pinion.pressure)
        half = pinion.pitch * math.sin(pinion.pressure)
        ends = [self.touch + line * (side * half) for side in (1, -1)]
        strokes += [
            Stroke(
                Line.between(
                    self.touch - self.ahead * half * 2, self.touch + self.ahead * half * 2
                ),
                Role.CENTRE,
            ),
            Stroke(Line.between(*ends), Role.CENTRE),
            Stroke(self.touch, Role.POINT),
        ]
        at = self.touch + line * (half + 6 * mm)
        notes = (
            RotationArrow(self.centre, pinion.root * 0.6, 1),
            Label("line of action", at, 2.5, ends[0]),
        )
        return tuple(strokes), notes

    def at(self, turn: float) -> Worksheet:
        """Return the worksheet with the pinion turned through an angle, degrees; the rack goes as
        far as the pitch circle rolls. It is shown within a tooth of where it was, so that it stays
        under the pinion: it looks the same there."""
        by = math.radians(turn)
        rolled = self.pinion.pitch * by
        moved = math.remainder(rolled, math.pi * self.pinion.module)
        strokes, notes = self.still
        rims = [
            Stroke(rotate(self.ring, self.centre, by), Role.OUTLINE),
            Stroke(shift(self.rack, self.ahead * moved), Role.OUTLINE),
        ]
        room = self.pinion.outside + 6 * self.mm
        low, high = self.rack.box
        spots = [self.centre + Point(x, y) for x in (-room, room) for y in (-room, room)]
        corners = [low, high, *spots]
        return Worksheet(
            "Rack worksheet",
            (self._pair(),),
            (*rims, *strokes),
            notes,
            (
                Point(
                    min(c.x for c in corners) - self.mm * 4, min(c.y for c in corners) - self.mm * 4
                ),
                Point(
                    max(c.x for c in corners) + self.mm * 4, max(c.y for c in corners) + self.mm * 4
                ),
            ),
            "Turn the pinion",
            f"turned {turn:g}°, the rack has gone {self.say(rolled)}",
            CAUTION,
        )

    @property
    def contact_ratio(self) -> float:
        """How many pairs of teeth touch on average: (√(R² − r²) − R₀·sin φ + a ÷ sin φ) ÷ base
        pitch (handbook formula; R to the tip, r the base, R₀ the pitch circle, a the rack's
        addendum)."""
        pinion = self.pinion
        along = math.sqrt(pinion.tip**2 - pinion.base**2)
        beyond = pinion.addendum * pinion.module / math.sin(pinion.pressure)
        # No further than to where the line of action leaves the base circle.
        into = min(beyond, pinion.pitch * math.sin(pinion.pressure))
        return (along - pinion.pitch * math.sin(pinion.pressure) + into) / pinion.base_pitch

    def _pair(self) -> Table:
        pinion = self.pinion
        rows: list[tuple[str, str | float]] = [
            ("from the pitch line to the pinion's centre", pinion.pitch),
            ("way of the rack for a turn", math.tau * pinion.pitch),
            ("way of the rack for a tooth", math.pi * pinion.module),
            ("contact ratio", f"{self.contact_ratio:.3f}"),
            ("pinion, outside diameter", 2 * pinion.outside),
            ("pinion, base diameter", 2 * pinion.base),
            ("undercut", "the pinion" if pinion.is_undercut else "none"),
        ]
        return Table(
            f"With a pinion of {pinion.teeth} teeth",
            (Column("of the pair"), Column("", "length")),
            tuple(rows),
        )
