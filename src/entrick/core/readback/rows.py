"""The rows of a plan as they are written: names, numbers, places and circles, each once; what is
said twice becomes a given."""

from __future__ import annotations

import math
import re
from collections import Counter
from collections.abc import Sequence
from dataclasses import dataclass, field

from ..geometry import Circle, Line, Point, rotate
from ..measure import Unit
from ..tolerance import READ_EXACT
from .profile import Curve
from .simplest import cost, simplest, worth

GIVEN = {
    "across": ("w", "{}"),
    "up": ("h", "{}"),
    "diameter": ("d", "Ø{}"),
    "radius": ("r", "R{}"),
    "eye": ("r", "R{}"),
    "hole": ("r", "R{}"),
    "wall": ("t", "{}"),
    "angle": ("q", "{}°"),
    "size": ("s", "{}"),
}
"""What a number is of: how a given of it is called, and written. Rounds, eyes and holes share none:
that they are as large is chance."""

MUCH_ROUNDER = 3
"""Figures fewer."""

TOKEN = re.compile("\x01(\\d+)\x02")


@dataclass(frozen=True, slots=True)
class Written:
    """One number in a row: of what, how it is written, and whether it had to be rounded to be
    simple."""

    role: str
    text: str
    rounded: bool


@dataclass
class Rows:
    """What is written so far.

    Attributes
    ----------
    unit : Unit
    within : float
        How far outlines may be from the profile's, plan units.
    targets : dict of str to curve or curves
        What a statement must come to, for the words that choose among several solutions.
    share : float
        How much closer than the outline has to come a number is rounded, since outlines rest on
        several.
    owner : int
        The run that is being written.
    lines : dict of str to str
        Level and plumb lines by where they lie.
    """

    unit: Unit
    within: float
    targets: dict[str, Curve | Sequence[Curve]] = field(default_factory=dict)
    share: float = 4.0
    owner: int = 0
    lines: dict[str, str] = field(default_factory=dict)
    _rows: list[tuple[int, str, str]] = field(default_factory=list)
    _numbers: list[Written] = field(default_factory=list)
    _points: dict[tuple[int, int], list[tuple[Point, str]]] = field(default_factory=dict)
    _circles: list[tuple[Circle, str]] = field(default_factory=list)
    _rings: list[tuple[Point, Point, int, str]] = field(default_factory=list)
    _count: Counter[str] = field(default_factory=Counter)

    @property
    def fine(self) -> float:
        """How far a single number may be from what the file has."""
        return self.within / self.share

    def simple(self, value: float) -> str:
        """Return how a number would be written."""
        text = simplest(value, self.unit, self.fine)
        rounder = simplest(value, self.unit, self.within) if self.share > 1 else text
        # One that a little more room makes much rounder was round to begin with.
        return rounder if cost(text) - cost(rounder) >= MUCH_ROUNDER else text

    def is_nought(self, value: float) -> bool:
        """Tell whether a number would be written as nought."""
        return self.simple(abs(value)) == "0"

    def say(self, value: float, role: str) -> str:
        """Write a number; it may become a given in the end."""
        text = self.simple(value)
        return self._token(role, text, value)

    def say_angle(self, radians: float, reach: float) -> str:
        """Write an angle that moves what is `reach` away by less than may be, in degrees; with no
        sign it stands as a name or a number, with one in brackets."""
        degrees = math.degrees(radians)
        fine = math.degrees(self.fine / max(reach, self.fine))
        text = simplest(abs(degrees), Unit.MM, fine)
        token = self._token(
            "angle", text, abs(degrees), fine * self.share * READ_EXACT / self.within
        )
        return f"-{token}" if degrees < 0 and text != "0" else token

    def _token(self, role: str, text: str, value: float, exact: float = READ_EXACT) -> str:
        self._numbers.append(Written(role, text, abs(worth(text) - value) > exact))
        return f"\x01{len(self._numbers) - 1}\x02"

    def count(self, text: str) -> None:
        """Count the numbers of a row that are what they are and never become givens."""
        self._numbers += [Written("", number, False) for number in re.findall(r"[\d.]+", text)]

    def name(self, stem: str) -> str:
        """Return a new name."""
        self._count[stem] += 1
        return f"{stem}{self._count[stem]}"

    def add(self, stem: str, row: str, target: Curve | Sequence[Curve] | None = None) -> str:
        """Write a row, and return its name."""
        name = self.name(stem)
        self._rows.append((self.owner, name, row))
        if target is not None:
            self.targets[name] = target
        return name

    def too_long(self, most: int) -> set[int]:
        """Return the runs of which a row is longer than a row may be."""
        uses = self._uses
        givens = {key: "w99" for key in uses if uses[key] > 1}

        def length(row: str) -> int:
            numbers = [self._numbers[int(n)] for n in TOKEN.findall(row)]
            return len(TOKEN.sub("", row)) + sum(
                len(givens.get((each.role, each.text), each.text)) + 1 for each in numbers
            )

        return {owner for owner, name, row in self._rows if len(name) + 3 + length(row) > most - 60}

    def owners(self) -> dict[str, int]:
        """Return which run each name was written for."""
        return {name: owner for owner, name, _ in self._rows}

    # Places.

    def _cells(self, spot: Point) -> list[tuple[int, int]]:
        size = self.within * 4
        column, row = math.floor(spot.x / size), math.floor(spot.y / size)
        return [(column + i, row + j) for i in (0, -1, 1) for j in (0, -1, 1)]

    def known(self, spot: Point) -> str:
        """Return the name of a place that has one; empty where it has none."""
        if self.is_nought(spot.x) and self.is_nought(spot.y):
            return "O"
        for cell in self._cells(spot):
            for there, name in self._points.get(cell, ()):
                if abs(there - spot) <= self.within:
                    return name
        return ""

    def remember(self, spot: Point, name: str) -> None:
        """Let a place be known by a name, or by a part of something."""
        if not self.known(spot):
            self._points.setdefault(self._cells(spot)[0], []).append((spot, name))

    def point(self, spot: Point) -> str:
        """Return the name of a place, measured from the datum where it has none."""
        text = self.known(spot)
        if not text:
            ways: list[str] = []
            if not self.is_nought(spot.x):
                ways.append(
                    f"{self.say(abs(spot.x), 'across')} {'right' if spot.x > 0 else 'left'} of O"
                )
            if not self.is_nought(spot.y):
                up = f"{self.say(abs(spot.y), 'up')} {'above' if spot.y > 0 else 'below'}"
                ways.append(up if ways else f"{up} O")
            text = self.add("P", f"point, {', '.join(ways)}")
            self.remember(spot, text)
        return text

    def figures(self, spot: Point) -> float:
        """Return how many figures it takes to say a place; none where it is there already."""
        return 0.0 if self.known(spot) else sum(cost(self.simple(abs(value))) for value in spot)

    def size(self, radius: float) -> str:
        """Write the size of a circle: by its diameter where that is the simpler number."""
        whole, half = self.simple(2 * radius), self.simple(radius)
        if cost(whole) <= cost(half):
            return f"diameter {self.say(2 * radius, 'diameter')}"
        return f"radius {self.say(radius, 'hole')}"

    def circle(self, centre: Point, radius: float, arc: bool = False) -> str:
        """Return the name of a circle about a place; one that is gone along in part is told by its
        radius."""
        for there, name in self._circles:
            if (
                abs(there.centre - centre) <= self.within
                and abs(there.radius - radius) <= self.within
            ):
                return name
        at = self.point(centre)
        size = f"radius {self.say(radius, 'eye')}" if arc else self.size(radius)
        circle = Circle(centre, radius)
        name = self.add("c", f"circle, centre {at}, {size}", circle)
        self._circles.append((circle, name))
        return name

    def touched_by(self, line: Line) -> list[str]:
        """Return the circles a line would touch if it were longer."""
        near = self.within * 2
        return [
            name
            for circle, name in self._circles
            if abs(abs(line.offset_of(circle.centre)) - circle.radius) <= near
        ]

    def points(self, spots: Sequence[Point]) -> str:
        """Write a list of places from the datum, and return the name of them all."""
        words = ", ".join(" ".join(self._signed(value) for value in spot) for spot in spots)
        name = self.add("at", f"points, from O, {words}")
        for k, spot in enumerate(spots, 1):
            self.remember(spot, f"{name}.{k}")
        return name

    def _signed(self, value: float) -> str:
        text = self.say(abs(value), "")
        return f"(-{text})" if value < 0 and self.simple(abs(value)) != "0" else text

    def ring(self, centre: Point, first: Point, count: int) -> str:
        """Return the name of places equally spaced round a centre, counter-clockwise from the
        first."""
        arm = first - centre
        for there, start, times, name in self._rings:
            around = (rotate(start, there, math.tau * k / times) for k in range(times))
            if (
                times == count
                and abs(there - centre) <= self.within
                and any(abs(spot - first) <= self.within for spot in around)
            ):
                return name
        pitch = self.circle(centre, abs(arm))
        ways = {
            "right": Point(1.0, 0.0),
            "above": Point(0.0, 1.0),
            "left": Point(-1.0, 0.0),
            "below": Point(0.0, -1.0),
        }
        word = next(
            (word for word, way in ways.items() if abs(arm.unit - way) * abs(arm) <= self.fine), ""
        )
        start_at = word or self.say_angle(arm.angle % math.tau, abs(arm))
        name = self.add("at", f"spaced, {count} on {pitch}, from {start_at}")
        self._rings.append((centre, first, count, name))
        for k in range(count):
            self.remember(rotate(first, centre, math.tau * k / count), f"{name}.{k + 1}")
        return name

    # In the end.

    def numbers(self) -> int:
        """Return how many numbers the rows rest on: what is given once counts once."""
        return len(
            {
                (number.role, number.text) if self._is_given(number) else n
                for n, number in enumerate(self._numbers)
            }
        )

    def figures_in_all(self) -> float:
        """Return how many figures all numbers have."""
        return sum(cost(number.text) for number in self._numbers)

    def shared(self) -> int:
        """Return how many numbers are said several times, and so become givens."""
        return len(
            {(number.role, number.text) for number in self._numbers if self._is_given(number)}
        )

    def rounded(self) -> int:
        """Return how many numbers had to be rounded."""
        return sum(number.rounded for number in self._numbers)

    def _is_given(self, number: Written) -> bool:
        return (
            number.role in GIVEN and number.text != "0" and self._uses[number.role, number.text] > 1
        )

    @property
    def _uses(self) -> Counter[tuple[str, str]]:
        return Counter((number.role, number.text) for number in self._numbers)

    def text(self) -> str:
        """Return the rows, with what they say several times as givens above them."""
        uses = self._uses
        givens: dict[tuple[str, str], str] = {}
        lines: list[str] = []
        for number in self._numbers:
            key = number.role, number.text
            if number.role in GIVEN and number.text != "0" and uses[key] > 1 and key not in givens:
                stem, form = GIVEN[number.role]
                givens[key] = self.name(stem)
                rounded = any(
                    each.rounded for each in self._numbers if (each.role, each.text) == key
                )
                lines.append(
                    f"given {givens[key]} = "
                    f"{form.format(number.text)}{', assumed' if rounded else ''}"
                )
        if lines:
            lines.append("")
        lines.append("O = datum, middle of sheet")

        def put(found: re.Match[str]) -> str:
            number = self._numbers[int(found[1])]
            return givens.get((number.role, number.text)) or number.text + (
                "°" if number.role == "angle" else ""
            )

        for _, name, row in self._rows:
            own = [self._numbers[int(n)] for n in TOKEN.findall(row)]
            assumed = any(
                number.rounded and (number.role, number.text) not in givens for number in own
            )
            lines.append(f"{name} = {TOKEN.sub(put, row)}{', assumed' if assumed else ''}")
        return "\n".join(lines) + "\n"
