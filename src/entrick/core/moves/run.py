"""``run``: straight legs one after another from a point; every corner and leg is named."""

from __future__ import annotations

import math
from collections.abc import Sequence
from functools import partial

from ..acts import Way, Work
from ..geometry import Line, Loop, Piece, Point, Shape, meet, polar
from ..kind import Args, ClauseValues, Kind, Made
from ..measure import Number, spell_angle
from ..plan.errors import ClauseError, Wanting
from ..plan.forms import Form
from ..tolerance import same

_WAYS = {
    "right": Point(1.0, 0.0),
    "left": Point(-1.0, 0.0),
    "up": Point(0.0, 1.0),
    "down": Point(0.0, -1.0),
}
_TURNED = {"right": 0, "up": 90, "left": 180, "down": 270}
MOST_LEGS = 60
MOST_REPEATED = 400
"""Legs a run may have, said, and with those that are repeated."""


def construct(args: Args) -> Made:
    """Construct legs in order: so far right, left, up or down; at an angle for a length or on to a
    line; to a point.

    ``6 times`` goes along the legs said before it six times in all.

    Parts: ``leg.1`` …, ``corner.1`` … (the start), ``start``, ``end``.
    """
    start = args.need("from").point("start")
    if not args.all("leg"):
        raise Wanting("say at least one leg, such as  right 20  or  at 30° for 12")
    corners, told, legs = [start], [], list[ClauseValues | None]()
    for leg in _legs(args):
        here = corners[-1]
        there, words = _leg(args, leg, here)
        if abs(there - here) <= same(abs(here)):
            raise ClauseError("a leg ends where it begins", leg.index)
        corners.append(there)
        told.append(words)
        legs.append(leg)
    closed = args.get("close") is not None
    if closed and abs(corners[-1] - start) <= same(abs(start)):
        corners.pop()
    elif closed:
        told.append("back to the start")
        legs.append(None)
    ends = [*corners[1:], start] if closed else corners[1:]
    pairs = list(zip(corners, ends, strict=False))
    pieces = tuple(
        Piece(Line.between(a, b), f"{args.name}.leg.{i}", a, b) for i, (a, b) in enumerate(pairs, 1)
    )
    parts: dict[str, Shape | Loop] = {f"leg.{i}": piece.curve for i, piece in enumerate(pieces, 1)}
    parts |= {f"corner.{i}": corner for i, corner in enumerate(corners, 1)}
    parts |= {"start": corners[0], "end": ends[-1]}
    return Made(
        Loop(pieces, closed),
        f"Run {args.name} from {args.need('from').ref('start').text}: {', '.join(told)}.",
        () if closed else (f"it ends {_off(args, ends[-1] - start)} of its start",),
        parts=parts,
        draw=partial(_draw, args, pieces, legs),
    )


def _legs(args: Args) -> list[ClauseValues]:
    """Return the legs in order; ``6 times`` makes six in all of those said since the last such
    clause."""
    result: list[ClauseValues] = []
    since = 0
    for clause in args.all("leg", "times"):
        if clause.key == "leg":
            result.append(clause)
            continue
        group = result[since:]
        if not group:
            raise ClauseError(
                "the legs to be repeated stand before it, such as  right 10, up 5, 6 times",
                clause.index,
            )
        if since + clause.count("count") * len(group) > MOST_REPEATED:
            raise ClauseError(
                f"a run has at most {MOST_REPEATED} legs, with those that are repeated",
                clause.index,
            )
        result += group * (clause.count("count") - 1)
        since = len(result)
    return result


def _leg(args: Args, leg: ClauseValues, here: Point) -> tuple[Point, str]:
    if leg.has("way"):
        way, amount = leg.word("way"), leg.length("amount")
        direction = _WAYS[way]
        return here + direction * float(amount), f"{way} {args.say(amount.value)}"
    if leg.has("point"):
        there = leg.point("point")
        return there, f"to {leg.ref('point').text}"
    angle = leg.length("angle").value
    if leg.has("amount"):
        amount = leg.length("amount")
        return (
            here + polar(float(amount), math.radians(angle)),
            f"at {spell_angle(angle)} for {args.say(amount.value)}",
        )
    target, name = leg.line("line"), leg.ref("line").text
    found = meet(Line(here, polar(1.0, math.radians(angle))), target)
    if not found:
        raise ClauseError(f"a leg at {spell_angle(angle)} never comes to {name}", leg.index)
    return found[0].point, f"at {spell_angle(angle)} to {name}"


def _off(args: Args, moved: Point) -> str:
    across = f"{args.say(abs(moved.x))} {'right' if moved.x >= 0 else 'left'}"
    return f"{across} and {args.say(abs(moved.y))} {'above' if moved.y >= 0 else 'below'}"


def _draw(
    args: Args, pieces: tuple[Piece, ...], legs: Sequence[ClauseValues | None], work: Work
) -> None:
    """Draw each leg from the corner before it and measure it off, or prick where it comes to."""
    here = work.mark(pieces[0].entry, args.need("from").ref("start").text)
    for number, (piece, leg) in enumerate(zip(pieces, legs, strict=False), 1):
        corner, name, line = (
            f"{args.name}.corner.{number + 1}",
            piece.name,
            Line.between(piece.entry, piece.exit),
        )
        if leg is None or leg.has("point"):
            there = work.mark(piece.exit, leg.ref("point").text if leg else corner)
            work.through(here, there, name, shown=line)
            here = there
            continue
        degrees: Number = _TURNED[leg.word("way")] if leg.has("way") else leg.length("angle").value
        edge = work.draw(here, Way(degrees), called=name, shown=line)
        ahead = edge.line.direction.dot(piece.exit - piece.entry) > 0
        if leg.has("line"):
            target = work.edge(leg.line("line"), leg.ref("line").text)
            here = work.prick(edge, target, piece.exit, corner)
        else:
            size = leg.length("amount").value
            way = Way(0 if ahead == (float(size) >= 0) else 180, edge.key, edge.called)
            here = work.measure(here, way, size, corner, piece.exit)


ABOUT = """\
Straight legs one after another: `right 20`, `up 35`, `at 120° for 12`, `at 30° to l`, `to P`;
`close` goes back to the start. `6 times` goes along the legs said before it six times in all.
Parts `leg.1`, `corner.1` and so on, `start`, `end`. Angles are counted from the right.
"""

SHOWN = """\
units mm
O = datum
l = line, through O, at 80°
edge = run, from O, right 60, at 110° for 25, at 180° to l, close
rim = line in, edge
stair = run, from O, up 15, left 25, 4 times
"""

KIND = Kind(
    name="run",
    group="Lines",
    summary="straight legs one after another; every corner and leg is named",
    example="edge = run, from P, right 20, up 35, at 120° for 12",
    mistake="A leg's angle is counted from the leg before it instead of from the right.",
    also=("legs", "chain of lines", "zigzag", "steps"),
    forms=(
        Form("from {start:point}", needed=True),
        Form("{way:right/left/up/down} {amount:length}", "leg", most=MOST_LEGS),
        Form("at {angle:angle} for {amount:length}", "leg", most=MOST_LEGS),
        Form("at {angle:angle} to {line:line}", "leg", most=MOST_LEGS),
        Form("to {point:point}", "leg", most=MOST_LEGS),
        Form("{count:count} times", "times", most=MOST_LEGS),
        Form("close"),
    ),
    construct=construct,
    about=ABOUT,
    shown=SHOWN,
)
