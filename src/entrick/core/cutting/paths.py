"""Where the middle of a tool runs: half its width off every outline, on the side of the waste,
holes before the rim."""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from ..geometry import Arc, Circle, Line, Loop, Point
from ..geometry.inset import inset
from ..geometry.loop import Boxed, Piece, boxed
from ..plan.errors import ClauseError
from ..tolerance import JUST_FITS, worked

LEADS = (2.0, 1.0, 0.5, 0.25)
"""Radii of a lead that are tried, in widths of the tool: the tool comes in beside the outline, and
off it again."""

HALVINGS = 14
"""Times the widest tool that fits is narrowed down."""

MANY = 150
"""Pieces of an outline for which the widest tool is not looked for: a wheel's take seconds."""

AROUND = 8
"""Places of a lead that are looked at."""


@dataclass(frozen=True, slots=True)
class Lead:
    """How the tool comes to a path and leaves it: quarter circles that run into it."""

    into: Arc
    out_of: Arc


@dataclass(frozen=True, slots=True)
class Cut:
    """An outline to be cut.

    Attributes
    ----------
    name : str
    path : Loop
        Of the middle of the tool, plan units, from where the lead comes in.
    hole : bool
        Whether it is a hole: its waste lies inside.
    lead : Lead or None
        None where there is no room beside the outline: the tool goes straight in on the path.
    """

    name: str
    path: Loop
    hole: bool
    lead: Lead | None

    @property
    def start(self) -> Point:
        """Where the tool goes in."""
        return self.lead.into.first if self.lead else self.path.pieces[0].entry


def tool_paths(outlines: Sequence[tuple[str, Loop]], tool: float) -> tuple[Cut, ...]:
    """Return where the middle of a tool runs, in the order of cutting.

    Parameters
    ----------
    outlines : sequence of (str, Loop)
        Closed, none over another.
    tool : float
        Width of the cut (kerf), plan units.

    Returns
    -------
    tuple of Cut
        Holes first, each after the nearest before it, then what lies around them: a part that is
        cut loose is not cut again.

    Raises
    ------
    ClauseError
        Where the tool does not get in: a hole it is too wide for, a notch or a corner it would
        leave or gouge.
    """
    if not tool > 0:
        raise ClauseError("a tool has a width of more than nought")
    closed = [(name, loop) for name, loop in outlines if loop.closed]
    if len(closed) < len(outlines):
        raise ClauseError("an outline is open: close it before it is cut")
    if not closed:
        raise ClauseError("nothing is lined in: there is nothing to cut")
    rings = [boxed(loop) for _, loop in closed]
    found = []
    for index, (name, loop) in enumerate(closed):
        spot = loop.pieces[0].entry
        depth = sum(other.encloses(spot) for n, other in enumerate(rings) if n != index)
        path = _path(name, loop, tool, hole=depth % 2 == 1)
        found.append((depth, _with_lead(name, path, depth % 2 == 1, tool, rings)))
    return tuple(_in_order(found))


def _path(name: str, loop: Loop, tool: float, hole: bool) -> Loop:
    """Return the path along one outline; a tool as wide as a slot, or as round as a corner, just
    fits.

    Raises
    ------
    ClauseError
        Where the tool does not get in, with the widest that does.
    """
    for width in (tool, tool * (1 - JUST_FITS)):
        path, missed = _along(loop, width, hole)
        if path is not None:
            return path
    where = f"{missed} of {name}" if missed else name
    widest = _widest(loop, tool, hole)
    known = f": take one of {widest:.4g} at most" if widest else ""
    if not missed:
        raise ClauseError(f"{name} is narrower than the tool{known}")
    raise ClauseError(
        f"a tool of {tool:.4g} does not get to {where}: it would leave or gouge it{known}"
    )


