"""Procedures of the board that kinds compose: bisect, drop a perpendicular, divide, find a centre.

Each is exact unless it says otherwise, and common practice, no source, unless one is named. They
take what stands on the sheet and leave what they construct there; where the figure has it follows
from what they take."""

from __future__ import annotations

import math
from collections.abc import Sequence

from ..geometry import Circle, Line, Point, meet, rotate
from ..geometry.locus import Locus
from ..measure import Number
from ..plan.errors import ClauseError
from ..tolerance import DIRECTION, SPECK, same
from .act import Edge, Mark, Round, Setting, Way
from .paper import HANDY
from .work import SLACK, SWING, Work

OVER = 0.6
"""Opening of a bisection as a share of the distance, where a handy one is too small: anything over
a half will do."""

SLANT = 30.0
"""Angle of the slanted line of a division, degrees: any will do."""


def bisect(
    work: Work, first: Mark, second: Mark, called: str = "", shown: Line | None = None
) -> Edge:
    """Draw the line square through the middle of two marks: two swings from each, never changing
    the opening."""
    apart = second.at - first.at
    if abs(apart) <= work.paper.nothing:
        raise ClauseError(
            f"{first.called} and {second.called} are the same place: there is nothing to bisect"
        )
    line = shown or Line(
        (first.at + second.at) * 0.5, apart.unit.normal, -abs(apart) / 2, abs(apart) / 2
    )
    size = abs(apart) * OVER
    setting = Setting(size, free=True, told="more than half the distance")
    high = math.sqrt(size**2 - abs(apart) ** 2 / 4)
    spots = [(first.at + second.at) * 0.5 + apart.unit.normal * (side * high) for side in (1, -1)]
    swings = [work.swing(mark, setting, near=spots, anew=True) for mark in (first, second)]
    crossings = [
        work.prick(
            swings[0],
            swings[1],
            spot,
            f"the crossing {side} of {first.called} and {second.called}",
            anew=True,
        )
        for side, spot in zip(("left", "right"), spots, strict=True)
    ]
    return work.through(
        crossings[0],
        crossings[1],
        called or f"the bisector of {first.called} and {second.called}",
        shown=line,
    )


def offer_middle(work: Work, first: Point, second: Point, called: str) -> None:
    """Say how the middle between two places is to be marked, should it be wanted."""
    spot = (first + second) * 0.5
    work.offer(spot, lambda later: middle(later, later.mark(first), later.mark(second), called))


def offer_crossing(
    work: Work, pairs: tuple[tuple[Point, Point], tuple[Point, Point]], spot: Point, called: str
) -> None:
    """Say how the place where two diagonals cross is to be marked, should it be wanted."""

    def cross(later: Work) -> Mark:
        one, other = (later.through(later.mark(a), later.mark(b)) for a, b in pairs)
        return later.prick(one, other, spot, called)

    work.offer(spot, cross)


def middle(work: Work, first: Mark, second: Mark, called: str, label: str = "") -> Mark:
    """Mark the middle between two marks."""
    spot = (first.at + second.at) * 0.5
    if abs(second.at - first.at) <= work.paper.nothing:
        work.relabel(first, label)
        return first
    axis = bisect(work, first, second)
    return work.prick(axis, work.through(first, second), spot, called, label=label)


def halve(
    work: Work,
    corner: Mark,
    arms: tuple[Edge, Edge],
    spots: tuple[Point, Point],
    called: str = "",
    shown: Line | None = None,
) -> Edge:
    """Draw the line that halves the angle between two lines at a corner; `spots` tell on which
    sides of it.

    The opening is changed for the outer swings where the angle is wide, so that they cross well.
    """
    ways = [(spot - corner.at).unit for spot in spots]
    size = work.paper.handy
    setting = Setting(size, free=True, told="any opening")
    cuts = [corner.at + way * size for way in ways]
    swing = work.swing(corner, setting, f"the swing about {corner.called}", near=cuts, anew=True)
    marks = [
        work.prick(swing, arm, cut, f"the cut on {arm.called}", anew=True)
        for arm, cut in zip(arms, cuts, strict=True)
    ]
    apart = abs(cuts[1] - cuts[0])
    outer = max(size, apart * OVER)
    again = Setting(outer, free=True, told="more than half of what is between the cuts")
    ahead = (
        (ways[0] + ways[1]).unit
        if abs(ways[0] + ways[1]) > abs(ways[0] - ways[1]) * SPECK
        else ways[0].normal
    )
    spot = (cuts[0] + cuts[1]) * 0.5 + ahead * math.sqrt(max(outer**2 - apart**2 / 4, 0.0))
    swings = [work.swing(mark, again, near=[spot], anew=True) for mark in marks]
    cross = work.prick(swings[0], swings[1], spot, "the crossing between the arms", anew=True)
    line = shown or Line(corner.at, ahead)
    return work.through(corner, cross, called or f"the bisector at {corner.called}", shown=line)


