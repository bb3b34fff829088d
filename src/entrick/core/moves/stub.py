"""``stub``: isometric, a cylinder stepped on a cylinder, its end flat or rounded."""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass
from functools import partial

from ..acts import Work
from ..acts.copies import laid_off
from ..geometry import Arc, Circle, Line, Loop, Point, shift
from ..geometry.isometric import AXES, FORESHORTENED
from ..geometry.partial import between, places_on
from ..geometry.shapes import Curve
from ..geometry.silhouette import Swept, swept
from ..kind import Args, Kind, Made
from ..kind.parts import curve_run
from ..measure import Number
from ..plan.errors import ClauseError
from ..plan.forms import Form
from .round_end import PLANE_OF, counter_clockwise, draw_axis, draw_edges, draw_round, end_on


@dataclass(frozen=True)
class _Stub:
    """A stub as it is drawn: its places along the axis, the rings of its ends, what is seen of both
    cylinders."""

    foot: Point
    shoulder: Point
    tip: Point
    ring: Loop
    end: Loop
    body: Swept
    neck: Swept
    cap: Arc | None

    @property
    def axis(self) -> Line:
        return Line.between(self.foot, self.tip)

    @property
    def wide(self) -> float:
        """Width of the smaller cylinder as drawn."""
        return abs(self.neck.touches[0] - self.neck.touches[1])


def construct(args: Args) -> Made:
    """Construct a cylinder with a smaller one on the end that is seen, on the same axis.

    Parts: ``rim`` (what the smaller one leaves to be seen of the shoulder), ``edge.1``, ``edge.2``,
    ``far`` and ``hidden`` of the larger one; ``edge.3``, ``edge.4``, ``seam`` (where it stands on
    the shoulder) and ``end`` of the smaller one, or ``round`` where its end is rounded; ``axis``,
    ``middle`` (of the shoulder), ``tip``.

    Notes
    -----
    A ball of diameter d is seen as a circle of diameter √(3/2)·d in isometric drawing (drawn at
    full length along the axes, 1/√(2/3)). Between four-centre ends its round is drawn as wide as
    they are, so that it runs into the edges."""
    stub = _read(args)
    large, long, small, step = (args.need(key).length(slot).value for key, slot in _SIZES)
    parts = _parts(args, stub)
    return Made(
        curve_run(f"{args.name}.outline", stub.body.outline),
        f"Stub {args.name} from {args.need('from').ref('foot').text}, Ø{args.say(large)} × "
        f"{args.say(long)}, "
        f"then Ø{args.say(small)} × {args.say(step)}{', rounded' if stub.cap else ''}, "
        f"{_along(args)}.",
        tuple(_working(args, stub)),
        parts=parts,
        draw=partial(_draw, args, stub),
    )


_SIZES = (
    ("diameter", "size"),
    ("length", "length"),
    ("step_diameter", "size"),
    ("step_length", "length"),
)
"""Clauses and their places: diameter and length of the larger cylinder, then of the smaller one."""


def _along(args: Args) -> str:
    return args.need("along").word("axis") if args.get("along") else "up"


def _scale(args: Args) -> float:
    return FORESHORTENED if args.foreshortened else 1.0


def _read(args: Args) -> _Stub:
    foot, word, scale = args.need("from").point("foot"), _along(args), _scale(args)
    large, long, small, step = (float(args.need(key).length(slot)) for key, slot in _SIZES)
    if long <= 0 or step <= 0:
        raise ClauseError(
            "both cylinders are more than nought long", args.need("length", "step_length").index
        )
    if not 0 < small < large:
        message = (
            "the step is narrower than the "
            f"{args.say(args.need('diameter').length('size').value)} it stands on"
        )
        raise ClauseError(message, args.need("step_diameter").index)
    # The larger one grows from the foot towards the eye: upright ones upwards, slanted ones down
    # their axis.
    towards = AXES[word] if word == "up" else -AXES[word]
    shoulder, tip = foot + towards * (long * scale), foot + towards * ((long + step) * scale)
    plane, true = PLANE_OF[word], args.get("true") is not None
    ring = end_on(f"{args.name}.shoulder", shoulder, large * scale, plane, true)
    end = end_on(f"{args.name}.end", tip, small * scale, plane, true)
    body = swept(counter_clockwise(ring), foot - shoulder)
    neck = swept(counter_clockwise(end), shoulder - tip)
    cap = _cap(neck, tip, towards) if args.get("rounded") else None
    return _Stub(foot, shoulder, tip, ring, end, body, neck, cap)


def _cap(neck: Swept, tip: Point, towards: Point) -> Arc:
    """Return the round end: half a circle from edge to edge, bulging away from the shoulder."""
    first, last = neck.touches
    cap = Arc.between(Circle((first + last) * 0.5, abs(first - last) / 2), first, last)
    return (
        cap
        if (cap.middle - tip).dot(towards) >= 0
        else Arc(cap.centre, cap.radius, cap.start, -cap.sweep)
    )


def _parts(args: Args, stub: _Stub) -> dict[str, Point | Curve | Loop]:
    body, neck, cap = stub.body, stub.neck, stub.cap
    outline = curve_run(f"{args.name}.neck", _with_cap(neck.outline, cap) if cap else neck.outline)
    return {
        "rim": _left_of(stub.ring, outline),
        "shoulder": stub.ring,
        "seam": curve_run(f"{args.name}.seam", neck.far, closed=False),
        "far": curve_run(f"{args.name}.far", body.far, closed=False),
        "hidden": curve_run(f"{args.name}.hidden", body.hidden, closed=False),
        "edge.1": body.edges[0],
        "edge.2": body.edges[1],
        "edge.3": neck.edges[0],
        "edge.4": neck.edges[1],
        "touch.1": body.touches[0],
        "touch.2": body.touches[1],
        "touch.3": neck.touches[0],
        "touch.4": neck.touches[1],
        "axis": stub.axis,
        "middle": stub.shoulder,
        "tip": stub.tip,
        "foot": stub.foot,
        "neck": outline,
        **({"round": cap} if cap else {"end": stub.end}),
    }


