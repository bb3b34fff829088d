"""``line in``: go over the outline, piece by piece; arcs first, then the straight lines that join them."""

from __future__ import annotations

import math
from collections.abc import Sequence

from ..allowance import check_copies
from ..geometry import Arc, Circle, Loop, Piece, Point, Stop, WalkError, walk
from ..geometry.walk import turned
from ..kind import Args, Kind, Made, Option, Role, Said, Step, Stroke, Tool, Undecided
from ..kind.choosing import OfWalk, lettered
from ..kind.parts import MOST_STROKES, outermost_parts
from ..measure import spell_angle
from ..plan.errors import ClauseError
from ..plan.forms import Form

MOST_TOLD = 24
"""Pieces a sentence names one by one."""

MOST_STEPS = 200
"""Pieces beyond which an outline is gone over feature by feature, in one step: a gear's teeth."""


def construct(args: Args) -> Made:
    """Walk the outline along the named pieces; see `entrick.core.geometry.walk`."""
    return lined(args, Role.OUTLINE)


def lined(args: Args, role: Role) -> Made:
    """Go over pieces as outline, as edges seen on a face, or as hidden lines.

    Parts of the run, for dimensions: ``left right top bottom``, its outermost places, and ``corner.1`` and so on,
    where its pieces begin.
    """
    clause, again = args.need("walk"), args.get("repeat")
    stops: Sequence[Stop] = clause.stops("walk")
    said = len(stops)
    try:
        if again:
            stops = _repeated(args, stops, again)
        loop = _walked(stops, args.get("open") is None, role, said if again else 0)
    except WalkError as error:
        ways = _ways_of(error, clause.clause, stops, said)
        if ways:
            raise Undecided(error.message, lettered(ways, None), clause.clause) from error
        raise ClauseError(error.message, clause.clause) from error
    if len(stops) == 1 and stops[0].lined == role:
        return _there_already(args, loop, stops[0].name)
    names = " > ".join(_named(loop))
    closing = "closed" if loop.closed else "an open run"
    does = {Role.OUTLINE: "Line in", Role.EDGE: "Seen edge", Role.HIDDEN: "Hidden lines"}[role]
    return Made(
        loop,
        f"{does} {args.name} along {names}: {closing}.",
        (
            f"{len(loop.pieces)} piece{'s' if len(loop.pieces) > 1 else ''}, length {args.say(loop.length)}"
            + (f", area {args.say(abs(loop.area))} square" if loop.closed else ""),
        ),
        (*_carried(stops[:said], stops[said:]), *_steps(loop, role)),
        outermost_parts(loop),
        lined=role,
        cut=args.get("cut") is not None,
    )


def _named(loop: Loop) -> list[str]:
    """Return what a run goes along: every piece, every curve of many arcs, or no more than whose pieces they are."""
    owners = [p.curve_of or p.name if len(loop.pieces) > MOST_STROKES else p.name for p in loop.pieces]
    distinct = list(dict.fromkeys(owners))
    if len(distinct) <= MOST_TOLD:
        return distinct
    return list(dict.fromkeys(owner.partition(".")[0] for owner in owners))


def _there_already(args: Args, loop: Loop, name: str) -> Made:
    """What is gone over once more stays what it is: one outline, to be cut once."""
    told = f"{args.name} is {name}, which has been gone over: nothing more is drawn."
    return Made(loop, told, parts=outermost_parts(loop), cut=args.get("cut") is not None)


def _ways_of(error: WalkError, clause: int, stops: Sequence[Stop], said: int) -> list[Option]:
    """Return every way that words would choose, all along the walk; of one that repeats itself each once."""
    found: dict[OfWalk, Option] = {}
    for each in error.unsettled:
        stop = each.stop % said
        for words, what in each.ways:
            spot = what if isinstance(what, Point) else what.middle if isinstance(what, Arc) else what.at(0.0)
            way = OfWalk(clause, stop, words)
            found.setdefault(way, Option(what, spot, f"{stops[stop].name} {words}", of_walk=way))
    return list(found.values())


def _repeated(args: Args, stops: Sequence[Stop], again: Said) -> list[Stop]:
    count = again.count("count")
    if count < 2:
        raise ClauseError("a walk is repeated at least twice", again.clause)
    if args.get("open"):
        raise ClauseError("a walk that is repeated all round closes: it is not open", again.clause)
    check_copies([stop.run or stop.curve for stop in stops], count)
    return turned(stops, count, again.point("centre"))