def raise_square(
    work: Work, mark: Mark, edge: Edge, called: str = "", shown: Line | None = None
) -> Edge:
    """Draw the perpendicular at a mark of a line, by compass."""
    size, along = work.paper.handy, edge.line.direction
    cuts = [mark.at + along * (side * size) for side in (-1, 1)]
    swing = work.swing(mark, Setting(size, free=True, told="any opening"), near=cuts, anew=True)
    marks = [
        work.prick(swing, edge, cut, f"the {word} cut on {edge.called}", anew=True)
        for word, cut in zip(("first", "second"), cuts, strict=True)
    ]
    wide = Setting(2 * size, free=True, told="about twice that")
    top = mark.at + along.normal * (size * math.sqrt(3))
    swings = [work.swing(each, wide, near=[top], anew=True) for each in marks]
    cross = work.prick(swings[0], swings[1], top, "the crossing beyond the line", anew=True)
    return work.through(mark, cross, called or f"the square to {edge.called}", shown=shown)


def drop_square(
    work: Work, mark: Mark, edge: Edge, called: str = "", shown: Line | None = None
) -> Edge:
    """Draw the perpendicular from a mark to a line, by compass."""
    foot = edge.line.foot(mark.at)
    height = abs(mark.at - foot)
    size = max(work.paper.handy, 1.25 * height)
    half = math.sqrt(size**2 - height**2)
    cuts = [foot + edge.line.direction * (side * half) for side in (-1, 1)]
    opening = Setting(size, free=True, told="past the line")
    swing = work.swing(mark, opening, near=cuts, anew=True)
    marks = [
        work.prick(swing, edge, cut, f"the {word} cut on {edge.called}", anew=True)
        for word, cut in zip(("first", "second"), cuts, strict=True)
    ]
    below = foot + (foot - mark.at)
    swings = [work.swing(each, opening, near=[below], anew=True) for each in marks]
    cross = work.prick(swings[0], swings[1], below, "the crossing on the far side", anew=True)
    return work.through(mark, cross, called or f"the square to {edge.called}", shown=shown)


def foot(work: Work, mark: Mark, edge: Edge, called: str = "", label: str = "") -> Mark:
    """Mark the foot of the perpendicular from a mark to a line."""
    spot = edge.line.foot(mark.at)
    across = work.square(edge, mark, spot)
    return work.prick(
        across, edge, spot, called or f"the foot of {mark.called} on {edge.called}", label=label
    )


def mirrored(work: Work, mark: Mark, edge: Edge, called: str) -> Mark:
    """Mark the image of a mark in a line: as far beyond its foot."""
    spot = edge.line.foot(mark.at) * 2 - mark.at
    if abs(spot - mark.at) <= work.paper.nothing:
        return mark
    down = foot(work, mark, edge)
    square = work.square(edge, mark, spot)
    swing = work.swing(down, work.between(down, mark), near=[spot])
    return work.prick(square, swing, spot, called)


def off(
    work: Work,
    edge: Edge,
    at: Mark,
    size: Number,
    called: str,
    shown: Line | None = None,
    side: Point | None = None,
) -> Edge:
    """Draw the parallel of a line at a distance: square off a mark of it, measured along the
    square, then parallel.

    `side` lies on the side the parallel is on; to the left of the line where none is said.
    """
    left = side is None or edge.line.offset_of(side) > 0
    across = edge.line.direction.normal * (1 if left else -1)
    spot = at.at + across * float(size)
    square = work.square(edge, at, spot)
    sense = Way(0 if square.line.direction.dot(across) > 0 else 180, square.key, square.called)
    mark = work.measure(at, sense, size, f"a place of {called}", spot)
    return work.parallel(edge, mark, called=called, shown=shown)


