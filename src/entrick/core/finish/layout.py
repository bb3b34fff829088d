"""From notes to marks: where each dimension, centre line, hatching and label stands."""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace

from ..drawing.marks import Arrowhead, DrawnArc, DrawnCircle, DrawnLine, Lettering, Mark
from ..drawing.notes import (
    AngleDimension,
    CentreLine,
    Hatching,
    Label,
    LinearDimension,
    Note,
    RotationArrow,
    RoundDimension,
    ScaleBar,
)
from ..geometry import Arc, Circle, Line, Loop, Point, polar
from ..geometry.box import Box
from ..geometry.hatch import hatch_lines
from ..geometry.place import SIDES
from ..tolerance import NOUGHT, ROUND, same
from .chain import centre_dashes
from .occupied import Occupied

FIRST, NEXT = 10.0, 8.0
"""The first dimension line stands 10 mm off the view, each further one 8 mm (common practice)."""
OFF, PAST = 1.0, 2.0
"""Extension lines start 1 mm off the outline and run 2 mm past the dimension line (common practice)."""
ARROW = 3.0
"""Arrowheads are 3 long to 1 wide, closed, filled (common practice)."""
OVER = 3.0
"""Centre lines run this far past what they centre, mm (common practice)."""
LETTERS = 2.5
"""Height of dimension lettering, mm (ISO 3098)."""
_WIDE = 0.72
"""Width of a letter as a share of its height, in the lettering face."""


@dataclass(frozen=True)
class View:
    """What finishing has to know of the view: its scale, its box on paper from the datum, its outlines."""

    factor: float
    low: Point
    high: Point
    outlines: tuple[Loop, ...]
    aligned: bool = True


Finished = tuple[int, Mark]
"""A mark in mm from the datum, with the line of the plan that asked for it."""


def finish(notes: Sequence[tuple[int, Note]], view: View) -> tuple[Finished, ...]:
    """Draw every note.

    Parameters
    ----------
    notes : sequence of (int, Note)
        Each with the line of its statement.
    view : View

    Returns
    -------
    tuple of (int, Mark)
        In mm on paper from the datum.
    """
    if not notes:
        return ()
    taken = Occupied(view.outlines, view.factor)
    drawn: list[Finished] = []
    for line, straight, row in _rows(notes, view):
        marks = _placed(straight, row, view, taken)
        for mark in marks:
            if isinstance(mark, Lettering):
                taken.take(_box(mark))
        drawn += [(line, mark) for mark in marks]
    for line, note in notes:
        match note:
            case CentreLine():
                drawn += [(line, mark) for mark in _centre(note, view)]
            case Hatching():
                drawn += [(line, mark) for mark in _hatched(note, view)]
            case AngleDimension():
                drawn += [(line, mark) for mark in _angle(note, view, taken)]
            case RoundDimension():
                drawn += [(line, mark) for mark in _round(note, view, taken)]
            case Label():
                drawn += [(line, mark) for mark in _label(note, view, taken)]
            case ScaleBar():
                drawn += [(line, mark) for mark in _scale_bar(note, view)]
            case RotationArrow():
                drawn += [(line, mark) for mark in _rotation(note, view)]
    return tuple(drawn)


def wide(text: str, height: float) -> float:
    """Return how much room lettering takes along its line, mm."""
    return _WIDE * height * len(text)


def _box(mark: Lettering) -> Box:
    length, height = wide(mark.text, mark.height), mark.height
    start = mark.x - (length / 2 if mark.anchor == "middle" else length if mark.anchor == "end" else 0)
    if abs(mark.angle - 90) < 1:
        start = mark.y - (length / 2 if mark.anchor == "middle" else 0)
        return Box(mark.x - height, start, mark.x, start + length)
    return Box(start, mark.y, start + length, mark.y + height)


def _rows(notes: Sequence[tuple[int, Note]], view: View) -> Iterator[tuple[int, LinearDimension, int]]:
    """Give every straight dimension its row: short ones inside, none over another."""
    linear = [(line, note) for line, note in notes if isinstance(note, LinearDimension)]
    linear.sort(key=lambda entry: (entry[1].row == 0, _span(entry[1])[1] - _span(entry[1])[0]))
    rows: dict[tuple[str, str, int], list[tuple[float, float]]] = {}
    for line, note in linear:
        if note.way == "aligned":
            yield line, note, note.row or 1
            continue
        start, end = _span(note)
        room = (wide(note.text, LETTERS) + 2 * ARROW + 1) / view.factor
        if end - start < room:
            end += room
        row = note.row
        if row == 0:
            row = 1
            while any(a < end - ROUND and b > start + ROUND for a, b in rows.get((note.way, note.side, row), [])):
                row += 1
        rows.setdefault((note.way, note.side, row), []).append((start, end))
        yield line, note, row


