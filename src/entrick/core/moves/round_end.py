"""What isometric kinds have in common that are round at their ends; no kind of its own."""

from __future__ import annotations

import math

from ..acts import Edge, Mark, Round, Way, Work
from ..acts.focal import foci_of
from ..acts.procedures import away, tangent_from
from ..geometry import Arc, Circle, Line, Loop, Point
from ..geometry.isometric import PLANES, rhombus, true_ellipse
from ..geometry.loop import nearest_place
from ..kind.parts import curve_run, run
from ..measure import Number

PLANE_OF = {"up": "top", "right": "left", "left": "right"}
"""The plane a cylinder along an axis has its ends on."""

DEGREES = {"right": 30, "left": 150, "up": 90}
"""Directions of the isometric axes, degrees from the right."""

IN_PLANE = {"top": ("right", "left"), "right": ("right", "up"), "left": ("left", "up")}
"""The two axes each plane contains."""

STATIONS = 3
"""Places constructed between the middle and the end of a half axis of a true isometric circle."""


def end_on(owner: str, centre: Point, size: float, plane: str, true: bool) -> Loop:
    """Return the end of something round on an isometric plane: the true ellipse, or by four
    centres."""
    if true:
        ellipse = true_ellipse(centre, size, plane)
        return curve_run(owner, ellipse.drawn(), ellipse)
    four = rhombus(centre, size, plane)
    return run(owner, [(f"arc{i}", arc) for i, arc in enumerate(four.arcs, 1)], True)


def counter_clockwise(ring: Loop) -> list[Line | Arc]:
    """Return the curves of a closed run, walked counter-clockwise."""
    turned = ring if ring.area > 0 else ring.reversed
    return [piece.curve for piece in turned.pieces if isinstance(piece.curve, Line | Arc)]


def draw_axis(
    work: Work, start: Mark, word: str, size: Number, end: Point, name: str, called: str
) -> Mark:
    """Draw an isometric axis from a mark, and set a length off on it."""
    degrees = DEGREES[word] + (180 if (end - start.at).dot(_along(word)) < 0 else 0)
    axis = work.draw(start, Way(degrees), end, f"the axis of {name}")
    return work.measure(start, away(axis, start, end), size if size >= 0 else -size, called, end)


def _along(word: str) -> Point:
    turn = math.radians(DEGREES[word])
    return Point(math.cos(turn), math.sin(turn))


def draw_touches(
    work: Work, centre: Mark, size: Number, plane: str, name: str
) -> tuple[tuple[Edge, Edge], list[Mark]]:
    """Draw the two axes of an isometric circle and set half the diameter off each way: there it
    touches its rhombus.

    Returns
    -------
    axes : two Edges
    marks : list of Mark
        Along the first axis, against the second, against the first, along the second, as
        `isometric.rhombus` has them.
    """
    four = rhombus(centre.at, float(size), plane)
    axes, marks = [], {}
    for word, vector in zip(IN_PLANE[plane], PLANES[plane], strict=True):
        reach = vector * (float(size) * 0.6)
        shown = Line.between(centre.at - reach, centre.at + reach)
        axis = work.draw(
            centre, Way(DEGREES[word]), called=f"the {word} axis of {name}", shown=shown
        )
        axes.append(axis)
        for index, spot in enumerate(four.touches):
            if abs(axis.line.offset_of(spot)) < work.paper.nothing and index not in marks:
                marks[index] = work.measure(
                    centre, away(axis, centre, spot), size / 2, f"{name}.touch.{index + 1}", spot
                )
    return (axes[0], axes[1]), [marks[index] for index in range(4)]


def draw_round(work: Work, centre: Mark, size: Number, plane: str, name: str, true: bool) -> None:
    """Construct an isometric circle about a mark: by its rhombus and four centres, or by points of
    the true curve."""
    axes, touches = draw_touches(work, centre, size, plane, name)
    if true:
        _by_points(work, centre, size, plane, name, axes, touches)
        return
    four = rhombus(centre.at, float(size), plane)
    sides = [
        work.parallel(axes[1] if index % 2 == 0 else axes[0], mark)
        for index, mark in enumerate(touches)
    ]
    # Corner k of the rhombus lies between the touches k − 1 and k.
    corners = [
        work.prick(
            sides[index - 1],
            sides[index],
            four.corners[index],
            f"corner {index + 1} of the rhombus",
        )
        for index in (0, 2)
    ]
    lines = [work.through(corners[k], touches[j]) for k, j in ((0, 1), (0, 2), (1, 3), (1, 0))]
    needles = {
        0: work.prick(lines[0], lines[3], four.arcs[0].centre, f"the first small centre of {name}"),
        2: work.prick(
            lines[1], lines[2], four.arcs[2].centre, f"the second small centre of {name}"
        ),
        1: corners[0],
        3: corners[1],
    }
    for index in (1, 3, 0, 2):
        arc = four.arcs[index]
        work.swing(
            needles[index],
            work.between(needles[index], touches[index]),
            f"{name}.arc{index + 1}",
            shape=arc,
            check="it runs into the next without a corner",
        )


