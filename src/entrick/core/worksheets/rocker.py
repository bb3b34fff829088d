"""The cam under its swinging arm, turning, with the diagram of its swing."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterator
from dataclasses import dataclass
from functools import cached_property

from ..drawing.notes import Hatching, Label, Note, RotationArrow
from ..drawing.strokes import Role, Stroke
from ..geometry import Circle, Line, Loop, Point, piece_of, polar, rotate
from ..rules.rocker import Rocker
from ..tolerance import ROUND
from . import Column, Table, Worksheet
from .cam import CAUTION, Diagram, events_table, stations_of

WIDE = 12 / 30
"""Millimetres to a degree on the base of the diagram."""

TALL = 1.0
"""Millimetres to a degree of swing."""


@dataclass(frozen=True)
class RockerSheet:
    """The worksheet of a cam under an arm.

    Attributes
    ----------
    cam : Rocker
    rim : Loop
        Its profile as laid out.
    shaft : Circle or None
    mm : float
        A millimetre in plan units.
    parts : int
    say : callable
        Writes a length.
    """

    cam: Rocker
    rim: Loop
    shaft: Circle | None
    mm: float
    parts: int
    say: Callable[[float], str]

    @cached_property
    def room(self) -> float:
        """How far cam and arm reach from the centre."""
        cam = self.cam
        return max(cam.far + 2 * cam.roller, cam.apart + 6 * self.mm, 20 * self.mm)

    @cached_property
    def diagram(self) -> Diagram:
        """The diagram of the swing, beside the cam."""
        at = self.cam.centre + Point(self.room + 34 * self.mm, 6 * self.mm)
        tall = TALL * self.mm * math.degrees(1.0)
        return Diagram(
            self.cam,
            at,
            WIDE * self.mm,
            tall,
            self.parts,
            self.mm,
            self.say,
            "DIAGRAM OF THE SWING",
            upright=f"SWING, 10° = {self.say(10 * TALL * self.mm)}",
        )

    def at(self, turn: float) -> Worksheet:
        """Return the worksheet with the cam turned through an angle, degrees."""
        cam, diagram, mm = self.cam, self.diagram, self.mm
        swing, velocity, _ = cam.lift(math.radians(turn))
        by = -cam.way * math.radians(turn)
        foot = diagram.spot(turn % 360 or min(turn, 360.0), 0.0)
        strokes = [
            *diagram.base(),
            *diagram.ordinates(),
            *diagram.constructions(),
            Stroke(diagram.curve("curve"), Role.OUTLINE),
            Stroke(Line.between(foot, foot + Point(0.0, diagram.top)), Role.CENTRE),
            Stroke(foot + Point(0.0, swing * diagram.tall), Role.POINT),
            Stroke(rotate(self.rim, cam.centre, by), Role.OUTLINE),
            Stroke(Circle(cam.centre, cam.least)),
            Stroke(Circle(cam.centre, cam.apart)),
            *self._arm(swing),
        ]
        notes: list[Note] = [
            *diagram.lettering(),
            RotationArrow(cam.centre, cam.least * 0.7, -cam.way),
            *self._numbers(by),
        ]
        if self.shaft is not None:
            strokes.append(Stroke(self.shaft, Role.OUTLINE))
            notes.append(Hatching((Loop((piece_of(self.shaft, "shaft"),), True),)))
        reach = Point(self.room + 10 * mm, self.room + 10 * mm)
        low = cam.centre - reach
        high = Point(
            diagram.spot(360, 0.0).x + 10 * mm,
            max(cam.centre.y + reach.y, diagram.at.y + diagram.height),
        )
        angle = abs(cam.pressure(*cam.where(math.radians(turn))))
        pressed = "" if cam.follower == "flat" else f", pressure angle {angle:.1f}°"
        going = "stands" if abs(velocity) < ROUND else "swings out" if velocity > 0 else "swings in"
        return Worksheet(
            "Rocker worksheet",
            self.tables,
            tuple(strokes),
            tuple(notes),
            (Point(low.x, min(low.y, diagram.at.y - diagram.depth)), high),
            "Turn the cam",
            f"at {turn:g}° the arm has swung {math.degrees(swing):.2f}°, and {going}{pressed}",
            CAUTION,
        )

    def _arm(self, swing: float) -> Iterator[Stroke]:
        cam, mm = self.cam, self.mm
        lean = cam.side * cam.leans(swing)
        along = rotate(cam.centre - cam.pivot, Point(0.0, 0.0), lean).unit
        long = cam.reach() + 4 * mm if cam.follower == "flat" else cam.arm
        end = cam.pivot + along * long
        yield Stroke(Line.between(cam.pivot, end), Role.OUTLINE)
        yield Stroke(Circle(cam.pivot, 2 * mm), Role.OUTLINE)
        yield Stroke(cam.pivot, Role.POINT)
        if cam.roller:
            yield Stroke(Circle(end, cam.roller), Role.OUTLINE)
            yield Stroke(end, Role.POINT)

    def _numbers(self, by: float) -> Iterator[Note]:
        cam = self.cam
        first = (cam.pivot - cam.centre).angle
        for index in range(self.parts):
            ahead = polar(1.0, first + cam.way * math.tau * index / self.parts + by)
            yield Label(str(index), cam.centre + ahead * (cam.apart + 4 * self.mm), 2.5)

    @cached_property
    def tables(self) -> tuple[Table, ...]:
        """Events, and what is set at every station."""
        cam = self.cam
        rows = [
            (
                called,
                degrees,
                math.degrees(swing),
                cam.radius_at(swing),
                2 * cam.arm * math.sin(swing / 2),
                2 * cam.arm * math.sin(swing / 2),
            )
            for degrees, called, swing in stations_of(cam, self.parts)
        ]
        return (
            events_table(cam, math.degrees(1.0), "angle"),
            Table(
                "Stations",
                (
                    Column("station"),
                    Column("angle", "angle"),
                    Column("swing", "angle"),
                    Column("from the cam's centre", "length"),
                    Column("chord of the swing", "length"),
                    Column("setting", "setting"),
                ),
                tuple(rows),
                f"pivots numbered {'counter-clockwise' if cam.clockwise else 'clockwise'}, against "
                "the rotation",
            ),
        )