def divide(  # noqa: PLR0913
    work: Work,
    first: Mark,
    last: Mark,
    count: int,
    called: Sequence[str],
    labels: Sequence[str] = (),
    check: str = "",
    slanted: float = SLANT,
    by_rule: bool = False,
) -> list[Mark]:
    """Part the way between two marks into equal lengths: stepped off on a slanted line, joined to
    the end, parallels through the others (intercept theorem, Euclid VI.2). Any convenient step will
    do. Where it may be done `by_rule`, and the parts stand on one, they are ticks of it."""
    whole = work.through(first, last)
    length = abs(last.at - first.at)
    if by_rule and _stands_on_a_rule(work, length / count):
        spots = [first.at + (last.at - first.at) * (at / count) for at in range(1, count)]
        each = Setting(length / count)
        return work.step_off(
            first, each, whole, spots, called, labels=labels, check=check, by_rule=True
        )
    size = max(length * 0.9 / count, work.paper.handy / 20)
    along = rotate((last.at - first.at).unit, Point(0.0, 0.0), math.radians(slanted))
    end = first.at + along * (size * count)
    turned = Way(
        slanted if whole.line.direction.dot(last.at - first.at) > 0 else 180 + slanted,
        whole.key,
        whole.called,
    )
    slant = work.draw(first, turned, end, "the slanted line")
    spots = [first.at + along * (size * index) for index in range(1, count + 1)]
    names = [f"step {index} on the slanted line" for index in range(1, count + 1)]
    free = Setting(size, free=True, told="any convenient length")
    steps = work.step_off(first, free, slant, spots, names)
    closing = work.through(steps[-1], last, "the line that joins the last step to the end")
    marks = []
    for index in range(1, count):
        spot = first.at + (last.at - first.at) * (index / count)
        line = work.parallel(closing, steps[index - 1], spot, f"the parallel through step {index}")
        label = labels[index - 1] if labels else ""
        marks.append(
            work.prick(
                line, whole, spot, called[index - 1], label=label, check=check, anew=bool(label)
            )
        )
    return marks


def _stands_on_a_rule(work: Work, size: float) -> bool:
    """Tell whether a length is a whole number of half millimetres or of thirty-seconds of an inch
    on the sheet."""
    on_paper = size / work.paper.handy * HANDY
    parts = (on_paper / each for each in (0.5, 25.4 / 32))
    return any(part > 1 and abs(part - round(part)) < DIRECTION for part in parts)


def tangent_from(
    work: Work,
    mark: Mark,
    round_: Round,
    touch: Point,
    called: str = "",
    named: str = "",
    shown: Line | None = None,
) -> tuple[Edge, Mark]:
    """Draw the tangent from a mark to a circle: the circle on the line of centres as diameter cuts
    the touch point (the angle in a half circle is a right angle, Euclid III.31)."""
    centre = work.mark(round_.circle.centre)
    half = middle(work, mark, centre, f"the middle of {mark.called} and {centre.called}")
    setting = work.between(half, centre)
    swing = work.swing(
        half, setting, f"the circle on {mark.called} and {centre.called}", near=[touch]
    )
    touching = work.prick(swing, round_, touch, named or f"the touch point on {round_.called}")
    return work.through(mark, touching, called, shown=shown), touching


def around_three(work: Work, marks: Sequence[Mark], centre: Point, called: str) -> Mark:
    """Mark the centre of the circle through three marks: two of their bisectors cross in it."""
    first, second, third = marks
    one = bisect(work, first, second)
    other = bisect(work, second, third)
    return work.prick(one, other, centre, called)


def ring(
    work: Work,
    start: Mark,
    round_: Round,
    count: int,
    called: Sequence[str],
    labels: Sequence[str] = (),
    check: str = "",
) -> list[Mark]:
    """Step equal chords round a circle from a mark on it, 2·R·sin(180°/n) each; the last step comes
    back to it."""
    middle_ = round_.circle.centre
    spots = [rotate(start.at, middle_, math.tau * index / count) for index in range(1, count)]
    six = count == 6
    size: Number = (
        round_.circle.size if six else 2 * round_.circle.radius * math.sin(math.pi / count)
    )
    return work.step_off(
        start, size, round_, spots, called, labels=labels, check=check, compass=six
    )