MOST_ROWS = 6
"""Rows a slanted dimension may move out to keep its lettering clear."""


def _placed(note: LinearDimension, row: int, view: View, taken: Occupied) -> list[Mark]:
    """Draw a straight dimension; one that lies along its points moves out until its lettering is clear."""
    tried: list[list[Mark]] = []
    rows = range(1, MOST_ROWS) if note.way == "aligned" and note.row == 0 else (row,)
    for each in rows:
        marks = list(_linear(replace(note, row=each), view))
        tried.append(marks)
        if not any(taken.hits(_box(mark)) for mark in marks if isinstance(mark, Lettering)):
            return marks
    return tried[0]


def _span(note: LinearDimension) -> tuple[float, float]:
    along = Point(0.0, 1.0) if note.way == "plumb" else Point(1.0, 0.0)
    if note.way == "aligned":
        return 0.0, abs(note.second - note.first)
    start, end = sorted((note.first.dot(along), note.second.dot(along)))
    return start, end


def _linear(note: LinearDimension, view: View) -> Iterator[Mark]:
    first, second = note.first * view.factor, note.second * view.factor
    out = FIRST + (note.row - 1) * NEXT
    if note.way == "aligned":
        ahead = (second - first).unit
        square = note.off if note.off is not None else ahead.normal
        away = square if square.dot(SIDES[note.side]) >= 0 else -square
        ends = (first + away * out, second + away * out)
    else:
        level = note.way == "level"
        ahead = Point(1.0, 0.0) if level else Point(0.0, 1.0)
        away = SIDES[note.side]
        edge = max(view.low.dot(away), view.high.dot(away)) + out
        ends = tuple(ahead * spot.dot(ahead) + away * edge for spot in (first, second))  # type: ignore[assignment]
        if ends[0].dot(ahead) > ends[1].dot(ahead):
            ends, first, second = (ends[1], ends[0]), second, first
    for spot, end in ((first, ends[0]), (second, ends[1])):
        start, stop = spot + away * OFF, end + away * PAST
        yield DrawnLine(start.x, start.y, stop.x, stop.y, "dimension")
    yield from _dimension_line(ends[0], ends[1], note.text, view.aligned or note.off is not None, note.off)


def _dimension_line(start: Point, end: Point, text: str, aligned: bool, off: Point | None = None) -> Iterator[Mark]:
    length = abs(end - start)
    ahead = (end - start).unit if length > 0 else Point(1.0, 0.0)
    angle = math.degrees(ahead.angle)
    upright = -90 < angle <= 90
    turned = angle if upright else angle + 180
    over = ahead.normal if upright else -ahead.normal
    room = wide(text, LETTERS)
    inside = length >= 2 * ARROW + 1
    along = LETTERS if not aligned and abs(ahead.y) > 0.5 else room
    fits = length >= along + (2 * ARROW if inside else 0) + 1
    middle = (start + end) * 0.5
    if inside:
        broken = room + 2 if abs(ahead.y) < 0.5 else LETTERS + 2
        yield from _stroke(start, end, None if aligned or not fits else broken)
        yield from (_arrow(start, -ahead), _arrow(end, ahead))
    else:
        yield from _stroke(start - ahead * (2 * ARROW), end + ahead * (2 * ARROW), None)
        yield from (_arrow(start, ahead), _arrow(end, -ahead))
    at = middle if fits else end + ahead * (ARROW * (1 if inside else 2) + room / 2 + 0.5)
    if not fits:
        yield from _stroke(end, end + ahead * (ARROW * (1 if inside else 2) + room), None)
    if aligned:
        # On an isometric plane the letters stand along the extension lines.
        up = over if off is None else off if off.dot(over) >= 0 else -off
        slant = math.degrees(math.atan2(up.cross(over), up.dot(over)))
        at = at + up * 1.0
        yield Lettering(text, at.x, at.y, LETTERS, "middle", "dimension", angle=turned, slant=slant)
    else:
        lift = 1.0 if not fits and abs(ahead.y) < 0.5 else -LETTERS / 2
        yield Lettering(text, at.x, at.y + lift, LETTERS, "middle", "dimension")


def _stroke(start: Point, end: Point, broken: float | None) -> Iterator[Mark]:
    if broken is None or abs(end - start) < broken:
        yield DrawnLine(start.x, start.y, end.x, end.y, "dimension")
        return
    ahead, middle = (end - start).unit, (start + end) * 0.5
    for a, b in ((start, middle - ahead * (broken / 2)), (middle + ahead * (broken / 2), end)):
        yield DrawnLine(a.x, a.y, b.x, b.y, "dimension")


