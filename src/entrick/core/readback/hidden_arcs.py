"""Arcs hidden in straight pieces: a polyline that goes round in short chords, or points measured along a round."""

from __future__ import annotations

import math
from collections.abc import Sequence
from itertools import pairwise

from ..geometry import Arc, Circle, Line, Point
from ..geometry.shapes import ends as ends_of
from ..tolerance import NOUGHT
from .profile import Piece, Run, pieces_of

FEWEST = 5
"""Chords that make an arc: fewer lie on a circle by chance, or are corners that somebody meant."""

STEEPEST = math.radians(22)
"""Turn from chord to chord above which it is the corner of a polygon."""


def with_arcs(run: Run, within: float) -> Run:
    """Return a run in which stretches of chords along a circle are arcs.

    Parameters
    ----------
    run : tuple
        Closed.
    within : float
        How far corners may lie from the circle.
    """
    pieces = pieces_of(run)
    if len(pieces) < FEWEST:
        return run
    start = _corner(pieces)
    if start is None:
        round_all = _circle([ends_of(piece)[0] for piece in pieces], within)
        return (round_all,) if round_all else run
    pieces = [*pieces[start:], *pieces[:start]]
    found: list[Piece] = []
    k = 0
    while k < len(pieces):
        count = _longest(pieces, k, within)
        if count < FEWEST:
            found.append(pieces[k])
            k += 1
            continue
        spots = [ends_of(piece)[0] for piece in pieces[k : k + count]] + [ends_of(pieces[k + count - 1])[1]]
        found.append(_arc(spots))
        k += count
    return tuple(found)


def _corner(pieces: Sequence[Piece]) -> int | None:
    """Return a piece before which there is a corner or an end of a round; None where it goes round evenly all along."""
    turns = [_turn(pieces[k - 1], pieces[k]) for k in range(len(pieces))]
    lengths = [abs(ends_of(piece)[1] - ends_of(piece)[0]) for piece in pieces]
    for k in range(len(pieces)):
        if turns[k] is None or abs(turns[k] or 0.0) > STEEPEST:
            return k
    for k in range(len(pieces)):
        if max(lengths[k], lengths[k - 1]) > 3 * min(lengths[k], lengths[k - 1]):
            return k
    for k in range(len(pieces)):
        before, here = turns[k - 1] or 0.0, turns[k] or 0.0
        if before * here < 0:
            return k
    return None


def _turn(first: Piece, second: Piece) -> float | None:
    if not (isinstance(first, Line) and isinstance(second, Line)):
        return None
    return math.atan2(first.direction.cross(second.direction), first.direction.dot(second.direction))


def _longest(pieces: Sequence[Piece], start: int, within: float) -> int:
    """Return how many pieces from one on lie along one circle."""
    most = 1
    while start + most < len(pieces):
        turn = _turn(pieces[start + most - 1], pieces[start + most])
        if turn is None or not NOUGHT < abs(turn) <= STEEPEST:
            break
        first = _turn(pieces[start], pieces[start + 1])
        if first is not None and first * turn < 0:
            break
        most += 1
    if most < FEWEST:
        return most
    corners = [ends_of(piece)[0] for piece in pieces[start : start + most]] + [ends_of(pieces[start + most - 1])[1]]
    low, high = FEWEST - 1, most
    if not _circle(corners[: FEWEST + 1], within):
        return 1
    # What lies along a circle does so in each of its parts: the end is found by halving.
    while low < high:
        middle = (low + high + 1) // 2
        if _circle(corners[: middle + 1], within):
            low = middle
        else:
            high = middle - 1
    return low


def _circle(spots: Sequence[Point], within: float) -> Circle | None:
    """Return the circle by least squares (Kåsa's, closed form) that all places lie along; None where they do not."""
    count = len(spots)
    mx, my = sum(p.x for p in spots) / count, sum(p.y for p in spots) / count
    u, v = [p.x - mx for p in spots], [p.y - my for p in spots]
    suu, svv, suv = (sum(a * b for a, b in zip(*pair, strict=True)) for pair in ((u, u), (v, v), (u, v)))
    square = [a * a + b * b for a, b in zip(u, v, strict=True)]
    su, sv = (sum(a * b for a, b in zip(square, each, strict=True)) / 2 for each in (u, v))
    worth = suu * svv - suv * suv
    if abs(worth) < NOUGHT:
        return None
    centre = Point(mx + (su * svv - sv * suv) / worth, my + (sv * suu - su * suv) / worth)
    radius = sum(abs(p - centre) for p in spots) / count
    if any(abs(abs(p - centre) - radius) > within for p in spots):
        return None
    return Circle(centre, radius)


def _arc(spots: Sequence[Point]) -> Arc:
    """Return the arc through both ends and nearest to all between."""
    first, last = spots[0], spots[-1]
    circle = _circle(spots, math.inf)
    assert circle is not None
    chord = last - first
    middle = (first + last) * 0.5
    if abs(chord) > circle.radius / 1000:
        # Its centre stands square to the chord, where least squares has it.
        across = chord.unit.normal
        centre = middle + across * (circle.centre - middle).dot(across)
    else:
        centre = circle.centre
    sweep = sum(math.remainder((b - centre).angle - (a - centre).angle, math.tau) for a, b in pairwise(spots))
    return Arc(centre, (abs(first - centre) + abs(last - centre)) / 2, (first - centre).angle, sweep)