def locus(work: Work, where: Locus, names: tuple[str, str], centre: Point) -> Edge | Round | None:
    """Draw where the centre of an arc may lie to meet one condition, a little of it about where the
    centre comes to.

    `names` are those of what is touched and of its centre. None where the locus is a single place,
    which is marked."""
    target = where.target
    curve = where.curve
    if isinstance(curve, Line):
        assert isinstance(target, Line)
        edge = work.edge(target, names[0])
        if where.contact == "centred on":
            return edge
        half = float(where.radius) * math.sin(SWING)
        along = curve.along(centre)
        shown = Line(curve.through, curve.direction, along - half, along + half)
        return off(
            work,
            edge,
            work.place_on(edge, target),
            where.radius,
            f"the parallel to {names[0]}",
            shown,
            centre,
        )
    if where.contact == "centred on":
        return work.round(curve, names[0])
    needle = work.mark(curve.centre, names[0] if isinstance(target, Point) else names[1])
    if curve.radius <= same(abs(curve.centre) + float(where.radius)):
        return None
    return work.swing(needle, where.swing, near=[centre], told="for the centre")


def touch_on(
    work: Work, centre: Mark, target: Line | Circle, at: Point, name: str, called: str
) -> Mark:
    """Mark where an arc about a centre touches a line, square to it, or a circle, on the line of
    centres."""
    if isinstance(target, Line):
        return work.prick(
            work.square(work.edge(target, name), centre, at), work.edge(target, name), at, called
        )
    ring_ = work.round(target, name)
    if abs(target.centre - centre.at) <= same(target.radius):
        return work.mark(at, called)
    line = work.through(centre, work.mark(target.centre), "the line of centres", reach=at)
    return work.prick(line, ring_, at, called)


def tangent_to_both(
    work: Work,
    circles: Sequence[Circle],
    names: Sequence[str],
    touches: Sequence[Point],
    called: str,
    shown: Line,
) -> tuple[Edge, list[Mark]]:
    """Draw a line that touches two circles: one of them is let shrink to its centre and the other
    by as much, or grow where the tangent crosses between them; the tangent to that help circle from
    the centre is parallel to the one wanted (common practice, no source)."""
    order = (0, 1) if circles[0].radius >= circles[1].radius else (1, 0)
    (one, other), (touch, far) = ([circles[i] for i in order], [touches[i] for i in order])
    centres = [
        work.mark(c.centre, f"the centre of {names[i]}")
        for c, i in zip((one, other), order, strict=True)
    ]
    rounds = [work.round(c, names[i]) for c, i in zip((one, other), order, strict=True)]
    called_touch = [f"{called}.touch.{names[i]}" for i in order]
    outer = (touch - one.centre).dot(far - other.centre) > 0
    size: Number = one.size - other.size if outer else one.size + other.size
    if abs(float(size)) <= same(one.radius):
        axis = work.through(centres[0], centres[1])
        squares = [work.square(axis, c, t) for c, t in zip(centres, (touch, far), strict=True)]
    else:
        help_ = Circle(one.centre, float(size), size)
        words = "of the difference of the radii" if outer else "of the sum of the radii"
        drawn = work.swing(centres[0], size, "a help circle", shape=help_, told=words)
        spot = one.centre + (touch - one.centre).unit * float(size)
        half = middle(work, centres[1], centres[0], "the middle between the centres")
        swing = work.swing(
            half, work.between(half, centres[0]), "the circle on both centres", near=[spot]
        )
        helped = work.prick(swing, drawn, spot, "the touch on the help circle")
        first = work.through(centres[0], helped, "the radius to the touch", reach=touch)
        squares = [first, work.parallel(first, centres[1], far, "the radius parallel to it")]
    marks = [
        work.prick(square, round_, spot, name)
        for square, round_, spot, name in zip(
            squares, rounds, (touch, far), called_touch, strict=True
        )
    ]
    ordered = [marks[order.index(i)] for i in (0, 1)]
    return work.through(ordered[0], ordered[1], called, shown=shown), ordered