def _arrow(tip: Point, pointing: Point) -> Arrowhead:
    return Arrowhead(tip.x, tip.y, math.degrees(pointing.angle), length=ARROW, wide=ARROW / 3)


def _drawn_part(circle: Circle | Arc, view: View) -> Circle | Arc:
    """Return the longest part of a circle that is lined in: a leader points at what is seen."""
    parts = [
        piece.curve
        for loop in view.outlines
        for piece in loop.pieces
        if isinstance(piece.curve, Circle | Arc)
        and abs(piece.curve.centre - circle.centre) <= same(circle.radius) * 10
        and abs(piece.curve.radius - circle.radius) <= same(circle.radius) * 10
    ]
    if isinstance(circle, Arc) and circle in parts:
        return circle
    return max(parts, key=lambda part: abs(part.sweep) if isinstance(part, Arc) else math.tau, default=circle)


_LEADERS = (7.0, 12.0, 18.0, 26.0)
_SLANTS = (45.0, 30.0, 60.0, 135.0, 150.0, 120.0, -45.0, -30.0, -60.0, -135.0, -150.0, -120.0)


def _round(note: RoundDimension, view: View, taken: Occupied) -> Iterator[Mark]:
    """Draw a leader to a circle or arc, its lettering where it covers least."""
    circle = _drawn_part(note.circle, view)
    note = replace(note, circle=circle)
    best: tuple[float, Point, Point, float] | None = None
    for angle in _leader_angles(note):
        tip, ray = circle.at(math.radians(angle)) * view.factor, polar(1.0, math.radians(angle))
        for inward in (False, True):
            for reach in _LEADERS:
                if inward and reach > circle.radius * view.factor:
                    continue
                cost = reach / 100 + 0.3 * (abs(abs(ray.x) - abs(ray.y)) > 0.9) + 0.4 * inward
                if best is not None and cost >= best[0]:
                    continue
                end = tip - ray * reach if inward else tip + ray * reach
                cost += taken.hits(_landing(end, note.text, end.x >= tip.x))
                if best is not None and cost >= best[0]:
                    continue
                cost += 0.5 * taken.crossings(tip + ray * (-0.05 if inward else 0.05), end)
                if best is None or cost < best[0]:
                    best = (cost, tip, end, 1 if end.x >= tip.x else -1)
            if best is not None and best[0] < 0.3:
                break
    assert best is not None
    _, tip, end, side = best
    landing = Point(end.x + 2 * side, end.y)
    taken.take(_landing(end, note.text, side > 0))
    yield DrawnLine(tip.x, tip.y, end.x, end.y, "dimension")
    yield DrawnLine(end.x, end.y, landing.x, landing.y, "dimension")
    yield _arrow(tip, (tip - end).unit)
    anchor = "start" if side > 0 else "end"
    yield Lettering(note.text, landing.x + 0.6 * side, end.y - LETTERS / 2, LETTERS, anchor, "dimension")  # type: ignore[arg-type]


def _leader_angles(note: RoundDimension) -> Sequence[float]:
    if note.angle is not None:
        return (note.angle,)
    if isinstance(note.circle, Circle):
        return _SLANTS
    arc = note.circle
    shares = (0.5, 0.35, 0.65, 0.2, 0.8)
    return [math.degrees(arc.start + arc.sweep * share) for share in shares]


def _landing(end: Point, text: str, right: bool) -> Box:
    room = wide(text, LETTERS) + 3
    x0, x1 = (end.x, end.x + room) if right else (end.x - room, end.x)
    return Box(x0, end.y - LETTERS / 2 - 0.4, x1, end.y + LETTERS / 2 + 0.4)


def _angle(note: AngleDimension, view: View, taken: Occupied) -> Iterator[Mark]:
    corner, radius = note.corner * view.factor, note.radius
    start, sweep = math.radians(note.first), math.radians(note.turn)
    for angle in (start, start + sweep):
        near, far = corner + polar(OFF, angle), corner + polar(radius + PAST, angle)
        yield DrawnLine(near.x, near.y, far.x, far.y, "dimension")
    yield DrawnArc(corner.x, corner.y, radius, note.first, note.turn, "dimension")
    room = ARROW / radius
    turned = 1 if abs(sweep) > 2.5 * room else -1
    for angle, way in ((start, -1), (start + sweep, 1)):
        ahead = polar(1.0, angle + way * turned * (math.pi / 2 - room / 2)) * math.copysign(1, sweep)
        yield _arrow(corner + polar(radius, angle), ahead)
    middle = corner + polar(radius + 1.5 + LETTERS / 2, start + sweep / 2)
    across = polar(1.0, start + sweep / 2).x
    anchor = "start" if across > 0.3 else "end" if across < -0.3 else "middle"
    text = Lettering(note.text, middle.x, middle.y - LETTERS / 2, LETTERS, anchor, "dimension")  # type: ignore[arg-type]
    taken.take(_box(text))
    yield text


