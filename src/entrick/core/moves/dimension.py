"""``dimension``: sizes written on the drawing: straight, in a chain, from a common edge, round, or
of an angle."""

from __future__ import annotations

import math
from collections.abc import Sequence
from fractions import Fraction
from itertools import pairwise

from ..drawing.notes import AngleDimension, LinearDimension, Note, RoundDimension
from ..finish.style import FIRST, NEXT
from ..geometry import Arc, Circle, Line, Loop, Point, meet, polar
from ..geometry.isometric import AXES, FORESHORTENED
from ..kind import Args, ClauseValues, Kind, Made
from ..measure import Number, spell_angle
from ..plan.errors import ClauseError
from ..plan.forms import Form
from ..tolerance import DIRECTION, ROUND, same, worked

FINEST = 64
"""A measured length that agrees with a whole number of these parts is written as the fraction."""


def construct(args: Args) -> Made:
    """Measure the figure and write what was measured.

    Straight dimensions stand level or plumb off the view, on the side said, or along the two points
    when neither is said; they find a free row unless one is named."""
    clause = args.need(
        "from",
        "chain",
        "edge",
        "between",
        "radius",
        "diameter",
        "angle",
        "angle of lines",
        "angle about",
        "angle of",
    )
    match clause.key:
        case "from" | "chain" | "edge" | "between":
            notes, told = _straight(args, clause)
        case "radius" | "diameter":
            notes, told = _round(args, clause)
        case _:
            notes, told = _angle(args, clause)
    out = (
        ""
        if clause.key in ("radius", "diameter", "angle")
        else (f"; its line {FIRST:g} mm out from the view, the next {NEXT:g} mm further")
    )
    return Made(
        Point(0.0, 0.0),
        f"Dimension {told}.",
        notes=tuple(notes),
        nothing=True,
        draw=lambda work: work.finish(
            f"Dimension {told}",
            "dimension",
            check=f"the extension line starts 1 mm off the outline; the arrowheads touch it{out}",
        ),
    )


def measured(args: Args, size: Number) -> str:
    """Write a measured length: as a fraction where it is one."""
    if isinstance(size, Fraction):
        return args.say(size)
    close = Fraction(round(size * FINEST), FINEST)
    return args.say(close if abs(float(close) - size) <= worked(size) else size)


def _spot(clause: ClauseValues, slot: str) -> Point:
    return _centre(clause.ref(slot).text, clause.thing(slot), clause.index)


def _centre(name: str, thing: object, clause: int) -> Point:
    match thing:
        case Point():
            return thing
        case Circle() | Arc():
            return thing.centre
        case Loop(pieces=(only,)) if isinstance(only.curve, Circle):
            return only.curve.centre
    raise ClauseError(
        f"{name} is neither a point nor round: a dimension goes from point to point", clause
    )


def _straight(args: Args, clause: ClauseValues) -> tuple[list[Note], str]:
    way, side, row = _standing(args)
    text, count = args.get("text"), args.get("count")
    if clause.key == "between":
        spots = _across(args, clause)
        names = [clause.ref("first").text, clause.ref("second").text]
    elif clause.key == "from":
        spots = [_spot(clause, "first"), _spot(clause, "second")]
        names = [clause.ref("first").text, clause.ref("second").text]
    else:
        named = clause.things("points")
        spots = [_centre(name, thing, clause.index) for name, thing in named]
        names = [name for name, _ in named]
        if len(spots) < 2:
            raise ClauseError("a chain of dimensions has at least two points", clause.index)
    pairs = (
        list(pairwise(spots)) if clause.key != "edge" else [(spots[0], spot) for spot in spots[1:]]
    )
    notes: list[Note] = []
    axis = args.get("isometric")
    off = AXES[axis.word("axis")] if axis else None
    if axis and way != "aligned":
        raise ClauseError(
            "an isometric dimension lies along its points, neither level nor plumb", axis.index
        )
    for index, (a, b) in enumerate(pairs):
        if off is not None and abs(off.cross((b - a).unit)) < ROUND:
            raise ClauseError(
                "the extension lines run along another axis than the dimension", clause.index
            )
        # In projection the axes are short on paper; what is lettered is the part.
        full = 1 / FORESHORTENED if off is not None and args.projected else 1.0
        size = full * {"level": abs(b.x - a.x), "plumb": abs(b.y - a.y)}.get(way, abs(b - a))
        if size <= same(max(abs(a), abs(b), 1.0)):
            raise ClauseError(
                f"there is no distance {way} to dimension between these points", clause.index
            )
        told = text.word("text") if text else measured(args, size)
        told = f"{count.count('count')}× {told}" if count else told
        told = f"({told})" if args.get("auxiliary") else told
        placed = row + index if row and clause.key == "edge" else row
        notes.append(LinearDimension(a, b, way, side, placed, told, off))
    how = {
        "from": "from",
        "between": "square from",
        "chain": "in a chain",
        "edge": "from a common edge",
    }[clause.key]
    return notes, f"{how} {' to '.join(names)}"


