"""Tangents and normals of ellipse, parabola and hyperbola, drawn from their foci.

One focus mirrored on any tangent lies on a circle about the other, the whole axis away; for a
parabola, whose other focus is infinitely far, on the directrix. At a place of the curve the lines
to both foci make equal angles with the tangent (properties of the foci; from memory)."""

from __future__ import annotations

from dataclasses import dataclass

from ..geometry import Line, Point
from ..geometry.conic import Hyperbola, Parabola
from ..geometry.ellipse import Ellipse
from ..tolerance import DIRECTION
from .act import Edge, Mark, Round, Way
from .procedures import bisect, halve
from .work import Work

Conic = Ellipse | Parabola | Hyperbola


def foci_of(work: Work, conic: Ellipse | Hyperbola, name: str) -> tuple[Mark, Mark]:
    """Mark both foci where they are not marked: of an ellipse, half the long axis in the compass,
    the needle on an end of the short one, cuts the long axis; of a hyperbola, the join of the ends
    of both half axes, swung about the centre."""
    if all(work.has_mark(focus) for focus in conic.foci) or isinstance(conic, Hyperbola):
        first, second = (work.mark(f, f"a focus of {name}") for f in conic.foci)
        return first, second
    ends = [
        work.mark(conic.centre + conic.major * side, f"an end of the long axis of {name}")
        for side in (1, -1)
    ]
    centre = work.mark(conic.centre, f"the centre of {name}")
    top = work.mark(conic.centre + conic.across, f"an end of the short axis of {name}")
    axis = work.through(ends[1], ends[0], f"the long axis of {name}")
    swing = work.swing(top, work.between(centre, ends[0]), near=conic.foci)
    first, second = (
        work.prick(swing, axis, spot, f"focus {index} of {name}")
        for index, spot in enumerate(conic.foci, 1)
    )
    return first, second


@dataclass(frozen=True)
class Asked:
    """A tangent or normal that is asked for: to which curve, where it touches, what it is called,
    and how it is shown."""

    name: str
    touch: Point
    called: str
    normal: bool
    shown: Line


def at_place(work: Work, conic: Conic, at: Mark, asked: Asked) -> None:
    """Draw the tangent or normal at a mark on the curve: it halves the angle between the lines to
    the foci."""
    arms, spots = _arms(work, conic, at, asked.name)
    first, second = ((spot - at.at).unit for spot in spots)
    halves_to_normal = isinstance(conic, Ellipse)
    wanted = halves_to_normal == asked.normal
    called, shown = (asked.called, asked.shown) if wanted else ("the line that halves it", None)
    if abs(first.cross(second)) <= DIRECTION and first.dot(second) > 0:
        # At an end of the long axis both lines are the axis: there is nothing to halve.
        halved = work.through(at, work.mark(spots[0]), called, shown=shown)
    else:
        halved = halve(work, at, arms, spots, called, shown)
    if not wanted:
        work.square(halved, at, called=asked.called)


def _arms(
    work: Work, conic: Conic, at: Mark, name: str
) -> tuple[tuple[Edge, Edge], tuple[Point, Point]]:
    if isinstance(conic, Parabola):
        focus = work.mark(conic.focus, f"the focus of {name}")
        axis = axis_of(work, conic, name)
        down = at.at - conic.opens * conic.focal
        beside = axis if abs(at.at - axis.line.foot(at.at)) <= work.paper.nothing else None
        ray = beside or work.parallel(axis, at, down, "the line along the axis")
        return (work.through(at, focus), ray), (focus.at, down)
    first, second = foci_of(work, conic, name)
    return (work.through(at, first), work.through(at, second)), (first.at, second.at)


def axis_of(work: Work, conic: Parabola, name: str) -> Edge:
    """Return the axis of a parabola as it is drawn, or draw it through vertex and focus."""
    return work.edge(Line.between(conic.vertex, conic.focus), f"the axis of {name}")


def _directrix(work: Work, conic: Parabola, name: str) -> Edge:
    foot = work.mark(conic.foot, f"the foot of the axis of {name}")
    return work.square(axis_of(work, conic, name), foot, called=f"the directrix of {name}")


def from_point(work: Work, conic: Conic, point: Mark, asked: Asked) -> None:
    """Draw the tangent from a point: it is as far from the focus as from its image."""
    focus, director, image_at = _director(work, conic, asked)
    swing = work.swing(point, work.between(point, focus), near=[image_at])
    image = work.prick(director, swing, image_at, "the image of the focus")
    _by_image(work, conic, (focus, image), asked)


def along(work: Work, conic: Conic, way: Way, asked: Asked) -> None:
    """Draw the tangent whose squares lie in a direction."""
    focus, director, image_at = _director(work, conic, asked)
    square = work.draw(focus, way, image_at, "the square to the tangent")
    image = work.prick(square, director, image_at, "the image of the focus")
    _by_image(work, conic, (focus, image), asked)


def _director(work: Work, conic: Conic, asked: Asked) -> tuple[Mark, Edge | Round, Point]:
    """Return the focus that is mirrored, what its images in all tangents lie on, and where this one
    comes to lie."""
    if isinstance(conic, Parabola):
        focus = work.mark(conic.focus, f"the focus of {asked.name}")
        return focus, _directrix(work, conic, asked.name), conic.directrix.foot(asked.touch)
    focus, other = foci_of(work, conic, asked.name)
    ends = [
        work.mark(conic.centre + conic.major * side, f"an end of the axis of {asked.name}")
        for side in (1, -1)
    ]
    image = other.at + (asked.touch - other.at).unit * (2 * conic.a)
    ring = work.swing(
        other, work.between(*ends), near=[image], told="the whole axis from one focus"
    )
    return focus, ring, image


def _by_image(work: Work, conic: Conic, pair: tuple[Mark, Mark], asked: Asked) -> None:
    """Bisect between focus and image: that is the tangent; the line from the image to the other
    focus leads to its touch."""
    focus, image = pair
    drawn = bisect(
        work,
        focus,
        image,
        "the tangent" if asked.normal else asked.called,
        None if asked.normal else asked.shown,
    )
    if isinstance(conic, Parabola):
        ray = work.square(_directrix(work, conic, asked.name), image, asked.touch)
    else:
        ray = work.through(foci_of(work, conic, asked.name)[1], image, "the line to the image")
    at = work.prick(ray, drawn, asked.touch, f"{asked.called}.touch")
    if asked.normal:
        work.square(drawn, at, called=asked.called)
