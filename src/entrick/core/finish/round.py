"""Dimensions with leaders: radii and diameters, angles, labels."""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from functools import lru_cache
from typing import Literal

from ..drawing.marks import DrawnArc, DrawnLine, Lettering, Mark, wide
from ..drawing.notes import AngleDimension, Label, RoundDimension
from ..geometry import Arc, Circle, Point, polar
from ..geometry.box import Box
from ..tolerance import worked
from .occupied import Occupied, stand
from .style import ARROW, LETTERS, OFF, PAST, View, arrow


def _drawn_part(circle: Circle | Arc, view: View) -> Circle | Arc:
    """Return the longest part of a circle that is lined in: a leader points at what is seen."""
    parts = [
        piece.curve
        for loop in view.outlines
        for piece in loop.pieces
        if isinstance(piece.curve, Circle | Arc)
        and abs(piece.curve.centre - circle.centre) <= worked(circle.radius)
        and abs(piece.curve.radius - circle.radius) <= worked(circle.radius)
    ]
    if isinstance(circle, Arc) and circle in parts:
        return circle
    return max(
        parts,
        key=lambda part: abs(part.sweep) if isinstance(part, Arc) else math.tau,
        default=circle,
    )


_LEADERS = (7.0, 12.0, 18.0, 26.0, 36.0)
_EVERY_LENGTH = (5.0, 6.0, 7.0, 8.5, 10.0, 12.0, 15.0, 18.0, 22.0, 26.0, 31.0, 36.0, 44.0, 54.0)
SPOTS = 48
"""Places of a round to which a leader is tried where every usual one crosses something."""
_SLANTS = tuple(
    side + turn
    for turns in ((45.0, 30.0, 60.0), (15.0, 75.0))
    for side in (0.0, 90.0, -90.0, 180.0)
    for turn in turns
)


LONG, STEEP, INWARD, CROSSING, COVERED = 100.0, 0.3, 0.4, 1.5, 4.0
"""What a leader costs: 1/LONG for a millimetre of length, STEEP where it runs nearly level or
plumb, INWARD where it lies inside the round, CROSSING for a stroke it crosses, COVERED for one its
figure stands on (by eye, no source)."""
BACKWARD = 0.1
"""What it costs a leader to be lettered on the side it comes from (by eye, no source)."""

THROUGH = 9.0
"""What it costs a leader to run through letters (by eye, no source)."""

GOOD = 0.3
"""A leader this good is taken without looking at more slants (by eye, no source)."""


@dataclass(frozen=True, slots=True)
class _Leader:
    """Where a leader may run: what it costs, what it crosses, its two ends, and on which side of
    its end its figure stands."""

    cost: float
    crossed: int
    tip: Point
    end: Point
    side: int


def round_dimension(note: RoundDimension, view: View, taken: Occupied) -> Iterator[Mark]:
    """Draw a leader to a circle or arc, its lettering where it covers least; where every usual
    place crosses something, in any place that does not."""
    circle = _drawn_part(note.circle, view)
    note = replace(note, circle=circle)
    best = _least(note, view, taken, _leader_angles(note), _LEADERS)
    if best.crossed:
        best = _least(note, view, taken, _every_angle(note), _EVERY_LENGTH, best)
    tip, end, side = best.tip, best.end, best.side
    landing = Point(end.x + 2 * side, end.y)
    taken.take(_landing(end, note.text, side > 0))
    strokes = [
        DrawnLine(tip.x, tip.y, end.x, end.y, "dimension"),
        DrawnLine(end.x, end.y, landing.x, landing.y, "dimension"),
    ]
    for stroke in strokes:
        stand(stroke, taken)
    yield from strokes
    yield arrow(tip, (tip - end).unit)
    anchor: Literal["start", "end"] = "start" if side > 0 else "end"
    yield Lettering(
        note.text,
        landing.x + 0.6 * side,
        end.y - LETTERS / 2,
        LETTERS,
        anchor,
        "dimension",
    )


def _least(
    note: RoundDimension,
    view: View,
    taken: Occupied,
    angles: Sequence[float],
    lengths: Sequence[float],
    best: _Leader | None = None,
) -> _Leader:
    """Return the leader that costs least of those at some angles, of some lengths, or the best so
    far."""
    circle = note.circle
    # The leader of a small round may run on through its centre to where there is room.
    deep = math.inf if isinstance(circle, Arc) else circle.radius * view.factor
    leader = best
    for base, _, angle, inward, reach in _by_cost(tuple(angles), tuple(lengths), deep):
        if leader is not None and base >= leader.cost:
            break
        tip, ray = circle.at(math.radians(angle)) * view.factor, polar(1.0, math.radians(angle))
        end = tip - ray * reach if inward else tip + ray * reach
        ahead = 1 if end.x >= tip.x else -1
        least = math.inf if leader is None else leader.cost
        # What would cost more than the best is not counted to the end.
        most = (least - base) / COVERED
        hits: float = taken.hits(_landing(end, note.text, ahead > 0), most)
        side = ahead
        # Beside a steep leader there is room on either hand.
        if hits and abs(ray.x) * reach < 2:
            back = taken.hits(_landing(end, note.text, ahead < 0), most) + BACKWARD
            hits, side = (back, -ahead) if back < hits else (hits, ahead)
        cost = base + COVERED * hits
        if cost >= least:
            continue
        begun = tip + ray * (-0.05 if inward else 0.05)
        crossed = taken.crossings(begun, end, (least - cost) / CROSSING)
        cost += CROSSING * crossed
        if cost < least:
            cost += THROUGH * taken.letters_crossed(begun, end)
        if cost < least:
            leader = _Leader(cost, crossed, tip, end, side)
    assert leader is not None
    return leader


