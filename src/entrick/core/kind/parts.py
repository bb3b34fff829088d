"""The named parts of anything drawn, and of its copies."""

from __future__ import annotations

from collections.abc import Sequence

from ..geometry import Arc, Circle, Curve, Line, Loop, Piece, Point, Shape, piece_of
from ..geometry.fitted import fitted
from ..geometry.place import SIDES
from ..geometry.true_curve import TrueCurve
from ..plan.errors import ClauseError
from ..tolerance import assembled
from . import Role
from .figure import Family, Ref


def parts_of(shape: Shape | Loop) -> dict[str, Shape | Loop]:
    """Return what can be referred to behind a dot."""
    match shape:
        case Point():
            return {}
        case Circle():
            return {"centre": shape.centre}
        case Arc():
            return {
                "centre": shape.centre,
                "start": shape.first,
                "end": shape.last,
                "middle": shape.middle,
            }
        case Line(start=float() as start, end=float() as end):
            return {
                "start": shape.at(start),
                "end": shape.at(end),
                "middle": shape.at((start + end) / 2),
            }
        case Line():
            return {}
        case Loop():
            pieces = {piece.name.rpartition(".")[2]: piece.curve for piece in shape.pieces}
            if shape.closed:
                return dict(pieces)
            return {**pieces, "start": shape.pieces[0].entry, "end": shape.pieces[-1].exit}


def run(owner: str, curves: Sequence[tuple[str, Curve]], closed: bool) -> Loop:
    """Return drawn curves end to end as a run, each piece named after its owner."""
    return Loop(tuple(piece_of(curve, f"{owner}.{name}") for name, curve in curves), closed)


def curve_run(
    owner: str, curves: Sequence[Curve], stands_for: TrueCurve | None = None, closed: bool = True
) -> Loop:
    """Return arcs end to end, numbered, as a run that stands for a curve.

    Raises
    ------
    ClauseError
        Where it is so short that nothing is left of it.
    """
    if not curves:
        raise ClauseError(f"{owner} comes to nothing: it is too small to draw")
    pieces = tuple(
        piece_of(curve, f"{owner}.{index}", owner) for index, curve in enumerate(curves, 1)
    )
    return Loop(pieces, closed, stands_for)


def true_run(owner: str, curve: TrueCurve, knots: Sequence[float], within: float) -> Loop:
    """Return the arcs of an open curve, with joints at some of its parameters, as a run that stands
    for it."""
    return curve_run(owner, fitted(curve.at, curve.heading, knots, within), curve, closed=False)


def renamed(shape: Shape | Loop, owner: str) -> Shape | Loop:
    """Return a copy whose pieces carry the name of the thing they now belong to, each name once."""
    if not isinstance(shape, Loop):
        return shape
    names: dict[str, int] = {}
    pieces = []
    for piece in shape.pieces:
        name = piece.name.rpartition(".")[2]
        names[name] = names.get(name, 0) + 1
        words = name if names[name] == 1 else f"{name}_{names[name]}"
        pieces.append(
            Piece(
                piece.curve,
                f"{owner}.{words}",
                piece.entry,
                piece.exit,
                owner if piece.curve_of else "",
            )
        )
    return Loop(tuple(pieces), shape.closed, shape.stands_for)


def as_original(refs: Sequence[Ref]) -> Role | None:
    """Return as what the originals of copies were all gone over: so are the copies."""
    roles = {ref.lined for ref in refs}
    return roles.pop() if len(roles) == 1 else None


OUTERMOST = {"left": "left", "right": "right", "top": "above", "bottom": "below"}
"""The outermost places of a run, and whither they lie."""


def outermost_parts(loop: Loop) -> dict[str, Shape | Loop]:
    """Return the parts of what is lined in: its outermost places, and the corners where its pieces
    begin."""
    spots = [spot for piece in loop.pieces for spot in piece.outermost]
    near = assembled(loop.length)

    def farthest(way: Point) -> Point:
        # Of a level or plumb side the end that is walked first, whatever rounding makes of it.
        most = max(spot.dot(way) for spot in spots)
        return next(spot for spot in spots if spot.dot(way) >= most - near)

    return {
        **{side: farthest(SIDES[way]) for side, way in OUTERMOST.items()},
        **{
            f"corner.{index}": piece.entry
            for index, piece in enumerate(loop.pieces, 1)
            if len(loop.pieces) > 1
        },
    }


def copied(
    owner: str,
    things: Sequence[tuple[str, Shape | Loop]],
    copies: Sequence[Shape | Loop],
    lined: Role | None = None,
) -> tuple[Shape | Loop | Family, dict[str, Shape | Loop]]:
    """Return copies as one thing or a family, with their parts: by number, and by the name of what
    was copied."""

    def own_parts(copy: Shape | Loop) -> dict[str, Shape | Loop]:
        more = outermost_parts(copy) if lined and isinstance(copy, Loop) else {}
        return {**parts_of(copy), **more}

    if len(copies) == 1:
        only = renamed(copies[0], owner)
        return only, own_parts(only)
    members = tuple(renamed(copy, f"{owner}.{index}") for index, copy in enumerate(copies, 1))
    parts: dict[str, Shape | Loop] = {}
    for index, (name, member) in enumerate(
        zip((name for name, _ in things), members, strict=True), 1
    ):
        for key in dict.fromkeys((str(index), name or str(index))):
            parts[key] = member
            parts |= {f"{key}.{part}": shape for part, shape in own_parts(member).items()}
    return Family(members), parts
