"""What a tool goes along: a path the way round that is asked for, with its lead, in stretches with
tabs or slow corners between."""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from itertools import pairwise

from ..geometry import Arc, Line, Point
from ..plan.errors import ClauseError
from .blocks import drawn, length_of
from .machine import Machine
from .paths import Cut, Lead

FULLEST = 0.6
"""Of a rim, how much of it may be tabs."""

SHARP = math.radians(20)
"""Turn of a corner before and behind which a torch goes slowly (common practice, no source)."""

Move = Line | Arc


@dataclass(frozen=True, slots=True)
class Stretch:
    """A move, and whether it is over a tab, or slow."""

    move: Move
    tab: bool = False
    slow: bool = False


def directed(cut: Cut, machine: Machine) -> Cut:
    """Return a cut that goes the way round that is asked for: climb is clockwise round a rim."""
    clockwise = cut.path.area < 0
    wanted = (machine.direction == "climb") != cut.hole
    return cut if clockwise == wanted else _backwards(cut)


def _backwards(cut: Cut) -> Cut:
    lead = cut.lead and Lead(_arc_back(cut.lead.out_of), _arc_back(cut.lead.into))
    return replace(cut, path=cut.path.reversed, lead=lead)


def _arc_back(arc: Arc) -> Arc:
    return Arc(arc.centre, arc.radius, arc.start + arc.sweep, -arc.sweep)


def leads(cut: Cut, machine: Machine) -> tuple[list[Move], list[Move]]:
    """Return the moves into a path and out of it."""
    if cut.lead is None or machine.lead == "none":
        return [], []
    into, out_of = cut.lead.into, cut.lead.out_of
    if machine.lead == "line":
        return [Line.between(into.first, into.last)], [Line.between(out_of.first, out_of.last)]
    return [into], [out_of]


def start_of(cut: Cut, machine: Machine) -> Point:
    """Return where the tool goes in."""
    into, _ = leads(cut, machine)
    return _first(into[0]) if into else cut.path.pieces[0].entry


def moves_of(cut: Cut) -> list[Move]:
    """Return the moves along a path."""
    return [move for piece in cut.path.pieces for move in drawn(piece)]


def with_tabs(cut: Cut, machine: Machine, tool: float) -> list[Stretch]:
    """Return a path in stretches, with as many tabs on a rim as are asked for, evenly spaced; what
    falls out of a hole is waste, and needs none.

    Raises
    ------
    ClauseError
        Where there is no room for them.
    """
    moves = moves_of(cut)
    if not machine.tabs or cut.hole:
        return [Stretch(move) for move in moves]
    whole = math.fsum(map(length_of, moves))
    # The tool is round: it takes half its width off a tab on either side.
    wide = machine.tab_width + tool
    if wide * machine.tabs > FULLEST * whole:
        raise ClauseError(
            f"{cut.name} has no room for {machine.tabs} tabs of {machine.tab_width:.4g}"
        )
    centres = [whole * (k + 0.5) / machine.tabs for k in range(machine.tabs)]
    spans = [(at - wide / 2, at + wide / 2) for at in centres]
    return [Stretch(move, tab=inside) for move, inside in _parted(moves, spans)]


def with_slow(cut: Cut, machine: Machine) -> list[Stretch]:
    """Return a path in stretches, slow near sharp corners and all round a small hole."""
    moves = moves_of(cut)
    near = machine.slow_within
    if machine.slow >= 100 or near <= 0:
        return [Stretch(move) for move in moves]
    low, high = cut.path.box
    if cut.hole and max(high.x - low.x, high.y - low.y) / 2 <= near:
        return [Stretch(move, slow=True) for move in moves]
    spans: list[tuple[float, float]] = []
    at, before = 0.0, moves[-1]
    for move in moves:
        long = length_of(move)
        if _bend(before, move) > SHARP:
            spans.append((at - near, at + near))
        if isinstance(move, Arc) and move.radius < near and abs(move.sweep) > SHARP:
            spans.append((at - near, at + long + near))
        at, before = at + long, move
    # The end comes before the beginning.
    spans += [(a + at, b + at) for a, b in spans if a < 0]
    return [Stretch(move, slow=inside) for move, inside in _parted(moves, spans)]


def _bend(one: Move, other: Move) -> float:
    a, b = _heading(one, last=True), _heading(other, last=False)
    return abs(math.atan2(a.cross(b), a.dot(b)))


def _heading(move: Move, last: bool) -> Point:
    if isinstance(move, Line):
        return move.direction
    out = ((move.last if last else move.first) - move.centre).unit
    return out.normal if move.sweep > 0 else -out.normal


def _first(move: Move) -> Point:
    return move.first if isinstance(move, Arc) else move.at(move.start or 0.0)


def _parted(
    moves: Sequence[Move], spans: Sequence[tuple[float, float]]
) -> Iterator[tuple[Move, bool]]:
    """Yield moves parted where a span begins or ends, and whether each lies in one."""
    at = 0.0
    for move in moves:
        long = length_of(move)
        inner = (edge - at for span in spans for edge in span)
        marks = sorted({0.0, long, *(mark for mark in inner if 0 < mark < long)})
        for a, b in pairwise(marks):
            middle = at + (a + b) / 2
            yield _part(move, a, b), any(low < middle < high for low, high in spans)
        at += long


def _part(move: Move, a: float, b: float) -> Move:
    if isinstance(move, Line):
        return Line.between(move.at(a), move.at(b))
    way = math.copysign(1 / move.radius, move.sweep)
    return Arc(move.centre, move.radius, move.start + a * way, (b - a) * way)
