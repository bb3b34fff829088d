"""The named parts of anything drawn, its strokes, and the steps that copy it."""

from __future__ import annotations

from collections.abc import Sequence

from ..geometry import Arc, Circle, Curve, Line, Loop, Piece, Point, Shape, piece_of
from ..geometry.ellipse import Ellipse
from ..plan.errors import ClauseError
from . import Role, Step, Stroke, Tool
from .figure import Family, Ref

MOST_STROKES = 12
"""Pieces beyond which a run is one curve to the eye and to the hand, and is drawn in one go."""


def parts_of(shape: Shape | Loop) -> dict[str, Shape | Loop]:
    """Return what can be referred to behind a dot."""
    match shape:
        case Point():
            return {}
        case Circle():
            return {"centre": shape.centre}
        case Arc():
            return {"centre": shape.centre, "start": shape.first, "end": shape.last, "middle": shape.middle}
        case Line(start=float() as start, end=float() as end):
            return {"start": shape.at(start), "end": shape.at(end), "middle": shape.at((start + end) / 2)}
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


def curve_run(owner: str, curves: Sequence[Curve], stands_for: Ellipse | None = None, closed: bool = True) -> Loop:
    """Return arcs end to end, numbered, as a run that stands for a curve.

    Raises
    ------
    ClauseError
        Where it is so short that nothing is left of it.
    """
    if not curves:
        raise ClauseError(f"{owner} comes to nothing: it is too small to draw")
    pieces = tuple(piece_of(curve, f"{owner}.{index}", owner) for index, curve in enumerate(curves, 1))
    return Loop(pieces, closed, stands_for)


def renamed(shape: Shape | Loop, owner: str) -> Shape | Loop:
    """Return a copy whose pieces carry the name of the thing they now belong to, each name once."""
    if not isinstance(shape, Loop):
        return shape
    names: dict[str, int] = {}
    pieces = []
    for piece in shape.pieces:
        name = piece.name.rpartition(".")[2]
        names[name] = names.get(name, 0) + 1
        told = name if names[name] == 1 else f"{name}_{names[name]}"
        pieces.append(Piece(piece.curve, f"{owner}.{told}", piece.entry, piece.exit, owner if piece.curve_of else ""))
    return Loop(tuple(pieces), shape.closed, shape.stands_for)


def as_original(refs: Sequence[Ref]) -> Role | None:
    """Return as what the originals of copies were all gone over: so are the copies."""
    roles = {ref.lined for ref in refs}
    return roles.pop() if len(roles) == 1 else None


def draw(shape: Shape | Loop, name: str, role: Role = Role.CONSTRUCTION) -> tuple[Step, ...]:
    """Return the steps that draw a thing whose place is already marked: arcs by the compass, first, then lines."""
    match shape:
        case Point():
            return (Step(Tool.PENCIL, f"Mark {name}", strokes=(Stroke(shape, Role.POINT, name),)),)
        case Line():
            return (Step(Tool.STRAIGHTEDGE, f"Draw {name}", strokes=(Stroke(shape, role),)),)
        case Circle() | Arc():
            text = f"Needle on its centre, draw {name}"
            return (Step(Tool.COMPASS, text, shape.size, shape.centre, (Stroke(shape, role),)),)
        case Loop() if len(shape.pieces) > MOST_STROKES:
            return (Step(Tool.PENCIL, f"Draw {name} with the French curve", strokes=(Stroke(shape, role),)),)
        case Loop():
            rounds = [p for p in shape.pieces if isinstance(p.curve, Circle | Arc)]
            straight = [p for p in shape.pieces if isinstance(p.curve, Line)]
            return tuple(step for p in (*rounds, *straight) for step in draw(p.curve, p.name, role))


def places(shape: Shape | Loop) -> tuple[tuple[str, Point], ...]:
    """Return the places that fix a thing: what a drafter carries over to copy it."""
    match shape:
        case Point():
            return (("", shape),)
        case Circle() | Arc():
            return (("the centre of ", shape.centre),)
        case Line(start=float() as start, end=float() as end):
            return (("one end of ", shape.at(start)), ("the other end of ", shape.at(end)))
        case Line():
            return (("a point of ", shape.through), ("another point of ", shape.at(1.0)))
        case Loop() if len(shape.pieces) > MOST_STROKES:
            spots = tuple(shape.pieces[i * len(shape.pieces) // MOST_STROKES].entry for i in range(MOST_STROKES))
            return tuple(("a place of ", spot) for spot in spots)
        case Loop():
            centres = [p.curve.centre for p in shape.pieces if isinstance(p.curve, Circle | Arc)]
            corners = [p.entry for p in shape.pieces]
            found = dict.fromkeys([*centres, *corners])
            return tuple(("a corner of " if spot in corners else "a centre of ", spot) for spot in found)


def outermost_parts(loop: Loop) -> dict[str, Shape | Loop]:
    """Return the parts of what is lined in: its outermost places, and the corners where its pieces begin."""
    spots = [spot for piece in loop.pieces for spot in piece.outermost]
    return {
        "left": min(spots, key=lambda p: p.x),
        "right": max(spots, key=lambda p: p.x),
        "top": max(spots, key=lambda p: p.y),
        "bottom": min(spots, key=lambda p: p.y),
        **{f"corner.{index}": piece.entry for index, piece in enumerate(loop.pieces, 1) if len(loop.pieces) > 1},
    }


def copied(
    owner: str, things: Sequence[tuple[str, Shape | Loop]], copies: Sequence[Shape | Loop], lined: Role | None = None
) -> tuple[Shape | Loop | Family, dict[str, Shape | Loop]]:
    """Return copies as one thing or a family, with their parts: by number, and by the name of what was copied."""

    def own_parts(copy: Shape | Loop) -> dict[str, Shape | Loop]:
        more = outermost_parts(copy) if lined and isinstance(copy, Loop) else {}
        return {**parts_of(copy), **more}

    if len(copies) == 1:
        only = renamed(copies[0], owner)
        return only, own_parts(only)
    members = tuple(renamed(copy, f"{owner}.{index}") for index, copy in enumerate(copies, 1))
    parts: dict[str, Shape | Loop] = {}
    for index, (name, member) in enumerate(zip((name for name, _ in things), members, strict=True), 1):
        for key in dict.fromkeys((str(index), name or str(index))):
            parts[key] = member
            parts |= {f"{key}.{part}": shape for part, shape in own_parts(member).items()}
    return Family(members), parts