def _centre(note: CentreLine, view: View) -> Iterator[Mark]:
    curve, factor = note.along, view.factor
    match curve:
        case Circle(centre=c, radius=r):
            round_ = r * factor
            spot = c * factor
            yield DrawnCircle(spot.x, spot.y, round_, "centre", dash=centre_dashes(math.tau * round_, True))
        case Arc(centre=c, radius=r, start=start, sweep=sweep):
            more = OVER / (r * factor) * math.copysign(1, sweep)
            start, sweep = start - more, sweep + 2 * more
            dash = centre_dashes(abs(sweep) * r * factor)
            spot = c * factor
            yield DrawnArc(spot.x, spot.y, r * factor, math.degrees(start), math.degrees(sweep), "centre", dash=dash)
        case Line():
            ends = _run_past(curve, view)
            if ends:
                a, b = ends
                yield DrawnLine(a.x, a.y, b.x, b.y, "centre", dash=centre_dashes(abs(b - a)))


def _run_past(line: Line, view: View) -> tuple[Point, Point] | None:
    """Return the ends on paper: a little past its own, or past the view for an endless one."""
    ahead = line.direction
    if line.start is not None and line.end is not None:
        return line.at(line.start) * view.factor - ahead * OVER, line.at(line.end) * view.factor + ahead * OVER
    through, start, end = line.through * view.factor, -math.inf, math.inf
    for place, step, least, most in (
        (through.x, ahead.x, view.low.x, view.high.x),
        (through.y, ahead.y, view.low.y, view.high.y),
    ):
        if abs(step) > NOUGHT:
            one, other = sorted(((least - place) / step, (most - place) / step))
            start, end = max(start, one), min(end, other)
    if not start < end:
        return None
    return through + ahead * (start - OVER - 2), through + ahead * (end + OVER + 2)


def _hatched(note: Hatching, view: View) -> Iterator[Mark]:
    for line in hatch_lines(note.loops, note.angle, note.spacing / view.factor):
        assert line.end is not None
        a, b = line.through * view.factor, line.at(line.end) * view.factor
        yield DrawnLine(a.x, a.y, b.x, b.y, "hatch")


TICK = 3.0
"""Strokes of a scale bar, mm."""


def _scale_bar(note: ScaleBar, view: View) -> Iterator[Mark]:
    start, step = note.at * view.factor, note.ahead * (note.each * view.factor)
    up = note.ahead.normal if note.ahead.normal.y >= 0 else -note.ahead.normal
    end = start + step * (len(note.figures) - 1)
    yield DrawnLine(start.x, start.y, end.x, end.y, "dimension")
    angle = math.degrees(note.ahead.angle)
    upright = angle if -90 < angle <= 90 else angle + 180
    for index, figure in enumerate(note.figures):
        foot = start + step * index
        tip, text = foot + up * TICK, foot + up * (TICK + 1.0)
        yield DrawnLine(foot.x, foot.y, tip.x, tip.y, "dimension")
        yield Lettering(figure, text.x, text.y, LETTERS, "middle", "dimension", angle=upright)


def _label(note: Label, view: View, taken: Occupied) -> Iterator[Mark]:
    at = note.at * view.factor
    if note.target is None:
        mark = Lettering(note.text, at.x, at.y - note.height / 2, note.height, "middle", "label")
        taken.take(_box(mark))
        yield mark
        return
    target = note.target * view.factor
    side = 1 if at.x >= target.x else -1
    landing = Point(at.x + 2 * side, at.y)
    yield DrawnLine(target.x, target.y, at.x, at.y, "dimension")
    yield DrawnLine(at.x, at.y, landing.x, landing.y, "dimension")
    yield _arrow(target, (target - at).unit)
    anchor = "start" if side > 0 else "end"
    mark = Lettering(note.text, landing.x + 0.6 * side, at.y - note.height / 2, note.height, anchor, "label")  # type: ignore[arg-type]
    taken.take(_box(mark))
    yield mark


TURNED = 50.0
"""Degrees a rotation arrow runs through, beside what turns."""


def _rotation(note: RotationArrow, view: View) -> Iterator[Mark]:
    centre, radius = note.centre * view.factor, note.radius * view.factor
    start, end = 90 - note.way * (90 + TURNED / 2), 90 - note.way * (90 - TURNED / 2)
    yield DrawnArc(centre.x, centre.y, radius, start, end - start, "dimension")
    tip = centre + polar(radius, math.radians(end))
    # The head is straight and the arc is not: it points along the chord of its own length.
    lean = math.degrees(ARROW / 2 / max(radius, ARROW))
    yield Arrowhead(tip.x, tip.y, end + note.way * (90 - lean))
