"""``isometric block``: a plate on the top, left or right plane, its corners rounded, so thick
behind its face."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from functools import partial

from ..acts import Way, Work
from ..acts.copies import laid_off
from ..acts.procedures import away
from ..geometry import Arc, Line, Loop, Point, shift
from ..geometry.isometric import AXES, FORESHORTENED, PLANES, SQUARE, rhombus
from ..geometry.shapes import Curve
from ..geometry.silhouette import Swept, swept
from ..kind import Args, Kind, Made
from ..kind.parts import curve_run, run
from ..measure import Number
from ..plan.errors import ClauseError
from ..plan.forms import Form
from ..tolerance import ROUND
from .round_end import DEGREES, IN_PLANE, counter_clockwise, touch_on_line


@dataclass(frozen=True)
class _Block:
    """A block as it is drawn: its face from the lower left corner on, how far it goes back, what is
    seen of it."""

    middle: Point
    plane: str
    axes: tuple[Point, Point]
    corners: tuple[Point, ...]
    sides: tuple[tuple[str, Curve], ...]
    back: Point

    @property
    def rounds(self) -> tuple[Arc, ...]:
        return tuple(curve for _, curve in self.sides if isinstance(curve, Arc))


def construct(args: Args) -> Made:
    """Construct a block from the middle of the face that is seen.

    Parts: ``face`` (closed), ``outline``, ``near``, ``far``, ``hidden``, ``edge.1``, ``edge.2``,
    ``middle``, the square ``corner.1`` … and where the rounds begin, ``touch.1`` ….

    Notes
    -----
    A rounded corner is a quarter of an isometric circle whose centre is set in by the radius along
    both edges: by the rhombus its quarter at a sharp corner is the small arc, at a blunt one the
    large arc."""
    block = _read(args)
    face = run(f"{args.name}.face", block.sides, True)
    view = swept(counter_clockwise(face), block.back)
    outline = curve_run(f"{args.name}.outline", view.outline)
    size, thick = args.need("size"), args.need("thick").length("thick")
    return Made(
        outline,
        f"Isometric block {args.name} about {args.need('centred').ref('centre').text} on the "
        f"{block.plane} plane, "
        f"{args.say(size.length('width').value)} by {args.say(size.length('height').value)}, "
        f"{args.say(thick.value)} thick.",
        _working(args, block.rounds),
        parts=_parts(args, block, face, view, outline),
        draw=partial(_draw, args, block, face, view),
    )


def _read(args: Args) -> _Block:
    middle, plane = args.need("centred").point("centre"), args.need("plane").word("plane")
    size, thick, rounded = (
        args.need("size"),
        args.need("thick").length("thick"),
        args.get("rounded"),
    )
    scale = FORESHORTENED if args.foreshortened else 1.0
    width, height = float(size.length("width")) * scale, float(size.length("height")) * scale
    radius = float(rounded.length("radius")) * scale if rounded else 0.0
    if min(width, height, float(thick)) <= 0:
        raise ClauseError("a block is more than nought each way", size.index)
    if rounded and not 0 < 2 * radius <= min(width, height):
        raise ClauseError("the rounds of a block are at most half its shorter edge", rounded.index)
    u, v = PLANES[plane]
    if u.cross(v) < 0:
        u, v = v, u
        width, height = height, width
    corners = tuple(
        middle + u * (width / 2 * i) + v * (height / 2 * j)
        for i, j in ((-1, -1), (1, -1), (1, 1), (-1, 1))
    )
    back = SQUARE[plane] * ((-1.0 if plane == "top" else 1.0) * float(thick) * scale)
    sides = tuple(_sides(corners, (u, v), radius, plane, ROUND * (width + height)))
    return _Block(middle, plane, (u, v), corners, sides, back)


def _sides(
    corners: Sequence[Point], axes: tuple[Point, Point], radius: float, plane: str, least: float
) -> Iterator[tuple[str, Curve]]:
    """Return the rounds and edges of the face in order; edges that the rounds leave nothing of are
    left out."""
    u, v = axes
    inward = [(u, v), (v, -u), (-u, -v), (-v, u)]
    for index, (corner, (along, back)) in enumerate(zip(corners, inward, strict=True)):
        if radius:
            yield f"round{index + 1}", _round(corner, along, back, radius, plane)
        start, end = corner + along * radius, corners[(index + 1) % 4] - along * radius
        if abs(end - start) > least:
            yield f"side{index + 1}", Line.between(start, end)


def _parts(
    args: Args, block: _Block, face: Loop, view: Swept, outline: Loop
) -> dict[str, Point | Curve | Loop]:
    touches = [end for arc in block.rounds for end in (arc.first, arc.last)]
    stretches = {"near": view.near, "far": view.far, "hidden": view.hidden}
    return {
        "face": face,
        "outline": outline,
        **{
            word: curve_run(f"{args.name}.{word}", curves, closed=False)
            for word, curves in stretches.items()
        },
        "edge.1": view.edges[0],
        "edge.2": view.edges[1],
        "middle": block.middle,
        **{f"corner.{index}": corner for index, corner in enumerate(block.corners, 1)},
        **{f"touch.{index}": touch for index, touch in enumerate(touches, 1)},
    }


def _working(args: Args, rounds: Sequence[Arc]) -> tuple[str, ...]:
    if not rounds:
        return ()
    large, small = max(arc.radius for arc in rounds), min(arc.radius for arc in rounds)
    return (
        f"rounds: large R{args.say(large)} at blunt corners, small R{args.say(small)} at sharp "
        "ones",
    )


def _draw(args: Args, block: _Block, face: Loop, view: Swept, work: Work) -> None:
    """Draw the face by half its sizes each way along its axes, round its corners, carry it back by
    the thickness."""
    clause, size, name = args.need("centred"), args.need("size"), args.name
    scale: Number = FORESHORTENED if args.foreshortened else 1
    middle = work.mark(block.middle, clause.ref("centre").text)
    u, v = PLANES[block.plane]
    halves = {
        "width": size.length("width").value * scale / 2,
        "height": size.length("height").value * scale / 2,
    }
    axes, sides = {}, {}
    for slot, vector in (("width", u), ("height", v)):
        word = next(word for word, each in AXES.items() if abs(each - vector) < ROUND)
        reach = vector * float(halves[slot])
        axes[slot] = work.draw(
            middle,
            Way(DEGREES[word]),
            called=f"the {word} axis of {name}",
            shown=Line.between(block.middle - reach, block.middle + reach),
        )
        for sign in (1, -1):
            spot = block.middle + reach * sign
            sides[slot, sign] = work.measure(
                middle,
                away(axes[slot], middle, spot),
                halves[slot],
                f"the middle of a side of {name}",
                spot,
            )
    lines = {
        (slot, sign): work.parallel(axes["height" if slot == "width" else "width"], mark)
        for (slot, sign), mark in sides.items()
    }
    for number, corner in enumerate(block.corners, 1):
        pair = [
            line for line in lines.values() if abs(line.line.offset_of(corner)) < work.paper.nothing
        ]
        work.prick(pair[0], pair[1], corner, f"{name}.corner.{number}")
    _draw_rounds(args, block, work)
    back = work.draw(
        middle, Way(DEGREES[_third(block.plane)]), block.middle + block.back, f"the depth of {name}"
    )
    behind = work.measure(
        middle,
        away(back, middle, block.middle + block.back),
        args.need("thick").length("thick").value * scale,
        f"the middle of the back of {name}",
        block.middle + block.back,
    )
    laid_off(
        work, face, shift(face, block.back), "shift", middle, behind, called=f"the back of {name}"
    )
    for number, (touch, edge) in enumerate(zip(view.touches, view.edges, strict=True), 1):
        arc = next(
            (a for a in block.rounds if abs(abs(touch - a.centre) - a.radius) < work.paper.nothing),
            None,
        )
        if arc is not None and not work.has_mark(touch):
            needle, ring = work.mark(arc.centre), work.round(arc)
            touch_on_line(work, needle, ring, back, touch, f"where edge {number} touches")
        mark, end = work.mark(touch), edge.at(edge.end or 0.0)
        line = work.parallel(
            back,
            mark,
            end,
            f"{name}.edge.{number}",
            check="the edges touch the rounds, they do not start from the square corners",
        )
        work.measure(
            mark,
            away(line, mark, end),
            args.need("thick").length("thick").value * scale,
            f"the far end of edge {number}",
            end,
        )


def _draw_rounds(args: Args, block: _Block, work: Work) -> None:
    """Set the radius off from the corner along both edges; the squares there cross in the centre of
    the round."""
    rounded = args.get("rounded")
    if rounded is None:
        return
    size = rounded.length("radius").value * (FORESHORTENED if args.foreshortened else 1)
    for number, (corner, arc) in enumerate(zip(block.corners, block.rounds, strict=True), 1):
        mark, squares, ends = work.mark(corner), [], []
        for spot in (arc.first, arc.last):
            edge = work.edge(Line.between(corner, spot))
            end = work.measure(
                mark, away(edge, mark, spot), size, f"{args.name}.touch of round {number}", spot
            )
            ends.append(end)
            squares.append(work.square(edge, end, arc.centre))
        needle = work.prick(
            squares[0], squares[1], arc.centre, f"the centre of round {number} of {args.name}"
        )
        work.swing(
            needle, work.between(needle, ends[0]), f"{args.name}.face.round{number}", shape=arc
        )


def _third(plane: str) -> str:
    return ({"right", "left", "up"} - set(IN_PLANE[plane])).pop()


def _round(corner: Point, along: Point, back: Point, radius: float, plane: str) -> Arc:
    """Return the quarter of an isometric circle in a corner, counter-clockwise from the edge that
    comes in."""
    centre = corner + (along + back) * radius
    wanted = (corner + back * radius, corner + along * radius)
    quarters = [
        arc if arc.sweep > 0 else Arc(arc.centre, arc.radius, arc.start + arc.sweep, -arc.sweep)
        for arc in rhombus(centre, 2 * radius, plane).arcs
    ]
    return min(quarters, key=lambda arc: abs(arc.first - wanted[0]) + abs(arc.last - wanted[1]))


ABOUT = """\
A plate on the `top`, `left` or `right` plane, centred on a point of its face, so `thick` behind
it, its corners `rounded`. Parts `face`, `outline`, `near`, `far`, `hidden`, `edge.1`, `edge.2`,
`corner.1` and so on, `touch.1` and so on.
"""

SHOWN = """\
units mm
O = datum
lock = isometric block, centred on O, 60 by 40, on right, thick 22, rounded 8
rim = line in, lock
front = line in, lock.near, open
"""

KIND = Kind(
    name="isometric block",
    group="Isometric",
    summary="a plate on any plane, its corners rounded, so thick",
    example="lock = isometric block, centred on P, 60 by 40, on right, thick 22, rounded 8",
    mistake="The round is set in along one edge only, or drawn with the circle's own radius.",
    also=("plate", "slab"),
    forms=(
        Form("centred on {centre:point}", "centred", needed=True),
        Form("{width:length} by {height:length}", "size", needed=True),
        Form("on {plane:top/left/right} [plane]", "plane", needed=True),
        Form("thick {thick:length}", needed=True),
        Form("rounded {radius:length}", "rounded"),
        Form("projection"),
    ),
    construct=construct,
    about=ABOUT,
    shown=SHOWN,
)
