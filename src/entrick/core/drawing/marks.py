"""The drawing vocabulary: seven marks, in mm on paper from the lower left corner, angles in
degrees."""

from __future__ import annotations

import math
from dataclasses import dataclass, replace
from functools import cached_property, lru_cache
from hashlib import blake2b
from typing import Literal


@dataclass(frozen=True, slots=True)
class DrawnLine:
    """A straight stroke."""

    x1: float
    y1: float
    x2: float
    y2: float
    role: str
    line: int = 0
    step: int = 0
    name: str = ""
    dash: tuple[float, ...] = ()
    kind: Literal["line"] = "line"


@dataclass(frozen=True, slots=True)
class DrawnArc:
    """A stroke along a circle, from `start` through `sweep` (counter-clockwise positive)."""

    cx: float
    cy: float
    r: float
    start: float
    sweep: float
    role: str
    line: int = 0
    step: int = 0
    name: str = ""
    dash: tuple[float, ...] = ()
    kind: Literal["arc"] = "arc"


@dataclass(frozen=True, slots=True)
class DrawnCircle:
    """A full circle."""

    cx: float
    cy: float
    r: float
    role: str
    line: int = 0
    step: int = 0
    name: str = ""
    dash: tuple[float, ...] = ()
    kind: Literal["circle"] = "circle"


@dataclass(frozen=True, slots=True)
class DrawnRun:
    """A curve of many arcs drawn in one go.

    Attributes
    ----------
    corners : tuple of (x, y, bulge)
        Where pieces begin, with the tangent of a quarter of the angle each turns through, 0 for a
        straight one.
    closed : bool
    oval : (cx, cy, ux, uy, ratio) or None
        The ellipse it draws, if it does: centre, half the long axis, short over long.
    """

    corners: tuple[tuple[float, float, float], ...]
    closed: bool
    role: str
    line: int = 0
    step: int = 0
    name: str = ""
    dash: tuple[float, ...] = ()
    oval: tuple[float, float, float, float, float] | None = None
    kind: Literal["run"] = "run"

    @property
    def stretches(self) -> tuple[tuple[float, float, float, float, float], ...]:
        """Start, end and bulge of every piece."""
        ends = (*self.corners[1:], self.corners[0]) if self.closed else self.corners[1:]
        return tuple(
            (x, y, u, v, bulge)
            for (x, y, bulge), (u, v, _) in zip(self.corners, ends, strict=False)
        )


@dataclass(frozen=True, slots=True)
class DrawnDot:
    """A pricked point."""

    x: float
    y: float
    role: str
    line: int = 0
    step: int = 0
    name: str = ""
    kind: Literal["dot"] = "dot"


@dataclass(frozen=True, slots=True)
class Lettering:
    """Text with its baseline at (x, y), `height` of capitals in mm, turned by `angle`.

    `slant` leans the letters, degrees to the right: with both, lettering lies on an isometric
    plane."""

    text: str
    x: float
    y: float
    height: float
    anchor: Literal["start", "middle", "end"] = "start"
    role: str = "lettering"
    line: int = 0
    step: int = 0
    angle: float = 0.0
    slant: float = 0.0
    kind: Literal["text"] = "text"


@dataclass(frozen=True, slots=True)
class Arrowhead:
    """A closed, filled arrowhead with its tip at (x, y), pointing in a direction."""

    x: float
    y: float
    angle: float
    role: str = "dimension"
    line: int = 0
    step: int = 0
    length: float = 3.0
    wide: float = 1.0
    kind: Literal["arrow"] = "arrow"

    @property
    def corners(self) -> tuple[tuple[float, float], ...]:
        """Tip and the two corners of its base."""
        turned = math.radians(self.angle)
        cos, sin = math.cos(turned), math.sin(turned)
        back, half = self.length, self.wide / 2
        return (
            (self.x, self.y),
            (self.x - back * cos - half * sin, self.y - back * sin + half * cos),
            (self.x - back * cos + half * sin, self.y - back * sin - half * cos),
        )


Mark = DrawnLine | DrawnArc | DrawnCircle | DrawnRun | DrawnDot | Lettering | Arrowhead


_ADVANCES = {
    letter: share
    for share, letters in {
        0.35: "'′",
        0.41: " !.:ijl|,;",
        0.48: "[]I()t1",
        0.53: '≈f"`',
        0.59: "-″r{}",
        0.68: "°svx",
        0.7: "yz$*^–",
        0.74: "kc²³Jeé",
        0.81: "oö/_\\nuühabgpqäd",
        0.89: "½¼¾⅛XZß+<=>?×±~",
        0.93: "LYF#023456789GKSPC",
        0.97: "ATVÄBDEwRHUÜ",
        1.0: "NOQØÖ",
        1.2: "&M%mW@",
        1.4: "—",
    }.items()
    for letter in letters
}
"""How far each letter takes the next one on, as a share of the height of capitals: read off the
lettering face, rounded up a little."""


