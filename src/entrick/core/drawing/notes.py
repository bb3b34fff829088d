"""What finishes a drawing and keeps its size on paper at any scale: said here in plan units, drawn
in `finish`."""

from __future__ import annotations

from dataclasses import dataclass

from ..geometry import Arc, Circle, Line, Loop, Point


@dataclass(frozen=True, slots=True)
class CentreLine:
    """A chain line along something, running a little past it at both ends; past the view for an
    endless line."""

    along: Line | Circle | Arc


@dataclass(frozen=True, slots=True)
class Hatching:
    """Even lines over the region that loops enclose, at an angle in degrees; `spacing` in mm on
    paper."""

    loops: tuple[Loop, ...]
    angle: float = 45.0
    spacing: float = 3.0


@dataclass(frozen=True, slots=True)
class LinearDimension:
    """The distance of two points: level, plumb, or along the line between them.

    Attributes
    ----------
    first, second : Point
    way : str
        "level", "plumb" or "aligned".
    side : str
        "above", "below", "left" or "right": where the dimension line stands; empty where one that
        lies along its points takes the side away from the part.
    row : int
        Dimension lines out from the view, the first 10 mm; 0 for the first that is free.
    text : str
    off : Point or None
        Direction of the extension lines where they are not square to the dimension line: an
        isometric axis.
    """

    first: Point
    second: Point
    way: str
    side: str
    row: int
    text: str
    off: Point | None = None


@dataclass(frozen=True, slots=True)
class RoundDimension:
    """A radius or diameter with its leader; `angle` in degrees where the leader meets it, None for
    a free place."""

    circle: Circle | Arc
    text: str
    angle: float | None = None


@dataclass(frozen=True, slots=True)
class AngleDimension:
    """The angle from one direction to another about a corner, counter-clockwise; `radius` mm on
    paper."""

    corner: Point
    first: float
    turn: float
    text: str
    radius: float = 15.0


@dataclass(frozen=True, slots=True)
class Label:
    """Words beside a place; with a leader when `target` is given. Height in mm on paper.

    Where it stands by something drawn so many `times` as large as the view, the scale of that
    follows the words."""

    text: str
    at: Point
    height: float = 3.5
    target: Point | None = None
    times: int = 0


@dataclass(frozen=True, slots=True)
class ScaleBar:
    """Parts of a length end to end from a place in a direction, with the figure at each stroke."""

    at: Point
    ahead: Point
    each: float
    figures: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class RotationArrow:
    """An arrow round a centre: counter-clockwise where `way` is 1, clockwise where it is −1."""

    centre: Point
    radius: float
    way: int


@dataclass(frozen=True, slots=True)
class TitleFields:
    """What the title block says beyond what the plan itself knows."""

    fields: tuple[tuple[str, str], ...]


Note = (
    CentreLine
    | Hatching
    | LinearDimension
    | RoundDimension
    | AngleDimension
    | Label
    | ScaleBar
    | RotationArrow
    | TitleFields
)
