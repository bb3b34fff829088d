"""Centre lines, hatching, scale bars and arrows of rotation."""

from __future__ import annotations

import math
from collections.abc import Iterator

from ..drawing.marks import Arrowhead, DrawnArc, DrawnCircle, DrawnLine, Lettering, Mark
from ..drawing.notes import CentreLine, Hatching, RotationArrow, ScaleBar
from ..geometry import Arc, Circle, Line, Point, polar
from ..geometry.hatch import hatch_lines
from ..tolerance import NOUGHT
from .chain import centre_dashes
from .occupied import Occupied
from .style import ARROW, LETTERS, OVER, View


def centre_line(note: CentreLine, view: View) -> Iterator[Mark]:
    curve, factor = note.along, view.factor
    match curve:
        case Circle(centre=c, radius=r):
            round_ = r * factor
            spot = c * factor
            yield DrawnCircle(
                spot.x, spot.y, round_, "centre", dash=centre_dashes(math.tau * round_, True)
            )
        case Arc(centre=c, radius=r, start=start, sweep=sweep):
            more = OVER / (r * factor) * math.copysign(1, sweep)
            start, sweep = start - more, sweep + 2 * more
            dash = centre_dashes(abs(sweep) * r * factor)
            spot = c * factor
            yield DrawnArc(
                spot.x,
                spot.y,
                r * factor,
                math.degrees(start),
                math.degrees(sweep),
                "centre",
                dash=dash,
            )
        case Line():
            ends = _run_past(curve, view)
            if ends:
                a, b = ends
                yield DrawnLine(a.x, a.y, b.x, b.y, "centre", dash=centre_dashes(abs(b - a)))


def _run_past(line: Line, view: View) -> tuple[Point, Point] | None:
    """Return the ends on paper: a little past its own, or past the view for an endless one."""
    ahead = line.direction
    if line.start is not None and line.end is not None:
        return line.at(line.start) * view.factor - ahead * OVER, line.at(
            line.end
        ) * view.factor + ahead * OVER
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


def hatched(note: Hatching, view: View, taken: Occupied) -> Iterator[Mark]:
    """Draw hatching, broken where figures stand in it."""
    for line in hatch_lines(note.loops, note.angle, note.spacing / view.factor):
        assert line.end is not None
        a, b = line.through * view.factor, line.at(line.end) * view.factor
        for start, end in taken.free_of_boxes((a.x, a.y, b.x, b.y)):
            one, other = a + (b - a) * start, a + (b - a) * end
            yield DrawnLine(one.x, one.y, other.x, other.y, "hatch")


TICK = 3.0
"""Strokes of a scale bar, mm."""


def scale_bar(note: ScaleBar, view: View) -> Iterator[Mark]:
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


TURNED = 50.0
"""Degrees a rotation arrow runs through, beside what turns."""


def rotation_arrow(note: RotationArrow, view: View) -> Iterator[Mark]:
    centre, radius = note.centre * view.factor, note.radius * view.factor
    start, end = 90 - note.way * (90 + TURNED / 2), 90 - note.way * (90 - TURNED / 2)
    yield DrawnArc(centre.x, centre.y, radius, start, end - start, "dimension")
    tip = centre + polar(radius, math.radians(end))
    # The head is straight and the arc is not: it points along the chord of its own length.
    lean = math.degrees(ARROW / 2 / max(radius, ARROW))
    yield Arrowhead(tip.x, tip.y, end + note.way * (90 - lean))
