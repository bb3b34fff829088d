"""Copies of what is drawn: single things by carrying their marks, whole runs laid off again from
tracing paper."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterator, Sequence
from typing import Literal

from ..drawing.strokes import Role, Stroke
from ..geometry import Arc, Circle, Line, Loop, Piece, Point, Shape, reflect, rotate, shift
from ..measure import Number
from .act import Edge, Mark, Round, Thing, Traced, Way
from .shapes import MOST_STROKES, curves_of, draw, is_piecewise, traced
from .work import Work

Carry = Callable[[Work, Mark, str, str], Mark]
"""From a mark and what its copy is called, and lettered, to the copy."""


def mirrored(work: Work, mark: Mark, axis: Edge, called: str, label: str = "") -> Mark:
    """Carry a mark square across a line, as far behind it as it lies before it."""
    image = reflect(mark.at, axis.line)
    if abs(image - mark.at) <= work.paper.nothing:
        return mark
    square = work.square(axis, mark, image)
    foot = work.prick(
        square, axis, axis.line.foot(mark.at), f"the foot of {mark.called} on {axis.called}"
    )
    swing = work.swing(foot, work.between(foot, mark), near=[image])
    return work.prick(swing, square, image, called, label=label)


def turned(
    work: Work, mark: Mark, centre: Mark, degrees: Number, called: str, label: str = ""
) -> Mark:
    """Carry a mark round a centre by an angle, counted from where it lies."""
    if abs(mark.at - centre.at) <= work.paper.nothing:
        return mark
    base = work.through(centre, mark)
    forth = base.line.direction.dot(mark.at - centre.at) > 0
    image = rotate(mark.at, centre.at, math.radians(float(degrees)))
    ray = work.draw(centre, Way(degrees if forth else degrees + 180, base.key, base.called), image)
    ring = work.swing(centre, work.between(centre, mark), near=[image])
    return work.prick(ray, ring, image, called, label=label)


def shifted(
    work: Work, mark: Mark, moves: Sequence[tuple[Way, Number]], called: str, label: str = ""
) -> Mark:
    """Carry a mark by one length after another, each in its direction."""
    here = mark
    for index, (way, size) in enumerate(moves, 1):
        last = index == len(moves)
        word = called if last else f"the place on the way to {called}"
        if way.off:
            line = work.parallel(
                work.edge_of(way.off), here, here.at + work.direction(way) * float(size)
            )
            ahead = line.line.direction.dot(work.direction(way)) > 0
            way = Way(0 if ahead else 180, line.key, line.called)
        here = work.measure(here, way, size, word, line=not way.off, label=label if last else "")
    return here


def carried(
    work: Work,
    shape: Shape | Loop,
    copy: Shape | Loop,
    called: str,
    what: str,
    carry: Carry,
    labelled: bool,
) -> None:
    """Copy a thing by carrying the places that fix it, and drawing it anew from them."""
    match shape:
        case Point():
            carry(
                work, work.mark(shape, what), called, called.rpartition(".")[2] if labelled else ""
            )
            return
        case Circle() | Arc():
            carry(
                work,
                work.mark(shape.centre, f"the centre of {what}"),
                f"the centre of {called}",
                "",
            )
        case Line():
            start, end = shape.start or 0.0, shape.end if shape.end is not None else 1.0
            along = work.edge(shape, what)
            marks = (
                [work.mark(shape.at(at), f"an end of {what}") for at in (start, end)]
                if (shape.end is not None)
                else [
                    work.anywhere(along, shape.at(at * work.paper.handy), f"a place on {what}")
                    for at in (start, end)
                ]
            )
            for word, mark in zip(("one end of ", "the other end of "), marks, strict=True):
                carry(work, mark, f"{word}{called}", "")
            if shape.end is None:
                assert isinstance(copy, Line)
                copy = Line(copy.through, copy.direction, 0.0, work.paper.handy)
        case Loop():
            rounds = [p.curve.centre for p in shape.pieces if isinstance(p.curve, Circle | Arc)]
            corners = [
                spot
                for p in shape.pieces
                for spot in (p.entry, p.exit)
                if not isinstance(p.curve, Circle)
            ]
            for spot in dict.fromkeys([*rounds, *corners]):
                carry(work, work.mark(spot, f"a place of {what}"), f"a place of {called}", "")
    draw(work, copy, called)


def simple(shape: Shape | Loop) -> bool:
    """Tell whether a thing is copied by a few marks."""
    return not isinstance(shape, Loop) or (
        len(shape.pieces) <= MOST_STROKES
        and not any(p.curve_of for p in shape.pieces)
        and shape.stands_for is None
    )


def laid_off(  # noqa: PLR0913
    work: Work,
    original: Loop,
    copy: Loop,
    how: Literal["shift", "turn", "mirror"],
    about: Mark | Edge,
    to: Mark | None = None,
    degrees: Number = 0,
    called: str = "",
    role: Role = Role.CONSTRUCTION,
) -> None:
    """Lay a run off again with all its marks, as by tracing paper: moved, turned, or turned
    over."""
    if how == "mirror":
        assert isinstance(about, Edge)
        axis = about.line
        move: Callable[[Shape], Shape] = lambda shape: reflect(shape, axis)  # noqa: E731
    elif how == "turn":
        assert isinstance(about, Mark)
        centre = about.at
        move = lambda shape: rotate(shape, centre, math.radians(float(degrees)))  # noqa: E731
    else:
        assert isinstance(about, Mark)
        assert to is not None
        by = to.at - about.at
        move = lambda shape: shift(shape, by)  # noqa: E731
    originals: list[Thing] = []
    copies: list[Thing] = []
    base = work.next_key
    for index, ((owner, one), (owned, other)) in enumerate(_side_by_side(work, original, copy)):
        key = f"{base}.{index}"
        if isinstance(one, Loop):
            assert isinstance(other, Loop)
            originals.append(traced(work, one, owner))
            copies.append(Traced(f"{owned}@{key}", other, owned))
            ends = [one.pieces[0].entry, one.pieces[-1].exit]
        else:
            assert isinstance(other, Piece)
            thing = draw(work, one.curve, one.name)
            originals.append(thing)  # type: ignore[arg-type]
            copies.append(_again(thing, move, key, other.name))
            ends = [] if isinstance(one.curve, Circle) else [one.entry, one.exit]
            if isinstance(one.curve, Circle | Arc):
                ends.append(
                    one.curve.centre
                )  # what follows may touch it, and a touch lies square from the centre
        for end, spot in enumerate(ends):
            if work.has_mark(spot):
                mark = work.mark(spot)
                if mark not in originals:
                    originals.append(mark)
                    at = move(spot)
                    assert isinstance(at, Point)
                    copies.append(Mark(f"{key}.{end}", at, f"the copy of {mark.called}"))
    work.copy(originals, copies, how, about, to, degrees, called, [Stroke(copy, role)])


def _side_by_side(
    work: Work, original: Loop, copy: Loop
) -> Iterator[tuple[tuple[str, Loop | Piece], tuple[str, Loop | Piece]]]:
    """Yield the curves and single pieces of a run, each with its copy and by whose they are."""
    for (owner, one), (owned, other) in zip(curves_of(original), curves_of(copy), strict=True):
        if isinstance(one, Loop) and isinstance(other, Loop) and is_piecewise(work, one):
            for piece, own in zip(one.pieces, other.pieces, strict=True):
                yield (owner, piece), (owned, own)
        else:
            yield (owner, one), (owned, other)


def _again(thing: Thing | None, move: Callable[[Shape], Shape], key: str, called: str) -> Thing:
    match thing:
        case Edge(line=line):
            after = move(line)
            assert isinstance(after, Line)
            return Edge(key, after, called)
        case Round(circle=circle):
            round_ = move(circle)
            assert isinstance(round_, Circle)
            return Round(key, round_, called)
    raise TypeError(thing)