def _across(args: Args, clause: ClauseValues) -> list[Point]:
    """Return the two places of a distance between parallel lines, or of a place from a line, square
    to it."""
    things = [(clause.ref(slot).text, clause.thing(slot)) for slot in ("first", "second")]
    lines = [thing for _, thing in things if isinstance(thing, Line)]
    if not lines:
        raise ClauseError(
            "a distance between is that of two parallel lines, or of a place from a line",
            clause.index,
        )
    if len(lines) == 2:
        first, second = lines
        if abs(first.direction.cross(second.direction)) > DIRECTION:
            message = (
                f"{things[0][0]} and {things[1][0]} are not parallel: they have no one "
                "distance, but an angle"
            )
            raise ClauseError(message, clause.index)
        start = first.at(first.end) if first.end is not None else first.through
        return [start, second.foot(start)]
    spots = [
        thing if isinstance(thing, Line) else _centre(name, thing, clause.index)
        for name, thing in things
    ]
    place = next(spot for spot in spots if isinstance(spot, Point))
    return [spot.foot(place) if isinstance(spot, Line) else spot for spot in spots]


def _standing(args: Args) -> tuple[str, str, int]:
    """Return how a straight dimension lies, on which side, and in which row."""
    way = "level" if args.get("level") else "plumb" if args.get("plumb") else "aligned"
    side_said, row = args.get("side"), args.get("row")
    side = side_said.word("side") if side_said else {"plumb": "left", "level": "below"}.get(way, "")
    if (way == "level" and side in ("left", "right")) or (
        way == "plumb" and side in ("above", "below")
    ):
        allowed = "above or below" if way == "level" else "left or right"
        raise ClauseError(
            f"a {way} dimension stands {allowed} the view", side_said.index if side_said else None
        )
    return way, side, row.count("count") if row else 0


def _round(args: Args, clause: ClauseValues) -> tuple[list[Note], str]:
    thing, name = clause.thing("circle"), clause.ref("circle").text
    if isinstance(thing, Loop) and len(thing.pieces) == 1:
        thing = thing.pieces[0].curve
    count, at = args.get("count"), args.get("at")
    if not isinstance(thing, Circle | Arc):
        raise ClauseError(f"{name} is not round", clause.index)
    size = thing.size if clause.key == "radius" else thing.size * 2
    mark = "R" if clause.key == "radius" else "Ø"
    text = args.get("text")
    words = text.word("text") if text else f"{mark}{measured(args, size)}"
    words = f"{count.count('count')}× {words}" if count else words
    words = f"({words})" if args.get("auxiliary") else words
    angle = float(at.length("angle")) if at else None
    return [RoundDimension(thing, words, angle)], f"{clause.key} of {name}, {words}"


def _from_level(args: Args, clause: ClauseValues) -> tuple[list[Note], str]:
    """Measure an angle from the level line: of a place about another, counted from the right, or of
    a line, at its left end."""
    if clause.key == "angle about":
        corner, place = clause.point("corner"), clause.point("place")
        names = f"of {clause.ref('place').text} about {clause.ref('corner').text}"
        if abs(place - corner) <= same(abs(corner)):
            raise ClauseError("a place has no angle about itself", clause.index)
        turn = math.degrees((place - corner).angle)
    else:
        line, names = clause.line("line"), f"of {clause.ref('line').text}"
        corner, turn = leaning(line)
    if abs(turn) <= DIRECTION:
        raise ClauseError(f"it lies level: there is no angle {names}", clause.index)
    return _lettered(args, corner, min(turn, 0.0), abs(turn), names)


STEEP = 135
"""Degrees up to which a line is measured from the right; one that leans more is measured from its
left end, downwards (by eye, no source)."""


def leaning(line: Line) -> tuple[Point, float]:
    """Return where a line is measured against the level, and by how much it leans: degrees counted
    from the right."""
    turn = math.degrees(line.direction.angle) % 180
    turn -= 180 if turn > STEEP else 0
    way = polar(1.0, math.radians(turn))
    ends = [line.at(end) for end in (line.start, line.end) if end is not None]
    return min(ends or [line.through], key=lambda spot: spot.dot(way)), turn


def _lettered(
    args: Args, corner: Point, first: float, turn: float, names: str
) -> tuple[list[Note], str]:
    """Return an angle with its lettering, and what it is called."""
    out = args.get("out")
    radius = float(out.length("radius").value * args.unit.mm) if out else 15.0
    words = f"({spell_angle(turn)})" if args.get("auxiliary") else spell_angle(turn)
    return [AngleDimension(corner, first, turn, words, radius)], f"angle {names}, {words}"