def circle_centre(
    work: Work,
    things: Sequence[Mark | Edge | Round],
    touches: Sequence[Point],
    centre: Point,
    called: str,
) -> Mark | None:
    """Mark the centre of a circle that goes through, or touches, three things; None where no
    construction of reasonable length is known for them: its centre is measured as it was worked
    out."""
    marks = [t for t in things if isinstance(t, Mark)]
    edges = [(t, at) for t, at in zip(things, touches, strict=True) if isinstance(t, Edge)]
    rounds = [(t, at) for t, at in zip(things, touches, strict=True) if isinstance(t, Round)]
    match len(marks), len(edges), len(rounds):
        case 3, 0, 0:
            return around_three(work, marks, centre, called)
        case 0, 3, 0:
            return _in_three_lines(work, edges, centre, called)
        case 1, 2, 0:
            return _point_two_lines(work, marks[0], edges, centre, called)
        case 2, 1, 0:
            return _two_points_line(work, marks, edges[0], centre, called)
        case 2, 0, 1:
            return _two_points_circle(work, marks, rounds[0], centre, called)
        case 0, 2, 1:
            return _two_lines_circle(work, edges, rounds[0], centre, called)
        case 1, 1, 1:
            return _point_line_circle(work, marks[0], edges[0], rounds[0], centre, called)
        case 0, 1, 2:
            return _line_two_circles(work, edges[0], rounds, centre, called)
    return None


def _corner(work: Work, one: tuple[Edge, Point], other: tuple[Edge, Point]) -> Mark | None:
    """Mark where two of the lines cross; None where they run parallel."""
    first, second = one[0].line, other[0].line
    turn = first.direction.cross(second.direction)
    if abs(turn) < SLACK:
        return None
    along = (second.through - first.through).cross(second.direction) / turn
    return work.mark(first.at(along), f"the corner of {one[0].called} and {other[0].called}")


def _bisector(
    work: Work, one: tuple[Edge, Point], other: tuple[Edge, Point], centre: Point
) -> Edge | None:
    """Draw the line on which the centre lies that is as far from the one line as from the other."""
    corner = _corner(work, one, other)
    if corner is None:
        return None
    shown = Line.between(corner.at, centre) if abs(centre - corner.at) > 0 else None
    return halve(work, corner, (one[0], other[0]), (one[1], other[1]), "", shown)


def _in_three_lines(
    work: Work, edges: Sequence[tuple[Edge, Point]], centre: Point, called: str
) -> Mark | None:
    pairs = [(edges[i], edges[j]) for i, j in ((0, 1), (1, 2), (0, 2))]
    found = [
        line for line in (_bisector(work, a, b, centre) for a, b in pairs[:2]) if line is not None
    ]
    if len(found) < 2:
        third = _bisector(work, *pairs[2], centre)
        found += [third] if third is not None else []
    return work.prick(found[0], found[1], centre, called) if len(found) > 1 else None


def _point_two_lines(
    work: Work, mark: Mark, edges: Sequence[tuple[Edge, Point]], centre: Point, called: str
) -> Mark | None:
    """The circle is first drawn about any place of the bisector, then moved in proportion to the
    point."""
    axis = _bisector(work, edges[0], edges[1], centre)
    if axis is None:
        return None
    corner = _corner(work, *edges)
    assert corner is not None
    share = 0.6
    trial = work.anywhere(
        axis, corner.at + (centre - corner.at) * share, "any place on the bisector"
    )
    edge = edges[0][0]
    down = foot(work, trial, edge)
    swing = work.swing(trial, work.between(trial, down), "the trial circle")
    spot = corner.at + (mark.at - corner.at) * share
    cut = work.prick(work.through(corner, mark), swing, spot, "the cut on the trial circle")
    if abs(axis.line.offset_of(mark.at)) > work.paper.nothing * 10:
        ray = work.through(trial, cut, "the radius of the trial circle")
        return work.prick(work.parallel(ray, mark, centre), axis, centre, called)
    # On the bisector itself that radius gives nothing: the chord to the trial's touch leads to the
    # touch instead.
    touch = edge.line.foot(centre)
    chord = work.parallel(work.through(cut, down, "the chord of the trial circle"), mark, touch)
    at = work.prick(chord, edge, touch, f"where {called} comes down")
    return work.prick(work.square(edge, at, centre), axis, centre, called)