def _by_points(
    work: Work,
    centre: Mark,
    size: Number,
    plane: str,
    name: str,
    axes: tuple[Edge, Edge],
    touches: list[Mark],
) -> None:
    """Turn the ordinates of the circle itself into the direction of the other axis."""
    ring = work.swing(centre, size / 2, f"the circle of {name} itself")
    first, second = axes
    ellipse = true_ellipse(centre.at, float(size), plane)
    found = [(_turn(ellipse.major, ellipse.across, mark.at - centre.at), mark) for mark in touches]
    for index in range(-STATIONS, STATIONS + 1):
        share = index / (STATIONS + 1)
        ordinate = float(size) / 2 * math.sqrt(1 - share**2)
        if index == 0:
            continue
        spot = centre.at + first.line.direction * (float(size) / 2 * share)
        called = f"part {index} of the axis of {name}"
        reach = size / 2 * abs(index) / (STATIONS + 1)
        place = work.measure(centre, away(first, centre, spot), reach, called, spot)
        for side in (1, -1):
            high = spot + first.line.direction.normal * (ordinate * side)
            square = work.square(first, place, high)
            cut = work.prick(square, ring, high, "the ordinate of the circle")
            at = spot + second.line.direction * (ordinate * side)
            leaning = work.parallel(second, place, at)
            swing = work.swing(place, work.between(place, cut), near=[at])
            mark = work.prick(leaning, swing, at, f"a place of {name}")
            found.append((_turn(ellipse.major, ellipse.across, at - centre.at), mark))
    marks = [mark for _, mark in sorted(found, key=lambda pair: pair[0])]
    work.trace(marks, curve_run(name, ellipse.drawn(), ellipse), name)


def _turn(major: Point, across: Point, off: Point) -> float:
    return (
        math.atan2(off.dot(across) / abs(across) ** 2, off.dot(major) / abs(major) ** 2) % math.tau
    )


def draw_ellipse_axes(work: Work, centre: Mark, size: Number, plane: str, name: str) -> None:
    """Set off both half axes of the true ellipse, as they were worked out, square to and along the
    third axis."""
    ellipse = true_ellipse(centre.at, float(size), plane)
    third = ({"right", "left", "up"} - set(IN_PLANE[plane])).pop()
    short = work.draw(
        centre, Way(DEGREES[third]), centre.at + ellipse.across, f"the short axis of {name}"
    )
    long = work.square(short, centre, centre.at + ellipse.major, f"the long axis of {name}")
    for axis, half in ((short, ellipse.across), (long, ellipse.major)):
        for side in (1, -1):
            spot = centre.at + half * side
            work.measure(
                centre, away(axis, centre, spot), abs(half), f"an end of an axis of {name}", spot
            )


def draw_edges(  # noqa: PLR0913
    work: Work,
    centre: Mark,
    size: Number,
    plane: str,
    name: str,
    true: bool,
    touches: tuple[Point, Point],
    along: Edge,
    ends: tuple[Point, Point],
) -> None:
    """Draw the edges along an axis that touch an end: at the ends of its long axis."""
    if true:
        draw_ellipse_axes(work, centre, size, plane, name)
    for number, (touch, end) in enumerate(zip(touches, ends, strict=True), 1):
        if not true:
            arc = _nearest_arc(centre, size, plane, touch)
            needle, ring = work.mark(arc.centre), work.round(arc)
            touch_on_line(work, needle, ring, along, touch, f"where edge {number} touches {name}")
        mark = work.mark(touch)
        edge = work.parallel(
            along, mark, end, f"the edge of {name}", check="it runs on without a corner"
        )
        work.measure(
            mark, away(edge, mark, end), abs(end - touch), f"the far end of edge {number}", end
        )


def touch_on_line(
    work: Work, needle: Mark, ring: Round, along: Edge, touch: Point, called: str
) -> Mark:
    """Mark where a line in a direction touches an arc: on the square to it through the arc's
    centre."""
    square = work.square(along, needle, touch)
    return work.prick(square, ring, touch, called)


def _nearest_arc(centre: Mark, size: Number, plane: str, spot: Point) -> Arc:
    """Return the arc of a four-centre circle that a place lies on."""
    arcs = rhombus(centre.at, float(size), plane).arcs
    return min(arcs, key=lambda arc: abs(nearest_place(arc, spot) - spot))


def draw_tangents(  # noqa: PLR0913
    work: Work,
    apex: Mark,
    centre: Mark,
    size: Number,
    plane: str,
    name: str,
    true: bool,
    touches: list[Point],
    called: list[str],
) -> None:
    """Draw the two lines from a mark that touch an isometric circle, and mark where."""
    if true:
        draw_ellipse_axes(work, centre, size, plane, name)
        ellipse = true_ellipse(centre.at, float(size), plane)
        second, first = foci_of(work, ellipse, name)
        whole = work.between(
            *(work.mark(ellipse.centre + ellipse.major * side) for side in (1, -1))
        )
        for touch, edge in zip(touches, called, strict=True):
            mirror = first.at + (touch - first.at).unit * (2 * ellipse.a)
            ring = work.swing(
                first, whole, near=[mirror], told="the whole long axis from one focus"
            )
            swing = work.swing(apex, work.between(apex, second), near=[mirror])
            image = work.prick(ring, swing, mirror, "the image of the focus")
            ray = work.through(first, image, "the line to the image")
            # The tangent halves the way from the focus to its image squarely: it goes through the
            # apex.
            half = work.through(second, image)
            drawn = work.square(half, apex, touch, edge)
            work.prick(ray, drawn, touch, f"where {edge} touches")
        return
    for touch, edge in zip(touches, called, strict=True):
        arc = _nearest_arc(centre, size, plane, touch)
        tangent_from(
            work,
            apex,
            work.round(Circle(arc.centre, arc.radius, arc.exact)),
            touch,
            edge,
            f"where {edge} touches",
        )
