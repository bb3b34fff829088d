"""A slot with round ends: straight, or about a centre."""

from __future__ import annotations

import math
from collections.abc import Sequence

from ...geometry import Arc, Line, Point
from ..profile import Run, middle_of, pieces_of
from ..rows import Rows
from ..simplest import cost


def written(run: Run, rows: Rows) -> str:
    """Write a run that is a slot."""
    pieces = pieces_of(run)
    if len(pieces) != 4:
        return ""
    arcs = [piece for piece in pieces if isinstance(piece, Arc)]
    if len(arcs) == 4:
        return _curved(arcs, rows)
    return (_straight(pieces, arcs, rows) or _aiming(pieces, arcs, rows)) if len(arcs) == 2 else ""


def _straight(pieces: list[Line | Arc], arcs: list[Arc], rows: Rows) -> str:
    near = rows.within
    if isinstance(pieces[0], Arc) == isinstance(pieces[1], Arc):
        return ""
    half_turns = all(abs(abs(arc.sweep) - math.pi) * arc.radius <= near * 2 for arc in arcs)
    if (
        not half_turns
        or arcs[0].sweep * arcs[1].sweep < 0
        or abs(arcs[0].radius - arcs[1].radius) > near
    ):
        return ""
    first, second = sorted((arc.centre for arc in arcs), key=lambda p: (round(p.x / near), p.y))
    way, middle = second - first, (first + second) * 0.5
    width = f"width {rows.say(arcs[0].radius * 2, 'diameter')}"
    lies = "level" if abs(way.y) <= near else "plumb" if abs(way.x) <= near else ""
    by_ends = rows.figures(first) + rows.figures(second)
    by_middle = rows.figures(middle) + cost(rows.simple(abs(way)))
    if lies and by_middle <= by_ends:
        between = f"{rows.say(abs(way), 'size')} between centres"
        name = rows.add("s", f"slot, centred on {rows.point(middle)}, {between}, {lies}, {width}")
        for spot, part in ((first, "first"), (second, "second")):
            rows.remember(spot, f"{name}.{part}")
        return name
    return rows.add("s", f"slot, from {rows.point(first)} to {rows.point(second)}, {width}")


def _curved(arcs: list[Arc], rows: Rows) -> str:
    near = rows.within
    for k in (0, 1):
        long, short = (arcs[k], arcs[k + 2]), (arcs[1 - k], arcs[3 - k])
        centre = long[0].centre
        inner, outer = sorted(arc.radius for arc in long)
        half = (outer - inner) / 2
        if abs(long[1].centre - centre) > near or half <= near:
            continue
        if any(
            abs(arc.radius - half) > near or abs(abs(arc.sweep) - math.pi) * half > near * 4
            for arc in short
        ):
            continue
        if any(abs(abs(arc.centre - centre) - (inner + outer) / 2) > near for arc in short):
            continue
        return _about(centre, inner, outer, long, short, rows)
    return ""


def _aiming(pieces: list[Line | Arc], arcs: list[Arc], rows: Rows) -> str:
    """Write a slot whose ends aim at its centre."""
    centre, near = arcs[0].centre, rows.within
    lines = [piece for piece in pieces if isinstance(piece, Line)]
    if abs(arcs[1].centre - centre) > near or any(
        abs(line.offset_of(centre)) > near * 2 for line in lines
    ):
        return ""
    inner, outer = sorted(arc.radius for arc in arcs)
    if outer - inner <= near:
        return ""
    ends = [(middle_of(line) - centre).angle for line in lines]
    return _said(centre, inner, outer, (arcs[0], arcs[1]), ends, "aiming", rows)


def _about(
    centre: Point,
    inner: float,
    outer: float,
    long: tuple[Arc, Arc],
    short: tuple[Arc, Arc],
    rows: Rows,
) -> str:
    return _said(
        centre, inner, outer, long, [(arc.centre - centre).angle for arc in short], "round", rows
    )


def _said(
    centre: Point,
    inner: float,
    outer: float,
    long: tuple[Arc, Arc],
    angles: Sequence[float],
    how: str,
    rows: Rows,
) -> str:
    middle = (inner + outer) / 2
    sweep = abs(long[0].sweep)
    through = (middle_of(long[0]) - centre).angle
    ends = sorted(angles, key=lambda angle: math.remainder(angle - through, math.tau))
    if abs((ends[1] - ends[0]) % math.tau - sweep) * middle > rows.within * 8:
        return ""
    by_radii = cost(rows.simple(inner)) + cost(rows.simple(outer))
    by_width = cost(rows.simple(middle)) + cost(rows.simple(outer - inner))
    if by_width < by_radii:
        size = f"radius {rows.say(middle, 'radius')}, width {rows.say(outer - inner, 'diameter')}"
    else:
        size = f"radii {rows.say(inner, 'radius')} and {rows.say(outer, 'radius')}"
    start, last = (rows.say_angle(angle, outer) for angle in ends)
    return rows.add(
        "s", f"slot, about {rows.point(centre)}, {size}, from {start} to {last}, ends {how}"
    )
