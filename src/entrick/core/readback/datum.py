"""Where the places of a profile are told from, and the sheet it goes on."""

from __future__ import annotations

import math

from ..geometry import Arc, Circle, Line, Point, meet
from ..geometry.ellipse import Ellipse
from ..geometry.shapes import ends as ends_of
from ..measure import Unit
from .profile import Curve, Profile, Run, box_of, is_closed, is_whole, loop_of, pieces_of
from .ready.rounded import is_boxed
from .simplest import cost, simplest
from .symmetry import Axes, rim_of, times_round
from .tangent import runs_into

PAPERS = (("A4", 297, 210), ("A3", 420, 297), ("A2", 594, 420), ("A1", 841, 594))
SCALES = ("1:1", "1:2", "1:5", "1:10", "1:20", "1:50", "1:100")
ROOM = 70.0
"""Of a paper, border, strip and room for dimensions, mm (by eye)."""

LOOKED_AT = 200
"""Places by which a datum is chosen."""

MOST_TRIED = 4
"""Datums from which a plan is written to see which needs the fewest numbers."""


def datums(
    profile: Profile, axes: Axes, unit: Unit, within: float, fine: float, copies: bool
) -> list[Point]:
    """Return where places may be told from, the simplest first: on the axes if there are any; a
    centre, the middle, a corner.

    Parameters
    ----------
    profile : Profile
    axes : Axes
        Of the rim.
    unit : Unit
        In which numbers are to be simple.
    within : float
        How far pieces may be off, in that unit.
    fine : float
        How far a single number may be.
    copies : bool
        Whether what comes again is looked for.
    """
    low, high = box_of(profile.runs)
    curves: list[Curve] = [curve for run in profile.runs for curve in run]
    outside = rim_of(profile.runs)
    # Openings are told by where they stand, the rim by its corners.
    middles = [loop_of(run).centroid for n, run in enumerate(profile.runs) if n != outside]
    rounds = [c.centre for c in curves if not isinstance(c, Line)]
    spots = [*_corners(profile.runs[outside]), *middles, *rounds][:LOOKED_AT]
    centres = [c.centre for c in curves if isinstance(c, Circle | Ellipse)][:20]
    rim = profile.runs[outside]
    if axes.plumb and axes.level:
        return [axes.centre]
    if is_boxed(rim, within):
        return [(low + high) * 0.5]
    if copies and is_closed(rim, within) and not is_whole(rim) and times_round(rim, within)[0] > 1:
        # What comes again is so far round the middle of its joints, which are what a file writes.
        joints = [ends_of(piece)[0] for piece in pieces_of(rim)]
        return [Point(*(sum(values) / len(joints) for values in zip(*joints, strict=True)))]
    arcs = [curve for curve in curves if isinstance(curve, Arc)]
    longest = sorted(arcs, key=lambda arc: -arc.radius * abs(arc.sweep))
    tried = [
        *centres,
        *(arc.centre for arc in longest[:20] if abs(arc.sweep) > math.pi),
        (low + high) * 0.5,
        Point(0.0, 0.0),
        low,
        *spots,
    ][:80]
    if axes.plumb:
        tried = [Point(axes.centre.x, spot.y) for spot in (*tried, high)]
    elif axes.level:
        tried = [Point(spot.x, axes.centre.y) for spot in (*tried, high)]

    def figures(at: Point) -> float:
        """Return how many figures all places take: what comes again is given once."""
        across = {simplest(abs(spot.x - at.x), unit, fine) for spot in spots}
        up = {simplest(abs(spot.y - at.y), unit, fine) for spot in spots}
        return sum(map(cost, across)) + sum(map(cost, up))

    best = sorted(tried, key=figures)
    found: list[Point] = []
    for spot in (best[0], *(arc.centre for arc in longest[:2]), *best[1:]):
        if all(abs(spot - other) > within for other in found):
            found.append(spot)
    return found[:MOST_TRIED]


def _corners(run: Run) -> list[Point]:
    """Return the corners of a run, those that are rounded where their sides would meet; no touch
    points, which nobody measures."""
    pieces = pieces_of(run)
    points = [
        ends_of(piece)[0]
        for k, piece in enumerate(pieces)
        if not runs_into(pieces[k - 1], piece, ends_of(piece)[0])
    ]
    for k, piece in enumerate(pieces):
        one, two = pieces[k - 1], pieces[(k + 1) % len(pieces)]
        if isinstance(piece, Arc) and isinstance(one, Line) and isinstance(two, Line):
            points += [
                crossing.point
                for crossing in meet(*(Line(each.through, each.direction) for each in (one, two)))
            ]
    return points


def sheet_for(runs: tuple[Run, ...], unit: Unit) -> str:
    """Return the smallest sheet, and the largest scale on it, that a profile and its dimensions
    have room on."""
    low, high = box_of(runs)
    wide, high_ = ((high.x - low.x) * float(unit.mm), (high.y - low.y) * float(unit.mm))
    for scale in SCALES:
        ratio = 1 / float(scale.partition(":")[2])
        for paper, across, up in PAPERS if scale == "1:1" else PAPERS[1:3]:
            if wide * ratio <= across - ROOM and high_ * ratio <= up - ROOM:
                return f"{paper} landscape, scale {scale}"
    return "A1 landscape, scale 1:200"
