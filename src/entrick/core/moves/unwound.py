"""``unwound``: of a polygon, the path of the end of a thread unwound from it: arcs about one corner
after another."""

from __future__ import annotations

import math
from collections.abc import Sequence
from functools import partial

from ..acts import Mark, Work
from ..geometry import Arc, Line, Loop, Point
from ..kind import Args, Kind, Made
from ..kind.parts import run
from ..plan.errors import ClauseError
from ..plan.forms import Form
from ..tolerance import assembled


def construct(args: Args) -> Made:
    """Construct the involute of a polygon: arcs about its corners, each longer by a side.

    Parts: ``arc.1`` …, ``start``, ``end``.

    Notes
    -----
    About every corner the thread turns by the angle by which the side does (definition).
    """
    ring = args.need("of").run("polygon")
    corners = _corners(args, ring)
    turns = args.get("turns")
    count = max(1, round(len(corners) * float(turns.length("turns")))) if turns else len(corners)
    if count > 120:
        raise ClauseError("a thread is unwound over up to 120 corners", args.need("turns").index)
    arcs, length = _arcs(corners, count)
    shape = run(args.name, [(f"arc.{index}", arc) for index, arc in enumerate(arcs, 1)], False)
    return Made(
        shape,
        f"Thread {args.name} unwound from {args.need('of').ref('polygon').text}, over {count} "
        "corners.",
        (
            "radii "
            + ", ".join(args.say(arc.radius) for arc in arcs[:6])
            + (" …" if count > 6 else ""),
            f"{args.say(length)} of thread",
        ),
        parts={
            **{f"arc.{index}": arc for index, arc in enumerate(arcs, 1)},
            "start": arcs[0].first,
            "end": arcs[-1].last,
        },
        draw=partial(_draw, args, corners, arcs),
    )


def _corners(args: Args, ring: Loop) -> list[Point]:
    """Return the corners in the order in which the thread leaves them; the first is where it
    ends."""
    of = args.need("of")
    if not ring.closed or not all(isinstance(piece.curve, Line) for piece in ring.pieces):
        message = f"{of.ref('polygon').text} is no polygon: closed, with straight sides"
        raise ClauseError(message, of.index)
    corners = [piece.entry for piece in ring.pieces]
    turned = [
        (b - a).cross(c - b)
        for a, b, c in zip(corners, _on(corners, 1), _on(corners, 2), strict=True)
    ]
    if min(turned) * max(turned) <= 0:
        raise ClauseError("a thread lies on every corner: none is hollow or flat", of.index)
    if (turned[0] > 0) != (args.get("cw") is not None):
        corners.reverse()
    start = args.get("from")
    if start is None:
        return corners
    spot = start.point("corner")
    near = min(range(len(corners)), key=lambda i: abs(corners[i] - spot))
    if abs(corners[near] - spot) > assembled(abs(spot)):
        raise ClauseError(f"{start.ref('corner').text} is no corner of it", start.index)
    return _on(corners, near)


def _on(corners: Sequence[Point], count: int) -> list[Point]:
    return [*corners[count:], *corners[:count]]


def _arcs(corners: Sequence[Point], count: int) -> tuple[list[Arc], float]:
    """Return the arcs: about the corner before the end of the thread first, then about the one
    before that, so that the thread comes free side by side."""
    found, length = [], 0.0
    total = len(corners)
    spot = corners[0]
    for index in range(1, count + 1):
        centre, before = corners[-index % total], corners[(1 - index) % total]
        ahead = corners[(-index - 1) % total]
        length += abs(before - centre)
        start = (spot - centre).angle
        sweep = ((centre - ahead).angle - start + math.pi) % math.tau - math.pi
        found.append(Arc(centre, length, start, sweep))
        spot = found[-1].last
    return found, length


def _draw(args: Args, corners: Sequence[Point], arcs: Sequence[Arc], work: Work) -> None:
    """Run every side on beyond its corner; swing from one to the next, each time from where the
    last arc ended."""
    name, total = args.need("of").ref("polygon").text, len(corners)
    spot: Mark = work.mark(corners[0], f"a corner of {name}")
    for index, arc in enumerate(arcs, 1):
        centre = work.mark(arc.centre, f"a corner of {name}")
        ahead = work.mark(corners[(-index - 1) % total], f"a corner of {name}")
        side = work.through(ahead, centre, f"a side of {name}", reach=arc.last)
        swing = work.swing(
            centre,
            work.between(centre, spot),
            f"{args.name}.arc.{index}",
            shape=arc,
            check="it runs into the one before on the side run on" if index > 1 else "",
        )
        spot = work.prick(swing, side, arc.last, f"{args.name}.{index}", label=str(index))


ABOUT = """\
The involute of a polygon: a thread unwound from it, `from` one of its corners (its first where
none is said), `ccw` (usual) or `cw`, once round or so many `turns`. True arcs about its corners,
each longer by a side. Parts `arc.1` and so on, `start`, `end`.
"""

SHOWN = """\
units mm
O = datum
nut = polygon, 6 sides, centred on O, side 14
thread = unwound, of nut, from nut.corner.1
"""

KIND = Kind(
    name="unwound",
    group="Curves",
    summary="of a polygon: the path of a thread unwound from it, by arcs",
    example="thread = unwound, of nut, from nut.corner.1",
    mistake="The compass is opened by one side every time instead of by one side more.",
    also=("involute of a polygon", "involute of a square", "unwound thread"),
    forms=(
        Form("of {polygon:run}", needed=True),
        Form("from {corner:point}", "from"),
        Form("{turns:length} turns", "turns"),
        Form("cw"),
        Form("ccw"),
    ),
    construct=construct,
    about=ABOUT,
    shown=SHOWN,
)