def _two_points_line(
    work: Work, marks: Sequence[Mark], line: tuple[Edge, Point], centre: Point, called: str
) -> Mark | None:
    """The touch lies as far from where the chord meets the line as the tangent to any circle
    through both points is long (power of a point, Euclid III.36)."""
    edge, touch = line
    first, second = marks
    axis = bisect(work, first, second)
    on = next((mark for mark in marks if abs(mark.at - touch) <= work.paper.nothing), None)
    if on is not None:
        return work.prick(work.square(edge, on, centre), axis, centre, called)
    chord = work.through(first, second)
    turn = chord.line.direction.cross(edge.line.direction)
    if abs(turn) <= DIRECTION:
        third = work.prick(axis, edge, touch, "the touch point")
        return around_three(work, (first, second, third), centre, called)
    along = (edge.line.through - chord.line.through).cross(edge.line.direction) / turn
    meeting = work.prick(chord, edge, chord.line.at(along), "where the chord meets the line")
    half = middle(work, first, second, f"the middle of {first.called} and {second.called}")
    whole = work.swing(half, work.between(half, first), "the circle on the chord")
    length = abs(touch - meeting.at)
    away = abs(half.at - meeting.at)
    radius = abs(first.at - half.at)
    if length <= same(away):
        return None
    base = (half.at - meeting.at).unit
    spot = meeting.at + base * (length**2 / away) + base.normal * (length * radius / away)
    _, reached = tangent_from(work, meeting, whole, spot)
    swing = work.swing(
        meeting, work.between(meeting, reached), "the length of the tangent", near=[touch]
    )
    at = work.prick(swing, edge, touch, "the touch point")
    return work.prick(work.square(edge, at, centre), axis, centre, called)


def _two_points_circle(
    work: Work, marks: Sequence[Mark], ring_: tuple[Round, Point], centre: Point, called: str
) -> Mark | None:
    """Any circle through both points cuts the given one in a chord that meets theirs where the
    common tangent does (radical centre)."""
    round_, touch = ring_
    first, second = marks
    axis = bisect(work, first, second)
    half = (first.at + second.at) * 0.5
    trials = []
    for share in (0.0, 0.4, -0.4, 0.8, -0.8, 1.5, -1.5, 3.0, -3.0):
        spot = half + axis.line.direction * (
            share * (abs(round_.circle.centre - half) + round_.circle.radius)
        )
        cuts = meet(Circle(spot, abs(spot - first.at)), round_.circle)
        if len(cuts) > 1:
            a, b = (cut.point for cut in cuts)
            turn = (b - a).unit.cross((second.at - first.at).unit)
            sine = abs((a - spot).unit.cross((a - round_.circle.centre).unit))
            trials.append((min(abs(turn), sine), spot, a, b))
    best = max(trials, default=None, key=lambda trial: trial[0])
    if best is None or best[0] < SLACK:
        return None
    _, spot, a, b = best
    trial = work.anywhere(axis, spot, "any place on the bisector")
    swing = work.swing(
        trial, work.between(trial, first), "a circle through both points", near=[a, b]
    )
    ends = [work.prick(swing, round_, cut, f"a cut on {round_.called}") for cut in (a, b)]
    chord = work.through(ends[0], ends[1])
    theirs = work.through(first, second)
    along = (chord.line.through - theirs.line.through).cross(
        chord.line.direction
    ) / theirs.line.direction.cross(chord.line.direction)
    meeting = work.prick(chord, theirs, theirs.line.at(along), "where the chords meet")
    _, at = tangent_from(work, meeting, round_, touch)
    middle_ = work.mark(round_.circle.centre)
    return work.prick(work.through(middle_, at, reach=centre), axis, centre, called)


def away(edge: Edge, start: Mark, to: Point) -> Way:
    """Return the way along a drawn line from a mark towards a place."""
    ahead = edge.line.direction.dot(to - start.at) >= 0
    return Way(0 if ahead else 180, edge.key, edge.called)


def ray_to(
    work: Work,
    centre: Mark,
    round_: Round,
    degrees: Number,
    spot: Point,
    called: str,
    label: str = "",
) -> Mark:
    """Mark the place of a circle about a centre that lies in a direction, counted from the
    right."""
    ray = work.draw(centre, Way(degrees), spot)
    return work.prick(ray, round_, spot, called, label=label)


def _is_beside(round_: Round, touch: Point, centre: Point) -> bool:
    """Tell whether a circle about a centre touches another from outside."""
    return (touch - round_.circle.centre).dot(touch - centre) < 0


def _moved_off(
    work: Work, line: tuple[Edge, Point], size: Number, away_: bool, centre: Point
) -> tuple[Edge, Point]:
    """Draw the parallel of a touched line, further from the centre sought or nearer by a radius."""
    edge, touch = line
    across = (touch - centre).unit * (float(size) if away_ else -float(size))
    shown = Line(edge.line.through + across, edge.line.direction, edge.line.start, edge.line.end)
    at = work.place_on(edge, edge.line)
    return off(
        work, edge, at, size, f"{edge.called}, moved by the radius", shown, at.at + across
    ), touch + across