def _angle(args: Args, clause: ClauseValues) -> tuple[list[Note], str]:
    if clause.key in ("angle about", "angle of"):
        return _from_level(args, clause)
    if clause.key == "angle":
        corner = clause.point("corner")
        arms = [clause.point("first") - corner, clause.point("second") - corner]
        names = (
            f"{clause.ref('first').text} {clause.ref('corner').text} {clause.ref('second').text}"
        )
    else:
        names = f"between {clause.ref('first').text} and {clause.ref('second').text}"
        found = arms_of(clause.line("first"), clause.line("second"))
        if found is None:
            raise ClauseError(f"the lines are parallel: there is no angle {names}", clause.index)
        corner, *arms = found
    if any(abs(arm) <= same(abs(corner)) for arm in arms):
        raise ClauseError("the arms of an angle lead away from its corner", clause.index)
    turn = math.degrees(math.atan2(arms[0].cross(arms[1]), arms[0].dot(arms[1])))
    first = math.degrees(arms[0].angle)
    if turn < 0:
        first, turn = math.degrees(arms[1].angle), -turn
    return _lettered(args, corner, first, turn, names)


def arms_of(first: Line, second: Line) -> tuple[Point, Point, Point] | None:
    """Return the corner of two lines and the directions in which they lead away from it; None for
    parallels.

    Where a line is drawn on both sides of the corner, the smaller angle is meant: 15°, not 165°.
    """
    found = meet(first, second)
    if not found:
        return None
    corner = found[0].point
    pairs = [(a, b) for a in _arms(first, corner) for b in _arms(second, corner)]
    one, other = min(
        pairs, key=lambda pair: abs(math.atan2(pair[0].cross(pair[1]), pair[0].dot(pair[1])))
    )
    return corner, one, other


def _arms(line: Line, corner: Point) -> tuple[Point, ...]:
    """Return the directions in which the drawn part of a line leads away from a corner: one, or
    both."""
    if line.start is None or line.end is None:
        return line.direction, -line.direction
    ends: Sequence[Point] = (line.at(line.start), line.at(line.end))
    near, far = sorted((end - corner for end in ends), key=abs)
    through = near.dot(far) < 0 and abs(near) > same(abs(far))
    return (far, near) if through else (far,)


ABOUT = """\
`from A to B`, `chain A B C` or `edge A B C` (from a common edge), `level` or `plumb` off the
view or along the points; `between l and m`, square to parallel lines, or from a place to a
line; `radius` or `diameter` of something round, with `4 times`; `angle A B C` or `angle between
l and m`; `angle of P about O` or `angle of l`, against the level. A round thing stands for its
centre. `in brackets` letters a size that follows from others; a thread is lettered as `diameter
tap.major, saying "M10"`. `above below left right` and `row 2` say where it stands, else it
finds a free row; `saying "text"` letters something else. `isometric up` (or `right`, `left`)
runs the extension lines along that axis.
"""

SHOWN = """\
units mm
O = datum
A = point, 50 right of O
B = point, 80 right of O, 20 above
c = circle, centre A, radius 12
l = line, through O, at 25°
d1 = dimension, from O to A, level, below
d2 = dimension, chain O A B, level, above
d3 = dimension, diameter c, 2 times
d4 = dimension, angle between O.level and l
m = parallel, to l, at 15, above
d6 = dimension, between l and m
box = isometric box, from B, 40 by 30 by 20
d5 = dimension, from box.near to box.right_low, isometric up, below
d7 = dimension, angle of B about A
d8 = dimension, from O to B, level, above, in brackets
"""

KIND = Kind(
    name="dimension",
    group="Finish",
    summary="straight, chain, common edge, radius, diameter, angle",
    example="d1 = dimension, from A to B, level, below",
    mistake="A size is given twice, or a chain is closed by its overall size: leave one link out.",
    also=("size", "distance", "measure", "measurement"),
    forms=(
        Form("from {first:shape} to {second:shape}"),
        Form("between {first:shape} [and] {second:shape}"),
        Form("chain {points:several}", "chain"),
        Form("edge {points:several}", "edge"),
        Form("radius {circle:shape}"),
        Form("diameter {circle:shape}"),
        Form("angle {first:point} {corner:point} {second:point}", "angle"),
        Form("angle between {first:line} [and] {second:line}", "angle of lines"),
        Form("angle of {place:point} about {corner:point}", "angle about"),
        Form("angle of {line:line}", "angle of"),
        Form("in brackets", "auxiliary"),
        Form("level"),
        Form("plumb"),
        Form("isometric {axis:right/left/up}", "isometric"),
        Form("{side:above/below/left/right}", "side"),
        Form("row {count:count}"),
        Form("at {angle:angle}"),
        Form("{radius:length} out", "out"),
        Form("{count:count} times", "count"),
        Form("saying {text:text}", "text"),
    ),
    construct=construct,
    about=ABOUT,
    shown=SHOWN,
)
