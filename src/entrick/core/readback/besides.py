"""What is drawn beside the outlines: centre lines, and lines that lie over a side."""

from __future__ import annotations

from collections.abc import Sequence

from ..geometry import Arc, Circle, Line, Point
from ..geometry.ellipse import Ellipse
from ..geometry.loop import boxed
from ..geometry.shapes import ends as ends_of
from .profile import Run, is_closed, loop_of, middle_of, pieces_of

MOST = 200
"""Open runs that are looked at."""


def without_besides(
    runs: Sequence[Run], within: float, notes: list[str], keep: bool = False
) -> tuple[list[Run], int]:
    """Return outlines without centre lines, and without what lies over a side of another, and how
    many are centre lines; told is what was left out, and what stays open. Where nothing closes,
    everything stays.

    Parameters
    ----------
    runs : sequence of tuple
    within : float
        How far places may be off.
    notes : list of str
        What was left out is added to it.
    keep : bool
        What looks like a centre line is part of the outline: a groove, or a cut right through.
    """
    closed = [run for run in runs if is_closed(run, within)]
    opened = [run for run in runs if not is_closed(run, within)]
    if not closed or not opened or len(opened) > MOST:
        _tell_open(opened, within, notes)
        return list(runs), 0
    rings = [boxed(loop_of(run)) for run in closed]
    over = [
        run
        for run in opened
        if any(
            all(abs(ring.nearest(spot) - spot) <= within for spot in _places(run)) for ring in rings
        )
    ]
    centres = _centres(closed)
    through = [run for run in opened if run not in over and _is_centre_line(run, centres, within)]
    if over:
        notes.append(f"{_count(len(over), 'piece')} over a side of an outline left out")
    left = over if keep else [*over, *through]
    if through and not keep:
        notes.append(f"{_count(len(through), 'centre line')} left out")
    _tell_open([run for run in opened if run not in left], within, notes)
    return [run for run in runs if run not in left], len(through)


def _tell_open(opened: Sequence[Run], within: float, notes: list[str]) -> None:
    count = sum(map(len, opened))
    if count:
        closes, stays = ("closes", "stays") if count == 1 else ("close", "stay")
        notes.append(
            f"{_count(count, 'piece')} {closes} with no others within {within:g}, and {stays} open"
        )


def _count(count: int, what: str) -> str:
    return f"{count} {what}{'' if count == 1 else 's'}"


def _places(run: Run) -> list[Point]:
    """Return places of an open run: ends, middles, and quarters between."""
    points: list[Point] = []
    for piece in pieces_of(run):
        a, b = ends_of(piece)
        points += [a, middle_of(piece), b]
        if isinstance(piece, Line):
            points += [a * 0.75 + b * 0.25, a * 0.25 + b * 0.75]
        else:
            points += [piece.at(piece.start + piece.sweep * share) for share in (0.25, 0.75)]
    return points


def _centres(closed: Sequence[Run]) -> list[tuple[Point, float]]:
    """Return the centres of what is round, and of what is alike both ways, with how far it
    reaches."""
    result: list[tuple[Point, float]] = []
    for run in closed:
        for curve in run:
            if isinstance(curve, Arc | Circle):
                result.append((curve.centre, curve.radius))
            elif isinstance(curve, Ellipse):
                result.append((curve.centre, curve.b))
        low, high = loop_of(run).box
        result.append(((low + high) * 0.5, min(high.x - low.x, high.y - low.y) / 2))
    return result


def _is_centre_line(run: Run, centres: Sequence[tuple[Point, float]], within: float) -> bool:
    """Tell whether an open run is one straight line that goes through a centre and out on both
    sides, or stands in the centre as a cross does."""
    line = run[0]
    if len(run) > 1 or not isinstance(line, Line):
        return False
    a, b = ends_of(line)
    for centre, reach in centres:
        if abs(line.offset_of(centre)) > within or (a - centre).dot(b - centre) >= 0:
            continue
        sides = abs(a - centre), abs(b - centre)
        if min(sides) > reach or abs(sides[0] - sides[1]) <= 2 * within:
            return True
    return False
