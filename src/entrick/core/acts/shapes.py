"""Any shape put on the sheet, or gone over, from what stands there already."""

from __future__ import annotations

from collections.abc import Iterator, Sequence

from ..drawing.strokes import Role, Stroke
from ..geometry import Arc, Circle, Line, Loop, Piece, Point, Shape, piece_of
from .act import Edge, Gone, Setting, Thing, Traced
from .work import Work

MOST_STROKES = 12
"""Pieces beyond which a run is one curve to the eye and to the hand, and is drawn in one go."""

MOST_STEPS = 200
"""Pieces beyond which an outline is gone over feature by feature, in one act: a gear's teeth."""


def draw(work: Work, shape: Shape | Loop, called: str, label: str = "") -> Thing | None:
    """Put a shape on the sheet: through its ends, about its centre, piece by piece; nothing where
    it stands already."""
    match shape:
        case Point():
            return work.mark(shape, called)
        case Line():
            return work.edge(shape, called)
        case Circle() | Arc():
            return work.round(shape, called)
        case Loop():
            for owner, curve in curves_of(shape):
                if isinstance(curve, Loop):
                    traced(work, curve, owner)
                else:
                    draw(work, curve.curve, curve.name)
    return None


def as_run(shape: Shape | Loop) -> Loop:
    """Return a single line, arc or circle as a run of one piece."""
    if isinstance(shape, Loop):
        return shape
    assert not isinstance(shape, Point)
    return Loop((piece_of(shape, "the copy"),), isinstance(shape, Circle))


def curves_of(loop: Loop) -> Iterator[tuple[str, Loop | Piece]]:
    """Return the curves of many arcs a run consists of, by whose they are, and its other pieces one
    by one."""
    if loop.stands_for is not None:
        yield loop.pieces[0].curve_of or loop.pieces[0].name.rpartition(".")[0], loop
        return
    groups: list[list[Piece]] = []
    for piece in loop.pieces:
        if groups and groups[-1][-1].curve_of == piece.curve_of != "":
            groups[-1].append(piece)
        else:
            groups.append([piece])
    for group in groups:
        if group[0].curve_of:
            yield (
                group[0].curve_of,
                Loop(tuple(group), len(group) == len(loop.pieces) and loop.closed),
            )
        else:
            yield group[0].name, group[0]