def _working(args: Args, stub: _Stub) -> Iterator[str]:
    large, small = (args.need(key).length("size").value for key in ("diameter", "step_diameter"))
    wide = args.say((large - small) / 2)
    yield f"shoulder ({args.say(large)} − {args.say(small)}) ÷ 2 = {wide} wide all round"
    if stub.cap:
        drawn = float(small) * _scale(args)
        ball = drawn * math.sqrt(1.5)
        yield (
            f"a ball of {args.say(small)} shows as a circle √1.5 × {args.say(drawn)} = "
            f"{args.say(ball)} across"
        )
        if not args.get("true"):
            yield (
                f"drawn {args.say(stub.wide)} across, as wide as the four-centre end: "
                f"{args.say(ball - stub.wide)} "
                "narrower, so that it runs into the edges"
            )


def _draw(args: Args, stub: _Stub, work: Work) -> None:
    """Draw the axis, the larger cylinder from its shoulder back, the smaller one from its end back
    to the shoulder."""
    foot, name, word = (
        work.mark(stub.foot, args.need("from").ref("foot").text),
        args.name,
        _along(args),
    )
    large, long, small, step = (args.need(key).length(slot).value for key, slot in _SIZES)
    scale: Number = _scale(args) if args.foreshortened else 1
    plane, true = PLANE_OF[word], args.get("true") is not None
    shoulder = draw_axis(
        work, foot, word, long * scale, stub.shoulder, name, f"the middle of the shoulder of {name}"
    )
    tip = draw_axis(work, foot, word, (long + step) * scale, stub.tip, name, f"{name}.tip")
    axis = work.through(foot, tip)
    for middle, back, ring, size, view in (
        (shoulder, foot, stub.ring, large, stub.body),
        (tip, shoulder, stub.end, small, stub.neck),
    ):
        called, by = ring.pieces[0].name.rpartition(".")[0], back.at - middle.at
        draw_round(work, middle, size * scale, plane, called, true)
        laid_off(
            work, ring, shift(ring, by), "shift", middle, back, called=f"{called}, carried back"
        )
        draw_edges(
            work,
            middle,
            size * scale,
            plane,
            called,
            true,
            view.touches,
            axis,
            (view.touches[0] + by, view.touches[1] + by),
        )
    if stub.cap is not None:
        ends = [work.mark(spot) for spot in stub.neck.touches]
        needle = work.prick(
            work.through(ends[0], ends[1], "the long axis of the end"),
            axis,
            stub.cap.centre,
            f"the middle of the round end of {name}",
        )
        work.swing(
            needle,
            work.between(needle, ends[0]),
            f"{name}.round",
            shape=stub.cap,
            check="what it hides of the shoulder is not gone over",
        )


def _with_cap(outline: tuple[Line | Arc, ...], cap: Arc) -> tuple[Line | Arc, ...]:
    """Return an outline whose near end, the curves up to its first straight edge, is the cap
    instead."""
    first = next(index for index, curve in enumerate(outline) if isinstance(curve, Line))
    return (cap, *outline[first:])


def _left_of(ring: Loop, cover: Loop) -> Loop:
    """Return what of a closed run is seen when an outline lies over part of it."""
    spots = places_on(ring, [piece.curve for piece in cover.pieces])
    if len(spots) < 2:
        return ring
    parts = (between(ring, spots[0], spots[1]), between(ring, spots[1], spots[0]))
    return next(part for part in parts if not cover.encloses(_halfway(part)))


def _halfway(part: Loop) -> Point:
    piece = max(part.pieces, key=lambda one: one.length)
    return piece.curve.middle if isinstance(piece.curve, Arc) else (piece.entry + piece.exit) * 0.5


ABOUT = """\
A cylinder with a smaller one on the end that is seen. It grows from its foot towards the eye:
`up`, or down the axis to the `right` or `left`. `rounded` ends it in half a ball. Parts `rim`
(the shoulder, as far as it is seen), `seam`, `end` or `round`, `edge.1` to `edge.4`, `far`,
`hidden`, `axis`, `middle`, `tip`.
"""

SHOWN = """\
units mm
O = datum
stud = stub, from O, diameter 50, length 24, step diameter 30, step length 30, along up, rounded
rim = line in, stud.rim, open
seam = line in, stud.seam, open
top = line in, stud.edge.3 > stud.round > stud.edge.4, open
"""

KIND = Kind(
    name="stub",
    group="Isometric",
    summary="isometric, a cylinder stepped on a cylinder, flat or rounded",
    example="stud = stub, from P, diameter 40, length 20, step diameter 24, step length 30, along "
    "up, rounded",
    mistake="The rim is gone over behind the smaller cylinder, which hides it.",
    also=("stepped shaft", "spigot"),
    forms=(
        Form("from {foot:point}", needed=True),
        Form("diameter {size:diameter}", needed=True),
        Form("length {length:length}", needed=True),
        Form("step diameter {size:diameter}", "step_diameter", needed=True),
        Form("step length {length:length}", "step_length", needed=True),
        Form("along {axis:up/right/left}"),
        Form("rounded"),
        Form("true"),
        Form("projection"),
    ),
    construct=construct,
    about=ABOUT,
    shown=SHOWN,
)