@lru_cache(maxsize=256)
def _by_cost(
    angles: tuple[float, ...], lengths: tuple[float, ...], deep: float
) -> list[tuple[float, int, float, bool, float]]:
    """Return every leader by what it costs where it is free: its cost, its place in the order, its
    angle, whether it runs inward, its length."""
    result = []
    for index, angle in enumerate(angles):
        ray = polar(1.0, math.radians(angle))
        steep = STEEP * (abs(abs(ray.x) - abs(ray.y)) > 0.9)
        for inward in (False, True):
            for reach in lengths:
                if not inward or reach <= deep:
                    base = reach / LONG + steep + INWARD * inward
                    result.append((base, index, angle, inward, reach))
    return sorted(result)


def _every_angle(note: RoundDimension) -> Sequence[float]:
    if note.angle is not None:
        return (note.angle,)
    arc = note.circle
    if isinstance(arc, Circle):
        return [360.0 * at / SPOTS for at in range(SPOTS)]
    return [math.degrees(arc.start + arc.sweep * (at + 0.5) / SPOTS) for at in range(SPOTS)]


def _leader_angles(note: RoundDimension) -> Sequence[float]:
    if note.angle is not None:
        return (note.angle,)
    if isinstance(note.circle, Circle):
        return _SLANTS
    arc = note.circle
    shares = (0.5, 0.35, 0.65, 0.2, 0.8, 0.1, 0.9)
    return [math.degrees(arc.start + arc.sweep * share) for share in shares]


def _landing(end: Point, text: str, right: bool) -> Box:
    room = wide(text, LETTERS) + 3
    x0, x1 = (end.x, end.x + room) if right else (end.x - room, end.x)
    return Box(x0, end.y - LETTERS / 2 - 0.4, x1, end.y + LETTERS / 2 + 0.4)


RADII = (1.0, 0.75, 1.35, 1.75)
"""Radii at which an angle is tried, as shares of its own."""


def angle(note: AngleDimension, view: View, taken: Occupied) -> Iterator[Mark]:
    """Draw an angle where its figure is clear: nearer or farther out, along its arc."""
    best: tuple[float, list[Mark], Lettering] | None = None
    for index, share in enumerate(RADII):
        one = replace(note, radius=note.radius * share)
        marks = list(_angle_lines(one, view))
        through = sum(
            taken.letters_crossed(Point(mark.x1, mark.y1), Point(mark.x2, mark.y2))
            for mark in marks
            if isinstance(mark, DrawnLine)
        )
        figures = [
            _figure(one, view, share, out)
            for out in (0.0, 3.0, 6.0)
            for share in (0.5, 0.3, 0.7, 0.15, 0.85)
        ]
        costs = [taken.letters_hit(figure) + 0.01 * at for at, figure in enumerate(figures)]
        least = min(costs)
        cost = THROUGH * through + least + 0.2 * index
        if best is None or cost < best[0]:
            best = (cost, marks, figures[costs.index(least)])
        if cost < GOOD:
            break
    assert best is not None
    _, marks, text = best
    for mark in marks:
        stand(mark, taken)
    taken.take_letters(text)
    yield from marks
    yield text


def _angle_lines(note: AngleDimension, view: View) -> Iterator[Mark]:
    corner, radius = note.corner * view.factor, note.radius
    start, sweep = math.radians(note.first), math.radians(note.turn)
    for angle in (start, start + sweep):
        near, far = corner + polar(OFF, angle), corner + polar(radius + PAST, angle)
        yield DrawnLine(near.x, near.y, far.x, far.y, "dimension")
    yield DrawnArc(corner.x, corner.y, radius, note.first, note.turn, "dimension")
    room = ARROW / radius
    turned = 1 if abs(sweep) > 2.5 * room else -1
    for angle, way in ((start, -1), (start + sweep, 1)):
        ahead = polar(1.0, angle + way * turned * (math.pi / 2 - room / 2)) * math.copysign(
            1, sweep
        )
        yield arrow(corner + polar(radius, angle), ahead)


def _figure(note: AngleDimension, view: View, share: float, out: float) -> Lettering:
    """Set the figure of an angle at a share of its turn, so far out of its usual place."""
    towards = math.radians(note.first + note.turn * share)
    place = note.corner * view.factor + polar(note.radius + 1.5 + LETTERS / 2 + out, towards)
    across = math.cos(towards)
    anchor = "start" if across > 0.3 else "end" if across < -0.3 else "middle"
    return Lettering(note.text, place.x, place.y - LETTERS / 2, LETTERS, anchor, "dimension")  # type: ignore[arg-type]


def label(note: Label, view: View, taken: Occupied) -> Iterator[Mark]:
    at = note.at * view.factor
    text = note.text
    if note.times:
        text += f"  {view.scale.times(note.times)}"
    if note.target is None:
        mark = Lettering(text, at.x, at.y - note.height / 2, note.height, "middle", "label")
        taken.take_letters(mark)
        yield mark
        return
    target = note.target * view.factor
    side = 1 if at.x >= target.x else -1
    landing = Point(at.x + 2 * side, at.y)
    yield DrawnLine(target.x, target.y, at.x, at.y, "dimension")
    yield DrawnLine(at.x, at.y, landing.x, landing.y, "dimension")
    yield arrow(target, (target - at).unit)
    anchor: Literal["start", "end"] = "start" if side > 0 else "end"
    mark = Lettering(
        note.text,
        landing.x + 0.6 * side,
        at.y - note.height / 2,
        note.height,
        anchor,
        "label",
    )
    taken.take_letters(mark)
    yield mark
