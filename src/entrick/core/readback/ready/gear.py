"""Involute teeth all round: how many, module or diametral pitch, pressure angle, proportions and
how the flanks are drawn, as far as they give the very outline."""

from __future__ import annotations

import math
from collections.abc import Iterator

from ...geometry import Arc, Loop, Point, rotate
from ...geometry.shapes import ends as ends_of
from ...measure import Unit
from ...plan.reader import read_plan
from ...rules.gear import PROPORTIONS
from ...solve import solve
from ..match import departures
from ..profile import Piece, Run, loop_of, pieces_of
from ..rows import Rows
from ..simplest import simplest
from ..teeth import teeth_in

FEWEST_TEETH = 6
PRESSURES = ("20°", "14.5°", "25°")
FLANKS = ("by involute", "by arcs", "by arc")


def written(run: Run, rows: Rows) -> str:
    """Write a run that is a gear, or the inside of an internal one."""
    pieces = pieces_of(run)
    if len(pieces) < 4 * FEWEST_TEETH:
        return ""
    centre = loop_of(run).centroid
    near = rows.within * 4
    far = [abs(spot - centre) for piece in pieces for spot in ends_of(piece)]
    about = [
        piece for piece in pieces if isinstance(piece, Arc) and abs(piece.centre - centre) <= near
    ]
    tips = [arc for arc in about if abs(arc.radius - max(far)) <= near]
    # What comes again is counted by the tips: a file may have the same flank in more pieces here
    # than there.
    teeth = len(tips)
    if teeth < FEWEST_TEETH:
        return ""
    tip = min(
        tips,
        key=lambda arc: abs(math.remainder((arc.middle - centre).angle - math.pi / 2, math.tau)),
    )
    upright = math.remainder((tip.middle - centre).angle - math.pi / 2, math.tau / teeth)
    sector = [
        spot
        for piece in pieces[: 2 * len(pieces) // teeth + 2]
        for spot in (ends_of(piece)[0], _middle(piece))
    ]
    for said in _guesses(teeth, min(far), max(far), rows):
        spots = [rotate(spot - centre, Point(0.0, 0.0), -upright) for spot in sector]
        loop = _loop(said.replace("CENTRE", "O"), rows)
        if loop is not None and all(
            off <= rows.within for off in departures(spots, loop, rows.within)
        ):
            rows.count(said)
            turned = _turned(upright, teeth, max(far), rows)
            return rows.add("g", said.replace("CENTRE", rows.point(centre)) + turned)
    fitted = teeth_in(run, rows.within / 2, rows.unit, 0.0)
    if fitted and max(fitted.flank, fitted.root) <= rows.within:
        turned = _turned(fitted.turned, teeth, max(far), rows)
        rows.count(fitted.said)
        return rows.add("g", fitted.said.replace("CENTRE", rows.point(centre)) + turned)
    return ""


def _turned(upright: float, teeth: int, outside: float, rows: Rows) -> str:
    """Return where the first tooth points, counted from the right; nothing where one stands
    upright."""
    if abs(upright) * outside <= rows.fine:
        return ""
    way = math.remainder(upright + math.pi / 2, math.tau / teeth)
    return f", turned {rows.say_angle(way, outside)}"


def _middle(piece: Piece) -> Point:
    a, b = ends_of(piece)
    return piece.middle if isinstance(piece, Arc) else (a + b) * 0.5


def _guesses(teeth: int, inner: float, outer: float, rows: Rows) -> Iterator[str]:
    """Yield the gears whose outside and root are those of a run."""
    for inside in (False, True):
        for proportions, (addendum, dedendum) in PROPORTIONS.items():
            out, back = (dedendum, addendum) if inside else (addendum, dedendum)
            module = 2 * outer / (teeth + 2 * out)
            if abs(module * (teeth - 2 * back) / 2 - inner) > rows.within * 4:
                continue
            kind = "internal gear" if inside else "gear"
            size = _size(module, rows)
            for flanks in FLANKS:
                for pressure in PRESSURES:
                    # What is usual is not said.
                    usual = ("pressure 20°", "proportions full", "by involute")
                    shape = (f"pressure {pressure}", f"proportions {proportions}", flanks)
                    more = "".join(f", {each}" for each in shape if each not in usual)
                    yield f"{kind}, about CENTRE, {teeth} teeth, {size}{more}"


def _size(module: float, rows: Rows) -> str:
    """Return a module as it is written; in inches the diametral pitch where that is the rounder
    number."""
    pitch = 1 / module
    if rows.unit is Unit.INCH and abs(pitch - round(pitch)) <= rows.within * pitch:
        return f"diametral pitch {round(pitch)}"
    return f"module {simplest(module, rows.unit, rows.fine / 4)}"


def _loop(said: str, rows: Rows) -> Loop | None:
    text = (
        f"units {rows.unit.value}\nsheet A0\nO = datum, middle of sheet\ng = {said}\nrim = "
        "line in, g\n"
    )
    made = solve(read_plan(text)).entries[-1].made
    return made.loops[0] if made and made.loops else None