def _carried(stops: Sequence[Stop], copies: Sequence[Stop]) -> tuple[Step, ...]:
    """Carry what is repeated round to its other places; a circle about the centre is its own copy."""
    if not copies:
        return ()
    drawn = {stop.curve for stop in stops}
    others = [stop for stop in copies if stop.run or stop.curve not in drawn]
    strokes = tuple(Stroke(stop.run or stop.curve) for stop in others)
    names = " and ".join(dict.fromkeys(stop.name.rpartition(".")[0] for stop in others))
    told = f"Carry {names} round, {spell_angle(360 * len(stops) / (len(stops) + len(copies)))} from each to the next"
    return (Step(Tool.DIVIDERS, told, strokes=strokes, check="the last comes back to the first"),)


def _walked(stops: Sequence[Stop], closed: bool, role: Role, period: int) -> Loop:
    if role is not Role.OUTLINE and closed:
        # What lies behind is often open: its ends are where the material in front begins. So is an edge on a face.
        try:
            return walk(stops, period=period)
        except WalkError:
            return walk(stops, closed=False)
    return walk(stops, closed, period)


def _steps(loop: Loop, role: Role) -> tuple[Step, ...]:
    if len(loop.pieces) > MOST_STEPS:
        owners = " and ".join(dict.fromkeys(piece.name.partition(".")[0] for piece in loop.pieces))
        told = f"Line in {owners}, feature by feature: arcs by compass or template, curves with the French curve"
        return (Step(Tool.PENCIL, told, strokes=(Stroke(loop, role),), check="every feature looks like the first"),)
    curves, plain = _curves(loop)
    drawn = tuple(_along_curve(curve, owner, role) for owner, curve in curves)
    return (*drawn, *_pieces(plain, role))


def _curves(loop: Loop) -> tuple[list[tuple[str, Loop]], list[Piece]]:
    """Part the curves of many arcs, each gone over in one go, from the pieces that are gone over one by one."""
    if loop.stands_for is not None:
        return [(loop.pieces[0].name.rpartition(".")[0], loop)], []
    groups: list[list[Piece]] = []
    for piece in loop.pieces:
        same_owner = groups and groups[-1][-1].curve_of == piece.curve_of != ""
        if same_owner:
            groups[-1].append(piece)
        else:
            groups.append([piece])
    curves = [(group[0].curve_of, Loop(tuple(group), len(group) == len(loop.pieces) and loop.closed))
              for group in groups if len(group) > MOST_STROKES and group[0].curve_of]  # fmt: skip
    return curves, [piece for group in groups if len(group) <= MOST_STROKES or not group[0].curve_of for piece in group]


def _along_curve(curve: Loop, owner: str, role: Role) -> Step:
    return Step(
        Tool.PENCIL,
        f"Line in {owner} with the French curve, a stretch at a time",
        strokes=(Stroke(curve, role),),
        check="the stretches overlap, and no join shows",
    )


def _pieces(pieces: Sequence[Piece], role: Role) -> tuple[Step, ...]:
    arcs = [piece for piece in pieces if isinstance(piece.curve, Arc | Circle)]
    lines = [piece for piece in pieces if not isinstance(piece.curve, Arc | Circle)]
    return tuple(_line_in(piece, role) for piece in [*arcs, *lines])


def _line_in(piece: Piece, role: Role) -> Step:
    stroke = (Stroke(piece.curve, role),)
    match piece.curve:
        case Circle(centre=centre):
            return Step(Tool.COMPASS, f"Line in {piece.name}, all round", piece.curve.size, centre, stroke)
        case Arc(centre=centre, sweep=sweep):
            turned = f"{abs(math.degrees(sweep)):.1f}°"
            return Step(
                Tool.COMPASS,
                f"Line in {piece.name} from touch point to touch point, {turned}",
                piece.curve.size,
                centre,
                stroke,
                "stop exactly at the touch points or crossings",
            )
    return Step(
        Tool.STRAIGHTEDGE, f"Line in {piece.name} between the arcs", strokes=stroke, check="the join does not show"
    )


REPEATED = Form("{count:count} about {centre:point}", "repeat")
"""The same pieces again and again, equally spaced."""


KIND = Kind(
    name="line in",
    group="Outline",
    summary="go over the outline along the pieces, in order",
    example="rim = line in, eyeA > top > eyeB > low",
    mistake="The arc is trimmed to a line it only nearly touches. Stop at the computed touch point, arcs first.",
    forms=(
        Form("open"),
        Form("cut"),
        REPEATED,
        Form("{walk:walk}", "walk", needed=True),
    ),
    construct=construct,
    lines_in=Role.OUTLINE,
)