def _two_lines_circle(
    work: Work,
    edges: Sequence[tuple[Edge, Point]],
    ring_: tuple[Round, Point],
    centre: Point,
    called: str,
) -> Mark | None:
    """The circle shrinks to its centre; the lines move by as much, away where it is touched from
    outside."""
    round_, touch = ring_
    beside = _is_beside(round_, touch, centre)
    size = round_.circle.size
    moved = [_moved_off(work, line, size, beside, centre) for line in edges]
    moved = [(edge, edge.line.foot(centre)) for edge, _ in moved]
    middle_ = work.mark(round_.circle.centre)
    return _point_two_lines(work, middle_, moved, centre, called)


def _point_line_circle(
    work: Work,
    mark: Mark,
    line: tuple[Edge, Point],
    ring_: tuple[Round, Point],
    centre: Point,
    called: str,
) -> Mark | None:
    """The ends of the diameter square to the line, its foot and the point give a second point of
    the circle sought, by the power of a point (Euclid III.36); then two points and a line."""
    (edge, _), (round_, touch) = line, ring_
    middle_ = work.mark(round_.circle.centre)
    foot_ = edge.line.foot(middle_.at)
    if abs(foot_ - middle_.at) <= same(round_.circle.radius):
        return None
    ahead = (foot_ - middle_.at).unit * round_.circle.radius
    far, near = middle_.at - ahead, middle_.at + ahead
    if not _is_beside(round_, touch, centre):
        far, near = near, far
    square = work.square(edge, middle_, foot_)
    at = work.prick(square, edge, foot_, f"the foot of {middle_.called} on {edge.called}")
    ends = [
        work.prick(square, round_, spot, "an end of the diameter square to the line")
        for spot in (far, near)
    ]
    around = [meeting.point for meeting in meet(Line.between(far, mark.at), edge.line)]
    power = (foot_ - far).dot(near - far)
    reach = abs(mark.at - far)
    second = far + (mark.at - far) * (power / reach**2)
    if (
        abs(second - mark.at) <= work.paper.nothing
        or abs((near - far).cross(mark.at - far)) <= same(reach)
        or not around
    ):
        return None
    through = circle_through(at.at, ends[1].at, mark.at)
    help_ = around_three(work, (at, ends[1], mark), through, "the centre of the help circle")
    swing = work.swing(help_, work.between(help_, mark), "the help circle", near=[second])
    ray = work.through(ends[0], mark, reach=second)
    other = work.prick(ray, swing, second, "a second point of the circle")
    return _two_points_line(work, (mark, other), line, centre, called)


def circle_through(a: Point, b: Point, c: Point) -> Point:
    """Return the centre of the circle through three points."""
    first, second = b - a, c - a
    turn = 2 * first.cross(second)
    p, q = first.dot(first), second.dot(second)
    return a + Point(second.y * p - first.y * q, first.x * q - second.x * p) * (1 / turn)


def _line_two_circles(
    work: Work,
    line: tuple[Edge, Point],
    rounds: Sequence[tuple[Round, Point]],
    centre: Point,
    called: str,
) -> Mark | None:
    """The smaller circle shrinks to its centre; line and larger circle move by its radius."""
    (small, touch), (large, other) = sorted(rounds, key=lambda pair: pair[0].circle.radius)
    beside = _is_beside(small, touch, centre)
    size = small.circle.size
    moved = _moved_off(work, line, size, beside, centre)
    reach = abs(touch - centre) + (1 if beside else -1) * small.circle.radius
    if reach <= same(large.circle.radius):
        return None
    apart = abs(large.circle.centre - centre)
    outside = _is_beside(large, other, centre)
    left: Number = large.circle.size - size if outside == beside else large.circle.size + size
    if float(left) <= same(large.circle.radius):
        return None
    about = work.mark(large.circle.centre)
    ring_ = work.swing(about, left, f"{large.called}, changed by the radius of {small.called}")
    spot = large.circle.centre + (centre - large.circle.centre) * (float(left) / apart)
    if abs(abs(spot - centre) - reach) > abs(reach) / 2:
        spot = large.circle.centre * 2 - spot
    touching = (moved[0], moved[0].line.foot(centre))
    return _point_line_circle(
        work, work.mark(small.circle.centre), touching, (ring_, spot), centre, called
    )
