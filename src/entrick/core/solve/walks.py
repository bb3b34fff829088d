"""From the words of a walk to its stops."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace

from ..geometry import Loop, Point
from ..geometry.place import SIDES
from ..geometry.walk import Stop
from ..kind.figure import Family, Figure
from ..plan.errors import ClauseError
from ..plan.terms import Arrow, Name, Term, write

_WAYS = frozenset({"cw", "ccw", "long", "short"})


def stops_of(items: Sequence[Term], figure: Figure) -> list[Stop]:
    """Read the pieces of a walk with the words that go with each."""
    groups: list[list[Term]] = [[]]
    for item in items:
        if isinstance(item, Arrow):
            groups.append([])
        else:
            groups[-1].append(item)
    stops = []
    for group in groups:
        if not group or not all(isinstance(item, Name) for item in group):
            stop = " ".join(write(item) for item in group)
            raise ClauseError(
                f"a walk is pieces by name with > between them{f'; {stop} is none' if stop else ''}"
            )
        stops.append(_stop([write(item) for item in group], figure))
    return stops


def _stop(words: list[str], figure: Figure) -> Stop:
    ref = figure.refer(words[0], "walk")
    curve = ref.shape
    if isinstance(curve, Family):
        raise ClauseError(
            f"{words[0]} is a family of several; name one of them, such as {words[0]}.1"
        )
    assert not isinstance(curve, Point)
    if isinstance(curve, Loop):
        stop = Stop(curve.pieces[0].curve, words[0], run=curve, lined=ref.lined or "")
    else:
        stop = Stop(curve, words[0])
    rest = iter(words[1:])
    for word in rest:
        if word in _WAYS:
            stop = replace(stop, way=word)
        elif word in SIDES:
            stop = replace(stop, side=(*stop.side, word))
        elif word in ("via", "at", "near"):
            target = next(rest, None)
            if target is None:
                raise ClauseError(f"{word} is followed by a point")
            point = figure.refer(target, "point").shape
            if not isinstance(point, Point):
                raise ClauseError(
                    f"{target} is a family of several; name one of them, such as {target}.1"
                )
            stop = replace(stop, via=point) if word == "via" else replace(stop, at=point)
        else:
            raise ClauseError(
                f"{word} after {words[0]} is not understood; a piece may be followed by cw, ccw, "
                "long, short, "
                "via or at a point, or a word of place"
            )
    return stop