def _along(loop: Loop, tool: float, hole: bool) -> tuple[Loop | None, str]:
    """Return the path of a tool along an outline; else None and the piece it does not get to, which
    is empty where it does not get in at all."""
    around = inset(loop, tool / 2, inward=hole)
    if not around:
        return None, ""
    reached = {part for path in around for piece in path.pieces for part in piece.name.split("-")}
    # Of a curve drawn with many arcs some may fall together: it is reached where any of them is.
    whole = {piece.curve_of for piece in loop.pieces if piece.curve_of and piece.name in reached}
    missed = [
        piece.name
        for piece in loop.pieces
        if piece.name not in reached and piece.curve_of not in whole
    ]
    if missed or (hole and len(around) > 1):
        return None, missed[0] if missed else loop.pieces[0].name
    # Of an outline that encloses a bay, the way round the outside.
    return max(around, key=lambda path: abs(path.area)), ""


def _widest(loop: Loop, tool: float, hole: bool) -> float:
    """Return the widest tool that gets everywhere, to a thousandth; nought where none was found, or
    where looking for it would take too long."""
    if len(loop.pieces) > MANY:
        return 0.0
    least, most = 0.0, tool
    for _ in range(HALVINGS):
        middle = (least + most) / 2
        fits = _along(loop, middle, hole)[0] is not None
        least, most = (middle, most) if fits else (least, middle)
    return least


def _with_lead(name: str, path: Loop, hole: bool, tool: float, rings: Sequence[Boxed]) -> Cut:
    """Begin a path in the middle of its longest piece, and find room for the leads beside it."""
    longest = max(range(len(path.pieces)), key=lambda n: path.pieces[n].length)
    turned = _from_middle(path, longest)
    # The waste lies inside a hole and outside a rim.
    spot = turned.pieces[0].entry
    ahead = turned.pieces[0].direction(spot)
    inside = ahead.normal if path.area > 0 else -ahead.normal
    waste = inside if hole else -inside
    for width in LEADS:
        radius = width * tool
        centre = spot + waste * radius
        side = 1 if waste.dot(ahead.normal) > 0 else -1
        at = (spot - centre).angle
        into = Arc(centre, radius, at - side * math.pi / 2, side * math.pi / 2)
        out_of = Arc(centre, radius, at, side * math.pi / 2)
        places = [
            arc.at(arc.start + arc.sweep * k / AROUND)
            for arc in (into, out_of)
            for k in range(AROUND + 1)
        ]
        near = tool / 2 - worked(abs(spot) + radius)
        if not any(ring.is_nearer(place, near) for ring in rings for place in places):
            return Cut(name, turned, hole, Lead(into, out_of))
    return Cut(name, turned, hole, None)


def _from_middle(path: Loop, index: int) -> Loop:
    """Return a closed path that begins, and ends, in the middle of one of its pieces."""
    piece = path.pieces[index]
    first, last = _halves(piece)
    return Loop((last, *path.pieces[index + 1 :], *path.pieces[:index], first), True)


def _halves(piece: Piece) -> tuple[Piece, Piece]:
    match piece.curve:
        case Line():
            middle = (piece.entry + piece.exit) * 0.5
            curves = (Line.between(piece.entry, middle), Line.between(middle, piece.exit))
        case Arc() as arc:
            middle = arc.middle
            parts = (arc.start, arc.start + arc.sweep / 2)
            curves = tuple(Arc(arc.centre, arc.radius, start, arc.sweep / 2) for start in parts)  # type: ignore[assignment]
        case Circle() as circle:
            begin = (piece.entry - circle.centre).angle
            middle = circle.at(begin + math.pi)
            curves = tuple(
                Arc(circle.centre, circle.radius, begin + k * math.pi, math.pi) for k in (0, 1)
            )  # type: ignore[assignment]
    return (
        Piece(curves[0], piece.name, piece.entry, middle),
        Piece(curves[1], piece.name, middle, piece.exit),
    )


def _in_order(found: Sequence[tuple[int, Cut]]) -> Iterator[Cut]:
    """Yield the innermost first, of one depth each time the nearest: least travel, one step at a
    time."""
    left = list(found)
    here = Point(0.0, 0.0)
    while left:
        deepest = max(depth for depth, _ in left)
        chosen = min(
            (each for each in left if each[0] == deepest),
            key=lambda each: abs(each[1].start - here),
        )
        left.remove(chosen)
        here = chosen[1].lead.out_of.last if chosen[1].lead else chosen[1].start
        yield chosen[1]
