"""A gear and its mate turning together, their measures, and how the flanks by each method
compare."""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import dataclass
from functools import cached_property

from ..drawing.notes import Label, Note, RotationArrow
from ..drawing.strokes import Role, Stroke
from ..geometry import Circle, Line, Loop, Point, polar, rotate
from ..rules.gear import PIN, Gear, Method, radii
from . import Column, Table, Worksheet

CAUTION = (
    "Layout geometry only: load, speed, lubrication and guarding are for a qualified person "
    "and local rules."
)

LISTED = (*range(10, 25), 26, 28, 30, 34, 38, 42, 50, 60, 80, 100, 150)
"""Teeth for which the radii of two arcs are listed."""

METHODS: tuple[tuple[Method, str], ...] = (
    ("involute", "true involute"),
    ("arcs", "two arcs"),
    ("arc", "one arc"),
)


@dataclass(frozen=True)
class GearSheet:
    """The worksheet of a gear.

    Attributes
    ----------
    gear : Gear
    centre : Point
    mate : Gear or None
    method : str
    mm : float
        A millimetre in plan units.
    say : callable
        Writes a length.
    """

    gear: Gear
    centre: Point
    mate: Gear | None
    method: Method
    mm: float
    say: Callable[[float], str]

    @cached_property
    def ring(self) -> Loop:
        """All its teeth, however many the sheet shows, the first on the x axis."""
        return self.gear.ring(self.method, "gear", self.centre, 0.0, self.gear.teeth)

    @cached_property
    def other(self) -> tuple[Point, Loop] | None:
        """The mate to the right, a space of it where this gear's first tooth points when turned on
        to the x axis."""
        if self.mate is None:
            return None
        middle = self.centre + Point(self.gear.distance(self.mate), 0.0)
        start = math.pi - math.pi / self.mate.teeth
        return middle, self.mate.ring(self.method, "mate", middle, start, self.mate.teeth)

    @cached_property
    def still(self) -> tuple[tuple[Stroke, ...], tuple[Note, ...]]:
        """Circles, line of centres and line of action, with their names."""
        gear, centre, mm = self.gear, self.centre, self.mm
        strokes = [
            Stroke(Circle(centre, radius))
            for radius in (gear.pitch, gear.base, gear.root, gear.outside)
        ]
        touch = centre + Point(gear.pitch, 0.0)
        strokes.append(Stroke(touch, Role.POINT))
        line = polar(1.0, math.pi / 2 - gear.pressure)
        ends = [centre + line.normal * -gear.base]
        notes: list[Note] = [RotationArrow(centre, gear.root * 0.6, 1)]
        if self.mate is not None and self.other is not None:
            middle = self.other[0]
            strokes += [
                Stroke(Circle(middle, radius))
                for radius in (self.mate.pitch, self.mate.base, self.mate.outside)
            ]
            strokes.append(Stroke(Line.between(centre, middle), Role.CENTRE))
            ends.append(middle + line.normal * self.mate.base)
            notes.append(RotationArrow(middle, self.mate.root * 0.6, -1))
        else:
            ends.append(touch + (touch - ends[0]))
        strokes.append(Stroke(Line.between(*ends), Role.CENTRE))
        low = Point(touch.x - 6 * mm, centre.y - gear.outside - 5 * mm)
        notes.append(Label("line of action", low, 2.5, ends[0]))
        return tuple(strokes), tuple(notes)

    def at(self, turn: float) -> Worksheet:
        """Return the worksheet with the gear turned through an angle, degrees."""
        gear, centre, mm = self.gear, self.centre, self.mm
        by = math.radians(turn)
        strokes, notes = self.still
        rims = [Stroke(rotate(self.ring, centre, by), Role.OUTLINE)]
        high, right = gear.outside, centre.x + gear.outside
        words = f"turned {turn:g}°"
        if self.mate is not None and self.other is not None:
            middle, ring = self.other
            back = by * gear.teeth / self.mate.teeth
            rims.append(Stroke(rotate(ring, middle, -back), Role.OUTLINE))
            high, right = max(high, self.mate.outside), middle.x + self.mate.outside
            words += f", the mate {math.degrees(back):.1f}° the other way"
        low = Point(
            centre.x - gear.outside - 4 * mm, centre.y - max(high, gear.outside + 8 * mm) - 2 * mm
        )
        return Worksheet(
            "Gear worksheet",
            tuple(self.tables),
            (*rims, *strokes),
            notes,
            (low, Point(right + 4 * mm, centre.y + high + 4 * mm)),
            "Turn the gear",
            words,
            CAUTION,
        )

    @cached_property
    def tables(self) -> tuple[Table, ...]:
        """Measures, flanks compared, radii by number of teeth, the pair."""
        tables = [self._measures(), self._compared(), self._listed()]
        if self.mate is not None:
            tables.insert(1, self._pair(self.mate))
        return tuple(tables)

    def _measures(self) -> Table:
        gear = self.gear
        wide, high = gear.chordal
        count, pin = gear.spanned, PIN * gear.module
        over = gear.over_pins(pin)
        rows: list[tuple[str, str | float]] = [
            ("chordal thickness", wide),
            ("chordal height", high),
            (f"span over {count} teeth", gear.span(count)),
            (f"over two pins Ø{self.say(pin)}", "they fall to the root" if over is None else over),
            ("base pitch", gear.base_pitch),
            ("working depth", 2 * gear.addendum * gear.module),
            ("whole depth", (gear.addendum + gear.dedendum) * gear.module),
            ("clearance", (gear.dedendum - gear.addendum) * gear.module),
        ]
        return Table(
            "Measures for inspection", (Column("measure"), Column("size", "length")), tuple(rows)
        )

    def _pair(self, mate: Gear) -> Table:
        gear = self.gear
        interfere = gear.interferes(mate) or mate.interferes(gear)
        reserve = ", were there no interference" if interfere else ""
        rows: list[tuple[str, str | float]] = [
            ("centre distance", gear.distance(mate)),
            ("contact ratio", f"{gear.contact_ratio(mate):.3f}{reserve}"),
            ("ratio", f"{gear.teeth} : {mate.teeth}"),
            ("mate, pitch diameter", 2 * mate.pitch),
            ("mate, outside diameter", 2 * mate.outside),
            (
                "undercut",
                ", ".join(n for n, g in (("this gear", gear), ("mate", mate)) if g.is_undercut)
                or "neither",
            ),
            ("interference", "yes" if interfere else "none"),
        ]
        return Table(
            f"With a mate of {mate.teeth} teeth",
            (Column("of the pair"), Column("", "length")),
            tuple(rows),
        )

    def _compared(self) -> Table:
        gear = self.gear
        face, inner, _ = gear.two_arcs
        one, _ = gear.one_arc
        sizes: dict[Method, tuple[str | float, str | float]] = {
            "involute": ("", ""),
            "arcs": (face.radius, inner.radius),
            "arc": (one.radius, one.radius),
        }
        rows = tuple(
            (name, *sizes[method], gear.departs(method), gear.departs(method), sizes[method][0])
            for method, name in METHODS
        )
        return Table(
            "Flanks compared",
            (
                Column("method"),
                Column("face radius", "length"),
                Column("flank radius", "length"),
                Column("greatest departure", "length"),
                Column("departure", "paper"),
                Column("face radius set", "setting"),
            ),
            rows,
            "centres of the arcs on the base circle, both arcs through the pitch point",
        )

    def _listed(self) -> Table:
        gear = self.gear
        rows: list[tuple[str | float, ...]] = [
            (str(teeth), *radii(teeth, gear.pressure, gear.addendum, gear.dedendum))
            for teeth in LISTED
        ]
        angle = f"{math.degrees(gear.pressure):g}°"
        rows.append(("rack", "straight", f"at {angle} to the square", ""))
        return Table(
            "Radii of two arcs by number of teeth",
            (
                Column("teeth"),
                Column("face radius", "number"),
                Column("flank radius", "number"),
                Column("departure", "number"),
            ),
            tuple(rows),
            f"at {angle}: divide by the diametral pitch, or multiply by the module",
        )