def traced(work: Work, loop: Loop, owner: str) -> Traced:
    """Return the curve traced under a name; where there is none it is traced through places that
    were worked out."""
    result = work.curve(owner, loop.pieces[len(loop.pieces) // 2].entry)
    if result is not None:
        return result
    places = [loop.pieces[0].entry, loop.pieces[len(loop.pieces) // 2].entry, loop.pieces[-1].exit]
    along = work.curve_along(places)
    if along is not None:
        return along
    count = len(loop.pieces)
    every = max(1, count // MOST_STROKES)
    spots = [piece.entry for piece in loop.pieces[::every]]
    if not loop.closed:
        spots.append(loop.pieces[-1].exit)
    marks = [work.mark(spot, f"a place of {owner}") for spot in dict.fromkeys(spots)]
    return work.trace(marks, loop, owner)


def go_over(work: Work, loop: Loop, role: Role) -> None:
    """Go over a run as the trade does: curves by the French curve, then small arcs and larger
    ones, then the straights that join them, from the top left to the lower right (common practice,
    no source)."""
    found = [(owner, each) for owner, each in curves_of(loop)]
    curves = [(owner, each) for owner, each in found if isinstance(each, Loop)]
    arcs = [
        each
        for _, each in found
        if isinstance(each, Piece) and isinstance(each.curve, Arc | Circle)
    ]
    lines = [each for _, each in found if isinstance(each, Piece) and isinstance(each.curve, Line)]
    whole = [(owner, each) for owner, each in curves if is_piecewise(work, each)]
    for owner, each in whole:
        own = [_of_piece(work, piece, role)[0] for piece in each.pieces]
        work.go_over(own, role, owner, [Stroke(each, role)], "no join shows", told="arcs")
    curves = [(owner, each) for owner, each in curves if (owner, each) not in whole]
    ordered: Sequence[tuple[Gone, Stroke, Setting | None]] = [
        *(_of_curve(work, owner, each, role) for owner, each in curves),
        *(_of_piece(work, each, role) for each in sorted(arcs, key=_by_size)),
        *(_of_piece(work, each, role) for each in sorted(lines, key=_by_place)),
    ]
    if len(loop.pieces) > MOST_STEPS and len(ordered) > MOST_STROKES:
        owners = " and ".join(
            dict.fromkeys(gone.called.partition(".")[0] for gone, _, _ in ordered)
        )
        work.go_over(
            [gone for gone, _, _ in ordered],
            role,
            owners,
            [Stroke(loop, role)],
            "every feature looks like the first",
            told="feature",
        )
        return
    for gone, stroke, setting in ordered:
        check, told = "the join does not show", "line"
        if isinstance(gone.planned, Loop):
            check, told = "the stretches overlap, and no join shows", "curve"
        elif isinstance(gone.planned, Arc):
            check, told = "stop exactly at the touch points or crossings", "arc"
        elif isinstance(gone.planned, Circle):
            check, told = "", "circle"
        work.go_over([gone], role, gone.called, [stroke], check, setting, told)


def _by_size(piece: Piece) -> float:
    """Return the radius of an arc; those that differ by no more than rounding are one size."""
    assert isinstance(piece.curve, Arc | Circle)
    return float(f"{piece.curve.radius:.9g}")


def _by_place(piece: Piece) -> tuple[float, float]:
    """Return where a straight lies: the higher one first, then the one further to the left."""
    middle = (piece.entry + piece.exit) * 0.5
    return -float(f"{middle.y:.9g}"), float(f"{middle.x:.9g}")


def is_piecewise(work: Work, curve: Loop) -> bool:
    """Tell whether every piece of a run lies along a line or circle that has been drawn."""
    return work.curve(
        curve.pieces[0].curve_of, curve.pieces[len(curve.pieces) // 2].entry
    ) is None and all(work.has_drawn(piece.curve) for piece in curve.pieces)


def _of_curve(work: Work, owner: str, curve: Loop, role: Role) -> tuple[Gone, Stroke, None]:
    thing = traced(work, curve, owner)
    start = end = ""
    if not curve.closed:
        start, end = (
            _end_of(work, thing, spot) for spot in (curve.pieces[0].entry, curve.pieces[-1].exit)
        )
    return Gone(thing.key, start, end, curve, owner), Stroke(curve, role), None


def _end_of(work: Work, curve: Traced, spot: Point) -> str:
    """Return the mark at which a curve is left off; none where it ends by itself."""
    own = (curve.loop.pieces[0].entry, curve.loop.pieces[-1].exit)
    if not work.has_mark(spot) and any(abs(spot - end) <= work.paper.nothing for end in own):
        return ""
    return work.mark(spot).key


def _of_piece(work: Work, piece: Piece, role: Role) -> tuple[Gone, Stroke, Setting | None]:
    curve = piece.curve
    if isinstance(curve, Arc) and not work.has_drawn(curve) and not work.has_mark(curve.centre):
        along = work.curve_along([piece.entry, curve.middle, piece.exit])
        if along is not None:
            start, end = (
                work.mark(spot).key if work.has_mark(spot) else ""
                for spot in (piece.entry, piece.exit)
            )
            own = Loop((piece,), False)
            return Gone(along.key, start, end, own, piece.name), Stroke(curve, role), None
    if isinstance(curve, Circle | Arc):
        round_ = work.round(curve, piece.name)
        start, end = (
            ("", "")
            if isinstance(curve, Circle)
            else (work.mark(p).key for p in (piece.entry, piece.exit))
        )
        return (
            Gone(round_.key, start, end, curve, piece.name, round_.needle),
            Stroke(curve, role),
            Setting(curve.size),
        )
    thing: Edge = work.edge(Line.between(piece.entry, piece.exit), piece.name)
    start, end = (work.mark(spot).key for spot in (piece.entry, piece.exit))
    return (
        Gone(thing.key, start, end, Line.between(piece.entry, piece.exit), piece.name),
        Stroke(curve, role),
        None,
    )
