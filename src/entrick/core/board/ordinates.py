"""A large radius without its centre in reach: ordinates set up from the chord between its ends, and
traced."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import replace

from ..acts import Paper, Work
from ..acts.act import Act, Mark, Swing, Trace, Way
from ..geometry import Arc, Loop, piece_of
from ..sheet import Sheet
from ..tolerance import worked

APART = 20.0
"""About how far ordinates stand apart on the paper, mm (by eye): a French curve spans three of
them."""

FEWEST, MOST = 4, 24
"""Parts of the chord."""


def ordinates(act: Swing, marks: Sequence[Mark], paper: Paper, sheet: Sheet) -> list[Act]:
    """Return the acts that draw an arc by ordinates instead of swinging it.

    Parameters
    ----------
    act : Swing
        Leaves one arc of at most half a circle.
    marks : sequence of Mark
        What is marked before it.
    paper : Paper
        Empty: its size says what is one place.
    sheet : Sheet
        Its scale says how many ordinates there are.

    Returns
    -------
    list of Act
        The last leaves what the swing would have left, as a curve; empty where the ends are not
        both marked before, or the arc is more than half a circle.

    Notes
    -----
    On a chord c of a radius R the ordinate at x from its middle is sqrt(R^2 - x^2) - sqrt(R^2 -
    c^2/4) (Pythagoras)."""
    arcs = [stroke.shape for stroke in act.strokes if isinstance(stroke.shape, Arc)]
    if len(act.strokes) != 1 or len(arcs) != 1 or abs(arcs[0].sweep) > math.pi:
        return []
    arc = arcs[0]
    close = worked(arc.radius)
    ends = [
        next((mark for mark in marks if abs(mark.at - spot) <= close), None)
        for spot in (arc.first, arc.last)
    ]
    first, last = ends
    if first is None or last is None or first is last:
        return []
    paper.put((first, last))
    work = Work(paper, f"{act.leaves}/ordinates")
    radius, long = arc.radius, abs(last.at - first.at)
    chord = work.through(first, last, f"the chord of {act.called}")
    count = min(max(FEWEST, 2 * round(long * sheet.factor / APART / 2)), MOST)
    ahead = (last.at - first.at).unit
    left = (arc.middle - first.at).cross(ahead) < 0
    # The line has a sense of its own, along which its places are counted.
    forth = 1.0 if ahead.dot(chord.line.direction) > 0 else -1.0
    stations = [first]
    for index in range(1, count):
        along = long * index / count
        high = _ordinate(radius, long, along)
        foot = work.measure(
            first,
            Way(0, chord.key, chord.called),
            along * forth,
            "a place on the chord",
            told=f"{index}/{count} of the chord ",
            at=first.at + ahead * along,
        )
        off = ahead.normal * (high if left else -high)
        square = Way(90, chord.key, chord.called)
        size = off.dot(chord.line.direction.normal)
        stations.append(
            work.measure(
                foot,
                square,
                size,
                f"ordinate {index} of {act.called}",
                foot.at + off,
                told=f"the ordinate of its radius at {index}/{count}",
            )
        )
    stations.append(last)
    work.trace(stations, Loop((piece_of(arc, act.called),), False), act.called)
    *before, drawn = work.acts
    assert isinstance(drawn, Trace)
    check = "no centre is wanted; the highest ordinate is that of the middle"
    return [*before, replace(drawn, leaves=act.leaves, strokes=act.strokes, check=check)]


def _ordinate(radius: float, chord: float, along: float) -> float:
    """Return how far an arc stands off its chord at a place along it, plan units."""
    aside = along - chord / 2
    # sqrt(a) - sqrt(b) = (a - b) / (sqrt(a) + sqrt(b)): no digits are lost where the arc is flat.
    square = chord * chord / 4 - aside * aside
    return square / (
        math.sqrt(radius * radius - aside * aside) + math.sqrt(radius * radius - chord * chord / 4)
    )
