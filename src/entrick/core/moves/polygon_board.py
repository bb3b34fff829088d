"""How the corners of a regular polygon are found at the board: by set squares, chords, compass, a
semicircle, from tangents of the circle of the flats, or from a side."""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence
from fractions import Fraction

from ..acts import Edge, Mark, Round, Way, Work
from ..acts.procedures import bisect, divide, middle, ring
from ..geometry import Point
from ..tolerance import ROUND

Find = Callable[[Work, Mark, Round, Mark, Sequence[Point], Sequence[str]], list[Mark]]
"""Finds the other corners on the circle, from the first."""

SQUARES = frozenset({3, 4, 6, 8, 12, 24})
"""Numbers of sides whose directions are multiples of 15°: T-square and set squares draw them."""


def is_on_squares(degrees: float) -> bool:
    """Tell whether a direction is one of those that T-square and set squares make."""
    return abs(degrees / 15 - round(degrees / 15)) < ROUND


def by_squares(
    work: Work,
    centre: Mark,
    ring_: Round,
    first: Mark,
    corners: Sequence[Point],
    names: Sequence[str],
) -> list[Mark]:
    """Draw radii by the set squares, or the protractor, each to a corner."""
    base = work.through(centre, first)
    sense = 0 if base.line.direction.dot(first.at - centre.at) > 0 else 180
    marks = []
    for index, (spot, called) in enumerate(zip(corners[1:], names[1:], strict=True), 1):
        ray = work.draw(
            centre, Way(Fraction(360 * index, len(corners)) + sense, base.key, base.called), spot
        )
        marks.append(work.prick(ray, ring_, spot, called, label=str(index + 1)))
    return marks


def by_chords(
    work: Work,
    centre: Mark,
    ring_: Round,
    first: Mark,
    corners: Sequence[Point],
    names: Sequence[str],
) -> list[Mark]:
    """Step the side round the circle."""
    labels = [str(index) for index in range(2, len(corners) + 1)]
    return ring(
        work, first, ring_, len(corners), names[1:], labels, "one step more comes back to corner 1"
    )


def by_compass(
    work: Work,
    centre: Mark,
    ring_: Round,
    first: Mark,
    corners: Sequence[Point],
    names: Sequence[str],
) -> list[Mark]:
    """Bisect a radius; from its middle to the corner gives, beyond the centre, the decagon's side;
    the hypotenuse the pentagon's (Euclid XIII.10)."""
    up = first.at - centre.at
    side = up.normal
    base = work.through(centre, first)
    square = work.square(base, centre, centre.at + side)
    end = work.prick(square, ring_, centre.at + side, "the end of the square radius")
    half = middle(work, centre, end, "the half of the radius")
    reach = work.between(half, first)
    cut = half.at - side.unit * float(reach.size)
    swing = work.swing(half, reach, near=[cut], told="down to the diameter")
    spot = work.prick(swing, square, cut, "the cut on the diameter")
    chord = work.between(first if len(corners) == 5 else centre, spot)
    labels = [str(index) for index in range(2, len(corners) + 1)]
    return work.step_off(
        first,
        chord,
        ring_,
        corners[1:],
        names[1:],
        labels=labels,
        check="one step more comes back to corner 1",
    )


def semicircle_error(count: int) -> float:
    """Return how many degrees the angle of one side comes out too wide by the semicircle method.

    The diameter is divided in n; a line from the apex of an equilateral triangle on it through the
    second division meets the far half circle in the second corner (a classic approximation, common
    practice)."""
    apex, second = Point(0.0, -math.sqrt(3)), Point(-1.0 + 4.0 / count, 0.0)
    ahead = (second - apex).unit
    b = apex.dot(ahead)
    place = apex + ahead * (-b + math.sqrt(b * b - apex.dot(apex) + 1))
    return math.degrees(math.pi - place.angle) - 360 / count


def by_semicircle(
    work: Work,
    centre: Mark,
    ring_: Round,
    first: Mark,
    corners: Sequence[Point],
    names: Sequence[str],
) -> list[Mark]:
    """Divide the diameter, join the apex over it to the second division, and on to the circle:
    corner 2."""
    count = len(corners)
    far = centre.at - (first.at - centre.at)
    diameter = work.through(first, centre, "the diameter", reach=far)
    end = work.prick(diameter, ring_, far, "the end of the diameter")
    spots = [f"part {index} of the diameter" for index in range(1, count)]
    parts = divide(work, first, end, count, spots)
    ahead = (first.at - centre.at).unit
    apex = centre.at - ahead.normal * (ring_.circle.radius * math.sqrt(3))
    whole = work.between(first, end)
    swings = [work.swing(mark, whole, near=[apex]) for mark in (first, end)]
    top = work.prick(swings[0], swings[1], apex, "the apex")
    line = work.through(top, parts[1], "the line from the apex through part 2", reach=corners[1])
    second = work.prick(
        line, ring_, corners[1], names[1], label="2", check="near enough for wood, not for a gauge"
    )
    labels = [str(index) for index in range(3, count + 1)]
    more = work.step_off(
        second, work.between(first, second), ring_, corners[2:], names[2:], labels=labels
    )
    return [second, *more]


def around(
    work: Work,
    centre: Mark,
    ring_: Round,
    touches: Sequence[Mark] | None,
    corners: Sequence[Point],
    name: str,
) -> None:
    """Draw the sides as tangents of the circle of the flats: with the set squares in their
    directions, slid until they touch; else square to the radii to where they touch."""
    count = len(corners)
    edges: list[Edge] = []
    for index, spot in enumerate(corners, 1):
        end = corners[index % count]
        called = f"{name}.side.{index}"
        if touches is None:
            degrees = Fraction(round(math.degrees((end - spot).angle)))
            edges.append(work.draw_touching(ring_, Way(degrees), spot, end, called))
        else:
            touch = touches[index - 1]
            radius = work.through(centre, touch)
            edges.append(work.square(radius, touch, end, called))
    for index, spot in enumerate(corners):
        check = "all sides are alike" if index == count - 1 else ""
        corner = f"{name}.corner.{index + 1}"
        work.prick(edges[index - 1], edges[index], spot, corner, label=str(index + 1), check=check)


def centre_on_side(work: Work, first: Mark, second: Mark, count: int, centre: Point) -> Mark:
    """Mark the centre over a side: on its bisector, where the line from an end meets it that makes
    half the angle of a corner with the side."""
    axis = bisect(work, first, second)
    side = work.through(first, second)
    half = Fraction(90) - Fraction(180, count)
    if side.line.direction.dot(second.at - first.at) < 0:
        half += 180
    ray = work.draw(
        first, Way(half, side.key, side.called), centre, "the line half way into the corner"
    )
    return work.prick(ray, axis, centre, "the centre over the side")


def on_side(
    work: Work, ring_: Round, first: Mark, corners: Sequence[Point], names: Sequence[str]
) -> list[Mark]:
    """Step the side that stands there round the circle through its ends."""
    second = work.mark(corners[1], names[1])
    labels = [str(index) for index in range(3, len(corners) + 1)]
    more = work.step_off(
        second,
        work.between(first, second),
        ring_,
        corners[2:],
        names[2:],
        labels=labels,
        check="one step more comes back to the first",
    )
    return [first, second, *more]