def wide(text: str, height: float) -> float:
    """Return how much room lettering takes along its line, mm: at least what it is drawn with."""
    return height * _advance(text)


@lru_cache(maxsize=4096)
def _advance(text: str) -> float:
    return sum(_ADVANCES.get(letter, 1.2) for letter in text)


def reach(mark: Mark) -> tuple[tuple[float, float], ...]:
    """Return places whose bounding box holds a mark; lettering is taken a little wider than it
    is."""
    match mark:
        case DrawnLine():
            return (mark.x1, mark.y1), (mark.x2, mark.y2)
        case DrawnArc() | DrawnCircle():
            return (mark.cx - mark.r, mark.cy - mark.r), (mark.cx + mark.r, mark.cy + mark.r)
        case DrawnRun():
            return tuple((x, y) for x, y, _ in mark.corners)
        case DrawnDot():
            return ((mark.x, mark.y),)
        case Arrowhead():
            return mark.corners
        case Lettering():
            long = wide(mark.text, mark.height)
            start = {"start": 0.0, "middle": -long / 2, "end": -long}[mark.anchor]
            turned = math.radians(mark.angle)
            cos, sin = math.cos(turned), math.sin(turned)
            return tuple(
                (mark.x + a * cos - b * sin, mark.y + a * sin + b * cos)
                for a in (start, start + long)
                for b in (0.0, mark.height)
            )


def moved(mark: Mark, dx: float, dy: float, line: int, step: int) -> Mark:
    """Return a mark shifted on the paper, for a line of the plan and the step that draws it."""
    # Written out: a sheet has hundreds of marks, and `replace` is slow.
    match mark:
        case DrawnLine(x1, y1, x2, y2, role, name=name, dash=dash):
            return DrawnLine(x1 + dx, y1 + dy, x2 + dx, y2 + dy, role, line, step, name, dash)
        case DrawnArc(cx, cy, r, start, sweep, role, name=name, dash=dash):
            return DrawnArc(cx + dx, cy + dy, r, start, sweep, role, line, step, name, dash)
        case DrawnCircle(cx, cy, r, role, name=name, dash=dash):
            return DrawnCircle(cx + dx, cy + dy, r, role, line, step, name, dash)
        case DrawnDot(x, y, role, name=name):
            return DrawnDot(x + dx, y + dy, role, line, step, name)
        case DrawnRun(corners, closed, role, name=name, dash=dash, oval=oval):
            shifted = tuple((x + dx, y + dy, bulge) for x, y, bulge in corners)
            stands_for = oval and (oval[0] + dx, oval[1] + dy, *oval[2:])
            return DrawnRun(shifted, closed, role, line, step, name, dash, stands_for)
        case _:
            return replace(mark, x=mark.x + dx, y=mark.y + dy, line=line, step=step)


@dataclass(frozen=True, slots=True)
class DisplayList:
    """Everything on a sheet.

    Attributes
    ----------
    width, height : float
        Paper, mm.
    marks : tuple of Mark
        `line` is the line of the plan that made a mark (0 for the sheet itself), `step` the number
        of the board step that draws it (0: always there), `name` what a click on it refers to.
    factor : float
        Millimetres on paper for one plan unit.
    origin : (float, float)
        Where the datum stands.
    space : (left, lower, right, upper) or None
        Inside the border and clear of the strip: light work stops there. None where it may go
        anywhere.
    """

    width: float
    height: float
    marks: tuple[Mark, ...]
    factor: float = 1.0
    origin: tuple[float, float] = (0.0, 0.0)
    space: tuple[float, float, float, float] | None = None


@dataclass(frozen=True)
class Layer:
    """What one step puts on the sheet, mm from the datum: an edit that only moves the view leaves
    it as it is."""

    marks: tuple[Mark, ...]

    @cached_property
    def key(self) -> str:
        """What it is known by: two layers of the same key hold the same marks."""
        return blake2b(repr(self.marks).encode(), digest_size=9).hexdigest()


@dataclass(frozen=True)
class Drawing:
    """A sheet as it is kept: what belongs to the paper, and over it what every step draws.

    Attributes
    ----------
    width, height : float
        Paper, mm.
    ground : tuple of Mark
        Ruling, border and strip, mm on paper.
    layers : tuple of Layer
        In the order of work; dimensions and notes last.
    factor : float
        Millimetres on paper for one plan unit.
    origin : (float, float)
        Where the datum stands on paper.
    space : (left, lower, right, upper)
        See `DisplayList`.
    """

    width: float
    height: float
    ground: tuple[Mark, ...]
    layers: tuple[Layer, ...]
    factor: float
    origin: tuple[float, float]
    space: tuple[float, float, float, float]

    @cached_property
    def display(self) -> DisplayList:
        """Everything in its place on paper."""
        dx, dy = self.origin
        laid = (
            moved(mark, dx, dy, mark.line, mark.step)
            for layer in self.layers
            for mark in layer.marks
        )
        return DisplayList(
            self.width, self.height, (*self.ground, *laid), self.factor, self.origin, self.space
        )
