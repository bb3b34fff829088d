"""Corners rounded: what is left when the rounds are taken away is a box, a regular polygon, or a
run of legs."""

from __future__ import annotations

import math
from collections.abc import Sequence

from ...geometry import Arc, Line, Point, meet
from ...geometry.shapes import ends as ends_of
from ..profile import Piece, Run, pieces_of
from ..rows import Rows
from ..simplest import cost
from ..tangent import runs_into
from . import box, legs, polygon


def boxed(run: Run, rows: Rows) -> str:
    """Write a level rectangle with rounded corners: it is alike on both sides as it stands."""
    return written(run, rows) if is_boxed(run, rows.within) else ""


def is_boxed(run: Run, within: float) -> bool:
    """Tell whether a run is a level rectangle, with rounded corners or without."""
    return box.is_box([spot for spot, _ in cornered(pieces_of(run), within) or []], within)


def written(run: Run, rows: Rows) -> str:
    """Write a run of lines with rounded corners."""
    pieces = pieces_of(run)
    if not any(isinstance(piece, Arc) for piece in pieces):
        return ""
    corners = cornered(pieces, rows.within)
    if corners is None:
        return ""
    spots = [spot for spot, _ in corners]
    # Where the centres are the simpler places, lines touch rounds about them: no corner was given.
    rounds = [(spot, arc.centre) for spot, arc in corners if arc]
    if not box.is_box(spots, rows.within) and _figures(rows, [a for a, _ in rounds]) > _figures(
        rows, [b for _, b in rounds]
    ) + len(rounds):
        return ""
    base = (
        box.of_corners(spots, rows)
        or polygon.of_corners(spots, rows)
        or legs.of_corners(spots, rows)
    )
    if not base:
        return ""
    name = base
    radii: list[list[tuple[Point, float]]] = []
    for spot, arc in corners:
        if arc:
            like = next(
                (group for group in radii if abs(group[0][1] - arc.radius) <= rows.within), None
            )
            if like is None:
                radii.append([(spot, arc.radius)])
            else:
                like.append((spot, arc.radius))
    for group in radii:
        size = f"radius {rows.say(group[0][1], 'radius')}"
        every = len(group) == len(spots)
        named = "" if every else " ".join(rows.point(spot) for spot, _ in group)
        name = rows.add(
            "f", f"rounded, {'all corners' if every else f'corners {named}'} of {name}, {size}"
        )
        if base.startswith("b") and every:
            # A box is gone round from its lower left corner; rounds are counted from the first
            # corner on.
            by_corner = {rows.known(spot): arc.centre for spot, arc in corners if arc}
            for k, corner in enumerate(
                ("lower_right", "upper_right", "upper_left", "lower_left"), 1
            ):
                if f"{base}.{corner}" in by_corner:
                    rows.remember(by_corner[f"{base}.{corner}"], f"{name}.centre.{k}")
    return name


def cornered(pieces: list[Piece], within: float) -> list[tuple[Point, Arc | None]] | None:
    """Return the corners there would be without rounds, each with its round; None where there are
    other curves."""
    count = len(pieces)
    found: list[tuple[Point, Arc | None]] = []
    for k, piece in enumerate(pieces):
        before, after = pieces[k - 1], pieces[(k + 1) % count]
        if isinstance(piece, Arc):
            if (
                not (isinstance(before, Line) and isinstance(after, Line))
                or abs(piece.sweep) >= math.pi * 0.99
            ):
                return None
            if not (
                runs_into(before, piece, piece.first, within)
                and runs_into(piece, after, piece.last, within)
            ):
                return None
            crossing = meet(
                Line(before.through, before.direction), Line(after.through, after.direction)
            )
            if not crossing:
                return None
            found.append((crossing[0].point, piece))
        elif isinstance(before, Line):
            found.append((ends_of(piece)[0], None))
    return found if len(found) >= 3 else None


def _figures(rows: Rows, spots: Sequence[Point]) -> float:
    return sum(cost(rows.simple(abs(value))) for spot in spots for value in spot)
